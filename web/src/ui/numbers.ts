/** The fractions that have a character of their own. */
const fractions: Record<string, number> = {
  "¼": 1 / 4,
  "½": 1 / 2,
  "¾": 3 / 4,
  "⅓": 1 / 3,
  "⅔": 2 / 3,
  "⅛": 1 / 8,
  "⅜": 3 / 8,
  "⅝": 5 / 8,
  "⅞": 7 / 8,
};

const thousands = /^[1-9]\d{0,2}(,\d{3})+(\.\d+)?$/;
const plain = /^\d+(\.\d+)?$|^\.\d+$/;

const simple = (text: string) => {
  const compact = thousands.test(text) ? text.replaceAll(",", "") : text.replace(",", ".");
  return plain.test(compact) ? Number(compact) : NaN;
};

/**
 * A number as people type it, read as the host reads a line: "4,700" is four thousand seven hundred, "4,7" is 4.7, "1 1/2" and "1½" are one and a half.
 * tests/numbers.json holds both to the same readings.
 * @returns the number typed, null for an empty field, NaN for what is no number.
 */
export function numberIn(typed: string): number | null {
  const text = typed.trim();
  if (text === "") return null;
  if (text.startsWith("-")) return -(numberIn(text.slice(1)) ?? NaN);
  const last = fractions[text.at(-1)!];
  if (last !== undefined) return text.length === 1 ? last : simple(text.slice(0, -1).trim()) + last;
  const parted = /^(?:(\d+)\s+)?(\d+)\s*\/\s*(\d+)$/.exec(text);
  if (!parted) return simple(text);
  const [, whole, above, below] = parted;
  return Number(below) === 0 ? NaN : Number(whole ?? 0) + Number(above) / Number(below);
}

/**
 * A weight as the scale gave it; what was weighed in several pans is put together: "3620 + 3400".
 * @returns the sum, null for an empty field, NaN for what is no weight.
 */
export function weightIn(typed: string): number | null {
  const parts = typed.split("+").map(numberIn);
  return parts.length === 1 ? parts[0]! : parts.reduce<number>((sum, part) => sum + (part ?? NaN), 0);
}

/** A number to send: nothing for an empty field, and for what is no number one that the host refuses with its sentence. */
export function sentNumber(typed: string, read = numberIn): number | null {
  const value = read(typed);
  return value === null || Number.isFinite(value) ? value : -1;
}

/** A whole number, or null for anything else: "1,200" is one, "1.5" is none. */
export function wholeIn(typed: string): number | null {
  const value = numberIn(typed);
  return value !== null && Number.isSafeInteger(value) ? value : null;
}

/**
 * A time of day as people type it: "10", "10:30", "10.30", "1030", "6 pm", "18h30".
 * @returns "10:30", with two digits for the hour; null for what is no time.
 */
export function timeIn(typed: string): string | null {
  const parted = /^(\d{1,2})(?:\s*[:.h]\s*(\d{2})|(\d{2}))?\s*(h|am|pm|a\.m\.|p\.m\.)?$/i.exec(typed.trim());
  if (!parted) return null;
  const half = parted[4]?.replaceAll(".", "").toLowerCase();
  let hour = Number(parted[1]);
  const minute = Number(parted[2] ?? parted[3] ?? 0);
  if ((half === "am" || half === "pm") && (hour < 1 || hour > 12)) return null;
  if (half === "pm" && hour < 12) hour += 12;
  if (half === "am" && hour === 12) hour = 0;
  if (hour > 23 || minute > 59) return null;
  return `${String(hour).padStart(2, "0")}:${String(minute).padStart(2, "0")}`;
}
