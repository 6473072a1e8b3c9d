/** What the scale has said of the box that stands on it. */
export interface Heard {
  /** Where it came to rest last; null where it did not yet. */
  rested: number | null;
  /** The box that was taken last still stands on it, with so much in it: the next begins when that is lifted off. */
  still: number | null;
  /** What stands there is not read again: its weight was typed, or another box is to be filled now. */
  isFinal: boolean;
}

export const nothingHeard: Heard = { rested: null, still: null, isFinal: false };

/** What a box is to get: grams, and how far below and above that is at its mark. */
export interface Mark {
  target: number;
  below: number;
  above: number;
}

/** Lifted off within a tenth of its target, a box is full; further off the cook is asked. */
const nearEnough = 0.1;

/** What a reading gives: a box is taken with so many grams; or the one that still stands there holds so many after all. */
export interface Taken {
  grams: number;
  isAgain: boolean;
}

/**
 * One more reading of the scale: a box is taken at rest at the mark, or lifted off near it. What jumps is not taken. A full box that still
 * stands there is not taken twice; a spoon more in it is its own.
 */
export function hear(before: Heard, grams: number, isAtRest: boolean, mark: Mark): [Heard, Taken | null] {
  const { rested, still, isFinal } = before;
  if (still !== null) {
    if (grams < still / 2) return [nothingHeard, null];
    if (isFinal || !isAtRest || grams === still) return [before, null];
    return [
      { ...before, still: grams },
      { grams, isAgain: true },
    ];
  }
  if (isAtRest && grams > 0 && standsAt(grams, mark) === "at")
    return [
      { ...nothingHeard, still: grams },
      { grams, isAgain: false },
    ];
  if (rested !== null && grams < rested / 2) {
    const isFull = rested >= mark.target * (1 - nearEnough) && rested <= mark.target * (1 + nearEnough);
    return [nothingHeard, isFull ? { grams: rested, isAgain: false } : null];
  }
  return [{ ...nothingHeard, rested: isAtRest && grams > 0 ? grams : rested }, null];
}

/** How a weight stands to its target, for the eye and in words. */
export const standsAt = (grams: number, { target, below, above }: Mark): "under" | "at" | "over" =>
  grams > target + above ? "over" : grams >= target - below ? "at" : "under";
