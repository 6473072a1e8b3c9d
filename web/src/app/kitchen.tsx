import { createContext, useContext, useMemo, useState, type ReactNode } from "react";
import type { Lens } from "./lens";

interface Kitchen {
  /** The measure by which every block, ruler and label is read, or each eater's own. */
  lens: Lens;
  setLens: (lens: Lens) => void;
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
  const [lens, setLens] = useKept<Lens>("tern.lens", "own");
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
