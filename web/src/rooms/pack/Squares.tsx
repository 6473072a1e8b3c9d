import type { BatchView } from "../../api";
import { useWords } from "../../app/i18n";
import { wholeIn } from "../../ui/numbers";
import { boxesOf, rowsNow, type Typed } from "./typed";

const side = 44;

/** The pan from above, cut: the number of its box in each square, those with a crust with a thick side. */
export function Squares({
  batch,
  typed,
  boxOf,
}: {
  batch: BatchView;
  typed: Typed;
  boxOf: (number | null)[];
}) {
  const { t } = useWords("pack");
  const columns = wholeIn(typed.across) ?? 1;
  const rows = boxOf.length / columns;
  const boxes = boxesOf(rowsNow(batch, typed));
  const nameOf = (box: number) =>
    batch.ownSizes.find(({ eaterId }) => eaterId === boxes[box]?.row.eaterId)?.name.slice(0, 6) ?? "";
  const [width, height] = [columns * side, rows * side];
  return (
    <figure className="mt-4 max-w-md overflow-x-auto">
      <svg
        role="img"
        aria-label={t("squares.drawn", { rows, columns })}
        viewBox={`-5 -5 ${width + 10} ${height + 10}`}
        style={{ width: Math.min(width + 10, 440) }}
      >
        <rect
          x={-3}
          y={-3}
          width={width + 6}
          height={height + 6}
          rx={6}
          fill="none"
          stroke="var(--ink)"
          strokeWidth={4}
        />
        {boxOf.map((box, square) => {
          const [x, y] = [(square % columns) * side, Math.floor(square / columns) * side];
          return (
            <g key={square}>
              <rect
                x={x}
                y={y}
                width={side}
                height={side}
                fill={box === null ? "var(--ground)" : box % 2 === 0 ? "var(--panel)" : "var(--line)"}
                stroke="var(--ink-soft)"
                strokeDasharray="3 3"
              />
              <text
                x={x + side / 2}
                y={y + 22}
                textAnchor="middle"
                fontSize="17"
                fontWeight="bold"
                fill="var(--ink)"
              >
                {box === null ? "·" : box + 1}
              </text>
              {box !== null && (
                <text x={x + side / 2} y={y + 36} textAnchor="middle" fontSize="11" fill="var(--ink-soft)">
                  {nameOf(box)}
                </text>
              )}
            </g>
          );
        })}
      </svg>
      <figcaption className="text-xs text-soft">{t("squares.caption")}</figcaption>
    </figure>
  );
}
