import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useWords } from "../../app/i18n";
import { calcCuts, type CalcRecipeRequest, type Measure } from "../../api";
import { Amount } from "../../ui/Figures";
import { grams, unitOf, wholeNumber } from "../../ui/format";
import { numberIn } from "../../ui/numbers";
import { Failed, Loading, Sentence } from "../../ui/states";
import { useSettled } from "../../ui/useSettled";
import { queryKeys } from "../../app/queryKeys";

interface CutViewProps {
  request: CalcRecipeRequest;
  lens: Measure;
  /** @param boxes of a put-together dish: how many the chart shares; 1 for any other. */
  onCut: (portions: number, boxes: number) => void;
}

/** The same batch cut into 2 to 36: what a portion weighs and holds, where its points step, and the largest that still fits. */
export function CutView({ request, lens, onCut }: CutViewProps) {
  const { t } = useWords("recipes");
  const [typed, setTyped] = useState("");
  const most = numberIn(typed);
  const asked = useSettled(
    JSON.stringify({
      recipe: request,
      ...(most !== null && most > 0 ? { measure: lens, most } : {}),
    }),
    80,
  );
  const { data, error, refetch } = useQuery({
    queryKey: queryKeys.cuts(asked),
    queryFn: async () => (await calcCuts({ body: JSON.parse(asked) as { recipe: CalcRecipeRequest } })).data!,
    placeholderData: keepPreviousData,
  });
  if (error && !data) return <Failed error={error} retry={() => void refetch()} />;
  if (!data) return <Loading />;
  const second: Measure = lens === "protein" ? "energy" : "protein";
  const columns: Measure[] = [
    lens,
    second,
    ...(["energy", "points"] as const).filter(
      (measure) => measure !== lens && measure !== second && (measure !== "points" || request.rule),
    ),
  ];
  const top = Math.max(1, ...data.cuts.map((cut) => cut.figures[lens]?.value ?? 0));

  // The chart shares what goes into so many boxes of a put-together dish.
  const now = request.isPutTogether ? data.boxes : request.portions;
  const sayCut = (count: number) => t(request.isPutTogether ? "cut.cutBoxes" : "cut.cutHere", { count });
  return (
    <>
      <p className="text-sm text-soft">
        {request.isPutTogether ? t("cut.leadBoxes", { count: data.boxes }) : t("cut.lead")}{" "}
        {t("cut.weighs", { grams: wholeNumber(data.grams) })}
      </p>
      <div className="counted mt-2 flex flex-wrap items-center gap-2">
        <label htmlFor="cut-most">{t("cut.most")}</label>
        <input
          id="cut-most"
          inputMode="decimal"
          className="field w-24 text-right"
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
        />
        <span className="text-sm text-soft">{unitOf(lens)}</span>
        <span aria-live="polite">
          {data.largest && most !== null && (
            <>
              <b className="font-title text-lg">
                {t(data.largest.portions === 1 ? "cut.whole" : "cut.answer", {
                  grams: wholeNumber(data.largest.grams),
                  portions: data.largest.portions,
                })}
              </b>{" "}
              <Amount measure={lens} figure={data.largest.figures[lens]} />
            </>
          )}
        </span>
      </div>
      {most !== null && (
        <Sentence>{Number.isFinite(most) ? data.largestProblem?.sentence : t("app:numberNeeded")}</Sentence>
      )}
      <svg
        role="img"
        aria-label={t("cut.chart", { measure: t(`app:measures.${lens}`) })}
        viewBox="0 0 700 150"
        className="counted mt-4 w-full max-w-4xl"
      >
        {data.cuts.map((cut, i) => {
          const height = ((cut.figures[lens]?.value ?? 0) / top) * 112;
          const isNow = cut.portions === now;
          return (
            <g key={cut.portions} onClick={() => onCut(cut.portions, data.boxes)} className="cursor-pointer">
              <title>{sayCut(cut.portions)}</title>
              <rect x={i * 20} y={0} width={20} height={150} fill="transparent" />
              <rect
                x={i * 20 + 2}
                y={126 - height}
                width={16}
                height={height}
                rx={1.5}
                fill={isNow ? "var(--sea)" : "var(--sea-soft)"}
                stroke="var(--sea)"
                strokeWidth={0.8}
              />
              {cut.step && request.rule && (
                <path d={`M ${i * 20 + 10} ${116 - height} l 4 4 l -4 4 l -4 -4 z`} fill="var(--ink)" />
              )}
              <text
                x={i * 20 + 10}
                y={142}
                textAnchor="middle"
                fontSize={11}
                fontWeight={isNow ? 700 : 400}
                fill="var(--ink)"
              >
                {cut.portions}
              </text>
            </g>
          );
        })}
      </svg>
      {request.rule && (
        <p className="counted text-xs text-soft">
          <span aria-hidden>◆</span> {t("cut.step")}
        </p>
      )}
      <div className="overflow-x-auto">
        <table className="mt-3 w-full max-w-4xl text-right">
          <thead>
            <tr className="border-b border-rim text-xs text-soft">
              <th scope="col" className="py-1 text-left font-normal">
                {t(request.isPutTogether ? "cut.intoBoxes" : "cut.into")}
              </th>
              <th scope="col" className="px-3 font-normal">
                {t("cut.grams")}
              </th>
              {columns.map((measure) => (
                <th
                  key={measure}
                  scope="col"
                  className={`counted px-3 ${measure === lens ? "font-bold text-ink" : "font-normal"}`}
                >
                  {t(`app:measures.${measure}`)}
                </th>
              ))}
              <td className="w-64" />
            </tr>
          </thead>
          <tbody>
            {data.cuts.map((cut) => (
              <tr
                key={cut.portions}
                className={`border-b border-line ${cut.portions === now ? "bg-sea-soft font-semibold" : ""}`}
              >
                <td className="text-left">
                  <button
                    className="min-h-8 px-2 underline-offset-2 hover:underline max-md:min-h-11"
                    aria-label={sayCut(cut.portions)}
                    onClick={() => onCut(cut.portions, data.boxes)}
                  >
                    {cut.portions}
                  </button>
                </td>
                <td className="px-3 whitespace-nowrap">
                  {cut.volume && <span className="mr-2 text-xs text-soft">{cut.volume}</span>}
                  {wholeNumber(cut.grams)} <span className="text-xs text-soft">g</span>
                </td>
                {columns.map((measure) => (
                  <td key={measure} className="counted px-3 whitespace-nowrap">
                    <Amount measure={measure} figure={cut.figures[measure]} isColumn />
                  </td>
                ))}
                <td className="counted text-left text-xs whitespace-nowrap text-soft">
                  {request.rule && cut.step && <b className="text-ink">◆ {t("cut.step")} </b>}
                  {request.rule && cut.toNextStep !== null && t("cut.less", { grams: grams(cut.toNextStep) })}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </>
  );
}
