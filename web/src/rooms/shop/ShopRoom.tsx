import { useQueryClient } from "@tanstack/react-query";
import { addDays, differenceInDays, parseISO } from "date-fns";
import { Printer } from "lucide-react";
import { useState } from "react";
import { Link, useSearchParams } from "react-router";
import { putAway, troubleOf, undoPutAway, type ShopListView } from "../../api";
import { freshen } from "../../app/freshen";
import { Header } from "../../app/Header";
import { useHistory } from "../../app/history";
import { useWords } from "../../app/i18n";
import { useSay } from "../../app/notices";
import { isoDay, longDay, shortDay } from "../../ui/format";
import { Empty, Failed, Loading } from "../../ui/states";
import { AislesDrawer } from "./AislesDrawer";
import { Along } from "./Along";
import { FoodDrawer } from "./FoodDrawer";
import { Lines } from "./Lines";
import { PantryView } from "./PantryView";
import { price } from "./price";
import { useShoppingList, useTicks } from "./useTicks";
import { WriteOn } from "./WriteOn";

const mostDays = 28;
const views = ["list", "pantry"] as const;

export default function ShopRoom() {
  const { t } = useWords("shop");
  const [search, setSearch] = useSearchParams();
  const view = search.get("view") === "pantry" ? "pantry" : "list";
  return (
    <>
      <Header
        lens={false}
        actions={
          view === "list" && (
            <button className="btn max-md:hidden" onClick={() => window.print()}>
              <Printer size={16} aria-hidden /> {t("along.print")}
            </button>
          )
        }
      >
        <h1 className="text-lg">{t("title")}</h1>
        <div role="group" aria-label={t("tabs.label")} className="flex">
          {views.map((one) => (
            <button
              key={one}
              aria-pressed={one === view}
              onClick={() => setSearch(one === "list" ? {} : { view: one }, { replace: true })}
              className={`min-h-9 border-b-2 px-3 whitespace-nowrap max-md:min-h-11 ${one === view ? "border-sea font-bold" : "border-transparent"}`}
            >
              {t(`tabs.${one}`)}
            </button>
          ))}
        </div>
      </Header>
      <main className="relative min-h-0 flex-1 overflow-auto print:overflow-visible">
        {view === "list" ? <List /> : <PantryView />}
      </main>
    </>
  );
}

function List() {
  const { t } = useWords("shop");
  const [until, setUntil] = useState<string | null>(null);
  const { data, error, refetch } = useShoppingList(until);
  const ticks = useTicks(until);
  const [opened, setOpened] = useState<string | null>(null);
  const [isAisles, setIsAisles] = useState(false);
  if (error && !data) return <Failed error={error} retry={() => void refetch()} />;
  if (!data) return <Loading />;
  const isEmpty = data.aisles.length === 0 && data.batches.every(({ notRead }) => notRead.length === 0);
  const line = data.aisles.flatMap(({ foods }) => foods).find(({ key }) => key === opened);
  return (
    <div className="grid gap-x-8 gap-y-6 p-4 lg:grid-cols-[minmax(0,1fr)_280px] print:block print:p-0">
      <div className="min-w-0">
        <Top list={data} until={until} setUntil={setUntil} ticks={ticks} />
        <WriteOn />
        {isEmpty ? (
          <Empty title={t("empty.title")}>
            <p>{t("empty.text")}</p>
            <Link to="/plan" className="btn-next">
              {t("empty.toPlan")}
            </Link>
          </Empty>
        ) : (
          <Lines list={data} ticks={ticks} open={setOpened} />
        )}
      </div>
      <Along list={data} until={until} showAisles={() => setIsAisles(true)} />
      {line && (
        <FoodDrawer line={line} list={data} until={until} close={() => setOpened(null)} tick={ticks.tick} />
      )}
      {isAisles && <AislesDrawer close={() => setIsAisles(false)} />}
    </div>
  );
}

/** How far the shopping is, for which days it is, and putting it away. */
function Top({
  list,
  until,
  setUntil,
  ticks,
}: {
  list: ShopListView;
  until: string | null;
  setUntil: (until: string | null) => void;
  ticks: ReturnType<typeof useTicks>;
}) {
  const { t } = useWords("shop");
  const say = useSay();
  const { did } = useHistory();
  const queries = useQueryClient();
  const [busy, setBusy] = useState(false);
  const count = list.lastDay ? differenceInDays(parseISO(list.lastDay), parseISO(list.today)) + 1 : 0;
  const days = Array.from({ length: Math.min(count, mostDays) }, (_, i) =>
    isoDay(addDays(parseISO(list.today), i)),
  );
  const putAllAway = async () => {
    setBusy(true);
    try {
      await ticks.flush();
      const done = (await putAway()).data!;
      did(t("putAway.done"), () => undoPutAway({ body: done }));
    } catch (thrown) {
      say(troubleOf(thrown, t("app:silent")).detail ?? "", { trouble: true });
    } finally {
      await freshen(queries, "shop");
      setBusy(false);
    }
  };
  const hasPrice = list.cost > 0;
  return (
    <section className="mb-3 space-y-1">
      <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1">
        <p className="font-title text-xl font-bold" aria-live="polite">
          {t(list.toBuy + list.inBasket === 0 ? "nothing" : "toBuy", { count: list.toBuy })}
        </p>
        {list.inBasket > 0 && <p className="text-soft">{t("inBasket", { count: list.inBasket })}</p>}
        {hasPrice && (
          <p className="text-soft">
            {t(list.unpriced > 0 ? "costAtLeast" : "cost", {
              count: list.unpriced,
              currency: list.currency,
              cost: price(list.cost),
            })}
          </p>
        )}
      </div>
      <div className="no-print flex flex-wrap items-center gap-3">
        {days.length > 0 && (
          <label className="flex items-center gap-2 text-sm">
            {t("until.label")}
            <select
              className="field"
              value={until ?? ""}
              onChange={(event) => setUntil(event.target.value || null)}
            >
              <option value="">{t("until.all")}</option>
              {days.map((day) => (
                <option key={day} value={day}>
                  {t("until.day", { day: shortDay(day) })}
                </option>
              ))}
            </select>
          </label>
        )}
        {list.inBasket > 0 && (
          <button
            className={list.toBuy === 0 ? "btn-next" : "btn"}
            title={t("putAway.text", { count: list.inBasket })}
            disabled={busy}
            onClick={() => void putAllAway()}
          >
            {t("putAway.button")}
          </button>
        )}
      </div>
      {ticks.isSilent && ticks.count > 0 && (
        <p role="status" className="flex gap-2 text-sm text-brick">
          <span aria-hidden className="hatched w-1.5 shrink-0 rounded-sm" />
          {t("offline", { count: ticks.count })}
        </p>
      )}
      <p className="hidden text-sm print:block">{longDay(list.today)}</p>
    </section>
  );
}
