import { useQuery } from "@tanstack/react-query";
import { useId, useState } from "react";
import { useWords } from "../../app/i18n";
import { findFoods, type FoodGroup, type RuleExample } from "../../api";
import { exact, foodGroups } from "../../ui/format";
import { Sentence } from "../../ui/states";
import { ruled, type Draft } from "./draft";
import { queryKeys } from "../../app/queryKeys";

type Rule = NonNullable<Draft["rule"]>;

interface RuleSheetProps {
  rule: Rule;
  /** What the rule as it was saved makes of a plate. */
  example: RuleExample | null;
  /** Who else here counts by a rule, another than this. */
  others: RuleOf[];
  at: (field: string) => string | undefined;
  onType: (rule: Rule) => void;
  onSave: (rule: Rule | null) => void;
}

/** The rule of another eater here. */
export interface RuleOf {
  name: string;
  rule: Rule;
}

/** A rule that somebody here counts by, taken over whole. */
export function AsFor({ others, onTake }: { others: RuleOf[]; onTake: (rule: Rule) => void }) {
  const { t } = useWords("aim");
  if (others.length === 0) return null;
  return (
    <p className="mt-2 flex flex-wrap gap-2 text-sm">
      {others.map(({ name, rule }) => (
        <button key={name} type="button" className="btn" onClick={() => onTake(rule)}>
          {t("asFor", { name })}
        </button>
      ))}
    </p>
  );
}

/** The points rule an eater writes down: points per kcal and gram, the rounding, and what is free. */
export function RuleSheet({ rule, example, others, at, onType, onSave }: RuleSheetProps) {
  const { t } = useWords("aim");
  const id = useId();
  const { data: foods } = useQuery({
    queryKey: queryKeys.foods("all"),
    queryFn: async () => (await findFoods()).data!,
    staleTime: Infinity,
  });
  const [typed, setTyped] = useState("");
  const [unknown, setUnknown] = useState(false);
  const nameOf = (id: string) => foods?.find((food) => food.id === id)?.name ?? id;
  const toggle = (group: FoodGroup) =>
    onSave({
      ...rule,
      freeGroups: rule.freeGroups.includes(group)
        ? rule.freeGroups.filter((other) => other !== group)
        : [...rule.freeGroups, group],
    });
  const foodTyped = () => {
    const food = foods?.find(({ name }) => name.toLowerCase() === typed.trim().toLowerCase());
    setUnknown(!food && typed.trim() !== "");
    return food;
  };
  const addFixed = () => {
    const food = foodTyped();
    if (!food || rule.fixedValues.some(({ foodId }) => foodId === food.id)) return;
    onType({ ...rule, fixedValues: [...rule.fixedValues, { foodId: food.id, points: "", grams: "" }] });
    setTyped("");
  };
  const typeFixed = (foodId: string, change: { points?: string; grams?: string }) =>
    onType({
      ...rule,
      fixedValues: rule.fixedValues.map((value) =>
        value.foodId === foodId ? { ...value, ...change } : value,
      ),
    });
  const addCounted = () => {
    const food = foodTyped();
    if (!food || rule.countedFoods.includes(food.id)) return;
    const freeFoods = rule.freeFoods.filter((id) => id !== food.id);
    onSave({ ...rule, freeFoods, countedFoods: [...rule.countedFoods, food.id] });
    setTyped("");
  };
  const plateOf = (figures: RuleExample["figures"]) =>
    Object.entries(figures)
      .map(([nutrient, value]) => `${exact(value)} ${t(`perUnit.${nutrient}`)}`)
      .join(", ");
  const addFood = () => {
    const food = foodTyped();
    if (!food || rule.freeFoods.includes(food.id)) return;
    onSave({ ...rule, freeFoods: [...rule.freeFoods, food.id] });
    setTyped("");
  };
  return (
    <details className="mt-3 border-t border-line pt-3">
      <summary className="font-title font-bold">
        {rule.name.trim() === "" ? t("rule") : `${t("rule")}: ${rule.name}`}
      </summary>
      <AsFor others={others} onTake={onSave} />
      <div className="mt-2 grid grid-cols-[1fr_8rem] items-center gap-x-3 gap-y-1 text-sm">
        <label htmlFor={`${id}-name`}>{t("ruleName")}</label>
        <input
          id={`${id}-name`}
          className="field w-full"
          value={rule.name}
          maxLength={60}
          onChange={(event) => onType({ ...rule, name: event.target.value })}
          onBlur={() => onSave(rule)}
        />
        {ruled.map((nutrient) => {
          const per = rule.perUnit[nutrient] ?? { every: "", takesOff: nutrient === "fibre" };
          const set = (change: Partial<typeof per>) => ({
            ...rule,
            perUnit: { ...rule.perUnit, [nutrient]: { ...per, ...change } },
          });
          const unit = t(`perUnit.${nutrient}`);
          return (
            <span key={nutrient} className="col-span-2 flex items-center gap-1.5">
              <select
                className="field px-1 text-sm"
                aria-label={t("countsOrOff", { unit })}
                value={per.takesOff ? "off" : "on"}
                onChange={(event) => onSave(set({ takesOff: event.target.value === "off" }))}
              >
                <option value="on">{t("counts")}</option>
                <option value="off">{t("takesOff")}</option>
              </select>
              <span className="whitespace-nowrap">{t("forEvery")}</span>
              <input
                inputMode="decimal"
                aria-label={t("everyUnit", { unit })}
                className="field w-14 px-1 text-right"
                value={per.every}
                onChange={(event) => onType(set({ every: event.target.value }))}
                onBlur={() => onSave(rule)}
              />
              <span className="leading-tight text-soft">{unit}</span>
            </span>
          );
        })}
        <label className="contents">
          <span>{t("step")}</span>
          <input
            inputMode="decimal"
            className="field w-full text-right"
            value={rule.step}
            onChange={(event) => onType({ ...rule, step: event.target.value })}
            onBlur={() => onSave(rule)}
          />
        </label>
      </div>
      {[
        "rule",
        "rule.name",
        "rule.perUnit",
        "rule.step",
        "rule.fixedValues",
        ...ruled.map((nutrient) => `rule.perUnit.${nutrient}`),
      ].map((field) => (
        <Sentence key={field}>{at(field)}</Sentence>
      ))}
      {example && (
        <p className="mt-2 text-sm">
          {t("ruleExample", { plate: plateOf(example.figures), points: exact(example.points) })}
        </p>
      )}
      <fieldset className="mt-3">
        <legend className="text-sm text-soft">{t("free")}</legend>
        <div className="mt-1 flex flex-wrap gap-1.5">
          {foodGroups.map((group) => (
            <button
              key={group}
              type="button"
              aria-pressed={rule.freeGroups.includes(group)}
              onClick={() => toggle(group)}
              className={`min-h-8 rounded-md border px-2 text-xs ${rule.freeGroups.includes(group) ? "border-sea bg-sea-soft font-bold" : "border-line"}`}
            >
              {t(`groups.${group}`)}
            </button>
          ))}
        </div>
        <div className="mt-2 flex flex-wrap items-center gap-1.5 text-xs">
          {rule.freeFoods.map((id) => (
            <button
              key={id}
              type="button"
              className="min-h-8 rounded-md border border-sea bg-sea-soft px-2 font-bold"
              aria-label={t("takeFood", { food: nameOf(id) })}
              onClick={() => onSave({ ...rule, freeFoods: rule.freeFoods.filter((other) => other !== id) })}
            >
              {nameOf(id)} ×
            </button>
          ))}
          <input
            list={`${id}-foods`}
            aria-label={t("freeFoods")}
            placeholder={t("freeFoodsHint")}
            className="field min-h-8 w-36 text-xs"
            value={typed}
            onChange={(event) => {
              setTyped(event.target.value);
              setUnknown(false);
            }}
          />
          <datalist id={`${id}-foods`}>
            {foods?.map(({ id, name }) => (
              <option key={id} value={name} />
            ))}
          </datalist>
          <button type="button" className="btn min-h-8" disabled={!foods} onClick={addFood}>
            {t("addFood")}
          </button>
          <button type="button" className="btn min-h-8" disabled={!foods} onClick={addCounted}>
            {t("addCounted")}
          </button>
          <button type="button" className="btn min-h-8" disabled={!foods} onClick={addFixed}>
            {t("addFixed")}
          </button>
        </div>
        {rule.countedFoods.length > 0 && (
          <p className="mt-2 flex flex-wrap items-center gap-1.5 text-xs">
            <span className="text-soft">{t("countedFoods")}</span>
            {rule.countedFoods.map((id) => (
              <button
                key={id}
                type="button"
                className="min-h-8 rounded-md border border-line px-2"
                aria-label={t("freeAgain", { food: nameOf(id) })}
                onClick={() =>
                  onSave({ ...rule, countedFoods: rule.countedFoods.filter((other) => other !== id) })
                }
              >
                {nameOf(id)} ×
              </button>
            ))}
          </p>
        )}
        <Sentence>{unknown ? t("noSuchFood", { typed: typed.trim() }) : undefined}</Sentence>
        {rule.fixedValues.map((value) => (
          <p key={value.foodId} className="mt-2 flex flex-wrap items-center gap-1.5 text-xs">
            <span className="min-w-24 flex-1">{nameOf(value.foodId)}</span>
            <input
              inputMode="decimal"
              aria-label={t("fixedPoints", { food: nameOf(value.foodId) })}
              className="field min-h-8 w-14 text-right"
              value={value.points}
              onChange={(event) => typeFixed(value.foodId, { points: event.target.value })}
              onBlur={() => value.points && value.grams && onSave(rule)}
            />
            {t("fixedFor")}
            <input
              inputMode="decimal"
              aria-label={t("fixedGrams", { food: nameOf(value.foodId) })}
              className="field min-h-8 w-16 text-right"
              value={value.grams}
              onChange={(event) => typeFixed(value.foodId, { grams: event.target.value })}
              onBlur={() => value.points && value.grams && onSave(rule)}
            />
            g
            <button
              type="button"
              className="min-h-8 px-2 underline"
              aria-label={t("dropFixed", { food: nameOf(value.foodId) })}
              onClick={() =>
                onSave({
                  ...rule,
                  fixedValues: rule.fixedValues.filter(({ foodId }) => foodId !== value.foodId),
                })
              }
            >
              ×
            </button>
          </p>
        ))}
      </fieldset>
      <button className="mt-2 min-h-6 text-xs text-soft underline" onClick={() => onSave(null)}>
        {t("dropRule")}
      </button>
    </details>
  );
}
