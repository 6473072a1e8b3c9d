import { useQueryClient } from "@tanstack/react-query";
import { addDays, parseISO } from "date-fns";
import { useState, type Dispatch, type SetStateAction } from "react";
import { Link } from "react-router";
import { useWords } from "../app/i18n";
import { layPortion, planBatches, troubleOf, type EaterView, type Trouble } from "../api";
import { useHistory } from "../app/history";
import { seenDays } from "../app/seen";
import { useWeek } from "../rooms/plan/usePlan";
import { amount, isoDay, longDay, unitWords } from "../ui/format";
import { Ruler } from "../ui/Ruler";
import { Failed, lacking, Loading, Sentence } from "../ui/states";
import { tapeLength } from "../ui/ticks";
import type { Dish } from "./FirstDish";

/** What became of the dish: its batch, once it is planned, and the eaters on whose day it lies. */
export interface Laid {
  batchId: string | null;
  on: string[];
}

/** The first dish planned for tomorrow, and a portion of it on everybody's day. */
export function OnTomorrow({
  eaters,
  dish,
  today,
  laid: { batchId, on: laidOn },
  onLaid,
}: {
  eaters: EaterView[];
  dish: Dish | null;
  today: string;
  laid: Laid;
  onLaid: Dispatch<SetStateAction<Laid>>;
}) {
  const { t } = useWords("beginning");
  const queries = useQueryClient();
  const { change } = useHistory();
  const [refused, setRefused] = useState<Record<string, Trouble>>({});
  const [trouble, setTrouble] = useState<Trouble | null>(null);
  const day = isoDay(addDays(parseISO(today), 1));
  const weekQuery = useWeek(day);
  if (eaters.length === 0) return <p>{t("tomorrow.noEater")}</p>;
  if (!dish) return <p>{t("tomorrow.noDish")}</p>;
  const failed = lacking(weekQuery);
  if (failed) return <Failed {...failed} />;
  const week = weekQuery.data;
  const { recipe, unread } = dish;
  const waiting = eaters.filter(({ id }) => !laidOn.includes(id));
  const names = (which: EaterView[]) => which.map(({ name }) => name).join(", ");
  const lay = async () => {
    setTrouble(null);
    setRefused({});
    try {
      // Asked for again, what was planned the first time is laid.
      const id = batchId ?? (await plan());
      for (const eater of waiting) {
        const where = { eaterId: eater.id, day };
        const isLaid = await change(
          () => layPortion({ headers: seenDays(where), body: { batchId: id, ...where } }),
          t("plan:carry.laid", { name: recipe.name, day: longDay(day) }),
          (why) => setRefused((all) => ({ ...all, [eater.id]: why })),
        );
        if (isLaid) onLaid((now) => ({ ...now, on: [...now.on, eater.id] }));
      }
    } catch (thrown) {
      setTrouble(troubleOf(thrown, t("app:silent")));
    } finally {
      await queries.invalidateQueries();
    }
  };
  const plan = async () => {
    const dishes = [{ recipeId: recipe.id, portions: Math.max(recipe.portions, eaters.length) }];
    const [batch] = (await planBatches({ body: { day, dishes } })).data!;
    onLaid({ batchId: batch!.id, on: [] });
    return batch!.id;
  };
  const said = () => {
    const where = { name: recipe.name, day: longDay(day) };
    if (laidOn.length === 0) return t(batchId ? "tomorrow.onNobody" : "tomorrow.lead", where);
    const on = names(eaters.filter(({ id }) => laidOn.includes(id)));
    return waiting.length === 0
      ? t("tomorrow.laid", where)
      : t("tomorrow.laidFor", { day: longDay(day), names: on });
  };
  return (
    <section aria-labelledby="begin-tomorrow" className="space-y-4">
      <h2 id="begin-tomorrow" className="sr-only">
        {t("steps.tomorrow")}
      </h2>
      <p>{said()}</p>
      {unread > 0 && (
        <p className="text-sm">
          <Link className="link" to={`/recipes/${recipe.id}`}>
            {t("dish.unread", { count: unread })}
          </Link>
        </p>
      )}
      {!week ? (
        <Loading />
      ) : (
        <ul className="space-y-3">
          {week.eaters.map((eater) => {
            const one = eater.days.find((date) => date.day === day)!;
            const measure = eater.aim.leading;
            const sum = one.sums[measure];
            return (
              <li key={eater.eaterId}>
                <p className="flex justify-between text-sm">
                  <b>{eater.name}</b>
                  {one.items.length > 0 && sum && (
                    <span className="counted">
                      {amount(measure, sum.value)} {unitWords(t, measure)}
                    </span>
                  )}
                </p>
                <Ruler
                  day={one}
                  aim={one.aim}
                  measure={measure}
                  length={tapeLength(eater.aim, [one], measure)}
                  label={eater.name}
                  height={46}
                />
              </li>
            );
          })}
        </ul>
      )}
      {trouble && <Sentence>{trouble.detail}</Sentence>}
      {waiting.map(
        ({ id, name }) =>
          refused[id] && (
            <Sentence key={id}>
              {name}: {refused[id].detail}
            </Sentence>
          ),
      )}
      <p className="flex flex-wrap items-center gap-4">
        {laidOn.length > 0 && (
          <Link to={`/plan?week=${day}`} className="btn-next">
            {t("tomorrow.week")}
          </Link>
        )}
        {waiting.length > 0 && (
          <button className={laidOn.length > 0 ? "btn" : "btn-next"} onClick={() => void lay()}>
            {batchId ? t("tomorrow.layAgain", { names: names(waiting) }) : t("tomorrow.lay")}
          </button>
        )}
      </p>
    </section>
  );
}
