import { useState } from "react";
import { askScale, troubleOf, type ScaleWish } from "../api";
import { useWords } from "../app/i18n";
import { useSay } from "../app/notices";
import { PlayDrawer } from "./PlayDrawer";
import { shownOn, useDevices, useLive } from "./useDevices";

/** What the kitchen's scale shows, to be read at arm's length and taken with one press. Nothing where there is no scale: typing always works. */
export function ScaleStrip({ takes }: { takes: { label: string; take: (grams: number) => void }[] }) {
  const { t } = useWords("devices");
  const say = useSay();
  const devices = useDevices().data;
  const [isPlaying, setIsPlaying] = useState(false);
  const { scale, probe } = useLive(devices?.hasScale ?? false);
  if (!devices?.hasScale) return null;
  const ask = (wish: ScaleWish) =>
    void askScale({ body: { wish } }).catch((thrown: unknown) =>
      say(troubleOf(thrown, t("app:silent")).detail ?? "", { trouble: true }),
    );
  const grams = scale?.grams ?? null;
  const state = scale?.state ?? "lost";
  return (
    <section
      aria-label={t("scale")}
      className="no-print mb-4 flex flex-wrap items-center gap-x-5 gap-y-2 border-y border-line py-2"
    >
      <p className="font-title text-huge leading-none font-bold" data-at={scale?.at}>
        <span data-reading>{scale ? shownOn(scale) : "–"}</span>{" "}
        <span className="text-base font-normal text-soft">{scale?.unit ?? "g"}</span>
      </p>
      <p
        className={`text-sm ${state === "lost" || state === "overload" ? "font-bold text-brick" : "text-soft"}`}
        aria-live="polite"
      >
        {t("scale")}: {t(`state.${state}`)}
        {probe && (
          <span className="block text-soft">
            {t("probe")}: {probe.celsius.toFixed(1)} °C
          </span>
        )}
      </p>
      <div className="flex flex-wrap gap-2">
        {takes.map(({ label, take }) => (
          <button
            key={label}
            className="btn min-h-11"
            disabled={grams === null || grams <= 0 || state !== "stable"}
            onClick={() => take(grams!)}
          >
            {label}
          </button>
        ))}
        <button
          className="btn min-h-11"
          disabled={scale === null}
          onClick={() => ask(state === "off" ? "on" : "tare")}
        >
          {t(state === "off" ? "on" : "tare")}
        </button>
        {devices.isSimulated && (
          <button className="link min-h-11 px-2 text-sm" onClick={() => setIsPlaying(true)}>
            {t("play")}
          </button>
        )}
      </div>
      {isPlaying && <PlayDrawer scale={scale} probe={probe} ask={ask} close={() => setIsPlaying(false)} />}
    </section>
  );
}
