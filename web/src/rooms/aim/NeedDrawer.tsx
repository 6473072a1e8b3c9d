import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useWords } from "../../app/i18n";
import { calcNeed, sentenceFor, troubleOf, type ActivityView, type Body, type NeedAnswer } from "../../api";
import { Drawer } from "../../ui/Drawer";
import { wholeNumber } from "../../ui/format";
import { numberIn } from "../../ui/numbers";
import { Sentence } from "../../ui/states";
import { useSettled } from "../../ui/useSettled";
import { queryKeys } from "../../app/queryKeys";

interface NeedProps {
  name: string;
  body: Body | null;
  activities: ActivityView[];
  open: boolean;
  close: () => void;
  /** Takes the target and the split over into the aim, and keeps the body. */
  onTake: (need: NeedAnswer, body: Body) => void;
}

/** What a body needs, by three published equations side by side, and the target a rate makes of it. */
export function NeedDrawer({ name, body, activities, open, close, onTake }: NeedProps) {
  const { t } = useWords("aim");
  const [typed, setTyped] = useState({
    sex: body?.sex ?? "female",
    age: String(body?.age ?? ""),
    weight: String(body?.weightKg ?? ""),
    height: String(body?.heightCm ?? ""),
    fat: body?.bodyFatShare ? String(body.bodyFatShare * 100) : "",
    pregnant: body?.isPregnantOrBreastfeeding ?? false,
    activity: String(activities[1]?.factor ?? 1.55),
    rate: "0.5",
    protein: "1.2",
    fatShare: "30",
  });
  const settled = useSettled(typed, 250);
  const read = (value: string) => numberIn(value) ?? Number.NaN;
  const asked: Body = {
    sex: settled.sex,
    age: read(settled.age),
    weightKg: read(settled.weight),
    heightCm: read(settled.height),
    bodyFatShare: settled.fat.trim() === "" ? null : read(settled.fat) / 100,
    isPregnantOrBreastfeeding: settled.pregnant,
  };
  const rest = {
    activity: read(settled.activity),
    rateKgPerWeek: read(settled.rate),
    proteinPerKg: read(settled.protein),
    fatShare: read(settled.fatShare) / 100,
  };
  const isWhole = [
    asked.age,
    asked.weightKg,
    asked.heightCm,
    asked.bodyFatShare ?? 0,
    ...Object.values(rest),
  ].every(Number.isFinite);
  const { data: need, error } = useQuery({
    queryKey: queryKeys.need(asked, rest),
    queryFn: async () => (await calcNeed({ body: { body: asked, ...rest } })).data!,
    enabled: open && isWhole,
    retry: false,
    placeholderData: (before) => before,
  });
  const trouble = error ? troubleOf(error, t("app:silent")) : null;
  const field = (
    key: "age" | "weight" | "height" | "fat" | "rate" | "protein" | "fatShare",
    at: string,
    unit: string,
  ) => (
    <label className="contents">
      <span>{t(`need.${key}`)}</span>
      <input
        inputMode="decimal"
        className="field w-full text-right"
        value={typed[key]}
        aria-invalid={sentenceFor(trouble, at) !== undefined}
        onChange={(event) => setTyped({ ...typed, [key]: event.target.value })}
      />
      <span className="text-xs text-soft">{unit}</span>
    </label>
  );
  return (
    <Drawer open={open} close={close} title={t("need.title", { name })}>
      <p className="mb-3 text-sm text-soft">{t("need.lead")}</p>
      <div className="grid grid-cols-[1fr_7rem_4.5rem] items-center gap-x-2 gap-y-1 text-sm">
        <label className="contents">
          <span>{t("need.sex")}</span>
          <select
            className="field w-full"
            value={typed.sex}
            onChange={(event) => setTyped({ ...typed, sex: event.target.value as Body["sex"] })}
          >
            <option value="female">{t("need.female")}</option>
            <option value="male">{t("need.male")}</option>
          </select>
          <span />
        </label>
        {field("age", "body.age", t("need.years"))}
        {field("weight", "body.weightKg", "kg")}
        {field("height", "body.heightCm", "cm")}
        {field("fat", "body.bodyFatShare", "%")}
        <label className="contents">
          <span>{t("need.activity")}</span>
          <select
            className="field col-span-2 w-full"
            value={typed.activity}
            onChange={(event) => setTyped({ ...typed, activity: event.target.value })}
          >
            {activities.map((level) => (
              <option key={level.factor} value={String(level.factor)}>
                {level.name} (× {level.factor})
              </option>
            ))}
          </select>
        </label>
        {field("rate", "rateKgPerWeek", t("need.perWeek"))}
        {field("protein", "proteinPerKg", t("need.perKg"))}
        {field("fatShare", "fatShare", t("need.ofEnergy"))}
      </div>
      <label className="mt-2 flex items-center gap-2 text-sm">
        <input
          type="checkbox"
          className="size-5"
          checked={typed.pregnant}
          onChange={(event) => setTyped({ ...typed, pregnant: event.target.checked })}
        />
        {t("need.pregnant")}
      </label>
      {trouble?.errors?.map((problem) => (
        <Sentence key={problem.code}>{problem.sentence}</Sentence>
      ))}
      {need && isWhole && !trouble && (
        <>
          <p className="mt-5">
            <span className="font-title text-2xl font-bold">{wholeNumber(need.target)}</span>{" "}
            <span className="text-sm text-soft">{t("need.kcalADay")}</span>
          </p>
          <p className="text-sm">
            {t("need.split", {
              protein: wholeNumber(need.split.protein),
              fat: wholeNumber(need.split.fat),
              carbohydrate: wholeNumber(need.split.carbohydrate),
            })}
          </p>
          <button className="btn-next mt-3" onClick={() => onTake(need, asked)}>
            {t("need.take", { target: wholeNumber(need.target) })}
          </button>
          <table className="mt-5 w-full text-sm">
            <thead>
              <tr className="text-right text-xs text-soft">
                <th scope="col" className="text-left font-normal">
                  {t("need.by")}
                </th>
                <th scope="col" className="font-normal">
                  {t("need.resting")}
                </th>
                <th scope="col" className="font-normal">
                  {t("need.needs")}
                </th>
                <th scope="col" className="font-normal">
                  {t("need.target")}
                </th>
              </tr>
            </thead>
            <tbody>
              {need.estimates.map((estimate) => (
                <tr key={estimate.name} className="border-t border-line align-top">
                  <th scope="row" className="py-1 pr-2 text-left font-normal">
                    {estimate.name}
                    <details className="text-xs text-soft">
                      <summary>{t("need.formula")}</summary>
                      {estimate.formula} kcal
                      <br />
                      {estimate.source}
                    </details>
                  </th>
                  {[estimate.resting, estimate.need, estimate.target].map((value, i) => (
                    <td key={i} className="py-1 pl-2 text-right tabular-nums">
                      {value === null ? <span className="text-soft">–</span> : wholeNumber(value)}
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
          {need.estimates.some(({ resting }) => resting === null) && (
            <p className="mt-1 text-xs text-soft">{t("need.fatMissing")}</p>
          )}
          <ul className="mt-4 space-y-2 text-sm">
            {need.cautions.map((caution) => (
              <li key={caution.code} className="border-l-2 border-brick pl-3">
                {caution.sentence} <span className="block text-xs text-soft">{caution.source}</span>
              </li>
            ))}
          </ul>
        </>
      )}
      {!isWhole && <p className="mt-4 text-sm text-soft">{t("need.waiting")}</p>}
    </Drawer>
  );
}
