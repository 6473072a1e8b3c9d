import { useRef, type ReactNode } from "react";
import { useWords } from "../app/i18n";
import { grams } from "./format";
import { saveCsv, savePng, saveSvg } from "./savePicture";

/** A drawing with the table behind it; both can be taken along as files. */
export function Plot({
  name,
  head,
  rows,
  children,
}: {
  /** The name of the files, without their endings. */
  name: string;
  head: string[];
  /** Numbers unrounded: as they stand in the file. */
  rows: (string | number)[][];
  children: ReactNode;
}) {
  const { t } = useWords();
  const ref = useRef<HTMLDivElement>(null);
  const drawing = () => ref.current!.querySelector("svg")!;
  const shown = rows.slice(0, 400);
  return (
    <div>
      <div ref={ref}>{children}</div>
      <div className="no-print mt-1 flex flex-wrap items-baseline gap-x-4 text-sm">
        <details className="min-w-0 grow">
          <summary className="min-h-9 py-1 text-soft">{t("plot.table")}</summary>
          <div className="overflow-x-auto">
            <table className="mt-1 text-sm">
              <thead className="text-left text-soft">
                <tr>
                  {head.map((one, i) => (
                    <th key={i} className={`pr-4 font-normal ${i > 0 ? "text-right" : ""}`}>
                      {one}
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {shown.map((row, i) => (
                  <tr key={i} className="border-t border-line">
                    {row.map((cell, k) =>
                      k === 0 ? (
                        <th key={k} scope="row" className="pr-4 text-left font-normal whitespace-nowrap">
                          {cell}
                        </th>
                      ) : (
                        <td key={k} className="pr-4 text-right">
                          {typeof cell === "number" ? grams(cell) : cell}
                        </td>
                      ),
                    )}
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
          {rows.length > shown.length && (
            <p className="text-soft">{t("plot.more", { count: rows.length - shown.length })}</p>
          )}
        </details>
        <span className="text-soft">
          {t("plot.save")}{" "}
          <button className="link min-h-9 px-1" onClick={() => saveSvg(drawing(), name)}>
            SVG
          </button>
          <button className="link min-h-9 px-1" onClick={() => void savePng(drawing(), name)}>
            PNG
          </button>
          <button className="link min-h-9 px-1" onClick={() => saveCsv([head, ...rows], name)}>
            CSV
          </button>
        </span>
      </div>
    </div>
  );
}
