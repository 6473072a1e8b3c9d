import { useState } from "react";
import { useQueryClient } from "@tanstack/react-query";
import { dropBackup, lookAtCopy, putBack, troubleOf, type Difference, type RestoreView } from "../api";
import { useHistory } from "../app/history";
import { useWords } from "../app/i18n";
import { wholeNumber } from "../ui/format";
import { Sentence } from "../ui/states";

/** A backup that was read through: what would go, come and change; then in its place, or not. */
export function PutBack({
  look,
  name,
  again,
  close,
}: {
  look: RestoreView;
  /** What it is called here. */
  name: string;
  /** What would change, looked at anew. */
  again: (look: RestoreView) => void;
  close: () => void;
}) {
  const { t } = useWords("backup");
  const queries = useQueryClient();
  const { did } = useHistory();
  const [isBusy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string>();
  const leave = () => {
    void dropBackup({ path: { id: look.id } }).catch(() => null);
    close();
  };
  const put = async () => {
    setBusy(true);
    setProblem(undefined);
    try {
      const { before } = (await putBack({ path: { id: look.id } })).data!;
      did(t("back.done", { name }), async () => {
        const kept = (await lookAtCopy({ path: { name: before.name } })).data!;
        await putBack({ path: { id: kept.id } });
      });
      await queries.invalidateQueries();
      close();
    } catch (thrown) {
      const trouble = troubleOf(thrown, t("app:silent"));
      if (trouble.status === 412) again(trouble.current as RestoreView);
      setProblem(trouble.status === 412 ? t("back.moved") : (trouble.detail ?? ""));
    } finally {
      setBusy(false);
    }
  };
  const differing = look.differences.filter(({ go, come, change }) => go + come + change > 0);
  if (look.isSame)
    return (
      <div role="status" className="mt-3 max-w-3xl border-l-4 border-sea pl-4">
        <p>{t("back.same", { name })}</p>
        <button className="btn mt-3" onClick={leave}>
          {t("app:close")}
        </button>
      </div>
    );
  return (
    <section aria-labelledby="would" className="panel mt-3 max-w-4xl p-4">
      <h3 id="would" className="text-base">
        {t("back.would", { name })}
      </h3>
      <p className="text-sm text-soft">{t("back.kept")}</p>
      <div className="mt-3 overflow-x-auto">
        <table className="w-full text-sm">
          <thead className="max-md:hidden">
            <tr className="border-b border-rim text-left">
              <th className="py-1 pr-4 font-semibold">{t("back.kind")}</th>
              <th className="py-1 pr-4 text-right font-semibold whitespace-nowrap">{t("back.here")}</th>
              <th className="py-1 pr-4 text-right font-semibold whitespace-nowrap">{t("back.inBackup")}</th>
              <th className="py-1 font-semibold">{t("back.change")}</th>
            </tr>
          </thead>
          <tbody>
            {differing.map((one) => (
              <tr key={one.kind} className="border-b border-line align-top max-md:block max-md:py-1.5">
                <th scope="row" className="py-1.5 pr-4 text-left font-semibold max-md:block max-md:py-0">
                  {t(`kinds.${one.kind}`)}
                </th>
                <td className="py-1.5 pr-4 text-right tabular-nums max-md:hidden">{wholeNumber(one.here)}</td>
                <td className="py-1.5 pr-4 text-right tabular-nums max-md:hidden">
                  {wholeNumber(one.inBackup)}
                </td>
                <td className="py-1.5 max-md:block max-md:py-0">
                  <Happens of={one} />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <p className="mt-2 text-sm text-soft">{t("back.rest")}</p>
      <Sentence>{problem}</Sentence>
      <div className="mt-4 flex flex-wrap gap-2">
        <button className="btn-next min-h-11" disabled={isBusy} onClick={() => void put()}>
          {isBusy ? t("back.putting") : t("back.put")}
        </button>
        <button className="btn min-h-11" disabled={isBusy} onClick={leave}>
          {t("back.leave")}
        </button>
      </div>
    </section>
  );
}

/** What would become of things of one kind, some of them by name. */
function Happens({ of }: { of: Difference }) {
  const { t } = useWords("backup");
  const said = [
    { count: of.go, key: "go", names: of.going },
    { count: of.come, key: "come", names: of.coming },
    { count: of.change, key: "differ", names: of.changing },
  ].filter(({ count }) => count > 0);
  return (
    <ul>
      {said.map(({ count, key, names }) => {
        const what = t(`back.${key}`, { count });
        const listed = names.join("; ");
        return (
          <li key={key}>
            {names.length === 0
              ? what
              : t("back.such", {
                  what,
                  names: names.length < count ? t("back.andMore", { names: listed }) : listed,
                })}
          </li>
        );
      })}
    </ul>
  );
}
