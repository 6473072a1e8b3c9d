import type { Allergen, DayOfWeek, EatingWays, Measure, OtherDay, Slot } from "../../api";
import { numberIn } from "../../ui/numbers";

export const weekdays: DayOfWeek[] = [
  "monday",
  "tuesday",
  "wednesday",
  "thursday",
  "friday",
  "saturday",
  "sunday",
];

/** A slot as typed; the share in per cent. */
export interface SlotDraft {
  name: string;
  at: string;
  share: string;
  takesBox: boolean;
}

/** Another day as typed: a weekday's name, or a date. */
export interface OtherDraft {
  name: string;
  when: string;
  bounds: Record<string, string>;
  /** Bounds this sheet has no row for; they are kept. */
  kept: OtherDay["bands"];
}

/** How an eater eats, as typed. */
export interface WaysDraft {
  slots: SlotDraft[];
  others: OtherDraft[];
  reserve: string;
  alike: string;
  neverAllergens: Allergen[];
  neverFoods: string[];
  ratherNot: string[];
  likes: string[];
}

const text = (value: number | null | undefined) =>
  value === null || value === undefined ? "" : String(value);
const bounds = ["min", "target", "max"] as const;

/** Moved by two places and back without a trace of binary fractions: a third stays the third it was. */
const percent = (share: number) => Number((share * 100).toPrecision(15));
const ofPercent = (value: number) => Number((value / 100).toPrecision(15));

export const slotDraft = (slot: Slot): SlotDraft => ({
  name: slot.name,
  at: slot.at?.slice(0, 5) ?? "",
  share: slot.share === null ? "" : String(percent(slot.share)),
  takesBox: slot.takesBox,
});

export function waysDraft(ways: EatingWays, rows: Measure[]): WaysDraft {
  return {
    slots: (ways.ownSlots ?? []).map(slotDraft),
    others: (ways.otherDays ?? []).map((other) => ({
      name: other.name,
      when: other.weekday ?? other.date ?? "",
      bounds: Object.fromEntries(
        Object.entries(other.bands).flatMap(([measure, band]) =>
          bounds.map((bound) => [`${measure}.${bound}`, text(band[bound])]),
        ),
      ),
      kept: Object.fromEntries(
        Object.entries(other.bands).filter(([measure]) => !rows.includes(measure as Measure)),
      ),
    })),
    reserve: text(ways.reserve),
    alike: text(ways.boxesAlike),
    neverAllergens: ways.neverAllergens ?? [],
    neverFoods: ways.neverFoods ?? [],
    ratherNot: ways.ratherNot ?? [],
    likes: ways.likes ?? [],
  };
}

/** @returns the ways to send; fields whose text is no number are named to `unread`. */
export function waysOf(draft: WaysDraft, rows: Measure[], unread: string[]): EatingWays {
  const read = (field: string, typed: string | undefined) => {
    const value = numberIn(typed ?? "");
    if (value === null || Number.isFinite(value)) return value;
    unread.push(field);
    return null;
  };
  return {
    ownSlots: draft.slots.map((slot, i) => {
      const share = read(`ways.ownSlots[${i}].share`, slot.share);
      return {
        name: slot.name,
        at: slot.at ? `${slot.at}:00` : null,
        share: share === null ? null : ofPercent(share),
        takesBox: slot.takesBox,
      };
    }),
    otherDays: draft.others.map((other, i) => ({
      name: other.name,
      weekday: weekdays.includes(other.when as DayOfWeek) ? (other.when as DayOfWeek) : null,
      date: /^\d{4}-\d\d-\d\d$/.test(other.when) ? other.when : null,
      bands: {
        ...other.kept,
        ...Object.fromEntries(
          rows.map((measure) => {
            const [min, target, max] = bounds.map((bound) =>
              read(`ways.otherDays[${i}].bands.${measure}.${bound}`, other.bounds[`${measure}.${bound}`]),
            );
            return [measure, { min: min ?? null, target: target ?? null, max: max ?? null }];
          }),
        ),
      },
    })),
    reserve: read("ways.reserve", draft.reserve),
    boxesAlike: read("ways.boxesAlike", draft.alike),
    neverAllergens: draft.neverAllergens,
    neverFoods: draft.neverFoods,
    ratherNot: draft.ratherNot,
    likes: draft.likes,
  };
}
