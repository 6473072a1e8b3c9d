import { useWords } from "../app/i18n";
import type { Figure, Measure } from "../api";
import { amount, oneDecimal, unitOf } from "./format";

/** A number with its unit smaller behind it; "≥" or "≤" where a part of it is not known. */
export function Amount({
  measure,
  figure,
  className = "",
  isColumn = false,
}: {
  measure: Measure;
  figure: Figure | undefined;
  className?: string;
  /** In a column of a table: every gram figure has a tenth, so that they align on the decimal. */
  isColumn?: boolean;
}) {
  const { t } = useWords();
  if (!figure) return <span className={`counted ${className}`}>–</span>;
  // Nothing at all is known of it: "at least 0" says less than that.
  if (figure.value === 0 && figure.certainty === "atLeast")
    return (
      <span className={`counted ${className}`}>
        <abbr className="no-underline" title={t("notKnown")}>
          ?
        </abbr>{" "}
        <span className="text-[0.75em] font-normal text-soft">{unitOf(measure)}</span>
      </span>
    );
  const hasTenth = isColumn && measure !== "energy" && measure !== "points";
  const text = hasTenth ? oneDecimal(figure.value) : amount(measure, figure.value);
  return (
    <span className={`counted ${className}`}>
      {figure.certainty === "exact" ? (
        text
      ) : (
        <abbr className="no-underline" title={t(`certainty.${figure.certainty}`, { amount: text })}>
          {t(`mark.${figure.certainty}`, { amount: text })}
        </abbr>
      )}{" "}
      <span className="text-[0.75em] font-normal text-soft">{unitOf(measure)}</span>
    </span>
  );
}
