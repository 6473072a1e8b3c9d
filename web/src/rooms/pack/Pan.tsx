import type { TFunction } from "i18next";
import { useId } from "react";
import type { PackPreview } from "../../api";
import { useWords } from "../../app/i18n";
import { ScaleStrip } from "../../devices/ScaleStrip";
import { exact, grams, wholeNumber } from "../../ui/format";
import { weightIn } from "../../ui/numbers";
import { Sentence } from "../../ui/states";
import { useContainers } from "./containers/useContainers";
import type { PartProps } from "./Divide";

const unread = (t: TFunction, weight: string) =>
  Number.isNaN(weightIn(weight)) ? t("app:numberNeeded") : undefined;

/** The full pan, the empty one, and what is in it, held against what this dish usually comes to. */
export function Pan({ batch, typed, type, at, good }: PartProps & { good: PackPreview | null }) {
  const { t } = useWords("pack");
  const named = (useContainers().data ?? []).filter(
    ({ kind, emptyGrams }) => kind === "pan" && emptyGrams !== null,
  );
  return (
    <>
      <ScaleStrip
        takes={[
          { label: t("devices:full"), take: (full) => type({ full: String(full) }) },
          { label: t("devices:pan"), take: (pan) => type({ pan: String(pan) }) },
        ]}
      />
      <div className="panel grid gap-x-6 gap-y-4 p-4 sm:grid-cols-2 lg:grid-cols-[1.2fr_1fr_1.2fr]">
        <Weight
          label={t("full")}
          value={typed.full}
          problem={unread(t, typed.full) ?? at("fullGrams")}
          autoFocus
          onType={(full) => type({ full })}
        />
        <div>
          <Weight
            label={t("pan")}
            value={typed.pan}
            problem={unread(t, typed.pan) ?? at("panGrams")}
            hint={
              !batch.rememberedPanGrams
                ? undefined
                : t("remembered", { grams: grams(batch.rememberedPanGrams) })
            }
            onType={(pan) => type({ pan })}
          />
          {batch.pans.length + named.length > 1 && (
            <select
              className="field mt-1 w-full text-sm"
              aria-label={t("pans")}
              value=""
              onChange={(event) => type({ pan: event.target.value })}
            >
              <option value="">{t("pans")}</option>
              {named.map((pan) => (
                <option key={pan.id} value={String(pan.emptyGrams)}>
                  {t("namedPan", { grams: grams(pan.emptyGrams!), name: pan.name })}
                </option>
              ))}
              {batch.pans.map((pan) => (
                <option key={pan.grams} value={String(pan.grams)}>
                  {t("panOf", { grams: grams(pan.grams), dish: pan.dish })}
                </option>
              ))}
            </select>
          )}
        </div>
        <div aria-live="polite">
          <p className="text-sm text-soft">{t("inPan")}</p>
          <p className="font-title text-[2.75rem] leading-tight font-bold">
            {good ? grams(good.cookedGrams) : "–"} <span className="text-base font-normal text-soft">g</span>
          </p>
          {good && (
            <p className="text-sm text-soft">
              {good.yield > 0 && good.yield !== 1 && (
                <>
                  {t(good.yield < 1 ? "lost" : "gained", {
                    percent: wholeNumber(Math.abs(1 - good.yield) * 100),
                  })}{" "}
                  <span className="counted">· </span>
                </>
              )}
              <span className="counted">
                {t("gram")} {exact(good.kcalPerGram.value)} kcal
              </span>
            </p>
          )}
          {good?.usual && <Usual usual={good.usual} />}
        </div>
      </div>
    </>
  );
}

/** What batches of this dish came to before. */
function Usual({ usual }: { usual: NonNullable<PackPreview["usual"]> }) {
  const { t } = useWords("pack");
  const percent = (share: number) => wholeNumber(share * 100);
  return (
    <p className={`text-sm ${usual.says === "asUsual" ? "text-soft" : "font-bold"}`}>
      {t(`usual.${usual.says}`)}{" "}
      <span className="font-normal text-soft">
        {t(`usual.${usual.mean < 1 ? "lost" : "gained"}${usual.batches === 1 ? "Last" : "Mean"}`, {
          percent: percent(Math.abs(1 - usual.mean)),
          count: usual.batches,
        })}
        {usual.spread >= 0.005 && `, ${t("usual.spread", { spread: percent(usual.spread) })}`}
      </span>
    </p>
  );
}

function Weight({
  label,
  value,
  problem,
  hint,
  autoFocus,
  onType,
}: {
  label: string;
  value: string;
  problem?: string;
  hint?: string;
  autoFocus?: boolean;
  onType: (value: string) => void;
}) {
  const id = useId();
  return (
    <div>
      <label htmlFor={id} className="text-sm text-soft">
        {label}
      </label>
      <p className="flex items-baseline gap-2">
        <input
          id={id}
          inputMode="decimal"
          autoFocus={autoFocus}
          aria-invalid={problem !== undefined}
          className={`field w-full min-w-0 font-title text-[2.75rem] leading-tight font-bold ${problem ? "border-2 border-brick" : ""}`}
          value={value}
          maxLength={12}
          onChange={(event) => onType(event.target.value)}
        />
        <span className="text-soft">g</span>
      </p>
      {hint && <p className="text-xs text-soft">{hint}</p>}
      <Sentence>{problem}</Sentence>
    </div>
  );
}
