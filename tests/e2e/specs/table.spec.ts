import { expect, test } from "../house";

const [saturday, sunday] = ["2026-11-28", "2026-11-29"];

test("some of a day is kept free, an eater is away, and guests take portions", async ({ page, demo }) => {
  const dayOf = async (name: string, day: string) => {
    const week = await demo.get("/api/plan/weeks/2026-11-25");
    return week.eaters
      .find((eater: { name: string }) => eater.name === name)
      .days.find((one: { day: string }) => one.day === day);
  };
  await page.goto(`${demo.url}/plan`);
  await page.getByRole("button", { name: "Open Saturday 28 November, Isa" }).click();
  const drawer = page.getByRole("dialog");
  const before = (await dayOf("Isa", saturday)).sums.energy.value;

  // Kept for the evening: it counts until something is laid there.
  await drawer.getByText("Keep some free").click();
  await drawer.getByLabel("How much to keep free").fill("300");
  await drawer.getByLabel("For which part of the day").selectOption("evening");
  await drawer.getByRole("button", { name: "Keep it" }).click();
  await expect.poll(async () => (await dayOf("Isa", saturday)).sums.energy.value).toBe(before + 300);
  const kept = drawer.getByLabel("How much kept free");
  await expect(kept).toHaveValue("300 kcal");
  await kept.fill("200");
  await kept.press("Enter");
  await expect.poll(async () => (await dayOf("Isa", saturday)).sums.energy.value).toBe(before + 200);

  // Two guests: the dish says what is left of it, the day counts nothing more.
  await drawer.getByText("Guests", { exact: true }).click();
  const dish = drawer.getByLabel("Dish for the guests");
  await dish.selectOption({ label: "Red lentil dal, 4,300 g left" });
  await drawer.getByRole("button", { name: "Set aside" }).click();
  await expect(dish.locator("option:checked")).toHaveText("Red lentil dal, 3,440 g left");
  expect((await dayOf("Isa", saturday)).sums.energy.value).toBe(before + 200);
  await expect(drawer.getByText("for guests")).toHaveCount(2);

  // Away: nothing is asked, and what lies there goes to another or into the freezer.
  await drawer.getByText("Away", { exact: true }).click();
  await drawer.getByRole("button", { name: "Away all day" }).click();
  await expect(drawer.getByText("Isa is away. What about what lies here?")).toBeVisible();
  await expect(drawer.getByRole("heading", { name: /What would mend it|What still fits/ })).toHaveCount(0);
  const row = drawer.getByRole("listitem").filter({ hasText: "Into the freezer" });
  const boxes = await row.count();
  await row.first().getByRole("button", { name: "For Bram" }).click();
  await expect(row).toHaveCount(boxes - 1);
  await row.first().getByRole("button", { name: "Into the freezer" }).click();
  await expect(row).toHaveCount(boxes - 2);
  await drawer.getByRole("button", { name: "Close" }).click();
  await expect(page.getByRole("list", { name: /Isa, Saturday 28 November: .*away/ })).toBeVisible();

  // Taken back one by one, the last thing first.
  const undo = page.getByRole("banner").getByRole("button", { name: "Undo", exact: true });
  await undo.click();
  await undo.click();
  await expect(undo).toHaveAttribute("title", /Undo: Isa is away/);
  await undo.click();
  await expect.poll(async () => (await dayOf("Isa", saturday)).verdict).not.toBe("away");
  expect((await dayOf("Bram", sunday)).verdict).not.toBe("away");
});

test.describe("with a thumb", () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });

  test("what a tap opens comes up from below, and the list does what the ruler does", async ({
    page,
    demo,
  }) => {
    await page.goto(`${demo.url}/plan`);
    // A block too small to hit opens the day's list; there it is moved to another day.
    await page.getByRole("button", { name: /^skyr/ }).first().tap();
    const sheet = page.getByRole("dialog");
    await expect(sheet.getByText("What lies on it")).toBeVisible();
    expect((await sheet.getByRole("heading").first().boundingBox())!.y).toBeGreaterThan(80);
    await sheet.getByRole("button", { name: "Close" }).tap();
    await page
      .locator("[data-day$='2026-11-28']")
      .first()
      .tap({ position: { x: 280, y: 20 } });
    await sheet.getByLabel("Move 1 banana to").selectOption({ label: "Sun 29 Nov" });
    await expect(sheet.getByLabel("How much 1 banana")).toHaveCount(0);
    await sheet.getByRole("button", { name: "Close" }).tap();

    // Fit, the shelf, a food's figures, find: each within the screen, from below.
    for (const open of ["Fit", "Shelf, dishes, add a food"]) {
      await page.getByRole("button", { name: open, exact: true }).tap();
      const side = page.getByRole("complementary");
      const { y, height } = (await side.boundingBox())!;
      expect(y + height).toBeLessThanOrEqual(844);
      expect(y).toBeGreaterThan(150);
      await side.getByRole("button", { name: "Close" }).first().tap();
      await expect(side).toBeHidden();
    }
    await page.getByRole("button", { name: "More" }).tap();
    await page.getByRole("link", { name: /^Foods/ }).tap();
    await page
      .getByRole("link", { name: /^apple/ })
      .first()
      .tap();
    const side = page.getByRole("complementary");
    await expect(side.getByRole("heading", { name: "apple" })).toBeVisible();
    expect((await side.boundingBox())!.y).toBeLessThan(700);
    await page.getByRole("button", { name: "More" }).tap();
    await page.getByRole("button", { name: "Find" }).tap();
    await expect(page.getByRole("combobox")).toBeFocused();
  });

  test("a day of twenty foods takes fewer than sixty touches", async ({ page, demo }) => {
    await page.goto(`${demo.url}/eat?day=2026-11-25`);
    const entry = page.getByLabel("What else was eaten, and how much");
    const add = page.getByRole("button", { name: "Ate this" });
    const foods = [
      "1 apple",
      "2 eggs",
      "40 g butter",
      "1 banana",
      "150 g skyr",
      "30 g walnuts",
      "200 ml oat milk",
      "60 g quick oats",
      "1 pear",
      "100 g feta",
    ];
    await entry.tap();
    let touches = 1;
    for (const food of [...foods, ...foods.map((one) => one.replace(/^\d+/, "3"))]) {
      // Typed by the keyboard that is up already: the field keeps it.
      await expect(entry).toBeFocused();
      await page.keyboard.type(food);
      await add.tap();
      touches++;
      await expect(entry).toHaveValue("");
    }
    expect(touches).toBeLessThan(60);
    const { eaters } = await demo.get("/api/plan/weeks/2026-11-25");
    const today = eaters[0].days[2].items.filter(({ text }: { text: string | null }) => text);
    expect(today.length).toBeGreaterThanOrEqual(20);
  });
});
