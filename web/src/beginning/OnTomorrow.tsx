import { useQuery, useQueryClient } from "@tanstack/react-query";
import { addDays, parseISO } from "date-fns";
import { useState } from "react";
import { Link } from "react-router";
import { useWords } from "../app/i18n";
import { getWeek, layPortion, planBatches, troubleOf, type EaterView, type Trouble } from "../api";
import { useHistory } from "../app/history";
import { sawDays, seenDays } from "../app/seen";
import { queryKeys } from "../app/queryKeys";
import { amount, isoDay, longDay, unitOf } from "../ui/format";
import { Ruler } from "../ui/Ruler";
import { Loading, Sentence } from "../ui/states";
import { tapeLength } from "../ui/ticks";
import type { Dish } from "./FirstDish";

/** The first dish planned for tomorrow, and a portion of it on everybody's day. */
export function OnTomorrow({
  eaters,
  dish,
  today,
}: {
  eaters: EaterView[];
  dish: Dish | null;
  today: string;
}) {
  const { t } = useWords("beginning");
  const queries = useQueryClient();
  const { change } = useHistory();
  const [isLaid, setLaid] = useState(false);
  const [trouble, setTrouble] = useState<Trouble | null>(null);
  const day = isoDay(addDays(parseISO(today), 1));
  const { data: week } = useQuery({
    queryKey: queryKeys.week(day),
    queryFn: async () => {
      const read = (await getWeek({ path: { day } })).data!;
      sawDays(
        read.eaters.flatMap(({ eaterId, days }) => days.map((one) => ({ eaterId, day: one.day }))),
        read.version,
      );
      return read;
    },
  });
  if (eaters.length === 0) return <p>{t("tomorrow.noEater")}</p>;
  if (!dish) return <p>{t("tomorrow.noDish")}</p>;
  const { recipe, unread } = dish;
  const lay = async () => {
    try {
      const [batch] = (
        await planBatches({
          body: {
            day,
            dishes: [{ recipeId: recipe.id, portions: Math.max(recipe.portions, eaters.length) }],
          },
        })
      ).data!;
      for (const { id } of eaters) {
        const where = { eaterId: id, day };
        await change(
          () => layPortion({ headers: seenDays(where), body: { batchId: batch!.id, ...where } }),
          t("plan:carry.laid", { name: recipe.name, day: longDay(day) }),
        );
      }
      setLaid(true);
    } catch (thrown) {
      setTrouble(troubleOf(thrown, t("app:silent")));
    } finally {
      await queries.invalidateQueries();
    }
  };
  return (
    <section aria-labelledby="begin-tomorrow" className="space-y-4">
      <h2 id="begin-tomorrow" className="sr-only">
        {t("steps.tomorrow")}
      </h2>
      <p>{t(isLaid ? "tomorrow.laid" : "tomorrow.lead", { name: recipe.name, day: longDay(day) })}</p>
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
                    <span>
                      {amount(measure, sum.value)} {unitOf(measure)}
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
      {isLaid ? (
        <Link to={`/plan?week=${day}`} className="btn-next">
          {t("tomorrow.week")}
        </Link>
      ) : (
        <button className="btn-next" onClick={() => void lay()}>
          {t("tomorrow.lay")}
        </button>
      )}
    </section>
  );
}
