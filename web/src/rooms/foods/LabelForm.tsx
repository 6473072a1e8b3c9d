import { keepPreviousData, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useWords } from "../../app/i18n";
import {
  addFood,
  calcLabel,
  changeFood,
  seen,
  sentenceFor,
  troubleOf,
  type FoodView,
  type Label,
  type OwnFoodRequest,
  type Trouble,
} from "../../api";
import { useSay } from "../../app/notices";
import { useQuiet } from "../../app/quiet";
import { allergens, foodGroups, grams, wholeNumber } from "../../ui/format";
import { numberIn } from "../../ui/numbers";
import { Sentence } from "../../ui/states";
import { TypedFigures } from "../../ui/TypedFigures";
import { useSettled } from "../../ui/useSettled";
import { queryKeys } from "../../app/queryKeys";

const figures = [
  "kilocalories",
  "kilojoules",
  "fat",
  "saturatedFat",
  "carbohydrate",
  "sugars",
  "fibre",
  "polyols",
  "protein",
  "saltGrams",
  "sodiumMilligrams",
  "alcohol",
  "points",
] as const;
const printed = [
  "energy",
  "fat",
  "saturatedFat",
  "salt",
  "carbohydrate",
  "fibre",
  "sugars",
  "protein",
] as const;
const unitOf = (figure: (typeof figures)[number]) =>
  figure === "kilocalories"
    ? "kcal"
    : figure === "kilojoules"
      ? "kJ"
      : figure === "sodiumMilligrams"
        ? "mg"
        : figure === "points"
          ? "pt"
          : "g";

/** A label as typed: every number is text until it is sent, so that nothing typed is lost. */
interface Typed extends Omit<OwnFoodRequest, "label" | "packageGrams"> {
  basis: Label["basis"];
  convention: Label["convention"];
  serving: string;
  pieces: string;
  packageGrams: string;
  numbers: Partial<Record<(typeof figures)[number], string>>;
}

const text = (value: number | null | undefined) => (value == null ? "" : String(value));

const typedOf = (start: OwnFoodRequest | null): Typed => ({
  name: start?.name ?? "",
  group: start?.group ?? "seasonings",
  keeping: start?.keeping ?? null,
  gtin: start?.gtin ?? "",
  allergens: start?.allergens ?? [],
  basis: start?.label.basis ?? "per100g",
  convention: start?.label.convention ?? "withoutFibre",
  serving: text(start?.label.servingGrams),
  pieces: text(start?.label.servingPieces),
  packageGrams: text(start?.packageGrams),
  numbers: Object.fromEntries(figures.map((figure) => [figure, text(start?.label[figure])])),
});

const measureOf = (food: FoodView, name: string) =>
  food.measures.find((own) => own.name === name && own.source === "its label")?.grams ?? null;
const servingOf = (food: FoodView) => measureOf(food, "serving");
const piecesOf = (food: FoodView) => {
  const [serving, piece] = [servingOf(food), measureOf(food, "piece")];
  return serving && piece ? Math.round((serving / piece) * 100) / 100 : null;
};

/** The label an own food was written down from, per 100 g. */
export const startOf = (food: FoodView): OwnFoodRequest => ({
  name: food.name,
  group: food.group,
  keeping: food.keeping,
  gtin: food.gtin,
  allergens: food.allergens,
  packageGrams: food.packageGrams[0] ?? null,
  label: {
    basis: "per100g",
    convention: food.convention,
    servingGrams: servingOf(food),
    servingPieces: piecesOf(food),
    points: food.pointsPer100g,
    kilocalories: food.per100g.energy,
    protein: food.per100g.protein,
    fat: food.per100g.fat,
    saturatedFat: food.per100g.saturatedFat,
    carbohydrate: food.per100g.carbohydrate,
    sugars: food.per100g.sugars,
    fibre: food.per100g.fibre,
    polyols: food.per100g.polyols,
    alcohol: food.per100g.alcohol,
    saltGrams: food.per100g.salt,
  },
});

interface LabelFormProps {
  start: OwnFoodRequest | null;
  /** The food to change; without one a new food is written down. */
  food?: FoodView;
  onSaved: (food: FoodView) => void;
}

/** A food written down from its label, checked against itself as it is typed. */
export function LabelForm({ start, food, onSaved }: LabelFormProps) {
  const { t } = useWords("foods");
  const queries = useQueryClient();
  const say = useSay();
  const [typed, setTyped] = useState(() => typedOf(start));
  const [trouble, setTrouble] = useState<Trouble | null>(null);
  const quiet = useQuiet();
  const unread: string[] = [];
  const number = (field: string, value: string | undefined) => {
    const read = numberIn(value ?? "");
    if (read === null || Number.isFinite(read)) return read;
    unread.push(field);
    return null;
  };
  const label: Label = {
    basis: typed.basis,
    convention: typed.convention,
    servingGrams: number("label.servingGrams", typed.serving),
    servingPieces: number("label.servingPieces", typed.pieces),
    ...Object.fromEntries(
      figures.map((figure) => [figure, number(`label.${figure}`, typed.numbers[figure])]),
    ),
    isUnread: quiet && figures.every((figure) => !typed.numbers[figure]?.trim()),
  };
  const packageGrams = number("packageGrams", typed.packageGrams);
  const asked = useSettled(JSON.stringify(label), 200);
  const { data: check } = useQuery({
    queryKey: queryKeys.label(asked),
    queryFn: async () => (await calcLabel({ body: JSON.parse(asked) as Label })).data!,
    enabled: label.kilocalories != null || label.kilojoules != null,
    retry: false,
    placeholderData: keepPreviousData,
  });
  const at = (field: string) =>
    unread.includes(field) ? t("app:numberNeeded") : sentenceFor(trouble, field);
  const known = [
    "name",
    "gtin",
    "packageGrams",
    "label.servingGrams",
    "label.servingPieces",
    ...figures.map((f) => `label.${f}`),
  ];

  const save = async () => {
    if (unread.length > 0) return;
    const body: OwnFoodRequest = {
      name: typed.name,
      group: typed.group,
      keeping: typed.group === "grains" ? typed.keeping : null,
      label,
      packageGrams,
      allergens: typed.allergens,
      gtin: typed.gtin || null,
    };
    try {
      const { data } = food
        ? await changeFood({ path: { id: food.id }, headers: seen(food.version), body })
        : await addFood({ body });
      await queries.invalidateQueries();
      say(t("label.saved", { name: data!.name }));
      onSaved(data!);
    } catch (thrown) {
      setTrouble(troubleOf(thrown, t("app:silent")));
    }
  };
  const change = (next: Partial<Typed>) => {
    setTyped({ ...typed, ...next });
    setTrouble(null);
  };
  const row = "grid grid-cols-[1fr_10.5rem] items-center gap-x-3 gap-y-1 text-sm";

  const reading = check && (
    <div aria-live="polite" className="panel p-3 text-sm">
      <p>
        {t("label.reads", {
          kcal: wholeNumber(check.per100g.energy ?? 0),
          factors: wholeNumber(check.kcalByFactors),
        })}
      </p>
      {typed.convention === "total" && (
        <p className="mt-1 text-xs text-soft" title={t("label.printedSource")}>
          {t("label.printed", {
            grams: grams(label.servingGrams ?? 100),
            figures: printed
              .filter((nutrient) => check.printed[nutrient])
              .map(
                (nutrient) =>
                  `${nutrient === "salt" ? t("sodium") : nutrient === "energy" ? t("energy") : t(`app:measures.${nutrient}`)} ${check.printed[nutrient]}`,
              )
              .join(", "),
          })}
        </p>
      )}
      {check.doubts.length > 0 && (
        <>
          {check.doubts.map(({ code, sentence }) => (
            <Sentence key={code}>{sentence}</Sentence>
          ))}
          <p className="mt-1 text-xs text-soft">{t("label.doubt")}</p>
        </>
      )}
    </div>
  );

  return (
    <form
      className="space-y-3"
      onSubmit={(event) => {
        event.preventDefault();
        void save();
      }}
    >
      <label className="block text-sm">
        {t("label.name")}
        <input
          className="field mt-1 w-full"
          value={typed.name}
          maxLength={120}
          onChange={(event) => change({ name: event.target.value })}
        />
      </label>
      <Sentence>{at("name")}</Sentence>
      <div className={row}>
        <label htmlFor="label-group">{t("kind")}</label>
        <select
          id="label-group"
          className="field"
          value={typed.group}
          onChange={(event) => change({ group: event.target.value as Typed["group"] })}
        >
          {foodGroups.map((name) => (
            <option key={name} value={name}>
              {t(`aim:groups.${name}`)}
            </option>
          ))}
        </select>
        {typed.group === "grains" && (
          <>
            <label htmlFor="label-keeping">{t("label.keeping")}</label>
            <select
              id="label-keeping"
              className="field"
              value={typed.keeping ?? ""}
              onChange={(event) => change({ keeping: (event.target.value || null) as Typed["keeping"] })}
            >
              <option value="">{t("label.keepingByName")}</option>
              <option value="rice">{t("label.keepingRice")}</option>
              <option value="ordinary">{t("label.keepingOrdinary")}</option>
            </select>
          </>
        )}
        <label htmlFor="label-serving">{t("label.serving")}</label>
        <span className="flex items-center gap-1">
          <input
            id="label-serving"
            inputMode="decimal"
            className="field w-full text-right"
            value={typed.serving}
            onChange={(event) => change({ serving: event.target.value })}
          />
          g
        </span>
        <label htmlFor="label-pieces">{t("label.pieces")}</label>
        <input
          id="label-pieces"
          inputMode="decimal"
          className="field w-full text-right"
          placeholder={t("label.piecesHint")}
          value={typed.pieces}
          onChange={(event) => change({ pieces: event.target.value })}
        />
      </div>
      <Sentence>{at("label.servingGrams")}</Sentence>
      <Sentence>{at("label.servingPieces")}</Sentence>
      <TypedFigures>
        <p className="text-xs text-soft">{t("label.empty")}</p>
        <div className={row}>
          <label htmlFor="label-basis">{t("label.basis")}</label>
          <select
            id="label-basis"
            className="field"
            value={typed.basis}
            onChange={(event) => change({ basis: event.target.value as Typed["basis"] })}
          >
            <option value="per100g">{t("label.per100g")}</option>
            <option value="perServing">{t("label.perServing")}</option>
          </select>
          <label htmlFor="label-convention">{t("label.convention")}</label>
          <select
            id="label-convention"
            className="field"
            value={typed.convention}
            onChange={(event) => change({ convention: event.target.value as Typed["convention"] })}
          >
            <option value="withoutFibre">{t("label.withoutFibre")}</option>
            <option value="total">{t("label.total")}</option>
          </select>
          {figures.map((figure) => (
            <div key={figure} className="contents">
              <label
                htmlFor={`label-${figure}`}
                className={figure === "saturatedFat" || figure === "sugars" ? "pl-4" : ""}
              >
                {t(`label.${figure}`)}
              </label>
              <span className="grid grid-cols-[1fr_2rem] items-center gap-1">
                <input
                  id={`label-${figure}`}
                  inputMode="decimal"
                  className="field w-full text-right"
                  value={typed.numbers[figure] ?? ""}
                  onChange={(event) =>
                    change({ numbers: { ...typed.numbers, [figure]: event.target.value } })
                  }
                />
                <span className="text-xs text-soft">{unitOf(figure)}</span>
              </span>
              {at(`label.${figure}`) && (
                <div className="col-span-2">
                  <Sentence>{at(`label.${figure}`)}</Sentence>
                </div>
              )}
            </div>
          ))}
        </div>
        {quiet && reading}
      </TypedFigures>
      <div className={row}>
        <label htmlFor="label-package">{t("label.package")}</label>
        <span className="flex items-center gap-1">
          <input
            id="label-package"
            inputMode="decimal"
            className="field w-full text-right"
            value={typed.packageGrams}
            onChange={(event) => change({ packageGrams: event.target.value })}
          />
          g
        </span>
        <label htmlFor="label-gtin">{t("label.gtin")}</label>
        <input
          id="label-gtin"
          inputMode="numeric"
          className="field"
          value={typed.gtin ?? ""}
          maxLength={30}
          onChange={(event) => change({ gtin: event.target.value })}
        />
      </div>
      <Sentence>{at("packageGrams")}</Sentence>
      <Sentence>{at("gtin")}</Sentence>
      <fieldset>
        <legend className="text-sm">{t("label.allergens")}</legend>
        <div className="mt-1 flex flex-wrap gap-1.5">
          {allergens.map((name) => {
            const has = typed.allergens?.includes(name) ?? false;
            return (
              <button
                key={name}
                type="button"
                aria-pressed={has}
                className={`min-h-8 rounded-md border px-2 text-xs ${has ? "border-sea bg-sea-soft font-bold" : "border-line"}`}
                onClick={() =>
                  change({
                    allergens: has
                      ? typed.allergens!.filter((other) => other !== name)
                      : [...(typed.allergens ?? []), name],
                  })
                }
              >
                {t(`allergens.${name}`)}
              </button>
            );
          })}
        </div>
      </fieldset>
      {trouble && !trouble.errors?.some(({ field }) => known.includes(field)) && (
        <Sentence>{trouble.detail}</Sentence>
      )}
      {/* Below the fields: none of them moves while a label is typed. */}
      {!quiet && reading}
      <button className="btn-next w-full">{t("label.save")}</button>
    </form>
  );
}
