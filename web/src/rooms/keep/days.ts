import { addDays, parseISO } from "date-fns";
import { isoDay } from "../../ui/format";

const lately = 14;

/** Today and the days before it, the last first. */
export const daysBack = (today: string) =>
  Array.from({ length: lately }, (_, i) => isoDay(addDays(parseISO(today), -i)));

/** The day after a day. */
export const dayAfter = (day: string, count = 1) => isoDay(addDays(parseISO(day), count));
