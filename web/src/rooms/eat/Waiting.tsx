import { useState } from "react";
import { Link } from "react-router";
import { eatItem, layEntries, takeOff, type EatView, type ItemView, type Measure } from "../../api";
import { useHistory } from "../../app/history";
import { useWords } from "../../app/i18n";
import { seenDays } from "../../app/seen";
import { Amount } from "../../ui/Figures";
import { clockOf } from "../../ui/format";
import { NeverMark } from "../../ui/never";
import { holdWords } from "../plan/reading";
import { ItemFace } from "./ItemFace";
import { NotQuite } from "./NotQuite";

/** What is still to be eaten, in the order of the day: when, what, how it is heated, what goes on it. One press eats it as planned. */
export function Waiting({ view, items, lens }: { view: EatView; items: ItemView[]; lens: Measure }) {
  const { t } = useWords("eat");
  const { change } = useHistory();
  // What was eaten otherwise than planned, or not.
  const [otherwise, setOtherwise] = useState<ItemView | null>(null);
  const where = { eaterId: view.eaterId, day: view.day.day };
  const isAhead = view.day.day > view.today;
  const first = items.findIndex(({ batchId, never, hold }) => !batchId && !never && !hold);
  const ate = (item: ItemView) =>
    change(
      () => eatItem({ headers: seenDays(where), path: { id: item.id }, body: { eaten: true } }),
      t("marked", { name: item.name }),
    );
  return (
    <>
      <ul className="space-y-3">
        {items.map((item, i) => {
          const slot = view.slots.find(({ name }) => name === item.slot);
          const isNewSlot = item.slot !== null && items[i - 1]?.slot !== item.slot;
          const atTable = view.atTable[item.id];
          return (
            <li key={item.id} className="space-y-1">
              {isNewSlot && (
                <h3 className="text-sm font-bold">
                  {slot?.at && <span className="font-title text-base">{clockOf(slot.at)}</span>}{" "}
                  <span className={slot?.at ? "font-normal text-soft" : ""}>{item.slot}</span>
                </h3>
              )}
              <div className="grid grid-cols-[1fr_auto] items-stretch gap-2">
                <div className="min-w-0">
                  {item.never && <NeverMark t={t} name={view.name} why={item.never} />}
                  <ItemFace item={item} lens={lens} />
                </div>
                {item.hold ? (
                  <button
                    className="btn"
                    onClick={() =>
                      void change(
                        () => takeOff({ headers: seenDays(where), path: { id: item.id } }),
                        t("letGo", { what: holdWords(t, item.hold!) }),
                      )
                    }
                  >
                    {t("release")}
                  </button>
                ) : item.batchId ? (
                  <Link to={`/pack/${item.batchId}`} className="btn min-w-24">
                    {t("pack")}
                  </Link>
                ) : (
                  <span className="flex gap-1">
                    {!item.isForGuests && (
                      <button
                        className="btn"
                        aria-label={`${t("notQuite.open")}: ${item.name}`}
                        onClick={() => setOtherwise(item)}
                      >
                        {t("notQuite.open")}
                      </button>
                    )}
                    {!isAhead && (
                      <button
                        className={`${i === first ? "btn-next" : "btn"} min-w-20`}
                        onClick={() => void ate(item)}
                        aria-label={`${t("ate")}: ${item.name}`}
                      >
                        {t("ate")}
                      </button>
                    )}
                  </span>
                )}
              </div>
              {atTable && (atTable.toppings.length > 0 || atTable.atEating) && (
                <Toppings item={item} view={view} lens={lens} isAhead={isAhead} />
              )}
              {item.boxId && (i === first || atTable?.heating) && (
                <p className="text-sm">
                  {atTable?.heating && <b>{t("heatLike", { how: atTable.heating })} </b>}
                  {i === first && (
                    <>
                      {t("heat")} <span className="text-xs text-soft">{t("heatSource")}</span>
                    </>
                  )}
                </p>
              )}
            </li>
          );
        })}
      </ul>
      {otherwise && (
        <NotQuite item={otherwise} where={where} today={view.today} close={() => setOtherwise(null)} />
      )}
    </>
  );
}

/** What the cook adds to this dish when it is eaten: each amount one press, the rest as it was written. */
function Toppings({
  item,
  view,
  lens,
  isAhead,
}: {
  item: ItemView;
  view: EatView;
  lens: Measure;
  isAhead: boolean;
}) {
  const { t } = useWords("eat");
  const { change } = useHistory();
  const { toppings, atEating } = view.atTable[item.id]!;
  const where = { eaterId: view.eaterId, day: view.day.day };
  return (
    <p className="flex flex-wrap items-center gap-2 text-sm">
      <span className="text-soft">{t("onIt")}</span>
      {toppings.map((topping) => (
        <button
          key={topping.text}
          className="btn min-h-11"
          onClick={() =>
            void change(
              () =>
                layEntries({
                  headers: seenDays(where),
                  body: { ...where, text: topping.text, eaten: !isAhead, slot: item.slot },
                }),
              t(isAhead ? "laidOn" : "added", { name: topping.text }),
            )
          }
        >
          + {topping.text} <Amount measure={lens} figure={topping.figures[lens]} className="text-soft" />
        </button>
      ))}
      {toppings.length === 0 && <span>{atEating}</span>}
    </p>
  );
}
