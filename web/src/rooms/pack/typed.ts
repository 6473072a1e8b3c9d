import { useState } from "react";
import type { BatchView, BoxPlace, Measure, PackBoxRequest, PackPartRequest, PackRequest } from "../../api";
import { numberIn, sentNumber, weightIn, wholeIn } from "../../ui/numbers";

/** How a box is told what to hold; a portion on a day may stay as planned. */
export type Way = "planned" | "share" | "grams" | "atMost" | "cups" | "pieces";

/** What the dish is measured out by. */
export type By = "weight" | "pieces" | "squares" | "component";

/** Boxes that are told alike. */
export interface Row {
  key: string;
  /** The portion on a day that becomes the box; null for boxes of no day. */
  itemId: string | null;
  eaterId: string | null;
  count: string;
  way: Way;
  amount: string;
  measure: Measure;
  place: BoxPlace;
  likesEdge: boolean;
}

export interface Typed {
  full: string;
  pan: string;
  boxes: string;
  pieces: string;
  by: By;
  across: string;
  down: string;
  component: string;
  componentGrams: string;
  cupGrams: string;
  /** Whether each box goes its own way; otherwise they are only counted. */
  isEach: boolean;
  rows: Row[];
  /** What the scale said of each box, by its key. */
  got: Record<string, number>;
  /** What an empty box weighs. */
  emptyBox: string;
  /** Whether it is divided by eye, no box weighed, and whose eye that is. */
  isByEye: boolean;
  cookId: string | null;
  /** Which of the household's containers the boxes are; empty for any. */
  container: string;
  /** Of a put-together dish, whether its parts go in one after another. */
  isPartByPart: boolean;
  /** Where each part lies, and what the scale said of each box, by the part's key. */
  parts: Record<string, PartTyped>;
}

export interface PartTyped {
  /** Empty for the box itself. */
  compartment: string;
  got: Record<string, number>;
}

const ofLine = "line:";

/** Under which key a part is kept. */
export const partKey = ({ batchId, line }: { batchId: string | null; line: number | null }) =>
  batchId ?? `${ofLine}${line}`;

const written = (weight: number | null) => (weight === null ? "" : String(weight));

/** What is typed on the bench is kept in the browser until the boxes are made: a reload loses no weight. */
export function useTyped(batch: BatchView): [Typed, (change: Partial<Typed>) => void, () => void] {
  const key = `tern.pack.${batch.id}`;
  const [typed, setTyped] = useState<Typed>(() => {
    const start: Typed = {
      full: written(batch.fullGrams),
      pan: written(batch.panGrams ?? batch.rememberedPanGrams),
      boxes: String(batch.boxesWanted),
      // What its recipe makes in pieces is packed in pieces, unless the cook says otherwise.
      pieces: batch.pieces === null ? "" : String(batch.pieces),
      by: batch.pieces === null ? "weight" : "pieces",
      across: "4",
      down: "3",
      component: batch.components[0] ?? "",
      componentGrams: "",
      cupGrams: batch.cupGrams === null ? "" : String(Math.round(batch.cupGrams)),
      isEach: false,
      rows: [],
      got: {},
      emptyBox: "",
      isByEye: false,
      cookId: null,
      container: "",
      isPartByPart: false,
      parts: {},
    };
    try {
      return { ...start, ...(JSON.parse(localStorage.getItem(key) ?? "{}") as Partial<Typed>) };
    } catch {
      return start;
    }
  });
  const change = (part: Partial<Typed>) =>
    setTyped((before) => {
      const next = { ...before, ...part };
      localStorage.setItem(key, JSON.stringify(next));
      return next;
    });
  return [typed, change, () => localStorage.removeItem(key)];
}

const planned = (itemId: string, eaterId: string): Row => ({
  key: itemId,
  itemId,
  eaterId,
  count: "1",
  way: "planned",
  amount: "",
  measure: "energy",
  place: "fridge",
  likesEdge: false,
});

/** Boxes of no day that share what the others leave. */
export const sharing = (key: string, count: number): Row => ({
  ...planned(key, ""),
  itemId: null,
  eaterId: null,
  count: String(count),
  way: "share",
  amount: "1",
});

/** As many boxes as are counted, as rows: the portions on days as planned, the others alike. */
export function rowsOf(batch: BatchView, count: number): Row[] {
  const rest = count - batch.planned.length;
  return [
    ...batch.planned.map(({ itemId, eaterId }) => planned(itemId, eaterId)),
    ...(rest > 0 ? [sharing("rest", rest)] : []),
  ];
}

/** The rows as they are typed, with the portions that lie on days now: what was laid or taken off meanwhile comes or goes. */
export function rowsNow(batch: BatchView, typed: Typed): Row[] {
  if (!typed.isEach) return rowsOf(batch, wholeIn(typed.boxes) ?? 0);
  const there = new Set(batch.planned.map(({ itemId }) => itemId));
  const known = new Set(typed.rows.map(({ itemId }) => itemId));
  return [
    ...batch.planned
      .filter(({ itemId }) => !known.has(itemId))
      .map((one) => planned(one.itemId, one.eaterId)),
    ...typed.rows.filter(({ itemId }) => itemId === null || there.has(itemId)),
  ];
}

/** Each box of the rows, with the key that its weight is kept under. */
export const boxesOf = (rows: Row[]) =>
  rows.flatMap((row) =>
    Array.from({ length: Math.min(1000, Math.max(0, wholeIn(row.count) ?? 0)) }, (_, i) => ({
      key: `${row.key}.${i}`,
      row,
    })),
  );

/** The ways a box can go, by what the dish is measured out by. */
export const waysOf = (by: By, { itemId }: Row): Way[] => [
  ...(itemId === null ? [] : (["planned"] as const)),
  "share",
  by === "pieces" || by === "squares" ? "pieces" : "grams",
  "atMost",
  ...(by === "weight" ? (["cups"] as const) : []),
];

/** A row as it counts: a way that there is not for this measure waits, unchanged, until there is again. */
export function rowFor(by: By, row: Row): Row {
  if (waysOf(by, row).includes(row.way)) return row;
  return row.itemId === null ? { ...row, way: "share", amount: "1" } : { ...row, way: "planned" };
}

function boxOf(row: Row, got: number | undefined): PackBoxRequest {
  const amount = sentNumber(row.amount) ?? 0;
  const ways: Record<Way, Partial<PackBoxRequest>> = {
    planned: {},
    share: { share: amount },
    grams: { grams: sentNumber(row.amount, weightIn) ?? 0 },
    atMost: { atMost: { measure: row.measure, value: amount } },
    cups: { cups: amount },
    pieces: { pieces: amount },
  };
  return {
    itemId: row.itemId,
    eaterId: row.itemId === null ? row.eaterId : null,
    place: row.place,
    likesEdge: row.likesEdge,
    got: got ?? null,
    ...ways[row.way],
  };
}

/** The boxes that have got their weight on the scale; by the piece none is weighed. */
export const filledOf = (batch: BatchView, typed: Typed) =>
  typed.by === "pieces" || typed.by === "squares"
    ? []
    : boxesOf(rowsNow(batch, typed)).filter(({ key }) => typed.got[key] !== undefined);

// A part that the dish no longer has is left out.
const partsOf = (batch: BatchView, typed: Typed): PackPartRequest[] =>
  Object.entries(typed.parts)
    .filter(([key]) => key.startsWith(ofLine) || batch.together.parts.some(({ batchId }) => batchId === key))
    .map(([key, { compartment, got }]) => ({
      batchId: key.startsWith(ofLine) ? null : key,
      line: key.startsWith(ofLine) ? Number(key.slice(ofLine.length)) : null,
      compartment: compartment || null,
      got:
        Object.keys(got).length === 0
          ? []
          : boxesOf(rowsNow(batch, typed)).map((box) => got[box.key] ?? null),
    }));

/** What is typed, as it is sent; what boxes have got on the scale counts. */
export function orderOf(batch: BatchView, typed: Typed): PackRequest {
  const boxes = boxesOf(rowsNow(batch, typed));
  const filled = new Set(filledOf(batch, typed).map(({ key }) => key));
  const pan = sentNumber(typed.pan, weightIn) ?? 0;
  const isByEye = typed.isByEye && typed.by === "weight" && filled.size === 0 && !typed.isPartByPart;
  return {
    // A pan that nobody weighs holds what is expected of it, until the boxes say what it held.
    fullGrams: sentNumber(typed.full, weightIn) ?? (batch.expectedGrams ?? 0) + pan,
    panGrams: pan,
    boxes: typed.isEach ? boxes.length : (wholeIn(typed.boxes) ?? 0),
    pieces: typed.by === "pieces" ? (wholeIn(typed.pieces) ?? 0) : null,
    squares:
      typed.by === "squares" ? { rows: wholeIn(typed.down) ?? 0, columns: wholeIn(typed.across) ?? 0 } : null,
    componentGrams: typed.by === "component" ? (sentNumber(typed.componentGrams, weightIn) ?? 0) : null,
    cupGrams: typed.isEach ? numberIn(typed.cupGrams) || null : null,
    containerId: typed.container || null,
    isByEye,
    cookId: isByEye ? typed.cookId : null,
    parts: batch.together.isPutTogether && typed.isPartByPart ? partsOf(batch, typed) : null,
    each:
      typed.isEach || filled.size > 0 || typed.by === "component"
        ? boxes.map(({ key, row }) =>
            boxOf(rowFor(typed.by, row), filled.has(key) ? typed.got[key] : undefined),
          )
        : null,
  };
}
