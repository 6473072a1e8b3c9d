import { useMutation, useQueryClient } from "@tanstack/react-query";
import { createContext, useCallback, useContext, useMemo, useState, type ReactNode } from "react";
import { useWords } from "./i18n";
import { troubleOf, undoChange, type MadeChange, type Trouble } from "../api";
import { freshen } from "./freshen";
import { useSay } from "./notices";
import { sawChange } from "./seen";

type Make = () => Promise<{ data: MadeChange | undefined }>;

interface History {
  /** What undo would take back, in the words it was said with; null where there is nothing. */
  toUndo: string | null;
  toRedo: string | null;
  /**
   * Makes a change to the plan, remembers how to undo it, and has the plan fetched anew. Changes go out one after another, however quickly they are asked for;
   * each is put together when its turn comes. False where it was refused: which is said, or told to who asked for that.
   */
  change: (make: Make, done: string, refused?: (trouble: Trouble) => void) => Promise<boolean>;
  /** Says what was done in any other room, and remembers what takes it back: by the button beside it, or as the last thing done. */
  did: (done: string, takeBack: () => Promise<unknown>) => void;
  undo: () => void;
  redo: () => void;
}

const HistoryContext = createContext<History | null>(null);
const place = "tern.steps";

/** Something done: a change of the plan by its id, or what another room does to take it back, as long as this page is open. */
interface Step {
  id: string;
  what: string;
}

interface Steps {
  undo: Step[];
  redo: Step[];
}

const takesBack = new Map<string, () => Promise<unknown>>();
const elsewhere = "elsewhere ";

const isStep = (step: Step) =>
  typeof step.id === "string" && (!step.id.startsWith(elsewhere) || takesBack.has(step.id));

function kept(): Steps {
  try {
    const { undo, redo } = JSON.parse(sessionStorage.getItem(place) ?? "") as Steps;
    return { undo: undo.filter(isStep), redo: redo.filter(isStep) };
  } catch {
    return { undo: [], redo: [] };
  }
}

/** What can't be undone at any later time either: then the step is not kept. */
const isOver = (type: string | null | undefined) => /:(not-found|undone-already|never-for)$/.test(type ?? "");

/**
 * What was done in this tab, in whatever room. Undoing a change of the plan is a change of its own, made by the host; this only keeps their ids, and how
 * other rooms take back what they did.
 */
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

  const remember = useCallback(
    (id: string, what: string) =>
      keep((now) => ({ undo: [...now.undo, { id, what }].slice(-200), redo: [] })),
    [keep],
  );

  const change = useCallback<History["change"]>(
    async (make, done, refused) => {
      try {
        const id = await mutateAsync(make);
        if (!id) return false;
        remember(id, done);
        say(done);
        return true;
      } catch (thrown) {
        const trouble = troubleOf(thrown, t("silent"));
        if (refused) refused(trouble);
        else say(trouble.detail ?? "", { trouble: true });
        return false;
      } finally {
        // The next change does not wait for this; who asked for this one does.
        await freshen(queries, "plan");
      }
    },
    [mutateAsync, remember, queries, say, t],
  );

  const back = useCallback(
    async (step: Step) => {
      const takeBack = takesBack.get(step.id);
      if (!takeBack) return;
      takesBack.delete(step.id);
      keep((now) => ({ ...now, undo: now.undo.filter(({ id }) => id !== step.id) }));
      try {
        await takeBack();
        say(t("undone", { what: step.what }));
      } catch (thrown) {
        const trouble = troubleOf(thrown, t("silent"));
        // What failed can be tried again: the step comes back.
        if (!isOver(trouble.type)) {
          takesBack.set(step.id, takeBack);
          keep((now) => ({ ...now, undo: [...now.undo, step] }));
        }
        say(trouble.detail ?? "", { trouble: true });
      } finally {
        await queries.invalidateQueries();
      }
    },
    [keep, queries, say, t],
  );

  const did = useCallback<History["did"]>(
    (done, takeBack) => {
      const step = { id: elsewhere + crypto.randomUUID(), what: done };
      takesBack.set(step.id, takeBack);
      remember(step.id, done);
      say(done, { action: { label: t("undo"), run: () => void back(step) } });
    },
    [remember, back, say, t],
  );

  const step = useCallback(
    async (from: "undo" | "redo", to: "undo" | "redo") => {
      const last = kept()[from].at(-1);
      if (last && takesBack.has(last.id)) return back(last);
      let next: Step | undefined;
      try {
        const made = await mutateAsync(async () => {
          next = kept()[from].at(-1);
          if (!next || takesBack.has(next.id)) return { data: undefined };
          keep((now) => ({ ...now, [from]: now[from].slice(0, -1) }));
          return undoChange({ path: { id: next.id } });
        });
        if (!made || !next) return say(t(from === "undo" ? "nothingToUndo" : "nothingToRedo"));
        const { what } = next;
        keep((now) => ({ ...now, [to]: [...now[to], { id: made, what }] }));
        say(t(from === "undo" ? "undone" : "redone", { what }));
      } catch (thrown) {
        const trouble = troubleOf(thrown, t("silent"));
        // What failed can be tried again: the step comes back.
        if (next && !isOver(trouble.type)) keep((now) => ({ ...now, [from]: [...now[from], next!] }));
        say(trouble.detail ?? "", { trouble: true });
      } finally {
        await freshen(queries, "plan");
      }
    },
    [mutateAsync, back, keep, queries, say, t],
  );

  const history = useMemo(
    () => ({
      toUndo: steps.undo.at(-1)?.what ?? null,
      toRedo: steps.redo.at(-1)?.what ?? null,
      change,
      did,
      undo: () => void step("undo", "redo"),
      redo: () => void step("redo", "undo"),
    }),
    [steps, change, did, step],
  );
  return <HistoryContext value={history}>{children}</HistoryContext>;
}

export function useHistory(): History {
  const history = useContext(HistoryContext);
  if (!history) throw new Error("useHistory outside its provider");
  return history;
}
