import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useWords } from "../../app/i18n";
import {
  amendItem,
  discardBatch,
  getWeek,
  layBox,
  layPortion,
  moveItem,
  planBatches,
  replanBatch,
  restoreBatch,
  seen,
  takeOff,
  troubleOf,
  type EaterWeekView,
  type UnpackedView,
  type WeekView,
} from "../../api";
import { freshen } from "../../app/freshen";
import { useHistory } from "../../app/history";
import { useSay } from "../../app/notices";
import { sawDays, seenDays } from "../../app/seen";
import { grams, longDay } from "../../ui/format";
import { queryKeys } from "../../app/queryKeys";

/** A place on the plan: whose day, which day, and where in its order. */
export interface Place {
  eaterId: string;
  day: string;
  place: number;
}

/** What is being carried: a box from the shelf, a portion of a batch that is not packed yet, or an item already laid. */
export interface Carried {
  kind: "box" | "batch" | "item";
  id: string;
  name: string;
  /** For an item, whether it is a box: then taking it off puts it on the shelf. */
  isBox: boolean;
}

export const useWeek = (day: string | undefined) =>
  useQuery({
    queryKey: queryKeys.week(day),
    queryFn: async () => {
      const week = (await getWeek({ path: { day: day! } })).data!;
      sawDays(week.eaters.flatMap(daysOf), week.version);
      return week;
    },
    enabled: day !== undefined,
    placeholderData: (before) => before,
  });

const daysOf = ({ eaterId, days }: EaterWeekView) => days.map(({ day }) => ({ eaterId, day }));

/** The moves of the plan, each made by the host and each undoable. */
export function usePlanMoves(week: WeekView | undefined) {
  const { t } = useWords("plan");
  const { change } = useHistory();
  const whereLies = (id: string) =>
    week?.eaters.flatMap(({ eaterId, days }) =>
      days.filter(({ items }) => items.some((item) => item.id === id)).map(({ day }) => ({ eaterId, day })),
    ) ?? [];
  return {
    lay: (carried: Carried, to: Place) => {
      const from = whereLies(carried.id);
      return change(
        () =>
          carried.kind === "box"
            ? layBox({ headers: seenDays(to), body: { boxId: carried.id, ...to } })
            : carried.kind === "batch"
              ? layPortion({ headers: seenDays(to), body: { batchId: carried.id, ...to } })
              : moveItem({ headers: seenDays(...from, to), path: { id: carried.id }, body: to }),
        t("carry.laid", { name: carried.name, day: longDay(to.day) }),
      );
    },
    takeOff: (carried: Carried) =>
      change(
        () => takeOff({ headers: seenDays(...whereLies(carried.id)), path: { id: carried.id } }),
        t(carried.isBox ? "carry.back" : "carry.removed", { name: carried.name }),
      ),
    /** Another size for one portion, or for all that its eater has of the batch. */
    size: (portion: { id: string; name: string }, size: number, allOfIt: boolean) => {
      const days = whereLies(portion.id);
      const own = (week?.eaters ?? []).filter(({ eaterId }) => days.some((day) => day.eaterId === eaterId));
      return change(
        () =>
          amendItem({
            headers: seenDays(...(allOfIt ? own.flatMap(daysOf) : days)),
            path: { id: portion.id },
            body: { text: `${Math.round(size * 100) / 100} g`, allOfIt },
          }),
        t(allOfIt ? "portion.sizedAll" : "portion.sized", {
          name: portion.name,
          grams: grams(Math.round(size)),
        }),
      );
    },
  };
}

/** What is to be cooked: batches planned, planned otherwise, or taken off again. */
export function useAhead() {
  const { t } = useWords("plan");
  const { did } = useHistory();
  const say = useSay();
  const queries = useQueryClient();
  const attempt = async <T>(
    act: () => Promise<T>,
    done: string,
    takeBack: (made: T) => Promise<unknown>,
  ): Promise<boolean> => {
    try {
      const made = await act();
      did(done, () => takeBack(made));
      return true;
    } catch (thrown) {
      say(troubleOf(thrown, t("app:silent")).detail ?? "", { trouble: true });
      return false;
    } finally {
      await freshen(queries, "batch");
    }
  };
  const planned = (name: string, count: number, day: string) =>
    t("unpacked.changed", { name, count, day: longDay(day) });
  return {
    plan: (day: string, dishes: { recipeId: string; portions: number }[]) =>
      attempt(
        () => planBatches({ body: { day, dishes } }),
        t("menu.planned", { count: dishes.length, day: longDay(day) }),
        async ({ data }) => {
          for (const { id, version } of data!) await discardBatch({ path: { id }, headers: seen(version) });
        },
      ),
    replan: (batch: UnpackedView, day: string, portions: number) =>
      attempt(
        () =>
          replanBatch({ path: { id: batch.batchId }, headers: seen(batch.version), body: { day, portions } }),
        planned(batch.name, portions, day),
        ({ data }) =>
          replanBatch({
            path: { id: batch.batchId },
            headers: seen(data!.version),
            body: { day: batch.cookedOn, portions: batch.portions },
          }),
      ),
    discard: (batch: UnpackedView) =>
      attempt(
        () => discardBatch({ path: { id: batch.batchId }, headers: seen(batch.version) }),
        t("unpacked.discarded", { name: batch.name }),
        ({ data }) => restoreBatch({ path: { id: batch.batchId }, headers: seen(data!.version) }),
      ),
  };
}
