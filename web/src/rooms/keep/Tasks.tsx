import type { ReactNode } from "react";
import { Link } from "react-router";
import type { BoxPlace, ShelvesView } from "../../api";
import { useWords } from "../../app/i18n";
import { Caution } from "../../ui/Caution";
import { shortDay } from "../../ui/format";
import { Act } from "./Act";
import { dayAfter } from "./days";
import { KeptTape } from "./KeptTape";
import { byId, mostAtOnce, type KeepActs, type Kept } from "./useKeepActs";

/** What is to be done with boxes by the plan: tonight, for tomorrow, today; each with one press, or all at once. */
export function Tasks({ view, acts }: { view: ShelvesView; acts: KeepActs }) {
  const { t } = useWords("keep");
  const { tasks } = view;
  const boxes = byId(view);
  const groups = (ids: string[]) => {
    const found = ids.flatMap((id) => boxes.get(id) ?? []);
    return [...new Set(found.map(({ group }) => group))].map((group) =>
      found.filter((one) => one.group === group),
    );
  };
  const isTwo =
    tasks.freeze.length + tasks.eatFirst.length > 0 &&
    tasks.late.length + tasks.thaw.length + tasks.tooLate.length + tasks.thawTomorrow.length > 0;
  const nothing = Object.values(tasks).every((ids) => ids.length === 0);
  return (
    <section aria-labelledby="tasks-title">
      <h2 id="tasks-title" className="mb-2 text-lg">
        {t("tasks.title")}
      </h2>
      {nothing && <p className="text-soft">{t("tasks.nothing")}</p>}
      {/* Two columns of their own height on a wide screen, one after another on a narrow one. */}
      <div className="space-y-4">
        {tasks.over.length > 0 && (
          <Task name="over" count={tasks.over.length} caution="past-its-day">
            {groups(tasks.over).map((some) => (
              <li key={some[0]!.box.id} className="space-y-2">
                <KeptTape boxes={some} today={view.today} />
                <Act boxes={some} today={view.today} acts={acts} isOver />
              </li>
            ))}
          </Task>
        )}
        <div className={`grid items-start gap-4 ${isTwo ? "xl:grid-cols-2" : ""}`}>
          <div className="space-y-4">
            <Pressed
              name="freeze"
              place="freezer"
              isNext
              all={groups(tasks.freeze)}
              today={view.today}
              acts={acts}
              press="oneFreeze"
            />
            {tasks.eatFirst.length > 0 && (
              <Task name="eatFirst" caution="reheat">
                {groups(tasks.eatFirst).map((some) => (
                  <li key={some[0]!.box.id} className="space-y-2">
                    <KeptTape boxes={some} today={view.today} />
                    <Act boxes={some} today={view.today} acts={acts} isShort />
                  </li>
                ))}
              </Task>
            )}
          </div>
          <div className="space-y-4">
            {tasks.late.length > 0 && (
              <Task name="late">
                {groups(tasks.late).map((some) => (
                  <li key={some[0]!.box.id} className="space-y-2">
                    <KeptTape boxes={some} today={view.today} />
                    <Act boxes={some} today={view.today} acts={acts} isShort />
                  </li>
                ))}
              </Task>
            )}
            <Pressed
              name="thaw"
              place="fridge"
              caution="thaw-cold"
              isNext={tasks.freeze.length === 0}
              all={groups(tasks.thaw)}
              today={view.today}
              acts={acts}
              press="oneThaw"
            />
            {tasks.tooLate.length > 0 && (
              <Task
                name="tooLate"
                action={
                  <Link to="/plan" className="btn">
                    {t("tasks.toPlan")}
                  </Link>
                }
              >
                {groups(tasks.tooLate).map((some) => (
                  <li key={some[0]!.box.id}>
                    <KeptTape boxes={some} today={view.today} />
                    <Poorly kept={some[0]!} />
                  </li>
                ))}
              </Task>
            )}
            {tasks.thawTomorrow.length > 0 && (
              <section className="text-sm">
                <h3 className="mb-1 text-base">
                  {t("tasks.thawTomorrow", { day: shortDay(dayAfter(view.today, 2)) })}
                </h3>
                <ul className="grid gap-2 sm:grid-cols-2">
                  {groups(tasks.thawTomorrow).map((some) => (
                    <li key={some[0]!.box.id}>
                      <KeptTape boxes={some} today={view.today} />
                    </li>
                  ))}
                </ul>
              </section>
            )}
          </div>
        </div>
      </div>
    </section>
  );
}

function Task({
  name,
  count = 1,
  caution,
  action,
  children,
}: {
  name: "over" | "freeze" | "thaw" | "late" | "tooLate" | "eatFirst";
  count?: number;
  caution?: string;
  action?: ReactNode;
  children: ReactNode;
}) {
  const { t } = useWords("keep");
  return (
    <section
      aria-labelledby={`task-${name}`}
      className={`panel p-3 ${name === "over" || name === "late" || name === "tooLate" ? "border-l-4 border-l-brick" : ""}`}
    >
      <div className="mb-2 flex flex-wrap items-start justify-between gap-x-4 gap-y-2">
        <div className="min-w-0">
          <h3 id={`task-${name}`} className="text-base">
            {t(`tasks.${name}`, { count })}
          </h3>
          <p className="text-sm text-soft">{t(`tasks.${name}Text`, { count })}</p>
        </div>
        {action}
      </div>
      {caution && <Caution code={caution} />}
      <ul className="space-y-3">{children}</ul>
    </section>
  );
}

/** A task that is done with one press for each group, or for all. */
function Pressed({
  name,
  place,
  all,
  today,
  acts,
  press,
  caution,
  isNext,
}: {
  name: "freeze" | "thaw";
  today: string;
  place: BoxPlace;
  all: Kept[][];
  acts: KeepActs;
  press: "oneFreeze" | "oneThaw";
  caution?: string;
  isNext: boolean;
}) {
  const { t } = useWords("keep");
  const boxes = all.flat();
  if (boxes.length === 0) return null;
  return (
    <Task
      name={name}
      caution={caution}
      action={
        <button
          className={isNext ? "btn-next" : "btn"}
          onClick={() => void acts.put(boxes.slice(0, mostAtOnce), place)}
        >
          {t(`tasks.${name}All`, { count: Math.min(boxes.length, mostAtOnce) })}
        </button>
      }
    >
      {all.map((some) => {
        const { group } = some[0]!;
        return (
          <li key={some[0]!.box.id} className="flex items-stretch gap-2">
            <div className="min-w-0 flex-1">
              <KeptTape boxes={some} today={today} />
              {name === "freeze" && <Poorly kept={some[0]!} />}
            </div>
            {all.length > 1 && (
              <button
                className="btn"
                aria-label={t(`tasks.${press}`, { name: group.name })}
                onClick={() => void acts.put(some, place)}
              >
                {t("tasks.one")}
              </button>
            )}
          </li>
        );
      })}
    </Task>
  );
}

/** What of a box the freezer does no good. */
export function Poorly({ kept: { group } }: { kept: Kept }) {
  const { t } = useWords("keep");
  return group.freezesPoorly.map(({ name, becomes }) => (
    <p key={name} className="mt-1 text-xs text-soft">
      {t("shelf.poorly", { name, becomes })}
    </p>
  ));
}
