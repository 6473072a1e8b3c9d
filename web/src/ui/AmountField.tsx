import { useRef, useState } from "react";
import { useWords } from "../app/i18n";
import { inPieces } from "./format";

interface AmountFieldProps {
  name: string;
  /** A plain food as it was typed; null for what is of a batch. */
  text: string | null;
  weight: number;
  /** Where it comes in pieces: how many. */
  pieces?: number | null;
  /** Writes what was typed; false where it was refused: then it stays as typed. */
  onAmend: (typed: string) => Promise<boolean>;
}

/** How much of something lies there, changed where it stands: "352 g", "352", "half"; of a plain food also a line anew. */
export function AmountField({ name, text, weight, pieces = null, onAmend }: AmountFieldProps) {
  const { t } = useWords();
  const now = text ?? inPieces(t, { pieces, grams: weight });
  const [typed, setTyped] = useState<string | null>(null);
  // What is on its way: Enter sends it, and leaving the field before the answer is here does not send it again.
  const sent = useRef<string | null>(null);
  const write = async () => {
    const said = typed?.trim();
    if (said === undefined || said === sent.current) return;
    sent.current = said;
    if (said === "" || said === now || (await onAmend(said)))
      setTyped((latest) => (latest?.trim() === said ? null : latest));
    if (sent.current === said) sent.current = null;
  };
  return (
    <input
      className={`field min-h-8 min-w-0 px-2 text-sm max-md:min-h-11 ${text === null ? "w-24 text-right" : "flex-1"}`}
      aria-label={t("amountOf", { name })}
      title={t("amountHint")}
      maxLength={300}
      value={typed ?? now}
      onFocus={(event) => event.target.select()}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={() => void write()}
      onKeyDown={(event) => {
        if (event.key === "Enter") void write();
        if (event.key === "Escape" && typed !== null) {
          event.stopPropagation();
          setTyped(null);
        }
      }}
    />
  );
}
