import { useState } from "react";
import type { BatchView } from "../../api";

export interface Typed {
  full: string;
  pan: string;
  boxes: string;
  pieces: string;
  byPieces: boolean;
}

const written = (weight: number | null) => (weight === null ? "" : String(weight));

/** What is typed on the bench is kept in the browser until the boxes are made: a reload loses no weight. */
export function useTyped(batch: BatchView): [Typed, (change: Partial<Typed>) => void, () => void] {
  const key = `tern.pack.${batch.id}`;
  const [typed, setTyped] = useState<Typed>(() => {
    const start = {
      full: written(batch.fullGrams),
      pan: written(batch.panGrams ?? batch.rememberedPanGrams),
      boxes: String(batch.boxesWanted),
      // What its recipe makes in pieces is packed in pieces, unless the cook says otherwise.
      pieces: batch.pieces === null ? "" : String(batch.pieces),
      byPieces: batch.pieces !== null,
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
