import { useQuery } from "@tanstack/react-query";
import { format, parseISO } from "date-fns";
import { getKitchenRecord, type KitchenRecordView } from "../../api";
import { useWords } from "../../app/i18n";
import { queryKeys } from "../../app/queryKeys";
import { useQuiet } from "../../app/quiet";
import { amount, exact, shortDay, wholeNumber } from "../../ui/format";
import { Plot } from "../../ui/Plot";
import { useWidth } from "../../ui/Ruler";
import { Failed, lacking, Loading } from "../../ui/states";

/** What the weeks teach about the kitchen: cooking times, the eye, what was thrown away. */
export function KitchenRecord() {
  const query = useQuery({
    queryKey: queryKeys.kitchenRecord(),
    queryFn: async () => (await getKitchenRecord()).data!,
  });
  const failed = lacking(query);
  if (failed) return <Failed {...failed} />;
  if (!query.data) return <Loading />;
  return (
    <div className="space-y-8">
      <PrepDays record={query.data} />
      <Eye record={query.data} />
      <Waste record={query.data} />
    </div>
  );
}

interface Bar {
  label: string;
  said: string;
  value: number;
  /** What it was to be; drawn as a thin line across. */
  planned?: number;
}

// What a letter takes at this size, in pixels.
const letter = 6.8;

function Bars({ bars, label }: { bars: Bar[]; label: string }) {
  const [ref, width] = useWidth<HTMLDivElement>();
  const said = Math.max(...bars.map((bar) => bar.said.length)) * letter + 10;
  // Where there is no room beside a bar its words stand above it.
  const isNarrow = width < 300 + said;
  const [left, right, row] = isNarrow ? [0, 4, 44] : [96, said, 26];
  const top = isNarrow ? 20 : 5;
  const most = Math.max(1e-9, ...bars.flatMap(({ value, planned }) => [value, planned ?? 0]));
  const x = (value: number) => left + (value / most) * Math.max(0, width - left - right);
  return (
    <div ref={ref} style={{ height: bars.length * row }}>
      {width > 0 && (
        <svg width={width} height={bars.length * row} role="img" aria-label={label}>
          {bars.map((bar, i) => (
            <g key={bar.label} transform={`translate(0 ${i * row})`}>
              <text x={0} y={isNarrow ? 14 : 17} fontSize={13} fill="var(--ink)">
                {isNarrow ? `${bar.label} · ${bar.said}` : bar.label}
              </text>
              <rect
                x={left}
                width={Math.max(1, x(bar.value) - left)}
                y={top}
                height={16}
                rx={2}
                fill="var(--sea-soft)"
                stroke="var(--sea)"
              />
              {bar.planned !== undefined && (
                <line
                  x1={x(bar.planned)}
                  x2={x(bar.planned)}
                  y1={top - 4}
                  y2={top + 20}
                  stroke="var(--ink)"
                  strokeWidth={2}
                />
              )}
              {!isNarrow && (
                <text
                  x={Math.max(x(bar.value), x(bar.planned ?? 0)) + 6}
                  y={17}
                  fontSize={13}
                  fill="var(--ink)"
                >
                  {bar.said}
                </text>
              )}
            </g>
          ))}
        </svg>
      )}
    </div>
  );
}

function PrepDays({ record }: { record: KitchenRecordView }) {
  const { t } = useWords("review");
  const over = record.prepDays.filter(({ realMinutes }) => realMinutes !== null);
  return (
    <section aria-labelledby="prep-title">
      <h2 id="prep-title" className="text-lg">
        {t("kitchen.prepDays")}
      </h2>
      {over.length === 0 ? (
        <p className="text-soft">{t("kitchen.noPrepDays")}</p>
      ) : (
        <>
          <p className="text-sm text-soft">{t("kitchen.prepDaysLead")}</p>
          <Plot
            name="prep-days"
            head={[
              t("week.day"),
              t("kitchen.plannedHead"),
              t("kitchen.realHead"),
              t("kitchen.handsPlannedHead"),
              t("kitchen.handsRealHead"),
            ]}
            rows={over.map((one) => [
              one.day,
              one.plannedMinutes,
              one.realMinutes!,
              one.handsOnPlanned || "",
              one.handsOnReal || "",
            ])}
          >
            <Bars
              label={t("kitchen.prepDays")}
              bars={over.map((one) => ({
                label: shortDay(one.day),
                value: one.realMinutes!,
                planned: one.plannedMinutes,
                said: t("kitchen.took", {
                  real: minutes(one.realMinutes!),
                  planned: minutes(one.plannedMinutes),
                }),
              }))}
            />
          </Plot>
        </>
      )}
    </section>
  );
}

const minutes = (all: number) =>
  all < 60 ? `${all} min` : `${Math.floor(all / 60)} h ${String(all % 60).padStart(2, "0")}`;

function Eye({ record }: { record: KitchenRecordView }) {
  const { t } = useWords("review");
  const percent = (share: number) => wholeNumber(share * 100);
  return (
    <section aria-labelledby="eye-title">
      <h2 id="eye-title" className="text-lg">
        {t("kitchen.eye")}
      </h2>
      {record.portions.length === 0 ? (
        <p className="text-soft">{t("kitchen.noEye")}</p>
      ) : (
        <>
          <p className="text-sm text-soft">{t("kitchen.eyeLead")}</p>
          <Plot
            name="by-eye"
            head={[t("kitchen.month"), t("kitchen.tries"), t("kitchen.offHead"), t("kitchen.leanHead")]}
            rows={record.portions.map((one) => [
              one.month.slice(0, 7),
              one.tries,
              one.off * 100,
              one.lean * 100,
            ])}
          >
            <Bars
              label={t("kitchen.eye")}
              bars={record.portions.map((one) => ({
                label: format(parseISO(one.month), "MMM yyyy"),
                value: one.off,
                said: t("kitchen.off", { percent: percent(one.off), count: one.tries }),
              }))}
            />
          </Plot>
        </>
      )}
    </section>
  );
}

function Waste({ record }: { record: KitchenRecordView }) {
  const { t } = useWords("review");
  const quiet = useQuiet();
  const cost = (one: KitchenRecordView["waste"][number]) =>
    one.cost === null
      ? ""
      : ` · ${t(one.unpriced > 0 ? "kitchen.atLeast" : "kitchen.cost", { cost: `${record.currency} ${exact(one.cost)}`.trim() })}`;
  return (
    <section aria-labelledby="waste-title">
      <h2 id="waste-title" className="text-lg">
        {t("kitchen.waste")}
      </h2>
      {record.waste.length === 0 ? (
        <p className="text-soft">{t("kitchen.noWaste")}</p>
      ) : (
        <Plot
          name="thrown-away"
          head={[
            t("kitchen.weekOf"),
            t("kitchen.boxesHead"),
            "g",
            ...(quiet ? [] : ["kcal"]),
            t("kitchen.costHead"),
            t("dishes.what"),
          ]}
          rows={record.waste.map((one) => [
            one.monday,
            one.boxes,
            Math.round(one.grams),
            ...(quiet ? [] : [Math.round(one.energy.value)]),
            one.cost === null ? "" : Math.round(one.cost * 100) / 100,
            one.dishes.join(", "),
          ])}
        >
          <Bars
            label={t("kitchen.waste")}
            bars={record.waste.map((one) => ({
              label: shortDay(one.monday).slice(4),
              value: one.grams,
              said: `${wholeNumber(one.grams)} g${quiet ? "" : ` · ${amount("energy", one.energy.value)} kcal`}${cost(one)}`,
            }))}
          />
        </Plot>
      )}
    </section>
  );
}
