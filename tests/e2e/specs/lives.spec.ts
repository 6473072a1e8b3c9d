import { expect, test } from "../house";

const packed = async (demo: { get: (path: string) => Promise<unknown> }, dish = "Red lentil dal") => {
  const batches = (await demo.get("/api/pack/batches")) as {
    id: string;
    name: string;
    state: string;
    cookedOn: string;
  }[];
  return batches.find(
    ({ name, state, cookedOn }) => name === dish && state === "packed" && cookedOn > "2026-11-20",
  )!;
};

test("boxes are put into the freezer, one is given away, and both are taken back in one press", async ({
  page,
  demo,
}) => {
  const { id } = await packed(demo, "Chickpea and spinach egg squares");
  await page.goto(`${demo.url}/pack/${id}`);
  const all = page.getByRole("group", { name: "All boxes are in" });
  await expect(all.getByRole("button", { name: "fridge" })).toBeDisabled();
  await all.getByRole("button", { name: "freezer" }).click();
  await expect(all.getByRole("button", { name: "freezer" })).toBeDisabled();

  // One comes out to thaw, and goes back.
  const one = page.getByRole("combobox", { name: /^Where box/ }).first();
  await one.selectOption("fridge");
  await expect(page.getByText("1 box: fridge.")).toBeVisible();
  await page.getByRole("banner").getByRole("button", { name: "Undo", exact: true }).click();
  await expect(one).toHaveValue("freezer");

  const boxes = page.getByRole("combobox", { name: /^Where box/ });
  const before = await boxes.count();
  const name = (await boxes.last().getAttribute("aria-label"))!.replace(/\D/g, "");
  await page.getByRole("button", { name: `Box ${name} was given away` }).click();
  await expect(boxes).toHaveCount(before - 1);
  await expect(page.getByText("given away", { exact: true })).toBeVisible();
  await page.getByRole("button", { name: "Undo", exact: true }).click();
  await expect(boxes).toHaveCount(before);

  await page.getByRole("link", { name: /^Plan/ }).click();
  await expect(page.getByText(/in the freezer to/).first()).toBeVisible();
});

test("what really went in is written line by line, and the boxes follow", async ({ page, demo }) => {
  const { id } = await packed(demo);
  const kcal = async () =>
    ((await demo.get(`/api/pack/batches/${id}`)) as { figures: { energy: { value: number } } }).figures.energy
      .value;
  const before = await kcal();
  await page.goto(`${demo.url}/pack/${id}`);
  await page.getByText("What really went in").click();
  await page
    .getByRole("button", { name: /^Change .*red lentils/ })
    .first()
    .click();
  await page.getByRole("textbox", { name: "What went in instead" }).fill("500 g red lentils, dry");
  await page.getByRole("button", { name: "Save" }).click();
  await expect(page.getByText("500 g red lentils, dry")).toBeVisible();
  await page.getByRole("textbox", { name: "Forgotten on the list" }).fill("20 g butter");
  await page.getByRole("button", { name: "Add", exact: true }).click();
  await expect(page.getByRole("button", { name: "Change 20 g butter" })).toBeVisible();
  expect(await kcal()).not.toBeCloseTo(before, 0);

  // What is not understood stays in the field, with what it could be.
  await page.getByRole("textbox", { name: "Forgotten on the list" }).fill("a bit of this");
  await page.getByRole("button", { name: "Add", exact: true }).click();
  await expect(page.getByRole("textbox", { name: "Forgotten on the list" })).toHaveValue("a bit of this");

  // And as planned after all.
  await page.getByRole("button", { name: "Change 500 g red lentils, dry" }).click();
  await page.getByRole("button", { name: /^As planned after all/ }).click();
  await expect(page.getByText("500 g red lentils, dry")).toHaveCount(0);
  await page.getByRole("button", { name: "Change 20 g butter" }).click();
  await page.getByRole("button", { name: "It was left out" }).click();
  await expect.poll(kcal).toBeCloseTo(before, 3);
});

test("a weight is kept and the batch packed later; a discarded batch comes back", async ({ page, demo }) => {
  await page.goto(`${demo.url}/pack`);
  await page.getByRole("region", { name: "To be packed" }).getByRole("link").first().click();
  await page.getByLabel("Full pan on the scale").fill("5,930");
  await page.getByRole("button", { name: "Keep the weight, pack later" }).click();
  await expect(page.getByText("The weight of Red lentil dal is kept.")).toBeVisible();
  await page.evaluate(() => localStorage.clear());
  await page.goto(`${demo.url}/pack`);
  const waiting = page.getByRole("region", { name: "To be packed" }).getByRole("link").first();
  await expect(waiting).toContainText("weighed");
  await waiting.click();
  await expect(page.getByLabel("Full pan on the scale")).toHaveValue("5930");

  await page.getByRole("button", { name: "Discard this batch" }).click();
  await expect(page.getByText("Nothing waits to be packed.")).toBeVisible();
  await page.getByRole("status").getByRole("button", { name: "Undo", exact: true }).click();
  await expect(page.getByLabel("Full pan on the scale")).toBeVisible();
});

test("half a box is eaten, and what is left of it lies on tomorrow", async ({ page, demo }) => {
  await page.goto(`${demo.url}/eat`);
  const open = page.getByRole("button", { name: /^Not quite: / }).first();
  const name = (await open.getAttribute("aria-label"))!.replace("Not quite: ", "");
  await open.click();
  const sheet = page.getByRole("dialog", { name: `${name}: not quite as planned` });
  await sheet.getByLabel("Or type it").fill("much");
  await sheet.getByRole("button", { name: "Ate that" }).click();
  await expect(sheet.getByText("Type grams, like 352 g, or a share, like half.")).toBeVisible();
  await expect(sheet.getByLabel("Or type it")).toHaveValue("much");
  await sheet.getByRole("button", { name: /^half/ }).click();
  await expect(page.getByText(`half of ${name} eaten.`)).toBeVisible();
  await expect(page.getByRole("button", { name: `Not eaten after all: ${name}` }).first()).toBeVisible();
  await page.getByRole("link", { name: /^Plan/ }).click();
  const rest = page.getByRole("button", { name: new RegExp(`^${name}, what is left of a box`) });
  await rest.click();
  await page.locator("[data-day$='2026-11-29']").click({ position: { x: 200, y: 12 } });
  await expect(rest).toHaveCount(0);
  await page.getByRole("button", { name: "Undo" }).first().click();
  await expect(rest).toBeVisible();
});
