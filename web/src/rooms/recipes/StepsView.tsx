import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { ArrowUp, Plus, X } from "lucide-react";
import { useWords } from "../../app/i18n";
import { calcSteps, type Occupies, type StepView, type Trouble } from "../../api";
import { queryKeys } from "../../app/queryKeys";
import { Sentence } from "../../ui/states";
import { useSettled } from "../../ui/useSettled";
import { newStep, stepOf, type Step } from "./sheet";

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
  trouble: Trouble | null;
  onChange: (steps: Step[], field: string) => void;
}

/** How a recipe is made: each step with its minutes, what it occupies and how to see that it is done. */
export function StepsView({ steps, trouble, onChange }: StepsViewProps) {
  const { t } = useWords("recipes");
  const read = useStepsRead(steps);
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
        <p className="text-sm text-soft">
          {read
            ? t(read.total.isAbout ? "steps.sumAbout" : "steps.sum", {
                hands: read.total.handsOn,
                waits: read.total.unattended,
              })
            : " "}
        </p>
      )}
      <ol className="mt-2">
        {steps.map((step, index) => {
          const reading = read?.steps[index];
          return (
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
                {(["handsOn", "unattended", "temperature", "daysAhead"] as const).map((field) => (
                  <label key={field} className="flex items-center gap-1">
                    <input
                      inputMode="numeric"
                      className="field w-14 text-right"
                      maxLength={6}
                      placeholder={placeholderOf(reading, field)}
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
              {reading && (
                <Reading step={step} reading={reading} set={(change) => set(index, change, "read")} />
              )}
              <div className="col-start-2 flex flex-wrap items-center gap-1 text-xs">
                <span className="text-soft">{t("steps.needs")}</span>
                {needs.map((need) => {
                  const occupied = step.occupies ?? reading?.uses ?? [];
                  const has = occupied.includes(need);
                  return (
                    <button
                      key={need}
                      aria-pressed={has}
                      className={`min-h-7 rounded-md border px-1.5 max-md:min-h-11 ${has ? "border-sea bg-sea-soft font-bold" : "border-line text-soft"}`}
                      onClick={() =>
                        set(
                          index,
                          {
                            occupies: has ? occupied.filter((other) => other !== need) : [...occupied, need],
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
          );
        })}
      </ol>
      <button className="btn mt-3" onClick={() => onChange([...steps, newStep()], "add")}>
        <Plus size={16} aria-hidden /> {t("steps.add")}
      </button>
      <p className="mt-4 max-w-2xl text-xs text-soft">{t("steps.inside")}</p>
      <p className="mt-1 text-xs text-soft">{t("steps.vegetables")}</p>
    </div>
  );
}

/** What the sentences say, and what all steps take together, soon after the typing stops. */
function useStepsRead(steps: Step[]) {
  const asked = useSettled(JSON.stringify(steps.map((step) => stepOf(step, true))), 250);
  const { data } = useQuery({
    queryKey: queryKeys.steps(asked),
    queryFn: async () => {
      const said = JSON.parse(asked) as ReturnType<typeof stepOf>[];
      return (await calcSteps({ body: { steps: said.map(({ text }) => text), said } })).data!;
    },
    enabled: steps.length > 0,
    placeholderData: keepPreviousData,
  });
  return steps.length > 0 ? data : undefined;
}

const placeholderOf = (
  reading: StepView | undefined,
  field: "handsOn" | "unattended" | "temperature" | "daysAhead",
) => {
  if (!reading) return undefined;
  const value =
    field === "temperature"
      ? reading.celsius
      : field === "daysAhead"
        ? reading.daysAhead
        : reading.minutes[field];
  return value ? String(value) : undefined;
};

/** What was read from the sentence where nothing else was said, and the two presses that put it right. */
function Reading({
  step,
  reading,
  set,
}: {
  step: Step;
  reading: StepView;
  set: (change: Partial<Step>) => void;
}) {
  const { t } = useWords("recipes");
  const { sentence, minutes } = reading;
  const ownWords = step.handsOn || step.unattended || step.temperature || step.daysAhead || step.occupies;
  const wordsOf = (way: { minutes: StepView["minutes"]; celsius: number | null; uses: Occupies[] }) =>
    [
      way.minutes.handsOn ? t("steps.readHands", { count: way.minutes.handsOn }) : "",
      way.minutes.unattended ? t("steps.readWaits", { count: way.minutes.unattended }) : "",
      way.celsius ? t("steps.readHeat", { celsius: way.celsius }) : "",
      ...way.uses.map((need) => t(`steps.occupies.${need}`)),
    ]
      .filter(Boolean)
      .join(" · ");
  const said = wordsOf(sentence);
  return (
    <div className="col-start-2 flex flex-wrap items-center gap-x-3 gap-y-1 text-sm text-soft">
      <span>
        {said
          ? t(sentence.minutes.isAbout ? "steps.readAbout" : "steps.read", { said })
          : step.text.trim()
            ? t("steps.readNothing")
            : ""}
      </span>
      {reading.otherWays.map((way, i) => (
        <span key={i}>{t("steps.orElse", { said: wordsOf(way) })}</span>
      ))}
      {reading.atATime && <span>{t("steps.atATime", { count: reading.atATime })}</span>}
      {minutes.unattended > 0 && (
        <button
          className="link max-md:min-h-11"
          onClick={() => set({ handsOn: String(minutes.handsOn + minutes.unattended), unattended: "0" })}
        >
          {t("steps.allHands")}
        </button>
      )}
      {minutes.unattended === 0 && minutes.handsOn > 0 && (
        <button
          className="link max-md:min-h-11"
          onClick={() => set({ handsOn: "0", unattended: String(minutes.handsOn) })}
        >
          {t("steps.byItself")}
        </button>
      )}
      {ownWords && (
        <button
          className="link max-md:min-h-11"
          onClick={() => set({ handsOn: "", unattended: "", temperature: "", daysAhead: "", occupies: null })}
        >
          {t("steps.asSaid")}
        </button>
      )}
      {reading.notUnderstood.map((words) => (
        <Sentence key={words}>{t("steps.notUnderstood", { words })}</Sentence>
      ))}
    </div>
  );
}
