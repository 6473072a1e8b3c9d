import { Link } from "react-router";
import type { RunView } from "../../../api";
import { useWords } from "../../../app/i18n";
import { Caution } from "../../../ui/Caution";
import { grams } from "../../../ui/format";
import { Mark } from "../../../ui/Tape";
import { timeAt } from "../clock";
import { useLinesIn } from "../GoesIn";
import { dishOf, minutesOf, whatOf } from "../say";
import type { Acts, Standing } from "./RunPage";
import { asked } from "./useRun";

const aBit = 5;

interface NowProps {
  run: RunView;
  all: Standing[];
  /** Whose phone this is; null for everyone's. */
  me: number | null;
  acts: Acts;
  weigh: (batch: string, lines: number[]) => void;
}

const isOf = ({ placed }: Standing, me: number | null) =>
  me === null ||
  placed.lanes.includes(`cook:${me}`) ||
  !placed.lanes.some((lane) => lane.startsWith("cook:"));

/** What hands do now, and what is to be begun now. */
export function NowCards({ run, all, me, acts, weigh }: NowProps) {
  const { t } = useWords("cook");
  const mine = all.filter((one) => isOf(one, me));
  const going = mine.filter(({ state, placed }) => state.state === "goingOn" && placed.task.isHandsOn);
  const due = mine.filter(({ state }) => state.isDue);
  const turns = run.laid.warmUps.filter(({ from }) => from <= run.minute);
  const isReady = all.some(
    ({ state }) => state.state === "goingOn" && Date.parse(state.endsAt!) <= Date.parse(run.now),
  );
  const free = mine.find(({ state, placed }) => state.state === "waiting" && placed.task.isHandsOn);
  return (
    <section aria-labelledby="now-title" className="space-y-3">
      <h2 id="now-title" className="text-base">
        {t("run.now")}
      </h2>
      {turns.map(({ oven, celsius }) => (
        <div key={oven + celsius} className="panel flex flex-wrap items-center gap-3 p-4">
          <p className="min-w-0 flex-1 font-title text-lg font-bold">{t("sheet.oven", { celsius })}</p>
          <button
            className="btn-next"
            disabled={acts.busy}
            onClick={() => void acts.turn(oven, celsius, t("run.turned", { celsius }))}
          >
            {t("run.isOn")}
          </button>
        </div>
      ))}
      {going.map((one) => (
        <Card key={one.state.id} run={run} one={one} acts={acts} weigh={weigh} />
      ))}
      {due.map((one) => (
        <Card key={one.state.id} run={run} one={one} acts={acts} weigh={weigh} me={me} />
      ))}
      {going.length + due.length + turns.length === 0 && (
        <p className="text-lg text-soft">
          {isReady
            ? t("run.ready")
            : free
              ? t("run.free", { time: timeAt(run.laid.begins, free.placed.start) })
              : t(all.some(({ state }) => state.state === "goingOn") ? "run.waits" : "run.allDone")}
        </p>
      )}
    </section>
  );
}

function Card({
  run,
  one: { placed, state },
  acts,
  weigh,
  me = null,
}: {
  run: RunView;
  one: Standing;
  acts: Acts;
  weigh: NowProps["weigh"];
  me?: number | null;
}) {
  const { t } = useWords("cook");
  const { task } = placed;
  const what = whatOf(t, placed, run.batches);
  const isGoing = state.state === "goingOn";
  const over = isGoing && state.endsAt !== null && Date.parse(state.endsAt) <= Date.parse(run.now);
  const packs = task.kind === "pack" ? dishOf(run.batches, task.dishes[0]) : undefined;
  const who = whoOf(t, run, placed);
  return (
    <article className={`panel p-4 ${isGoing ? "" : "border-dashed"}`} aria-label={what}>
      <div className="flex items-start gap-3">
        {task.dishes.map((id) => {
          const dish = dishOf(run.batches, id);
          return dish ? (
            <Mark key={id} letters={dish.letters} tint={dish.tint} className="h-8 w-10 rounded-sm" />
          ) : null;
        })}
        <div className="min-w-0 flex-1">
          {who && <p className="text-sm text-soft">{who}</p>}
          <p className="font-title text-xl leading-tight font-bold">{what}</p>
        </div>
      </div>
      {task.text && <p className="mt-2 text-base">{task.text}</p>}
      <Amounts run={run} placed={placed} weigh={weigh} />
      {state.cautions.map((code) => (
        <Caution key={code} code={code} />
      ))}
      <p className={`mt-2 text-sm ${over ? "font-semibold" : "text-soft"}`}>
        {!isGoing
          ? minutesOf(t, placed)
          : over
            ? t("run.takesLonger")
            : t("run.since", {
                from: timeAt(run.laid.begins, placed.start),
                to: timeAt(run.laid.begins, placed.end),
              })}
      </p>
      <div className="mt-3 flex flex-wrap gap-2">
        {isGoing ? (
          <>
            <button
              className="btn-next min-h-12 px-6 text-base"
              disabled={acts.busy}
              onClick={() => void acts.tell(state.id, "done", t("run.saidDone", { what }))}
            >
              {t("run.done")}
            </button>
            <button
              className="btn min-h-12"
              disabled={acts.busy}
              onClick={() => void acts.tell(state.id, "more", what, { minutes: aBit })}
            >
              {t("run.more", { minutes: aBit })}
            </button>
            <button className="btn min-h-12" disabled={acts.busy} onClick={() => void acts.back(state.id)}>
              {t("run.notYet")}
            </button>
          </>
        ) : (
          <button
            className="btn-next min-h-12 px-6 text-base"
            disabled={acts.busy}
            onClick={() =>
              void acts.tell(state.id, "start", t("run.saidBegun", { what }), me === null ? {} : { cook: me })
            }
          >
            {t(task.isHandsOn ? "run.begin" : "run.isIn")}
          </button>
        )}
        <button
          className="btn min-h-12"
          disabled={acts.busy}
          onClick={() => void acts.tell(state.id, "skip", t("run.saidSkipped", { what }))}
        >
          {t("run.skip")}
        </button>
        {packs && (
          <Link className="btn min-h-12" to={`/pack/${packs.id}`}>
            {t("run.toBench")}
          </Link>
        )}
      </div>
    </article>
  );
}

export function whoOf(t: ReturnType<typeof useWords>["t"], run: RunView, { lanes }: Standing["placed"]) {
  const cooks = run.laid.lanes.filter(({ kind }) => kind === null);
  const cook = cooks.length > 1 ? cooks.find(({ id }) => lanes.includes(id)) : undefined;
  return cook && (cook.name || t("lanes.cook", { number: cook.number + 1 }));
}

/** What this step handles, at this batch's size, each to be weighed in. */
function Amounts({
  run,
  placed,
  weigh,
}: {
  run: RunView;
  placed: Standing["placed"];
  weigh: NowProps["weigh"];
}) {
  const dishes = placed.task.dishes.filter((id) => {
    const dish = dishOf(run.batches, id);
    return dish && !dish.isPutTogether;
  });
  if (placed.task.kind !== "step" && placed.task.kind !== "prepare") return null;
  return (
    <div className="mt-2 space-y-2">
      {dishes.map((dish) => (
        <DishLines
          key={dish}
          batch={dish}
          name={dishes.length > 1 ? (dishOf(run.batches, dish)?.name ?? "") : ""}
          isListed={placed.task.kind === "step"}
          lines={(placed.task.lines ?? [])
            .filter((line) => line.dish === dish)
            .map(({ position }) => position)}
          weigh={weigh}
        />
      ))}
    </div>
  );
}

function DishLines({
  batch,
  name,
  isListed,
  lines,
  weigh,
}: {
  batch: string;
  name: string;
  /** Whether the amounts are shown here: what is chopped has them in its title. */
  isListed: boolean;
  lines: number[];
  weigh: NowProps["weigh"];
}) {
  const { t } = useWords("cook");
  const { data } = useLinesIn(batch, asked);
  const shown = (data?.lines ?? []).filter(({ position }) => isListed && lines.includes(position));
  return (
    <div className="flex flex-wrap items-end justify-between gap-x-4 gap-y-1">
      <ul className="min-w-0">
        {shown.map((line) => (
          <li key={line.position} className="flex gap-2">
            <span className="w-20 shrink-0 text-right font-semibold">
              {grams(Math.round(line.wentInGrams))} <span className="text-sm font-normal text-soft">g</span>
            </span>
            <span className="min-w-0">{line.name}</span>
          </li>
        ))}
      </ul>
      <button className="btn" onClick={() => weigh(batch, lines)}>
        {name ? t("run.weighFor", { dish: name }) : t("run.weigh")}
      </button>
    </div>
  );
}
