import { useEffect, useEffectEvent, useRef, useState } from "react";
import { useWords } from "../../app/i18n";
import type { EaterWeekView } from "../../api";
import { useSay } from "../../app/notices";
import { longDay } from "../../ui/format";
import type { Carried, Place } from "./usePlan";

interface Options {
  eaters: EaterWeekView[];
  lay: (carried: Carried, to: Place) => Promise<boolean>;
  takeOff: (carried: Carried) => Promise<boolean>;
}

/** Whether a finger points here: then there are no arrows to choose a day with. */
export const isTouch = () => window.matchMedia("(pointer: coarse)").matches;

/** Carrying a box by keyboard or by two taps: lift, choose a day and a place, lay down or put back. */
export function useCarry({ eaters, lay, takeOff }: Options) {
  const { t } = useWords("plan");
  const say = useSay();
  const [carried, setCarried] = useState<Carried | null>(null);
  const [target, setTarget] = useState<Place | null>(null);
  const focusNext = useRef<string | null>(null);
  const [, showAgain] = useState(0);

  // What was in hand keeps the focus where it lands, once the plan has been fetched anew.
  useEffect(() => {
    if (!focusNext.current) return;
    const element = document.querySelector<HTMLElement>(`[data-focus="${focusNext.current}"]`);
    if (element) {
      element.focus();
      focusNext.current = null;
    }
  });

  const drop = () => {
    setCarried(null);
    setTarget(null);
  };

  const lift = (what: Carried, from?: Place) => {
    if (carried?.id === what.id) return drop();
    const item = eaters
      .flatMap(({ days }) => days)
      .flatMap(({ items }) => items)
      .find(({ id }) => id === what.id);
    if (item?.eatenAt) return say(t("eatenStays"));
    setCarried(what);
    const first = eaters[0];
    const today = first?.days.find(({ items }) => items.every(({ eatenAt }) => !eatenAt)) ?? first?.days[0];
    setTarget(
      from ?? (first && today ? { eaterId: first.eaterId, day: today.day, place: today.items.length } : null),
    );
    say(t(isTouch() ? "carry.lifted_touch" : "carry.lifted", { name: what.name }));
  };

  const land = async (to: Place) => {
    if (!carried) return;
    const what = carried;
    drop();
    if (!(await lay(what, to))) return;
    // All that was fetched anew may be on the screen already.
    focusNext.current = what.kind === "item" ? `item|${what.id}` : null;
    showAgain((times) => times + 1);
  };

  const putAway = async (what: Carried) => {
    drop();
    if (what.kind === "item") await takeOff(what);
  };

  const step = (days: number, places: number) => {
    if (!target) return;
    const lanes =
      eaters.length > 1
        ? eaters[0]!.days.flatMap(({ day }) => eaters.map(({ eaterId }) => ({ eaterId, day })))
        : (eaters[0]?.days ?? []).map(({ day }) => ({ eaterId: eaters[0]!.eaterId, day }));
    const lane = lanes.findIndex(({ eaterId, day }) => eaterId === target.eaterId && day === target.day);
    const next = lanes[Math.min(Math.max(lane + days, 0), lanes.length - 1)] ?? target;
    const items =
      eaters.find(({ eaterId }) => eaterId === next.eaterId)?.days.find(({ day }) => day === next.day)
        ?.items ?? [];
    const count = items.filter(({ id }) => id !== carried?.id).length;
    const place = Math.min(Math.max((days === 0 ? target.place : count) + places, 0), count);
    setTarget({ ...next, place });
    say(t("carry.over", { day: longDay(next.day), place: place + 1, of: count + 1 }));
  };

  const onKey = useEffectEvent((event: KeyboardEvent) => {
    if (!carried) return;
    const moves: Record<string, () => void> = {
      ArrowUp: () => step(-1, 0),
      ArrowDown: () => step(1, 0),
      ArrowLeft: () => step(0, -1),
      ArrowRight: () => step(0, 1),
      Enter: () => void (target && land(target)),
      Escape: () => {
        drop();
        say(t("carry.dropped"));
      },
      Delete: () => void putAway(carried),
    };
    const move = moves[event.key];
    if (!move) return;
    event.preventDefault();
    event.stopPropagation();
    move();
  });
  const isCarrying = carried !== null;
  useEffect(() => {
    if (!isCarrying) return;
    const listen = (event: KeyboardEvent) => onKey(event);
    window.addEventListener("keydown", listen, true);
    return () => window.removeEventListener("keydown", listen, true);
  }, [isCarrying]);

  return { carried, target, lift, land, drop, putAway };
}
