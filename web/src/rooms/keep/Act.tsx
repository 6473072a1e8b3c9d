import { Tag } from "lucide-react";
import { useState } from "react";
import { Link } from "react-router";
import type { BoxPlace, EaterView } from "../../api";
import { useCurrentEater, useEaters } from "../../app/Header";
import { useWords } from "../../app/i18n";
import { shortDay } from "../../ui/format";
import { Sentence } from "../../ui/states";
import { daysBack } from "./days";
import { mostAtOnce, type KeepActs, type Kept } from "./useKeepActs";

const places: BoxPlace[] = ["fridge", "freezer", "counter", "takenAlong"];
const whys = ["past", "off", "unwanted", "much", "fell"] as const;

type Asked = "eat" | "throw" | "frozen";

/** What can be done with some boxes. Past their last day it is asked what became of them; else they can also be moved. */
export function Act({
  boxes,
  today,
  acts,
  isOver = false,
  isShort = false,
  done,
}: {
  boxes: Kept[];
  today: string;
  acts: KeepActs;
  isOver?: boolean;
  /** Whether only what is done most is shown, and the rest behind a word. */
  isShort?: boolean;
  done?: () => void;
}) {
  const { t } = useWords("keep");
  const [asked, setAsked] = useState<Asked | null>(null);
  const [busy, setBusy] = useState(false);
  const [isAll, setIsAll] = useState(!isShort);
  if (boxes.length > mostAtOnce) return <Sentence>{t("act.many", { most: mostAtOnce })}</Sentence>;
  const run = async (act: () => Promise<boolean>) => {
    setBusy(true);
    const isDone = await act();
    setBusy(false);
    if (!isDone) return;
    setAsked(null);
    done?.();
  };
  const cancel = () => setAsked(null);
  return (
    <div className="space-y-2">
      <div className="flex flex-wrap items-center gap-2">
        <button
          className="btn"
          aria-expanded={asked === "eat"}
          disabled={busy}
          onClick={() => setAsked("eat")}
        >
          {t("act.eat")}
        </button>
        {!isOver && (
          <span role="group" aria-label={t("act.move")} className="flex flex-wrap items-center gap-2">
            {isAll && <span className="text-sm text-soft">{t("act.move")}</span>}
            {(isAll ? places : (["freezer"] as const)).map((place) => (
              <button
                key={place}
                className="btn"
                disabled={busy || boxes.every(({ group }) => group.place === place)}
                onClick={() => void run(() => acts.put(boxes, place))}
              >
                {isAll ? t(`shelf.${place}`) : t("act.freeze")}
              </button>
            ))}
          </span>
        )}
        {isAll ? (
          <>
            <button
              className="btn"
              disabled={busy}
              onClick={() => void run(() => acts.letGo(boxes, false, null))}
            >
              {t("act.give")}
            </button>
            <button
              className="btn"
              aria-expanded={asked === "throw"}
              disabled={busy}
              onClick={() => setAsked("throw")}
            >
              {t("act.throw")}
            </button>
          </>
        ) : (
          <button className="link min-h-9 px-1 text-sm max-md:min-h-11" onClick={() => setIsAll(true)}>
            {t("act.more")}
          </button>
        )}
        {isAll && !isOver && (
          <Link className="btn" to={`/labels?boxes=${boxes.map(({ box }) => box.id).join(",")}`}>
            <Tag size={16} aria-hidden /> {t("act.labels")}
          </Link>
        )}
        {isOver && (
          <>
            <button
              className="btn"
              aria-expanded={asked === "frozen"}
              disabled={busy}
              onClick={() => setAsked("frozen")}
            >
              {t("act.frozen")}
            </button>
            <button className="btn" disabled={busy} onClick={() => void run(() => acts.stillThere(boxes))}>
              {t("act.stillThere")}
            </button>
          </>
        )}
      </div>
      {asked === "eat" && (
        <WhoAte
          today={today}
          boxes={boxes}
          busy={busy}
          cancel={cancel}
          ate={(eater, day) => void run(() => acts.eat(boxes, eater.id, eater.name, day))}
        />
      )}
      {asked === "throw" && (
        <Why busy={busy} cancel={cancel} thrown={(why) => void run(() => acts.letGo(boxes, true, why))} />
      )}
      {asked === "frozen" && (
        <FrozenOn
          today={today}
          boxes={boxes}
          busy={busy}
          cancel={cancel}
          frozen={(day) => void run(() => acts.put(boxes, "freezer", day))}
        />
      )}
    </div>
  );
}

/** Who ate them, and when. */
function WhoAte({
  today,
  boxes,
  busy,
  ate,
  cancel,
}: {
  today: string;
  boxes: Kept[];
  busy: boolean;
  ate: (eater: EaterView, day: string) => void;
  cancel: () => void;
}) {
  const { t } = useWords("keep");
  const eaters = useEaters() ?? [];
  const current = useCurrentEater();
  const [day, setDay] = useState(today);
  const cooked = boxes.map(({ group }) => group.cookedOn).reduce((a, b) => (a > b ? a : b));
  const theirs = boxes[0]?.box.eaterId ?? current;
  const inOrder = [...eaters].sort((a, b) => Number(b.id === theirs) - Number(a.id === theirs));
  return (
    <div role="group" aria-label={t("act.eaten")} className="flex flex-wrap items-center gap-2 text-sm">
      <span className="font-semibold">{t("act.eaten")}</span>
      {inOrder.map((eater) => {
        const isBarred = boxes.some(({ group }) => group.neverFor[eater.id]);
        return (
          <button key={eater.id} className="btn" disabled={busy || isBarred} onClick={() => ate(eater, day)}>
            {eater.name}
          </button>
        );
      })}
      <span className="flex items-center gap-1">
        <span className="text-soft">{t("act.on")}</span>
        <DaySelect
          label={t("act.on")}
          days={daysBack(today).filter((one) => one >= cooked)}
          today={today}
          value={day}
          change={setDay}
        />
      </span>
      <button className="link min-h-9 px-1" onClick={cancel}>
        {t("act.cancel")}
      </button>
    </div>
  );
}

/** Why they were thrown away: for whoever wonders later, and for nobody to be blamed. */
function Why({
  busy,
  thrown,
  cancel,
}: {
  busy: boolean;
  thrown: (why: string | null) => void;
  cancel: () => void;
}) {
  const { t } = useWords("keep");
  const [other, setOther] = useState("");
  return (
    <form
      className="flex flex-wrap items-center gap-2 text-sm"
      onSubmit={(event) => {
        event.preventDefault();
        thrown(other.trim() || null);
      }}
    >
      <span className="font-semibold">{t("act.why")}</span>
      {whys.map((why) => (
        <button
          key={why}
          type="button"
          className="btn"
          disabled={busy}
          onClick={() => thrown(t(`act.whys.${why}`))}
        >
          {t(`act.whys.${why}`)}
        </button>
      ))}
      <input
        className="field w-48"
        aria-label={t("act.other")}
        placeholder={t("act.other")}
        maxLength={120}
        value={other}
        onChange={(event) => setOther(event.target.value)}
      />
      <button className="btn" disabled={busy}>
        {t("act.throwNow")}
      </button>
      <button type="button" className="link min-h-9 px-1" onClick={cancel}>
        {t("act.cancel")}
      </button>
    </form>
  );
}

/** The day they went into the freezer, where that was in time and nobody wrote it down. */
function FrozenOn({
  today,
  boxes,
  busy,
  frozen,
  cancel,
}: {
  today: string;
  boxes: Kept[];
  busy: boolean;
  frozen: (day: string) => void;
  cancel: () => void;
}) {
  const { t } = useWords("keep");
  const [from, last] = [
    boxes.map(({ group }) => group.cookedOn).reduce((a, b) => (a > b ? a : b)),
    boxes.map(({ group }) => group.useBy).reduce((a, b) => (a < b ? a : b)),
  ];
  const days = daysBack(today).filter((day) => day >= from && day <= last);
  const [day, setDay] = useState(days.at(-1) ?? last);
  return (
    <div className="flex flex-wrap items-center gap-2 text-sm">
      <span className="flex flex-wrap items-center gap-2">
        <span className="font-semibold">{t("act.frozenOn")}</span>
        <DaySelect
          label={t("act.frozenOn")}
          days={days.length > 0 ? days : [last]}
          today={today}
          value={day}
          change={setDay}
        />
      </span>
      <button className="btn" disabled={busy} onClick={() => frozen(day)}>
        {t("act.frozenNow")}
      </button>
      <button className="link min-h-9 px-1" onClick={cancel}>
        {t("act.cancel")}
      </button>
    </div>
  );
}

function DaySelect({
  label,
  days,
  today,
  value,
  change,
}: {
  label: string;
  days: string[];
  today: string;
  value: string;
  change: (day: string) => void;
}) {
  const { t } = useWords("keep");
  const said = (day: string) =>
    day === today ? t("act.today") : day === daysBack(today)[1] ? t("act.yesterday") : shortDay(day);
  return (
    <select
      className="field"
      aria-label={label}
      value={value}
      onChange={(event) => change(event.target.value)}
    >
      {days.map((day) => (
        <option key={day} value={day}>
          {said(day)}
        </option>
      ))}
    </select>
  );
}
