import { createContext, useContext, useLayoutEffect, type ReactNode } from "react";
import { useEaters } from "./Header";
import { useKitchen } from "./kitchen";

const place = "tern.quiet";
const page = document.documentElement.dataset;

/** As it was when this device was last looked at: nothing is shown for a moment that is not to be shown. */
export const beQuietAsBefore = () => {
  if (localStorage.getItem(place) === "yes") page.quiet = "";
};

const QuietContext = createContext(false);

/**
 * Whether figures of energy and body are left out: where the eater who is looked at wants it so, and where all are looked at, one of them does. What is of class
 * "counted" is not shown then; what is said in other ways asks here.
 */
export const useQuiet = () => useContext(QuietContext);

/** Has everything in it know whether figures are left out. */
export function QuietProvider({ children }: { children: ReactNode }) {
  const { eater } = useKitchen();
  const eaters = useEaters();
  const shown = eaters?.find(({ id }) => id === eater) ?? (eater === "all" ? undefined : eaters?.[0]);
  const quiet = eaters
    ? (shown?.isQuiet ?? eaters.some(({ isQuiet }) => isQuiet))
    : localStorage.getItem(place) === "yes";
  const isKnown = eaters !== undefined;
  useLayoutEffect(() => {
    if (!isKnown) return;
    if (quiet) page.quiet = "";
    else delete page.quiet;
    localStorage.setItem(place, quiet ? "yes" : "no");
  }, [quiet, isKnown]);
  return <QuietContext value={quiet}>{children}</QuietContext>;
}
