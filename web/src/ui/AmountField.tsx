import { useWords } from "../app/i18n";
import { inPieces } from "./format";
import { useTyped } from "./useTyped";

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
  const field = useTyped(text ?? inPieces(t, { pieces, grams: weight }), onAmend);
  return (
    <input
      className={`field min-h-8 min-w-0 px-2 text-sm max-md:min-h-11 ${text === null ? "w-24 text-right" : "flex-1"}`}
      aria-label={t("amountOf", { name })}
      title={t("amountHint")}
      maxLength={300}
      {...field}
    />
  );
}
