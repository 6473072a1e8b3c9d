import { useLayoutEffect, useRef, useState, type ReactNode, type RefObject } from "react";
import { useWords } from "../app/i18n";
import { useQuiet } from "../app/quiet";
import type { DayAim, DayView, ItemView, Measure } from "../api";
import { amount, unitOf, wholeNumber } from "./format";
import { Mark } from "./Tape";
import { tickStep } from "./ticks";

/** The width of an element in pixels, kept as it changes. */
export function useWidth<E extends HTMLElement = HTMLElement>(): [RefObject<E | null>, number] {
  const ref = useRef<E>(null);
  const [width, setWidth] = useState(0);
  useLayoutEffect(() => {
    const element = ref.current;
    if (!element) return;
    setWidth(element.clientWidth);
    const observer = new ResizeObserver(([entry]) => setWidth(entry!.contentRect.width));
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  return [ref, width];
}

/** A block's words, as many as its width holds. */
export function BlockFace({
  item,
  measure,
  width,
  isLow,
}: {
  item: ItemView;
  measure: Measure;
  width: number;
  /** Room for one line of words only. */
  isLow: boolean;
}) {
  const { t } = useWords();
  const figure = item.figures[measure];
  const number = figure ? t(`mark.${figure.certainty}`, { amount: amount(measure, figure.value) }) : "–";
  const boxed = item.letters !== null && item.tint !== null;
  // Where nothing is measured there is no number to stand in a narrow block: a food's own name does.
  const quiet = useQuiet();
  const words = width >= (boxed ? 96 : quiet ? 34 : 74);
  return (
    <span
      className={`relative flex h-full w-full items-stretch overflow-hidden text-left ${item.hold ? "kept rounded border border-dashed border-sea text-ink" : boxed ? `tape tinted tint-${item.tint} ${item.batchId ? "ahead" : ""} text-tape` : "rounded border border-rim/60 bg-white text-tape"}`}
    >
      {boxed && width >= 24 && <Mark letters={item.letters!} tint={item.tint!} className="w-6 text-xs" />}
      {words ? (
        <span
          className={`min-w-0 flex-1 ${quiet && width < 60 ? "px-0.5" : "px-1.5"} leading-tight ${isLow ? "flex items-center gap-1.5" : ""}`}
        >
          <span
            className={`min-w-0 pt-0.5 text-xs font-semibold ${isLow ? "block truncate" : quiet ? "line-clamp-3 leading-[1.15] wrap-anywhere" : "line-clamp-2 leading-[1.15]"}`}
          >
            {item.eatenAt && <span aria-hidden>✓ </span>}
            {item.isLocked && <span aria-hidden>▪ </span>}
            {item.isOver ? (
              <span aria-hidden className="hatched mr-0.5 inline-block h-3 w-1.5" />
            ) : (
              item.isFrozen && !item.eatenAt && <span aria-hidden>❄ </span>
            )}
            {item.name}
          </span>
          <span className="counted block text-xs whitespace-nowrap">{number}</span>
        </span>
      ) : (
        width >= (boxed ? 54 : 26) && (
          <span className="counted flex flex-1 items-center justify-center text-xs">{number}</span>
        )
      )}
    </span>
  );
}

const ruled = (ticks: { x: number }[], from: number, to: number) =>
  ticks.map(({ x }) => `M${x.toFixed(1)} ${from}V${to}`).join("");

interface RulerProps {
  day: DayView;
  aim: DayAim;
  measure: Measure;
  /** The length of the tape in the measure's unit. */
  length: number;
  label: string;
  /** What an item is drawn in: a button that carries it, or plain. */
  block?: (item: ItemView, index: number, face: ReactNode) => ReactNode;
  /** Where a carried box would land, as an index; draws a gap mark there. */
  landing?: number | null;
  height?: number;
}

/** A day as a measuring tape laid flat: blocks as wide as what they cost, the aim's band near the end, hatched past it. */
export function Ruler({ day, aim, measure, length, label, block, landing = null, height = 54 }: RulerProps) {
  const [ref, width] = useWidth<HTMLDivElement>();
  const quiet = useQuiet();
  if (quiet)
    return (
      <QuietRow day={day} label={label} block={block} landing={landing} height={height} measure={measure} />
    );
  const band = aim.bands[measure];
  const at = (value: number) => (Math.max(0, value) / length) * width;
  const { minor } = tickStep((length / Math.max(width, 1)) * 64);
  const ticks = Array.from({ length: Math.floor(length / minor + 1e-9) + 1 }, (_, i) => i * minor);
  const face = height - 17;
  const inside = ticks
    .map((tick, i) => ({ x: at(tick), i, tick }))
    .filter(({ i, tick }) => i > 0 && tick < length);
  const small = inside.filter(({ i }) => i % 5 > 0);
  const large = inside.filter(({ i }) => i % 5 === 0);

  // What is for guests counts nothing here, and what is kept free of another measure neither.
  const items = day.items.filter(
    (item) => !item.isForGuests && (!item.hold || (item.figures[measure]?.value ?? 0) > 0),
  );
  const spans = items.reduce<{ start: number; end: number }[]>((sofar, item) => {
    const start = sofar.at(-1)?.end ?? 0;
    return [...sofar, { start, end: start + Math.max(0, item.figures[measure]?.value ?? 0) }];
  }, []);
  const sum = spans.at(-1)?.end ?? 0;
  const max = band?.max ?? null;
  // What a reserve covers past the most is underlined, not hatched.
  const covered = day.bands[measure]?.drawn ?? 0;
  const landingAt = landing === null ? null : (spans[landing]?.start ?? sum);

  return (
    <div
      ref={ref}
      className="relative rounded-md border-[1.5px] border-rim bg-panel [contain:layout_style]"
      style={{ height }}
    >
      <svg aria-hidden className="absolute inset-0 size-full overflow-visible">
        {band && (
          <>
            {(band.min != null || band.max != null) && (
              <rect
                x={at(band.min ?? 0)}
                width={Math.max(2, at(band.max ?? length) - at(band.min ?? 0))}
                y={0}
                height={height - 3}
                fill="var(--sea-soft)"
                opacity={band.min == null ? 0.35 : 1}
              />
            )}
            {band.max != null && (
              <line
                x1={at(band.max)}
                x2={at(band.max)}
                y1={0}
                y2={height - 3}
                stroke="var(--sea)"
                strokeWidth={1}
              />
            )}
          </>
        )}
        {/* All ticks of a kind are one path: 28 rulers of single lines would be slow to measure anew. */}
        <path d={ruled(small, height - 3, height - 6)} stroke="var(--ink)" strokeWidth={0.8} />
        <path d={ruled(large, height - 3, height - 12)} stroke="var(--ink)" strokeWidth={1.4} />
        {/* Its halo keeps the numbers clear of ticks and of the band's edge. */}
        <text
          y={height - 5}
          fontSize={10}
          fill="var(--ink-soft)"
          stroke="var(--panel)"
          strokeWidth={3}
          paintOrder="stroke"
        >
          {large
            .filter(({ x }) => x < width - 30)
            .map(({ x, tick }) => (
              <tspan key={tick} x={x + 3}>
                {wholeNumber(tick)}
              </tspan>
            ))}
        </text>
      </svg>
      <ol aria-label={label} className="absolute inset-x-0 top-[3px]" style={{ height: face }}>
        {width > 0 &&
          items.map((item, i) => {
            const { start, end } = spans[i]!;
            const pixels = Math.max(at(end) - at(start), 7);
            return (
              <li
                key={item.id}
                data-item={item.id}
                className="absolute h-full px-px [contain:layout_style]"
                style={{ left: at(start), width: pixels }}
              >
                {block ? (
                  block(item, i, <BlockFace item={item} measure={measure} width={pixels} isLow={face < 32} />)
                ) : (
                  <BlockFace item={item} measure={measure} width={pixels} isLow={face < 32} />
                )}
              </li>
            );
          })}
      </ol>
      {max !== null && sum > max && (
        <>
          {covered > 0 && (
            <span
              aria-hidden
              className="pointer-events-none absolute bottom-0 h-1 bg-sea"
              style={{ left: at(max), width: at(max + covered) - at(max) }}
            />
          )}
          {sum > max + covered && (
            <span
              aria-hidden
              className="hatched pointer-events-none absolute top-[3px] opacity-60"
              style={{
                left: at(max + covered),
                width: Math.min(at(sum), width) - at(max + covered),
                height: face,
              }}
            />
          )}
        </>
      )}
      {band?.target != null && (
        <span
          aria-hidden
          className="pointer-events-none absolute -top-1 -bottom-1 w-0.5 bg-sea"
          style={{ left: at(band.target) }}
        />
      )}
      {landingAt !== null && (
        <span
          aria-hidden
          className="pointer-events-none absolute -top-1 -bottom-1 w-1 rounded bg-next"
          style={{ left: at(landingAt) - 2 }}
        />
      )}
    </div>
  );
}

/** What lies on the tape where nothing is measured. */
const quietItems = (day: DayView) => day.items.filter((item) => !item.isForGuests && !item.hold);

/** How much of the tape each thing takes where nothing is measured, 0 to 1. */
export const quietShare = (day: DayView) => 1 / Math.max(quietItems(day).length, 4);

/** The same without any measure: what lies on the day, side by side, each as wide as the others. */
function QuietRow({
  day,
  measure,
  label,
  block,
  landing,
  height,
}: Pick<RulerProps, "day" | "measure" | "label" | "block" | "landing"> & { height: number }) {
  const [ref, width] = useWidth<HTMLDivElement>();
  const items = quietItems(day);
  const share = quietShare(day);
  return (
    <div ref={ref} className="relative rounded-md border-[1.5px] border-rim bg-panel" style={{ height }}>
      <ol aria-label={label} className="absolute inset-0 flex p-[3px]">
        {items.map((item, i) => {
          const face = <BlockFace item={item} measure={measure} width={width * share} isLow={height < 49} />;
          return (
            <li
              key={item.id}
              data-item={item.id}
              className="h-full min-w-0 px-px"
              style={{ width: `${share * 100}%` }}
            >
              {block ? block(item, i, face) : face}
            </li>
          );
        })}
      </ol>
      {landing != null && (
        <span
          aria-hidden
          className="pointer-events-none absolute -top-1 -bottom-1 w-1 rounded bg-next"
          style={{ left: `${Math.min(landing, items.length) * share * 100}%` }}
        />
      )}
    </div>
  );
}

/** A thin tape for a second measure: a mark on its own band. */
export function ThinTape({ day, aim, measure }: { day: DayView; aim: DayAim; measure: Measure }) {
  const { t } = useWords();
  const band = aim.bands[measure];
  const sum = day.sums[measure];
  if (!sum) return null;
  const end = Math.max((band?.max ?? band?.target ?? (band?.min ?? 0) * 1.4) * 1.15, sum.value * 1.05, 1);
  const at = (value: number) => `${(Math.min(value, end) / end) * 100}%`;
  const reading = day.bands[measure];
  const off =
    day.items.length === 0
      ? null
      : reading?.position === "over"
        ? t("over", { amount: amount(measure, reading.over ?? 0) })
        : reading?.position === "under"
          ? t("short", { amount: amount(measure, reading.roomFrom ?? 0) })
          : null;
  return (
    <span className="counted flex items-center gap-2 text-xs">
      <span className="text-soft">{measure === "energy" ? t("energy") : t(`measures.${measure}`)}</span>
      {band && (
        <span aria-hidden className="relative h-1 w-20 rounded bg-rest">
          {
            <span
              className="absolute inset-y-0 rounded bg-sea/55"
              style={{ left: at(band.min ?? 0), right: `calc(100% - ${at(band.max ?? end)})` }}
            />
          }
          <span
            className="absolute -top-[3px] size-[10px] -translate-x-1/2 rotate-45 rounded-[1px] bg-ink"
            style={{ left: at(sum.value) }}
          />
        </span>
      )}
      <span>
        <b>{t(`mark.${sum.certainty}`, { amount: amount(measure, sum.value) })}</b>{" "}
        <span className="text-soft">{unitOf(measure)}</span>
        {off && <b className={reading?.position === "over" ? "text-brick" : "text-soft"}> {off}</b>}
      </span>
    </span>
  );
}
