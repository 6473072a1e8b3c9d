import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { Fragment, useState } from "react";
import { useWords } from "../../app/i18n";
import {
  calcScale,
  sentenceFor,
  troubleOf,
  type CalcRecipeRequest,
  type PanShape,
  type ScaleRequest,
  type Trouble,
} from "../../api";
import { exact, wholeNumber } from "../../ui/format";
import { numberIn } from "../../ui/numbers";
import { Sentence } from "../../ui/states";
import { useSettled } from "../../ui/useSettled";
import { linesOf, type Sheet } from "./sheet";
import { queryKeys } from "../../app/queryKeys";

interface YieldAndScaleProps {
  sheet: Sheet;
  request: CalcRecipeRequest;
  trouble: Trouble | null;
  onChange: (sheet: Sheet, field: string) => void;
}

/** What a batch makes besides portions, and how to make more or less of it. */
export function YieldAndScale({ sheet, request, trouble, onChange }: YieldAndScaleProps) {
  const { t } = useWords("recipes");
  const fields = [
    ["pieces", t("yield.pieces"), ""],
    ["cookedGrams", t("yield.cooked"), "g"],
    ["fills", t("yield.volume"), ""],
  ] as const;
  return (
    <section className="mt-5 text-sm">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <h2 className="text-base">{t("yield.title")}</h2>
        <label className="flex min-h-8 items-center gap-1.5">
          <input
            type="checkbox"
            className="size-4 accent-sea"
            checked={sheet.isPutTogether}
            onChange={(event) => onChange({ ...sheet, isPutTogether: event.target.checked }, "isPutTogether")}
          />
          {t("yield.putTogether")}
        </label>
        {fields
          .filter(([field]) => !sheet.isPutTogether || field === "fills")
          .map(([field, label, unit]) => (
            <Fragment key={field}>
              <label className="flex items-center gap-1.5">
                {field === "pieces" ? null : <span className="text-soft">{label}</span>}
                <input
                  inputMode={field === "fills" ? "text" : "decimal"}
                  aria-label={label}
                  className={`field text-right ${field === "fills" ? "w-24" : "w-20"}`}
                  placeholder={field === "fills" ? t("yield.volumeHint") : undefined}
                  maxLength={40}
                  value={sheet[field]}
                  onChange={(event) => onChange({ ...sheet, [field]: event.target.value }, field)}
                />
                <span className="text-soft">{field === "pieces" ? label : unit}</span>
              </label>
              {field === "pieces" && sheet.pieces.trim() !== "" && (
                <label className="flex min-h-8 items-center gap-1.5">
                  <input
                    type="checkbox"
                    className="size-4 accent-sea"
                    checked={sheet.mayHalve}
                    onChange={(event) => onChange({ ...sheet, mayHalve: event.target.checked }, "mayHalve")}
                  />
                  {t("yield.mayHalve")}
                </label>
              )}
            </Fragment>
          ))}
        {!sheet.isPutTogether && (
          <span className="flex items-center gap-1.5">
            <span className="text-soft">{t("yield.pan")}</span>
            <PanFields pan={sheet.pan} onChange={(pan) => onChange({ ...sheet, pan }, "pan")} />
          </span>
        )}
      </div>
      {sheet.isPutTogether && <p className="mt-1 max-w-2xl text-soft">{t("yield.putTogetherText")}</p>}
      {["pieces", "cookedGrams", "fills", "pan"].map((field) => (
        <Sentence key={field}>{sentenceFor(trouble, field)}</Sentence>
      ))}
      <Scale sheet={sheet} request={request} onChange={onChange} />
    </section>
  );
}

function PanFields({ pan, onChange }: { pan: Sheet["pan"]; onChange: (pan: Sheet["pan"]) => void }) {
  const { t } = useWords("recipes");
  return (
    <>
      <select
        aria-label={t("yield.pan")}
        className="field"
        value={pan.shape}
        onChange={(event) => onChange({ ...pan, shape: event.target.value as PanShape | "" })}
      >
        <option value="">{t("yield.noPan")}</option>
        <option value="rectangular">{t("yield.rectangular")}</option>
        <option value="round">{t("yield.round")}</option>
      </select>
      {pan.shape && (
        <input
          inputMode="decimal"
          aria-label={t(pan.shape === "round" ? "yield.diameter" : "yield.length")}
          className="field w-14 text-right"
          value={pan.length}
          onChange={(event) => onChange({ ...pan, length: event.target.value })}
        />
      )}
      {pan.shape === "rectangular" && (
        <>
          ×
          <input
            inputMode="decimal"
            aria-label={t("yield.width")}
            className="field w-14 text-right"
            value={pan.width}
            onChange={(event) => onChange({ ...pan, width: event.target.value })}
          />
        </>
      )}
      {pan.shape && <span className="text-soft">cm</span>}
    </>
  );
}

const ways = ["factor", "portions", "atHand", "pan"] as const;

function Scale({ sheet, request, onChange }: Omit<YieldAndScaleProps, "trouble">) {
  const { t } = useWords("recipes");
  const [way, setWay] = useState<(typeof ways)[number]>("factor");
  const [value, setValue] = useState("");
  const [line, setLine] = useState(0);
  const [pan, setPan] = useState<Sheet["pan"]>({ shape: "rectangular", length: "", width: "" });
  const number = numberIn(value);
  const length = numberIn(pan.length);
  const by: ScaleRequest["by"] | null =
    way === "pan"
      ? pan.shape && length
        ? { pan: { shape: pan.shape, lengthCm: length, widthCm: numberIn(pan.width) } }
        : null
      : value.trim() === ""
        ? null
        : way === "atHand"
          ? { line, atHand: value }
          : way === "portions"
            ? { portions: Number.isInteger(number) ? number : 0 }
            : { factor: Number.isFinite(number) ? number : 0 };
  const asked = useSettled(by ? JSON.stringify({ recipe: request, by }) : "", 100);
  const { data, error } = useQuery({
    queryKey: queryKeys.scale(asked),
    queryFn: async () => (await calcScale({ body: JSON.parse(asked) as ScaleRequest })).data!,
    enabled: asked !== "",
    retry: false,
    placeholderData: keepPreviousData,
  });
  const answer = by && asked !== "" && !error ? data : undefined;
  const take = () => {
    if (!answer) return;
    const scaled = linesOf(answer.recipe);
    const written = sheet.lines.filter(({ text }) => text.trim() !== "");
    onChange(
      {
        ...sheet,
        ...scaled,
        lines: [
          ...written.map((own, i) => ({ ...own, text: scaled.lines[i]?.text ?? own.text })),
          scaled.lines.at(-1)!,
        ],
      },
      "scale",
    );
    setValue("");
  };
  const depth = answer?.depthFactor == null ? null : Math.round((answer.depthFactor - 1) * 100);

  return (
    <details className="mt-4">
      <summary className="font-title text-base font-bold">{t("scale.title")}</summary>
      <div className="mt-2 flex flex-wrap items-center gap-2">
        {ways
          .filter((name) => !sheet.isPutTogether || name === "factor" || name === "atHand")
          .map((name) => (
            <button
              key={name}
              aria-pressed={way === name}
              className={`btn ${way === name ? "border-sea bg-sea-soft" : ""}`}
              onClick={() => {
                setWay(name);
                setValue("");
              }}
            >
              {t(`scale.${name}`)}
            </button>
          ))}
        {way === "pan" ? (
          <PanFields pan={pan} onChange={setPan} />
        ) : (
          <input
            aria-label={t("scale.value")}
            className="field w-24 text-right"
            placeholder={way === "factor" ? "0.5" : way === "portions" ? "12" : t("scale.handHint")}
            value={value}
            maxLength={40}
            onChange={(event) => setValue(event.target.value)}
          />
        )}
        {way === "atHand" && (
          <>
            {t("scale.of")}
            <select
              aria-label={t("swap.line")}
              className="field max-w-64"
              value={line}
              onChange={(event) => setLine(Number(event.target.value))}
            >
              {request.lines.map((text, i) => (
                <option key={i} value={i}>
                  {text}
                </option>
              ))}
            </select>
          </>
        )}
      </div>
      {by && error && <Sentence>{troubleOf(error, t("app:silent")).detail}</Sentence>}
      {answer && (
        <div aria-live="polite" className="mt-2">
          <p>
            <b>
              {t(sheet.isPutTogether ? "scale.previewBox" : "scale.preview", {
                factor: exact(answer.factor),
                portions: answer.recipe.portions,
              })}
            </b>
            {depth !== null && (
              <>
                {" · "}
                {depth === 0
                  ? t("scale.same")
                  : t(depth > 0 ? "scale.deeper" : "scale.flatter", {
                      percent: wholeNumber(Math.abs(depth)),
                    })}
              </>
            )}
          </p>
          {answer.unscaled.length > 0 && (
            <p className="text-soft">{t("scale.unscaled", { lines: answer.unscaled.join("; ") })}</p>
          )}
          <button className="btn-next mt-2" onClick={take}>
            {t("scale.take")}
          </button>
        </div>
      )}
    </details>
  );
}
