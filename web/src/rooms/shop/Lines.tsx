import { MoreHorizontal, X } from "lucide-react";
import type { ReactNode } from "react";
import { Link } from "react-router";
import { useQueryClient } from "@tanstack/react-query";
import {
  takeOffList,
  troubleOf,
  writeOnList,
  type ListedView,
  type ShopListView,
  type WrittenOnView,
} from "../../api";
import { freshen } from "../../app/freshen";
import { useHistory } from "../../app/history";
import { useWords } from "../../app/i18n";
import { useSay } from "../../app/notices";
import { grams } from "../../ui/format";
import type { useTicks } from "./useTicks";

/** The list by aisles: what is still to be bought first, what is in the basket after it, and at the foot what is in the house already. */
export function Lines({
  list,
  ticks,
  open,
}: {
  list: ShopListView;
  ticks: ReturnType<typeof useTicks>;
  open: (key: string) => void;
}) {
  const { t } = useWords("shop");
  const isTicked = (line: ListedView) => ticks.said.get(line.key) ?? line.state === "inBasket";
  const inHouse = list.aisles.flatMap(({ foods }) => foods.filter(({ state }) => state === "inHouse"));
  const missed = list.batches.filter(({ notRead }) => notRead.length > 0);
  return (
    <div className="space-y-4">
      {missed.map(({ id, recipeId, name, notRead }) => (
        <p key={id} className="flex max-w-3xl gap-2 text-sm">
          <span aria-hidden className="hatched w-1.5 shrink-0 rounded-sm" />
          <span>
            {t("notRead", { lines: notRead.join("; "), dish: name })}{" "}
            <Link className="link" to={`/recipes/${recipeId}`}>
              {t("toRecipe")}
            </Link>
          </span>
        </p>
      ))}
      <div className="print:columns-2">
        {list.aisles.map(({ id, name, foods, written }) => {
          const shown = foods.filter(({ state }) => state !== "inHouse");
          if (shown.length + written.length === 0) return null;
          const inOrder = [...shown].sort((one, other) => Number(isTicked(one)) - Number(isTicked(other)));
          return (
            <section key={id} aria-labelledby={`aisle-${id}`} className="mb-4 max-w-3xl break-inside-avoid">
              <h2 id={`aisle-${id}`} className="border-b border-rim pb-1 text-base">
                {name}
              </h2>
              <ul className="divide-y divide-line">
                {inOrder.map((line) => (
                  <Line
                    key={line.key}
                    line={line}
                    isTicked={isTicked(line)}
                    tick={(isTicked) => ticks.tick(line.key, isTicked, line.buy + (line.basket ?? 0))}
                    open={() => open(line.key)}
                  />
                ))}
                {written.map((own) => (
                  <Written
                    key={own.key}
                    own={own}
                    isTicked={ticks.said.get(own.key) ?? own.isTicked}
                    tick={(isTicked) => ticks.tick(own.key, isTicked, 0)}
                  />
                ))}
              </ul>
            </section>
          );
        })}
      </div>
      {inHouse.length > 0 && (
        <details className="no-print max-w-3xl text-sm">
          <summary className="min-h-8 py-1 font-semibold">{t("inHouse", { count: inHouse.length })}</summary>
          <ul className="divide-y divide-line border-y border-line">
            {inHouse.map((line) => (
              <li key={line.key} className="flex items-center gap-2 py-1">
                <span className="min-w-0 flex-1">{line.name}</span>
                <span className="text-soft">
                  {line.need > 0 ? t("food.need") + ` ${grams(Math.ceil(line.need))} g` : t("food.some")}
                </span>
                <button
                  className="min-h-8 px-2 max-md:min-h-11"
                  aria-label={t("open", { name: line.name })}
                  onClick={() => open(line.key)}
                >
                  <MoreHorizontal size={18} aria-hidden />
                </button>
              </li>
            ))}
          </ul>
        </details>
      )}
    </div>
  );
}

interface Tick {
  isTicked: boolean;
  tick: (isTicked: boolean) => void;
}

/** A line that is ticked by a press anywhere on it. */
function Tickable({ name, isTicked, tick, children }: Tick & { name: string; children: ReactNode }) {
  const { t } = useWords("shop");
  return (
    <label className="flex min-h-12 min-w-0 flex-1 cursor-pointer items-center gap-3 py-1.5">
      <input
        type="checkbox"
        className="size-6 shrink-0"
        aria-label={t("tick", { name })}
        checked={isTicked}
        onChange={(event) => tick(event.target.checked)}
      />
      {children}
    </label>
  );
}

function Line({ line, isTicked, tick, open }: Tick & { line: ListedView; open: () => void }) {
  const { t } = useWords("shop");
  const names = [...new Set(line.for.map(({ name }) => name))].join(", ");
  const over =
    line.overSaid === null || line.isNotNeeded
      ? ""
      : line.couldUse > 0
        ? t("overUse", { count: line.couldUse, amount: line.overSaid })
        : t("over", { amount: line.overSaid });
  const notes = [
    line.insteadOf.length > 0 ? t("insteadOf", { names: line.insteadOf.join(", ") }) : "",
    line.isNotNeeded ? t("notNeeded") : names,
    over,
    line.state === "toBuy" && (line.basket ?? 0) > 0
      ? t("basketPart", { amount: `${grams(line.basket!)} g` })
      : "",
  ].filter(Boolean);
  return (
    <li className="flex items-center gap-1">
      <Tickable name={line.name} isTicked={isTicked} tick={tick}>
        <span className={`min-w-0 flex-1 ${isTicked ? "text-soft" : ""}`}>
          <span className={`block font-semibold ${isTicked ? "line-through" : ""}`}>{line.name}</span>
          <span className="block text-xs text-soft">{notes.join(" · ")}</span>
        </span>
        <b className={`shrink-0 text-right whitespace-nowrap ${isTicked ? "text-soft" : ""}`}>
          {line.said || t("food.some")}
        </b>
      </Tickable>
      <button
        className="no-print min-h-11 px-2 text-soft"
        aria-label={t("open", { name: line.name })}
        onClick={open}
      >
        <MoreHorizontal size={20} aria-hidden />
      </button>
    </li>
  );
}

function Written({ own, isTicked, tick }: Tick & { own: WrittenOnView }) {
  const { t } = useWords("shop");
  const say = useSay();
  const { did } = useHistory();
  const queries = useQueryClient();
  const off = async () => {
    try {
      const gone = (await takeOffList({ path: { id: own.id } })).data!;
      did(t("writeOn.gone", { name: own.text }), () => writeOnList({ body: gone }));
    } catch (thrown) {
      say(troubleOf(thrown, t("app:silent")).detail ?? "", { trouble: true });
    } finally {
      await freshen(queries, "shop");
    }
  };
  return (
    <li className="flex items-center gap-1">
      <Tickable name={own.text} isTicked={isTicked} tick={tick}>
        <span className={`min-w-0 font-semibold wrap-anywhere ${isTicked ? "text-soft line-through" : ""}`}>
          {own.text}
        </span>
      </Tickable>
      <button
        className="no-print min-h-11 px-2 text-soft"
        aria-label={t("writeOn.off", { name: own.text })}
        onClick={() => void off()}
      >
        <X size={18} aria-hidden />
      </button>
    </li>
  );
}
