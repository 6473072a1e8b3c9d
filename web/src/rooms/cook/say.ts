import type { TFunction } from "i18next";
import type { PlacedPrepTask, PrepBatch } from "../../api";
import { wholeNumber } from "../../ui/format";
import { lengthOf } from "./clock";

export const dishOf = (batches: PrepBatch[], id: string | undefined) =>
  batches.find((batch) => batch.id === id);

/** What is to be done, as it is said to a cook: "Chop 330 g onion for the stew, 290 g onion for the squares". */
export function whatOf(t: TFunction, { task, way }: PlacedPrepTask, batches: PrepBatch[]): string {
  const dish = dishOf(batches, task.dishes[0])?.name ?? "";
  switch (task.kind) {
    case "getOut":
      return t("sheet.getOut", { count: batches.length });
    case "washUp":
      return t("sheet.washUp");
    case "cool":
      return t("sheet.cool", { dish });
    case "pack": {
      const parts = task.amounts.map(({ grams, food }) =>
        t("sheet.amount", { grams: wholeNumber(grams), food }),
      );
      return parts.length > 0
        ? t("sheet.together", { dish, what: parts.join(", ") })
        : t("sheet.pack", { dish });
    }
    case "putAway":
      return t("sheet.putAway", { dish });
    case "prepare": {
      if (task.amounts.length === 0) return t("sheet.forDish", { verb: t(`verb.${way.verb}`), dish });
      const verb = t(`verb.${way.verb}`);
      if (task.dishes.length > 1) {
        const shares = task.amounts.map(({ grams, dish: of }) =>
          t("sheet.share", { grams: wholeNumber(grams), dish: dishOf(batches, of)?.name ?? "" }),
        );
        return t("sheet.forSeveral", { verb, food: task.amounts[0]!.food, shares: shares.join(", ") });
      }
      const what = task.amounts.map(({ food, grams }) =>
        t("sheet.amount", { grams: wholeNumber(grams), food }),
      );
      return t("sheet.forOne", { verb, what: what.join(", "), dish });
    }
    case "step":
      return t("sheet.forDish", { verb: t(`verb.${way.verb}`), dish });
  }
}

/** How long it takes, and whether a cook stands by: "about 20 min by itself". */
export function minutesOf(t: TFunction, { task, way, start, end }: PlacedPrepTask): string {
  const time = lengthOf(t, end - start);
  const said = t(task.isHandsOn ? "sheet.hands" : "sheet.byItself", { time });
  if (typeof way.usual === "number") return t("sheet.own", { said });
  return task.isAbout ? t("sheet.about", { said }) : said;
}
