import { useQuery } from "@tanstack/react-query";
import { addDays, parseISO } from "date-fns";
import { ChevronLeft, ChevronRight } from "lucide-react";
import { Link, useSearchParams } from "react-router";
import { getBody, getWeekReview } from "../../api";
import { EaterTabs, Header, useCurrentEater, useEatersQuery, useOverviewQuery } from "../../app/Header";
import { addWords, useWords } from "../../app/i18n";
import { useLens } from "../../app/lens";
import { useQuiet } from "../../app/quiet";
import { queryKeys } from "../../app/queryKeys";
import { isoDay, weekWords } from "../../ui/format";
import { Empty, Failed, lacking, Loading } from "../../ui/states";
import { plan } from "../plan/words";
import { BodyTrend } from "./BodyTrend";
import { Dishes } from "./Dishes";
import { KitchenRecord } from "./KitchenRecord";
import { WeekPart } from "./WeekPart";
import { review } from "./words";

addWords("plan", plan);
addWords("review", review);

const views = ["week", "body", "kitchen"] as const;
type View = (typeof views)[number];

/** What the weeks teach. */
export default function ReviewRoom() {
  const { t } = useWords("review");
  const [search, setSearch] = useSearchParams();
  const eatersQuery = useEatersQuery();
  const overviewQuery = useOverviewQuery();
  const said = search.get("view") as View | null;
  const quiet = useQuiet();
  const there = views.filter((one) => !quiet || one !== "body");
  const view = said && there.includes(said) ? said : "week";
  const today = overviewQuery.data?.today;
  // Early in a week it is the one before that can be looked back on.
  const day = search.get("week") ?? (today && isoDay(addDays(parseISO(today), -3)));
  const go = (to: Record<string, string>) =>
    setSearch({ ...Object.fromEntries(search), ...to }, { replace: true });
  if (eatersQuery.data?.length === 0)
    return (
      <Empty isPage title={t("empty")}>
        <p>{t("emptyText")}</p>
        <Link to="/aim" className="btn-next">
          {t("toAim")}
        </Link>
      </Empty>
    );
  const failed = lacking(eatersQuery, overviewQuery);
  if (failed) return <Failed isPage {...failed} />;
  if (!eatersQuery.data || !day || !today) return <Loading isPage />;
  const monday = mondayOf(day);
  return (
    <>
      <Header lens={view === "week"} undo>
        <h1 className="font-title text-lg font-bold">{t("title")}</h1>
        {view === "week" && (
          <div className="flex items-center">
            <button
              className="btn border-0 px-1"
              aria-label={t("app:week.before")}
              onClick={() => go({ week: isoDay(addDays(parseISO(monday), -7)) })}
            >
              <ChevronLeft size={18} aria-hidden />
            </button>
            <span className="min-w-32 text-center font-title font-bold">{weekWords(monday)}</span>
            <button
              className="btn border-0 px-1"
              aria-label={t("app:week.after")}
              disabled={monday >= mondayOf(today)}
              onClick={() => go({ week: isoDay(addDays(parseISO(monday), 7)) })}
            >
              <ChevronRight size={18} aria-hidden />
            </button>
          </div>
        )}
        {view !== "kitchen" && <EaterTabs />}
      </Header>
      <main className="min-h-0 flex-1 overflow-auto px-4 py-4">
        <div className="mx-auto max-w-4xl">
          <div role="group" aria-label={t("viewsLabel")} className="mb-4 flex gap-1">
            {there.map((one) => (
              <button
                key={one}
                className={`btn ${view === one ? "bg-ink text-ground" : ""}`}
                aria-pressed={view === one}
                onClick={() => go({ view: one })}
              >
                {t(`views.${one}`)}
              </button>
            ))}
          </div>
          {view === "week" ? <Week day={day} /> : view === "body" ? <TheBody /> : <KitchenRecord />}
        </div>
      </main>
    </>
  );
}

const mondayOf = (day: string) => isoDay(addDays(parseISO(day), -((parseISO(day).getDay() + 6) % 7)));

function Week({ day }: { day: string }) {
  const eater = useCurrentEater();
  const lens = useLens();
  const quiet = useQuiet();
  const query = useQuery({
    queryKey: queryKeys.weekReview(eater, mondayOf(day)),
    queryFn: async () => (await getWeekReview({ path: { eaterId: eater!, day } })).data!,
    enabled: eater !== null,
  });
  const failed = lacking(query);
  if (failed) return <Failed {...failed} />;
  if (!query.data) return <Loading />;
  return (
    <div key={`${query.data.eaterId}|${query.data.monday}`} className="space-y-8">
      {!quiet && <WeekPart week={query.data} lens={lens} />}
      <Dishes week={query.data} lens={lens} />
    </div>
  );
}

function TheBody() {
  const eater = useCurrentEater();
  const query = useQuery({
    queryKey: queryKeys.body(eater),
    queryFn: async () => (await getBody({ path: { eaterId: eater! } })).data!,
    enabled: eater !== null,
  });
  const failed = lacking(query);
  if (failed) return <Failed {...failed} />;
  if (!query.data) return <Loading />;
  return <BodyTrend key={query.data.eaterId} body={query.data} />;
}
