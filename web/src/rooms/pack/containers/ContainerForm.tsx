import { useQueryClient } from "@tanstack/react-query";
import { Plus, X } from "lucide-react";
import { useId, useState, type ReactNode } from "react";
import {
  addContainer,
  putContainerAway,
  restoreContainer,
  seen,
  sentenceFor,
  setContainer,
  troubleOf,
  type ContainerKind,
  type ContainerRequest,
  type ContainerView,
  type Trouble,
} from "../../../api";
import { freshen } from "../../../app/freshen";
import { useHistory } from "../../../app/history";
import { useWords } from "../../../app/i18n";
import { useSay } from "../../../app/notices";
import { numberIn, sentNumber, weightIn } from "../../../ui/numbers";
import { Sentence } from "../../../ui/states";

const kinds: ContainerKind[] = ["box", "cup", "bag", "pan"];
const fields = ["name", "emptyGrams", "count", "compartments", "rows"];
const written = (value: number | null | undefined) => (value == null ? "" : String(value));

interface Part {
  name: string;
  ml: string;
}

/** Writes down a pan, a box, a cup or a bag, or how it is now. */
export function ContainerForm({ one, done }: { one: ContainerView | null; done: () => Promise<void> }) {
  const { t } = useWords("containers");
  const say = useSay();
  const { did } = useHistory();
  const queries = useQueryClient();
  const [kind, setKind] = useState<ContainerKind>(one?.kind ?? "box");
  const [name, setName] = useState(one?.name ?? "");
  const [empty, setEmpty] = useState(written(one?.emptyGrams));
  const [count, setCount] = useState(written(one?.count));
  const [parts, setParts] = useState<Part[]>(
    one?.compartments.length
      ? one.compartments.map((part) => ({ name: part.name ?? "", ml: written(part.volumeMl) }))
      : [{ name: "", ml: "" }],
  );
  const [down, setDown] = useState(written(one?.down));
  const [across, setAcross] = useState(written(one?.across));
  const [trouble, setTrouble] = useState<Trouble | null>(null);
  const [busy, setBusy] = useState(false);
  const isHolding = kind === "box" || kind === "cup";
  const said = parts.filter((part) => part.name.trim() !== "" || part.ml.trim() !== "");
  const body: ContainerRequest = {
    kind,
    name,
    emptyGrams: sentNumber(empty, weightIn),
    count: sentNumber(count),
    compartments: isHolding
      ? said.map((part) => ({ name: part.name || null, volumeMl: sentNumber(part.ml) ?? 0 }))
      : [],
    down: kind === "bag" ? sentNumber(down) : null,
    across: kind === "bag" ? sentNumber(across) : null,
  };
  const attempt = async (act: () => Promise<void>) => {
    setBusy(true);
    try {
      await act();
      await done();
    } catch (thrown) {
      const what = troubleOf(thrown, t("app:silent"));
      setTrouble(what.status === 412 ? { ...what, detail: t("stale") } : what);
      if (what.status === 412) await freshen(queries, "containers");
      setBusy(false);
    }
  };
  const keep = () =>
    attempt(async () => {
      if (one) await setContainer({ path: { id: one.id }, headers: seen(one.version), body });
      else await addContainer({ body });
      say(t("kept", { name: name.trim() }));
    });
  const putAway = () =>
    attempt(async () => {
      const { data } = await putContainerAway({ path: { id: one!.id }, headers: seen(one!.version) });
      did(t("gone", { name: one!.name }), async () => {
        await restoreContainer({ path: { id: one!.id }, headers: seen(data!.version) });
        await freshen(queries, "containers");
      });
    });
  const at = (field: string) => sentenceFor(trouble, field);
  const set = (i: number, change: Partial<Part>) =>
    setParts(parts.map((part, j) => (i === j ? { ...part, ...change } : part)));
  return (
    <form
      className="space-y-4"
      onSubmit={(event) => {
        event.preventDefault();
        void keep();
      }}
    >
      <label className="block">
        <span className="block text-sm">{t("what")}</span>
        <select
          className="field w-full"
          value={kind}
          onChange={(event) => setKind(event.target.value as ContainerKind)}
        >
          {kinds.map((each) => (
            <option key={each} value={each}>
              {t(`kind.${each}`)}
            </option>
          ))}
        </select>
      </label>
      <Line label={t("name")} value={name} onType={setName} problem={at("name")} isText />
      {isHolding && (
        <fieldset className="space-y-2">
          <legend className="text-sm">{t(kind === "box" ? "compartments" : "holds")}</legend>
          <p className="text-xs text-soft">{t("compartmentsText")}</p>
          {(kind === "box" ? parts : parts.slice(0, 1)).map((part, i) => (
            <p key={i} className="flex items-center gap-2">
              {kind === "box" && (parts.length > 1 || part.name !== "") && (
                <input
                  className="field min-w-0 flex-1"
                  aria-label={t("compartment", { number: i + 1 })}
                  value={part.name}
                  maxLength={40}
                  onChange={(event) => set(i, { name: event.target.value })}
                />
              )}
              <input
                className="field w-24 text-right"
                inputMode="decimal"
                aria-label={t("compartmentMl", { number: i + 1 })}
                aria-invalid={Number.isNaN(numberIn(part.ml))}
                value={part.ml}
                maxLength={8}
                onChange={(event) => set(i, { ml: event.target.value })}
              />
              ml
              {kind === "box" && parts.length > 1 && (
                <button
                  type="button"
                  className="min-h-11 px-2"
                  aria-label={t("less", { number: i + 1 })}
                  onClick={() => setParts(parts.filter((_, j) => i !== j))}
                >
                  <X size={16} aria-hidden />
                </button>
              )}
            </p>
          ))}
          {kind === "box" && parts.length < 6 && (
            <button
              type="button"
              className="link min-h-8 text-sm"
              onClick={() => setParts([...parts, { name: "", ml: "" }])}
            >
              <Plus size={14} aria-hidden className="inline" /> {t("more")}
            </button>
          )}
          <Sentence>{at("compartments")}</Sentence>
        </fieldset>
      )}
      {kind === "bag" && (
        <div className="flex gap-4">
          <Line label={t("down")} value={down} onType={setDown} problem={at("rows")} />
          <Line label={t("across")} value={across} onType={setAcross} />
        </div>
      )}
      {kind !== "bag" && (
        <Line
          label={t("emptyGrams")}
          unit="g"
          hint={t("emptyHint")}
          value={empty}
          onType={setEmpty}
          problem={at("emptyGrams")}
        />
      )}
      {kind !== "pan" && <Line label={t("count")} value={count} onType={setCount} problem={at("count")} />}
      {trouble && !fields.some((field) => at(field)) && <Sentence>{trouble.detail}</Sentence>}
      <button className="btn-next min-h-11" disabled={busy}>
        {t("keep")}
      </button>
      {one && (
        <button
          type="button"
          className="block min-h-8 text-sm text-soft underline"
          disabled={busy}
          onClick={() => void putAway()}
        >
          {t("away")}
        </button>
      )}
    </form>
  );
}

function Line({
  label,
  value,
  onType,
  problem,
  hint,
  unit,
  isText = false,
}: {
  label: string;
  value: string;
  onType: (value: string) => void;
  problem?: ReactNode;
  hint?: string;
  unit?: string;
  isText?: boolean;
}) {
  const id = useId();
  return (
    <div>
      <label htmlFor={id} className="block text-sm">
        {label}
      </label>
      <input
        id={id}
        inputMode={isText ? undefined : "decimal"}
        className={`field ${isText ? "w-full" : "w-24 text-right"}`}
        value={value}
        maxLength={isText ? 40 : 12}
        aria-invalid={problem !== undefined}
        onChange={(event) => onType(event.target.value)}
      />{" "}
      {unit}
      {hint && <span className="block text-xs text-soft">{hint}</span>}
      <Sentence>{problem}</Sentence>
    </div>
  );
}
