import { Plus, X } from "lucide-react";
import { useState } from "react";
import { useWords } from "../../app/i18n";
import type { KitchenEquipment, Occupies, Trouble } from "../../api";
import { Drawer } from "../../ui/Drawer";
import { numberIn } from "../../ui/numbers";
import { Sentence } from "../../ui/states";
import { TimeField } from "../../ui/TimeField";

const kinds: Occupies[] = [
  "oven",
  "ring",
  "slowCooker",
  "pressureCooker",
  "microwave",
  "airFryer",
  "waffleIron",
  "blender",
  "tray",
  "board",
  "fridge",
];
const withoutSize = new Set<Occupies>(["microwave", "board", "fridge"]);
const canBeLoud: Occupies[] = ["blender", "microwave", "airFryer", "pressureCooker", "oven"];

interface Typed {
  count: string;
  holds: string;
}

/** All there is to cook with, and when which machines must be still. */
export function KitchenDrawer({
  equipment,
  open,
  close,
  trouble,
  save,
}: {
  equipment: KitchenEquipment;
  open: boolean;
  close: () => void;
  trouble: Trouble | null;
  save: (equipment: KitchenEquipment) => void;
}) {
  const { t } = useWords("cook");
  const [typed, setTyped] = useState<Record<string, Typed>>({});
  const [apart, setApart] = useState<string | null>(null);
  const [quiet, setQuiet] = useState(equipment.quiet);
  const itemOf = (kind: Occupies) => equipment.items.find((item) => item.kind === kind);
  const typedOf = (kind: Occupies): Typed => ({
    count: typed[kind]?.count ?? String(itemOf(kind)?.count ?? 0),
    holds: typed[kind]?.holds ?? (itemOf(kind)?.holds == null ? "" : String(itemOf(kind)!.holds)),
  });
  const wholeOf = (text: string) => {
    const value = numberIn(text);
    return value !== null && Number.isInteger(value) ? value : -1;
  };
  const sent = (): KitchenEquipment => ({
    items: kinds.map((kind) => {
      const { count, holds } = typedOf(kind);
      const held = numberIn(holds);
      return { kind, count: wholeOf(count), holds: held === null ? null : Number.isNaN(held) ? -1 : held };
    }),
    ovenApart: apart === null ? equipment.ovenApart : wholeOf(apart),
    quiet,
  });
  const unitOf = (kind: Occupies) =>
    kind === "oven"
      ? t("kitchen.shelves")
      : kind === "waffleIron"
        ? t("kitchen.pieces")
        : withoutSize.has(kind)
          ? ""
          : t("kitchen.kg");
  return (
    <Drawer open={open} close={close} title={t("kitchen.title")} grows>
      <form
        className="space-y-4"
        onSubmit={(event) => {
          event.preventDefault();
          save(sent());
        }}
      >
        <div className="grid grid-cols-[1fr_auto_auto_5.5rem] items-center gap-x-2 gap-y-1 text-sm">
          {kinds.map((kind) => (
            <div key={kind} className="contents">
              <span>{t(`kinds.${kind}`)}</span>
              <input
                inputMode="numeric"
                aria-label={t("kitchen.count", { kind: t(`kinds.${kind}`) })}
                className="field w-14 text-right"
                value={typedOf(kind).count}
                onChange={(event) =>
                  setTyped({ ...typed, [kind]: { ...typedOf(kind), count: event.target.value } })
                }
              />
              {withoutSize.has(kind) ? (
                <span />
              ) : (
                <input
                  inputMode="decimal"
                  aria-label={t("kitchen.holds", { kind: t(`kinds.${kind}`) })}
                  className="field w-16 text-right"
                  value={typedOf(kind).holds}
                  onChange={(event) =>
                    setTyped({ ...typed, [kind]: { ...typedOf(kind), holds: event.target.value } })
                  }
                />
              )}
              <span className="text-soft">{unitOf(kind)}</span>
            </div>
          ))}
        </div>
        <label className="flex flex-wrap items-center gap-2 text-sm">
          {t("kitchen.apart")}
          <input
            inputMode="numeric"
            className="field w-14 text-right"
            value={apart ?? String(equipment.ovenApart)}
            onChange={(event) => setApart(event.target.value)}
          />
          <span className="text-soft">{t("kitchen.apartUnit")}</span>
        </label>
        <fieldset className="space-y-2">
          <legend className="text-sm font-semibold">{t("kitchen.quiet")}</legend>
          <p className="text-sm text-soft">{t("kitchen.quietText")}</p>
          {quiet.map((hours, i) => {
            const set = (part: Partial<typeof hours>) =>
              setQuiet(quiet.map((other, at) => (at === i ? { ...other, ...part } : other)));
            return (
              <div key={i} className="flex flex-wrap items-center gap-1 text-sm">
                <TimeField
                  isNeeded
                  label={t("kitchen.quietFrom")}
                  value={hours.from}
                  change={(from) => from && set({ from })}
                />
                –
                <TimeField
                  isNeeded
                  label={t("kitchen.quietTo")}
                  value={hours.to}
                  change={(to) => to && set({ to })}
                />
                <button
                  type="button"
                  className="min-h-9 px-2 max-md:min-h-11"
                  aria-label={t("kitchen.dropQuiet")}
                  onClick={() => setQuiet(quiet.filter((_, at) => at !== i))}
                >
                  <X size={16} aria-hidden />
                </button>
                {canBeLoud.map((kind) => (
                  <button
                    key={kind}
                    type="button"
                    className={`chip ${hours.kinds.includes(kind) ? "border-sea bg-sea-soft font-bold" : "text-soft"}`}
                    aria-pressed={hours.kinds.includes(kind)}
                    onClick={() =>
                      set({
                        kinds: hours.kinds.includes(kind)
                          ? hours.kinds.filter((other) => other !== kind)
                          : [...hours.kinds, kind],
                      })
                    }
                  >
                    {t(`kinds.${kind}`)}
                  </button>
                ))}
              </div>
            );
          })}
          <button
            type="button"
            className="chip"
            onClick={() => setQuiet([...quiet, { from: "08:00:00", to: "12:00:00", kinds: ["blender"] }])}
          >
            <Plus size={14} aria-hidden className="mr-1 inline" />
            {t("kitchen.addQuiet")}
          </button>
        </fieldset>
        {trouble && <Sentence>{trouble.errors?.[0]?.sentence ?? trouble.detail}</Sentence>}
        <button className="btn-next w-full">{t("kitchen.save")}</button>
      </form>
    </Drawer>
  );
}
