import { useQuiet } from "../../app/quiet";
import type { TFunction } from "i18next";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { addDays, parseISO } from "date-fns";
import { Barcode, ChevronLeft, ChevronRight, Scale } from "lucide-react";
import { useWords } from "../../app/i18n";
import { Link, useSearchParams } from "react-router";
import { useState } from "react";
import { getDay, type EatView, type Figure, type Measure } from "../../api";
import { EaterTabs, Header, useCurrentEater, useEatersQuery, useOverviewQuery } from "../../app/Header";
import { useLens } from "../../app/lens";
import { sawDays } from "../../app/seen";
import { Drawer } from "../../ui/Drawer";
import { amount, isoDay, longDay, shortDay, unitOf, wholeNumber } from "../../ui/format";
import { Ruler } from "../../ui/Ruler";
import { tapeLength } from "../../ui/ticks";
import { Empty, Failed, lacking, Loading } from "../../ui/states";
import { queryKeys } from "../../app/queryKeys";
import { DayEntry } from "../plan/DayEntry";
import { dayWords } from "../plan/reading";
import { Code } from "./Code";
import { Done } from "./Done";
import { FitAgain } from "./FitAgain";
import { OnPlate } from "./OnPlate";
import { StillFits } from "./StillFits";
import { Usual } from "./Usual";
import { Waiting } from "./Waiting";

export default function EatRoom() {
  const { t } = useWords("eat");
  const [search, setSearch] = useSearchParams();
  const eatersQuery = useEatersQuery();
  const eaters = eatersQuery.data;
  const eater = useCurrentEater();
  const overviewQuery = useOverviewQuery();
  const today = overviewQuery.data?.today;
  const day = search.get("day") ?? today;
  const dayQuery = useQuery({
    queryKey: queryKeys.day(eater, day),
    queryFn: async () => {
      const read = (await getDay({ path: { eaterId: eater!, day: day! } })).data!;
      sawDays([{ eaterId: read.eaterId, day: read.day.day }], read.version);
      return read;
    },
    enabled: eater !== null && day !== undefined,
    placeholderData: keepPreviousData,
  });
  if (eaters?.length === 0)
    return (
      <Empty isPage title={t("empty")}>
        <p>{t("emptyText")}</p>
        <Link to="/aim" className="btn-next">
          {t("toAim")}
        </Link>
      </Empty>
    );
  const data = dayQuery.data;
  const failed = lacking(eatersQuery, overviewQuery, dayQuery);
  if (failed) return <Failed isPage {...failed} />;
  if (!data || !day) return <Loading isPage />;
  const turn = (days: number) => setSearch({ day: isoDay(addDays(parseISO(day), days)) });

  return (
    <>
      <Header>
        <h1 className="sr-only">{t("title")}</h1>
        <div className="flex items-center">
          <button className="btn border-0 px-1" aria-label={t("before")} onClick={() => turn(-1)}>
            <ChevronLeft size={20} aria-hidden />
          </button>
          <span className="min-w-24 text-center font-title text-lg font-bold">
            {day === data.today ? t("today") : shortDay(day)}
          </span>
          <button className="btn border-0 px-1" aria-label={t("after")} onClick={() => turn(1)}>
            <ChevronRight size={20} aria-hidden />
          </button>
        </div>
        <EaterTabs />
      </Header>
      <Day view={data} />
    </>
  );
}

type Opened = "fits" | "again" | "plate" | "code";

function Day({ view }: { view: EatView }) {
  const { t } = useWords("eat");
  const lens = useLens();
  const [opened, setOpened] = useState<Opened | null>(null);
  // A food that was found by its code: its amount is still to be typed.
  const [found, setFound] = useState<{ text: string; foodId: string } | null>(null);
  const { day, aim } = view;
  const isAhead = day.day > view.today;
  const close = () => setOpened(null);
  const placeOf = (slot: string | null) => {
    const i = view.slots.findIndex(({ name }) => name === slot);
    return i < 0 ? view.slots.length : i;
  };
  const waiting = day.items
    .filter(({ eatenAt }) => eatenAt === null)
    .sort((a, b) => placeOf(a.slot) - placeOf(b.slot));
  const done = day.items.filter(({ eatenAt }) => eatenAt !== null);
  // Eaten lies first along the tape, what is still planned after it.
  const laid = { ...day, items: [...done, ...waiting] };
  const quiet = useQuiet();
  const whole = dayWords(t, day, lens);
  const sum = t(`app:mark.${day.sums[lens]?.certainty ?? "exact"}`, {
    amount: amount(lens, day.sums[lens]?.value ?? 0),
  });

  return (
    <>
      <main className="min-h-0 flex-1 overflow-auto px-4 py-4">
        <div className="mx-auto max-w-3xl">
          <Left view={view} lens={lens} />
          <div className="mt-4 mb-1">
            <Ruler
              day={laid}
              aim={aim}
              measure={lens}
              length={tapeLength(aim, [day], lens)}
              height={64}
              label={t(quiet ? "dayQuiet" : "dayLabel", {
                name: view.name,
                day: longDay(day.day),
                count: laid.items.length,
                eaten: amount(lens, day.eaten[lens]?.value ?? 0),
                sum: amount(lens, day.sums[lens]?.value ?? 0),
                unit: unitOf(lens),
              })}
            />
          </div>
          <p className="counted mb-2 text-right text-sm text-soft">
            {t("whole", { sum, unit: unitOf(lens) })}
            {whole.look !== "open" && (
              <>
                {" · "}
                <b className={whole.look === "out" ? "text-brick" : "text-sea"}>{whole.words}</b>
              </>
            )}
          </p>
          {day.day >= view.today && (
            <p className="mb-4 flex flex-wrap gap-2">
              <button className="counted btn min-h-11" onClick={() => setOpened("fits")}>
                {t("stillFits")}
              </button>
              <button className="btn min-h-11" onClick={() => setOpened("again")}>
                {t("fitAgain")}
              </button>
            </p>
          )}

          <h2 className="mb-2 text-lg">{t("next")}</h2>
          {isAhead && <p className="mb-2 text-sm text-soft">{t("ahead")}</p>}
          {waiting.length === 0 && (
            <p className="mb-4 text-soft">
              {t(done.length > 0 ? "nothingMore" : "nothing")}{" "}
              <Link to="/plan" className="link">
                {t("toPlan")}
              </Link>
            </p>
          )}
          <Waiting view={view} items={waiting} lens={lens} />

          {done.length > 0 && <h2 className="mt-6 mb-2 text-lg">{t("eaten")}</h2>}
          <Done view={view} items={done} lens={lens} />
          {done.some(({ boxId }) => boxId !== null) && (
            <p className="mt-3 text-sm">
              <Link to={`/review?week=${view.day.day}`} className="link">
                {t("howWasIt")}
              </Link>
            </p>
          )}
        </div>
      </main>
      {/* On a low screen the day keeps its room: the field comes first, the rest is scrolled to. */}
      <footer className="border-t border-rim px-4 pt-3 pb-2 [@media(max-height:480px)]:max-h-24 [@media(max-height:480px)]:overflow-auto">
        <div className="mx-auto flex max-w-3xl flex-col [@media(max-height:480px)]:flex-col-reverse">
          <DayEntry
            key={found?.foodId ?? ""}
            eaterId={view.eaterId}
            day={day.day}
            eaten={!isAhead}
            start={found ?? undefined}
            label={t(isAhead ? "layLabel" : "addLabel")}
            hint={t("addHint")}
            action={t(isAhead ? "lay" : "add")}
            lens={lens}
            done={(what) => t(isAhead ? "laidOn" : "added", { name: what })}
            above={(typed, clear) => (
              <div className="flex items-start gap-2">
                <div className="min-w-0 flex-1">
                  <Usual view={view} lens={lens} typed={typed} onTaken={clear} />
                </div>
                {!isAhead && (
                  <button
                    type="button"
                    className="btn min-h-11"
                    aria-label={t("plate.open")}
                    onClick={() => setOpened("plate")}
                  >
                    <Scale size={18} aria-hidden />
                    <span className="max-md:hidden">{t("plate.short")}</span>
                  </button>
                )}
                <button
                  type="button"
                  className="btn min-h-11"
                  aria-label={t("code.open")}
                  onClick={() => setOpened("code")}
                >
                  <Barcode size={18} aria-hidden />
                  <span className="max-md:hidden">{t("code.short")}</span>
                </button>
              </div>
            )}
          />
        </div>
      </footer>
      <Drawer open={opened === "fits"} grows close={close} title={t("stillFits")}>
        <StillFits view={view} lens={lens} />
      </Drawer>
      <Drawer open={opened === "again"} grows close={close} title={t("fitAgain")}>
        <p className="mb-3 text-sm text-soft">{t("fitAgainText")}</p>
        <FitAgain view={view} close={close} />
      </Drawer>
      {opened === "plate" && <OnPlate view={view} lens={lens} close={close} />}
      {opened === "code" && (
        <Code
          close={close}
          onFood={(food) => {
            close();
            setFound({ text: `100 g ${food.name}`, foodId: food.id });
          }}
        />
      )}
    </>
  );
}

/** What is left of the day: of the lens in large, of what else is watched beside it. */
function Left({ view, lens }: { view: EatView; lens: Measure }) {
  const { t } = useWords("eat");
  const { day, aim } = view;
  const band = aim.bands[lens];
  const left = day.left[lens];
  const eaten = day.eaten[lens];
  const goal = band?.target ?? band?.max ?? band?.min ?? null;
  const others = (Object.keys(day.left) as Measure[]).filter((measure) => measure !== lens);
  const marked = (measure: Measure, value: number, certainty: Figure["certainty"]) =>
    t(`app:mark.${certainty}`, { amount: amount(measure, value) });
  // Where more may have been eaten than is known, less is left than it seems; past the goal it is by more.
  const leftOf = (measure: Measure, rest: number) => {
    const certainty = day.eaten[measure]?.certainty ?? "exact";
    return marked(measure, Math.abs(rest), rest < 0 ? certainty : turned[certainty]);
  };
  return (
    <section aria-label={longDay(day.day)} className="counted flex items-end justify-between gap-4">
      <p>
        <span className="block font-title text-huge leading-none font-bold">
          {left !== undefined ? leftOf(lens, left) : eaten ? marked(lens, eaten.value, eaten.certainty) : "–"}
        </span>
        <span className="text-soft">
          {left === undefined || goal === null
            ? t("eatenSoFar", { unit: wordOf(t, lens) })
            : t(left < 0 ? "past" : "left", { unit: wordOf(t, lens), goal: amount(lens, goal) })}
        </span>
        {day.giveOrTake >= 1 && (
          <span className="block text-sm text-soft">
            {t("giveOrTake", { kcal: wholeNumber(day.giveOrTake) })}
          </span>
        )}
      </p>
      <ul className="text-right">
        {others.slice(0, 3).map((measure) => {
          const rest = day.left[measure]!;
          const isFloor = aim.bands[measure]?.target == null && aim.bands[measure]?.max == null;
          return (
            <li key={measure}>
              <b>
                {leftOf(measure, rest)} {unitOf(measure)}
              </b>{" "}
              <span className="text-sm text-soft">
                {t(isFloor ? (rest < 0 ? "aboveLeast" : "toGo") : rest < 0 ? "pastOf" : "leftOf", {
                  measure: measure === "energy" ? t("app:energy") : t(`app:measures.${measure}`),
                })}
              </span>
            </li>
          );
        })}
      </ul>
    </section>
  );
}

const turned = { exact: "exact", atLeast: "atMost", atMost: "atLeast", open: "open" } as const;

type T = TFunction;
const wordOf = (t: T, measure: Measure) =>
  measure === "energy"
    ? "kcal"
    : measure === "points"
      ? t("app:measures.points")
      : `g ${t(`app:measures.${measure}`)}`;
