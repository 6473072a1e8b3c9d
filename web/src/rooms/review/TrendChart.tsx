import { differenceInCalendarDays, format, parseISO } from "date-fns";
import type { BodyView } from "../../api";
import { useWords } from "../../app/i18n";
import { oneDecimal, shortDay } from "../../ui/format";
import { Plot } from "../../ui/Plot";
import { useWidth } from "../../ui/Ruler";
import { tickStep } from "../../ui/ticks";

const height = 260;
const edge = { left: 44, right: 12, top: 12, bottom: 28 };

/** Weigh-ins as dots, the trend as a line, the range in which it lies as a band. The same stands in the table below it. */
export function TrendChart({ body }: { body: BodyView }) {
  const { t } = useWords("review");
  const [ref, width] = useWidth<HTMLDivElement>();
  const { trend, leftOut } = body.trend;
  const first = trend[0]!;
  const last = trend.at(-1)!;
  const isOut = new Set(leftOut.map(({ day }) => day));
  const dots = body.weighIns.filter(({ day }) => !isOut.has(day));
  const all = [...trend.flatMap(({ low, high }) => [low, high]), ...dots.map(({ kg }) => kg)];
  const { major } = tickStep(Math.max(0.5, (Math.max(...all) - Math.min(...all)) / 5));
  const from = Math.floor(Math.min(...all) / major) * major;
  const to =
    Math.ceil(Math.max(...all) / major) * major + (Math.max(...all) === Math.min(...all) ? major : 0);
  const days = Math.max(1, differenceInCalendarDays(parseISO(last.day), parseISO(first.day)));
  const x = (day: string) =>
    edge.left +
    (differenceInCalendarDays(parseISO(day), parseISO(first.day)) / days) * (width - edge.left - edge.right);
  const y = (kg: number) =>
    height - edge.bottom - ((kg - from) / (to - from)) * (height - edge.top - edge.bottom);
  const path = (points: [number, number][]) =>
    points.map(([px, py], i) => `${i ? "L" : "M"}${px.toFixed(1)} ${py.toFixed(1)}`).join("");
  const band = [
    ...trend.map(({ day, high }): [number, number] => [x(day), y(high)]),
    ...[...trend].reverse().map(({ day, low }): [number, number] => [x(day), y(low)]),
  ];
  const ticks = Array.from({ length: Math.round((to - from) / major) + 1 }, (_, i) => from + i * major);
  // The first day of each month, as many as have room.
  const months = trend.filter(({ day }) => day.endsWith("-01"));
  const every = Math.ceil((months.length * 48) / Math.max(1, width - edge.left));
  const scale = new Map(body.weighIns.map(({ day, kg }) => [day, kg]));
  const rounded = (kg: number) => Math.round(kg * 100) / 100;
  return (
    <figure>
      <Plot
        name={`trend-${body.name}`}
        head={[
          t("body.dayHead"),
          t("body.scaleHead"),
          t("body.trendHead"),
          t("body.lowHead"),
          t("body.highHead"),
        ]}
        rows={trend.map(({ day, kg, low, high }) => [
          day,
          scale.get(day) ?? "",
          rounded(kg),
          rounded(low),
          rounded(high),
        ])}
      >
        <div ref={ref} style={{ height }}>
          {width > 0 && (
            <svg
              role="img"
              aria-label={t("body.chart", {
                from: shortDay(first.day),
                to: shortDay(last.day),
                first: oneDecimal(first.kg),
                last: oneDecimal(last.kg),
                count: dots.length,
              })}
              width={width}
              height={height}
            >
              {ticks.map((kg) => (
                <g key={kg}>
                  <line
                    x1={edge.left}
                    x2={width - edge.right}
                    y1={y(kg)}
                    y2={y(kg)}
                    stroke="var(--color-line)"
                  />
                  <text
                    x={edge.left - 6}
                    y={y(kg) + 4}
                    textAnchor="end"
                    className="fill-[var(--color-soft)] text-xs"
                  >
                    {major < 1 ? oneDecimal(kg) : Math.round(kg)}
                  </text>
                </g>
              ))}
              {months.map(({ day }, i) =>
                i % every === 0 ? (
                  <g key={day}>
                    <line
                      x1={x(day)}
                      x2={x(day)}
                      y1={height - edge.bottom}
                      y2={height - edge.bottom + 5}
                      stroke="var(--color-rim)"
                    />
                    <text
                      x={Math.min(x(day), width - edge.right - 14)}
                      y={height - 8}
                      textAnchor="middle"
                      className="fill-[var(--color-soft)] text-xs"
                    >
                      {format(parseISO(day), "MMM")}
                    </text>
                  </g>
                ) : null,
              )}
              <path d={`${path(band)}Z`} fill="var(--color-sea)" opacity={0.18} />
              <path
                d={path(trend.map(({ day, kg }): [number, number] => [x(day), y(kg)]))}
                fill="none"
                stroke="var(--color-sea)"
                strokeWidth={2.5}
              />
              {dots.map(({ day, kg }) => (
                <circle key={day} cx={x(day)} cy={y(kg)} r={2.5} fill="var(--color-ink)" />
              ))}
            </svg>
          )}
        </div>
      </Plot>
      <figcaption className="flex flex-wrap gap-x-5 text-xs text-soft">
        <span>
          <span aria-hidden className="mr-1 inline-block size-1.5 rounded-full bg-ink align-middle" />
          {t("body.dots")}
        </span>
        <span>
          <span
            aria-hidden
            className="mr-1 inline-block h-2 w-5 border-t-2 border-sea bg-sea/20 align-middle"
          />
          {t("body.line")}
        </span>
      </figcaption>
    </figure>
  );
}
