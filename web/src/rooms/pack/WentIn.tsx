import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { getCooking, seen, troubleOf, wentIn, type BatchLineView, type CookView } from "../../api";
import { freshen } from "../../app/freshen";
import { useWords } from "../../app/i18n";
import { useInTurn, useVersions } from "../../app/inTurn";
import { useLens } from "../../app/lens";
import { useSay } from "../../app/notices";
import { FoodEntry } from "../../ui/FoodEntry";
import { grams } from "../../ui/format";
import { queryKeys } from "../../app/queryKeys";

/** What really went into a batch, line by line: as planned, something else, left out, or forgotten on the list. */
export function WentIn({ id }: { id: string }) {
  const { t } = useWords("pack");
  const { data } = useQuery({
    queryKey: queryKeys.batchLines(id),
    queryFn: async () => (await getCooking({ path: { id } })).data!,
  });
  if (!data) return null;
  return (
    <details className="no-print mt-8 max-w-xl border-t border-rim pt-2">
      <summary className="cursor-pointer py-1 font-title text-base font-bold">
        {t("wentIn.title")}{" "}
        <span className="text-sm font-normal text-soft">
          {t("wentIn.raw", { grams: grams(Math.round(data.rawGrams)) })}
        </span>
      </summary>
      <Lines batch={data} />
    </details>
  );
}

function Lines({ batch }: { batch: CookView }) {
  const { t } = useWords("pack");
  const lens = useLens();
  const say = useSay();
  const queries = useQueryClient();
  const [open, setOpen] = useState<number | null>(null);
  const inTurn = useInTurn(`batch ${batch.id}`);
  const versions = useVersions();
  useEffect(() => versions.saw(batch.id, batch.version));
  const write = async (position: number, text: string | null, foodId: string | null = null) => {
    try {
      const { data } = await inTurn(() =>
        wentIn({
          path: { id: batch.id, position },
          headers: seen(versions.of(batch.id)),
          body: { text, foodId },
        }),
      );
      versions.saw(batch.id, data!.version);
      setOpen(null);
      return true;
    } catch (thrown) {
      say(troubleOf(thrown, t("app:silent")).detail ?? "", { trouble: true });
      return false;
    } finally {
      await freshen(queries, "batch");
    }
  };
  return (
    <>
      <p className="mb-2 text-sm text-soft">{t("wentIn.text")}</p>
      <ul className="divide-y divide-line text-sm">
        {batch.lines.map((line) => (
          <li key={line.position} className="py-1.5">
            <div className="flex items-baseline gap-3">
              <span className="min-w-0 flex-1">
                {line.text && (
                  <span className={line.reallyText !== null ? "text-soft line-through" : ""}>
                    {line.text}
                  </span>
                )}{" "}
                {line.reallyText !== null && <b>{line.reallyText || t("wentIn.leftOut")}</b>}
              </span>
              <span className="whitespace-nowrap">{grams(Math.round(line.wentInGrams * 10) / 10)} g</span>
              <button
                className="min-h-6 text-xs underline"
                aria-expanded={open === line.position}
                aria-label={t("wentIn.changeNamed", { line: line.reallyText || line.text })}
                onClick={() => setOpen(open === line.position ? null : line.position)}
              >
                {t("wentIn.change")}
              </button>
            </div>
            {open === line.position && (
              <div className="mt-1 border-l-2 border-sea pl-2">
                <FoodEntry
                  label={t("wentIn.instead")}
                  hint={line.text}
                  action={t("wentIn.save")}
                  rule={null}
                  lens={lens === "points" ? "energy" : lens}
                  onAdd={(text, foodId) => write(line.position, text, foodId)}
                />
                <span className="flex gap-4 text-xs">
                  {line.reallyText !== "" && (
                    <button className="min-h-6 underline" onClick={() => void write(line.position, "")}>
                      {t("wentIn.leaveOut")}
                    </button>
                  )}
                  {line.reallyText !== null && line.text !== "" && (
                    <button className="min-h-6 underline" onClick={() => void write(line.position, null)}>
                      {t("wentIn.asPlanned", { line: asPlanned(line) })}
                    </button>
                  )}
                </span>
              </div>
            )}
          </li>
        ))}
      </ul>
      <div className="mt-2">
        <FoodEntry
          label={t("wentIn.forgotten")}
          hint={t("wentIn.forgottenHint")}
          action={t("wentIn.add")}
          rule={null}
          lens={lens === "points" ? "energy" : lens}
          onAdd={(text, foodId) => write(batch.lines.length, text, foodId)}
        />
      </div>
    </>
  );
}

const asPlanned = ({ text, plannedGrams }: BatchLineView) =>
  `${text}, ${grams(Math.round(plannedGrams * 10) / 10)} g`;
