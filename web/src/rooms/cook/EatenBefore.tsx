import { useQuery, useQueryClient } from "@tanstack/react-query";
import { correctEaten, getCorrections, takeBackCorrections, troubleOf } from "../../api";
import { freshen } from "../../app/freshen";
import { useHistory } from "../../app/history";
import { useWords } from "../../app/i18n";
import { useLens } from "../../app/lens";
import { useSay } from "../../app/notices";
import { queryKeys } from "../../app/queryKeys";
import { amount, shortDay, unitWords } from "../../ui/format";

/** What was eaten of a batch before it was corrected: by how much it would count otherwise, written beside it where that is wanted. */
export function EatenBefore({ batchId }: { batchId: string }) {
  const { t } = useWords("cook");
  const lens = useLens();
  const say = useSay();
  const queries = useQueryClient();
  const { did } = useHistory();
  const { data } = useQuery({
    queryKey: queryKeys.corrections(batchId),
    queryFn: async () => (await getCorrections({ path: { batchId } })).data!,
  });
  if (!data || data.length === 0) return null;
  const correct = async () => {
    try {
      const { entryIds } = (await correctEaten({ path: { batchId } })).data!;
      did(t("before.done", { count: entryIds.length }), async () => {
        await takeBackCorrections({ body: { entryIds } });
        await freshen(queries, "batch");
      });
    } catch (thrown) {
      say(troubleOf(thrown, t("app:silent")).detail ?? "", { trouble: true });
    } finally {
      await freshen(queries, "batch");
    }
  };
  return (
    <section aria-labelledby="eaten-before" className="mt-3 border-y border-line py-2 text-sm">
      <h3 id="eaten-before" className="mb-1 text-sm">
        {t("before.title")}
      </h3>
      <ul>
        {data.map((one, i) => (
          <li key={i} className="flex flex-wrap gap-x-2">
            <span>
              {shortDay(one.day)} {one.eater}: {one.name}
            </span>
            <span className="counted">
              {t("before.counted", {
                was: amount(lens, one.was[lens]?.value ?? 0),
                unit: unitWords(t, lens),
              })}
            </span>
            <b className="counted">
              {(one.by[lens]?.value ?? 0) < 0 ? "−" : "+"}
              {amount(lens, Math.abs(one.by[lens]?.value ?? 0))}
            </b>
          </li>
        ))}
      </ul>
      <p className="mt-1 text-soft">{t("before.text")}</p>
      <button className="btn mt-1" onClick={() => void correct()}>
        {t("before.correct", { count: data.length })}
      </button>
    </section>
  );
}
