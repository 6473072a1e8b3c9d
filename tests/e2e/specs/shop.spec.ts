import AxeBuilder from "@axe-core/playwright";
import type { Page } from "@playwright/test";
import { readFileSync } from "node:fs";
import { expect, test, type House } from "../house";

interface Listed {
  key: string;
  state: string;
  need: number;
  have: number;
  buy: number;
  over: number;
}

const listOf = async (house: House): Promise<Listed[]> =>
  (await house.get("/api/shop/list")).aisles.flatMap(({ foods }: { foods: Listed[] }) => foods);
const lineOf = async (house: House, key: string) => (await listOf(house)).find((line) => line.key === key);
const box = (page: Page, name: string) => page.getByRole("checkbox", { name: `Tick ${name}`, exact: true });

/** An eater, and a dal planned for Sunday: what a house begins with. */
async function planned(house: House) {
  const aim = { leading: "energy", bands: { energy: { min: 1450, target: 1525, max: 1600 } }, rule: null };
  const eater = await house.send("POST", "/api/aim/eaters", { name: "Isa", aim });
  const recipe = await house.send("POST", "/api/recipes", {
    name: "Dal",
    portions: 4,
    lines: ["400 g red lentils, dry", "180 g onion", "100 g frozen spinach"],
  });
  await house.send("POST", "/api/cook/planned", {
    day: "2026-11-29",
    dishes: [{ recipeId: recipe.id, portions: 8 }],
  });
  return eater.id as string;
}

test("an empty house says what will be here; what is written on stands there", async ({ page, empty }) => {
  await page.goto(`${empty.url}/shop`);
  await expect(page.getByRole("heading", { name: "The list is empty" })).toBeVisible();
  await expect(page.getByText("in the basket")).toHaveCount(0); // nothing is
  await page.getByLabel("Write something on the list").fill("kitchen paper");
  await page.keyboard.press("Enter");
  await page.getByLabel("Write something on the list").fill("milk");
  await page.keyboard.press("Enter");
  await expect(
    page.getByRole("region", { name: "Milk, cheese and eggs" }).getByText("milk", { exact: true }),
  ).toBeVisible();
  await expect(page.getByText("2 things to buy").first()).toBeVisible();
  await page.getByRole("button", { name: "Take kitchen paper off the list" }).click();
  await expect(page.getByText("1 thing to buy").first()).toBeVisible();
  await page.getByRole("button", { name: "Undo" }).first().click();
  await expect(box(page, "kitchen paper")).toBeVisible();
});

test("on the phone in the shop: ticks outlive a reload and a lost connection, another phone's ticks come in, and all is put away", async ({
  page,
  empty,
}) => {
  await planned(empty);
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto(`${empty.url}/shop`);
  await box(page, "red lentils, dry").check();
  await expect.poll(async () => (await lineOf(empty, "red-lentils-dry"))?.state).toBe("inBasket");

  // The house has a trouble of its own: no tick is given up for that. One that it refuses takes no other with it.
  await page.route("**/api/shop/ticks*", (route) =>
    route.fulfill({
      status: 500,
      contentType: "application/problem+json",
      body: `{"status":500,"detail":"A bug."}`,
    }),
  );
  await box(page, "spinach, frozen").check();
  await expect(page.getByText("1 tick is kept on this device")).toBeVisible();
  await page.evaluate(() => {
    const kept = JSON.parse(localStorage.getItem("tern.shop.ticks")!) as object[];
    const absurd = { key: "salt", isTicked: true, grams: -5, at: new Date().toISOString() };
    localStorage.setItem("tern.shop.ticks", JSON.stringify([absurd, ...kept]));
  });
  await page.unroute("**/api/shop/ticks*");
  await expect
    .poll(async () => (await lineOf(empty, "spinach-frozen"))?.state, { timeout: 20_000 })
    .toBe("inBasket");
  await box(page, "spinach, frozen").uncheck();
  await expect.poll(async () => (await lineOf(empty, "spinach-frozen"))?.state).toBe("toBuy");

  // The house does not answer: what is ticked stays ticked, is said, and is sent when it answers again, after a reload too.
  await page.route("**/api/shop/ticks*", (route) => route.abort());
  await box(page, "onion").check();
  await expect(page.getByText("1 tick is kept on this device")).toBeVisible();
  expect((await lineOf(empty, "onion"))?.state).toBe("toBuy");
  await page.reload();
  await expect(box(page, "onion")).toBeChecked();
  await page.unroute("**/api/shop/ticks*");
  await expect.poll(async () => (await lineOf(empty, "onion"))?.state, { timeout: 15_000 }).toBe("inBasket");

  // Somebody else ticks the last thing: it shows here without a touch.
  await empty.send("POST", "/api/shop/ticks", {
    ticks: [{ key: "spinach-frozen", isTicked: true, grams: 450, at: new Date().toISOString() }],
  });
  await expect(box(page, "spinach, frozen")).toBeChecked({ timeout: 15_000 });
  await expect(page.getByText("All of it is in the basket")).toBeVisible();
  await page.getByRole("button", { name: "Put it all away" }).click();
  await expect(
    page.getByRole("heading", { name: "The list is empty" }).or(page.getByText(/in the house already/)),
  ).toBeVisible();
  const there = (await empty.get("/api/shop/pantry")).items as { name: string; grams: number }[];
  expect(there.map(({ name, grams }) => [name, grams])).toEqual([
    ["onion", 1000],
    ["red lentils, dry", 1000],
    ["spinach, frozen", 450],
  ]);
  await page.getByRole("button", { name: "Undo" }).first().click();
  await expect(box(page, "onion")).toBeChecked();
  for (const line of await listOf(empty)) expect(line.need + line.over).toBe(line.buy + line.have);
});

test("not sold here: another food is tried, seen on the days, taken, and taken back", async ({
  page,
  empty,
}) => {
  const eaterId = await planned(empty);
  const { version } = await empty.get("/api/plan/weeks/2026-11-29");
  await empty.send(
    "POST",
    "/api/plan/foods",
    { eaterId, day: "2026-11-29", place: 0, text: "200 g frozen spinach" },
    version,
  );
  const energy = async () =>
    (await empty.get(`/api/eat/${eaterId}/2026-11-29`)).day.sums.energy.value as number;
  const before = await energy();
  await page.goto(`${empty.url}/shop`);
  await page.getByRole("button", { name: "More about spinach, frozen" }).click();
  const drawer = page.getByRole("dialog");
  await drawer.getByLabel("Find another food").fill("frozen kale");
  await drawer.getByRole("button", { name: "kale, frozen" }).click();
  await expect(drawer.getByText("Isa · Sun 29 Nov")).toBeVisible();
  const gramForGram = await drawer.getByText(/→/).innerText();
  await drawer.getByLabel("Instead of 100 g").fill("50");
  await expect(drawer.getByText(/→/)).not.toHaveText(gramForGram);
  const said = Number((await drawer.getByText(/→/).innerText()).split("→")[1]!.replace(/[^\d]/g, ""));
  expect(await energy()).toBe(before);
  await drawer.getByRole("button", { name: "Take kale, frozen" }).click();
  await expect(box(page, "kale, frozen")).toBeVisible();
  await expect(page.getByText("instead of spinach, frozen ·")).toBeVisible();
  expect(Math.round(await energy())).toBe(said);
  await page.getByRole("button", { name: "Undo" }).first().click();
  await expect(box(page, "spinach, frozen")).toBeVisible();
  await expect.poll(energy).toBe(before);
});

test("what is in the house is written down, corrected as it is said, used first, counted by a list", async ({
  page,
  empty,
}) => {
  await planned(empty);
  await page.goto(`${empty.url}/shop?view=pantry`);
  await expect(page.getByRole("heading", { name: "Nothing is written down yet" })).toBeVisible();
  for (const line of ["600 g red lentils, dry", "300 g onion"]) {
    await page.getByLabel("Write down what is in the house").fill(line);
    await page.keyboard.press("Enter");
    await expect(page.getByLabel("Write down what is in the house")).toHaveValue("");
  }
  const amount = page.getByLabel("How much red lentils, dry there is");
  await amount.fill("half");
  await amount.press("Enter");
  await expect(amount).toHaveValue("300 g");
  await amount.fill("a heap");
  await amount.press("Enter");
  await expect(page.getByText("Type how much there is")).toBeVisible();
  await expect(amount).toHaveValue("a heap"); // what was typed stays
  await amount.fill("2 packages");
  await amount.press("Enter");
  await expect(amount).toHaveValue("1000 g");
  expect((await lineOf(empty, "red-lentils-dry"))?.state).toBe("inHouse");

  await page.getByRole("button", { name: "Use onion first" }).click();
  await expect(page.getByRole("region", { name: "Use first" }).getByText("could go into Dal")).toBeVisible();
  await page.getByRole("button", { name: "red lentils, dry is used up" }).click();
  await expect(amount).toHaveCount(0);
  await page.getByRole("button", { name: "Undo" }).first().click();
  await expect(amount).toHaveValue("1000 g");

  await page.getByRole("button", { name: "Take stock" }).click();
  const drawer = page.getByRole("dialog");
  await drawer.getByLabel("What is in the house").fill("250 g onion\nthree glorbs");
  await drawer.getByRole("button", { name: "This is what there is" }).click();
  await expect(drawer.getByText(/three glorbs:/)).toBeVisible();
  await drawer.getByLabel("What is in the house").fill("250 g onion");
  await drawer.getByLabel("Nothing else is in the house").check();
  await drawer.getByRole("button", { name: "This is what there is" }).click();
  await expect(page.getByLabel("How much onion there is").last()).toHaveValue("250 g");
  await expect(amount).toHaveCount(0);
});

test("the page for a phone works by itself, keeps its ticks, and brings them home", async ({
  page,
  empty,
  browser,
}) => {
  await planned(empty);
  await page.goto(`${empty.url}/shop`);
  const download = page.waitForEvent("download");
  await page.getByRole("link", { name: "For a phone away from home" }).click();
  const path = await (await download).path();
  const html = readFileSync(path, "utf8");

  // Without any network: the file is all there is.
  const context = await browser.newContext({ offline: true, viewport: { width: 390, height: 844 } });
  const away = await context.newPage();
  const failed: string[] = [];
  away.on("pageerror", (error) => failed.push(error.message));
  await away.route("**/*", (route) =>
    route.request().url() === "http://list.example/"
      ? route.fulfill({ contentType: "text/html", body: html })
      : route.abort(),
  );
  await context.setOffline(false);
  await away.goto("http://list.example/");
  await expect(away.getByText("3 of 3 still to buy")).toBeVisible();
  await away.getByRole("checkbox").first().check();
  await expect(away.getByText("2 of 3 still to buy")).toBeVisible();
  await away.reload();
  await expect(away.getByRole("checkbox").first()).toBeChecked();
  const { violations } = await new AxeBuilder({ page: away }).analyze();
  expect(violations.map(({ id }) => id)).toEqual([]);
  const home = (await away.getByRole("link", { name: "Bring the ticks home" }).getAttribute("href"))!;
  expect(failed).toEqual([]);
  await context.close();

  await page.goto(home);
  await expect(page.getByText("1 tick came home.")).toBeVisible();
  await expect.poll(async () => (await lineOf(empty, "onion"))?.state).toBe("inBasket");
});

test("aisles are walked in the household's order, prices make a box's price, a package of nothing is refused", async ({
  page,
  empty,
}) => {
  await planned(empty);
  await page.goto(`${empty.url}/shop`);
  await page.getByRole("button", { name: "Aisles and currency" }).click();
  const drawer = page.getByRole("dialog");
  for (let i = 0; i < 9; i++) await drawer.getByRole("button", { name: "Frozen earlier" }).click();
  await expect(drawer.getByRole("button", { name: "Frozen earlier" })).toBeDisabled();
  await drawer.getByLabel("Before a price").fill("€");
  await drawer.getByRole("button", { name: "Save the aisles" }).click();
  await expect(page.getByRole("main").getByRole("heading", { level: 2 }).first()).toHaveText("Frozen");

  await page.getByRole("button", { name: "More about red lentils, dry" }).click();
  await drawer.getByLabel("Package 1 holds").fill("0");
  await drawer.getByRole("button", { name: "Save", exact: true }).click();
  await expect(drawer.getByText("A package holds more than 0 g")).toBeVisible();
  await drawer.getByLabel("Package 1 holds").fill("400");
  await drawer.getByLabel("Price of package 1").fill("1,2");
  await drawer.getByRole("button", { name: "Save", exact: true }).click();
  await drawer.getByRole("button", { name: "Close" }).click();
  await expect(page.getByText("2 × 400 g")).toBeVisible();
  await expect(page.getByText("at least €2.40, 2 foods have no price yet")).toBeVisible();
  await expect(page.getByText("at least €0.30 a box")).toBeVisible(); // 800 g at 0.003 for eight boxes
});
