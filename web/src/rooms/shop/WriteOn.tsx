import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { sentenceFor, troubleOf, writeOnList, type Trouble } from "../../api";
import { freshen } from "../../app/freshen";
import { useWords } from "../../app/i18n";
import { Sentence } from "../../ui/states";

/** Something that no plan asks for: an amount of a food joins the others, all else stands there as it is written. */
export function WriteOn() {
  const { t } = useWords("shop");
  const queries = useQueryClient();
  const [text, setText] = useState("");
  const [trouble, setTrouble] = useState<Trouble | null>(null);
  const add = async () => {
    const typed = text.trim();
    if (typed === "") return;
    try {
      await writeOnList({ body: { text: typed, id: crypto.randomUUID() } });
      setTrouble(null);
      setText((now) => (now.trim() === typed ? "" : now));
      await freshen(queries, "shop");
    } catch (thrown) {
      setTrouble(troubleOf(thrown, t("app:silent")));
    }
  };
  return (
    <form
      className="no-print mb-4 max-w-3xl"
      onSubmit={(event) => {
        event.preventDefault();
        void add();
      }}
    >
      <div className="flex gap-2">
        <input
          className="field w-full min-w-0"
          aria-label={t("writeOn.label")}
          placeholder={t("writeOn.hint")}
          maxLength={300}
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
        <button className="btn shrink-0" disabled={text.trim() === ""}>
          {t("writeOn.add")}
        </button>
      </div>
      {trouble && <Sentence>{sentenceFor(trouble, "text") ?? trouble.detail}</Sentence>}
    </form>
  );
}
