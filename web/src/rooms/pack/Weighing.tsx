import {
  sentenceFor,
  troubleOf,
  type BatchView,
  type PackPreview,
  type PackRequest,
  type Trouble,
} from "../../api";
import { Link } from "react-router";
import { useWords } from "../../app/i18n";
import { useLens } from "../../app/lens";
import { Amount } from "../../ui/Figures";
import { grams, piecesOf, wholeNumber } from "../../ui/format";
import { weightIn, wholeIn } from "../../ui/numbers";
import { Sentence } from "../../ui/states";
import { Fits, Into } from "./containers/Into";
import { useContainers } from "./containers/useContainers";
import { Divide } from "./Divide";
import { Labels } from "./Labels";
import { OwnRows } from "./OwnRows";
import { Pan } from "./Pan";
import { Squares } from "./Squares";
import { boxesOf, filledOf, orderOf, rowsNow, type Typed } from "./typed";
import { usePreview } from "./usePreview";
import { whoseBox } from "./whose";

const fields = ["fullGrams", "panGrams", "portions", "pieces", "componentGrams", "cupGrams", "rows"];

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
  const container = useContainers().data?.find(({ id }) => id === typed.container);
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
      {!isWeighedOnly && (
        <div className="mt-3">
          <Into typed={typed} type={type} boxes={good?.boxes.length ?? 0} />
          {good && <Fits boxes={good.boxes} container={container} />}
        </div>
      )}
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
  const whose = (i: number) => rows[i] && whoseBox(t, batch, rows[i].row);
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
            {typed.by === "component" && (
              <span className="text-lg font-normal text-soft">{t("app:about")} </span>
            )}
            {wholeNumber(good.fullest)}{" "}
            <span className="text-lg font-normal text-soft">
              g {t(new Set(good.boxes.map((box) => box.grams)).size > 1 ? "eachAbout" : "each")}
            </span>
          </p>
          <p className="counted mt-2">
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
      {order.isByEye && good.boxes.length > 0 && (
        <p className="mb-3 text-sm">
          <b className="counted">
            {t("byEye.either", {
              kcal: wholeNumber(Math.max(...good.boxes.map(({ giveOrTake }) => giveOrTake ?? 0))),
            })}
          </b>{" "}
          <Link to="/eye" className="link">
            {t("byEye.try")}
          </Link>
        </p>
      )}
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
        {!isPieces && !order.isByEye && (
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
              forWhom: whose(i) ?? undefined,
            }))}
            faint
          />
        </div>
      )}
    </>
  );
}
