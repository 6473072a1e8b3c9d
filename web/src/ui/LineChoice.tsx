import { useId } from "react";
import { chooseFood, type LineView, type Measure, type OtherFoodView } from "../api";
import { useWords } from "../app/i18n";
import { amount, unitWords } from "./format";

interface LineChoiceProps {
  line: LineView;
  /** Called with the food that was pressed: the one taken, or another. */
  onChoose: (foodId: string) => void;
  /** Called where the choice is one of several foods of the line: its words mean that food now. */
  onKnown: () => void;
}

/** What a line left open and what was taken for it, each of the others one press away; what is pressed is meant by these words from now on. */
export function LineChoice({ line, onChoose, onKnown }: LineChoiceProps) {
  const remember = (text: string, foodId: string) => chooseFood({ body: { text, foodId } });
  if (line.food)
    return (
      <Choice
        words={line.parts.foodText}
        taken={line.food}
        others={line.others}
        onChoose={(foodId) => {
          // The line keeps what was pressed even where that could not be remembered.
          remember(line.parts.foodText, foodId).catch(() => undefined);
          onChoose(foodId);
        }}
      />
    );
  return line.several.map((part) => (
    <Choice
      key={part.text}
      words={part.foodText}
      taken={part.food}
      others={part.others}
      onChoose={(foodId) => void remember(part.foodText, foodId).then(onKnown, onKnown)}
    />
  ));
}

function Choice({
  words,
  taken,
  others,
  onChoose,
}: {
  words: string;
  taken: { id: string; name: string };
  others: OtherFoodView[];
  onChoose: (foodId: string) => void;
}) {
  const { t } = useWords("recipes");
  const id = useId();
  if (others.length === 0) return null;
  return (
    <div className="pt-1 text-sm text-soft">
      <p id={id}>{t("choice.taken", { words, food: taken.name })}</p>
      <p className="mt-1 flex flex-wrap gap-2" role="group" aria-labelledby={id}>
        <button type="button" className="btn" onClick={() => onChoose(taken.id)}>
          {t("choice.right")}
        </button>
        {others.map((other) => (
          <button key={other.id} type="button" className="btn" onClick={() => onChoose(other.id)}>
            {other.name}{" "}
            <span className="counted text-soft">
              {more(other.by, other.apart)} {unitWords(t, other.by)}
            </span>
          </button>
        ))}
      </p>
    </div>
  );
}

/** What the other would make of the line: "+330", "−8.5". */
const more = (by: Measure, apart: number) => `${apart < 0 ? "−" : "+"}${amount(by, Math.abs(apart))}`;
