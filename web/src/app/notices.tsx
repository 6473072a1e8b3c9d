import { createContext, useCallback, useContext, useEffect, useRef, useState, type ReactNode } from "react";

interface Notice {
  text: string;
  isTrouble: boolean;
  action?: { label: string; run: () => void };
}

type Say = (text: string, options?: { trouble?: boolean; action?: Notice["action"] }) => void;

const NoticeContext = createContext<Say>(() => {});
const ShownContext = createContext<Notice | null>(null);

/** Keeps what happened last while it is shown. */
export function NoticeProvider({ children }: { children: ReactNode }) {
  const [notice, setNotice] = useState<Notice | null>(null);
  const timer = useRef(0);
  const say = useCallback<Say>((text, options) => {
    setNotice({ text, isTrouble: options?.trouble ?? false, action: options?.action });
    window.clearTimeout(timer.current);
    timer.current = window.setTimeout(() => setNotice(null), options?.trouble ? 12000 : 7000);
  }, []);
  useEffect(() => () => window.clearTimeout(timer.current), []);
  return (
    <NoticeContext value={say}>
      <ShownContext value={notice}>{children}</ShownContext>
    </NoticeContext>
  );
}

/**
 * What happened last, aloud too: in the free part of the rail, on a phone as a strip of its own above the steps; it covers neither the day nor what is
 * being typed.
 */
export function Notices() {
  const notice = useContext(ShownContext);
  return (
    <div
      role="status"
      aria-live="polite"
      className="no-print pointer-events-none z-50 max-md:relative md:fixed md:bottom-38 md:left-2 md:w-46"
    >
      {notice && (
        <p className="flex flex-wrap items-center gap-x-4 gap-y-1 rounded-lg border border-rim bg-ink px-3 py-2 text-sm text-ground max-md:m-1">
          {notice.isTrouble && <span aria-hidden className="hatched h-5 w-2 rounded-sm" />}
          <span className="min-w-0 flex-1 wrap-anywhere">{notice.text}</span>
          {notice.action && (
            <button className="pointer-events-auto min-h-8 font-bold underline" onClick={notice.action.run}>
              {notice.action.label}
            </button>
          )}
        </p>
      )}
    </div>
  );
}

export const useSay = () => useContext(NoticeContext);
