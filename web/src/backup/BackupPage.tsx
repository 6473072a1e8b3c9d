import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import {
  listCopies,
  listKeptEaters,
  lookAtBackup,
  lookAtCopy,
  makeCopy,
  troubleOf,
  type CopyView,
  type RestoreView,
} from "../api";
import { Header } from "../app/Header";
import { addWords, useWords } from "../app/i18n";
import { useSay } from "../app/notices";
import { all, queryKeys } from "../app/queryKeys";
import { clock, longDay, oneDecimal } from "../ui/format";
import { Failed, lacking, Loading, Sentence } from "../ui/states";
import { PutBack } from "./PutBack";
import { TakeAlong } from "./TakeAlong";
import { backup } from "./words";

addWords("backup", backup);

/** All that is kept, out of the program and back into it. */
export default function BackupPage() {
  const { t } = useWords("backup");
  const queries = useQueryClient();
  const say = useSay();
  const eaters = useQuery({
    queryKey: queryKeys.keptEaters(),
    queryFn: async () => (await listKeptEaters()).data!,
  });
  const copies = useQuery({ queryKey: queryKeys.copies(), queryFn: async () => (await listCopies()).data! });
  const [look, setLook] = useState<{ view: RestoreView; name: string }>();
  const [busy, setBusy] = useState<"reading" | "copying">();
  const [problem, setProblem] = useState<string>();
  const preview = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (look) preview.current?.scrollIntoView({ block: "nearest" });
  }, [look]);
  const failed = lacking(copies, eaters);
  if (failed) return <Failed isPage {...failed} />;
  if (!copies.data || !eaters.data) return <Loading isPage />;

  const read = async (name: string, open: () => Promise<{ data: RestoreView | undefined }>) => {
    setBusy("reading");
    setProblem(undefined);
    setLook(undefined);
    try {
      setLook({ view: (await open()).data!, name });
    } catch (thrown) {
      setProblem(troubleOf(thrown, t("app:silent")).detail ?? "");
    } finally {
      setBusy(undefined);
    }
  };
  const copy = async () => {
    setBusy("copying");
    try {
      await makeCopy();
      say(t("copies.made"));
    } catch (thrown) {
      say(troubleOf(thrown, t("app:silent")).detail ?? "", { trouble: true });
    } finally {
      setBusy(undefined);
      await queries.invalidateQueries(all("copies"));
    }
  };
  const { copies: kept, isDaily, kept: most, trouble } = copies.data;
  return (
    <>
      <Header lens={false}>
        <h1 className="text-lg">{t("title")}</h1>
      </Header>
      <main className="min-h-0 flex-1 space-y-8 overflow-auto p-5">
        <TakeAlong eaters={eaters.data} />
        <section aria-labelledby="put-back">
          <h2 id="put-back" className="text-lg">
            {t("back.title")}
          </h2>
          <p className="max-w-3xl text-sm text-soft">{t("back.lead")}</p>
          <label className="btn relative mt-3 min-h-11 cursor-pointer focus-within:outline-2 focus-within:outline-sea">
            {t("back.choose")}
            <input
              type="file"
              accept=".json,.db,.sqlite,.sqlite3"
              className="absolute inset-0 cursor-pointer opacity-0"
              disabled={busy !== undefined}
              onChange={(event) => {
                const file = event.target.files?.[0];
                if (file)
                  void read(t("back.named", { name: file.name }), () =>
                    lookAtBackup({ body: file, query: { name: file.name } }),
                  );
                event.target.value = "";
              }}
            />
          </label>
          {busy === "reading" && (
            <p role="status" className="mt-3 text-soft">
              {t("back.reading")}
            </p>
          )}
          <Sentence>{problem}</Sentence>
          <div ref={preview} className="scroll-my-4">
            {look && (
              <PutBack
                key={look.view.id}
                look={look.view}
                name={look.name}
                again={(view) => setLook({ view, name: look.name })}
                close={() => setLook(undefined)}
              />
            )}
          </div>
        </section>
        <section aria-labelledby="copies">
          <h2 id="copies" className="text-lg">
            {t("copies.title")}
          </h2>
          <p className="max-w-3xl text-sm text-soft">
            {isDaily ? t("copies.lead", { count: most }) : t("copies.demo")}
          </p>
          {trouble && <Sentence>{trouble}</Sentence>}
          <ul className="mt-3 max-w-3xl border-t border-line">
            {kept.map((one) => (
              <Kept
                key={one.name}
                copy={one}
                isBusy={busy !== undefined}
                look={() =>
                  void read(t("copies.named", { day: longDay(one.day) }), () =>
                    lookAtCopy({ path: { name: one.name } }),
                  )
                }
              />
            ))}
            {kept.length === 0 && (
              <li className="border-b border-line py-3 text-soft">
                {t(isDaily ? "copies.none" : "copies.noneDemo")}
              </li>
            )}
          </ul>
          <button className="btn mt-3 min-h-11" disabled={busy !== undefined} onClick={() => void copy()}>
            {busy === "copying" ? t("copies.making") : t("copies.now")}
          </button>
        </section>
      </main>
    </>
  );
}

function Kept({ copy, isBusy, look }: { copy: CopyView; isBusy: boolean; look: () => void }) {
  const { t } = useWords("backup");
  return (
    <li className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-line py-2">
      <span className="min-w-0 flex-1 basis-60">
        <span className="font-semibold">{longDay(copy.day)}</span>
        {copy.kind !== "daily" && <span className="text-soft">, {clock(copy.madeAt)}</span>}
        <span className="block text-sm text-soft">{t(`copies.kinds.${copy.kind}`)}</span>
      </span>
      <span className="text-sm tabular-nums">{oneDecimal(copy.bytes / 1e6)} MB</span>
      <button className="btn min-h-11" disabled={isBusy} onClick={look}>
        {t("copies.look")}
      </button>
    </li>
  );
}
