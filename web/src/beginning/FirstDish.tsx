import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useWords } from "../app/i18n";
import { addRecipe, listStarters, readRecipes, troubleOf, type RecipeRequest, type RecipeView } from "../api";
import { queryKeys } from "../app/queryKeys";
import { piecesOf } from "../ui/format";
import { Failed, Loading, Sentence } from "../ui/states";

/** A dish that was taken, and how many of its lines are not understood. */
export interface Dish {
  recipe: RecipeView;
  unread: number;
}

/** A first recipe: one of a few of our own, or one that is pasted. */
export function FirstDish({ dish, onTaken }: { dish: Dish | null; onTaken: (dish: Dish) => void }) {
  const { t } = useWords("beginning");
  const queries = useQueryClient();
  const [text, setText] = useState("");
  const { data, error, refetch } = useQuery({
    queryKey: queryKeys.starters(),
    queryFn: async () => (await listStarters()).data!,
  });
  const take = useMutation({
    mutationFn: async ({ recipe, unread }: { recipe: RecipeRequest; unread: number }) => {
      const made = (await addRecipe({ body: recipe })).data!;
      await queries.invalidateQueries();
      onTaken({ recipe: made, unread });
    },
  });
  const read = useMutation({
    mutationFn: async () => {
      const [found] = (await readRecipes({ body: new Blob([text]) })).data!.recipes;
      if (found) await take.mutateAsync({ recipe: found.recipe, unread: found.notUnderstood.length });
      return found ?? null;
    },
  });
  const thrown = take.error ?? read.error;
  return (
    <section aria-labelledby="begin-dish" className="space-y-4">
      <h2 id="begin-dish" className="sr-only">
        {t("steps.dish")}
      </h2>
      <p>{t("dish.lead")}</p>
      {error && !data ? (
        <Failed error={error} retry={() => void refetch()} />
      ) : !data ? (
        <Loading />
      ) : (
        <ul className="divide-y divide-line border-y border-line">
          {data.map((recipe) => (
            <li key={recipe.name} className="flex items-center gap-3 py-2">
              <span className="min-w-0 flex-1">
                <b>{recipe.name}</b>{" "}
                <span className="text-sm text-soft">
                  {recipe.pieces ? piecesOf(t, recipe.pieces) : t("dish.serves", { count: recipe.portions })}
                </span>
                <span className="block truncate text-sm text-soft">{recipe.lines.join(", ")}</span>
              </span>
              <button
                className="btn"
                aria-label={`${t("dish.take")}: ${recipe.name}`}
                disabled={take.isPending || dish?.recipe.name === recipe.name}
                onClick={() => take.mutate({ recipe, unread: 0 })}
              >
                {t("dish.take")}
              </button>
            </li>
          ))}
        </ul>
      )}
      <form
        onSubmit={(event) => {
          event.preventDefault();
          read.mutate();
        }}
      >
        <label className="block text-sm">
          {t("dish.paste")}
          <textarea
            className="field mt-1 h-36 w-full"
            placeholder={t("dish.pasteHint")}
            value={text}
            onChange={(event) => setText(event.target.value)}
          />
        </label>
        <button className="btn mt-2" disabled={text.trim() === "" || read.isPending}>
          {t(read.isPending ? "dish.reading" : "dish.read")}
        </button>
      </form>
      {read.data === null && <Sentence>{t("dish.none")}</Sentence>}
      {thrown && <Sentence>{troubleOf(thrown, t("app:silent")).detail}</Sentence>}
    </section>
  );
}
