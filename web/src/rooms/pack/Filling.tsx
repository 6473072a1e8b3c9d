import { ArrowLeft, Volume2, VolumeX } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import {
  askScale,
  troubleOf,
  type BatchView,
  type BoxPreview,
  type PackPreview,
  type ScaleReading,
  type ScaleWish,
  type Trouble,
} from "../../api";
import { useWords } from "../../app/i18n";
import { useLens } from "../../app/lens";
import { useSay } from "../../app/notices";
import { PlayDrawer } from "../../devices/PlayDrawer";
import { useDevices, useLive } from "../../devices/useDevices";
import { amount, grams, unitWords, wholeNumber } from "../../ui/format";
import { weightIn } from "../../ui/numbers";
import { Failed, Loading, Sentence } from "../../ui/states";
import { Tape } from "../../ui/Tape";
import { dayWords } from "./dayWords";
import { hear, nothingHeard, standsAt, type Heard, type Mark } from "./filling";
import { ring } from "./sound";
import { boxesOf, orderOf, rowsNow, type Typed } from "./typed";
import { usePreview } from "./usePreview";
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

const soundKey = "tern.pack.sound";

/** Box by box on the scale: the target on top, what the scale says at arm's length, the next by itself. */
export function Filling({ batch, typed, type, trouble, busy, onMake, onBack }: FillingProps) {
  const { t } = useWords("pack");
  const { data: preview, error, refetch } = usePreview(batch, orderOf(batch, typed), true);
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
    <Boxes {...{ batch, typed, type, busy, onMake, onBack, preview }} problem={wrong?.detail ?? undefined} />
  );
}

function Back({ onBack }: { onBack: () => void }) {
  const { t } = useWords("pack");
  return (
    <button className="btn min-h-11" onClick={onBack}>
      <ArrowLeft size={16} aria-hidden /> {t("fill.back")}
    </button>
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
  const open = (except?: string) =>
    boxes.findIndex(({ key }) => key !== except && typed.got[key] === undefined);
  const [at, setAt] = useState<number>(open);
  const [sounds, setSounds] = useState(() => localStorage.getItem(soundKey) !== "off");
  const [said, setSaid] = useState("");
  const [isPlaying, setIsPlaying] = useState(false);
  const say = useSay();
  const heard = useRef<Heard>(nothingHeard);
  const lastTaken = useRef(-1);
  const isLast =
    at >= 0 && boxes.filter(({ key }, i) => i !== at && typed.got[key] === undefined).length === 0;
  const of = (i: number): BoxPreview | undefined => preview.boxes[i];
  const whose = (i: number) => whoseBox(t, batch, boxes[i]!.row) ?? t("own.anyone");
  const take = (i: number, weight: number, isAgain = false) => {
    const box = boxes[i];
    if (!box) return;
    type({ got: { ...typed.got, [box.key]: weight } });
    setSaid(t("fill.took", { number: i + 1, grams: grams(weight) }));
    if (isAgain) return;
    lastTaken.current = i;
    if (sounds) ring();
    setAt(open(box.key));
  };
  const emptyBox = weightIn(typed.emptyBox) || 0;
  const told = ({ grams: weight, state }: ScaleReading) => {
    const box = at < 0 ? undefined : of(at);
    if (weight === null || (!box && heard.current.still === null)) return;
    const mark = box ? markOf(box) : { target: 0, below: 0, above: 0 };
    const [next, taken] = hear(heard.current, weight - emptyBox, state === "stable", mark);
    heard.current = next;
    if (taken?.isAgain) take(lastTaken.current, taken.grams, true);
    else if (taken && box) take(at, taken.grams);
  };
  const hasScale = useDevices().data?.hasScale ?? false;
  const { scale, probe } = useLive(hasScale, told);
  const ask = (wish: ScaleWish) => {
    if (wish === "tare") heard.current = nothingHeard;
    void askScale({ body: { wish } }).catch((thrown: unknown) =>
      say(troubleOf(thrown, t("app:silent")).detail ?? "", { trouble: true }),
    );
  };
  const pick = (i: number) => {
    heard.current = { ...heard.current, isFinal: true };
    setAt(i);
  };
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
  const toggle = () => {
    localStorage.setItem(soundKey, sounds ? "off" : "on");
    setSounds(!sounds);
  };

  return (
    <div ref={top} tabIndex={-1} className="max-w-3xl scroll-mt-20 outline-none">
      <div className="mb-3 flex flex-wrap items-center gap-2">
        <Back onBack={onBack} />
        <button className="btn min-h-11" aria-pressed={sounds} onClick={toggle}>
          {sounds ? <Volume2 size={16} aria-hidden /> : <VolumeX size={16} aria-hidden />} {t("fill.sound")}
        </button>
        <label className="ml-auto flex items-center gap-2 text-sm">
          {t("fill.emptyBox")}
          <input
            inputMode="decimal"
            className="field w-20 text-right"
            value={typed.emptyBox}
            maxLength={8}
            onChange={(event) => type({ emptyBox: event.target.value })}
          />
          g
        </label>
      </div>
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
          emptyBox={emptyBox}
          scale={scale}
          ask={ask}
          onTake={(weight, isTyped) => {
            // What stands on the scale is not taken for the next box.
            const there = scale?.grams == null ? 0 : scale.grams - emptyBox;
            heard.current = { ...nothingHeard, still: there > 0 ? there : null, isFinal: isTyped };
            take(at, weight);
          }}
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
                {busy ? t("making") : t("make", { count: boxes.length })}
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
          <span className="block text-soft">
            {figure.value > 0 ? "+" : ""}
            {amount(lens, figure.value)} {unitWords(t, lens)}
          </span>
        )}
        {day && (
          <span className={day.isOver ? "font-bold text-brick" : "text-soft"}>
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

/** The box that stands on the scale. Without a scale, or where it fell silent, its weight is typed. */
function OnScale({
  title,
  mark,
  wanted,
  emptyBox,
  scale,
  ask,
  onTake,
  onPlay,
}: {
  title: string;
  mark: Mark;
  /** What it was to get before the others were filled: the last takes what is left. */
  wanted: number;
  emptyBox: number;
  scale: ScaleReading | null;
  ask: (wish: ScaleWish) => void;
  onTake: (grams: number, isTyped: boolean) => void;
  onPlay: () => void;
}) {
  const { t } = useWords("pack");
  const { target } = mark;
  const devices = useDevices().data;
  const [typedWeight, setTypedWeight] = useState("");
  const weight = weightIn(typedWeight);
  const live = scale?.grams == null ? null : scale.grams - emptyBox;
  const shown = weight ?? live;
  const stands = shown === null || Number.isNaN(shown) ? "under" : standsAt(shown, mark);
  const isSilent = devices?.hasScale && scale === null;
  const canTake = weight !== null ? weight > 0 : live !== null && live > 0 && scale?.state === "stable";
  const words = () => {
    if (isSilent && weight === null) return t("fill.silent");
    if (scale?.state === "overload" && weight === null) return t("devices:state.overload");
    if (shown === null || Number.isNaN(shown) || shown <= 0) return t("fill.putOn");
    const off = grams(Math.round(Math.abs(target - shown) * 10) / 10);
    return stands === "at"
      ? t("fill.at")
      : t(stands === "over" ? "fill.tooMuch" : "fill.toGo", { grams: off });
  };
  const takeIt = () => {
    onTake(weight ?? live!, weight !== null);
    setTypedWeight("");
  };
  return (
    <section className="panel p-4" aria-label={title}>
      <div className="flex flex-wrap items-baseline justify-between gap-x-4">
        <h2 className="text-lg">{title}</h2>
        <p className="text-lg">
          {t("fill.target")} <b className="font-title text-xl">{grams(Math.round(target * 10) / 10)} g</b>
        </p>
      </div>
      {Math.abs(target - wanted) >= 0.5 && (
        <p className="text-sm font-bold">
          {t("fill.rest", {
            grams: grams(Math.round(target * 10) / 10),
            wanted: grams(Math.round(wanted * 10) / 10),
          })}
        </p>
      )}
      <p className="mt-2 font-title leading-none font-bold" data-stands={stands}>
        <span className="text-[5rem]" data-net>
          {shown === null || Number.isNaN(shown) ? "–" : wholeNumber(shown)}
        </span>{" "}
        <span className="text-lg font-normal text-soft">g</span>
      </p>
      <Bar weight={shown ?? 0} target={target} stands={stands} />
      <p
        className={`mt-2 min-h-8 text-xl font-bold ${stands === "over" || isSilent ? "text-brick" : stands === "at" ? "text-sea" : ""}`}
        aria-live="polite"
      >
        {words()}
      </p>
      <div className="mt-3 flex flex-wrap items-end gap-2">
        {devices?.hasScale && (
          <button
            className="btn min-h-12"
            disabled={scale === null}
            onClick={() => ask(scale?.state === "off" ? "on" : "tare")}
          >
            {t(scale?.state === "off" ? "devices:on" : "devices:tare")}
          </button>
        )}
        <form
          className="flex items-end gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            if (canTake) takeIt();
          }}
        >
          <label className="text-xs text-soft">
            <span className="block">{t("fill.type")}</span>
            <input
              inputMode="decimal"
              className="field min-h-12 w-24 text-right text-lg font-bold text-ink"
              value={typedWeight}
              maxLength={12}
              aria-invalid={Number.isNaN(weight)}
              onChange={(event) => setTypedWeight(event.target.value)}
            />
          </label>
          <button className="btn min-h-12" disabled={!canTake}>
            {canTake && shown !== null ? t("fill.take", { grams: grams(shown) }) : t("fill.takeNothing")}
          </button>
        </form>
        {devices?.isSimulated && (
          <button className="link min-h-12 px-2 text-sm" onClick={onPlay}>
            {t("devices:play")}
          </button>
        )}
      </div>
      {Number.isNaN(weight) && <Sentence>{t("app:numberNeeded")}</Sentence>}
    </section>
  );
}

const markOf = ({ onScale, markBelow, markAbove }: BoxPreview): Mark => ({
  target: onScale,
  below: markBelow,
  above: markAbove,
});

/** A tape as long as the target and a tenth more, filled as far as the weight goes. */
function Bar({
  weight,
  target,
  stands,
}: {
  weight: number;
  target: number;
  stands: "under" | "at" | "over";
}) {
  const share = target > 0 ? Math.min(100, Math.max(0, (weight / (target * 1.1)) * 100)) : 0;
  return (
    <div aria-hidden className="relative mt-3 h-5 w-full border border-rim bg-ground">
      <div
        className={`h-full ${stands === "at" ? "bg-sea" : stands === "over" ? "hatched" : "bg-ink"}`}
        style={{ width: `${share}%` }}
      />
      <div className="absolute -top-1 h-7 w-0.5 bg-next" style={{ left: `${100 / 1.1}%` }} />
    </div>
  );
}
