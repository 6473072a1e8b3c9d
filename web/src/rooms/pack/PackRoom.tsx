import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { addWords, useWords } from "../../app/i18n";
import { Link, useNavigate } from "react-router";
import { cookBatch, listBatches, listRecipeNames, troubleOf, type BatchInList } from "../../api";
import { freshen } from "../../app/freshen";
import { Header } from "../../app/Header";
import { useSay } from "../../app/notices";
import { shortDay } from "../../ui/format";
import { Empty, Failed, lacking, Loading } from "../../ui/states";
import { Tape } from "../../ui/Tape";
import { queryKeys } from "../../app/queryKeys";
import { pack } from "./words";

addWords("pack", pack);

export default function PackRoom() {
  const { t } = useWords("pack");
  const go = useNavigate();
  const say = useSay();
  const queries = useQueryClient();
  const batchesQuery = useQuery({
    queryKey: queryKeys.batches(),
    queryFn: async () => (await listBatches()).data!,
  });
  const recipesQuery = useQuery({
    queryKey: queryKeys.recipeNames(),
    queryFn: async () => (await listRecipeNames()).data!,
  });
  const [chosen, setChosen] = useState("");
  const [batches, recipes] = [batchesQuery.data, recipesQuery.data];
  const failed = lacking(batchesQuery, recipesQuery);
  if (failed) return <Failed isPage {...failed} />;
  if (!batches || !recipes) return <Loading isPage />;

  const cook = async () => {
    try {
      const { data } = await cookBatch({ body: { recipeId: chosen || recipes[0]!.id } });
      await freshen(queries, "batch");
      void go(`/pack/${data!.id}`);
    } catch (thrown) {
      say(troubleOf(thrown, t("app:silent")).detail ?? "", { trouble: true });
    }
  };
  const ahead = batches
    .filter(({ state }) => state === "planned")
    .sort((one, other) => one.cookedOn.localeCompare(other.cookedOn));
  const waiting = batches.filter(({ state }) => state === "cooking" || state === "cooked");
  const packed = batches.filter(({ state }) => state === "packed");

  return (
    <>
      <Header
        lens={false}
        actions={
          <>
            <Link to="/eye" className="btn">
              {t("byEye.try")}
            </Link>
            <Link to="/containers" className="btn">
              {t("into.more")}
            </Link>
          </>
        }
      >
        <h1 className="text-lg">{t("title")}</h1>
      </Header>
      <main className="min-h-0 flex-1 overflow-auto p-4">
        {recipes.length === 0 ? (
          <Empty title={t("cookTitle")}>
            <p>{t("noRecipes")}</p>
            <Link to="/recipes" className="btn-next">
              {t("toRecipes")}
            </Link>
          </Empty>
        ) : (
          <div className="max-w-4xl space-y-6">
            <section aria-labelledby="waiting">
              <h2 id="waiting" className="mb-2 text-base">
                {t("waiting")}
              </h2>
              {waiting.length === 0 && <p className="text-soft">{t("nothing")}</p>}
              <BatchList batches={waiting} />
            </section>
            {ahead.length > 0 && (
              <section aria-labelledby="ahead">
                <h2 id="ahead" className="mb-2 text-base">
                  {t("ahead")}
                </h2>
                <BatchList batches={ahead} />
              </section>
            )}
            <section aria-labelledby="cook">
              <h2 id="cook" className="mb-2 text-base">
                {t("cookTitle")}
              </h2>
              <form
                className="flex flex-wrap gap-2"
                onSubmit={(event) => {
                  event.preventDefault();
                  void cook();
                }}
              >
                <select
                  className="field min-w-0 max-w-full"
                  aria-label={t("choose")}
                  value={chosen || recipes[0]!.id}
                  onChange={(event) => setChosen(event.target.value)}
                >
                  {recipes.map(({ id, name }) => (
                    <option key={id} value={id}>
                      {name}
                    </option>
                  ))}
                </select>
                <button className={waiting.length === 0 ? "btn-next" : "btn"}>{t("cook")}</button>
              </form>
            </section>
            {packed.length > 0 && (
              <section aria-labelledby="packed">
                <h2 id="packed" className="mb-2 text-base">
                  {t("packed")}
                </h2>
                <BatchList batches={packed} />
              </section>
            )}
          </div>
        )}
      </main>
    </>
  );
}

function BatchList({ batches }: { batches: BatchInList[] }) {
  const { t } = useWords("pack");
  return (
    <ul className="grid gap-2 sm:grid-cols-2">
      {batches.map((batch) => (
        <li key={batch.id}>
          <Link to={`/pack/${batch.id}`} className="block">
            <Tape
              letters={batch.letters}
              tint={batch.tint}
              className={`min-h-12 ${batch.boxes === 0 ? "ahead" : ""}`}
            >
              <span className="block truncate font-semibold">{batch.name}</span>
              <span className="text-sm">
                {t(batch.state === "planned" ? "cookOn" : "cookedOn", { day: shortDay(batch.cookedOn) })}
                {batch.state === "planned" && ` · ${t("portionCount", { count: batch.portions })}`}
                {batch.state === "cooked" && ` · ${t("isWeighed")}`}
                {batch.boxes > 0 && ` · ${t("boxes", { count: batch.boxes })}`}
              </span>
            </Tape>
          </Link>
        </li>
      ))}
    </ul>
  );
}
