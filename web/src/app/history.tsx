import { useQueryClient } from "@tanstack/react-query";
import { createContext, useCallback, useContext, useMemo, useRef, useState, type ReactNode } from "react";
import { useWords } from "./i18n";
import { troubleOf, undoChange, type MadeChange } from "../api";
import { useSay } from "./notices";

interface History {
  canUndo: boolean;
  canRedo: boolean;
  /** Makes a change to the plan, remembers how to undo it, and fetches the plan anew. False where it was refused. */
  change: (make: () => Promise<{ data: MadeChange | undefined }>, done?: string) => Promise<boolean>;
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

/** The steps this tab made on the plan. Undoing a step is a step of its own, made by the host; this only keeps their ids. */
export function HistoryProvider({ children }: { children: ReactNode }) {
  const { t } = useWords();
  const queries = useQueryClient();
  const say = useSay();
  const [steps, setSteps] = useState<Steps>(kept);
  const busy = useRef<Promise<unknown>>(Promise.resolve());

  const keep = useCallback((change: (steps: Steps) => Steps) => {
    setSteps((now) => {
      const next = change(now);
      sessionStorage.setItem(place, JSON.stringify(next));
      return next;
    });
  }, []);

  const fresh = useCallback(
    () =>
      Promise.all(["week", "day", "overview"].map((key) => queries.invalidateQueries({ queryKey: [key] }))),
    [queries],
  );

  const attempt = useCallback(
    async (make: () => Promise<{ data: MadeChange | undefined }>) => {
      try {
        const { data } = await make();
        return data?.id ?? null;
      } catch (thrown) {
        say(troubleOf(thrown, t("silent")).detail ?? "", { trouble: true });
        return null;
      } finally {
        await fresh();
      }
    },
    [fresh, say, t],
  );

  const change = useCallback<History["change"]>(
    (make, done) => {
      const next = busy.current.then(async () => {
        const id = await attempt(make);
        if (!id) return false;
        keep((now) => ({ undo: [...now.undo, id].slice(-200), redo: [] }));
        if (done) say(done);
        return true;
      });
      busy.current = next;
      return next;
    },
    [attempt, keep, say],
  );

  const step = useCallback(
    (from: "undo" | "redo", to: "undo" | "redo", done: string, none: string) => {
      busy.current = busy.current.then(async () => {
        const id = kept()[from].at(-1);
        if (!id) return say(none);
        keep((now) => ({ ...now, [from]: now[from].slice(0, -1) }));
        const made = await attempt(() => undoChange({ path: { id } }));
        if (!made) return;
        keep((now) => ({ ...now, [to]: [...now[to], made] }));
        say(done);
      });
    },
    [attempt, keep, say],
  );

  const history = useMemo(
    () => ({
      canUndo: steps.undo.length > 0,
      canRedo: steps.redo.length > 0,
      change,
      undo: () => step("undo", "redo", t("undone"), t("nothingToUndo")),
      redo: () => step("redo", "undo", t("redone"), t("nothingToRedo")),
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
