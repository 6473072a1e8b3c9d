import type { TFunction } from "i18next";
import type { BandReading, DayView, Hold, Measure } from "../../api";
import { amount, exact, unitOf, unitWords } from "../../ui/format";

/** A band that does not hold in words, the number first, then its meaning; nothing where it holds. */
export function readingWords(t: TFunction, measure: Measure, reading: BandReading | undefined): string {
  if (!reading || reading.position === "within") return "";
  if (reading.position === "over") return t("app:over", { amount: amount(measure, reading.over ?? 0) });
  const from = amount(measure, reading.roomFrom ?? 0);
  return reading.roomTo === null
    ? t("plan:roomFrom", { from })
    : t("plan:room", { from, to: amount(measure, reading.roomTo) });
}

/** What a day is, by all its bands at once: in words, and whether it is in, out, or still being filled. */
export function dayWords(
  t: TFunction,
  day: DayView,
  lens: Measure,
): { words: string; look: "in" | "out" | "open" } {
  if (day.verdict === "away") return { words: t("plan:away.word"), look: "open" };
  if (day.verdict === "empty") return { words: t("plan:nothing"), look: "open" };
  const over = namesOf(t, day, "over");
  if (day.fits) {
    const drawn = (Object.entries(day.bands) as [Measure, BandReading][]).find(
      ([, { drawn }]) => drawn !== null,
    );
    const fits = t(day.verdict === "fitsAsFarAsKnown" ? "plan:fitsAsFarAsKnown" : "plan:fits");
    if (!drawn) return { words: fits, look: "in" };
    const [measure, { drawn: amountDrawn }] = drawn;
    const of = { fits, drawn: amount(measure, amountDrawn ?? 0), unit: unitOf(measure) };
    return { words: t("plan:fitsDrawing", of), look: "in" };
  }
  const own = readingWords(t, lens, day.bands[lens]);
  if (day.bands[lens]?.position === "over") return { words: own, look: "out" };
  if (over) return { words: t("plan:overIn", { measures: over }), look: "out" };
  // Nothing is over: what lies there must never lie there, or there is still room.
  if (day.items.some(({ never }) => never)) return { words: "", look: "out" };
  return { words: own || t("plan:shortIn", { measures: namesOf(t, day, "under") }), look: "open" };
}

const namesOf = (t: TFunction, day: DayView, position: BandReading["position"]) =>
  (Object.entries(day.bands) as [Measure, BandReading][])
    .filter(([, reading]) => reading.position === position)
    .map(([measure]) => t(`app:measures.${measure}`))
    .join(", ");

/** What is kept free, as one says it: "30 g fat". */
export const holdWords = (t: TFunction, { measure, amount: kept }: Hold) =>
  `${exact(kept)} ${unitWords(t, measure)}`;

/** The measures watched beside the lens: every one with a band, the leading one first; without any, protein or energy. */
export function watched(day: DayView, leading: Measure, lens: Measure): Measure[] {
  const banded = (Object.keys(day.bands) as Measure[]).sort(
    (a, b) => Number(b === leading) - Number(a === leading),
  );
  const beside = banded.filter((measure) => measure !== lens && day.sums[measure]);
  return beside.length > 0 ? beside : [lens === "energy" ? "protein" : "energy"];
}

/** The bands that do not hold, in words. */
export const outWords = (t: TFunction, bands: DayView["bands"]) =>
  (Object.entries(bands) as [Measure, BandReading][])
    .filter(([, reading]) => reading.position !== "within")
    .map(([measure, reading]) => `${t(`app:measures.${measure}`)}: ${readingWords(t, measure, reading)}`)
    .join(" · ");
