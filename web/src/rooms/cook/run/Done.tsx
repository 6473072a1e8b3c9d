import type { RunView } from "../../../api";
import { useWords } from "../../../app/i18n";
import { timeAt } from "../clock";
import { whatOf } from "../say";
import type { Acts, Standing } from "./RunPage";

/** What is done, each to be taken back; and what went into each dish. */
export function Done({
  run,
  all,
  acts,
  weigh,
}: {
  run: RunView;
  all: Standing[];
  acts: Acts;
  weigh: (batch: string) => void;
}) {
  const { t } = useWords("cook");
  const done = all
    .filter(({ state }) => state.state === "done" || state.state === "skipped")
    .sort((one, other) => other.placed.end - one.placed.end);
  const dishes = run.batches.filter(({ isPutTogether }) => !isPutTogether);
  return (
    <section className="space-y-2">
      <details>
        <summary className="min-h-9 py-1 font-title font-bold max-md:min-h-11">
          {t("run.doneCount", { count: done.length })}
        </summary>
        <ul className="divide-y divide-line text-sm">
          {done.map(({ placed, state }) => {
            const what = whatOf(t, placed, run.batches);
            return (
              <li key={state.id} className="flex items-center gap-2 py-1">
                <span className="w-12 shrink-0 text-right">{timeAt(run.laid.begins, placed.end)}</span>
                <span
                  className={`min-w-0 flex-1 ${state.state === "skipped" ? "text-soft line-through" : ""}`}
                >
                  {what}
                </span>
                <button
                  className="min-h-9 underline max-md:min-h-11"
                  aria-label={t("run.notDoneNamed", { what })}
                  disabled={acts.busy}
                  onClick={() => void acts.back(state.id)}
                >
                  {t("run.notDone")}
                </button>
              </li>
            );
          })}
        </ul>
      </details>
      <div className="flex flex-wrap gap-2">
        {dishes.map((dish) => (
          <button key={dish.id} className="chip" onClick={() => weigh(dish.id)}>
            {t("run.goesInto", { dish: dish.name })}
          </button>
        ))}
      </div>
    </section>
  );
}
