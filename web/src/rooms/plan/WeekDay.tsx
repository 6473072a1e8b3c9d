import { useDeferredValue, useLayoutEffect, useRef, useState, type ReactNode, type RefObject } from "react";
import { useWords } from "../../app/i18n";
import type { Lens } from "../../app/lens";
import { dayNumber, weekday } from "../../ui/format";

interface WeekDayProps {
  date: string;
  today: string;
  /** What is looked through. */
  lens: Lens;
  /** Opens the day in depth, where its name does. */
  open: { label: string; run: () => void } | null;
  /** Its rulers, seen through a lens. */
  children: (lens: Lens) => ReactNode;
}

/** A day of the week with its rulers. A day out of sight follows the lens when there is time: those that are seen do not wait for it. */
export function WeekDay({ date, today, lens, open, children }: WeekDayProps) {
  const { t } = useWords();
  const [ref, isSeen] = useSeen();
  const later = useDeferredValue(lens);
  const look = `flex flex-col items-start pt-1 text-left leading-tight ${date === today ? "text-sea" : ""}`;
  const name = <span className="font-title text-lg font-bold">{weekday(date)}</span>;
  const number = date === today ? t("state.eat") : dayNumber(date);
  return (
    <li ref={ref} className="scroll-mt-3 grid grid-cols-[3.5rem_1fr] gap-x-2">
      {open ? (
        <button className={look} aria-label={open.label} onClick={open.run}>
          {name}
          <span className="text-sm underline decoration-dotted underline-offset-2">{number}</span>
        </button>
      ) : (
        <p className={look}>
          {name}
          <span className="text-sm">{number}</span>
        </p>
      )}
      <div className="min-w-0 space-y-1">{children(isSeen ? lens : later)}</div>
    </li>
  );
}

/** Whether any of an element is in sight, or nearly. */
function useSeen(): [RefObject<HTMLLIElement | null>, boolean] {
  const ref = useRef<HTMLLIElement>(null);
  const [isSeen, setIsSeen] = useState(true);
  useLayoutEffect(() => {
    const observer = new IntersectionObserver(([entry]) => setIsSeen(entry!.isIntersecting), {
      rootMargin: "60px",
    });
    observer.observe(ref.current!);
    return () => observer.disconnect();
  }, []);
  return [ref, isSeen];
}
