import { addDays, parseISO } from "date-fns";
import { useState } from "react";
import { eatItem, giveAwayBox, moveItem, shareItem, takeOff, type ItemView } from "../../api";
import { useEatersQuery } from "../../app/Header";
import { useHistory } from "../../app/history";
import { useWords } from "../../app/i18n";
import { seenDays } from "../../app/seen";
import { Drawer } from "../../ui/Drawer";
import { grams, isoDay, longDay, shortDay } from "../../ui/format";
import { Sentence } from "../../ui/states";

const times = [
  ["quarter", 0.25],
  ["half", 0.5],
  ["threeQuarters", 0.75],
  ["andHalf", 1.5],
  ["double", 2],
] as const;

/** What lies on the day was eaten otherwise, or not: another amount, shared, tomorrow, given away, skipped. One press each. */
export function NotQuite({
  item,
  where,
  today,
  close,
}: {
  item: ItemView;
  where: { eaterId: string; day: string };
  today: string;
  close: () => void;
}) {
  const { t } = useWords("eat");
  const { change } = useHistory();
  const others = (useEatersQuery().data ?? []).filter(({ id }) => id !== where.eaterId);
  const [typed, setTyped] = useState("");
  const [trouble, setTrouble] = useState<string | null>(null);
  // On a day to come nothing was eaten yet.
  const isOpenDay = where.day <= today;
  const tomorrow = isoDay(addDays(parseISO(where.day), 1));
  const { id, name } = item;
  // What is refused stays typed, and says why.
  const act = async (make: Parameters<typeof change>[0], done: string) => {
    if (await change(make, done, ({ detail, errors }) => setTrouble(errors?.[0]?.sentence ?? detail ?? null)))
      close();
  };
  const headers = () => seenDays(where);
  return (
    <Drawer open close={close} title={t("notQuite.title", { name })}>
      <div className="space-y-5">
        {isOpenDay && (
          <section aria-label={t("notQuite.amount")}>
            <h3 className="mb-2 text-base">{t("notQuite.amount")}</h3>
            <div className="flex flex-wrap gap-2">
              {times.map(([word, share]) => (
                <button
                  key={word}
                  className="btn min-h-12 flex-col leading-tight"
                  onClick={() =>
                    void act(
                      () =>
                        eatItem({ headers: headers(), path: { id }, body: { eaten: true, times: share } }),
                      t("notQuite.ate", { share: t(`share.${word}`), name }),
                    )
                  }
                >
                  {t(`share.${word}`)}
                  {item.giveOrTake === null || item.text === null ? (
                    <span className="text-xs text-soft">{grams(Math.round(item.grams * share))} g</span>
                  ) : null}
                </button>
              ))}
            </div>
            <form
              className="mt-2 flex items-end gap-2"
              onSubmit={(event) => {
                event.preventDefault();
                if (typed.trim() === "") return;
                void act(
                  () =>
                    eatItem({
                      headers: headers(),
                      path: { id },
                      body: { eaten: true, amount: typed.trim() },
                    }),
                  t("notQuite.ate", { share: typed.trim(), name }),
                );
              }}
            >
              <label className="min-w-0 flex-1 text-sm">
                <span className="block text-soft">{t("notQuite.type")}</span>
                <input
                  className="field h-12 w-full"
                  placeholder={t("notQuite.hint")}
                  maxLength={200}
                  value={typed}
                  aria-invalid={trouble !== null}
                  onChange={(event) => {
                    setTyped(event.target.value);
                    setTrouble(null);
                  }}
                />
              </label>
              <button className="btn min-h-12" disabled={typed.trim() === ""}>
                {t("notQuite.ateThat")}
              </button>
            </form>
            {item.boxId && <p className="mt-1 text-sm text-soft">{t("notQuite.rest")}</p>}
          </section>
        )}
        <Sentence>{trouble}</Sentence>
        {isOpenDay && others.length > 0 && (
          <section aria-label={t("notQuite.sharedWith")}>
            <h3 className="mb-2 text-base">{t("notQuite.sharedWith")}</h3>
            <div className="flex flex-wrap gap-2">
              {others.map((other) => (
                <button
                  key={other.id}
                  className="btn min-h-12"
                  onClick={() =>
                    void act(
                      () =>
                        shareItem({
                          headers: seenDays(where, { ...where, eaterId: other.id }),
                          path: { id },
                          body: { withEaterId: other.id },
                        }),
                      t("notQuite.shared", { name, eater: other.name }),
                    )
                  }
                >
                  {other.name}
                </button>
              ))}
            </div>
          </section>
        )}
        <section aria-label={t("notQuite.instead")}>
          <h3 className="mb-2 text-base">{t("notQuite.instead")}</h3>
          <div className="flex flex-wrap gap-2">
            <button
              className="btn min-h-12"
              onClick={() =>
                void act(
                  () =>
                    moveItem({
                      headers: seenDays(where, { ...where, day: tomorrow }),
                      path: { id },
                      body: { ...where, day: tomorrow, place: 99 },
                    }),
                  t("notQuite.putOff", { name, day: longDay(tomorrow) }),
                )
              }
            >
              {where.day === today
                ? t("notQuite.tomorrow")
                : t("notQuite.nextDay", { day: shortDay(tomorrow) })}
            </button>
            {item.boxId && (
              <button
                className="btn min-h-12"
                onClick={() =>
                  void act(
                    () => giveAwayBox({ headers: headers(), path: { id: item.boxId! } }),
                    t("notQuite.given", { name }),
                  )
                }
              >
                {t("notQuite.give")}
              </button>
            )}
            <button
              className="btn min-h-12"
              onClick={() =>
                void act(
                  () => takeOff({ headers: headers(), path: { id } }),
                  t(item.boxId ? "notQuite.skippedBox" : "notQuite.skipped", { name }),
                )
              }
            >
              {t("notQuite.skip")}
            </button>
          </div>
        </section>
      </div>
    </Drawer>
  );
}
