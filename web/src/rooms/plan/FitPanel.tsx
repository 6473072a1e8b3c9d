import { useQuiet } from "../../app/quiet";
import { useState } from "react";
import { useWords } from "../../app/i18n";
import type { FitRequest, FitScope, FitView, FitWishes, Measure } from "../../api";
import { amount, shortDay, unitOf } from "../../ui/format";
import { Sentence } from "../../ui/states";
import { outWords } from "./reading";
import { dayKey } from "./useFit";

const scopes: FitScope[] = ["fitted", "boxes", "everything", "gaps"];
const wishNames = ["closeness", "lessWaste", "variety", "fewerFillers"] as const;

interface FitPanelProps {
  /** The days that can be fitted, first and last. */
  from: string;
  to: string;
  days: string[];
  eaterIds: string[] | null;
  fit: FitView | undefined;
  /** Why nothing is heard of it any more. */
  trouble: string | null;
  /** What an eater's day is measured in. */
  measureOf: (eaterId: string) => Measure;
  onBegin: (body: FitRequest) => void;
  onStop: () => void;
  onTake: (days: { eaterId: string; day: string }[]) => void;
  onDrop: () => void;
  /** Whether there are batches still to be cooked. */
  hasAhead: boolean;
  close: () => void;
}

/** Fit: what to fill and what counts; then the draft, day by day, to be taken whole, in part, or not. */
export function FitPanel(props: FitPanelProps) {
  const { t } = useWords("plan");
  const { fit, close } = props;
  // Kept here, so that they are still chosen when a draft is left.
  const [choices, setChoices] = useState<Choices>(usual);
  return (
    <section aria-labelledby="fit-title">
      <h2 id="fit-title" className="mb-2 flex items-baseline justify-between text-base">
        {t("fit.title")}
        <button className="min-h-8 text-sm font-normal underline" onClick={close}>
          {t("app:close")}
        </button>
      </h2>
      {fit ? (
        <Draft key={fit.id} {...props} fit={fit} />
      ) : (
        <Wishes {...props} choices={choices} onChoose={setChoices} />
      )}
    </section>
  );
}

/** What is chosen before a fit begins. */
interface Choices {
  scope: FitScope;
  /** Only this day; empty for all. */
  day: string;
  amountsAreOpen: boolean;
  wishes: Required<FitWishes>;
}

const usual: Choices = {
  scope: "fitted",
  day: "",
  amountsAreOpen: false,
  wishes: { closeness: 2, lessWaste: 2, variety: 2, fewerFillers: 2 },
};

function Wishes({
  from,
  to,
  days,
  eaterIds,
  hasAhead,
  onBegin,
  choices,
  onChoose,
}: FitPanelProps & { choices: Choices; onChoose: (choices: Choices) => void }) {
  const { t } = useWords("plan");
  const { scope, wishes, amountsAreOpen } = choices;
  const day = days.includes(choices.day) ? choices.day : "";
  const set = (change: Partial<Choices>) => onChoose({ ...choices, ...change });
  return (
    <form
      className="space-y-3 text-sm"
      onSubmit={(event) => {
        event.preventDefault();
        onBegin({
          from: day || from,
          to: day || to,
          eaterIds,
          scope,
          wishes,
          seconds: 10,
          amountsAreOpen: hasAhead && amountsAreOpen,
        });
      }}
    >
      <p className="text-soft">{t("fit.lead")}</p>
      <label className="block">
        {t("fit.days")}
        <select
          className="field mt-0.5 block w-full"
          value={day}
          onChange={(event) => set({ day: event.target.value })}
        >
          <option value="">{t("fit.allDays", { from: shortDay(from), to: shortDay(to) })}</option>
          {days.map((one) => (
            <option key={one} value={one}>
              {t("fit.oneDay", { day: shortDay(one) })}
            </option>
          ))}
        </select>
      </label>
      <fieldset className="space-y-1">
        <legend className="text-soft">{t("fit.scope")}</legend>
        {scopes.map((one) => (
          <label key={one} className="flex items-center gap-2">
            <input type="radio" name="scope" checked={scope === one} onChange={() => set({ scope: one })} />
            {t(`fit.scopes.${one}`)}
          </label>
        ))}
      </fieldset>
      {hasAhead && (
        <label className="flex items-start gap-2">
          <input
            type="checkbox"
            className="mt-0.5 size-4"
            checked={amountsAreOpen}
            onChange={() => set({ amountsAreOpen: !amountsAreOpen })}
          />
          {t("fit.amountsOpen")}
        </label>
      )}
      <details>
        <summary className="text-soft">{t("fit.wishes")}</summary>
        {wishNames.map((name) => (
          <label key={name} className="mt-1 block">
            {t(`fit.wish.${name}`)}
            <span className="flex items-center gap-2">
              <input
                type="range"
                min={0}
                max={4}
                className="min-w-0 flex-1"
                value={wishes[name]}
                onChange={(event) => set({ wishes: { ...wishes, [name]: Number(event.target.value) } })}
              />
              <span className="w-20 text-xs text-soft">{t(`fit.much.${wishes[name]}`)}</span>
            </span>
          </label>
        ))}
      </details>
      <button className="btn-next w-full">{t("fit.begin")}</button>
    </form>
  );
}

function Draft({ fit, trouble, measureOf, onStop, onTake, onDrop }: FitPanelProps & { fit: FitView }) {
  const { t } = useWords("plan");
  const quiet = useQuiet();
  const [left, setLeft] = useState<string[]>([]);
  const changed = fit.days.filter(({ comes, goes }) => comes.length + goes.length > 0);
  const chosen = changed.filter((day) => !left.includes(dayKey(day)));
  const begun = fit.betterThanFirst !== null;
  return (
    <div className="space-y-3 text-sm">
      {/* As tall while it looks as when it has found: the buttons below stay under the hand. */}
      <div role="status" aria-live="polite" className="min-h-24 md:min-h-32">
        {begun && quiet && <p>{t("quiet.changes", { count: changed.length })}</p>}
        {begun && !quiet && (
          <p>
            <span className="font-title text-2xl font-bold">
              {fit.fitAfter}
              <span className="text-sm font-normal text-soft"> {t("fit.of", { count: fit.allDays })}</span>
            </span>
            <br />
            {t("fit.before", { count: fit.fitBefore })}
            {fit.shelfAfter > 0 && <> · {t("fit.shelf", { count: fit.shelfAfter })}</>}
          </p>
        )}
        <p className="mt-1 text-xs text-soft">
          {fit.hasFailed
            ? t("fit.failed")
            : fit.isBest
              ? t("fit.best")
              : fit.isDone
                ? t("fit.ended")
                : t("fit.looking")}
          {begun && !fit.isBest && <> {t("fit.bestSoFar")}</>}
          {begun && !quiet && fit.fitAfter < fit.allDays && (
            <> {t("fit.miss", { count: fit.allDays - fit.fitAfter })}</>
          )}
        </p>
        <Sentence>{trouble}</Sentence>
        {!fit.isDone && !trouble && (
          <span
            aria-hidden
            className="mt-1 block h-1 animate-pulse rounded bg-sea motion-reduce:animate-none"
          />
        )}
      </div>
      <div className="flex flex-wrap gap-2">
        <button className="btn" disabled={fit.isDone} onClick={onStop}>
          {t("fit.stop")}
        </button>
        <button className="btn-next" disabled={chosen.length === 0} onClick={() => onTake(chosen)}>
          {left.length === 0 ? t("fit.takeAll") : t("fit.takeSome", { count: chosen.length })}
        </button>
        <button className="btn" onClick={onDrop}>
          {t("fit.drop")}
        </button>
      </div>
      {fit.leftOut.length > 0 && (
        <p className="border-l-2 border-brick pl-2 text-xs">
          {t("fit.leftOut", { names: fit.leftOut.join(", ") })}
        </p>
      )}
      {fit.isDone && changed.length === 0 && <p>{t("fit.nothing")}</p>}
      <ul className="max-h-[46vh] space-y-2 overflow-auto pr-1">
        {fit.days.map((day) => {
          const key = dayKey(day);
          const moves = day.comes.length + day.goes.length > 0;
          const measure = measureOf(day.eaterId);
          const sum = day.after.sums[measure];
          return (
            <li key={key} className="border-t border-line pt-1">
              <label className="flex items-start gap-2">
                {moves ? (
                  <input
                    type="checkbox"
                    className="mt-0.5 size-4"
                    checked={!left.includes(key)}
                    onChange={() =>
                      setLeft(left.includes(key) ? left.filter((one) => one !== key) : [...left, key])
                    }
                  />
                ) : (
                  <span aria-hidden className="hatched mt-1 h-3 w-4 shrink-0 rounded-sm" />
                )}
                <span className="min-w-0 flex-1">
                  <b>{shortDay(day.day).slice(0, 6)}</b> {day.name}
                  <span className="counted float-right">
                    {sum && amount(measure, sum.value)}{" "}
                    <span className="text-xs text-soft">{unitOf(measure)}</span>
                  </span>
                  <span className={`counted block text-xs ${day.after.fits ? "text-sea" : "text-brick"}`}>
                    {day.after.fits ? t("fits") : outWords(t, day.after.bands)}
                    {day.atTheEdge.length > 0 &&
                      ` · ${t("fit.atTheEdge", { names: day.atTheEdge.map((one) => t(`app:measures.${one}`)).join(", ") })}`}
                  </span>
                </span>
              </label>
              {day.comes.length > 0 && (
                <p className="pl-6 text-xs">
                  <span className="text-soft">{t("fit.comes")}</span> {day.comes.join(", ")}
                </p>
              )}
              {day.goes.length > 0 && (
                <p className="pl-6 text-xs">
                  <span className="text-soft">{t("fit.goes")}</span> {day.goes.join(", ")}
                </p>
              )}
            </li>
          );
        })}
      </ul>
    </div>
  );
}
