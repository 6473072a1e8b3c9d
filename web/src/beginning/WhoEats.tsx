import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useWords } from "../app/i18n";
import {
  addEater,
  changeEater,
  seen,
  sentenceFor,
  troubleOf,
  type Band,
  type DayAim,
  type EaterView,
  type Measure,
  type Trouble,
} from "../api";
import { numberIn } from "../ui/numbers";
import { Ruler } from "../ui/Ruler";
import { Sentence } from "../ui/states";
import { blankDay, tapeLength } from "../ui/ticks";

const kinds = ["energy", "macros", "points", "lowCarb"] as const;
type Kind = (typeof kinds)[number];

/** What is asked of each kind, with what is suggested. */
const asked = {
  energy: ["kcal"],
  macros: ["protein", "carbohydrate", "fat"],
  points: ["points", "perPoint"],
  lowCarb: ["netCarbs", "kcal"],
} as const satisfies Record<Kind, readonly string[]>;
type Field = (typeof asked)[Kind][number];

/** A short form for whoever eats here, with the ruler that it gives. */
export function WhoEats({ eaters }: { eaters: EaterView[] }) {
  const { t } = useWords("beginning");
  const queries = useQueryClient();
  const [isOpen, setOpen] = useState(eaters.length === 0);
  const [name, setName] = useState("");
  const [kind, setKind] = useState<Kind>("energy");
  const [typed, setTyped] = useState<Partial<Record<Field, string>>>({});
  const [trouble, setTrouble] = useState<Trouble | null>(null);
  const numbers = Object.fromEntries(
    asked[kind].map((field) => [field, numberIn(typed[field] ?? "")]),
  ) as Partial<Record<Field, number | null>>;
  const isUnread = Object.values(numbers).some((value) => Number.isNaN(value));
  const aim = aimOf(kind, numbers);
  const isSaid = asked[kind].some((field) => (numbers[field] ?? 0) > 0);

  const add = async () => {
    if (isUnread) return;
    try {
      const eater = (await addEater({ body: { name, aim } })).data!;
      // Three numbers make a day's energy: it is taken along.
      if (eater.macros?.kcal)
        await changeEater({
          path: { id: eater.id },
          headers: seen(eater.version),
          body: {
            name: eater.name,
            aim: { ...aim, bands: { ...aim.bands, energy: { target: eater.macros.kcal } } },
          },
        });
      await queries.invalidateQueries();
      setName("");
      setTyped({});
      setTrouble(null);
      setOpen(false);
    } catch (thrown) {
      setTrouble(troubleOf(thrown, t("app:silent")));
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
      {eaters.length > 0 && !isOpen ? (
        <button className="btn" onClick={() => setOpen(true)}>
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
            {asked[kind].map((field) => (
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
          {isSaid && !isUnread && (
            <figure>
              <Ruler
                day={blankDay(aim)}
                aim={aim}
                measure={aim.leading}
                length={tapeLength(aim, [], aim.leading)}
                label={name || t("who.unnamed")}
                height={46}
              />
              <figcaption className="mt-1 text-sm text-soft">{t("who.ruler")}</figcaption>
            </figure>
          )}
          {isUnread && <Sentence>{t("app:numberNeeded")}</Sentence>}
          <Sentence>
            {trouble && (sentenceFor(trouble, "name") ?? trouble.errors?.[0]?.sentence ?? trouble.detail)}
          </Sentence>
          <button className="btn-next" disabled={name.trim() === ""}>
            {t("who.add")}
          </button>
          <p className="text-sm text-soft">{t("who.later")}</p>
        </form>
      )}
    </section>
  );
}

const placeholders: Record<Field, string> = {
  kcal: "2,000",
  protein: "150",
  carbohydrate: "200",
  fat: "60",
  points: "25",
  perPoint: "50",
  netCarbs: "20",
};

const empty = { min: null, target: null, max: null, tolerance: null };

function aimOf(kind: Kind, numbers: Partial<Record<Field, number | null>>): DayAim {
  const bands: Partial<Record<Measure, Band>> = {};
  const about = (measure: Measure, value: number | null | undefined) => {
    if (value) bands[measure] = { ...empty, target: value };
  };
  const most = (measure: Measure, value: number | null | undefined) => {
    if (value) bands[measure] = { ...empty, max: value };
  };
  if (kind === "energy" || kind === "lowCarb") about("energy", numbers.kcal);
  if (kind === "macros")
    for (const measure of ["protein", "carbohydrate", "fat"] as const) about(measure, numbers[measure]);
  if (kind === "points") most("points", numbers.points);
  if (kind === "lowCarb") most("netCarbohydrate", numbers.netCarbs);
  const leading = {
    energy: "energy",
    macros: "protein",
    points: "points",
    lowCarb: "netCarbohydrate",
  } as const;
  const perPoint = numbers.perPoint || Number(placeholders.perPoint);
  return {
    leading: leading[kind],
    bands: bands as DayAim["bands"],
    rule:
      kind === "points"
        ? { name: "", perUnit: { energy: 1 / perPoint }, step: 1, freeGroups: [], freeFoods: [] }
        : null,
  };
}
