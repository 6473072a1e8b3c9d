import type { TFunction } from "i18next";

/** The time of day so many minutes after a beginning, "10:00:00" and 95 are "11:35". */
export function timeAt(begins: string, minutes: number) {
  const [hour, minute] = begins.split(":").map(Number);
  const at = (((hour! * 60 + minute! + minutes) % 1440) + 1440) % 1440;
  return `${Math.floor(at / 60)}:${String(at % 60).padStart(2, "0")}`;
}

/** A length in words: "2 h 40 min". */
export function lengthOf(t: TFunction, minutes: number) {
  const [hours, rest] = [Math.floor(minutes / 60), minutes % 60];
  if (hours === 0) return t("minutes", { minutes: rest });
  return rest === 0 ? t("hours", { hours }) : t("hoursMinutes", { hours, minutes: rest });
}

/** "12:40" for minutes and seconds, "3 h 05" above an hour. */
export function countDown(milliseconds: number) {
  const seconds = Math.ceil(Math.abs(milliseconds) / 1000);
  const [minutes, rest] = [Math.floor(seconds / 60), seconds % 60];
  if (minutes >= 60) return `${Math.floor(minutes / 60)} h ${String(minutes % 60).padStart(2, "0")}`;
  return `${minutes}:${String(rest).padStart(2, "0")}`;
}
