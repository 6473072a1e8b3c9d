import { ArrowLeft, Volume2, VolumeX } from "lucide-react";
import { useWords } from "../../app/i18n";
import type { Typed } from "./typed";

/** The way back to the bench. */
export function Back({ onBack }: { onBack: () => void }) {
  const { t } = useWords("pack");
  return (
    <button className="btn min-h-11" onClick={onBack}>
      <ArrowLeft size={16} aria-hidden /> {t("fill.back")}
    </button>
  );
}

/** What stands over the scale: back, the tone, and what an empty box weighs. */
export function FillBar({
  typed,
  type,
  sounds,
  toggleSounds,
  onBack,
}: {
  typed: Typed;
  type: (change: Partial<Typed>) => void;
  sounds: boolean;
  toggleSounds: () => void;
  onBack: () => void;
}) {
  const { t } = useWords("pack");
  return (
    <div className="mb-3 flex flex-wrap items-center gap-2">
      <Back onBack={onBack} />
      <button className="btn min-h-11" aria-pressed={sounds} onClick={toggleSounds}>
        {sounds ? <Volume2 size={16} aria-hidden /> : <VolumeX size={16} aria-hidden />} {t("fill.sound")}
      </button>
      <label className="ml-auto flex items-center gap-2 text-sm">
        {t("fill.emptyBox")}
        <input
          inputMode="decimal"
          className="field w-20 text-right"
          value={typed.emptyBox}
          maxLength={8}
          onChange={(event) => type({ emptyBox: event.target.value })}
        />
        g
      </label>
    </div>
  );
}
