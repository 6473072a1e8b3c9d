import AxeBuilder from "@axe-core/playwright";
import type { Page } from "@playwright/test";
import { expect, test, type House } from "../house";

/** A bowl of 200 g mash, 120 g chicken, 40 g gravy and 15 g walnuts for three eaters, its parts cooked and weighed. */
async function ready(house: House) {
  const recipe = (name: string, lines: string[], portions: number, more: object) =>
    house.send("POST", "/api/recipes", { name, lines, portions, ...more });
  await recipe("Mash", ["1 kg potatoes", "100 g butter"], 5, { cookedGrams: 1000, fills: "1000 ml" });
  await recipe("Roast chicken", ["800 g chicken breast"], 5, { cookedGrams: 600, fills: "1200 ml" });
  await recipe("Onion gravy", ["200 g onions", "300 ml water"], 5, { cookedGrams: 200, fills: "250 ml" });
  const bowl = await recipe(
    "Chicken bowl",
    ["200 g mash", "120 g roast chicken", "40 g onion gravy", "15 g walnuts"],
    1,
    { isPutTogether: true },
  );
  const plan = { day: "2026-11-25", dishes: [{ recipeId: bowl.id, portions: 3 }] };
  const [dish] = await house.send("POST", "/api/cook/planned", plan);
  const weights: Record<string, number> = { Mash: 600, "Roast chicken": 360, "Onion gravy": 120 };
  for (const { id, name, version } of await house.get("/api/cook/batches")) {
    if (!weights[name]) continue;
    const cooked = await house.send("POST", `/api/cook/planned/${id}/cooked`, null, version);
    const body = { fullGrams: weights[name] + 500, panGrams: 500 };
    await house.send("PUT", `/api/cook/batches/${id}/weight`, body, cooked.version);
  }
  return dish.id as string;
}

const axe = async (page: Page) => expect((await new AxeBuilder({ page }).analyze()).violations).toEqual([]);

test("what the household packs into is written down, changed, put away and back", async ({ page, empty }) => {
  await page.goto(`${empty.url}/containers`);
  await expect(page.getByText("What do you cook in, and pack into?")).toBeVisible();
  await page.getByRole("button", { name: "Write one down" }).click();
  const sheet = page.getByRole("dialog");
  await sheet.getByLabel("You call it").fill("Lunch tin");
  await sheet.getByLabel("Millilitres of compartment 1").fill("500");
  await sheet.getByRole("button", { name: "Another compartment" }).click();
  await sheet.getByLabel("Millilitres of compartment 2").fill("200");
  await sheet.getByRole("button", { name: "Keep it" }).click();
  await expect(sheet.getByText("Give each compartment a name of its own")).toBeVisible();
  await sheet.getByLabel("Name of compartment 1").fill("big");
  await sheet.getByLabel("Name of compartment 2").fill("small");
  await sheet.getByLabel("Empty it weighs").fill("310");
  await sheet.getByLabel("How many you have").fill("2");
  await axe(page);
  await sheet.getByRole("button", { name: "Keep it" }).click();
  await expect(page.getByText("big 500 ml, small 200 ml · 310 g empty · 0 of 2 in use")).toBeVisible();

  // Another tab changed it meanwhile: what is typed stays, and is kept on how it stands then.
  await page.getByRole("button", { name: "Change Lunch tin" }).click();
  const [one] = await empty.get("/api/pack/containers");
  await empty.send("PUT", `/api/pack/containers/${one.id}`, { ...one, count: 5 }, one.version);
  await sheet.getByLabel("How many you have").fill("3");
  await sheet.getByRole("button", { name: "Keep it" }).click();
  await expect(sheet.getByText("This was changed elsewhere.")).toBeVisible();
  await sheet.getByRole("button", { name: "Keep it" }).click();
  await expect(page.getByText("0 of 3 in use")).toBeVisible();
  await page.getByRole("button", { name: "Change Lunch tin" }).click();
  await sheet.getByRole("button", { name: "We don't have it any more" }).click();
  await expect(page.getByText("What do you cook in, and pack into?")).toBeVisible();
  await page.getByRole("button", { name: "Undo" }).first().click();
  await expect(page.getByText("Lunch tin")).toBeVisible();
});

test("part by part over all boxes: each in its place, what does not fit or goes soft is said, and the boxes know what is in them", async ({
  page,
  empty,
}) => {
  const add = (body: object) => empty.send("POST", "/api/pack/containers", body);
  const compartments = [
    { name: "big", volumeMl: 500 },
    { name: "small", volumeMl: 200 },
  ];
  await add({ kind: "box", name: "Lunch tin", emptyGrams: 310, count: 2, compartments });
  await add({ kind: "cup", name: "Sauce cup", compartments: [{ volumeMl: 60 }] });
  const dish = await ready(empty);
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto(`${empty.url}/pack/${dish}`);
  await page.getByLabel("Into").selectOption("Lunch tin");
  await expect(page.getByText("You have 2 of them, 2 free: 1 too few.")).toBeVisible();
  await page.getByRole("button", { name: "Put them in part by part" }).click();

  // All of it in the big side: 200 + 240 + 50 ml, and the walnuts; beside the gravy they go soft.
  await expect(page.getByText("Onion gravy makes walnuts go soft")).toBeVisible();
  await expect(page.getByText(/^big: too much in box 1, 2, 3/)).toBeVisible();
  const part = (name: string) => page.getByRole("button", { name: new RegExp(`^${name} \\d of 3`) });
  await part("Onion gravy").click();
  await page.getByLabel("Where Onion gravy lies").selectOption("Sauce cup");
  await expect(page.getByText("Onion gravy makes walnuts go soft")).toBeHidden();
  await part("walnuts").click();
  await page.getByLabel("Where walnuts lies").selectOption("beside, added at eating");
  await expect(page.getByText(/^big: it fits, the fullest takes 440 of 500 ml/)).toBeVisible();
  await expect(page.getByText(/^Sauce cup: it fits, the fullest takes 50 of 60 ml/)).toBeVisible();

  await part("Mash").click();
  const type = async (grams: string) => {
    await page.getByLabel("Or type it").fill(grams);
    await page.getByLabel("Or type it").press("Enter");
  };
  await type("210");
  await type("204");
  await expect(page.getByText("The last box takes what is left: 186 g in place of 200 g.")).toBeVisible();
  await type("190");

  // The pan had 4 g more than was said: nothing is made of what is not there, until it is.
  await expect(page.getByText("The boxes hold 4 g more of Mash than its pan weighed.")).toBeVisible();
  await expect(page.getByRole("heading", { name: "Roast chicken into box 1 of 3" })).toBeVisible();
  await page.reload();
  await expect(part("Mash")).toContainText("3 of 3");
  await page.getByRole("button", { name: "Take 604 g as what Mash weighs" }).click();
  await expect(page.getByText("than its pan weighed")).toBeHidden();
  for (const grams of ["120", "118", "122", "40", "38", "42", "15", "15", "0"]) await type(grams);
  await expect(page.getByRole("heading", { name: "Every part is in its boxes" })).toBeVisible();
  await axe(page);
  await page.getByRole("button", { name: "Make 3 boxes" }).click();
  await expect(page.getByRole("heading", { name: "3 boxes" })).toBeVisible();
  await expect(page.getByText("210 g Mash", { exact: true })).toBeVisible();
  await expect(page.getByText("40 g Onion gravy, Sauce cup")).toBeVisible();
  await expect(page.getByText("15 g walnuts, beside, added at eating")).toHaveCount(2);

  // Nothing of the parts is left over, and each box weighs what was put in.
  const { boxes, state } = await empty.get(`/api/pack/batches/${dish}`);
  expect([state, boxes.map(({ grams }: { grams: number }) => grams)]).toEqual(["packed", [385, 375, 354]]);
  const week = await empty.get("/api/plan/weeks/2026-11-25");
  expect(week.unpacked).toEqual([]);
  await page.getByRole("link", { name: "Labels" }).click();
  const drawn = await page.getByRole("img", { name: /^Page 1 of/ }).getAttribute("src");
  expect(decodeURIComponent(drawn!).replaceAll("\u00a0", " ")).toContain("Add at eating: 15 g walnuts");
  await page.goto(`${empty.url}/containers`);
  await expect(page.getByText("3 of 2 in use")).toBeVisible();
  await expect(page.getByText("60 ml · 3 in use")).toBeVisible();
});

test("what a box holds already is taken off the scale, and set to zero it counts from there", async ({
  page,
  demo,
}) => {
  const play = (act: string, amount = 0) => demo.send("POST", "/api/devices/play", { act, amount });
  const dish = await ready(demo);
  await page.goto(`${demo.url}/pack/${dish}`);
  await page.getByRole("button", { name: "Put them in part by part" }).click();
  const now = (name: string, number: number) =>
    page.getByRole("region", { name: `${name} into box ${number} of 3, for anyone` });
  await page.getByLabel("An empty box weighs").fill("300");
  await play("clear");
  await play("put", 300);
  await expect(now("Mash", 1).getByText("200 g to go")).toBeVisible();
  await play("put", 199);
  await expect(now("Mash", 2).getByText("That is it: now the next")).toBeVisible();
  await now("Mash", 2).getByLabel("Or type it").fill("203");
  await now("Mash", 2).getByLabel("Or type it").press("Enter");
  await now("Mash", 3).getByLabel("Or type it").fill("198");
  await now("Mash", 3).getByLabel("Or type it").press("Enter");

  // Box 1 stands there with 199 g of mash in it: the chicken counts from nothing.
  await play("clear");
  await expect(now("Roast chicken", 1).getByText("Put the box on the scale")).toBeVisible();
  await play("put", 499 + 70);
  await expect(now("Roast chicken", 1).getByText("50 g to go")).toBeVisible();
  await play("put", 50);
  await expect(now("Roast chicken", 2)).toBeVisible();
  await play("clear");
  await expect(now("Roast chicken", 2).getByText("Put the box on the scale")).toBeVisible();

  // Box 2, set to zero: it holds 4 g of mash more than box 1, and box 3 less than that.
  await play("put", 503);
  await expect(now("Roast chicken", 2).getByText("120 g to go")).toBeVisible();
  const zeroed = page.waitForResponse(/scale\/wishes$/);
  await now("Roast chicken", 2).getByRole("button", { name: "Set to zero" }).click();
  await zeroed;
  await play("put", 100);
  await expect(now("Roast chicken", 2).getByText("20 g to go", { exact: true })).toBeVisible();
  await play("put", 20);
  await expect(now("Roast chicken", 3)).toBeVisible();
  await expect(page.getByRole("listitem").filter({ hasText: "box 2" })).toContainText("120 g");
});
