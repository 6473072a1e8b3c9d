import type { Page } from "@playwright/test";
import { expect, keepDraft, test, type House } from "../house";
import { screens } from "../screens";

/** Everything that is read on a page, or read out: its lines, and what its parts are called. */
const said = (page: Page) =>
  page.evaluate(() => {
    const lines = new Map<Element, string>();
    const words = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
    for (let node = words.nextNode(); node; node = words.nextNode()) {
      const at = node.parentElement!;
      if (!at.checkVisibility() || at.closest("script, style")) continue;
      // A figure and its unit are often apart.
      const line = at.closest("p, li, td, th, dt, dd, h1, h2, h3, label, button, text, section, div") ?? at;
      lines.set(line, `${lines.get(line) ?? ""}${node.textContent}`);
    }
    const names = ["aria-label", "title", "alt", "placeholder", "aria-valuetext", "aria-description"];
    const called = [...document.querySelectorAll("*")]
      .filter((at) => at.checkVisibility())
      .flatMap((at) => names.flatMap((name) => at.getAttribute(name) ?? []));
    return [...lines.values(), ...called].map((one) => one.replace(/\s+/g, " ").trim()).filter(Boolean);
  });

// A figure with its unit, a column of figures, what a day has room for, a body's weight.
const figure =
  /\bkcal\b|\bkJ\b|\d ?pt\b|\d ?points?\b|\bg (protein|fat|carbs|carbohydrate|fibre|salt)\b|^(kcal|energy|protein|carbs|net carbs|fat|fibre|points)\b|\b(room for|to go|left to [\d,]+$|over in|short of)\b|\d days? fits?\b|\d kg (a week|in)|\bfits\b/i;

const figuresOn = async (page: Page) => (await said(page)).filter((one) => figure.test(one));

const beQuiet = async (house: House, isQuiet = true, name?: string) => {
  for (const one of (await house.get("/api/aim/eaters")) as { id: string; name: string }[])
    if (!name || one.name === name) await house.send("PUT", `/api/aim/eaters/${one.id}/quiet`, { isQuiet });
};

// What is pressed on a screen otherwise where no figures are shown; and the screens that are not there then.
const otherwise: Record<string, ((page: Page) => Promise<void>) | null> = {
  aim: async (page) => {
    for (const part of [
      "Never, and rather not",
      "Other days",
      "Parts of the day",
      "Variety and weekly extra",
    ])
      await page.getByText(part).first().click();
  },
  need: null,
  label: async (page) => {
    await page.getByRole("button", { name: "From a label" }).click();
    await page.getByText("With its numbers").waitFor();
  },
  "swap bench": async (page) => {
    await page.getByRole("link", { name: /lentil dal/ }).click();
    await page.getByRole("button", { name: "Swap", exact: true }).click();
    await page.getByLabel("would be").fill("800 g red lentils, dry");
    await page.getByRole("button", { name: "Take it" }).first().waitFor();
  },
  "day in depth": async (page) => {
    await page
      .getByRole("button", { name: /^Open Thursday/ })
      .first()
      .click();
    await page.getByRole("button", { name: "Why is it here?" }).first().click();
  },
  "what still fits": null,
  review: (page) => page.getByRole("button", { name: "How was it: Barley and mushroom stew" }).click(),
  "review, the body": null,
  "fit again": async (page) => {
    await page.getByRole("button", { name: "Fit the rest again" }).click();
    const sheet = page.getByRole("dialog", { name: "Fit the rest again" });
    await sheet.getByRole("button", { name: "Find a plan" }).click();
    await keepDraft(page);
  },
};

const perTest = 12;
for (let from = 0; from < screens.length; from += perTest) {
  const some = screens.slice(from, from + perTest).filter(([name]) => otherwise[name] !== null);
  test(`no figure of energy or body is shown or read out in quiet mode: ${some[0]![0]} to ${some.at(-1)![0]}`, async ({
    demo,
    browser,
  }) => {
    await beQuiet(demo);
    const found: string[] = [];
    for (const [name, path, act] of some) {
      const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
      await page.goto(demo.url + path);
      await page.getByText("Fetching").waitFor({ state: "detached" });
      await (otherwise[name] ?? act)?.(page);
      for (const width of [1280, 390]) {
        await page.setViewportSize({ width, height: 800 });
        await page.waitForTimeout(200);
        found.push(...(await figuresOn(page)).map((one) => `${name}, ${width}: ${one.slice(0, 120)}`));
      }
      await page.close();
    }
    expect(found).toEqual([]);
  });
}

test("the same eyes find the figures where they are shown", async ({ shown, page }) => {
  for (const path of [
    "/aim",
    "/foods",
    "/recipes",
    "/plan",
    "/keep",
    "/eat",
    "/review",
    "/review?view=body",
  ]) {
    await page.goto(shown.url + path);
    await page.getByText("Fetching").waitFor({ state: "detached" });
    await expect.poll(async () => (await figuresOn(page)).length, path).toBeGreaterThan(2);
  }
});

test("the numbers are left out at one press, for one eater, on every device, and come back as they were", async ({
  demo,
  page,
  browser,
}) => {
  const isa = ((await demo.get("/api/aim/eaters")) as { id: string; name: string }[]).find(
    ({ name }) => name === "Isa",
  )!;
  const all = async () => ({
    week: await demo.get("/api/plan/weeks/2026-11-25"),
    body: await demo.get(`/api/review/body/${isa.id}`),
    review: await demo.get(`/api/review/week/${isa.id}/2026-11-18`),
  });
  const before = await all();
  const open = async (of: Page, path: string) => {
    await of.goto(demo.url + path);
    await of.getByText("Fetching").waitFor({ state: "detached" });
    await of.waitForLoadState("networkidle");
  };
  await open(page, "/aim");
  const own = page.getByRole("region", { name: "Isa", exact: true });
  await own.getByText("Without numbers").click();
  await own.getByRole("button", { name: "Leave the numbers out" }).click();
  await expect(own.getByRole("button", { name: "Show the numbers again" })).toBeVisible();
  expect(await figuresOn(page)).toEqual([]);

  // Taken back like anything else.
  await page.getByRole("button", { name: "Undo", exact: true }).first().click();
  await expect(own.getByRole("columnheader", { name: "most" })).toBeVisible();
  await own.getByRole("button", { name: "Leave the numbers out" }).click();
  await expect(own.getByRole("columnheader", { name: "most" })).toBeHidden();

  // Another device knows it too; the keys of the measures are asleep.
  const phone = await browser.newPage({ viewport: { width: 390, height: 844 } });
  await open(phone, "/eat");
  expect(await figuresOn(phone)).toEqual([]);
  await phone.keyboard.press("2");
  await phone.waitForTimeout(200);
  expect(await figuresOn(phone)).toEqual([]);

  // Whoever else eats here sees their own.
  await phone.getByRole("button", { name: "Bram" }).click();
  await expect.poll(async () => (await figuresOn(phone)).length).toBeGreaterThan(2);
  await open(page, "/plan");
  await page.getByRole("button", { name: "all", exact: true }).click();
  expect(await figuresOn(page)).toEqual([]);
  await page.getByRole("button", { name: "Noor", exact: true }).click();
  await expect.poll(async () => (await figuresOn(page)).length).toBeGreaterThan(2);
  await page.getByRole("button", { name: "Isa", exact: true }).click();
  await expect.poll(() => figuresOn(page)).toEqual([]);

  // Nothing that was written is any other for it.
  expect(await all()).toEqual({ ...before, week: expect.anything() });
  await phone.close();
  await open(page, "/aim");
  await own.getByRole("button", { name: "Show the numbers again" }).click();
  await expect(own.getByRole("columnheader", { name: "most" })).toBeVisible();
  const after = await all();
  expect(after).toEqual(before);
});

test("what an eater must never get is said without numbers as well", async ({ demo, page }) => {
  const [first] = await demo.get("/api/aim/eaters");
  const { id, name, aim, ways } = first;
  await beQuiet(demo);
  const { version: seen } = await demo.get("/api/plan/weeks/2026-11-25");
  await demo.send("POST", "/api/plan/foods", { text: "2 eggs", eaterId: id, day: "2026-11-28" }, seen);
  const [{ version }] = await demo.get("/api/aim/eaters");
  const written = { name, aim, ways: { ...ways, neverAllergens: ["eggs"] } };
  await demo.send("PUT", `/api/aim/eaters/${id}`, written, version);
  await page.goto(`${demo.url}/plan`);
  const asked = page.getByRole("alert");
  await expect(asked).toContainText(`${name}, Sat 28 Nov: 2 eggs holds eggs`);
  await asked.getByRole("button", { name: /^Leave/ }).click();
  await expect(
    page.locator(`[data-day="${id}|2026-11-28"]`).getByText(`never for ${name}`).first(),
  ).toBeVisible();
  await page.getByRole("button", { name: `Open Saturday 28 November, ${name}` }).click();
  await expect(page.getByText(`Something on this day is never for ${name}`)).toBeVisible();
  expect(await figuresOn(page)).toEqual([]);
  await page.goto(`${demo.url}/eat?day=2026-11-28`);
  await expect(page.getByRole("main").getByText(`never for ${name}`).first()).toBeVisible();
});

test("cooking, eating and paper go on without numbers: a supper by its name, a food without its label, a label of a box", async ({
  demo,
  page,
}) => {
  await beQuiet(demo, true, "Isa");
  await page.goto(`${demo.url}/eat`);
  const main = page.getByRole("main");
  await main.getByRole("button", { name: "Ate it: Fish and fennel tray bake" }).click();
  await expect(page.getByText("Fish and fennel tray bake eaten.").first()).toBeVisible();
  const entry = page.getByLabel("What else was eaten, and how much");
  await entry.fill("supper at the harbour");
  await page.getByRole("button", { name: "Note its name only" }).click();
  await expect(page.getByRole("button", { name: "Note its name only" })).toHaveCount(0);
  await entry.press("Enter");
  await expect(page.getByText("supper at the harbour written down.").first()).toBeVisible();
  expect(await figuresOn(page)).toEqual([]);

  // What is not known is not taken for nothing: the day says so once the numbers are back.
  const eaters = (await demo.get("/api/aim/eaters")) as { id: string; name: string }[];
  const idOf = (whose: string) => eaters.find(({ name }) => name === whose)!.id;
  const id = idOf("Isa");
  const { day } = await demo.get(`/api/eat/${id}/2026-11-25`);
  expect(day.eaten.energy.certainty).toBe("atLeast");

  // A food is written down by its name; it has no figures, and a recipe knows it all the same.
  await page.goto(`${demo.url}/foods`);
  await page.getByRole("button", { name: "From a label" }).click();
  await page.getByLabel("Called").fill("Keeper's spice mix");
  await page.getByRole("button", { name: "Write it down" }).click();
  await expect(page.getByRole("heading", { name: "Keeper's spice mix" })).toBeVisible();
  const [mix] = await demo.get("/api/foods?query=Keeper%27s%20spice%20mix");
  expect([mix.name, mix.per100g.energy.certainty]).toEqual(["Keeper's spice mix", "atLeast"]);

  // Paper: no figure on the box that is hers, nor on one that may become hers; on Bram's his stand.
  const groups = (await demo.get("/api/keep")).groups as {
    boxes: { id: string; eaterId: string | null }[];
  }[];
  const paper = async (whose: string | null) => {
    const ids = groups
      .flatMap(({ boxes }) => boxes)
      .filter(({ eaterId }) => eaterId === whose)
      .map((box) => box.id);
    expect(ids.length, String(whose)).toBeGreaterThan(0);
    const { pages } = await demo.send("POST", "/api/labels", { paper: "a4-3x8", boxIds: ids });
    return (pages as string[]).join("");
  };
  expect(await paper(id)).not.toMatch(/kcal|protein/);
  expect(await paper(null)).not.toMatch(/kcal|protein/);
  expect(await paper(idOf("Bram"))).toMatch(/kcal/);
  const calendar = async (whose: string) => (await fetch(`${demo.url}/api/plan/calendar.ics${whose}`)).text();
  expect(await calendar(`?eaterId=${id}`)).not.toContain("kcal");
  expect(await calendar("")).toContain("kcal");
});
