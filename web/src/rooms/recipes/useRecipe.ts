import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { useWords } from "../../app/i18n";
import {
  saveRecipe,
  seen,
  troubleOf,
  type CalcRecipeRequest,
  type LineOrigin,
  type Measure,
  type Occupies,
  type PanShape,
  type PointsRule,
  type RecipePart,
  type RecipeRequest,
  type RecipeStep,
  type RecipeView,
  type Trouble,
} from "../../api";
import { freshen } from "../../app/freshen";
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
  occupies: Occupies[];
  temperature: string;
  doneWhen: string;
}

/** A recipe as it stands on the bench. */
export interface Sheet {
  name: string;
  portions: string;
  pieces: string;
  cookedGrams: string;
  volumeMl: string;
  pan: { shape: PanShape | ""; length: string; width: string };
  lines: Line[];
  steps: Step[];
}

/** What is shown of a portion, in this order. */
export const portionMeasures: Measure[] = [
  "energy",
  "protein",
  "carbohydrate",
  "netCarbohydrate",
  "fat",
  "fibre",
  "salt",
  "points",
];

let nextKey = 1;
const opened = Date.now().toString(36) + Math.random().toString(36).slice(2, 8);

export const newLine = (text = "", part: RecipePart = "main"): Line => {
  const key = nextKey++;
  return { key, text, foodId: null, part, isTakenOut: false, id: `${opened}-${key}`, origin: "own" };
};
export const newStep = (step?: RecipeStep): Step => ({
  key: nextKey++,
  text: step?.text ?? "",
  handsOn: step?.handsOn ? String(step.handsOn) : "",
  unattended: step?.unattended ? String(step.unattended) : "",
  occupies: step?.occupies ?? [],
  temperature: step?.temperatureC == null ? "" : String(step.temperatureC),
  doneWhen: step?.doneWhen ?? "",
});

const said = (value: number | null | undefined) => (value == null ? "" : String(value));

/** The lines and the yield of a recipe as they came, ready to be typed into. */
export function linesOf(
  recipe: RecipeRequest,
  origins: LineOrigin[] = [],
): Pick<Sheet, "portions" | "pieces" | "cookedGrams" | "volumeMl" | "pan" | "lines"> {
  return {
    portions: String(recipe.portions),
    pieces: said(recipe.pieces),
    cookedGrams: said(recipe.cookedGrams),
    volumeMl: said(recipe.volumeMl),
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
    portions: Math.max(0, wholeIn(sheet.portions) ?? 0),
    pieces: sentWhole(sheet.pieces),
    cookedGrams: sentNumber(sheet.cookedGrams),
    volumeMl: sentNumber(sheet.volumeMl),
    pan:
      sheet.pan.shape && length !== null
        ? {
            shape: sheet.pan.shape,
            lengthCm: length,
            widthCm: sheet.pan.shape === "round" ? null : sentNumber(sheet.pan.width),
          }
        : null,
    steps: sheet.steps
      .filter(({ text }) => text.trim() !== "")
      .map((step) => ({
        text: step.text,
        handsOn: sentWhole(step.handsOn) ?? 0,
        unattended: sentWhole(step.unattended) ?? 0,
        occupies: step.occupies,
        temperatureC: sentWhole(step.temperature),
        doneWhen: step.doneWhen.trim() || null,
      })),
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
    cookedGrams: fine(lines.cookedGrams),
    volumeMl: fine(lines.volumeMl),
    pan: lines.pan && fine(lines.pan.lengthCm) ? lines.pan : null,
    rule,
    selfId,
  };
}

/** The fields that are typed into; any other change is a step of its own. */
const typed = /^(line-|step-|name|portions|pieces|cookedGrams|volumeMl|pan)/;

/** The sheet with each line's origin as the host told it. */
function withOrigins(now: Sheet, saved: RecipeView): Sheet {
  const origins = new Map(saved.keys.map((id, i) => [id, saved.origins[i]!]));
  return {
    ...now,
    lines: now.lines.map((line) => ({ ...line, origin: origins.get(line.id) ?? line.origin })),
  };
}

/** What was written and is not stored yet, with the version it was written on: it stays in the browser until it is. */
interface Unsent {
  version: number;
  sheet: Sheet;
}

const placeOf = (id: string) => `tern.recipe.${id}`;

function unsentOf(id: string): Unsent | null {
  try {
    const kept = JSON.parse(localStorage.getItem(placeOf(id)) ?? "null") as Unsent | null;
    if (!kept || !Array.isArray(kept.sheet.lines) || !Array.isArray(kept.sheet.steps)) return null;
    const keyed = <T extends { key: number }>(rows: T[]) => rows.map((row) => ({ ...row, key: nextKey++ }));
    return {
      ...kept,
      sheet: { ...kept.sheet, lines: keyed(kept.sheet.lines), steps: keyed(kept.sheet.steps) },
    };
  } catch {
    return null;
  }
}

function keepUnsent(id: string, version: number, sheet: Sheet) {
  try {
    localStorage.setItem(placeOf(id), JSON.stringify({ version, sheet } satisfies Unsent));
  } catch {
    // A browser that keeps nothing: then it waits in this tab only.
  }
}

const tryAgainAfter = 3000;

/**
 * A recipe on the bench: every change can be undone, and saves by itself a moment after the last key. What can't be stored stays in the browser, is shown as not
 * stored when the recipe is opened again, and is sent again until the host takes it.
 */
export function useRecipe(recipe: RecipeView) {
  const { t } = useWords("recipes");
  const queries = useQueryClient();
  const [past, setPast] = useState<Sheet[]>([]);
  const [unsent] = useState(() => unsentOf(recipe.id));
  const [sheet, setSheet] = useState(() => unsent?.sheet ?? sheetOf(recipe));
  const [future, setFuture] = useState<Sheet[]>([]);
  const [state, setState] = useState<"saved" | "saving" | "unsaved">(unsent ? "unsaved" : "saved");
  const [trouble, setTrouble] = useState<Trouble | null>(null);
  const [saved, setSaved] = useState(recipe);
  const version = useRef(unsent?.version ?? recipe.version);
  const waiting = useRef<Sheet | null>(unsent?.sheet ?? null);
  const running = useRef<Promise<void>>(Promise.resolve());
  const timer = useRef(0);
  const flushAgain = useRef<() => Promise<void>>(() => Promise.resolve());
  const lastEdit = useRef({ at: 0, field: "" });

  const flush = useCallback(() => {
    window.clearTimeout(timer.current);
    running.current = running.current.then(async () => {
      const next = waiting.current;
      if (!next) return;
      waiting.current = null;
      setState("saving");
      try {
        const { data } = await saveRecipe({
          path: { id: recipe.id },
          headers: seen(version.current),
          body: requestOf(next),
        });
        version.current = data!.version;
        if (waiting.current) keepUnsent(recipe.id, version.current, waiting.current);
        else localStorage.removeItem(placeOf(recipe.id));
        setTrouble(null);
        setSaved(data!);
        setSheet((now) => withOrigins(now, data!));
        setState(waiting.current ? "unsaved" : "saved");
        await freshen(queries, "recipe");
      } catch (thrown) {
        waiting.current ??= next;
        const what = troubleOf(thrown, t("app:silent"));
        setTrouble(what);
        setState("unsaved");
        // A host that does not answer is asked again; what it refuses waits for other words.
        if (what.status === undefined)
          timer.current = window.setTimeout(() => void flushAgain.current(), tryAgainAfter);
      }
    });
    return running.current;
  }, [queries, recipe.id, t]);
  useEffect(() => {
    flushAgain.current = flush;
    if (waiting.current) void flush();
    return () => window.clearTimeout(timer.current);
  }, [flush]);

  const write = useCallback(
    (next: Sheet) => {
      setSheet(next);
      setState("unsaved");
      waiting.current = next;
      keepUnsent(recipe.id, version.current, next);
      window.clearTimeout(timer.current);
      timer.current = window.setTimeout(() => void flush(), 700);
    },
    [flush, recipe.id],
  );

  // Leaving the bench saves what waits; closing the window asks first.
  useEffect(() => {
    const warn = (event: BeforeUnloadEvent) => {
      if (!waiting.current) return;
      void flush();
      event.preventDefault();
    };
    window.addEventListener("beforeunload", warn);
    return () => {
      window.removeEventListener("beforeunload", warn);
      void flush();
    };
  }, [flush]);

  /** @param field what is typed into: keys in one field within a second are one step. */
  const change = (next: Sheet, field: string) => {
    const now = Date.now();
    if (!typed.test(field) || field !== lastEdit.current.field || now - lastEdit.current.at > 1000)
      setPast([...past.slice(-200), sheet]);
    lastEdit.current = { at: now, field };
    setFuture([]);
    write(next);
  };
  const undo = () => {
    const before = past.at(-1);
    if (!before) return;
    setPast(past.slice(0, -1));
    setFuture([...future, sheet]);
    lastEdit.current = { at: 0, field: "" };
    write(before);
  };
  const redo = () => {
    const after = future.at(-1);
    if (!after) return;
    setFuture(future.slice(0, -1));
    setPast([...past, sheet]);
    write(after);
  };
  /** After another tab won: writes this screen over it knowingly, or takes the other. */
  const settle = (mine: boolean) => {
    const other = trouble?.current as RecipeView | undefined;
    if (!other) return;
    version.current = other.version;
    setTrouble(null);
    if (mine) {
      write(sheet);
      void flush();
    } else {
      setPast([...past, sheet]);
      waiting.current = null;
      localStorage.removeItem(placeOf(recipe.id));
      setSheet(sheetOf(other));
      setState("saved");
    }
  };

  return {
    sheet,
    change,
    undo,
    redo,
    canUndo: past.length > 0,
    canRedo: future.length > 0,
    state,
    trouble,
    settle,
    saved,
    flush,
    version,
  };
}
