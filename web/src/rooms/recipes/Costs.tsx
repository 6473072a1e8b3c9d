import { useWords } from "../../app/i18n";
import type { CalcRecipeAnswer, Measure } from "../../api";
import { Amount } from "../../ui/Figures";
import { wholeNumber } from "../../ui/format";

const shown = 6;

/** What each line costs a portion by the lens, dearest first. */
export function Costs({ calc, lens }: { calc: CalcRecipeAnswer; lens: Measure }) {
  const { t } = useWords("recipes");
  const lines = calc.lines
    .flatMap(({ line, shares, portion }) =>
      shares[lens] === undefined ? [] : [{ line, share: shares[lens], figure: portion[lens] }],
    )
    .sort((a, b) => b.share - a.share);
  if (lines.length === 0) return null;
  const most = Math.max(...lines.map(({ share }) => Math.abs(share)), 0.001);
  return (
    <>
      <h2 className="mt-5 border-t border-rim pt-3 text-base">
        {t("costs")} <span className="text-xs font-normal text-soft">{t(`app:measures.${lens}`)}</span>
      </h2>
      <ol>
        {lines.slice(0, shown).map(({ line, share, figure }, i) => (
          <li key={i} className="py-0.5 text-sm">
            <span className="flex justify-between gap-2">
              <span className="truncate">{line.food?.name ?? line.text}</span>
              <span className="shrink-0">
                <Amount measure={lens} figure={figure} isColumn />{" "}
                <span className="inline-block w-10 text-right text-xs whitespace-nowrap text-soft">
                  {wholeNumber(share * 100)} %
                </span>
              </span>
            </span>
            <span
              aria-hidden
              className={`block h-1.5 rounded-sm ${share < 0 ? "hatched" : "bg-sea"}`}
              style={{ width: `${(Math.abs(share) / most) * 100}%` }}
            />
          </li>
        ))}
      </ol>
      {lines.length > shown && (
        <p className="text-xs text-soft">{t("others", { count: lines.length - shown })}</p>
      )}
    </>
  );
}
