import { useQuiet } from "../../app/quiet";
import { useDroppable } from "@dnd-kit/core";
import { useWords } from "../../app/i18n";
import { Link } from "react-router";
import type { Measure, ShelfView } from "../../api";
import { amount, shortDay, unitOf } from "../../ui/format";
import { Strip } from "./Strip";
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
  const { t } = useWords("plan");
  const quiet = useQuiet();
  const { setNodeRef, isOver } = useDroppable({ id: "shelf" });
  const figuresOf = ({ figures }: ShelfView) => figures[eaterId] ?? Object.values(figures)[0];
  const spoken = (group: ShelfView) => {
    const figure = figuresOf(group)?.[lens];
    const words = group.isRest ? "restStrip" : "strip";
    return t(quiet ? `quiet.${words}` : `shelf.${words}`, {
      count: group.boxIds.length,
      name: group.name,
      amount: figure ? `${amount(lens, figure.value)} ${unitOf(lens)}` : "",
      day: shortDay(group.cookedOn),
    });
  };
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
          <Link to="/plan?panel=menu" className="link">
            {t("shelf.plan")}
          </Link>{" "}
          ·{" "}
          <Link to="/pack" className="link">
            {t("shelf.pack")}
          </Link>
        </p>
      )}
      <ul className="max-h-[46vh] space-y-2 overflow-auto p-1">
        {shelf.map((group) => (
          <li key={`${group.batchId}|${group.place}|${group.useBy}|${group.isRest ? group.boxIds[0] : ""}`}>
            <Strip
              what={{ kind: "box", id: group.boxIds[0]!, name: group.name, isBox: true }}
              focus={`batch|${group.batchId}|${group.place}|${group.isRest ? group.boxIds[0] : ""}`}
              label={spoken(group)}
              letters={group.letters}
              tint={group.tint}
              figures={figuresOf(group)}
              lens={lens}
              second={second}
              count={group.isRest ? t("shelf.rest") : `×${group.boxIds.length}`}
              foot={
                group.isOver
                  ? t("shelf.past")
                  : t(`shelf.keeps.${group.place}`, { day: shortDay(group.useBy) })
              }
              isOver={group.isOver}
              never={group.neverFor[eaterId]}
              isCarried={carried !== null && group.boxIds.includes(carried.id)}
              onLift={onLift}
            />
          </li>
        ))}
      </ul>
    </section>
  );
}
