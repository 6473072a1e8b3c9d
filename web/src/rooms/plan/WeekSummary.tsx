import { useWords } from "../../app/i18n";
import { Fragment } from "react";
import type { EaterWeekView, Measure } from "../../api";
import { Amount } from "../../ui/Figures";
import { amount, unitOf } from "../../ui/format";

/** What the week comes to, and its calendar for other programs. */
export function WeekSummary({
  shown,
  eater: whose,
}: {
  shown: EaterWeekView[];
  /** Whose calendar: an eater's id, or "all". */
  eater: string | null;
}) {
  const { t } = useWords("plan");
  const calendar = `/api/plan/calendar.ics${whose && whose !== "all" ? `?eaterId=${whose}` : ""}`;
  return (
    <>
      <section aria-labelledby="week-title" className="counted text-sm">
        <h2 id="week-title" className="mb-1 text-base">
          {t("week.title")}
        </h2>
        {shown.map((eater) => (
          <p key={eater.eaterId} className="mb-1">
            {shown.length > 1 && <b>{eater.name} </b>}
            {[...new Set<Measure>([eater.aim.leading, "energy", "protein"])].map((measure) => (
              <Fragment key={measure}>
                <Amount measure={measure} figure={eater.sums[measure]} />{" "}
                <span className="text-xs text-soft">
                  {t("week.inAll", {
                    measure: measure === "energy" || measure === "points" ? "" : t(`app:measures.${measure}`),
                  })}
                </span>
                <br />
              </Fragment>
            ))}
            {t("week.days", { fit: eater.fitDays, count: eater.laidDays })}
            {eater.reserve !== null && (
              <>
                <br />
                {t("week.reserve", {
                  drawn: amount(eater.aim.leading, eater.reserveDrawn),
                  reserve: amount(eater.aim.leading, eater.reserve),
                  unit: unitOf(eater.aim.leading),
                })}
              </>
            )}
          </p>
        ))}
      </section>
      <section aria-labelledby="calendar-title" className="text-sm">
        <h2 id="calendar-title" className="mb-1 text-base">
          {t("calendar.title")}
        </h2>
        <p className="text-xs text-soft">{t("calendar.text")}</p>
        <p className="mt-1 flex flex-wrap gap-x-4">
          <a className="link" href={calendar} download="lively-tern.ics">
            {t("calendar.download")}
          </a>
          <code className="text-xs break-all">{`${window.location.origin}${calendar}`}</code>
        </p>
      </section>
    </>
  );
}
