import { useQueryClient } from "@tanstack/react-query";
import type { TFunction } from "i18next";
import { doAhead, troubleOf, undoAhead, type AheadDishView, type AheadWorkView } from "../../api";
import { freshen } from "../../app/freshen";
import { useHistory } from "../../app/history";
import { useWords } from "../../app/i18n";
import { useSay } from "../../app/notices";
import { shortDay, wholeNumber } from "../../ui/format";
import { Tape } from "../../ui/Tape";

/** What can be done ahead, in words: "chop 290 g onion". */
const workOf = (t: TFunction, { verb, what, grams }: AheadWorkView) =>
  verb === "step"
    ? what
    : t("ahead.work", {
        verb: t(`verb.${verb}`).toLowerCase(),
        what: grams > 0 ? t("sheet.amount", { grams: wholeNumber(grams), food: what }) : what,
      });

interface AheadProps {
  day: string;
  today: string;
  dishes: AheadDishView[];
  /** The dishes that are prepared on this day, as it is tried. */
  chosen: string[];
  choose: (ids: string[]) => void;
}

/** Dishes of later days: what of each can be washed, chopped or boiled on this one, and that it was. */
export function Ahead({ day, today, dishes, chosen, choose }: AheadProps) {
  const { t } = useWords("cook");
  const say = useSay();
  const queries = useQueryClient();
  const { did } = useHistory();
  if (dishes.length === 0) return null;
  const done = async ({ batch }: AheadDishView) => {
    try {
      const { ids } = (await doAhead({ body: { batchId: batch.id, day } })).data!;
      await freshen(queries, "prepDay");
      did(t("ahead.done", { dish: batch.name }), async () => {
        await undoAhead({ body: { ids } });
        await freshen(queries, "prepDay");
      });
    } catch (thrown) {
      say(troubleOf(thrown, t("app:silent")).detail ?? "", { trouble: true });
      await freshen(queries, "prepDay");
    }
  };
  return (
    <fieldset>
      <legend className="mb-1 text-sm font-semibold">{t("ahead.title")}</legend>
      <ul className="space-y-2">
        {dishes.map((dish) => {
          const { batch, work } = dish;
          const isIn = chosen.includes(batch.id);
          return (
            <li key={batch.id}>
              <label className="flex min-h-11 cursor-pointer items-center gap-2">
                <input
                  type="checkbox"
                  className="size-5 shrink-0"
                  aria-label={t("ahead.take", { dish: batch.name })}
                  checked={isIn}
                  onChange={() =>
                    choose(isIn ? chosen.filter((id) => id !== batch.id) : [...chosen, batch.id])
                  }
                />
                <Tape letters={batch.letters} tint={batch.tint} className="min-w-0 flex-1">
                  <span className="block truncate text-sm font-semibold">{batch.name}</span>
                  <span className="text-xs">{shortDay(dish.day)}</span>
                </Tape>
              </label>
              <ul className="ml-7 text-sm text-soft">
                {work.map((one) => (
                  <li key={`${one.verb}${one.what}`}>{workOf(t, one)}</li>
                ))}
              </ul>
              {day <= today && (
                <button className="btn mt-1 ml-7" onClick={() => void done(dish)}>
                  {t("ahead.isDone")}
                </button>
              )}
            </li>
          );
        })}
      </ul>
      <p className="mt-1 text-xs text-soft">{t("ahead.keeps")}</p>
    </fieldset>
  );
}
