import type { TFunction } from "i18next";
import type { BandReading, Measure, ReviewDayView } from "../../api";
import { amount } from "../../ui/format";

/** What became of a day, by the one reading of all its bands: the number first, then its meaning. */
export function dayFate(
  t: TFunction,
  day: ReviewDayView,
  lens: Measure,
): { words: string; look: "in" | "out" | "open" } {
  if (!day.counts) return { words: t(`review:noted.${day.noted}`), look: "open" };
  if (day.verdict === "fits" || day.verdict === "fitsAsFarAsKnown") {
    const fits = t(`plan:${day.verdict}`);
    const [measure, drawn] = (Object.entries(day.bands) as [Measure, BandReading][]).find(
      ([, band]) => band.drawn !== null,
    ) ?? [lens, null];
    if (!drawn) return { words: fits, look: "in" };
    const amountDrawn = amount(measure, drawn.drawn ?? 0);
    return { words: t("review:week.drawing", { fits, drawn: amountDrawn }), look: "in" };
  }
  const own = day.bands[lens];
  if (own?.position === "over")
    return { words: t("app:over", { amount: amount(lens, own.over ?? 0) }), look: "out" };
  if (own?.position === "under")
    return { words: t("review:week.under", { amount: amount(lens, own.roomFrom ?? 0) }), look: "open" };
  const [measure, reading] = (Object.entries(day.bands) as [Measure, BandReading][]).find(
    ([, { position }]) => position !== "within",
  ) ?? [lens, own];
  const name = t(`app:measures.${measure}`);
  return reading?.position === "over"
    ? { words: t("review:week.overIn", { measure: name }), look: "out" }
    : { words: t("review:week.underIn", { measure: name }), look: "open" };
}
