import { Link } from "react-router";
import { sentenceFor, troubleOf, type BatchView, type Trouble } from "../../api";
import { useWords } from "../../app/i18n";
import { useLens } from "../../app/lens";
import { Amount } from "../../ui/Figures";
import { grams, longDay, piecesOf, shortDay, wholeNumber } from "../../ui/format";
import { wholeIn } from "../../ui/numbers";
import { Sentence } from "../../ui/states";
import { Mark } from "../../ui/Tape";
import { BoxCount } from "./BoxCount";
import { Fits, Into } from "./containers/Into";
import { useContainers } from "./containers/useContainers";
import { orderOf, type Typed } from "./typed";
import { usePreview } from "./usePreview";

interface TogetherProps {
  batch: BatchView;
  typed: Typed;
  type: (change: Partial<Typed>) => void;
  trouble: Trouble | null;
  busy: boolean;
  onMake: () => void;
  onDiscard: () => void;
  /** Part by part over all boxes. */
  onFill: () => void;
}

/** A dish that is put together: its parts, how each stands, and its boxes once all of them are weighed. */
export function Together({ batch, typed, type, trouble, busy, onMake, onDiscard, onFill }: TogetherProps) {
  const { t } = useWords("pack");
  const lens = useLens();
  const { parts } = batch.together;
  const open = parts.filter(({ isWeighed }) => !isWeighed);
  const count = wholeIn(typed.boxes) ?? 0;
  const { data: preview, error } = usePreview(batch, orderOf(batch, typed), true);
  const container = useContainers().data?.find(({ id }) => id === typed.container);
  const weighed = Object.values(typed.parts).some(({ got }) => Object.keys(got).length > 0);
  const wrong = error ? troubleOf(error, t("app:silent")) : trouble;
  const atBoxes = wrong ? sentenceFor(wrong, "portions") : undefined;
  const good = error ? null : preview;
  const isUnequal = new Set(good?.boxes.map((box) => box.grams)).size > 1;
  const second = lens === "energy" ? "protein" : "energy";
  return (
    <div className="max-w-5xl gap-x-8 lg:grid lg:grid-cols-[1.3fr_1fr]">
      <div>
        <p>
          {t("together.text", {
            day: longDay(batch.cookedOn),
            portions: t("boxCount", { count: batch.portions }),
          })}
        </p>
        <h2 className="mt-4 text-base">{t("together.parts")}</h2>
        <ul className="divide-y divide-line border-y border-line">
          {parts.map((part) => (
            <li key={part.batchId} className="flex min-h-12 flex-wrap items-center gap-x-3 gap-y-1 py-2">
              <Mark letters={part.letters} tint={part.tint} className="h-7 w-9 text-xs" />
              <span className="min-w-32 flex-1">
                <span className="block font-semibold">{part.name}</span>
                <span className={part.isWeighed ? "text-sm text-soft" : "text-sm"}>
                  {t(`together.states.${part.state}`, { day: shortDay(part.cookedOn) })}
                  {part.expected === "whatGoesIn" && `; ${t("together.unknownYield")}`}
                </span>
              </span>
              <span className="text-right">
                <b className="font-title text-lg">
                  {part.pieces
                    ? `${piecesOf(t, part.pieces)}, ${wholeNumber(part.grams)} g`
                    : t("together.gets", { grams: wholeNumber(part.grams) })}
                </b>
                {good?.parts[part.batchId] !== undefined && (
                  <span className="block text-xs text-soft">
                    {t("together.each", {
                      grams: wholeNumber(good.parts[part.batchId]!),
                      where: t(isUnequal ? "eachAbout" : "each"),
                    })}
                  </span>
                )}
                {part.asked - part.grams >= 0.5 && (
                  <span className="block text-sm font-bold text-brick">
                    {t("together.short", { grams: wholeNumber(part.asked) })}
                  </span>
                )}
              </span>
              {!part.isWeighed && (
                <Link to={`/pack/${part.batchId}`} className="btn">
                  {t("together.open", { name: part.name })}
                </Link>
              )}
            </li>
          ))}
          {batch.together.plain.map(({ name, grams: weight }) => (
            <li key={name} className="flex min-h-12 items-center gap-x-3 py-2">
              <span className="flex-1 font-semibold">{name}</span>
              <b className="font-title text-lg">
                {weight > 0 ? t("together.gets", { grams: wholeNumber(weight) }) : t("together.some")}
              </b>
            </li>
          ))}
        </ul>
        {good && (
          <p className="mt-1 text-sm text-soft">
            {t("together.weighs", { grams: grams(Math.round(good.cookedGrams)) })}
          </p>
        )}
      </div>
      <div>
        <div className="mt-4">
          <BoxCount value={typed.boxes} least={1} problem={atBoxes} onType={(boxes) => type({ boxes })} />
        </div>
        <div className="mt-3">
          <Into typed={typed} type={type} boxes={count} />
          {good && <Fits boxes={good.boxes} container={container} />}
        </div>
        {batch.planned.length > 0 && (
          <p className="mt-3 max-w-2xl text-sm">
            <b>{t("plannedTitle")}</b> {t("plannedText", { count: batch.planned.length })}
          </p>
        )}
        {good && good.boxes.length > 0 && (
          <p className="mt-4">
            <span className="font-title text-huge leading-none font-bold">{wholeNumber(good.fullest)}</span>{" "}
            <span className="text-lg text-soft">g {t(isUnequal ? "eachAbout" : "each")}</span>
            <span className="mt-2 block">
              <span className="counted">
                <Amount measure={lens} figure={good.figures[lens]} className="text-lg font-bold" /> ·{" "}
                <Amount measure={second} figure={good.figures[second]} />{" "}
                <span className="text-sm text-soft">
                  {second === "protein" ? t("app:measures.protein") : ""}
                </span>
              </span>
              {good.overGrams >= 5 && (
                <b className="ml-2">{t("overGrams", { grams: grams(Math.round(good.overGrams)) })}</b>
              )}
            </span>
          </p>
        )}
        {!atBoxes && <Sentence>{wrong?.detail}</Sentence>}
        {open.length > 0 ? (
          <p className="mt-4 font-semibold">
            {t("together.waits", { names: open.map(({ name }) => name).join(", ") })}
          </p>
        ) : (
          <div className="mt-4 flex flex-wrap items-center gap-3">
            <button
              className="btn-next min-h-11 px-5 text-base"
              disabled={busy || !good || good.boxes.length === 0}
              onClick={onMake}
            >
              {busy ? t("making") : t("make", { count })}
            </button>
            <button
              className="btn min-h-11"
              disabled={!good || good.boxes.length === 0}
              onClick={() => {
                type({ isPartByPart: true });
                onFill();
              }}
            >
              {t("parts.start")}
            </button>
            {typed.isPartByPart && weighed && (
              <button
                className="link min-h-6 text-sm"
                onClick={() => type({ isPartByPart: false, parts: {} })}
              >
                {t("parts.whole")}
              </button>
            )}
            <p className="w-full text-sm text-soft">{t("parts.text")}</p>
          </div>
        )}
        <button
          className="mt-6 block min-h-6 text-xs text-soft underline"
          disabled={busy}
          onClick={onDiscard}
        >
          {t("discard")}
        </button>
      </div>
    </div>
  );
}

/** What of a batch goes into put-together dishes. */
export function GoesInto({ batch }: { batch: BatchView }) {
  const { t } = useWords("pack");
  if (batch.together.goesInto.length === 0) return null;
  return (
    <div className="mb-4 max-w-2xl border-l-4 border-sea py-1 pl-3 text-sm">
      {batch.together.goesInto.map((dish) => (
        <p key={dish.batchId}>
          {t(dish.isPacked ? "together.isIn" : "together.into", { grams: wholeNumber(dish.grams) })}{" "}
          <Link className="link" to={`/pack/${dish.batchId}`}>
            {dish.name}
          </Link>
        </p>
      ))}
      {batch.boxesWanted === 0 && batch.boxes.length === 0 && <p>{t("together.allIn")}</p>}
    </div>
  );
}
