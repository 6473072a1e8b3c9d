import { useState } from "react";
import type { PlacedPrepTask, RunTaskView, RunView } from "../../../api";
import { useOverview } from "../../../app/Header";
import { useWords } from "../../../app/i18n";
import { Drawer } from "../../../ui/Drawer";
import { Failed, lacking, Loading } from "../../../ui/states";
import { lengthOf, timeAt } from "../clock";
import { GoesIn, useLinesIn } from "../GoesIn";
import { Lanes } from "../Lanes";
import { dishOf } from "../say";
import { Done } from "./Done";
import { NowCards } from "./NowCards";
import { Next } from "./Next";
import { RunEnd } from "./RunEnd";
import { Timers } from "./Timers";
import { useAwake } from "./useAwake";
import { asked, useNow, useRun, useRunActs } from "./useRun";

/** A task with where it stands. */
export interface Standing {
  placed: PlacedPrepTask;
  state: RunTaskView;
}

export type Acts = ReturnType<typeof useRunActs>;

const standingsOf = (run: RunView): Standing[] =>
  run.laid.tasks.flatMap((placed) => {
    const state = run.tasks.find(({ id }) => id === placed.task.id);
    return state ? [{ placed, state }] : [];
  });

/** A prep day as it happens: what hands do now, what stands by itself and for how long, what comes next. */
export function RunPage({ day }: { day: string }) {
  const query = useRun(day);
  const failed = lacking(query);
  if (failed) return <Failed {...failed} />;
  return query.data ? <Running run={query.data} askedAt={query.dataUpdatedAt} /> : <Loading />;
}

const meKept = "tern.cook.me";

function Running({ run, askedAt }: { run: RunView; askedAt: number }) {
  const { t } = useWords("cook");
  const now = useNow(run, askedAt);
  const acts = useRunActs(run.day);
  const isAwake = useAwake(run.endedAt === null);
  const isClockPlayed = useOverview()?.isClockPlayed ?? false;
  const cooks = run.laid.lanes.filter(({ kind }) => kind === null);
  const [kept, setKept] = useState(() => Number(localStorage.getItem(meKept) ?? "-1"));
  const me = cooks.length > 1 && cooks.some(({ number }) => number === kept) ? kept : null;
  const [open, setOpen] = useState<{ batch: string; lines: number[] } | null>(null);
  const all = standingsOf(run);
  const waiting = all.filter(({ state }) => state.state === "waiting");
  if (run.endedAt !== null)
    return (
      <div className="space-y-4 p-4">
        <RunEnd run={run} acts={acts} />
      </div>
    );
  const chosen = open && dishOf(run.batches, open.batch);
  return (
    <div className="space-y-5 p-4">
      <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1">
        <p>
          <span className="font-title text-xl font-bold">
            {t("run.doneAt", { time: timeAt(run.laid.begins, run.laid.end) })}
          </span>{" "}
          <span className="text-soft">
            <Apart minutes={run.laid.end - run.plannedEnd} /> · {t("run.left", { count: waiting.length })}
          </span>
        </p>
        {cooks.length > 1 && (
          <div role="group" aria-label={t("run.whose")} className="flex flex-wrap gap-1">
            {[null, ...cooks.map(({ number }) => number)].map((number) => (
              <button
                key={number ?? "all"}
                className={`chip ${me === number ? "border-ink bg-ink text-ground" : ""}`}
                aria-pressed={me === number}
                onClick={() => {
                  localStorage.setItem(meKept, String(number ?? -1));
                  setKept(number ?? -1);
                }}
              >
                {number === null
                  ? t("run.everyone")
                  : cooks[number]?.name || t("lanes.cook", { number: number + 1 })}
              </button>
            ))}
          </div>
        )}
      </div>
      {(run.laid.late > 0 || run.laid.overtime > 0) && (
        <p role="alert" className="max-w-3xl border-l-4 border-brick pl-3 font-semibold text-brick">
          {run.laid.late > 0
            ? t("late", { time: lengthOf(t, run.laid.late) })
            : t("overtime", { time: lengthOf(t, run.laid.overtime) })}
        </p>
      )}
      <div className="grid gap-x-8 gap-y-6 lg:grid-cols-[1.3fr_1fr]">
        <NowCards
          run={run}
          all={all}
          me={me}
          acts={acts}
          weigh={(batch, lines) => setOpen({ batch, lines })}
        />
        <Timers run={run} all={all} now={now} acts={acts} />
        <Next run={run} waiting={waiting} me={me} acts={acts} />
        <Done run={run} all={all} acts={acts} weigh={(batch) => setOpen({ batch, lines: [] })} />
      </div>
      <div className="max-md:hidden">
        <Lanes day={run.laid} batches={run.batches} now={run.minute} />
      </div>
      <div className="flex flex-wrap items-center gap-3">
        <button className={waiting.length === 0 ? "btn-next" : "btn"} onClick={() => void acts.end(true)}>
          {t("run.end")}
        </button>
        <span className="text-xs text-soft">{t(isAwake ? "run.awake" : "run.notAwake")}</span>
        {isClockPlayed && (
          <span className="flex flex-wrap items-center gap-2 text-xs text-soft">
            {t("run.play")}
            {[5, 20].map((minutes) => (
              <button key={minutes} className="chip" onClick={() => void acts.pass(minutes)}>
                {t("run.pass", { minutes })}
              </button>
            ))}
          </span>
        )}
      </div>
      <p className="max-w-2xl text-xs text-soft">{t("safety")}</p>
      <Drawer
        open={open !== null}
        close={() => setOpen(null)}
        title={t("run.goesInto", { dish: chosen?.name ?? "" })}
        grows
      >
        {open && <Lines key={open.batch} id={open.batch} first={open.lines} />}
      </Drawer>
    </div>
  );
}

function Lines({ id, first }: { id: string; first: number[] }) {
  const { data, error, refetch } = useLinesIn(id, asked);
  if (!data) return error ? <Failed error={error} retry={() => void refetch()} /> : <Loading />;
  return <GoesIn batch={data} first={first} />;
}

/** How much sooner or later than when it began. */
function Apart({ minutes }: { minutes: number }) {
  const { t } = useWords("cook");
  if (minutes === 0) return <>{t("run.onTime")}</>;
  return <>{t(minutes < 0 ? "run.sooner" : "run.later", { time: lengthOf(t, Math.abs(minutes)) })}</>;
}
