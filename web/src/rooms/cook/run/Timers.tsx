import { useEffect, useState } from "react";
import type { RunView } from "../../../api";
import { useWords } from "../../../app/i18n";
import { Mark } from "../../../ui/Tape";
import { countDown, lengthOf, timeAt } from "../clock";
import { dishOf, whatOf } from "../say";
import type { Acts, Standing } from "./RunPage";
import { useBell } from "./useBell";

const aBit = 5;
const kept = "tern.cook.still";

/** What stands by itself, each with the time it still has; one whose time is up rings until somebody says what became of it. */
export function Timers({ run, all, now, acts }: { run: RunView; all: Standing[]; now: number; acts: Acts }) {
  const { t } = useWords("cook");
  const [still, setStill] = useState<string[]>(() =>
    (sessionStorage.getItem(kept) ?? "").split("\n").filter(Boolean),
  );
  const going = all
    .filter(({ state, placed }) => state.state === "goingOn" && !placed.task.isHandsOn)
    .map((one) => ({
      ...one,
      left: Date.parse(one.state.endsAt!) - now,
      key: `${one.state.id}@${one.state.endsAt}`,
    }))
    .sort((one, other) => one.left - other.left);
  const rings = going.filter(({ left, key }) => left <= 0 && !still.includes(key));
  const isMute = useBell(rings.length > 0);
  const first = going[0];
  const title = first
    ? `${first.left > 0 ? countDown(first.left) : t("run.up")} ${whatOf(t, first.placed, run.batches)}`
    : "";
  useEffect(() => {
    if (!title) return;
    const before = document.title;
    document.title = title;
    return () => void (document.title = before);
  }, [title]);
  const silence = () => {
    const next = [...still, ...rings.map(({ key }) => key)];
    sessionStorage.setItem(kept, next.slice(-50).join("\n"));
    setStill(next);
  };
  return (
    <section aria-labelledby="timers-title" className="space-y-3">
      <h2 id="timers-title" className="text-base">
        {t("run.byItself")}
      </h2>
      {going.length === 0 && <p className="text-soft">{t("run.nothing")}</p>}
      {isMute && going.length > 0 && (
        <p className="text-sm">
          <button className="btn" onClick={() => undefined}>
            {t("run.letRing")}
          </button>
        </p>
      )}
      {rings.length > 0 && (
        <p role="alert" className="sr-only">
          {t("run.rings", { what: rings.map(({ placed }) => whatOf(t, placed, run.batches)).join(", ") })}
        </p>
      )}
      <ul className="space-y-3">
        {going.map(({ placed, state, left }) => {
          const what = whatOf(t, placed, run.batches);
          const dish = dishOf(run.batches, placed.task.dishes[0]);
          const isUp = left <= 0;
          return (
            <li
              key={state.id}
              data-up={isUp || undefined}
              className={`panel p-3 ${isUp ? "border-2 border-next" : ""}`}
              aria-label={what}
            >
              <div className="flex items-center gap-3">
                {dish && <Mark letters={dish.letters} tint={dish.tint} className="h-8 w-10 rounded-sm" />}
                <p className="min-w-0 flex-1 font-semibold">
                  {what}
                  {placed.way.celsius ? (
                    <span className="text-soft">, {t("lanes.warm", { celsius: placed.way.celsius })}</span>
                  ) : null}
                  {state.phase && (
                    <span className="block text-sm font-normal">{t(`verb.${state.phase}`)}</span>
                  )}
                </p>
                <p className="text-right">
                  <span className="block font-title text-[2.25rem] leading-none font-bold" data-left>
                    {isUp ? t("run.up") : countDown(left)}
                  </span>
                  <span className="text-xs text-soft">
                    {isUp
                      ? t("run.upFor", { time: lengthOf(t, Math.floor(-left / 60000)) })
                      : t("sheet.until", { time: timeAt(run.laid.begins, placed.end) })}
                  </span>
                </p>
              </div>
              <div className="mt-2 flex flex-wrap gap-2">
                <button
                  className={`${isUp ? "btn-next" : "btn"} min-h-11`}
                  disabled={acts.busy}
                  onClick={() => void acts.tell(state.id, "done", t("run.saidDone", { what }))}
                >
                  {t(isUp ? "run.done" : "run.readyNow")}
                </button>
                <button
                  className="btn min-h-11"
                  disabled={acts.busy}
                  onClick={() => void acts.tell(state.id, "more", what, { minutes: aBit })}
                >
                  {t("run.more", { minutes: aBit })}
                </button>
                {!isUp && (
                  <button
                    className="btn min-h-11"
                    disabled={acts.busy}
                    onClick={() => void acts.back(state.id)}
                  >
                    {t("run.notYet")}
                  </button>
                )}
              </div>
            </li>
          );
        })}
      </ul>
      {rings.length > 0 && (
        <button className="btn min-h-11" onClick={silence}>
          {t("run.silence")}
        </button>
      )}
    </section>
  );
}
