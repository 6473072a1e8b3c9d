import type { Figure, KeptGroupView, Measure } from "../../api";
import { measureFor, useLens } from "../../app/lens";
import { useCurrentEater, useEaters } from "../../app/Header";
import { useWords } from "../../app/i18n";
import { useKitchen } from "../../app/kitchen";
import { Amount } from "../../ui/Figures";
import { inPieces, shortDay, unitOf, weekday } from "../../ui/format";
import { neverWords } from "../../ui/never";
import { Tape } from "../../ui/Tape";
import { dayAfter } from "./days";
import type { Kept } from "./useKeepActs";

/** Boxes of one group as a strip of tape: the dish, how many, what one holds, for whom, until when. */
export function KeptTape({ boxes, today }: { boxes: Kept[]; today: string }) {
  const { t } = useWords("keep");
  const { lens: through } = useKitchen();
  const shown = useLens();
  const eaters = useEaters() ?? [];
  const current = useCurrentEater();
  const { group } = boxes[0]!;
  const whose = useWhose();
  const until = useUntil();
  const eaterId = boxes[0]!.box.eaterId ?? current;
  const aim = eaters.find(({ id }) => id === eaterId)?.aim;
  const lens = aim ? measureFor(through, aim) : shown;
  const figures = (eaterId && group.figures[eaterId]) || Object.values(group.figures)[0];
  const second: Measure = lens === "energy" ? "protein" : "energy";
  return (
    <Tape letters={group.letters} tint={group.tint}>
      <span className="flex flex-wrap justify-between gap-x-2">
        <span className="line-clamp-2 text-sm leading-tight font-semibold">{group.name}</span>
        <span className="ml-auto font-title leading-tight font-bold whitespace-nowrap">
          {group.isRest ? t("shelf.rest") : `×${boxes.length}`}
        </span>
      </span>
      <span className="block truncate text-xs">
        {inPieces(t, group)}
        <span className="counted">
          {" "}
          · <Held measure={lens} figure={figures?.[lens]} isFirst /> ·{" "}
          <Held measure={second} figure={figures?.[second]} />
        </span>
      </span>
      <span className="block text-xs">
        <b className="whitespace-nowrap">
          {group.isOver && <span aria-hidden className="hatched mr-1 inline-block h-3 w-1.5" />}
          {until(group, today)}
        </b>{" "}
        · {whose(boxes, today)}
      </span>
      {eaters
        .filter(({ id }) => group.neverFor[id])
        .map(({ id, name }) => (
          <b key={id} className="block text-xs">
            {t("shelf.notFor", { name, why: neverWords(t, group.neverFor[id]!) })}
          </b>
        ))}
    </Tape>
  );
}

/** A figure with the word for what it is of, where its unit does not say so. */
function Held({
  measure,
  figure,
  isFirst = false,
}: {
  measure: Measure;
  figure: Figure | undefined;
  isFirst?: boolean;
}) {
  const { t } = useWords();
  return (
    <>
      <Amount
        measure={measure}
        figure={figure}
        className={`[&_*]:text-tape ${isFirst ? "font-semibold" : ""}`}
      />
      {unitOf(measure) === "g" && ` ${t(`measures.${measure}`)}`}
    </>
  );
}

/** Whose boxes are, and for which days: "for Mara Thu, Fri ×2; Finn Sat 5 Dec". */
export function useWhose() {
  const { t } = useWords("keep");
  const eaters = useEaters() ?? [];
  return (boxes: Kept[], today: string) => {
    const days = new Map<string, Map<string, number>>();
    for (const { box } of boxes) {
      if (!box.eaterId || !box.day) continue;
      const name = eaters.find(({ id }) => id === box.eaterId)?.name ?? "";
      const own = days.get(name) ?? new Map<string, number>();
      const day = box.day < dayAfter(today, 7) ? weekday(box.day) : shortDay(box.day);
      days.set(name, own.set(day, (own.get(day) ?? 0) + 1));
    }
    if (days.size === 0) return t("shelf.nobody");
    const said = ([day, count]: [string, number]) => (count > 1 ? `${day} ×${count}` : day);
    const who = [...days].map(([name, own]) => t("shelf.days", { name, day: [...own].map(said).join(", ") }));
    const count = boxes.filter(({ box }) => !box.day).length;
    const all = count > 0 ? [...who, t("shelf.others", { count })] : who;
    return t("shelf.for", { who: all.reduce((one, other) => t("shelf.and", { one, other })) });
  };
}

/** Until when boxes keep: "to Thu 26 Nov", "last day today", "past its last day, Sun 22 Nov". */
export function useUntil() {
  const { t } = useWords("keep");
  return ({ useBy, isOver }: KeptGroupView, today: string) => {
    if (isOver) return t("shelf.past", { day: shortDay(useBy) });
    if (useBy === today) return t("shelf.untilToday");
    if (useBy === dayAfter(today)) return t("shelf.untilTomorrow");
    return t("shelf.until", { day: shortDay(useBy) });
  };
}
