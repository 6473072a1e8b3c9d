import { useWords } from "../../app/i18n";
import type { LaidDayView, PlacedPrepTask, PrepBatch, WarmUpTime } from "../../api";
import { Mark } from "../../ui/Tape";
import { lengthOf, timeAt } from "./clock";
import { dishOf, minutesOf, whatOf } from "./say";

type Entry = { at: number; task: PlacedPrepTask } | { at: number; warm: WarmUpTime };

/** The day in words, big enough to be read from the other side of the kitchen, and printable. */
export function RunSheet({ day, batches, title }: { day: LaidDayView; batches: PrepBatch[]; title: string }) {
  const { t } = useWords("cook");
  const entries: Entry[] = [
    ...day.warmUps.map((warm) => ({ at: warm.from, warm })),
    ...day.tasks.map((task) => ({ at: task.start, task })),
  ].sort((one, other) => one.at - other.at);
  return (
    <section aria-labelledby="sheet-title">
      <h2 id="sheet-title" className="mb-2 text-base print:text-xl">
        <span className="print:hidden">{t("sheet.title")}</span>
        <span className="hidden print:inline">{title}</span>
      </h2>
      <ol className="divide-y divide-line border-y border-line">
        {entries.map((entry, i) => (
          <li
            key={"task" in entry ? entry.task.task.id : `warm${entry.warm.oven}${entry.at}`}
            className="grid grid-cols-[4.2rem_2.25rem_1fr] items-baseline gap-x-2 py-2 print:break-inside-avoid"
          >
            <span className="text-right font-title text-lg font-bold">
              {i > 0 && entries[i - 1]!.at === entry.at ? (
                <span className="sr-only">{timeAt(day.begins, entry.at)}</span>
              ) : (
                timeAt(day.begins, entry.at)
              )}
            </span>
            {"task" in entry ? (
              <TaskWords task={entry.task} day={day} batches={batches} />
            ) : (
              <>
                <span />
                <span className="text-soft">{t("sheet.oven", { celsius: entry.warm.celsius })}</span>
              </>
            )}
          </li>
        ))}
        <li className="grid grid-cols-[4.2rem_2.25rem_1fr] items-baseline gap-x-2 py-2">
          <span className="text-right font-title text-lg font-bold">{timeAt(day.begins, day.end)}</span>
          <span />
          <span className="font-bold">{t("sheet.done")}</span>
        </li>
      </ol>
    </section>
  );
}

function TaskWords({ task, day, batches }: { task: PlacedPrepTask; day: LaidDayView; batches: PrepBatch[] }) {
  const { t } = useWords("cook");
  const dish = task.task.dishes.length === 1 ? dishOf(batches, task.task.dishes[0]) : undefined;
  const cooks = day.lanes.filter(({ kind }) => kind === null || kind === undefined);
  const who = cooks.length > 1 ? cooks.find(({ id }) => task.lanes.includes(id)) : undefined;
  const places = day.lanes
    .filter(({ id, kind }) => kind && task.lanes.includes(id))
    .map(({ kind }) => t(`kinds.${kind!}`).toLowerCase());
  const phases = task.task.phases.map(({ verb, minutes }) =>
    t("sheet.phase", { minutes, verb: t(`verb.${verb}`).toLowerCase() }),
  );
  const facts = [
    minutesOf(t, task),
    ...places,
    task.way.celsius ? t("lanes.warm", { celsius: task.way.celsius }) : "",
    task.way.loads > 1 ? t("sheet.loads", { count: task.way.loads }) : "",
    phases.join(", "),
    task.task.isHandsOn ? "" : t("sheet.until", { time: timeAt(day.begins, task.end) }),
  ].filter(Boolean);
  return (
    <>
      {dish ? (
        <Mark letters={dish.letters} tint={dish.tint} className="h-6 w-9 self-start rounded-sm text-sm" />
      ) : (
        <span />
      )}
      <div className="min-w-0">
        <p className={task.task.isHandsOn ? "font-semibold" : ""}>
          {who && (
            <span className="mr-1 font-normal text-soft">
              {who.name || t("lanes.cook", { number: who.number + 1 })}:
            </span>
          )}
          {whatOf(t, task, batches)}
        </p>
        {task.task.text && task.task.kind !== "prepare" && <p className="text-sm">{task.task.text}</p>}
        {task.task.text && task.task.kind === "prepare" && task.task.amounts.length === 0 && (
          <p className="text-sm">{task.task.text}</p>
        )}
        <p className="text-sm text-soft">{facts.join(" · ")}</p>
      </div>
    </>
  );
}

/** How long the day is, in one line. */
export function DayLength({ day }: { day: LaidDayView }) {
  const { t } = useWords("cook");
  return (
    <p>
      <span className="font-title text-xl font-bold">
        {t("from", { from: timeAt(day.begins, 0), to: timeAt(day.begins, day.end) })}
      </span>{" "}
      <span className="whitespace-nowrap text-soft">
        {t("lasts", { time: lengthOf(t, day.end), hands: lengthOf(t, day.handsOn) })}
      </span>
    </p>
  );
}
