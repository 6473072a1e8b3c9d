import { differenceInCalendarDays, parseISO } from "date-fns";
import { Link } from "react-router";
import type { CauseView, Figure, Measure, WeekReviewView } from "../../api";
import { useWords } from "../../app/i18n";
import { Amount } from "../../ui/Figures";
import { amount, lensFirst, shortDay, unitWords, wholeNumber } from "../../ui/format";
import { Plot } from "../../ui/Plot";
import { useWidth } from "../../ui/Ruler";
import { WeekRulers } from "./WeekRulers";

/** The week against its plan and its aim, and where the difference came from. */
export function WeekPart({ week, lens }: { week: WeekReviewView; lens: Measure }) {
  const { t } = useWords("review");
  const banded = Object.keys(week.aim.bands) as Measure[];
  const shown = lensFirst(
    lens,
    banded.length > 0
      ? banded.filter((measure) => week.measures[measure])
      : (["energy", "protein"] as const).slice(),
  ).slice(0, 4);
  const days = (noted: string) =>
    week.days.filter((day) => day.noted === noted).map(({ day }) => shortDay(day));
  const nothing = days("nothing");
  const inPart = days("inPart");
  const unkept = week.days
    .filter(({ counts, planned }) => counts && !planned)
    .map(({ day }) => shortDay(day));
  return (
    <section aria-labelledby="week-title" className="space-y-5">
      <h2 id="week-title" className="sr-only">
        {t("week.title")}
      </h2>
      {week.countedDays > 0 && (
        <dl className="flex flex-wrap gap-x-10 gap-y-3">
          {shown.map((measure, i) => {
            const one = week.measures[measure];
            if (!one) return null;
            return (
              <div key={measure}>
                <dt className="text-sm text-soft">
                  {t("week.aDay", { measure: t(`app:measures.${measure}`) })}
                </dt>
                <dd>
                  <Amount
                    measure={measure}
                    figure={one.eatenADay}
                    className={`font-title font-bold ${i === 0 ? "text-[28px] leading-tight" : "text-xl"}`}
                  />
                  <span className="block text-sm text-soft">
                    {[
                      one.plannedADay &&
                        t(one.plannedDays < week.countedDays ? "week.plannedOn" : "week.planned", {
                          amount: amount(measure, one.plannedADay.value),
                          count: one.plannedDays,
                        }),
                      aimWords(measure, one.leastADay, one.mostADay, t),
                    ]
                      .filter(Boolean)
                      .join(" · ")}
                  </span>
                  {one.within + one.under + one.over > 0 && (
                    <span className="block text-sm">
                      {[
                        t("week.within", { count: one.within }),
                        one.under > 0 && t("week.under_days", { count: one.under }),
                        one.over > 0 && t("week.over_days", { count: one.over }),
                      ]
                        .filter(Boolean)
                        .join(", ")}
                    </span>
                  )}
                </dd>
              </div>
            );
          })}
        </dl>
      )}
      {week.countedDays === 0 && (
        <p className="text-soft">
          {t(
            week.days.some(({ noted, eatenThings }) => noted === "notOver" && eatenThings.length > 0)
              ? "week.onlyToday"
              : "week.nothing",
          )}{" "}
          {differenceInCalendarDays(parseISO(week.today), parseISO(week.monday)) > 6 ? (
            <Link className="link" to={`/review?week=${week.today}`}>
              {t("week.toThisWeek")}
            </Link>
          ) : (
            <Link className="link" to="/eat">
              {t("week.toEat")}
            </Link>
          )}
        </p>
      )}
      <WeekRulers week={week} lens={lens} />
      <p className="text-xs text-soft">{t("week.legend")}</p>
      <ul className="space-y-1 text-sm">
        {nothing.length > 0 && (
          <li>{t("week.nothingOn", { count: nothing.length, days: nothing.join(", ") })}</li>
        )}
        {inPart.length > 0 && (
          <li>{t("week.inPartOn", { count: inPart.length, days: inPart.join(", ") })}</li>
        )}
        {unkept.length > 0 && <li>{t("week.noPlan", { days: unkept.join(", ") })}</li>}
        {week.thingsByEye > 0 && (
          <li>{t("week.byEye", { count: week.thingsByEye, kcal: wholeNumber(week.byEye) })}</li>
        )}
        {week.guesses > 0 && (
          <li>{t("week.guessed", { count: week.guesses, kcal: wholeNumber(week.giveOrTake) })}</li>
        )}
        {shown
          .filter((measure) => week.unknown[measure])
          .map((measure) => (
            <li key={measure}>
              {t("week.unknown", {
                measure: t(`app:measures.${measure}`),
                names: week.unknown[measure]!.slice(0, 6).join(", "),
                count: Math.max(0, week.unknown[measure]!.length - 6),
              })}
            </li>
          ))}
      </ul>
      {week.countedDays > 0 && <Causes week={week} lens={lens} />}
    </section>
  );
}

function aimWords(
  measure: Measure,
  least: number | null,
  most: number | null,
  t: (key: string, values: Record<string, string>) => string,
) {
  const [from, to] = [
    least === null ? null : amount(measure, least),
    most === null ? null : amount(measure, most),
  ];
  if (from !== null && to !== null) return t("week.aimBetween", { from, to });
  if (to !== null) return t("week.aimMost", { to });
  return from !== null ? t("week.aimLeast", { from }) : "";
}

const bar = 30;

/** From planned to eaten, cause by cause: together they are the whole difference. */
function Causes({ week, lens }: { week: WeekReviewView; lens: Measure }) {
  const { t } = useWords("review");
  const [ref, width] = useWidth<HTMLDivElement>();
  const sums = week.measures[lens];
  const unit = unitWords(t, lens);
  if (!sums || sums.plannedDays === 0) return null;
  const of = (cause: CauseView) => cause.by[lens]?.value ?? 0;
  const causes = [...week.causes].sort((a, b) => Math.abs(of(b)) - Math.abs(of(a)));
  const most = Math.max(1, ...causes.map((cause) => Math.abs(of(cause))));
  const label = Math.min(260, width * 0.42);
  const middle = label + (width - label) / 2;
  const half = (width - label) / 2 - 64;
  const signed = (by: number) => `${by < 0 ? "−" : "+"}${amount(lens, Math.abs(by))}`;
  // What is not known whole says so.
  const said = ({ value, certainty }: Figure) => t(`app:mark.${certainty}`, { amount: amount(lens, value) });
  const saidBy = (cause: CauseView) =>
    t(`app:mark.${cause.by[lens]?.certainty ?? "exact"}`, { amount: signed(of(cause)) });
  return (
    <section aria-labelledby="causes-title">
      <h3 id="causes-title" className="text-lg">
        {t("causes.title")}
      </h3>
      {causes.length === 0 ? (
        <p className="text-soft">{t("causes.none")}</p>
      ) : (
        <>
          <p className="text-sm">
            {t("causes.sum", {
              planned: said(sums.planned),
              by: signed(sums.eatenOfPlanned.value - sums.planned.value),
              eaten: said(sums.eatenOfPlanned),
              unit,
              count: sums.plannedDays,
            })}
          </p>
          <Plot
            name={`causes-${week.monday}-${week.name}`}
            head={[t("causes.cause"), t("week.day"), t("causes.what"), unit]}
            rows={causes.flatMap((cause) =>
              cause.differences.map(({ day, name, by }) => [
                t(`causes.${cause.cause}`),
                day,
                name,
                Math.round((by[lens]?.value ?? 0) * 10) / 10,
              ]),
            )}
          >
            <div ref={ref} style={{ height: causes.length * bar + 4 }}>
              {width > 0 && (
                <svg
                  width={width}
                  height={causes.length * bar + 4}
                  role="img"
                  aria-label={t("causes.picture")}
                >
                  <line x1={middle} x2={middle} y1={0} y2={causes.length * bar} stroke="var(--rim)" />
                  {causes.map((cause, i) => {
                    const long = (Math.abs(of(cause)) / most) * half;
                    const isLess = of(cause) < 0;
                    return (
                      <g key={cause.cause}>
                        <text x={0} y={i * bar + 20} fontSize={14} fill="var(--ink)">
                          {t(`causes.${cause.cause}`)}{" "}
                          <tspan fontSize={12} fill="var(--ink-soft)">
                            {t("causes.times", { count: cause.times })}
                          </tspan>
                        </text>
                        <rect
                          x={isLess ? middle - long : middle}
                          width={Math.max(1, long)}
                          y={i * bar + 6}
                          height={18}
                          rx={2}
                          fill="var(--sea-soft)"
                          stroke="var(--sea)"
                        />
                        <text
                          x={isLess ? middle - long - 6 : middle + long + 6}
                          y={i * bar + 20}
                          fontSize={14}
                          fontWeight={700}
                          textAnchor={isLess ? "end" : "start"}
                          fill="var(--ink)"
                        >
                          {saidBy(cause)}
                        </text>
                      </g>
                    );
                  })}
                </svg>
              )}
            </div>
          </Plot>
        </>
      )}
    </section>
  );
}
