import type { Allergen, Band, DayOfWeek, EatingWays, Measure, OtherDay, Slot } from "../../api";
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
  fillers: string;
  neverAllergens: Allergen[];
  neverFoods: string[];
  ratherNot: string[];
  likes: string[];
}

const text = (value: number | null | undefined) =>
  value === null || value === undefined ? "" : String(value);

/** What a band is written in, in the order of a sheet's columns. */
export const bandFields = ["min", "target", "tolerance", "max"] as const;

/** A band of its fields. */
export const bandOf = (read: (field: (typeof bandFields)[number]) => number | null): Band => ({
  min: read("min"),
  target: read("target"),
  max: read("max"),
  tolerance: read("tolerance"),
});

/** A worked-out number as a field shows it, to a tenth. */
export const numberText = (value: number | null | undefined) =>
  value === null || value === undefined ? undefined : String(Math.round(value * 10) / 10);

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
          bandFields.map((bound) => [`${measure}.${bound}`, text(band[bound])]),
        ),
      ),
      kept: Object.fromEntries(
        Object.entries(other.bands).filter(([measure]) => !rows.includes(measure as Measure)),
      ),
    })),
    reserve: text(ways.reserve),
    alike: text(ways.boxesAlike),
    fillers: text(ways.fillersADay),
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
          rows.map((measure) => [
            measure,
            bandOf((field) =>
              read(`ways.otherDays[${i}].bands.${measure}.${field}`, other.bounds[`${measure}.${field}`]),
            ),
          ]),
        ),
      },
    })),
    reserve: read("ways.reserve", draft.reserve),
    boxesAlike: read("ways.boxesAlike", draft.alike),
    fillersADay: read("ways.fillersADay", draft.fillers),
    neverAllergens: draft.neverAllergens,
    neverFoods: draft.neverFoods,
    ratherNot: draft.ratherNot,
    likes: draft.likes,
  };
}
