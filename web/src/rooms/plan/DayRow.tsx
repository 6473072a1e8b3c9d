import { useDraggable, useDroppable } from "@dnd-kit/core";
import type { KeyboardEvent, ReactNode } from "react";
import { useTranslation } from "react-i18next";
import type { DayView, EaterWeekView, ItemView, Measure } from "../../api";
import { Amount } from "../../ui/Figures";
import { amount, longDay, unitOf } from "../../ui/format";
import { Ruler, ThinTape } from "../../ui/Ruler";
import { readingWords, watched } from "./reading";
import type { Carried, Place } from "./usePlan";

interface DayRowProps {
  eater: EaterWeekView;
  day: DayView;
  lens: Measure;
  length: number;
  /** One of several eaters under the same day: shorter, with the eater's name. */
  compact: boolean;
  carried: Carried | null;
  target: Place | null;
  onLift: (carried: Carried, from: Place) => void;
  onTakeOff: (carried: Carried) => void;
  onLand: (to: Place) => void;
}

/** One eater's one day: the ruler, the thin tapes and what it comes to. */
export function DayRow({
  eater,
  day,
  lens,
  length,
  compact,
  carried,
  target,
  onLift,
  onTakeOff,
  onLand,
}: DayRowProps) {
  const { t } = useTranslation("plan");
  const { setNodeRef, isOver } = useDroppable({ id: `${eater.eaterId}|${day.day}` });
  const sum = day.sums[lens];
  const reading = day.bands[lens];
  const words = day.items.length === 0 ? t("nothing") : readingWords(t, lens, reading);
  const label = t("dayLabel", {
    count: day.items.length,
    name: eater.name,
    day: longDay(day.day),
    sum: sum ? `${amount(lens, sum.value)} ${unitOf(lens)}` : "",
    reading: words,
  });
  const isTarget = target?.eaterId === eater.eaterId && target.day === day.day;
  const out = reading?.position === "over";
  const missing = day.missing[lens];

  return (
    <div
      ref={setNodeRef}
      data-day={`${eater.eaterId}|${day.day}`}
      className={`rounded-md ${isOver || isTarget ? "outline-2 outline-offset-2 outline-sea" : ""} ${carried ? "cursor-pointer" : ""}`}
      onClick={
        carried ? () => onLand({ eaterId: eater.eaterId, day: day.day, place: day.items.length }) : undefined
      }
    >
      <Ruler
        day={day}
        aim={eater.aim}
        measure={lens}
        length={length}
        label={label}
        height={compact ? 46 : 60}
        landing={isTarget ? target.place : null}
        block={(item, index, face) => (
          <Block
            item={item}
            lens={lens}
            isCarried={carried?.id === item.id}
            onLift={(what) => onLift(what, { eaterId: eater.eaterId, day: day.day, place: index })}
            onTakeOff={onTakeOff}
          >
            {face}
          </Block>
        )}
      />
      <p className="mt-0.5 flex min-h-6 flex-wrap items-center gap-x-5 gap-y-0.5">
        {compact && <span className="w-14 text-sm font-bold">{eater.name}</span>}
        {watched(day, eater.aim.leading, lens).map((measure) => (
          <ThinTape key={measure} day={day} aim={eater.aim} measure={measure} />
        ))}
        <span
          className="ml-auto text-base"
          title={
            missing?.length
              ? t("missing", { measure: t(`app:measures.${lens}`), foods: missing.join(", ") })
              : undefined
          }
        >
          {sum && day.items.length > 0 && (
            <Amount measure={lens} figure={sum} className="font-title font-bold" />
          )}{" "}
          <span
            className={`text-sm ${out ? "font-bold text-brick" : reading?.position === "within" && day.items.length > 0 ? "font-bold text-sea" : "text-soft"}`}
          >
            {words}
          </span>
        </span>
      </p>
    </div>
  );
}

/** A block on a ruler: carried by mouse and touch, picked up with Enter, taken off with Delete. */
function Block({
  item,
  lens,
  isCarried,
  onLift,
  onTakeOff,
  children,
}: {
  item: ItemView;
  lens: Measure;
  isCarried: boolean;
  onLift: (carried: Carried) => void;
  onTakeOff: (carried: Carried) => void;
  children: ReactNode;
}) {
  const { t } = useTranslation("plan");
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
      title={`${item.name} · ${figure ? amount(lens, figure.value) : "–"} ${unitOf(lens)}`}
      aria-label={t(item.eatenAt ? "itemEaten" : "item", {
        name: item.name,
        amount: figure ? `${amount(lens, figure.value)} ${unitOf(lens)}` : "",
      })}
      aria-pressed={isCarried}
      onKeyDown={onKey}
      onClick={(event) => {
        event.stopPropagation();
        onLift(carried);
      }}
      className={`block size-full touch-none ${isDragging || isCarried ? "opacity-50 outline-2 outline-next" : ""}`}
    >
      {children}
    </button>
  );
}
