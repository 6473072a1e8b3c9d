import { useState } from "react";
import type { ScaleReading, ScaleWish } from "../../api";
import { useWords } from "../../app/i18n";
import { useDevices } from "../../devices/useDevices";
import { grams, wholeNumber } from "../../ui/format";
import { weightIn } from "../../ui/numbers";
import { Sentence } from "../../ui/states";
import { standsAt, type Mark } from "./filling";

/** The box that stands on the scale. Without a scale, or where it fell silent, its weight is typed. */
export function OnScale({
  title,
  mark,
  wanted,
  live,
  isStill,
  isBoxCounted,
  isNothingToo = false,
  scale,
  ask,
  onTake,
  onPlay,
}: {
  title: string;
  mark: Mark;
  /** What it was to get before the others were filled: the last takes what is left. */
  wanted: number;
  /** What the scale says that is in it, without the box; null where it says nothing. */
  live: number | null;
  /** Whether what was taken last still stands there. */
  isStill: boolean;
  /** Whether a box that stands there is taken off: then nothing on it is an empty box, not an empty scale. */
  isBoxCounted: boolean;
  /** Whether it may get nothing: then 0 can be typed. */
  isNothingToo?: boolean;
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
  // Less than nothing is a scale without the box that it counts from; a gram or two are the box's own.
  const there = live === null || live < -2 ? null : Math.max(0, live);
  const shown = weight ?? there;
  const isOfLast = isStill && weight === null;
  const stands = shown === null || Number.isNaN(shown) || isOfLast ? "under" : standsAt(shown, mark);
  const isSilent = devices?.hasScale && scale === null;
  const canTake =
    weight !== null
      ? weight > 0 || (isNothingToo && weight === 0)
      : !isOfLast && live !== null && live > 0 && scale?.state === "stable";
  const words = () => {
    if (isSilent && weight === null) return t("fill.silent");
    if (scale?.state === "overload" && weight === null) return t("devices:state.overload");
    if (shown === null || Number.isNaN(shown) || (shown === 0 && !isBoxCounted)) return t("fill.putOn");
    if (isOfLast) return t("fill.next");
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
