import { useEffect, useRef, useState, type KeyboardEvent, type PointerEvent } from "react";
import { useWords } from "../../app/i18n";
import type { ItemView } from "../../api";
import { inPieces, toHalf } from "../../ui/format";

const coarse = 10;
const fine = 5;
const fewest = 10;
const most = 10_000;
/** After the last key so long until the size is written, in milliseconds. */
const settle = 600;

/** The right edge of a portion that is not packed yet: dragged, or moved with arrow keys, it sizes that portion; with Shift all of the eater's. */
export function PortionEdge({
  item,
  onSize,
}: {
  item: ItemView;
  onSize: (grams: number, allOfIt: boolean) => Promise<boolean>;
}) {
  const { t } = useWords("plan");
  // What comes in pieces is sized by the piece, or by half of one.
  const piece = item.pieces ? item.grams / item.pieces : null;
  const [step, least] = piece
    ? [piece * (item.pieceStep ?? 1), piece * (item.pieceStep ?? 1)]
    : [coarse, fewest];
  const said = (weight: number) => inPieces(t, { pieces: piece && toHalf(weight / piece), grams: weight });
  const [size, setSize] = useState<number | null>(null);
  const [start, setStart] = useState<{ x: number; width: number } | null>(null);
  // What is on its way is not sent again by leaving the edge.
  const sent = useRef<number | null>(null);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  useEffect(() => () => clearTimeout(timer.current), []);
  const now = size ?? (piece ? item.grams : Math.round(item.grams));

  const write = async (wanted: number | null, allOfIt = false) => {
    clearTimeout(timer.current);
    setStart(null);
    if (wanted !== null && Math.round(wanted) !== Math.round(sent.current ?? item.grams)) {
      sent.current = wanted;
      await onSize(wanted, allOfIt);
      if (sent.current === wanted) sent.current = null;
    }
    // What was pressed meanwhile is a size of its own.
    setSize((size) => (wanted === null || size === wanted ? null : size));
  };
  const clamp = (wanted: number) => Math.min(most, Math.max(least, wanted));

  const onKeyDown = (event: KeyboardEvent) => {
    const steps: Record<string, number> = {
      ArrowRight: step,
      ArrowUp: step,
      ArrowLeft: -step,
      ArrowDown: -step,
    };
    if (event.key === "Enter") void write(size, event.shiftKey);
    else if (event.key === "Escape") void write(null);
    else if (steps[event.key] !== undefined) {
      const wanted = clamp(now + steps[event.key]!);
      setSize(wanted);
      clearTimeout(timer.current);
      const allOfIt = event.shiftKey;
      timer.current = setTimeout(() => void write(wanted, allOfIt), settle);
    } else return;
    event.preventDefault();
    event.stopPropagation();
  };

  const onPointerDown = (event: PointerEvent<HTMLElement>) => {
    const block = event.currentTarget.closest("[data-item]")?.getBoundingClientRect();
    if (!block || event.button > 0) return;
    event.preventDefault();
    event.stopPropagation();
    event.currentTarget.setPointerCapture(event.pointerId);
    setStart({ x: event.clientX, width: block.width });
  };
  // A block is as wide as what it costs, and that goes with its grams.
  const onPointerMove = (event: PointerEvent) => {
    if (!start) return;
    const wanted = (item.grams * Math.max(4, start.width + event.clientX - start.x)) / start.width;
    const by = piece ? step : fine;
    setSize(clamp(Math.round(wanted / by) * by));
  };

  return (
    <>
      {size !== null && (
        <span
          aria-hidden
          className="pointer-events-none absolute inset-y-0 left-0 z-10 rounded border-2 border-dashed border-next"
          style={{ width: `${(size / Math.max(1, item.grams)) * 100}%` }}
        >
          <span className="absolute top-1 right-3 rounded bg-ink px-1.5 text-sm font-bold whitespace-nowrap text-ground">
            {said(size)}
          </span>
        </span>
      )}
      <span
        role="slider"
        tabIndex={0}
        aria-label={t("portion.edge", { name: item.name })}
        aria-valuenow={now}
        aria-valuemin={least}
        aria-valuemax={most}
        aria-valuetext={said(now)}
        title={t("portion.edgeTitle")}
        data-edge={item.batchId}
        className="absolute inset-y-0 right-0 z-10 w-2 cursor-ew-resize touch-none border-r-2 border-dashed border-tape/60 hover:border-next focus-visible:outline-2"
        onKeyDown={onKeyDown}
        onBlur={() => size !== null && !start && void write(size)}
        onPointerDown={onPointerDown}
        onPointerMove={onPointerMove}
        onPointerUp={(event) => start && void write(size, event.shiftKey)}
        onPointerCancel={() => void write(null)}
        onClick={(event) => event.stopPropagation()}
      />
    </>
  );
}
