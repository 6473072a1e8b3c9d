import i18next, { type TFunction } from "i18next";
import { beginning } from "../beginning/words";
import { devices } from "../devices/words";
import { aim } from "../rooms/aim/words";
import { cook } from "../rooms/cook/words";
import { eat } from "../rooms/eat/words";
import { foods } from "../rooms/foods/words";
import { plan } from "../rooms/plan/words";
import { recipes } from "../rooms/recipes/words";
import { shop } from "../rooms/shop/words";
import { app } from "./words";

// A value whose letters turn the line around turns no more than itself: https://www.unicode.org/reports/tr9/#Explicit_Directional_Isolates
const turning = /[\u202a-\u202e\u2066-\u2068]/;
const apart = (value: string) => (turning.test(value) ? `\u2068${value}\u2069` : value);

void i18next.init({
  lng: "en",
  resources: { en: { app, beginning, devices, aim, foods, recipes, plan, shop, cook, eat } },
  defaultNS: "app",
  interpolation: { escape: apart },
});

/** Adds the words of a room that come with it: nobody else says them, and the first page need not bring them. */
export const addWords = (room: string, words: object) => i18next.addResourceBundle("en", room, words);

const spoken = new Map<string, { t: TFunction }>();

/**
 * The words of a room; "app:" before a key reaches those of the frame. The language stays while the program runs, so that hundreds of blocks need not ask
 * whether it changed.
 */
export function useWords(room = "app"): { t: TFunction } {
  let words = spoken.get(room);
  if (!words) spoken.set(room, (words = { t: i18next.getFixedT(null, room) }));
  return words;
}
