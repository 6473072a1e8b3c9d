import { keepPreviousData, useQuery, useQueryClient } from "@tanstack/react-query";
import { ArrowLeft, Minus, Plus, Printer } from "lucide-react";
import { useId, useState, type ReactNode } from "react";
import { useTranslation } from "react-i18next";
import { Link, useNavigate, useParams } from "react-router";
import {
  discardBatch,
  getBatch,
  packBatch,
  previewBoxes,
  seen,
  sentenceFor,
  troubleOf,
  unpackBatch,
  type BatchView,
  type Trouble,
} from "../../api";
import { Header, useCurrentEater } from "../../app/Header";
import { useSay } from "../../app/notices";
import { useKitchen } from "../../app/kitchen";
import { Amount } from "../../ui/Figures";
import { exact, grams, shortDay, wholeNumber } from "../../ui/format";
import { Failed, Loading, Sentence } from "../../ui/states";
import { Mark } from "../../ui/Tape";
import { useSettled } from "../../ui/useSettled";
import { Labels } from "./Labels";

export default function PackBench() {
  const { id } = useParams();
  const { data, error, refetch } = useQuery({
    queryKey: ["batch", id],
    queryFn: async () => (await getBatch({ path: { id: id! } })).data!,
  });
  if (error && !data) return <Failed error={error} retry={() => void refetch()} />;
  return data ? <Bench key={data.id} batch={data} /> : <Loading />;
}

interface Typed {
  full: string;
  pan: string;
  boxes: string;
  pieces: string;
  byPieces: boolean;
}

/** What is typed on the bench is kept in the browser until the boxes are made: a reload loses no weight. */
function useTyped(batch: BatchView): [Typed, (change: Partial<Typed>) => void, () => void] {
  const key = `tern.pack.${batch.id}`;
  const [typed, setTyped] = useState<Typed>(() => {
    const start = {
      full: "",
      pan: batch.rememberedPanGrams === null ? "" : String(batch.rememberedPanGrams),
      boxes: String(batch.portions),
      pieces: "",
      byPieces: false,
    };
    try {
      return { ...start, ...(JSON.parse(localStorage.getItem(key) ?? "{}") as Partial<Typed>) };
    } catch {
      return start;
    }
  });
  const change = (part: Partial<Typed>) => {
    const next = { ...typed, ...part };
    localStorage.setItem(key, JSON.stringify(next));
    setTyped(next);
  };
  return [typed, change, () => localStorage.removeItem(key)];
}

const number = (typed: string) => {
  const value = Number(typed.trim().replace(",", "."));
  return typed.trim() !== "" && Number.isFinite(value) ? value : null;
};
const whole = (typed: string) => (/^-?\d{1,9}$/.test(typed.trim()) ? Number(typed) : null);

function Bench({ batch }: { batch: BatchView }) {
  const { t } = useTranslation("pack");
  const go = useNavigate();
  const say = useSay();
  const queries = useQueryClient();
  const [typed, type, forget] = useTyped(batch);
  const [trouble, setTrouble] = useState<Trouble | null>(null);
  const [busy, setBusy] = useState(false);
  const isPacked = batch.boxes.length > 0;

  const fresh = () =>
    Promise.all(
      ["batch", "batches", "week", "overview"].map((key) => queries.invalidateQueries({ queryKey: [key] })),
    );
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
      await fresh();
    }
  };
  const headers = seen(batch.version);
  const body = {
    fullGrams: number(typed.full) ?? 0,
    panGrams: number(typed.pan) ?? 0,
    boxes: whole(typed.boxes) ?? 0,
    pieces: typed.byPieces ? (whole(typed.pieces) ?? 0) : null,
  };
  const make = () =>
    attempt(async () => packBatch({ path: { id: batch.id }, headers, body })).then(
      (made) => made && forget(),
    );
  const unpack = () => attempt(async () => unpackBatch({ path: { id: batch.id }, headers }));
  const discard = () =>
    attempt(async () => discardBatch({ path: { id: batch.id }, headers })).then((done) => {
      if (!done) return;
      forget();
      say(t("discarded", { name: batch.name }));
      void go("/pack");
    });

  return (
    <>
      <Header
        actions={
          isPacked && (
            <button className="btn" onClick={() => window.print()}>
              <Printer size={16} aria-hidden /> {t("print")}
            </button>
          )
        }
      >
        <Link to="/pack" aria-label={t("back")} title={t("back")} className="btn border-0 px-1">
          <ArrowLeft size={20} aria-hidden />
        </Link>
        <Mark letters={batch.letters} tint={batch.tint} className="h-8 w-10 text-sm" />
        <h1 className="text-lg">{batch.name}</h1>
        <span className="text-sm text-soft">{t("cookedOn", { day: shortDay(batch.cookedOn) })}</span>
      </Header>
      <main className="min-h-0 flex-1 overflow-auto p-4">
        {isPacked ? (
          <div className="max-w-5xl">
            <div className="no-print mb-4 flex flex-wrap items-center gap-3">
              <h2 className="text-xl">{t("made", { count: batch.boxes.length })}</h2>
              <Link to="/plan" className="btn-next">
                {t("lay")}
              </Link>
              <button className="btn" disabled={busy} onClick={() => void unpack()}>
                {t("unpack")}
              </button>
            </div>
            <Sentence>{trouble?.detail}</Sentence>
            <Labels
              batch={batch}
              boxes={batch.boxes.map(({ number: n, grams: g, pieces }) => ({ number: n, grams: g, pieces }))}
            />
          </div>
        ) : (
          <Weighing
            batch={batch}
            typed={typed}
            type={type}
            trouble={trouble}
            body={body}
            busy={busy}
            onMake={() => void make()}
            onDiscard={() => void discard()}
          />
        )}
        <Caution />
      </main>
    </>
  );
}

interface WeighingProps {
  batch: BatchView;
  typed: Typed;
  type: (change: Partial<Typed>) => void;
  trouble: Trouble | null;
  body: { fullGrams: number; panGrams: number; boxes: number; pieces: number | null };
  busy: boolean;
  onMake: () => void;
  onDiscard: () => void;
}

/** The pan on the scale, and what it comes to in each box, worked out with each key. */
function Weighing({ batch, typed, type, trouble, body, busy, onMake, onDiscard }: WeighingProps) {
  const { t } = useTranslation("pack");
  const eater = useCurrentEater();
  const { lens } = useKitchen();
  const isTyped = number(typed.full) !== null;
  const asked = useSettled(JSON.stringify(body), 120);
  const { data: preview, error } = useQuery({
    queryKey: ["preview", batch.id, asked, eater],
    queryFn: async () =>
      (
        await previewBoxes({
          path: { id: batch.id },
          query: { eaterId: eater ?? undefined },
          body: JSON.parse(asked),
        })
      ).data!,
    enabled: isTyped,
    placeholderData: keepPreviousData,
    retry: false,
  });
  const wrong = error ? troubleOf(error, t("app:silent")) : trouble;
  const at = (field: string) => (isTyped && wrong ? sentenceFor(wrong, field) : undefined);
  const general = wrong && !wrong.errors ? wrong.detail : undefined;
  const good = isTyped && !error && preview ? preview : null;
  const count = whole(typed.boxes) ?? 0;

  return (
    <div className="max-w-5xl">
      <div className="panel grid gap-x-6 gap-y-4 p-4 sm:grid-cols-2 lg:grid-cols-[1.2fr_1fr_1.2fr]">
        <Weight
          label={t("full")}
          value={typed.full}
          problem={at("fullGrams")}
          autoFocus
          onType={(full) => type({ full })}
        />
        <Weight
          label={t("pan")}
          value={typed.pan}
          problem={at("panGrams")}
          hint={
            batch.rememberedPanGrams === null
              ? undefined
              : t("remembered", { grams: grams(batch.rememberedPanGrams) })
          }
          onType={(pan) => type({ pan })}
        />
        <div aria-live="polite">
          <p className="text-sm text-soft">{t("inPan")}</p>
          <p className="font-title text-[2.75rem] leading-tight font-bold">
            {good ? grams(good.cookedGrams) : "–"} <span className="text-base font-normal text-soft">g</span>
          </p>
          {good && (
            <p className="text-sm text-soft">
              {exact(good.yield)} {t("yield")} · {t("gram")} {exact(good.kcalPerGram.value)} kcal
            </p>
          )}
        </div>
      </div>
      <div className="mt-4 flex flex-wrap items-end gap-4">
        <div role="group" aria-label={t("divide")} className="flex flex-wrap items-center gap-2">
          <span className="font-title font-bold">{t("divide")}</span>
          {([false, true] as const).map((byPieces) => (
            <button
              key={String(byPieces)}
              aria-pressed={typed.byPieces === byPieces}
              className={`btn ${typed.byPieces === byPieces ? "bg-ink text-ground" : ""}`}
              onClick={() => type({ byPieces })}
            >
              {t(byPieces ? "byPieces" : "byWeight")}
            </button>
          ))}
        </div>
        {typed.byPieces && (
          <Count
            label={t("pieces")}
            value={typed.pieces}
            problem={at("pieces")}
            onType={(pieces) => type({ pieces })}
          />
        )}
        <div className="flex items-end gap-1">
          <button
            className="btn px-2"
            aria-label={t("fewer")}
            onClick={() => type({ boxes: String(Math.max(1, count - 1)) })}
          >
            <Minus size={16} aria-hidden />
          </button>
          <Count
            label={t("boxesLabel")}
            value={typed.boxes}
            problem={at("portions")}
            onType={(boxes) => type({ boxes })}
          />
          <button
            className="btn px-2"
            aria-label={t("more")}
            onClick={() => type({ boxes: String(count + 1) })}
          >
            <Plus size={16} aria-hidden />
          </button>
        </div>
      </div>
      <Sentence>{general}</Sentence>
      {good ? (
        <>
          <p className="mt-5 font-title text-huge leading-none font-bold">
            {wholeNumber(good.portions[0] ?? 0)}{" "}
            <span className="text-lg font-normal text-soft">
              g {t(new Set(good.portions).size > 1 ? "eachAbout" : "each")}
            </span>
          </p>
          <p className="mt-2 mb-4">
            <Amount measure={lens} figure={good.figures[lens]} className="text-lg font-bold" /> ·{" "}
            <Amount
              measure={lens === "energy" ? "protein" : "energy"}
              figure={good.figures[lens === "energy" ? "protein" : "energy"]}
            />{" "}
            <span className="text-sm text-soft">{lens === "energy" ? t("app:measures.protein") : ""}</span> ·{" "}
            <span className="text-sm text-soft">
              {t("sums", {
                boxes: good.portions.length,
                grams: grams(Math.round(good.portions.reduce((sum, portion) => sum + portion, 0) * 10) / 10),
              })}
            </span>
            {good.overPieces > 0 && <b className="ml-2">{t("over", { count: good.overPieces })}</b>}
          </p>
          <button className="btn-next min-h-11 px-5 text-base" disabled={busy} onClick={onMake}>
            {busy ? t("making") : t("make", { count: good.portions.length })}
          </button>
          <div className="mt-5">
            <Labels
              batch={batch}
              boxes={good.portions.map((portion, i) => ({
                number: i + 1,
                grams: portion,
                pieces: good.pieces?.[i] ?? null,
              }))}
              faint
            />
          </div>
        </>
      ) : (
        !isTyped && <p className="mt-5 text-soft">{t("first")}</p>
      )}
      <button className="mt-6 min-h-6 text-xs text-soft underline" disabled={busy} onClick={onDiscard}>
        {t("discard")}
      </button>
    </div>
  );
}

function Weight({
  label,
  value,
  problem,
  hint,
  autoFocus,
  onType,
}: {
  label: string;
  value: string;
  problem?: string;
  hint?: string;
  autoFocus?: boolean;
  onType: (value: string) => void;
}) {
  const id = useId();
  return (
    <div>
      <label htmlFor={id} className="text-sm text-soft">
        {label}
      </label>
      <p className="flex items-baseline gap-2">
        <input
          id={id}
          inputMode="decimal"
          autoFocus={autoFocus}
          aria-invalid={problem !== undefined}
          className={`field w-full min-w-0 font-title text-[2.75rem] leading-tight font-bold ${problem ? "border-2 border-brick" : ""}`}
          value={value}
          maxLength={12}
          onChange={(event) => onType(event.target.value)}
        />
        <span className="text-soft">g</span>
      </p>
      {hint && <p className="text-xs text-soft">{hint}</p>}
      <Sentence>{problem}</Sentence>
    </div>
  );
}

function Count({
  label,
  value,
  problem,
  onType,
}: {
  label: string;
  value: string;
  problem?: string;
  onType: (value: string) => void;
}): ReactNode {
  const id = useId();
  return (
    <div>
      <label htmlFor={id} className="block text-xs text-soft">
        {label}
      </label>
      <input
        id={id}
        inputMode="numeric"
        className={`field w-20 text-center font-title text-lg font-bold ${problem ? "border-2 border-brick" : ""}`}
        value={value}
        maxLength={6}
        onChange={(event) => onType(event.target.value)}
      />
      <Sentence>{problem}</Sentence>
    </div>
  );
}

function Caution() {
  const { t } = useTranslation("pack");
  return (
    <aside className="no-print mt-8 max-w-xl border-t border-rim pt-2 text-sm">
      <h2 className="text-sm">{t("caution")}</h2>
      <p>
        {t("cautionText")} <span className="text-xs text-soft">{t("cautionSource")}</span>
      </p>
    </aside>
  );
}
