import { useId, useState } from "react";
import { useTranslation } from "react-i18next";
import { rememberMeasure, sentenceFor, troubleOf, type LineView } from "../api";
import { Sentence } from "./states";

interface LineProblemProps {
  line: LineView;
  onChoose: (foodId: string) => void;
  onWeighed: () => void;
}

/** What was not understood of a line, and what mends it: the foods it could be, or one measure to weigh. */
export function LineProblem({ line, onChoose, onWeighed }: LineProblemProps) {
  if (!line.problem) return null;
  return (
    <div>
      <Sentence>{line.problem.sentence}</Sentence>
      {line.candidates.length > 0 && (
        <p className="mt-1 flex flex-wrap gap-2">
          {line.candidates.slice(0, 6).map(({ id, name }) => (
            <button key={id} type="button" className="btn" onClick={() => onChoose(id)}>
              {name}
            </button>
          ))}
        </p>
      )}
      {line.missingMeasure && <WeighOnce missing={line.missingMeasure} onWeighed={onWeighed} />}
    </div>
  );
}

/** Weigh one cup once: how many grams? It is remembered. */
function WeighOnce({
  missing,
  onWeighed,
}: {
  missing: NonNullable<LineView["missingMeasure"]>;
  onWeighed: () => void;
}) {
  const { t } = useTranslation("recipes");
  const id = useId();
  const [typed, setTyped] = useState("");
  const [problem, setProblem] = useState<string>();
  const remember = async () => {
    try {
      await rememberMeasure({
        path: { id: missing.foodId },
        body: { measure: missing.measure, grams: Number(typed.replace(",", ".")) || 0 },
      });
      onWeighed();
    } catch (thrown) {
      const trouble = troubleOf(thrown, t("app:silent"));
      setProblem(sentenceFor(trouble, "grams") ?? trouble.detail ?? "");
    }
  };
  return (
    <div className="mt-1">
      <p className="flex items-center gap-2">
        <label htmlFor={id} className="text-sm">
          {t("weigh.label", { measure: missing.measure, food: missing.foodName })}
        </label>
        <input
          id={id}
          inputMode="decimal"
          className="field w-20 text-right"
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          onKeyDown={(event) => {
            if (event.key !== "Enter") return;
            event.preventDefault();
            void remember();
          }}
        />
        g
        <button type="button" className="btn" onClick={() => void remember()}>
          {t("weigh.remember")}
        </button>
      </p>
      <Sentence>{problem}</Sentence>
    </div>
  );
}
