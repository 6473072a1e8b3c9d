import type { TFunction } from "i18next";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useWords } from "../../app/i18n";
import { useNavigate } from "react-router";
import { addRecipe, readRecipes, troubleOf, type FoundRecipe } from "../../api";
import { piecesOf } from "../../ui/format";
import { Sentence } from "../../ui/states";

/** Recipes from a file, a saved page or pasted text: what was found, what was not understood, and what has no place here. */
export function ReadRecipes() {
  const { t } = useWords("recipes");
  const go = useNavigate();
  const queries = useQueryClient();
  const [text, setText] = useState("");
  const read = useMutation({
    mutationFn: async (content: Blob) => (await readRecipes({ body: content })).data!,
  });
  const take = useMutation({
    mutationFn: async (found: FoundRecipe) => {
      const { data } = await addRecipe({
        body: { ...found.recipe, name: found.recipe.name.slice(0, 120) || t("read.unnamed") },
      });
      await queries.invalidateQueries();
      void go(`/recipes/${data!.id}`, { state: { justRead: true } });
    },
  });
  const thrown = read.error ?? take.error;
  return (
    <div className="space-y-4">
      <p className="text-sm text-soft">{t("read.lead")}</p>
      <label className="block text-sm">
        {t("read.file")}
        <input
          type="file"
          accept=".json,.jsonld,.html,.htm,.txt,.md"
          className="field mt-1 block w-full"
          onChange={(event) => {
            const file = event.target.files?.[0];
            if (file) read.mutate(file);
            event.target.value = "";
          }}
        />
      </label>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          read.mutate(new Blob([text]));
        }}
      >
        <label className="block text-sm">
          {t("read.text")}
          <textarea
            className="field mt-1 h-40 w-full"
            value={text}
            onChange={(event) => setText(event.target.value)}
          />
        </label>
        <button className="btn-next mt-2" disabled={text.trim() === "" || read.isPending}>
          {t("read.go")}
        </button>
      </form>
      {thrown && <Sentence>{troubleOf(thrown, t("app:silent")).detail}</Sentence>}
      {read.data?.remarks.map((remark) => (
        <Sentence key={remark}>{remark}</Sentence>
      ))}
      <div aria-live="polite" className="space-y-4">
        {read.data && read.data.recipes.length > 0 && (
          <p className="text-sm">{t("read.found", { count: read.data.recipes.length })}</p>
        )}
        {read.data?.recipes.slice(0, 50).map((found, i) => (
          <section key={i} className="panel p-3 text-sm">
            <h3 className="text-base">{found.recipe.name || t("read.unnamed")}</h3>
            <p className="text-soft">
              {[
                t("read.lines", { count: found.recipe.lines.length }),
                t("read.steps", { count: found.recipe.steps?.length ?? 0 }),
                t("read.portions", { count: found.recipe.portions }),
                ...(found.recipe.pieces ? [piecesOf(t, found.recipe.pieces)] : []),
              ].join(", ")}
            </p>
            <p className="mt-1">{standingOf(t, found)}</p>
            <Listed title={t("read.unread")} lines={found.notUnderstood} />
            <Listed title={t("read.missed")} lines={found.notMapped} />
            <button className="btn-next mt-3" disabled={take.isPending} onClick={() => take.mutate(found)}>
              {t("read.take")}
            </button>
          </section>
        ))}
      </div>
    </div>
  );
}

const standingOf = (t: TFunction, { standings: { sure, byDefault, open } }: FoundRecipe) =>
  [
    t("standing.sure", { count: sure }),
    ...(byDefault > 0 ? [t("standing.byDefault", { count: byDefault })] : []),
    ...(open > 0 ? [t("standing.open", { count: open })] : []),
  ].join(" · ");

function Listed({ title, lines }: { title: string; lines: string[] }) {
  if (lines.length === 0) return null;
  return (
    <>
      <p className="mt-2">{title}</p>
      <ul className="list-disc pl-5 break-words text-soft">
        {lines.map((line, i) => (
          <li key={i}>{line}</li>
        ))}
      </ul>
    </>
  );
}
