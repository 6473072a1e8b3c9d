import { X } from "lucide-react";
import type { ReactNode } from "react";
import { useWords } from "../app/i18n";

/**
 * What stands at the right of a room. On a phone it comes up from below, where the thumb is, and what it belongs to stays in sight above it.
 */
export function Side({
  isOpen,
  close,
  label,
  className = "",
  children,
}: {
  /** Whether a phone shows it; a desk always does. */
  isOpen: boolean;
  close: () => void;
  label: string;
  className?: string;
  children: ReactNode;
}) {
  const { t } = useWords();
  return (
    <aside
      aria-label={label}
      className={`shrink-0 overflow-auto bg-bench p-3 md:border-l md:border-rim max-md:absolute max-md:inset-x-0 max-md:bottom-0 max-md:z-20 max-md:max-h-[72%] max-md:rounded-t-xl max-md:border-t-2 max-md:border-rim ${isOpen ? "" : "max-md:hidden"} ${className}`}
    >
      <p className="sticky -top-3 z-10 -mx-3 -mt-3 mb-2 flex items-center justify-between bg-bench px-3 py-2 md:hidden">
        <b className="font-title">{label}</b>
        <button className="btn" onClick={close}>
          <X size={16} aria-hidden /> {t("close")}
        </button>
      </p>
      {children}
    </aside>
  );
}
