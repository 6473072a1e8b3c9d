import { useMutation, useQueryClient } from "@tanstack/react-query";
import { createContext, useCallback, useContext, useMemo, useState, type ReactNode } from "react";
import { useWords } from "./i18n";
import { troubleOf, undoChange, type MadeChange } from "../api";
import { freshen } from "./freshen";
import { useSay } from "./notices";
import { sawChange } from "./seen";

type Make = () => Promise<{ data: MadeChange | undefined }>;

interface History {
  canUndo: boolean;
  canRedo: boolean;
  /**
   * Makes a change to the plan, remembers how to undo it, and has the plan fetched anew. Changes go out one after another, however quickly they are asked for;
   * each is put together when its turn comes. False where it was refused.
   */
  change: (make: Make, done?: string) => Promise<boolean>;
  undo: () => void;
  redo: () => void;
}

const HistoryContext = createContext<History | null>(null);
const place = "tern.steps";

interface Steps {
  undo: string[];
  redo: string[];
}

function kept(): Steps {
  try {
    return JSON.parse(sessionStorage.getItem(place) ?? "") as Steps;
  } catch {
    return { undo: [], redo: [] };
  }
}

/** What can't be undone at any later time either: then the step is not kept. */
const isOver = (type: string | null | undefined) => /:(not-found|undone-already|never-for)$/.test(type ?? "");

/** The steps this tab made on the plan. Undoing a step is a step of its own, made by the host; this only keeps their ids. */
export function HistoryProvider({ children }: { children: ReactNode }) {
  const { t } = useWords();
  const queries = useQueryClient();
  const say = useSay();
  const [steps, setSteps] = useState<Steps>(kept);

  const keep = useCallback((change: (steps: Steps) => Steps) => {
    const next = change(kept());
    sessionStorage.setItem(place, JSON.stringify(next));
    setSteps(next);
  }, []);

  const { mutateAsync } = useMutation({
    scope: { id: "plan" },
    mutationFn: async (make: Make) => {
      const { data } = await make();
      if (data) sawChange(data);
      return data?.id ?? null;
    },
  });

  const change = useCallback<History["change"]>(
    async (make, done) => {
      try {
        const id = await mutateAsync(make);
        if (!id) return false;
        keep((now) => ({ undo: [...now.undo, id].slice(-200), redo: [] }));
        if (done) say(done);
        return true;
      } catch (thrown) {
        say(troubleOf(thrown, t("silent")).detail ?? "", { trouble: true });
        return false;
      } finally {
        // The next change does not wait for this; who asked for this one does.
        await freshen(queries, "plan");
      }
    },
    [mutateAsync, keep, queries, say, t],
  );

  const step = useCallback(
    async (from: "undo" | "redo", to: "undo" | "redo", done: string, none: string) => {
      let id: string | undefined;
      try {
        const made = await mutateAsync(async () => {
          id = kept()[from].at(-1);
          if (!id) return { data: undefined };
          keep((now) => ({ ...now, [from]: now[from].slice(0, -1) }));
          return undoChange({ path: { id } });
        });
        if (!made) return say(none);
        keep((now) => ({ ...now, [to]: [...now[to], made] }));
        say(done);
      } catch (thrown) {
        const trouble = troubleOf(thrown, t("silent"));
        // What failed can be tried again: the step comes back.
        if (id && !isOver(trouble.type)) keep((now) => ({ ...now, [from]: [...now[from], id!] }));
        say(trouble.detail ?? "", { trouble: true });
      } finally {
        await freshen(queries, "plan");
      }
    },
    [mutateAsync, keep, queries, say, t],
  );

  const history = useMemo(
    () => ({
      canUndo: steps.undo.length > 0,
      canRedo: steps.redo.length > 0,
      change,
      undo: () => void step("undo", "redo", t("undone"), t("nothingToUndo")),
      redo: () => void step("redo", "undo", t("redone"), t("nothingToRedo")),
    }),
    [steps, change, step, t],
  );
  return <HistoryContext value={history}>{children}</HistoryContext>;
}

export function useHistory(): History {
  const history = useContext(HistoryContext);
  if (!history) throw new Error("useHistory outside its provider");
  return history;
}
