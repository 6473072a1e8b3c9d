import {
  DndContext,
  DragOverlay,
  MouseSensor,
  pointerWithin,
  TouchSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
} from "@dnd-kit/core";
import { addDays, parseISO } from "date-fns";
import { ChevronLeft, ChevronRight } from "lucide-react";
import { lazy, Suspense, useEffect, useEffectEvent, useLayoutEffect, useRef, useState } from "react";
import { useWords } from "../../app/i18n";
import { Link, useSearchParams } from "react-router";
import type { EaterWeekView } from "../../api";
import { EaterTabs, Header, useCurrentEater, useEatersQuery, useOverviewQuery } from "../../app/Header";
import { isTyping } from "../../app/keys";
import { useKitchen } from "../../app/kitchen";
import { measureFor, useLens } from "../../app/lens";
import { isoDay, longDay, shortDay, weekWords } from "../../ui/format";
import { tapeLength } from "../../ui/ticks";
import { Side } from "../../ui/Side";
import { Empty, Failed, lacking, Loading } from "../../ui/states";
import { DayDrawer } from "./DayDrawer";
import { DayEntry } from "./DayEntry";
import { DayRow, type RowActs } from "./DayRow";
import { FitPanel } from "./FitPanel";
import { DoneAhead } from "./DoneAhead";
import { Shelf } from "./Shelf";
import { Unpacked } from "./Unpacked";
import { WeekDay } from "./WeekDay";
import { WeekSummary } from "./WeekSummary";
import { useCarry } from "./useCarry";
import { dayKey, useFit } from "./useFit";
import { useAhead, usePlanMoves, useWeek, type Carried } from "./usePlan";

// Only who asks for a menu needs it.
const MenuPanel = lazy(async () => ({ default: (await import("./MenuPanel")).MenuPanel }));

// Made once: new ones at each drawing would draw every block of the week anew.
const byMouse = { activationConstraint: { distance: 5 } };
const byTouch = { activationConstraint: { delay: 160, tolerance: 8 } };

/** Where on a ruler something was dropped: before the first block whose middle lies right of it. */
function placeUnder(dayKey: string, x: number, movedId: string): number {
  const blocks = [...document.querySelectorAll<HTMLElement>(`[data-day="${dayKey}"] [data-item]`)].filter(
    (block) => block.dataset.item !== movedId,
  );
  const after = blocks.findIndex((block) => {
    const { left, width } = block.getBoundingClientRect();
    return x < left + width / 2;
  });
  return after < 0 ? blocks.length : after;
}

const panels = ["fit", "menu"] as const;

export default function PlanRoom() {
  const { t } = useWords("plan");
  const [search, setSearch] = useSearchParams();
  const eatersQuery = useEatersQuery();
  const overviewQuery = useOverviewQuery();
  const today = overviewQuery.data?.today;
  const day = search.get("week") ?? today;
  const weekQuery = useWeek(day);
  const week = weekQuery.data;
  const current = useCurrentEater(true);
  const { lens: through } = useKitchen();
  const lens = useLens();
  const moves = usePlanMoves(week);
  const shown: EaterWeekView[] =
    week?.eaters.filter(({ eaterId }) => current === "all" || eaterId === current) ?? [];
  const carry = useCarry({ eaters: shown, lay: moves.lay, takeOff: moves.takeOff });
  const [dragged, setDragged] = useState<Carried | null>(null);
  const [foodDay, setFoodDay] = useState<string | null>(null);
  const [isBenchOpen, setBenchOpen] = useState(false);
  // Which panel is open stands in the address: links lead to it.
  const panel = panels.find((one) => one === search.get("panel")) ?? null;
  const ahead = useAhead();
  const isFitting = panel === "fit";
  const [opened, setOpened] = useState<{ eaterId: string; day: string } | null>(null);
  const fitting = useFit();
  const acts = useRef<RowActs>(null!);
  useLayoutEffect(() => {
    acts.current = {
      lift: carry.lift,
      takeOff: (what) => void moves.takeOff(what),
      land: (to) => void carry.land(to),
      size: moves.size,
      open: setOpened,
    };
  }, [carry, moves]);
  const sensors = useSensors(useSensor(MouseSensor, byMouse), useSensor(TouchSensor, byTouch));

  const go = (to: Record<string, string | null>) => {
    const kept = Object.entries({ ...Object.fromEntries(search), ...to });
    setSearch(Object.fromEntries(kept.flatMap(([name, value]) => (value ? [[name, value]] : []))));
  };
  const turn = (weeks: number) => week && go({ week: isoDay(addDays(parseISO(week.start), 7 * weeks)) });
  const onKey = useEffectEvent((event: KeyboardEvent) => {
    if (isTyping(event.target) || event.ctrlKey || event.metaKey) return;
    if (event.key === "[") turn(-1);
    if (event.key === "]") turn(1);
  });
  useEffect(() => {
    const listen = (event: KeyboardEvent) => onKey(event);
    window.addEventListener("keydown", listen);
    return () => window.removeEventListener("keydown", listen);
  }, []);

  // A week that is longer than the screen begins with today.
  const start = week?.start;
  useEffect(() => {
    if (start && current)
      document.querySelector(`[data-day$="|${today}"]`)?.closest("li")?.scrollIntoView({ block: "start" });
  }, [start, current, today]);

  const failed = lacking(eatersQuery, overviewQuery, weekQuery);
  if (failed) return <Failed isPage {...failed} />;
  if (!week || (week.eaters.length > 0 && !current)) return <Loading isPage />;
  if (week.eaters.length === 0)
    return (
      <Empty isPage title={t("noEaters")}>
        <p>{t("noEatersText")}</p>
        <Link to="/begin" className="btn-next">
          {t("begin")}
        </Link>{" "}
        <Link to="/aim" className="link">
          {t("toAim")}
        </Link>
      </Empty>
    );

  // Who has been taken off the list meanwhile, by another hand, has no measure of their own any more.
  const measureOf = (id: string) => {
    const eater = week.eaters.find(({ eaterId }) => eaterId === id);
    return eater ? measureFor(through, eater.aim) : lens;
  };
  const end = ({ active, over, activatorEvent, delta }: DragEndEvent) => {
    setDragged(null);
    const what = active.data.current as Carried | undefined;
    if (!what || !over) return;
    if (over.id === "shelf") return void (what.kind === "item" && moves.takeOff(what));
    const [eaterId, onDay] = String(over.id).split("|") as [string, string];
    const started =
      activatorEvent instanceof MouseEvent
        ? activatorEvent.clientX
        : ((activatorEvent as TouchEvent).touches[0]?.clientX ?? 0);
    void moves.lay(what, {
      eaterId,
      day: onDay,
      place: placeUnder(String(over.id), started + delta.x, what.id),
    });
  };

  const open = (next: typeof panel) => {
    if (isFitting) fitting.drop();
    go({ panel: next, recipe: null });
  };
  const first = shown[0]!;
  const openDays = first.days.map(({ day: date }) => date).filter((date) => date >= week.today);
  const drafted = new Map(isFitting ? (fitting.fit?.days.map((one) => [dayKey(one), one.after]) ?? []) : []);
  const compact = shown.length > 1;
  const second = lens === "energy" ? "protein" : "energy";
  const layOn = foodDay ?? (first.days.some((d) => d.day === week.today) ? week.today : week.start);

  return (
    <>
      <Header>
        <h1 className="sr-only">{t("app:rooms.plan")}</h1>
        <div className="flex items-center gap-1">
          <button className="btn border-0 px-1" aria-label={t("app:week.before")} onClick={() => turn(-1)}>
            <ChevronLeft size={20} aria-hidden />
          </button>
          <span className="min-w-36 text-center font-title text-lg font-bold whitespace-nowrap">
            {weekWords(week.start)}
          </span>
          <button className="btn border-0 px-1" aria-label={t("app:week.after")} onClick={() => turn(1)}>
            <ChevronRight size={20} aria-hidden />
          </button>
        </div>
        <EaterTabs withAll />
        <span className="flex gap-2">
          <button
            className="btn"
            aria-expanded={panel === "menu"}
            disabled={openDays.length === 0}
            onClick={() => open(panel === "menu" ? null : "menu")}
          >
            {t("menu.open")}
          </button>
          <button
            className={isFitting ? "btn" : "btn-next"}
            aria-expanded={isFitting}
            disabled={openDays.length === 0}
            onClick={() => open(isFitting ? null : "fit")}
          >
            {t("fit.open")}
          </button>
        </span>
      </Header>
      <DndContext
        sensors={sensors}
        collisionDetection={pointerWithin}
        onDragStart={({ active }) => {
          carry.drop();
          setDragged((active.data.current as Carried | undefined) ?? null);
        }}
        onDragCancel={() => setDragged(null)}
        onDragEnd={end}
        accessibility={{ screenReaderInstructions: { draggable: t("carryHint") } }}
      >
        <div className="flex min-h-0 flex-1">
          <main className="min-w-0 flex-1 overflow-auto px-4 py-3">
            {carry.carried && (
              <p className="sticky top-0 z-10 mb-2 flex items-center gap-3 rounded-md border border-next bg-panel px-3 py-1 text-sm">
                <b>{carry.carried.name}</b> {t("carry.tap")}
                <button className="btn ml-auto" onClick={carry.drop}>
                  {t("carry.cancel")}
                </button>
                {carry.carried.kind === "item" && (
                  <button className="btn" onClick={() => void carry.putAway(carry.carried!)}>
                    {carry.carried.isBox ? t("shelf.back") : t("carry.off")}
                  </button>
                )}
              </p>
            )}
            <ul className={compact ? "space-y-4" : "space-y-2"}>
              {first.days.map(({ day: date }, i) => (
                <WeekDay
                  key={date}
                  date={date}
                  today={week.today}
                  lens={through}
                  open={
                    compact
                      ? null
                      : {
                          label: t("openDay", { day: longDay(date), name: first.name }),
                          run: () => setOpened({ eaterId: first.eaterId, day: date }),
                        }
                  }
                >
                  {(looked) =>
                    shown.map((eater) => (
                      <DayRow
                        key={eater.eaterId}
                        eater={eater}
                        day={drafted.get(`${eater.eaterId}|${date}`) ?? eater.days[i]!}
                        isDraft={drafted.has(`${eater.eaterId}|${date}`)}
                        lens={measureFor(looked, eater.aim)}
                        length={tapeLength(eater.aim, eater.days, measureFor(looked, eater.aim))}
                        compact={compact}
                        carried={carry.carried}
                        landing={
                          carry.target?.eaterId === eater.eaterId && carry.target.day === date
                            ? carry.target.place
                            : null
                        }
                        acts={acts}
                      />
                    ))
                  }
                </WeekDay>
              ))}
            </ul>
          </main>
          <Side
            isOpen={(panel !== null || isBenchOpen) && !carry.carried}
            close={() => {
              open(null);
              setBenchOpen(false);
            }}
            label={t(panel ? `${panel}.title` : "bench.title")}
            className="space-y-5 md:w-[250px]"
          >
            {isFitting && openDays.length > 0 && (
              <FitPanel
                from={openDays[0]!}
                to={openDays.at(-1)!}
                days={openDays}
                eaterIds={current === "all" ? null : [current!]}
                fit={fitting.fit}
                trouble={fitting.trouble}
                measureOf={measureOf}
                onBegin={(body) => void fitting.begin(body)}
                onStop={() => void fitting.stop()}
                onTake={(days) => void fitting.take(days)}
                onDrop={fitting.drop}
                hasAhead={week.unpacked.some(({ state }) => state === "planned")}
                close={() => open(null)}
              />
            )}
            {panel === "menu" && openDays.length > 0 && (
              <Suspense fallback={<Loading />}>
                <MenuPanel
                  key={week.start}
                  from={openDays[0]!}
                  to={openDays.at(-1)!}
                  today={week.today}
                  recipeId={search.get("recipe")}
                  onPlan={ahead.plan}
                  close={() => open(null)}
                />
              </Suspense>
            )}
            <Shelf
              shelf={week.shelf}
              eaterId={first.eaterId}
              lens={lens}
              second={second}
              carried={carry.carried}
              onLift={(what) => carry.lift(what)}
            />
            <Unpacked
              batches={week.unpacked}
              today={week.today}
              eaterId={first.eaterId}
              lens={lens}
              second={second}
              carried={carry.carried}
              onLift={(what) => carry.lift(what)}
              onReplan={(batch, onDay, portions) => void ahead.replan(batch, onDay, portions)}
              onDiscard={(batch) => void ahead.discard(batch)}
            />
            <DoneAhead />
            {week.leftOut.length > 0 && (
              <section aria-labelledby="left-out-title" className="text-sm">
                <h2 id="left-out-title" className="mb-1 text-base text-brick">
                  {t("leftOut.title")}
                </h2>
                <ul>
                  {week.leftOut.map(({ eaterId, day: date, name }, i) => (
                    <li key={i}>
                      {t("leftOut.item", {
                        name,
                        day: shortDay(date),
                        eater: week.eaters.find((eater) => eater.eaterId === eaterId)?.name ?? "",
                      })}
                    </li>
                  ))}
                </ul>
              </section>
            )}
            <section aria-labelledby="plain-title">
              <h2 id="plain-title" className="mb-2 flex items-center gap-2 text-base">
                {t("plain.title")}
                <select
                  aria-label={t("plain.day")}
                  className="field ml-auto min-h-8 text-sm"
                  value={layOn}
                  onChange={(event) => setFoodDay(event.target.value)}
                >
                  {first.days.map(({ day: date }) => (
                    <option key={date} value={date}>
                      {shortDay(date)}
                    </option>
                  ))}
                </select>
              </h2>
              <DayEntry
                eaterId={first.eaterId}
                day={layOn}
                label={t("plain.label")}
                hint={t("plain.hint")}
                action={t("plain.add")}
                lens={lens}
              />
            </section>
            <WeekSummary shown={shown} eater={current} />
          </Side>
        </div>
        <p className="flex gap-2 border-t border-rim px-3 py-2 md:hidden">
          <button className="btn flex-1" aria-expanded={isBenchOpen} onClick={() => setBenchOpen(true)}>
            {t("bench.open")}
          </button>
        </p>
        {opened && (
          <DayDrawer
            {...opened}
            name={week.eaters.find(({ eaterId }) => eaterId === opened.eaterId)?.name ?? ""}
            week={week}
            lens={measureOf(opened.eaterId)}
            close={() => setOpened(null)}
          />
        )}
        <DragOverlay dropAnimation={null}>
          {dragged && (
            <span className="rounded-md border border-rim bg-panel px-3 py-2 text-sm font-bold shadow-lg">
              {dragged.name}
            </span>
          )}
        </DragOverlay>
      </DndContext>
    </>
  );
}
