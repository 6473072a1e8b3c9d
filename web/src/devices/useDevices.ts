import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { getDevices, type ProbeReading, type ScaleReading } from "../api";
import { queryKeys } from "../app/queryKeys";

/** Which devices the kitchen has. */
export const useDevices = () =>
  useQuery({
    queryKey: queryKeys.devices(),
    queryFn: async () => (await getDevices()).data!,
    staleTime: Infinity,
  });

interface Live {
  scale: ScaleReading | null;
  probe: ProbeReading | null;
}

/**
 * What scale and probe show, as it comes; null for one that is lost. The browser asks again by itself where the line breaks.
 * @param onScale Told of each reading of the scale.
 */
export function useLive(isWanted: boolean, onScale?: (reading: ScaleReading) => void): Live {
  const [live, setLive] = useState<Live>({ scale: null, probe: null });
  const told = useRef(onScale);
  useEffect(() => {
    told.current = onScale;
  });
  useEffect(() => {
    if (!isWanted) return;
    const line = new EventSource("/api/devices/stream");
    const hear = (name: keyof Live) => (event: MessageEvent<string>) =>
      setLive((now) => ({ ...now, [name]: JSON.parse(event.data) as Live[typeof name] }));
    line.addEventListener("scale", hear("scale"));
    line.addEventListener("scale", (event: MessageEvent<string>) => {
      const reading = JSON.parse(event.data) as ScaleReading | null;
      if (reading) told.current?.(reading);
    });
    line.addEventListener("probe", hear("probe"));
    line.onerror = () => setLive({ scale: null, probe: null });
    return () => line.close();
  }, [isWanted]);
  return live;
}

const ouncesPerGram = 1 / 28.349523125;
const tenths = new Intl.NumberFormat("en", { minimumFractionDigits: 1, maximumFractionDigits: 1 });
const whole = new Intl.NumberFormat("en", { maximumFractionDigits: 0 });

/** As the scale's own display has it: whole grams, or ounces with a tenth. */
export const shownOn = ({ grams, unit }: ScaleReading) =>
  grams === null
    ? "–"
    : (unit === "oz" ? tenths.format(grams * ouncesPerGram) : whole.format(grams))
        .replace("-0.0", "0.0")
        .replace("-", "−");
