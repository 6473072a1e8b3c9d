import type { ReactNode } from "react";

/** The mark's cell at the left end of a tape: two letters on the batch's tint and pattern. */
export function Mark({
  letters,
  tint,
  className = "",
}: {
  letters: string;
  tint: number;
  className?: string;
}) {
  return (
    <span
      aria-hidden
      className={`tinted tint-${tint} pattern-${tint} inline-flex shrink-0 items-center justify-center font-title font-bold text-tape ${className}`}
    >
      {letters}
    </span>
  );
}

/** A strip of tape: the batch's mark, then words on its plain tint. */
export function Tape({
  letters,
  tint,
  children,
  className = "",
}: {
  letters: string;
  tint: number;
  children: ReactNode;
  className?: string;
}) {
  return (
    <span className={`tape tinted tint-${tint} flex items-stretch text-left ${className}`}>
      <Mark letters={letters} tint={tint} className="w-9 border-r border-tape/30 text-sm" />
      <span className="min-w-0 flex-1 px-2 py-1">{children}</span>
    </span>
  );
}
