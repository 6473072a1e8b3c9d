import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import {
  getPrinter,
  playDevices,
  printLabels,
  troubleOf,
  type LabelsRequest,
  type PlayAct,
  type PrintLabelsAnswer,
} from "../../../api";
import { useWords } from "../../../app/i18n";
import { useSay } from "../../../app/notices";
import { all, queryKeys } from "../../../app/queryKeys";
import { useDevices } from "../../../devices/useDevices";
import { oneDecimal } from "../../../ui/format";
import { Sentence } from "../../../ui/states";

const shown = 6;

/** The label printer: how it stands, what it is to print, and the tray of a simulated one. */
export function PrinterPanel({
  body,
  count,
  isReady,
  isStrip,
}: {
  body: LabelsRequest;
  count: number;
  /** Whether they are drawn, as they are asked for. */
  isReady: boolean;
  isStrip: boolean;
}) {
  const { t } = useWords("labels");
  const say = useSay();
  const queries = useQueryClient();
  const isSimulated = useDevices().data?.isSimulated ?? false;
  const { data: printer } = useQuery({
    queryKey: queryKeys.printer(),
    queryFn: async () => (await getPrinter()).data!,
  });
  const [busy, setBusy] = useState(false);
  // Where it stopped, for these very labels: the rest is printed after that.
  const [stopped, setStopped] = useState<{ of: string; answer: PrintLabelsAnswer } | null>(null);
  const these = JSON.stringify(body);
  const at = stopped?.of === these && stopped.answer.says !== "printed" ? stopped.answer : null;
  const after = at?.says === "noTape" || at?.says === "lost" ? at.printed : 0;

  const run = async (act: () => Promise<void>) => {
    setBusy(true);
    try {
      await act();
    } catch (thrown) {
      say(troubleOf(thrown, t("app:silent")).detail ?? "", { trouble: true });
    } finally {
      setBusy(false);
      await queries.invalidateQueries(all("printer"));
    }
  };
  const print = () =>
    run(async () => {
      const { data } = await printLabels({ body: { labels: body, after } });
      setStopped({ of: these, answer: data! });
      if (data!.says === "printed") say(t("printer.printed", { count: data!.of - after }));
    });
  const play = (act: PlayAct, amount = 0) =>
    run(async () => {
      await playDevices({ body: { act, amount } });
    });

  const tray = printer?.tray ?? [];
  return (
    <section aria-labelledby="printer-title" className="min-h-40 space-y-2 border-t border-line pt-3">
      <h2 id="printer-title" className="text-sm">
        {t("printer.title")}
      </h2>
      {printer && (
        <>
          <p className="text-sm text-soft">
            {t(`printer.${printer.stands}`, {
              width: printer.tapeWidthMm,
              left: oneDecimal(printer.tapeLeftMm / 1000),
            })}
          </p>
          {isStrip ? (
            <button
              className="btn"
              disabled={busy || !isReady || printer.stands === "lost"}
              onClick={() => void print()}
            >
              {after > 0 ? t("printer.rest", { count: count - after }) : t("printer.send", { count })}
            </button>
          ) : (
            <p className="text-xs text-soft">{t("printer.strip")}</p>
          )}
          {at && at.says !== "printed" && (
            <Sentence>{t(`printer.stopped.${at.says}`, { printed: at.printed, of: at.of })}</Sentence>
          )}
          {isSimulated && (
            <div className="space-y-2">
              <p className="text-xs text-soft">{t("printer.simulated")}</p>
              <div className="flex flex-wrap gap-2">
                {[62, 100].map((width) => (
                  <button
                    key={width}
                    className="chip"
                    disabled={busy}
                    onClick={() => void play("newTape", width)}
                  >
                    {t("printer.roll", { width })}
                  </button>
                ))}
                <button className="chip" disabled={busy} onClick={() => void play("shortTape", 70)}>
                  {t("printer.short")}
                </button>
              </div>
              {tray.length > 0 && (
                <>
                  <h3 className="flex items-center gap-3 text-xs">
                    {t("printer.tray")}
                    <button className="link min-h-8" disabled={busy} onClick={() => void play("emptyTray")}>
                      {t("printer.empty")}
                    </button>
                  </h3>
                  <ul className="space-y-2">
                    {tray.slice(0, shown).map((label) => (
                      <li key={label.id}>
                        <img
                          src={`/api/devices/printer/tray/${label.id}`}
                          alt={t("printer.label", { id: label.id })}
                          className="w-full border border-line"
                          style={{ aspectRatio: `${label.widthMm} / ${label.heightMm}` }}
                        />
                      </li>
                    ))}
                  </ul>
                </>
              )}
            </div>
          )}
        </>
      )}
    </section>
  );
}
