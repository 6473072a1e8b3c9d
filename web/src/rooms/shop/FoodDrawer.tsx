import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { getShopFood, type ListedView, type ShopFoodView, type ShopListView } from "../../api";
import { useWords } from "../../app/i18n";
import { queryKeys } from "../../app/queryKeys";
import { Drawer } from "../../ui/Drawer";
import { grams, shortDay } from "../../ui/format";
import { numberIn } from "../../ui/numbers";
import { Failed, Loading } from "../../ui/states";
import { Instead } from "./Instead";
import { SoldForm } from "./SoldForm";

/** One food of the list in depth: what it is for, what is over, what else could be bought, and how it is sold. */
export function FoodDrawer({
  line,
  list,
  until,
  close,
  tick,
}: {
  line: ListedView;
  list: ShopListView;
  until: string | null;
  close: () => void;
  tick: (key: string, isTicked: boolean, grams: number) => void;
}) {
  const { data, error, refetch } = useQuery({
    queryKey: queryKeys.shopFood(line.key, until),
    queryFn: async () =>
      (await getShopFood({ path: { id: line.key }, query: { until: until ?? undefined } })).data!,
  });
  return (
    <Drawer open grows close={close} title={line.name}>
      <div className="space-y-5 text-sm">
        <Sums line={line} />
        <Took line={line} tick={tick} />
        {line.for.length > 0 && <For line={line} />}
        {error && !data ? (
          <Failed error={error} retry={() => void refetch()} />
        ) : data ? (
          <>
            {line.overSaid !== null && <Over said={line.overSaid} food={data} />}
            <Instead food={data} close={close} />
            <SoldForm key={data.version} food={data} currency={list.currency} />
          </>
        ) : (
          <Loading />
        )}
      </div>
    </Drawer>
  );
}

/** Need, have, buy and over: what is needed and what is over is what is bought and what is there. */
function Sums({ line }: { line: ListedView }) {
  const { t } = useWords("shop");
  const basket = line.basket ?? 0;
  const rows = [
    [t("food.need"), line.need],
    [t("food.house"), line.house],
    [t("food.basket"), basket],
    [t("food.buy"), line.buy],
    [t("food.over"), line.over],
  ] as const;
  return (
    <table className="w-full">
      <tbody>
        {rows
          .filter(([, value], i) => value > 0 || i === 0 || i === 3)
          .map(([name, value]) => (
            <tr key={name} className="border-b border-line">
              <th scope="row" className="py-1 text-left font-normal">
                {name}
              </th>
              <td className="text-right">
                <b>{grams(value)}</b> <span className="text-soft">g</span>
              </td>
            </tr>
          ))}
      </tbody>
    </table>
  );
}

/** Another amount than was proposed: what the shop had. */
function Took({
  line,
  tick,
}: {
  line: ListedView;
  tick: (key: string, isTicked: boolean, grams: number) => void;
}) {
  const { t } = useWords("shop");
  const [typed, setTyped] = useState("");
  const value = numberIn(typed);
  const isWrong = typed.trim() !== "" && !(value !== null && value > 0 && value <= 100000);
  return (
    <form
      className="flex flex-wrap items-center gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (isWrong || value === null) return;
        tick(line.key, true, value);
        setTyped("");
      }}
    >
      <label className="flex items-center gap-2">
        {t("food.took")}
        <input
          inputMode="decimal"
          className="field w-24 text-right"
          aria-invalid={isWrong}
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
        />
        <span className="text-soft">{t("food.tookUnit")}</span>
      </label>
      <button className="btn" disabled={typed.trim() === "" || isWrong}>
        {t("food.tookSave")}
      </button>
    </form>
  );
}

function For({ line }: { line: ListedView }) {
  const { t } = useWords("shop");
  return (
    <section aria-labelledby="food-for">
      <h3 id="food-for" className="mb-1 text-base">
        {t("food.for")}
      </h3>
      <ul className="divide-y divide-line border-y border-line">
        {line.for.map((need, i) => (
          <li key={`${need.id}${i}`} className="flex gap-2 py-1">
            <span className="min-w-0 flex-1">
              {need.name}
              {need.day && <span className="text-soft"> · {shortDay(need.day)}</span>}
            </span>
            <span className="whitespace-nowrap">
              {need.grams > 0 ? `${grams(Math.round(need.grams * 10) / 10)} g` : t("food.some")}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What will be over, offered back to the plan. */
function Over({ said, food }: { said: string; food: ShopFoodView }) {
  const { t } = useWords("shop");
  return (
    <section aria-labelledby="food-over">
      <h3 id="food-over" className="mb-1 text-base">
        {t("food.overTitle", { amount: said })}
      </h3>
      <p className="text-soft">{t(food.couldUse.length > 0 ? "food.overUses" : "food.overNone")}</p>
      <ul className="divide-y divide-line">
        {food.couldUse.slice(0, 8).map((use) => (
          <li key={use.recipeId} className="flex items-center gap-2 py-1">
            <span className="min-w-0 flex-1">
              {t(use.isEnough ? "food.takesAll" : "food.takesMore", {
                name: use.name,
                amount: `${grams(Math.ceil(use.grams))} g`,
              })}
            </span>
            <Link
              className="link whitespace-nowrap max-md:py-2"
              to={`/plan?panel=menu&recipe=${use.recipeId}`}
            >
              {t("food.plan", { name: use.name })}
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}
