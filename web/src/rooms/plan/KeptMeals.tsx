import { useQuery, useQueryClient } from "@tanstack/react-query";
import { X } from "lucide-react";
import { forgetKeptMeal, listKeptMeals, type KeptMealView } from "../../api";
import { useWords } from "../../app/i18n";
import { all, queryKeys } from "../../app/queryKeys";

/** Everything kept off menus, what was eaten last first. */
export const useKeptMeals = () =>
  useQuery({
    queryKey: queryKeys.keptMeals(),
    queryFn: async () => (await listKeptMeals()).data!,
  });

/** What is kept of a place whose name is being typed: one press takes it onto a line. */
export function KeptMeals({ place, onTake }: { place: string; onTake: (meal: KeptMealView) => void }) {
  const { t } = useWords("plan");
  const queries = useQueryClient();
  const typed = place.trim().toLowerCase();
  const kept = (useKeptMeals().data ?? []).filter((meal) => meal.place.toLowerCase().includes(typed));
  if (kept.length === 0) return null;
  return (
    <div className="mt-2">
      <p className="text-xs text-soft">{t("kept.title")}</p>
      <ul className="mt-1 flex flex-wrap gap-2">
        {kept.slice(0, 8).map((meal) => (
          <li key={meal.id} className="flex">
            <button className="btn rounded-r-none" onClick={() => onTake(meal)}>
              {meal.name}
              <span className="text-xs text-soft">{meal.place}</span>
            </button>
            <button
              className="btn rounded-l-none border-l-0 px-1.5"
              aria-label={t("kept.forget", { name: meal.name, place: meal.place })}
              onClick={() =>
                void forgetKeptMeal({ path: { id: meal.id } }).finally(() =>
                  queries.invalidateQueries(all("keptMeals")),
                )
              }
            >
              <X size={14} aria-hidden />
            </button>
          </li>
        ))}
      </ul>
    </div>
  );
}
