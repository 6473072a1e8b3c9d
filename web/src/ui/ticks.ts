import type { DayAim, DayView, Measure } from "../api";

/** How long the tape is drawn: past the band and past the fullest day, so that days under one another compare. */
export function tapeLength(aim: DayAim, days: DayView[], measure: Measure): number {
  const band = aim.bands[measure];
  const bound = Math.max(
    ...[band, ...days.map((day) => day.aim.bands[measure])].map(
      (one) => one?.max ?? one?.target ?? one?.min ?? 0,
    ),
  );
  const fullest = Math.max(0, ...days.map((day) => day.sums[measure]?.value ?? 0));
  const wanted = Math.max(bound * 1.15, fullest * 1.06, measure === "energy" ? 500 : 10);
  const step = tickStep(wanted / 12).major;
  return Math.ceil(wanted / step) * step;
}

/** Ticks as on a tape: numbered ones at 1, 2 or 5 times a power of ten, at least so many units apart, four small ones between. */
export function tickStep(atLeast: number): { minor: number; major: number } {
  const power = 10 ** Math.floor(Math.log10(atLeast));
  const major = power * ([1, 2, 5, 10].find((times) => times * power >= atLeast) ?? 10);
  return { minor: major / 5, major };
}

/** A day with nothing on it: the ruler that an aim gives. */
export const blankDay = (aim: DayAim): DayView => ({
  day: "",
  items: [],
  sums: {},
  eaten: {},
  left: {},
  bands: {},
  missing: {},
  fits: false,
  verdict: "empty",
  aim,
  awayIn: [],
  dayName: null,
  grams: 0,
  kcalPer100g: null,
  giveOrTake: 0,
  exactPoints: null,
});
