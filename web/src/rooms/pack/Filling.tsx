import { useEffect, useRef, useState } from "react";
import { troubleOf, type BatchView, type BoxPreview, type PackPreview, type Trouble } from "../../api";
import { useWords } from "../../app/i18n";
import { useLens } from "../../app/lens";
import { PlayDrawer } from "../../devices/PlayDrawer";
import { amount, grams, unitWords } from "../../ui/format";
import { weightIn } from "../../ui/numbers";
import { Failed, Loading, Sentence } from "../../ui/states";
import { Tape } from "../../ui/Tape";
import { dayWords } from "./dayWords";
import { Back, FillBar } from "./FillBar";
import type { Mark } from "./filling";
import { OnScale } from "./OnScale";
import { boxesOf, orderOf, rowsNow, type Typed } from "./typed";
import { usePreview } from "./usePreview";
import { useTaking } from "./useTaking";
import { whoseBox } from "./whose";

interface FillingProps {
  batch: BatchView;
  typed: Typed;
  type: (change: Partial<Typed>) => void;
  trouble: Trouble | null;
  busy: boolean;
  onMake: (takesSum: boolean) => void;
  onBack: () => void;
}

/** Box by box on the scale: the target on top, what the scale says at arm's length, the next by itself. */
export function Filling({ batch, typed, type, trouble, busy, onMake, onBack }: FillingProps) {
  const { t } = useWords("pack");
  const { data: preview, error, refetch, isCurrent } = usePreview(batch, orderOf(batch, typed), true);
  const wrong = error ? troubleOf(error, t("app:silent")) : trouble;
  if (!preview && error)
    return (
      <>
        <Back onBack={onBack} />
        <Failed error={error} retry={() => void refetch()} />
      </>
    );
  if (!preview) return <Loading />;
  return (
    <Boxes
      {...{ batch, typed, type, onMake, onBack, preview }}
      busy={busy || !isCurrent}
      problem={wrong?.detail ?? undefined}
    />
  );
}

function Boxes({
  batch,
  typed,
  type,
  busy,
  onMake,
  onBack,
  preview,
  problem,
}: Omit<FillingProps, "trouble"> & { preview: PackPreview; problem: string | undefined }) {
  const { t } = useWords("pack");
  const boxes = boxesOf(rowsNow(batch, typed));
  const [isPlaying, setIsPlaying] = useState(false);
  const emptyBox = weightIn(typed.emptyBox) || 0;
  const of = (i: number): BoxPreview | undefined => preview.boxes[i];
  const whose = (i: number) => whoseBox(t, batch, boxes[i]!.row) ?? t("own.anyone");
  const isOpen = (i: number) => typed.got[boxes[i]!.key] === undefined;
  const { at, pick, takeShown, live, scale, probe, ask, said, isStill, isBoxCounted, sounds, toggleSounds } =
    useTaking({
      targets: boxes.map((_, i) => ({
        mark: of(i) ? markOf(of(i)!) : null,
        base: emptyBox,
        took: (weight) => t("fill.took", { number: i + 1, grams: grams(weight) }),
      })),
      isOpen,
      keep: (i, weight) => type({ got: { ...typed.got, [boxes[i]!.key]: weight } }),
    });
  const isLast = at >= 0 && !boxes.some((_, i) => i !== at && isOpen(i));
  const without = (i: number) => {
    type({ got: Object.fromEntries(Object.entries(typed.got).filter(([key]) => key !== boxes[i]!.key)) });
    pick(i);
  };
  // Nobody weighed the pan: the boxes say what was in it.
  const isUnweighed = weightIn(typed.full) === null;
  // The bench was looked at further down: the box on the scale is on top.
  const top = useRef<HTMLDivElement>(null);
  useEffect(() => top.current?.focus(), []);
  const done = at < 0 || at >= boxes.length;
  const sum = boxes.reduce((all, { key }) => all + (typed.got[key] ?? 0), 0);

  return (
    <div ref={top} tabIndex={-1} className="max-w-3xl scroll-mt-20 outline-none">
      <FillBar {...{ typed, type, sounds, toggleSounds, onBack }} />
      {typed.by === "component" && (
        <p className="mb-3 max-w-xl text-sm">{t("fill.component", { name: typed.component })}</p>
      )}
      <p aria-live="polite" className="sr-only">
        {said}
      </p>
      {!done && of(at) ? (
        <OnScale
          key={at}
          title={t("fill.box", { number: at + 1, of: boxes.length, whose: whose(at) })}
          mark={markOf(of(at)!)}
          wanted={isLast ? of(at)!.target : of(at)!.onScale}
          live={live}
          isStill={isStill}
          isBoxCounted={isBoxCounted}
          scale={scale}
          ask={ask}
          onTake={takeShown}
          onPlay={() => setIsPlaying(true)}
        />
      ) : (
        <section className="panel p-4" aria-label={t("fill.done")}>
          <h2 className="text-xl">{t("fill.done")}</h2>
          <p className="mt-1">
            {t("fill.sum", { grams: grams(Math.round(sum * 10) / 10) })}
            {isUnweighed ? (
              ` ${t("fill.unweighed")}`
            ) : preview.missingGrams >= 0.5 ? (
              <b> {t("fill.missing", { grams: grams(Math.round(preview.missingGrams * 10) / 10) })}</b>
            ) : preview.overGrams >= 0.5 ? (
              ` ${t("fill.over", { grams: grams(Math.round(preview.overGrams * 10) / 10) })}`
            ) : null}
          </p>
          <div className="mt-3 flex flex-wrap gap-3">
            {!isUnweighed && preview.missingGrams >= 0.001 ? (
              <button className="btn-next min-h-11 px-5" disabled={busy} onClick={() => onMake(true)}>
                {t("fill.takeSum", { grams: grams(Math.round(sum * 10) / 10) })}
              </button>
            ) : (
              <button className="btn-next min-h-11 px-5" disabled={busy} onClick={() => onMake(isUnweighed)}>
                {t("make", { count: boxes.length })}
              </button>
            )}
          </div>
        </section>
      )}
      <Sentence>{problem}</Sentence>
      <ol className="mt-4 divide-y divide-line border-y border-line">
        {boxes.map(({ key }, i) => (
          <li key={key}>
            <Line
              number={i + 1}
              batch={batch}
              whose={whose(i)}
              box={of(i)}
              got={typed.got[key]}
              isNow={i === at}
              onPick={() => pick(i)}
              onEmpty={() => without(i)}
            />
          </li>
        ))}
      </ol>
      {isPlaying && <PlayDrawer scale={scale} probe={probe} ask={ask} close={() => setIsPlaying(false)} />}
    </div>
  );
}

/** One box in the row of all: what it is to get or has got, how far that is from its target, and what it does to its day. */
function Line({
  number,
  batch,
  whose,
  box,
  got,
  isNow,
  onPick,
  onEmpty,
}: {
  number: number;
  batch: BatchView;
  whose: string;
  box: BoxPreview | undefined;
  got: number | undefined;
  isNow: boolean;
  onPick: () => void;
  onEmpty: () => void;
}) {
  const { t } = useWords("pack");
  const lens = useLens();
  const day = box?.day && dayWords(t, box.day);
  const off = got === undefined || !box ? 0 : got - box.target;
  const figure = box?.fromTarget?.[lens];
  return (
    <div className={`flex flex-wrap items-center gap-x-3 gap-y-1 py-1 ${isNow ? "bg-bench" : ""}`}>
      <button
        className="min-h-11 w-full min-w-0 text-left sm:w-auto sm:flex-1"
        aria-current={isNow || undefined}
        aria-label={t("fill.pick", { number, whose })}
        onClick={onPick}
      >
        <Tape letters={batch.letters} tint={batch.tint} className={got === undefined ? "ahead" : ""}>
          <b>{t("box", { number })}</b> <span className="text-sm">{whose}</span>
        </Tape>
      </button>
      <div className="w-28 sm:text-right">
        <b className="font-title text-lg">{grams(got ?? box?.onScale ?? 0)} g</b>
        <span className="block text-xs text-soft">
          {got === undefined
            ? t("fill.toGet")
            : off === 0
              ? t("fill.atTarget")
              : t(off > 0 ? "fill.more" : "fill.less", { grams: grams(Math.abs(off)) })}
        </span>
      </div>
      <div className="min-w-0 flex-1 text-sm sm:w-44 sm:flex-none">
        {figure && got !== undefined && Math.abs(figure.value) >= 0.05 && (
          <span className="counted block text-soft">
            {figure.value > 0 ? "+" : ""}
            {amount(lens, figure.value)} {unitWords(t, lens)}
          </span>
        )}
        {day && (
          <span className={`counted ${day.isOver ? "font-bold text-brick" : "text-soft"}`}>
            {day.isOver && <span aria-hidden className="hatched mr-1 inline-block h-3 w-1.5" />}
            {day.words}
          </span>
        )}
      </div>
      <button
        className="min-h-11 w-20 text-left text-xs text-soft underline disabled:invisible"
        disabled={got === undefined}
        aria-label={t("fill.emptyNamed", { number })}
        onClick={onEmpty}
      >
        {t("fill.empty")}
      </button>
    </div>
  );
}

const markOf = ({ onScale, markBelow, markAbove }: BoxPreview): Mark => ({
  target: onScale,
  below: markBelow,
  above: markAbove,
});
