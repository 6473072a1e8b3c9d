import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState, useSyncExternalStore } from "react";
import { useWords } from "../../app/i18n";
import {
  archiveEater,
  restoreEater,
  seen,
  sentenceFor,
  troubleOf,
  type AimStart,
  type Body,
  type EaterView,
  type Measure,
  type Trouble,
} from "../../api";
import { useHistory } from "../../app/history";
import { useSay } from "../../app/notices";
import { unitOf, wholeNumber } from "../../ui/format";
import { Ruler } from "../../ui/Ruler";
import { blankDay, tapeLength } from "../../ui/ticks";
import { Sentence } from "../../ui/states";
import { bounded, draftOf, isBounded, otherRows, requestOf, ruleDraft, type Draft } from "./draft";
import { bandFields, numberText } from "./ways";
import { eaterDesks } from "./desk";
import { NeedDrawer } from "./NeedDrawer";
import { AsFor, RuleSheet } from "./RuleSheet";
import { Quiet } from "./Quiet";
import { WaysSheet } from "./WaysSheet";

/** One eater: the band drawn on an empty ruler, the bounds, the points rule. Saves by itself; what is refused stays as typed. */
export function EaterSheet({
  eater,
  eaters,
  start,
}: {
  eater: EaterView;
  /** Everybody here. */
  eaters: EaterView[];
  start: AimStart;
}) {
  const { t } = useWords("aim");
  const queries = useQueryClient();
  const say = useSay();
  const { did } = useHistory();
  const [desk] = useState(() => eaterDesks.of(eater));
  const [draft, setDraft] = useState(() => desk.unstored?.draft ?? draftOf(eater));
  const [needOpen, setNeedOpen] = useState(false);
  const others = eaters.flatMap(({ id, name, aim: { rule } }) =>
    rule && id !== eater.id && JSON.stringify(rule) !== JSON.stringify(eater.aim.rule)
      ? [{ name, rule: ruleDraft(rule) }]
      : [],
  );
  const { state, trouble } = useSyncExternalStore(desk.listen, () => desk.standing);
  const [archiving, setArchiving] = useState<Trouble | null>(null);
  const [isChecked, setIsChecked] = useState(desk.unstored !== null);
  const unread = isChecked ? requestOf(draft).unread : [];

  const newest = useRef(eater);

  useEffect(() => {
    const deafen = desk.listen(() => {
      const { saved, state } = desk.standing;
      if (!saved && state === "saved") setDraft(draftOf(newest.current));
    });
    void desk.flush();
    return () => {
      deafen();
      void desk.flush();
    };
  }, [desk]);

  // A change made elsewhere is taken over only while nothing here waits to be saved.
  useEffect(() => {
    newest.current = eater;
    if (!desk.unstored && eater.version > desk.version) desk.drop(eater.version);
  }, [desk, eater, state]);

  const save = (next: Draft, body: Body | null = null) => {
    setDraft(next);
    setIsChecked(true);
    // After another hand won, what is saved next is saved knowingly on the state shown.
    if (trouble?.status === 412 && trouble.current) desk.standOn((trouble.current as EaterView).version);
    desk.hold({ draft: next, body: body ?? desk.unstored?.body ?? null });
    void desk.flush();
  };
  const type = (next: Draft) => {
    setDraft(next);
    setIsChecked(false);
    desk.hold({ draft: next, body: desk.unstored?.body ?? null });
  };
  const at = (field: string) =>
    unread.includes(field) ? t("app:numberNeeded") : sentenceFor(trouble, field);
  const remove = async () => {
    try {
      await desk.flush();
      const { data } = await archiveEater({ path: { id: eater.id }, headers: seen(desk.version) });
      did(t("removed", { name: eater.name }), () =>
        restoreEater({ path: { id: eater.id }, headers: seen(data!.version) }),
      );
      await queries.invalidateQueries();
    } catch (thrown) {
      setArchiving(troubleOf(thrown, t("app:silent")));
    }
  };

  // What a bound that was left empty is taken as, once it is saved.
  const follows = (measure: Measure, bound: (typeof bandFields)[number]) => {
    const { written, aim } = eater;
    if (bound !== "tolerance") return numberText(aim.bands[measure]?.[bound]);
    const band = written[measure];
    const isUsual = band?.target != null && band.tolerance == null && (band.min == null || band.max == null);
    return isUsual ? t("usualTolerance") : undefined;
  };
  const takeEnergy = (target: string) =>
    save({
      ...draft,
      bounds: { ...draft.bounds, "energy.min": "", "energy.target": target, "energy.max": "" },
    });

  const floor = sentenceFor(trouble, "bands.energy");
  const refused = archiving ?? trouble;
  const general = refused && !refused.errors?.some(({ field }) => field) ? refused.detail : null;
  const stands =
    trouble?.status === 412 && trouble.current ? requestSummary(trouble.current as EaterView) : null;

  return (
    <section aria-label={eater.name} className="panel @container p-4">
      <div className="@3xl:grid @3xl:grid-cols-2 @3xl:gap-x-10">
        <div>
          <div className="mb-3 flex items-end gap-3">
            <label className="min-w-0 flex-1 text-sm text-soft">
              {t("name")}
              <input
                className="field mt-0.5 block h-11 w-full font-title text-lg font-bold"
                value={draft.name}
                maxLength={60}
                onChange={(event) => type({ ...draft, name: event.target.value })}
                onBlur={() => save(draft)}
              />
            </label>
            <label className="counted text-sm text-soft">
              {t("leading")}
              <select
                className="field mt-0.5 block h-11"
                value={draft.leading}
                onChange={(event) => save({ ...draft, leading: event.target.value as Measure })}
              >
                {bounded
                  .filter((measure) => measure !== "fibre" && (measure !== "points" || draft.rule))
                  .map((measure) => (
                    <option key={measure} value={measure}>
                      {t(`app:measures.${measure}`)}
                    </option>
                  ))}
              </select>
            </label>
          </div>
          <Sentence>{at("name")}</Sentence>
          <div className="counted">
            <Ruler
              day={blankDay(eater.aim)}
              aim={eater.aim}
              measure={eater.aim.leading}
              length={tapeLength(eater.aim, [], eater.aim.leading)}
              label={t("ruler", { name: eater.name })}
              height={38}
            />
          </div>
          <table className="counted mt-3 w-full text-sm">
            <thead>
              <tr className="text-left text-xs text-soft">
                <td />
                {bandFields.map((bound) => (
                  <th key={bound} scope="col" className="px-1 font-normal">
                    {bound === "tolerance" ? t("tolerance") : t(`bounds.${bound}`)}
                  </th>
                ))}
                <td />
              </tr>
            </thead>
            <tbody>
              {bounded
                .filter((measure) => measure !== "points" || draft.rule)
                .map((measure) => (
                  <tr key={measure}>
                    <th scope="row" className="pr-2 text-left font-bold">
                      {t(measure)}
                    </th>
                    {bandFields.map((bound) => {
                      const field = `${measure}.${bound}`;
                      const problem = at(`bands.${field}`);
                      return (
                        <td
                          key={bound}
                          className={`p-0.5 align-top ${bound === "tolerance" ? "w-11" : "w-15"}`}
                        >
                          <input
                            inputMode="decimal"
                            aria-label={`${t(measure)}, ${t(`bounds.${bound}`)}`}
                            aria-invalid={problem !== undefined}
                            className={`field w-full min-w-0 px-1 text-sm text-right placeholder:text-soft placeholder:italic ${problem ? "border-2 border-brick" : ""}`}
                            value={draft.bounds[field] ?? ""}
                            placeholder={follows(measure, bound)}
                            onChange={(event) =>
                              type({ ...draft, bounds: { ...draft.bounds, [field]: event.target.value } })
                            }
                            onBlur={() => save(draft)}
                          />
                        </td>
                      );
                    })}
                    <td className="pl-1 text-xs text-soft">{unitOf(measure)}</td>
                  </tr>
                ))}
            </tbody>
          </table>
          {bounded.flatMap((measure) =>
            bandFields.map((bound) => (
              <Sentence key={`${measure}.${bound}`}>{at(`bands.${measure}.${bound}`)}</Sentence>
            )),
          )}
          <div className="counted">
            <MacroSums
              macros={eater.macros}
              aimed={eater.written["energy"]?.target}
              onTake={(kcal) => takeEnergy(String(kcal))}
            />
          </div>
          <Sentence>{floor}</Sentence>
          {(floor || draft.clinicianSetIt) && (
            <label className="counted mt-2 flex items-center gap-2 text-sm">
              <input
                type="checkbox"
                className="size-5"
                checked={draft.clinicianSetIt}
                onChange={(event) => save({ ...draft, clinicianSetIt: event.target.checked })}
              />
              {t("clinician")}
            </label>
          )}
          {isBounded(draft, "protein") && (
            <label className="counted mt-2 flex items-center gap-2 text-sm">
              <input
                type="checkbox"
                className="size-5"
                checked={!draft.leavesOutIncompleteProtein}
                onChange={(event) => save({ ...draft, leavesOutIncompleteProtein: !event.target.checked })}
              />
              {t("incompleteProtein")}
            </label>
          )}
        </div>
        <div>
          {draft.rule ? (
            <div className="counted">
              <RuleSheet
                rule={draft.rule}
                example={eater.ruleExample}
                others={others}
                at={at}
                onType={(rule) => type({ ...draft, rule })}
                onSave={(rule) => save({ ...draft, rule })}
              />
            </div>
          ) : (
            <div className="counted">
              <p className="mt-3 flex flex-wrap items-center gap-2 text-sm">
                <span className="text-soft">{t("startRule")}</span>
                {start.rules.map((rule) => (
                  <button
                    key={rule.name}
                    className="btn"
                    onClick={() => save({ ...draft, rule: ruleDraft(rule) })}
                  >
                    {rule.name}
                  </button>
                ))}
              </p>
              <AsFor others={others} onTake={(rule) => save({ ...draft, rule })} />
            </div>
          )}
          <WaysSheet
            name={draft.name}
            ways={draft.ways}
            rows={otherRows(draft)}
            usual={eater.aim.bands}
            leading={draft.leading}
            startingSlots={start.slots}
            at={(prefix) => [
              ...(trouble?.errors ?? [])
                .filter(({ field }) => field.startsWith(prefix))
                .map(({ sentence }) => sentence),
              ...(unread.some((field) => field.startsWith(prefix)) ? [t("app:numberNeeded")] : []),
            ]}
            onType={(ways) => type({ ...draft, ways })}
            onSave={(ways) => save({ ...draft, ways })}
          />
          <Quiet eater={eater} />
          <button className="btn counted mt-3" onClick={() => setNeedOpen(true)}>
            {t("need.open")}
          </button>
        </div>
      </div>
      {needOpen && (
        <NeedDrawer
          name={draft.name}
          body={eater.body}
          activities={start.activities}
          open
          close={() => setNeedOpen(false)}
          onTake={(need, body) => {
            setNeedOpen(false);
            save(
              {
                ...draft,
                bounds: {
                  ...draft.bounds,
                  "energy.min": "",
                  "energy.max": "",
                  "energy.target": String(need.target),
                  "energy.tolerance": "75",
                  "protein.min": String(need.split.protein),
                  "protein.tolerance": "",
                },
              },
              body,
            );
            say(t("need.taken", { name: draft.name, target: need.target }));
          }}
        />
      )}
      <Sentence>{general}</Sentence>
      {stands && (
        <p className="mt-1 text-sm">
          {t("stale", { name: eater.name })} {stands}
        </p>
      )}
      <p className="mt-4 flex items-center justify-between text-xs text-soft">
        <span aria-live="polite">{t(state)}</span>
        <button className="min-h-6 underline wrap-anywhere" onClick={() => void remove()}>
          {t("remove", { name: eater.name })}
        </button>
      </p>
    </section>
  );
}

/** What protein, carbs and fat come to: one press makes it the energy; where the energy contradicts it, that is said. */
function MacroSums({
  macros,
  aimed,
  onTake,
}: {
  macros: EaterView["macros"];
  /** The energy that is aimed at now. */
  aimed: number | null | undefined;
  onTake: (kcal: number) => void;
}) {
  const { t } = useWords("aim");
  if (!macros) return null;
  const { from, to, kcal, isContradicted } = macros;
  const range = { from: wholeNumber(from), to: to === null ? "" : wholeNumber(to) };
  return (
    <>
      {isContradicted && <Sentence>{t(to === null ? "contradictionOpen" : "contradiction", range)}</Sentence>}
      {kcal !== null && kcal !== aimed && (
        <p className="mt-2 flex flex-wrap items-center gap-2 text-sm">
          <span className="text-soft">{t("macros", { kcal: wholeNumber(kcal) })}</span>
          <button className="btn" onClick={() => onTake(kcal)}>
            {t("takeMacros", { kcal: wholeNumber(kcal) })}
          </button>
        </p>
      )}
    </>
  );
}

const requestSummary = (eater: EaterView) =>
  Object.entries(eater.aim.bands)
    .map(
      ([measure, band]) =>
        `${measure} ${[band.min, band.target, band.max].map((bound) => bound ?? "–").join(" / ")}`,
    )
    .join(" · ");
