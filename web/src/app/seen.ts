import { seen, type EaterDay, type MadeChange } from "../api";

/** The number of the last change that this tab has seen of each eater's day; the newest it was told, by a reading or by an answer. */
const known = new Map<string, number>();

const keyOf = ({ eaterId, day }: EaterDay) => `${eaterId}|${day}`;

/** Days as they were read, or as a change left them. */
export function sawDays(days: EaterDay[], version: number) {
  for (const day of days) known.set(keyOf(day), Math.max(known.get(keyOf(day)) ?? 0, version));
}

/** The header of a change to these days: what was seen of them. To be asked for when the change is sent, since a change before it may have gone out meanwhile. */
export const seenDays = (...days: EaterDay[]) =>
  seen(Math.max(0, ...days.map((day) => known.get(keyOf(day)) ?? 0)));

export const sawChange = ({ days, version }: MadeChange) => sawDays(days, version);
