import { useEffect, useSyncExternalStore } from "react";

const every = 2500;

let bell: AudioContext | null = null;

/** One for the whole page, made when it is first needed. */
const theBell = () => (bell ??= new AudioContext());

/** Two short tones, as a kitchen timer has them. */
function strike(context: AudioContext) {
  for (const [at, pitch] of [
    [0, 880],
    [0.22, 1175],
  ] as const) {
    const [tone, volume] = [context.createOscillator(), context.createGain()];
    const start = context.currentTime + at;
    tone.frequency.value = pitch;
    volume.gain.setValueAtTime(0.0001, start);
    volume.gain.exponentialRampToValueAtTime(0.4, start + 0.02);
    volume.gain.exponentialRampToValueAtTime(0.0001, start + 0.2);
    tone.connect(volume).connect(context.destination);
    tone.start(start);
    tone.stop(start + 0.21);
  }
}

/**
 * Rings as long as it is asked to. A browser stays still until the page was touched once: then it is said, so that nobody waits for a bell that does not
 * ring.
 */
export function useBell(isRinging: boolean) {
  const context = theBell();
  const isRunning = useSyncExternalStore(
    (changed) => {
      context.addEventListener("statechange", changed);
      return () => context.removeEventListener("statechange", changed);
    },
    () => context.state === "running",
  );
  useEffect(() => {
    const touch = () => void context.resume();
    touch();
    document.addEventListener("pointerdown", touch);
    document.addEventListener("keydown", touch);
    return () => {
      document.removeEventListener("pointerdown", touch);
      document.removeEventListener("keydown", touch);
      void context.suspend();
    };
  }, [context]);
  useEffect(() => {
    if (!isRinging) return;
    const ring = () => {
      if (context.state === "running") strike(context);
      if (navigator.userActivation.hasBeenActive) navigator.vibrate?.([200, 100, 200]);
    };
    ring();
    const timer = window.setInterval(ring, every);
    return () => window.clearInterval(timer);
  }, [isRinging, context]);
  return !isRunning;
}
