import { useState } from "react";
import { useWords } from "../../app/i18n";
import { hold, type Measure, type Slot } from "../../api";
import { useHistory } from "../../app/history";
import { seenDays } from "../../app/seen";
import { unitOf } from "../../ui/format";
import { numberIn } from "../../ui/numbers";
import { SlotSelect } from "./SlotSelect";

/** "Keep 30 g of fat for the evening": it counts as if it lay there, until something is laid for it. */
export function KeepFree({
  eaterId,
  day,
  lens,
  measures,
  slots,
}: {
  eaterId: string;
  day: string;
  lens: Measure;
  /** What can be kept. */
  measures: Measure[];
  slots: Slot[];
}) {
  const { t } = useWords("plan");
  const { change } = useHistory();
  const [amount, setAmount] = useState("");
  const [measure, setMeasure] = useState(lens);
  const [slot, setSlot] = useState("");
  const keep = async () => {
    const kept = numberIn(amount);
    if (kept === null || Number.isNaN(kept)) return;
    const what = `${amount.trim()} ${unitOf(measure)}`;
    const done = await change(
      () =>
        hold({
          headers: seenDays({ eaterId, day }),
          body: { eaterId, day, measure, amount: kept, slot: slot || null },
        }),
      t("hold.done", { what, slot: slot || t("hold.later") }),
    );
    if (done) setAmount("");
  };
  return (
    <details>
      <summary className="font-title text-base font-bold">{t("hold.title")}</summary>
      <p className="mt-1 text-soft">{t("hold.lead")}</p>
      <form
        className="mt-2 flex flex-wrap gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          void keep();
        }}
      >
        <input
          className="field w-20 text-right"
          inputMode="decimal"
          aria-label={t("hold.amount")}
          value={amount}
          onChange={(event) => setAmount(event.target.value)}
        />
        <select
          className="field text-sm"
          aria-label={t("hold.measure")}
          value={measure}
          onChange={(event) => setMeasure(event.target.value as Measure)}
        >
          {measures.map((one) => (
            <option key={one} value={one}>
              {one === "energy" || one === "points"
                ? t(`app:measures.${one}`)
                : `g ${t(`app:measures.${one}`)}`}
            </option>
          ))}
        </select>
        <SlotSelect label={t("hold.slot")} slots={slots} value={slot} onChange={setSlot} />
        <button className="btn" disabled={amount.trim() === ""}>
          {t("hold.keep")}
        </button>
      </form>
    </details>
  );
}
