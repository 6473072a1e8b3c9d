import { useQueryClient } from "@tanstack/react-query";
import { useId, useState } from "react";
import { useWords } from "../app/i18n";
import { rememberMeasure, sentenceFor, troubleOf, type Trouble } from "../api";
import { useSay } from "../app/notices";
import { numberIn } from "./numbers";
import { Sentence } from "./states";
import { all } from "../app/queryKeys";

interface WeighOnceProps {
  foodId: string;
  food: string;
  /** The measure that is asked for; without one it is named here. */
  measure?: string;
  onWeighed?: () => void;
}

/** Weigh one cup once: how many grams? Every line with it is understood from then on. */
export function WeighOnce({ foodId, food, measure, onWeighed }: WeighOnceProps) {
  const { t } = useWords("foods");
  const id = useId();
  const queries = useQueryClient();
  const say = useSay();
  const [named, setNamed] = useState("");
  const [typed, setTyped] = useState("");
  const [trouble, setTrouble] = useState<Trouble | null>(null);
  const one = measure ?? named;
  const remember = async () => {
    try {
      await rememberMeasure({ path: { id: foodId }, body: { measure: one, grams: numberIn(typed) || 0 } });
      say(t("remembered", { measure: one, food, grams: typed }));
      setNamed("");
      setTyped("");
      setTrouble(null);
      await queries.invalidateQueries(all("food"));
      onWeighed?.();
    } catch (thrown) {
      setTrouble(troubleOf(thrown, t("app:silent")));
    }
  };
  // No form of its own: it may stand within the form of the line it mends.
  const onKey = (event: React.KeyboardEvent) => {
    if (event.key !== "Enter") return;
    event.preventDefault();
    void remember();
  };
  return (
    <div className="mt-1">
      <p className="flex items-center gap-1.5 text-sm">
        {measure ? (
          <label htmlFor={id}>{t("weighs", { measure, food })}</label>
        ) : (
          <>
            <span className="text-soft">{t("weigh")}:</span>
            <input
              className="field w-full min-w-0"
              aria-label={t("weighMeasure")}
              placeholder={t("weighHint")}
              value={named}
              maxLength={30}
              onChange={(event) => setNamed(event.target.value)}
              onKeyDown={onKey}
            />
          </>
        )}
        <input
          id={id}
          inputMode="decimal"
          className="field w-20 text-right"
          aria-label={measure ? undefined : t("weighGrams")}
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          onKeyDown={onKey}
        />
        g
        <button type="button" className="btn" disabled={one.trim() === ""} onClick={() => void remember()}>
          {t("remember")}
        </button>
      </p>
      <Sentence>
        {sentenceFor(trouble, "measure") ?? sentenceFor(trouble, "grams") ?? trouble?.detail}
      </Sentence>
    </div>
  );
}
