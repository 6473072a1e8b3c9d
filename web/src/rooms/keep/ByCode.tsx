import { Camera } from "lucide-react";
import { useRef, useState } from "react";
import { Link } from "react-router";
import { readCode, troubleOf, type BoxPageView } from "../../api";
import { useWords } from "../../app/i18n";
import { Sentence } from "../../ui/states";
import { codeIn } from "./picture";
import type { Kept } from "./useKeepActs";

/** A box by its label: its number typed, or read from a picture of it. One after the other they are chosen together. */
export function ByCode({
  boxes,
  choose,
}: {
  boxes: Map<string, Kept>;
  choose: (ids: string[], isChosen: boolean) => void;
}) {
  const { t } = useWords("keep");
  const [typed, setTyped] = useState("");
  const [said, setSaid] = useState<{ box?: BoxPageView; trouble?: string }>({});
  const [isReading, setIsReading] = useState(false);
  const field = useRef<HTMLInputElement>(null);

  const find = async (text: string) => {
    try {
      const { data } = await readCode({ body: { text } });
      setSaid({ box: data! });
      setTyped("");
      if (boxes.has(data!.id)) choose([data!.id], true);
    } catch (thrown) {
      setSaid({ trouble: troubleOf(thrown, t("app:silent")).detail ?? "" });
      field.current?.select();
    }
  };
  const look = async (picture: File | undefined) => {
    if (!picture) return;
    setIsReading(true);
    setSaid({});
    try {
      const text = await codeIn(picture);
      if (text === null) setSaid({ trouble: t("code.noCode") });
      else await find(text);
    } catch {
      setSaid({ trouble: t("code.noPicture") });
    } finally {
      setIsReading(false);
    }
  };
  const { box, trouble } = said;
  return (
    <form
      className="text-sm"
      onSubmit={(event) => {
        event.preventDefault();
        if (typed.trim()) void find(typed);
      }}
    >
      <div className="flex flex-wrap items-center gap-2">
        <label className="flex items-center gap-2">
          <span className="text-soft">{t("code.label")}</span>
          <input
            ref={field}
            className="field w-32"
            inputMode="numeric"
            placeholder={t("code.hint")}
            autoComplete="off"
            value={typed}
            aria-invalid={trouble !== undefined}
            onChange={(event) => setTyped(event.target.value)}
          />
        </label>
        <button className="btn">{t("code.find")}</button>
        <label className="btn cursor-pointer focus-within:outline-3 focus-within:outline-sea">
          <Camera size={16} aria-hidden /> {t(isReading ? "code.reading" : "code.picture")}
          <input
            type="file"
            accept="image/*"
            capture="environment"
            className="sr-only"
            onChange={(event) => {
              void look(event.target.files?.[0]);
              event.target.value = "";
            }}
          />
        </label>
      </div>
      <div className="mt-1 min-h-6" aria-live="polite">
        {trouble && <Sentence>{trouble}</Sentence>}
        {box && (
          <p>
            {boxes.has(box.id)
              ? t("code.found", { name: box.name, number: box.number })
              : t("code.gone", {
                  name: box.name,
                  number: box.number,
                  what: t(`box.states.${box.state}`),
                })}{" "}
            <Link className="link" to={`/box/${box.code}`}>
              {t("code.page")}
            </Link>
          </p>
        )}
      </div>
    </form>
  );
}
