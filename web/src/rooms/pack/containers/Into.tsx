import { Link } from "react-router";
import type { BoxPreview, CompartmentFill, ContainerView } from "../../../api";
import { useWords } from "../../../app/i18n";
import { wholeNumber } from "../../../ui/format";
import type { PartProps } from "../Divide";
import { useContainers } from "./useContainers";

/** Which of the household's boxes or bags a batch goes into, and whether there are enough of them. */
export function Into({ typed, type, boxes }: Pick<PartProps, "typed" | "type"> & { boxes: number }) {
  const { t } = useWords("pack");
  const all = useContainers().data ?? [];
  const could = all.filter(({ kind }) => kind === "box" || kind === "bag");
  const chosen = could.find(({ id }) => id === typed.container);
  const free = chosen?.count == null ? null : Math.max(0, chosen.count - chosen.inUse);
  const choose = (id: string) => {
    const one = could.find((each) => each.id === id);
    type({ container: id, ...(one?.emptyGrams == null ? {} : { emptyBox: String(one.emptyGrams) }) });
  };
  return (
    <div className="text-sm">
      {could.length > 0 && (
        <label className="mr-3">
          <span className="mr-2 text-soft">{t("into.label")}</span>
          <select
            className="field max-w-full"
            value={chosen?.id ?? ""}
            onChange={(event) => choose(event.target.value)}
          >
            <option value="">{t("into.any")}</option>
            {could.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        </label>
      )}
      <Link to="/containers" className="link inline-block min-h-6">
        {t(could.length > 0 ? "into.more" : "into.first")}
      </Link>
      {free !== null && boxes > free && (
        <b className="block">{t("into.few", { have: chosen!.count!, free, more: boxes - free })}</b>
      )}
    </div>
  );
}

const worst = { tooMuch: 3, tooFullToFreeze: 2, unknown: 1, fits: 0 } as const;

/** How what goes into the boxes stands to what they hold: the worst of each compartment. */
export function Fits({ boxes, container }: { boxes: BoxPreview[]; container: ContainerView | undefined }) {
  const { t } = useWords("pack");
  if (!container) return null;
  const byPart = new Map<string | null, { fill: CompartmentFill; box: number }[]>();
  boxes.forEach(({ fills }, box) =>
    fills.forEach((fill) => byPart.set(fill.name, [...(byPart.get(fill.name) ?? []), { fill, box }])),
  );
  if (byPart.size === 0) return <p className="text-sm text-soft">{t("into.unmeasured", container)}</p>;
  return (
    <ul className="text-sm">
      {[...byPart].map(([part, all]) => {
        const most = all.reduce((one, other) =>
          worst[other.fill.says] > worst[one.fill.says] ||
          (other.fill.says === one.fill.says && other.fill.filled > one.fill.filled)
            ? other
            : one,
        );
        const { says, filled, holds, unknown } = most.fill;
        const alike = all.filter(({ fill }) => fill.says === says).map(({ box }) => box + 1);
        const unit = container.kind === "bag" ? t("into.pieces") : "ml";
        return (
          <li
            key={part ?? ""}
            className={says === "tooMuch" || says === "tooFullToFreeze" ? "font-bold" : "text-soft"}
          >
            {(says === "tooMuch" || says === "tooFullToFreeze") && (
              <span aria-hidden className="hatched mr-1 inline-block h-3 w-1.5" />
            )}
            {part ?? container.compartments[0]?.name ?? container.name}:{" "}
            {t(`into.says.${says}`, {
              boxes: alike.join(", "),
              over: wholeNumber(Math.ceil(filled - holds)),
              filled: wholeNumber(filled),
              holds: wholeNumber(holds),
              unit,
              percent: wholeNumber((filled / holds) * 100),
              names: unknown.join(", "),
            })}
          </li>
        );
      })}
    </ul>
  );
}
