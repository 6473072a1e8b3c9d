import { useQuiet } from "../../app/quiet";
import { useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import {
  setVerdict,
  troubleOf,
  type EatenDishView,
  type Measure,
  type Serving,
  type Verdict,
  type WeekReviewView,
} from "../../api";
import { freshen } from "../../app/freshen";
import { useHistory } from "../../app/history";
import { useWords } from "../../app/i18n";
import { useInTurn } from "../../app/inTurn";
import { useSay } from "../../app/notices";
import { Amount } from "../../ui/Figures";
import { Plot } from "../../ui/Plot";
import { useWidth } from "../../ui/Ruler";
import { verdictWords } from "../../ui/verdict";
import { Mark } from "../../ui/Tape";
import { shortDay, unitWords } from "../../ui/format";
import { cut } from "./cut";

const bar = 24;

/** What was eaten, dish by dish, with its share; and what is said of each. */
export function Dishes({ week, lens }: { week: WeekReviewView; lens: Measure }) {
  const { t } = useWords("review");
  const quiet = useQuiet();
  const [ref, width] = useWidth<HTMLDivElement>();
  const value = (dish: EatenDishView) => Math.max(0, dish.figures[lens]?.value ?? 0);
  const all = week.dishes.reduce((sum, dish) => sum + value(dish), 0);
  const dishes = [...week.dishes].sort((a, b) => value(b) - value(a));
  const name = (dish: EatenDishView) => dish.name || t(`dishes.${dish.kind}`);
  const share = (dish: EatenDishView) => (all > 0 ? (value(dish) / all) * 100 : 0);
  const label = Math.min(240, width * 0.5);
  const long = (dish: EatenDishView) =>
    (value(dish) / Math.max(1, ...dishes.map(value))) * (width - label - 56);
  return (
    <section aria-labelledby="dishes-title" className="space-y-3">
      <h2 id="dishes-title" className="text-lg">
        {t("dishes.title")}
      </h2>
      {dishes.length === 0 ? (
        <p className="text-soft">{t("dishes.none")}</p>
      ) : quiet ? null : (
        <Plot
          name={`dishes-${week.monday}-${week.name}`}
          head={[t("dishes.what"), t("dishes.times"), unitWords(t, lens), "%"]}
          rows={dishes.map((dish) => [
            name(dish),
            dish.times,
            Math.round(value(dish) * 10) / 10,
            Math.round(share(dish) * 10) / 10,
          ])}
        >
          <div ref={ref} style={{ height: dishes.length * bar }}>
            {width > 0 && (
              <svg width={width} height={dishes.length * bar} role="img" aria-label={t("dishes.picture")}>
                {dishes.map((dish, i) => (
                  <g key={dish.batchId ?? dish.kind}>
                    <text x={0} y={i * bar + 16} fontSize={13} fill="var(--ink)">
                      {cut(name(dish), label - 8, 6.6)}
                    </text>
                    <rect
                      x={label}
                      width={Math.max(1, long(dish))}
                      y={i * bar + 4}
                      height={bar - 8}
                      rx={2}
                      className={dish.tint === null ? "" : `tint-${dish.tint}`}
                      fill={dish.tint === null ? "var(--panel)" : "var(--tint)"}
                      stroke="var(--rim)"
                      strokeWidth={0.8}
                    />
                    <text
                      x={label + long(dish) + 6}
                      y={i * bar + 16}
                      fontSize={13}
                      fontWeight={700}
                      fill="var(--ink)"
                    >
                      {`${Math.round(share(dish))} %`}
                    </text>
                  </g>
                ))}
              </svg>
            )}
          </div>
        </Plot>
      )}
      <ul className="divide-y divide-line">
        {dishes
          .filter(({ batchId }) => batchId !== null)
          .map((dish) => (
            <Dish key={dish.batchId} week={week} dish={dish} lens={lens} />
          ))}
      </ul>
    </section>
  );
}

const silent: Verdict = {
  taste: null,
  reheats: null,
  keeps: null,
  effort: null,
  again: null,
  toChange: null,
};

function Dish({ week, dish, lens }: { week: WeekReviewView; dish: EatenDishView; lens: Measure }) {
  const { t } = useWords("review");
  const [isOpen, setOpen] = useState(false);
  const said = dish.verdicts.map(({ serving, verdict }) => ({ serving, words: verdictWords(t, verdict) }));
  return (
    <li className="py-2">
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
        <Mark letters={dish.letters!} tint={dish.tint!} className="size-8 rounded-sm text-xs" />
        <span className="min-w-0 grow basis-48">
          <b>{dish.name}</b>{" "}
          <span className="text-sm text-soft">
            {t("dishes.cooked", { day: shortDay(dish.cookedOn!), count: dish.times })}
          </span>
          {said.map(({ serving, words }) => (
            <span key={serving} className="block text-sm">
              <span className="text-soft">{t(`app:verdict.${serving}`)}:</span> {words}
            </span>
          ))}
        </span>
        <Amount measure={lens} figure={dish.figures[lens]} className="font-title font-bold" />
        <button
          className="btn"
          aria-expanded={isOpen}
          aria-label={t("verdict.openNamed", { name: dish.name })}
          onClick={() => setOpen(!isOpen)}
        >
          {t(isOpen ? "verdict.done" : said.length > 0 ? "verdict.change" : "verdict.open")}
        </button>
      </div>
      {isOpen && <VerdictForm week={week} dish={dish} />}
    </li>
  );
}

const choices = {
  taste: ["favourite", "good", "fair", "notMine"],
  reheats: ["well", "fairly", "poorly"],
  keeps: ["well", "fairly", "poorly"],
  effort: ["little", "worthIt", "tooMuch"],
  again: ["yes", "changed", "no"],
} as const;

/** What is said of a batch, fresh and reheated apart. */
function VerdictForm({ week, dish }: { week: WeekReviewView; dish: EatenDishView }) {
  const { t } = useWords("review");
  const [serving, setServing] = useState<Serving>(dish.servings.at(-1) ?? "reheated");
  return (
    <div className="mt-2 space-y-2 rounded-md border border-line bg-bench p-3">
      <div role="group" aria-label={t("verdict.serving")} className="flex gap-1">
        {(["fresh", "reheated"] as const).map((one) => (
          <button
            key={one}
            className={`btn ${serving === one ? "bg-ink text-ground" : ""}`}
            aria-pressed={serving === one}
            onClick={() => setServing(one)}
          >
            {t(`app:verdict.${one}`)}
          </button>
        ))}
      </div>
      <Said key={serving} week={week} dish={dish} serving={serving} />
    </div>
  );
}

/** Each press is written down at once, one after another. */
function Said({ week, dish, serving }: { week: WeekReviewView; dish: EatenDishView; serving: Serving }) {
  const { t } = useWords("review");
  const queries = useQueryClient();
  const say = useSay();
  const { did } = useHistory();
  const inTurn = useInTurn(`verdict ${dish.batchId}`);
  const kept = dish.verdicts.find((one) => one.serving === serving)?.verdict ?? silent;
  // What was pressed and is on its way: the next press goes on from there.
  const onItsWay = useRef<Verdict | null>(null);
  const [ahead, setAhead] = useState<Verdict | null>(null);
  const verdict = ahead ?? kept;
  const write = async (before: Verdict, next: Verdict) => {
    const path = { batchId: dish.batchId!, eaterId: week.eaterId };
    await inTurn(() => setVerdict({ path, body: { serving, before, verdict: next } }));
  };
  const change = async (part: Partial<Verdict>): Promise<boolean> => {
    const before = onItsWay.current ?? kept;
    const next = { ...before, ...part };
    onItsWay.current = next;
    setAhead(next);
    try {
      await write(before, next);
      did(t("verdict.written", { name: dish.name }), async () => {
        await write(next, before);
        await freshen(queries, "verdict");
      });
      return true;
    } catch (thrown) {
      onItsWay.current = null;
      say(troubleOf(thrown, t("app:silent")).detail ?? "", { trouble: true });
      return false;
    } finally {
      await freshen(queries, "verdict");
      if (onItsWay.current === next || onItsWay.current === null) {
        onItsWay.current = null;
        setAhead(null);
      }
    }
  };
  return (
    <>
      {(Object.keys(choices) as (keyof typeof choices)[])
        .filter((about) => serving === "reheated" || (about !== "reheats" && about !== "keeps"))
        .map((about) => (
          <div
            key={about}
            role="group"
            aria-label={t(`verdict.about.${about}`)}
            className="flex flex-wrap items-center gap-1"
          >
            <span className="w-24 text-sm text-soft max-md:w-full">{t(`verdict.about.${about}`)}</span>
            {choices[about].map((choice) => {
              const isSaid = verdict[about] === choice;
              return (
                <button
                  key={choice}
                  className={`btn ${isSaid ? "bg-ink text-ground" : "bg-panel"}`}
                  aria-pressed={isSaid}
                  onClick={() => void change({ [about]: isSaid ? null : choice })}
                >
                  {t(`verdict.${about}.${choice}`)}
                </button>
              );
            })}
          </div>
        ))}
      <ToChange text={verdict.toChange ?? ""} onSay={(toChange) => change({ toChange })} />
    </>
  );
}

function ToChange({
  text,
  onSay,
}: {
  text: string;
  /** @returns Whether it was written down. */
  onSay: (text: string | null) => Promise<boolean>;
}) {
  const { t } = useWords("review");
  // As typed, until it is written down: what was refused stays typed.
  const [typed, setTyped] = useState<string | null>(null);
  const send = async () => {
    if (typed === null) return;
    if (typed.trim() === text || (await onSay(typed.trim() || null)))
      setTyped((now) => (now === typed ? null : now));
  };
  return (
    <label className="block text-sm">
      <span className="text-soft">{t("verdict.toChange")}</span>
      <input
        className="field mt-1 w-full"
        maxLength={300}
        placeholder={t("verdict.toChangeHint")}
        value={typed ?? text}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={() => void send()}
        onKeyDown={(event) => event.key === "Enter" && void send()}
      />
    </label>
  );
}
