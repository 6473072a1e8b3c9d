import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { Lock, LockOpen } from "lucide-react";
import { useState } from "react";
import { useWords } from "../../app/i18n";
import {
  amendItem,
  copyDay,
  getDayInDepth,
  layBox,
  layFood,
  layPortion,
  lockItem,
  putInSlot,
  takeOff,
  whyItem,
  type DayInDepth,
  type ItemView,
  type Measure,
} from "../../api";
import { useHistory } from "../../app/history";
import { sawDays, seenDays } from "../../app/seen";
import { AmountField } from "../../ui/AmountField";
import { Drawer } from "../../ui/Drawer";
import { Amount } from "../../ui/Figures";
import { amount, exact, inPieces, longDay, shortDay, wholeNumber } from "../../ui/format";
import { Failed, Loading } from "../../ui/states";
import { NeverMark } from "../../ui/never";
import { EventForm } from "./EventForm";
import { Mends } from "./Mends";
import { dayWords, outWords } from "./reading";
import { queryKeys } from "../../app/queryKeys";

interface DayDrawerProps {
  eaterId: string;
  name: string;
  day: string;
  /** The other days of the week, to copy onto. */
  others: string[];
  lens: Measure;
  close: () => void;
}

/** One day in depth: what is out and what would mend it, what lies on it and why, what still fits, a meal out, copies. */
export function DayDrawer({ eaterId, name, day, others, lens, close }: DayDrawerProps) {
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
    <Drawer open close={close} title={t("depth.title", { name, day: longDay(day) })}>
      {error && !data ? (
        <Failed error={error} retry={() => void refetch()} />
      ) : data ? (
        <Depth
          eater={name}
          eaterId={eaterId}
          day={day}
          others={others}
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
  others,
  lens,
  depth,
  fillSlot,
  onFillSlot,
}: Pick<DayDrawerProps, "eaterId" | "day" | "others" | "lens"> & {
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
  const [copyTo, setCopyTo] = useState("");
  const [copyPart, setCopyPart] = useState("");
  return (
    <div className="space-y-6 text-sm">
      <section>
        <p className={`font-bold ${looks[dayWords(t, view, lens).look]}`}>
          {view.verdict === "out"
            ? outWords(t, view.bands) || t("depth.excluded", { name: eater })
            : dayWords(t, view, lens).words}
        </p>
        {view.dayName && <p className="text-soft">{view.dayName}</p>}
        {view.kcalPer100g !== null && (
          <p className="text-soft">
            {t("depth.density", { grams: wholeNumber(view.grams), density: wholeNumber(view.kcalPer100g) })}
          </p>
        )}
        {view.giveOrTake > 0 && (
          <p className="text-soft">{t("depth.giveOrTake", { kcal: wholeNumber(view.giveOrTake) })}</p>
        )}
      </section>
      {!view.fits && view.items.length > 0 && <Mends eaterId={eaterId} day={day} depth={depth} lens={lens} />}
      <section aria-labelledby="depth-items">
        <h3 id="depth-items" className="mb-1 text-base">
          {t("depth.items")}
        </h3>
        {view.items.length === 0 && <p className="text-soft">{t("nothing")}</p>}
        <ul className="divide-y divide-line">
          {view.items.map((item) => (
            <Item
              key={item.id}
              item={item}
              eater={eater}
              eaterId={eaterId}
              day={day}
              lens={lens}
              depth={depth}
            />
          ))}
        </ul>
        {depth.parts.length > 0 && (
          <ul className="mt-2 flex flex-wrap gap-x-5 gap-y-1 text-xs" aria-label={t("depth.parts")}>
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
          <p className="mt-2 text-xs text-soft">
            {t("depth.points", {
              rounded: exact(view.sums["points"]?.value ?? 0),
              exact: exact(view.exactPoints.value),
            })}
          </p>
        )}
      </section>
      <section aria-labelledby="depth-fits">
        <h3 id="depth-fits" className="mb-1 text-base">
          {t("depth.stillFits")}
        </h3>
        <select
          className="field min-h-8 text-xs"
          aria-label={t("depth.forSlot")}
          value={fillSlot}
          onChange={(event) => onFillSlot(event.target.value)}
        >
          <option value="">{t("depth.noSlot")}</option>
          {depth.slots.map((slot) => (
            <option key={slot.name} value={slot.name}>
              {slot.name}
            </option>
          ))}
        </select>
        {depth.stillFits.length === 0 && <p className="text-soft">{t("depth.full")}</p>}
        <ul className="divide-y divide-line">
          {depth.stillFits.map((offer) => (
            <li key={offer.boxId ?? offer.batchId ?? offer.text} className="flex items-center gap-3 py-1">
              <span className="min-w-0 flex-1">
                {offer.name}
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
                          ? layPortion({ headers: seenDays(where), body: { batchId: offer.batchId, ...to } })
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
      <EventForm eaterId={eaterId} day={day} slots={depth.slots} hasPoints={view.aim.rule !== null} />
      <section aria-labelledby="depth-copy">
        <h3 id="depth-copy" className="mb-1 text-base">
          {t("depth.copy")}
        </h3>
        <p className="text-soft">{t("depth.copyText")}</p>
        <div className="mt-1 flex gap-2">
          <select
            className="field flex-1"
            aria-label={t("depth.copyTo")}
            value={copyTo}
            onChange={(event) => setCopyTo(event.target.value)}
          >
            <option value="">{t("depth.copyAll")}</option>
            {others.map((other) => (
              <option key={other} value={other}>
                {shortDay(other)}
              </option>
            ))}
          </select>
          <select
            className="field"
            aria-label={t("depth.copyWhat")}
            value={copyPart}
            onChange={(event) => setCopyPart(event.target.value)}
          >
            <option value="">{t("depth.copyDay")}</option>
            {depth.parts.map(({ name: part }) => (
              <option key={part} value={part}>
                {part}
              </option>
            ))}
          </select>
          <button
            className="btn"
            onClick={() =>
              void change(
                () =>
                  copyDay({
                    headers: seenDays(where, ...others.map((other) => ({ eaterId, day: other }))),
                    body: { eaterId, day, to: copyTo ? [copyTo] : others, slot: copyPart || null },
                  }),
                t("depth.copied"),
              )
            }
          >
            {t("depth.copyDo")}
          </button>
        </div>
      </section>
    </div>
  );
}

function Item({
  item,
  eater,
  eaterId,
  day,
  lens,
  depth,
}: {
  item: ItemView;
  /** The eater's name. */
  eater: string;
  eaterId: string;
  day: string;
  lens: Measure;
  depth: DayInDepth;
}) {
  const { t } = useWords("plan");
  const { change } = useHistory();
  const where = { eaterId, day };
  const [isOpen, setIsOpen] = useState(false);
  const name = item.text ?? item.name;
  const amend = (text: string, allOfIt: boolean) =>
    change(
      () => amendItem({ headers: seenDays(where), path: { id: item.id }, body: { text, allOfIt } }),
      t("depth.amended", { name: item.name, amount: text }),
    );
  const { data: why } = useQuery({
    queryKey: queryKeys.why(item.id, depth.version),
    queryFn: async () => (await whyItem({ path: { eaterId, day, itemId: item.id } })).data!,
    enabled: isOpen,
  });
  return (
    <li className="py-1.5">
      <div className="flex items-center gap-2">
        <span className="flex min-w-0 flex-1 flex-wrap items-center gap-x-2">
          {item.eatenAt && <span aria-hidden>✓ </span>}
          {item.text === null && <span>{name}</span>}
          <AmountField
            name={name}
            text={item.text}
            weight={item.grams}
            pieces={item.pieces}
            onAmend={(text) => amend(text, false)}
          />
          {item.never && (
            <span className="ml-2">
              <NeverMark t={t} name={eater} why={item.never} />
            </span>
          )}
          {item.isFrozen && !item.eatenAt && (
            <span className="ml-1 text-xs text-soft">{t("depth.frozen")}</span>
          )}
        </span>
        <Amount measure={lens} figure={item.figures[lens]} />
        {!item.eatenAt && (
          <button
            className="btn px-2"
            aria-pressed={item.isLocked}
            aria-label={t(item.isLocked ? "depth.unlock" : "depth.lock", { name })}
            onClick={() =>
              void change(
                () =>
                  lockItem({
                    headers: seenDays(where),
                    path: { id: item.id },
                    body: { isLocked: !item.isLocked },
                  }),
                t(item.isLocked ? "depth.unlocked" : "depth.locked", { name }),
              )
            }
          >
            {item.isLocked ? <Lock size={16} aria-hidden /> : <LockOpen size={16} aria-hidden />}
          </button>
        )}
      </div>
      <div className="flex flex-wrap items-center gap-3 text-xs">
        <select
          className="field min-h-8 text-xs"
          aria-label={t("depth.slotOf", { name })}
          value={item.slot ?? ""}
          onChange={({ target }) => {
            // Read now: when the change is sent, the field stands on the old one again.
            const slot = target.value || null;
            void change(
              () => putInSlot({ headers: seenDays(where), path: { id: item.id }, body: { slot } }),
              t("depth.inSlot", { name, slot: slot ?? t("depth.noSlot") }),
            );
          }}
        >
          <option value="">{t("depth.noSlot")}</option>
          {depth.slots.map((slot) => (
            <option key={slot.name} value={slot.name}>
              {slot.name}
            </option>
          ))}
        </select>
        {item.batchId && (
          <button className="min-h-8 underline" onClick={() => void amend(`${item.grams} g`, true)}>
            {t("portion.all", {
              name: eater,
              amount: inPieces(t, item),
            })}
          </button>
        )}
        {!item.eatenAt && (
          <button
            className="min-h-8 underline"
            aria-label={t("depth.takeOffNamed", { name })}
            onClick={() =>
              void change(
                () => takeOff({ headers: seenDays(where), path: { id: item.id } }),
                t(item.boxId ? "carry.back" : "carry.removed", { name }),
              )
            }
          >
            {t("carry.off")}
          </button>
        )}
        {item.exactPoints && (
          <span className="text-soft">
            {t("depth.pointsOf", {
              rounded: exact(item.figures["points"]?.value ?? 0),
              exact: exact(item.exactPoints.value),
            })}
          </span>
        )}
        <button className="min-h-8 underline" aria-expanded={isOpen} onClick={() => setIsOpen(!isOpen)}>
          {t("why.ask")}
        </button>
      </div>
      {isOpen && why && (
        <ul className="mt-1 list-disc space-y-0.5 pl-5 text-xs">
          <li>{why.isLocked ? t("why.locked") : why.isFitted ? t("why.fitted") : t("why.byHand")}</li>
          <li>
            {Object.keys(why.outWithout).length > 0
              ? t("why.without", { out: outWords(t, why.outWithout) })
              : t("why.spare")}
          </li>
          {why.useBy && (
            <li>{t(why.isFrozen ? "why.useByFrozen" : "why.useBy", { day: shortDay(why.useBy) })}</li>
          )}
          {why.othersTried > 0 && <li>{t("why.others", { count: why.othersFit })}</li>}
        </ul>
      )}
    </li>
  );
}
