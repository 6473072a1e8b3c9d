import type { TFunction } from "i18next";
import { useId } from "react";
import {
  sentenceFor,
  troubleOf,
  type BatchView,
  type PackPreview,
  type PackRequest,
  type Trouble,
} from "../../api";
import { useWords } from "../../app/i18n";
import { useLens } from "../../app/lens";
import { ScaleStrip } from "../../devices/ScaleStrip";
import { Amount } from "../../ui/Figures";
import { exact, grams, piecesOf, shortDay, wholeNumber } from "../../ui/format";
import { weightIn, wholeIn } from "../../ui/numbers";
import { Sentence } from "../../ui/states";
import { BoxCount, Count } from "./BoxCount";
import { Labels } from "./Labels";
import { OwnRows } from "./OwnRows";
import { Squares } from "./Squares";
import { boxesOf, filledOf, orderOf, rowsNow, rowsOf, type By, type Typed } from "./typed";
import { usePreview } from "./usePreview";

const fields = ["fullGrams", "panGrams", "portions", "pieces", "componentGrams", "cupGrams", "rows"];
const ways: By[] = ["weight", "pieces", "squares", "component"];

interface WeighingProps {
  batch: BatchView;
  typed: Typed;
  type: (change: Partial<Typed>) => void;
  trouble: Trouble | null;
  busy: boolean;
  onMake: () => void;
  /** Keeps what the scale says; packed later. */
  onWeigh: () => void;
  onDiscard: () => void;
  /** Box by box on the scale. */
  onFill: () => void;
}

/** The pan on the scale, and what it comes to in each box, worked out with each key. */
export function Weighing(props: WeighingProps) {
  const { batch, typed, type, trouble, busy, onWeigh, onDiscard } = props;
  const { t } = useWords("pack");
  const order = orderOf(batch, typed);
  const isTyped = weightIn(typed.full) !== null;
  const { data: preview, error } = usePreview(batch, order, isTyped);
  const wrong = error ? troubleOf(error, t("app:silent")) : trouble;
  const at = (field: string) => (isTyped && wrong ? sentenceFor(wrong, field) : undefined);
  // What concerns no field of the bench, and no row of its boxes, is said below it.
  const isRow = typed.isEach && wrong?.errors?.some(({ field }) => field.startsWith("boxes["));
  const general =
    wrong && !isRow && !fields.some((field) => sentenceFor(wrong, field)) ? wrong.detail : undefined;
  const good = isTyped && !error && preview ? preview : null;
  // All of it may go into put-together dishes: then it is weighed only.
  const isWeighedOnly =
    !typed.isEach && (wholeIn(typed.boxes) ?? 0) === 0 && batch.together.goesInto.length > 0;

  return (
    <div className="max-w-5xl">
      <Pan batch={batch} typed={typed} type={type} at={at} good={good} />
      <Divide batch={batch} typed={typed} type={type} at={at} />
      {!typed.isEach && batch.planned.length > 0 && (
        <p className="mt-3 max-w-2xl text-sm">
          <b>{t("plannedTitle")}</b> {t("plannedText", { count: batch.planned.length })}
        </p>
      )}
      {typed.isEach && (
        <OwnRows batch={batch} typed={typed} type={type} boxes={good?.boxes ?? null} trouble={wrong} />
      )}
      <Sentence>{general}</Sentence>
      {good && isWeighedOnly ? (
        <p className="mt-5">
          <button className="btn-next min-h-11 px-5 text-base" disabled={busy} onClick={onWeigh}>
            {t("together.keep")}
          </button>
          {good.overGrams >= 5 && (
            <b className="ml-3">{t("overGrams", { grams: grams(Math.round(good.overGrams)) })}</b>
          )}
        </p>
      ) : good ? (
        <Comes {...props} good={good} order={order} />
      ) : (
        !isTyped && (
          <>
            <p className="mt-5 text-soft">{t("first")}</p>
            {batch.expectedGrams !== null && batch.together.goesInto.length === 0 && (
              <button className="btn mt-2 min-h-11" disabled={busy} onClick={props.onFill}>
                {t("fill.without")}
              </button>
            )}
          </>
        )
      )}
      <button className="mt-6 min-h-6 text-xs text-soft underline" disabled={busy} onClick={onDiscard}>
        {t("discard")}
      </button>
    </div>
  );
}

interface PartProps {
  batch: BatchView;
  typed: Typed;
  type: (change: Partial<Typed>) => void;
  at: (field: string) => string | undefined;
}

const unread = (t: TFunction, weight: string) =>
  Number.isNaN(weightIn(weight)) ? t("app:numberNeeded") : undefined;

/** The full pan, the empty one, and what is in it, held against what this dish usually comes to. */
function Pan({ batch, typed, type, at, good }: PartProps & { good: PackPreview | null }) {
  const { t } = useWords("pack");
  return (
    <>
      <ScaleStrip
        takes={[
          { label: t("devices:full"), take: (full) => type({ full: String(full) }) },
          { label: t("devices:pan"), take: (pan) => type({ pan: String(pan) }) },
        ]}
      />
      <div className="panel grid gap-x-6 gap-y-4 p-4 sm:grid-cols-2 lg:grid-cols-[1.2fr_1fr_1.2fr]">
        <Weight
          label={t("full")}
          value={typed.full}
          problem={unread(t, typed.full) ?? at("fullGrams")}
          autoFocus
          onType={(full) => type({ full })}
        />
        <div>
          <Weight
            label={t("pan")}
            value={typed.pan}
            problem={unread(t, typed.pan) ?? at("panGrams")}
            hint={
              !batch.rememberedPanGrams
                ? undefined
                : t("remembered", { grams: grams(batch.rememberedPanGrams) })
            }
            onType={(pan) => type({ pan })}
          />
          {batch.pans.length > 1 && (
            <select
              className="field mt-1 w-full text-sm"
              aria-label={t("pans")}
              value=""
              onChange={(event) => type({ pan: event.target.value })}
            >
              <option value="">{t("pans")}</option>
              {batch.pans.map((pan) => (
                <option key={pan.grams} value={String(pan.grams)}>
                  {t("panOf", { grams: grams(pan.grams), dish: pan.dish })}
                </option>
              ))}
            </select>
          )}
        </div>
        <div aria-live="polite">
          <p className="text-sm text-soft">{t("inPan")}</p>
          <p className="font-title text-[2.75rem] leading-tight font-bold">
            {good ? grams(good.cookedGrams) : "–"} <span className="text-base font-normal text-soft">g</span>
          </p>
          {good && (
            <p className="text-sm text-soft">
              {good.yield > 0 && good.yield !== 1 && (
                <>
                  {t(good.yield < 1 ? "lost" : "gained", {
                    percent: wholeNumber(Math.abs(1 - good.yield) * 100),
                  })}{" "}
                  ·{" "}
                </>
              )}
              {t("gram")} {exact(good.kcalPerGram.value)} kcal
            </p>
          )}
          {good?.usual && <Usual usual={good.usual} />}
        </div>
      </div>
    </>
  );
}

/** What batches of this dish came to before. */
function Usual({ usual }: { usual: NonNullable<PackPreview["usual"]> }) {
  const { t } = useWords("pack");
  const percent = (share: number) => wholeNumber(share * 100);
  return (
    <p className={`text-sm ${usual.says === "asUsual" ? "text-soft" : "font-bold"}`}>
      {t(`usual.${usual.says}`)}{" "}
      <span className="font-normal text-soft">
        {t(`usual.${usual.mean < 1 ? "lost" : "gained"}${usual.batches === 1 ? "Last" : "Mean"}`, {
          percent: percent(Math.abs(1 - usual.mean)),
          count: usual.batches,
        })}
        {usual.spread >= 0.005 && `, ${t("usual.spread", { spread: percent(usual.spread) })}`}
      </span>
    </p>
  );
}

/** What the dish is measured out by, and whether the boxes are alike or each its own way. */
function Divide({ batch, typed, type, at }: PartProps) {
  const { t } = useWords("pack");
  const chosen = (is: boolean) => `btn min-h-11 ${is ? "bg-ink text-ground" : ""}`;
  return (
    <>
      <div className="mt-4 flex flex-wrap items-end gap-x-4 gap-y-3">
        <div role="group" aria-label={t("divide")} className="flex flex-wrap items-center gap-2">
          <span className="font-title font-bold">{t("divide")}</span>
          {ways.map((by) => (
            <button
              key={by}
              aria-pressed={typed.by === by}
              className={chosen(typed.by === by)}
              onClick={() => type({ by })}
            >
              {t(`by.${by}`)}
            </button>
          ))}
        </div>
        {typed.by === "pieces" && (
          <Count
            label={t("pieces")}
            value={typed.pieces}
            problem={at("pieces")}
            onType={(pieces) => type({ pieces })}
          />
        )}
        {typed.by === "squares" && (
          <>
            <Count
              label={t("squares.down")}
              value={typed.down}
              problem={at("rows")}
              onType={(down) => type({ down })}
            />
            <Count label={t("squares.across")} value={typed.across} onType={(across) => type({ across })} />
          </>
        )}
      </div>
      {typed.by === "component" && <Component batch={batch} typed={typed} type={type} at={at} />}
      <div className="mt-4 flex flex-wrap items-end gap-x-4 gap-y-3">
        <div role="group" aria-label={t("own.group")} className="flex flex-wrap items-center gap-2">
          <button
            aria-pressed={!typed.isEach}
            className={chosen(!typed.isEach)}
            onClick={() => type({ isEach: false })}
          >
            {t(batch.planned.length > 0 ? "own.asPlanned" : "own.alike")}
          </button>
          <button
            aria-pressed={typed.isEach}
            className={chosen(typed.isEach)}
            onClick={() =>
              type({
                isEach: true,
                rows: typed.rows.length > 0 ? typed.rows : rowsOf(batch, wholeIn(typed.boxes) ?? 0),
              })
            }
          >
            {t("own.each")}
          </button>
        </div>
        {!typed.isEach && (
          <BoxCount
            value={typed.boxes}
            least={batch.together.goesInto.length > 0 ? 0 : 1}
            problem={at("portions")}
            onType={(boxes) => type({ boxes })}
          />
        )}
        {typed.isEach && typed.rows.some(({ way }) => way === "cups") && (
          <label className="text-xs text-soft">
            <span className="block">{t("own.cupWeighs")}</span>
            <input
              inputMode="decimal"
              className="field w-24 text-right text-base font-bold text-ink"
              value={typed.cupGrams}
              maxLength={8}
              onChange={(event) => type({ cupGrams: event.target.value })}
            />{" "}
            g<Sentence>{at("cupGrams")}</Sentence>
          </label>
        )}
      </div>
    </>
  );
}

/** The one part of the dish that is weighed into the boxes; the rest follows by eye. */
function Component({ batch, typed, type, at }: PartProps) {
  const { t } = useWords("pack");
  return (
    <div className="mt-3 flex flex-wrap items-end gap-3">
      <label className="min-w-0 text-xs text-soft">
        <span className="block">{t("component.which")}</span>
        <select
          className="field max-w-full text-base text-ink"
          value={typed.component}
          onChange={(event) => type({ component: event.target.value })}
        >
          {batch.components.map((name) => (
            <option key={name}>{name}</option>
          ))}
        </select>
      </label>
      <label className="text-xs text-soft">
        <span className="block">{t("component.weighs")}</span>
        <input
          inputMode="decimal"
          className="field w-28 text-right text-lg font-bold text-ink"
          value={typed.componentGrams}
          maxLength={12}
          onChange={(event) => type({ componentGrams: event.target.value })}
        />{" "}
        g
      </label>
      <p className="max-w-md text-sm text-soft">{t("component.text")}</p>
      <Sentence>{at("componentGrams")}</Sentence>
    </div>
  );
}

/** What it comes to: the boxes, what is over, and the ways on from here. */
function Comes({
  batch,
  typed,
  type,
  busy,
  onMake,
  onWeigh,
  onFill,
  good,
  order,
}: WeighingProps & { good: PackPreview; order: PackRequest }) {
  const { t } = useWords("pack");
  const lens = useLens();
  const second = lens === "energy" ? "protein" : "energy";
  const isPieces = typed.by === "pieces" || typed.by === "squares";
  const rows = boxesOf(rowsNow(batch, typed));
  const whose = (i: number) => {
    const row = rows[i]?.row;
    const portion = batch.planned.find(({ itemId }) => itemId === row?.itemId);
    if (portion)
      return t(portion.isForGuests ? "forGuests" : "forWhom", {
        name: portion.name,
        day: shortDay(portion.day),
      });
    const name = batch.ownSizes.find(({ eaterId }) => eaterId === row?.eaterId)?.name;
    return name && t("own.for", { name });
  };
  const boxCount = t("boxes", { count: good.boxes.length });
  const filled = filledOf(batch, typed).length;
  const isKept =
    batch.state === "cooked" && order.fullGrams === batch.fullGrams && order.panGrams === batch.panGrams;
  // The odd piece goes to somebody: then every box has its own number.
  const giveOdd = (to: number) =>
    type({
      isEach: true,
      rows: rows.map(({ key, row }, i) => ({
        ...row,
        key: row.itemId ?? key,
        count: "1",
        way: "pieces",
        amount: String((good.boxes[i]?.pieces ?? 0) + (i === to ? Math.min(1, good.overPieces) : 0)),
      })),
    });
  return (
    <>
      {!typed.isEach && (
        <>
          <p className="mt-5 font-title text-huge leading-none font-bold">
            {wholeNumber(good.fullest)}{" "}
            <span className="text-lg font-normal text-soft">
              g {t(new Set(good.boxes.map((box) => box.grams)).size > 1 ? "eachAbout" : "each")}
            </span>
          </p>
          <p className="mt-2">
            <Amount measure={lens} figure={good.figures[lens]} className="text-lg font-bold" /> ·{" "}
            <Amount measure={second} figure={good.figures[second]} />{" "}
            <span className="text-sm text-soft">{second === "protein" ? t("app:measures.protein") : ""}</span>
          </p>
        </>
      )}
      <p className="mt-2 mb-4">
        <span className="text-sm text-soft">
          {t("sums", { boxes: boxCount, grams: grams(Math.round(good.sum * 10) / 10) })}
        </span>
        {!isPieces && good.overGrams >= 5 && (
          <b className="ml-2">
            {t(typed.isEach ? "own.over" : "overGrams", { grams: grams(Math.round(good.overGrams)) })}
          </b>
        )}
        {good.overPieces > 0 && (
          <>
            <b className="ml-2">
              {t("over", { count: Math.ceil(good.overPieces), said: piecesOf(t, good.overPieces) })}
            </b>{" "}
            <select
              className="field ml-2 text-sm"
              aria-label={t("giveOdd")}
              value=""
              onChange={(event) => giveOdd(Number(event.target.value))}
            >
              <option value="">{t("giveOdd")}</option>
              {good.boxes.map((_, i) => (
                <option key={i} value={i}>
                  {[t("box", { number: i + 1 }), whose(i)].filter(Boolean).join(", ")}
                </option>
              ))}
            </select>
          </>
        )}
      </p>
      {filled > 0 && (
        <p className="mb-3 text-sm">
          <b>{t("fill.some", { count: filled, of: good.boxes.length })}</b>{" "}
          <button className="link min-h-6" onClick={() => type({ got: {} })}>
            {t("fill.forget")}
          </button>
        </p>
      )}
      <div className="flex flex-wrap gap-3">
        <button className="btn-next min-h-11 px-5 text-base" disabled={busy} onClick={onMake}>
          {busy ? t("making") : t("make", { count: good.boxes.length })}
        </button>
        {!isPieces && (
          <button className="btn min-h-11" disabled={busy} onClick={onFill}>
            {t("fill.start")}
          </button>
        )}
        {!isKept && (
          <button className="btn min-h-11" disabled={busy} onClick={onWeigh}>
            {t("packLater")}
          </button>
        )}
      </div>
      {good.squares && <Squares batch={batch} typed={typed} boxOf={good.squares} />}
      {!typed.isEach && (
        <div className="mt-5">
          <Labels
            batch={batch}
            boxes={good.boxes.map((box, i) => ({
              number: i + 1,
              grams: box.grams,
              pieces: box.pieces,
              volume: box.volume,
              forWhom: whose(i),
            }))}
            faint
          />
        </div>
      )}
    </>
  );
}

function Weight({
  label,
  value,
  problem,
  hint,
  autoFocus,
  onType,
}: {
  label: string;
  value: string;
  problem?: string;
  hint?: string;
  autoFocus?: boolean;
  onType: (value: string) => void;
}) {
  const id = useId();
  return (
    <div>
      <label htmlFor={id} className="text-sm text-soft">
        {label}
      </label>
      <p className="flex items-baseline gap-2">
        <input
          id={id}
          inputMode="decimal"
          autoFocus={autoFocus}
          aria-invalid={problem !== undefined}
          className={`field w-full min-w-0 font-title text-[2.75rem] leading-tight font-bold ${problem ? "border-2 border-brick" : ""}`}
          value={value}
          maxLength={12}
          onChange={(event) => onType(event.target.value)}
        />
        <span className="text-soft">g</span>
      </p>
      {hint && <p className="text-xs text-soft">{hint}</p>}
      <Sentence>{problem}</Sentence>
    </div>
  );
}
