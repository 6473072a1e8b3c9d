import { useState } from "react";
import {
  playDevices,
  troubleOf,
  type PlayAct,
  type ProbeReading,
  type ScaleReading,
  type ScaleWish,
} from "../api";
import { useWords } from "../app/i18n";
import { useSay } from "../app/notices";
import { Drawer } from "../ui/Drawer";
import { numberIn } from "../ui/numbers";
import { shownOn } from "./useDevices";

/** Hands for the simulated scale and probe: put on, take off, stir, pull the plug. */
export function PlayDrawer({
  scale,
  probe,
  ask,
  close,
}: {
  scale: ScaleReading | null;
  probe: ProbeReading | null;
  ask: (wish: ScaleWish) => void;
  close: () => void;
}) {
  const { t } = useWords("devices");
  const say = useSay();
  const [weight, setWeight] = useState("250");
  const grams = numberIn(weight);
  const isWeight = grams !== null && grams > 0 && grams <= 20000;
  const play = (act: PlayAct, amount = 0) =>
    void playDevices({ body: { act, amount } }).catch((thrown: unknown) =>
      say(troubleOf(thrown, t("app:silent")).detail ?? "", { trouble: true }),
    );
  return (
    <Drawer open close={close} title={t("panel.title")}>
      <div className="space-y-5 text-sm">
        <p className="text-soft">{t("panel.text")}</p>
        <p className="font-title text-xl font-bold">
          {scale ? shownOn(scale) : "–"}{" "}
          <span className="text-sm font-normal text-soft">
            {scale?.unit ?? "g"} · {t(`state.${scale?.state ?? "lost"}`)}
          </span>
        </p>
        <div className="flex flex-wrap items-end gap-2">
          <label>
            <span className="block text-xs text-soft">{t("panel.weight")}</span>
            <input
              inputMode="decimal"
              className="field w-24 text-right"
              aria-invalid={!isWeight}
              value={weight}
              onChange={(event) => setWeight(event.target.value)}
            />
          </label>
          <button className="btn" disabled={!isWeight} onClick={() => play("put", grams!)}>
            {t("panel.put")}
          </button>
          <button className="btn" disabled={!isWeight} onClick={() => play("put", -grams!)}>
            {t("panel.take")}
          </button>
          <button className="btn" onClick={() => play("clear")}>
            {t("panel.clear")}
          </button>
          <button className="btn" onClick={() => play("stir")}>
            {t("panel.stir")}
          </button>
        </div>
        <div className="flex flex-wrap gap-2">
          <button className="btn" onClick={() => ask("tare")}>
            {t("tare")}
          </button>
          <button className="btn" onClick={() => ask(scale?.unit === "oz" ? "grams" : "ounces")}>
            {t(scale?.unit === "oz" ? "panel.grams" : "panel.ounces")}
          </button>
          <button className="btn" onClick={() => play("unplug")}>
            {t("panel.unplug")}
          </button>
          <button className="btn" onClick={() => play("plug")}>
            {t("panel.plug")}
          </button>
        </div>
        <section aria-labelledby="probe-title">
          <h3 id="probe-title" className="mb-1 text-base">
            {t("panel.probeTitle")}
          </h3>
          <p className="mb-2 font-title text-xl font-bold">
            {probe ? probe.celsius.toFixed(1) : "–"} <span className="text-sm font-normal text-soft">°C</span>
          </p>
          <div className="flex flex-wrap gap-2">
            <button className="btn" onClick={() => play("stickInto", 92)}>
              {t("panel.warm")}
            </button>
            <button className="btn" onClick={() => play("putInto", 21)}>
              {t("panel.counter")}
            </button>
            <button className="btn" onClick={() => play("putInto", 4)}>
              {t("panel.fridge")}
            </button>
            <button className="btn" onClick={() => play("putInto", 180)}>
              {t("panel.oven")}
            </button>
          </div>
        </section>
      </div>
    </Drawer>
  );
}
