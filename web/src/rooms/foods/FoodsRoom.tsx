import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { Barcode, Library, Plus } from "lucide-react";
import { useState } from "react";
import { useWords } from "../../app/i18n";
import { Link, useNavigate, useParams, useSearchParams } from "react-router";
import { findFoods, type FoodGroup, type FoodRowView, type Measure, type OwnFoodRequest } from "../../api";
import { Header, useCurrentEater } from "../../app/Header";
import { useLens } from "../../app/lens";
import { Drawer } from "../../ui/Drawer";
import { Amount } from "../../ui/Figures";
import { foodGroups, lensFirst } from "../../ui/format";
import { Side } from "../../ui/Side";
import { Failed, Loading } from "../../ui/states";
import { useSettled } from "../../ui/useSettled";
import { BarcodeEntry } from "./BarcodeEntry";
import { FoodSheet } from "./FoodSheet";
import { LabelForm } from "./LabelForm";
import { queryKeys } from "../../app/queryKeys";

const shown = 200;

/** All foods at the left, everything known of one at the right. */
export default function FoodsRoom() {
  const { t } = useWords("foods");
  const go = useNavigate();
  const { id } = useParams();
  const [search, setSearch] = useSearchParams();
  const lens = useLens();
  const eater = useCurrentEater();
  const [open, setOpen] = useState<"label" | "barcode" | null>(null);
  const [found, setFound] = useState<OwnFoodRequest | null>(null);
  const q = search.get("q") ?? "";
  const group = (search.get("kind") ?? "") as FoodGroup | "";
  const own = search.has("own");
  const set = (name: string, value: string) =>
    setSearch(
      (before) => {
        if (value) before.set(name, value);
        else before.delete(name);
        return before;
      },
      { replace: true },
    );
  const asked = useSettled(q, 60);
  const { data, error, refetch } = useQuery({
    queryKey: queryKeys.foods(asked, group, own, eater),
    queryFn: async () =>
      (
        await findFoods({
          query: {
            q: asked || undefined,
            group: group || undefined,
            own: own || undefined,
            eaterId: eater ?? undefined,
            most: asked ? 60 : 5000,
          },
        })
      ).data!,
    placeholderData: keepPreviousData,
  });
  if (error && !data) return <Failed isPage error={error} retry={() => void refetch()} />;
  if (!data) return <Loading isPage />;
  const columns = lensFirst(lens, [
    "energy",
    "protein",
    "carbohydrate",
    "netCarbohydrate",
    "fat",
    "points",
  ]).filter((measure) => measure !== "points" || data.some((food) => food.per100g["points"]));
  const by = columns.find((measure) => measure === search.get("by"));
  const isUp = search.has("up");
  // Most first, then least first, then as found; what is not known comes last.
  const sortBy = (measure: Measure) =>
    setSearch(
      (before) => {
        const next = by !== measure ? [measure, ""] : isUp ? ["", ""] : [measure, "1"];
        for (const [name, value] of [["by", next[0]!] as const, ["up", next[1]!] as const])
          if (value) before.set(name, value);
          else before.delete(name);
        return before;
      },
      { replace: true },
    );
  const sorted = by ? sortedBy(data, by, isUp) : data;
  const to = (foodId: string) => ({
    pathname: `/foods/${encodeURIComponent(foodId)}`,
    search: search.toString(),
  });
  const close = () => {
    setOpen(null);
    setFound(null);
  };

  return (
    <>
      <Header
        actions={
          <>
            <Link to="/foods/libraries" className="btn">
              <Library size={16} aria-hidden /> {t("libraries")}
            </Link>
            <button className="btn" onClick={() => setOpen("barcode")}>
              <Barcode size={16} aria-hidden /> {t("barcode")}
            </button>
            <button className="btn-next" onClick={() => setOpen("label")}>
              <Plus size={16} aria-hidden /> {t("fromLabel")}
            </button>
          </>
        }
      >
        <h1 className="text-lg">{t("title")}</h1>
      </Header>
      <div className="flex min-h-0 flex-1">
        <main className="flex min-w-0 flex-1 flex-col">
          <div className="flex flex-wrap items-center gap-2 px-4 py-3">
            <input
              type="search"
              autoFocus
              className="field min-w-56 flex-1"
              aria-label={t("search")}
              placeholder={t("searchHint")}
              value={q}
              onChange={(event) => set("q", event.target.value)}
            />
            <select
              className="field"
              aria-label={t("kind")}
              value={group}
              onChange={(event) => set("kind", event.target.value)}
            >
              <option value="">{t("allGroups")}</option>
              {foodGroups.map((name) => (
                <option key={name} value={name}>
                  {t(`aim:groups.${name}`)}
                </option>
              ))}
            </select>
            <button
              aria-pressed={own}
              className={`btn ${own ? "border-sea bg-sea-soft" : ""}`}
              onClick={() => set("own", own ? "" : "1")}
            >
              {t("own")}
            </button>
          </div>
          <div className="min-h-0 flex-1 overflow-auto px-4 pb-4">
            <table className="w-full">
              <thead className="sticky top-0 bg-ground">
                <tr className="border-b border-rim text-right text-xs text-soft">
                  <th scope="col" className="py-1 text-left font-normal">
                    {t("count", { count: data.length })}
                    <span className="counted"> · {t("per100")}</span>
                  </th>
                  {columns.map((measure) => (
                    <th
                      key={measure}
                      scope="col"
                      aria-sort={measure === by ? (isUp ? "ascending" : "descending") : undefined}
                      className={`counted px-2 ${measure === lens ? "font-bold text-ink" : "font-normal max-md:hidden"}`}
                    >
                      <button
                        className="min-h-8 whitespace-nowrap hover:underline"
                        title={t("sortBy", { measure: t(`app:measures.${measure}`) })}
                        onClick={() => sortBy(measure)}
                      >
                        {t(`app:measures.${measure}`)}
                        {measure === by && <span aria-hidden>{isUp ? " ▲" : " ▼"}</span>}
                      </button>
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {sorted.slice(0, shown).map((food) => (
                  <tr
                    key={food.id}
                    className={`border-b border-line text-right ${food.id === id ? "bg-sea-soft" : ""}`}
                  >
                    <td className="text-left">
                      <Link
                        to={to(food.id)}
                        replace
                        aria-current={food.id === id}
                        className="flex min-h-8 items-center gap-2 hover:underline max-md:min-h-11"
                      >
                        {food.name}
                        {food.own && <span className="text-xs text-next-text">{t("yours")}</span>}
                        <span className="text-xs text-soft max-xl:hidden">
                          {t(`aim:groups.${food.group}`)}
                        </span>
                      </Link>
                    </td>
                    {columns.map((measure) => (
                      <td
                        key={measure}
                        className={`counted px-2 whitespace-nowrap ${measure === lens ? "font-semibold" : "text-sm max-md:hidden"}`}
                      >
                        <Amount measure={measure} figure={food.per100g[measure]} isColumn />
                      </td>
                    ))}
                  </tr>
                ))}
              </tbody>
            </table>
            {data.length > shown && <p className="py-3 text-sm text-soft">{t("more", { count: shown })}</p>}
            {data.length === 0 && <p className="py-6 text-soft">{t("none")}</p>}
          </div>
        </main>
        <Side
          isOpen={id !== undefined}
          close={() => void go({ pathname: "/foods", search: search.toString() }, { replace: true })}
          label={t("sheet")}
          className="md:w-[320px] lg:w-[380px]"
        >
          {id ? <FoodSheet key={id} id={id} /> : <p className="text-soft">{t("pick")}</p>}
        </Side>
      </div>
      <Drawer open={open === "label"} close={close} title={t("label.new")}>
        <LabelForm
          start={found}
          onSaved={(saved) => {
            close();
            void go(to(saved.id));
          }}
        />
      </Drawer>
      <Drawer open={open === "barcode"} close={close} title={t("code.title")}>
        <BarcodeEntry
          onOpen={(food) => {
            close();
            void go(to(food.id));
          }}
          onTake={(product) => {
            setFound(product);
            setOpen("label");
          }}
        />
      </Drawer>
    </>
  );
}

/** Foods by what 100 g of them hold; those of which it is not known last. */
function sortedBy(foods: FoodRowView[], measure: Measure, isUp: boolean): FoodRowView[] {
  const value = (food: FoodRowView) => food.per100g[measure]?.value;
  const [known, unknown] = [foods.filter(isKnown), foods.filter((food) => !isKnown(food))];
  return [...known.sort((a, b) => (value(a)! - value(b)!) * (isUp ? 1 : -1)), ...unknown];

  function isKnown(food: FoodRowView) {
    const figure = food.per100g[measure];
    return figure !== undefined && (figure.complete || figure.value > 0);
  }
}
