import { expect, test } from "../house";

test("a food with fixed points counts them by weight, and the rule keeps them", async ({ page, demo }) => {
  await page.goto(`${demo.url}/aim`);
  await page.getByText("What a point is: One for fifty").click();
  await page.getByLabel("and single foods").first().fill("moon crackers");
  await page.getByRole("button", { name: "Fixed points" }).first().click();
  await expect(page.getByText("There is no food called “moon crackers”")).toBeVisible();
  await page.getByLabel("and single foods").first().fill("wheat crackers");
  await page.getByRole("button", { name: "Fixed points" }).first().click();
  await page.getByLabel("Points for wheat crackers").fill("5");
  await page.getByLabel("Grams of a serving of wheat crackers").fill("34");
  await page.getByLabel("Grams of a serving of wheat crackers").blur();
  await expect
    .poll(async () => (await demo.get("/api/aim/eaters"))[0].aim.rule.fixedValues)
    .toEqual([{ foodId: "crackers-wheat", points: 5, servingGrams: 34 }]);
  // 5 points for 17 crackers of 2 g (common practice, no published source): 100 g are 14.7, so 15.
  await page.goto(`${demo.url}/foods?q=wheat%20crackers`);
  await expect(page.getByRole("row", { name: /wheat crackers/ })).toContainText("15 pt");
});

test("a bound that the sheet has no row for is kept when another is changed", async ({ page, demo }) => {
  const [eater] = await demo.get("/api/aim/eaters");
  const bands = { ...eater.aim.bands, salt: { min: null, target: null, max: 6 } };
  const put = await fetch(`${demo.url}/api/aim/eaters/${eater.id}`, {
    method: "PUT",
    headers: { "Content-Type": "application/json", "If-Match": `"${eater.version}"` },
    body: JSON.stringify({ name: eater.name, aim: { ...eater.aim, bands } }),
  });
  expect(put.status).toBe(200);
  await page.goto(`${demo.url}/aim`);
  await page.getByLabel("Net carbs, most").first().fill("150");
  await page.getByLabel("Net carbs, most").first().blur();
  await expect
    .poll(async () => (await demo.get("/api/aim/eaters"))[0].aim.bands)
    .toMatchObject({ salt: { max: 6 }, netCarbohydrate: { max: 150 }, protein: { min: 70 } });
});

test("an answer to what was typed before does not call newer typing saved", async ({ page, demo }) => {
  let answers = 0;
  await page.route("**/api/aim/eaters/*", async (route) => {
    if (route.request().method() === "PUT") await new Promise((wait) => setTimeout(wait, 1500));
    await route.continue();
    answers++;
  });
  await page.goto(`${demo.url}/aim`);
  const sheet = page.getByRole("region", { name: "Isa" });
  await sheet.getByLabel("Protein, most").fill("140");
  await sheet.getByLabel("Protein, most").blur();
  await sheet.getByLabel("Fat, most").fill("66");
  await expect.poll(() => answers).toBe(1);
  await expect
    .poll(async () => (await demo.get("/api/aim/eaters"))[0].aim.bands.protein.max as number)
    .toBe(140);
  // The first is kept; the second still waits in its field, and says so.
  await expect(sheet.getByText("not saved yet")).toBeVisible();
  await expect(sheet.getByLabel("Fat, most")).toHaveValue("66");
  await sheet.getByLabel("Fat, most").blur();
  await expect(sheet.getByText("saved", { exact: true })).toBeVisible();
  expect((await demo.get("/api/aim/eaters"))[0].aim.bands).toMatchObject({
    protein: { max: 140 },
    fat: { max: 66 },
  });
});
