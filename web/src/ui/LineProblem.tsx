import { chooseFood, type LineView } from "../api";
import { Sentence } from "./states";
import { WeighOnce } from "./WeighOnce";

interface LineProblemProps {
  line: LineView;
  onChoose: (foodId: string) => void;
  onWeighed: () => void;
}

/** What was not understood of a line, and what mends it: the foods it could be, or one measure to weigh. */
export function LineProblem({ line, onChoose, onWeighed }: LineProblemProps) {
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
