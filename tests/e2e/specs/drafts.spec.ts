import { expect, test } from "@playwright/test";
import { deepStrictEqual as same } from "node:assert";
import type {
  DayView,
  EaterView,
  LineOrigin,
  Measure,
  Occupies,
  RecipePart,
  RecipeView,
} from "../../../web/src/api";
import { draftOf, requestOf as eaterRequest } from "../../../web/src/rooms/aim/draft";
import { weekdays } from "../../../web/src/rooms/aim/ways";
import { readingWords, watched } from "../../../web/src/rooms/plan/reading";
import { calcOf, requestOf as recipeRequest, sheetOf } from "../../../web/src/rooms/recipes/sheet";
import { chance } from "../chance";

/** What a sheet makes of what is stored, and back: no browser is needed for that. */
test.describe("drafts", () => {
  const measures: Measure[] = ["energy", "protein", "carbohydrate", "netCarbohydrate", "fat", "points"];

  function eater(seed: number): EaterView {
    const { often, upTo, pick, some, maybe, amount } = chance(seed);
    const band = () => {
      const min = maybe(() => amount(2000));
      return {
        min,
        target: maybe(() => (min ?? 0) + amount(50)),
        max: (min ?? 0) + 60 + amount(200),
        tolerance: maybe(() => amount(50)),
      };
    };
    const bands = (of: Measure[]) =>
      Object.fromEntries(of.filter(() => often(0.5)).map((measure) => [measure, band()]));
    const written = { ...bands(measures), ...bands(["fibre", "salt", "saturatedFat"]) };
    return {
      id: "e",
      name: `Eater ${seed}`,
      version: 1,
      clinicianSetIt: often(0.5),
      body: null,
      isQuiet: often(0.5),
      written,
      macros: null,
      ruleExample: null,
      aim: {
        leading: pick(measures),
        leavesOutIncompleteProtein: often(0.5),
        bands: written,
        rule: maybe(() => ({
          name: "Ours",
          step: pick([0, 0.5, 1]),
          perUnit: { energy: amount(1), protein: 0 - amount(1), fat: amount(2), salt: amount(3) },
          freeGroups: pick([[], ["vegetables" as const]]),
          freeFoods: some(3, (i) => `food-${i}`),
          countedFoods: some(2, (i) => `counted-${i}`),
          fixedValues: some(3, (i) => ({
            foodId: `f-${i}`,
            points: amount(20),
            servingGrams: 1 + amount(300),
          })),
        })),
      },
      ways: {
        ownSlots: some(6, (i) => ({
          name: `part ${i}`,
          at: maybe(() => `${String(upTo(24)).padStart(2, "0")}:${String(upTo(60)).padStart(2, "0")}:00`),
          share: maybe(() => upTo(100_000) / 100_000),
          takesBox: often(0.5),
        })),
        otherDays: some(4, (i) => ({
          name: `day ${i}`,
          ...(often(0.5)
            ? { weekday: pick(weekdays), date: null }
            : { weekday: null, date: `2026-12-${String(10 + i)}` }),
          bands: bands([...measures, "fibre"]),
        })),
        reserve: maybe(() => amount(3000)),
        boxesAlike: maybe(() => 1 + upTo(9)),
        fillersADay: maybe(() => upTo(9)),
        neverAllergens: pick([[], ["milk" as const, "sesame" as const]]),
        neverFoods: some(3, (i) => `never-${i}`),
        ratherNot: some(3, (i) => `rather-${i}`),
        likes: some(3, (i) => `${i + 1} apples`),
      },
    };
  }

  /** Bands that say nothing are no bands: the sheet has a row for them all the same. */
  const said = (bands: EaterView["aim"]["bands"]) =>
    Object.fromEntries(
      Object.entries(bands)
        .map(
          ([measure, { min, target, max, tolerance }]) => [measure, { min, target, max, tolerance }] as const,
        )
        .filter(([, band]) => Object.values(band).some((bound) => bound != null)),
    );

  test("an eater opened and saved untouched is the eater that was there", () => {
    for (let seed = 1; seed <= 400; seed++) {
      const before = eater(seed);
      const { body, unread } = eaterRequest(draftOf(before));
      const saved = body as EaterView;
      same(unread, []);
      const known = ({ name, clinicianSetIt, aim, ways }: EaterView) => ({
        name,
        clinicianSetIt,
        aim: { ...aim, bands: said(aim.bands) },
        ways: {
          ...ways,
          otherDays: ways.otherDays!.map((other) => ({ ...other, bands: said(other.bands) })),
        },
      });
      same(known(saved), known(before), `seed ${seed}`);
    }
  });

  test("what is no number in an eater's sheet is named by its field, and nothing else is lost", () => {
    const draft = draftOf(eater(7));
    draft.bounds["energy.max"] = "lots";
    draft.bounds["protein.min"] = " 95,5 ";
    draft.ways.reserve = "1o0";
    draft.ways.slots = [{ name: "noon", at: "12:30", share: "a third", takesBox: true }];
    const { body, unread } = eaterRequest(draft);
    expect(unread.sort()).toEqual(["bands.energy.max", "ways.ownSlots[0].share", "ways.reserve"]);
    expect(body.aim.bands["protein"]!.min).toBe(95.5);
    expect(body.ways!.ownSlots).toEqual([{ name: "noon", at: "12:30:00", share: null, takesBox: true }]);
  });

  function recipe(seed: number): RecipeView {
    const { often, upTo, pick, some, maybe, amount } = chance(seed);
    const lines = some(12, (i) => `${amount(500)} g thing ${i}`);
    const each = <T>(make: (i: number) => T) => lines.map((_, i) => make(i));
    // One that is put together is written for one box, and weighs what goes into it.
    const isPutTogether = often(0.3);
    return {
      id: "r",
      name: `Dish ${seed}`,
      letters: "DI",
      tint: 2,
      portions: isPutTogether ? 1 : 1 + upTo(30),
      isPutTogether,
      lines,
      foods: each((i) => pick(["", `food-${i}`])),
      parts: each(() => pick<RecipePart>(["main", "sauce", "topping", "side"])),
      takenOut: each(() => often(0.2)),
      keys: each((i) => `key-${i}`),
      origins: each(() => pick<LineOrigin>(["own", "base", "replaced"])),
      pieces: isPutTogether ? null : maybe(() => 1 + upTo(40)),
      mayHalve: often(0.5),
      cookedGrams: isPutTogether ? null : maybe(() => 1 + amount(4000)),
      fills: maybe(() => `${1 + upTo(40)} cups`),
      pan: maybe(() =>
        often(0.5)
          ? { shape: "round" as const, lengthCm: 20 + amount(10), widthCm: null }
          : { shape: "rectangular" as const, lengthCm: 20 + amount(10), widthCm: 10 + amount(10) },
      ),
      steps: some(6, (i) => ({
        text: `step ${i}`,
        handsOn: pick([0, 5, 40]),
        unattended: pick([0, 90]),
        occupies: some(2, () => pick<Occupies>(["oven", "ring", "fridge"])),
        temperatureC: maybe(() => upTo(240)),
        doneWhen: maybe(() => "it sets"),
        daysAhead: maybe(() => upTo(7)),
      })),
      version: 3,
    } as unknown as RecipeView;
  }

  test("a recipe opened and saved untouched is the recipe that was there", () => {
    for (let seed = 1; seed <= 400; seed++) {
      const before = recipe(seed);
      const sent = recipeRequest(sheetOf(before));
      const { id, letters, tint, origins, version, ...kept } = before;
      same(sent, kept, `seed ${seed}`);
    }
  });

  test("half-typed numbers are refused when saved, and stand in no one's way while the figures are worked out", () => {
    const sheet = sheetOf(recipe(3));
    Object.assign(sheet, {
      isPutTogether: false,
      portions: "1o",
      pieces: "2.5",
      cookedGrams: "much",
      fills: " 8 c",
    });
    sheet.pan = { shape: "round", length: "wide", width: "" };
    const sent = recipeRequest(sheet);
    expect([sent.portions, sent.pieces, sent.cookedGrams, sent.fills, sent.pan?.lengthCm]).toEqual([
      0,
      -1,
      -1,
      "8 c",
      -1,
    ]);
    const asked = calcOf(sheet, null, "r");
    expect([asked.portions, asked.pieces, asked.cookedGrams, asked.fills, asked.pan]).toEqual([
      1,
      null,
      null,
      "8 c",
      null,
    ]);
    // An empty line is no line, wherever it stands; the others keep what was chosen for them.
    sheet.lines.splice(1, 0, { ...sheet.lines[0]!, text: "   ", foodId: "ghost" });
    expect(recipeRequest(sheet).foods).toEqual(sent.foods);
  });

  test("a band is read in words, and the measures beside the lens are those that are bounded", () => {
    const t = ((key: string, values?: object) =>
      [key, ...Object.values(values ?? {})].join(" ")) as unknown as Parameters<typeof readingWords>[0];
    const reading = (position: string, over: number | null, roomFrom: number | null, roomTo: number | null) =>
      readingWords(t, "energy", { position, over, roomFrom, roomTo, left: 0 } as never);
    expect([
      reading("over", 85.4, null, null),
      reading("within", null, null, 12),
      reading("under", null, 114, 264),
      reading("under", null, 114, null),
      readingWords(t, "energy", undefined),
    ]).toEqual(["app:over 85", "", "plan:room 114 264", "plan:roomFrom 114", ""]);
    const day = (bands: string[], sums: string[]) =>
      ({
        bands: Object.fromEntries(bands.map((one) => [one, {}])),
        sums: Object.fromEntries(sums.map((one) => [one, { value: 1, complete: true }])),
      }) as unknown as DayView;
    const all = ["energy", "protein", "fat", "fibre", "points"];
    expect(watched(day(["protein", "energy", "fibre"], all), "energy", "energy")).toEqual([
      "protein",
      "fibre",
    ]);
    expect(watched(day(["protein", "energy"], all), "energy", "protein")).toEqual(["energy"]);
    expect(watched(day([...all], all), "fat", "energy")).toEqual(["fat", "protein", "fibre", "points"]);
    // A second measure is always in sight, also where nothing but the lens is bounded, and none without a figure.
    expect(watched(day(["points"], all), "points", "points")).toEqual(["energy"]);
    expect(watched(day(["energy"], all), "energy", "energy")).toEqual(["protein"]);
    expect(watched(day(["points", "energy"], ["energy"]), "points", "energy")).toEqual(["protein"]);
  });
});
