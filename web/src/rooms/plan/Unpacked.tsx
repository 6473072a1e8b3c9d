import { useQuiet } from "../../app/quiet";
import { useState } from "react";
import { useWords } from "../../app/i18n";
import { Link } from "react-router";
import type { Measure, UnpackedView } from "../../api";
import { amount, grams, inPieces, shortDay, toHalf, unitOf } from "../../ui/format";
import { wholeIn } from "../../ui/numbers";
import { Strip } from "./Strip";
import type { Carried } from "./usePlan";

interface UnpackedProps {
  batches: UnpackedView[];
  today: string;
  eaterId: string;
  lens: Measure;
  second: Measure;
  carried: Carried | null;
  onLift: (carried: Carried) => void;
  onReplan: (batch: UnpackedView, day: string, portions: number) => void;
  onDiscard: (batch: UnpackedView) => void;
}

/** Batches that are not packed yet: to be cooked on a day, or cooked and waiting. What is laid from them are portions. */
export function Unpacked(props: UnpackedProps) {
  const { t } = useWords("plan");
  if (props.batches.length === 0) return null;
  return (
    <section aria-labelledby="unpacked-title">
      <h2 id="unpacked-title" className="mb-2 text-base">
        {t("unpacked.title")}
      </h2>
      <ul className="space-y-3 p-1">
        {props.batches.map((batch) => (
          <li key={batch.batchId}>
            <Batch {...props} batch={batch} />
          </li>
        ))}
      </ul>
    </section>
  );
}

function Batch({
  batch,
  today,
  eaterId,
  lens,
  second,
  carried,
  onLift,
  onReplan,
  onDiscard,
}: UnpackedProps & { batch: UnpackedView }) {
  const { t } = useWords("plan");
  const quiet = useQuiet();
  const [isOpen, setIsOpen] = useState(false);
  const what: Carried = { kind: "batch", id: batch.batchId, name: batch.name, isBox: false };
  const figures = batch.figures[eaterId] ?? Object.values(batch.figures)[0];
  const figure = figures?.[lens];
  const each = batch.newGrams[eaterId] ?? Object.values(batch.newGrams)[0] ?? 0;
  const isPlanned = batch.state === "planned";
  const short = batch.grams !== null && batch.leftGrams < 0;
  // What comes in pieces is counted.
  const said = (weight: number) =>
    inPieces(t, { pieces: batch.pieceGrams && toHalf(weight / batch.pieceGrams), grams: weight });
  const volume = batch.newVolumes[eaterId] ?? Object.values(batch.newVolumes)[0];
  const own = inPieces(t, {
    pieces: batch.pieceGrams && toHalf(each / batch.pieceGrams),
    grams: each,
    volume,
  });
  const cooked = t(isPlanned ? "unpacked.cook" : "shelf.cooked", { day: shortDay(batch.cookedOn) });
  return (
    <>
      {batch.isForDishes && <p className="px-1 text-sm font-semibold">{batch.name}</p>}
      {!batch.isForDishes && (
        <Strip
          what={what}
          focus={`unpacked|${batch.batchId}`}
          label={t(quiet ? "quiet.unpacked" : "unpacked.strip", {
            name: batch.name,
            each: own,
            amount: figure ? `${amount(lens, figure.value)} ${unitOf(lens)}` : "",
            left: said(batch.leftGrams),
            when: cooked,
          })}
          letters={batch.letters}
          tint={batch.tint}
          figures={figures}
          lens={lens}
          second={second}
          count={batch.grams === null ? "" : own}
          foot={cooked}
          never={batch.neverFor[eaterId]}
          isAhead
          isCarried={carried?.id === batch.batchId}
          onLift={onLift}
        />
      )}
      <p className="mt-1 flex flex-wrap items-center gap-x-2 px-1 text-xs">
        {batch.grams === null ? (
          <span className="font-bold text-brick">{t("unpacked.unknown", { name: batch.name })}</span>
        ) : (
          <span className={short ? "font-bold text-brick" : ""}>
            {t(short ? "unpacked.short" : "unpacked.left", {
              left: said(batch.leftGrams),
              planned: said(batch.grams - batch.leftGrams),
              whole: said(batch.grams),
              about: batch.expected ? t("app:about") : "",
            })}
          </span>
        )}
        {batch.inDishesGrams > 0 && (
          <span className="w-full">{t("unpacked.inDishes", { said: said(batch.inDishesGrams) })}</span>
        )}
        {batch.expected && batch.grams !== null && (
          <span className="w-full text-soft">
            {t(`unpacked.expected.${batch.expected.from}`)}
            {batch.expected.spreadGrams > 0 &&
              t("unpacked.expected.spread", { spread: grams(batch.expected.spreadGrams) })}
          </span>
        )}
        {isPlanned ? (
          <button
            className="ml-auto min-h-6 underline"
            aria-expanded={isOpen}
            aria-label={t("unpacked.changeNamed", { name: batch.name })}
            onClick={() => setIsOpen(!isOpen)}
          >
            {t("unpacked.change")}
          </button>
        ) : null}
        {(!isPlanned || batch.expected?.from === "parts") && (
          <Link to={`/pack/${batch.batchId}`} className={`link ${isPlanned ? "" : "ml-auto"}`}>
            {t(isPlanned ? "unpacked.packDish" : "unpacked.pack")}
          </Link>
        )}
      </p>
      {short && isPlanned && (
        <button
          className="btn mt-1 w-full"
          onClick={() => onReplan(batch, batch.cookedOn, batch.portionsLaid)}
        >
          {t("unpacked.cookFor", { count: batch.portionsLaid })}
        </button>
      )}
      {isOpen && isPlanned && (
        <Change
          batch={batch}
          today={today}
          onReplan={(on, day, portions) => {
            setIsOpen(false);
            onReplan(on, day, portions);
          }}
          onDiscard={() => onDiscard(batch)}
        />
      )}
    </>
  );
}

function Change({
  batch,
  today,
  onReplan,
  onDiscard,
}: {
  batch: UnpackedView;
  today: string;
  /** The batch as it was seen when the typing began: what came since is not overwritten unseen. */
  onReplan: (on: UnpackedView, day: string, portions: number) => void;
  onDiscard: () => void;
}) {
  const { t } = useWords("plan");
  // What nobody typed follows the batch.
  const [typed, setTyped] = useState<{ on: UnpackedView; day?: string; portions?: string } | null>(null);
  const type = (change: { day?: string; portions?: string }) => setTyped({ on: batch, ...typed, ...change });
  const day = typed?.day ?? batch.cookedOn;
  const portions = typed?.portions ?? String(batch.portions);
  return (
    <form
      className="mt-1 space-y-2 border-l-2 border-sea pl-2 text-sm"
      onSubmit={(event) => {
        event.preventDefault();
        onReplan(typed?.on ?? batch, day, wholeIn(portions) ?? 0);
      }}
    >
      <label className="block">
        {t("unpacked.day")}
        <input
          type="date"
          className="field block w-full"
          min={today}
          value={day}
          onChange={(event) => type({ day: event.target.value })}
          required
        />
      </label>
      <label className="block">
        {t("unpacked.portions")}
        <input
          inputMode="numeric"
          className="field block w-full"
          maxLength={4}
          value={portions}
          onChange={(event) => type({ portions: event.target.value })}
        />
      </label>
      <span className="flex gap-3">
        <button className="btn">{t("unpacked.save")}</button>
        <button type="button" className="min-h-8 text-xs text-soft underline" onClick={onDiscard}>
          {t("unpacked.discard")}
        </button>
      </span>
    </form>
  );
}
