import type { TFunction } from "i18next";
import type { DayWithBox } from "../../api";
import { amount, shortDay, unitWords } from "../../ui/format";

/** What a day is with the box on it, in words; null where it asks for nothing. */
export function dayWords(t: TFunction, on: DayWithBox): { words: string; isOver: boolean } | null {
  const day = shortDay(on.day);
  if (on.verdict === "away" || on.verdict === "empty") return null;
  if (on.verdict === "fits") return { words: t("day.fits", { day }), isOver: false };
  if (on.verdict === "fitsAsFarAsKnown") return { words: t("day.fitsKnown", { day }), isOver: false };
  const unit = unitWords(t, on.leading);
  if (on.band?.position === "over")
    return {
      words: t("day.over", { day, amount: amount(on.leading, on.band.over ?? 0), unit }),
      isOver: true,
    };
  if (on.band?.position === "under")
    return {
      words: t("day.room", { day, amount: amount(on.leading, on.band.roomFrom ?? 0), unit }),
      isOver: false,
    };
  return { words: t("day.other", { day }), isOver: false };
}
