import type { Page } from "@playwright/test";
import { expect, House, test as base } from "../house";

// Wednesday morning of the demo, with a clock that goes on when it is told to.
const test = base.extend<{ house: House }>({
  // eslint-disable-next-line no-empty-pattern
  house: async ({}, use) => {
    const house = new House(true, "2026-11-25T07:05");
    await house.open();
    await use(house);
    await house.end();
  },
});

interface Eat {
  day: {
    eaten: Record<string, { value: number }>;
    sums: Record<string, { value: number }>;
    items: { id: string; name: string; eatenAt: string | null; figures: Record<string, { value: number }> }[];
    fits: boolean;
  };
}

const pass = (house: House, minutes: number) => house.send("POST", "/api/demo/pass", { minutes });

const numberIn = (text: string) => Number(/-?[\d,]+/.exec(text)![0].replace(/,/g, ""));

/** What the large figure says is left. */
const left = async (page: Page) =>
  numberIn(await page.getByRole("main").getByRole("region", { name: "Wednesday 25 November" }).innerText());

test("a day lived: eaten as planned and not quite, a surprise, the rest fitted again, a batch corrected, looked back on, and the numbers left out", async ({
  house,
  page,
}) => {
  const isa = ((await house.get("/api/aim/eaters")) as { id: string; name: string }[]).find(
    ({ name }) => name === "Isa",
  )!.id;
  const eat = async (day = "2026-11-25") => ((await house.get(`/api/eat/${isa}/${day}`)) as Eat).day;
  const kcal = (figures: Record<string, { value: number }>) => figures.energy!.value;
  const main = page.getByRole("main");
  const entry = page.getByLabel("What else was eaten, and how much");

  // Morning: what lay there is eaten by a press; milk in the coffee is typed.
  await page.goto(`${house.url}/eat`);
  const planned = kcal((await eat()).sums);
  const atFirst = await left(page);
  await entry.fill("coffee with 60 ml whole milk");
  await entry.press("Enter");
  await expect(page.getByText(/written down\./).first()).toBeVisible();
  const milk = kcal((await eat()).sums) - planned;
  expect(milk).toBeGreaterThan(20);
  await expect.poll(() => left(page)).toBe(Math.round(atFirst - milk));

  // Noon: not all of the fish, the rest goes back to the shelf.
  await pass(house, 330);
  await page.reload();
  await main.getByRole("button", { name: "Not quite: Fish and fennel tray bake" }).click();
  const sheet = page.getByRole("dialog");
  await sheet.getByLabel("Or type it").fill("half");
  await sheet.getByRole("button", { name: "Ate that" }).click();
  await expect(sheet).toHaveCount(0);
  const half = (await eat()).items.find(({ name }) => name.startsWith("Fish"))!;
  expect(half.eatenAt).not.toBeNull();

  // Afternoon: a birthday, as a guess with its range; the day is out now.
  await pass(house, 180);
  await entry.fill("birthday cake 500-700 kcal");
  await entry.press("Enter");
  await expect(page.getByText(/birthday cake.*written down\./).first()).toBeVisible();
  await expect(main.getByText("give or take 100 kcal", { exact: false }).first()).toBeVisible();
  const eatenThen = (await eat()).items.filter(({ eatenAt }) => eatenAt).map(({ id }) => id);

  // The rest of the day is filled again around it; nothing that was eaten moves.
  await page.getByRole("button", { name: "Fit the rest again" }).click();
  const again = page.getByRole("dialog", { name: "Fit the rest again" });
  await again.getByRole("combobox", { name: "Days" }).selectOption({ index: 1 });
  await again.getByLabel("everything not eaten or locked").check();
  await again.getByRole("button", { name: "Find a plan" }).click();
  await again.getByRole("button", { name: /^Take/ }).first().click();
  await expect(again).toHaveCount(0);
  const fitted = await eat();
  expect(fitted.items.filter(({ eatenAt }) => eatenAt).map(({ id }) => id)).toEqual(eatenThen);
  expect(fitted.items.some(({ name }) => name === "birthday cake")).toBe(true);

  // Evening: what lies there is eaten, whatever it is; then the large figure is the aim less what was eaten.
  await pass(house, 240);
  await page.reload();
  const waiting = main.getByRole("button", { name: /^Ate it:/ });
  await expect(waiting.first()).toBeVisible();
  for (let many = await waiting.count(); many > 0; many--) {
    await waiting.first().click();
    await expect(waiting).toHaveCount(many - 1);
  }
  const done = await eat();
  expect(kcal(done.eaten)).toBeCloseTo(kcal(done.sums), 6);
  const by = done.items.reduce((sum, { figures }) => sum + kcal(figures), 0);
  expect(by).toBeCloseTo(kcal(done.eaten), 6);

  // The pancakes had butter nobody wrote down: the eaten day gets it beside its entry when that is said.
  const pancakes = done.items.find(({ name }) => name === "Buckwheat pancakes")!;
  await page.goto(`${house.url}/pack`);
  await page
    .getByRole("region", { name: "In their boxes" })
    .getByRole("link", { name: /Buckwheat pancakes/ })
    .first()
    .click();
  await page.getByText("What really went in").click();
  const lines = page.locator("details").filter({ hasText: "What really went in" });
  await lines.getByLabel("Forgotten on the list").fill("80 g butter");
  await lines.getByRole("button", { name: "Add", exact: true }).click();
  const before = page.getByRole("region", { name: "Eaten already" });
  await expect(before).toContainText("Isa: Buckwheat pancakes");
  expect(kcal((await eat()).items.find(({ id }) => id === pancakes.id)!.figures)).toBe(
    kcal(pancakes.figures),
  );
  await before.getByRole("button", { name: /^Correct/ }).click();
  await expect(before).toHaveCount(0);
  const corrected = await eat();
  const more = kcal(corrected.items.find(({ id }) => id === pancakes.id)!.figures) - kcal(pancakes.figures);
  expect(more).toBeGreaterThan(20);
  expect(kcal(corrected.eaten)).toBeCloseTo(kcal(done.eaten) + more, 6);
  await page.goto(`${house.url}/eat`);
  const said = await main
    .getByText(/^Corrected on /)
    .first()
    .innerText();
  expect(numberIn(/: \+([\d,]+) kcal/.exec(said)![1]!)).toBe(Math.round(more));

  // Looked back on once the day is over: the week knows the cake, the half and the correction, and its day is the day.
  await pass(house, 720);
  await page.goto(`${house.url}/review?week=2026-11-23`);
  const week = page.getByRole("region", { name: "The week as it was" });
  const causes = await week.getByRole("img", { name: /^What was eaten otherwise/ }).textContent();
  expect(causes).toContain("Meals out, not planned once+600");
  expect(causes).toMatch(/Corrected later \d times\+\d+/);
  expect(causes).toMatch(/More or less of it once−\d+/);
  expect(causes).not.toContain("Toppings");
  const review = (await house.get(`/api/review/week/${isa}/2026-11-25`)) as {
    days: { day: string; eaten: Record<string, { value: number }> | null }[];
  };
  expect(kcal(review.days.find(({ day }) => day === "2026-11-25")!.eaten!)).toBeCloseTo(
    kcal(corrected.eaten),
    6,
  );

  // And when counting is enough for now: no number, the same day, the same dishes; and back.
  await page.goto(`${house.url}/aim`);
  const own = page.getByRole("region", { name: "Isa", exact: true });
  await own.getByText("Without numbers").click();
  await own.getByRole("button", { name: "Leave the numbers out" }).click();
  await expect(own.getByRole("button", { name: "Show the numbers again" })).toBeVisible();
  await page.goto(`${house.url}/eat?day=2026-11-25`);
  await expect(main.getByText("birthday cake").first()).toBeVisible();
  await expect.poll(() => main.innerText()).not.toMatch(/kcal|protein/);
  await page.goto(`${house.url}/review?week=2026-11-23`);
  await expect(page.getByText("What was eaten, and how it was")).toBeVisible();
  await expect.poll(() => main.innerText()).not.toMatch(/kcal|protein/);
  await page.goto(`${house.url}/aim`);
  await own.getByRole("button", { name: "Show the numbers again" }).click();
  await expect(own.getByRole("button", { name: "Leave the numbers out" })).toBeVisible();
  expect(await eat()).toEqual(corrected);
});
