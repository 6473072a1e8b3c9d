import AxeBuilder from "@axe-core/playwright";
import type { Page } from "@playwright/test";
import { cook } from "../../../web/src/rooms/cook/words";
import { countDown } from "../../../web/src/rooms/cook/clock";
import { expect, House, test as base } from "../house";

const today = "2026-11-25";

// A kitchen at ten o'clock in which time passes when the test says so: a soup and a pie are planned, and Isa eats of the soup tomorrow.
const test = base.extend<{ kitchen: House & { pass: (minutes: number) => Promise<unknown> } }>({
  // eslint-disable-next-line no-empty-pattern
  kitchen: async ({}, use) => {
    const house = new House(false, `${today}T10:00`);
    await house.open();
    const aim = {
      leading: "energy",
      bands: { energy: { min: 400, target: 425, max: 450 } },
      rule: null,
    };
    const isa = await house.send("POST", "/api/aim/eaters", { name: "Isa", aim, clinicianSetIt: true });
    const recipe = (name: string, lines: string[], steps: string[]) =>
      house.send("POST", "/api/recipes", {
        name,
        portions: 4,
        lines,
        steps: steps.map((text) => ({ text })),
      });
    const soup = await recipe(
      "Soup",
      ["450 g red lentils, dry", "2 onions", "1.2 l water"],
      ["Chop the onions.", "Fry the onions 5 minutes.", "Add the lentils, 2 minutes.", "Simmer 25 minutes."],
    );
    const pie = await recipe(
      "Pie",
      ["800 g potatoes", "1 onion"],
      ["Chop the onion.", "Mix 6 minutes.", "Bake 40 minutes at 180 °C."],
    );
    const [batch] = await house.send("POST", "/api/cook/planned", {
      day: today,
      dishes: [soup, pie].map(({ id }) => ({ recipeId: id, portions: 4 })),
    });
    await house.send(
      "POST",
      "/api/plan/portions",
      { batchId: batch.id, eaterId: isa.id, day: "2026-11-26" },
      0,
    );
    await use(
      Object.assign(house, { pass: (minutes: number) => house.send("POST", "/api/demo/pass", { minutes }) }),
    );
    await house.end();
  },
});

const card = (page: Page, what: string | RegExp) => page.getByRole("article", { name: what });
const done = (page: Page, what: string | RegExp) =>
  card(page, what).getByRole("button", { name: cook.run.done, exact: true });

test("a prep day is cooked on a desk and a phone: it overruns, is laid out anew, something is short, the days follow", async ({
  page,
  context,
  kitchen,
}) => {
  await page.addInitScript(() => {
    const strike = AudioContext.prototype.createOscillator;
    AudioContext.prototype.createOscillator = function () {
      document.documentElement.dataset.struck = "yes";
      return strike.call(this);
    };
  });
  await page.goto(`${kitchen.url}/cook`);
  await page.getByRole("button", { name: cook.run.start }).click();
  await expect(card(page, "Get everything out for 2 dishes")).toBeVisible();
  const phone = await context.newPage();
  await phone.setViewportSize({ width: 390, height: 844 });
  await phone.goto(`${kitchen.url}/cook`);

  // Said on the desk, seen on the phone: the onions of both dishes are next.
  await kitchen.pass(4);
  await done(page, /^Get everything out/).click();
  const chop = "Chop onion: 220 g for Soup, 110 g for Pie";
  await expect(done(phone, chop)).toBeVisible();
  await expect(page.getByText("1 min sooner than planned")).toBeVisible();

  // The onions take far longer than anyone thought: everything behind them moves along, on both.
  await kitchen.pass(22);
  await expect(card(phone, chop).getByText(cook.run.takesLonger)).toBeVisible();
  await expect(page.getByText(/\d+ min later than planned/)).toBeVisible();
  await done(phone, chop).click();
  await expect(card(page, "Mix: Pie")).toBeVisible();

  // There were only 300 g of lentils: weighed in on the phone, by typing, it is said what that does to tomorrow.
  await phone.getByRole("button", { name: "What goes into Soup" }).click();
  await phone.getByRole("button", { name: "Change 450 g red lentils, dry" }).click();
  await phone.getByLabel(cook.weigh.typed).fill("300");
  await phone.getByRole("button", { name: cook.weigh.save }).click();
  await expect(phone.getByText("300 g red lentils, dry")).toBeVisible();
  const effect = phone.getByRole("listitem").filter({ hasText: "Thu 26 Nov Isa" });
  await expect(effect).toContainText(cook.wentIn.fits.fit.not);
  await phone.getByRole("button", { name: "Close" }).click();
  const week = await kitchen.get("/api/plan/weeks/2026-11-26");
  const thursday = week.eaters[0].days.find(({ day }: { day: string }) => day === "2026-11-26");
  await expect(effect).toHaveCount(0);
  expect(thursday.sums.energy.value).toBeLessThan(330);

  // What is due before the oven is hot is said; by one tap after another the pot comes to simmer by itself.
  for (
    let taps = 0;
    taps < 9 && !(await page.getByLabel("Simmer: Soup", { exact: true }).isVisible());
    taps++
  ) {
    await kitchen.pass(2);
    const written = page.waitForResponse((answer) => answer.request().method() === "POST");
    await page.getByRole("article").getByRole("button", { name: cook.run.done, exact: true }).first().click();
    await written;
    await page.waitForTimeout(400);
  }
  const simmer = page.getByLabel("Simmer: Soup", { exact: true });
  await expect(simmer.locator("[data-left]")).toHaveText(/^2[45]:\d\d$/);

  // A reload loses no timer; when its time is up it rings until somebody says so.
  await page.reload();
  await expect(simmer.locator("[data-left]")).toHaveText(/^2[345]:\d\d$/);
  await simmer.getByRole("button", { name: "5 min more" }).click();
  await expect(simmer.locator("[data-left]")).toHaveText(/^(29|30|28):\d\d$/);
  await kitchen.pass(31);
  await expect(simmer.locator("[data-left]")).toHaveText(cook.run.up);
  await expect(page.locator("html")).toHaveAttribute("data-struck", "yes");
  await expect(page).toHaveTitle(/^Ready Simmer: Soup/);
  await page.getByRole("button", { name: cook.run.silence }).click();
  await expect(page.getByRole("button", { name: cook.run.silence })).toHaveCount(0);
  await simmer.getByRole("button", { name: cook.run.done, exact: true }).click();
  await expect(phone.getByLabel("Let Soup cool before the lids go on", { exact: true })).toBeVisible();
  await page.getByRole("button", { name: "Undo" }).first().click();
  await expect(simmer).toBeVisible();

  for (const shown of [page, phone])
    expect((await new AxeBuilder({ page: shown }).analyze()).violations).toEqual([]);

  // Over, it says what differed; written on the recipe, it stands there.
  await page.getByRole("button", { name: cook.run.end, exact: true }).click();
  const note = page.getByLabel("Note on Soup");
  await expect(note).toHaveValue(/300 g red lentils, dry instead of 450 g\./);
  await note.fill("With 300 g of lentils it was thin.");
  await page
    .getByRole("listitem")
    .filter({ has: note })
    .getByRole("button", { name: cook.run.note.keep })
    .click();
  await expect(page.getByText("The note is on the recipe of Soup.")).toBeVisible();
  await expect(phone.getByText(/^Cooked from 10:00 to/)).toBeVisible();
  const [soup] = (await kitchen.get("/api/recipes/names")).filter(
    ({ name }: { name: string }) => name === "Soup",
  );
  await page.goto(`${kitchen.url}/recipes/${soup.id}`);
  await expect(page.getByText("With 300 g of lentils it was thin.")).toBeVisible();
  await page.getByRole("button", { name: /^Take away the note/ }).click();
  await expect(page.getByText("What was different when you cooked it")).toBeVisible();

  // The next prep day is laid out with the time that the onions took.
  await kitchen.send("POST", "/api/cook/planned", {
    day: "2026-11-27",
    dishes: [{ recipeId: soup.id, portions: 4 }],
  });
  await page.goto(`${kitchen.url}/cook?day=2026-11-27`);
  await expect(page.getByText(/min hands-on, as it took you before/).first()).toBeVisible();
});

test("weighed in from the scale and out of the jar, taken back, skipped; the host gone, the run says so and comes back", async ({
  page,
  demo,
}) => {
  // The demo has a scale to play with, and its dal on the ring.
  await page.goto(`${demo.url}/cook?day=${today}`);
  await expect(page.getByLabel("Simmer: Red lentil dal", { exact: true })).toBeVisible();
  await page.getByRole("button", { name: "What goes into Red lentil dal" }).click();
  await page.getByRole("button", { name: "Change 350 g spinach, frozen" }).click();
  const inside = page.locator("[data-inside]");
  await expect(inside).toHaveText("0");
  await demo.send("POST", "/api/devices/play", { act: "put", amount: 302 });
  await expect(inside).toHaveText(/^30[123]$/);
  await page.getByRole("button", { name: cook.weigh.take }).click();
  await expect(page.getByText(/^30[123] g spinach, frozen$/)).toBeVisible();

  // The jar stands on the scale: what it loses went in.
  await page.getByRole("button", { name: "Change 4 tsp curry powder" }).click();
  await page.getByLabel(cook.weigh.jar).check();
  await expect(inside).toHaveText("0");
  await demo.send("POST", "/api/devices/play", { act: "put", amount: -10 });
  await expect(inside).toHaveText(/^(9|10|11)$/);
  await expect(page.getByText(cook.weigh.there)).toBeVisible();
  await page.getByRole("button", { name: cook.weigh.take }).click();
  await expect(page.getByText(/^(9|10|11) g curry powder/)).toBeVisible();
  await page.getByRole("button", { name: "Close" }).click();

  // Skipped by mistake, and taken back.
  await page.getByRole("button", { name: "Begin: Wash up" }).click();
  await page.getByRole("article", { name: "Wash up" }).getByRole("button", { name: cook.run.skip }).click();
  await expect(page.getByRole("button", { name: "Begin: Wash up" })).toHaveCount(0);
  await page.getByText(/things are done$/).click();
  await page.getByRole("button", { name: "Not done after all: Wash up" }).click();

  const begin = page.getByRole("button", { name: "Begin: Wash up" });
  await expect(begin).toBeVisible();
  await page.route("**/run/tasks", (route) => route.abort());
  await begin.click();
  await expect(page.getByText(/does not answer/)).toBeVisible();
  await page.unroute("**/run/tasks");
  await begin.click();
  await expect(done(page, "Wash up")).toBeVisible();
  await page.goto(`${demo.url}/cook?day=2026-12-20`);
  await expect(page.getByRole("heading", { name: cook.noDay })).toBeVisible();
});

test("two cooks each see their own tasks; what each begins is theirs", async ({ page, kitchen }) => {
  const wishes = {
    cooks: [
      { name: "Mo", from: "10:00:00" },
      { name: "Bo", from: "10:00:00" },
    ],
  };
  await kitchen.send("PUT", `/api/cook/days/${today}`, wishes, 0);
  await page.goto(`${kitchen.url}/cook`);
  await page.getByRole("button", { name: cook.run.start }).click();
  await expect(card(page, /^Get everything out/)).toBeVisible();
  await kitchen.pass(5);
  await done(page, /^Get everything out/).click();
  const whose = page.getByRole("group", { name: cook.run.whose });
  await whose.getByRole("button", { name: "Bo" }).click();
  await expect(whose.getByRole("button", { name: "Bo" })).toHaveAttribute("aria-pressed", "true");
  await page.reload();
  await expect(whose.getByRole("button", { name: "Bo" })).toHaveAttribute("aria-pressed", "true");
  await page.getByRole("button", { name: /^Begin: Mix/ }).click();
  await expect(card(page, "Mix: Pie").getByText("Bo", { exact: true })).toBeVisible();
});

test("a count down is read at a glance", () => {
  for (const [minutes, said] of [
    [0.5, "0:30"],
    [12, "12:00"],
    [60, "1 h 00"],
    [245, "4 h 05"],
  ] as const)
    expect(countDown(minutes * 60000)).toBe(said);
});
