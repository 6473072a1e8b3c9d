import { useWords } from "../../app/i18n";
import type { LaidDayView, Occupies, PlacedPrepTask, PrepBatch } from "../../api";
import { timeAt } from "./clock";
import { dishOf, minutesOf, whatOf } from "./say";

const rowHeight = 30;
const standing = "standing";

interface Block {
  task: PlacedPrepTask;
  row: number;
}

interface Lane {
  id: string;
  label: string;
  top: number;
  rows: number;
  blocks: Block[];
}

/** Blocks of one lane that are there at the same time lie under one another. */
function inRows(tasks: PlacedPrepTask[]): Block[] {
  const ends: number[] = [];
  return tasks.map((task) => {
    let row = ends.findIndex((end) => end <= task.start);
    if (row < 0) row = ends.push(0) - 1;
    ends[row] = task.end;
    return { task, row };
  });
}

/** Who and what is busy when, on a clock: a lane for each cook and machine, and a line through what sets the end. */
export function Lanes({
  day,
  batches,
  now,
}: {
  day: LaidDayView;
  batches: PrepBatch[];
  /** The minute it is, on a day that is being cooked. */
  now?: number;
}) {
  const { t } = useWords("cook");
  const kindOf = (kind: Occupies) => t(`kinds.${kind}`);
  const cooks = day.lanes.filter(({ kind }) => kind === null).length;
  const labelOf = ({ kind, name, number, id }: LaidDayView["lanes"][number]) => {
    if (kind === null || kind === undefined)
      return name || (cooks === 1 ? t("lanes.you") : t("lanes.cook", { number: number + 1 }));
    const several = day.lanes.filter((lane) => lane.kind === kind).length > 1;
    return several ? t("lanes.several", { kind: kindOf(kind), number: number + 1 }) : kindOf(kind) || id;
  };
  const drawn = new Set(day.lanes.map(({ id }) => id));
  const lanes: Lane[] = [];
  let top = 0;
  const add = (id: string, label: string, tasks: PlacedPrepTask[]) => {
    const blocks = inRows(tasks);
    const rows = Math.max(1, ...blocks.map(({ row }) => row + 1));
    lanes.push({ id, label, top, rows, blocks });
    top += rows * rowHeight + 6;
  };
  for (const lane of day.lanes)
    add(
      lane.id,
      labelOf(lane),
      day.tasks.filter((task) => task.lanes.includes(lane.id)),
    );
  const free = day.tasks.filter((task) => !task.lanes.some((id) => drawn.has(id)));
  if (free.length > 0) add(standing, t("lanes.standing"), free);

  const [hour, minute] = day.begins.split(":").map(Number);
  const beforeFirst = minute! % 30 === 0 ? 0 : 30 - (minute! % 30);
  const length = Math.max(day.end, now ?? 0, 30);
  const every = length > 600 ? 60 : 30;
  const marks: number[] = [];
  const begin = every === 60 ? (60 - minute!) % 60 : beforeFirst;
  for (let at = begin; at <= length; at += every) marks.push(at);
  const x = (minutes: number) => (minutes / length) * 100;

  // The chain runs from the end of each of its blocks to the start of the next, in the first lane each is drawn in.
  const placeOf = (id: string) => {
    for (const lane of lanes) {
      const block = lane.blocks.find(({ task }) => task.task.id === id);
      if (block) return { task: block.task, y: lane.top + block.row * rowHeight + rowHeight / 2 };
    }
    return null;
  };
  const chain = day.chain.map(({ id }) => placeOf(id)).filter((place) => place !== null);
  const path = chain
    .map(({ task, y }, i) => `${i ? "L" : "M"}${x(task.start)} ${y}L${x(task.end)} ${y}`)
    .join("");

  return (
    <div className="no-print">
      <h2 id="lanes-title" className="sr-only">
        {t("lanes.title")}
      </h2>
      <div role="region" aria-labelledby="lanes-title" tabIndex={0} className="panel overflow-x-auto">
        <div className="grid min-w-[760px] grid-cols-[124px_1fr] gap-x-2 p-3">
          <div />
          <div aria-hidden className="relative h-5 text-xs text-soft">
            {marks.map((at) => (
              <span
                key={at}
                className={`absolute ${x(at) > 96 ? "-translate-x-full" : x(at) < 3 ? "" : "-translate-x-1/2"}`}
                style={{ left: `${x(at)}%` }}
              >
                {timeAt(day.begins, at)}
              </span>
            ))}
          </div>
          <div className="relative" style={{ height: top }}>
            {lanes.map((lane) => (
              <span
                key={lane.id}
                className="absolute right-0 left-0 flex items-center text-sm leading-tight font-semibold"
                style={{ top: lane.top, height: rowHeight }}
              >
                {lane.label}
              </span>
            ))}
          </div>
          <div className="relative" style={{ height: top }}>
            {marks.map((at) => (
              <span
                key={at}
                aria-hidden
                className={`absolute inset-y-0 border-l ${(hour! * 60 + minute! + at) % 60 === 0 ? "border-line" : "border-line/50"}`}
                style={{ left: `${x(at)}%` }}
              />
            ))}
            {lanes.map((lane) => (
              <span
                key={lane.id}
                aria-hidden
                className="absolute inset-x-0 border-b border-line"
                style={{ top: lane.top + lane.rows * rowHeight + 2 }}
              />
            ))}
            {day.warmUps.map(({ oven, from, to, celsius }) => {
              const lane = lanes.find(({ id }) => id === oven);
              return lane ? (
                <span
                  key={`${oven}${from}`}
                  className="absolute flex items-center justify-end overflow-hidden rounded-l-sm border-y border-l border-dashed border-ink/50 px-1 text-xs whitespace-nowrap text-soft"
                  style={{
                    top: lane.top + 2,
                    height: rowHeight - 6,
                    left: `${x(from)}%`,
                    width: `${x(to) - x(from)}%`,
                  }}
                  title={`${t("lanes.warming")}: ${t("lanes.warm", { celsius })}`}
                >
                  {x(to) - x(from) > 5 && t("lanes.warm", { celsius })}
                </span>
              ) : null;
            })}
            <ol>
              {lanes.flatMap((lane) =>
                lane.blocks.map(({ task, row }) => (
                  <li key={lane.id + task.task.id}>
                    <LaneBlock
                      task={task}
                      isPast={now !== undefined && task.end <= now}
                      day={day}
                      batches={batches}
                      style={{
                        top: lane.top + row * rowHeight + 1,
                        height: rowHeight - 4,
                        left: `${x(task.start)}%`,
                        width: `max(3px, ${x(task.end) - x(task.start)}%)`,
                      }}
                      wide={x(task.end) - x(task.start)}
                    />
                  </li>
                )),
              )}
            </ol>
            {now !== undefined && (
              <span
                aria-hidden
                className="pointer-events-none absolute inset-y-0 border-l-2 border-next"
                style={{ left: `${Math.min(100, x(now))}%` }}
              />
            )}
            {path && (
              <svg
                aria-hidden
                className="pointer-events-none absolute inset-0 size-full overflow-visible text-ink"
                viewBox={`0 0 100 ${top}`}
                preserveAspectRatio="none"
              >
                <path
                  d={path}
                  fill="none"
                  stroke="currentColor"
                  strokeWidth={2.5}
                  strokeLinejoin="round"
                  vectorEffect="non-scaling-stroke"
                  opacity={0.75}
                  transform={`translate(0 ${rowHeight / 2 - 5})`}
                />
              </svg>
            )}
          </div>
        </div>
      </div>
      <p className="mt-1 text-xs text-soft">
        {now === undefined ? t("lanes.keyChain") : t("lanes.keyNow")} · {t("lanes.keyBox")}
      </p>
    </div>
  );
}

function LaneBlock({
  task,
  isPast,
  day,
  batches,
  style,
  wide,
}: {
  task: PlacedPrepTask;
  isPast: boolean;
  day: LaidDayView;
  batches: PrepBatch[];
  style: React.CSSProperties;
  wide: number;
}) {
  const { t } = useWords("cook");
  const dish = task.task.dishes.length === 1 ? dishOf(batches, task.task.dishes[0]) : undefined;
  const what = `${whatOf(t, task, batches)}, ${minutesOf(t, task)}${task.isInChain ? `, ${t("lanes.chain")}` : ""}`;
  const said = t("lanes.block", {
    from: timeAt(day.begins, task.start),
    to: timeAt(day.begins, task.end),
    what,
  });
  const tint = dish ? `tinted tint-${dish.tint} text-tape` : "bg-rest text-ink";
  return (
    <span
      className={`absolute flex items-center overflow-hidden rounded-sm border text-xs whitespace-nowrap ${tint} ${task.isInChain ? "border-ink" : "border-ink/30"} ${task.task.isAbout ? "border-dashed" : ""} ${isPast ? "grayscale" : ""}`}
      style={style}
      title={said}
    >
      <span className="sr-only">{said}</span>
      {dish && wide > 2.4 && (
        <span aria-hidden className={`pattern-${dish.tint} shrink-0 px-1 font-title font-bold`}>
          {dish.letters}
        </span>
      )}
      {wide > (dish ? 5 : 3) && (
        <span aria-hidden className="truncate px-1">
          {t(`verb.${task.way.verb}`)}
        </span>
      )}
    </span>
  );
}
