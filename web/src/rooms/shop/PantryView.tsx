import { keepPreviousData, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import {
  addToPantry,
  listPantry,
  seen,
  setInPantry,
  takeOutOfPantry,
  troubleOf,
  undoPantry,
  type PantryItemView,
} from "../../api";
import { freshen } from "../../app/freshen";
import { useHistory } from "../../app/history";
import { useWords } from "../../app/i18n";
import { useInTurn, useVersions } from "../../app/inTurn";
import { useSay } from "../../app/notices";
import { queryKeys } from "../../app/queryKeys";
import { FoodEntry } from "../../ui/FoodEntry";
import { shortDay } from "../../ui/format";
import { Empty, Failed, Loading } from "../../ui/states";
import { useSettled } from "../../ui/useSettled";
import { useTyped } from "../../ui/useTyped";
import { Stocktaking } from "./Stocktaking";

/** What is in the house: amounts and last days, corrected where they stand; what to use first on top. */
export function PantryView() {
  const { t } = useWords("shop");
  const [typed, setTyped] = useState("");
  const [isStock, setIsStock] = useState(false);
  const find = useSettled(typed.trim(), 200);
  const { data, error, refetch } = useQuery({
    queryKey: queryKeys.pantry(find),
    queryFn: async () => (await listPantry({ query: { find } })).data!,
    placeholderData: keepPreviousData,
  });
  const acts = usePantryActs();
  if (error && !data) return <Failed error={error} retry={() => void refetch()} />;
  if (!data) return <Loading />;
  return (
    <div className="max-w-4xl space-y-5 p-4">
      <AddTo />
      {data.all === 0 ? (
        <Empty title={t("pantry.empty")}>
          <p>{t("pantry.emptyText")}</p>
        </Empty>
      ) : (
        <>
          {data.first.length > 0 && (
            <section aria-labelledby="first-title">
              <h2 id="first-title" className="mb-1 text-base">
                {t("pantry.first")}
              </h2>
              <ul className="divide-y divide-line border-y border-line">
                {data.first.map((item) => (
                  <Row key={item.id} item={item} today={data.today} acts={acts} />
                ))}
              </ul>
            </section>
          )}
          <section aria-labelledby="all-title">
            <div className="mb-1 flex flex-wrap items-center gap-3">
              <h2 id="all-title" className="text-base">
                {t("pantry.all", { count: data.all })}
              </h2>
              <input
                type="search"
                className="field min-w-0 flex-1 md:max-w-60"
                aria-label={t("pantry.find")}
                placeholder={t("pantry.find")}
                maxLength={80}
                value={typed}
                onChange={(event) => setTyped(event.target.value)}
              />
            </div>
            {data.found === 0 && <p className="text-soft">{t("pantry.none")}</p>}
            <ul className="divide-y divide-line border-y border-line">
              {data.items.map((item) => (
                <Row key={item.id} item={item} today={data.today} acts={acts} />
              ))}
            </ul>
            {data.found > data.items.length && (
              <p className="mt-1 text-sm text-soft">
                {t("pantry.more", { shown: data.items.length, count: data.found })}
              </p>
            )}
          </section>
        </>
      )}
      <button className="btn" onClick={() => setIsStock(true)}>
        {t("stock.open")}
      </button>
      {isStock && <Stocktaking close={() => setIsStock(false)} />}
    </div>
  );
}

/** The writes on things in the house, one after another, each on the version it was seen at. */
function usePantryActs() {
  const { t } = useWords("shop");
  const say = useSay();
  const { did } = useHistory();
  const queries = useQueryClient();
  const inTurn = useInTurn("pantry");
  const versions = useVersions();
  const set = async (
    item: PantryItemView,
    change: { text?: string; useBy?: string | null; isFirst?: boolean },
  ) => {
    versions.saw(item.id, item.version);
    try {
      const { data } = await inTurn(() =>
        setInPantry({
          path: { id: item.id },
          headers: seen(versions.of(item.id)),
          body: {
            text: change.text ?? null,
            useBy: change.useBy === undefined ? item.useBy : change.useBy,
            isFirst: change.isFirst ?? item.isFirst,
          },
        }),
      );
      versions.saw(item.id, data!.version);
      return true;
    } catch (thrown) {
      say(troubleOf(thrown, t("app:silent")).detail ?? "", { trouble: true });
      return false;
    } finally {
      await freshen(queries, "shop");
    }
  };
  const used = async (item: PantryItemView) => {
    versions.saw(item.id, item.version);
    try {
      await inTurn(() => takeOutOfPantry({ path: { id: item.id }, headers: seen(versions.of(item.id)) }));
      did(t("pantry.gone", { name: item.name }), () => undoPantry({ body: { out: [item], in: {} } }));
    } catch (thrown) {
      say(troubleOf(thrown, t("app:silent")).detail ?? "", { trouble: true });
    } finally {
      await freshen(queries, "shop");
    }
  };
  return { set, used };
}

function AddTo() {
  const { t } = useWords("shop");
  const say = useSay();
  const queries = useQueryClient();
  const [useBy, setUseBy] = useState("");
  const add = async (text: string, foodId: string | null) => {
    try {
      const { data } = await addToPantry({ body: { text, foodId, useBy: useBy || null } });
      say(t("pantry.added", { name: data!.name }));
      setUseBy("");
      return true;
    } catch (thrown) {
      say(troubleOf(thrown, t("app:silent")).detail ?? "", { trouble: true });
      return false;
    } finally {
      await freshen(queries, "shop");
    }
  };
  return (
    <div className="max-w-2xl">
      <FoodEntry
        label={t("pantry.add")}
        hint={t("pantry.hint")}
        action={t("pantry.button")}
        rule={null}
        lens="energy"
        asTyped
        onAdd={add}
      />
      <p className="flex items-center gap-2 text-sm">
        {t("pantry.useBy")}
        <LastDay name="" value={useBy || null} change={(day) => setUseBy(day ?? "")} />
      </p>
    </div>
  );
}

function Row({
  item,
  today,
  acts,
}: {
  item: PantryItemView;
  today: string;
  acts: ReturnType<typeof usePantryActs>;
}) {
  const { t } = useWords("shop");
  const isPast = item.useBy !== null && item.useBy < today;
  return (
    <li className="grid grid-cols-[minmax(0,1fr)_auto_auto] items-center gap-x-2 gap-y-1 py-1.5 md:grid-cols-[minmax(0,1fr)_7rem_9.5rem_auto_auto]">
      <span className="min-w-0 max-md:col-span-2">
        <span className="block font-semibold">{item.name}</span>
        {(isPast || item.couldUse.length > 0) && (
          <span className="block text-xs text-soft">
            {[
              isPast ? t("pantry.past", { day: shortDay(item.useBy!) }) : "",
              item.couldUse.length > 0 ? t("pantry.could", { names: item.couldUse.join(", ") }) : "",
            ]
              .filter(Boolean)
              .join(" · ")}
          </span>
        )}
      </span>
      <AmountOf item={item} set={acts.set} />
      <LastDay name={item.name} value={item.useBy} change={(day) => void acts.set(item, { useBy: day })} />
      <button
        className={`chip ${item.isFirst ? "border-sea bg-sea-soft font-bold" : ""}`}
        aria-pressed={item.isFirst}
        aria-label={t("pantry.firstOf", { name: item.name })}
        onClick={() => void acts.set(item, { isFirst: !item.isFirst })}
      >
        {t("pantry.first")}
      </button>
      <button
        className="chip max-md:col-start-3 max-md:row-start-1"
        aria-label={t("pantry.usedOf", { name: item.name })}
        onClick={() => void acts.used(item)}
      >
        {t("pantry.used")}
      </button>
    </li>
  );
}

/** The last day a package names: a field only where there is one, or where somebody wants to write it. */
function LastDay({
  name,
  value,
  change,
}: {
  name: string;
  value: string | null;
  change: (day: string | null) => void;
}) {
  const { t } = useWords("shop");
  const [isOpen, setIsOpen] = useState(false);
  if (value === null && !isOpen)
    return (
      <button
        type="button"
        className="chip justify-self-start"
        aria-label={name ? t("pantry.addDateTo", { name }) : undefined}
        onClick={() => setIsOpen(true)}
      >
        {t("pantry.addDate")}
      </button>
    );
  return (
    <input
      type="date"
      className="field min-w-0"
      autoFocus={value === null}
      aria-label={name ? t("pantry.useByOf", { name }) : t("pantry.useBy")}
      value={value ?? ""}
      onChange={(event) => change(event.target.value || null)}
      onBlur={() => setIsOpen(false)}
    />
  );
}

/** How much there is, typed as people say it; what is refused stays as typed. */
function AmountOf({ item, set }: { item: PantryItemView; set: ReturnType<typeof usePantryActs>["set"] }) {
  const { t } = useWords("shop");
  const field = useTyped(item.grams === null ? t("pantry.enough") : item.said, (text) => set(item, { text }));
  return (
    <input
      className="field w-28 text-right"
      aria-label={t("pantry.amountOf", { name: item.name })}
      title={t("pantry.amountHint")}
      maxLength={60}
      {...field}
    />
  );
}
