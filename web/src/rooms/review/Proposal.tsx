import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { moveAim, proposeAim, troubleOf, type BodyView } from "../../api";
import { freshen } from "../../app/freshen";
import { useHistory } from "../../app/history";
import { useWords } from "../../app/i18n";
import { useSay } from "../../app/notices";
import { queryKeys } from "../../app/queryKeys";
import { exact, wholeNumber } from "../../ui/format";

const rates = [0, 0.25, 0.5, -0.25] as const;

/** The aim that the trend speaks for, at a rate that somebody chooses; it is set when they say so. */
export function Proposal({ body }: { body: BodyView }) {
  const { t } = useWords("review");
  const [rate, setRate] = useState<number | null>(null);
  const queries = useQueryClient();
  const say = useSay();
  const { did } = useHistory();
  const { data, error } = useQuery({
    queryKey: queryKeys.proposal(body.eaterId, rate),
    queryFn: async () =>
      (await proposeAim({ path: { eaterId: body.eaterId }, query: { rate: rate! } })).data!,
    enabled: rate !== null,
  });
  const move = async (before: number, kcal: number) => {
    await moveAim({ path: { eaterId: body.eaterId }, body: { before, kcal } });
    await freshen(queries, "eater");
  };
  const set = async (before: number, kcal: number) => {
    try {
      await move(before, kcal);
      did(t("proposal.set", { kcal: wholeNumber(kcal) }), () => move(kcal, before));
    } catch (thrown) {
      await freshen(queries, "eater");
      say(troubleOf(thrown, t("app:silent")).detail ?? "", { trouble: true });
    }
  };
  return (
    <section aria-labelledby="proposal-title" className="space-y-2">
      <h3 id="proposal-title" className="text-base">
        {t("proposal.title")}
      </h3>
      <div role="group" aria-label={t("proposal.title")} className="flex flex-wrap gap-1">
        {rates.map((one) => (
          <button
            key={one}
            className={`btn ${rate === one ? "bg-ink text-ground" : ""}`}
            aria-pressed={rate === one}
            onClick={() => setRate(rate === one ? null : one)}
          >
            {one === 0
              ? t("proposal.stay")
              : t(one > 0 ? "proposal.lose" : "proposal.gain", { rate: exact(Math.abs(one)) })}
          </button>
        ))}
      </div>
      {rate !== null && error && !data && (
        <p role="alert" className="text-sm">
          {troubleOf(error, t("app:silent")).detail}
        </p>
      )}
      {rate !== null && data && (
        <div className="space-y-2">
          <p>
            <span className="font-title text-xl font-bold">
              {t("proposal.kcal", { kcal: wholeNumber(data.kcal.value) })}
            </span>{" "}
            <span className="text-sm text-soft">
              {t("proposal.range", { low: wholeNumber(data.kcal.low), high: wholeNumber(data.kcal.high) })}
            </span>
          </p>
          {data.cautions.map(({ code, sentence, source }) => (
            <p key={code} className="max-w-2xl border-l-4 border-next pl-3 text-sm">
              {sentence} <span className="block text-xs text-soft">{source}</span>
            </p>
          ))}
          {data.aimKcal === null ? (
            <p className="text-sm text-soft">{t("proposal.noAim")}</p>
          ) : data.aimKcal === data.kcal.value ? (
            <p className="text-sm text-soft">{t("proposal.same")}</p>
          ) : (
            <p className="flex flex-wrap items-center gap-3">
              <button className="btn" onClick={() => void set(data.aimKcal!, data.kcal.value)}>
                {t("proposal.take", { from: wholeNumber(data.aimKcal), to: wholeNumber(data.kcal.value) })}
              </button>
              <span className="text-sm text-soft">{t("proposal.others")}</span>
            </p>
          )}
        </div>
      )}
    </section>
  );
}
