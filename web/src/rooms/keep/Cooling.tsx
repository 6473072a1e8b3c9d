import { keepPreviousData, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import {
  calcCoolingBoxes,
  getCooling,
  removeTemperature,
  takeTemperature,
  troubleOf,
  type CoolingBatchView,
  type CoolingPlace,
  type StagesView,
} from "../../api";
import { useWords } from "../../app/i18n";
import { useSay } from "../../app/notices";
import { all, queryKeys } from "../../app/queryKeys";
import { useDevices, useLive } from "../../devices/useDevices";
import { Caution, useCautions } from "../../ui/Caution";
import { clock, oneDecimal, shortDay } from "../../ui/format";
import { numberIn, sentNumber } from "../../ui/numbers";
import { Failed, Loading, Sentence } from "../../ui/states";
import { Mark } from "../../ui/Tape";
import { useSettled } from "../../ui/useSettled";
import { CoolingChart } from "./CoolingChart";

const places: CoolingPlace[] = ["counter", "fridge", "iceWater"];
const everyMinute = 60_000;

/** What was cooked lately, while it cools: its temperatures against the two-stage limits, and what splitting it would gain. */
export function Cooling() {
  const { t } = useWords("keep");
  const { data, error, refetch } = useQuery({
    queryKey: queryKeys.cooling(),
    queryFn: async () => (await getCooling()).data!,
  });
  const [place, setPlace] = useState<CoolingPlace>("counter");
  const [ambient, setAmbient] = useState("");
  const [depth, setDepth] = useState("");
  const { isPending: isReading } = useCautions();
  if (error && !data) return <Failed error={error} retry={() => void refetch()} />;
  if (!data || isReading) return <Loading />;
  return (
    <div className="grid max-w-6xl items-start gap-6 p-4 lg:grid-cols-[minmax(0,1fr)_340px]">
      <div className="min-w-0">
        <h2 className="text-lg">{t("cooling.title")}</h2>
        <p className="mb-3 text-sm text-soft">{t("cooling.text")}</p>
        <Caution code="cool-fast" />
        <Caution code={place === "fridge" ? "fridge-cold" : "two-hours"} />
        <div className="mb-4 flex flex-wrap items-end gap-3">
          <div role="group" aria-label={t("cooling.place")} className="flex flex-wrap items-center gap-1">
            <span className="text-sm text-soft">{t("cooling.place")}</span>
            {places.map((one) => (
              <button
                key={one}
                className={`btn ${one === place ? "bg-ink text-ground" : ""}`}
                aria-pressed={one === place}
                onClick={() => setPlace(one)}
              >
                {t(`cooling.places.${one}`)}
              </button>
            ))}
          </div>
          <Number
            label={t("cooling.ambient")}
            unit="°C"
            hint={String(data.ambients[place])}
            value={ambient}
            change={setAmbient}
          />
          <Number label={t("cooling.depth")} unit="cm" value={depth} change={setDepth} />
        </div>
        {data.batches.length === 0 && <p className="text-soft">{t("cooling.none")}</p>}
        <ul className="space-y-6">
          {data.batches.map((batch) => (
            <OneBatch key={batch.batchId} batch={batch} place={place} ambient={ambient} depth={depth} />
          ))}
        </ul>
      </div>
      <Split place={place} ambient={ambient} depth={depth} />
    </div>
  );
}

function Number({
  label,
  unit,
  hint,
  value,
  change,
}: {
  label: string;
  unit: string;
  hint?: string;
  value: string;
  change: (value: string) => void;
}) {
  const read = numberIn(value);
  const isWrong = read !== null && !globalThis.Number.isFinite(read);
  return (
    <label className="text-sm">
      <span className="block text-xs text-soft">{label}</span>
      <input
        className={`field w-20 text-right ${isWrong ? "border-brick" : ""}`}
        inputMode="decimal"
        aria-invalid={isWrong}
        placeholder={hint}
        value={value}
        onChange={(event) => change(event.target.value)}
      />{" "}
      <span className="text-xs text-soft">{unit}</span>
    </label>
  );
}

function OneBatch({
  batch,
  place,
  ambient,
  depth,
}: {
  batch: CoolingBatchView;
  place: CoolingPlace;
  ambient: string;
  depth: string;
}) {
  const { t } = useWords("keep");
  const say = useSay();
  const queries = useQueryClient();
  const [typed, setTyped] = useState("");
  const [trouble, setTrouble] = useState<string | null>(null);
  const [isLogged, setIsLogged] = useState(false);
  const devices = useDevices().data;
  const probe = useLive(devices?.hasProbe ?? false).probe;
  const shown = probe && Math.round(probe.celsius * 10) / 10;

  const note = async (celsius: number) => {
    try {
      await takeTemperature({
        path: { batchId: batch.batchId },
        body: {
          celsius,
          place,
          ambientCelsius: sentNumber(ambient),
          depthCm: sentNumber(depth),
        },
      });
      setTrouble(null);
      setTyped("");
    } catch (thrown) {
      setTrouble(troubleOf(thrown, t("app:silent")).detail ?? "");
      setIsLogged(false);
    } finally {
      await queries.invalidateQueries(all("cooling"));
    }
  };
  const latest = useRef<() => void>(() => undefined);
  useEffect(() => {
    latest.current = () => void (shown !== null && note(shown));
  });
  useEffect(() => {
    if (!isLogged) return;
    latest.current();
    const timer = window.setInterval(() => latest.current(), everyMinute);
    return () => window.clearInterval(timer);
  }, [isLogged]);
  const remove = async (id: string, label: string) => {
    try {
      await removeTemperature({ path: { id } });
      say(label);
    } catch (thrown) {
      say(troubleOf(thrown, t("app:silent")).detail ?? "", { trouble: true });
    } finally {
      await queries.invalidateQueries(all("cooling"));
    }
  };
  const read = numberIn(typed);
  return (
    <li className="border-t border-rim pt-3">
      <h3 className="mb-2 flex flex-wrap items-center gap-2 text-base">
        <Mark letters={batch.letters} tint={batch.tint} className="h-7 w-9 text-xs" />
        {batch.name}
        <span className="text-sm font-normal text-soft">
          {t("cooling.batch", { day: shortDay(batch.cookedOn) })}
        </span>
      </h3>
      <form
        className="flex flex-wrap items-end gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          if (read !== null) void note(globalThis.Number.isFinite(read) ? read : 999);
        }}
      >
        <Number label={t("cooling.temperature")} unit="°C" value={typed} change={setTyped} />
        <button className="btn" disabled={read === null}>
          {t("cooling.note")}
        </button>
        {shown !== null && (
          <>
            <button type="button" className="btn" onClick={() => void note(shown)}>
              {t("cooling.probe", { celsius: oneDecimal(shown) })}
            </button>
            <label className="flex min-h-9 items-center gap-2 text-sm max-md:min-h-11">
              <input
                type="checkbox"
                checked={isLogged}
                onChange={(event) => setIsLogged(event.target.checked)}
              />
              {t("cooling.log")}
            </label>
          </>
        )}
      </form>
      <Sentence>{trouble}</Sentence>
      {batch.stages && <Stages stages={batch.stages} isAbout={!batch.isCold} />}
      {batch.isCold && <p className="mt-1 text-sm font-semibold">{t("cooling.cold")}</p>}
      {batch.readings.length > 0 && !batch.stages && <p className="mt-1 text-sm">{t("cooling.one")}</p>}
      {batch.course.length > 0 && <CoolingChart batch={batch} />}
      {batch.readings.length > 0 && (
        <details className="mt-1 text-sm" open={batch.readings.length < 4}>
          <summary className="min-h-6">{t("cooling.readings")}</summary>
          <ul>
            {batch.readings.map(({ id, at, celsius, place: where }) => (
              <li key={id} className="flex items-center gap-3">
                {t("cooling.reading", {
                  celsius: oneDecimal(celsius),
                  time: clock(at),
                  place: t(`cooling.places.${where}`),
                })}
                <button
                  className="link min-h-6 text-xs max-md:min-h-11"
                  aria-label={t("cooling.remove", { celsius: oneDecimal(celsius), time: clock(at) })}
                  onClick={() => void remove(id, t("cooling.removed", { celsius: oneDecimal(celsius) }))}
                >
                  {t("cooling.removeIt")}
                </button>
              </li>
            ))}
          </ul>
        </details>
      )}
    </li>
  );
}

/** When it is down to 21 and to 5 °C, against what it may take. */
function Stages({ stages, isAbout }: { stages: StagesView; isAbout: boolean }) {
  const { t } = useWords("keep");
  const said = useDuration();
  return (
    <ul className="mt-2 space-y-1 text-sm">
      {([stages.first, stages.second] as const).map((stage, i) => (
        <li key={i} className="flex flex-wrap items-baseline gap-x-3">
          <b className="w-14">{t(i === 0 ? "cooling.first" : "cooling.second")}</b>
          <span>
            {stage.minutes === null
              ? t("cooling.never")
              : isAbout
                ? t("cooling.about", { time: said(stage.minutes) })
                : said(stage.minutes)}
          </span>
          <b className={stage.holds ? "" : "text-brick"}>
            {!stage.holds && <span aria-hidden className="hatched mr-1 inline-block h-3 w-1.5" />}
            {t(stage.holds ? "cooling.holds" : "cooling.fails")}
          </b>
          <span className="text-xs text-soft">
            {t("cooling.within", { time: said(stage.withinMinutes) })}
          </span>
        </li>
      ))}
      <li className="text-xs text-soft">{stages.source}</li>
    </ul>
  );
}

function useDuration() {
  const { t } = useWords("keep");
  return (all: number) => {
    const minutes = Math.round(all);
    return minutes < 60
      ? t("cooling.minutes", { minutes })
      : t("cooling.hours", {
          hours: Math.floor(minutes / 60),
          minutes: String(minutes % 60).padStart(2, "0"),
        });
  };
}

/** How long it would take in one box, in two, in three: before anything is measured. */
function Split({ place, ambient, depth }: { place: CoolingPlace; ambient: string; depth: string }) {
  const { t } = useWords("keep");
  const said = useDuration();
  const [start, setStart] = useState("60");
  const [grams, setGrams] = useState("");
  const [length, setLength] = useState("");
  const [width, setWidth] = useState("");
  const asked = useSettled(
    JSON.stringify({
      celsius: sentNumber(start) ?? 60,
      place,
      depthCm: sentNumber(depth),
      grams: sentNumber(grams),
      lengthCm: sentNumber(length),
      widthCm: sentNumber(width),
      ambientCelsius: ambient.trim() === "" ? null : sentNumber(ambient),
    }),
    200,
  );
  const body = JSON.parse(asked) as Parameters<typeof calcCoolingBoxes>[0]["body"];
  const isAsked =
    body.depthCm !== null || (body.grams !== null && body.lengthCm !== null && body.widthCm !== null);
  const { data, error } = useQuery({
    queryKey: queryKeys.coolingBoxes(asked),
    queryFn: async () => (await calcCoolingBoxes({ body })).data!,
    enabled: isAsked,
    retry: false,
    placeholderData: keepPreviousData,
  });
  const last = data?.choices.at(-1);
  return (
    <section aria-labelledby="split-title" className="panel p-4">
      <h2 id="split-title" className="text-base">
        {t("cooling.split")}
      </h2>
      <p className="mb-3 text-sm text-soft">
        {t("cooling.splitText", { celsius: start || "60", place: t(`cooling.places.${place}`) })}
      </p>
      <div className="flex flex-wrap items-end gap-3">
        <Number label={t("cooling.start")} unit="°C" value={start} change={setStart} />
        <Number label={t("cooling.grams")} unit="g" value={grams} change={setGrams} />
        <Number label={t("cooling.length")} unit="cm" value={length} change={setLength} />
        <Number label={t("cooling.width")} unit="cm" value={width} change={setWidth} />
      </div>
      {!isAsked ? (
        <p className="mt-3 text-sm text-soft">{t("cooling.ask")}</p>
      ) : error ? (
        <Sentence>{troubleOf(error, t("app:silent")).detail}</Sentence>
      ) : (
        data && (
          <>
            <table className="mt-3 w-full text-sm">
              <thead>
                <tr className="border-b border-rim text-left text-xs">
                  <th className="py-1 text-left">{t("cooling.howMany")}</th>
                  <th className="py-1 text-right">{t("cooling.first")}</th>
                  <th className="py-1 text-right">{t("cooling.second")}</th>
                  <td />
                </tr>
              </thead>
              <tbody>
                {data.choices.map(({ boxes, depthCm, stages }) => (
                  <tr key={boxes} className="border-b border-line">
                    <th className="py-1 text-left font-normal">
                      {t("cooling.boxes", { count: boxes })}
                      <span className="block text-xs text-soft">
                        {t("cooling.deep", { cm: oneDecimal(depthCm) })}
                      </span>
                    </th>
                    {[stages.first, stages.second].map((stage, i) => (
                      <td key={i} className="py-1 text-right whitespace-nowrap">
                        {stage.minutes === null ? t("cooling.never") : said(stage.minutes)}
                      </td>
                    ))}
                    <td className={`py-1 pl-2 ${stages.hold ? "" : "text-brick"}`}>
                      {!stages.hold && <span aria-hidden className="hatched mr-1 inline-block h-3 w-1.5" />}
                      {t(stages.hold ? "cooling.holds" : "cooling.fails")}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
            <p className="mt-2 text-sm font-semibold">
              {last?.stages.hold
                ? last.boxes === 1
                  ? t("cooling.fine")
                  : t("cooling.advice", { count: last.boxes })
                : t("cooling.noWay", { count: data.choices.length })}
            </p>
          </>
        )
      )}
    </section>
  );
}
