import type { ItemView, Measure } from "../../api";
import { useWords } from "../../app/i18n";
import { Amount } from "../../ui/Figures";
import { grams, piecesOf } from "../../ui/format";
import { Tape } from "../../ui/Tape";
import { holdWords } from "../plan/reading";

/** Something on the day: a box as its strip of tape, anything else as a slip. */
export function ItemFace({ item, lens }: { item: ItemView; lens: Measure }) {
  const { t } = useWords("eat");
  const second: Measure = lens === "energy" ? "protein" : "energy";
  if (item.hold)
    return (
      <span className="kept block min-h-12 min-w-0 rounded-md border border-dashed border-sea px-3 py-1">
        <span className="block font-semibold">
          {t("plan:hold.for", { slot: item.slot ?? t("plan:hold.later") })}
        </span>
        <span className="text-sm">
          {holdWords(t, { ...item.hold, amount: item.figures[item.hold.measure]?.value ?? 0 })}
        </span>
      </span>
    );
  const words = (
    <>
      <span className="block truncate font-semibold">
        {item.name}
        {item.isForGuests && <span className="text-sm font-normal"> {t("plan:guests.mark")}</span>}
      </span>
      {item.isOver && (
        <b className="block text-sm">
          <span aria-hidden className="hatched mr-1 inline-block h-3 w-1.5" />
          {t("app:isOver")}
        </b>
      )}
      <span className="text-sm">
        <span className="counted">
          <Amount measure={lens} figure={item.figures[lens]} className="[&_*]:text-inherit" /> ·{" "}
          <Amount measure={second} figure={item.figures[second]} className="[&_*]:text-inherit" />{" "}
          {second === "protein" && t("app:measures.protein")}
          {item.giveOrTake !== null &&
            item.text !== null &&
            item.giveOrTake > 0 &&
            ` · ${t("guessed", { kcal: Math.round(item.giveOrTake) })}`}
        </span>
        {(item.giveOrTake === null || item.text === null) && (
          <>
            <span className="counted"> · </span>
            {item.batchId ? `${t("app:about")} ` : ""}
            {item.partOf === null
              ? [
                  ...(item.pieces ? [piecesOf(t, item.pieces)] : []),
                  `${grams(Math.round(item.grams))} g`,
                  ...(item.volume ? [item.volume] : []),
                ].join(" · ")
              : t("part.some", {
                  part: grams(Math.round(item.grams)),
                  whole: grams(Math.round(item.partOf!)),
                })}
          </>
        )}
      </span>
    </>
  );
  return item.letters !== null && item.tint !== null ? (
    <Tape
      letters={item.letters}
      tint={item.tint}
      className={`min-h-12 min-w-0 ${item.batchId ? "ahead" : ""}`}
    >
      {words}
    </Tape>
  ) : (
    <span className="block min-h-12 min-w-0 rounded-md border border-line bg-panel px-3 py-1">{words}</span>
  );
}
