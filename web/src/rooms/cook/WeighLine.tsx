import { useId, useState } from "react";
import type { BatchLineView } from "../../api";
import { useWords } from "../../app/i18n";
import { useDevices, useLive } from "../../devices/useDevices";
import { grams, wholeNumber } from "../../ui/format";
import { weightIn } from "../../ui/numbers";
import { Sentence } from "../../ui/states";

/**
 * One line weighed in: what it is to be and what is on the scale by now, counted from what stood on it before; or out of a jar, by what it has lost.
 * Typing always works.
 */
export function WeighLine({
  line,
  take,
}: {
  line: BatchLineView;
  take: (grams: number) => Promise<boolean>;
}) {
  const { t } = useWords("cook");
  const id = useId();
  const devices = useDevices().data;
  const { scale } = useLive(devices?.hasScale ?? false);
  const [typed, setTyped] = useState("");
  const [isJar, setIsJar] = useState(false);
  const [zero, setZero] = useState<number | null>(null);
  const [busy, setBusy] = useState(false);
  const reading = scale?.grams ?? null;
  // What stands on the scale when the line is opened weighs nothing; one that is off begins at nothing.
  if (zero === null && scale?.state === "off") setZero(0);
  if (zero === null && reading !== null && scale?.state === "stable") setZero(reading);
  const inside = reading === null || zero === null ? null : isJar ? zero - reading : reading - zero;
  const target = line.plannedGrams;
  const isThere = inside !== null && inside >= target;
  const save = async (weight: number) => {
    setBusy(true);
    if (await take(weight)) {
      setTyped("");
      setZero(null);
    }
    setBusy(false);
  };
  const weight = weightIn(typed);
  const wrong = Number.isNaN(weight) ? t("app:numberNeeded") : undefined;
  return (
    <div className="mb-2 space-y-2">
      {devices?.hasScale && (
        <div className="flex flex-wrap items-end gap-x-4 gap-y-2">
          <p className="font-title text-huge leading-none font-bold" aria-label={t("weigh.inside")}>
            <span data-inside>{inside === null ? "–" : wholeNumber(inside)}</span>{" "}
            <span className="text-base font-normal text-soft">
              {t("weigh.of", { grams: grams(Math.round(target * 10) / 10) })}
            </span>
          </p>
          <p className={`text-sm ${isThere ? "font-bold" : "text-soft"}`} aria-live="polite">
            {inside === null
              ? t(`devices:state.${scale?.state ?? "lost"}`)
              : isThere
                ? t("weigh.there")
                : t("weigh.more", { grams: wholeNumber(target - inside) })}
          </p>
          <span aria-hidden className="h-2 w-full overflow-hidden rounded-sm bg-rest">
            <span
              className="block h-full bg-sea"
              style={{ width: `${Math.min(100, Math.max(0, ((inside ?? 0) / target) * 100))}%` }}
            />
          </span>
          <button
            className="btn-next min-h-11"
            disabled={busy || inside === null || inside <= 0 || scale?.state !== "stable"}
            onClick={() => void save(inside!)}
          >
            {t("weigh.take")}
          </button>
          <button className="btn min-h-11" disabled={reading === null} onClick={() => setZero(reading)}>
            {t("weigh.zero")}
          </button>
          <label className="flex min-h-11 items-center gap-2 text-sm">
            <input
              type="checkbox"
              className="size-5"
              checked={isJar}
              onChange={(event) => setIsJar(event.target.checked)}
            />
            {t("weigh.jar")}
          </label>
        </div>
      )}
      <form
        className="flex flex-wrap items-center gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          if (weight !== null && !wrong) void save(weight);
        }}
      >
        <label htmlFor={id} className="text-sm">
          {t("weigh.typed")}
        </label>
        <input
          id={id}
          inputMode="decimal"
          className="field w-24"
          maxLength={12}
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
        />
        <span className="text-sm text-soft">g</span>
        <button className="btn" disabled={busy || weight === null || !!wrong}>
          {t("weigh.save")}
        </button>
        <Sentence>{wrong}</Sentence>
      </form>
    </div>
  );
}
