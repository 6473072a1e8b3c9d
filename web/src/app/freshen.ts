import type { QueryClient } from "@tanstack/react-query";
import { all, type About } from "./queryKeys";

/** For each kind of change, the queries that read what it changed, by the first word of their keys. */
const readers = {
  plan: [
    "containers",
    "shelves",
    "box",
    "labels",
    "week",
    "day",
    "overview",
    "batch",
    "prepDays",
    "prepDay",
    "run",
    "ahead",
    "laidDay",
    "shopping",
    "toBuy",
    "shopFood",
    "pantry",
  ],
  batch: [
    "containers",
    "shelves",
    "box",
    "labels",
    "cooling",
    "batch",
    "batches",
    "week",
    "day",
    "overview",
    "prepDays",
    "prepDay",
    "run",
    "ahead",
    "laidDay",
    "shopping",
    "toBuy",
    "shopFood",
    "pantry",
  ],
  shop: ["shopping", "toBuy", "shopFood", "aisles", "pantry"],
  prepDay: ["prepDay", "run", "equipment", "ahead", "laidDay"],
  run: ["shelves", "cooling", "run", "prepDay", "prepDays", "ahead", "batch", "batches", "overview"],
  recipe: [
    "recipes",
    "overview",
    "week",
    "day",
    "batch",
    "batches",
    "prepDays",
    "prepDay",
    "laidDay",
    "shopping",
    "shopFood",
  ],
  containers: ["containers", "preview", "batch", "box"],
  keeping: ["guidelines", "labels", "shelves", "week", "day", "batch"],
  eater: ["eye", "shelves", "labels", "eaters", "week", "day", "overview", "recipes", "batch"],
} as const satisfies Record<string, readonly About[]>;

/** Has everything fetched anew that a change may have made old. */
export const freshen = (queries: QueryClient, changed: keyof typeof readers) =>
  Promise.all(readers[changed].map((key) => queries.invalidateQueries(all(key))));
