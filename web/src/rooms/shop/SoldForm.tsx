import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Plus, X } from "lucide-react";
import { useState } from "react";
import { getAisles, seen, setSoldAs, troubleOf, type ShopFoodView, type Trouble } from "../../api";
import { freshen } from "../../app/freshen";
import { useWords } from "../../app/i18n";
import { useSay } from "../../app/notices";
import { queryKeys } from "../../app/queryKeys";
import { numberIn, sentNumber } from "../../ui/numbers";
import { Sentence } from "../../ui/states";

interface Typed {
  size: string;
  isMl: boolean;
  price: string;
}

const none: Typed = { size: "", isMl: false, price: "" };

const textOf = (value: number | null) => (value === null ? "" : String(value));

/** In which packages a food is sold here, what they cost where that is wanted, and in which aisle it stands. */
export function SoldForm({ food, currency }: { food: ShopFoodView; currency: string }) {
  const { t } = useWords("shop");
  const say = useSay();
  const queries = useQueryClient();
  const { data: aisles } = useQuery({
    queryKey: queryKeys.aisles(),
    queryFn: async () => (await getAisles()).data!,
  });
  const [isLoose, setIsLoose] = useState(food.sold.isLoose);
  const [aisle, setAisle] = useState(food.aisle);
  const [packages, setPackages] = useState<Typed[]>(
    food.sold.packages.length > 0
      ? food.sold.packages.map(({ grams, price, ml }) => ({
          size: textOf(ml ?? grams),
          isMl: ml != null,
          price: textOf(price),
        }))
      : [none],
  );
  const [trouble, setTrouble] = useState<Trouble | null>(null);
  const set = (at: number, change: Partial<Typed>) =>
    setPackages(packages.map((one, i) => (i === at ? { ...one, ...change } : one)));
  const save = async () => {
    const written = packages.filter(({ size, price }) => size.trim() !== "" || price.trim() !== "");
    try {
      await setSoldAs({
        path: { id: food.id },
        headers: seen(food.version),
        body: {
          packages: written.map(({ size, isMl, price }) => ({
            grams: isMl ? 0 : (sentNumber(size) ?? 0),
            ml: isMl ? (sentNumber(size) ?? 0) : null,
            price: sentNumber(price),
          })),
          isLoose,
          aisle,
        },
      });
      setTrouble(null);
      say(t("sold.saved", { name: food.name }));
    } catch (thrown) {
      setTrouble(troubleOf(thrown, t("app:silent")));
    } finally {
      await freshen(queries, "shop");
    }
  };
  return (
    <section aria-labelledby="sold-title">
      <h3 id="sold-title" className="mb-1 text-base">
        {t("sold.title")}
      </h3>
      <form
        className="space-y-2"
        onSubmit={(event) => {
          event.preventDefault();
          void save();
        }}
      >
        <div className="grid grid-cols-[auto_auto_auto_auto_1fr] items-center gap-x-2 gap-y-1">
          <span className="col-span-2 text-xs text-soft">{t("sold.gramsHead")}</span>
          <span className="col-span-3 text-xs text-soft">{t("sold.priceHead")}</span>
          {packages.map((one, at) => (
            <div key={at} className="contents">
              <input
                inputMode="decimal"
                className="field w-24 text-right"
                aria-label={t("sold.holds", { count: at + 1 })}
                aria-invalid={Number.isNaN(numberIn(one.size))}
                value={one.size}
                onChange={(event) => set(at, { size: event.target.value })}
              />
              <select
                className="field px-1"
                aria-label={t("sold.unit", { count: at + 1 })}
                value={one.isMl ? "ml" : "g"}
                onChange={(event) => set(at, { isMl: event.target.value === "ml" })}
              >
                <option>g</option>
                <option>ml</option>
              </select>
              <input
                inputMode="decimal"
                className="field w-20 text-right"
                aria-label={t("sold.price", { count: at + 1 })}
                aria-invalid={Number.isNaN(numberIn(one.price))}
                value={one.price}
                onChange={(event) => set(at, { price: event.target.value })}
              />
              <span className="text-soft">{currency}</span>
              <button
                type="button"
                className="min-h-9 justify-self-start px-2 max-md:min-h-11"
                aria-label={t("sold.drop", { count: at + 1 })}
                onClick={() => setPackages(packages.filter((_, i) => i !== at))}
              >
                <X size={16} aria-hidden />
              </button>
            </div>
          ))}
        </div>
        <button
          type="button"
          className="chip"
          disabled={packages.length >= 6}
          onClick={() => setPackages([...packages, { ...none, isMl: packages.at(-1)?.isMl ?? false }])}
        >
          <Plus size={14} aria-hidden className="mr-1 inline" />
          {t("sold.add")}
        </button>
        <label className="flex min-h-9 items-center gap-2">
          <input
            type="checkbox"
            className="size-5"
            checked={isLoose}
            onChange={(event) => setIsLoose(event.target.checked)}
          />
          {t("sold.loose")}
        </label>
        <label className="flex items-center gap-2">
          {t("sold.aisle")}
          <select
            className="field min-w-0 flex-1"
            value={aisle}
            onChange={(event) => setAisle(event.target.value)}
          >
            {(aisles?.aisles.inOrder ?? [{ id: aisle, name: "" }]).map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        </label>
        {trouble && <Sentence>{trouble.errors?.[0]?.sentence ?? trouble.detail}</Sentence>}
        <button className="btn">{t("sold.save")}</button>
      </form>
    </section>
  );
}
