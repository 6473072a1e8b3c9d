import type { TFunction } from "i18next";
import { addDays, format, parseISO } from "date-fns";
import type { Allergen, Figure, FoodGroup, Measure } from "../api";

export const foodGroups: FoodGroup[] = [
  "vegetables",
  "fruit",
  "potatoes",
  "pulses",
  "grains",
  "dairy",
  "eggs",
  "fish",
  "meat",
  "nutsAndSeeds",
  "fats",
  "sweets",
  "seasonings",
];

export const allergens: Allergen[] = [
  "gluten",
  "milk",
  "eggs",
  "fish",
  "crustaceans",
  "molluscs",
  "peanuts",
  "treeNuts",
  "soy",
  "sesame",
  "celery",
  "mustard",
  "sulphites",
  "lupin",
];

const whole = new Intl.NumberFormat("en", { maximumFractionDigits: 0 });
const tenths = new Intl.NumberFormat("en", { minimumFractionDigits: 1, maximumFractionDigits: 1 });
const upToTenths = new Intl.NumberFormat("en", { maximumFractionDigits: 1 });
const upToHundredths = new Intl.NumberFormat("en", { maximumFractionDigits: 2 });

/** The measures with the one that is looked through first. */
export const lensFirst = (lens: Measure, measures: Measure[]) => [
  lens,
  ...measures.filter((measure) => measure !== lens),
];

/** Half away from zero, as the core rounds; Intl rounds half expand by default, which is the same. What comes to zero is not below it. */
function said(as: Intl.NumberFormat, value: number) {
  const text = as.format(value);
  return text.replace("-", /[1-9]/.test(text) ? "−" : "");
}

export const wholeNumber = (value: number) => said(whole, value);
export const oneDecimal = (value: number) => said(tenths, value);
export const grams = (value: number) => said(upToTenths, value);
/** Pieces are counted in halves at the finest. */
export const toHalf = (count: number) => Math.round(count * 2) / 2;

/** "12 pieces", "1 1/2 pieces", "half a piece". */
export const piecesOf = (t: TFunction, count: number) => {
  const [sign, all] = [count < 0 ? "−" : "", Math.abs(count)];
  const whole = Math.trunc(all);
  if (all === 0.5) return `${sign}${t("app:halfPiece")}`;
  return t("app:pieces", { count: all, said: `${sign}${all === whole ? whole : `${whole} 1/2`}` });
};

/** An amount of something: in pieces where it comes in pieces, else in whole grams; and in cups where it is known what it fills. */
export const inPieces = (
  t: TFunction,
  { pieces, grams: weight, volume }: { pieces?: number | null; grams: number; volume?: string | null },
) => {
  if (pieces) return piecesOf(t, pieces);
  const said = `${grams(Math.round(weight))} g`;
  return volume ? t("app:orVolume", { said, volume }) : said;
};
export const exact = (value: number) => upToHundredths.format(value);

const hundredths = new Intl.NumberFormat("en", {
  minimumFractionDigits: 2,
  maximumFractionDigits: 2,
  signDisplay: "exceptZero",
});

/** A change, with its sign and two places: "+0.35", "−0.35". */
export const signedTwo = (value: number) => hundredths.format(value).replace("-", "−");

/** A day's or a box's figure: kcal whole, small grams with a tenth, points as their rule rounds them. */
export function amount(measure: Measure, value: number): string {
  if (measure === "points") return said(upToHundredths, value);
  return measure === "energy" || Math.abs(value) >= 20 ? wholeNumber(value) : oneDecimal(value);
}

export const figureOf = (figures: { [key: string]: Figure } | undefined, measure: Measure) =>
  figures?.[measure];

/** The unit with the measure it is of: "kcal", "pt", "g protein". */
export const unitWords = (t: TFunction, measure: Measure) =>
  measure === "energy" || measure === "points" ? unitOf(measure) : `g ${t(`app:measures.${measure}`)}`;

export const unitOf = (measure: Measure) =>
  measure === "energy" ? "kcal" : measure === "points" ? "pt" : "g";

export const weekday = (day: string) => format(parseISO(day), "EEE");
export const longDay = (day: string) => format(parseISO(day), "EEEE d MMMM");
export const shortDay = (day: string) => format(parseISO(day), "EEE d MMM");
export const dayNumber = (day: string) => format(parseISO(day), "d");
export const clock = (instant: string) => format(parseISO(instant), "H:mm");

/** The day of an instant, where it is read. */
export const dayOf = (instant: string) => isoDay(parseISO(instant));

/** A time of day as the host has it, "07:30:00", as one says it: "7:30". */
export const clockOf = (time: string) => time.slice(0, 5).replace(/^0(?=\d)/, "");
/** The week that begins on a Monday: "16 Nov – 22 Nov". */
export const weekWords = (monday: string) =>
  `${shortDay(monday).slice(4)} – ${shortDay(isoDay(addDays(parseISO(monday), 6))).slice(4)}`;
export const isoDay = (day: Date) => format(day, "yyyy-MM-dd");
