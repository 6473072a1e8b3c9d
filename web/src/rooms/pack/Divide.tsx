import type { BatchView } from "../../api";
import { useWords } from "../../app/i18n";
import { useCurrentEater } from "../../app/Header";
import { wholeIn } from "../../ui/numbers";
import { Sentence } from "../../ui/states";
import { BoxCount, Count } from "./BoxCount";
import { rowsOf, type By, type Typed } from "./typed";

const ways: By[] = ["weight", "pieces", "squares", "component"];

/** A part of the bench: what is typed on it, and what is wrong at a field. */
export interface PartProps {
  batch: BatchView;
  typed: Typed;
  type: (change: Partial<Typed>) => void;
  at: (field: string) => string | undefined;
}

/** What the dish is measured out by, and whether the boxes are alike or each its own way. */
export function Divide({ batch, typed, type, at }: PartProps) {
  const { t } = useWords("pack");
  const cook = useCurrentEater();
  const chosen = (is: boolean) => `btn min-h-11 ${is ? "bg-ink text-ground" : ""}`;
  return (
    <>
      <div className="mt-4 flex flex-wrap items-end gap-x-4 gap-y-3">
        <div role="group" aria-label={t("divide")} className="flex flex-wrap items-center gap-2">
          <span className="font-title font-bold">{t("divide")}</span>
          {ways.map((by) => (
            <button
              key={by}
              aria-pressed={typed.by === by}
              className={chosen(typed.by === by)}
              onClick={() => type({ by })}
            >
              {t(`by.${by}`)}
            </button>
          ))}
        </div>
        {typed.by === "pieces" && (
          <Count
            label={t("pieces")}
            value={typed.pieces}
            problem={at("pieces")}
            onType={(pieces) => type({ pieces })}
          />
        )}
        {typed.by === "squares" && (
          <>
            <Count
              label={t("squares.down")}
              value={typed.down}
              problem={at("rows")}
              onType={(down) => type({ down })}
            />
            <Count label={t("squares.across")} value={typed.across} onType={(across) => type({ across })} />
          </>
        )}
      </div>
      {typed.by === "component" && <Component batch={batch} typed={typed} type={type} at={at} />}
      <div className="mt-4 flex flex-wrap items-end gap-x-4 gap-y-3">
        <div role="group" aria-label={t("own.group")} className="flex flex-wrap items-center gap-2">
          <button
            aria-pressed={!typed.isEach}
            className={chosen(!typed.isEach)}
            onClick={() => type({ isEach: false })}
          >
            {t(batch.planned.length > 0 ? "own.asPlanned" : "own.alike")}
          </button>
          <button
            aria-pressed={typed.isEach}
            className={chosen(typed.isEach)}
            onClick={() =>
              type({
                isEach: true,
                rows: typed.rows.length > 0 ? typed.rows : rowsOf(batch, wholeIn(typed.boxes) ?? 0),
              })
            }
          >
            {t("own.each")}
          </button>
        </div>
        {!typed.isEach && (
          <BoxCount
            value={typed.boxes}
            least={batch.together.goesInto.length > 0 ? 0 : 1}
            problem={at("portions")}
            onType={(boxes) => type({ boxes })}
          />
        )}
        {typed.by === "weight" && (
          <label className="flex min-h-11 items-center gap-2 text-sm">
            <input
              type="checkbox"
              checked={typed.isByEye}
              onChange={(event) => type({ isByEye: event.target.checked, cookId: cook })}
            />
            {t("byEye.label")}
          </label>
        )}
        {typed.isEach && typed.rows.some(({ way }) => way === "cups") && (
          <label className="text-xs text-soft">
            <span className="block">{t("own.cupWeighs")}</span>
            <input
              inputMode="decimal"
              className="field w-24 text-right text-base font-bold text-ink"
              value={typed.cupGrams}
              maxLength={8}
              onChange={(event) => type({ cupGrams: event.target.value })}
            />{" "}
            g<Sentence>{at("cupGrams")}</Sentence>
          </label>
        )}
      </div>
    </>
  );
}

/** The one part of the dish that is weighed into the boxes; the rest follows by eye. */
function Component({ batch, typed, type, at }: PartProps) {
  const { t } = useWords("pack");
  return (
    <div className="mt-3 flex flex-wrap items-end gap-3">
      <label className="min-w-0 text-xs text-soft">
        <span className="block">{t("component.which")}</span>
        <select
          className="field max-w-full text-base text-ink"
          value={typed.component}
          onChange={(event) => type({ component: event.target.value })}
        >
          {batch.components.map((name) => (
            <option key={name}>{name}</option>
          ))}
        </select>
      </label>
      <label className="text-xs text-soft">
        <span className="block">{t("component.weighs")}</span>
        <input
          inputMode="decimal"
          className="field w-28 text-right text-lg font-bold text-ink"
          value={typed.componentGrams}
          maxLength={12}
          onChange={(event) => type({ componentGrams: event.target.value })}
        />{" "}
        g
      </label>
      <p className="max-w-md text-sm text-soft">{t("component.text")}</p>
      <Sentence>{at("componentGrams")}</Sentence>
    </div>
  );
}
