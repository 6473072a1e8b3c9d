import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions } from "@headlessui/react";
import { useQuery } from "@tanstack/react-query";
import { addDays, parseISO } from "date-fns";
import { useState } from "react";
import { useWords } from "./i18n";
import { useNavigate } from "react-router";
import { findBox, findFoods, listRecipeNames } from "../api";
import { Drawer } from "../ui/Drawer";
import { isoDay, longDay } from "../ui/format";
import { useSettled } from "../ui/useSettled";
import { useOverview } from "./Header";
import { queryKeys } from "./queryKeys";

interface Find {
  kind: "room" | "food" | "recipe" | "day" | "box";
  name: string;
  to: string;
}

/** After a touch a dialog takes the focus itself: what was opened to be typed into gets it from there. */
const focusSoon = (field: HTMLInputElement | null) => {
  if (field) window.setTimeout(() => field.focus(), 60);
};

/** What may be the number on a box's label. */
const labelNumber = /^\d[\d\s-]{4,13}$/;

/** Finds a recipe, a day or a room by any part of its name, a box by the number on its label. */
export function Finder({ open, close }: { open: boolean; close: () => void }) {
  const { t } = useWords();
  const go = useNavigate();
  const today = useOverview()?.today;
  const [typed, setTyped] = useState("");
  const { data: recipes } = useQuery({
    queryKey: queryKeys.recipeNames(),
    queryFn: async () => (await listRecipeNames()).data!,
    enabled: open,
  });
  const asked = useSettled(typed.trim(), 100);
  const { data: foods } = useQuery({
    queryKey: queryKeys.foods("finder", asked),
    queryFn: async () => (await findFoods({ query: { q: asked, most: 6 } })).data!,
    enabled: open && asked.length > 1,
  });
  const isNumber = labelNumber.test(asked);
  const { data: box } = useQuery({
    queryKey: queryKeys.box(asked),
    queryFn: async () => (await findBox({ path: { code: asked } })).data!,
    enabled: open && isNumber,
    retry: false,
  });
  const all: Find[] = [
    ...(["aim", "foods", "recipes", "plan", "shop", "cook", "pack", "keep", "eat", "review"] as const).map(
      (room) => ({
        kind: "room" as const,
        name: t(`rooms.${room}`),
        to: `/${room}`,
      }),
    ),
    { kind: "room", name: t("backup"), to: "/backup" },
    ...(recipes ?? []).map(({ id, name }) => ({ kind: "recipe" as const, name, to: `/recipes/${id}` })),
    ...Array.from({ length: 21 }, (_, i) => isoDay(addDays(today ? parseISO(today) : new Date(), i - 7))).map(
      (day) => ({
        kind: "day" as const,
        name: longDay(day),
        to: `/eat?day=${day}`,
      }),
    ),
  ];
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
  const boxes: Find[] =
    isNumber && box
      ? [{ kind: "box", name: t("finder.named", { name: box.name, code: box.code }), to: `/box/${box.code}` }]
      : [];
  const found = boxes
    .concat(all.filter(({ name }) => words.every((word) => name.toLowerCase().includes(word))))
    .slice(0, 14)
    .concat(
      asked.length > 1
        ? (foods ?? []).map(({ id, name }) => ({
            kind: "food" as const,
            name,
            to: `/foods/${encodeURIComponent(id)}`,
          }))
        : [],
    );
  const take = (find: Find | null) => {
    if (!find) return;
    close();
    setTyped("");
    void go(find.to);
  };
  return (
    <Drawer open={open} grows close={close} title={t("finder.title")}>
      <Combobox value={null} onChange={take}>
        <ComboboxInput
          autoFocus
          ref={focusSoon}
          aria-label={t("finder.title")}
          placeholder={t("finder.hint")}
          className="field w-full"
          onChange={(event) => setTyped(event.target.value)}
        />
        <ComboboxOptions static className="mt-3 space-y-1">
          {found.map((find) => (
            <ComboboxOption
              key={find.to + find.name}
              value={find}
              className="flex justify-between rounded-md px-3 py-2 data-focus:bg-sea-soft"
            >
              <span>{find.name}</span>
              <span className="text-sm text-soft">{t(`finder.${find.kind}`)}</span>
            </ComboboxOption>
          ))}
        </ComboboxOptions>
        {found.length === 0 && <p className="mt-3 text-soft">{t("finder.none")}</p>}
      </Combobox>
    </Drawer>
  );
}
