import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { useTranslation } from "react-i18next";
import { saveRecipe, seen, troubleOf, type RecipeView, type Trouble } from "../../api";

/** A line as typed, with the food chosen for it. */
export interface Line {
  key: number;
  text: string;
  foodId: string | null;
}

/** A recipe as it stands on the bench. */
export interface Sheet {
  name: string;
  portions: string;
  lines: Line[];
}

let nextKey = 1;
export const newLine = (text = "", foodId: string | null = null): Line => ({ key: nextKey++, text, foodId });

const sheetOf = (recipe: RecipeView): Sheet => ({
  name: recipe.name,
  portions: String(recipe.portions),
  lines: [...recipe.lines.map((text, i) => newLine(text, recipe.foods[i] || null)), newLine()],
});

/** A recipe on the bench: every change can be undone, and saves by itself a moment after the last key. */
export function useRecipe(recipe: RecipeView) {
  const { t } = useTranslation("recipes");
  const queries = useQueryClient();
  const [past, setPast] = useState<Sheet[]>([]);
  const [sheet, setSheet] = useState(() => sheetOf(recipe));
  const [future, setFuture] = useState<Sheet[]>([]);
  const [state, setState] = useState<"saved" | "saving" | "unsaved">("saved");
  const [trouble, setTrouble] = useState<Trouble | null>(null);
  const version = useRef(recipe.version);
  const waiting = useRef<Sheet | null>(null);
  const running = useRef<Promise<void>>(Promise.resolve());
  const timer = useRef(0);
  const lastEdit = useRef({ at: 0, field: "" });

  const flush = useCallback(() => {
    window.clearTimeout(timer.current);
    running.current = running.current.then(async () => {
      const next = waiting.current;
      if (!next) return;
      waiting.current = null;
      setState("saving");
      const kept = next.lines.filter(({ text }) => text.trim() !== "");
      const portions = /^\d{1,7}$/.test(next.portions.trim()) ? Number(next.portions) : 0;
      try {
        const { data } = await saveRecipe({
          path: { id: recipe.id },
          headers: seen(version.current),
          body: {
            name: next.name,
            portions,
            lines: kept.map(({ text }) => text),
            foods: kept.map(({ foodId }) => foodId ?? ""),
          },
        });
        version.current = data!.version;
        setTrouble(null);
        setState(waiting.current ? "unsaved" : "saved");
        await Promise.all([
          queries.invalidateQueries({ queryKey: ["recipes"] }),
          queries.invalidateQueries({ queryKey: ["overview"] }),
        ]);
      } catch (thrown) {
        waiting.current ??= next;
        setTrouble(troubleOf(thrown, t("app:silent")));
        setState("unsaved");
      }
    });
    return running.current;
  }, [queries, recipe.id, t]);

  const write = useCallback(
    (next: Sheet) => {
      setSheet(next);
      setState("unsaved");
      waiting.current = next;
      window.clearTimeout(timer.current);
      timer.current = window.setTimeout(() => void flush(), 700);
    },
    [flush],
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
    if (field !== lastEdit.current.field || now - lastEdit.current.at > 1000)
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
    flush,
    version,
  };
}
