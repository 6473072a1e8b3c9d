import { useQuiet } from "../../app/quiet";
import type { TFunction } from "i18next";
import { keepPreviousData, useQuery, useQueryClient } from "@tanstack/react-query";
import { lazy, Suspense, useEffect, useId, useRef, useState, type ReactNode } from "react";
import { Link } from "react-router";
import { useWords } from "../../app/i18n";
import { calcEntries, layEntries, type EntryView, type Measure } from "../../api";
import { useHistory } from "../../app/history";
import { all, queryKeys } from "../../app/queryKeys";
import { seenDays } from "../../app/seen";
import { Drawer } from "../../ui/Drawer";
import { Amount } from "../../ui/Figures";
import { grams, longDay } from "../../ui/format";
import { LineChoice } from "../../ui/LineChoice";
import { LineProblem } from "../../ui/LineProblem";
import { Loading, Sentence } from "../../ui/states";
import { Tape } from "../../ui/Tape";
import { useSettled } from "../../ui/useSettled";
import { WeighedAs } from "./WeighedAs";

// Only who writes a label down needs it.
const LabelForm = lazy(async () => ({ default: (await import("../foods/LabelForm")).LabelForm }));

interface DayEntryProps {
  eaterId: string;
  day: string;
  /** The part of the day it is for. */
  slot?: string | null;
  /** Whether what is entered has been eaten already. */
  eaten?: boolean;
  label: string;
  hint: string;
  action: string;
  lens: Measure;
  /** What is said when it is done. */
  done?: (what: string) => string;
  /** What stands in the field at first, its amount to be typed over, and the food that is meant by it. */
  start?: { text: string; foodId: string };
  /** What stands above the field, for what is typed so far; and what empties it. */
  above?: (typed: string, clear: () => void) => ReactNode;
}

/** What is typed for a day: foods, own dishes by name, meals with their figures, one or several; read back as it is typed. */
export function DayEntry({
  eaterId,
  day,
  slot = null,
  eaten = false,
  label,
  hint,
  action,
  lens,
  done,
  start,
  above,
}: DayEntryProps) {
  const { t } = useWords("plan");
  const id = useId();
  const queries = useQueryClient();
  const { change } = useHistory();
  const field = useRef<HTMLTextAreaElement>(null);
  const [text, setText] = useState(start?.text ?? "");
  const [choices, setChoices] = useState<string[]>(start ? [start.foodId] : []);
  const [asked, setAsked] = useState(false);
  // The food whose label is being written down, and which of the things typed it is.
  const [writing, setWriting] = useState<{ at: number; food: string } | null>(null);
  const settled = useSettled(text.trim(), 120);
  const slow = useSettled(text.trim(), 900);
  const reading = (typed: string) => ({
    queryKey: queryKeys.line("entries", typed, choices, eaterId, day, eaten),
    queryFn: async () => (await calcEntries({ body: { text: typed, eaterId, day, choices, eaten } })).data!,
    staleTime: 5_000,
  });
  const { data } = useQuery({
    ...reading(settled),
    enabled: settled !== "",
    placeholderData: keepPreviousData,
  });
  const hasStart = start !== undefined;
  useEffect(() => {
    if (!hasStart || !field.current) return;
    field.current.focus();
    field.current.setSelectionRange(0, field.current.value.search(/[^\d.,]/));
  }, [hasStart]);
  const typed = text.trim();
  const read = typed === "" ? undefined : data;
  // What is not known says so once the hand rests.
  const isAnswering = asked || slow === typed;

  const choose = (at: number, choice: string) => {
    setChoices((now) =>
      Array.from({ length: Math.max(now.length, at + 1) }, (_, i) => (i === at ? choice : (now[i] ?? ""))),
    );
    // A drawer that closes gives the focus back first.
    window.setTimeout(() => field.current?.focus(), 80);
  };

  // Asked for before it was read, it is read first.
  const add = async () => {
    setAsked(true);
    field.current?.focus();
    const now = await queries.fetchQuery(reading(typed)).catch(() => null);
    if (!now || now.entries.some(({ problem }) => problem)) return;
    const made = await change(
      () =>
        layEntries({
          headers: seenDays({ eaterId, day }),
          body: {
            text: typed,
            eaterId,
            day,
            choices: now.entries.map(({ line }, i) => choices[i] || line?.food?.id || ""),
            eaten,
            slot,
          },
        }),
      done ? done(typed) : t("carry.laid", { name: typed, day: longDay(day) }),
    );
    if (!made) return;
    setText((still) => (still.trim() === typed ? "" : still));
    setChoices([]);
    setAsked(false);
    await queries.invalidateQueries(all("line"));
  };

  return (
    <>
      {above?.(text, () => setText(""))}
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void add();
        }}
      >
        <div className="flex gap-2">
          <textarea
            ref={field}
            className="field max-h-40 w-full min-w-0 resize-none [field-sizing:content]"
            rows={Math.min(6, text.split("\n").length)}
            enterKeyHint="done"
            aria-label={label}
            aria-describedby={id}
            placeholder={hint}
            maxLength={4000}
            value={text}
            onChange={(event) => {
              setText(event.target.value);
              setChoices([]);
              setAsked(false);
            }}
            onKeyDown={(event) => {
              if (event.key !== "Enter" || event.shiftKey || event.nativeEvent.isComposing) return;
              event.preventDefault();
              void add();
            }}
          />
          <button
            className="btn shrink-0"
            disabled={typed === ""}
            onPointerDown={(event) => event.preventDefault()}
          >
            {action}
          </button>
        </div>
        <div id={id} aria-live="polite" className="mt-1 min-h-6 space-y-1 text-sm text-soft">
          {read?.entries.map((entry, i) => (
            <Entry
              key={i}
              entry={entry}
              day={day}
              lens={lens}
              isAnswering={isAnswering}
              onChoose={(choice) => choose(i, choice)}
              onKnown={() => void queries.invalidateQueries(all("line"))}
              onWrite={(food) => setWriting({ at: i, food })}
              onRewrite={(lines) => setText(text.replace(entry.text, lines.join("; ")))}
            />
          ))}
          {read && read.entries.length > 1 && (
            <p className="counted">
              {t("entry.together")}{" "}
              <Amount measure={lens} figure={read.figures[lens]} className="font-bold text-ink" />
            </p>
          )}
        </div>
      </form>
      {/* Beside the form: a label that is saved sends nothing else. */}
      <Drawer
        open={writing !== null}
        close={() => setWriting(null)}
        title={t("entry.writeTitle", { food: writing?.food ?? "" })}
      >
        <Suspense fallback={<Loading />}>
          <LabelForm
            start={{
              name: writing?.food ?? "",
              group: "seasonings",
              label: { basis: "per100g", convention: "withoutFibre", servingGrams: null },
            }}
            onSaved={(food) => {
              setWriting(null);
              void queries.invalidateQueries(all("line"));
              if (writing) choose(writing.at, food.id);
            }}
          />
        </Suspense>
      </Drawer>
    </>
  );
}

/** One thing as it was understood; or what is not known of it, with every way on. */
function Entry({
  entry,
  day,
  lens,
  isAnswering,
  onChoose,
  onKnown,
  onRewrite,
  onWrite,
}: {
  entry: EntryView;
  day: string;
  lens: Measure;
  isAnswering: boolean;
  onChoose: (choice: string) => void;
  onKnown: () => void;
  onRewrite: (lines: string[]) => void;
  onWrite: (food: string) => void;
}) {
  const { t } = useWords("plan");
  const quiet = useQuiet();
  const { line, problem, offers } = entry;
  if (entry.isWater) return <p>{t("entry.water")}</p>;
  if (problem?.code === "raw-or-cooked") return <WeighedAs entry={entry} onChoose={onChoose} />;
  if (entry.name && !problem)
    return (
      <>
        <p>
          {entryWords(t, entry, quiet)} <span className="counted">·</span>{" "}
          <Amount measure={lens} figure={entry.figures[lens]} className="font-bold text-ink" />
        </p>
        {line && isAnswering && <LineChoice line={line} onChoose={onChoose} onKnown={onKnown} />}
        {isAnswering && <WeighedAs entry={entry} onChoose={onChoose} />}
      </>
    );
  const dishes = offers.length > 0 && (
    <p className="flex flex-wrap gap-2" aria-label={t("entry.dishes")}>
      {offers.map((offer) => (
        <button key={offer.choice} type="button" className="min-h-11" onClick={() => onChoose(offer.choice)}>
          <Tape
            letters={offer.letters}
            tint={offer.tint}
            className={`text-sm ${offer.isAhead ? "ahead" : ""}`}
          >
            {offer.name} · {grams(Math.round(offer.grams))} g
          </Tape>
        </button>
      ))}
    </p>
  );
  if (!isAnswering && !line?.candidates.length && !line?.missingMeasure) return dishes || null;
  const foodText = line?.parts.foodText || entry.text;
  return (
    <div className="space-y-1">
      {!line?.problem && <Sentence>{problem?.sentence}</Sentence>}
      {dishes}
      {entry.recipeId && (
        <p className="flex gap-3">
          <Link className="link" to={`/plan?week=${day}&panel=menu&recipe=${entry.recipeId}`}>
            {t("entry.planIt")}
          </Link>
        </p>
      )}
      {line?.problem && (
        <LineProblem line={line} onChoose={onChoose} onWeighed={onKnown} onRewrite={onRewrite} />
      )}
      {line?.problem?.code === "food-unknown" && (
        <p>
          <button type="button" className="link" onClick={() => onWrite(foodText)}>
            {t("entry.write", { food: foodText })}
          </button>{" "}
          <span className="counted text-xs">{t("entry.guess", { text: entry.text })}</span>
        </p>
      )}
      {line?.problem && (
        <p>
          <button type="button" className="link" onClick={() => onChoose(nameOnly)}>
            {t("entry.nameOnly")}
          </button>
        </p>
      )}
    </div>
  );
}

/** What is chosen to note a thing by its name alone, its figures not known. */
const nameOnly = "name";

const entryWords = (t: TFunction, entry: EntryView, quiet: boolean) => {
  const about = entry.line?.about && !entry.line.trace ? `${t("app:about")} ` : "";
  if (entry.boxes > 1)
    return t("plan:entry.boxes", {
      count: entry.boxes,
      name: entry.name,
      grams: grams(Math.round(entry.grams ?? 0)),
    });
  if (entry.grams === null)
    return entry.giveOrTake && !quiet
      ? t("plan:entry.guessed", { name: entry.name, kcal: entry.giveOrTake })
      : entry.name;
  return `${about}${grams(Math.round(entry.grams * 10) / 10)} g ${entry.name}`;
};
