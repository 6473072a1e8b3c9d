import { keepPreviousData, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useWords } from "../app/i18n";
import {
  addEater,
  calcFirstAim,
  sentenceFor,
  troubleOf,
  type Counting,
  type EaterView,
  type FirstNumbers,
  type Trouble,
} from "../api";
import { queryKeys } from "../app/queryKeys";
import { numberIn } from "../ui/numbers";
import { Ruler } from "../ui/Ruler";
import { Sentence } from "../ui/states";
import { blankDay, tapeLength } from "../ui/ticks";

const kinds: Counting[] = ["energy", "macros", "points", "lowCarb"];

/** What is asked of each kind, with what is suggested. */
const asked = {
  energy: ["kcal"],
  macros: ["protein", "carbohydrate", "fat"],
  points: ["points", "kcalPerPoint"],
  lowCarb: ["netCarbs", "kcal"],
} as const satisfies Record<Counting, readonly (keyof FirstNumbers)[]>;
type Field = (typeof asked)[Counting][number];

interface WhoEatsProps {
  eaters: EaterView[];
  /** Whether the form for someone else is open. */
  isAdding: boolean;
  onAdding: (isAdding: boolean) => void;
}

/** A short form for whoever eats here, with the ruler that it gives. */
export function WhoEats({ eaters, isAdding, onAdding }: WhoEatsProps) {
  const { t } = useWords("beginning");
  const queries = useQueryClient();
  const [name, setName] = useState("");
  const [kind, setKind] = useState<Counting>("energy");
  const [typed, setTyped] = useState<Partial<Record<Field, string>>>(blank);
  const [isOwnRule, setOwnRule] = useState(false);
  // Until all is there that comes of adding somebody, the form is theirs: nobody is added twice, and the next one's is not closed again.
  const [isSent, setSent] = useState(false);
  const [trouble, setTrouble] = useState<Trouble | null>(null);
  // Who comes second counts points as the first does, unless they say otherwise.
  const first = eaters.find(({ aim }) => aim.rule);
  const rule = kind === "points" && !isOwnRule ? (first?.aim.rule ?? null) : null;
  const fields: readonly Field[] = rule ? ["points"] : asked[kind];
  const read = fields.map((field) => [field, numberIn(typed[field] ?? "")] as const);
  const isUnread = read.some(([, value]) => Number.isNaN(value));
  const numbers: FirstNumbers = { counts: kind, rule, ...Object.fromEntries(read) };
  const making = {
    queryKey: queryKeys.firstAim(numbers),
    queryFn: async () => (await calcFirstAim({ body: numbers })).data!,
    staleTime: Infinity,
  };
  const { data: made } = useQuery({ ...making, enabled: !isUnread, placeholderData: keepPreviousData });

  const add = async () => {
    if (isUnread || isSent) return;
    setSent(true);
    try {
      const { written } = await queries.fetchQuery(making);
      await addEater({ body: { name, aim: written } });
      await queries.invalidateQueries();
      setName("");
      setTyped(blank);
      setTrouble(null);
      onAdding(false);
    } catch (thrown) {
      setTrouble(troubleOf(thrown, t("app:silent")));
    } finally {
      setSent(false);
    }
  };

  return (
    <section aria-labelledby="begin-who" className="space-y-4">
      <h2 id="begin-who" className="sr-only">
        {t("steps.who")}
      </h2>
      {eaters.length > 0 && (
        <p className="text-base">
          <b>
            {t("who.here", { count: eaters.length, names: eaters.map((eater) => eater.name).join(", ") })}
          </b>
        </p>
      )}
      {eaters.length > 0 && !isAdding && !isSent ? (
        <button className="btn" onClick={() => onAdding(true)}>
          {t("who.another")}
        </button>
      ) : (
        <form
          className="space-y-4"
          onSubmit={(event) => {
            event.preventDefault();
            void add();
          }}
        >
          <label className="block text-sm text-soft">
            {t("who.name")}
            <input
              className="field mt-1 block h-11 w-full max-w-sm text-lg text-ink"
              autoFocus
              value={name}
              maxLength={40}
              onChange={(event) => setName(event.target.value)}
            />
          </label>
          <fieldset>
            <legend className="text-sm text-soft">{t("who.counts")}</legend>
            <div className="mt-1 flex flex-wrap gap-2">
              {kinds.map((one) => (
                <button
                  key={one}
                  type="button"
                  aria-pressed={one === kind}
                  className={`btn ${one === kind ? "border-sea bg-sea-soft" : ""}`}
                  onClick={() => setKind(one)}
                >
                  {t(`who.kinds.${one}`)}
                </button>
              ))}
            </div>
          </fieldset>
          <div className="flex flex-wrap gap-4">
            {fields.map((field) => (
              <label key={field} className="block text-sm text-soft">
                {t(`who.${field}`)}
                <input
                  className="field mt-1 block h-11 w-36 text-right text-lg text-ink"
                  inputMode="decimal"
                  placeholder={placeholders[field]}
                  value={typed[field] ?? ""}
                  onChange={(event) => setTyped({ ...typed, [field]: event.target.value })}
                />
              </label>
            ))}
          </div>
          {kind === "points" && first && (
            <label className="flex min-h-8 items-center gap-2 text-sm">
              <input
                type="checkbox"
                className="size-5 accent-sea"
                checked={!isOwnRule}
                onChange={(event) => setOwnRule(!event.target.checked)}
              />
              {t("who.asFor", { name: first.name })}
            </label>
          )}
          {made && !isUnread && Object.keys(made.written.bands).length > 0 && (
            <figure>
              <Ruler
                day={blankDay(made.aim)}
                aim={made.aim}
                measure={made.aim.leading}
                length={tapeLength(made.aim, [], made.aim.leading)}
                label={name || t("who.unnamed")}
                height={46}
              />
              <figcaption className="mt-1 text-sm text-soft">
                {t("who.ruler", { measure: t(`app:measures.${made.aim.leading}`) })}
              </figcaption>
            </figure>
          )}
          {isUnread && <Sentence>{t("app:numberNeeded")}</Sentence>}
          <Sentence>
            {trouble && (sentenceFor(trouble, "name") ?? trouble.errors?.[0]?.sentence ?? trouble.detail)}
          </Sentence>
          <button className="btn-next" disabled={name.trim() === "" || isSent}>
            {t("who.add")}
          </button>
          <p className="text-sm text-soft">{t("who.later")}</p>
        </form>
      )}
    </section>
  );
}

/** What a point is stands there to be seen: it is counted by. */
const blank: Partial<Record<Field, string>> = { kcalPerPoint: "50" };

const placeholders: Record<Field, string> = {
  kcal: "2,000",
  protein: "150",
  carbohydrate: "200",
  fat: "60",
  points: "25",
  kcalPerPoint: "50",
  netCarbs: "20",
};
