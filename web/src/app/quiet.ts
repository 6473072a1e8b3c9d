import { useEffect } from "react";
import { useEaters } from "./Header";
import { useKitchen } from "./kitchen";

const place = "tern.quiet";

/** As it was when this device was last looked at: nothing is shown for a moment that is not to be shown. */
export const beQuietAsBefore = () => {
  if (localStorage.getItem(place) === "yes") document.documentElement.dataset.quiet = "";
};

/**
 * Whether figures of energy and body are left out: where the eater who is looked at wants it so, and where all are looked at, one of them does. What is of class
 * "counted" is not shown then; what is said in other ways asks here.
 */
export function useQuiet(): boolean {
  const { eater } = useKitchen();
  const eaters = useEaters();
  if (!eaters) return "quiet" in document.documentElement.dataset;
  const shown = eaters.find(({ id }) => id === eater) ?? (eater === "all" ? undefined : eaters[0]);
  return shown ? shown.isQuiet : eaters.some(({ isQuiet }) => isQuiet);
}

/** Has the page know it, once for all of it. */
export function useQuietPage() {
  const quiet = useQuiet();
  const known = useEaters() !== undefined;
  useEffect(() => {
    if (!known) return;
    if (quiet) document.documentElement.dataset.quiet = "";
    else delete document.documentElement.dataset.quiet;
    localStorage.setItem(place, quiet ? "yes" : "no");
  }, [quiet, known]);
}
