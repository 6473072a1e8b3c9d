import { useEffect, useState } from "react";

/** @returns the value once it has not changed for so many milliseconds. */
export function useSettled<T>(value: T, milliseconds: number): T {
  const [settled, setSettled] = useState(value);
  useEffect(() => {
    const timer = window.setTimeout(() => setSettled(value), milliseconds);
    return () => window.clearTimeout(timer);
  }, [value, milliseconds]);
  return settled;
}
