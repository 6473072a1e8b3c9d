import { weighAs, type EntryView } from "../../api";
import { useWords } from "../../app/i18n";

/** Raw or cooked: asked once for each food, remembered, and said otherwise with one press. */
export function WeighedAs({ entry, onChoose }: { entry: EntryView; onChoose: (foodId: string) => void }) {
  const { t } = useWords("plan");
  const { forms, line, problem } = entry;
  const isAsked = problem?.code === "raw-or-cooked";
  const taken = isAsked ? null : (line?.food?.id ?? null);
  const shown = forms.filter(({ foodId }) => foodId !== taken);
  if (shown.length === 0) return null;
  return (
    <p className="flex flex-wrap items-center gap-2">
      <span className={isAsked ? "font-bold text-ink" : ""}>
        {isAsked ? t("weighed.asked") : t("weighed.orElse")}
      </span>
      {shown.map((form) => (
        <button
          key={form.foodId}
          type="button"
          className="btn min-h-11"
          onClick={() => {
            // The line keeps what was pressed even where that could not be remembered.
            weighAs({ body: { foodId: form.foodId } }).catch(() => undefined);
            onChoose(form.foodId);
          }}
        >
          {form.name}
          {form.kcalPer100g !== null && (
            <span className="counted text-xs text-soft">
              {" "}
              {t("weighed.per", { kcal: Math.round(form.kcalPer100g) })}
            </span>
          )}
        </button>
      ))}
    </p>
  );
}
