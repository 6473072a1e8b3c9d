import { useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import {
  giveAwayBox,
  putBoxes,
  throwAwayBox,
  troubleOf,
  type BatchView,
  type BoxPlace,
  type BoxView,
} from "../../api";
import { freshen } from "../../app/freshen";
import { useHistory } from "../../app/history";
import { useWords } from "../../app/i18n";
import { useInTurn, useVersions } from "../../app/inTurn";
import { useSay } from "../../app/notices";
import { sawDays, seenDays } from "../../app/seen";
import { shortDay } from "../../ui/format";
import { Labels } from "./Labels";

const places: BoxPlace[] = ["fridge", "freezer", "counter", "takenAlong"];

/** The boxes of a batch: each its label, where it is, and what became of it. */
export function Boxes({ batch }: { batch: BatchView }) {
  const { t } = useWords("pack");
  const say = useSay();
  const queries = useQueryClient();
  const { change, did } = useHistory();
  const there = batch.boxes.filter(({ state }) => state === "packed");
  useEffect(() => {
    sawDays(batch.boxes.flatMap(dayOf), batch.daysVersion);
  }, [batch]);

  const inTurn = useInTurn(`batch ${batch.id}`);
  const versions = useVersions();
  useEffect(() => {
    for (const { id, version } of batch.boxes) versions.saw(id, version);
  });

  const send = async (boxes: BoxView[], place: BoxPlace, isBack = false) => {
    const { data } = await inTurn(() =>
      putBoxes({ body: { boxes: boxes.map(({ id }) => ({ id, version: versions.of(id) })), place, isBack } }),
    );
    for (const { id, version } of data!.boxes) versions.saw(id, version);
  };
  const put = async (boxes: BoxView[], place: BoxPlace) => {
    try {
      await send(boxes, place);
      const which = boxes.filter((box) => box.place !== place);
      const [was, ...others] = new Set(which.map((box) => box.place));
      const done = t("put", { count: which.length, place: t(`places.${place}`) });
      if (was !== undefined && others.length === 0) did(done, () => send(which, was, true));
      else say(done);
    } catch (thrown) {
      say(troubleOf(thrown, t("app:silent")).detail ?? "", { trouble: true });
    } finally {
      await freshen(queries, "batch");
    }
  };
  const letGo = async (box: BoxView, how: typeof giveAwayBox | typeof throwAwayBox, done: string) => {
    await change(() => how({ path: { id: box.id }, headers: seenDays(...dayOf(box)) }), done);
  };

  return (
    <>
      {there.length > 1 && (
        <div
          role="group"
          aria-label={t("putAll")}
          className="no-print mb-4 flex flex-wrap items-center gap-2 text-sm"
        >
          <span className="text-soft">{t("putAll")}</span>
          {places.map((place) => (
            <button
              key={place}
              className={`btn ${there.every((box) => box.place === place) ? "bg-ink text-ground" : ""}`}
              aria-pressed={there.every((box) => box.place === place)}
              disabled={there.every((box) => box.place === place)}
              onClick={() => void put(there, place)}
            >
              {t(`places.${place}`)}
            </button>
          ))}
        </div>
      )}
      <Labels
        batch={batch}
        boxes={batch.boxes.map(
          ({
            number,
            grams,
            pieces,
            volume,
            name,
            day,
            never,
            state,
            isForGuests,
            useBy,
            isOver,
            putIn,
            container,
            eyeSpread,
          }) => ({
            isByEye: eyeSpread !== null,
            putIn,
            container,
            useBy,
            isOver,
            number,
            grams,
            pieces,
            volume,
            forWhom:
              name && day
                ? t(isForGuests ? "forGuests" : "forWhom", { name, day: shortDay(day) })
                : undefined,
            isExcluded: never !== null,
            isGone: state !== "packed",
          }),
        )}
        below={(number) => {
          const box = batch.boxes.find((one) => one.number === number)!;
          if (box.state !== "packed")
            return <p className="no-print px-1 text-xs text-soft">{t(`states.${box.state}`)}</p>;
          return (
            <p className="no-print mt-1 flex flex-wrap items-center gap-x-3 text-xs">
              <select
                className="field min-h-8 text-xs"
                aria-label={t("whereIs", { number })}
                value={box.place}
                onChange={(event) => void put([box], event.target.value as BoxPlace)}
              >
                {places.map((place) => (
                  <option key={place} value={place}>
                    {t(`places.${place}`)}
                  </option>
                ))}
              </select>
              <button
                className="min-h-6 text-soft underline"
                aria-label={t("giveAwayNamed", { number })}
                onClick={() => void letGo(box, giveAwayBox, t("givenAway", { number }))}
              >
                {t("giveAway")}
              </button>
              <button
                className="min-h-6 text-soft underline"
                aria-label={t("throwAwayNamed", { number })}
                onClick={() => void letGo(box, throwAwayBox, t("thrownAway", { number }))}
              >
                {t("throwAway")}
              </button>
            </p>
          );
        }}
      />
    </>
  );
}

const dayOf = ({ eaterId, day }: BoxView) => (eaterId && day ? [{ eaterId, day }] : []);
