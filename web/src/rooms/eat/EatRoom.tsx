import type { TFunction } from "i18next";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { addDays, parseISO } from "date-fns";
import { ChevronLeft, ChevronRight } from "lucide-react";
import { useWords } from "../../app/i18n";
import { Link, useSearchParams } from "react-router";
import { useState } from "react";
import { amendItem, eatItem, getDay, takeOff, type EatView, type ItemView, type Measure } from "../../api";
import { EaterTabs, Header, useCurrentEater, useEatersQuery, useOverviewQuery } from "../../app/Header";
import { useHistory } from "../../app/history";
import { useLens } from "../../app/lens";
import { sawDays, seenDays } from "../../app/seen";
import { AmountField } from "../../ui/AmountField";
import { Amount } from "../../ui/Figures";
import {
  amount,
  clock,
  grams,
  isoDay,
  longDay,
  piecesOf,
  shortDay,
  unitOf,
  wholeNumber,
} from "../../ui/format";
import { NeverMark } from "../../ui/never";
import { Ruler } from "../../ui/Ruler";
import { tapeLength } from "../../ui/ticks";
import { Empty, Failed, lacking, Loading } from "../../ui/states";
import { Tape } from "../../ui/Tape";
import { queryKeys } from "../../app/queryKeys";
import { DayEntry } from "../plan/DayEntry";
import { dayWords } from "../plan/reading";
import { holdWords } from "../plan/reading";
import { PartOfBox } from "./PartOfBox";

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

function Day({ view }: { view: EatView }) {
  const { t } = useWords("eat");
  const lens = useLens();
  const { change } = useHistory();
  // The box of which the eater is saying how much they ate.
  const [parted, setParted] = useState<string | null>(null);
  const { day, aim } = view;
  const where = { eaterId: view.eaterId, day: day.day };
  const band = aim.bands[lens];
  const left = day.left[lens];
  const eaten = day.eaten[lens];
  const goal = band?.target ?? band?.max ?? band?.min ?? null;
  const waiting = day.items.filter(({ eatenAt }) => eatenAt === null);
  const firstReady = waiting.findIndex(
    ({ batchId, never, hold }) => batchId === null && never === null && hold === null,
  );
  const done = day.items.filter(({ eatenAt }) => eatenAt !== null);
  const whole = dayWords(t, day, lens);
  // Eaten lies first along the tape, what is still planned after it.
  const laid = { ...day, items: [...done, ...waiting] };

  const mark = (item: ItemView, isEaten: boolean) =>
    change(
      () => eatItem({ headers: seenDays(where), path: { id: item.id }, body: { eaten: isEaten } }),
      t(isEaten ? "marked" : "unmarked", { name: item.name }),
    );
  const amend = (item: ItemView, text: string) =>
    change(
      () => amendItem({ headers: seenDays(where), path: { id: item.id }, body: { text } }),
      t("plan:depth.amended", { name: item.name, amount: text }),
    );
  const markPart = (item: ItemView, eaten: number) => {
    setParted(null);
    return change(
      () => eatItem({ headers: seenDays(where), path: { id: item.id }, body: { eaten: true, grams: eaten } }),
      t("part.marked", { part: grams(Math.round(eaten)), name: item.name }),
    );
  };
  const others = (Object.keys(day.left) as Measure[]).filter((measure) => measure !== lens);

  return (
    <>
      <main className="min-h-0 flex-1 overflow-auto px-4 py-4">
        <div className="mx-auto max-w-3xl">
          <section aria-label={longDay(day.day)} className="flex items-end justify-between gap-4">
            <p>
              <span className="block font-title text-huge leading-none font-bold">
                {left !== undefined ? amount(lens, Math.abs(left)) : eaten ? amount(lens, eaten.value) : "–"}
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
                      {amount(measure, Math.abs(rest))} {unitOf(measure)}
                    </b>{" "}
                    <span className="text-sm text-soft">
                      {t(rest < 0 ? "pastOf" : isFloor ? "toGo" : "leftOf", {
                        measure: measure === "energy" ? t("app:energy") : t(`app:measures.${measure}`),
                      })}
                    </span>
                  </li>
                );
              })}
            </ul>
          </section>
          <div className="mt-4 mb-1">
            <Ruler
              day={laid}
              aim={aim}
              measure={lens}
              length={tapeLength(aim, [day], lens)}
              height={64}
              label={t("dayLabel", {
                name: view.name,
                day: longDay(day.day),
                eaten: eaten ? amount(lens, eaten.value) : "0",
                sum: amount(lens, day.sums[lens]?.value ?? 0),
                unit: unitOf(lens),
              })}
            />
          </div>
          <p className="mb-4 text-right text-sm text-soft">
            {t("whole", { sum: amount(lens, day.sums[lens]?.value ?? 0), unit: unitOf(lens) })}
            {whole.look !== "open" && (
              <>
                {" · "}
                <b className={whole.look === "out" ? "text-brick" : "text-sea"}>{whole.words}</b>
              </>
            )}
          </p>

          <h2 className="mb-2 text-lg">{t("next")}</h2>
          {waiting.length === 0 && (
            <p className="mb-4 text-soft">
              {t(done.length > 0 ? "nothingMore" : "nothing")}{" "}
              <Link to="/plan" className="link">
                {t("toPlan")}
              </Link>
            </p>
          )}
          <ul className="space-y-2">
            {waiting.map((item, i) => (
              <li key={item.id} className="grid grid-cols-[1fr_auto] items-stretch gap-2">
                <div className="min-w-0">
                  {item.never && <NeverMark t={t} name={view.name} why={item.never} />}
                  <ItemFace item={item} lens={lens} />
                </div>
                {item.hold ? (
                  <button
                    className="btn"
                    onClick={() =>
                      void change(
                        () => takeOff({ headers: seenDays(where), path: { id: item.id } }),
                        t("letGo", { what: holdWords(t, item.hold!) }),
                      )
                    }
                  >
                    {t("release")}
                  </button>
                ) : item.batchId ? (
                  <Link to={`/pack/${item.batchId}`} className="btn min-w-24">
                    {t("pack")}
                  </Link>
                ) : (
                  <span className="flex gap-1">
                    {item.boxId && (
                      <button
                        className="btn"
                        aria-expanded={parted === item.id}
                        aria-label={`${t("part.open")}: ${item.name}`}
                        onClick={() => setParted(parted === item.id ? null : item.id)}
                      >
                        {t("part.open")}
                      </button>
                    )}
                    <button
                      className={`${i === firstReady ? "btn-next" : "btn"} min-w-24`}
                      onClick={() => void mark(item, true)}
                      aria-label={`${t("ate")}: ${item.name}`}
                    >
                      {t("ate")}
                    </button>
                  </span>
                )}
                {parted === item.id && (
                  <PartOfBox item={item} onAte={(eaten) => void markPart(item, eaten)} />
                )}
                {i === firstReady && item.boxId && (
                  <p className="col-span-2 text-sm">
                    {t("heat")} <span className="text-xs text-soft">{t("heatSource")}</span>
                  </p>
                )}
              </li>
            ))}
          </ul>

          {done.length > 0 && <h2 className="mt-6 mb-2 text-lg">{t("eaten")}</h2>}
          <ul className="space-y-2">
            {done.map((item) => (
              <li key={item.id} className="grid grid-cols-[1fr_auto_auto] items-center gap-3">
                <div className="min-w-0">
                  <ItemFace item={item} lens={lens} />
                  <p className="mt-1 flex">
                    <AmountField
                      name={item.text ?? item.name}
                      text={item.text}
                      weight={item.grams}
                      pieces={item.partOf === null ? item.pieces : null}
                      onAmend={(text) => amend(item, text)}
                    />
                  </p>
                </div>
                <span className="font-title font-bold">{clock(item.eatenAt!)}</span>
                <button
                  className="min-h-11 text-sm text-soft underline"
                  onClick={() => void mark(item, false)}
                  aria-label={`${t("notEaten")}: ${item.name}`}
                >
                  {t("app:undo")}
                </button>
              </li>
            ))}
          </ul>
        </div>
      </main>
      <footer className="border-t border-rim px-4 pt-3 pb-2">
        <div className="mx-auto max-w-3xl">
          <DayEntry
            {...where}
            eaten
            label={t("addLabel")}
            hint={t("addHint")}
            action={t("add")}
            lens={lens}
            done={(what) => t("added", { name: what })}
          />
        </div>
      </footer>
    </>
  );
}

function ItemFace({ item, lens }: { item: ItemView; lens: Measure }) {
  const { t } = useWords("eat");
  const second: Measure = lens === "energy" ? "protein" : "energy";
  if (item.hold)
    return (
      <span className="kept block min-h-12 min-w-0 rounded-md border border-dashed border-sea px-3 py-1">
        <span className="block font-semibold">
          {t("plan:hold.for", { slot: item.slot ?? t("plan:hold.later") })}
        </span>
        <span className="text-sm">
          {holdWords(t, { ...item.hold, amount: item.figures[item.hold.measure]?.value ?? 0 })}
        </span>
      </span>
    );
  const words = (
    <>
      <span className="block truncate font-semibold">
        {item.name}
        {item.isForGuests && <span className="text-sm font-normal"> {t("plan:guests.mark")}</span>}
      </span>
      {item.isOver && (
        <b className="block text-sm">
          <span aria-hidden className="hatched mr-1 inline-block h-3 w-1.5" />
          {t("app:isOver")}
        </b>
      )}
      <span className="text-sm">
        <Amount measure={lens} figure={item.figures[lens]} className="[&_*]:text-inherit" /> ·{" "}
        <Amount measure={second} figure={item.figures[second]} className="[&_*]:text-inherit" />{" "}
        {second === "protein" && t("app:measures.protein")} · {item.batchId ? `${t("app:about")} ` : ""}
        {item.partOf === null
          ? [
              ...(item.pieces ? [piecesOf(t, item.pieces)] : []),
              `${grams(Math.round(item.grams))} g`,
              ...(item.volume ? [item.volume] : []),
            ].join(" · ")
          : t("part.some", {
              part: grams(Math.round(item.grams)),
              whole: grams(Math.round(item.partOf!)),
            })}
      </span>
    </>
  );
  return item.letters !== null && item.tint !== null ? (
    <Tape
      letters={item.letters}
      tint={item.tint}
      className={`min-h-12 min-w-0 ${item.batchId ? "ahead" : ""}`}
    >
      {words}
    </Tape>
  ) : (
    <span className="block min-h-12 min-w-0 rounded-md border border-line bg-panel px-3 py-1">{words}</span>
  );
}

type T = TFunction;
const wordOf = (t: T, measure: Measure) =>
  measure === "energy"
    ? "kcal"
    : measure === "points"
      ? t("app:measures.points")
      : `g ${t(`app:measures.${measure}`)}`;
