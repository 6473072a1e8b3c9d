import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import {
  getBoxNotes,
  seen,
  sentenceFor,
  setBoxNotes,
  troubleOf,
  type BoxNotesView,
  type Trouble,
} from "../../../api";
import { useWords } from "../../../app/i18n";
import { useSay } from "../../../app/notices";
import { all, queryKeys } from "../../../app/queryKeys";
import { Sentence } from "../../../ui/states";

/** How a box of this dish is heated, and what is added when it is eaten: on every label of it. */
export function DishNotes({ recipeId, name }: { recipeId: string; name: string }) {
  const { t } = useWords("labels");
  const notes = useQuery({
    queryKey: queryKeys.boxNotes(recipeId),
    queryFn: async () => (await getBoxNotes({ path: { recipeId } })).data!,
  });
  return (
    <section aria-labelledby="dish-notes" className="min-h-52 space-y-2">
      <h2 id="dish-notes" className="text-sm">
        {t("dish")}
      </h2>
      {notes.data && <Fields key={recipeId} recipeId={recipeId} name={name} notes={notes.data} />}
    </section>
  );
}

const fields = [
  ["heating", "heatingHint"],
  ["atEating", "atEatingHint"],
] as const;

function Fields({ recipeId, name, notes }: { recipeId: string; name: string; notes: BoxNotesView }) {
  const { t } = useWords("labels");
  const say = useSay();
  const queries = useQueryClient();
  // What is typed stays until it is kept, whatever comes from elsewhere meanwhile.
  const [typed, setTyped] = useState<Partial<Record<"heating" | "atEating", string>>>({});
  const [trouble, setTrouble] = useState<Trouble | null>(null);
  const now = {
    heating: typed.heating ?? notes.heating ?? "",
    atEating: typed.atEating ?? notes.atEating ?? "",
  };
  const isTyped = now.heating !== (notes.heating ?? "") || now.atEating !== (notes.atEating ?? "");
  const keep = async () => {
    try {
      await setBoxNotes({ path: { recipeId }, headers: seen(notes.version), body: now });
      // Labels that are on their way were asked for before these words.
      await queries.cancelQueries(all("labels"));
      await Promise.all([
        queries.invalidateQueries(all("boxNotes")),
        queries.invalidateQueries(all("labels")),
        queries.invalidateQueries(all("box")),
      ]);
      setTyped({});
      setTrouble(null);
      say(t("notesKept", { name }));
    } catch (thrown) {
      const what = troubleOf(thrown, t("app:silent"));
      setTrouble(what.status === 412 ? { ...what, detail: t("stale") } : what);
      if (what.status === 412) await queries.invalidateQueries(all("boxNotes"));
    }
  };
  return (
    <form
      className="space-y-2"
      onSubmit={(event) => {
        event.preventDefault();
        void keep();
      }}
    >
      {fields.map(([field, hint]) => (
        <label key={field} className="block">
          <span className="block text-xs text-soft">{t(field)}</span>
          <input
            className="field w-full"
            placeholder={t(hint)}
            value={now[field]}
            aria-invalid={sentenceFor(trouble, field) !== undefined}
            onChange={(event) => setTyped({ ...typed, [field]: event.target.value })}
          />
          <Sentence>{sentenceFor(trouble, field)}</Sentence>
        </label>
      ))}
      <button className="btn" disabled={!isTyped}>
        {t("keepNotes")}
      </button>
      {trouble && !trouble.errors?.some(({ field }) => field) && <Sentence>{trouble.detail}</Sentence>}
    </form>
  );
}
