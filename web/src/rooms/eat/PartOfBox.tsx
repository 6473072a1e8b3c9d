import { useState } from "react";
import { useWords } from "../../app/i18n";
import type { ItemView } from "../../api";
import { grams } from "../../ui/format";
import { sentNumber } from "../../ui/numbers";

const shares = [
  ["quarter", 0.25],
  ["half", 0.5],
  ["threeQuarters", 0.75],
] as const;

/** How much of a box was eaten: by its usual shares, or in grams as typed. What is left goes back to the shelf. */
export function PartOfBox({ item, onAte }: { item: ItemView; onAte: (eaten: number) => void }) {
  const { t } = useWords("eat");
  const [typed, setTyped] = useState("");
  return (
    <form
      aria-label={t("part.of", { name: item.name })}
      className="col-span-2 flex flex-wrap items-center gap-2 text-sm"
      onSubmit={(event) => {
        event.preventDefault();
        if (typed.trim()) onAte(sentNumber(typed) ?? 0);
      }}
    >
      {shares.map(([name, share]) => (
        <button
          key={name}
          type="button"
          className="btn min-h-11 flex-col leading-tight"
          onClick={() => onAte(Math.round(item.grams * share * 1000) / 1000)}
        >
          {t(`part.${name}`)}
          <span className="text-xs text-soft">{grams(Math.round(item.grams * share))} g</span>
        </button>
      ))}
      <label className="flex items-center gap-1">
        <input
          inputMode="decimal"
          aria-label={t("part.grams", { name: item.name })}
          className="field h-11 w-20 text-right"
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
        />
        g
      </label>
      <button className="btn min-h-11">{t("part.ate")}</button>
    </form>
  );
}
