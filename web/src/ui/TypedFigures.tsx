import type { ReactNode } from "react";
import { useWords } from "../app/i18n";
import { useQuiet } from "../app/quiet";

/** Figures that somebody types on purpose: where none are to be shown they are folded away until they are asked for. */
export function TypedFigures({ children }: { children: ReactNode }) {
  const { t } = useWords();
  if (!useQuiet()) return children;
  return (
    <details>
      <summary>{t("withNumbers")}</summary>
      <div className="mt-2 space-y-3">{children}</div>
    </details>
  );
}
