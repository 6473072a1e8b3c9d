import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import { addEater, aimStart, listEaters, sentenceFor, troubleOf } from "../../api";
import { Header } from "../../app/Header";
import { Failed, Loading, Sentence } from "../../ui/states";
import { EaterSheet } from "./EaterSheet";

export default function AimRoom() {
  const { t } = useTranslation("aim");
  const queries = useQueryClient();
  const {
    data: eaters,
    error,
    refetch,
  } = useQuery({ queryKey: ["eaters"], queryFn: async () => (await listEaters()).data! });
  const { data: start } = useQuery({ queryKey: ["aimStart"], queryFn: async () => (await aimStart()).data! });
  const [name, setName] = useState("");
  const [problem, setProblem] = useState<string>();

  if (error && !eaters) return <Failed error={error} retry={() => void refetch()} />;
  if (!eaters || !start) return <Loading />;

  const add = async () => {
    try {
      await addEater({ body: { name, aim: { leading: "energy", bands: {}, rule: null } } });
      setName("");
      setProblem(undefined);
      await queries.invalidateQueries();
    } catch (thrown) {
      const trouble = troubleOf(thrown, t("app:silent"));
      setProblem(sentenceFor(trouble, "name") ?? trouble.detail ?? "");
    }
  };

  const entry = (
    <form
      className="max-w-md"
      onSubmit={(event) => {
        event.preventDefault();
        void add();
      }}
    >
      <div className="flex gap-2">
        <input
          className="field min-w-0 flex-1"
          aria-label={t("newName")}
          placeholder={t("newName")}
          value={name}
          maxLength={60}
          onChange={(event) => setName(event.target.value)}
        />
        <button className={eaters.length === 0 ? "btn-next" : "btn"}>{t("add")}</button>
      </div>
      <Sentence>{problem}</Sentence>
    </form>
  );

  return (
    <>
      <Header lens={false}>
        <h1 className="text-lg">{t("title")}</h1>
      </Header>
      <main className="min-h-0 flex-1 overflow-auto p-4">
        {eaters.length === 0 ? (
          <div className="max-w-xl p-2">
            <h2 className="text-xl">{t("empty")}</h2>
            <p className="mt-2 mb-5 text-soft">{t("emptyText")}</p>
            {entry}
          </div>
        ) : (
          <>
            <p className="mb-3 text-sm text-soft">{t("lead")}</p>
            <div className="grid items-start gap-4 xl:grid-cols-3 lg:grid-cols-2">
              {eaters.map((eater) => (
                <EaterSheet key={eater.id} eater={eater} start={start} />
              ))}
            </div>
            <div className="mt-5">{entry}</div>
            <p className="mt-5 max-w-3xl text-sm text-soft">{t("caution")}</p>
          </>
        )}
      </main>
    </>
  );
}
