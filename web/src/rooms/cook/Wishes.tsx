import { Minus, Plus, X } from "lucide-react";
import { Link } from "react-router";
import { useWords } from "../../app/i18n";
import type { CookHours, KitchenEquipment, LaidDayView, Occupies, PrepBatch, PrepDayWishes } from "../../api";
import { Tape } from "../../ui/Tape";
import { TimeField } from "../../ui/TimeField";
import { lengthOf } from "./clock";

const mostCooks = 4;

export interface Draft {
  wishes: PrepDayWishes;
  equipment: KitchenEquipment;
}

interface WishesProps {
  batches: PrepBatch[];
  draft: Draft;
  /** Whether it differs from what is saved. */
  isTrying: boolean;
  /** The day as it is saved and as it is tried, both laid out. */
  saved: LaidDayView | undefined;
  tried: LaidDayView | undefined;
  /** Whether the day as it is tried is still being looked for. */
  isLooking: boolean;
  busy: boolean;
  change: (draft: Draft) => void;
  keep: () => void;
  back: () => void;
  showKitchen: () => void;
  /** What can be prepared for later days. */
  ahead: React.ReactNode;
}

/** Who cooks when, what is due, which dishes, with what: tried out at once, kept when it is liked. */
export function Wishes({
  batches,
  draft,
  isTrying,
  saved,
  tried,
  isLooking,
  busy,
  change,
  keep,
  back,
  showKitchen,
  ahead,
}: WishesProps) {
  const { t } = useWords("cook");
  const { wishes, equipment } = draft;
  const set = (part: Partial<PrepDayWishes>) => change({ ...draft, wishes: { ...wishes, ...part } });
  const setCook = (at: number, part: Partial<CookHours>) =>
    set({ cooks: wishes.cooks.map((cook, i) => (i === at ? { ...cook, ...part } : cook)) });
  const leftOut = wishes.leftOut ?? [];
  const leaveOut = (ids: string[]) => set({ leftOut: ids.length > 0 ? ids : null });
  const used = [...new Set((tried ?? saved)?.lanes.map(({ kind }) => kind))].filter(
    (kind): kind is Occupies => !!kind,
  );
  return (
    <section aria-labelledby="wishes-title" className="space-y-4">
      <h2 id="wishes-title" className="text-base">
        {t("wishes.title")}
      </h2>
      {isTrying && (
        <div role="status" className="rounded-lg border border-sea bg-sea-soft p-3">
          <Difference saved={saved} tried={isLooking ? undefined : tried} />
          <p className="text-sm">{t("wishes.trying")}</p>
          <div className="mt-2 flex flex-wrap gap-2">
            <button className="btn-next" disabled={busy} onClick={keep}>
              {t("wishes.keep")}
            </button>
            <button className="btn" disabled={busy} onClick={back}>
              {t("wishes.back")}
            </button>
          </div>
        </div>
      )}
      <fieldset>
        <legend className="mb-1 text-sm font-semibold">{t("wishes.cooks")}</legend>
        {wishes.cooks.map((cook, i) => (
          <div key={i} className="mb-1 flex flex-wrap items-center gap-1 text-sm">
            <input
              aria-label={t("wishes.name", { number: i + 1 })}
              placeholder={i === 0 ? t("wishes.unnamed") : t("lanes.cook", { number: i + 1 })}
              className="field w-24 min-w-0 flex-1"
              maxLength={60}
              value={cook.name}
              onChange={(event) => setCook(i, { name: event.target.value })}
            />
            <span className="text-soft">{t("wishes.from")}</span>
            <TimeField
              isNeeded
              label={t("wishes.fromOf", { number: i + 1 })}
              value={cook.from}
              change={(from) => from && setCook(i, { from })}
            />
            <span className="text-soft">{t("wishes.to")}</span>
            <TimeField
              label={t("wishes.toOf", { number: i + 1 })}
              hint={t("wishes.noEnd")}
              value={cook.to}
              change={(to) => setCook(i, { to })}
            />
            {wishes.cooks.length > 1 && (
              <button
                className="min-h-9 px-2 max-md:min-h-11"
                aria-label={t("wishes.dropCook", { number: i + 1 })}
                title={t("wishes.dropCook", { number: i + 1 })}
                onClick={() => set({ cooks: wishes.cooks.filter((_, other) => other !== i) })}
              >
                <X size={16} aria-hidden />
              </button>
            )}
          </div>
        ))}
        {wishes.cooks.length < mostCooks && (
          <button
            className="chip"
            onClick={() =>
              set({ cooks: [...wishes.cooks, { name: "", from: wishes.cooks[0]!.from, to: null }] })
            }
          >
            <Plus size={14} aria-hidden className="mr-1 inline" />
            {t("wishes.addCook")}
          </button>
        )}
      </fieldset>
      <div className="grid grid-cols-[auto_1fr] items-center gap-x-3 gap-y-1 text-sm">
        <label htmlFor="done-by">{t("wishes.doneBy")}</label>
        <TimeField id="done-by" value={wishes.doneBy} change={(doneBy) => set({ doneBy })} />
        <label htmlFor="supper-dish">{t("wishes.supperDish")}</label>
        <select
          id="supper-dish"
          className="field min-w-0"
          value={wishes.supperDish ?? ""}
          onChange={(event) =>
            set({
              supperDish: event.target.value || null,
              supper: event.target.value ? (wishes.supper ?? "18:30:00") : null,
            })
          }
        >
          <option value="">{t("wishes.noSupper")}</option>
          {batches.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
        {wishes.supperDish && (
          <>
            <label htmlFor="supper">{t("wishes.supper")}</label>
            <TimeField
              id="supper"
              isNeeded
              value={wishes.supper}
              change={(supper) => supper && set({ supper })}
            />
          </>
        )}
      </div>
      <fieldset>
        <legend className="mb-1 text-sm font-semibold">{t("wishes.dishes")}</legend>
        <ul className="space-y-1">
          {batches.map((batch) => {
            const isIn = !leftOut.includes(batch.id);
            return (
              <li key={batch.id}>
                <label className="flex min-h-11 cursor-pointer items-center gap-2">
                  <input
                    type="checkbox"
                    className="size-5 shrink-0"
                    aria-label={t("wishes.take", { dish: batch.name })}
                    checked={isIn}
                    onChange={() =>
                      leaveOut(isIn ? [...leftOut, batch.id] : leftOut.filter((id) => id !== batch.id))
                    }
                  />
                  <Tape
                    letters={batch.letters}
                    tint={batch.tint}
                    className={`min-w-0 flex-1 ${isIn ? "" : "opacity-50"}`}
                  >
                    <span className="block truncate text-sm font-semibold">{batch.name}</span>
                    <span className="text-xs">
                      {t(batch.isPutTogether ? "wishes.boxes" : "wishes.portions", { count: batch.portions })}
                      {batch.forDishes > 0 && `, ${t("wishes.forDishes", { count: batch.forDishes })}`}
                      {batch.isCooking && ` · ${t("wishes.inPan")}`}
                    </span>
                  </Tape>
                </label>
                {batch.isCooking && (
                  <Link className="link ml-7 text-sm" to={`/pack/${batch.id}`}>
                    {t("wishes.weigh")}
                  </Link>
                )}
              </li>
            );
          })}
        </ul>
      </fieldset>
      {ahead}
      <fieldset>
        <legend className="mb-1 text-sm font-semibold">{t("wishes.kitchen")}</legend>
        {used.map((kind) => (
          <Stepper key={kind} kind={kind} draft={draft} change={change} />
        ))}
        <button className="link mt-1 text-sm max-md:min-h-11" onClick={showKitchen}>
          {t("wishes.all")}
        </button>
        {equipment.quiet.length > 0 && <p className="text-xs text-soft">{t("kitchen.quietText")}</p>}
      </fieldset>
    </section>
  );
}

/** How much sooner or later the day ends than as it is saved. */
function Difference({ saved, tried }: { saved: LaidDayView | undefined; tried: LaidDayView | undefined }) {
  const { t } = useWords("cook");
  if (!saved || !tried) return <p className="font-title text-lg font-bold">{t("first")}</p>;
  const minutesOfDay = ({ begins, end }: LaidDayView) => {
    const [hour, minute] = begins.split(":").map(Number);
    return hour! * 60 + minute! + end;
  };
  const change = minutesOfDay(tried) - minutesOfDay(saved);
  const key = change < 0 ? "wishes.sooner" : change > 0 ? "wishes.later" : "wishes.same";
  return (
    <>
      <p className="font-title text-lg font-bold">{t(key, { time: lengthOf(t, Math.abs(change)) })}</p>
      {tried.late > 0 && (
        <p className="font-semibold text-brick">{t("late", { time: lengthOf(t, tried.late) })}</p>
      )}
    </>
  );
}

/** One more or one fewer of a machine; of an oven, of its shelves. */
function Stepper({ kind, draft, change }: { kind: Occupies; draft: Draft; change: (draft: Draft) => void }) {
  const { t } = useWords("cook");
  const item = draft.equipment.items.find((one) => one.kind === kind);
  const isOven = kind === "oven";
  const value = isOven ? (item?.holds ?? 1) : (item?.count ?? 0);
  const name = isOven ? t("wishes.shelves") : t(`kinds.${kind}`);
  const set = (next: number) => {
    const changed = isOven ? { holds: next, count: item?.count ?? 1 } : { count: next };
    const others = draft.equipment.items.filter((one) => one.kind !== kind);
    const items = item
      ? draft.equipment.items.map((one) => (one.kind === kind ? { ...one, ...changed } : one))
      : [...others, { kind, holds: null, ...changed }];
    change({ ...draft, equipment: { ...draft.equipment, items } });
  };
  return (
    <div className="flex items-center gap-1 text-sm">
      <span className="min-w-0 flex-1">{name}</span>
      <button
        className="btn min-w-9 px-2 max-md:min-w-11"
        aria-label={t("wishes.fewer", { kind: name })}
        disabled={value <= (isOven ? 1 : 0)}
        onClick={() => set(value - 1)}
      >
        <Minus size={14} aria-hidden />
      </button>
      <span className="w-8 text-center font-bold">{value}</span>
      <button
        className="btn min-w-9 px-2 max-md:min-w-11"
        aria-label={t("wishes.more", { kind: name })}
        disabled={value >= 20}
        onClick={() => set(value + 1)}
      >
        <Plus size={14} aria-hidden />
      </button>
    </div>
  );
}
