import { useEffect, useRef, useState, useSyncExternalStore } from "react";
import type { RecipeView } from "../../api";
import { recipeDesks } from "./desk";
import { keyedAnew, sheetOf, type Sheet } from "./sheet";

/** The fields that are typed into; any other change is a step of its own. */
const typed = /^(line-|step-|name|portions|pieces|cookedGrams|fills|pan)/;

/** The sheet with each line's origin as the host told it. */
function withOrigins(now: Sheet, saved: RecipeView): Sheet {
  const origins = new Map(saved.keys.map((id, i) => [id, saved.origins[i]!]));
  return {
    ...now,
    lines: now.lines.map((line) => ({ ...line, origin: origins.get(line.id) ?? line.origin })),
  };
}

/** A recipe on the bench: every change can be undone, and saves by itself a moment after the last key, also after one has left. */
export function useRecipe(recipe: RecipeView) {
  const [desk] = useState(() => recipeDesks.of(recipe));
  const [sheet, setSheet] = useState(() => (desk.unstored ? keyedAnew(desk.unstored) : sheetOf(recipe)));
  const [past, setPast] = useState<Sheet[]>([]);
  const [future, setFuture] = useState<Sheet[]>([]);
  const { state, trouble } = useSyncExternalStore(desk.listen, () => desk.standing);
  const [saved, setSaved] = useState(recipe);
  const lastEdit = useRef({ at: 0, field: "" });

  useEffect(() => {
    const deafen = desk.listen(() => {
      const now = desk.standing.saved;
      if (!now) return;
      setSaved(now);
      setSheet((before) => withOrigins(before, now));
    });
    void desk.flush();

    // Leaving the bench saves what waits; closing the window asks first.
    const warn = (event: BeforeUnloadEvent) => {
      if (!desk.unstored) return;
      void desk.flush();
      event.preventDefault();
    };
    window.addEventListener("beforeunload", warn);
    return () => {
      window.removeEventListener("beforeunload", warn);
      deafen();
      void desk.flush();
    };
  }, [desk]);

  const write = (next: Sheet) => {
    setSheet(next);
    desk.write(next);
  };

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
    if (mine) return desk.overrule(other.version, sheet);
    setPast([...past, sheet]);
    setSheet(sheetOf(other));
    desk.drop(other.version);
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
    flush: () => desk.flush(),
    /** The version that the last answer gave. */
    version: () => desk.version,
  };
}
