import { amendItem, eatItem, type EatView, type ItemView, type Measure } from "../../api";
import { useHistory } from "../../app/history";
import { useWords } from "../../app/i18n";
import { seenDays } from "../../app/seen";
import { AmountField } from "../../ui/AmountField";
import { amount, clock, dayOf, shortDay, unitWords } from "../../ui/format";
import { ItemFace } from "./ItemFace";

/** What was eaten, when, and by how much a later correction changed it. */
export function Done({ view, items, lens }: { view: EatView; items: ItemView[]; lens: Measure }) {
  const { t } = useWords("eat");
  const { change } = useHistory();
  const where = { eaterId: view.eaterId, day: view.day.day };
  const amend = (item: ItemView, text: string) =>
    change(
      () => amendItem({ headers: seenDays(where), path: { id: item.id }, body: { text } }),
      t("plan:depth.amended", { name: item.name, amount: text }),
    );
  return (
    <ul className="space-y-2">
      {items.map((item) => {
        const corrected = view.corrected[item.id];
        const written = dayOf(item.eatenAt!);
        return (
          <li key={item.id} className="grid grid-cols-[1fr_auto_auto] items-center gap-3">
            <div className="min-w-0">
              <ItemFace item={item} lens={lens} />
              <p className="mt-1 flex">
                <AmountField
                  name={item.text ?? item.name}
                  text={item.text}
                  weight={item.grams}
                  pieces={item.partOf === null ? item.pieces : null}
                  onAmend={(text) => amend(item, text)}
                />
              </p>
              {corrected && (
                <p className="counted mt-1 text-sm">
                  {t("corrected", {
                    day: shortDay(corrected.on),
                    by: signed(lens, corrected.by[lens]?.value ?? 0),
                    unit: unitWords(t, lens),
                    was: amount(lens, corrected.was[lens]?.value ?? 0),
                  })}
                </p>
              )}
            </div>
            {written === where.day ? (
              <span className="font-title font-bold">{clock(item.eatenAt!)}</span>
            ) : (
              <span className="text-xs text-soft">{t("written", { day: shortDay(written) })}</span>
            )}
            <button
              className="min-h-11 text-sm text-soft underline"
              onClick={() =>
                void change(
                  () => eatItem({ headers: seenDays(where), path: { id: item.id }, body: { eaten: false } }),
                  t("unmarked", { name: item.name }),
                )
              }
              aria-label={`${t("notEaten")}: ${item.name}`}
            >
              {t("app:undo")}
            </button>
          </li>
        );
      })}
    </ul>
  );
}

const signed = (measure: Measure, by: number) => `${by < 0 ? "−" : "+"}${amount(measure, Math.abs(by))}`;
