import { useState } from "react";
import { useWords } from "../../app/i18n";
import { copyDay, type PartView } from "../../api";
import { useHistory } from "../../app/history";
import { seenDays } from "../../app/seen";
import { shortDay } from "../../ui/format";

interface CopyDayProps {
  eaterId: string;
  day: string;
  /** The other days of the week, to copy onto. */
  others: string[];
  parts: PartView[];
}

/** What lies on a day, or in a part of it, laid on other days as well. */
export function CopyDay({ eaterId, day, others, parts }: CopyDayProps) {
  const { t } = useWords("plan");
  const { change } = useHistory();
  const where = { eaterId, day };
  const [copyTo, setCopyTo] = useState("");
  const [copyPart, setCopyPart] = useState("");
  return (
    <section aria-labelledby="depth-copy">
      <h3 id="depth-copy" className="mb-1 text-base">
        {t("depth.copy")}
      </h3>
      <p className="text-soft">{t("depth.copyText")}</p>
      <div className="mt-1 flex flex-wrap gap-2">
        <select
          className="field flex-1"
          aria-label={t("depth.copyTo")}
          value={copyTo}
          onChange={(event) => setCopyTo(event.target.value)}
        >
          <option value="">{t("depth.copyAll")}</option>
          {others.map((other) => (
            <option key={other} value={other}>
              {shortDay(other)}
            </option>
          ))}
        </select>
        <select
          className="field"
          aria-label={t("depth.copyWhat")}
          value={copyPart}
          onChange={(event) => setCopyPart(event.target.value)}
        >
          <option value="">{t("depth.copyDay")}</option>
          {parts.map(({ name: part }) => (
            <option key={part} value={part}>
              {part}
            </option>
          ))}
        </select>
        <button
          className="btn"
          onClick={() =>
            void change(
              () =>
                copyDay({
                  headers: seenDays(where, ...others.map((other) => ({ eaterId, day: other }))),
                  body: { eaterId, day, to: copyTo ? [copyTo] : others, slot: copyPart || null },
                }),
              t("depth.copied"),
            )
          }
        >
          {t("depth.copyDo")}
        </button>
      </div>
    </section>
  );
}
