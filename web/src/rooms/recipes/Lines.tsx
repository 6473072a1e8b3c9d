import type { TFunction } from "i18next";
import { useEffect, useEffectEvent, useRef } from "react";
import { useWords } from "../../app/i18n";
import { useQuiet } from "../../app/quiet";
import type { CalcRecipeAnswer, LineStanding, LineView, Measure, RecipeLineView } from "../../api";
import { Amount } from "../../ui/Figures";
import { grams, wholeNumber } from "../../ui/format";
import { LineChoice } from "../../ui/LineChoice";
import { LineProblem } from "../../ui/LineProblem";
import { newLine, type Line } from "./sheet";

// Typed, read as, share, the lens, the second measure; on a phone only what was typed and the lens.
const columns =
  "grid gap-x-3 grid-cols-[minmax(14rem,2fr)_minmax(7rem,1.2fr)_4.5rem_4.5rem_4rem_4rem] max-md:grid-cols-[1fr_5rem]";

const uses = ["main", "sauce", "topping", "side", "takenOut"] as const;

interface LinesProps {
  lines: Line[];
  calc: CalcRecipeAnswer | undefined;
  lens: Measure;
  /** @param field which line is typed into, or what else was done. */
  onChange: (lines: Line[], field: string) => void;
  onWeighed: () => void;
  /** Whether to begin at the first line that is open. */
  startsOpen: boolean;
}

const isRead = (line: LineView) => line.food !== null || line.several.length > 0;

const foodOf = (line: LineView) => line.food?.name ?? line.several.map(({ food }) => food.name).join(" + ");

function weightOf(t: TFunction, line: LineView) {
  const weight = grams(Math.round((line.grams ?? 0) * 10) / 10);
  if (line.trace) return line.grams ? t("atLeast", { grams: weight }) : t("trace");
  if (line.several.length > 0 && line.several.every(({ trace }) => trace)) return t("trace");
  return `${line.about ? `${t("about")} ` : ""}${weight} g`;
}

/** The lines of a recipe as typed, each read back beside it with what it brings to the batch. */
export function Lines({ lines, calc, lens, onChange, onWeighed, startsOpen }: LinesProps) {
  const { t } = useWords("recipes");
  const inputs = useRef(new Map<number, HTMLTextAreaElement>());
  const focusNext = useRef<number | null>(null);
  const lastFocus = useRef<HTMLTextAreaElement | null>(null);
  useEffect(() => {
    if (focusNext.current === null) return;
    inputs.current.get(focusNext.current)?.focus();
    focusNext.current = null;
  });
  const quiet = useQuiet();
  const second: Measure = lens === "protein" ? "energy" : "protein";
  // The answer lists the written lines in order; a line still being computed shows its last reading.
  const readings = new Map<number, RecipeLineView>();
  let read = 0;
  for (const line of lines) {
    if (line.text.trim() === "") continue;
    const reading = calc?.lines[read++];
    if (reading?.line.text === line.text) readings.set(line.key, reading);
  }

  // The next line of that standing, from one on and round again; none where there is no other.
  const nextOf = (standing: LineStanding, from: number) => {
    const isSuch = (line: Line) => readings.get(line.key)?.line.standing === standing;
    const round = [...lines.slice(from + 1), ...lines.slice(0, Math.max(from, 0))];
    return round.find(isSuch) ?? null;
  };
  const focus = (line: Line | null) => {
    const input = line && inputs.current.get(line.key);
    input?.focus();
    input?.scrollIntoView({ block: "center" });
  };
  // What was settled leads on to what is not.
  const goOn = (from: number, standing: LineStanding) => {
    const next = nextOf(standing, from);
    if (next) focusNext.current = next.key;
  };
  const goToNext = (standing: LineStanding) => {
    const at = lines.findIndex(({ key }) => inputs.current.get(key) === lastFocus.current);
    focus(nextOf(standing, at) ?? (at >= 0 ? lines[at]! : null));
  };

  // A recipe just read in begins at its first open line.
  const isShown = calc !== undefined && readings.size > 0;
  const start = useEffectEvent(() => {
    const open = nextOf("open", -1) ?? nextOf("byDefault", -1);
    if (open) focus(open);
  });
  useEffect(() => {
    if (startsOpen && isShown) start();
  }, [startsOpen, isShown]);

  const type = (index: number, text: string) => {
    const next = lines.map((line, i) => (i === index ? { ...line, text, foodId: null } : line));
    if (next.at(-1)!.text.trim() !== "") next.push(newLine());
    onChange(next, `line-${lines[index]!.key}`);
  };
  const paste = (index: number, text: string) => {
    const rows = text
      .split(/\r?\n/)
      .map((row) => row.trim().replace(/^[-*•]\s+/, ""))
      .filter(Boolean);
    const next = [
      ...lines.slice(0, index),
      ...rows.map((row) => newLine(row.slice(0, 300))),
      ...lines.slice(lines[index]!.text.trim() === "" ? index + 1 : index),
    ];
    if (next.at(-1)!.text.trim() !== "") next.push(newLine());
    onChange(next, "paste");
  };
  const onKey = (event: React.KeyboardEvent<HTMLTextAreaElement>, index: number) => {
    const line = lines[index]!;
    if (event.key === "Enter") {
      event.preventDefault();
      const fresh = lines[index + 1]?.text.trim() === "" ? lines[index + 1]! : newLine();
      focusNext.current = fresh.key;
      if (fresh === lines[index + 1]) inputs.current.get(fresh.key)?.focus();
      else onChange([...lines.slice(0, index + 1), fresh, ...lines.slice(index + 1)], "insert");
    } else if (
      event.key === "Backspace" &&
      line.text === "" &&
      lines.length > 1 &&
      index < lines.length - 1
    ) {
      event.preventDefault();
      focusNext.current = lines[index - 1]?.key ?? lines[index + 1]!.key;
      onChange(
        lines.filter((_, i) => i !== index),
        "delete",
      );
    } else if (event.key === "ArrowUp" || event.key === "ArrowDown") {
      const to = lines[index + (event.key === "ArrowUp" ? -1 : 1)];
      if (!to) return;
      event.preventDefault();
      inputs.current.get(to.key)?.focus();
    }
  };

  return (
    <>
      {calc && <Standings calc={calc} onNext={goToNext} />}
      <p aria-hidden className={`${columns} pb-1 text-xs text-soft max-md:hidden`}>
        <span />
        <span className="text-right">{t("readAs")}</span>
        <span>
          <span className="counted">{t("shareOf")}</span>
        </span>
        <span className="text-right">
          <span className="counted">{t(`app:measures.${lens}`)}</span>
        </span>
        <span className="text-right">
          <span className="counted">{t(`app:measures.${second}`)}</span>
        </span>
        <span>{t("use")}</span>
      </p>
      <ol className="border-t border-line">
        {lines.map((line, index) => {
          const reading = readings.get(line.key);
          const share = reading?.shares[lens];
          const seen = reading?.line;
          return (
            <li key={line.key} className="border-b border-line">
              <div className={`${columns} items-center`}>
                <textarea
                  rows={1}
                  ref={(element) => {
                    if (element) inputs.current.set(line.key, element);
                    else inputs.current.delete(line.key);
                  }}
                  aria-label={t("line", { number: index + 1 })}
                  title={line.origin === "own" ? undefined : t(`origin.${line.origin}`)}
                  placeholder={
                    lines.length === 1 ? t("hint") : index === lines.length - 1 ? t("addLine") : ""
                  }
                  className={`field-sizing-content min-h-9 min-w-0 resize-none bg-transparent px-1 py-1.5 text-base leading-6 max-md:min-h-11 max-md:py-2.5 ${line.origin === "base" ? "text-soft" : ""}`}
                  value={line.text}
                  maxLength={300}
                  onChange={(event) => type(index, event.target.value)}
                  onFocus={(event) => {
                    lastFocus.current = event.target;
                  }}
                  onKeyDown={(event) => onKey(event, index)}
                  onPaste={(event) => {
                    const text = event.clipboardData.getData("text");
                    if (!/\n/.test(text.trim())) return;
                    event.preventDefault();
                    paste(index, text);
                  }}
                />
                <span className="min-w-0 text-right text-sm leading-tight text-soft max-md:hidden">
                  {seen && isRead(seen) && (
                    <>
                      {weightOf(t, seen)}
                      <span className="line-clamp-2 text-xs" title={foodOf(seen)}>
                        {foodOf(seen)}
                      </span>
                    </>
                  )}
                </span>
                <span className="flex items-center gap-2 max-md:hidden">
                  {share !== undefined && !quiet && (
                    <>
                      <span
                        className="h-2.5 rounded-sm bg-sea"
                        style={{ width: `${Math.max(Math.abs(share) * 40, 0.5)}%` }}
                      />
                      <span className="text-xs whitespace-nowrap text-soft">
                        {wholeNumber(share * 100)} %
                      </span>
                    </>
                  )}
                </span>
                <span className="text-right font-semibold">
                  {seen && isRead(seen) && <Amount measure={lens} figure={seen.figures[lens]} isColumn />}
                </span>
                <span className="text-right text-sm max-md:hidden">
                  {seen && isRead(seen) && <Amount measure={second} figure={seen.figures[second]} isColumn />}
                </span>
                {line.text.trim() === "" ? (
                  <span className="max-md:hidden" />
                ) : (
                  <select
                    aria-label={t("useOf", { number: index + 1 })}
                    className="min-h-8 min-w-0 rounded border border-transparent bg-transparent text-xs text-soft hover:border-line max-md:hidden"
                    value={line.isTakenOut || (seen?.grams ?? 0) < 0 ? "takenOut" : line.part}
                    onChange={(event) => {
                      const use = event.target.value as (typeof uses)[number];
                      onChange(
                        lines.map((other, i) =>
                          i === index
                            ? {
                                ...other,
                                isTakenOut: use === "takenOut",
                                part: use === "takenOut" ? "main" : use,
                              }
                            : other,
                        ),
                        "use",
                      );
                    }}
                  >
                    {uses.map((use) => (
                      <option key={use} value={use}>
                        {t(`uses.${use}`)}
                      </option>
                    ))}
                  </select>
                )}
              </div>
              {seen && line.foodId === null && seen.standing === "byDefault" && (
                <div className="pb-2 pl-1">
                  <LineChoice
                    line={seen}
                    onChoose={(foodId) => {
                      onChange(
                        lines.map((other, i) => (i === index ? { ...other, foodId } : other)),
                        "choose",
                      );
                      goOn(index, "byDefault");
                    }}
                    onKnown={onWeighed}
                  />
                </div>
              )}
              {seen?.problem && (
                <div className="pb-2 pl-1">
                  <LineProblem
                    line={seen}
                    onChoose={(foodId) => {
                      onChange(
                        lines.map((other, i) => (i === index ? { ...other, foodId } : other)),
                        "choose",
                      );
                      goOn(index, "open");
                    }}
                    onWeighed={() => {
                      onWeighed();
                      goOn(index, "open");
                    }}
                    onRewrite={(texts) => {
                      onChange(
                        lines.flatMap((other, i) =>
                          i === index
                            ? texts.map((text, n) =>
                                n === 0 ? { ...other, text, foodId: null } : newLine(text, other.part),
                              )
                            : [other],
                        ),
                        "rewrite",
                      );
                    }}
                  />
                </div>
              )}
            </li>
          );
        })}
      </ol>
    </>
  );
}

/** How many lines are sure, taken by what is usual, and open; and the way to the next that wants a word. */
function Standings({ calc, onNext }: { calc: CalcRecipeAnswer; onNext: (standing: LineStanding) => void }) {
  const { t } = useWords("recipes");
  const { sure, byDefault, open } = calc.standings;
  if (byDefault + open === 0) return null;
  return (
    <p
      role="group"
      aria-label={t("standing.label")}
      className="mb-2 flex flex-wrap items-center gap-x-3 gap-y-1 text-sm"
    >
      <span className="text-soft">{t("standing.sure", { count: sure })}</span>
      {byDefault > 0 && (
        <>
          <span>{t("standing.byDefault", { count: byDefault })}</span>
          {open === 0 && (
            <button type="button" className="btn" onClick={() => onNext("byDefault")}>
              {t("standing.nextDefault")}
            </button>
          )}
        </>
      )}
      {open > 0 && (
        <>
          <span className="font-bold text-brick">{t("standing.open", { count: open })}</span>
          <button type="button" className="btn" onClick={() => onNext("open")}>
            {t("standing.nextOpen")}
          </button>
        </>
      )}
    </p>
  );
}
