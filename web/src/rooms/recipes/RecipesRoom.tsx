import { keepPreviousData, useQuery, useQueryClient } from "@tanstack/react-query";
import { FileInput } from "lucide-react";
import { useState } from "react";
import { useWords } from "../../app/i18n";
import { Link, useNavigate } from "react-router";
import { addRecipe, listRecipes } from "../../api";
import { freshen } from "../../app/freshen";
import { EaterTabs, Header, useCurrentEater, useEatersQuery } from "../../app/Header";
import { lensesOf, useLens } from "../../app/lens";
import { Drawer } from "../../ui/Drawer";
import { Amount } from "../../ui/Figures";
import { lensFirst } from "../../ui/format";
import { NameIt } from "../../ui/NameIt";
import { Empty, Failed, lacking, Loading, Sentence } from "../../ui/states";
import { Mark } from "../../ui/Tape";
import { ReadRecipes } from "./ReadRecipes";
import { queryKeys } from "../../app/queryKeys";

export default function RecipesRoom() {
  const { t } = useWords("recipes");
  const go = useNavigate();
  const queries = useQueryClient();
  const lens = useLens();
  const eater = useCurrentEater();
  const table = useEatersQuery();
  const eaters = table.data;
  const list = useQuery({
    queryKey: queryKeys.recipes(eater),
    queryFn: async () => (await listRecipes({ query: { eaterId: eater ?? undefined } })).data!,
    placeholderData: keepPreviousData,
  });
  const [isReading, setReading] = useState(false);
  const [sought, setSought] = useState("");

  // The columns are those of the eaters: known before they are shown, so that none moves.
  const missing = lacking(list, table);
  const { data } = list;
  if (missing) return <Failed isPage {...missing} />;
  if (!data || !eaters) return <Loading isPage />;

  const shown = data.filter((recipe) => recipe.name.toLowerCase().includes(sought.trim().toLowerCase()));
  const columns = lensFirst(lens, lensesOf(eaters)).filter(
    (measure) => measure !== "points" || data.some((recipe) => recipe.portion["points"]),
  );
  const most = Math.max(1, ...data.map((recipe) => recipe.portion[lens]?.value ?? 0));

  return (
    <>
      <Header>
        <h1 className="text-lg">{t("title")}</h1>
        <EaterTabs />
      </Header>
      <main className="min-h-0 flex-1 overflow-auto p-4">
        <div className="mb-3 flex flex-wrap items-start gap-x-6 gap-y-2">
          <NameIt
            label={t("newName")}
            action={t("add")}
            longest={120}
            isNext={data.length === 0}
            onAdd={async (name) => {
              const { data: made } = await addRecipe({ body: { name, lines: [], portions: 6 } });
              await freshen(queries, "recipe");
              void go(`/recipes/${made!.id}`);
            }}
          />
          <button className="btn" onClick={() => setReading(true)}>
            <FileInput size={16} aria-hidden /> {t("read.open")}
          </button>
          {data.length > 12 && (
            <input
              type="search"
              className="field ml-auto w-64"
              aria-label={t("many", { count: data.length })}
              placeholder={t("many", { count: data.length })}
              value={sought}
              onChange={(event) => setSought(event.target.value)}
            />
          )}
        </div>
        {data.length === 0 ? (
          <Empty title={t("empty")}>
            <p>{t("emptyText")}</p>
          </Empty>
        ) : (
          <div className="overflow-x-auto">
            <table className="w-full max-w-5xl">
              <thead>
                <tr className="border-b border-rim text-right text-xs text-soft">
                  <th scope="col" className="py-1 text-left font-normal">
                    {t("name")}
                  </th>
                  <th scope="col" className="px-3 font-normal">
                    {t("makes")}
                  </th>
                  <td />
                  {columns.map((measure) => (
                    <th
                      key={measure}
                      scope="col"
                      className={`counted px-3 ${measure === lens ? "font-bold text-ink" : "font-normal"}`}
                    >
                      {t(`app:measures.${measure}`)} {t("aPortion")}
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {shown.map((recipe) => (
                  <tr key={recipe.id} className="border-b border-line text-right">
                    <td className="min-w-40 py-1.5 text-left md:min-w-80">
                      <Link
                        to={`/recipes/${recipe.id}`}
                        className="flex min-h-9 items-center gap-3 font-semibold wrap-anywhere hover:underline"
                      >
                        <Mark letters={recipe.letters} tint={recipe.tint} className="h-8 w-10 text-sm" />
                        {recipe.name}
                        {recipe.baseId && (
                          <span className="text-xs font-normal text-soft">
                            {t("variantOf")} {data.find(({ id }) => id === recipe.baseId)?.name}
                          </span>
                        )}
                      </Link>
                      {recipe.notUnderstood > 0 && (
                        <Sentence>{t("unread", { count: recipe.notUnderstood })}</Sentence>
                      )}
                    </td>
                    <td className="px-3 whitespace-nowrap">
                      {recipe.isPutTogether ? (
                        <span className="text-xs text-soft">{t("aBox")}</span>
                      ) : (
                        <>
                          {recipe.portions}{" "}
                          <span className="text-xs text-soft">
                            {t("portions", { count: recipe.portions })}
                          </span>
                        </>
                      )}
                    </td>
                    <td className="counted w-32">
                      <span
                        aria-hidden
                        className="block h-2 rounded-sm bg-sea"
                        style={{ width: `${((recipe.portion[lens]?.value ?? 0) / most) * 100}%` }}
                      />
                    </td>
                    {columns.map((measure) => (
                      <td
                        key={measure}
                        className={`counted px-3 whitespace-nowrap ${measure === lens ? "text-lg font-bold" : ""}`}
                      >
                        <Amount measure={measure} figure={recipe.portion[measure]} isColumn />
                      </td>
                    ))}
                  </tr>
                ))}
              </tbody>
            </table>
            {shown.length === 0 && <p className="p-4 text-soft">{t("none")}</p>}
          </div>
        )}
      </main>
      <Drawer open={isReading} grows close={() => setReading(false)} title={t("read.title")}>
        <ReadRecipes />
      </Drawer>
    </>
  );
}
