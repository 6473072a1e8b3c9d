import { useEffect, useState } from "react";

/** Keeps the screen on as long as this is shown. False where the browser does not let it. */
export function useAwake(isWanted: boolean) {
  const [isAwake, setIsAwake] = useState(false);
  useEffect(() => {
    if (!isWanted) return;
    let lock: WakeLockSentinel | null = null;
    let isOver = false;
    // A browser gives the screen back when the page is out of sight: it is asked again when it is seen.
    const ask = async () => {
      if (document.visibilityState !== "visible" || !("wakeLock" in navigator)) return;
      try {
        lock = await navigator.wakeLock.request("screen");
        if (isOver) void lock.release();
        else setIsAwake(true);
        lock.addEventListener("release", () => setIsAwake(false));
      } catch {
        setIsAwake(false);
      }
    };
    const seen = () => void ask();
    void ask();
    document.addEventListener("visibilitychange", seen);
    return () => {
      isOver = true;
      document.removeEventListener("visibilitychange", seen);
      void lock?.release();
    };
  }, [isWanted]);
  return isAwake;
}
