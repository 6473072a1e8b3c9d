import { keepPreviousData, useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useWords } from "../../app/i18n";
import {
  calcLighten,
  calcSwap,
  sentenceFor,
  troubleOf,
  type CalcRecipeRequest,
  type LightenView,
  type Measure,
  type SwapRequest,
} from "../../api";
import { useSay } from "../../app/notices";
import { Amount } from "../../ui/Figures";
import { amount, lensFirst, unitOf, unitWords } from "../../ui/format";
import { numberIn } from "../../ui/numbers";
import { LineProblem } from "../../ui/LineProblem";
import { Sentence } from "../../ui/states";
import { useSettled } from "../../ui/useSettled";
import { measuresUnder, newLine, type Line } from "./sheet";
import { queryKeys } from "../../app/queryKeys";

interface SwapViewProps {
  request: CalcRecipeRequest;
  /** The written lines, in the request's order. */
  lines: Line[];
  lens: Measure;
  onTake: (lines: Line[]) => void;
}

/** One line replaced, both recipes side by side; and the other way round: ways to make a portion lighter. */
export function SwapView({ request, lines, lens, onTake }: SwapViewProps) {
  return (
    <div className="max-w-4xl">
      <Replace request={request} lines={lines} lens={lens} onTake={onTake} />
      <Lighter request={request} lines={lines} lens={lens} onTake={onTake} />
    </div>
  );
}

const put = (lines: Line[], at: number, text: string, foodId: string | null) => [
  ...lines.flatMap((line, i) => (i !== at ? [line] : text === "" ? [] : [{ ...line, text, foodId }])),
  newLine(),
];

function Replace({ request, lines, lens, onTake }: SwapViewProps) {
  const { t } = useWords("recipes");
  const say = useSay();
  const [at, setAt] = useState(0);
  const [text, setText] = useState("");
  const [foodId, setFoodId] = useState<string | null>(null);
  const place = Math.min(at, Math.max(0, lines.length - 1));
  const isTyped = text.trim() !== "";
  const body: SwapRequest = {
    before: request,
    after: {
      ...request,
      lines: request.lines.map((line, i) => (i === place && isTyped ? text : line)),
      foods: request.foods!.map((id, i) => (i === place && isTyped ? (foodId ?? "") : id)),
    },
  };
  const asked = useSettled(JSON.stringify(body), 80);
  const { data, refetch } = useQuery({
    queryKey: queryKeys.swap(asked),
    queryFn: async () => (await calcSwap({ body: JSON.parse(asked) as SwapRequest })).data!,
    enabled: lines.length > 0,
    placeholderData: keepPreviousData,
  });
  if (lines.length === 0) return <p className="text-soft">{t("needLine")}</p>;
  const line = data?.after.lines[place]?.line;
  const read = isTyped && line?.text !== request.lines[place] ? line : undefined;
  const isRead = !!read?.food;
  const order = lensFirst(lens, measuresUnder(request.rule));
  return (
    <section>
      <h2 className="text-base">{t("swap.replace")}</h2>
      <div className="mt-2 grid grid-cols-[auto_1fr] items-center gap-x-3 gap-y-2 text-sm sm:grid-cols-[auto_1fr_auto_1fr]">
        <label htmlFor="swap-line">{t("swap.line")}</label>
        <select
          id="swap-line"
          className="field w-full min-w-0"
          value={place}
          onChange={(event) => setAt(Number(event.target.value))}
        >
          {lines.map((line, i) => (
            <option key={line.key} value={i}>
              {line.text}
            </option>
          ))}
        </select>
        <label htmlFor="swap-text">{t("swap.with")}</label>
        <input
          id="swap-text"
          className="field w-full min-w-0"
          placeholder={t("swap.hint")}
          maxLength={300}
          value={text}
          onChange={(event) => {
            setText(event.target.value);
            setFoodId(null);
          }}
        />
      </div>
      {/* Always as tall as it will be: what stands below never moves from under a click. */}
      <table className="counted mt-3 w-full table-fixed text-right" aria-live="polite">
        <thead>
          <tr className="border-b border-rim text-xs text-soft">
            <td className="w-1/4 text-left">{t("swap.portion")}</td>
            <th scope="col" className="px-1 sm:px-3 font-normal">
              {t("swap.before")}
            </th>
            <th scope="col" className="px-1 sm:px-3 font-normal">
              {t("swap.after")}
            </th>
            <th scope="col" className="px-1 sm:px-3 font-bold text-ink">
              {t("swap.difference")}
            </th>
          </tr>
        </thead>
        <tbody>
          {order.map((measure) => {
            const difference = isRead ? data?.difference[measure] : undefined;
            return (
              <tr key={measure} className={`border-b border-line ${measure === lens ? "text-lg" : ""}`}>
                <th scope="row" className="text-left font-normal">
                  {measure === "energy" ? t("app:energy") : t(`app:measures.${measure}`)}
                </th>
                <td className="px-1 whitespace-nowrap sm:px-3">
                  <Amount measure={measure} figure={data?.before.portion.figures[measure]} isColumn />
                </td>
                <td className="px-1 whitespace-nowrap sm:px-3">
                  {isRead && (
                    <Amount measure={measure} figure={data?.after.portion.figures[measure]} isColumn />
                  )}
                </td>
                <td className="px-1 whitespace-nowrap sm:px-3 font-bold">
                  {difference && (
                    <>
                      {difference.value > 0 ? "+" : ""}
                      {amount(measure, difference.value)}{" "}
                      <span className="text-[0.75em] font-normal text-soft">{unitOf(measure)}</span>
                    </>
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <div className="mt-3 flex min-h-20 items-start gap-4">
        <button
          className="btn-next shrink-0"
          disabled={!isRead || read.text.trim() !== text.trim()}
          onClick={() => {
            onTake(put(lines, place, text, foodId));
            say(t("swap.taken", { line: text }));
            setText("");
          }}
        >
          {t("swap.take")}
        </button>
        {read?.problem && read.text === text && (
          <LineProblem line={read} onChoose={setFoodId} onWeighed={() => void refetch()} />
        )}
      </div>
    </section>
  );
}

function Lighter({ request, lines, lens, onTake }: SwapViewProps) {
  const { t } = useWords("recipes");
  const say = useSay();
  const [less, setLess] = useState(lens === "energy" ? "60" : lens === "points" ? "1" : "5");
  const [keep, setKeep] = useState("");
  const unit = unitWords(t, lens);
  const find = useMutation({
    mutationFn: async () =>
      (
        await calcLighten({
          body: {
            recipe: request,
            less: numberIn(less) || 0,
            keepProtein: numberIn(keep) || 0,
            measure: lens,
          },
        })
      ).data!.ideas,
  });
  const trouble = find.error ? troubleOf(find.error, t("app:silent")) : null;
  const take = (idea: LightenView) => {
    let next = lines;
    for (const step of [...idea.steps].sort((a, b) => b.line - a.line))
      next = put(next, step.line, step.text, step.foodId).slice(0, -1);
    onTake([...next, newLine()]);
    say(t("swap.taken", { line: idea.steps.map((step) => step.text || step.reason).join(", ") }));
    find.reset();
  };
  return (
    <section className="counted border-t border-rim pt-4">
      <form
        className="flex flex-wrap items-center gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          find.mutate();
        }}
      >
        <h2 className="text-base">{t("swap.off")}</h2>
        <input
          aria-label={t("swap.less")}
          inputMode="decimal"
          className="field w-20 text-right"
          value={less}
          onChange={(event) => setLess(event.target.value)}
        />
        <span className="text-sm text-soft">{t("swap.keep", { unit: unit })}</span>
        <input
          aria-label={t("swap.keepProtein")}
          inputMode="decimal"
          className="field w-20 text-right"
          placeholder="0"
          value={keep}
          onChange={(event) => setKeep(event.target.value)}
        />
        <span className="text-sm text-soft">g {t("app:measures.protein")}</span>
        <button className="btn" disabled={find.isPending}>
          {t("swap.find")}
        </button>
      </form>
      <Sentence>
        {trouble && (sentenceFor(trouble, "less") ?? sentenceFor(trouble, "keepProtein") ?? trouble.detail)}
      </Sentence>
      {find.data?.length === 0 && <p className="mt-3 text-soft">{t("swap.none")}</p>}
      <ol className="mt-3">
        {find.data?.map((idea, i) => (
          <li
            key={i}
            className="grid grid-cols-[1fr_auto_auto] items-center gap-x-4 border-b border-line py-2"
          >
            <div className="min-w-0">
              {idea.steps.map((step) => (
                <p key={step.line}>
                  <b>
                    {step.text
                      ? t("swap.instead", { before: lines[step.line]?.text, after: step.text })
                      : t("swap.without", { before: lines[step.line]?.text })}
                  </b>
                  <span className="block text-xs text-soft">{step.reason}</span>
                </p>
              ))}
            </div>
            <p className="text-right whitespace-nowrap">
              <b className="font-title text-lg">{amount(lens, idea.change)}</b>{" "}
              <span className="text-xs text-soft">{unit}</span>
              <span className="block text-xs text-soft">
                {idea.protein > 0 ? "+" : ""}
                {amount("protein", idea.protein)} g {t("app:measures.protein")} ·{" "}
                <Amount measure={lens} figure={idea.portion[lens]} /> {t("swap.portion")}
              </span>
              {!idea.reachesGoal && <span className="block text-xs text-next-text">{t("swap.short")}</span>}
            </p>
            <button className="btn" onClick={() => take(idea)}>
              {t("swap.take")}
            </button>
          </li>
        ))}
      </ol>
    </section>
  );
}
