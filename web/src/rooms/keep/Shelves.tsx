import { ChevronDown, ChevronRight } from "lucide-react";
import { useState } from "react";
import type { BoxPlace, KeptGroupView, ShelvesView } from "../../api";
import { useEaters } from "../../app/Header";
import { useWords } from "../../app/i18n";
import { Caution } from "../../ui/Caution";
import { grams, shortDay } from "../../ui/format";
import { KeptTape, useUntil } from "./KeptTape";
import { Poorly } from "./Tasks";
import type { Kept } from "./useKeepActs";

const places: BoxPlace[] = ["fridge", "freezer", "counter", "takenAlong"];
const sorts = ["day", "dish", "eater"] as const;
const most = 24;

/** The shelves: every box that is there, as strips of tape; chosen one by one or by the strip. */
export function Shelves({
  view,
  chosen,
  choose,
}: {
  view: ShelvesView;
  chosen: Set<string>;
  choose: (ids: string[], isChosen: boolean) => void;
}) {
  const { t } = useWords("keep");
  const eaters = useEaters() ?? [];
  const [sort, setSort] = useState<(typeof sorts)[number]>("day");
  const eater = ({ boxes }: KeptGroupView) => {
    const at = eaters.findIndex(({ id }) => id === boxes[0]!.eaterId);
    return at < 0 ? eaters.length : at;
  };
  const inOrder = [...view.groups].sort((a, b) =>
    sort === "dish" ? a.name.localeCompare(b.name) : sort === "eater" ? eater(a) - eater(b) : 0,
  );
  return (
    <div className="space-y-6">
      <div role="group" aria-label={t("shelf.sort")} className="flex flex-wrap items-center gap-2 text-sm">
        <span className="text-soft">{t("shelf.sort")}</span>
        {sorts.map((one) => (
          <button
            key={one}
            aria-pressed={one === sort}
            className={`chip ${one === sort ? "bg-ink font-bold text-ground" : ""}`}
            onClick={() => setSort(one)}
          >
            {t(`shelf.sorts.${one}`)}
          </button>
        ))}
      </div>
      {places.map((place) => (
        <OnePlace
          key={place}
          place={place}
          groups={inOrder.filter((group) => group.place === place)}
          chosen={chosen}
          choose={choose}
          today={view.today}
        />
      ))}
    </div>
  );
}

function OnePlace({
  place,
  groups,
  chosen,
  choose,
  today,
}: {
  place: BoxPlace;
  today: string;
  groups: KeptGroupView[];
  chosen: Set<string>;
  choose: (ids: string[], isChosen: boolean) => void;
}) {
  const { t } = useWords("keep");
  const [shown, setShown] = useState(most);
  const count = groups.reduce((sum, { boxes }) => sum + boxes.length, 0);
  if (count === 0 && (place === "counter" || place === "takenAlong")) return null;
  return (
    <section aria-labelledby={`place-${place}`}>
      <h2 id={`place-${place}`} className="mb-2 flex items-baseline gap-3 border-b border-rim pb-1 text-lg">
        {t(`shelf.${place}`)}
        <span className="text-sm font-normal text-soft">{t("shelf.count", { count })}</span>
      </h2>
      {groups.some(({ kind }) => kind === "rice") && <Caution code="rice" />}
      {count === 0 && <p className="text-sm text-soft">{t("shelf.none")}</p>}
      <ul className="grid items-start gap-2 sm:grid-cols-2 xl:grid-cols-3">
        {groups.slice(0, shown).map((group) => (
          <Group key={group.boxes[0]!.id} group={group} chosen={chosen} choose={choose} today={today} />
        ))}
      </ul>
      {groups.length > shown && (
        <button className="btn mt-2" onClick={() => setShown(shown + 4 * most)}>
          {t("shelf.more", { count: Math.min(groups.length - shown, 4 * most) })}
        </button>
      )}
    </section>
  );
}

function Group({
  group,
  chosen,
  choose,
  today,
}: {
  group: KeptGroupView;
  today: string;
  chosen: Set<string>;
  choose: (ids: string[], isChosen: boolean) => void;
}) {
  const { t } = useWords("keep");
  const [isOpen, setIsOpen] = useState(false);
  const boxes: Kept[] = group.boxes.map((box) => ({ box, group }));
  const ids = group.boxes.map(({ id }) => id);
  const count = ids.filter((id) => chosen.has(id)).length;
  const said = useUntil();
  const until = said(group, today);
  return (
    <li className={count > 0 ? "outline-3 outline-sea" : ""}>
      <button
        type="button"
        aria-pressed={count === ids.length}
        aria-label={t("shelf.choose", {
          name: group.name,
          count: ids.length,
          grams: grams(Math.round(group.grams)),
          until,
        })}
        className="block w-full"
        onClick={() => choose(ids, count < ids.length)}
      >
        <KeptTape boxes={boxes} today={today} />
      </button>
      <button
        className="flex min-h-6 items-center gap-1 text-xs text-soft max-md:min-h-11"
        aria-expanded={isOpen}
        aria-label={t("shelf.each", { name: group.name })}
        onClick={() => setIsOpen(!isOpen)}
      >
        {isOpen ? <ChevronDown size={14} aria-hidden /> : <ChevronRight size={14} aria-hidden />}
        {t("shelf.why", { day: shortDay(group.useBy) })}
      </button>
      {isOpen && (
        <div className="px-1 pb-2 text-xs">
          <p>
            {t("shelf.because", { kind: t(`rules.kinds.${group.kind}`), source: group.source })}{" "}
            {t("shelf.cooked", { day: shortDay(group.cookedOn) })}.
          </p>
          {group.place !== "freezer" && <Poorly kept={boxes[0]!} />}
          {ids.length > 1 &&
            group.boxes.map((box) => (
              <label key={box.id} className="flex min-h-8 items-center gap-2 max-md:min-h-11">
                <input
                  type="checkbox"
                  checked={chosen.has(box.id)}
                  onChange={(event) => choose([box.id], event.target.checked)}
                />
                {t("shelf.box", { number: box.number, grams: grams(Math.round(box.grams * 10) / 10) })}
              </label>
            ))}
        </div>
      )}
    </li>
  );
}
