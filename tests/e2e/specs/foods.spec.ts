import { expect, test } from "../house";

test("a slip is forgiven, a food opened, and a cup of it weighed once", async ({ page, demo }) => {
  await page.goto(`${demo.url}/foods`);
  await page.getByLabel("Find a food").fill("barely perl");
  await page.getByRole("link", { name: "pearl barley, dry grains" }).click();
  const sheet = page.getByRole("complementary");
  await expect(sheet.getByRole("heading", { name: "pearl barley, dry" })).toBeVisible();
  await expect(sheet.getByText("352 kcal in 100 g")).toBeVisible();
  await expect(sheet.getByRole("link", { name: "pearl barley, boiled" })).toBeVisible();
  await sheet.getByLabel("Measure").fill("mug");
  await sheet.getByLabel("Grams of one").fill("0");
  await sheet.getByRole("button", { name: "Remember" }).click();
  await expect(sheet.getByRole("alert")).toContainText("more than 0 g");
  await sheet.getByLabel("Grams of one").fill("310");
  await sheet.getByRole("button", { name: "Remember" }).click();
  await expect(sheet.getByText("weighed at home")).toBeVisible();
  const { lines } = await (
    await fetch(`${demo.url}/api/calc/parse`, {
      method: "POST",
      headers: { "Content-Type": "application/json" },
      body: JSON.stringify({ lines: ["2 mugs pearl barley"] }),
    })
  ).json();
  expect(lines[0].grams).toBe(620);
});

test("a label is written down, doubted, corrected, taken off and brought back", async ({ page, demo }) => {
  await page.goto(`${demo.url}/foods`);
  await page.getByRole("button", { name: "By barcode" }).click();
  const drawer = page.getByRole("dialog");
  await drawer.getByLabel("The number under the bars").fill("0200000000014");
  await drawer.getByRole("button", { name: "Look it up" }).click();
  await expect(drawer.getByRole("alert")).toContainText("A digit is wrong");
  await drawer.getByRole("button", { name: /Tide pool seaweed crisps/ }).click();
  await drawer.getByRole("button", { name: "Check its label" }).click();
  await expect(drawer.getByText("That is 480 kcal in 100 g; its parts come to 699 kcal.")).toBeVisible();
  await expect(drawer.getByText("can't be quite right")).toBeVisible();
  await drawer.getByLabel("protein", { exact: true }).fill("6.5");
  await expect(drawer.getByText("can't be quite right")).toBeHidden();
  await drawer.getByLabel("fat", { exact: true }).fill("a lot");
  await expect(drawer.getByRole("alert")).toContainText("Type a number here");
  await drawer.getByLabel("fat", { exact: true }).fill("25");
  await drawer.getByRole("button", { name: "Write it down" }).click();
  const sheet = page.getByRole("complementary");
  await expect(sheet.getByRole("heading", { name: "Tide pool seaweed crisps" })).toBeVisible();

  await sheet.getByRole("button", { name: "Change" }).click();
  await page.getByRole("dialog").getByLabel("Called").fill("Seaweed crisps");
  await page.getByRole("dialog").getByRole("button", { name: "Write it down" }).click();
  await expect(sheet.getByRole("heading", { name: "Seaweed crisps" })).toBeVisible();
  await sheet.getByRole("button", { name: "Take it off the list" }).click();
  await page.getByLabel("Find a food").fill("seaweed");
  await expect(page.getByText("No food of that name")).toBeVisible();
  await page.getByRole("button", { name: "Undo" }).last().click();
  await expect(page.getByRole("link", { name: /Seaweed crisps/ })).toBeVisible();
});

test("the Indian tables are looked through, taken in, searched and undone", async ({ page, demo }) => {
  await page.goto(`${demo.url}/foods/libraries`);
  await page.getByRole("button", { name: "Take it in" }).click();
  await expect(page.getByRole("definition").filter({ hasText: "542" })).toBeVisible();
  await page.getByText("Rows that look wrong").click();
  await expect(page.getByText("0 kcal is stated; protein, fat").first()).toBeVisible();
  await page.getByRole("button", { name: "Take in 542 foods" }).click();
  await expect(page.getByText("542 foods were taken in")).toBeVisible();
  await page.getByRole("link", { name: "Foods", exact: false }).first().click();
  await page.getByLabel("Find a food").fill("amarnth seed");
  await page.getByRole("link", { name: /Amaranth seed, black/ }).click();
  await expect(page.getByRole("complementary").getByText("National Institute of Nutrition")).toBeVisible();
  await page.goto(`${demo.url}/foods/libraries`);
  await page.getByRole("button", { name: "Undo this import" }).click();
  await expect(page.getByText("No library yet.")).toBeVisible();
});

test("a table with other columns is mapped by hand, and a broken file says why", async ({ page, demo }) => {
  await page.goto(`${demo.url}/foods/libraries`);
  const file = page.getByLabel(/^A file/);
  await file.setInputFiles({
    name: "broken.zip",
    mimeType: "application/zip",
    buffer: Buffer.from("PK nonsense"),
  });
  await expect(page.getByRole("alert")).toContainText("The zip is damaged");
  await page.getByRole("button", { name: "Try another file" }).click();
  await file.setInputFiles({
    name: "mine.csv",
    mimeType: "text/csv",
    buffer: Buffer.from("what;e1;e2\nHarbour <b>bread</b>;1046;250\nNo figures;;\n"),
  });
  await expect(page.getByText("Say which column holds the names.")).toBeVisible();
  await page.getByText("Which column is what").click();
  await page.getByLabel("names").selectOption("what");
  await page.getByLabel("kcal", { exact: true }).selectOption("e1");
  await page.getByLabel("energy, unit").selectOption("kilojoule");
  await page.getByRole("button", { name: "Look again" }).click();
  await expect(page.getByRole("button", { name: "Take in 1 foods" })).toBeVisible();
  await expect(page.getByRole("cell", { name: "Harbour <b>bread</b>" })).toBeVisible();
  await expect(page.getByRole("cell", { name: "250" })).toBeVisible();
  await page.getByText("Refused rows").click();
  await expect(page.getByText("row 2: it has no figures")).toBeVisible();
});
