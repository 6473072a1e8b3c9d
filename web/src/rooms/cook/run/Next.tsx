import { useState } from "react";
import type { RunView } from "../../../api";
import { useWords } from "../../../app/i18n";
import { Mark } from "../../../ui/Tape";
import { timeAt } from "../clock";
import { dishOf, minutesOf, whatOf } from "../say";
import { whoOf } from "./NowCards";
import type { Acts, Standing } from "./RunPage";

const few = 5;

/** What is still to be done, in the order it was laid out; anything can be begun sooner. */
export function Next({
  run,
  waiting,
  me,
  acts,
}: {
  run: RunView;
  waiting: Standing[];
  me: number | null;
  acts: Acts;
}) {
  const { t } = useWords("cook");
  const [isAll, setIsAll] = useState(false);
  const coming = waiting.filter(({ placed }) => placed.start > run.minute || placed.task.isHandsOn);
  const turns = run.laid.warmUps.filter(({ from }) => from > run.minute);
  if (coming.length === 0) return null;
  const shown = isAll ? coming : coming.slice(0, few);
  const last = shown[shown.length - 1]!.placed.start;
  const rows = [
    ...shown.map((one) => ({ at: one.placed.start, one })),
    ...turns.filter(({ from }) => isAll || from <= last).map((turn) => ({ at: turn.from, turn })),
  ].sort((one, other) => one.at - other.at);
  return (
    <section aria-labelledby="next-title">
      <h2 id="next-title" className="mb-1 text-base">
        {t("run.next")}
      </h2>
      <ol className="divide-y divide-line border-y border-line">
        {rows.map((row) =>
          "turn" in row ? (
            <li key={`${row.turn.oven}${row.at}`} className="grid grid-cols-[3.4rem_2.5rem_1fr] gap-x-2 py-2">
              <span className="text-right font-bold">{timeAt(run.laid.begins, row.at)}</span>
              <span />
              <span className="text-soft">{t("sheet.oven", { celsius: row.turn.celsius })}</span>
            </li>
          ) : (
            <Row key={row.one.state.id} run={run} one={row.one} me={me} acts={acts} />
          ),
        )}
      </ol>
      {coming.length > few && (
        <button className="link min-h-9 text-sm max-md:min-h-11" onClick={() => setIsAll(!isAll)}>
          {isAll ? t("run.fewer") : t("run.all", { count: coming.length })}
        </button>
      )}
    </section>
  );
}

function Row({
  run,
  one: { placed, state },
  me,
  acts,
}: {
  run: RunView;
  one: Standing;
  me: number | null;
  acts: Acts;
}) {
  const { t } = useWords("cook");
  const what = whatOf(t, placed, run.batches);
  const dish = placed.task.dishes.length === 1 ? dishOf(run.batches, placed.task.dishes[0]) : undefined;
  const who = whoOf(t, run, placed);
  return (
    <li className="grid grid-cols-[3.4rem_2.5rem_1fr_auto] items-center gap-x-2 py-2">
      <span className="self-start text-right font-bold">{timeAt(run.laid.begins, placed.start)}</span>
      {dish ? (
        <Mark letters={dish.letters} tint={dish.tint} className="h-6 w-9 self-start rounded-sm text-sm" />
      ) : (
        <span />
      )}
      <span className="min-w-0">
        {what}{" "}
        <span className="text-sm text-soft">{[who, minutesOf(t, placed)].filter(Boolean).join(" · ")}</span>
        {placed.task.kind === "step" && <span className="block truncate text-sm">{placed.task.text}</span>}
      </span>
      <button
        className="btn"
        aria-label={t("run.beginNamed", { what })}
        disabled={acts.busy}
        onClick={() =>
          void acts.tell(state.id, "start", t("run.saidBegun", { what }), me === null ? {} : { cook: me })
        }
      >
        {t("run.begin")}
      </button>
    </li>
  );
}
