import { dayOf, expect, test } from "../house";

const wednesday = "Wednesday 25 November";

test("a macro eater: three numbers make the energy at one press, and a day 35 g over says so on the week", async ({
  page,
  empty,
}) => {
  await page.goto(`${empty.url}/aim`);
  await page.getByLabel("New eater's name").fill("Mo");
  await page.getByRole("button", { name: "Add an eater" }).click();
  const sheet = page.getByRole("region", { name: "Mo" });
  for (const [measure, grams] of [
    ["Protein", "200"],
    ["Carbs", "200"],
    ["Fat", "50"],
  ]) {
    await sheet.getByLabel(`${measure}, target`, { exact: true }).fill(grams!);
    await sheet.getByLabel(`${measure}, give or take`, { exact: true }).fill("5");
    await sheet.getByLabel(`${measure}, give or take`, { exact: true }).blur();
  }
  await sheet.getByRole("button", { name: "Aim for 2,050 kcal" }).click();
  await expect(sheet.getByLabel("Energy, target", { exact: true })).toHaveValue("2050");
  await expect(sheet.getByLabel("Energy, least", { exact: true })).toHaveAttribute("placeholder", "1947.5");
  await sheet.getByLabel("Energy, target", { exact: true }).fill("1400");
  await sheet.getByLabel("Energy, target", { exact: true }).blur();
  await expect(sheet.getByText("is outside that: change one of them.")).toBeVisible();
  await sheet.getByRole("button", { name: "Aim for 2,050 kcal" }).click();
  await expect(sheet.getByText("is outside that")).toHaveCount(0);

  // 240 g of carbs where 205 are the most: no lens shows a day that fits, and every band is on the week.
  await page.goto(`${empty.url}/foods`);
  const eater = (await empty.get("/api/aim/eaters"))[0].id as string;
  const label = (name: string, kcal: number, protein: number, carbohydrate: number, fat: number) =>
    empty.send("POST", "/api/foods", {
      name,
      group: "grains",
      label: {
        basis: "per100g",
        servingGrams: null,
        convention: "total",
        kilocalories: kcal,
        protein,
        carbohydrate,
        fat,
        fibre: 0,
      },
    });
  await label("day's food", 205, 20, 24, 3);
  const { version } = await empty.get("/api/plan/weeks/2026-11-25");
  await empty.send(
    "POST",
    "/api/plan/foods",
    { text: "1000 g day's food", eaterId: eater, day: "2026-11-25" },
    version,
  );
  await page.goto(`${empty.url}/plan`);
  const row = page.locator(`[data-day="${eater}|2026-11-25"]`);
  await expect(row.getByText("over in carbs")).toBeVisible();
  for (const band of ["protein", "carbs", "fat"])
    await expect(row.getByText(band, { exact: true })).toBeVisible();
  await expect(row.getByText("35 over")).toBeVisible();
  await page.keyboard.press("2");
  await expect(row.getByText(/^fits/)).toHaveCount(0);
  await expect(page.getByText("0 of 1 filled day fits")).toBeVisible();
  await expect(page.getByText("no day filled yet")).toHaveCount(0);
});

test("a low-carb cook: 22 of 20 g net carbs do not fit, a target alone binds, another day keeps the rest", async ({
  page,
  empty,
}) => {
  const bands = { netCarbohydrate: { max: 20 }, energy: { target: 1800 } };
  const { id } = await empty.send("POST", "/api/aim/eaters", {
    name: "Lo",
    aim: { leading: "netCarbohydrate", bands, rule: null },
  });
  const lay = async (text: string, day: string) => {
    const { version } = await empty.get("/api/plan/weeks/2026-11-25");
    await empty.send("POST", "/api/plan/foods", { text, eaterId: id, day }, version);
  };
  await lay("100 g butter", "2026-11-25");
  await page.goto(`${empty.url}/plan`);
  const day = dayOf(page, wednesday);
  await expect(day).toHaveAccessibleName(/still short of kcal/);
  // The lens offers net carbs to who counts them, and no points to a house without a rule.
  const lens = page.getByRole("group", { name: "Measure by" });
  await expect(lens.getByRole("button", { name: "net carbs" })).toHaveAttribute("aria-pressed", "true");
  await expect(lens.getByRole("button", { name: "points" })).toHaveCount(0);
  await lay("1 banana", "2026-11-25");
  await page.reload();
  await expect(day).toHaveAccessibleName(/over/);

  // A party: more energy, and the net carbs as usual.
  await page.goto(`${empty.url}/aim`);
  const sheet = page.getByRole("region", { name: "Lo" });
  await sheet.getByText("Other days", { exact: true }).click();
  await sheet.getByRole("button", { name: "Another day" }).click();
  await sheet.getByLabel("What day that is").fill("party");
  await sheet.getByLabel("When", { exact: true }).selectOption("saturday");
  await sheet.getByLabel("party, Energy, target").fill("2500");
  await sheet.getByLabel("party, Energy, target").blur();
  await expect(sheet.getByText("saved", { exact: true })).toBeVisible();
  const saturday = (await empty.get("/api/plan/weeks/2026-11-25")).eaters[0].days[5];
  expect(saturday.aim.bands).toMatchObject({
    energy: { min: 2375, target: 2500, max: 2625 },
    netCarbohydrate: { max: 20 },
  });
});

test("a points cook on the phone: what is not known says to which side, the weekly extra is used and said", async ({
  page,
  empty,
}) => {
  await page.setViewportSize({ width: 390, height: 844 });
  const rule = {
    name: "ours",
    perUnit: { energy: 0.02, protein: -0.05 },
    step: 1,
    freeGroups: ["vegetables"],
    freeFoods: [],
  };
  const { id, version } = await empty.send("POST", "/api/aim/eaters", {
    name: "Po",
    aim: { leading: "points", bands: { points: { max: 10 } }, rule },
  });
  const [{ aim }] = await empty.get("/api/aim/eaters");
  await empty.send("PUT", `/api/aim/eaters/${id}`, { name: "Po", aim, ways: { reserve: 5 } }, version);
  await empty.send("POST", "/api/foods", {
    name: "mystery loaf",
    group: "grains",
    label: { basis: "per100g", servingGrams: null, convention: "total", kilocalories: 300 },
  });
  const lay = async (text: string, day: string) => {
    const week = await empty.get("/api/plan/weeks/2026-11-25");
    await empty.send("POST", "/api/plan/foods", { text, eaterId: id, day }, week.version);
  };
  await lay("100 g mystery loaf", "2026-11-25");
  await lay("100 g butter", "2026-11-26");
  await lay("150 g carrots", "2026-11-26");
  await page.goto(`${empty.url}/plan`);
  // 300 kcal make 6 points; its protein, which takes points off, is not known: at most 6 of at most 10 is sure to fit.
  const row = page.locator(`[data-day="${id}|2026-11-25"]`);
  await expect(row.getByTitle(/at most 6/)).toBeVisible();
  await expect(row.getByText("fits", { exact: true })).toBeVisible();
  // 717 kcal of butter are 14 points: 4 of the weekly 5. The carrots are free.
  await expect(
    page.locator(`[data-day="${id}|2026-11-26"]`).getByText("fits, with 4 pt of the weekly extra"),
  ).toBeVisible();
  await page.getByRole("button", { name: "Shelf, dishes, add a food" }).click();
  await expect(page.getByText("4 of 5 pt weekly extra used")).toBeVisible();

  // What was eaten is mended where it stands.
  await page.goto(`${empty.url}/eat`);
  await page.getByRole("button", { name: "Ate it: mystery loaf" }).click();
  const amount = page.getByLabel("How much 100 g mystery loaf");
  await amount.fill("half");
  await amount.press("Enter");
  await expect(page.getByLabel("How much 50 g mystery loaf")).toBeVisible();
});
