import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { Redo2, Undo2 } from "lucide-react";
import type { ReactNode } from "react";
import { useWords } from "./i18n";
import { getOverview, listEaters } from "../api";
import { lensesOf, measureFor, type Lens as Through } from "./lens";
import { useHistory } from "./history";
import { useKitchen } from "./kitchen";
import { queryKeys } from "./queryKeys";
import { useQuiet } from "./quiet";

/** The top line of a room: its title at the left, the lens, the room's actions and undo at the right. */
export function Header({
  children,
  actions,
  lens: hasLens = true,
  undo = true,
}: {
  children: ReactNode;
  actions?: ReactNode;
  lens?: boolean;
  /** Left out where the room has an undo of its own. */
  undo?: boolean;
}) {
  const lens = !useQuiet() && hasLens;
  return (
    <header className="no-print flex min-h-14 flex-wrap items-center gap-x-4 gap-y-2 border-b border-rim px-4 py-2">
      {children}
      <div
        className={`ml-auto flex items-center gap-2 max-lg:min-w-0 max-lg:flex-wrap max-lg:justify-end ${lens ? "max-md:ml-0 max-md:w-full max-md:justify-between" : ""}`}
      >
        {lens && <Lens />}
        {actions}
        {undo && <UndoButtons />}
      </div>
    </header>
  );
}

/** Re-measures every block, ruler, table and label at once. */
function Lens() {
  const { t } = useWords();
  const { lens, setLens, eater } = useKitchen();
  const eaters = useEaters();
  const current = useCurrentEater();
  const shown = eaters?.find(({ id }) => id === current);
  // Of one eater their own measure is one of the others; where all are shown it is a choice by itself.
  const differ = new Set(eaters?.map(({ aim }) => aim.leading)).size > 1;
  const pressed: Through =
    lens === "own" && shown && !(differ && eater === "all") ? measureFor("own", shown.aim) : lens;
  return (
    <div
      role="group"
      aria-label={t("lens")}
      className="flex max-w-full overflow-hidden rounded-lg border border-rim bg-panel max-md:grow max-md:basis-64 max-md:flex-wrap"
    >
      {[...(differ ? (["own"] as const) : []), ...lensesOf(eaters)].map((measure) => (
        <button
          key={measure}
          aria-pressed={pressed === measure}
          title={measure === "own" ? t("ownTitle") : undefined}
          onClick={() => setLens(measure)}
          className={`min-h-8 border-l border-line px-2.5 text-sm whitespace-nowrap first:border-l-0 max-md:min-h-11 max-md:flex-1 max-md:px-1 ${pressed === measure ? "bg-ink font-bold text-ground" : ""}`}
        >
          {measure === "own" ? t("own") : t(`measures.${measure}`)}
        </button>
      ))}
    </div>
  );
}

/** Whose day is shown. */
export function EaterTabs({ withAll = false }: { withAll?: boolean }) {
  const { t } = useWords();
  const { setEater } = useKitchen();
  const eaters = useEaters();
  const current = useCurrentEater(withAll);
  if (!eaters) return null;
  const tabs = [
    ...eaters.map(({ id, name }) => ({ id, name })),
    ...(withAll && eaters.length > 1 ? [{ id: "all", name: t("all") }] : []),
  ];
  return (
    <div role="group" aria-label={t("eaters")} className="flex min-w-0 flex-wrap">
      {tabs.map(({ id, name }) => (
        <button
          key={id}
          aria-pressed={id === current}
          onClick={() => setEater(id)}
          className={`min-h-9 border-b-2 px-3 wrap-anywhere max-md:min-h-11 ${id === current ? "border-sea font-bold" : "border-transparent"}`}
        >
          {name}
        </button>
      ))}
    </div>
  );
}

export const useEatersQuery = () =>
  useQuery({ queryKey: queryKeys.eaters(), queryFn: async () => (await listEaters()).data! });

export const useEaters = () => useEatersQuery().data;

/** The rail's lines of state, and the household's day. */
export function useOverviewQuery() {
  const eater = useCurrentEater();
  return useQuery({
    queryKey: queryKeys.overview(eater),
    queryFn: async () => (await getOverview({ query: { eaterId: eater ?? undefined } })).data!,
    placeholderData: keepPreviousData,
  });
}
export const useOverview = () => useOverviewQuery().data;

/** The eater chosen, or the first; "all" only where a room shows all. */
export function useCurrentEater(withAll = false): string | null {
  const { eater } = useKitchen();
  const eaters = useEaters();
  if (!eaters) return null;
  if (eater === "all" && withAll && eaters.length > 1) return "all";
  return eaters.some(({ id }) => id === eater) ? eater : (eaters[0]?.id ?? null);
}

/** Takes back the last thing done, whatever room it was done in. */
function UndoButtons() {
  const { t } = useWords();
  const { undo, redo, toUndo, toRedo } = useHistory();
  return (
    <>
      <button
        className="btn max-md:px-2"
        onClick={undo}
        disabled={toUndo === null}
        title={toUndo ? t("undoWhat", { what: toUndo }) : undefined}
      >
        <Undo2 size={16} aria-hidden /> <span className="max-md:sr-only">{t("undo")}</span>
      </button>
      <button
        className="btn max-md:px-2"
        onClick={redo}
        disabled={toRedo === null}
        aria-label={t("redo")}
        title={toRedo ? t("redoWhat", { what: toRedo }) : t("redo")}
      >
        <Redo2 size={16} aria-hidden />
      </button>
    </>
  );
}
