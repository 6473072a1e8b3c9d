import { useQueryClient } from "@tanstack/react-query";
import { Printer } from "lucide-react";
import { useState } from "react";
import { Link, useSearchParams } from "react-router";
import {
  beginRun,
  setKitchen,
  setPrepDay,
  troubleOf,
  unbeginRun,
  type LaidDayView,
  type PrepBatch,
  type Trouble,
} from "../../api";
import { freshen } from "../../app/freshen";
import { useHistory } from "../../app/history";
import { Header, useOverview } from "../../app/Header";
import { useWords } from "../../app/i18n";
import { useSay } from "../../app/notices";
import { longDay, shortDay } from "../../ui/format";
import { Empty, Failed, lacking, Loading } from "../../ui/states";
import { useSettled } from "../../ui/useSettled";
import { lengthOf, timeAt } from "./clock";
import { Ahead } from "./Ahead";
import { KitchenDrawer } from "./KitchenDrawer";
import { Lanes } from "./Lanes";
import { RunPage } from "./run/RunPage";
import { DayLength, RunSheet } from "./RunSheet";
import { dishOf, whatOf } from "./say";
import { useKitchenOf, useLaidDay, usePrepDay, usePrepDays } from "./useDay";
import { Wishes, type Draft } from "./Wishes";

export default function CookRoom() {
  const { t } = useWords("cook");
  const [search, setSearch] = useSearchParams();
  const overview = useOverview();
  const today = overview?.today;
  const daysQuery = usePrepDays();
  const days = daysQuery.data;
  const failed = lacking(daysQuery);
  if (failed) return <Failed isPage {...failed} />;
  if (!days || !today) return <Loading isPage />;
  if (days.length === 0)
    return (
      <>
        <Header lens={false}>
          <h1 className="text-lg">{t("title")}</h1>
        </Header>
        <main className="min-h-0 flex-1 overflow-auto">
          <Empty title={t("none.title")}>
            <p>{t("none.text")}</p>
            <Link to="/plan" className="btn-next">
              {t("none.toPlan")}
            </Link>
          </Empty>
        </main>
      </>
    );
  // The day asked for, else the one that is being cooked; else the next with something still to be cooked, else whatever is in its pan.
  const next = days.find(({ day, batches }) => day >= today && batches.some(({ isCooking }) => !isCooking));
  const chosen = search.get("day") ?? overview?.cooking ?? (next ?? days[days.length - 1]!).day;
  return (
    <PrepDay
      key={chosen}
      day={chosen}
      today={today}
      tabs={
        <div role="group" aria-label={t("days")} className="flex overflow-x-auto">
          {days.map(({ day }) => (
            <button
              key={day}
              aria-pressed={day === chosen}
              onClick={() => setSearch({ day }, { replace: true })}
              className={`min-h-9 border-b-2 px-3 whitespace-nowrap max-md:min-h-11 ${day === chosen ? "border-sea font-bold" : "border-transparent"}`}
            >
              {shortDay(day)}
            </button>
          ))}
        </div>
      }
    />
  );
}

function PrepDay({ day, today, tabs }: { day: string; today: string; tabs: React.ReactNode }) {
  const { t } = useWords("cook");
  const say = useSay();
  const { did } = useHistory();
  const [search, setSearch] = useSearchParams();
  const queries = useQueryClient();
  const dayQuery = usePrepDay(day);
  const kitchenQuery = useKitchenOf();
  const [draft, setDraft] = useState<Draft | null>(null);
  const [busy, setBusy] = useState(false);
  const [isKitchen, setIsKitchen] = useState(false);
  const [trouble, setTrouble] = useState<Trouble | null>(null);
  const [prep, kitchen] = [dayQuery.data, kitchenQuery.data];
  const isRun = prep !== undefined && prep.run !== "none";
  const isNow = isRun && search.get("view") !== "day";
  // While it is being cooked the plan is laid out only for who looks at it.
  const laidDay = isNow ? undefined : day;
  const saved = prep && kitchen ? { wishes: prep.wishes, equipment: kitchen.equipment } : null;
  const shown = draft ?? saved;
  const asSaved = useLaidDay(laidDay, saved?.wishes, saved?.equipment);
  // What is typed is laid out when the typing stops.
  const typed = draft ? JSON.stringify(draft) : "";
  const settled = useSettled(typed, 300);
  const asked = typed && settled ? (JSON.parse(settled) as Draft) : saved;
  const tried = useLaidDay(laidDay, asked?.wishes, asked?.equipment);
  const isLooking = tried.isLooking || (typed !== "" && typed !== settled);
  const failed = lacking(dayQuery, kitchenQuery);

  const keep = async () => {
    if (!draft || !prep || !kitchen) return;
    setBusy(true);
    try {
      if (JSON.stringify(draft.wishes) !== JSON.stringify(prep.wishes))
        await setPrepDay({
          path: { day },
          body: draft.wishes,
          headers: { "If-Match": `"${prep.version}"` },
        });
      if (JSON.stringify(draft.equipment) !== JSON.stringify(kitchen.equipment))
        await setKitchen({ body: draft.equipment, headers: { "If-Match": `"${kitchen.version}"` } });
      await freshen(queries, "prepDay");
      setDraft(null);
      say(t("wishes.saved"));
    } catch (thrown) {
      say(troubleOf(thrown, t("app:silent")).detail ?? "", { trouble: true });
      await freshen(queries, "prepDay");
    } finally {
      setBusy(false);
    }
  };
  const saveKitchen = async (equipment: Draft["equipment"]) => {
    if (!kitchen) return;
    try {
      await setKitchen({ body: equipment, headers: { "If-Match": `"${kitchen.version}"` } });
      await freshen(queries, "prepDay");
      setDraft((now) => (now ? { ...now, equipment } : now));
      setIsKitchen(false);
      setTrouble(null);
      say(t("wishes.savedKitchen"));
    } catch (thrown) {
      setTrouble(troubleOf(thrown, t("app:silent")));
      await freshen(queries, "prepDay");
    }
  };

  // The day is begun as it is shown: in the order of its lanes.
  const begin = async () => {
    setBusy(true);
    try {
      const order = tried.data?.tasks.map(({ task }) => task.id) ?? [];
      await beginRun({ path: { day }, body: { order } });
      await freshen(queries, "run");
      did(t("run.started"), async () => {
        await unbeginRun({ path: { day } });
        await freshen(queries, "run");
      });
    } catch (thrown) {
      say(troubleOf(thrown, t("app:silent")).detail ?? "", { trouble: true });
      await freshen(queries, "run");
    } finally {
      setBusy(false);
    }
  };

  const change = (next: Draft) =>
    setDraft(saved && JSON.stringify(next) === JSON.stringify(saved) ? null : next);
  const batches = prep?.batches ?? [];
  if (isNow)
    return (
      <>
        <Header lens={false}>
          <h1 className="text-lg">{t("title")}</h1>
          {tabs}
          <Views isNow show={(view) => setSearch(view ? { day, view } : { day }, { replace: true })} />
        </Header>
        <main className="relative min-h-0 flex-1 overflow-auto">
          <RunPage day={day} />
        </main>
      </>
    );
  const isComing = !prep || !kitchen || (batches.length > 0 && !tried.data && !tried.error);
  if (isComing && !failed) return <Loading isPage />;
  const chosenAhead = (prep?.ahead ?? [])
    .map(({ batch }) => batch)
    .filter(({ id }) => shown?.wishes.ahead?.includes(id));
  const cooked = [...batches, ...chosenAhead].filter(({ id }) => !shown?.wishes.leftOut?.includes(id));
  return (
    <>
      <Header
        lens={false}
        undo={false}
        actions={
          <>
            {day === today && prep?.run === "none" && batches.length > 0 && !draft && (
              <button className="btn-next" disabled={busy || !tried.data} onClick={() => void begin()}>
                {t("run.start")}
              </button>
            )}
            <button className="btn max-md:hidden" onClick={() => window.print()}>
              <Printer size={16} aria-hidden /> {t("sheet.print")}
            </button>
          </>
        }
      >
        <h1 className="text-lg">{t("title")}</h1>
        {tabs}
        {isRun && <Views show={(view) => setSearch(view ? { day, view } : { day }, { replace: true })} />}
      </Header>
      <main className="relative min-h-0 flex-1 overflow-auto print:overflow-visible">
        {failed ? (
          <Failed {...failed} />
        ) : !prep || !shown ? (
          <Loading />
        ) : batches.length === 0 ? (
          <Empty title={t("noDay")}>
            <Link to="/plan" className="btn-next">
              {t("none.toPlan")}
            </Link>
          </Empty>
        ) : (
          <div className="space-y-4 p-4">
            {cooked.length === 0 ? (
              <p className="text-soft">{t("allOut")}</p>
            ) : tried.data ? (
              <>
                <DayHead day={tried.data} batches={cooked} isLooking={isLooking} />
                <Lanes day={tried.data} batches={cooked} />
              </>
            ) : tried.error ? (
              <Failed error={tried.error} retry={tried.refetch} />
            ) : (
              <Loading />
            )}
            <div className="grid gap-6 lg:grid-cols-[1fr_340px] print:block">
              <div>
                {tried.data && cooked.length > 0 && (
                  <RunSheet day={tried.data} batches={cooked} title={longDay(day)} />
                )}
                <p className="mt-3 max-w-2xl text-xs text-soft">{t("safety")}</p>
              </div>
              <div className="no-print">
                <Wishes
                  batches={batches}
                  draft={shown}
                  isTrying={draft !== null}
                  saved={asSaved.data}
                  tried={tried.data}
                  isLooking={isLooking}
                  busy={busy}
                  change={change}
                  keep={() => void keep()}
                  back={() => setDraft(null)}
                  showKitchen={() => setIsKitchen(true)}
                  ahead={
                    <Ahead
                      day={day}
                      today={today}
                      dishes={prep.ahead}
                      chosen={shown.wishes.ahead ?? []}
                      choose={(ids) =>
                        change({
                          ...shown,
                          wishes: { ...shown.wishes, ahead: ids.length > 0 ? ids : null },
                        })
                      }
                    />
                  }
                />
              </div>
            </div>
          </div>
        )}
      </main>
      {kitchen && isKitchen && (
        <KitchenDrawer
          equipment={kitchen.equipment}
          open
          close={() => setIsKitchen(false)}
          trouble={trouble}
          save={(equipment) => void saveKitchen(equipment)}
        />
      )}
    </>
  );
}

/** The run, or the day as it is laid out and wished. */
function Views({ isNow = false, show }: { isNow?: boolean; show: (view: "day" | null) => void }) {
  const { t } = useWords("cook");
  return (
    <div role="group" aria-label={t("run.view")} className="flex">
      {([null, "day"] as const).map((view) => (
        <button
          key={view ?? "now"}
          aria-pressed={isNow === (view === null)}
          className={`min-h-9 border border-rim px-3 text-sm first:rounded-l-lg last:rounded-r-lg last:border-l-0 max-md:min-h-11 ${isNow === (view === null) ? "bg-ink font-bold text-ground" : ""}`}
          onClick={() => show(view)}
        >
          {t(view ? "run.whole" : "run.now")}
        </button>
      ))}
    </div>
  );
}

/** When the day begins and ends, how sure that is, and what is amiss. */
function DayHead({
  day,
  batches,
  isLooking,
}: {
  day: LaidDayView;
  batches: PrepBatch[];
  isLooking: boolean;
}) {
  const { t } = useWords("cook");
  const nameOf = (id: string | null | undefined) => dishOf(batches, id ?? undefined)?.name ?? "";
  const recipeOf = (id: string) => dishOf(batches, id)?.recipeId;
  const steps = day.chain
    .map(({ id }) => day.tasks.find((task) => task.task.id === id))
    .filter((task) => task !== undefined)
    .map((task) => whatOf(t, task, batches));
  return (
    <section className="space-y-1">
      <DayLength day={day} />
      <p className="text-sm text-soft" aria-live="polite">
        {day.late > 0 || day.overtime > 0
          ? ""
          : isLooking
            ? t("first")
            : day.isProven
              ? t("proven")
              : t("found", { count: day.end - day.bound })}
      </p>
      {(day.late > 0 || day.overtime > 0) && (
        <div role="alert" className="max-w-3xl border-l-4 border-brick py-1 pl-3">
          {day.late > 0 && (
            <p className="font-semibold text-brick">{t("late", { time: lengthOf(t, day.late) })}</p>
          )}
          {day.overtime > 0 && (
            <p className="font-semibold text-brick">{t("overtime", { time: lengthOf(t, day.overtime) })}</p>
          )}
          <p className="text-sm">{t("setsTheEnd", { chain: steps.join(" → ") })}</p>
          {day.waysOut.length > 0 && (
            <>
              <p className="mt-1 text-sm font-semibold">{t("waysOut")}</p>
              <ul className="list-disc pl-5 text-sm">
                {day.waysOut.map((way) => (
                  <li key={`${way.kind}${way.machine ?? ""}${way.dish ?? ""}`}>
                    {t(`way.${way.kind}`, {
                      time: lengthOf(t, way.minutes),
                      machine: way.machine ? t(`kinds.${way.machine}`).toLowerCase() : "",
                      dish: nameOf(way.dish),
                    })}
                    {": "}
                    {way.late > 0
                      ? t("way.late", { time: lengthOf(t, way.late) })
                      : t("way.onTime", { end: timeAt(day.begins, way.end) })}
                  </li>
                ))}
              </ul>
            </>
          )}
        </div>
      )}
      {day.warnings.length > 0 && (
        <ul className="no-print max-w-3xl text-sm">
          {day.warnings.map((warning, i) => (
            <li key={i} className="flex gap-2">
              <span aria-hidden className="hatched w-1.5 shrink-0 rounded-sm" />
              <span>
                {t(`lack.${warning.lack}`, {
                  count: warning.loads,
                  dish: nameOf(warning.dish),
                  machine: warning.kind ? t(`kinds.${warning.kind}`).toLowerCase() : "",
                  words: warning.words,
                })}{" "}
                {(warning.lack === "noSteps" || warning.lack === "notUnderstood") &&
                  recipeOf(warning.dish) && (
                    <Link className="link" to={`/recipes/${recipeOf(warning.dish)}?view=steps`}>
                      {t("lack.toSteps")}
                    </Link>
                  )}
              </span>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
