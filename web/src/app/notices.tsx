import { createContext, useCallback, useContext, useEffect, useRef, useState, type ReactNode } from "react";

interface Notice {
  text: string;
  isTrouble: boolean;
  action?: { label: string; run: () => void };
}

type Say = (text: string, options?: { trouble?: boolean; action?: Notice["action"] }) => void;

const NoticeContext = createContext<Say>(() => {});

/** One line at the foot of the screen that says what happened, aloud too; it stays while it is read, and what lies under it can be pressed. */
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
      {children}
      <div
        role="status"
        aria-live="polite"
        className="no-print pointer-events-none fixed inset-x-0 bottom-4 z-30 flex justify-center px-4 max-md:bottom-24"
      >
        {notice && (
          <p className="flex items-center gap-4 rounded-lg border border-rim bg-ink px-4 py-2 text-sm text-ground">
            {notice.isTrouble && <span aria-hidden className="hatched h-5 w-2 rounded-sm" />}
            {notice.text}
            {notice.action && (
              <button className="pointer-events-auto min-h-8 font-bold underline" onClick={notice.action.run}>
                {notice.action.label}
              </button>
            )}
          </p>
        )}
      </div>
    </NoticeContext>
  );
}

export const useSay = () => useContext(NoticeContext);
