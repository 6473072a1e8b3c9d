import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useState } from "react";
import {
  endRun,
  getRun,
  passTime,
  takeBackRun,
  tellRun,
  troubleOf,
  turnOven,
  type RunAct,
  type RunView,
} from "../../../api";
import { freshen } from "../../../app/freshen";
import { useHistory } from "../../../app/history";
import { useWords } from "../../../app/i18n";
import { useInTurn } from "../../../app/inTurn";
import { useSay } from "../../../app/notices";
import { queryKeys } from "../../../app/queryKeys";

/** How often a run is asked for, in milliseconds. */
export const asked = 3000;

/** A run as it stands, asked for again and again: another phone may have told it something. */
export const useRun = (day: string) =>
  useQuery({
    queryKey: queryKeys.run(day),
    queryFn: async () => (await getRun({ path: { day } })).data!,
    refetchInterval: asked,
  });

/**
 * The program's time in milliseconds, second by second; this phone's own clock may be another.
 * @param run The run, with the program's time when it was asked.
 * @param askedAt When that was by this phone's clock.
 */
export function useNow(run: RunView, askedAt: number) {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = window.setInterval(() => setNow(Date.now()), 1000);
    return () => window.clearInterval(timer);
  }, []);
  return Math.max(now, askedAt) + Date.parse(run.now) - askedAt;
}

/** What can be told to a run: each word is answered with the day laid out anew, and can be taken back. */
export function useRunActs(day: string) {
  const { t } = useWords("cook");
  const say = useSay();
  const { did } = useHistory();
  const queries = useQueryClient();
  const inTurn = useInTurn(`run ${day}`);
  const [busy, setBusy] = useState(false);
  const send = useCallback(
    async (act: () => Promise<{ data: RunView | undefined }>) => {
      setBusy(true);
      try {
        const run = (await inTurn(act)).data!;
        queries.setQueryData(queryKeys.run(day), run);
        void freshen(queries, "run");
        return run;
      } catch (thrown) {
        say(troubleOf(thrown, t("app:silent")).detail ?? "", { trouble: true });
        void freshen(queries, "run");
        return null;
      } finally {
        setBusy(false);
      }
    },
    [day, inTurn, queries, say, t],
  );
  const tell = async (
    taskId: string,
    act: RunAct,
    said: string,
    more: { minutes?: number; cook?: number } = {},
  ) => {
    const run = await send(() => tellRun({ path: { day }, body: { taskId, act, ...more } }));
    if (!run || run.changed.length === 0) return;
    did(said, () => send(() => takeBackRun({ path: { day }, body: { tasks: run.changed } })));
  };
  return {
    busy,
    tell,
    back: (taskId: string) => send(() => takeBackRun({ path: { day }, body: { tasks: [taskId] } })),
    turn: async (oven: string, celsius: number, said: string) => {
      const turn = (isOn: boolean) => send(() => turnOven({ path: { day }, body: { oven, celsius, isOn } }));
      if (await turn(true)) did(said, () => turn(false));
    },
    end: (isOver: boolean) => send(() => endRun({ path: { day }, body: { isOver } })),
    pass: async (minutes: number) => {
      await passTime({ body: { minutes } });
      await freshen(queries, "run");
    },
  };
}
