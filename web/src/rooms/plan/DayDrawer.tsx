import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useWords } from "../../app/i18n";
import {
  getDayInDepth,
  layBox,
  layFood,
  layPortion,
  type DayInDepth,
  type Measure,
  type WeekView,
} from "../../api";
import { useHistory } from "../../app/history";
import { queryKeys } from "../../app/queryKeys";
import { sawDays, seenDays } from "../../app/seen";
import { Drawer } from "../../ui/Drawer";
import { Amount } from "../../ui/Figures";
import { amount, exact, longDay, wholeNumber } from "../../ui/format";
import { Failed, Loading } from "../../ui/states";
import { AwayFrom } from "./AwayFrom";
import { CopyDay } from "./CopyDay";
import { DayEntry } from "./DayEntry";
import { DayItem } from "./DayItem";
import { EventForm } from "./EventForm";
import { Guests } from "./Guests";
import { KeepFree } from "./KeepFree";
import { Mends } from "./Mends";
import { dayWords, outWords } from "./reading";
import { SlotSelect } from "./SlotSelect";

interface DayDrawerProps {
  eaterId: string;
  name: string;
  day: string;
  /** The week around it: what is at hand, who else eats, where else things could go. */
  week: WeekView;
  lens: Measure;
  close: () => void;
}

/** One day in depth: what is out and what would mend it, what lies on it and why, what still fits, a meal out, copies. */
export function DayDrawer({ eaterId, name, day, week, lens, close }: DayDrawerProps) {
  const { t } = useWords("plan");
  const [slot, setSlot] = useState("");
  const { data, error, refetch } = useQuery({
    queryKey: queryKeys.dayInDepth(eaterId, day, slot),
    queryFn: async () => {
      const query = { slot: slot || undefined };
      const depth = (await getDayInDepth({ path: { eaterId, day }, query })).data!;
      sawDays([{ eaterId, day }], depth.version);
      return depth;
    },
    placeholderData: keepPreviousData,
  });
  return (
    <Drawer open grows close={close} title={t("depth.title", { name, day: longDay(day) })}>
      {error && !data ? (
        <Failed error={error} retry={() => void refetch()} />
      ) : data ? (
        <Depth
          eater={name}
          eaterId={eaterId}
          day={day}
          week={week}
          lens={lens}
          depth={data}
          fillSlot={slot}
          onFillSlot={setSlot}
        />
      ) : (
        <Loading />
      )}
    </Drawer>
  );
}

const looks = { in: "text-sea", out: "text-brick", open: "" };

function Depth({
  eater,
  eaterId,
  day,
  week,
  lens,
  depth,
  fillSlot,
  onFillSlot,
}: Pick<DayDrawerProps, "eaterId" | "day" | "week" | "lens"> & {
  eater: string;
  depth: DayInDepth;
  /** The part of the day to fill; empty for the day as a whole. */
  fillSlot: string;
  onFillSlot: (slot: string) => void;
}) {
  const { t } = useWords("plan");
  const { change } = useHistory();
  const view = depth.day;
  const where = { eaterId, day };
  const to = { eaterId, day, slot: fillSlot || null };
  const dates = (week.eaters[0]?.days ?? []).map(({ day: date }) => date);
  const others = dates.filter((date) => date !== day && date >= week.today);
  // Of a measure that is over its most: what brings how much of it, the most first.
  const [breaking, setBreaking] = useState<Measure | null>(null);
  const out = (Object.keys(view.bands) as Measure[]).filter(
    (measure) => view.bands[measure]?.position === "over",
  );
  const of = (item: DayInDepth["day"]["items"][number]) => item.figures[breaking ?? lens]?.value ?? 0;
  const shown = breaking ? [...view.items].sort((a, b) => of(b) - of(a)) : view.items;
  return (
    <div className="space-y-6 text-sm">
      <section>
        {view.items.some(({ never }) => never) && (
          <p className="font-bold text-brick">{t("depth.excluded", { name: eater })}</p>
        )}
        <p className={`counted font-bold ${looks[dayWords(t, view, lens).look]}`}>
          {view.verdict === "out" ? outWords(t, view.bands) : dayWords(t, view, lens).words}
        </p>
        {out.length > 0 && view.items.length > 1 && (
          <p className="counted mt-1 flex flex-wrap gap-2">
            {out.map((measure) => (
              <button
                key={measure}
                className={`chip ${breaking === measure ? "border-sea bg-sea-soft font-bold" : ""}`}
                aria-pressed={breaking === measure}
                onClick={() => setBreaking(breaking === measure ? null : measure)}
              >
                {t("depth.whatBreaks", { measure: t(`app:measures.${measure}`) })}
              </button>
            ))}
          </p>
        )}
        {view.dayName && <p className="text-soft">{view.dayName}</p>}
        {view.kcalPer100g !== null && (
          <p className="counted text-soft">
            {t("depth.density", { grams: wholeNumber(view.grams), density: wholeNumber(view.kcalPer100g) })}
          </p>
        )}
        {view.giveOrTake > 0 && (
          <p className="counted text-soft">{t("depth.giveOrTake", { kcal: wholeNumber(view.giveOrTake) })}</p>
        )}
      </section>
      {view.verdict === "out" && (
        <div className="counted">
          <Mends eaterId={eaterId} day={day} depth={depth} lens={lens} />
        </div>
      )}
      <section aria-labelledby="depth-items">
        <h3 id="depth-items" className="mb-1 text-base">
          {t("depth.items")}
        </h3>
        {view.items.length === 0 && <p className="text-soft">{t("nothing")}</p>}
        <ul className="divide-y divide-line">
          {shown.map((item) => (
            <DayItem
              key={item.id}
              item={item}
              eater={eater}
              eaterId={eaterId}
              day={day}
              lens={breaking ?? lens}
              depth={depth}
              week={week}
            />
          ))}
        </ul>
        <div className="mt-2">
          <DayEntry
            {...where}
            slot={fillSlot || null}
            label={t("depth.addLabel")}
            hint={t("plain.hint")}
            action={t("plain.add")}
            lens={lens}
          />
        </div>
        {depth.parts.length > 0 && (
          <ul className="counted mt-2 flex flex-wrap gap-x-5 gap-y-1 text-xs" aria-label={t("depth.parts")}>
            {depth.parts.map((part) => (
              <li key={part.name}>
                <span className="text-soft">{part.name}</span>{" "}
                <Amount measure={lens} figure={part.sums[lens]} className="font-bold" />
                {part.share !== null && lens === view.aim.leading && (
                  <span className="text-soft">
                    {" "}
                    {t("depth.ofShare", { share: amount(lens, part.share) })}
                  </span>
                )}
              </li>
            ))}
          </ul>
        )}
        {view.exactPoints && view.items.length > 0 && (
          <p className="counted mt-2 text-xs text-soft">
            {t("depth.points", {
              count: view.sums["points"]?.value ?? 0,
              exact: exact(view.exactPoints.value),
            })}
          </p>
        )}
      </section>
      {!view.aim.isAway && (
        <section aria-labelledby="depth-fits" className="counted">
          <h3 id="depth-fits" className="mb-1 text-base">
            {t("depth.stillFits")}
          </h3>
          <SlotSelect label={t("depth.forSlot")} slots={depth.slots} value={fillSlot} onChange={onFillSlot} />
          {depth.stillFits.length === 0 && <p className="text-soft">{t("depth.full")}</p>}
          <ul className="divide-y divide-line">
            {depth.stillFits.map((offer) => (
              <li key={offer.boxId ?? offer.batchId ?? offer.text} className="flex items-center gap-3 py-1">
                <span className="min-w-0 flex-1">
                  {offer.name}
                  {(offer.boxId || offer.batchId) && (
                    <span className="ml-2 text-xs text-soft">
                      {t(offer.boxId ? "depth.fromShelf" : "depth.notPacked")}
                    </span>
                  )}
                  {offer.fits && <b className="ml-2 text-xs text-sea">{t("fits")}</b>}
                </span>
                <Amount measure={lens} figure={offer.figures[lens]} />
                <button
                  className="btn"
                  aria-label={t("depth.layNamed", { name: offer.name })}
                  onClick={() =>
                    void change(
                      () =>
                        offer.boxId
                          ? layBox({ headers: seenDays(where), body: { boxId: offer.boxId, ...to } })
                          : offer.batchId
                            ? layPortion({
                                headers: seenDays(where),
                                body: { batchId: offer.batchId, ...to },
                              })
                            : layFood({ headers: seenDays(where), body: { text: offer.text!, ...to } }),
                      t("carry.laid", { name: offer.name, day: longDay(day) }),
                    )
                  }
                >
                  {t("plain.add")}
                </button>
              </li>
            ))}
          </ul>
        </section>
      )}
      <div className="counted">
        <KeepFree {...where} lens={lens} measures={Object.keys(view.sums) as Measure[]} slots={depth.slots} />
      </div>
      <Guests {...where} week={week} slots={depth.slots} />
      <AwayFrom
        {...where}
        name={eater}
        today={week.today}
        days={dates}
        others={week.eaters.filter((other) => other.eaterId !== eaterId)}
        depth={depth}
      />
      <div className="counted">
        <EventForm eaterId={eaterId} day={day} slots={depth.slots} hasPoints={view.aim.rule !== null} />
      </div>
      <CopyDay eaterId={eaterId} day={day} others={others} parts={depth.parts} />
    </div>
  );
}
