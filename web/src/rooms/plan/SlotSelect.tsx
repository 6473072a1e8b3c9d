import { useWords } from "../../app/i18n";
import type { Slot } from "../../api";

/** A part of the day, or any time. */
export function SlotSelect({
  label,
  slots,
  value,
  onChange,
}: {
  label: string;
  slots: Slot[];
  /** Its name; empty for any time. */
  value: string;
  onChange: (slot: string) => void;
}) {
  const { t } = useWords("plan");
  return (
    <select
      className="field text-sm"
      aria-label={label}
      value={value}
      // Read now: when a change is sent, the field stands on the old one again.
      onChange={({ target }) => onChange(target.value)}
    >
      <option value="">{t("depth.noSlot")}</option>
      {slots.map(({ name }) => (
        <option key={name} value={name}>
          {name}
        </option>
      ))}
    </select>
  );
}
