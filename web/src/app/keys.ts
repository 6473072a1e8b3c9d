import { useEffect, useEffectEvent } from "react";
import { useEaters } from "./Header";
import { useHistory } from "./history";
import { useKitchen } from "./kitchen";
import { lensesOf } from "./lens";
import { useQuiet } from "./quiet";

/** Whether someone is typing: then letters are letters, and undo belongs to the field. */
export const isTyping = (target: EventTarget | null) =>
  target instanceof HTMLElement &&
  (target.isContentEditable || ["INPUT", "TEXTAREA", "SELECT"].includes(target.tagName));

/** The keys that work in every room. */
export function useKeys({ keys, finder }: { keys: () => void; finder: () => void }) {
  const { setLens } = useKitchen();
  const lenses = lensesOf(useEaters());
  const quiet = useQuiet();
  const { undo, redo } = useHistory();
  const onKey = useEffectEvent((event: KeyboardEvent) => {
    if (isTyping(event.target) || event.defaultPrevented || document.querySelector("[role=dialog]")) return;
    const command = event.ctrlKey || event.metaKey;
    if (command && event.key.toLowerCase() === "z") {
      event.preventDefault();
      if (event.shiftKey) redo();
      else undo();
    } else if (command || event.altKey) return;
    else if (event.key === "?") keys();
    else if (event.key === "/") {
      event.preventDefault();
      finder();
    } else if (quiet) return;
    else if (event.key === "0") setLens("own");
    else if (/^[1-6]$/.test(event.key)) {
      const measure = lenses[Number(event.key) - 1];
      if (measure) setLens(measure);
    }
  });
  useEffect(() => {
    const listen = (event: KeyboardEvent) => onKey(event);
    window.addEventListener("keydown", listen);
    return () => window.removeEventListener("keydown", listen);
  }, []);
}
