import { expect, test } from "@playwright/test";
import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import type { DayAim, DayView } from "../../../web/src/api";
import {
  amount,
  exact,
  grams,
  isoDay,
  lensFirst,
  longDay,
  oneDecimal,
  shortDay,
  unitOf,
  wholeNumber,
} from "../../../web/src/ui/format";
import { numberIn } from "../../../web/src/ui/numbers";
import { app } from "../../../web/src/app/words";
import { aim } from "../../../web/src/rooms/aim/words";
import { backup } from "../../../web/src/backup/words";
import { beginning } from "../../../web/src/beginning/words";
import { cook } from "../../../web/src/rooms/cook/words";
import { devices } from "../../../web/src/devices/words";
import { eat } from "../../../web/src/rooms/eat/words";
import { foods } from "../../../web/src/rooms/foods/words";
import { keep } from "../../../web/src/rooms/keep/words";
import { containers } from "../../../web/src/rooms/pack/containers/words";
import { eye } from "../../../web/src/rooms/pack/eye/words";
import { labels } from "../../../web/src/rooms/pack/labels/words";
import { pack } from "../../../web/src/rooms/pack/words";
import { plan } from "../../../web/src/rooms/plan/words";
import { recipes } from "../../../web/src/rooms/recipes/words";
import { review } from "../../../web/src/rooms/review/words";
import { shop } from "../../../web/src/rooms/shop/words";
import { tapeLength, tickStep } from "../../../web/src/ui/ticks";

/** How the screens write numbers and lay tapes: no browser is needed for that. */
test.describe("words and tapes", () => {
  test("numbers are written with their sign, their tenth, and no zero below zero", () => {
    for (const [value, words] of [
      [1525, "1,525"],
      [0.4, "0"],
      [-0.4, "0"],
      [-85, "−85"],
      [-1005, "−1,005"],
      [2.5, "3"],
      [-2.5, "−3"],
    ] as const)
      expect(wholeNumber(value), String(value)).toBe(words);
    expect([oneDecimal(-0.03), grams(-0.03), oneDecimal(-10)]).toEqual(["0.0", "0", "−10.0"]);
    expect([oneDecimal(4), oneDecimal(-0.25), grams(12.34), grams(124), exact(2.675), exact(3)]).toEqual([
      "4.0",
      "−0.3",
      "12.3",
      "124",
      "2.68",
      "3",
    ]);
  });

  test("a figure has as many places as its measure and size deserve", () => {
    for (const [measure, value, words] of [
      ["energy", 4.2, "4"],
      ["energy", 1524.6, "1,525"],
      ["protein", 19.94, "19.9"],
      ["protein", 20.04, "20"],
      ["fat", 0, "0.0"],
      ["points", 5, "5"],
      ["points", 4.25, "4.25"],
      ["points", -1.5, "−1.5"],
    ] as const)
      expect(amount(measure, value), `${measure} ${value}`).toBe(words);
    expect([unitOf("energy"), unitOf("points"), unitOf("netCarbohydrate")]).toEqual(["kcal", "pt", "g"]);
    expect(lensFirst("fat", ["energy", "fat", "protein"])).toEqual(["fat", "energy", "protein"]);
  });

  test("what is typed is a number, nothing, or no number", () => {
    expect(["12", " 1,5 ", "0.25", "", "  "].map(numberIn)).toEqual([12, 1.5, 0.25, null, null]);
    for (const typed of ["twelve", "1,000,5", "1 2", "5g"]) expect(numberIn(typed), typed).toBeNaN();
  });

  test("days are named as a kitchen names them", () => {
    expect([shortDay("2026-11-30"), longDay("2026-12-06"), isoDay(new Date(2026, 10, 9))]).toEqual([
      "Mon 30 Nov",
      "Sunday 6 December",
      "2026-11-09",
    ]);
  });

  test("ticks stand at 1, 2 or 5 times a power of ten, five small ones to a large one", () => {
    for (const [atLeast, major] of [
      [1, 1],
      [1.1, 2],
      [3, 5],
      [5.1, 10],
      [64, 100],
      [150, 200],
      [210, 500],
      [0.3, 0.5],
    ] as const) {
      expect(tickStep(atLeast).major, String(atLeast)).toBeCloseTo(major, 9);
      expect(tickStep(atLeast).minor * 5).toBeCloseTo(major, 9);
    }
  });

  test("a tape reaches past the band and past the fullest day, and ends on a tick", () => {
    const aim = (max?: number) =>
      ({
        leading: "energy",
        bands: max ? { energy: { min: null, target: null, max, tolerance: null } } : {},
        rule: null,
      }) as unknown as DayAim;
    const day = (value: number, max?: number) =>
      ({ sums: { energy: { value, complete: true } }, aim: aim(max) }) as unknown as DayView;
    for (const [bound, sums] of [
      [1600, [1200, 1500]],
      [1600, [3900]],
      [undefined, []],
      [undefined, [12]],
      [20000, [15]],
    ] as const) {
      const length = tapeLength(
        aim(bound),
        sums.map((sum) => day(sum, bound)),
        "energy",
      );
      expect(length).toBeGreaterThanOrEqual(
        Math.max((bound ?? 0) * 1.15, ...sums.map((sum) => sum * 1.06), 500),
      );
      const { major } = tickStep(length / 12);
      expect(length / major).toBeCloseTo(Math.round(length / major), 9);
    }
    // The aim of one date, past the usual one, stretches the tape of them all.
    expect(tapeLength(aim(1600), [day(900, 2600)], "energy")).toBeGreaterThanOrEqual(2990);
  });
});

/** Every sentence the screens ask for is written down, and every one written down is asked for. */
test.describe("the words", () => {
  const web = join(import.meta.dirname, "..", "..", "..", "web", "src");
  const sources = readdirSync(web, { recursive: true, encoding: "utf8" })
    .filter((path) => /\.tsx?$/.test(path) && !/words\.ts$|generated/.test(path))
    .map((path) => ({ path, text: readFileSync(join(web, path), "utf8") }));
  const all = sources.map(({ text }) => text).join("\n");
  const flat = (words: object, under = ""): string[] =>
    Object.entries(words).flatMap(([key, value]) =>
      typeof value === "string" || Array.isArray(value)
        ? [under + key]
        : flat(value as object, `${under}${key}.`),
    );
  const rooms = {
    app,
    backup,
    beginning,
    aim,
    containers,
    cook,
    devices,
    eat,
    eye,
    foods,
    keep,
    labels,
    pack,
    plan,
    recipes,
    review,
    shop,
  };
  const bare = (key: string) => key.replace(/_(zero|one|two|few|many|other)$/, "");
  const known = new Set(
    Object.entries(rooms).flatMap(([room, words]) => flat(words).map((key) => `${room}:${bare(key)}`)),
  );

  test("what a screen asks for by name is there", () => {
    const missing: string[] = [];
    let asked = 0;
    for (const { path, text } of sources) {
      const of = [...text.matchAll(/useWords\((?:"(\w+)")?\)/g)].map(([, room]) => room ?? "app");
      for (const [, key] of text.matchAll(/\bt\(\s*"([^"]+)"/g)) {
        asked++;
        const names = key!.includes(":")
          ? [key!]
          : [...of, ...(of.length ? [] : Object.keys(rooms))].map((room) => `${room}:${key}`);
        if (!names.some((name) => known.has(name))) missing.push(`${path}: ${key}`);
      }
    }
    expect(missing).toEqual([]);
    expect(asked).toBeGreaterThan(300);
  });

  test("no word lies about that no screen says", () => {
    const literals = new Set([...all.matchAll(/["'`]([\w:.-]+)["'`]/g)].map(([, text]) => text!));
    const begun = [...new Set([...all.matchAll(/`([\w:.-]+)\$\{/g)].map(([, text]) => text!))];
    const idle = [...known].filter((name) => {
      const key = name.slice(name.indexOf(":") + 1);
      return !(
        literals.has(key) ||
        literals.has(name) ||
        begun.some((start) => (start.includes(":") ? name : key).startsWith(start))
      );
    });
    expect(idle).toEqual([]);
  });

  test("what stands in braces is given, and plurals come in their pairs", () => {
    const odd: string[] = [];
    for (const [room, words] of Object.entries(rooms)) {
      const keys = new Set(flat(words));
      for (const key of keys) {
        const other = /_one$/.test(key)
          ? key.replace(/_one$/, "_other")
          : /_other$/.test(key)
            ? key.replace(/_other$/, "_one")
            : key;
        if (!keys.has(other)) odd.push(`${room}:${key} stands alone`);
        const text = key
          .split(".")
          .reduce((under: unknown, part) => (under as Record<string, unknown>)[part], words);
        if (typeof text !== "string") continue;
        const given = [...text.matchAll(/\{\{(\w+)(?:, number)?\}\}/g)].map(([, name]) => name!);
        if ((text.match(/\{\{/g) ?? []).length !== given.length)
          odd.push(`${room}:${key} has a broken brace`);
        // Some call of the key names each value it shows.
        const name = bare(key);
        const direct = [
          ...all.matchAll(
            new RegExp(
              `\\bt\\(\\s*"(?:${room}:)?${name.replaceAll(".", "\\.")}"\\s*(\\)|,\\s*\\{([\\s\\S]*?)\\}\\s*,?\\s*\\))`,
              "g",
            ),
          ),
        ];
        if (direct.length === 0) continue;
        for (const value of given)
          if (!direct.some(([, , values]) => values && new RegExp(`\\b${value}\\b`).test(values)))
            odd.push(`${room}:${key} is never given ${value}`);
      }
    }
    expect(odd).toEqual([]);
  });
});
