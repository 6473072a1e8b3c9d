/** What the scale has said of the box that stands on it. */
export interface Heard {
  /** Where it came to rest last; null where it did not yet. */
  rested: number | null;
  /** The box that was taken last still stands on it, with so much in it: the next begins when that is lifted off. */
  still: number | null;
}

export const nothingHeard: Heard = { rested: null, still: null };

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
export function hear(
  { rested, still }: Heard,
  grams: number,
  isAtRest: boolean,
  target: number,
  mark: number,
): [Heard, Taken | null] {
  if (still !== null) {
    if (grams < still / 2) return [nothingHeard, null];
    if (!isAtRest || grams === still) return [{ rested: null, still }, null];
    return [
      { rested: null, still: grams },
      { grams, isAgain: true },
    ];
  }
  if (isAtRest && grams > 0 && Math.abs(grams - target) <= mark)
    return [
      { rested: null, still: grams },
      { grams, isAgain: false },
    ];
  if (rested !== null && grams < rested / 2) {
    const isFull = Math.abs(rested - target) <= target * nearEnough;
    return [nothingHeard, isFull ? { grams: rested, isAgain: false } : null];
  }
  return [{ rested: isAtRest && grams > 0 ? grams : rested, still: null }, null];
}

/** How a weight stands to its target, for the eye and in words. */
export const standsAt = (grams: number, target: number, mark: number): "under" | "at" | "over" =>
  grams > target + mark ? "over" : grams >= target - mark ? "at" : "under";
