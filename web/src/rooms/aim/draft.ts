import type { DayAim, EaterRequest, EaterView, FoodGroup, Measure, PointsRule } from "../../api";
import { numberIn } from "../../ui/numbers";
import { bandFields, bandOf, waysDraft, waysOf, type WaysDraft } from "./ways";

/** The measures a sheet offers bounds for. */
export const bounded: Measure[] = [
  "energy",
  "protein",
  "carbohydrate",
  "netCarbohydrate",
  "fat",
  "fibre",
  "points",
];

export const ruled = ["energy", "saturatedFat", "sugars", "protein", "fibre"] as const;

/** Points for a nutrient as typed: one for every so many of it. What is left as it was stays the very same number. */
interface PerUnit {
  every: string;
  takesOff: boolean;
  kept?: number;
}

const perUnitOf = (value: number): PerUnit => ({
  every: value === 0 ? "" : text(Math.round(1e3 / Math.abs(value)) / 1e3),
  takesOff: value < 0,
  kept: value,
});

/** An eater's sheet as typed: every number is still text, so that nothing typed is lost. */
export interface Draft {
  name: string;
  leading: Measure;
  bounds: Record<string, string>;
  rule: {
    name: string;
    step: string;
    /** For each nutrient: one point for every so many, and whether it takes points off. */
    perUnit: Record<string, PerUnit>;
    freeGroups: FoodGroup[];
    freeFoods: string[];
    /** Foods that count although their group is free. */
    countedFoods: string[];
    fixedValues: { foodId: string; points: string; grams: string }[];
  } | null;
  /** Bands this sheet has no row for; they are kept as they are. */
  otherBands: DayAim["bands"];
  leavesOutIncompleteProtein: boolean;
  clinicianSetIt: boolean;
  ways: WaysDraft;
}

/** Whether the usual day bounds a measure. */
export const isBounded = (draft: Pick<Draft, "bounds">, measure: Measure) =>
  (["min", "target", "max"] as const).some((bound) => draft.bounds[`${measure}.${bound}`]);

/** The measures other days are written in: those the usual day has a band for, and the one it is laid along. */
export const otherRows = (draft: Pick<Draft, "bounds" | "leading">): Measure[] =>
  bounded.filter((measure) => measure === draft.leading || isBounded(draft, measure));

const text = (value: number | null | undefined) =>
  value === null || value === undefined ? "" : String(value);

export function draftOf(eater: EaterView): Draft {
  const bounds: Record<string, string> = {};
  for (const [measure, band] of Object.entries(eater.written))
    for (const bound of bandFields) bounds[`${measure}.${bound}`] = text(band[bound]);
  return {
    name: eater.name,
    leading: eater.aim.leading,
    bounds,
    rule: eater.aim.rule && ruleDraft(eater.aim.rule),
    otherBands: Object.fromEntries(
      Object.entries(eater.written).filter(([measure]) => !bounded.includes(measure as Measure)),
    ),
    leavesOutIncompleteProtein: eater.aim.leavesOutIncompleteProtein ?? false,
    clinicianSetIt: eater.clinicianSetIt,
    ways: waysDraft(eater.ways, otherRows({ bounds, leading: eater.aim.leading })),
  };
}

export const ruleDraft = (rule: PointsRule): NonNullable<Draft["rule"]> => ({
  name: rule.name,
  step: text(rule.step),
  perUnit: Object.fromEntries(
    Object.entries(rule.perUnit).map(([nutrient, value]) => [nutrient, perUnitOf(value)]),
  ),
  freeGroups: rule.freeGroups,
  freeFoods: rule.freeFoods,
  countedFoods: rule.countedFoods ?? [],
  fixedValues: (rule.fixedValues ?? []).map(({ foodId, points, servingGrams }) => ({
    foodId,
    points: text(points),
    grams: text(servingGrams),
  })),
});

/** @returns the request, or the fields whose text is no number. */
export function requestOf(draft: Draft): { body: EaterRequest; unread: string[] } {
  const unread: string[] = [];
  const read = (field: string, typed: string | undefined) => {
    const value = numberIn(typed ?? "");
    if (value === null || Number.isFinite(value)) return value;
    unread.push(field);
    return null;
  };
  const bands: DayAim["bands"] = { ...draft.otherBands };
  for (const measure of bounded)
    bands[measure] = bandOf((field) =>
      read(`bands.${measure}.${field}`, draft.bounds[`${measure}.${field}`]),
    );
  const rule: PointsRule | null = draft.rule && {
    name: draft.rule.name,
    step: read("rule.step", draft.rule.step) ?? 0,
    perUnit: Object.fromEntries(
      Object.entries(draft.rule.perUnit).flatMap(([nutrient, { every, takesOff, kept }]) => {
        const was = kept === undefined ? null : perUnitOf(kept);
        if (was?.every === every && was.takesOff === takesOff) return [[nutrient, kept!]];
        const value = read(`rule.perUnit.${nutrient}`, every);
        if (value !== null && value <= 0) unread.push(`rule.perUnit.${nutrient}`);
        return value === null || value <= 0 ? [] : [[nutrient, (takesOff ? -1 : 1) / value]];
      }),
    ),
    freeGroups: draft.rule.freeGroups,
    freeFoods: draft.rule.freeFoods,
    countedFoods: draft.rule.countedFoods,
    fixedValues: draft.rule.fixedValues.map(({ foodId, points, grams }) => ({
      foodId,
      points: read("rule.fixedValues", points) ?? -1,
      servingGrams: read("rule.fixedValues", grams) ?? 0,
    })),
  };
  return {
    body: {
      name: draft.name,
      aim: {
        leading: draft.leading,
        bands,
        rule,
        leavesOutIncompleteProtein: draft.leavesOutIncompleteProtein,
      },
      clinicianSetIt: draft.clinicianSetIt,
      ways: waysOf(draft.ways, otherRows(draft), unread),
    },
    unread,
  };
}
