import { useState } from "react";
import { useWords } from "../app/i18n";
import { timeIn } from "./numbers";

/** A time of day as people type it: "10", "10:30", "6 pm". It is read when the field is left, or with Enter. */
export function TimeField({
  id,
  label,
  value,
  isNeeded = false,
  hint,
  change,
}: {
  id?: string;
  label?: string;
  /** As the host has it, "10:00:00"; null for none. */
  value: string | null | undefined;
  /** Whether it can't be left empty: then it stays as it was. */
  isNeeded?: boolean;
  hint?: string;
  change: (time: string | null) => void;
}) {
  const { t } = useWords();
  const [typed, setTyped] = useState<string | null>(null);
  const shown = value ? value.slice(0, 5).replace(/^0(?=\d:)/, "") : "";
  const read = typed === null ? null : timeIn(typed);
  const isWrong = typed !== null && typed.trim() !== "" && read === null;
  const commit = () => {
    if (typed === null || isWrong) return;
    setTyped(null);
    if (read === null && isNeeded) return;
    const next = read === null ? null : `${read}:00`;
    if (next !== (value ?? null)) change(next);
  };
  return (
    <input
      id={id}
      aria-label={label}
      aria-invalid={isWrong}
      title={isWrong ? t("timeUnclear") : undefined}
      placeholder={hint}
      autoComplete="off"
      className={`field w-[4.5rem] text-right ${isWrong ? "border-brick" : ""}`}
      value={typed ?? shown}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={commit}
      onKeyDown={(event) => {
        if (event.key === "Enter") commit();
        if (event.key === "Escape") setTyped(null);
      }}
    />
  );
}
