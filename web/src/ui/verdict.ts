import type { TFunction } from "i18next";
import type { Verdict } from "../api";

const about = ["taste", "reheats", "keeps", "effort", "again"] as const;

/** A verdict in one line: "a favourite · reheats like fresh · “less water”". */
export function verdictWords(t: TFunction, verdict: Verdict): string {
  const said = about
    .filter((one) => verdict[one] !== null)
    .map((one) => t(`app:verdict.${one}.${verdict[one]}`));
  return [...said, ...(verdict.toChange ? [`“${verdict.toChange}”`] : [])].join(" · ");
}
