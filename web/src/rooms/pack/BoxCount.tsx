import { Minus, Plus } from "lucide-react";
import { useId } from "react";
import { useWords } from "../../app/i18n";
import { wholeIn } from "../../ui/numbers";
import { Sentence } from "../../ui/states";

interface CountProps {
  label: string;
  value: string;
  problem?: string;
  onType: (value: string) => void;
}

/** A whole number under its name. */
export function Count({ label, value, problem, onType }: CountProps) {
  const id = useId();
  return (
    <div>
      <label htmlFor={id} className="block text-xs text-soft">
        {label}
      </label>
      <input
        id={id}
        inputMode="numeric"
        className={`field w-20 text-center font-title text-lg font-bold ${problem ? "border-2 border-brick" : ""}`}
        value={value}
        maxLength={6}
        onChange={(event) => onType(event.target.value)}
      />
      <Sentence>{problem}</Sentence>
    </div>
  );
}

/** Into how many boxes: typed, or one more or fewer. */
export function BoxCount({
  value,
  least,
  problem,
  onType,
}: Omit<CountProps, "label"> & {
  /** The fewest that can be pressed. */
  least: number;
}) {
  const { t } = useWords("pack");
  const count = wholeIn(value) ?? 0;
  return (
    <div className="flex items-end gap-1">
      <button
        className="btn px-2"
        aria-label={t("fewer")}
        onClick={() => onType(String(Math.max(least, count - 1)))}
      >
        <Minus size={16} aria-hidden />
      </button>
      <Count label={t("boxesLabel")} value={value} problem={problem} onType={onType} />
      <button className="btn px-2" aria-label={t("more")} onClick={() => onType(String(count + 1))}>
        <Plus size={16} aria-hidden />
      </button>
    </div>
  );
}
