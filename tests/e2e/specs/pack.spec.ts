import { expect, test } from "../house";
import { hear, nothingHeard, standsAt, type Heard } from "../../../web/src/rooms/pack/filling";

/** What of a row of readings is taken, for a target of 400 g with 4 g either way: [grams, at rest]. */
function taken(readings: [number, boolean][]) {
  let heard: Heard = nothingHeard;
  const all: string[] = [];
  for (const [grams, isAtRest] of readings) {
    const [next, took] = hear(heard, grams, isAtRest, { target: 400, below: 4, above: 4 });
    heard = next;
    if (took) all.push(`${took.isAgain ? "again " : ""}${took.grams}`);
  }
  return all;
}

test("a box is taken at rest at its mark or lifted off near it, once; a jump, an empty glass box and a half full one are not", () => {
  expect(
    taken([
      [120, false],
      [399, false],
      [402, true],
      [402, true],
      [0, true],
    ]),
  ).toEqual(["402"]);
  // It still stands there: a spoon more is its own, and the next begins when it is lifted off.
  expect(
    taken([
      [402, true],
      [417, true],
      [-80, true],
      [400, true],
    ]),
  ).toEqual(["402", "again 417", "400"]);
  expect(
    taken([
      [400, false],
      [650, false],
      [90, true],
    ]),
  ).toEqual([]);
  // An empty glass box of 480 g, set to zero by the scale's own key; one of 250 g lifted off again.
  expect(
    taken([
      [480, true],
      [0, true],
      [250, true],
      [0, true],
    ]),
  ).toEqual([]);
  expect(
    taken([
      [388, true],
      [-90, false],
    ]),
  ).toEqual(["388"]);
  // A weight that was typed stays, whatever still stands on the scale; a budget is at its mark from below only.
  const typed = { rested: null, still: 60, isFinal: true };
  expect(hear(typed, 400, true, { target: 400, below: 4, above: 4 })).toEqual([typed, null]);
  expect(hear(nothingHeard, 401, true, { target: 400, below: 4, above: 0 })[1]).toBeNull();
  expect(["under", "at", "at", "over"]).toEqual(
    [395, 396, 404, 404.5].map((grams) => standsAt(grams, { target: 400, below: 4, above: 4 })),
  );
});

test("a points eater, a macro eater and a low-carb cook each get their own size of one stew, squares are drawn, the odd piece is somebody's", async ({
  page,
  empty,
}) => {
  const eater = (name: string, aim: object) => empty.send("POST", "/api/aim/eaters", { name, aim });
  await eater("Ada", {
    leading: "points",
    bands: { points: { max: 23 } },
    rule: {
      name: "mine",
      perUnit: { energy: 0.02 },
      step: 1,
      freeGroups: ["vegetables", "pulses"],
      freeFoods: [],
    },
  });
  const ben = await eater("Ben", {
    leading: "protein",
    bands: { protein: { target: 200, tolerance: 5 } },
    rule: null,
  });
  await eater("Cleo", { leading: "netCarbohydrate", bands: { netCarbohydrate: { max: 30 } }, rule: null });
  const recipe = async (name: string, lines: string[], portions: number, pieces?: number) =>
    (await empty.send("POST", "/api/recipes", { name, lines, portions, pieces })).id as string;
  const stew = await recipe(
    "Chicken stew",
    ["1 kg chicken breast", "500 g carrots", "500 g white beans, canned"],
    6,
  );
  const batch = await empty.send("POST", "/api/cook/batches", { recipeId: stew });
  const { version } = await empty.get("/api/plan/weeks/2026-11-25");
  await empty.send(
    "POST",
    "/api/plan/portions",
    { batchId: batch.id, eaterId: ben.id, day: "2026-11-26", grams: 500 },
    version,
  );

  await page.goto(`${empty.url}/pack/${batch.id}`);
  await page.getByLabel("Full pan on the scale").fill("2600");
  await page.getByLabel("Empty pan").fill("800");
  await page.getByRole("button", { name: "each its own way" }).click();
  const row = (whose: string) =>
    page.getByRole("listitem").filter({ has: page.getByLabel(`How much ${whose} gets`, { exact: true }) });
  await expect(row("for Ben, Thu 26 Nov")).toContainText("450 g"); // 500 of an expected 2,000, of 1,800
  const add = async (whose: string) => {
    await page.getByRole("button", { name: "Add a box" }).click();
    await page
      .getByLabel("Whose box")
      .last()
      .selectOption({ label: `for ${whose}` });
    await page.getByLabel(`How much ${whose} gets`).selectOption("at most");
  };
  await add("Ada");
  await page.getByLabel("Amount Ada").fill("4");
  await expect(row("Ada")).toContainText("4 pt");
  await add("Cleo");
  await page.getByLabel("Amount Cleo").fill("9");
  await expect(page.getByLabel("Measure of the budget Cleo")).toHaveValue("netCarbohydrate");
  await expect(row("Cleo")).toContainText(/(8\.[5-9]|9\.0) g net carbs/);
  await row("for anyone").getByLabel("How many boxes").fill("2");
  await row("for anyone").getByLabel("to the freezer").check();
  await expect(page.getByText("5 boxes, 1,800 g in all")).toBeVisible();

  // Too much for one is said at that box, and a reload loses nothing that was typed.
  await page.getByLabel("Amount Cleo").fill("0");
  await expect(row("Cleo")).toContainText("A budget is more than 0.");
  await page.getByLabel("Amount Cleo").fill("9");
  await page.reload();
  await expect(page.getByText("5 boxes, 1,800 g in all")).toBeVisible();
  await page.getByRole("button", { name: "Make 5 boxes" }).click();
  await expect(page.getByRole("heading", { name: "5 boxes" })).toBeVisible();
  await expect(page.getByRole("listitem").filter({ hasText: "for Ben, Thu 26 Nov" })).toContainText("450 g");
  const packed = await empty.get(`/api/pack/batches/${batch.id}`);
  expect(packed.boxes.map(({ place }: { place: string }) => place).sort()).toEqual([
    "freezer",
    "freezer",
    "fridge",
    "fridge",
    "fridge",
  ]);

  const muffins = await recipe("Oat muffins", ["400 g rolled oats", "4 eggs"], 4, 13);
  const thirteen = await empty.send("POST", "/api/cook/batches", { recipeId: muffins });
  await page.goto(`${empty.url}/pack/${thirteen.id}`);
  await page.getByLabel("Full pan on the scale").fill("650");
  await expect(page.getByText("1 piece is left over")).toBeVisible();
  await page.getByLabel("Give the odd one to …").selectOption({ label: "box 2" });
  await expect(page.getByRole("listitem").filter({ hasText: "4 pieces" })).toHaveCount(1);
  await expect(page.getByText("is left over")).toBeHidden();
  await page.getByRole("button", { name: "squares of the pan" }).click();
  await page.getByLabel("Columns").fill("5");
  await page.getByLabel("Rows").fill("3");
  await expect(page.getByRole("img", { name: /3 by 5 squares/ })).toBeVisible();
  await expect(page.getByText("2 pieces are left over")).toBeVisible();
});

test("box by box on the scale: the next by itself, a dead scale is typed past, the last takes what is left, and the boxes' sum rules", async ({
  page,
  demo,
}) => {
  const play = (act: string, amount = 0) => demo.send("POST", "/api/devices/play", { act, amount });
  await page.goto(`${demo.url}/pack`);
  await page.getByRole("region", { name: "To be packed" }).getByRole("link").click();
  await page.getByLabel("Full pan").fill("1700");
  await page.getByLabel("Empty pan").fill("500");
  await page.getByLabel("Boxes", { exact: true }).fill("3");
  await expect(page.getByText("400 g in each box")).toBeVisible();
  await page.getByRole("button", { name: "Fill them on the scale" }).click();
  const now = (number: number) => page.getByRole("region", { name: `Box ${number} of 3, for anyone` });
  const line = (number: number) => page.getByRole("listitem").filter({ hasText: `box ${number}` });
  await page.getByLabel("An empty box weighs").fill("85");
  await play("clear");
  await play("put", 85);
  await play("put", 250);
  await expect(now(1).getByText("150 g to go")).toBeVisible();
  await play("put", 152);
  await expect(now(2)).toBeVisible(); // at the mark, by itself
  await expect(line(1)).toContainText("402 g");
  await expect(line(1)).toContainText("2 g more than wanted");
  await play("put", 8); // a spoon more, while it still stands there
  await expect(line(1)).toContainText("410 g");
  await play("clear");
  await expect(now(2).getByText("Put the box on the scale")).toBeVisible();
  await play("put", 485 + 60);
  await expect(now(2).getByText("60 g too much")).toBeVisible();

  // The plug is pulled in the middle of a box: what is there stays there, also over a reload.
  await play("unplug");
  await expect(now(2).getByText("The scale is silent")).toBeVisible();
  await page.reload();
  await expect(line(1)).toContainText("410 g");
  await now(2).getByLabel("Or type it").fill("405");
  await now(2).getByRole("button", { name: "Take 405 g" }).click();
  await expect(now(3).getByText("The last box takes what is left: 385 g in place of 400 g.")).toBeVisible();
  await play("plug");
  await now(3).getByLabel("Or type it").fill("395");
  await now(3).getByLabel("Or type it").press("Enter");
  await expect(page.getByText("That is 10 g more than the pan weighed.")).toBeVisible();
  await line(2).getByRole("button", { name: "Weigh box 2 again" }).click();
  await now(2).getByLabel("Or type it").fill("404");
  await now(2).getByLabel("Or type it").press("Enter");
  await page.getByRole("button", { name: "Take 1,209 g as its weight" }).click();
  await expect(page.getByRole("heading", { name: "3 boxes" })).toBeVisible();
  for (const weight of ["410 g", "404 g", "395 g"])
    await expect(page.getByText(weight, { exact: true })).toBeVisible();
});

test("what all of the meat weighs divides the stew, and the pan need not be weighed at all", async ({
  page,
  empty,
}) => {
  const aim = { leading: "energy", bands: { energy: { min: 1450, target: 1525, max: 1600 } }, rule: null };
  await empty.send("POST", "/api/aim/eaters", { name: "Isa", aim });
  const { id } = await empty.send("POST", "/api/recipes", {
    name: "Chicken stew",
    lines: ["1 kg chicken breast", "1 kg carrots"],
    portions: 4,
  });
  const first = await empty.send("POST", "/api/cook/batches", { recipeId: id });
  await page.goto(`${empty.url}/pack/${first.id}`);
  await page.getByLabel("Full pan on the scale").fill("1600");
  await page.getByRole("button", { name: "by one part" }).click();
  await expect(page.getByLabel("Weigh only this into the boxes")).toHaveValue("chicken breast, raw");
  await page.getByLabel("All of it weighs, cooked").fill("2000");
  await expect(page.getByText("That is more than the whole batch weighs")).toBeVisible();
  await page.getByLabel("All of it weighs, cooked").fill("800");
  await expect(page.getByText("400 g in each box")).toBeVisible();
  await page.getByRole("button", { name: "Fill them on the scale" }).click();
  const fill = async (weights: number[]) => {
    for (const [i, weight] of weights.entries()) {
      const box = page.getByRole("region", { name: new RegExp(`^Box ${i + 1} of`) });
      await box.getByLabel("Or type it").fill(String(weight));
      await box.getByLabel("Or type it").press("Enter");
    }
  };
  await fill([210, 190, 200, 200]);
  await page.getByRole("button", { name: "Make 4 boxes" }).click();
  await expect(page.getByText("420 g", { exact: true })).toBeVisible(); // 210 of 800 g of the meat, of 1,600 g

  const second = await empty.send("POST", "/api/cook/batches", { recipeId: id });
  await page.goto(`${empty.url}/pack/${second.id}`);
  await page.getByLabel("Boxes", { exact: true }).fill("2");
  await page.getByRole("button", { name: "Fill the boxes without weighing the pan" }).click();
  await fill([700, 650]);
  await expect(page.getByText("Nobody weighed the pan, so that is what the batch weighs.")).toBeVisible();
  await page.getByRole("button", { name: "Make 2 boxes" }).click();
  await expect(page.getByText("650 g", { exact: true })).toBeVisible();
});
