import { useDraggable, useDroppable } from "@dnd-kit/core";
import { useTranslation } from "react-i18next";
import { Link } from "react-router";
import type { Measure, ShelfView } from "../../api";
import { Amount } from "../../ui/Figures";
import { amount, shortDay, unitOf } from "../../ui/format";
import { Tape } from "../../ui/Tape";
import type { Carried } from "./usePlan";

interface ShelfProps {
  shelf: ShelfView[];
  eaterId: string;
  lens: Measure;
  second: Measure;
  carried: Carried | null;
  onLift: (carried: Carried) => void;
}

/** The bench at the right: boxes that lie on no day, one strip of tape a batch. */
export function Shelf({ shelf, eaterId, lens, second, carried, onLift }: ShelfProps) {
  const { t } = useTranslation("plan");
  const { setNodeRef, isOver } = useDroppable({ id: "shelf" });
  const count = shelf.reduce((sum, group) => sum + group.boxIds.length, 0);
  return (
    <section
      ref={setNodeRef}
      aria-labelledby="shelf-title"
      className={`rounded-md ${isOver ? "outline-2 outline-offset-4 outline-sea" : ""}`}
    >
      <h2 id="shelf-title" className="mb-2 flex items-baseline justify-between text-base">
        {t("shelf.title")}{" "}
        <span className="text-xs font-normal text-soft">{t("shelf.count", { count })}</span>
      </h2>
      {shelf.length === 0 && (
        <p className="text-sm text-soft">
          {t("shelf.empty")}{" "}
          <Link to="/pack" className="link">
            {t("shelf.pack")}
          </Link>
        </p>
      )}
      <ul className="max-h-[46vh] space-y-2 overflow-auto p-1">
        {shelf.map((group) => (
          <li key={group.batchId}>
            <Strip
              group={group}
              eaterId={eaterId}
              lens={lens}
              second={second}
              isCarried={carried !== null && group.boxIds.includes(carried.id)}
              onLift={onLift}
            />
          </li>
        ))}
      </ul>
    </section>
  );
}

function Strip({
  group,
  eaterId,
  lens,
  second,
  isCarried,
  onLift,
}: {
  group: ShelfView;
  eaterId: string;
  lens: Measure;
  second: Measure;
  isCarried: boolean;
  onLift: (carried: Carried) => void;
}) {
  const { t } = useTranslation("plan");
  const carried: Carried = { kind: "box", id: group.boxIds[0]!, name: group.name, isBox: true };
  const { setNodeRef, listeners, isDragging } = useDraggable({ id: `box|${carried.id}`, data: carried });
  const figures = group.figures[eaterId] ?? Object.values(group.figures)[0];
  const figure = figures?.[lens];
  return (
    <button
      ref={setNodeRef}
      {...listeners}
      type="button"
      data-focus={`batch|${group.batchId}`}
      aria-pressed={isCarried}
      aria-label={t("shelf.strip", {
        count: group.boxIds.length,
        name: group.name,
        amount: figure ? `${amount(lens, figure.value)} ${unitOf(lens)}` : "",
        day: shortDay(group.cookedOn),
      })}
      onClick={() => onLift(carried)}
      className={`block w-full touch-manipulation ${isDragging ? "opacity-50" : ""} ${isCarried ? "outline-3 outline-next" : ""}`}
    >
      <Tape letters={group.letters} tint={group.tint}>
        <span className="flex justify-between gap-2">
          <span className="truncate text-sm font-semibold">{group.name}</span>
          <span className="font-title font-bold">×{group.boxIds.length}</span>
        </span>
        <span className="block truncate text-xs">
          <Amount measure={lens} figure={figure} className="font-semibold [&_*]:text-tape" /> ·{" "}
          <Amount measure={second} figure={figures?.[second]} className="[&_*]:text-tape" />
          {second === "protein" && ` ${t("app:measures.protein")}`}
        </span>
        <span className="block truncate text-xs">{t("shelf.cooked", { day: shortDay(group.cookedOn) })}</span>
      </Tape>
    </button>
  );
}
