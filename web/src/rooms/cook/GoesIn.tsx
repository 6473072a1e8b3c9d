import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import {
  getCooking,
  listBatchDays,
  seen,
  troubleOf,
  weighedIn,
  wentIn,
  type BatchDayView,
  type BatchLineView,
  type CookView,
} from "../../api";
import { freshen } from "../../app/freshen";
import { useWords } from "../../app/i18n";
import { useInTurn, useVersions } from "../../app/inTurn";
import { useLens } from "../../app/lens";
import { useSay } from "../../app/notices";
import { queryKeys } from "../../app/queryKeys";
import { Amount } from "../../ui/Figures";
import { FoodEntry } from "../../ui/FoodEntry";
import { grams, shortDay } from "../../ui/format";
import { EatenBefore } from "./EatenBefore";
import { WeighLine } from "./WeighLine";

/** What really went into a batch, line by line: as planned, something else, left out, or forgotten on the list. */
export function WentIn({ id }: { id: string }) {
  const { t } = useWords("cook");
  const { data } = useLinesIn(id);
  if (!data) return null;
  return (
    <details className="no-print mt-8 max-w-xl border-t border-rim pt-2">
      <summary className="cursor-pointer py-1 font-title text-base font-bold">
        {t("wentIn.title")}{" "}
        <span className="text-sm font-normal text-soft">
          {t("wentIn.raw", { grams: grams(Math.round(data.rawGrams)) })}
        </span>
      </summary>
      <p className="mb-2 text-sm text-soft">{t("wentIn.text")}</p>
      <GoesIn batch={data} />
    </details>
  );
}

/**
 * What goes into a batch, line by line.
 * @param every How often it is asked for anew, in milliseconds, where another phone may write it.
 */
export const useLinesIn = (id: string, every?: number) =>
  useQuery({
    refetchInterval: every,
    queryKey: queryKeys.batchLines(id),
    queryFn: async () => (await getCooking({ path: { id } })).data!,
  });

/** The lines of a batch; each can be weighed in by the scale, typed otherwise, or left out. */
export function GoesIn({ batch, first = [] }: { batch: CookView; first?: number[] }) {
  const { t } = useWords("cook");
  const lens = useLens();
  const say = useSay();
  const queries = useQueryClient();
  const [open, setOpen] = useState<number | null>(first[0] ?? null);
  const [effects, setEffects] = useState<Effect[] | null>(null);
  const inTurn = useInTurn(`batch ${batch.id}`);
  const versions = useVersions();
  useEffect(() => versions.saw(batch.id, batch.version));
  const daysNow = async () => (await listBatchDays({ path: { id: batch.id } })).data!;
  const write = async (position: number, send: (headers: Record<string, string>) => Promise<CookView>) => {
    try {
      const [before, after] = await inTurn(async () => {
        const before = await daysNow();
        versions.saw(batch.id, (await send(seen(versions.of(batch.id)))).version);
        return [before, await daysNow()] as const;
      });
      setEffects(effectsOf(before, after));
      // What is weighed in order goes on with the next.
      const next = order.indexOf(position) + 1;
      setOpen(first.includes(position) && next < first.length ? order[next]! : null);
      return true;
    } catch (thrown) {
      say(troubleOf(thrown, t("app:silent")).detail ?? "", { trouble: true });
      return false;
    } finally {
      await freshen(queries, "batch");
    }
  };
  const typed = (position: number, text: string | null, foodId: string | null = null) =>
    write(
      position,
      async (headers) =>
        (await wentIn({ path: { id: batch.id, position }, headers, body: { text, foodId } })).data!,
    );
  const weighed = (position: number, weight: number) =>
    write(
      position,
      async (headers) =>
        (await weighedIn({ path: { id: batch.id, position }, headers, body: { grams: weight } })).data!,
    );
  const order = [
    ...first,
    ...batch.lines.map(({ position }) => position).filter((at) => !first.includes(at)),
  ];
  const lines = order
    .map((position) => batch.lines.find((line) => line.position === position))
    .filter((line) => line !== undefined);
  return (
    <>
      <ul className="divide-y divide-line text-sm">
        {lines.map((line) => (
          <li key={line.position} className="py-1.5">
            <div className="flex items-baseline gap-3 max-md:min-h-11 max-md:items-center">
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
                className="min-h-6 text-xs underline max-md:min-h-11 max-md:px-1"
                aria-expanded={open === line.position}
                aria-label={t("wentIn.changeNamed", { line: line.reallyText || line.text })}
                onClick={() => setOpen(open === line.position ? null : line.position)}
              >
                {t("wentIn.change")}
              </button>
            </div>
            {open === line.position && (
              <div className="mt-1 border-l-2 border-sea pl-2">
                {!line.isTakenOut && line.plannedGrams > 0 && (
                  <WeighLine
                    key={line.position}
                    line={line}
                    take={(weight) => weighed(line.position, weight)}
                  />
                )}
                <p aria-hidden className="text-sm">
                  {t("wentIn.instead")}
                </p>
                <FoodEntry
                  label={t("wentIn.instead")}
                  hint={line.text}
                  action={t("wentIn.save")}
                  rule={null}
                  lens={lens === "points" ? "energy" : lens}
                  onAdd={(text, foodId) => typed(line.position, text, foodId)}
                />
                <span className="flex flex-wrap gap-x-4 text-xs">
                  {line.reallyText !== "" && (
                    <button
                      className="min-h-6 underline max-md:min-h-11"
                      onClick={() => void typed(line.position, "")}
                    >
                      {t("wentIn.leaveOut")}
                    </button>
                  )}
                  {line.reallyText !== null && line.text !== "" && (
                    <button
                      className="min-h-6 underline max-md:min-h-11"
                      onClick={() => void typed(line.position, null)}
                    >
                      {t("wentIn.asPlanned", { line: asPlanned(line) })}
                    </button>
                  )}
                </span>
              </div>
            )}
          </li>
        ))}
      </ul>
      <Effects effects={effects} />
      <EatenBefore batchId={batch.id} />
      <div className="mt-2">
        <FoodEntry
          label={t("wentIn.forgotten")}
          hint={t("wentIn.forgottenHint")}
          action={t("wentIn.add")}
          rule={null}
          lens={lens === "points" ? "energy" : lens}
          onAdd={(text, foodId) => typed(batch.lines.length, text, foodId)}
        />
      </div>
    </>
  );
}

const asPlanned = ({ text, plannedGrams }: BatchLineView) =>
  `${text}, ${grams(Math.round(plannedGrams * 10) / 10)} g`;

interface Effect {
  before: BatchDayView;
  after: BatchDayView;
}

const effectsOf = (before: BatchDayView[], after: BatchDayView[]): Effect[] =>
  after.flatMap((now) => {
    const was = before.find(({ eaterId, day }) => eaterId === now.eaterId && day === now.day);
    return was && (was.fits !== now.fits || was.sum.value !== now.sum.value)
      ? [{ before: was, after: now }]
      : [];
  });

/** What something else in the pan does to the days: each with what it was and is. */
function Effects({ effects }: { effects: Effect[] | null }) {
  const { t } = useWords("cook");
  return (
    <div aria-live="polite">
      {effects && (
        <div className="mt-2 border-y border-line py-2 text-sm">
          <h3 className="mb-1 text-sm">{t("wentIn.days")}</h3>
          {effects.length === 0 ? (
            <p className="text-soft">{t("wentIn.noDays")}</p>
          ) : (
            <ul>
              {effects.map(({ before, after }) => (
                <li key={after.eaterId + after.day} className="flex flex-wrap gap-x-2">
                  <span>
                    {shortDay(after.day)} {after.name}
                  </span>
                  <span className="counted">
                    <Amount measure={before.measure} figure={before.sum} /> →{" "}
                    <Amount measure={after.measure} figure={after.sum} className="font-bold" />
                  </span>
                  <span className={`counted ${after.fits ? "text-soft" : "font-semibold text-brick"}`}>
                    {t(`wentIn.fits.${before.fits ? "fit" : "not"}.${after.fits ? "fit" : "not"}`)}
                  </span>
                </li>
              ))}
            </ul>
          )}
        </div>
      )}
    </div>
  );
}
