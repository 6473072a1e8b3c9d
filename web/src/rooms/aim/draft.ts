import type { DayAim, EaterRequest, EaterView, FoodGroup, Measure, PointsRule } from "../../api";

/** The measures a sheet offers bounds for. */
export const bounded: { measure: Measure; bounds: ("min" | "target" | "max")[] }[] = [
  { measure: "energy", bounds: ["min", "target", "max"] },
  { measure: "protein", bounds: ["min", "target", "max"] },
  { measure: "fat", bounds: ["min", "target", "max"] },
  { measure: "points", bounds: ["min", "target", "max"] },
];

export const ruled = ["energy", "saturatedFat", "sugars", "protein", "fibre"] as const;

/** An eater's sheet as typed: every number is still text, so that nothing typed is lost. */
export interface Draft {
  name: string;
  leading: Measure;
  bounds: Record<string, string>;
  rule: {
    name: string;
    step: string;
    perUnit: Record<string, string>;
    freeGroups: FoodGroup[];
    freeFoods: string[];
  } | null;
  clinicianSetIt: boolean;
}

const text = (value: number | null | undefined) =>
  value === null || value === undefined ? "" : String(value);

export function draftOf(eater: EaterView): Draft {
  const bounds: Record<string, string> = {};
  for (const [measure, band] of Object.entries(eater.aim.bands))
    for (const bound of ["min", "target", "max"] as const) bounds[`${measure}.${bound}`] = text(band[bound]);
  return {
    name: eater.name,
    leading: eater.aim.leading,
    bounds,
    rule: eater.aim.rule && ruleDraft(eater.aim.rule),
    clinicianSetIt: eater.clinicianSetIt,
  };
}

export const ruleDraft = (rule: PointsRule): NonNullable<Draft["rule"]> => ({
  name: rule.name,
  step: text(rule.step),
  perUnit: Object.fromEntries(
    Object.entries(rule.perUnit).map(([nutrient, value]) => [nutrient, text(value)]),
  ),
  freeGroups: rule.freeGroups,
  freeFoods: rule.freeFoods,
});

/** @returns the request, or the fields whose text is no number. */
export function requestOf(draft: Draft): { body: EaterRequest; unread: string[] } {
  const unread: string[] = [];
  const read = (field: string, typed: string | undefined) => {
    const trimmed = (typed ?? "").trim().replace(",", ".");
    if (trimmed === "") return null;
    const value = Number(trimmed);
    if (!Number.isFinite(value)) unread.push(field);
    return Number.isFinite(value) ? value : null;
  };
  const bands: DayAim["bands"] = {};
  for (const { measure, bounds } of bounded) {
    const [min, target, max] = (["min", "target", "max"] as const).map((bound) =>
      bounds.includes(bound) ? read(`bands.${measure}.${bound}`, draft.bounds[`${measure}.${bound}`]) : null,
    );
    bands[measure] = { min: min ?? null, target: target ?? null, max: max ?? null };
  }
  const rule: PointsRule | null = draft.rule && {
    name: draft.rule.name,
    step: read("rule.step", draft.rule.step) ?? 0,
    perUnit: Object.fromEntries(
      Object.entries(draft.rule.perUnit).flatMap(([nutrient, typed]) => {
        const value = read(`rule.perUnit.${nutrient}`, typed);
        return value === null ? [] : [[nutrient, value]];
      }),
    ),
    freeGroups: draft.rule.freeGroups,
    freeFoods: draft.rule.freeFoods,
  };
  return {
    body: {
      name: draft.name,
      aim: { leading: draft.leading, bands, rule },
      clinicianSetIt: draft.clinicianSetIt,
    },
    unread,
  };
}
