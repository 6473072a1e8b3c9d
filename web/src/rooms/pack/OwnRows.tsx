import type { TFunction } from "i18next";
import { Plus, X } from "lucide-react";
import { sentenceFor, type BatchView, type BoxPreview, type Measure, type Trouble } from "../../api";
import { useWords } from "../../app/i18n";
import { lensesOf, useLens } from "../../app/lens";
import { useEaters } from "../../app/Header";
import { Amount } from "../../ui/Figures";
import { grams, piecesOf, shortDay, unitWords } from "../../ui/format";
import { wholeIn } from "../../ui/numbers";
import { Sentence } from "../../ui/states";
import { dayWords } from "./dayWords";
import { boxesOf, rowFor, rowsNow, sharing, waysOf, type Row, type Typed, type Way } from "./typed";

interface OwnRowsProps {
  batch: BatchView;
  typed: Typed;
  type: (change: Partial<Typed>) => void;
  /** Each box as it would be; null where something is wrong. */
  boxes: BoxPreview[] | null;
  trouble: Trouble | null;
}

/** Boxes each in their own way: whose, how many, how much, where to; with what that comes to. */
export function OwnRows({ batch, typed, type, boxes, trouble }: OwnRowsProps) {
  const { t } = useWords("pack");
  const rows = rowsNow(batch, typed);
  const keys = boxesOf(rows).map(({ row }) => row.key);
  const change = (key: string, part: Partial<Row>) =>
    type({ rows: rows.map((row) => (row.key === key ? { ...row, ...part } : row)) });
  const add = () => type({ rows: [...rows, sharing(crypto.randomUUID(), 1)] });
  return (
    <div className="mt-4">
      <ul className="divide-y divide-line border-y border-line">
        {rows.map((row) => {
          const [from, count] = [keys.indexOf(row.key), keys.filter((key) => key === row.key).length];
          const own = boxes && from >= 0 ? boxes.slice(from, from + count) : [];
          const problems = Array.from({ length: count }, (_, i) =>
            trouble ? sentenceAt(trouble, from + i) : undefined,
          );
          return (
            <RowLine
              key={row.key}
              batch={batch}
              by={typed.by}
              row={row}
              from={from}
              own={own}
              problem={problems.find(Boolean)}
              change={(part) => change(row.key, part)}
              remove={() => type({ rows: rows.filter((one) => one.key !== row.key) })}
            />
          );
        })}
      </ul>
      <button className="btn mt-2 min-h-11" onClick={add}>
        <Plus size={16} aria-hidden /> {t("own.add")}
      </button>
    </div>
  );
}

// "boxes[2].grams", or the box as a whole.
const sentenceAt = (trouble: Trouble, i: number) =>
  ["", ".grams", ".pieces", ".cups", ".atMost", ".share", ".got"]
    .map((field) => sentenceFor(trouble, `boxes[${i}]${field}`))
    .find(Boolean);

function RowLine({
  batch,
  by,
  row,
  from,
  own,
  problem,
  change,
  remove,
}: {
  batch: BatchView;
  by: Typed["by"];
  row: Row;
  /** The first of its boxes among all, from 0; below zero where it has none. */
  from: number;
  own: BoxPreview[];
  problem: string | undefined;
  change: (part: Partial<Row>) => void;
  remove: () => void;
}) {
  const { t } = useWords("pack");
  const eaters = useEaters();
  const lens = useLens();
  const portion = batch.planned.find(({ itemId }) => itemId === row.itemId);
  const measures: Measure[] = lensesOf(eaters);
  const ways = waysOf(by, row);
  const { way, amount } = rowFor(by, row);
  const isCounted = (wholeIn(row.count) ?? 0) > 0;
  const whose = portion
    ? t(portion.isForGuests ? "forGuests" : "forWhom", { name: portion.name, day: shortDay(portion.day) })
    : (batch.ownSizes.find(({ eaterId }) => eaterId === row.eaterId)?.name ?? t("own.anyone"));
  // Whose box it is brings their own size of it, and what they count by.
  const give = (eaterId: string) => {
    const size = batch.ownSizes.find((one) => one.eaterId === eaterId);
    const isOwn = size?.grams != null && way === "share" && by === "weight";
    change({
      eaterId: eaterId || null,
      measure: size?.leading ?? row.measure,
      ...(isOwn ? { way: "grams", amount: String(Math.round(size.grams!)) } : {}),
    });
  };
  const size = batch.ownSizes.find(({ eaterId }) => eaterId === row.eaterId)?.grams;
  return (
    <li
      className={`grid items-start gap-x-4 gap-y-2 py-3 ${by === "squares" ? "md:grid-cols-[minmax(0,1.4fr)_minmax(0,2fr)_minmax(0,1.3fr)_19rem]" : "md:grid-cols-[minmax(0,1.4fr)_minmax(0,2fr)_minmax(0,1.3fr)_12rem]"}`}
    >
      <div className="flex flex-wrap items-center gap-2">
        {from >= 0 && (
          <span className="w-full text-xs text-soft">
            {own.length > 1
              ? t("own.boxes", { from: from + 1, to: from + own.length })
              : t("box", { number: from + 1 })}
          </span>
        )}
        {portion ? (
          <b>{whose}</b>
        ) : (
          <>
            <input
              inputMode="numeric"
              className={`field w-14 text-center font-bold ${isCounted ? "" : "border-2 border-brick"}`}
              aria-label={t("own.count")}
              aria-invalid={!isCounted}
              value={row.count}
              maxLength={4}
              onChange={(event) => change({ count: event.target.value })}
            />
            <select
              className="field min-w-0"
              aria-label={t("own.whose")}
              value={row.eaterId ?? ""}
              onChange={(event) => give(event.target.value)}
            >
              <option value="">{t("own.anyone")}</option>
              {batch.ownSizes.map(({ eaterId, name }) => (
                <option key={eaterId} value={eaterId}>
                  {t("own.for", { name })}
                </option>
              ))}
            </select>
          </>
        )}
      </div>
      <div>
        <div className="flex flex-wrap items-center gap-2">
          <select
            className="field min-w-0"
            aria-label={t("own.way", { whose })}
            value={way}
            onChange={(event) =>
              change({ way: event.target.value as Way, amount: event.target.value === "share" ? "1" : "" })
            }
          >
            {ways.map((one) => (
              <option key={one} value={one}>
                {t(`own.ways.${one}`)}
              </option>
            ))}
          </select>
          {way !== "planned" && (
            <input
              inputMode="decimal"
              className={`field w-16 text-right font-bold ${problem ? "border-2 border-brick" : ""}`}
              aria-label={t("own.amount", { whose })}
              aria-invalid={problem !== undefined}
              value={amount}
              maxLength={12}
              onChange={(event) => change({ amount: event.target.value, way })}
            />
          )}
          {way === "atMost" ? (
            <select
              className="field min-w-0"
              aria-label={t("own.measure", { whose })}
              value={row.measure}
              onChange={(event) => change({ measure: event.target.value as Measure })}
            >
              {measures.map((measure) => (
                <option key={measure} value={measure}>
                  {unitWords(t, measure)}
                </option>
              ))}
            </select>
          ) : (
            way !== "planned" && <span className="text-soft">{t(`own.units.${way}`)}</span>
          )}
        </div>
        {size != null && by === "weight" && way !== "planned" && (
          <p className="mt-1 text-xs text-soft">{t("own.lastTime", { grams: grams(Math.round(size)) })}</p>
        )}
        <Sentence>{problem ?? (isCounted ? undefined : t("whole"))}</Sentence>
      </div>
      <Comes
        own={own}
        isAbout={by === "component"}
        measure={way === "atMost" ? row.measure : lens}
        leading={batch.ownSizes.find(({ eaterId }) => eaterId === row.eaterId)?.leading}
      />
      <div className="flex items-center gap-2 md:justify-end">
        {by === "squares" && (
          <label className="flex min-h-11 items-center gap-1 text-sm">
            <input
              type="checkbox"
              className="size-5"
              checked={row.likesEdge}
              onChange={(event) => change({ likesEdge: event.target.checked })}
            />
            {t("own.edge")}
          </label>
        )}
        <label className="flex min-h-11 items-center gap-1 text-sm">
          <input
            type="checkbox"
            className="size-5"
            checked={row.place === "freezer"}
            onChange={(event) => change({ place: event.target.checked ? "freezer" : "fridge" })}
          />
          {t("own.freeze")}
        </label>
        {!portion && (
          <button
            className="btn min-h-11 border-0 px-2"
            aria-label={t("own.remove", { whose })}
            title={t("own.remove", { whose })}
            onClick={remove}
          >
            <X size={18} aria-hidden />
          </button>
        )}
      </div>
    </li>
  );
}

/** What the boxes of a row come to: how much, what it holds, and what it does to its day. */
function Comes({
  own,
  isAbout,
  measure,
  leading = "energy",
}: {
  own: BoxPreview[];
  isAbout: boolean;
  /** What it is looked at by; where its eater does not count that, by what they do. */
  measure: Measure;
  leading?: Measure;
}) {
  const { t } = useWords("pack");
  if (own.length === 0) return <p className="py-2 text-soft">–</p>;
  const sorted = own.map((box) => box.grams).sort((a, b) => a - b);
  const [least, most] = [sorted[0]!, sorted.at(-1)!];
  const [first] = own as [BoxPreview];
  const [by, second] = measuresOf(first.figures, measure, leading);
  const day = first.day && dayWords(t, first.day);
  const about = isAbout ? `${t("app:about")} ` : "";
  const weight =
    grams(Math.round(least)) === grams(Math.round(most))
      ? grams(Math.round(most))
      : t("own.between", { least: grams(Math.round(least)), most: grams(Math.round(most)) });
  return (
    <div>
      <p>
        <b className="font-title text-lg">
          {first.pieces !== null ? piecesOf(t, first.pieces) : `${about}${weight} g`}
        </b>
        {first.volume !== null && <span className="text-sm text-soft"> · {first.volume}</span>}
      </p>
      <p className="counted text-sm">
        {about}
        <Amount measure={by} figure={first.figures[by]} /> {nameOf(t, by)} ·{" "}
        <Amount measure={second} figure={first.figures[second]} /> {nameOf(t, second)}
      </p>
      {day && (
        <p className={`counted text-sm ${day.isOver ? "font-bold text-brick" : "text-soft"}`}>
          {day.isOver && <span aria-hidden className="hatched mr-1 inline-block h-3 w-1.5" />}
          {day.words}
        </p>
      )}
    </div>
  );
}

/** What a box is told by: as it is looked at, or as its eater counts; and a second measure beside it. */
const measuresOf = (
  figures: BoxPreview["figures"],
  measure: Measure,
  leading: Measure,
): [Measure, Measure] => {
  const by = figures[measure] ? measure : figures[leading] ? leading : "energy";
  return [by, by === "energy" ? "protein" : "energy"];
};

const nameOf = (t: TFunction, measure: Measure) =>
  measure === "energy" || measure === "points" ? "" : t(`app:measures.${measure}`);
