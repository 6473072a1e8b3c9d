import { useRef, useState } from "react";
import { askScale, troubleOf, type ScaleReading, type ScaleWish } from "../../api";
import { useWords } from "../../app/i18n";
import { useSay } from "../../app/notices";
import { useDevices, useLive } from "../../devices/useDevices";
import { hear, nothingHeard, type Heard, type Mark } from "./filling";
import { ring } from "./sound";

/** Something that is to be put on the scale: what it is to get, and what stands there already. */
export interface Target {
  /** Null while it is not worked out. */
  mark: Mark | null;
  /** Grams that stand on the scale before anything is put in: the empty box, and what is in it. */
  base: number;
  /** What is said when it is taken. */
  took: (grams: number) => string;
}

const soundKey = "tern.pack.sound";

/**
 * One target after another from the scale: each is taken at its mark, with a tone, and the next that is open comes by itself. What is in a
 * box already is taken off; set to zero with that box on it, the scale counts from there.
 */
export function useTaking({
  targets,
  isOpen,
  keep,
}: {
  targets: Target[];
  isOpen: (i: number) => boolean;
  keep: (i: number, grams: number) => void;
}) {
  const { t } = useWords("pack");
  const say = useSay();
  // The next that is open after this one, round from the first again; -1 where none is.
  const openAfter = (from: number) =>
    targets.map((_, i) => (from + 1 + i) % targets.length).find((i) => i !== from && isOpen(i)) ?? -1;
  const [at, setAt] = useState(() => openAfter(-1));
  const [sounds, setSounds] = useState(() => localStorage.getItem(soundKey) !== "off");
  const [said, setSaid] = useState("");
  // What stood on the scale when it was set to zero.
  const [zero, setZero] = useState(0);
  const [isStill, setIsStill] = useState(false);
  const heard = useRef<Heard>(nothingHeard);
  const [lastTaken, setLastTaken] = useState(-1);
  const baseOf = (i: number) => targets[i]?.base ?? targets[lastTaken]?.base ?? 0;

  const take = (i: number, weight: number, isAgain = false) => {
    const target = targets[i];
    if (!target) return i;
    keep(i, weight);
    setSaid(target.took(weight));
    if (isAgain) return at;
    setLastTaken(i);
    if (sounds) ring();
    const next = openAfter(i);
    setAt(next);
    return next;
  };
  const told = ({ grams: weight, state }: ScaleReading) => {
    const mark = targets[at]?.mark;
    if (weight === null || (!mark && heard.current.still === null)) return;
    const net = weight + zero - baseOf(at);
    const [next, taken] = hear(
      heard.current,
      net,
      state === "stable",
      mark ?? { target: 0, below: 0, above: 0 },
    );
    heard.current = next;
    setIsStill(next.still !== null);
    if (!taken) return;
    if (taken.isAgain) take(lastTaken, taken.grams + baseOf(at) - baseOf(lastTaken), true);
    else if (mark) {
      const on = take(at, taken.grams);
      if (next.still !== null) stands(on, taken.grams + baseOf(at));
    }
  };
  // What stands on the scale is not taken for the next one.
  const stands = (next: number, there: number, isFinal = false) => {
    const net = there - baseOf(next);
    heard.current = { ...nothingHeard, still: net > 0 ? net : null, isFinal };
    setIsStill(net > 0);
  };
  const hasScale = useDevices().data?.hasScale ?? false;
  const { scale, probe } = useLive(hasScale, told);
  const there = scale?.grams == null ? null : scale.grams + zero;
  return {
    at,
    said,
    /** What was taken last still stands there. */
    isStill,
    isBoxCounted: baseOf(at) > 0,
    sounds,
    scale,
    probe,
    live: there === null ? null : there - baseOf(at),
    toggleSounds: () => {
      localStorage.setItem(soundKey, sounds ? "off" : "on");
      setSounds(!sounds);
    },
    pick: (i: number) => {
      heard.current = { ...heard.current, isFinal: true };
      setAt(i);
    },
    takeShown: (weight: number, isTyped: boolean) => stands(take(at, weight), there ?? 0, isTyped),
    ask: (wish: ScaleWish) => {
      if (wish === "tare") {
        heard.current = nothingHeard;
        setIsStill(false);
        setZero(there !== null && there > 0 && there >= baseOf(at) / 2 ? baseOf(at) : 0);
      }
      void askScale({ body: { wish } }).catch((thrown: unknown) =>
        say(troubleOf(thrown, t("app:silent")).detail ?? "", { trouble: true }),
      );
    },
  };
}
