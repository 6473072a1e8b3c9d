import { useState } from "react";
import { useWords } from "../../app/i18n";
import { layForGuests, type Slot, type WeekView } from "../../api";
import { useHistory } from "../../app/history";
import { seenDays } from "../../app/seen";
import { grams, longDay } from "../../ui/format";
import { numberIn } from "../../ui/numbers";
import { SlotSelect } from "./SlotSelect";

/** Portions for people without an aim: they lie on the day and count nothing; beside each dish stands what is left of it. */
export function Guests({
  eaterId,
  day,
  week,
  slots,
}: {
  eaterId: string;
  day: string;
  week: WeekView;
  slots: Slot[];
}) {
  const { t } = useWords("plan");
  const { change } = useHistory();
  const [dish, setDish] = useState("");
  const [count, setCount] = useState("2");
  const [slot, setSlot] = useState("");
  const shelf = week.shelf.filter(({ isOver }) => !isOver);
  const dishes = [
    ...week.unpacked
      .filter((batch) => batch.grams !== null)
      .map((batch) => ({
        id: batch.batchId,
        words: t("guests.batch", { name: batch.name, left: grams(Math.max(0, Math.round(batch.leftGrams))) }),
        name: batch.name,
      })),
    ...[...new Set(shelf.map(({ batchId }) => batchId))].map((id) => {
      const boxes = shelf.filter(({ batchId }) => batchId === id);
      const left = boxes.reduce((sum, { boxIds }) => sum + boxIds.length, 0);
      return { id, name: boxes[0]!.name, words: t("guests.boxes", { name: boxes[0]!.name, count: left }) };
    }),
  ];
  const chosen = dishes.find(({ id }) => id === dish) ?? dishes[0];
  const guests = numberIn(count) ?? 0;
  return (
    <details>
      <summary className="font-title text-base font-bold">{t("guests.title")}</summary>
      <p className="mt-1 text-soft">{t(dishes.length > 0 ? "guests.lead" : "guests.none")}</p>
      {chosen && (
        <form
          className="mt-2 flex flex-wrap gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            void change(
              () =>
                layForGuests({
                  headers: seenDays({ eaterId, day }),
                  body: { eaterId, day, guests, batchId: chosen.id, slot: slot || null },
                }),
              t("guests.done", { count: guests, name: chosen.name, day: longDay(day) }),
            );
          }}
        >
          <select
            className="field min-w-0 flex-1"
            aria-label={t("guests.dish")}
            value={chosen.id}
            onChange={(event) => setDish(event.target.value)}
          >
            {dishes.map(({ id, words }) => (
              <option key={id} value={id}>
                {words}
              </option>
            ))}
          </select>
          <input
            className="field w-14 text-right"
            inputMode="numeric"
            aria-label={t("guests.count")}
            value={count}
            onChange={(event) => setCount(event.target.value)}
          />
          <SlotSelect label={t("guests.slot")} slots={slots} value={slot} onChange={setSlot} />
          <button className="btn">{t("guests.lay")}</button>
        </form>
      )}
    </details>
  );
}
