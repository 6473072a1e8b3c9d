import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { getDayInDepth, layBox, layFood, layPortion, type EatView, type Measure } from "../../api";
import { useHistory } from "../../app/history";
import { useWords } from "../../app/i18n";
import { queryKeys } from "../../app/queryKeys";
import { sawDays, seenDays } from "../../app/seen";
import { Amount } from "../../ui/Figures";
import { Failed, Loading } from "../../ui/states";
import { KeepFree } from "../plan/KeepFree";
import { SlotSelect } from "../plan/SlotSelect";

/** What could still be added without passing anything, what brings the day nearest first; and what is kept free of it for later. */
export function StillFits({ view, lens }: { view: EatView; lens: Measure }) {
  const { t } = useWords("eat");
  const { change } = useHistory();
  const [slot, setSlot] = useState("");
  const { eaterId } = view;
  const where = { eaterId, day: view.day.day };
  const { data, error, refetch } = useQuery({
    queryKey: queryKeys.dayInDepth(eaterId, where.day, slot),
    queryFn: async () => {
      const depth = (await getDayInDepth({ path: where, query: { slot: slot || undefined } })).data!;
      sawDays([where], depth.version);
      return depth;
    },
    placeholderData: keepPreviousData,
  });
  if (error && !data) return <Failed error={error} retry={() => void refetch()} />;
  if (!data) return <Loading />;
  const to = { ...where, slot: slot || null };
  return (
    <div className="space-y-4">
      <SlotSelect label={t("plan:depth.forSlot")} slots={data.slots} value={slot} onChange={setSlot} />
      {data.stillFits.length === 0 && <p className="text-soft">{t("plan:depth.full")}</p>}
      <ul className="divide-y divide-line">
        {data.stillFits.map((offer) => (
          <li
            key={offer.boxId ?? offer.batchId ?? offer.text}
            className="flex min-h-12 items-center gap-3 py-1"
          >
            <span className="min-w-0 flex-1">
              {offer.name}
              {(offer.boxId || offer.batchId) && (
                <span className="ml-2 text-xs text-soft">
                  {t(offer.boxId ? "plan:depth.fromShelf" : "plan:depth.notPacked")}
                </span>
              )}
              {offer.fits && <b className="ml-2 text-xs text-sea">{t("plan:fits")}</b>}
            </span>
            <Amount measure={lens} figure={offer.figures[lens]} />
            <button
              className="btn min-h-11"
              aria-label={t("plan:depth.layNamed", { name: offer.name })}
              onClick={() =>
                void change(
                  () =>
                    offer.boxId
                      ? layBox({ headers: seenDays(where), body: { boxId: offer.boxId, ...to } })
                      : offer.batchId
                        ? layPortion({ headers: seenDays(where), body: { batchId: offer.batchId, ...to } })
                        : layFood({ headers: seenDays(where), body: { text: offer.text!, ...to } }),
                  t("laidOn", { name: offer.name }),
                )
              }
            >
              {t("lay")}
            </button>
          </li>
        ))}
      </ul>
      <KeepFree
        {...where}
        lens={lens}
        measures={Object.keys(view.day.sums) as Measure[]}
        slots={data.slots}
      />
    </div>
  );
}
