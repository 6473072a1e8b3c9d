import { useRef, useState, type ChangeEvent, type FocusEvent, type KeyboardEvent } from "react";

/**
 * A value changed where it stands: Enter and leaving the field send it, Escape gives it up; what is refused stays as typed.
 * @param now The value as it is.
 * @param send Writes what was typed; false where it was refused.
 * @returns The field's own properties.
 */
export function useTyped(now: string, send: (typed: string) => Promise<boolean>) {
  const [typed, setTyped] = useState<string | null>(null);
  // Enter sends it, and leaving the field before the answer is here does not send it again.
  const sent = useRef<string | null>(null);
  const write = async () => {
    const said = typed?.trim();
    if (said === undefined || said === sent.current) return;
    sent.current = said;
    if (said === "" || said === now || (await send(said)))
      setTyped((latest) => (latest?.trim() === said ? null : latest));
    if (sent.current === said) sent.current = null;
  };
  return {
    value: typed ?? now,
    onFocus: (event: FocusEvent<HTMLInputElement>) => event.target.select(),
    onChange: (event: ChangeEvent<HTMLInputElement>) => setTyped(event.target.value),
    onBlur: () => void write(),
    onKeyDown: (event: KeyboardEvent) => {
      if (event.key === "Enter") void write();
      if (event.key === "Escape" && typed !== null) {
        event.stopPropagation();
        setTyped(null);
      }
    },
  };
}
