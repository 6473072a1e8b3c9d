import { dayOf, expect, test, type House } from "../house";
import type { Page } from "@playwright/test";

interface Week {
  version: number;
  eaters: { eaterId: string; name: string; days: { day: string; items: Item[] }[] }[];
}
interface Eater {
  id: string;
  name: string;
  version: number;
  aim: { bands: Record<string, { min?: number | null; max?: number | null }> };
}
interface Item {
  id: string;
  name: string;
  text: string | null;
  slot: string | null;
  eatenAt: string | null;
}

const today = "2026-11-25";
const itemsOf = async (house: House, eater: number, day: string) =>
  ((await house.get(`/api/plan/weeks/${today}`)) as Week).eaters[eater]!.days.find((one) => one.day === day)!
    .items;

/** Lays plain foods on a day of the first eater. */
async function lay(house: House, texts: string[], day = today) {
  const { eaters } = (await house.get(`/api/plan/weeks/${today}`)) as Week;
  for (const text of texts) {
    const { version } = (await house.get(`/api/plan/weeks/${today}`)) as Week;
    await house.send("POST", "/api/plan/foods", { text, eaterId: eaters[0]!.eaterId, day }, version);
  }
}

/** Holds what is sent to an address until it is let go, so that a hand is quicker than the host. */
async function slow(page: Page, address: string) {
  let letGo = () => {};
  const gate = new Promise<void>((go) => (letGo = go));
  await page.route(address, async (route) => {
    await gate;
    await route.continue();
  });
  return letGo;
}

test("two quick ticks are both eaten, and two quick deletes both gone", async ({ page, demo }) => {
  await lay(demo, ["1 kiwi", "1 mango", "1 peach"]);
  await page.goto(`${demo.url}/eat`);
  let letGo = await slow(page, "**/api/eat/items/*");
  await page.getByRole("button", { name: "Ate it: kiwi fruit" }).click();
  await page.getByRole("button", { name: "Ate it: mango" }).click();
  letGo();
  await expect(page.getByRole("button", { name: "Not eaten after all: mango" })).toBeVisible();
  await expect(page.getByRole("button", { name: "Not eaten after all: kiwi fruit" })).toBeVisible();

  await lay(demo, ["1 kiwi", "1 mango"], "2026-11-27");
  await page.goto(`${demo.url}/plan`);
  const friday = dayOf(page, "Friday");
  letGo = await slow(page, "**/api/plan/items/*");
  await friday.getByRole("button", { name: /^kiwi/ }).press("Delete");
  await friday.getByRole("button", { name: /^mango/ }).press("Delete");
  letGo();
  await expect(friday.getByRole("button", { name: /^(kiwi|mango)/ })).toHaveCount(0);
  await expect(page.getByText(/changed elsewhere/)).toHaveCount(0);
});

test("an undo that fails gives its step back", async ({ page, demo }) => {
  await page.goto(`${demo.url}/plan`);
  const entry = page.getByLabel("What to add, and how much");
  await entry.fill("2 kiwis");
  await entry.press("Enter");
  await expect(entry).toHaveValue("");
  await page.route("**/undo", (route) => route.abort());
  const undo = page.getByRole("button", { name: "Undo", exact: true });
  await undo.click();
  await expect(page.getByText(/The program does not answer/)).toBeVisible();
  await expect(undo).toBeEnabled();
  await page.unroute("**/undo");
  await undo.click();
  await expect(page.getByText("Undone. 2 kiwis laid on Wednesday 25 November.")).toBeVisible();
  expect((await itemsOf(demo, 0, today)).some(({ text }) => text === "2 kiwis")).toBe(false);
});

test("the part of the day that was chosen is the one that is sent", async ({ page, demo }) => {
  await lay(demo, ["1 kiwi"], "2026-11-27");
  await page.goto(`${demo.url}/plan`);
  await page.getByRole("button", { name: /^Open Friday/ }).click();
  const part = page.getByLabel("Part of the day for 1 kiwi");
  const slot = await part.locator("option").nth(1).innerText();
  await part.selectOption(slot);
  await expect(part).toHaveValue(slot);
  expect((await itemsOf(demo, 0, "2026-11-27")).find(({ text }) => text === "1 kiwi")!.slot).toBe(slot);
});

test("what is carried goes back to where it was, or off its day, by a word that says so", async ({
  page,
  demo,
}) => {
  await lay(demo, ["1 kiwi"], "2026-11-27");
  await page.goto(`${demo.url}/plan`);
  const plum = dayOf(page, "Friday").getByRole("button", { name: /^kiwi/ });
  await plum.click();
  await page.getByRole("button", { name: "Leave it where it was" }).click();
  await expect(plum).toHaveCount(1);
  await plum.click();
  await expect(page.getByRole("button", { name: "Close", exact: true })).toHaveCount(0);
  await page.getByRole("button", { name: "Take it off this day" }).click();
  await expect(plum).toHaveCount(0);
});

test("an amount that is left while it is on its way is written once, and one undo takes it back", async ({
  page,
  demo,
}) => {
  await lay(demo, ["1 kiwi"], "2026-11-27");
  await page.goto(`${demo.url}/plan`);
  await page.getByRole("button", { name: /^Open Friday/ }).click();
  const amount = page.getByLabel("How much 1 kiwi");
  const letGo = await slow(page, "**/api/plan/items/*");
  await amount.fill("3 kiwis");
  await amount.press("Enter");
  await amount.press("Tab");
  letGo();
  await expect(page.getByLabel("How much 3 kiwis")).toBeVisible();
  await page.getByRole("button", { name: "Close", exact: true }).click();
  await expect(page.getByRole("dialog")).toHaveCount(0);
  await page.keyboard.press("Control+z");
  const texts = async () => (await itemsOf(demo, 0, "2026-11-27")).map(({ text }) => text);
  await expect.poll(texts).toContain("1 kiwi");
  expect(await texts()).not.toContain("3 kiwis");
});

test("a weight with a comma for thousands is thousands", async ({ page, demo }) => {
  await page.goto(`${demo.url}/pack`);
  await page.getByRole("region", { name: "To be packed" }).getByRole("link").click();
  await page.getByLabel("Full pan").fill("6,330");
  await page.getByLabel("Empty pan").fill("1,630");
  await expect(page.getByText("4,700 g", { exact: false }).first()).toBeVisible();
});

test("what can't be stored stays in the browser, says so when one comes back, and is sent when the host is there", async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.url}/recipes`);
  await page.getByRole("link", { name: /Seed bars/ }).click();
  const line = page.getByLabel("Line 1", { exact: true });
  await expect(line).toHaveValue("300 g rolled oats");
  await page.route(/\/api\/recipes\/[^/]+$/, (route) =>
    route.request().method() === "PUT" ? route.abort() : route.continue(),
  );
  await line.fill("333 g rolled oats");
  await expect(page.getByText(/The program does not answer/)).toBeVisible();
  await page.getByRole("link", { name: /^Plan/ }).click();
  await expect(page.getByRole("heading", { name: "On the shelf" })).toBeVisible();
  await page.goBack();
  await expect(line).toHaveValue("333 g rolled oats");
  await expect(page.getByText("not saved yet").first()).toBeVisible();
  await page.unrouteAll({ behavior: "wait" });
  await expect(page.getByText("saved", { exact: true })).toBeVisible();
  const [recipe] = ((await demo.get("/api/recipes")) as { id: string; name: string }[]).filter(
    ({ name }) => name === "Seed bars",
  );
  expect((await demo.get(`/api/recipes/${recipe!.id}`)).lines[0]).toBe("333 g rolled oats");
  await page.reload();
  await expect(line).toHaveValue("333 g rolled oats");
  await expect(page.getByText("saved", { exact: true })).toBeVisible();
});

test("where the disk is full it says so, and what was written is stored once there is room", async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.url}/recipes`);
  await page.getByRole("link", { name: /Seed bars/ }).click();
  const line = page.getByLabel("Line 1", { exact: true });
  await expect(line).toHaveValue("300 g rolled oats");
  await page.route(/\/api\/recipes\/[^/]+$/, (route) =>
    route.request().method() === "PUT"
      ? route.fulfill({
          status: 507,
          contentType: "application/problem+json",
          json: { type: "urn:lively-tern:problem:disk-full", status: 507, detail: "The disk is full." },
        })
      : route.continue(),
  );
  await line.fill("444 g rolled oats");
  await expect(page.getByText("The disk is full.")).toBeVisible();
  await expect(page.getByText("not saved yet").first()).toBeVisible();
  await page.unrouteAll({ behavior: "wait" });
  await expect(page.getByText("saved", { exact: true })).toBeVisible();
});

test("an aim that can't be stored stays in the browser, and never goes over another hand's unseen", async ({
  page,
  demo,
}) => {
  const isa = page.getByRole("region", { name: "Isa" });
  const most = isa.getByLabel("Energy, most");
  const away = async () => {
    await page.getByRole("link", { name: /^Plan/ }).click();
    await expect(page.getByRole("heading", { name: "On the shelf" })).toBeVisible();
    await page.goBack();
  };
  const kept = async () =>
    ((await demo.get("/api/aim/eaters")) as Eater[]).find(({ name }) => name === "Isa")!;
  await page.goto(`${demo.url}/aim`);
  await page.route(/\/api\/aim\/eaters\/[^/]+$/, (route) =>
    route.request().method() === "PUT" ? route.abort() : route.continue(),
  );
  await most.fill("1650");
  await most.blur();
  await expect(isa.getByText(/The program does not answer/)).toBeVisible();
  await away();
  await expect(most).toHaveValue("1650");
  await expect(isa.getByText("not saved yet")).toBeVisible();
  await page.unrouteAll({ behavior: "wait" });
  await expect(isa.getByText("saved", { exact: true })).toBeVisible();
  expect((await kept()).aim.bands.energy!.max).toBe(1650);

  // Another hand is first: what was typed here stays, is told, and goes over the other only when it is saved again.
  const other = await kept();
  await page.route(/\/api\/aim\/eaters$/, (route) => route.abort());
  await demo.send(
    "PUT",
    `/api/aim/eaters/${other.id}`,
    {
      name: other.name,
      aim: { ...other.aim, bands: { ...other.aim.bands, energy: { min: 1400, max: 1700 } } },
    },
    other.version,
  );
  await most.fill("1660");
  await most.blur();
  await expect(isa.getByText(/changed elsewhere since you opened it/)).toBeVisible();
  await away();
  await expect(most).toHaveValue("1660");
  await expect(isa.getByText(/changed elsewhere since you opened it/)).toBeVisible();
  expect((await kept()).aim.bands.energy!.max).toBe(1700);
  await most.focus();
  await most.blur();
  await expect(isa.getByText("saved", { exact: true })).toBeVisible();
  expect((await kept()).aim.bands.energy!.max).toBe(1660);
});

test("a browser that thinks it is on no network works all the same", async ({ page, demo }) => {
  await page.addInitScript(() =>
    Object.defineProperty(Navigator.prototype, "onLine", { get: () => false, configurable: true }),
  );
  await page.goto(`${demo.url}/eat`);
  await page.evaluate(() => window.dispatchEvent(new Event("offline")));
  await page.getByPlaceholder("150 g strawberries").fill("1 kiwi");
  await page.getByRole("button", { name: "Ate this" }).click();
  await expect(page.getByRole("button", { name: "Not eaten after all: kiwi fruit" })).toBeVisible();
});

test("at midnight today becomes today by itself", async ({ page, demo }) => {
  await page.clock.install({ time: new Date("2026-11-25T23:59:30") });
  await page.goto(`${demo.url}/plan`);
  await expect(page.getByRole("heading", { name: "On the shelf" })).toBeVisible();
  const asked = page.waitForRequest("**/api/overview*");
  await page.clock.runFor(60_000);
  await asked;
});

test("two browsers that tick different days of one eater are never refused", async ({ browser, demo }) => {
  const names = ["1 kiwi", "1 mango", "1 peach", "1 pear", "1 grapefruit"];
  const days = ["2026-11-24", today];
  for (const day of days) await lay(demo, names, day);
  const tick = async (day: string) => {
    const context = await browser.newContext();
    const page = await context.newPage();
    await page.goto(`${demo.url}/eat?day=${day}`);
    const refused: number[] = [];
    page.on("response", (answer) => {
      if (answer.request().method() === "PUT" && !answer.ok()) refused.push(answer.status());
    });
    for (let round = 0; round < 4; round++) {
      for (const name of ["kiwi", "mango", "peach", "pear", "grapefruit"]) {
        // Straight at the button: the list moves under a hand that is this quick.
        const button = round % 2 === 0 ? `Ate it: ${name}` : `Not eaten after all: ${name}`;
        await page
          .getByRole("button", { name: new RegExp(`^${button}`) })
          .first()
          .dispatchEvent("click");
      }
      const done = round % 2 === 0 ? "Not eaten after all" : "Ate it";
      await expect(page.getByRole("button", { name: new RegExp(`^${done}: grapefruit`) })).not.toHaveCount(0);
    }
    await context.close();
    return refused;
  };
  expect((await Promise.all(days.map(tick))).flat()).toEqual([]);
});
