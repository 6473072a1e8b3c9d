import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import {
  chooseGuidelines,
  getGuidelines,
  readCaution,
  seen,
  troubleOf,
  type GuidelinesView,
  type KeepingKind,
  type KeepingRuleView,
} from "../../api";
import { freshen } from "../../app/freshen";
import { useWords } from "../../app/i18n";
import { useSay } from "../../app/notices";
import { all, queryKeys } from "../../app/queryKeys";
import { useCautions } from "../../ui/Caution";
import { wholeIn } from "../../ui/numbers";
import { Failed, Loading, Sentence } from "../../ui/states";

const month = 30;

/** By which rules things keep, where they come from, and what to look out for. */
export function Rules() {
  const { data, error, refetch } = useQuery({
    queryKey: queryKeys.guidelines(),
    queryFn: async () => (await getGuidelines()).data!,
  });
  if (error && !data) return <Failed error={error} retry={() => void refetch()} />;
  if (!data) return <Loading />;
  return (
    <div className="max-w-4xl space-y-8 p-4">
      <Table view={data} />
      <AllCautions />
    </div>
  );
}

function Table({ view }: { view: GuidelinesView }) {
  const { t } = useWords("keep");
  const say = useSay();
  const queries = useQueryClient();
  const span = useSpan();
  const [trouble, setTrouble] = useState<string | null>(null);
  const set = view.sets.find(({ code }) => code === view.chosen)!;
  const choose = async (guidelines: string, own: GuidelinesView["own"], done: string) => {
    try {
      await chooseGuidelines({ headers: seen(view.version), body: { guidelines, own } });
      setTrouble(null);
      say(done);
    } catch (thrown) {
      setTrouble(troubleOf(thrown, t("app:silent")).detail ?? "");
    } finally {
      await freshen(queries, "keeping");
    }
  };
  // What is stricter than one set may be laxer than another: of the household's own days only those go along that are not.
  const change = (code: string) => {
    const next = view.sets.find((one) => one.code === code)!;
    const stays = Object.entries(view.own).filter(([kind, days]) =>
      next.rules.some((rule) => rule.kind === kind && days <= rule.fridgeDays),
    );
    void choose(code, Object.fromEntries(stays), t("rules.chosen", { name: next.name }));
  };
  const setOwn = (kind: KeepingKind, days: number | null) => {
    const others = Object.entries(view.own).filter(([other]) => other !== kind);
    const own = Object.fromEntries(days === null ? others : [...others, [kind, days]]);
    void choose(view.chosen, own, t("rules.saved"));
  };
  return (
    <section aria-labelledby="rules-title">
      <h2 id="rules-title" className="text-lg">
        {t("rules.title")}
      </h2>
      <p className="mb-3 text-sm text-soft">{t("rules.text")}</p>
      <div role="group" aria-label={t("rules.choose")} className="mb-3 flex flex-wrap items-center gap-2">
        <span className="text-sm">{t("rules.choose")}</span>
        {view.sets.map(({ code, name }) => (
          <button
            key={code}
            aria-pressed={code === view.chosen}
            className={`btn ${code === view.chosen ? "bg-ink text-ground" : ""}`}
            onClick={() => code !== view.chosen && change(code)}
          >
            {name}
          </button>
        ))}
      </div>
      <Sentence>{trouble}</Sentence>
      <div className="overflow-x-auto">
        <table className="w-full text-sm">
          <thead>
            <tr className="border-b border-rim text-left">
              <th className="py-1 pr-3">{t("rules.kind")}</th>
              <th className="py-1 pr-3">{t("rules.fridge")}</th>
              <th className="py-1 pr-3">{t("rules.own")}</th>
              <th className="py-1 pr-3">{t("rules.freezer")}</th>
              <th className="py-1">{t("rules.source")}</th>
            </tr>
          </thead>
          <tbody>
            {set.rules.map((rule) => (
              <tr key={rule.kind} className="border-b border-line align-baseline">
                <th className="py-1 pr-3 text-left font-normal">{t(`rules.kinds.${rule.kind}`)}</th>
                <td className="py-1 pr-3 whitespace-nowrap">{span(rule.fridgeDays, rule.fridgeDaysMost)}</td>
                <td className="py-1 pr-3">
                  <OwnDays
                    key={view.own[rule.kind] ?? ""}
                    rule={rule}
                    days={view.own[rule.kind] ?? null}
                    set={(days) => setOwn(rule.kind, days)}
                  />
                </td>
                <td className="py-1 pr-3 whitespace-nowrap">
                  {rule.freezerDays === null
                    ? t("rules.noFreeze")
                    : span(rule.freezerDays, rule.freezerDaysMost!)}
                </td>
                <td className="py-1 text-xs text-soft">{rule.source}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <p className="mt-2 text-sm">
        {t("rules.thawed", { count: view.daysThawed })} {t("rules.ownHint")}
      </p>
    </section>
  );
}

/** "3 – 4 days", "2 – 3 months", as the guideline prints them. */
function useSpan() {
  const { t } = useWords("keep");
  return (least: number, most: number) => {
    const [unit, by] =
      least % month === 0 ? ["months", month] : least > 7 && least % 7 === 0 ? ["weeks", 7] : ["days", 1];
    const said = least === most ? `${least / by}` : `${least / by} – ${most / by}`;
    return t(`rules.${unit}`, { count: most / by, said });
  };
}

function OwnDays({
  rule,
  days,
  set,
}: {
  rule: KeepingRuleView;
  days: number | null;
  set: (days: number | null) => void;
}) {
  const { t } = useWords("keep");
  const [typed, setTyped] = useState(days === null ? "" : String(days));
  const read = wholeIn(typed);
  const isWrong = typed.trim() !== "" && (read === null || read < 0);
  const commit = () => {
    if (isWrong) return;
    const next = typed.trim() === "" ? null : read;
    if (next !== days) set(next);
  };
  return (
    <input
      className={`field w-14 text-right ${isWrong ? "border-brick" : ""}`}
      inputMode="numeric"
      aria-label={t("rules.ownFor", { kind: t(`rules.kinds.${rule.kind}`) })}
      aria-invalid={isWrong}
      title={isWrong ? t("rules.whole") : undefined}
      value={typed}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={commit}
      onKeyDown={(event) => {
        if (event.key === "Enter") commit();
        if (event.key === "Escape") setTyped(days === null ? "" : String(days));
      }}
    />
  );
}

/** All cautions, those that were read too. */
function AllCautions() {
  const { t } = useWords("keep");
  const queries = useQueryClient();
  const { data, error, refetch } = useCautions();
  if (error && !data) return <Failed error={error} retry={() => void refetch()} />;
  if (!data) return <Loading />;
  const again = async (code: string) => {
    await readCaution({ path: { code }, body: { isRead: false } });
    await queries.invalidateQueries(all("cautions"));
  };
  return (
    <section aria-labelledby="cautions-title">
      <h2 id="cautions-title" className="text-lg">
        {t("cautions.title")}
      </h2>
      <p className="mb-3 text-sm text-soft">{t("cautions.text")}</p>
      <ul className="space-y-3">
        {data.map(({ code, title, text, source, isRead }) => (
          <li key={code} className="border-l-4 border-line pl-3 text-sm">
            <p className="font-bold">{title}</p>
            <p>{text}</p>
            <p className="text-xs text-soft">
              {source}
              {isRead && (
                <button
                  className="link ml-3 min-h-6 max-md:min-h-11"
                  aria-label={`${t("cautions.again")}: ${title}`}
                  onClick={() => void again(code)}
                >
                  {t("cautions.again")}
                </button>
              )}
            </p>
          </li>
        ))}
      </ul>
    </section>
  );
}
