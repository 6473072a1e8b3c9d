import type { TFunction } from "i18next";
import type { BatchView } from "../../api";
import { shortDay } from "../../ui/format";
import type { Row } from "./typed";

/** Whose box it is and for which day, as it stands on its strip; null where it is for anyone. */
export function whoseBox(t: TFunction, { planned, ownSizes }: BatchView, row: Row): string | null {
  const portion = planned.find(({ itemId }) => itemId === row.itemId);
  if (portion)
    return t(portion.isForGuests ? "forGuests" : "forWhom", {
      name: portion.name,
      day: shortDay(portion.day),
    });
  const name = ownSizes.find(({ eaterId }) => eaterId === row.eaterId)?.name;
  return name ? t("own.for", { name }) : null;
}
