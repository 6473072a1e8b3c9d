import type { CoolingBatchView } from "../../api";
import { useWords } from "../../app/i18n";

const [width, height, left, bottom] = [420, 170, 34, 22];

/** A course drawn: the line, what was measured on it, and the two marks it has to be at in time. */
export function CoolingChart({ batch }: { batch: CoolingBatchView }) {
  const { t } = useWords("keep");
  const { course, readings, stages } = batch;
  const start = new Date(readings[0]!.at).getTime();
  const end = Math.max(60, course.at(-1)!.minute);
  const hottest = Math.max(60, ...course.map(({ celsius }) => celsius));
  const x = (minute: number) => left + (minute / end) * (width - left - 8);
  const y = (celsius: number) => height - bottom - (Math.max(0, celsius) / hottest) * (height - bottom - 8);
  // The clock of the limits starts where the course comes down to 57 °C.
  const warm = course.find(({ celsius }) => celsius <= 57.3)?.minute ?? 0;
  const limits = stages ? [stages.first, stages.second] : [];
  const hours = Array.from({ length: Math.floor(end / 60) + 1 }, (_, i) => i);
  return (
    <svg
      role="img"
      aria-label={t("cooling.chart")}
      viewBox={`0 0 ${width} ${height}`}
      className="mt-2 w-full max-w-md text-ink"
    >
      {[0, 21, 57].map((celsius) => (
        <g key={celsius}>
          <line x1={left} x2={width - 8} y1={y(celsius)} y2={y(celsius)} stroke="var(--line)" />
          <text x={left - 6} y={y(celsius) + 4} textAnchor="end" fontSize="13" fill="var(--ink-soft)">
            {celsius}°
          </text>
        </g>
      ))}
      {hours.map((hour) => (
        <text
          key={hour}
          x={x(hour * 60)}
          y={height - 6}
          textAnchor="middle"
          fontSize="13"
          fill="var(--ink-soft)"
        >
          {hour} h
        </text>
      ))}
      {limits.map(
        ({ celsius, withinMinutes }) =>
          warm + withinMinutes <= end && (
            <path
              key={celsius}
              d={`M ${x(warm + withinMinutes)} ${y(celsius) - 12} V ${y(celsius)} H ${x(warm + withinMinutes) - 16}`}
              fill="none"
              stroke="var(--brick)"
              strokeWidth="2"
            />
          ),
      )}
      <polyline
        points={course.map(({ minute, celsius }) => `${x(minute)},${y(celsius)}`).join(" ")}
        fill="none"
        stroke="var(--sea)"
        strokeWidth="2"
      />
      {readings.map(({ id, at, celsius }) => (
        <circle
          key={id}
          cx={x((new Date(at).getTime() - start) / 60000)}
          cy={y(celsius)}
          r="3.5"
          fill="var(--ink)"
        />
      ))}
    </svg>
  );
}
