import { drag, expect, test } from "../house";

test("weights that cannot be right are named at their field, and a reload loses none", async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.url}/pack`);
  await page.getByRole("region", { name: "To be packed" }).getByRole("link").click();
  await expect(page.getByLabel("Empty pan")).toHaveValue("1630");
  await page.getByLabel("Full pan").fill("1500");
  await expect(page.getByText(/weighs less than the empty one/)).toBeVisible();
  await expect(page.getByLabel("Full pan")).toHaveAttribute("aria-invalid", "true");
  await page.getByLabel("Full pan").fill("6330");
  await page.getByLabel("Boxes", { exact: true }).fill("0");
  await expect(page.getByText("Divide into at least one portion.")).toBeVisible();
  await page.getByRole("button", { name: "by pieces" }).click();
  await page.getByLabel("Pieces made").fill("13");
  await page.getByLabel("Boxes", { exact: true }).fill("4");
  await expect(page.getByText("1 piece is left over")).toBeVisible();
  await page.reload();
  await expect(page.getByLabel("Full pan")).toHaveValue("6330");
  await expect(page.getByLabel("Pieces made")).toHaveValue("13");
});

test("a measure the food lacks is weighed once and remembered; a doubtful name is asked", async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.url}/eat`);
  const entry = page.getByPlaceholder("150 g strawberries");
  await entry.fill("1 cup beef liver");
  await page.getByLabel(/1 cup of beef liver.* weighs/).fill("0");
  await page.getByRole("button", { name: "Remember" }).click();
  await expect(page.getByText("Type what one of it weighs: more than 0 g.")).toBeVisible();
  await page.getByLabel(/1 cup of beef liver.* weighs/).fill("220");
  await page.getByRole("button", { name: "Remember" }).click();
  await expect(page.getByText("220 g beef liver, raw")).toBeVisible();
  await page.getByRole("button", { name: "Ate this" }).click();
  await expect(entry).toHaveValue("");

  await entry.fill("1 bunch rhubarb");
  await page.getByLabel(/1 bunch of rhubarb.* weighs/).fill("25");
  await page.getByRole("button", { name: "Remember" }).click();
  await expect(page.getByText("25 g rhubarb")).toBeVisible();
  await entry.fill("2 bunches of rhubarb");
  await expect(page.getByText("50 g rhubarb")).toBeVisible();

  await entry.fill("20 g sauce");
  await page.getByRole("button", { name: "brown sauce" }).click();
  await expect(page.getByText("20 g brown sauce")).toBeVisible();
  await entry.fill("20 g of nothing at all");
  await page.getByRole("button", { name: "Ate this" }).click();
  await expect(page.getByText(/No food here is called/)).toBeVisible();
  await expect(entry).toHaveValue("20 g of nothing at all");
});

test("what the host could not take back just now can be taken back later", async ({ page, demo }) => {
  await page.goto(`${demo.url}/pack`);
  await page.getByRole("region", { name: "In their boxes" }).getByRole("link").first().click();
  const place = page.getByLabel(/^Where box/).last();
  await expect(place).toHaveValue("fridge");
  await place.selectOption("freezer");
  await expect(page.getByRole("status").getByText(/1 box/)).toBeVisible();
  await page.route("**/api/**", (route) =>
    route.request().method() === "GET" ? route.continue() : route.abort(),
  );
  const undo = page.getByRole("banner").getByRole("button", { name: /^Undo/ });
  await undo.click();
  await expect(page.getByText(/does not answer/)).toBeVisible();
  await expect(place).toHaveValue("freezer");
  await page.unroute("**/api/**");
  await undo.click();
  await expect(page.getByText(/^Undone\./)).toBeVisible();
  await expect(place).toHaveValue("fridge");
});

test("two tabs on one recipe: the second is told, keeps what it wrote, and chooses", async ({
  context,
  demo,
}) => {
  const [first, second] = [await context.newPage(), await context.newPage()];
  for (const tab of [first, second]) {
    await tab.goto(`${demo.url}/recipes`);
    await tab.getByRole("link", { name: /Seed bars/ }).click();
    await expect(tab.getByLabel("Line 1", { exact: true })).toHaveValue("300 g rolled oats");
  }
  await first.getByLabel("Line 1", { exact: true }).fill("350 g rolled oats");
  await expect(first.getByText("saved", { exact: true })).toBeVisible();
  await second.getByLabel("Line 4", { exact: true }).fill("100 g honey");
  await expect(second.getByText(/Nothing of yours is lost/)).toBeVisible();
  await expect(second.getByLabel("Line 4", { exact: true })).toHaveValue("100 g honey");
  await second.getByRole("button", { name: "Keep mine" }).click();
  await expect(second.getByText("saved", { exact: true })).toBeVisible();
  await first.getByLabel("Line 1", { exact: true }).fill("360 g rolled oats");
  await first.getByRole("button", { name: "Take the other" }).click();
  await expect(first.getByLabel("Line 1", { exact: true })).toHaveValue("300 g rolled oats");
  await expect(first.getByLabel("Line 4", { exact: true })).toHaveValue("100 g honey");
  await first.getByRole("button", { name: "Undo" }).click();
  await expect(first.getByLabel("Line 1", { exact: true })).toHaveValue("360 g rolled oats");
});

test("a plan changed in another tab is not overwritten, and this tab sees it", async ({ context, demo }) => {
  const [first, second] = [await context.newPage(), await context.newPage()];
  for (const tab of [first, second]) {
    await tab.goto(`${demo.url}/plan`);
    await expect(tab.getByRole("button", { name: /Fish and fennel tray bake, 2 boxes/ })).toBeVisible();
  }
  // A tab that lies behind another is slow at everything.
  await first.bringToFront();
  await drag(
    first,
    first.getByRole("button", { name: /Baked falafel, 1 box/ }),
    first.locator("[data-day$='2026-11-29']"),
  );
  await expect(first.getByRole("button", { name: /Baked falafel, 1 box/ })).toHaveCount(0);
  // On the very day that the other has changed it is told so; on another day a box that is gone is named.
  await second.bringToFront();
  await drag(
    second,
    second.getByRole("button", { name: /Fish and fennel tray bake, 2 boxes/ }),
    second.locator("[data-day$='2026-11-29']"),
  );
  await expect(second.getByText(/changed elsewhere since you opened it/)).toBeVisible();
  await expect(second.getByRole("button", { name: /Baked falafel, 1 box/ })).toHaveCount(0);
  await expect(second.getByRole("button", { name: /Fish and fennel tray bake, 2 boxes/ })).toBeVisible();
});

test("while the program is away what is typed stays, and it is saved when it is back", async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.url}/recipes`);
  await page.getByRole("link", { name: /Seed bars/ }).click();
  await expect(page.getByLabel("Line 1", { exact: true })).toHaveValue("300 g rolled oats");
  await demo.close();
  await page.getByLabel("Line 1", { exact: true }).fill("333 g rolled oats");
  await expect(page.getByText(/The program does not answer/)).toBeVisible();
  await demo.open();
  await page.getByLabel("Line 2", { exact: true }).fill("111 g sunflower seeds");
  await expect(page.getByText("saved", { exact: true })).toBeVisible();
  await page.reload();
  await expect(page.getByLabel("Line 1", { exact: true })).toHaveValue("333 g rolled oats");
  await expect(page.getByLabel("Line 2", { exact: true })).toHaveValue("111 g sunflower seeds");
});

test("an aim below the floor waits for a clinician, and a crossed band says so", async ({ page, demo }) => {
  await page.goto(`${demo.url}/aim`);
  const isa = page.getByRole("region", { name: "Isa" });
  await isa.getByLabel("Energy, target").fill("1100");
  await isa.getByLabel("Energy, target").blur();
  await expect(isa.getByText(/is below the least/)).toBeVisible();
  for (const [bound, value] of [
    ["least", "1000"],
    ["most", "1150"],
  ] as const) {
    await isa.getByLabel(`Energy, ${bound}`).fill(value);
    await isa.getByLabel(`Energy, ${bound}`).blur();
  }
  await expect(isa.getByText(/NHLBI Clinical Guidelines/)).toBeVisible();
  await expect(isa.getByText("not saved yet")).toBeVisible();
  await isa.getByLabel("A doctor or dietitian set this number").check();
  await expect(isa.getByText("saved", { exact: true })).toBeVisible();
});

test.describe("by touch", () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true });
  test("a box is laid on a day by two taps, and eaten with a thumb", async ({ page, demo }) => {
    await page.goto(`${demo.url}/plan`);
    const bench = page.getByRole("button", { name: "Shelf, dishes, add a food" });
    await bench.tap();
    await page.getByRole("button", { name: /Seed bars, 3 boxes/ }).tap();
    await page.locator("[data-day$='2026-11-29']").tap({ position: { x: 200, y: 12 } });
    await expect(page.getByRole("button", { name: /Seed bars, 2 boxes/ })).toBeVisible();
    await page.getByRole("button", { name: "Close" }).tap();
    await page.getByRole("link", { name: /^Eat/ }).tap();
    const ate = page.getByRole("button", { name: /^Ate it/ }).first();
    const box = (await ate.boundingBox())!;
    expect(Math.min(box.height, box.width)).toBeGreaterThanOrEqual(44);
    const before = await page.getByRole("button", { name: /^Ate it/ }).count();
    await ate.tap();
    await expect(page.getByRole("button", { name: /^Ate it/ })).toHaveCount(before - 1);
  });
});
