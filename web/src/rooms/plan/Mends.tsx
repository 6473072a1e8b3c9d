import type { TFunction } from "i18next";
import { useQueryClient } from "@tanstack/react-query";
import { useWords } from "../../app/i18n";
import {
  mendDay,
  setDateBand,
  troubleOf,
  type Band,
  type DayInDepth,
  type Measure,
  type MendStepView,
  type MendView,
} from "../../api";
import { freshen } from "../../app/freshen";
import { useHistory } from "../../app/history";
import { useSay } from "../../app/notices";
import { seenDays } from "../../app/seen";
import { amount, inPieces, shortDay, unitOf } from "../../ui/format";
import { outWords } from "./reading";

interface MendsProps {
  eaterId: string;
  day: string;
  depth: DayInDepth;
  lens: Measure;
}

/** What would bring a day in; where nothing does, the nearest that was found and what it leaves open. */
export function Mends({ eaterId, day, depth, lens }: MendsProps) {
  const { t } = useWords("plan");
  const make = useMaking(eaterId, day, depth);
  const row = (mend: MendView, left?: string) => (
    <li key={mend.id}>
      <button className="btn w-full justify-between text-left" onClick={() => void make(mend)}>
        <span className="inline-block first-letter:uppercase">
          {mendWords(t, mend, depth)}
          {left && <span className="block text-xs text-soft">{left}</span>}
        </span>
        <span className="text-xs whitespace-nowrap text-soft">{changeWords(mend, lens)}</span>
      </button>
    </li>
  );
  const brings = depth.mends.some(({ steps }) => steps[0]!.kind !== "moveBound");
  return (
    <section aria-labelledby="depth-mends">
      <h3 id="depth-mends" className="mb-1 text-base">
        {t("mend.title")}
      </h3>
      {!brings && <p className="mb-1 text-soft">{t(depth.nearest ? "mend.noneButNearest" : "mend.none")}</p>}
      <ul className="space-y-1">
        {depth.nearest &&
          row(depth.nearest.mend, t("mend.leaves", { out: outWords(t, depth.nearest.after) }))}
        {depth.mends.map((mend) => row(mend))}
      </ul>
    </section>
  );
}

function useMaking(eaterId: string, day: string, depth: DayInDepth) {
  const { t } = useWords("plan");
  const { change, did } = useHistory();
  const say = useSay();
  const queries = useQueryClient();
  const moveBound = async ({ bound, newBand }: MendStepView, done: string) => {
    const setBand = async (band: Band | null) =>
      (
        await setDateBand({
          path: { id: eaterId, day },
          body: { measure: bound!, band, name: t("mend.dayName") },
        })
      ).data!;
    try {
      const { before } = await setBand(newBand ?? null);
      await freshen(queries, "eater");
      did(done, () => setBand(before));
    } catch (thrown) {
      say(troubleOf(thrown, t("app:silent")).detail ?? "", { trouble: true });
    }
  };
  return async (mend: MendView) => {
    const done = t("mend.done", { what: mendWords(t, mend, depth) });
    const [first] = mend.steps;
    if (first!.kind === "moveBound") return moveBound(first!, done);
    const days = mend.steps.map(({ otherDay }) => ({ eaterId, day: otherDay ?? day }));
    const headers = seenDays({ eaterId, day }, ...days);
    await change(() => mendDay({ path: { eaterId, day }, headers, body: { id: mend.id } }), done);
  };
}

const changeWords = (mend: MendView, lens: Measure) => {
  const change = mend.change[lens];
  if (mend.steps[0]!.kind === "moveBound" || change === undefined) return "";
  return `${change > 0 ? "+" : ""}${amount(lens, change)} ${unitOf(lens)}`;
};

function mendWords(t: TFunction, mend: MendView, depth: DayInDepth): string {
  const [first, second] = mend.steps;
  // One thing in another's place is said in one breath.
  if (mend.steps.length === 2 && first!.kind === "takeOff" && second!.kind.startsWith("lay"))
    return t(`plan:mend.${second!.kind === "layBox" ? "changeBox" : "instead"}`, {
      name: first!.name,
      other: second!.name,
    });
  return mend.steps.map((step) => stepWords(t, step, depth)).join(t("plan:mend.and"));
}

function stepWords(t: TFunction, step: MendStepView, depth: DayInDepth): string {
  const measure = step.bound ?? null;
  const isOver = measure !== null && depth.day.bands[measure]?.position === "over";
  const bound = isOver ? step.newBand?.max : step.newBand?.min;
  // A plain food's other amount is said as it will be written.
  const kind = step.kind === "weigh" && step.otherName ? "weighFood" : step.kind;
  const key = kind !== "moveBound" ? kind : isOver ? "raiseMost" : "lowerLeast";
  return t(`plan:mend.${key}`, {
    name: step.name,
    amount: inPieces(t, { pieces: step.pieces, grams: step.grams ?? 0 }),
    other: step.otherName ?? "",
    day: step.otherDay ? shortDay(step.otherDay) : "",
    measure: measure ? t(`app:measures.${measure}`) : "",
    bound: measure ? `${amount(measure, bound ?? 0)} ${unitOf(measure)}` : "",
  });
}
