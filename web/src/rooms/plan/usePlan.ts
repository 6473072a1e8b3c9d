import { useQuery } from "@tanstack/react-query";
import { useTranslation } from "react-i18next";
import { getWeek, layBox, layFood, moveItem, seen, takeOff, type WeekView } from "../../api";
import { useHistory } from "../../app/history";
import { longDay } from "../../ui/format";

/** A place on the plan: whose day, which day, and where in its order. */
export interface Place {
  eaterId: string;
  day: string;
  place: number;
}

/** What is being carried: a box from the shelf, or an item already laid. */
export interface Carried {
  kind: "box" | "item";
  id: string;
  name: string;
  /** For an item, whether it is a box: then taking it off puts it on the shelf. */
  isBox: boolean;
}

export const useWeek = (day: string | undefined) =>
  useQuery({
    queryKey: ["week", day],
    queryFn: async () => (await getWeek({ path: { day: day! } })).data!,
    enabled: day !== undefined,
    placeholderData: (before) => before,
  });

/** The moves of the plan, each made by the host and each undoable. */
export function usePlanMoves(week: WeekView | undefined) {
  const { t } = useTranslation("plan");
  const { change } = useHistory();
  const headers = seen(week?.version ?? 0);
  return {
    lay: (carried: Carried, to: Place) =>
      change(
        () =>
          carried.kind === "box"
            ? layBox({ headers, body: { boxId: carried.id, ...to } })
            : moveItem({ headers, path: { id: carried.id }, body: to }),
        t("carry.laid", { name: carried.name, day: longDay(to.day) }),
      ),
    takeOff: (carried: Carried) =>
      change(
        () => takeOff({ headers, path: { id: carried.id } }),
        t(carried.isBox ? "carry.back" : "carry.removed", { name: carried.name }),
      ),
    layFood: (text: string, foodId: string | null, to: Omit<Place, "place">) =>
      change(
        () => layFood({ headers, body: { text, foodId, ...to } }),
        t("carry.laid", { name: text, day: longDay(to.day) }),
      ),
  };
}
