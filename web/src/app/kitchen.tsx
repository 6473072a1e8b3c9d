import { createContext, useContext, useMemo, useState, type ReactNode } from "react";
import type { Measure } from "../api";

interface Kitchen {
  /** The measure by which every block, ruler and label is read. */
  lens: Measure;
  setLens: (measure: Measure) => void;
  /** Whose day is shown: an eater's id, "all", or null before anyone is chosen. */
  eater: string | null;
  setEater: (id: string) => void;
}

const KitchenContext = createContext<Kitchen | null>(null);

function useKept<T extends string>(key: string, start: T): [T, (value: T) => void] {
  const [value, setValue] = useState(() => (localStorage.getItem(key) as T | null) ?? start);
  const keep = (next: T) => {
    localStorage.setItem(key, next);
    setValue(next);
  };
  return [value, keep];
}

export function KitchenProvider({ children }: { children: ReactNode }) {
  const [lens, setLens] = useKept<Measure>("tern.lens", "energy");
  const [eater, setEater] = useKept<string>("tern.eater", "");
  // eslint-disable-next-line react-hooks/exhaustive-deps -- the setters only write what they are given
  const kitchen = useMemo(() => ({ lens, setLens, eater: eater || null, setEater }), [lens, eater]);
  return <KitchenContext value={kitchen}>{children}</KitchenContext>;
}

export function useKitchen(): Kitchen {
  const kitchen = useContext(KitchenContext);
  if (!kitchen) throw new Error("useKitchen outside its provider");
  return kitchen;
}
