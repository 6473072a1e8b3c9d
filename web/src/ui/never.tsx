import type { TFunction } from "i18next";
import type { NeverView } from "../api";

/** Why somebody must never get a thing: "milk, sesame", "peanut butter", or something not known. */
export const neverWords = (t: TFunction, { allergens, foods }: NeverView) =>
  [...allergens.map((allergen) => t(`foods:allergens.${allergen}`)), ...foods].join(", ") ||
  t("app:never.unknown");

/** Marks a thing that its eater must never get: a word and a hatch. */
export function NeverMark({ t, name, why }: { t: TFunction; name: string; why: NeverView }) {
  return (
    <span className="inline-flex items-center gap-1 text-xs font-bold text-brick">
      <span aria-hidden className="hatched h-3.5 w-1.5 rounded-sm" />
      {t("app:never.mark", { name })}: {neverWords(t, why)}
    </span>
  );
}
