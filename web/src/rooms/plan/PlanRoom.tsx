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
import { useEffect, useEffectEvent, useState } from "react";
import { useTranslation } from "react-i18next";
import { Link, useSearchParams } from "react-router";
import type { EaterWeekView } from "../../api";
import { EaterTabs, Header, UndoButtons, useCurrentEater, useOverview } from "../../app/Header";
import { isTyping } from "../../app/keys";
import { useKitchen } from "../../app/kitchen";
import { FoodEntry } from "../../ui/FoodEntry";
import { amount, dayNumber, isoDay, shortDay, weekday } from "../../ui/format";
import { tapeLength } from "../../ui/Ruler";
import { Empty, Failed, Loading } from "../../ui/states";
import { DayRow } from "./DayRow";
import { Shelf } from "./Shelf";
import { useCarry } from "./useCarry";
import { usePlanMoves, useWeek, type Carried } from "./usePlan";

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

export default function PlanRoom() {
  const { t } = useTranslation("plan");
  const [search, setSearch] = useSearchParams();
  const today = useOverview()?.today;
  const day = search.get("week") ?? today;
  const { data: week, error, refetch } = useWeek(day);
  const current = useCurrentEater(true);
  const { lens } = useKitchen();
  const moves = usePlanMoves(week);
  const shown: EaterWeekView[] =
    week?.eaters.filter(({ eaterId }) => current === "all" || eaterId === current) ?? [];
  const carry = useCarry({ eaters: shown, lay: moves.lay, takeOff: moves.takeOff });
  const [dragged, setDragged] = useState<Carried | null>(null);
  const [foodDay, setFoodDay] = useState<string | null>(null);
  const sensors = useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: 5 } }),
    useSensor(TouchSensor, { activationConstraint: { delay: 160, tolerance: 8 } }),
  );

  const turn = (weeks: number) =>
    week && setSearch({ week: isoDay(addDays(parseISO(week.start), 7 * weeks)) });
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

  if (error && !week) return <Failed error={error} retry={() => void refetch()} />;
  if (!week || (week.eaters.length > 0 && !current)) return <Loading />;
  if (week.eaters.length === 0)
    return (
      <Empty isPage title={t("noEaters")}>
        <p>{t("noEatersText")}</p>
        <Link to="/aim" className="btn-next">
          {t("toAim")}
        </Link>
      </Empty>
    );

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

  const first = shown[0]!;
  const compact = shown.length > 1;
  const lengths = new Map(shown.map((eater) => [eater.eaterId, tapeLength(eater.aim, eater.days, lens)]));
  const second = lens === "energy" ? "protein" : "energy";
  const layOn = foodDay ?? (first.days.some((d) => d.day === week.today) ? week.today : week.start);

  return (
    <>
      <Header actions={<UndoButtons />}>
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
        <div className="flex min-h-0 flex-1 max-md:flex-col max-md:overflow-auto">
          <main className="min-w-0 flex-1 overflow-auto px-4 py-3 max-md:overflow-visible">
            {carry.carried && (
              <p className="sticky top-0 z-10 mb-2 flex items-center gap-3 rounded-md border border-next bg-panel px-3 py-1 text-sm">
                <b>{carry.carried.name}</b> {t("carry.tap")}
                <button className="btn ml-auto" onClick={carry.drop}>
                  {t("carry.cancel")}
                </button>
                {carry.carried.kind === "item" && (
                  <button className="btn" onClick={() => void carry.putAway(carry.carried!)}>
                    {carry.carried.isBox ? t("shelf.back") : t("app:close")}
                  </button>
                )}
              </p>
            )}
            <ul className={compact ? "space-y-4" : "space-y-2"}>
              {first.days.map(({ day: date }, i) => (
                <li key={date} className="grid grid-cols-[3.5rem_1fr] gap-x-2">
                  <p className={`pt-1 leading-tight ${date === week.today ? "text-sea" : ""}`}>
                    <span className="block font-title text-lg font-bold">{weekday(date)}</span>
                    <span className="text-sm">
                      {date === week.today ? t("app:state.eat") : dayNumber(date)}
                    </span>
                  </p>
                  <div className="min-w-0 space-y-1">
                    {shown.map((eater) => (
                      <DayRow
                        key={eater.eaterId}
                        eater={eater}
                        day={eater.days[i]!}
                        lens={lens}
                        length={lengths.get(eater.eaterId)!}
                        compact={compact}
                        carried={carry.carried}
                        target={carry.target}
                        onLift={carry.lift}
                        onTakeOff={(what) => void moves.takeOff(what)}
                        onLand={(to) => void carry.land(to)}
                      />
                    ))}
                  </div>
                </li>
              ))}
            </ul>
          </main>
          <aside className="w-[250px] shrink-0 space-y-5 overflow-auto border-l border-rim bg-bench p-3 max-md:w-full max-md:border-t max-md:border-l-0">
            <Shelf
              shelf={week.shelf}
              eaterId={first.eaterId}
              lens={lens}
              second={second}
              carried={carry.carried}
              onLift={(what) => carry.lift(what)}
            />
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
              <FoodEntry
                label={t("plain.label")}
                hint={t("plain.hint")}
                action={t("plain.add")}
                rule={first.aim.rule}
                lens={lens}
                onAdd={(text, foodId) => moves.layFood(text, foodId, { eaterId: first.eaterId, day: layOn })}
              />
            </section>
            <section aria-labelledby="week-title" className="text-sm">
              <h2 id="week-title" className="mb-1 text-base">
                {t("week.title")}
              </h2>
              {shown.map((eater) => (
                <p key={eater.eaterId} className="mb-1">
                  {compact && <b>{eater.name} </b>}
                  {amount("energy", eater.sums["energy"]?.value ?? 0)}{" "}
                  <span className="text-xs text-soft">{t("week.kcal")}</span>
                  <br />
                  {amount("protein", eater.sums["protein"]?.value ?? 0)}{" "}
                  <span className="text-xs text-soft">{t("week.protein")}</span>
                  <br />
                  {t("week.days", { fit: eater.fitDays, laid: eater.laidDays })}
                </p>
              ))}
            </section>
          </aside>
        </div>
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

const weekWords = (start: string) =>
  `${shortDay(start).slice(4)} – ${shortDay(isoDay(addDays(parseISO(start), 6))).slice(4)}`;
