import { useQuery, useQueryClient } from "@tanstack/react-query";
import { ArrowLeft, X } from "lucide-react";
import { useState } from "react";
import { Link } from "react-router";
import {
  getEye,
  listBatches,
  removeEyeTry,
  sentenceFor,
  troubleOf,
  tryEye,
  type EyeTryRequest,
  type EyeTryView,
  type EyeView,
  type FoodGroup,
  type Trouble,
} from "../../../api";
import { EaterTabs, Header, useCurrentEater } from "../../../app/Header";
import { addWords, useWords } from "../../../app/i18n";
import { useSay } from "../../../app/notices";
import { all, queryKeys } from "../../../app/queryKeys";
import { ScaleStrip } from "../../../devices/ScaleStrip";
import { useDevices } from "../../../devices/useDevices";
import { FoodEntry } from "../../../ui/FoodEntry";
import { grams, shortDay, wholeNumber } from "../../../ui/format";
import { sentNumber, weightIn } from "../../../ui/numbers";
import { Failed, lacking, Loading, Sentence } from "../../../ui/states";
import { aim } from "../../aim/words";
import { eye } from "./words";

addWords("eye", eye);
addWords("aim", aim);

/** Guess, then put it on the scale: how well the cook's eye weighs, and where weighing pays. */
export default function EyePage() {
  const cook = useCurrentEater();
  const known = useQuery({
    queryKey: queryKeys.eye(cook),
    queryFn: async () => (await getEye({ query: { cookId: cook ?? undefined } })).data!,
  });
  const batches = useQuery({
    queryKey: queryKeys.batches(),
    queryFn: async () => (await listBatches()).data!,
  });
  const devices = useDevices();
  const failed = lacking(known, batches);
  if (failed) return <Failed isPage {...failed} />;
  if (!known.data || !batches.data || devices.isPending) return <Loading isPage />;
  const dishes = batches.data.filter(({ state }) => state === "cooked" || state === "packed").slice(0, 20);
  return <Eye key={cook} cook={cook} known={known.data} dishes={dishes} />;
}

/** What was guessed, before it is on the scale: then it stands. */
type Guess = Pick<EyeTryRequest, "text" | "foodId" | "batchId" | "guessGrams"> & { what: string };

function Eye({
  cook,
  known,
  dishes,
}: {
  cook: string | null;
  known: EyeView;
  dishes: { id: string; name: string }[];
}) {
  const { t } = useWords("eye");
  const say = useSay();
  const queries = useQueryClient();
  const [guess, setGuess] = useState<Guess | null>(null);
  const [dish, setDish] = useState("");
  const [dishGuess, setDishGuess] = useState("");
  const [real, setReal] = useState("");
  const [result, setResult] = useState<EyeTryView | null>(null);
  const [trouble, setTrouble] = useState<Trouble | null>(null);
  const [busy, setBusy] = useState(false);
  const again = () => {
    setGuess(null);
    setReal("");
    setTrouble(null);
  };
  const weigh = async () => {
    setBusy(true);
    try {
      const { text, foodId, batchId, guessGrams } = guess!;
      const body = {
        text,
        foodId,
        batchId,
        guessGrams,
        realGrams: sentNumber(real, weightIn) ?? 0,
        cookId: cook,
      };
      setResult((await tryEye({ body })).data!);
      await queries.invalidateQueries(all("eye"));
      await queries.invalidateQueries(all("preview"));
      again();
    } catch (thrown) {
      setTrouble(troubleOf(thrown, t("app:silent")));
    } finally {
      setBusy(false);
    }
  };
  const remove = async (id: string) => {
    try {
      await removeEyeTry({ path: { id } });
      say(t("removed"));
      setResult(null);
    } catch (thrown) {
      say(troubleOf(thrown, t("app:silent")).detail ?? "", { trouble: true });
    } finally {
      await queries.invalidateQueries(all("eye"));
    }
  };
  const off = result ? Math.round(result.realGrams - result.guessGrams) : 0;
  return (
    <>
      <Header lens={false} undo={false}>
        <Link to="/pack" aria-label={t("back")} title={t("back")} className="btn border-0 px-1">
          <ArrowLeft size={20} aria-hidden />
        </Link>
        <h1 className="text-lg">{t("title")}</h1>
      </Header>
      <main className="min-h-0 flex-1 overflow-auto p-4">
        <div className="max-w-5xl gap-x-10 lg:grid lg:grid-cols-2">
          <section aria-label={t("title")} className="space-y-4">
            <EaterTabs />
            <p>{t("text", { few: known.few })}</p>
            {guess === null ? (
              <>
                <FoodEntry
                  label={t("guess")}
                  hint={t("guessHint")}
                  action={t("guessed")}
                  rule={null}
                  lens="energy"
                  onAdd={(text, foodId) => {
                    setGuess({ text, foodId, what: text });
                    setResult(null);
                    return Promise.resolve(true);
                  }}
                />
                {dishes.length > 0 && (
                  <form
                    className="flex flex-wrap items-end gap-3 text-sm"
                    onSubmit={(event) => {
                      event.preventDefault();
                      const name = dishes.find(({ id }) => id === dish)!.name;
                      const weight = weightIn(dishGuess)!;
                      setGuess({ batchId: dish, guessGrams: weight, what: `${grams(weight)} g ${name}` });
                      setResult(null);
                      setDishGuess("");
                    }}
                  >
                    <label>
                      <span className="block text-soft">{t("dish")}</span>
                      <select
                        className="field max-w-full"
                        value={dish}
                        onChange={(event) => setDish(event.target.value)}
                      >
                        <option value="">{t("noDish")}</option>
                        {dishes.map(({ id, name }) => (
                          <option key={id} value={id}>
                            {name}
                          </option>
                        ))}
                      </select>
                    </label>
                    {dish && (
                      <>
                        <label>
                          <span className="block text-soft">{t("dishGuess")}</span>
                          <input
                            inputMode="decimal"
                            className="field w-24 text-right"
                            value={dishGuess}
                            maxLength={8}
                            onChange={(event) => setDishGuess(event.target.value)}
                          />{" "}
                          g
                        </label>
                        <button className="btn" disabled={!((weightIn(dishGuess) ?? 0) > 0)}>
                          {t("guessed")}
                        </button>
                      </>
                    )}
                  </form>
                )}
              </>
            ) : (
              <form
                className="panel space-y-3 p-4"
                onSubmit={(event) => {
                  event.preventDefault();
                  void weigh();
                }}
              >
                <h2 className="text-lg">{t("weigh", { what: guess.what })}</h2>
                <ScaleStrip takes={[{ label: t("fromScale"), take: (weight) => setReal(String(weight)) }]} />
                <label className="block">
                  <span className="block text-sm text-soft">{t("real")}</span>
                  <input
                    inputMode="decimal"
                    autoFocus
                    className="field w-32 text-right font-title text-xl font-bold"
                    value={real}
                    maxLength={12}
                    aria-invalid={sentenceFor(trouble, "realGrams") !== undefined}
                    onChange={(event) => setReal(event.target.value)}
                  />{" "}
                  g
                </label>
                <Sentence>{trouble?.detail}</Sentence>
                <div className="flex flex-wrap gap-3">
                  <button className="btn-next min-h-11" disabled={busy || real.trim() === ""}>
                    {t("take")}
                  </button>
                  <button type="button" className="btn min-h-11" onClick={again}>
                    {t("other")}
                  </button>
                </div>
              </form>
            )}
            <p aria-live="polite" className="min-h-8 font-title text-lg font-bold">
              {result &&
                (off === 0
                  ? t("spotOn", { what: result.what, real: grams(Math.round(result.realGrams)) })
                  : t(off > 0 ? "wasMore" : "wasLess", {
                      what: result.what,
                      real: grams(Math.round(result.realGrams)),
                      off: grams(Math.abs(off)),
                    }))}
            </p>
          </section>
          <div className="space-y-6">
            <section aria-labelledby="eye-kinds">
              <h2 id="eye-kinds" className="mb-1 text-base">
                {t("kinds")}
              </h2>
              {known.kinds.length === 0 && <p className="text-soft">{t("none")}</p>}
              <ul className="divide-y divide-line border-line">
                {known.kinds.map(({ group, tries, bias, kcal, eitherWay, pays }) => (
                  <li key={group ?? ""} className="flex flex-wrap items-baseline gap-x-3 py-2">
                    <b className="min-w-32 flex-1">
                      <KindName group={group} />
                    </b>
                    <span className="counted text-right">
                      <b className="font-title text-lg">{t("either", { kcal: wholeNumber(eitherWay) })}</b>
                    </span>
                    <span className="w-full text-sm text-soft">
                      <b className={pays ? "text-ink" : ""}>{t(pays ? "pays" : "fine")}</b>{" "}
                      <span className="counted">
                        {t("ofPortion", { kcal: wholeNumber(kcal), count: tries })}.{" "}
                      </span>
                      {Math.abs(bias) >= 0.03 &&
                        t(bias > 0 ? "takesLess" : "takesMore", {
                          percent: wholeNumber(Math.abs(bias) * 100),
                        })}
                    </span>
                  </li>
                ))}
              </ul>
            </section>
            {known.tries.length > 0 && (
              <section aria-labelledby="eye-tries">
                <h2 id="eye-tries" className="mb-1 text-base">
                  {t("tries")}
                </h2>
                <ul className="divide-y divide-line text-sm">
                  {known.tries.map(({ id, on, what, guessGrams, realGrams, offKcal }) => (
                    <li key={id} className="flex items-center gap-3">
                      <span className="w-24 text-soft">{shortDay(on)}</span>
                      <span className="min-w-0 flex-1 py-1">
                        <span className="block font-semibold">{what}</span>
                        <span className="text-soft">
                          {t("try", {
                            guess: grams(Math.round(guessGrams)),
                            real: grams(Math.round(realGrams)),
                          })}
                        </span>
                      </span>
                      <span className="counted">
                        {offKcal > 0 ? "+" : ""}
                        {t("kcal", { kcal: wholeNumber(offKcal) })}
                      </span>
                      <button
                        className="min-h-11 px-2"
                        aria-label={t("remove", { what, guess: grams(Math.round(guessGrams)) })}
                        onClick={() => void remove(id)}
                      >
                        <X size={16} aria-hidden />
                      </button>
                    </li>
                  ))}
                </ul>
              </section>
            )}
          </div>
        </div>
      </main>
    </>
  );
}

function KindName({ group }: { group: FoodGroup | null }) {
  const { t } = useWords("eye");
  return <>{group === null ? t("dishes") : t(`aim:groups.${group}`)}</>;
}
