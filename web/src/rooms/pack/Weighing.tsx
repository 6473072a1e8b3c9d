import { useId } from "react";
import { useWords } from "../../app/i18n";
import { sentenceFor, troubleOf, type BatchView, type Trouble } from "../../api";
import { useLens } from "../../app/lens";
import { Amount } from "../../ui/Figures";
import { exact, grams, piecesOf, shortDay, wholeNumber } from "../../ui/format";
import { weightIn, wholeIn } from "../../ui/numbers";
import { Sentence } from "../../ui/states";
import { BoxCount, Count } from "./BoxCount";
import { Labels } from "./Labels";
import { usePreview } from "./usePreview";
import type { Typed } from "./typed";
import { ScaleStrip } from "../../devices/ScaleStrip";

const fields = ["fullGrams", "panGrams", "portions", "pieces"];

interface WeighingProps {
  batch: BatchView;
  typed: Typed;
  type: (change: Partial<Typed>) => void;
  trouble: Trouble | null;
  body: { fullGrams: number; panGrams: number; boxes: number; pieces: number | null };
  busy: boolean;
  onMake: () => void;
  /** Keeps what the scale says; packed later. */
  onWeigh: () => void;
  onDiscard: () => void;
}

/** The pan on the scale, and what it comes to in each box, worked out with each key. */
export function Weighing({
  batch,
  typed,
  type,
  trouble,
  body,
  busy,
  onMake,
  onWeigh,
  onDiscard,
}: WeighingProps) {
  const { t } = useWords("pack");
  const lens = useLens();
  const isTyped = weightIn(typed.full) !== null;
  const { data: preview, error } = usePreview(batch, body, isTyped);
  const wrong = error ? troubleOf(error, t("app:silent")) : trouble;
  const unread = (weight: string) => (Number.isNaN(weightIn(weight)) ? t("app:numberNeeded") : undefined);
  const at = (field: string) => (isTyped && wrong ? sentenceFor(wrong, field) : undefined);
  // What concerns no field of the bench is said below it.
  const general = wrong && !fields.some((field) => sentenceFor(wrong, field)) ? wrong.detail : undefined;
  const good = isTyped && !error && preview ? preview : null;
  const count = wholeIn(typed.boxes) ?? 0;
  // All of it may go into put-together dishes: then it is weighed only.
  const isWeighedOnly = count === 0 && batch.together.goesInto.length > 0;
  const boxCount = t("boxes", { count: good?.portions.length ?? 0 });
  const forWhom = ({ planned }: BatchView, i: number) =>
    planned[i] &&
    t(planned[i].isForGuests ? "forGuests" : "forWhom", {
      name: planned[i].name,
      day: shortDay(planned[i].day),
    });

  return (
    <div className="max-w-5xl">
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
          problem={unread(typed.full) ?? at("fullGrams")}
          autoFocus
          onType={(full) => type({ full })}
        />
        <Weight
          label={t("pan")}
          value={typed.pan}
          problem={unread(typed.pan) ?? at("panGrams")}
          hint={
            batch.rememberedPanGrams === null
              ? undefined
              : t("remembered", { grams: grams(batch.rememberedPanGrams) })
          }
          onType={(pan) => type({ pan })}
        />
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
        </div>
      </div>
      <div className="mt-4 flex flex-wrap items-end gap-4">
        <div role="group" aria-label={t("divide")} className="flex flex-wrap items-center gap-2">
          <span className="font-title font-bold">{t("divide")}</span>
          {([false, true] as const).map((byPieces) => (
            <button
              key={String(byPieces)}
              aria-pressed={typed.byPieces === byPieces}
              className={`btn ${typed.byPieces === byPieces ? "bg-ink text-ground" : ""}`}
              onClick={() => type({ byPieces })}
            >
              {t(byPieces ? "byPieces" : batch.planned.length > 0 ? "asPlanned" : "byWeight")}
            </button>
          ))}
        </div>
        {typed.byPieces && (
          <Count
            label={t("pieces")}
            value={typed.pieces}
            problem={at("pieces")}
            onType={(pieces) => type({ pieces })}
          />
        )}
        <BoxCount
          value={typed.boxes}
          least={batch.together.goesInto.length > 0 ? 0 : 1}
          problem={at("portions")}
          onType={(boxes) => type({ boxes })}
        />
      </div>
      {batch.planned.length > 0 && (
        <p className="mt-3 max-w-2xl text-sm">
          <b>{t("plannedTitle")}</b> {t("plannedText", { count: batch.planned.length })}
        </p>
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
        <>
          <p className="mt-5 font-title text-huge leading-none font-bold">
            {wholeNumber(good.fullest)}{" "}
            <span className="text-lg font-normal text-soft">
              g {t(new Set(good.portions).size > 1 ? "eachAbout" : "each")}
            </span>
          </p>
          <p className="mt-2 mb-4">
            <Amount measure={lens} figure={good.figures[lens]} className="text-lg font-bold" /> ·{" "}
            <Amount
              measure={lens === "energy" ? "protein" : "energy"}
              figure={good.figures[lens === "energy" ? "protein" : "energy"]}
            />{" "}
            <span className="text-sm text-soft">{lens === "energy" ? t("app:measures.protein") : ""}</span> ·{" "}
            <span className="text-sm text-soft">
              {t("sums", {
                boxes: boxCount,
                grams: grams(Math.round(good.sum * 10) / 10),
              })}
            </span>
            {good.overGrams >= 5 && (
              <b className="ml-2">{t("overGrams", { grams: grams(Math.round(good.overGrams)) })}</b>
            )}
            {good.overPieces > 0 && (
              <b className="ml-2">
                {t("over", { count: Math.ceil(good.overPieces), said: piecesOf(t, good.overPieces) })}
              </b>
            )}
          </p>
          <button className="btn-next min-h-11 px-5 text-base" disabled={busy} onClick={onMake}>
            {busy ? t("making") : t("make", { count: good.portions.length })}
          </button>
          {!(
            batch.state === "cooked" &&
            body.fullGrams === batch.fullGrams &&
            body.panGrams === batch.panGrams
          ) && (
            <button className="btn ml-3 min-h-11" disabled={busy} onClick={onWeigh}>
              {t("packLater")}
            </button>
          )}
          <div className="mt-5">
            <Labels
              batch={batch}
              boxes={good.portions.map((portion, i) => ({
                number: i + 1,
                grams: portion,
                pieces: good.pieces?.[i] ?? null,
                volume: good.volumes?.[i] ?? null,
                forWhom: forWhom(batch, i),
              }))}
              faint
            />
          </div>
        </>
      ) : (
        !isTyped && <p className="mt-5 text-soft">{t("first")}</p>
      )}
      <button className="mt-6 min-h-6 text-xs text-soft underline" disabled={busy} onClick={onDiscard}>
        {t("discard")}
      </button>
    </div>
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
