import { useQuery, useQueryClient } from "@tanstack/react-query";
import { ArrowLeft } from "lucide-react";
import { useState } from "react";
import { useWords } from "../../app/i18n";
import { Link } from "react-router";
import {
  getImport,
  listLibraries,
  removeLibrary,
  startImport,
  startOffered,
  troubleOf,
  type ImportView,
} from "../../api";
import { Header } from "../../app/Header";
import { useSay } from "../../app/notices";
import { wholeNumber } from "../../ui/format";
import { Failed, Loading, Sentence } from "../../ui/states";
import { ImportPreview } from "./ImportPreview";
import { all, queryKeys } from "../../app/queryKeys";

const place = "tern.import";

/** Large tables of foods: what is there, what is on offer, and the import on its way. */
export default function Libraries() {
  const { t } = useWords("foods");
  const queries = useQueryClient();
  const say = useSay();
  const [current, setCurrent] = useState(() => sessionStorage.getItem(place));
  const [isSending, setSending] = useState(false);
  const [problem, setProblem] = useState<string>();
  const { data, error, refetch } = useQuery({
    queryKey: queryKeys.libraries(),
    queryFn: async () => (await listLibraries()).data!,
  });
  const { data: run } = useQuery({
    queryKey: queryKeys.import(current),
    queryFn: async () => {
      try {
        const now = (await getImport({ path: { id: current! } })).data!;
        if (now.state === "done") await queries.invalidateQueries(all("libraries"));
        return now;
      } catch (thrown) {
        // A host that was started anew no longer knows it.
        if (troubleOf(thrown, "").status !== 404) throw thrown;
        follow(null);
        return null;
      }
    },
    enabled: current !== null,
    refetchInterval: ({ state }) =>
      state.data?.state === "looking" || state.data?.state === "taking" ? 300 : false,
  });
  if (error && !data) return <Failed isPage error={error} retry={() => void refetch()} />;
  if (!data) return <Loading isPage />;

  const follow = (id: string | null) => {
    if (id) sessionStorage.setItem(place, id);
    else sessionStorage.removeItem(place);
    setCurrent(id);
  };
  const begin = async (start: () => Promise<{ data: ImportView | undefined }>) => {
    setSending(true);
    setProblem(undefined);
    try {
      follow((await start()).data!.id);
    } catch (thrown) {
      setProblem(troubleOf(thrown, t("app:silent")).detail ?? "");
    } finally {
      setSending(false);
    }
  };
  const remove = async (id: number, name: string) => {
    await removeLibrary({ path: { id } });
    await queries.invalidateQueries();
    say(t("library.removed", { name }));
  };

  return (
    <>
      <Header lens={false}>
        <Link to="/foods" aria-label={t("title")} title={t("title")} className="btn border-0 px-1">
          <ArrowLeft size={20} aria-hidden />
        </Link>
        <h1 className="text-lg">{t("library.title")}</h1>
      </Header>
      <main className="min-h-0 flex-1 overflow-auto p-5">
        <p className="max-w-3xl text-sm text-soft">{t("library.lead")}</p>
        {run && run.state !== "done" && run.state !== "stopped" ? (
          <ImportPreview run={run} leave={() => follow(null)} />
        ) : (
          <>
            {run?.state === "done" && (
              <p role="status" className="mt-4 font-semibold text-sea">
                {run.name}: {t("library.done", { count: run.report!.taken })}
              </p>
            )}
            {run?.state === "stopped" && (
              <p role="status" className="mt-4">
                {t("library.stopped")}
              </p>
            )}
            <ul className="mt-4 max-w-4xl border-t border-line">
              {data.libraries.map((library) => (
                <li
                  key={library.id}
                  className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-line py-3"
                >
                  <div className="min-w-0 flex-1">
                    <p className="font-semibold">{library.name}</p>
                    <p className="text-xs text-soft">{library.source}</p>
                  </div>
                  <p className="text-sm">
                    {t("library.rows", {
                      taken: wholeNumber(library.taken),
                      refused: wholeNumber(library.refused),
                      doubtful: wholeNumber(library.doubtful),
                    })}
                  </p>
                  <button className="btn" onClick={() => void remove(library.id, library.name)}>
                    {t("library.remove")}
                  </button>
                </li>
              ))}
              {data.libraries.length === 0 && (
                <li className="border-b border-line py-3 text-soft">{t("library.none")}</li>
              )}
            </ul>
            <h2 className="mt-6 text-base">{t("library.take")}</h2>
            <label className="mt-1 block max-w-4xl text-sm">
              {t("library.file")}
              <input
                type="file"
                accept=".csv,.tsv,.txt,.json,.zip"
                className="field mt-2 block w-full"
                disabled={isSending}
                onChange={(event) => {
                  const file = event.target.files?.[0];
                  if (file) void begin(() => startImport({ body: file, query: { name: file.name } }));
                  event.target.value = "";
                }}
              />
            </label>
            {isSending && (
              <p role="status" className="mt-2 text-sm text-soft">
                {t("library.sending")}
              </p>
            )}
            <Sentence>{problem}</Sentence>
            {data.offered.map((offer) => (
              <div key={offer.key} className="panel mt-6 max-w-4xl p-4">
                <p className="text-xs text-soft">{t("library.offered")}</p>
                <p className="font-title text-base font-bold">{offer.name}</p>
                <p className="mt-1 text-sm text-soft">
                  {offer.source}. {offer.licence}.
                </p>
                <p className="mt-3">
                  <button
                    className="btn-next"
                    disabled={isSending || offer.taken}
                    onClick={() => void begin(() => startOffered({ path: { key: offer.key } }))}
                  >
                    {offer.taken ? t("library.has") : t("library.offer")}
                  </button>
                </p>
              </div>
            ))}
          </>
        )}
      </main>
    </>
  );
}
