import { useQuiet } from "../../app/quiet";
import { useDraggable, useDroppable } from "@dnd-kit/core";
import { memo, type KeyboardEvent, type ReactNode, type RefObject } from "react";
import { useWords } from "../../app/i18n";
import type { DayView, EaterWeekView, ItemView, Measure } from "../../api";
import { Amount } from "../../ui/Figures";
import { NeverMark } from "../../ui/never";
import { amount, longDay, unitOf } from "../../ui/format";
import { Ruler, ThinTape, useWidth, quietShare } from "../../ui/Ruler";
import { PortionEdge } from "./PortionEdge";
import { dayWords, watched } from "./reading";
import { isTouch } from "./useCarry";
import type { Carried, Place } from "./usePlan";

/** What a finger can hit, in pixels. */
const thumb = 44;

/** What hands can do on any row. */
export interface RowActs {
  lift: (carried: Carried, from: Place) => void;
  takeOff: (carried: Carried) => void;
  land: (to: Place) => void;
  /** Sizes a portion of a batch that is not packed yet, in grams, or all that its eater has of it. */
  size: (portion: { id: string; name: string }, grams: number, allOfIt: boolean) => Promise<boolean>;
  /** Opens a day in depth. */
  open: (where: { eaterId: string; day: string }) => void;
}

interface DayRowProps {
  eater: EaterWeekView;
  day: DayView;
  lens: Measure;
  length: number;
  /** One of several eaters under the same day: shorter, with the eater's name. */
  compact: boolean;
  carried: Carried | null;
  /** The place on this very row where what is carried would land. */
  landing: number | null;
  /** Always the newest acts, in an object that stays the same: a row is drawn anew only when something on it changes. */
  acts: RefObject<RowActs>;
  /** Whether the day is shown as a draft has it: then nothing on it is moved by hand. */
  isDraft?: boolean;
}

/** One eater's one day: the ruler, the thin tapes and what it comes to. */
export const DayRow = memo(function DayRow({
  eater,
  day,
  lens,
  length,
  compact,
  carried,
  landing,
  acts,
  isDraft = false,
}: DayRowProps) {
  const { t } = useWords("plan");
  const quiet = useQuiet();
  const { setNodeRef, isOver } = useDroppable({ id: `${eater.eaterId}|${day.day}` });
  const sum = day.sums[lens];
  const { words, look } = dayWords(t, day, lens);
  const label = t(quiet ? "quiet.dayLabel" : "dayLabel", {
    count: day.items.length,
    name: eater.name,
    day: longDay(day.day),
    sum: sum ? `${amount(lens, sum.value)} ${unitOf(lens)}` : "",
    reading: words,
  });
  const missing = day.missing[lens];
  const [ref, width] = useWidth<HTMLParagraphElement>();
  // What is too narrow on the tape for its words is named beside it.
  const narrow = day.items.filter((item) => {
    const pixels = quiet
      ? width * quietShare(day)
      : (Math.max(0, item.figures[lens]?.value ?? 0) / length) * width;
    return item.isForGuests || (width > 0 && !item.hold && pixels < (item.letters === null ? 74 : 96));
  });
  const forGuests = narrow.filter(({ isForGuests }) => isForGuests).map(({ name }) => name);

  return (
    <div
      ref={setNodeRef}
      data-day={`${eater.eaterId}|${day.day}`}
      className={`rounded-md ${isOver || landing !== null ? "outline-2 outline-offset-2 outline-sea" : ""} ${carried ? "cursor-pointer" : ""}`}
      onClick={() => {
        const where = { eaterId: eater.eaterId, day: day.day };
        if (carried) acts.current.land({ ...where, place: day.items.length });
        else if (isTouch()) acts.current.open(where);
      }}
    >
      <Ruler
        day={day}
        aim={day.aim}
        measure={lens}
        length={length}
        label={label}
        height={compact ? 46 : 68}
        landing={landing}
        block={(item, index, face) =>
          isDraft ? (
            <span className="block size-full opacity-80">{face}</span>
          ) : (
            <>
              <Block
                item={item}
                lens={lens}
                isCarried={carried?.id === item.id}
                onLift={(what) =>
                  acts.current.lift(what, { eaterId: eater.eaterId, day: day.day, place: index })
                }
                onTakeOff={(what) => acts.current.takeOff(what)}
                onList={() => acts.current.open({ eaterId: eater.eaterId, day: day.day })}
              >
                {face}
              </Block>
              {item.batchId && !carried && !quiet && (
                <PortionEdge item={item} onSize={(size, allOfIt) => acts.current.size(item, size, allOfIt)} />
              )}
            </>
          )
        }
      />
      <p ref={ref} className="mt-0.5 flex min-h-6 flex-wrap items-center gap-x-5 gap-y-0.5">
        {compact && (
          <button
            className="w-14 text-left text-sm font-bold underline decoration-dotted underline-offset-2"
            aria-label={t("openDay", { day: longDay(day.day), name: eater.name })}
            onClick={() => acts.current.open({ eaterId: eater.eaterId, day: day.day })}
          >
            {eater.name}
          </button>
        )}
        {isDraft && <b className="rounded border border-sea px-1 text-xs text-sea">{t("fit.drafted")}</b>}
        {day.dayName && <span className="text-xs text-soft">{day.dayName}</span>}
        {day.awayIn.length > 0 && (
          <span className="text-xs text-soft">{t("away.in", { slots: day.awayIn.join(", ") })}</span>
        )}
        {day.items.map(
          (item) =>
            item.never && (
              <span key={item.id} className="flex items-center gap-2 text-xs">
                <b>{item.name}</b>
                <NeverMark t={t} name={eater.name} why={item.never} />
              </span>
            ),
        )}
        {watched(day, eater.aim.leading, lens).map((measure) => (
          <ThinTape key={measure} day={day} aim={day.aim} measure={measure} />
        ))}
        {narrow.length > 0 && (
          <span className="min-w-0 flex-1 truncate text-xs text-soft max-md:hidden" aria-hidden>
            {[
              ...narrow.filter(({ isForGuests }) => !isForGuests).map(({ name }) => name),
              ...[...new Set(forGuests)].map((name) =>
                t("guests.small", { name, count: forGuests.filter((one) => one === name).length }),
              ),
            ].join(" · ")}
          </span>
        )}
        <span
          className="counted ml-auto text-base"
          title={
            missing?.length
              ? t("missing", { measure: t(`app:measures.${lens}`), foods: missing.join(", ") })
              : undefined
          }
        >
          {sum && day.verdict !== "empty" && (
            <>
              <Amount measure={lens} figure={sum} className="font-title font-bold" />
              {words && <span className="text-soft"> · </span>}
            </>
          )}
          <span
            className={`text-sm ${look === "out" ? "font-bold text-brick" : look === "in" ? "font-bold text-sea" : "text-soft"}`}
          >
            {words}
          </span>
        </span>
      </p>
    </div>
  );
});

/** A block on a ruler: carried by mouse and touch, picked up with Enter, taken off with Delete. */
function Block({
  item,
  lens,
  isCarried,
  onLift,
  onTakeOff,
  onList,
  children,
}: {
  item: ItemView;
  lens: Measure;
  isCarried: boolean;
  onLift: (carried: Carried) => void;
  onTakeOff: (carried: Carried) => void;
  /** Opens the list of the day, for a finger that can't hit a small block. */
  onList: () => void;
  children: ReactNode;
}) {
  const { t } = useWords("plan");
  const quiet = useQuiet();
  const carried: Carried = { kind: "item", id: item.id, name: item.name, isBox: item.boxId !== null };
  const { setNodeRef, listeners, isDragging } = useDraggable({
    id: `item|${item.id}`,
    data: carried,
    disabled: item.eatenAt !== null,
  });
  const figure = item.figures[lens];
  const onKey = (event: KeyboardEvent) => {
    if (event.key === "Enter" || event.key === " ") {
      event.preventDefault();
      event.stopPropagation();
      onLift(carried);
    } else if (event.key === "Delete" || event.key === "Backspace") {
      event.preventDefault();
      onTakeOff(carried);
    }
  };
  return (
    <button
      ref={setNodeRef}
      {...listeners}
      type="button"
      data-focus={`item|${item.id}`}
      title={
        quiet ? item.name : `${item.name} · ${figure ? amount(lens, figure.value) : "–"} ${unitOf(lens)}`
      }
      aria-label={t(`${quiet ? "quiet." : ""}${item.eatenAt ? "itemEaten" : "item"}` as const, {
        name: item.name,
        amount: figure ? `${amount(lens, figure.value)} ${unitOf(lens)}` : "",
      })}
      aria-pressed={isCarried}
      onKeyDown={onKey}
      onClick={(event) => {
        event.stopPropagation();
        if (isTouch() && event.currentTarget.offsetWidth < thumb && !isCarried) onList();
        else onLift(carried);
      }}
      className={`block size-full touch-none ${isDragging || isCarried ? "opacity-50 outline-2 outline-next" : ""}`}
    >
      {children}
    </button>
  );
}
