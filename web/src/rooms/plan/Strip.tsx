import { useDraggable } from "@dnd-kit/core";
import { useWords } from "../../app/i18n";
import type { Figure, Measure, NeverView } from "../../api";
import { Amount } from "../../ui/Figures";
import { neverWords } from "../../ui/never";
import { Tape } from "../../ui/Tape";
import type { Carried } from "./usePlan";

interface StripProps {
  what: Carried;
  /** Names it for the focus that follows a move. */
  focus: string;
  /** How it is spoken. */
  label: string;
  letters: string;
  tint: number;
  /** What one holds, for the eater shown. */
  figures: { [key: string]: Figure } | undefined;
  lens: Measure;
  second: Measure;
  /** The number at the right: how many, or how large. */
  count: string;
  /** The last line. */
  foot: string;
  /** Whether it is past its last day. */
  isOver?: boolean;
  /** Why the eater shown must never get it. */
  never?: NeverView;
  isAhead?: boolean;
  isCarried: boolean;
  onLift: (carried: Carried) => void;
}

/** A strip of tape on the bench: dragged, tapped or picked up with Enter. */
export function Strip({
  what,
  focus,
  label,
  letters,
  tint,
  figures,
  lens,
  second,
  count,
  foot,
  isOver = false,
  never,
  isAhead = false,
  isCarried,
  onLift,
}: StripProps) {
  const { t } = useWords("plan");
  const { setNodeRef, listeners, isDragging } = useDraggable({ id: `${what.kind}|${what.id}`, data: what });
  return (
    <button
      ref={setNodeRef}
      {...listeners}
      type="button"
      data-focus={focus}
      aria-pressed={isCarried}
      aria-label={label}
      onClick={() => onLift(what)}
      className={`block w-full touch-manipulation ${isDragging ? "opacity-50" : ""} ${isCarried ? "outline-3 outline-next" : ""}`}
    >
      <Tape letters={letters} tint={tint} className={isAhead ? "ahead" : ""}>
        <span className="flex flex-wrap justify-between gap-x-2">
          <span className="line-clamp-2 text-sm leading-tight font-semibold">{what.name}</span>
          <span className="ml-auto font-title leading-tight font-bold whitespace-nowrap">{count}</span>
        </span>
        <span className="counted block truncate text-xs">
          <Amount measure={lens} figure={figures?.[lens]} className="font-semibold [&_*]:text-tape" /> ·{" "}
          <Amount measure={second} figure={figures?.[second]} className="[&_*]:text-tape" />
          {second === "protein" && ` ${t("app:measures.protein")}`}
        </span>
        <span className={`block truncate text-xs ${isOver ? "font-bold" : ""}`}>
          {isOver && <span aria-hidden className="hatched mr-1 inline-block h-3 w-1.5" />}
          {foot}
        </span>
        {never && (
          <b className="block truncate text-xs">{t("shelf.notForThem", { why: neverWords(t, never) })}</b>
        )}
      </Tape>
    </button>
  );
}
