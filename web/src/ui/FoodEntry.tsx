import { keepPreviousData, useQuery, useQueryClient } from "@tanstack/react-query";
import { useId, useState } from "react";
import { useWords } from "../app/i18n";
import { calcParse, type Measure, type PointsRule } from "../api";
import { Amount } from "./Figures";
import { grams } from "./format";
import { LineChoice } from "./LineChoice";
import { LineProblem } from "./LineProblem";
import { useSettled } from "./useSettled";
import { all, queryKeys } from "../app/queryKeys";

interface FoodEntryProps {
  label: string;
  hint: string;
  action: string;
  rule: PointsRule | null;
  lens: Measure;
  /** Whether what is not read here is added all the same: who adds it understands more. */
  asTyped?: boolean;
  /** Adds what was typed. True when it is done: then the field is emptied; else what was typed stays. */
  onAdd: (text: string, foodId: string | null) => Promise<boolean>;
}

/** An amount of a food typed as people say it, read back as it is typed. */
export function FoodEntry({ label, hint, action, rule, lens, asTyped = false, onAdd }: FoodEntryProps) {
  const { t } = useWords("eat");
  const id = useId();
  const queries = useQueryClient();
  const [text, setText] = useState("");
  const [foodId, setFoodId] = useState<string | null>(null);
  const [asked, setAsked] = useState(false);
  const settled = useSettled(text.trim(), 120);
  const reading = (typed: string) => ({
    queryKey: queryKeys.line(typed, foodId, rule),
    queryFn: async () =>
      (await calcParse({ body: { lines: [typed], foods: [foodId ?? ""], rule } })).data!.lines[0]!,
  });
  const { data } = useQuery({
    ...reading(settled),
    enabled: settled !== "",
    placeholderData: keepPreviousData,
  });
  const line = text.trim() === "" ? undefined : data;
  const isRead = line?.text === text.trim() && line.food !== null;

  // Asked for before it was read, it is read first.
  const add = async () => {
    setAsked(true);
    const typed = text.trim();
    const read = isRead ? line : await queries.fetchQuery(reading(typed)).catch(() => null);
    if (!read?.food && !asTyped) return;
    if (!(await onAdd(typed, foodId ?? read?.food?.id ?? null))) return;
    setText((now) => (now.trim() === typed ? "" : now));
    setFoodId(null);
    setAsked(false);
  };

  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        void add();
      }}
    >
      <div className="flex gap-2">
        <input
          className="field w-full min-w-0"
          aria-label={label}
          aria-describedby={id}
          placeholder={hint}
          maxLength={300}
          value={text}
          onChange={(event) => {
            setText(event.target.value);
            setFoodId(null);
            setAsked(false);
          }}
        />
        <button className="btn shrink-0" disabled={text.trim() === ""}>
          {action}
        </button>
      </div>
      <div id={id} aria-live="polite" className="mt-1 min-h-6 text-sm text-soft">
        {line?.food && (
          <p>
            {line.about && !line.trace ? t("about") : ""} {grams(line.grams ?? 0)} g {line.food.name}{" "}
            <span className="counted">·</span>{" "}
            <Amount measure={lens} figure={line.figures[lens]} className="font-bold text-ink" />
          </p>
        )}
        {line && !foodId && (
          <LineChoice
            line={line}
            onChoose={setFoodId}
            onKnown={() => void queries.invalidateQueries(all("line"))}
          />
        )}
        {line && !line.food && (asked || line.candidates.length > 0 || line.missingMeasure) && (
          <LineProblem
            line={line}
            onChoose={setFoodId}
            onWeighed={() => void queries.invalidateQueries(all("line"))}
          />
        )}
      </div>
    </form>
  );
}
