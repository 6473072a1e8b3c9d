/** Made-up things, the same in every run. */
export function chance(seed: number) {
  const next = () => {
    seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0;
    return seed / 2 ** 32;
  };
  // The first few of neighbouring seeds are alike.
  for (let i = 0; i < 5; i++) next();
  const upTo = (most: number) => Math.floor(next() * most);
  const often = (share: number) => next() < share;
  return {
    upTo,
    often,
    /** A whole number, both ends within. */
    whole: (from: number, to: number) => from + upTo(to - from + 1),
    pick: <T>(from: readonly T[]) => from[upTo(from.length)]!,
    some: <T>(most: number, make: (i: number) => T) =>
      Array.from({ length: upTo(most + 1) }, (_, i) => make(i)),
    maybe: <T>(make: () => T) => (often(0.4) ? null : make()),
    /** A number as people and programs write them, with up to four places. */
    amount: (most: number) => Math.round(next() * most * 10 ** upTo(5)) / 10 ** upTo(5),
  };
}
