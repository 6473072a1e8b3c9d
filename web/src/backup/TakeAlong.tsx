import { useState } from "react";
import type { KeptEaterView } from "../api";
import { useWords } from "../app/i18n";
import { Erase } from "./Erase";

const sheets = ["entries", "plan", "boxes", "weighIns"] as const;

/** Everything out: as one file, as tables, or what is one eater's own. */
export function TakeAlong({ eaters }: { eaters: KeptEaterView[] }) {
  const { t } = useWords("backup");
  const [whose, setWhose] = useState("");
  const one = eaters.find(({ id }) => id === whose);
  const asked = one ? `?eaterId=${one.id}` : "";
  return (
    <section aria-labelledby="take-along">
      <h2 id="take-along" className="text-lg">
        {t("out.title")}
      </h2>
      <p className="max-w-3xl text-sm text-soft">{t("lead")}</p>
      <ul className="mt-3 max-w-3xl border-t border-line">
        <Whole to="/api/backup" name={t("out.whole")} text={t("out.wholeText")} isNext />
        <Whole to="/api/backup/file" name={t("out.file")} text={t("out.fileText")} />
      </ul>
      <h3 className="mt-5 text-base">{t("out.tables")}</h3>
      <div className="mt-2 flex max-w-3xl flex-wrap items-end gap-2">
        <label className="text-sm">
          {t("out.whose")}
          <select
            className="field mt-1 block min-h-11"
            value={whose}
            onChange={(event) => setWhose(event.target.value)}
          >
            <option value="">{t("out.all")}</option>
            {eaters.map(({ id, name, isAtTable }) => (
              <option key={id} value={id}>
                {isAtTable ? name : t("out.gone", { name })}
              </option>
            ))}
          </select>
        </label>
        {sheets.map((sheet) => (
          <a key={sheet} className="btn min-h-11" href={`/api/backup/sheets/${sheet}.csv${asked}`} download>
            {t(`out.sheets.${sheet}`)}
          </a>
        ))}
      </div>
      {one && (
        <>
          <ul className="mt-3 max-w-3xl border-t border-line">
            <Whole
              to={`/api/backup/eaters/${one.id}`}
              name={t("out.own", { name: one.name })}
              text={t("out.ownText", { name: one.name })}
            />
          </ul>
          <p className="mt-3">
            <Erase key={one.id} who={one} done={() => setWhose("")} />
          </p>
        </>
      )}
    </section>
  );
}

function Whole({
  to,
  name,
  text,
  isNext = false,
}: {
  to: string;
  name: string;
  text: string;
  isNext?: boolean;
}) {
  return (
    <li className="flex flex-wrap items-center gap-x-4 gap-y-2 border-b border-line py-3">
      <p className="min-w-0 flex-1 basis-72 text-sm text-soft">{text}</p>
      <a className={`${isNext ? "btn-next" : "btn"} min-h-11`} href={to} download>
        {name}
      </a>
    </li>
  );
}
