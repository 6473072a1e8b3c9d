import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { addRecipeNote, listRecipeNotes, removeRecipeNote, troubleOf, type RecipeNoteView } from "../../api";
import { useHistory } from "../../app/history";
import { useWords } from "../../app/i18n";
import { useSay } from "../../app/notices";
import { queryKeys } from "../../app/queryKeys";
import { shortDay } from "../../ui/format";
import { Failed } from "../../ui/states";

const few = 3;

/** What the cook wrote down of a recipe when it was cooked, the last first. */
export function Notes({ id }: { id: string }) {
  const { t } = useWords("recipes");
  const say = useSay();
  const { did } = useHistory();
  const queries = useQueryClient();
  const [text, setText] = useState("");
  const [isAll, setIsAll] = useState(false);
  const key = queryKeys.recipeNotes(id);
  const { data, error, refetch } = useQuery({
    queryKey: key,
    queryFn: async () => (await listRecipeNotes({ path: { id } })).data!,
  });
  if (error && !data) return <Failed error={error} retry={() => void refetch()} />;
  if (!data) return null;
  const again = () => queries.invalidateQueries({ queryKey: key });
  const tried = async (act: () => Promise<void>) => {
    try {
      await act();
    } catch (thrown) {
      say(troubleOf(thrown, t("app:silent")).detail ?? "", { trouble: true });
    } finally {
      await again();
    }
  };
  const add = () =>
    tried(async () => {
      const note = (await addRecipeNote({ path: { id }, body: { text } })).data!;
      setText("");
      did(t("notes.added"), async () => {
        await removeRecipeNote({ path: { id, noteId: note.id } });
        await again();
      });
    });
  const remove = (note: RecipeNoteView) =>
    tried(async () => {
      await removeRecipeNote({ path: { id, noteId: note.id } });
      did(t("notes.removed"), async () => {
        await addRecipeNote({ path: { id }, body: { text: note.text, day: note.day } });
        await again();
      });
    });
  return (
    <section aria-labelledby="notes-title" className="mt-8 max-w-2xl border-t border-rim pt-2">
      <h2 id="notes-title" className="text-base">
        {t("notes.title")}
      </h2>
      {data.length === 0 && <p className="text-sm text-soft">{t("notes.none")}</p>}
      <ul className="divide-y divide-line">
        {(isAll ? data : data.slice(0, few)).map((note) => (
          <li key={note.id} className="flex items-start gap-3 py-2 text-sm">
            <span className="w-20 shrink-0 text-soft">{shortDay(note.day)}</span>
            <span className="min-w-0 flex-1 whitespace-pre-line">{note.text}</span>
            <button
              className="min-h-6 underline max-md:min-h-11"
              aria-label={t("notes.removeNamed", { note: note.text })}
              onClick={() => void remove(note)}
            >
              {t("notes.remove")}
            </button>
          </li>
        ))}
      </ul>
      {data.length > few && (
        <button className="link min-h-9 text-sm max-md:min-h-11" onClick={() => setIsAll(!isAll)}>
          {isAll ? t("notes.fewer") : t("notes.all", { count: data.length })}
        </button>
      )}
      <form
        className="mt-2 flex gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          if (text.trim()) void add();
        }}
      >
        <input
          aria-label={t("notes.new")}
          placeholder={t("notes.hint")}
          className="field min-w-0 flex-1"
          maxLength={1000}
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
        <button className="btn" disabled={text.trim() === ""}>
          {t("notes.add")}
        </button>
      </form>
    </section>
  );
}
