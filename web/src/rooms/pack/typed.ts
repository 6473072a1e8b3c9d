import { useState } from "react";
import type { BatchView } from "../../api";

export interface Typed {
  full: string;
  pan: string;
  boxes: string;
  pieces: string;
  byPieces: boolean;
}

/** What is typed on the bench is kept in the browser until the boxes are made: a reload loses no weight. */
export function useTyped(batch: BatchView): [Typed, (change: Partial<Typed>) => void, () => void] {
  const key = `tern.pack.${batch.id}`;
  const [typed, setTyped] = useState<Typed>(() => {
    const start = {
      full: "",
      pan: batch.rememberedPanGrams === null ? "" : String(batch.rememberedPanGrams),
      boxes: String(batch.boxesWanted),
      pieces: "",
      byPieces: false,
    };
    try {
      return { ...start, ...(JSON.parse(localStorage.getItem(key) ?? "{}") as Partial<Typed>) };
    } catch {
      return start;
    }
  });
  const change = (part: Partial<Typed>) => {
    const next = { ...typed, ...part };
    localStorage.setItem(key, JSON.stringify(next));
    setTyped(next);
  };
  return [typed, change, () => localStorage.removeItem(key)];
}
