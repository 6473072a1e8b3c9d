import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { ArrowLeft, Download, Printer } from "lucide-react";
import { useState } from "react";
import { Link, useSearchParams } from "react-router";
import {
  drawLabels,
  getBatch,
  labelsAsPdf,
  listLabelPapers,
  sentenceFor,
  troubleOf,
  type BatchView,
  type LabelPaperView,
  type LabelsRequest,
  type LabelsView,
} from "../../../api";
import { Header } from "../../../app/Header";
import { addWords, useWords } from "../../../app/i18n";
import { useSay } from "../../../app/notices";
import { queryKeys } from "../../../app/queryKeys";
import { useDevices } from "../../../devices/useDevices";
import { wholeIn } from "../../../ui/numbers";
import { Empty, Failed, lacking, Loading, Sentence } from "../../../ui/states";
import { useSettled } from "../../../ui/useSettled";
import { orderOf, useTyped } from "../typed";
import { pack } from "../words";
import { DishNotes } from "./DishNotes";
import { PrinterPanel } from "./PrinterPanel";
import { labels } from "./words";

addWords("pack", pack);
addWords("labels", labels);

/** Labels of a batch's boxes, filled or still to be, or of any boxes: `?batch=` or `?boxes=`. */
export default function LabelsPage() {
  const [search] = useSearchParams();
  const batchId = search.get("batch");
  const ids = (search.get("boxes") ?? "").split(",").filter(Boolean);
  const batch = useQuery({
    queryKey: queryKeys.batch(batchId ?? undefined),
    queryFn: async () => (await getBatch({ path: { id: batchId! } })).data!,
    enabled: batchId !== null,
  });
  const papers = useQuery({
    queryKey: queryKeys.labelPapers(),
    queryFn: async () => (await listLabelPapers()).data!,
    staleTime: Infinity,
  });
  const devices = useDevices();
  const { t } = useWords("labels");
  const missing = lacking(papers, devices, ...(batchId ? [batch] : []));
  if (missing) return <Failed isPage {...missing} />;
  if (!papers.data || !devices.data || (batchId && !batch.data)) return <Loading isPage />;
  if (batch.data && batch.data.state !== "packed")
    return <Ahead batch={batch.data} papers={papers.data} hasPrinter={devices.data.hasPrinter} />;
  const own = batch.data?.boxes.filter(({ state }) => state === "packed" || state === "partEaten");
  if ((own?.map(({ id }) => id) ?? ids).length === 0)
    return (
      <Empty isPage title={t("nothing")}>
        <p>{t("nothingText")}</p>
        <Link to="/keep" className="btn-next">
          {t("toKeep")}
        </Link>
      </Empty>
    );
  return (
    <Sheet
      papers={papers.data}
      hasPrinter={devices.data.hasPrinter}
      batch={batch.data ?? null}
      boxes={own?.map(({ id, number, name }) => ({ id, number, name })) ?? null}
      what={{ boxIds: own?.map(({ id }) => id) ?? ids }}
    />
  );
}

/** Labels of the boxes that the bench, as it is typed, would fill. */
function Ahead({
  batch,
  papers,
  hasPrinter,
}: {
  batch: BatchView;
  papers: LabelPaperView[];
  hasPrinter: boolean;
}) {
  const [typed] = useTyped(batch);
  return (
    <Sheet
      papers={papers}
      hasPrinter={hasPrinter}
      batch={batch}
      boxes={null}
      what={{ batchId: batch.id, order: orderOf(batch, typed) }}
    />
  );
}

interface SheetProps {
  papers: LabelPaperView[];
  hasPrinter: boolean;
  batch: BatchView | null;
  /** Boxes to choose among; null where there is no choice. */
  boxes: { id: string; number: number; name: string | null }[] | null;
  what: Pick<LabelsRequest, "boxIds" | "batchId" | "order">;
}

const kept = (key: string, otherwise: string) => {
  try {
    return localStorage.getItem(key) ?? otherwise;
  } catch {
    return otherwise;
  }
};

function Sheet({ papers, hasPrinter, batch, boxes, what }: SheetProps) {
  const { t } = useWords("labels");
  const say = useSay();
  const [paper, setPaper] = useState(
    () => papers.find(({ code }) => code === kept("tern.labels.paper", "")) ?? papers[0]!,
  );
  const [from, setFrom] = useState("1");
  const [home, setHome] = useState(() => kept("tern.labels.home", window.location.origin));
  const [left, setLeft] = useState<string[]>([]);
  const ids = what.boxIds?.filter((id) => !left.includes(id)) ?? null;
  const wanted = JSON.stringify({
    paper: paper.code,
    boxIds: ids,
    batchId: what.batchId ?? null,
    order: what.order ?? null,
    from: paper.isStrip ? 1 : (wholeIn(from) ?? 0),
    home,
  } satisfies LabelsRequest);
  const settled = useSettled(wanted, 250);
  const asked = JSON.parse(settled) as LabelsRequest;
  const isNone = asked.boxIds?.length === 0;
  const drawn = useQuery({
    queryKey: queryKeys.labels(asked),
    queryFn: async () => (await drawLabels({ body: asked })).data!,
    placeholderData: keepPreviousData,
    enabled: !isNone,
    retry: false,
  });
  const trouble = drawn.error ? troubleOf(drawn.error, t("app:silent")) : null;
  const view = isNone || trouble ? null : drawn.data;
  // What is shown is what is asked for: until then it is not printed, or it would be on the paper before.
  const isReady = view != null && !drawn.isPlaceholderData && settled === wanted;
  const choose = (code: string) => {
    localStorage.setItem("tern.labels.paper", code);
    setPaper(papers.find((one) => one.code === code)!);
    setFrom("1");
  };
  const pdf = async () => {
    try {
      const { data } = await labelsAsPdf({ body: asked, parseAs: "blob" });
      save(URL.createObjectURL(data as unknown as Blob), "labels.pdf");
    } catch (thrown) {
      say(troubleOf(thrown, t("app:silent")).detail ?? "", { trouble: true });
    }
  };
  const isAhead = what.batchId !== undefined;
  const isOther = trouble && !sentenceFor(trouble, "from") && !sentenceFor(trouble, "home");
  return (
    <>
      <style>{`@media print { @page { size: ${paper.pageWidth}mm ${paper.pageHeight}mm; margin: 0; } }`}</style>
      <Header
        lens={false}
        undo={false}
        actions={
          <>
            <button className="btn" disabled={!isReady} onClick={() => void pdf()}>
              <Download size={16} aria-hidden /> {t("pdf")}
            </button>
            <button className="btn-next" disabled={!isReady} onClick={() => window.print()}>
              <Printer size={16} aria-hidden /> {t("print")}
            </button>
          </>
        }
      >
        <Link
          to={batch ? `/pack/${batch.id}` : "/keep"}
          aria-label={t("back")}
          title={t("back")}
          className="btn border-0 px-1"
        >
          <ArrowLeft size={20} aria-hidden />
        </Link>
        <h1 className="text-lg">{batch ? `${t("title")}: ${batch.name}` : t("title")}</h1>
        <span className="text-sm text-soft">
          {view && t("count", { count: view.labels })}
          {isAhead && ` ${t("ahead")}`}
        </span>
      </Header>
      <main className="min-h-0 flex-1 overflow-auto p-4 print:overflow-visible print:p-0">
        <div className="gap-6 lg:grid lg:grid-cols-[20rem_1fr] print:block">
          <div className="no-print mb-6 space-y-5">
            <div className="flex flex-wrap gap-3">
              <label className="min-w-0 grow">
                <span className="block text-sm font-semibold">{t("paper")}</span>
                <select
                  className="field w-full"
                  value={paper.code}
                  onChange={(event) => choose(event.target.value)}
                >
                  {[false, true].map((isStrip) => (
                    <optgroup key={String(isStrip)} label={t(isStrip ? "strips" : "sheets")}>
                      {papers
                        .filter((one) => one.isStrip === isStrip)
                        .map(({ code, name }) => (
                          <option key={code} value={code}>
                            {name}
                          </option>
                        ))}
                    </optgroup>
                  ))}
                </select>
              </label>
              {!paper.isStrip && (
                <label>
                  <span className="block text-sm font-semibold">{t("from")}</span>
                  <input
                    className="field w-20 text-right"
                    inputMode="numeric"
                    aria-describedby="from-text"
                    value={from}
                    onChange={(event) => setFrom(event.target.value)}
                  />
                </label>
              )}
            </div>
            {!paper.isStrip && (
              <p id="from-text" className="-mt-3 text-xs text-soft">
                {t("fromText")} <Sentence>{sentenceFor(trouble, "from")}</Sentence>
              </p>
            )}
            {boxes && boxes.length > 1 && <Which boxes={boxes} left={left} setLeft={setLeft} />}
            {batch && <DishNotes recipeId={batch.recipeId} name={batch.name} />}
            <label className="block">
              <span className="block text-sm font-semibold">{t("home")}</span>
              <input
                className="field w-full"
                inputMode="url"
                value={home}
                aria-describedby="home-text"
                onChange={(event) => {
                  localStorage.setItem("tern.labels.home", event.target.value);
                  setHome(event.target.value);
                }}
              />
              <span id="home-text" className="block text-xs text-soft">
                {sentenceFor(trouble, "home") ?? t(isLocal(home) ? "homeLocal" : "homeText")}
              </span>
            </label>
            {hasPrinter && (
              <PrinterPanel
                key={paper.code}
                body={asked}
                count={view?.labels ?? 0}
                isReady={isReady}
                isStrip={paper.isStrip}
              />
            )}
          </div>
          <div className="min-w-0">
            {isNone && <p className="text-soft">{t("none")}</p>}
            {isOther && <Sentence>{trouble.detail}</Sentence>}
            {!view && !isNone && !trouble && <Loading />}
            {view && view.gone > 0 && (
              <p className="no-print mb-2 text-sm">{t("gone", { count: view.gone })}</p>
            )}
            {view && <Pages view={view} paper={paper} />}
          </div>
        </div>
      </main>
    </>
  );
}

/** Which of a batch's boxes get a label. */
function Which({
  boxes,
  left,
  setLeft,
}: {
  boxes: NonNullable<SheetProps["boxes"]>;
  left: string[];
  setLeft: (left: string[]) => void;
}) {
  const { t } = useWords("labels");
  return (
    <fieldset>
      <legend className="text-sm font-semibold">
        {t("which")}{" "}
        <button className="link ml-2 min-h-6 text-sm max-md:min-h-11" onClick={() => setLeft([])}>
          {t("all")}
        </button>{" "}
        <button
          className="link ml-2 min-h-6 text-sm max-md:min-h-11"
          onClick={() => setLeft(boxes.map(({ id }) => id))}
        >
          {t("noBox")}
        </button>
      </legend>
      <div className="grid max-h-48 grid-cols-2 overflow-auto text-sm">
        {boxes.map(({ id, number, name }) => (
          <label key={id} className="flex min-h-8 items-center gap-2 max-md:min-h-11">
            <input
              type="checkbox"
              checked={!left.includes(id)}
              onChange={(event) =>
                setLeft(event.target.checked ? left.filter((one) => one !== id) : [...left, id])
              }
            />
            <span className="truncate">
              {t("box", { number })}
              {name && `, ${name}`}
            </span>
          </label>
        ))}
      </div>
    </fieldset>
  );
}

const firstPages = 6;
const pictureOf = (svg: string) => `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svg)}`;

/** The pages as they come out of a printer; all of them are printed, the first ones are shown. */
function Pages({ view, paper }: { view: LabelsView; paper: LabelPaperView }) {
  const { t } = useWords("labels");
  const [isAll, setIsAll] = useState(false);
  const isLong = view.pages.length > firstPages && !isAll;
  return (
    <>
      <ol className={paper.isStrip ? "grid gap-4 sm:grid-cols-2 print:block" : "space-y-6 print:space-y-0"}>
        {view.pages.map((svg, i) => (
          <li
            key={i}
            className={`break-after-page last:break-after-auto ${isLong && i >= firstPages ? "hidden print:block" : ""}`}
          >
            <img
              src={pictureOf(svg)}
              alt={t("page", { page: i + 1, pages: view.pages.length })}
              className="block w-full max-w-3xl border border-line bg-white print:max-w-none print:border-0"
              style={{ aspectRatio: `${paper.pageWidth} / ${paper.pageHeight}` }}
            />
            {(!paper.isStrip || view.pages.length <= firstPages) && (
              <a
                className="no-print link inline-block min-h-8 text-sm"
                href={pictureOf(svg)}
                download={`labels-${i + 1}.svg`}
              >
                {t("svg", { page: i + 1 })}
              </a>
            )}
          </li>
        ))}
      </ol>
      {isLong && (
        <button className="btn no-print mt-3" onClick={() => setIsAll(true)}>
          {t("morePages", { count: view.pages.length })}
        </button>
      )}
    </>
  );
}

function isLocal(home: string) {
  try {
    return ["localhost", "127.0.0.1", "[::1]"].includes(new URL(home).hostname);
  } catch {
    return false;
  }
}

function save(href: string, name: string) {
  const link = Object.assign(document.createElement("a"), { href, download: name });
  link.click();
  setTimeout(() => URL.revokeObjectURL(href), 10_000);
}
