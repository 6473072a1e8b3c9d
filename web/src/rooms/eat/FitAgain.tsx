import { addDays, parseISO } from "date-fns";
import type { EatView } from "../../api";
import { isoDay } from "../../ui/format";
import { FitPanel } from "../plan/FitPanel";
import { useFit } from "../plan/useFit";

/** After a surprise: the rest of this day, or of the week, is fitted again around what was eaten. */
export function FitAgain({ view, close }: { view: EatView; close: () => void }) {
  const fitting = useFit();
  const { day } = view.day;
  // Up to the Sunday of its week.
  const toSunday = (7 - parseISO(day).getDay()) % 7;
  const days = Array.from({ length: toSunday + 1 }, (_, i) => isoDay(addDays(parseISO(day), i)));
  return (
    <FitPanel
      from={day}
      to={days.at(-1)!}
      days={days}
      eaterIds={[view.eaterId]}
      fit={fitting.fit}
      trouble={fitting.trouble}
      measureOf={() => view.aim.leading}
      onBegin={(body) => void fitting.begin(body)}
      onStop={() => void fitting.stop()}
      onTake={(taken) => void fitting.take(taken).then((isTaken) => isTaken && close())}
      onDrop={fitting.drop}
      hasAhead={false}
      close={close}
    />
  );
}
