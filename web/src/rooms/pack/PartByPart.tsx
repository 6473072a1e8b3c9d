import { useEffect, useRef, useState } from "react";
import {
  getBatch,
  seen,
  troubleOf,
  weighBatch,
  type BatchView,
  type ContainerView,
  type PackPreview,
  type PartPreview,
  type Trouble,
} from "../../api";
import { useWords } from "../../app/i18n";
import { useLens } from "../../app/lens";
import { useSay } from "../../app/notices";
import { PlayDrawer } from "../../devices/PlayDrawer";
import { Amount } from "../../ui/Figures";
import { grams } from "../../ui/format";
import { weightIn } from "../../ui/numbers";
import { Failed, Loading, Sentence } from "../../ui/states";
import { Tape } from "../../ui/Tape";
import { Fits } from "./containers/Into";
import { useContainers } from "./containers/useContainers";
import { dayWords } from "./dayWords";
import { Back, FillBar } from "./FillBar";
import { OnScale } from "./OnScale";
import { boxesOf, orderOf, partKey, rowsNow, type PartTyped, type Typed } from "./typed";
import { usePreview } from "./usePreview";
import { useTaking } from "./useTaking";
import { whoseBox } from "./whose";

interface PartByPartProps {
  batch: BatchView;
  typed: Typed;
  type: (change: Partial<Typed>) => void;
  trouble: Trouble | null;
  busy: boolean;
  onMake: () => void;
  onBack: () => void;
  /** A part was weighed anew: all of it is read again. */
  onWeighed: () => Promise<void>;
}

/** A put-together dish part by part over all its boxes: mash into six, then chicken, then gravy into its cup. */
export function PartByPart(props: PartByPartProps) {
  const { batch, typed, trouble } = props;
  const { t } = useWords("pack");
  const { data: preview, error, refetch, isCurrent } = usePreview(batch, orderOf(batch, typed), true);
  const wrong = error ? troubleOf(error, t("app:silent")) : trouble;
  if (!preview?.partByPart && error)
    return (
      <>
        <Back onBack={props.onBack} />
        <Failed error={error} retry={() => void refetch()} />
      </>
    );
  if (!preview?.partByPart) return <Loading />;
  return (
    <Parts
      {...props}
      busy={props.busy || !isCurrent}
      preview={preview}
      parts={preview.partByPart}
      problem={wrong?.detail ?? undefined}
    />
  );
}

const nothing: PartTyped = { compartment: "", got: {} };
const beside = "beside";
const round = (weight: number) => Math.round(weight * 10) / 10;

function Parts({
  batch,
  typed,
  type,
  busy,
  onMake,
  onBack,
  onWeighed,
  preview,
  parts,
  problem,
}: Omit<PartByPartProps, "trouble"> & {
  preview: PackPreview;
  parts: PartPreview[];
  problem: string | undefined;
}) {
  const { t } = useWords("pack");
  const say = useSay();
  const lens = useLens();
  const [isPlaying, setIsPlaying] = useState(false);
  const containers = useContainers().data ?? [];
  const container = containers.find(({ id }) => id === typed.container);
  const cups = containers.filter(({ kind }) => kind === "cup");
  const boxes = boxesOf(rowsNow(batch, typed));
  const partOf = (part: PartPreview) => typed.parts[partKey(part)] ?? nothing;
  const put = (part: PartPreview, change: Partial<PartTyped>) =>
    type({ parts: { ...typed.parts, [partKey(part)]: { ...partOf(part), ...change } } });
  const whose = (box: number) => whoseBox(t, batch, boxes[box]!.row) ?? t("own.anyone");
  const gotOf = (part: PartPreview, box: number) => partOf(part).got[boxes[box]!.key];
  // A cup stands on the scale by itself; what lies in the box stands there with all that is in it already.
  const cupOf = (part: PartPreview) => cups.find(({ name }) => name === partOf(part).compartment);
  const isOwn = (part: PartPreview) =>
    cupOf(part) !== undefined || ["cup", beside].includes(partOf(part).compartment);
  const inBox = (box: number, except?: PartPreview) =>
    parts
      .filter((other) => other !== except && !isOwn(other))
      .reduce((sum, other) => sum + (gotOf(other, box) ?? 0), 0);
  const baseOf = (part: PartPreview, box: number) =>
    isOwn(part) ? (cupOf(part)?.emptyGrams ?? 0) : (weightIn(typed.emptyBox) || 0) + inBox(box, part);
  const steps = parts.flatMap((part, at) => boxes.map((_, box) => ({ part, at, box })));
  const { at, pick, takeShown, live, scale, probe, ask, said, isStill, isBoxCounted, sounds, toggleSounds } =
    useTaking({
      targets: steps.map(({ part, box }) => {
        const to = part.boxes[box];
        return {
          mark: to ? { target: to.grams, below: to.mark, above: to.mark } : null,
          base: baseOf(part, box),
          took: (weight) => t("parts.took", { number: box + 1, grams: grams(weight), name: part.name }),
        };
      }),
      isOpen: (i) => gotOf(steps[i]!.part, steps[i]!.box) === undefined,
      keep: (i, weight) => {
        const { part, box } = steps[i]!;
        put(part, { got: { ...partOf(part).got, [boxes[box]!.key]: weight } });
      },
    });
  const top = useRef<HTMLDivElement>(null);
  useEffect(() => top.current?.focus(), []);
  const step = steps[at];
  const [shown, setShown] = useState(0);
  const part = step?.part ?? parts[Math.min(shown, parts.length - 1)]!;
  const isLast = step && !boxes.some((_, box) => box !== step.box && gotOf(part, box) === undefined);
  const without = (box: number) => {
    const kept = Object.entries(partOf(part).got).filter(([key]) => key !== boxes[box]!.key);
    put(part, { got: Object.fromEntries(kept) });
    pick(steps.findIndex((one) => one.part === part && one.box === box));
  };
  const short = parts.find(({ missing }) => missing >= 0.001);
  const takeSum = async ({ batchId, there, missing }: PartPreview) => {
    try {
      const { data } = await getBatch({ path: { id: batchId! } });
      const panGrams = data!.panGrams ?? 0;
      await weighBatch({
        path: { id: batchId! },
        headers: seen(data!.version),
        body: { panGrams, fullGrams: (data!.fullGrams ?? panGrams + there!) + missing },
      });
    } catch (thrown) {
      say(troubleOf(thrown, t("app:silent")).detail ?? "", { trouble: true });
    } finally {
      await onWeighed();
    }
  };

  return (
    <div ref={top} tabIndex={-1} className="max-w-3xl scroll-mt-20 outline-none">
      <FillBar {...{ typed, type, sounds, toggleSounds, onBack }} />
      <p aria-live="polite" className="sr-only">
        {said}
      </p>
      <ul className="mb-3 flex flex-wrap gap-2">
        {parts.map((one, i) => {
          const done = boxes.filter((_, box) => gotOf(one, box) !== undefined).length;
          return (
            <li key={partKey(one)}>
              <button
                className={`btn min-h-11 ${one === part ? "bg-ink text-ground" : ""}`}
                aria-pressed={one === part}
                onClick={() => {
                  setShown(i);
                  const first = steps.findIndex(
                    ({ at: own, box }) => own === i && gotOf(one, box) === undefined,
                  );
                  pick(first);
                }}
              >
                {one.name}{" "}
                <span className="text-xs font-normal">{t("parts.progress", { done, of: boxes.length })}</span>
              </button>
            </li>
          );
        })}
      </ul>
      <Where part={part} now={partOf(part).compartment} container={container} cups={cups} put={put} />
      {preview.apart.map(({ crisp, wet }) => (
        <p key={crisp + wet} className="mt-2 text-sm font-bold">
          <span aria-hidden className="hatched mr-1 inline-block h-3 w-1.5" />
          {t("parts.soft", { crisp, wet })}
        </p>
      ))}
      <div className="mt-3">
        {step && part.boxes[step.box] ? (
          <OnScale
            key={at}
            title={t("parts.into", {
              name: part.name,
              number: step.box + 1,
              of: boxes.length,
              whose: whose(step.box),
            })}
            mark={{
              target: part.boxes[step.box]!.grams,
              below: part.boxes[step.box]!.mark,
              above: part.boxes[step.box]!.mark,
            }}
            wanted={isLast ? part.boxes[step.box]!.target : part.boxes[step.box]!.grams}
            live={live}
            isStill={isStill}
            isBoxCounted={isBoxCounted}
            isNothingToo
            scale={scale}
            ask={ask}
            onTake={takeShown}
            onPlay={() => setIsPlaying(true)}
          />
        ) : (
          <section className="panel p-4" aria-label={t("parts.done")}>
            <h2 className="text-xl">{t("parts.done")}</h2>
            <p className="mt-1">
              {t("fill.sum", { grams: grams(round(preview.sum)) })}{" "}
              {parts
                .filter(({ left }) => left !== null && left >= 1)
                .map(({ name, left }) => t("parts.left", { name, grams: grams(round(left!)) }))
                .join(" ")}
            </p>
            <button className="btn-next mt-3 min-h-11 px-5" disabled={busy || !!short} onClick={onMake}>
              {t("make", { count: boxes.length })}
            </button>
          </section>
        )}
      </div>
      {short && (
        <p className="mt-2 text-sm">
          <b>{t("parts.missing", { name: short.name, grams: grams(round(short.missing)) })}</b>{" "}
          <button className="btn" disabled={busy} onClick={() => void takeSum(short)}>
            {t("parts.take", { name: short.name, grams: grams(round(short.there! + short.missing)) })}
          </button>
        </p>
      )}
      <Sentence>{problem}</Sentence>
      <ol className="mt-4 divide-y divide-line border-y border-line">
        {boxes.map(({ key }, box) => {
          const to = part.boxes[box];
          const got = gotOf(part, box);
          const whole = preview.boxes[box];
          const day = whole?.day && dayWords(t, whole.day);
          const off = got === undefined || !to ? 0 : got - to.target;
          return (
            <li
              key={key}
              className={`flex flex-wrap items-center gap-x-3 gap-y-1 py-1 ${step?.box === box ? "bg-bench" : ""}`}
            >
              <button
                className="min-h-11 w-full min-w-0 text-left sm:w-auto sm:flex-1"
                aria-current={step?.box === box || undefined}
                aria-label={t("fill.pick", { number: box + 1, whose: whose(box) })}
                onClick={() => pick(steps.findIndex((one) => one.part === part && one.box === box))}
              >
                <Tape letters={batch.letters} tint={batch.tint} className={got === undefined ? "ahead" : ""}>
                  <b>{t("box", { number: box + 1 })}</b> <span className="text-sm">{whose(box)}</span>
                </Tape>
              </button>
              <div className="w-28 sm:text-right">
                <b className="font-title text-lg">{grams(round(got ?? to?.grams ?? 0))} g</b>
                <span className="block text-xs text-soft">
                  {got === undefined
                    ? t("fill.toGet")
                    : Math.abs(off) < 0.05
                      ? t("fill.atTarget")
                      : t(off > 0 ? "fill.more" : "fill.less", { grams: grams(round(Math.abs(off))) })}
                </span>
              </div>
              <div className="min-w-0 flex-1 text-sm sm:w-44 sm:flex-none">
                {whole && (
                  <span className="block text-soft">
                    {grams(round(whole.grams))} g <span className="counted">·</span>{" "}
                    <Amount measure={lens} figure={whole.figures[lens]} />
                  </span>
                )}
                {day && (
                  <span className={`counted ${day.isOver ? "font-bold text-brick" : "text-soft"}`}>
                    {day.words}
                  </span>
                )}
              </div>
              <button
                className="min-h-11 w-20 text-left text-xs text-soft underline disabled:invisible"
                disabled={got === undefined}
                aria-label={t("fill.emptyNamed", { number: box + 1 })}
                onClick={() => without(box)}
              >
                {t("fill.empty")}
              </button>
            </li>
          );
        })}
      </ol>
      <div className="mt-3">
        <Fits boxes={preview.boxes} container={container} />
      </div>
      {isPlaying && <PlayDrawer scale={scale} probe={probe} ask={ask} close={() => setIsPlaying(false)} />}
    </div>
  );
}

/** Where a part lies: in the box or one of its compartments, in a cup, or beside it until it is eaten. */
function Where({
  part,
  now,
  container,
  cups,
  put,
}: {
  part: PartPreview;
  now: string;
  container: ContainerView | undefined;
  cups: ContainerView[];
  put: (part: PartPreview, change: Partial<PartTyped>) => void;
}) {
  const { t } = useWords("pack");
  const [first, ...others] = container?.compartments ?? [];
  const named = [...others.map(({ name }) => name!), ...cups.map(({ name }) => name)];
  const known = ["", "cup", beside, ...named];
  return (
    <label className="flex flex-wrap items-center gap-2 text-sm">
      <span className="text-soft">{t("parts.where", { name: part.name })}</span>
      <select
        className="field"
        value={now}
        onChange={(event) => put(part, { compartment: event.target.value })}
      >
        <option value="">{first?.name ?? t("parts.inBox")}</option>
        {named.map((name) => (
          <option key={name} value={name}>
            {name}
          </option>
        ))}
        {(cups.length === 0 || now === "cup") && <option value="cup">{t("parts.cup")}</option>}
        <option value={beside}>{t("parts.beside")}</option>
        {!known.includes(now) && <option value={now}>{now}</option>}
      </select>
    </label>
  );
}
