import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import {
  addRecipeNote,
  getRunDifferences,
  removeRecipeNote,
  troubleOf,
  type DishDifference,
  type RunView,
} from "../../../api";
import { freshen } from "../../../app/freshen";
import { useHistory } from "../../../app/history";
import { useWords } from "../../../app/i18n";
import { useSay } from "../../../app/notices";
import { queryKeys } from "../../../app/queryKeys";
import { grams } from "../../../ui/format";
import { Failed, Loading } from "../../../ui/states";
import { Mark } from "../../../ui/Tape";
import { lengthOf, timeAt } from "../clock";
import type { Acts } from "./RunPage";

/** A run that is over: how long it took, and what differed, to be written on the recipes. */
export function RunEnd({ run, acts }: { run: RunView; acts: Acts }) {
  const { t } = useWords("cook");
  const { data, error, refetch } = useQuery({
    queryKey: queryKeys.runDifferences(run.day),
    queryFn: async () => (await getRunDifferences({ path: { day: run.day } })).data!,
  });
  const apart = run.minute - run.plannedEnd;
  const left = run.tasks.filter(({ state }) => state === "waiting" || state === "goingOn").length;
  return (
    <section className="max-w-3xl space-y-4">
      <p>
        <span className="font-title text-xl font-bold">
          {t("run.was", { from: timeAt(run.laid.begins, 0), to: timeAt(run.laid.begins, run.minute) })}
        </span>{" "}
        <span className="text-soft">
          {lengthOf(t, run.minute)},{" "}
          {left > 0
            ? t("run.leftOver", { count: left })
            : apart === 0
              ? t("run.onTime")
              : t(apart < 0 ? "run.sooner" : "run.later", { time: lengthOf(t, Math.abs(apart)) })}
        </span>
      </p>
      <p className="text-sm text-soft">{t("run.learned")}</p>
      <h2 className="text-base">{t("run.differed")}</h2>
      {!data ? (
        error ? (
          <Failed error={error} retry={() => void refetch()} />
        ) : (
          <Loading />
        )
      ) : data.length === 0 ? (
        <p className="text-soft">{t("run.asPlanned")}</p>
      ) : (
        <ul className="divide-y divide-line border-y border-line">
          {data.map((one) => (
            <Difference key={one.batch.id} day={run.day} one={one} />
          ))}
        </ul>
      )}
      <div className="flex flex-wrap gap-2">
        <Link className="btn-next" to="/pack">
          {t("run.toPack")}
        </Link>
        <button className="btn" disabled={acts.busy} onClick={() => void acts.end(false)}>
          {t("run.resume")}
        </button>
      </div>
    </section>
  );
}

/** What differed with a dish, as a note for its recipe that can be changed before it is written down. */
function Difference({ day, one }: { day: string; one: DishDifference }) {
  const { t } = useWords("cook");
  const say = useSay();
  const { did } = useHistory();
  const queries = useQueryClient();
  const said = [
    ...one.lines.map(({ text, reallyText, plannedGrams, name, plannedName }) =>
      reallyText === ""
        ? t("run.note.leftOut", { line: text })
        : text === ""
          ? t("run.note.added", { line: reallyText })
          : t("run.note.instead", {
              line: reallyText,
              planned: t("sheet.amount", {
                grams: grams(Math.round(plannedGrams)),
                food: plannedName === name ? "" : plannedName,
              }).trim(),
            }),
    ),
    ...one.times.map(({ verb, planned, real }) =>
      t("run.note.time", { verb: t(`verb.${verb}`), real: lengthOf(t, real), planned: lengthOf(t, planned) }),
    ),
  ].join("\n");
  const [text, setText] = useState<string | null>(null);
  const [isKept, setIsKept] = useState(false);
  const { recipeId, name, letters, tint } = one.batch;
  const keep = async () => {
    try {
      const note = (await addRecipeNote({ path: { id: recipeId }, body: { text: text ?? said, day } })).data!;
      setIsKept(true);
      await freshen(queries, "recipe");
      did(t("run.note.kept", { dish: name }), async () => {
        await removeRecipeNote({ path: { id: recipeId, noteId: note.id } });
        setIsKept(false);
        await freshen(queries, "recipe");
      });
    } catch (thrown) {
      say(troubleOf(thrown, t("app:silent")).detail ?? "", { trouble: true });
    }
  };
  return (
    <li className="grid grid-cols-[2.5rem_1fr] gap-x-3 py-3">
      <Mark letters={letters} tint={tint} className="h-7 w-10 rounded-sm text-sm" />
      <div className="space-y-2">
        <p className="font-semibold">{name}</p>
        <textarea
          aria-label={t("run.note.of", { dish: name })}
          className="field w-full text-sm"
          rows={Math.min(8, (text ?? said).split("\n").length + 1)}
          maxLength={1000}
          value={text ?? said}
          onChange={(event) => setText(event.target.value)}
        />
        <button className="btn" disabled={isKept || (text ?? said).trim() === ""} onClick={() => void keep()}>
          {t(isKept ? "run.note.isKept" : "run.note.keep")}
        </button>
      </div>
    </li>
  );
}
