import { useState } from "react";
import { useWords } from "../app/i18n";
import { sentenceFor, troubleOf } from "../api";
import { Sentence } from "./states";

interface NameItProps {
  label: string;
  action: string;
  longest: number;
  /** Whether it is the one thing to do here. */
  isNext: boolean;
  /** Adds what was named; what it throws is shown at the field, and the name stays. */
  onAdd: (name: string) => Promise<void>;
}

/** Name it and add it. */
export function NameIt({ label, action, longest, isNext, onAdd }: NameItProps) {
  const { t } = useWords();
  const [name, setName] = useState("");
  const [problem, setProblem] = useState<string>();
  const add = async () => {
    try {
      await onAdd(name);
      setName("");
      setProblem(undefined);
    } catch (thrown) {
      const trouble = troubleOf(thrown, t("silent"));
      setProblem(sentenceFor(trouble, "name") ?? trouble.detail ?? "");
    }
  };
  return (
    <form
      className="max-w-md"
      onSubmit={(event) => {
        event.preventDefault();
        void add();
      }}
    >
      <div className="flex gap-2">
        <input
          className="field min-w-0 flex-1"
          aria-label={label}
          placeholder={label}
          value={name}
          maxLength={longest}
          onChange={(event) => setName(event.target.value)}
        />
        <button className={isNext ? "btn-next" : "btn"}>{action}</button>
      </div>
      <Sentence>{problem}</Sentence>
    </form>
  );
}
