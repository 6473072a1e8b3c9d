import { ArrowUp, Plus, X } from "lucide-react";
import { useWords } from "../../app/i18n";
import type { Occupies, Trouble } from "../../api";
import { Sentence } from "../../ui/states";
import { newStep, type Step } from "./sheet";

const needs: Occupies[] = [
  "oven",
  "ring",
  "slowCooker",
  "pressureCooker",
  "microwave",
  "airFryer",
  "waffleIron",
  "blender",
  "tray",
  "board",
  "fridge",
];

interface StepsViewProps {
  steps: Step[];
  /** Minutes of all steps, as last saved. */
  handsOn: number;
  unattended: number;
  trouble: Trouble | null;
  onChange: (steps: Step[], field: string) => void;
}

/** How a recipe is made: each step with its minutes, what it occupies and how to see that it is done. */
export function StepsView({ steps, handsOn, unattended, trouble, onChange }: StepsViewProps) {
  const { t } = useWords("recipes");
  const set = (index: number, change: Partial<Step>, field: string) =>
    onChange(
      steps.map((step, i) => (i === index ? { ...step, ...change } : step)),
      `step-${steps[index]!.key}-${field}`,
    );
  const sentences = (index: number) =>
    trouble?.errors
      ?.filter(({ field }) => field.startsWith(`steps[${index}]`))
      .map(({ sentence }) => sentence);
  return (
    <div className="max-w-4xl">
      {steps.length === 0 ? (
        <p className="max-w-xl text-soft">{t("steps.empty")}</p>
      ) : (
        <p className="text-sm text-soft">{t("steps.sum", { hands: handsOn, waits: unattended })}</p>
      )}
      <ol className="mt-2">
        {steps.map((step, index) => (
          <li
            key={step.key}
            className="grid grid-cols-[2rem_1fr_auto] gap-x-2 gap-y-1 border-b border-line py-3"
          >
            <span className="pt-1 font-title text-lg font-bold">{index + 1}</span>
            <textarea
              aria-label={t("steps.text", { number: index + 1 })}
              placeholder={t("steps.hint")}
              className="field field-sizing-content w-full resize-none"
              rows={1}
              maxLength={2000}
              value={step.text}
              onChange={(event) => set(index, { text: event.target.value }, "text")}
            />
            <span className="flex">
              <button
                className="min-h-9 px-2 max-md:min-h-11"
                disabled={index === 0}
                aria-label={t("steps.up", { number: index + 1 })}
                title={t("steps.up", { number: index + 1 })}
                onClick={() =>
                  onChange(
                    [...steps.slice(0, index - 1), step, steps[index - 1]!, ...steps.slice(index + 1)],
                    "order",
                  )
                }
              >
                <ArrowUp size={16} aria-hidden />
              </button>
              <button
                className="min-h-9 px-2 max-md:min-h-11"
                aria-label={t("steps.drop", { number: index + 1 })}
                title={t("steps.drop", { number: index + 1 })}
                onClick={() =>
                  onChange(
                    steps.filter((_, i) => i !== index),
                    "drop",
                  )
                }
              >
                <X size={16} aria-hidden />
              </button>
            </span>
            <div className="col-start-2 flex flex-wrap items-center gap-x-3 gap-y-1 text-sm">
              {(["handsOn", "unattended", "temperature"] as const).map((field) => (
                <label key={field} className="flex items-center gap-1">
                  <input
                    inputMode="numeric"
                    className="field w-14 text-right"
                    value={step[field]}
                    onChange={(event) => set(index, { [field]: event.target.value }, field)}
                  />
                  <span className="text-soft">{t(`steps.${field}`)}</span>
                </label>
              ))}
              <label className="flex min-w-48 flex-1 items-center gap-1">
                <span className="whitespace-nowrap text-soft">{t("steps.doneWhen")}</span>
                <input
                  className="field w-full min-w-0"
                  maxLength={200}
                  value={step.doneWhen}
                  onChange={(event) => set(index, { doneWhen: event.target.value }, "done")}
                />
              </label>
            </div>
            <div className="col-start-2 flex flex-wrap items-center gap-1 text-xs">
              <span className="text-soft">{t("steps.needs")}</span>
              {needs.map((need) => {
                const has = step.occupies.includes(need);
                return (
                  <button
                    key={need}
                    aria-pressed={has}
                    className={`min-h-7 rounded-md border px-1.5 max-md:min-h-11 ${has ? "border-sea bg-sea-soft font-bold" : "border-line text-soft"}`}
                    onClick={() =>
                      set(
                        index,
                        {
                          occupies: has
                            ? step.occupies.filter((other) => other !== need)
                            : [...step.occupies, need],
                        },
                        "needs",
                      )
                    }
                  >
                    {t(`steps.occupies.${need}`)}
                  </button>
                );
              })}
            </div>
            {sentences(index)?.map((sentence) => (
              <div key={sentence} className="col-start-2">
                <Sentence>{sentence}</Sentence>
              </div>
            ))}
          </li>
        ))}
      </ol>
      <button className="btn mt-3" onClick={() => onChange([...steps, newStep()], "add")}>
        <Plus size={16} aria-hidden /> {t("steps.add")}
      </button>
      <p className="mt-4 max-w-2xl text-xs text-soft">{t("steps.inside")}</p>
      <p className="mt-1 text-xs text-soft">{t("steps.vegetables")}</p>
    </div>
  );
}
