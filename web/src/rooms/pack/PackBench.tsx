import { useQuery, useQueryClient } from "@tanstack/react-query";
import { ArrowLeft, Tag } from "lucide-react";
import { useState } from "react";
import { addWords, useWords } from "../../app/i18n";
import { Link, useNavigate, useParams } from "react-router";
import {
  cookPlanned,
  discardBatch,
  getBatch,
  packBatch,
  restoreBatch,
  seen,
  troubleOf,
  unpackBatch,
  weighBatch,
  type BatchView,
  type Trouble,
} from "../../api";
import { freshen } from "../../app/freshen";
import { useHistory } from "../../app/history";
import { Header } from "../../app/Header";
import { useSay } from "../../app/notices";
import { grams, longDay, shortDay } from "../../ui/format";
import { Failed, Loading, Sentence } from "../../ui/states";
import { Caution } from "../../ui/Caution";
import { Mark } from "../../ui/Tape";
import { Boxes } from "./Boxes";
import { useContainers } from "./containers/useContainers";
import { Filling } from "./Filling";
import { filledOf, orderOf, useTyped } from "./typed";
import { PartByPart } from "./PartByPart";
import { pack } from "./words";
import { GoesInto, Together } from "./Together";
import { Weighing } from "./Weighing";
import { WentIn } from "../cook/GoesIn";
import { useDevices } from "../../devices/useDevices";
import { all, queryKeys } from "../../app/queryKeys";

addWords("pack", pack);

export default function PackBench() {
  const { id } = useParams();
  const { data, error, refetch } = useQuery({
    queryKey: queryKeys.batch(id),
    queryFn: async () => (await getBatch({ path: { id: id! } })).data!,
  });
  // Whether there is a scale is known before anything is shown: it takes its place on top.
  const { isPending } = useDevices();
  const { isPending: isListing } = useContainers();
  if (error && !data) return <Failed isPage error={error} retry={() => void refetch()} />;
  return data && !isPending && !isListing ? <Bench key={data.id} batch={data} /> : <Loading isPage />;
}

function Bench({ batch }: { batch: BatchView }) {
  const { t } = useWords("pack");
  const go = useNavigate();
  const say = useSay();
  const { did } = useHistory();
  const queries = useQueryClient();
  const [typed, type, forget] = useTyped(batch);
  const [trouble, setTrouble] = useState<Trouble | null>(null);
  const [busy, setBusy] = useState(false);
  const [isFilling, setIsFilling] = useState(() => typed.isPartByPart || filledOf(batch, typed).length > 0);
  const isPacked = batch.state === "packed";
  const there = batch.boxes.filter(({ state }) => state === "packed").length;

  const attempt = async (act: () => Promise<unknown>) => {
    setBusy(true);
    try {
      await act();
      setTrouble(null);
      return true;
    } catch (thrown) {
      const what = troubleOf(thrown, t("app:silent"));
      setTrouble(what.status === 412 ? { ...what, detail: t("stale") } : what);
      return false;
    } finally {
      setBusy(false);
      await freshen(queries, "batch");
    }
  };
  const headers = seen(batch.version);
  const portionCount = t("portionCount", { count: batch.portions });
  const body = orderOf(batch, typed);
  const make = (takesSum = false) =>
    attempt(async () => packBatch({ path: { id: batch.id }, headers, body: { ...body, takesSum } })).then(
      (made) => made && forget(),
    );
  const cooked = () => attempt(async () => cookPlanned({ path: { id: batch.id }, headers }));
  const unpack = () => attempt(async () => unpackBatch({ path: { id: batch.id }, headers }));
  const weigh = () =>
    attempt(async () =>
      weighBatch({
        path: { id: batch.id },
        headers,
        body: { fullGrams: body.fullGrams, panGrams: body.panGrams },
      }),
    ).then((done) => done && say(t("weighed", { name: batch.name })));
  const discard = () => {
    let version = 0;
    return attempt(async () => {
      version = (await discardBatch({ path: { id: batch.id }, headers })).data!.version;
    }).then((done) => {
      if (!done) return;
      forget();
      did(t("discarded", { name: batch.name }), async () => {
        await restoreBatch({ path: { id: batch.id }, headers: seen(version) });
        void go(`/pack/${batch.id}`);
      });
      void go("/pack");
    });
  };

  return (
    <>
      <Header
        actions={
          (!isPacked || there > 0) && (
            <Link to={`/labels?batch=${batch.id}`} className="btn">
              <Tag size={16} aria-hidden /> {t("labels")}
            </Link>
          )
        }
      >
        <Link to="/pack" aria-label={t("back")} title={t("back")} className="btn border-0 px-1">
          <ArrowLeft size={20} aria-hidden />
        </Link>
        <Mark letters={batch.letters} tint={batch.tint} className="h-8 w-10 text-sm" />
        <h1 className="text-lg">{batch.name}</h1>
        <span className="text-sm text-soft">
          {t(
            batch.state !== "planned" ? "cookedOn" : batch.together.isPutTogether ? "together.on" : "cookOn",
            { day: shortDay(batch.cookedOn) },
          )}
        </span>
      </Header>
      <main className="min-h-0 flex-1 overflow-auto p-4">
        <GoesInto batch={batch} />
        {isPacked ? (
          <div className="max-w-5xl">
            <div className="no-print mb-4 flex flex-wrap items-center gap-3">
              <h2 className="text-xl">
                {t("made", { count: batch.boxes.length })}
                {there < batch.boxes.length && (
                  <span className="ml-2 text-sm font-normal text-soft">{t("still", { count: there })}</span>
                )}
              </h2>
              {there > 0 && (
                <Link to="/plan" className="btn-next">
                  {t("lay")}
                </Link>
              )}
              {there === batch.boxes.length && (
                <button className="btn" disabled={busy} onClick={() => void unpack()}>
                  {t("unpack")}
                </button>
              )}
            </div>
            <Sentence>{trouble?.detail}</Sentence>
            <Boxes batch={batch} />
          </div>
        ) : batch.together.isPutTogether && isFilling && typed.isPartByPart ? (
          <PartByPart
            batch={batch}
            typed={typed}
            type={type}
            trouble={trouble}
            busy={busy}
            onMake={() => void make()}
            onBack={() => setIsFilling(false)}
            onWeighed={async () => {
              await freshen(queries, "batch");
              await queries.invalidateQueries(all("preview"));
            }}
          />
        ) : batch.together.isPutTogether ? (
          <Together
            batch={batch}
            typed={typed}
            type={type}
            trouble={trouble}
            busy={busy}
            onMake={() => void make()}
            onDiscard={() => void discard()}
            onFill={() => setIsFilling(true)}
          />
        ) : batch.state === "planned" ? (
          <div className="max-w-2xl space-y-4">
            <p>
              {t("aheadText", {
                day: longDay(batch.cookedOn),
                portions: portionCount,
                grams: grams(Math.round(batch.expectedGrams ?? 0)),
              })}
            </p>
            <button className="btn-next min-h-11 px-5" disabled={busy} onClick={() => void cooked()}>
              {t("cooked")}
            </button>
            <Sentence>{trouble?.detail}</Sentence>
            <button
              className="block min-h-6 text-xs text-soft underline"
              disabled={busy}
              onClick={() => void discard()}
            >
              {t("discard")}
            </button>
          </div>
        ) : isFilling && typed.by !== "pieces" && typed.by !== "squares" ? (
          <Filling
            batch={batch}
            typed={typed}
            type={type}
            trouble={trouble}
            busy={busy}
            onMake={(takesSum) => void make(takesSum)}
            onBack={() => setIsFilling(false)}
          />
        ) : (
          <Weighing
            batch={batch}
            typed={typed}
            type={type}
            trouble={trouble}
            busy={busy}
            onMake={() => void make()}
            onWeigh={() => void weigh()}
            onDiscard={() => void discard()}
            onFill={() => setIsFilling(true)}
          />
        )}
        {batch.state !== "planned" && <WentIn id={batch.id} />}
        <Caution code="cool-fast" />
      </main>
    </>
  );
}
