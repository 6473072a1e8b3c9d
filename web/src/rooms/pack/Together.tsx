import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { Minus, Plus } from "lucide-react";
import { Link } from "react-router";
import { previewBoxes, sentenceFor, troubleOf, type BatchView, type Trouble } from "../../api";
import { useCurrentEater } from "../../app/Header";
import { useWords } from "../../app/i18n";
import { useLens } from "../../app/lens";
import { queryKeys } from "../../app/queryKeys";
import { Amount } from "../../ui/Figures";
import { grams, longDay, piecesOf, shortDay, wholeNumber } from "../../ui/format";
import { wholeIn } from "../../ui/numbers";
import { Sentence } from "../../ui/states";
import { Mark } from "../../ui/Tape";
import { useSettled } from "../../ui/useSettled";
import type { Typed } from "./typed";

interface TogetherProps {
  batch: BatchView;
  typed: Typed;
  type: (change: Partial<Typed>) => void;
  trouble: Trouble | null;
  busy: boolean;
  onMake: () => void;
  onDiscard: () => void;
}

/** A dish that is put together: its parts, how each stands, and its boxes once all of them are weighed. */
export function Together({ batch, typed, type, trouble, busy, onMake, onDiscard }: TogetherProps) {
  const { t } = useWords("pack");
  const eater = useCurrentEater();
  const lens = useLens();
  const { parts } = batch.together;
  const open = parts.filter(({ isWeighed }) => !isWeighed);
  const count = wholeIn(typed.boxes) ?? 0;
  const asked = useSettled(JSON.stringify({ fullGrams: 0, panGrams: 0, boxes: count, pieces: null }), 120);
  const { data: preview, error } = useQuery({
    queryKey: queryKeys.boxesPreview(batch.id, `${asked}${batch.version}`, eater),
    queryFn: async () =>
      (
        await previewBoxes({
          path: { id: batch.id },
          query: { eaterId: eater ?? undefined },
          body: JSON.parse(asked),
        })
      ).data!,
    placeholderData: keepPreviousData,
    retry: false,
  });
  const wrong = error ? troubleOf(error, t("app:silent")) : trouble;
  const atBoxes = wrong ? sentenceFor(wrong, "portions") : undefined;
  const good = error ? null : preview;
  const second = lens === "energy" ? "protein" : "energy";
  return (
    <div className="max-w-2xl">
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
              </span>
            </span>
            <span className="text-right">
              <b className="font-title text-lg">
                {part.pieces
                  ? `${piecesOf(t, part.pieces)}, ${wholeNumber(part.grams)} g`
                  : t("together.gets", { grams: wholeNumber(part.grams) })}
              </b>
              <span className="block text-xs text-soft">
                {t("together.each", {
                  grams: wholeNumber(part.grams / batch.portions),
                  boxes: batch.portions,
                })}
              </span>
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
      <div className="mt-4 flex items-end gap-1">
        <button
          className="btn px-2"
          aria-label={t("fewer")}
          onClick={() => type({ boxes: String(Math.max(1, count - 1)) })}
        >
          <Minus size={16} aria-hidden />
        </button>
        <label>
          <span className="block text-xs text-soft">{t("boxesLabel")}</span>
          <input
            inputMode="numeric"
            className="field w-20 text-center font-title text-lg font-bold"
            value={typed.boxes}
            maxLength={4}
            onChange={(event) => type({ boxes: event.target.value })}
          />
        </label>
        <button
          className="btn px-2"
          aria-label={t("more")}
          onClick={() => type({ boxes: String(count + 1) })}
        >
          <Plus size={16} aria-hidden />
        </button>
      </div>
      <Sentence>{atBoxes}</Sentence>
      {batch.planned.length > 0 && (
        <p className="mt-3 max-w-2xl text-sm">
          <b>{t("plannedTitle")}</b> {t("plannedText", { count: batch.planned.length })}
        </p>
      )}
      {good && good.portions.length > 0 && (
        <p className="mt-4">
          <span className="font-title text-huge leading-none font-bold">{wholeNumber(good.fullest)}</span>{" "}
          <span className="text-lg text-soft">
            g {t(new Set(good.portions).size > 1 ? "eachAbout" : "each")}
          </span>
          <span className="mt-2 block">
            <Amount measure={lens} figure={good.figures[lens]} className="text-lg font-bold" /> ·{" "}
            <Amount measure={second} figure={good.figures[second]} />{" "}
            <span className="text-sm text-soft">{second === "protein" ? t("app:measures.protein") : ""}</span>
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
        <button
          className="btn-next mt-4 min-h-11 px-5 text-base"
          disabled={busy || !good || good.portions.length === 0}
          onClick={onMake}
        >
          {busy ? t("making") : t("make", { count })}
        </button>
      )}
      <button className="mt-6 block min-h-6 text-xs text-soft underline" disabled={busy} onClick={onDiscard}>
        {t("discard")}
      </button>
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
