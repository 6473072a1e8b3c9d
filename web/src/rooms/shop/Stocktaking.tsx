import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { takeStock, troubleOf, undoPantry, type Trouble } from "../../api";
import { freshen } from "../../app/freshen";
import { useHistory } from "../../app/history";
import { useWords } from "../../app/i18n";
import { Drawer } from "../../ui/Drawer";
import { Sentence } from "../../ui/states";

const place = "tern.shop.stock";

/** A stocktaking by a list; what was typed stays until it is taken in. */
export function Stocktaking({ close }: { close: () => void }) {
  const { t } = useWords("shop");
  const { did } = useHistory();
  const queries = useQueryClient();
  const [text, setText] = useState(() => sessionStorage.getItem(place) ?? "");
  const [isAll, setIsAll] = useState(false);
  const [busy, setBusy] = useState(false);
  const [trouble, setTrouble] = useState<Trouble | null>(null);
  const lines = text.split("\n");
  const write = (next: string) => {
    sessionStorage.setItem(place, next);
    setText(next);
    setTrouble(null);
  };
  const save = async () => {
    setBusy(true);
    try {
      const step = (await takeStock({ body: { lines, isAll } })).data!;
      did(t("stock.done", { count: lines.filter((line) => line.trim() !== "").length }), () =>
        undoPantry({ body: step }),
      );
      write("");
      close();
    } catch (thrown) {
      setTrouble(troubleOf(thrown, t("app:silent")));
    } finally {
      setBusy(false);
      await freshen(queries, "shop");
    }
  };
  const wrong = trouble?.errors?.filter(({ field }) => field.startsWith("lines[")) ?? [];
  return (
    <Drawer open grows close={close} title={t("stock.title")}>
      <form
        className="space-y-3"
        onSubmit={(event) => {
          event.preventDefault();
          void save();
        }}
      >
        <p className="text-sm text-soft">{t("stock.text")}</p>
        <textarea
          className="field min-h-60 w-full"
          aria-label={t("stock.lines")}
          placeholder={t("stock.hint")}
          value={text}
          onChange={(event) => write(event.target.value)}
        />
        {wrong.map(({ field, sentence }) => (
          <Sentence key={field}>
            {lines[Number(/\d+/.exec(field)?.[0])]}: {sentence}
          </Sentence>
        ))}
        {trouble && wrong.length === 0 && <Sentence>{trouble.detail}</Sentence>}
        <label className="flex min-h-9 items-center gap-2 text-sm">
          <input
            type="checkbox"
            className="size-5"
            checked={isAll}
            onChange={(event) => setIsAll(event.target.checked)}
          />
          {t("stock.isAll")}
        </label>
        <button className="btn-next w-full" disabled={busy || text.trim() === ""}>
          {t("stock.save")}
        </button>
      </form>
    </Drawer>
  );
}
