import type { TFunction } from "i18next";
import { useQuery } from "@tanstack/react-query";
import { addDays, parseISO } from "date-fns";
import { useState } from "react";
import { useWords } from "../../app/i18n";
import {
  listPantry,
  listRecipeNames,
  proposeMenu,
  sentenceFor,
  troubleOf,
  type MenuDishView,
  type MenuView,
  type Trouble,
} from "../../api";
import { grams, isoDay, shortDay } from "../../ui/format";
import { wholeIn } from "../../ui/numbers";
import { Sentence } from "../../ui/states";
import { queryKeys } from "../../app/queryKeys";

interface MenuPanelProps {
  /** The first and last day to cook for, of the week shown. */
  from: string;
  to: string;
  today: string;
  /** A recipe that was asked for: it stands ready to be planned by hand. */
  recipeId: string | null;
  /** Plans batches; false where it was refused. */
  onPlan: (day: string, dishes: { recipeId: string; portions: number }[]) => Promise<boolean>;
  close: () => void;
}

/** What to cook: dishes proposed from the cook's own recipes, kept or replaced one by one, then planned; or one recipe by hand. */
export function MenuPanel({ from, to, today, recipeId, onPlan, close }: MenuPanelProps) {
  const { t } = useWords("plan");
  const dayBefore = isoDay(addDays(parseISO(from), -1));
  const [prepDay, setPrepDay] = useState(dayBefore < today ? today : dayBefore);
  const [count, setCount] = useState(4);
  const [atHand, setAtHand] = useState("");
  const [menu, setMenu] = useState<MenuView | null>(null);
  const [kept, setKept] = useState<string[]>([]);
  const [without, setWithout] = useState<string[]>([]);
  const [busy, setBusy] = useState(false);
  const [trouble, setTrouble] = useState<Trouble | null>(null);

  const propose = async (keep: string[], leave: string[]) => {
    setBusy(true);
    try {
      const lines = atHand.split("\n").filter((line) => line.trim());
      const body = { from, to, prepDay, dishes: count, keep, without: leave, atHand: lines };
      setMenu((await proposeMenu({ body })).data!);
      setKept(keep);
      setWithout(leave);
      setTrouble(null);
    } catch (thrown) {
      setTrouble(troubleOf(thrown, t("app:silent")));
    } finally {
      setBusy(false);
    }
  };
  const plan = async () => {
    if (
      await onPlan(
        prepDay,
        menu!.dishes.map(({ recipeId, portions }) => ({ recipeId, portions })),
      )
    )
      close();
  };
  const named = ["from", "to", "prepDay", "dishes"].map((field) => sentenceFor(trouble, field)).find(Boolean);
  const wrongHand = trouble?.errors?.find(({ field }) => field.startsWith("atHand"))?.sentence;

  return (
    <section aria-labelledby="menu-title" className="text-sm">
      <h2 id="menu-title" className="mb-2 flex items-baseline justify-between text-base">
        {t("menu.title")}
        <button className="min-h-8 text-sm font-normal underline" onClick={close}>
          {t("app:close")}
        </button>
      </h2>
      <form
        className="space-y-3"
        onSubmit={(event) => {
          event.preventDefault();
          void propose([], []);
        }}
      >
        <p className="text-soft">{t("menu.lead", { from: shortDay(from), to: shortDay(to) })}</p>
        <span className="flex gap-2">
          <label className="min-w-0 flex-1">
            {t("menu.prepDay")}
            <input
              type="date"
              required
              className="field block w-full"
              min={today}
              max={to}
              value={prepDay}
              onChange={(event) => setPrepDay(event.target.value)}
            />
          </label>
          <label>
            {t("menu.dishes")}
            <select
              className="field block"
              value={count}
              onChange={(event) => setCount(Number(event.target.value))}
            >
              {[1, 2, 3, 4, 5, 6, 7, 8].map((one) => (
                <option key={one}>{one}</option>
              ))}
            </select>
          </label>
        </span>
        <label className="block">
          {t("menu.atHand")}
          <textarea
            rows={2}
            className="field mt-0.5 block w-full text-sm"
            placeholder={t("menu.atHandHint")}
            maxLength={4000}
            value={atHand}
            onChange={(event) => setAtHand(event.target.value)}
          />
        </label>
        <FromHouse
          typed={atHand}
          add={(line) =>
            setAtHand((now) => [...now.split("\n"), line].filter((one) => one.trim()).join("\n"))
          }
        />
        <Sentence>{wrongHand ?? named ?? trouble?.detail}</Sentence>
        <button className={menu ? "btn w-full" : "btn-next w-full"} disabled={busy}>
          {busy ? t("menu.looking") : t(menu ? "menu.anew" : "menu.propose")}
        </button>
      </form>
      {menu && (
        <div className="mt-4" aria-live="polite">
          <p className="counted">
            <span className="font-title text-2xl font-bold">
              {menu.fitDays}
              <span className="text-sm font-normal text-soft"> {t("fit.of", { count: menu.allDays })}</span>
            </span>
            <br />
            <span className="text-soft">{t("menu.without", { count: menu.fitWithout })}</span>
          </p>
          {menu.dishes.length < count && <p className="mt-1">{t("menu.fewer")}</p>}
          <ul className="mt-2 divide-y divide-line">
            {menu.dishes.map((dish) => (
              <Dish
                key={dish.recipeId}
                dish={dish}
                isKept={kept.includes(dish.recipeId)}
                busy={busy}
                onPortions={(portions) =>
                  setMenu({
                    ...menu,
                    dishes: menu.dishes.map((one) =>
                      one.recipeId === dish.recipeId ? { ...one, portions } : one,
                    ),
                  })
                }
                onKeep={() =>
                  setKept(
                    kept.includes(dish.recipeId)
                      ? kept.filter((id) => id !== dish.recipeId)
                      : [...kept, dish.recipeId],
                  )
                }
                onReplace={() =>
                  void propose(
                    menu.dishes.map(({ recipeId }) => recipeId).filter((id) => id !== dish.recipeId),
                    [...without, dish.recipeId],
                  )
                }
              />
            ))}
          </ul>
          <p className="mt-3 flex flex-wrap gap-2">
            <button
              className="btn-next"
              disabled={busy || menu.dishes.length === 0}
              onClick={() => void plan()}
            >
              {t("menu.plan", { count: menu.dishes.length })}
            </button>
            <button className="btn" disabled={busy} onClick={() => void propose(kept, without)}>
              {t("menu.others")}
            </button>
          </p>
        </div>
      )}
      <ByHand key={recipeId} asked={recipeId} prepDay={prepDay} onPlan={onPlan} />
    </section>
  );
}

function Dish({
  dish,
  isKept,
  busy,
  onPortions,
  onKeep,
  onReplace,
}: {
  dish: MenuDishView;
  isKept: boolean;
  busy: boolean;
  onPortions: (portions: number) => void;
  onKeep: () => void;
  onReplace: () => void;
}) {
  const { t } = useWords("plan");
  const shares = dish.shares.flatMap(({ otherDish, foods }) =>
    t("menu.shares", { foods: foods.slice(0, 3).join(", "), other: otherDish }),
  );
  const uses = dish.usesUp.map(({ name, grams: used, ofGrams }) =>
    t("menu.uses", { used: grams(Math.round(used)), of: grams(Math.round(ofGrams)), name }),
  );
  return (
    <li className="py-2">
      <p className="font-semibold">{dish.name}</p>
      <p className="flex items-center gap-2">
        <input
          aria-label={t("menu.portionsOf", { name: dish.name })}
          inputMode="numeric"
          className="field w-14 text-center font-title font-bold"
          maxLength={4}
          value={dish.portions}
          onChange={(event) => onPortions(wholeIn(event.target.value) ?? 0)}
        />
        <span className="text-xs text-soft">
          {t("menu.portions", { count: dish.portions })} · {t("menu.boxes", { count: dish.boxes })}
        </span>
      </p>
      <p className="text-xs text-soft">
        {[
          dish.lastCooked ? t("menu.last", { day: shortDay(dish.lastCooked) }) : t("menu.never"),
          ...uses,
          ...shares,
          ...opinionWords(t, dish.opinion),
        ].join(" · ")}
      </p>
      <p className="mt-1 flex items-center gap-3">
        <label className="flex min-h-8 items-center gap-1">
          <input type="checkbox" className="size-4" checked={isKept} onChange={onKeep} />
          {t("menu.keep")}
        </label>
        <button
          className="min-h-8 underline"
          disabled={busy}
          aria-label={t("menu.replaceNamed", { name: dish.name })}
          onClick={onReplace}
        >
          {t("menu.replace")}
        </button>
      </p>
    </li>
  );
}

function ByHand({
  asked,
  prepDay,
  onPlan,
}: {
  asked: string | null;
  prepDay: string;
  onPlan: MenuPanelProps["onPlan"];
}) {
  const { t } = useWords("plan");
  const { data: recipes } = useQuery({
    queryKey: queryKeys.recipeNames(),
    queryFn: async () => (await listRecipeNames()).data!,
  });
  const [recipeId, setRecipeId] = useState(asked ?? "");
  const [portions, setPortions] = useState<string | null>(null);
  if (!recipes?.length) return null;
  const chosen = recipes.find(({ id }) => id === recipeId) ?? recipes[0]!;
  return (
    <form
      className="mt-5 space-y-2 border-t border-line pt-3"
      onSubmit={(event) => {
        event.preventDefault();
        void onPlan(prepDay, [
          { recipeId: chosen.id, portions: wholeIn(portions ?? String(chosen.portions)) ?? 0 },
        ]);
      }}
    >
      <h3 className="text-sm">{t("menu.byHand")}</h3>
      <select
        aria-label={t("menu.recipe")}
        className="field w-full"
        value={chosen.id}
        onChange={(event) => {
          setRecipeId(event.target.value);
          setPortions(null);
        }}
      >
        {recipes.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </select>
      <span className="flex items-center gap-2">
        <input
          aria-label={t("unpacked.portions")}
          inputMode="numeric"
          className="field w-16 text-center"
          maxLength={4}
          value={portions ?? String(chosen.portions)}
          onChange={(event) => setPortions(event.target.value)}
        />
        <span className="text-xs text-soft">{t("menu.portions", { count: 2 })}</span>
        <button className="btn ml-auto">{t("menu.planOne")}</button>
      </span>
    </form>
  );
}

/** What the house says to use first, each one press away. */
function FromHouse({ typed, add }: { typed: string; add: (line: string) => void }) {
  const { t } = useWords("plan");
  const { data } = useQuery({
    queryKey: queryKeys.pantry(""),
    queryFn: async () => (await listPantry()).data!,
  });
  const lines = (data?.first ?? [])
    .filter(({ grams }) => grams !== null)
    .map(({ said, name }) => `${said} ${name}`)
    .filter((line) => !typed.includes(line));
  if (lines.length === 0) return null;
  return (
    <p className="flex flex-wrap items-center gap-1" role="group" aria-label={t("menu.fromHouse")}>
      <span className="text-xs text-soft">{t("menu.fromHouse")}</span>
      {lines.slice(0, 6).map((line) => (
        <button key={line} type="button" className="chip" onClick={() => add(line)}>
          {line}
        </button>
      ))}
    </p>
  );
}

/** What was said of a dish after it was eaten. */
const opinionWords = (t: TFunction, opinion: MenuDishView["opinion"]) =>
  opinion === null
    ? []
    : [
        ...(opinion.wantIt > 0 ? [t("plan:menu.wanted", { count: opinion.wantIt })] : []),
        ...(opinion.notAgain > 0 ? [t("plan:menu.notAgain", { count: opinion.notAgain })] : []),
        ...(opinion.toChange ? [t("plan:menu.toChange", { what: opinion.toChange })] : []),
      ];
