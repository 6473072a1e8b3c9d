import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useWords } from "../../app/i18n";
import {
  mapImport,
  stopImport,
  takeImport,
  troubleOf,
  type ColumnUnit,
  type CsvMapping,
  type ImportView,
  type Nutrients,
} from "../../api";
import { exact, wholeNumber } from "../../ui/format";
import { Sentence } from "../../ui/states";
import { all } from "../../app/queryKeys";

type Nutrient = keyof Nutrients;
const nutrients: Nutrient[] = [
  "energy",
  "protein",
  "fat",
  "saturatedFat",
  "carbohydrate",
  "sugars",
  "fibre",
  "salt",
  "polyols",
  "alcohol",
];
const shown = ["energy", "protein", "fat", "carbohydrate", "fibre", "salt"] as const;
const unitsOf = (nutrient: Nutrient): ColumnUnit[] =>
  nutrient === "energy"
    ? ["kilocalorie", "kilojoule"]
    : nutrient === "salt"
      ? ["gram", "milligram", "sodiumGram", "sodiumMilligram"]
      : ["gram", "milligram"];

/** An import before and while it is taken in: what would be taken, what refused and why, what looks wrong. */
export function ImportPreview({ run, leave }: { run: ImportView; leave: () => void }) {
  const { t } = useWords("foods");
  const queries = useQueryClient();
  const [problem, setProblem] = useState<string>();
  const act = async (work: () => Promise<unknown>) => {
    try {
      setProblem(undefined);
      await work();
    } catch (thrown) {
      setProblem(troubleOf(thrown, t("app:silent")).detail ?? "");
    }
    await queries.invalidateQueries(all("import"));
  };
  const path = { id: run.id };
  const isBusy = run.state === "looking" || run.state === "taking";
  const reasonOf = (code: string) => {
    const known = t(`library.reason.${code}` as "library.reason.energy-off", { defaultValue: "" });
    return known || code;
  };

  return (
    <section className="mt-4 max-w-5xl">
      <h2 className="text-lg">{run.name}</h2>
      <p className="text-sm text-soft">
        {run.kind}
        {run.source !== run.name && ` · ${run.source}`}
      </p>
      {isBusy && (
        <div role="status" className="mt-4 max-w-xl">
          <p className="flex justify-between">
            <span>{t(run.state === "taking" ? "library.taking" : "library.looking")}</span>
            <b>{wholeNumber(run.progress * 100)} %</b>
          </p>
          <progress className="mt-1 h-3 w-full" value={run.progress} max={1} />
          <button className="btn mt-3" onClick={() => void act(() => stopImport({ path }))}>
            {t("library.stop")}
          </button>
        </div>
      )}
      {run.state === "failed" && (
        <div role="alert" className="mt-4 border-l-4 border-brick pl-4">
          <h3>{t("library.failed")}</h3>
          <p>{run.failure}</p>
          <button className="btn mt-3" onClick={leave}>
            {t("library.again")}
          </button>
        </div>
      )}
      {run.state === "ready" && run.report && (
        <>
          <p className="mt-4 text-sm text-soft">{t("library.preview")}</p>
          <dl className="mt-1 flex flex-wrap gap-x-10 gap-y-2">
            {(
              [
                ["willTake", run.report.taken],
                ["willRefuse", run.report.refused],
                ["willDoubt", run.report.doubtful],
              ] as const
            ).map(([word, count]) => (
              <div key={word}>
                <dd className="font-title text-xl font-bold">{wholeNumber(count)}</dd>
                <dt className="text-sm text-soft">{t(`library.${word}`)}</dt>
              </div>
            ))}
          </dl>
          {run.report.taken === 0 && <Sentence>{t("library.nothing")}</Sentence>}
          <p className="mt-4 flex gap-2">
            <button
              className="btn-next"
              disabled={run.report.taken === 0}
              onClick={() => void act(() => takeImport({ path }))}
            >
              {t("library.confirm", { count: run.report.taken })}
            </button>
            <button
              className="btn"
              onClick={() => {
                leave();
                void stopImport({ path });
              }}
            >
              {t("library.leave")}
            </button>
          </p>
        </>
      )}
      <Sentence>{problem}</Sentence>
      {run.headers && run.mapping && !isBusy && (
        <Mapping
          key={JSON.stringify(run.mapping)}
          headers={run.headers}
          first={run.firstRows?.[0] ?? []}
          mapping={run.mapping}
          onLook={(mapping) => void act(() => mapImport({ path, body: mapping }))}
        />
      )}
      {run.state === "ready" && run.report && (
        <>
          {Object.keys(run.report.reasons).length > 0 && (
            <div className="counted">
              <h3 className="mt-6 text-base">{t("library.reasons")}</h3>
              <ul className="text-sm">
                {Object.entries(run.report.reasons).map(([reason, count]) => (
                  <li key={reason} className="flex max-w-xl justify-between border-b border-line py-0.5">
                    <span>{reasonOf(reason)}</span> <span>{wholeNumber(count)}</span>
                  </li>
                ))}
              </ul>
            </div>
          )}
          {run.report.refusals.length > 0 && (
            <details className="mt-4" open={run.report.taken === 0}>
              <summary className="font-title font-bold">{t("library.refused")}</summary>
              <ul className="text-sm">
                {run.report.refusals.map(({ row, why }) => (
                  <li key={row}>
                    <span className="text-soft">{t("library.row", { row })}:</span> {why}
                  </li>
                ))}
              </ul>
            </details>
          )}
          {run.report.doubtfulRows.length > 0 && (
            <details className="counted mt-4">
              <summary className="font-title font-bold">{t("library.doubtful")}</summary>
              <ul className="text-sm">
                {run.report.doubtfulRows.map(({ row, name, doubts }) => (
                  <li key={row}>
                    <b>{name}</b> <span className="text-soft">{t("library.row", { row })}</span>{" "}
                    {doubts.map(({ sentence }) => sentence).join(" ")}
                  </li>
                ))}
              </ul>
            </details>
          )}
          <h3 className="mt-6 text-base">{t("library.sample")}</h3>
          <div className="overflow-x-auto">
            <table className="w-full text-sm">
              <thead>
                <tr className="border-b border-rim text-right text-xs text-soft">
                  <th scope="col" className="text-left font-normal">
                    {t("name")}
                  </th>
                  {shown.map((nutrient) => (
                    <th key={nutrient} scope="col" className="counted px-2 font-normal">
                      {t(`app:measures.${nutrient}`)} {nutrient !== "energy" && "g"}
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {run.sample.slice(0, 20).map((food) => (
                  <tr key={food.row} className="border-b border-line text-right">
                    <td className="text-left">{food.name}</td>
                    {shown.map((nutrient) => (
                      <td key={nutrient} className="counted px-2">
                        {food.per100g[nutrient] == null
                          ? "–"
                          : nutrient === "energy"
                            ? wholeNumber(food.per100g[nutrient])
                            : exact(food.per100g[nutrient])}
                      </td>
                    ))}
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
        </>
      )}
    </section>
  );
}

interface MappingProps {
  headers: string[];
  first: string[];
  mapping: CsvMapping;
  onLook: (mapping: CsvMapping) => void;
}

/** Which column of a table is what, and in which unit. */
function Mapping({ headers, first, mapping, onLook }: MappingProps) {
  const { t } = useWords("foods");
  const [draft, setDraft] = useState(mapping);
  const pick = (label: string, value: string | null, set: (column: string | null) => void) => (
    <>
      <label htmlFor={`map-${label}`}>{label}</label>
      <select
        id={`map-${label}`}
        className="field w-full text-sm"
        value={value ?? ""}
        onChange={(event) => set(event.target.value || null)}
      >
        <option value="">{t("library.noColumn")}</option>
        {headers.map((header, i) => (
          <option key={i} value={header}>
            {header.slice(0, 60)} {first[i] && `(${first[i].slice(0, 20)})`}
          </option>
        ))}
      </select>
    </>
  );
  return (
    <details className="panel mt-6 p-4">
      <summary className="font-title font-bold">{t("library.mapping")}</summary>
      <div className="mt-3 grid grid-cols-[10rem_1fr_9rem] items-center gap-x-3 gap-y-1.5 text-sm">
        {(
          [
            ["nameColumn", "name"],
            ["codeColumn", "code"],
            ["groupColumn", "group"],
            ["gtinColumn", "gtin"],
            ["servingColumn", "servingGrams"],
          ] as const
        ).map(([word, field]) => (
          <div key={field} className="contents">
            {pick(t(`library.${word}`), draft[field], (column) => setDraft({ ...draft, [field]: column }))}
            <span />
          </div>
        ))}
        {nutrients.map((nutrient) => {
          const mapped = draft.nutrients[nutrient];
          const units = unitsOf(nutrient);
          return (
            <div key={nutrient} className="counted contents">
              {pick(
                nutrient === "polyols" || nutrient === "alcohol"
                  ? t(`label.${nutrient}`)
                  : t(`app:measures.${nutrient}`),
                mapped?.column ?? null,
                (column) => {
                  const next = { ...draft.nutrients };
                  if (column) next[nutrient] = { column, unit: mapped?.unit ?? units[0]! };
                  else delete next[nutrient];
                  setDraft({ ...draft, nutrients: next });
                },
              )}
              <select
                aria-label={`${nutrient}, unit`}
                className="field text-sm"
                disabled={!mapped}
                value={mapped?.unit ?? units[0]}
                onChange={(event) =>
                  setDraft({
                    ...draft,
                    nutrients: {
                      ...draft.nutrients,
                      [nutrient]: { column: mapped!.column, unit: event.target.value as ColumnUnit },
                    },
                  })
                }
              >
                {units.map((unit) => (
                  <option key={unit} value={unit}>
                    {t(`library.units.${unit}`)}
                  </option>
                ))}
              </select>
            </div>
          );
        })}
        <label htmlFor="map-convention">{t("library.conventionColumn")}</label>
        <select
          id="map-convention"
          className="field text-sm"
          value={draft.convention}
          onChange={(event) =>
            setDraft({ ...draft, convention: event.target.value as CsvMapping["convention"] })
          }
        >
          <option value="total">{t("label.total")}</option>
          <option value="withoutFibre">{t("label.withoutFibre")}</option>
        </select>
      </div>
      <button className="btn mt-3" onClick={() => onLook(draft)}>
        {t("library.look")}
      </button>
    </details>
  );
}
