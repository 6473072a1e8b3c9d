import type { DayAim, EaterView, Measure } from "../api";
import { useCurrentEater, useEaters } from "./Header";
import { useKitchen } from "./kitchen";

/** A measure to look through, or each eater's own. */
export type Lens = Measure | "own";

const always: Measure[] = ["energy", "protein", "carbohydrate", "fat"];

/** The measures worth looking through: points where somebody has a rule for them, net carbs where somebody bounds them. */
export function lensesOf(eaters: EaterView[] | undefined): Measure[] {
  const bounds = (measure: Measure) =>
    eaters?.some(({ aim }) => aim.bands[measure] || aim.leading === measure);
  return [
    ...always,
    ...(bounds("netCarbohydrate") ? (["netCarbohydrate"] as const) : []),
    ...(eaters?.some(({ aim }) => aim.rule) ? (["points"] as const) : []),
  ];
}

/** What an eater's day is measured in: through the lens, or in their own leading measure where they don't count that. */
export const measureFor = (lens: Lens, aim: Pick<DayAim, "leading" | "rule">): Measure =>
  lens === "own" || (lens === "points" && !aim.rule) ? aim.leading : lens;

/** The measure of the eater who is looked at; of all, that of the first. */
export function useLens(): Measure {
  const { lens } = useKitchen();
  const current = useCurrentEater();
  const eater = useEaters()?.find(({ id }) => id === current);
  if (eater) return measureFor(lens, eater.aim);
  return lens === "own" || lens === "points" ? "energy" : lens;
}
