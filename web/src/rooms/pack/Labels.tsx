import type { ReactNode } from "react";
import { useWords } from "../../app/i18n";
import type { BatchView, PutInView } from "../../api";
import { grams, piecesOf, shortDay } from "../../ui/format";
import { neverWords } from "../../ui/never";
import { Tape } from "../../ui/Tape";
import { compartmentWords } from "./compartmentWords";

interface LabelsProps {
  batch: BatchView;
  boxes: {
    number: number;
    grams: number;
    pieces: number | null;
    volume: string | null;
    forWhom?: string;
    isExcluded?: boolean;
    isGone?: boolean;
    /** The last day as it is kept; left out where it is not made yet. */
    useBy?: string;
    isOver?: boolean;
    /** What was put in part by part. */
    putIn?: PutInView[];
    container?: string | null;
    isByEye?: boolean;
  }[];
  /** Boxes that are not made yet. */
  faint?: boolean;
  /** What stands below the strip of a box. */
  below?: (number: number) => ReactNode;
}

/** A strip of tape for each box; printed as they are. */
export function Labels({ batch, boxes, faint = false, below }: LabelsProps) {
  const { t } = useWords("pack");
  return (
    <ul className={`grid grid-cols-2 gap-2 md:grid-cols-4 ${faint ? "no-print" : ""}`}>
      {boxes.slice(0, 120).map((box) => (
        <li key={box.number} className={`break-inside-avoid ${box.isGone ? "no-print" : ""}`}>
          <Tape
            letters={batch.letters}
            tint={batch.tint}
            className={`min-h-14 ${box.isGone ? "line-through" : ""}`}
          >
            <span className="block truncate text-sm font-semibold">{batch.name}</span>
            <span className="block text-sm">
              {box.isByEye && `${t("byEye.about")} `}
              <b>{grams(Math.round(box.grams * (box.isByEye ? 1 : 10)) / (box.isByEye ? 1 : 10))} g</b>
              {box.volume !== null && ` · ${box.volume}`}
              {box.pieces !== null && ` · ${piecesOf(t, box.pieces)}`}
            </span>
            <span className="block text-xs">
              {box.forWhom && (
                <>
                  <b>
                    {box.isExcluded && <span aria-hidden className="hatched mr-1 inline-block h-3 w-1.5" />}
                    {box.forWhom}
                  </b>{" "}
                  ·{" "}
                </>
              )}
              {t("box", { number: box.number })} · {t("cookedOn", { day: shortDay(batch.cookedOn) })}
            </span>
            {box.container && <span className="block text-xs">{box.container}</span>}
            {box.putIn?.map(({ name, grams: weight, compartment }) => (
              <span key={name + compartment} className="block text-xs">
                {grams(Math.round(weight))} g {name}
                {compartment && `, ${compartmentWords(t, compartment)}`}
              </span>
            ))}
            {box.useBy && (
              <b className="block text-xs">
                {box.isOver && <span aria-hidden className="hatched mr-1 inline-block h-3 w-1.5" />}
                {t(box.isOver ? "pastDay" : "useBy", { day: shortDay(box.useBy) })}
              </b>
            )}
            {batch.neverFor.map(({ name, why }) => (
              <b key={name} className="block text-xs">
                {t("notFor", { name, why: neverWords(t, why) })}
              </b>
            ))}
          </Tape>
          {below?.(box.number)}
        </li>
      ))}
    </ul>
  );
}
