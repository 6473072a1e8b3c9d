import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { removeWeighIn, sentenceFor, troubleOf, weighIn, type BodyView, type Trouble } from "../../api";
import { freshen } from "../../app/freshen";
import { useHistory } from "../../app/history";
import { useWords } from "../../app/i18n";
import { useSay } from "../../app/notices";
import { oneDecimal, shortDay, signedTwo, wholeNumber } from "../../ui/format";
import { Sentence } from "../../ui/states";
import { Proposal } from "./Proposal";
import { TrendChart } from "./TrendChart";

/** What the bathroom scale says over weeks: written down in one line, the trend, its rate, the need behind it. */
export function BodyTrend({ body }: { body: BodyView }) {
  const { t } = useWords("review");
  const writes = useWeighIns(body);
  const { trend } = body;
  const { ratePerWeek: rate, need } = trend;
  const apart = body.aimAboveNeed;
  return (
    <section aria-labelledby="body-title" className="space-y-4">
      <div>
        <h2 id="body-title" className="text-lg">
          {t("body.title")}
        </h2>
        <p className="text-sm text-soft">{t("body.lead")}</p>
      </div>
      <WeighInForm body={body} onWrite={writes.write} />
      {trend.trend.length === 0 ? (
        <p className="text-soft">{t("body.none")}</p>
      ) : (
        <>
          <div className="grid gap-x-8 gap-y-3 md:grid-cols-2">
            <p>
              <span className="block font-title text-xl font-bold">
                {rate === null
                  ? t("body.noRate")
                  : body.isLevel
                    ? t("body.level", { days: body.rateDays })
                    : t("body.rate", { rate: signedTwo(rate.value), days: body.rateDays })}
              </span>
              {rate && (
                <span className="text-sm text-soft">
                  {t("body.rateRange", { low: signedTwo(rate.low), high: signedTwo(rate.high) })}
                </span>
              )}
            </p>
            <div>
              {need ? (
                <p>
                  <span className="block font-title text-xl font-bold">
                    {t("body.need", { kcal: wholeNumber(need.value) })}
                  </span>
                  <span className="text-sm text-soft">
                    {t("body.needRange", {
                      low: wholeNumber(need.low),
                      high: wholeNumber(need.high),
                      count: trend.intakeDays,
                    })}
                  </span>
                </p>
              ) : (
                <p className="text-soft">{t("body.noNeed", { why: trend.whyNoNeed })}</p>
              )}
              {body.openDays > 0 && (
                <p className="text-sm text-soft">{t("body.openDays", { count: body.openDays })}</p>
              )}
              {apart !== null && (
                <p className="text-sm">
                  {apart === 0
                    ? t("body.aimThere")
                    : t(apart < 0 ? "body.aimBelow" : "body.aimAbove", {
                        kcal: wholeNumber(Math.abs(apart)),
                      })}
                </p>
              )}
              <p className="text-sm text-soft">
                {body.equations ? (
                  t("body.equations", {
                    low: wholeNumber(body.equations.low),
                    high: wholeNumber(body.equations.high),
                  })
                ) : (
                  <Link className="link" to="/aim">
                    {t("body.toBody")}
                  </Link>
                )}
              </p>
            </div>
          </div>
          <TrendChart body={body} />
          {need && <Proposal body={body} />}
          <p className="text-xs text-soft">
            {t("body.caution")}{" "}
            <Link className="link" to="/aim">
              {t("body.wayOut")}
            </Link>
          </p>
        </>
      )}
      {trend.leftOut.length > 0 && (
        <section aria-labelledby="left-out">
          <h3 id="left-out" className="text-base">
            {t("body.leftOut")}
          </h3>
          <ul className="divide-y divide-line text-sm">
            {trend.leftOut.map(({ day, why, meant }) => (
              <li key={day} className="flex flex-wrap items-center gap-x-3 gap-y-1 py-1">
                <span>
                  <b>{shortDay(day)}</b> {why}
                </span>
                {meant !== null && (
                  <button className="btn min-h-9" onClick={() => void writes.write(day, `${meant} kg`)}>
                    {t("body.meant", { kg: oneDecimal(meant) })}
                  </button>
                )}
                <button className="btn min-h-9" onClick={() => void writes.remove(day)}>
                  {t("body.remove")}
                </button>
              </li>
            ))}
          </ul>
        </section>
      )}
      {body.weighIns.length > 0 && <WeighInTable body={body} onRemove={writes.remove} />}
    </section>
  );
}

/** Writes and takes off weigh-ins; each can be undone, and what was refused is said. */
function useWeighIns(body: BodyView) {
  const { t } = useWords("review");
  const say = useSay();
  const queries = useQueryClient();
  const { did } = useHistory();
  const { eaterId } = body;
  const textOn = (day: string) => body.weighIns.find((one) => one.day === day)?.text ?? null;
  const fresh = () => freshen(queries, "body");
  const put = async (day: string, text: string | null, before: string | null) => {
    const path = { eaterId, day };
    if (text === null) await removeWeighIn({ path, query: { before: before ?? undefined } });
    else await weighIn({ path, body: { text, before } });
    await fresh();
  };
  return {
    /** @returns What was wrong with it; null where it is written. */
    write: async (day: string, text: string): Promise<Trouble | null> => {
      const before = textOn(day);
      try {
        await put(day, text, before);
        did(t("body.written", { text, day: shortDay(day) }), () => put(day, before, text));
        return null;
      } catch (thrown) {
        await fresh();
        return troubleOf(thrown, t("app:silent"));
      }
    },
    remove: async (day: string) => {
      const before = textOn(day);
      if (before === null) return;
      try {
        await put(day, null, before);
        did(t("body.removed", { text: before, day: shortDay(day) }), () => put(day, before, null));
      } catch (thrown) {
        await fresh();
        say(troubleOf(thrown, t("app:silent")).detail ?? "", { trouble: true });
      }
    },
  };
}

function WeighInForm({
  body,
  onWrite,
}: {
  body: BodyView;
  onWrite: (day: string, text: string) => Promise<Trouble | null>;
}) {
  const { t } = useWords("review");
  const [text, setText] = useState("");
  const [day, setDay] = useState(body.today);
  const [trouble, setTrouble] = useState<Trouble | null>(null);
  const [busy, setBusy] = useState(false);
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        if (text.trim() === "" || busy) return;
        setBusy(true);
        void onWrite(day, text.trim())
          .then((wrong) => {
            setTrouble(wrong);
            if (!wrong) setText("");
          })
          .finally(() => setBusy(false));
      }}
    >
      <div className="flex flex-wrap items-end gap-2">
        <label className="text-sm">
          <span className="block text-soft">{t("body.weight")}</span>
          <input
            className="field h-12 w-44 text-lg font-bold"
            placeholder={t("body.hint")}
            maxLength={40}
            value={text}
            aria-invalid={trouble !== null}
            onChange={(event) => {
              setText(event.target.value);
              setTrouble(null);
            }}
          />
        </label>
        <label className="text-sm">
          <span className="block text-soft">{t("body.day")}</span>
          <input
            type="date"
            className="field h-12"
            value={day}
            max={body.today}
            onChange={(event) => setDay(event.target.value || body.today)}
          />
        </label>
        <button className="btn-next min-h-12" disabled={text.trim() === ""}>
          {t("body.write")}
        </button>
      </div>
      <p className="mt-1 text-xs text-soft">{t("body.units")}</p>
      <Sentence>{sentenceFor(trouble, "text") ?? sentenceFor(trouble, "day") ?? trouble?.detail}</Sentence>
    </form>
  );
}

const most = 400;

function WeighInTable({ body, onRemove }: { body: BodyView; onRemove: (day: string) => void }) {
  const { t } = useWords("review");
  const trendOn = new Map(body.trend.trend.map((one) => [one.day, one]));
  return (
    <details>
      <summary className="font-title text-base font-bold">{t("body.table")}</summary>
      <table className="mt-2 w-full max-w-xl text-sm">
        <thead className="text-left text-soft">
          <tr>
            <th className="font-normal">{t("body.dayHead")}</th>
            <th className="text-right font-normal">{t("body.scaleHead")}</th>
            <th className="text-right font-normal">{t("body.trendHead")}</th>
            <th className="text-right font-normal">{t("body.rangeHead")}</th>
            <td />
          </tr>
        </thead>
        <tbody>
          {body.weighIns.slice(0, most).map(({ day, kg, text }) => {
            const trend = trendOn.get(day);
            return (
              <tr key={day} className="border-t border-line">
                <th className="text-left font-normal">{shortDay(day)}</th>
                <td className="text-right">{oneDecimal(kg)}</td>
                <td className="text-right">{trend ? oneDecimal(trend.kg) : "–"}</td>
                <td className="text-right text-soft">
                  {trend ? `${oneDecimal(trend.low)}–${oneDecimal(trend.high)}` : "–"}
                </td>
                <td className="text-right">
                  <button
                    className="min-h-9 px-1 text-xs underline"
                    aria-label={t("body.removeNamed", { text, day: shortDay(day) })}
                    onClick={() => onRemove(day)}
                  >
                    {t("body.remove")}
                  </button>
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </details>
  );
}
