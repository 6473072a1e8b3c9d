import type {
  CalcRecipeRequest,
  LineOrigin,
  Measure,
  Occupies,
  PanShape,
  PointsRule,
  RecipePart,
  RecipeRequest,
  RecipeStep,
  RecipeView,
} from "../../api";
import { sentNumber, wholeIn } from "../../ui/numbers";

/** A line as typed, with the food chosen for it. */
export interface Line {
  key: number;
  text: string;
  foodId: string | null;
  part: RecipePart;
  isTakenOut: boolean;
  /** The line's name in versions and variants, made once with the line. */
  id: string;
  origin: LineOrigin;
}

/** A step as typed: its numbers are text until they are sent. */
export interface Step {
  key: number;
  text: string;
  handsOn: string;
  unattended: string;
  /** Null as the sentence says. */
  occupies: Occupies[] | null;
  temperature: string;
  doneWhen: string;
  /** Up to how many days before it may be done; empty as the sentence says. */
  daysAhead: string;
}

/** A recipe as it stands on the bench. */
export interface Sheet {
  name: string;
  portions: string;
  pieces: string;
  mayHalve: boolean;
  /** The lines are what one box gets of other recipes and plain foods. */
  isPutTogether: boolean;
  cookedGrams: string;
  /** What it fills, as it is said: "8 cups". */
  fills: string;
  pan: { shape: PanShape | ""; length: string; width: string };
  lines: Line[];
  steps: Step[];
}

/** What is shown of a portion, in this order. */
const portionMeasures: Measure[] = [
  "energy",
  "protein",
  "carbohydrate",
  "netCarbohydrate",
  "fat",
  "fibre",
  "salt",
  "points",
];

/** What a portion is read by: points only under a rule that somebody chose. */
export const measuresUnder = (rule: PointsRule | null | undefined): Measure[] =>
  portionMeasures.filter((measure) => measure !== "points" || rule);

const said = (value: number | null | undefined) => (value == null ? "" : String(value));

let nextKey = 1;
const opened = Date.now().toString(36) + Math.random().toString(36).slice(2, 8);

export const newLine = (text = "", part: RecipePart = "main"): Line => {
  const key = nextKey++;
  return { key, text, foodId: null, part, isTakenOut: false, id: `${opened}-${key}`, origin: "own" };
};
export const newStep = (step?: RecipeStep): Step => ({
  key: nextKey++,
  text: step?.text ?? "",
  handsOn: said(step?.handsOn),
  unattended: said(step?.unattended),
  occupies: step?.occupies ?? null,
  temperature: step?.temperatureC == null ? "" : String(step.temperatureC),
  doneWhen: step?.doneWhen ?? "",
  daysAhead: said(step?.daysAhead),
});

/** The lines and the yield of a recipe as they came, ready to be typed into. */
export function linesOf(
  recipe: RecipeRequest,
  origins: LineOrigin[] = [],
): Pick<
  Sheet,
  "portions" | "pieces" | "mayHalve" | "isPutTogether" | "cookedGrams" | "fills" | "pan" | "lines"
> {
  return {
    portions: String(recipe.portions),
    pieces: said(recipe.pieces),
    mayHalve: recipe.mayHalve ?? false,
    isPutTogether: recipe.isPutTogether ?? false,
    cookedGrams: said(recipe.cookedGrams),
    fills: recipe.fills ?? "",
    pan: {
      shape: recipe.pan?.shape ?? "",
      length: said(recipe.pan?.lengthCm),
      width: said(recipe.pan?.widthCm),
    },
    lines: [
      ...recipe.lines.map((text, i) => ({
        ...newLine(text ?? "", recipe.parts?.[i] ?? "main"),
        foodId: recipe.foods?.[i] || null,
        isTakenOut: recipe.takenOut?.[i] ?? false,
        ...(recipe.keys?.[i] ? { id: recipe.keys[i] } : {}),
        origin: origins[i] ?? "own",
      })),
      newLine(),
    ],
  };
}

export const sheetOf = (recipe: RecipeView): Sheet => ({
  name: recipe.name,
  ...linesOf(recipe, recipe.origins),
  steps: recipe.steps.map(newStep),
});

const sentWhole = (typed: string) => {
  const value = sentNumber(typed);
  return value === null ? null : Number.isInteger(value) ? value : -1;
};

/** A sheet as the host reads it: its written lines and what it makes. */
export function requestOf(sheet: Sheet): RecipeRequest {
  const kept = sheet.lines.filter(({ text }) => text.trim() !== "");
  const length = sentNumber(sheet.pan.length);
  return {
    name: sheet.name,
    lines: kept.map(({ text }) => text),
    foods: kept.map(({ foodId }) => foodId ?? ""),
    parts: kept.map(({ part }) => part),
    takenOut: kept.map(({ isTakenOut }) => isTakenOut),
    keys: kept.map(({ id }) => id),
    // What is typed of a whole batch waits for the day the dish is cooked in one again.
    portions: sheet.isPutTogether ? 1 : Math.max(0, wholeIn(sheet.portions) ?? 0),
    pieces: sheet.isPutTogether ? null : sentWhole(sheet.pieces),
    mayHalve: sheet.mayHalve,
    isPutTogether: sheet.isPutTogether,
    cookedGrams: sheet.isPutTogether ? null : sentNumber(sheet.cookedGrams),
    fills: sheet.fills.trim() || null,
    pan:
      sheet.pan.shape && length !== null
        ? {
            shape: sheet.pan.shape,
            lengthCm: length,
            widthCm: sheet.pan.shape === "round" ? null : sentNumber(sheet.pan.width),
          }
        : null,
    steps: sheet.steps.filter(({ text }) => text.trim() !== "").map((step) => stepOf(step)),
  };
}

/** A step as the host reads it; only to be read, half-typed numbers say nothing. */
export function stepOf(step: Step, isHalfTyped = false) {
  const whole = (typed: string) => {
    const value = sentWhole(typed);
    return isHalfTyped && value !== null && value < 0 ? null : value;
  };
  return {
    text: step.text,
    handsOn: whole(step.handsOn),
    unattended: whole(step.unattended),
    occupies: step.occupies,
    temperatureC: whole(step.temperature),
    doneWhen: step.doneWhen.trim() || null,
    daysAhead: whole(step.daysAhead),
  };
}

/** The same, to be computed only: half-typed numbers do not stand in the way. */
export function calcOf(sheet: Sheet, rule: PointsRule | null, selfId: string): CalcRecipeRequest {
  const lines = requestOf(sheet);
  const fine = (value: number | null | undefined) => (value != null && value > 0 ? value : null);
  return {
    lines: lines.lines,
    foods: lines.foods,
    parts: lines.parts,
    takenOut: lines.takenOut,
    keys: lines.keys,
    portions: Math.max(1, Math.min(1000, lines.portions)),
    pieces: fine(lines.pieces),
    mayHalve: lines.mayHalve,
    isPutTogether: lines.isPutTogether,
    cookedGrams: fine(lines.cookedGrams),
    fills: lines.fills,
    pan: lines.pan && fine(lines.pan.lengthCm) ? lines.pan : null,
    rule,
    selfId,
  };
}

/** A sheet that was kept in the browser: its lines and steps get keys of this visit. */
export const keyedAnew = (sheet: Sheet): Sheet => ({
  ...sheet,
  mayHalve: sheet.mayHalve ?? false,
  isPutTogether: sheet.isPutTogether ?? false,
  fills: sheet.fills ?? (sheet as { volumeMl?: string }).volumeMl ?? "",
  lines: sheet.lines.map((line) => ({ ...line, key: nextKey++ })),
  steps: sheet.steps.map((step) => ({ ...step, daysAhead: step.daysAhead ?? "", key: nextKey++ })),
});
