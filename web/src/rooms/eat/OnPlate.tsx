import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import {
  askScale,
  calcEntries,
  layEntries,
  troubleOf,
  type EatView,
  type Measure,
  type ScaleWish,
} from "../../api";
import { useHistory } from "../../app/history";
import { useWords } from "../../app/i18n";
import { useSay } from "../../app/notices";
import { queryKeys } from "../../app/queryKeys";
import { seenDays } from "../../app/seen";
import { PlayDrawer } from "../../devices/PlayDrawer";
import { useDevices, useLive } from "../../devices/useDevices";
import { Drawer } from "../../ui/Drawer";
import { Amount } from "../../ui/Figures";
import { grams, wholeNumber } from "../../ui/format";
import { LineProblem } from "../../ui/LineProblem";
import { weightIn } from "../../ui/numbers";
import { Sentence } from "../../ui/states";
import { useSettled } from "../../ui/useSettled";
import { WeighedAs } from "../plan/WeighedAs";

/**
 * Weighed onto the plate: what the scale shows more than nothing; or out of its jar: what it shows less than nothing. After each thing the scale is set to zero for
 * the next. Without a scale the weight is typed.
 */
export function OnPlate({ view, lens, close }: { view: EatView; lens: Measure; close: () => void }) {
  const { t } = useWords("eat");
  const say = useSay();
  const { change } = useHistory();
  const devices = useDevices().data;
  const { scale, probe } = useLive(devices?.hasScale ?? false);
  const [food, setFood] = useState("");
  const [choice, setChoice] = useState("");
  const [typedWeight, setTypedWeight] = useState("");
  const [isPlaying, setIsPlaying] = useState(false);
  const [taken, setTaken] = useState<string[]>([]);
  const where = { eaterId: view.eaterId, day: view.day.day };
  const typed = weightIn(typedWeight);
  const shown = typed ?? scale?.grams ?? null;
  const isStill = typed !== null || scale?.state === "stable";
  const weight = shown === null || Number.isNaN(shown) ? 0 : Math.round(Math.abs(shown) * 10) / 10;
  const text = food.trim() && weight > 0 ? `${weight} g ${food.trim()}` : "";
  const settled = useSettled(text, 200);
  const { data, refetch } = useQuery({
    queryKey: queryKeys.line("plate", settled, choice, where.eaterId, where.day),
    queryFn: async () =>
      (await calcEntries({ body: { ...where, text: settled, choices: [choice], eaten: true } })).data!,
    enabled: settled !== "",
    placeholderData: keepPreviousData,
  });
  const entry = settled === "" ? undefined : data?.entries[0];
  const ask = (wish: ScaleWish) =>
    void askScale({ body: { wish } }).catch((thrown: unknown) =>
      say(troubleOf(thrown, t("app:silent")).detail ?? "", { trouble: true }),
    );
  const take = async () => {
    const done = await change(
      () =>
        layEntries({ headers: seenDays(where), body: { ...where, text, choices: [choice], eaten: true } }),
      t("added", { name: text }),
    );
    if (!done) return;
    setTaken([...taken, text]);
    setFood("");
    setChoice("");
    setTypedWeight("");
    if (typed === null) ask("tare");
  };
  return (
    <Drawer open grows close={close} title={t("plate.title")}>
      <form
        className="space-y-4"
        onSubmit={(event) => {
          event.preventDefault();
          if (text && isStill && entry && !entry.problem) void take();
        }}
      >
        <label className="block text-sm">
          <span className="block text-soft">{t("plate.food")}</span>
          <input
            autoFocus
            className="field h-12 w-full"
            placeholder={t("plate.hint")}
            maxLength={200}
            value={food}
            onChange={(event) => {
              setFood(event.target.value);
              setChoice("");
            }}
          />
        </label>
        <p className="font-title leading-none font-bold">
          <span className="text-[5rem]" data-net>
            {shown === null || Number.isNaN(shown) ? "–" : wholeNumber(weight)}
          </span>{" "}
          <span className="text-lg font-normal text-soft">g</span>
        </p>
        <p className="min-h-6" aria-live="polite">
          {shown === null || Number.isNaN(shown)
            ? devices?.hasScale
              ? t("plate.silent")
              : t("plate.noScale")
            : shown < 0
              ? t("plate.outOfJar", { grams: grams(weight) })
              : t("plate.onPlate", { grams: grams(weight) })}
        </p>
        <div className="min-h-10 text-sm" aria-live="polite">
          {entry && !entry.problem && (
            <p>
              <b>{entry.name}</b> <span className="counted">·</span>{" "}
              <Amount measure={lens} figure={entry.figures[lens]} className="font-bold" />
            </p>
          )}
          {entry && (
            <WeighedAs
              entry={entry}
              onChoose={(foodId) => {
                setChoice(foodId);
                void refetch();
              }}
            />
          )}
          {entry?.line?.problem && (
            <LineProblem line={entry.line} onChoose={setChoice} onWeighed={() => void refetch()} />
          )}
          {entry?.problem && !entry.line?.problem && entry.forms.length === 0 && (
            <Sentence>{entry.problem.sentence}</Sentence>
          )}
        </div>
        <div className="flex flex-wrap items-end gap-2">
          <button
            className="btn-next min-h-12"
            disabled={!text || !isStill || settled !== text || !entry || entry.problem !== null}
          >
            {t("plate.take")}
          </button>
          {devices?.hasScale && (
            <button
              type="button"
              className="btn min-h-12"
              disabled={scale === null}
              onClick={() => ask(scale?.state === "off" ? "on" : "tare")}
            >
              {t(scale?.state === "off" ? "devices:on" : "devices:tare")}
            </button>
          )}
          <label className="text-xs text-soft">
            <span className="block">{t("plate.type")}</span>
            <input
              inputMode="decimal"
              className="field min-h-12 w-24 text-right text-lg font-bold text-ink"
              value={typedWeight}
              maxLength={12}
              aria-invalid={Number.isNaN(typed)}
              onChange={(event) => setTypedWeight(event.target.value)}
            />
          </label>
          {devices?.isSimulated && (
            <button type="button" className="link min-h-12 px-2 text-sm" onClick={() => setIsPlaying(true)}>
              {t("devices:play")}
            </button>
          )}
        </div>
        {taken.length > 0 && (
          <ul aria-label={t("plate.taken")} className="text-sm text-soft">
            {taken.map((one, i) => (
              <li key={i}>{one}</li>
            ))}
          </ul>
        )}
      </form>
      {isPlaying && <PlayDrawer scale={scale} probe={probe} ask={ask} close={() => setIsPlaying(false)} />}
    </Drawer>
  );
}
