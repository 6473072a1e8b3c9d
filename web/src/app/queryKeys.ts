/**
 * Under which key each answer of the host is kept. The first word says what it is about: a change has everything about some words
 * fetched anew (`freshen.ts`).
 */
export const queryKeys = {
  overview: (eater: string | null) => ["overview", eater],
  eaters: () => ["eaters"],
  aimStart: () => ["aimStart"],
  need: (...asked: unknown[]) => ["need", ...asked],
  firstAim: (asked: unknown) => ["firstAim", asked],
  foods: (...asked: unknown[]) => ["foods", ...asked],
  food: (id: string) => ["food", id],
  line: (...asked: unknown[]) => ["line", ...asked],
  label: (asked: unknown) => ["label", asked],
  shelfProducts: () => ["shelfProducts"],
  libraries: () => ["libraries"],
  import: (id: string | null) => ["import", id],
  starters: () => ["starters"],
  recipes: (eater: string | null) => ["recipes", "figures", eater],
  recipeNames: () => ["recipes", "names"],
  recipe: (id: string | undefined) => ["recipe", id],
  recipeNotes: (id: string) => ["recipe", id, "notes"],
  recipeVersions: (id: string) => ["versions", id],
  calc: (asked: unknown) => ["calc", asked],
  cuts: (asked: unknown) => ["cuts", asked],
  scale: (asked: unknown) => ["scale", asked],
  swap: (asked: unknown) => ["swap", asked],
  steps: (asked: unknown) => ["steps", asked],
  ahead: () => ["ahead"],
  prepDays: () => ["prepDays"],
  prepDay: (day: string | undefined) => ["prepDay", day],
  run: (day: string) => ["run", day],
  runDifferences: (day: string) => ["run", day, "differences"],
  equipment: () => ["equipment"],
  laidDay: (...asked: unknown[]) => ["laidDay", ...asked],
  shopping: (until: string | null) => ["shopping", until],
  /** How much is still to be bought, for the rail: read apart, so that no typing elsewhere has the list made anew. */
  toBuy: () => ["toBuy"],
  shopFood: (...asked: unknown[]) => ["shopFood", ...asked],
  instead: (...asked: unknown[]) => ["instead", ...asked],
  aisles: () => ["aisles"],
  pantry: (find: string) => ["pantry", find],
  devices: () => ["devices"],
  printer: () => ["printer"],
  labelPapers: () => ["labelPapers"],
  labels: (asked: unknown) => ["labels", asked],
  boxNotes: (recipe: string) => ["boxNotes", recipe],
  box: (code: string) => ["box", code],
  shelves: () => ["shelves"],
  /** What is to be done with boxes, in numbers, for the rail. */
  shelvesState: () => ["shelves", "state"],
  cooling: () => ["cooling"],
  coolingBoxes: (asked: unknown) => ["coolingBoxes", asked],
  guidelines: () => ["guidelines"],
  cautions: () => ["cautions"],
  containers: () => ["containers"],
  eye: (cook: string | null) => ["eye", cook],
  batches: () => ["batches"],
  batch: (id: string | undefined) => ["batch", id],
  batchLines: (id: string) => ["batch", id, "lines"],
  boxesPreview: (...asked: unknown[]) => ["preview", ...asked],
  week: (day: string | undefined) => ["week", day],
  day: (eater: string | null, day: string | undefined) => ["day", eater, day],
  dayInDepth: (...asked: unknown[]) => ["day", "depth", ...asked],
  why: (itemId: string, version: number) => ["day", "why", itemId, version],
  fit: (id: string | null) => ["fit", id],
} as const;

/** What an answer is about. */
export type About = ReturnType<(typeof queryKeys)[keyof typeof queryKeys]>[0];

/** All answers about something. */
export const all = (about: About) => ({ queryKey: [about] });
