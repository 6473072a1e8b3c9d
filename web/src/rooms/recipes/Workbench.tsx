import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { ArrowLeft, Minus, Plus, Redo2, Undo2 } from "lucide-react";
import { useEffect, useEffectEvent } from "react";
import { useWords } from "../../app/i18n";
import { Link, useLocation, useNavigate, useParams, useSearchParams } from "react-router";
import {
  addRecipe,
  archiveRecipe,
  calcRecipe,
  calcScale,
  cookBatch,
  getRecipe,
  restoreRecipe,
  seen,
  sentenceFor,
  troubleOf,
  type CalcRecipeRequest,
  type RecipeView,
} from "../../api";
import { freshen } from "../../app/freshen";
import { useHistory } from "../../app/history";
import { EaterTabs, Header, useCurrentEater, useEaters } from "../../app/Header";
import { useLens } from "../../app/lens";
import { useSay } from "../../app/notices";
import { wholeIn } from "../../ui/numbers";
import { Amount } from "../../ui/Figures";
import { exact, grams, wholeNumber } from "../../ui/format";
import { Failed, Loading, Sentence } from "../../ui/states";
import { Mark } from "../../ui/Tape";
import { useSettled } from "../../ui/useSettled";
import { Costs } from "./Costs";
import { CutView } from "./CutView";
import { HistoryView } from "./HistoryView";
import { Lines } from "./Lines";
import { Notes } from "./Notes";
import { StepsView } from "./StepsView";
import { SwapView } from "./SwapView";
import { YieldAndScale } from "./YieldAndScale";
import { calcOf, linesOf, measuresUnder, newLine, newStep, requestOf } from "./sheet";
import { useRecipe } from "./useRecipe";
import { all, queryKeys } from "../../app/queryKeys";

const views = ["lines", "steps", "cut", "swap", "history"] as const;

export default function Workbench() {
  const { id } = useParams();
  const { data, error, refetch } = useQuery({
    queryKey: queryKeys.recipe(id),
    queryFn: async () => (await getRecipe({ path: { id: id! } })).data!,
    gcTime: 0,
    refetchOnWindowFocus: false,
  });
  if (error && !data) return <Failed isPage error={error} retry={() => void refetch()} />;
  return data ? <Bench key={data.id} recipe={data} /> : <Loading isPage />;
}

/** The fields that show their own sentence. */
const shownAtField = (field: string) =>
  ["portions", "pieces", "cookedGrams", "fills", "pan"].includes(field) || field.startsWith("steps[");

function Bench({ recipe }: { recipe: RecipeView }) {
  const { t } = useWords("recipes");
  const go = useNavigate();
  const say = useSay();
  const { did } = useHistory();
  const queries = useQueryClient();
  const lens = useLens();
  const bench = useRecipe(recipe);
  const { sheet, change, trouble } = bench;
  const eaters = useEaters();
  const current = useCurrentEater();
  const rule = eaters?.find(({ id }) => id === current)?.aim.rule ?? null;
  const written = sheet.lines.filter(({ text }) => text.trim() !== "");
  const portions = wholeIn(sheet.portions) ?? 0;
  const request = calcOf(sheet, rule, recipe.id);
  const asked = useSettled(JSON.stringify(request), 20);
  const justRead = (useLocation().state as { justRead?: boolean } | null)?.justRead === true;
  const [search, setSearch] = useSearchParams();
  const view = views.find((name) => name === search.get("view")) ?? "lines";
  const { data: calc } = useQuery({
    queryKey: queryKeys.calc(asked),
    queryFn: async () => (await calcRecipe({ body: JSON.parse(asked) as CalcRecipeRequest })).data!,
    placeholderData: keepPreviousData,
  });
  const cook = useMutation({
    mutationFn: async () => {
      await bench.flush();
      return (await cookBatch({ body: { recipeId: recipe.id } })).data!;
    },
    onSuccess: async (batch) => {
      await freshen(queries, "batch");
      void go(`/pack/${batch.id}`);
    },
    onError: (thrown) => say(troubleOf(thrown, t("app:silent")).detail ?? "", { trouble: true }),
  });

  // In a recipe, undo takes back what was written here, also while a line has the focus.
  const onKey = useEffectEvent((event: KeyboardEvent) => {
    if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== "z") return;
    event.preventDefault();
    event.stopPropagation();
    if (event.shiftKey) bench.redo();
    else bench.undo();
  });
  useEffect(() => {
    const listen = (event: KeyboardEvent) => onKey(event);
    window.addEventListener("keydown", listen, true);
    return () => window.removeEventListener("keydown", listen, true);
  }, []);

  const setPortions = (text: string) => change({ ...sheet, portions: text }, "portions");
  /** Of a put-together dish the box gets larger or smaller; any other is cut into more or fewer. */
  const cut = async (count: number, boxes: number) => {
    if (!sheet.isPutTogether) return setPortions(String(count));
    const by = { factor: boxes / count };
    const { data: scaled } = await calcScale({ body: { recipe: request, by } });
    const lines = written.map((line, i) => ({ ...line, text: scaled!.recipe.lines[i] ?? line.text }));
    change({ ...sheet, lines: [...lines, newLine()] }, "cut");
  };
  const remove = async () => {
    await bench.flush();
    const { data: gone } = await archiveRecipe({
      path: { id: recipe.id },
      headers: seen(bench.version()),
    });
    await freshen(queries, "recipe");
    did(t("removed", { name: sheet.name }), () =>
      restoreRecipe({ path: { id: recipe.id }, headers: seen(gone!.version) }),
    );
    void go("/recipes");
  };

  const makeVariant = async () => {
    await bench.flush();
    const { data: made } = await addRecipe({
      body: { ...requestOf(sheet), name: t("variantName", { name: sheet.name }), baseId: recipe.id },
    });
    await freshen(queries, "recipe");
    void go(`/recipes/${made!.id}`);
  };

  const stale = trouble?.status === 412;
  // Net carbs are not known for want of the same fibre figures, which are named already.
  const missing = calc
    ? Object.entries(calc.portion.missing).filter(
        ([measure]) => measure !== "netCarbohydrate" || !calc.portion.missing["fibre"],
      )
    : [];

  return (
    <>
      <Header
        undo={false}
        actions={
          <>
            <button className="btn" onClick={bench.undo} disabled={!bench.canUndo}>
              <Undo2 size={16} aria-hidden /> {t("app:undo")}
            </button>
            <button
              className="btn"
              onClick={bench.redo}
              disabled={!bench.canRedo}
              aria-label={t("app:redo")}
              title={t("app:redo")}
            >
              <Redo2 size={16} aria-hidden />
            </button>
            <button
              className="btn-next whitespace-nowrap"
              disabled={written.length === 0 || cook.isPending}
              title={written.length === 0 ? t("needLine") : undefined}
              onClick={() => cook.mutate()}
            >
              {cook.isPending ? t("cooking") : t(sheet.isPutTogether ? "putTogether" : "cook")}
            </button>
          </>
        }
      >
        <Link to="/recipes" aria-label={t("back")} title={t("back")} className="btn border-0 px-1">
          <ArrowLeft size={20} aria-hidden />
        </Link>
        <Mark letters={recipe.letters} tint={recipe.tint} className="h-8 w-10 text-sm" />
        <h1 className="sr-only">{sheet.name}</h1>
        <input
          aria-label={t("name")}
          className="min-w-40 flex-1 rounded-md border border-transparent bg-transparent px-1 font-title text-lg font-bold hover:border-line"
          value={sheet.name}
          maxLength={120}
          onChange={(event) => change({ ...sheet, name: event.target.value }, "name")}
        />
      </Header>
      <div className="flex min-h-0 flex-1 max-lg:flex-col max-lg:overflow-auto">
        <main className="min-w-0 flex-1 overflow-auto px-5 py-4 max-lg:overflow-visible">
          {stale && (
            <div role="alert" className="panel mb-4 border-brick p-3 text-sm">
              <p>{t("stale")}</p>
              <p className="mt-2 flex gap-2">
                <button className="btn" onClick={() => bench.settle(true)}>
                  {t("keepMine")}
                </button>
                <button className="btn" onClick={() => bench.settle(false)}>
                  {t("takeTheirs")}
                </button>
              </p>
            </div>
          )}
          {!stale && trouble && !trouble.errors?.some(({ field }) => shownAtField(field)) && (
            <Sentence>{trouble.detail}</Sentence>
          )}
          <div className="mb-3 flex flex-wrap items-baseline gap-x-4 gap-y-1 border-b border-line">
            <nav aria-label={t("views.label")} className="flex flex-wrap">
              {views.map((name) => (
                <button
                  key={name}
                  aria-current={view === name ? "page" : undefined}
                  className={`min-h-9 border-b-2 px-3 font-title max-md:min-h-11 ${view === name ? "border-sea font-bold" : "border-transparent text-soft"}`}
                  onClick={() => setSearch(name === "lines" ? {} : { view: name }, { replace: true })}
                >
                  {t(`views.${name}`)}
                </button>
              ))}
            </nav>
            <span aria-live="polite" className="ml-auto text-xs text-soft">
              {t(bench.state)}
            </span>
          </div>
          {view === "lines" && (
            <>
              {recipe.baseId && (
                <p className="mb-2 text-sm">
                  {t("variantOf")}{" "}
                  <Link className="link" to={`/recipes/${recipe.baseId}`}>
                    {recipe.baseName}
                  </Link>
                  <span className="text-soft"> · {t("variantNote")}</span>
                  {bench.saved.dropped.length > 0 && (
                    <span className="text-soft">
                      {" "}
                      · {t("variantDrops")} {bench.saved.dropped.join("; ")}
                    </span>
                  )}
                </p>
              )}
              <Lines
                lines={sheet.lines}
                calc={calc}
                lens={lens}
                onChange={(lines, field) => change({ ...sheet, lines }, field)}
                startsOpen={justRead}
                onWeighed={() => void queries.invalidateQueries(all("calc"))}
              />
              <YieldAndScale
                sheet={sheet}
                request={request}
                trouble={trouble}
                onChange={(next, field) => change(next, field)}
              />
            </>
          )}
          {view === "steps" && (
            <StepsView
              steps={sheet.steps}
              trouble={trouble}
              onChange={(steps, field) => change({ ...sheet, steps }, field)}
            />
          )}
          {(view === "lines" || view === "steps") && <Notes id={recipe.id} />}
          {view === "cut" && (
            <CutView request={request} lens={lens} onCut={(n, boxes) => void cut(n, boxes)} />
          )}
          {view === "swap" && (
            <SwapView
              request={request}
              lines={written}
              lens={lens}
              onTake={(lines) => change({ ...sheet, lines }, "swap")}
            />
          )}
          {view === "history" && (
            <HistoryView
              id={recipe.id}
              lens={lens}
              onTake={(version) => {
                change(
                  {
                    ...sheet,
                    ...linesOf(version),
                    name: version.name,
                    steps: (version.steps ?? []).map(newStep),
                  },
                  "version",
                );
                setSearch({}, { replace: true });
              }}
            />
          )}
          {view === "lines" && (
            <div className="mt-8 flex flex-wrap items-center gap-x-5 gap-y-2 text-xs text-soft">
              {bench.saved.variants.length > 0 && (
                <span>
                  {t("variants")}{" "}
                  {bench.saved.variants.map((variant) => (
                    <Link key={variant.id} className="link mr-2" to={`/recipes/${variant.id}`}>
                      {variant.name}
                    </Link>
                  ))}
                </span>
              )}
              {!recipe.baseId && (
                <button className="min-h-6 underline" onClick={() => void makeVariant()}>
                  {t("makeVariant")}
                </button>
              )}
              <a className="underline" href={`/api/recipes/${recipe.id}/recipe.jsonld`} download>
                {t("saveJsonLd")}
              </a>
              <a className="underline" href={`/api/recipes/${recipe.id}/recipe.md`} download>
                {t("saveMarkdown")}
              </a>
              <button className="min-h-6 underline" onClick={() => void remove()}>
                {t("remove")}
              </button>
            </div>
          )}
        </main>
        <aside className="w-[320px] shrink-0 overflow-auto border-l border-rim bg-bench p-4 max-lg:w-full max-lg:border-t max-lg:border-l-0">
          <EaterTabs />
          <h2 className="mt-3 flex items-center gap-2 text-base">
            {t(sheet.isPutTogether ? "oneBox" : "onePortion")}
            {!sheet.isPutTogether && (
              <>
                <button
                  className="btn px-2"
                  aria-label={t("fewer")}
                  onClick={() => setPortions(String(Math.max(1, portions - 1)))}
                >
                  <Minus size={14} aria-hidden />
                </button>
                <input
                  aria-label={t("portionsLabel")}
                  inputMode="numeric"
                  className="field w-14 text-center font-title text-lg font-bold"
                  value={sheet.portions}
                  onChange={(event) => setPortions(event.target.value)}
                />
                <button
                  className="btn px-2"
                  aria-label={t("more")}
                  onClick={() => setPortions(String(portions + 1))}
                >
                  <Plus size={14} aria-hidden />
                </button>
              </>
            )}
          </h2>
          {((portions === 0 && !sheet.isPutTogether) || sentenceFor(trouble, "portions")) && (
            <Sentence>{sentenceFor(trouble, "portions") ?? t("app:numberWhole")}</Sentence>
          )}
          {calc && (
            <>
              <dl className="counted mt-3 grid grid-cols-2 gap-x-4 gap-y-3">
                {measuresUnder(rule).map((measure) => (
                  <div key={measure} className={measure === lens ? "order-first" : ""}>
                    <dt className="text-xs text-soft">
                      {measure === "energy" ? t("app:energy") : t(`app:measures.${measure}`)}
                    </dt>
                    <dd
                      className={`font-title font-bold ${measure === lens ? "text-[2.25rem] leading-none" : "text-xl"}`}
                    >
                      <Amount measure={measure} figure={calc.portion.figures[measure]} />
                    </dd>
                  </div>
                ))}
              </dl>
              <p className="mt-3 text-sm text-soft">
                {calc.portionVolume && `${calc.portionVolume}, `}
                {grams(Math.round(calc.portionGrams))} {t(calc.isCookedWeight ? "cookedWeight" : "raw")}
                {calc.density.kcalPer100g !== null && (
                  <span className="counted">
                    <br />
                    {t("density", {
                      kcal: wholeNumber(calc.density.kcalPer100g),
                      grams: wholeNumber(calc.density.gramsPer100Kcal ?? 0),
                    })}
                  </span>
                )}
                {calc.exactPoints && (
                  <span className="counted">
                    <br />
                    {t(calc.rule ? "exactPointsBy" : "exactPoints", {
                      exact: exact(calc.exactPoints.value),
                      rule: calc.rule,
                    })}
                  </span>
                )}
              </p>
              {calc.incompleteProtein > 0.05 && (
                <p className="counted mt-1 text-xs text-soft">
                  {t("incomplete", { grams: grams(calc.incompleteProtein) })}
                </p>
              )}
              {calc.allergens.length > 0 && (
                <p className="mt-1 text-xs">
                  <b>
                    {t("foods:contains")}{" "}
                    {calc.allergens.map((name) => t(`foods:allergens.${name}`)).join(", ")}
                  </b>
                </p>
              )}
              {calc.remarks.map(({ code, sentence }) => (
                <Sentence key={code}>{sentence}</Sentence>
              ))}
              {calc.notUnderstood.length > 0 && (
                <Sentence>{t("unread", { count: calc.notUnderstood.length })}</Sentence>
              )}
              {missing.map(([measure, foods]) =>
                foods.length > 0 ? (
                  <p key={measure} className="counted mt-1 text-xs text-soft">
                    ≥ {t("missing", { measure: t(`app:measures.${measure}`), foods: foods.join(", ") })}
                  </p>
                ) : null,
              )}
              <div className="counted">
                <Costs calc={calc} lens={lens} />
              </div>
              {!sheet.isPutTogether && (
                <>
                  <h2 className="mt-5 border-t border-rim pt-3 text-base">{t("batch")}</h2>
                  <p className="text-sm">
                    {grams(Math.round(calc.batch.grams))}{" "}
                    <span className="text-xs text-soft">{t("raw")}</span>
                    <span className="counted">
                      <br />
                      <Amount measure="energy" figure={calc.batch.figures["energy"]} /> ·{" "}
                      <Amount measure="protein" figure={calc.batch.figures["protein"]} />{" "}
                      <span className="text-xs text-soft">{t("app:measures.protein")}</span>
                    </span>
                  </p>
                </>
              )}
            </>
          )}
        </aside>
      </div>
    </>
  );
}
