import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useWords } from "../../app/i18n";
import {
  keepMeals,
  layEvent,
  sentenceFor,
  troubleOf,
  type KeptMealView,
  type MenuItem,
  type Slot,
  type Trouble,
} from "../../api";
import { useHistory } from "../../app/history";
import { seenDays } from "../../app/seen";
import { longDay } from "../../ui/format";
import { sentNumber } from "../../ui/numbers";
import { Sentence } from "../../ui/states";
import { all } from "../../app/queryKeys";
import { KeptMeals } from "./KeptMeals";
import { SlotSelect } from "./SlotSelect";

const figures = ["energy", "protein", "carbohydrate", "fat"] as const;
const columns = ["name", "energy", "high", "points", "protein", "carbohydrate", "fat"] as const;

type Row = Record<(typeof columns)[number], string>;
const blank: Row = { name: "", energy: "", high: "", points: "", protein: "", carbohydrate: "", fat: "" };

/** A meal out, entered ahead: lines off its menu, or an estimate from … to …; the rest of the day is fitted around it. */
export function EventForm({
  eaterId,
  day,
  slots,
  hasPoints,
}: {
  eaterId: string;
  day: string;
  slots: Slot[];
  /** Whether the eater counts points. */
  hasPoints: boolean;
}) {
  const { t } = useWords("plan");
  const { change } = useHistory();
  const [name, setName] = useState("");
  const [slot, setSlot] = useState("");
  const [rows, setRows] = useState<Row[]>([blank]);
  const [trouble, setTrouble] = useState<Trouble | null>(null);
  const [keeps, setKeeps] = useState(true);
  const queries = useQueryClient();
  const shown = columns.filter((field) => field !== "points" || hasPoints);
  const items: MenuItem[] = rows.map((row) => ({
    name: row.name || name,
    figures: Object.fromEntries(
      figures.flatMap((field) => {
        const value = sentNumber(row[field]);
        return value === null ? [] : [[field, value]];
      }),
    ),
    highKcal: sentNumber(row.high),
    points: sentNumber(row.points),
  }));
  // Onto the first line that is still blank, else onto a new one.
  const take = (meal: KeptMealView) => {
    const row = rowOf(meal);
    const blankAt = rows.findIndex((one) => columns.every((field) => one[field] === ""));
    setRows(blankAt < 0 ? [...rows, row] : rows.map((one, i) => (i === blankAt ? row : one)));
    if (name === "") setName(meal.place);
  };
  const lay = async () => {
    const made = await change(
      async () => {
        try {
          return await layEvent({
            headers: seenDays({ eaterId, day }),
            body: {
              eaterId,
              day,
              name,
              slot: slot || null,
              items,
            },
          });
        } catch (thrown) {
          setTrouble(troubleOf(thrown, t("app:silent")));
          throw thrown;
        }
      },
      t("carry.laid", { name, day: longDay(day) }),
    );
    if (!made) return;
    if (keeps) {
      // What could not be kept is laid all the same.
      await keepMeals({ body: { place: name, items } }).catch(() => undefined);
      await queries.invalidateQueries(all("keptMeals"));
    }
    setName("");
    setRows([blank]);
    setTrouble(null);
  };
  return (
    <details>
      <summary className="font-title text-base font-bold">{t("event.title")}</summary>
      <p className="mt-1 text-soft">{t("event.lead")}</p>
      <div className="mt-2 flex gap-2">
        <input
          className="field min-w-0 flex-1"
          aria-label={t("event.name")}
          placeholder={t("event.hint")}
          value={name}
          maxLength={80}
          onChange={(event) => setName(event.target.value)}
        />
        <SlotSelect label={t("event.slot")} slots={slots} value={slot} onChange={setSlot} />
      </div>
      <Sentence>{sentenceFor(trouble, "name")}</Sentence>
      <KeptMeals place={name} onTake={take} />
      <ul className="mt-2 space-y-2 text-xs text-soft">
        {rows.map((row, i) => (
          <li key={i} className="grid grid-cols-3 gap-1 md:auto-cols-fr md:grid-flow-col md:grid-cols-none">
            {shown.map((field) => (
              <label key={field} className={field === "name" ? "col-span-3 md:col-span-2" : ""}>
                {/* Over each field on a phone; on the desk they stand in columns. */}
                <span className={`mb-0.5 block truncate ${i > 0 ? "md:hidden" : ""}`}>
                  {t(`event.columns.${field}`)}
                </span>
                <input
                  className={`field w-full ${field === "name" ? "" : "text-right"}`}
                  inputMode={field === "name" ? "text" : "decimal"}
                  aria-label={t("event.cell", { field: t(`event.columns.${field}`), line: i + 1 })}
                  value={row[field]}
                  onChange={(event) =>
                    setRows(rows.map((one, k) => (k === i ? { ...one, [field]: event.target.value } : one)))
                  }
                />
              </label>
            ))}
          </li>
        ))}
      </ul>
      {trouble?.errors
        ?.filter(({ field }) => field.startsWith("items"))
        .map((problem) => (
          <Sentence key={problem.field}>{problem.sentence}</Sentence>
        ))}
      <label className="mt-2 flex min-h-8 items-center gap-2">
        <input type="checkbox" className="size-4" checked={keeps} onChange={() => setKeeps(!keeps)} />
        {t("kept.keep")}
      </label>
      <p className="mt-2 flex gap-2">
        <button className="btn" onClick={() => setRows([...rows, blank])}>
          {t("event.line")}
        </button>
        <button className="btn" onClick={() => void lay()}>
          {t("event.lay")}
        </button>
      </p>
    </details>
  );
}

const typedAs = (value: number | null | undefined) => (value == null ? "" : String(value));

/** A line as it was kept. */
const rowOf = ({ name, figures: kept, highKcal, points }: KeptMealView): Row => ({
  name,
  energy: typedAs(kept.energy),
  high: typedAs(highKcal),
  points: typedAs(points),
  protein: typedAs(kept.protein),
  carbohydrate: typedAs(kept.carbohydrate),
  fat: typedAs(kept.fat),
});
