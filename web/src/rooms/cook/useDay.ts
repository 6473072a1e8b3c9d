import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import {
  getKitchen,
  getPrepDay,
  layPrepDay,
  listPrepDays,
  type KitchenEquipment,
  type PrepDayWishes,
} from "../../api";
import { queryKeys } from "../../app/queryKeys";

const secondsToLook = 3;
const aMoment = 1500;

export const usePrepDays = () =>
  useQuery({ queryKey: queryKeys.prepDays(), queryFn: async () => (await listPrepDays()).data! });

export const usePrepDay = (day: string | undefined) =>
  useQuery({
    queryKey: queryKeys.prepDay(day),
    queryFn: async () => (await getPrepDay({ path: { day: day! } })).data!,
    enabled: day !== undefined,
  });

export const useKitchenOf = () =>
  useQuery({ queryKey: queryKeys.equipment(), queryFn: async () => (await getKitchen()).data! });

/**
 * A day laid out: the shortest that was found; while that takes longer than a moment, what comes at once. While another is looked for, the last one stays.
 */
export function useLaidDay(
  day: string | undefined,
  wishes: PrepDayWishes | undefined,
  equipment: KitchenEquipment | undefined,
) {
  const asked = (seconds: number) => ({
    queryKey: queryKeys.laidDay(day, seconds, wishes, equipment),
    queryFn: async ({ signal }: { signal: AbortSignal }) =>
      (await layPrepDay({ path: { day: day! }, body: { seconds, wishes, equipment }, signal })).data!,
    enabled: day !== undefined && wishes !== undefined && equipment !== undefined,
    placeholderData: keepPreviousData,
  });
  const first = useQuery(asked(0));
  const best = useQuery(asked(secondsToLook));
  const key = JSON.stringify([day, wishes, equipment]);
  const [waitedFor, setWaitedFor] = useState("");
  useEffect(() => {
    const timer = window.setTimeout(() => setWaitedFor(key), aMoment);
    return () => window.clearTimeout(timer);
  }, [key]);
  const isBest = best.data !== undefined && !best.isPlaceholderData;
  const isFirst = first.data !== undefined && !first.isPlaceholderData && waitedFor === key;
  return {
    data: !isBest && isFirst ? first.data : best.data,
    isLooking: !isBest,
    error: best.error ?? first.error,
    refetch: () => {
      void first.refetch();
      void best.refetch();
    },
  };
}
