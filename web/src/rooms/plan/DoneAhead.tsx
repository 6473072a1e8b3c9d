import { useQuery, useQueryClient } from "@tanstack/react-query";
import { listAhead, putAhead, troubleOf, undoAhead, type AheadPlace, type DoneAheadView } from "../../api";
import { freshen } from "../../app/freshen";
import { useWords } from "../../app/i18n";
import { useSay } from "../../app/notices";
import { queryKeys } from "../../app/queryKeys";
import { shortDay, wholeNumber } from "../../ui/format";
import { Mark } from "../../ui/Tape";

const places: AheadPlace[] = ["fridge", "freezer", "counter"];

/** What was washed, chopped or boiled for dishes of later days, and where it stands. */
export function DoneAhead() {
  const { t } = useWords("plan");
  const say = useSay();
  const queries = useQueryClient();
  const { data } = useQuery({
    queryKey: queryKeys.ahead(),
    queryFn: async () => (await listAhead()).data!,
  });
  if (!data || data.length === 0) return null;
  const attempt = async (act: () => Promise<unknown>) => {
    try {
      await act();
    } catch (thrown) {
      say(troubleOf(thrown, t("app:silent")).detail ?? "", { trouble: true });
    }
    await freshen(queries, "prepDay");
  };
  const said = ({ work }: DoneAheadView) => {
    if (work.verb === "step") return work.what;
    const what = work.grams > 0 ? `${wholeNumber(work.grams)} g ${work.what}` : work.what;
    return `${what}, ${t(`ahead.verbs.${work.verb}`)}`;
  };
  return (
    <section aria-labelledby="ahead-title">
      <h2 id="ahead-title" className="mb-2 text-base">
        {t("ahead.title")}
      </h2>
      <ul className="space-y-2 p-1 text-sm">
        {data.map((done) => (
          <li key={done.id} className="grid grid-cols-[2.25rem_1fr] items-start gap-x-2">
            <Mark letters={done.batch.letters} tint={done.batch.tint} className="h-7 w-9 text-xs" />
            <div className="min-w-0">
              <p className="font-semibold">{said(done)}</p>
              <p className="text-xs text-soft">
                {t("ahead.for", {
                  dish: done.batch.name,
                  day: shortDay(done.day),
                  done: shortDay(done.doneOn),
                })}
              </p>
              <p className="flex items-center gap-2">
                <select
                  aria-label={t("ahead.place", { what: done.work.what })}
                  className="field min-h-8 py-0 text-xs"
                  value={done.place}
                  onChange={(event) =>
                    void attempt(async () =>
                      putAhead({ path: { id: done.id }, body: { place: event.target.value as AheadPlace } }),
                    )
                  }
                >
                  {places.map((place) => (
                    <option key={place} value={place}>
                      {t(`ahead.places.${place}`)}
                    </option>
                  ))}
                </select>
                <button
                  className="min-h-8 text-xs text-soft underline"
                  aria-label={t("ahead.notNamed", { what: done.work.what })}
                  onClick={() => void attempt(async () => undoAhead({ body: { ids: [done.id] } }))}
                >
                  {t("ahead.not")}
                </button>
              </p>
            </div>
          </li>
        ))}
      </ul>
    </section>
  );
}
