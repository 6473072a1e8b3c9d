import { chooseFood, type LineView } from "../api";
import { useWords } from "../app/i18n";
import { Sentence } from "./states";
import { WeighOnce } from "./WeighOnce";

interface LineProblemProps {
  line: LineView;
  onChoose: (foodId: string) => void;
  onWeighed: () => void;
  /** Writes these lines in its place; left out where only one food can stand. */
  onRewrite?: (lines: string[]) => void;
}

/** What was not understood of a line, and what mends it: the foods it could be, or one measure to weigh. */
export function LineProblem({ line, onChoose, onWeighed, onRewrite }: LineProblemProps) {
  const { t } = useWords("recipes");
  if (!line.problem) return null;
  // The same words mean the chosen food from now on; the line keeps it even where that could not be remembered.
  const choose = (foodId: string) => {
    chooseFood({ body: { text: line.parts.foodText, foodId } }).catch(() => undefined);
    onChoose(foodId);
  };
  return (
    <div>
      <Sentence>{line.problem.sentence}</Sentence>
      {line.candidates.length > 0 && (
        <p className="mt-1 flex flex-wrap gap-2">
          {line.candidates.slice(0, 6).map(({ id, name }) => (
            <button key={id} type="button" className="btn" onClick={() => choose(id)}>
              {name}
            </button>
          ))}
        </p>
      )}
      {onRewrite && line.instead.length > 0 && (
        <button type="button" className="btn mt-1" onClick={() => onRewrite(line.instead)}>
          {line.instead.length === 1
            ? t("writeAs", { one: line.instead[0] })
            : t("writeAsTwo", { one: line.instead.slice(0, -1).join("”, “"), other: line.instead.at(-1) })}
        </button>
      )}
      {line.missingMeasure && (
        <WeighOnce
          foodId={line.missingMeasure.foodId}
          food={line.missingMeasure.foodName}
          measure={line.missingMeasure.measure}
          onWeighed={onWeighed}
        />
      )}
    </div>
  );
}
