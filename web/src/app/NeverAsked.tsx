import { useState } from "react";
import { useQueryClient } from "@tanstack/react-query";
import { leaveExcluded, takeOffExcluded, troubleOf, type ExcludedView } from "../api";
import { shortDay } from "../ui/format";
import { neverWords } from "../ui/never";
import { freshen } from "./freshen";
import { useHistory } from "./history";
import { useWords } from "./i18n";
import { useSay } from "./notices";

const mostShown = 4;

/** Asked once, in whatever room one is: what came to be excluded after it was laid, and what is to become of it. */
export function NeverAsked({ excluded }: { excluded: ExcludedView[] }) {
  const { t } = useWords();
  const queries = useQueryClient();
  const say = useSay();
  const { change } = useHistory();
  const [busy, setBusy] = useState(false);
  if (excluded.length === 0) return null;
  const count = excluded.length;
  const itemIds = excluded.map(({ itemId }) => itemId);
  const attempt = async (act: () => Promise<unknown>) => {
    setBusy(true);
    await act();
    setBusy(false);
  };
  const takeOff = () => change(() => takeOffExcluded({ body: { itemIds } }), t("never.taken", { count }));
  const leave = async () => {
    try {
      await leaveExcluded({ body: { itemIds } });
      say(t("never.stays"));
    } catch (thrown) {
      say(troubleOf(thrown, t("silent")).detail ?? "", { trouble: true });
    }
    await freshen(queries, "plan");
  };
  return (
    <section
      role="alert"
      aria-labelledby="never-title"
      className="no-print flex flex-wrap items-center gap-x-4 gap-y-2 border-b-2 border-brick bg-panel px-4 py-2"
    >
      <div className="min-w-0 flex-1 basis-72">
        <h2 id="never-title" className="flex items-center gap-2 text-base text-brick">
          <span aria-hidden className="hatched h-5 w-2 shrink-0 rounded-sm" />
          {t("never.title", { count })}
        </h2>
        <ul className="text-sm">
          {excluded.slice(0, mostShown).map((one) => (
            <li key={one.itemId}>
              {t("never.item", {
                eater: one.eater,
                day: shortDay(one.day),
                name: one.name,
                why: neverWords(t, one.why),
              })}
            </li>
          ))}
          {count > mostShown && <li>{t("never.more", { count: count - mostShown })}</li>}
        </ul>
      </div>
      <div className="flex gap-2">
        <button className="btn-next min-h-11" disabled={busy} onClick={() => void attempt(takeOff)}>
          {t("never.off", { count })}
        </button>
        <button className="btn min-h-11" disabled={busy} onClick={() => void attempt(leave)}>
          {t("never.leave", { count })}
        </button>
      </div>
    </section>
  );
}
