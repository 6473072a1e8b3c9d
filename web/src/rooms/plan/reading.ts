import type { TFunction } from "i18next";
import type { BandReading, DayView, Measure } from "../../api";
import { amount } from "../../ui/format";

/** A band's reading in words: the number first, then its meaning. */
export function readingWords(
  t: TFunction,
  measure: Measure,
  reading: BandReading | undefined,
  /** Whether something lies there that its eater must never get: then the day does not fit. */
  isExcluded = false,
): string {
  if (!reading) return "";
  if (reading.position === "over") return t("app:over", { amount: amount(measure, reading.over ?? 0) });
  if (reading.position === "within") return isExcluded ? "" : t("plan:fits");
  const from = amount(measure, reading.roomFrom ?? 0);
  return reading.roomTo === null
    ? t("plan:roomFrom", { from })
    : t("plan:room", { from, to: amount(measure, reading.roomTo) });
}

/** The measures watched beside the lens: those with a band, the leading one first; else protein and fat. */
export function watched(day: DayView, leading: Measure, lens: Measure): Measure[] {
  const banded = (Object.keys(day.bands) as Measure[]).sort(
    (a, b) => Number(b === leading) - Number(a === leading),
  );
  const fallback: Measure[] = ["protein", "energy", "fat"];
  return [...new Set([...banded, ...fallback])]
    .filter((measure) => measure !== lens && day.sums[measure])
    .slice(0, 2);
}
