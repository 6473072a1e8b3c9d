import { keepPreviousData, useQuery } from "@tanstack/react-query";
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

/** A day laid out: what comes at once, and soon after the shortest that was found. */
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
  });
  const first = useQuery({ ...asked(0), placeholderData: keepPreviousData });
  const best = useQuery(asked(secondsToLook));
  return {
    data: best.data ?? first.data,
    isLooking: best.isFetching && !best.data,
    error: best.error ?? first.error,
    refetch: () => {
      void first.refetch();
      void best.refetch();
    },
  };
}
