import type { Measure, ReviewDayView, ReviewThingView, WeekReviewView } from "../../api";
import { useWords } from "../../app/i18n";
import { amount, oneDecimal, shortDay, unitOf, wholeNumber } from "../../ui/format";
import { Plot } from "../../ui/Plot";
import { useWidth } from "../../ui/Ruler";
import { tickStep } from "../../ui/ticks";
import { cut } from "./cut";
import { dayFate } from "./fate";

const row = 46;
const head = 16;

/** The seven days of a week as tapes: a thin one as planned above what was eaten, in the aim's band. */
export function WeekRulers({ week, lens }: { week: WeekReviewView; lens: Measure }) {
  const { t } = useWords("review");
  const [ref, width] = useWidth<HTMLDivElement>();
  const isNarrow = width < 560;
  const [left, right] = isNarrow ? [58, 8] : [84, 150];
  const bounds = week.days.flatMap(({ aim, planned, eaten }) => [
    aim.bands[lens]?.max ?? aim.bands[lens]?.target ?? aim.bands[lens]?.min ?? 0,
    planned?.[lens]?.value ?? 0,
    eaten[lens]?.value ?? 0,
  ]);
  const wanted = Math.max(...bounds, lens === "energy" ? 500 : 10) * 1.04;
  const { major } = tickStep(wanted / 8);
  const length = Math.ceil(wanted / major) * major;
  const x = (value: number) => left + (Math.max(0, value) / length) * (width - left - right);
  const ticks = Array.from({ length: Math.round(length / major) + 1 }, (_, i) => i * major);
  const height = head + 7 * row;
  const rows = week.days.map((day) => [
    day.day,
    day.planned ? round(day.planned[lens]?.value) : "",
    day.counts || day.noted === "notOver" ? round(day.eaten[lens]?.value) : "",
    day.aim.bands[lens]?.min ?? "",
    day.aim.bands[lens]?.max ?? "",
    dayFate(t, day, lens).words,
  ]);
  const unit = unitOf(lens);
  return (
    <Plot
      name={`week-${week.monday}-${week.name}`}
      head={[
        t("week.day"),
        t("week.plannedHead", { unit }),
        t("week.eatenHead", { unit }),
        t("week.leastHead", { unit }),
        t("week.mostHead", { unit }),
        t("week.fateHead"),
      ]}
      rows={rows}
    >
      <div ref={ref} style={{ height }}>
        {width > 0 && (
          <svg
            width={width}
            height={height}
            role="img"
            aria-label={t("week.picture", { name: week.name, measure: t(`app:measures.${lens}`) })}
          >
            {ticks.map((tick) => (
              <g key={tick}>
                <line
                  x1={x(tick)}
                  x2={x(tick)}
                  y1={head - 3}
                  y2={height - 4}
                  stroke="var(--color-line)"
                  strokeWidth={1}
                />
                <text
                  x={x(tick)}
                  y={10}
                  fontSize={10}
                  textAnchor="middle"
                  fill="var(--ink-soft)"
                  opacity={isNarrow && (tick / major) % 2 ? 0 : 1}
                >
                  {major < 1 ? oneDecimal(tick) : wholeNumber(tick)}
                </text>
              </g>
            ))}
            {week.days.map((day, i) => (
              <DayTapes
                key={day.day}
                day={day}
                lens={lens}
                y={head + i * row}
                x={x}
                isNarrow={isNarrow}
                width={width}
              />
            ))}
          </svg>
        )}
      </div>
    </Plot>
  );
}

const round = (value: number | undefined) => Math.round((value ?? 0) * 10) / 10;

function DayTapes({
  day,
  lens,
  y,
  x,
  isNarrow,
  width,
}: {
  day: ReviewDayView;
  lens: Measure;
  y: number;
  x: (value: number) => number;
  isNarrow: boolean;
  width: number;
}) {
  const { t } = useWords("review");
  const band = day.aim.bands[lens];
  const fate = dayFate(t, day, lens);
  const sum = day.eaten[lens]?.value ?? 0;
  // What a weekly reserve covers is no overshoot.
  const covered = day.bands[lens]?.drawn ?? 0;
  const end = width - (isNarrow ? 8 : 150);
  return (
    <g>
      <text x={0} y={y + 26} fontSize={13} fontWeight={700} fill="var(--ink)">
        {isNarrow ? shortDay(day.day).slice(0, 6) : shortDay(day.day).slice(0, 10)}
      </text>
      {band && (band.min !== null || band.max !== null) && (
        <rect
          x={x(band.min ?? 0)}
          width={Math.max(2, (band.max == null ? end : x(band.max)) - x(band.min ?? 0))}
          y={y + 2}
          height={row - 6}
          fill="var(--sea-soft)"
          opacity={band.min === null ? 0.4 : 1}
        />
      )}
      {band?.max != null && (
        <line
          x1={x(band.max)}
          x2={x(band.max)}
          y1={y + 2}
          y2={y + row - 4}
          stroke="var(--sea)"
          strokeWidth={1}
        />
      )}
      <Blocks things={day.plannedThings ?? []} lens={lens} y={y + 4} height={9} x={x} isPlanned />
      <Blocks things={day.eatenThings} lens={lens} y={y + 16} height={22} x={x} />
      {band?.max != null && covered > 0 && (
        <line
          x1={x(band.max)}
          x2={x(band.max + covered)}
          y1={y + 40}
          y2={y + 40}
          stroke="var(--sea)"
          strokeWidth={3}
        />
      )}
      {band?.max != null && sum > band.max + covered && (
        <line
          x1={x(band.max + covered)}
          x2={x(sum)}
          y1={y + 40}
          y2={y + 40}
          stroke="var(--brick)"
          strokeWidth={3}
          strokeDasharray="3 2"
        />
      )}
      {!isNarrow && (
        <>
          {(day.counts || day.eatenThings.length > 0) && (
            <text x={width} y={y + 20} fontSize={14} fontWeight={700} textAnchor="end" fill="var(--ink)">
              {`${t(`app:mark.${day.eaten[lens]?.certainty ?? "exact"}`, { amount: amount(lens, sum) })} ${unitOf(lens)}`}
            </text>
          )}
          <text
            x={width}
            y={day.counts || day.eatenThings.length > 0 ? y + 35 : y + 26}
            fontSize={12}
            textAnchor="end"
            fill={
              fate.look === "out" ? "var(--brick)" : fate.look === "in" ? "var(--sea)" : "var(--ink-soft)"
            }
          >
            {fate.words}
          </text>
        </>
      )}
    </g>
  );
}

function Blocks({
  things,
  lens,
  y,
  height,
  x,
  isPlanned = false,
}: {
  things: ReviewThingView[];
  lens: Measure;
  y: number;
  height: number;
  x: (value: number) => number;
  isPlanned?: boolean;
}) {
  const spans = things.reduce<{ thing: ReviewThingView; from: number; to: number }[]>((sofar, thing) => {
    const from = sofar.at(-1)?.to ?? 0;
    return [...sofar, { thing, from, to: from + Math.max(0, thing.figures[lens]?.value ?? 0) }];
  }, []);
  return spans
    .filter(({ from, to }) => to > from)
    .map(({ thing, from, to }) => {
      const wide = x(to) - x(from);
      return (
        <g key={thing.itemId}>
          <title>{`${thing.name}: ${amount(lens, to - from)} ${unitOf(lens)}`}</title>
          <rect
            x={x(from) + 0.5}
            width={Math.max(1, wide - 1)}
            y={y}
            height={height}
            rx={2}
            className={thing.tint === null ? "" : `tint-${thing.tint}`}
            fill={thing.tint === null ? "var(--panel)" : "var(--tint)"}
            stroke="var(--rim)"
            strokeWidth={isPlanned ? 0.5 : 0.8}
            opacity={isPlanned ? 0.7 : 1}
          />
          {!isPlanned && (thing.letters ? wide > 24 : wide > 64) && (
            <text
              x={x(from) + wide / 2}
              y={y + height / 2 + 4}
              fontSize={11}
              fontWeight={thing.letters ? 700 : 400}
              textAnchor="middle"
              fill={thing.letters ? "#14213a" : "var(--ink)"}
            >
              {thing.letters ?? cut(thing.name, wide - 6, 5.6)}
            </text>
          )}
        </g>
      );
    });
}
