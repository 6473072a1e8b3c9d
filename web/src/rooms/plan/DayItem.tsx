import { useQuery } from "@tanstack/react-query";
import { Lock, LockOpen } from "lucide-react";
import { useState } from "react";
import { useWords } from "../../app/i18n";
import {
  amendItem,
  lockItem,
  moveItem,
  putInSlot,
  takeOff,
  whyItem,
  type DayInDepth,
  type ItemView,
  type Measure,
  type WeekView,
} from "../../api";
import { useHistory } from "../../app/history";
import { queryKeys } from "../../app/queryKeys";
import { seenDays } from "../../app/seen";
import { AmountField } from "../../ui/AmountField";
import { Amount } from "../../ui/Figures";
import { exact, inPieces, longDay, shortDay } from "../../ui/format";
import { NeverMark } from "../../ui/never";
import { holdWords, outWords } from "./reading";
import { SlotSelect } from "./SlotSelect";

/** Something that lies on a day: its amount, its part of the day, where else it could go, and why it lies there. */
export function DayItem({
  item,
  eater,
  eaterId,
  day,
  lens,
  depth,
  week,
}: {
  item: ItemView;
  /** The eater's name. */
  eater: string;
  eaterId: string;
  day: string;
  lens: Measure;
  depth: DayInDepth;
  /** Where else it could go. */
  week: WeekView;
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
          {item.isForGuests && <b className="text-xs">{t("guests.mark")}</b>}
          <AmountField
            name={name}
            text={item.hold ? holdWords(t, item.hold) : item.text}
            weight={item.grams}
            pieces={item.pieces}
            onAmend={(text) => amend(text, false)}
          />
          {item.volume && <span className="text-xs text-soft">{item.volume}</span>}
          {item.never && (
            <span className="ml-2">
              <NeverMark t={t} name={eater} why={item.never} />
            </span>
          )}
          {item.isOver ? (
            <b className="ml-1 text-xs">
              <span aria-hidden className="hatched mr-1 inline-block h-3 w-1.5" />
              {t("app:isOver")}
            </b>
          ) : (
            item.isFrozen &&
            !item.eatenAt && <span className="ml-1 text-xs text-soft">{t("depth.frozen")}</span>
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
        <SlotSelect
          label={t("depth.slotOf", { name })}
          slots={depth.slots}
          value={item.slot ?? ""}
          onChange={(slot) =>
            void change(
              () =>
                putInSlot({ headers: seenDays(where), path: { id: item.id }, body: { slot: slot || null } }),
              t("depth.inSlot", { name, slot: slot || t("depth.noSlot") }),
            )
          }
        />
        {!item.eatenAt && (
          <select
            className="field text-sm"
            aria-label={t("depth.moveNamed", { name })}
            value=""
            onChange={({ target }) => {
              const [whose, date] = target.value.split("|") as [string, string];
              const there = { eaterId: whose, day: date };
              void change(
                () => moveItem({ headers: seenDays(where, there), path: { id: item.id }, body: there }),
                t("carry.laid", { name, day: longDay(date) }),
              );
            }}
          >
            <option value="">{t("depth.move")}</option>
            {week.eaters.flatMap((other) =>
              other.days
                .filter(({ day: date }) => other.eaterId !== eaterId || date !== day)
                .map(({ day: date }) => (
                  <option key={`${other.eaterId}|${date}`} value={`${other.eaterId}|${date}`}>
                    {other.eaterId === eaterId ? shortDay(date) : `${other.name}, ${shortDay(date)}`}
                  </option>
                )),
            )}
          </select>
        )}
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
          <span className="counted text-soft">
            {t("depth.points", {
              count: item.figures["points"]?.value ?? 0,
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
          <li className="counted">
            {Object.keys(why.outWithout).length > 0
              ? t("why.without", { out: outWords(t, why.outWithout) })
              : t("why.spare")}
          </li>
          {why.useBy && (
            <li>{t(why.isFrozen ? "why.useByFrozen" : "why.useBy", { day: shortDay(why.useBy) })}</li>
          )}
          {why.othersTried > 0 && <li className="counted">{t("why.others", { count: why.othersFit })}</li>}
        </ul>
      )}
    </li>
  );
}
