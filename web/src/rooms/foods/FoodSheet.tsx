import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useWords } from "../../app/i18n";
import { Link, useNavigate } from "react-router";
import { archiveFood, getFood, restoreFood, seen, type FoodView } from "../../api";
import { useHistory } from "../../app/history";
import { Drawer } from "../../ui/Drawer";
import { exact, grams, wholeNumber } from "../../ui/format";
import { Failed, Loading, Sentence } from "../../ui/states";
import { WeighOnce } from "../../ui/WeighOnce";
import { LabelForm, startOf } from "./LabelForm";
import { queryKeys } from "../../app/queryKeys";

const rows = ["protein", "fat", "saturatedFat", "sugars", "fibre", "polyols", "alcohol", "salt"] as const;

/** Everything known of one food. */
export function FoodSheet({ id }: { id: string }) {
  const { data, error, refetch } = useQuery({
    queryKey: queryKeys.food(id),
    queryFn: async () => (await getFood({ path: { id } })).data!,
    retry: false,
  });
  if (error && !data) return <Failed error={error} retry={() => void refetch()} />;
  return data ? <Sheet food={data} /> : <Loading />;
}

function Sheet({ food }: { food: FoodView }) {
  const { t } = useWords("foods");
  const go = useNavigate();
  const queries = useQueryClient();
  const { did } = useHistory();
  const [isChanging, setChanging] = useState(false);
  const { per100g } = food;
  const remove = async () => {
    const { data: gone } = await archiveFood({ path: { id: food.id }, headers: seen(food.version) });
    await queries.invalidateQueries();
    did(t("removed", { name: food.name }), () =>
      restoreFood({ path: { id: food.id }, headers: seen(gone!.version) }),
    );
    // What was typed meanwhile stays.
    void go({ pathname: "/foods", search: window.location.search });
  };
  const figure = (value: number | null | undefined, unit = "g") =>
    value == null ? (
      <span className="text-soft">{t("unknown")}</span>
    ) : (
      <>
        {exact(value)} <span className="text-xs text-soft">{unit}</span>
      </>
    );
  return (
    <>
      <h2 className="text-lg leading-tight">{food.name}</h2>
      <p className="text-sm text-soft">
        {t(`aim:groups.${food.group}`)} · {t(`kept.${food.storage}`)}
        {food.keeping === "rice" && ` · ${t("keepsAsRice")}`}
        {food.gtin && ` · ${t("gtin")} ${food.gtin.replace(/^0+/, "")}`}
      </p>
      <p className="counted mt-3 font-title text-[2.25rem] leading-none font-bold">
        {per100g.energy == null ? t("notAtHome") : wholeNumber(per100g.energy)}{" "}
        <span className="text-base font-normal text-soft">kcal {t("per100")}</span>
      </p>
      {food.doubts.map(({ code, sentence }) => (
        <Sentence key={code}>{sentence}</Sentence>
      ))}
      <p className="counted mt-1 text-xs text-soft">
        {t("byFactors", { kcal: wholeNumber(food.kcalByFactors) })} ({t("factorsSource")})
      </p>
      <dl className="counted mt-3 grid grid-cols-[1fr_auto] gap-x-4 text-sm [&>*]:border-b [&>*]:border-line [&>*]:py-0.5 [&>dd]:text-right">
        {rows.slice(0, 1).map((name) => (
          <Row key={name} name={t(`label.${name}` as "label.protein")}>
            {figure(per100g[name])}
          </Row>
        ))}
        <Row name={t("carbTotal")}>{figure(food.totalCarbohydrate)}</Row>
        {food.convention === "withoutFibre" && (
          <Row name={t("carbStated")}>{figure(per100g.carbohydrate)}</Row>
        )}
        <Row name={t("app:measures.netCarbohydrate")}>{figure(food.netCarbohydrate)}</Row>
        {rows.slice(1).map((name) =>
          (name === "polyols" || name === "alcohol") && !per100g[name] ? null : (
            <Row key={name} name={name === "salt" ? t("label.saltGrams") : t(`label.${name}`)}>
              {figure(per100g[name])}
            </Row>
          ),
        )}
      </dl>
      {food.incompleteProtein && <p className="mt-2 text-sm">{t("incomplete")}</p>}
      <h3 className="mt-4 text-base">{t("measures")}</h3>
      {food.measures.length === 0 && <p className="text-sm text-soft">{t("noMeasures")}</p>}
      <ul className="text-sm">
        {food.measures.map((measure) => (
          <li key={measure.name} className="flex justify-between gap-3" title={measure.source}>
            <span>
              {t("one", { measure: measure.name })}{" "}
              {measure.source !== food.source && <span className="text-xs text-soft">{measure.source}</span>}
            </span>
            <span>
              {grams(measure.grams)} <span className="text-xs text-soft">g</span>
            </span>
          </li>
        ))}
      </ul>
      <WeighOnce foodId={food.id} food={food.name} />
      {food.otherForms.length > 0 && (
        <>
          <h3 className="mt-4 text-base">{t("forms")}</h3>
          {food.otherForms.map((form) => (
            <p key={form.id} className="text-sm" title={form.source}>
              {t(form.isRaw ? "fromRaw" : "toCooked", { factor: exact(form.yieldFactor) })}{" "}
              <Link className="link" to={`/foods/${encodeURIComponent(form.id)}`} replace>
                {form.name}
              </Link>
            </p>
          ))}
        </>
      )}
      <div className="mt-4 space-y-1 text-sm">
        {food.refuse > 0 && <p>{t("refuse", { percent: wholeNumber(food.refuse * 100) })}</p>}
        {food.drainedShare != null && (
          <p>{t("drained", { percent: wholeNumber(food.drainedShare * 100) })}</p>
        )}
        {food.packageGrams.length > 0 && (
          <p>
            {t("packages")} {food.packageGrams.map((size) => `${grams(size)} g`).join(", ")}
          </p>
        )}
        {food.allergens.length > 0 && (
          <p>
            <b>
              {t("contains")} {food.allergens.map((name) => t(`allergens.${name}`)).join(", ")}.
            </b>{" "}
            <span className="text-soft">{t("allergenNote")}</span>
          </p>
        )}
        <p className="text-xs text-soft">
          {t("source")}: {food.source}
        </p>
      </div>
      {food.own && (
        <p className="mt-4 flex gap-2">
          <button className="btn" onClick={() => setChanging(true)}>
            {t("change")}
          </button>
          <button className="min-h-9 px-2 text-xs text-soft underline" onClick={() => void remove()}>
            {t("remove")}
          </button>
        </p>
      )}
      <Drawer
        open={isChanging}
        close={() => setChanging(false)}
        title={t("label.change", { name: food.name })}
      >
        <LabelForm start={startOf(food)} food={food} onSaved={() => setChanging(false)} />
      </Drawer>
    </>
  );
}

function Row({ name, children }: { name: string; children: React.ReactNode }) {
  return (
    <>
      <dt>{name}</dt>
      <dd>{children}</dd>
    </>
  );
}
