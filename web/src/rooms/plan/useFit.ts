import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useWords } from "../../app/i18n";
import { beginFit, getFit, stopFit, takeFit, troubleOf, type FitRequest, type FitView } from "../../api";
import { useHistory } from "../../app/history";
import { useSay } from "../../app/notices";
import { queryKeys } from "../../app/queryKeys";

/** The key of one eater's one day in a draft. */
export const dayKey = (day: { eaterId: string; day: string }) => `${day.eaterId}|${day.day}`;

/** A fit from its beginning to what is taken of it. It works on the host; the plan can be edited meanwhile, and what was edited stays. */
export function useFit() {
  const { t } = useWords("plan");
  const queries = useQueryClient();
  const say = useSay();
  const { change } = useHistory();
  const [id, setId] = useState<string | null>(null);
  const { data: fit, error } = useQuery({
    queryKey: queryKeys.fit(id),
    queryFn: async () => (await getFit({ path: { id: id! } })).data!,
    enabled: id !== null,
    refetchInterval: ({ state }) => (state.data?.isDone ? false : 350),
    retry: false,
  });
  const attempt = async (make: () => Promise<{ data: FitView | undefined }>) => {
    try {
      const { data } = await make();
      queries.setQueryData(queryKeys.fit(data!.id), data);
      setId(data!.id);
    } catch (thrown) {
      say(troubleOf(thrown, t("app:silent")).detail ?? "", { trouble: true });
    }
  };
  return {
    fit: id === null ? undefined : fit,
    /** Why nothing is heard of it any more. */
    trouble: id === null || !error ? null : (troubleOf(error, t("app:silent")).detail ?? t("app:silent")),
    begin: (body: FitRequest) => attempt(() => beginFit({ body })),
    stop: () => attempt(() => stopFit({ path: { id: id! } })),
    drop: () => {
      if (fit && !fit.isDone) void stopFit({ path: { id: fit.id } });
      setId(null);
    },
    /** @returns Whether it was taken. */
    take: async (days: { eaterId: string; day: string }[]): Promise<boolean> => {
      let left = 0;
      let without: string[] = [];
      const done = await change(
        async () => {
          const { data } = await takeFit({
            path: { id: id! },
            body: { draft: fit!.draft, days: days.map(({ eaterId, day }) => ({ eaterId, day })) },
          });
          left = data!.movedOn.length;
          without = data!.without;
          return { data: data!.made ?? undefined };
        },
        t("fit.taken", { count: days.length }),
      );
      if (left > 0) say(t("fit.movedOn", { count: left }), { trouble: true });
      if (without.length > 0) say(t("fit.without", { names: without.join(", ") }), { trouble: true });
      if (done) setId(null);
      return done;
    },
  };
}
