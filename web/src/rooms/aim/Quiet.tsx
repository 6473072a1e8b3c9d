import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { setQuiet, troubleOf, type EaterView } from "../../api";
import { freshen } from "../../app/freshen";
import { useHistory } from "../../app/history";
import { useWords } from "../../app/i18n";
import { useKitchen } from "../../app/kitchen";
import { useSay } from "../../app/notices";
import { useQuiet } from "../../app/quiet";

/** The way out of counting: nothing is lost by it, and the same press leads back. */
export function Quiet({ eater }: { eater: EaterView }) {
  const { t } = useWords("aim");
  const queries = useQueryClient();
  const say = useSay();
  const { did } = useHistory();
  const { setEater } = useKitchen();
  const [isOpen, setOpen] = useState(false);
  const quiet = useQuiet();
  const isElsewhere = quiet && !eater.isQuiet;
  const set = async (isQuiet: boolean) => {
    await setQuiet({ path: { id: eater.id }, body: { isQuiet } });
    await freshen(queries, "eater");
  };
  const press = async (isQuiet: boolean) => {
    try {
      await set(isQuiet);
      did(t(isQuiet ? "quiet.on" : "quiet.off", { name: eater.name }), () => set(!isQuiet));
    } catch (thrown) {
      say(troubleOf(thrown, t("app:silent")).detail ?? "", { trouble: true });
    }
  };
  // Open while it is on, so that the way back is never searched for.
  return (
    <details
      className="mt-3 border-t border-line pt-3 text-sm"
      open={quiet || isOpen}
      onToggle={(event) => setOpen(event.currentTarget.open)}
    >
      <summary className="font-title text-base font-bold">{t("quiet.title")}</summary>
      {isElsewhere && (
        <p className="mt-1">
          {t("quiet.elsewhere")}
          <button className="btn mt-2 flex min-h-11" onClick={() => setEater(eater.id)}>
            {t("quiet.lookAt", { name: eater.name })}
          </button>
        </p>
      )}
      <p className="mt-1 text-soft">{t(eater.isQuiet ? "quiet.isOn" : "quiet.what", { name: eater.name })}</p>
      {eater.isQuiet && <p className="mt-1">{t("quiet.help")}</p>}
      <button className="btn mt-2 min-h-11" onClick={() => void press(!eater.isQuiet)}>
        {t(eater.isQuiet ? "quiet.leave" : "quiet.take")}
      </button>
    </details>
  );
}
