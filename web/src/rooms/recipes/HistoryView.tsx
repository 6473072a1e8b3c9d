import { useQuery } from "@tanstack/react-query";
import { useWords } from "../../app/i18n";
import {
  listRecipeVersions,
  listVerdicts,
  type Measure,
  type RecipeRequest,
  type RecipeVerdictView,
} from "../../api";
import { Amount } from "../../ui/Figures";
import { clock, dayOf, shortDay } from "../../ui/format";
import { Failed, Loading } from "../../ui/states";
import { verdictWords } from "../../ui/verdict";
import { queryKeys } from "../../app/queryKeys";

interface HistoryViewProps {
  id: string;
  lens: Measure;
  /** Puts a version on the bench again; it is saved as a new one. */
  onTake: (version: RecipeRequest) => void;
}

/** Every saved version: what changed, and a portion's figures then and with the foods of today. */
export function HistoryView({ id, lens, onTake }: HistoryViewProps) {
  const { t } = useWords("recipes");
  const { data, error, refetch } = useQuery({
    queryKey: queryKeys.recipeVersions(id),
    queryFn: async () => (await listRecipeVersions({ path: { id } })).data!,
    gcTime: 0,
  });
  const { data: verdicts = [] } = useQuery({
    queryKey: queryKeys.verdicts(id),
    queryFn: async () => (await listVerdicts({ path: { recipeId: id } })).data!,
  });
  if (error && !data) return <Failed error={error} retry={() => void refetch()} />;
  if (!data) return <Loading />;
  const measure = lens === "points" ? "energy" : lens;
  return (
    <>
      <p className="text-sm text-soft">{t("history.empty")}</p>
      <ol className="mt-3 max-w-4xl">
        {data.map((version, i) => (
          <li key={version.version} className="grid grid-cols-[1fr_auto] gap-x-6 border-b border-line py-3">
            <div className="min-w-0">
              <h2 className="text-base">
                {t("history.version", { version: version.version })}{" "}
                <span className="text-xs font-normal text-soft">
                  {shortDay(version.savedAt)} {clock(version.savedAt)} · {version.portions}{" "}
                  {t("portions", { count: version.portions })}
                </span>
              </h2>
              <ul className="text-sm">
                {version.changes.map((change, k) => (
                  <li key={k}>
                    <span className="text-soft">{t(`history.${change.kind}`)}:</span>{" "}
                    {change.kind === "changed" ? (
                      <>
                        <s className="text-soft">{change.before!.text}</s> {change.after!.text}
                      </>
                    ) : (
                      (change.after ?? change.before)!.text
                    )}
                  </li>
                ))}
                {version.changes.length === 0 && (
                  <li className="text-soft">{t(i === data.length - 1 ? "history.first" : "history.same")}</li>
                )}
              </ul>
              <Said verdicts={verdicts.filter((one) => versionOf(one, data) === version.version)} />
            </div>
            <div className="text-right text-sm">
              <p className="counted">
                <Amount
                  measure={measure}
                  figure={version.then[measure]}
                  className="font-title text-lg font-bold"
                />{" "}
                <span className="text-xs text-soft">{t("history.then")}</span>
              </p>
              <p className="counted">
                <Amount measure={measure} figure={version.now[measure]} />{" "}
                <span className="text-xs text-soft">{t("history.now")}</span>
              </p>
              {i > 0 && (
                <button className="btn mt-1" onClick={() => onTake(version.written)}>
                  {t("history.back")}
                </button>
              )}
            </div>
          </li>
        ))}
      </ol>
    </>
  );
}

/** Of which version a batch was: of one that was tidied away, the next older one that was kept. Versions come the newest first. */
function versionOf(
  one: RecipeVerdictView,
  versions: { version: number; savedAt: string }[],
): number | undefined {
  const isOf = (version: { version: number; savedAt: string }) =>
    one.recipeVersion === null
      ? dayOf(version.savedAt) <= one.cookedOn
      : version.version <= one.recipeVersion;
  return (versions.find(isOf) ?? versions.at(-1))?.version;
}

/** What was said of what was cooked from a version. */
function Said({ verdicts }: { verdicts: RecipeVerdictView[] }) {
  const { t } = useWords("recipes");
  if (verdicts.length === 0) return null;
  return (
    <ul className="mt-1 border-l-2 border-sea pl-2 text-sm">
      {verdicts.map((one) => (
        <li key={`${one.batchId}|${one.eaterId}|${one.serving}`}>
          <span className="text-soft">
            {t("history.said", {
              name: one.eater,
              day: shortDay(one.cookedOn),
              serving: t(`app:verdict.${one.serving}`).toLowerCase(),
            })}
          </span>{" "}
          {verdictWords(t, one.verdict)}
        </li>
      ))}
    </ul>
  );
}
