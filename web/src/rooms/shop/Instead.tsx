import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import {
  findFoods,
  putBackInstead,
  takeInstead,
  troubleOf,
  tryInstead,
  undoChange,
  type InsteadAnswer,
  type ShopFoodView,
  type StandInView,
} from "../../api";
import { freshen } from "../../app/freshen";
import { useHistory } from "../../app/history";
import { useWords } from "../../app/i18n";
import { useSay } from "../../app/notices";
import { queryKeys } from "../../app/queryKeys";
import { Amount } from "../../ui/Figures";
import { shortDay } from "../../ui/format";
import { numberIn } from "../../ui/numbers";
import { Sentence } from "../../ui/states";
import { useSettled } from "../../ui/useSettled";

/** "Not sold here": another food, tried before it is taken, with what that does to the dishes and to the days. */
export function Instead({ food, close }: { food: ShopFoodView; close: () => void }) {
  const { t } = useWords("shop");
  const say = useSay();
  const { did } = useHistory();
  const queries = useQueryClient();
  const [typed, setTyped] = useState("");
  const [chosen, setChosen] = useState<Pick<StandInView, "id" | "name"> | null>(null);
  const [per, setPer] = useState("100");
  const [busy, setBusy] = useState(false);
  const asked = useSettled(typed.trim(), 150);
  const { data: found } = useQuery({
    queryKey: queryKeys.foods("instead", asked),
    queryFn: async () => (await findFoods({ query: { q: asked, most: 6 } })).data!,
    enabled: asked.length > 1,
  });
  const perHundred = numberIn(useSettled(per, 300));
  const isAmount = perHundred !== null && perHundred > 0 && perHundred <= 2000;
  const body = { insteadId: chosen?.id ?? "", perGram: (perHundred ?? 0) / 100 };
  const { data: tried, error } = useQuery({
    queryKey: queryKeys.instead(food.id, body),
    queryFn: async () => (await tryInstead({ path: { id: food.id }, body })).data!,
    enabled: chosen !== null && isAmount,
    retry: false,
  });
  const take = async () => {
    if (!chosen) return;
    setBusy(true);
    try {
      const made = (await takeInstead({ path: { id: food.id }, body })).data!;
      const withIt = { foodId: food.id, insteadId: chosen.id, perGram: body.perGram };
      const batches = made.batches.map(({ id }) => id);
      did(t("instead.taken", { name: made.name, of: food.name }), async () => {
        if (batches.length > 0)
          await putBackInstead({ path: { id: food.id }, body: { batches, with: withIt } });
        if (made.changeId) await undoChange({ path: { id: made.changeId } });
      });
      close();
    } catch (thrown) {
      say(troubleOf(thrown, t("app:silent")).detail ?? "", { trouble: true });
    } finally {
      setBusy(false);
      await freshen(queries, "batch");
    }
  };
  const others = asked.length > 1 ? (found ?? []).filter(({ id }) => id !== food.id) : food.standIns;
  return (
    <section aria-labelledby="instead-title">
      <h3 id="instead-title" className="mb-1 text-base">
        {t("instead.title")}
      </h3>
      <Standing food={food} />
      <p className="mb-2 text-soft">{t("instead.text")}</p>
      <input
        className="field w-full"
        aria-label={t("instead.find")}
        placeholder={t("instead.find")}
        maxLength={120}
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
      />
      <div className="mt-2 flex flex-wrap gap-2" role="group" aria-labelledby="instead-title">
        {others.map(({ id, name }) => (
          <button
            key={id}
            className={`chip ${chosen?.id === id ? "border-sea bg-sea-soft font-bold" : ""}`}
            aria-pressed={chosen?.id === id}
            onClick={() => setChosen({ id, name })}
          >
            {name}
          </button>
        ))}
        {asked.length > 1 && found?.length === 0 && <p className="text-soft">{t("instead.none")}</p>}
      </div>
      {chosen && (
        <div className="mt-3 space-y-3">
          <label className="flex items-center gap-2">
            {t("instead.per")}
            <input
              inputMode="decimal"
              className="field w-20 text-right"
              aria-invalid={!isAmount}
              value={per}
              onChange={(event) => setPer(event.target.value)}
            />
            <span className="text-soft">g {chosen.name}</span>
          </label>
          {!isAmount && <Sentence>{t("instead.perUnclear")}</Sentence>}
          {isAmount && error && <Sentence>{troubleOf(error, t("app:silent")).detail}</Sentence>}
          {isAmount && tried && !error && (
            <>
              <Effect tried={tried} />
              <button className="btn-next w-full" disabled={busy} onClick={() => void take()}>
                {t("instead.take", { name: chosen.name })}
              </button>
            </>
          )}
        </div>
      )}
    </section>
  );
}

/** What stands in already, to be put back. */
function Standing({ food }: { food: ShopFoodView }) {
  const { t } = useWords("shop");
  const say = useSay();
  const queries = useQueryClient();
  const back = async (one: ShopFoodView["instead"][number]) => {
    try {
      await putBackInstead({ path: { id: food.id }, body: { batches: [one.batchId], with: one.with } });
      say(t("instead.putBack", { of: one.of, dish: one.batch }));
    } catch (thrown) {
      say(troubleOf(thrown, t("app:silent")).detail ?? "", { trouble: true });
    } finally {
      await freshen(queries, "batch");
    }
  };
  if (food.instead.length === 0) return null;
  return (
    <ul className="mb-2 divide-y divide-line border-y border-line">
      {food.instead.map((one) => (
        <li key={one.batchId + one.with.foodId} className="flex items-center gap-2 py-1">
          <span className="min-w-0 flex-1">
            {t("instead.stands", { name: one.instead, dish: one.batch, of: one.of })}
          </span>
          <button className="btn" onClick={() => void back(one)}>
            {t("instead.back", { of: one.of })}
          </button>
        </li>
      ))}
    </ul>
  );
}

/** A portion of each dish, and each day, before and after. */
function Effect({ tried }: { tried: InsteadAnswer }) {
  const { t } = useWords("shop");
  return (
    <div aria-live="polite" className="space-y-3">
      {tried.batches.length > 0 && (
        <table className="w-full text-right">
          <thead>
            <tr className="border-b border-rim text-xs text-soft">
              <th scope="col" className="text-left font-normal">
                {t("instead.dish")}
              </th>
              <th scope="col" className="font-normal">
                {t("instead.before")}
              </th>
              <th scope="col" className="font-normal">
                {t("instead.after")}
              </th>
            </tr>
          </thead>
          <tbody>
            {tried.batches.flatMap(({ id, name, before, after }) =>
              (["energy", "protein"] as const).map((measure) => (
                <tr key={id + measure} className="counted border-b border-line">
                  <th scope="row" className="py-1 text-left font-normal">
                    {measure === "energy" ? (
                      name
                    ) : (
                      <span className="pl-3 text-soft">{t("app:measures.protein")}</span>
                    )}
                  </th>
                  <td>
                    <Amount measure={measure} figure={before[measure]} />
                  </td>
                  <td className="font-bold">
                    <Amount measure={measure} figure={after[measure]} />
                  </td>
                </tr>
              )),
            )}
          </tbody>
        </table>
      )}
      <div>
        <p className="font-semibold">{t("instead.days")}</p>
        {tried.days.length === 0 ? (
          <p className="text-soft">{t("instead.noDays")}</p>
        ) : (
          <ul className="divide-y divide-line">
            {tried.days.map((day) => (
              <li key={day.eaterId + day.day} className="flex flex-wrap gap-x-2 py-1">
                <span className="min-w-0 flex-1">
                  {day.name} · {shortDay(day.day)}
                </span>
                <span className="counted whitespace-nowrap">
                  <Amount measure={day.measure} figure={day.before} /> →{" "}
                  <Amount measure={day.measure} figure={day.after} className="font-bold" />
                </span>
                <span
                  className={`counted w-full text-xs ${day.fitBefore && !day.fitsAfter ? "font-bold text-brick" : "text-soft"}`}
                >
                  {t(day.fitsAfter ? "instead.fits" : "instead.not")}
                </span>
              </li>
            ))}
          </ul>
        )}
      </div>
      {tried.kept.length > 0 && (
        <p className="text-soft">{t("instead.kept", { names: tried.kept.join(", ") })}</p>
      )}
    </div>
  );
}
