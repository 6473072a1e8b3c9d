import AxeBuilder from "@axe-core/playwright";
import type { Page } from "@playwright/test";
import { cook } from "../../../web/src/rooms/cook/words";
import { timeIn } from "../../../web/src/ui/numbers";
import { expect, test } from "../house";

const day = "2026-11-29";
const proven = (page: Page) => expect(page.getByText(cook.proven)).toBeVisible({ timeout: 15_000 });
const typeInto = async (page: Page, label: string, text: string) => {
  await page.getByLabel(label, { exact: true }).fill(text);
  await page.getByLabel(label, { exact: true }).press("Enter");
};

test("the day ahead is laid out, another cook is tried and kept, and a supper that can't be met says so", async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.url}/plan`);
  await page.getByRole("link", { name: /^Cook/ }).click();
  await page.getByRole("button", { name: "Sun 29 Nov" }).click();
  await proven(page);
  const sheet = page.getByRole("region", { name: "In words" });
  await expect(sheet.getByText("Get everything out for 6 dishes")).toBeVisible();
  await expect(sheet.getByText("Chop onion: 330 g for Barley and mushroom stew")).toBeVisible();
  await expect(sheet.getByText("Turn the oven to 180 °C")).toBeVisible();

  // A helper for an hour: tried, nothing saved; back, and as it was; again, and kept.
  const addHelper = async () => {
    await page.getByRole("button", { name: "Add a helper" }).click();
    await typeInto(page, "Cook 2 from", "10.30");
    await typeInto(page, "Cook 2 until", "1130");
  };
  await addHelper();
  await expect(page.getByText(/min sooner than now/)).toBeVisible();
  await expect(sheet.getByText("Cook 2:").first()).toBeVisible();
  const saved = () => demo.get(`/api/cook/days/${day}`);
  expect([(await saved()).version, (await saved()).wishes.cooks.length]).toEqual([0, 1]);
  await page.getByRole("button", { name: "Back to how it was" }).click();
  await expect(sheet.getByText("Cook 2:")).toHaveCount(0);
  await addHelper();
  await page.getByRole("button", { name: "Keep this" }).click();
  await expect(page.getByText("The day is as you tried it.")).toBeVisible();
  expect(
    (await saved()).wishes.cooks.map(({ from, to }: { from: string; to: string }) => [from, to]),
  ).toEqual([
    ["10:00:00", null],
    ["10:30:00", "11:30:00"],
  ]);
  await page.reload();
  await expect(page.getByLabel("Cook 2 until", { exact: true })).toHaveValue("11:30");

  // A time that is none stays in its field and changes nothing.
  await typeInto(page, "Done by", "later");
  await expect(page.getByLabel("Done by")).toHaveAttribute("aria-invalid", "true");
  await typeInto(page, "Done by", "");
  await page.getByLabel("Supper that day").selectOption({ label: "Barley and mushroom stew" });
  await typeInto(page, "On the table at", "11 am");
  await expect(page.getByRole("alert").filter({ hasText: "late for what is asked" })).toBeVisible();
  await expect(page.getByText("What would help")).toBeVisible();
  await expect(page.getByText(/^Begin \d+ min sooner: everything on time/)).toBeVisible();

  // Without a dish it is gone from the words; the batch stays planned.
  await page.getByRole("button", { name: "Back to how it was" }).click();
  await page.getByLabel("Cook Buckwheat pancakes on this day").uncheck();
  await expect(sheet.getByText("Get everything out for 5 dishes")).toBeVisible();
  await expect(sheet.getByText(/Buckwheat/)).toHaveCount(0);
  expect((await saved()).batches).toHaveLength(6);
});

test("another hand was quicker: the day is shown as it is now, and what was tried is not lost", async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.url}/cook?day=${day}`);
  await proven(page);
  await typeInto(page, "Cook 1 from", "9");
  await demo.send("PUT", `/api/cook/days/${day}`, { cooks: [{ name: "Noor", from: "08:00:00" }] }, 0);
  await page.getByRole("button", { name: "Keep this" }).click();
  await expect(page.getByText("This was changed elsewhere")).toBeVisible();
  await expect(page.getByLabel("Cook 1 from", { exact: true })).toHaveValue("9:00");
  await page.getByRole("button", { name: "Keep this" }).click();
  await expect(page.getByText("The day is as you tried it.")).toBeVisible();
  expect((await demo.get(`/api/cook/days/${day}`)).wishes.cooks[0].from).toBe("09:00:00");
});

test("what the kitchen has and when it must be quiet is written down once", async ({ page, demo }) => {
  await page.goto(`${demo.url}/cook?day=${day}`);
  await page.getByRole("button", { name: "Everything in the kitchen" }).click();
  const dialog = page.getByRole("dialog");
  await dialog.getByLabel("How many: Rings").fill("two");
  await dialog.getByRole("button", { name: "Save the kitchen" }).click();
  await expect(dialog.getByRole("alert")).toContainText("0 to 20");
  await dialog.getByLabel("How many: Rings").fill("1");
  await dialog.getByRole("button", { name: "Add a quiet time" }).click();
  await dialog.getByLabel("Quiet until").fill("13:00");
  await dialog.getByLabel("Quiet until").press("Tab");
  await dialog.getByRole("button", { name: "Save the kitchen" }).click();
  await expect(dialog).toHaveCount(0);
  const { equipment } = await demo.get("/api/cook/kitchen");
  expect(equipment.items.find(({ kind }: { kind: string }) => kind === "ring").count).toBe(1);
  expect(equipment.quiet).toEqual([{ from: "08:00:00", to: "13:00:00", kinds: ["blender"] }]);
  await proven(page);
});

test("an empty house says what will be here; on a phone the day is read and tried too", async ({
  page,
  empty,
}) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto(`${empty.url}/cook`);
  await expect(page.getByRole("heading", { name: cook.none.title })).toBeVisible();
  await expect(page.getByRole("link", { name: cook.none.toPlan })).toBeVisible();

  // A recipe as somebody types it, without steps; then with them.
  const recipe = await empty.send("POST", "/api/recipes", {
    name: "Pasta pot",
    portions: 4,
    lines: ["500 g pasta, dry", "2 onions, chopped"],
  });
  await empty.send("POST", "/api/cook/planned", { day, dishes: [{ recipeId: recipe.id, portions: 4 }] });
  await page.reload();
  await expect(page.getByText("Pasta pot has no steps, so its times are a guess.")).toBeVisible();
  await page.getByRole("link", { name: "Write its steps" }).click();
  await page.getByRole("button", { name: "Add a step" }).click();
  await page
    .getByLabel("Step 1", { exact: true })
    .fill("Fry the onions 6 min, then simmer 1/4 hour with the lid on");
  await expect(page.getByText("Read: 6 min hands-on · 15 min by itself · ring")).toBeVisible();
  await expect(page.getByLabel("min unattended")).toHaveAttribute("placeholder", "15");
  await page.getByRole("button", { name: "All of it is hands-on" }).click();
  await expect(page.getByText("21 min hands-on, 0 min unattended")).toBeVisible();
  await page.getByRole("button", { name: "As the sentence says" }).click();
  await expect(page.getByText("6 min hands-on, 15 min unattended")).toBeVisible();
  await expect(page.getByText("saved", { exact: true })).toBeVisible();
  await page.getByRole("link", { name: /^Cook/ }).click();
  await proven(page);
  await expect(page.getByText(/has no steps/)).toHaveCount(0);
  await page.getByLabel("Cook Pasta pot on this day").uncheck();
  await expect(page.getByText(cook.allOut)).toBeVisible();
  const overflow = await page.evaluate(() => document.documentElement.scrollWidth - innerWidth);
  expect(overflow).toBeLessThanOrEqual(0);
});

test("a sentence is read as it is typed: two ways, what it needs, what nobody understands", async ({
  page,
  empty,
}) => {
  const recipe = await empty.send("POST", "/api/recipes", {
    name: "Wings",
    portions: 4,
    lines: ["1 kg chicken wings"],
  });
  await page.goto(`${empty.url}/recipes/${recipe.id}?view=steps`);
  await page.getByRole("button", { name: "Add a step" }).click();
  const step = page.getByLabel("Step 1", { exact: true });
  await step.fill("Roast 40 min at 200 °C or air-fry 20 min at 190 °C.");
  await expect(page.getByText("Read: 40 min by itself · 200 °C · oven")).toBeVisible();
  await expect(page.getByText("or: 20 min by itself · 190 °C · air fryer")).toBeVisible();
  await expect(page.getByLabel("°C")).toHaveAttribute("placeholder", "200");
  await expect(page.getByRole("button", { name: "oven", exact: true })).toHaveAttribute(
    "aria-pressed",
    "true",
  );

  // A press says otherwise; what is said stands beside what was read, and one press goes back.
  await page.getByRole("button", { name: "tray", exact: true }).click();
  await expect(page.getByRole("button", { name: "tray", exact: true })).toHaveAttribute(
    "aria-pressed",
    "true",
  );
  await expect(page.getByText("saved", { exact: true })).toBeVisible();
  const saved = async () => (await empty.get(`/api/recipes/${recipe.id}`)).steps[0];
  await expect.poll(async () => (await saved()).occupies).toEqual(["oven", "tray"]);
  expect((await saved()).unattended).toBeNull();
  await page.getByRole("button", { name: "As the sentence says" }).click();
  await expect.poll(async () => (await saved()).occupies).toBeNull();

  await step.fill("Cook in the rice cooker.");
  await expect(page.getByRole("alert").filter({ hasText: "rice cooker" })).toBeVisible();
  await step.fill("Hm.");
  await expect(page.getByText("Nothing read from this sentence yet")).toBeVisible();
  await step.fill("Whisk 5 minutes.");
  await page.getByRole("button", { name: "It goes by itself" }).click();
  await expect(page.getByText("0 min hands-on, 5 min unattended")).toBeVisible();
});

test("one more of a machine is tried like a helper; printed, the day is its words alone", async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.url}/cook?day=${day}`);
  await proven(page);
  await page.getByRole("button", { name: "One Rings fewer" }).click();
  await page.getByRole("button", { name: "One Rings fewer" }).click();
  await page.getByRole("button", { name: "One Rings fewer" }).click();
  await expect(page.getByText(/min later than now/)).toBeVisible();
  await page.getByRole("button", { name: "One Rings more" }).click();
  await expect(page.getByText("No sooner and no later than now")).toBeVisible();
  await page.getByRole("button", { name: "One Rings more" }).click();
  await page.getByRole("button", { name: "One Rings more" }).click();
  await expect(page.getByText("Trying it out")).toHaveCount(0);
  await page.emulateMedia({ media: "print" });
  await expect(page.getByText("Sunday 29 November")).toBeVisible();
  await expect(page.getByText("Get everything out for 6 dishes", { exact: true })).toBeVisible();
  for (const hidden of ["Who cooks", "Print", "The day on a clock"])
    await expect(page.getByText(hidden, { exact: true })).toBeHidden();
});

test("the host gone, a day says so and comes back", async ({ page, demo }) => {
  await page.route("**/schedule", (route) => route.abort());
  await page.goto(`${demo.url}/cook?day=${day}`);
  const again = page.getByRole("button", { name: "Try again" });
  await expect(again).toBeVisible();
  await page.unroute("**/schedule");
  await again.click();
  await proven(page);
  await page.goto(`${demo.url}/cook?day=2026-12-20`);
  await expect(page.getByRole("heading", { name: cook.noDay })).toBeVisible();
});

test("nothing on the prep day hinders anyone", async ({ page, demo }) => {
  await page.goto(`${demo.url}/cook?day=${day}`);
  await proven(page);
  for (const ground of ["light", "dark"]) {
    await page.evaluate((now) => (document.documentElement.dataset.ground = now), ground);
    expect((await new AxeBuilder({ page }).analyze()).violations).toEqual([]);
  }
});

test("times of day are read as they are typed", () => {
  for (const [typed, time] of [
    ["10", "10:00"],
    ["9:05", "09:05"],
    ["18h30", "18:30"],
    ["1030", "10:30"],
    ["6 pm", "18:00"],
    ["12 am", "00:00"],
    ["6.15", "06:15"],
  ] as const)
    expect(timeIn(typed), typed).toBe(time);
  for (const typed of ["", "25", "10:75", "13 pm", "noonish", "1:2:3"])
    expect(timeIn(typed), typed).toBeNull();
});

test("Sunday's dinner is chopped and boiled for today, waits on the shelf, and only the rest is left for its evening", async ({
  page,
  empty,
}) => {
  const aim = { leading: "energy", bands: { energy: { min: 1450, target: 1525, max: 1600 } }, rule: null };
  await empty.send("POST", "/api/aim/eaters", { name: "Isa", aim });
  const recipe = (name: string, lines: string[], steps: string[]) =>
    empty.send("POST", "/api/recipes", { name, portions: 4, lines, steps: steps.map((text) => ({ text })) });
  const soup = await recipe("Soup", ["2 onions"], ["Chop the onions.", "Simmer 25 minutes."]);
  const stew = await recipe(
    "Stew",
    ["3 onions", "400 g pearl barley"],
    ["Chop the onions.", "Boil the barley for 30 minutes, up to 2 days ahead.", "Simmer 40 minutes."],
  );
  const planned = (day: string, recipeId: string) =>
    empty.send("POST", "/api/cook/planned", { day, dishes: [{ recipeId, portions: 4 }] });
  await planned("2026-11-25", soup.id);
  await planned("2026-11-27", stew.id);

  await page.goto(`${empty.url}/cook?day=2026-11-25`);
  await page.getByLabel("Prepare Stew on this day").check();
  await expect(page.getByText("Chop onion: 220 g for Soup, 330 g for Stew", { exact: true })).toBeVisible();
  await expect(page.getByText("Put away what is ready for Stew", { exact: true })).toBeVisible();
  await page.getByRole("button", { name: "Keep this" }).click();
  await expect(page.getByText("The day is as you tried it.")).toBeVisible();
  await page.getByRole("button", { name: "It is done" }).click();
  await expect(page.getByText("What can be done ahead for Stew is done.")).toBeVisible();
  await expect(page.getByLabel("Prepare Stew on this day")).toHaveCount(0);

  await page.goto(`${empty.url}/plan`);
  const waiting = page.getByRole("region", { name: "Done ahead" });
  await expect(waiting).toContainText("330 g onion, chopped");
  await waiting.getByLabel("Where it stands: onion").selectOption("freezer");
  await expect.poll(async () => (await empty.get("/api/cook/ahead"))[0].place).toBe("freezer");

  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto(`${empty.url}/cook?day=2026-11-27`);
  await expect(page.getByText("Simmer: Stew", { exact: true })).toBeVisible();
  await expect(page.getByText("Simmer 40 minutes.")).toBeVisible();
  await expect(page.getByText("Boil the barley")).toHaveCount(0);
  await expect(page.getByText("Chop 330 g")).toHaveCount(0);
});
