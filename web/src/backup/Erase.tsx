import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { eraseEater, troubleOf, type KeptEaterView } from "../api";
import { useWords } from "../app/i18n";
import { useSay } from "../app/notices";
import { Drawer } from "../ui/Drawer";
import { Sentence } from "../ui/states";

/** Takes somebody and all that is theirs out for good: the one thing here that can't be undone, so their name is typed for it. */
export function Erase({ who, done }: { who: KeptEaterView; done: () => void }) {
  const { t } = useWords("backup");
  const queries = useQueryClient();
  const say = useSay();
  const [isOpen, setOpen] = useState(false);
  const [name, setName] = useState("");
  const [copiesToo, setCopiesToo] = useState(false);
  const [problem, setProblem] = useState<string>();
  const [isBusy, setBusy] = useState(false);
  const close = () => {
    setOpen(false);
    setProblem(undefined);
  };
  const erase = async () => {
    setBusy(true);
    setProblem(undefined);
    try {
      const { entries, trouble } = (await eraseEater({ path: { id: who.id }, body: { name, copiesToo } }))
        .data!;
      say(trouble ?? t("erase.done", { name: who.name, count: entries }), {
        trouble: trouble !== null,
      });
      close();
      done();
      await queries.invalidateQueries();
    } catch (thrown) {
      setProblem(troubleOf(thrown, t("app:silent")).detail ?? "");
    } finally {
      setBusy(false);
    }
  };
  return (
    <>
      <button className="btn min-h-11" onClick={() => setOpen(true)}>
        {t("erase.open", { name: who.name })}
      </button>
      <Drawer open={isOpen} close={close} title={t("erase.open", { name: who.name })}>
        <form
          onSubmit={(event) => {
            event.preventDefault();
            void erase();
          }}
        >
          <p>{t("erase.what", { name: who.name })}</p>
          <p className="mt-2">{t("erase.stays")}</p>
          <p className="mt-2 font-semibold">{t("erase.final")}</p>
          <label className="mt-4 flex items-start gap-2 text-sm">
            <input
              type="checkbox"
              className="mt-0.5 size-5 shrink-0"
              checked={copiesToo}
              onChange={(event) => setCopiesToo(event.target.checked)}
            />
            {t("erase.copies")}
          </label>
          <label className="mt-4 block text-sm">
            {t("erase.name", { name: who.name })}
            <input
              className="field mt-1 block h-11 w-full"
              value={name}
              autoComplete="off"
              onChange={(event) => setName(event.target.value)}
            />
          </label>
          <Sentence>{problem}</Sentence>
          <div className="mt-4 flex flex-wrap gap-2">
            <button className="btn min-h-11 border-brick text-brick" disabled={isBusy}>
              {t("erase.do", { name: who.name })}
            </button>
            <button type="button" className="btn min-h-11" onClick={close}>
              {t("erase.leave", { name: who.name })}
            </button>
          </div>
        </form>
      </Drawer>
    </>
  );
}
