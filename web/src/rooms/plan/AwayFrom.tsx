import { useQueryClient } from "@tanstack/react-query";
import { useWords } from "../../app/i18n";
import { freezeItem, moveItem, setAway, takeOff, troubleOf, type DayInDepth, type ItemView } from "../../api";
import { freshen } from "../../app/freshen";
import { useHistory } from "../../app/history";
import { useSay } from "../../app/notices";
import { seenDays } from "../../app/seen";
import { longDay } from "../../ui/format";

interface AwayFromProps {
  eaterId: string;
  name: string;
  day: string;
  today: string;
  /** The days of the week. */
  days: string[];
  /** Who else eats here. */
  others: { eaterId: string; name: string }[];
  depth: DayInDepth;
}

/** An eater is away for the day, for a part of it, or for the rest of the week; what lies there is offered to the others or to the freezer. */
export function AwayFrom({ eaterId, name, day, today, days, others, depth }: AwayFromProps) {
  const { t } = useWords("plan");
  const say = useSay();
  const queries = useQueryClient();
  const { did, change } = useHistory();
  const view = depth.day;
  const isAway = view.verdict === "away" || view.aim.isAway;
  const set = async (which: string[], away: boolean, slot: string | null) => {
    const put = (on: string[], value: boolean) =>
      setAway({ path: { id: eaterId }, body: { days: on, isAway: value, slot } });
    try {
      const { changed } = (await put(which, away)).data!;
      const what = slot ?? (which.length > 1 ? t("away.restOfWeek") : longDay(which[0]!));
      did(t(away ? "away.done" : "away.back", { name, what }), () => put(changed, !away));
    } catch (thrown) {
      say(troubleOf(thrown, t("app:silent")).detail ?? "", { trouble: true });
    } finally {
      await freshen(queries, "eater");
    }
  };
  const where = { eaterId, day };
  const left = isAway ? view.items.filter(({ eatenAt, hold }) => eatenAt === null && hold === null) : [];
  const give = (item: ItemView, to: { eaterId: string; name: string }) => {
    const there = { eaterId: to.eaterId, day };
    return change(
      () => moveItem({ headers: seenDays(where, there), path: { id: item.id }, body: there }),
      t("away.given", { item: item.name, name: to.name }),
    );
  };
  const rest = days.filter((date) => date >= day && date >= today);
  return (
    <details open={isAway || view.awayIn.length > 0}>
      <summary className="font-title text-base font-bold">{t("away.title")}</summary>
      {day < today ? (
        <p className="mt-1 text-soft">{t("away.past")}</p>
      ) : (
        <div className="mt-2 flex flex-wrap gap-2" role="group" aria-label={t("away.title")}>
          <button
            className={`btn ${isAway ? "border-sea bg-sea-soft" : ""}`}
            aria-pressed={isAway}
            onClick={() => void set([day], !isAway, null)}
          >
            {t("away.day")}
          </button>
          {!isAway &&
            depth.slots.map(({ name: slot }) => {
              const isOut = view.awayIn.includes(slot);
              return (
                <button
                  key={slot}
                  className={`chip ${isOut ? "border-sea bg-sea-soft font-bold" : ""}`}
                  aria-pressed={isOut}
                  onClick={() => void set([day], !isOut, slot)}
                >
                  {t("away.slot", { slot })}
                </button>
              );
            })}
          {!isAway && rest.length > 1 && (
            <button className="chip" onClick={() => void set(rest, true, null)}>
              {t("away.restOfWeek")}
            </button>
          )}
        </div>
      )}
      {left.length > 0 && (
        <>
          <p className="mt-2">{t("away.left", { name })}</p>
          <ul className="divide-y divide-line">
            {left.map((item) => (
              <li key={item.id} className="flex flex-wrap items-center gap-x-3 gap-y-1 py-1.5">
                <span className="min-w-0 flex-1">{item.text ?? item.name}</span>
                {others.map((other) => (
                  <button key={other.eaterId} className="btn" onClick={() => void give(item, other)}>
                    {t("away.for", { name: other.name })}
                  </button>
                ))}
                {item.boxId && (
                  <button
                    className="btn"
                    onClick={() =>
                      void change(
                        () => freezeItem({ headers: seenDays(where), path: { id: item.id } }),
                        t("away.frozen", { item: item.name }),
                      )
                    }
                  >
                    {t("away.freeze")}
                  </button>
                )}
                <button
                  className="btn"
                  onClick={() =>
                    void change(
                      () => takeOff({ headers: seenDays(where), path: { id: item.id } }),
                      t(item.boxId ? "carry.back" : "carry.removed", { name: item.name }),
                    )
                  }
                >
                  {t(item.boxId ? "shelf.back" : "carry.off")}
                </button>
              </li>
            ))}
          </ul>
        </>
      )}
    </details>
  );
}
