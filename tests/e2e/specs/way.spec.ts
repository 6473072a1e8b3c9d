import type { Locator } from "@playwright/test";
import { dayOf, drag, expect, test } from "../house";

test("by mouse, from an empty house to an eaten box", async ({ page, empty }) => {
  await page.goto(`${empty.url}/plan`);
  await page.getByRole("link", { name: "Say who eats here" }).click();
  await page.getByPlaceholder("New eater's name").fill("Isa");
  await page.getByRole("button", { name: "Add an eater" }).click();
  for (const [field, value] of [
    ["Energy, least", "1450"],
    ["Energy, target", "1525"],
    ["Energy, most", "1600"],
    ["Protein, least", "70"],
  ] as const) {
    await page.getByLabel(field).fill(value);
    await page.getByLabel(field).blur();
  }
  await expect(page.getByText("saved", { exact: true })).toBeVisible();

  await page.getByRole("link", { name: "Recipes" }).click();
  await page.getByPlaceholder("Name of a new recipe").fill("Red lentil dal");
  await page.getByRole("button", { name: "Write it down" }).click();
  const lines = [
    "600 g red lentils, dry",
    "2 x 400 g tin chopped tomatoes",
    "2 tbsp rapeseed oil",
    "3 onions, chopped",
    "1.5 l water",
  ];
  for (const [i, line] of lines.entries()) await page.getByLabel(`Line ${i + 1}`, { exact: true }).fill(line);
  // 600 x 3.58 + 800 x 0.22 + 28 x 8.84 + 330 x 0.40 = 2,703.5 kcal; in six 450.6.
  await expect(page.getByRole("definition").filter({ hasText: "kcal" })).toHaveText(/451 kcal/);
  await page.getByRole("button", { name: "One portion fewer" }).click();
  await expect(page.getByRole("definition").filter({ hasText: "kcal" })).toHaveText(/541 kcal/);
  await page.getByRole("button", { name: "Cook it" }).click();

  await page.getByLabel("Full pan on the scale").fill("4375");
  await page.getByLabel("Empty pan").fill("1630");
  await expect(page.getByText("549 g in each box")).toBeVisible();
  await page.getByRole("button", { name: "Make 5 boxes" }).click();
  await expect(page.getByRole("heading", { name: "5 boxes" })).toBeVisible();
  await page.getByRole("link", { name: "Lay them on days" }).click();

  const strip = page.getByRole("button", { name: /Red lentil dal, 5 boxes/ });
  await drag(page, strip, page.locator("[data-day$='2026-11-26']"));
  await expect(
    dayOf(page, "Thursday 26 November").getByRole("button", { name: "Red lentil dal, 541 kcal" }),
  ).toBeVisible();
  await drag(
    page,
    page.getByRole("button", { name: /Red lentil dal, 4 boxes/ }),
    page.locator("[data-day$='2026-11-25']"),
  );
  await expect(dayOf(page, "Wednesday 25 November").getByRole("button")).toHaveCount(1);
  await drag(
    page,
    dayOf(page, "Thursday 26 November").getByRole("button"),
    page.locator("[data-day$='2026-11-25']"),
  );
  await expect(dayOf(page, "Wednesday 25 November").getByRole("button")).toHaveCount(2);
  await drag(
    page,
    dayOf(page, "Wednesday 25 November").getByRole("button").first(),
    page.getByRole("heading", { name: /On the shelf/ }),
  );
  await expect(page.getByRole("button", { name: /Red lentil dal, 4 boxes/ })).toBeVisible();
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(dayOf(page, "Wednesday 25 November").getByRole("button")).toHaveCount(2);
  await page.getByRole("button", { name: "Redo" }).click();
  await expect(dayOf(page, "Wednesday 25 November").getByRole("button")).toHaveCount(1);

  await page.getByRole("link", { name: /^Eat/ }).click();
  await page.getByRole("button", { name: "Ate it: Red lentil dal" }).click();
  await expect(page.getByText("kcal left to 1,525")).toBeVisible();
  await expect(page.getByText("984", { exact: true })).toBeVisible();
  await page.getByPlaceholder("150 g strawberries").fill("150 g strawberries");
  await expect(page.getByText("150 g strawberries ·")).toBeVisible();
  await page.getByRole("button", { name: "Ate this" }).click();
  await expect(page.getByText("936", { exact: true })).toBeVisible();

  const today = (await empty.get("/api/plan/weeks/2026-11-25")).eaters[0].days[2];
  expect(today.items.map((item: { eatenAt: string | null }) => item.eatenAt !== null)).toEqual([true, true]);
});

test("by keyboard alone, from an empty house to an eaten box", async ({ page, empty }) => {
  const press = (...keys: string[]) =>
    keys.reduce((before, key) => before.then(() => page.keyboard.press(key)), Promise.resolve());
  const tabTo = async (what: RegExp | string | Locator) => {
    const named = (name: RegExp | string) =>
      page
        .getByRole("button", { name })
        .or(page.getByRole("link", { name }))
        .or(page.getByRole("textbox", { name }))
        .first();
    const wanted = typeof what === "string" || what instanceof RegExp ? named(what) : what;
    await expect(wanted).toBeVisible();
    for (let i = 0; i < 80; i++) {
      if (await wanted.evaluate((element) => element === document.activeElement)) return;
      await press("Tab");
    }
    throw new Error(`Tab does not reach ${String(what)}`);
  };
  await page.goto(`${empty.url}/plan`);
  await tabTo("Say who eats here");
  await press("Enter");
  await tabTo("New eater's name");
  await page.keyboard.type("Noor");
  await press("Enter");
  await tabTo("Energy, most");
  await page.keyboard.type("1900");
  await press("Tab");
  await expect(page.getByText("saved", { exact: true })).toBeVisible();

  // "/" finds a room by name.
  await page.evaluate(() => (document.activeElement as HTMLElement).blur());
  await press("/");
  await page.keyboard.type("reci");
  await press("ArrowDown", "Enter");
  await tabTo("Name of a new recipe");
  await page.keyboard.type("Oat bake");
  await press("Enter");
  await tabTo("Line 1");
  await page.keyboard.type("400 g rolled oats");
  await press("Enter");
  await page.keyboard.type("4 egs");
  await expect(page.getByText(/No food here is called/)).toBeVisible();
  await press("Backspace", "Backspace", "Backspace");
  await page.keyboard.type("eggs");
  await expect(page.getByText("1,516 kcal", { exact: true })).toBeVisible();
  await press("Control+z");
  await expect(page.getByLabel("Line 2", { exact: true })).not.toHaveValue("4 eggs");
  await press("Control+Shift+z");
  await expect(page.getByLabel("Line 2", { exact: true })).toHaveValue("4 eggs");
  await tabTo("Cook it");
  await press("Enter");

  await expect(page.getByLabel("Full pan on the scale")).toBeFocused();
  await page.keyboard.type("744");
  await expect(page.getByText("124 g in each box")).toBeVisible();
  await tabTo("Make 6 boxes");
  await press("Enter");
  await tabTo("Lay them on days");
  await press("Enter");

  await tabTo(/Oat bake, 6 boxes/);
  await press("Enter");
  await expect(page.getByText(/Carrying Oat bake/)).toBeVisible();
  await press("ArrowDown", "ArrowDown", "Enter");
  await expect(dayOf(page, "Wednesday 25 November").getByRole("button")).toHaveCount(1);
  await tabTo(/Oat bake, 5 boxes/);
  await press("Enter", "Escape");
  await expect(page.getByRole("button", { name: /Oat bake, 5 boxes/ })).toBeVisible();
  // Not before it is cooked; the day after it is.
  await press("Enter", "ArrowDown", "Enter");
  await expect(page.getByText(/was cooked on Wednesday, 25 November/)).toBeVisible();
  await press("Escape");
  await tabTo(/Oat bake, 5 boxes/);
  await press("Enter", "ArrowDown", "ArrowDown", "ArrowDown", "Enter");
  const thursday = dayOf(page, "Thursday 26 November").getByRole("button");
  await expect(thursday).toHaveCount(1);

  // From Thursday to before Wednesday's, back to the shelf, and undone.
  await tabTo(thursday);
  await press("Enter", "ArrowUp", "ArrowLeft", "Enter");
  await expect(dayOf(page, "Wednesday 25 November").getByRole("button")).toHaveCount(2);
  await expect(dayOf(page, "Wednesday 25 November").getByRole("button").first()).toBeFocused();
  await press("Delete");
  await expect(page.getByRole("button", { name: /Oat bake, 5 boxes/ })).toBeVisible();
  await press("Control+z");
  await expect(dayOf(page, "Wednesday 25 November").getByRole("button")).toHaveCount(2);
  await press("Control+Shift+z");
  await expect(dayOf(page, "Wednesday 25 November").getByRole("button")).toHaveCount(1);
  await press("2");
  await expect(page.getByRole("button", { name: "protein", exact: true })).toHaveAttribute(
    "aria-pressed",
    "true",
  );
  await press("1", "]");
  await expect(page.getByText("30 Nov – 6 Dec")).toBeVisible();
  await press("[");
  await expect(page.getByText("23 Nov – 29 Nov")).toBeVisible();

  await tabTo(/^Eat/);
  await press("Enter");
  await tabTo("Ate it: Oat bake");
  await press("Enter");
  await expect(page.getByRole("heading", { name: "Eaten" })).toBeVisible();
  // 1,900 less a sixth of 400 x 3.79 + 200 x 1.43 kcal is 1,599.7.
  await expect(page.getByRole("region", { name: "Wednesday 25 November" }).getByText("1,600")).toBeVisible();
});
