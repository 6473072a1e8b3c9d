import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useWords } from "../../app/i18n";
import { findFoods, type Allergen, type DayAim, type Measure, type Slot } from "../../api";
import { allergens, unitOf } from "../../ui/format";
import { Sentence } from "../../ui/states";
import { bandFields, numberText, slotDraft, weekdays, type WaysDraft } from "./ways";
import { queryKeys } from "../../app/queryKeys";

interface WaysProps {
  name: string;
  ways: WaysDraft;
  /** The measures that other days are written in. */
  rows: Measure[];
  /** The usual day, as it was saved. */
  usual: DayAim["bands"];
  leading: Measure;
  startingSlots: Slot[];
  /** The sentences for fields that begin so. */
  at: (prefix: string) => string[];
  onType: (ways: WaysDraft) => void;
  onSave: (ways: WaysDraft) => void;
}

/** How an eater eats: what they must never get first, then slots, other days, likes, and the reserve. */
export function WaysSheet({
  name,
  ways,
  rows,
  usual,
  leading,
  startingSlots,
  at,
  onType,
  onSave,
}: WaysProps) {
  const { t } = useWords("aim");
  const set = (change: Partial<WaysDraft>) => onSave({ ...ways, ...change });
  const toggle = (allergen: Allergen) =>
    set({
      neverAllergens: ways.neverAllergens.includes(allergen)
        ? ways.neverAllergens.filter((other) => other !== allergen)
        : [...ways.neverAllergens, allergen],
    });
  return (
    <>
      <details className="mt-3 border-t border-line pt-3">
        <summary className="font-title font-bold">{t("ways.never")}</summary>
        <p className="mt-1 text-sm text-soft">{t("ways.neverText")}</p>
        <div className="mt-2 flex flex-wrap gap-1.5" role="group" aria-label={t("ways.allergens", { name })}>
          {allergens.map((allergen) => (
            <button
              key={allergen}
              className={`chip ${ways.neverAllergens.includes(allergen) ? "border-brick bg-panel font-bold text-brick" : ""}`}
              aria-pressed={ways.neverAllergens.includes(allergen)}
              onClick={() => toggle(allergen)}
            >
              {ways.neverAllergens.includes(allergen) && <span aria-hidden>✕ </span>}
              {t(`foods:allergens.${allergen}`)}
            </button>
          ))}
        </div>
        <FoodList
          label={t("ways.neverFood")}
          foods={ways.neverFoods}
          onChange={(neverFoods) => set({ neverFoods })}
        />
        <FoodList
          label={t("ways.ratherNot")}
          foods={ways.ratherNot}
          onChange={(ratherNot) => set({ ratherNot })}
        />
        {[...at("ways.never"), ...at("ways.ratherNot")].map((sentence) => (
          <Sentence key={sentence}>{sentence}</Sentence>
        ))}
      </details>
      <details className="mt-3 border-t border-line pt-3">
        <summary className="font-title font-bold">{t("ways.others")}</summary>
        <p className="mt-1 text-sm text-soft">{t("ways.othersText")}</p>
        {ways.others.map((other, i) => (
          <OtherDay
            key={i}
            other={other}
            rows={rows}
            usual={usual}
            onType={(changed) =>
              onType({ ...ways, others: ways.others.map((one, k) => (k === i ? changed : one)) })
            }
            onSave={(changed) => set({ others: ways.others.map((one, k) => (k === i ? changed : one)) })}
            onDrop={() => set({ others: ways.others.filter((_, k) => k !== i) })}
          />
        ))}
        <button
          className="btn mt-2"
          onClick={() =>
            onType({ ...ways, others: [...ways.others, { name: "", when: "", bounds: {}, kept: {} }] })
          }
        >
          {t("ways.addOther")}
        </button>
        {at("ways.otherDays").map((sentence) => (
          <Sentence key={sentence}>{sentence}</Sentence>
        ))}
      </details>
      <details className="mt-3 border-t border-line pt-3">
        <summary className="font-title font-bold">{t("ways.slots")}</summary>
        <p className="mt-1 text-sm text-soft">{t("ways.slotsText")}</p>
        {ways.slots.length === 0 ? (
          <p className="mt-2 flex flex-wrap items-center gap-2 text-sm">
            {startingSlots.map((slot) => slot.name).join(" · ")}
            <button className="btn" onClick={() => set({ slots: startingSlots.map(slotDraft) })}>
              {t("ways.ownSlots")}
            </button>
          </p>
        ) : (
          <Slots
            slots={ways.slots}
            onType={(slots) => onType({ ...ways, slots })}
            onSave={(slots) => set({ slots })}
          />
        )}
        {at("ways.ownSlots").map((sentence) => (
          <Sentence key={sentence}>{sentence}</Sentence>
        ))}
      </details>
      <details className="mt-3 border-t border-line pt-3">
        <summary className="font-title font-bold">{t("ways.more")}</summary>
        <div className="mt-2 grid grid-cols-[1fr_6rem_3rem] items-center gap-x-2 gap-y-1 text-sm">
          <label className="contents">
            <span>{t("ways.alike")}</span>
            <input
              inputMode="numeric"
              className="field w-full text-right"
              value={ways.alike}
              placeholder={t("ways.any")}
              onChange={(event) => onType({ ...ways, alike: event.target.value })}
              onBlur={() => onSave(ways)}
            />
            <span className="text-xs text-soft">{t("ways.boxes")}</span>
          </label>
          <label className="contents">
            <span>{t("ways.fillers")}</span>
            <input
              inputMode="numeric"
              className="field w-full text-right"
              value={ways.fillers}
              placeholder={t("ways.asMany")}
              onChange={(event) => onType({ ...ways, fillers: event.target.value })}
              onBlur={() => onSave(ways)}
            />
            <span className="text-xs text-soft">{t("ways.aDay")}</span>
          </label>
          <label className="counted contents">
            <span>{t("ways.reserve")}</span>
            <input
              inputMode="decimal"
              className="field w-full text-right"
              value={ways.reserve}
              onChange={(event) => onType({ ...ways, reserve: event.target.value })}
              onBlur={() => onSave(ways)}
            />
            <span className="text-xs text-soft">{unitOf(leading)}</span>
          </label>
        </div>
        <Likes likes={ways.likes} onChange={(likes) => set({ likes })} />
        {[
          ...at("ways.likes"),
          ...at("ways.boxesAlike"),
          ...at("ways.fillersADay"),
          ...at("ways.reserve"),
        ].map((sentence) => (
          <Sentence key={sentence}>{sentence}</Sentence>
        ))}
      </details>
    </>
  );
}

function OtherDay({
  other,
  rows,
  usual,
  onType,
  onSave,
  onDrop,
}: {
  other: WaysDraft["others"][number];
  rows: Measure[];
  /** The usual day, shown where the other day says nothing. */
  usual: DayAim["bands"];
  onType: (other: WaysDraft["others"][number]) => void;
  onSave: (other: WaysDraft["others"][number]) => void;
  onDrop: () => void;
}) {
  const { t } = useWords("aim");
  // A day that nothing was set for yet is still being written: it is kept with its first bound.
  const isBegun = [other.bounds, other.kept].some((bounds) => Object.values(bounds).some(Boolean));
  const keep = isBegun ? onSave : onType;
  const isDate = !weekdays.includes(other.when as (typeof weekdays)[number]);
  return (
    <div className="mt-2 border-l-2 border-line pl-3">
      <div className="flex flex-wrap items-center gap-2">
        <input
          className="field min-w-0 flex-1"
          aria-label={t("ways.otherName")}
          placeholder={t("ways.otherHint")}
          value={other.name}
          maxLength={40}
          onChange={(event) => onType({ ...other, name: event.target.value })}
          onBlur={() => keep(other)}
        />
        <select
          className="field"
          aria-label={t("ways.otherWhen")}
          value={isDate ? "date" : other.when}
          onChange={(event) =>
            keep({ ...other, when: event.target.value === "date" ? "" : event.target.value })
          }
        >
          <option value="date">{t("ways.onDate")}</option>
          {weekdays.map((day) => (
            <option key={day} value={day}>
              {t("ways.every", { day: t(`ways.weekdays.${day}`) })}
            </option>
          ))}
        </select>
        {isDate && (
          <input
            type="date"
            className="field"
            aria-label={t("ways.otherDate")}
            value={other.when}
            onChange={(event) => keep({ ...other, when: event.target.value })}
          />
        )}
        <button className="min-h-8 text-sm underline" onClick={onDrop}>
          {t("ways.drop")}
        </button>
      </div>
      <table className="mt-1 w-full text-sm">
        <thead>
          <tr className="text-xs text-soft">
            <td />
            {bandFields.map((bound) => (
              <th key={bound} scope="col" className="font-normal">
                {t(bound === "tolerance" ? "tolerance" : `bounds.${bound}`)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((measure) => (
            <tr key={measure}>
              <th scope="row" className="pr-2 text-left font-normal">
                {t(measure)}
              </th>
              {bandFields.map((bound) => (
                <td key={bound} className="p-0.5">
                  <input
                    inputMode="decimal"
                    className="field w-full min-w-12 text-right"
                    aria-label={`${other.name || t("ways.others")}, ${t(measure)}, ${t(`bounds.${bound}`)}`}
                    placeholder={numberText(usual[measure]?.[bound])}
                    value={other.bounds[`${measure}.${bound}`] ?? ""}
                    onChange={(event) =>
                      onType({
                        ...other,
                        bounds: { ...other.bounds, [`${measure}.${bound}`]: event.target.value },
                      })
                    }
                    onBlur={() => keep(other)}
                  />
                </td>
              ))}
              <td className="pl-1 text-xs text-soft">{unitOf(measure)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function Slots({
  slots,
  onType,
  onSave,
}: {
  slots: WaysDraft["slots"];
  onType: (slots: WaysDraft["slots"]) => void;
  onSave: (slots: WaysDraft["slots"]) => void;
}) {
  const { t } = useWords("aim");
  const change = (i: number, part: Partial<WaysDraft["slots"][number]>) =>
    slots.map((slot, k) => (k === i ? { ...slot, ...part } : slot));
  return (
    <div className="mt-2 space-y-1 text-sm">
      {slots.map((slot, i) => (
        <div key={i} className="flex flex-wrap items-center gap-2">
          <input
            className="field min-w-0 flex-1"
            aria-label={t("ways.slotName")}
            value={slot.name}
            maxLength={24}
            onChange={(event) => onType(change(i, { name: event.target.value }))}
            onBlur={() => onSave(slots)}
          />
          <input
            type="time"
            className="field"
            aria-label={t("ways.slotAt", { slot: slot.name })}
            value={slot.at}
            onChange={(event) => onSave(change(i, { at: event.target.value }))}
          />
          <span className="flex items-center gap-1">
            <input
              inputMode="decimal"
              className="field w-14 text-right"
              aria-label={t("ways.slotShare", { slot: slot.name })}
              value={slot.share}
              onChange={(event) => onType(change(i, { share: event.target.value }))}
              onBlur={() => onSave(slots)}
            />
            <span className="text-xs text-soft">%</span>
          </span>
          <label className="flex items-center gap-1">
            <input
              type="checkbox"
              className="size-5"
              checked={slot.takesBox}
              onChange={(event) => onSave(change(i, { takesBox: event.target.checked }))}
            />
            {t("ways.takesBox")}
          </label>
          <button
            className="min-h-8 underline"
            aria-label={t("ways.dropSlot", { slot: slot.name })}
            onClick={() => onSave(slots.filter((_, k) => k !== i))}
          >
            ✕
          </button>
        </div>
      ))}
      <button
        className="btn"
        onClick={() => onType([...slots, { name: "", at: "", share: "", takesBox: false }])}
      >
        {t("ways.addSlot")}
      </button>
    </div>
  );
}

/** Amounts that gaps are gladly filled with, as said: "1 apple". */
function Likes({ likes, onChange }: { likes: string[]; onChange: (likes: string[]) => void }) {
  const { t } = useWords("aim");
  const [typed, setTyped] = useState("");
  const add = () => {
    const text = typed.trim();
    if (text === "" || likes.includes(text)) return;
    onChange([...likes, text]);
    setTyped("");
  };
  return (
    <div className="mt-2 flex flex-wrap items-center gap-1.5 text-sm">
      <span className="text-soft">{t("ways.likes")}</span>
      {likes.map((text) => (
        <button
          key={text}
          className="chip"
          aria-label={t("ways.takeOut", { food: text })}
          onClick={() => onChange(likes.filter((other) => other !== text))}
        >
          {text} <span aria-hidden>✕</span>
        </button>
      ))}
      <input
        className="field min-w-28 flex-1"
        aria-label={t("ways.likes")}
        placeholder={t("ways.likesHint")}
        maxLength={200}
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
        onKeyDown={(event) => event.key === "Enter" && add()}
        onBlur={add}
      />
    </div>
  );
}

/** Foods by name, as chips; another is typed and chosen. */
function FoodList({
  label,
  foods,
  onChange,
}: {
  label: string;
  foods: string[];
  onChange: (foods: string[]) => void;
}) {
  const { t } = useWords("aim");
  const { data: all } = useQuery({
    queryKey: queryKeys.foods("all"),
    queryFn: async () => (await findFoods()).data!,
    staleTime: Infinity,
  });
  const [typed, setTyped] = useState("");
  const add = () => {
    const food = all?.find(({ name }) => name.toLowerCase() === typed.trim().toLowerCase());
    if (!food || foods.includes(food.id)) return;
    onChange([...foods, food.id]);
    setTyped("");
  };
  return (
    <div className="mt-2 flex flex-wrap items-center gap-1.5 text-sm">
      <span className="text-soft">{label}</span>
      {foods.map((id) => {
        const food = all?.find((one) => one.id === id)?.name ?? id;
        return (
          <button
            key={id}
            className="chip"
            aria-label={t("ways.takeOut", { food })}
            onClick={() => onChange(foods.filter((other) => other !== id))}
          >
            {food} <span aria-hidden>✕</span>
          </button>
        );
      })}
      <input
        className="field min-w-28 flex-1"
        aria-label={label}
        list="all-foods"
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
        onKeyDown={(event) => event.key === "Enter" && add()}
        onBlur={add}
      />
    </div>
  );
}
