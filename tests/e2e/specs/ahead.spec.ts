import type { Locator, Page } from "@playwright/test";
import { dayOf, expect, keepDraft, test, type House } from "../house";

const monday = "2026-11-30";
const toPack = (page: Page, name: string) =>
  page.getByRole("button", { name: new RegExp(`^${name}, not packed yet`) });
const week = (house: House) => house.get(`/api/plan/weeks/${monday}`);

/** Lays a portion of a batch on a day counted from the week's first, with keys alone. */
async function lay(page: Page, strip: Locator, down: number) {
  await strip.focus();
  await page.keyboard.press("Enter");
  for (let i = 0; i < down; i++) await page.keyboard.press("ArrowDown");
  await page.keyboard.press("Enter");
}

test("a menu is proposed, a dish replaced, the rest planned, and the week fitted from what is still to be cooked", async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.url}/plan?week=${monday}`);
  await page.getByRole("button", { name: "all", exact: true }).click();
  await page.getByRole("button", { name: "Menu", exact: true }).click();
  const panel = page.getByRole("region", { name: "What to cook" });
  await panel.getByLabel("Dishes").selectOption("2");
  const hand = panel.getByLabel("In the house, to be used up");
  await hand.fill("a lot of love");
  await panel.getByRole("button", { name: "Propose a menu" }).click();
  await expect(panel.getByRole("alert").or(panel.locator("p.text-brick")).first()).toBeVisible();
  await hand.fill("1.2 kg cod fillet");
  await panel.getByRole("button", { name: "Propose a menu" }).click();
  await expect(panel.getByText(/uses .* of 1,200 g cod/)).toBeVisible();
  await expect(panel.getByText("of 21 days fit")).toBeVisible();

  const other = panel.getByRole("button", { name: /^Another dish instead of (?!Fish)/ });
  const gone = (await other.getAttribute("aria-label"))!.replace("Another dish instead of ", "");
  await other.click();
  await expect(panel.getByRole("button", { name: `Another dish instead of ${gone}` })).toHaveCount(0);
  await expect(panel.getByRole("button", { name: /^Another dish/ })).toHaveCount(2);
  await panel.getByLabel("Portions of Fish and fennel tray bake").fill("10");
  await panel.getByRole("button", { name: "Plan 2 batches" }).click();
  await expect(toPack(page, "Fish and fennel tray bake")).toBeVisible();
  const planned = (await week(demo)).unpacked.find(({ name }: { name: string }) => name.startsWith("Fish"));
  expect([planned.portions, planned.cookedOn, planned.state]).toEqual([10, "2026-11-29", "planned"]);

  // One by hand as well; planned, and taken off the list, are undone with one press.
  const undo = page.getByRole("status").getByRole("button", { name: "Undo" });
  await page.getByRole("button", { name: "Menu", exact: true }).click();
  const there = (await week(demo)).unpacked.map(({ name }: { name: string }) => name);
  const dish = ["Seed bars", "Hot falafel"].find((name) => !there.includes(name))!;
  const planOne = async () => {
    await panel.getByLabel("Recipe to cook").selectOption({ label: dish });
    await panel.getByRole("button", { name: "Plan it", exact: true }).click();
    await expect(toPack(page, dish)).toBeVisible();
  };
  await planOne();
  await undo.click();
  await expect(page.getByText("Undone. 1 batch planned for Sunday 29 November.")).toBeVisible();
  await expect(toPack(page, dish)).toHaveCount(0);
  await planOne();
  await page.getByRole("button", { name: `Change day or amount of ${dish}` }).click();
  await page.getByRole("button", { name: "Do not cook it" }).click();
  await expect(toPack(page, dish)).toHaveCount(0);
  await undo.click();
  await expect(page.getByText(`Undone. ${dish} is off the list.`)).toBeVisible();
  await expect(toPack(page, dish)).toBeVisible();

  await page.getByRole("button", { name: "Fit", exact: true }).click();
  await page.getByLabel("More or less may be cooked").check();
  await page.getByRole("button", { name: "Find a plan" }).click();
  await expect(page.getByText(/of 21 days fit/)).toBeVisible();
  await keepDraft(page);
  await page.getByRole("button", { name: "Take it" }).click();
  await expect(page.getByText("days laid from the draft.")).toBeVisible();
  const fitted = await week(demo);
  expect(
    fitted.eaters.reduce((sum: number, { fitDays }: { fitDays: number }) => sum + fitDays, 0),
  ).toBeGreaterThan(15);
});

test("portions are laid by keys, sized by their edge, one by itself or all at once, and that is undone", async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.url}/plan?week=${monday}`);
  const stew = toPack(page, "Barley and mushroom stew");
  for (const down of [0, 1, 2]) {
    await lay(page, stew, down);
    await expect(page.getByRole("slider")).toHaveCount(down + 1);
  }
  const grams = async () =>
    (await week(demo)).eaters[0].days.flatMap(
      ({ items }: { items: { grams: number; batchId: string | null }[] }) =>
        items.filter(({ batchId }) => batchId).map((item) => item.grams),
    );
  expect(await grams()).toEqual([490, 490, 490]);

  const edge = page.getByRole("slider", { name: "Size of Barley and mushroom stew" }).first();
  const { x, y, height } = (await edge.boundingBox())!;
  await page.mouse.move(x + 3, y + height / 2);
  await page.mouse.down();
  await page.mouse.move(x - 60, y + height / 2, { steps: 6 });
  await page.mouse.up();
  await expect.poll(async () => (await grams())[0]).toBeLessThan(450);
  const one = await grams();
  expect(one.slice(1)).toEqual([490, 490]);

  // Typed where it stands, and then all of hers as this one.
  await page.getByRole("button", { name: "Open Monday 30 November, Isa" }).click();
  const drawer = page.getByRole("dialog");
  const amount = drawer.getByLabel("How much Barley and mushroom stew");
  await amount.fill("lots");
  await amount.press("Enter");
  await expect(page.getByText("Type grams, like 352 g, or a share, like half.")).toBeVisible();
  await expect(amount).toHaveValue("lots");
  await amount.fill("352");
  await amount.press("Enter");
  await expect.poll(grams).toEqual([352, 490, 490]);
  await drawer.getByRole("button", { name: "352 g for all of Isa's" }).click();
  await expect.poll(grams).toEqual([352, 352, 352]);
  await drawer.getByRole("button", { name: "Close" }).click();
  const smaller = await grams();

  await edge.focus();
  await page.keyboard.press("Shift+ArrowRight");
  await page.keyboard.press("Shift+ArrowRight");
  await page.keyboard.press("Shift+Enter");
  await expect.poll(grams).toEqual([0, 0, 0].map(() => smaller[0]! + 20));
  await page.getByRole("button", { name: "Undo" }).click();
  await expect.poll(grams).toEqual(smaller);
  for (const before of [[352, 490, 490], one, [490, 490, 490]]) {
    await page.getByRole("button", { name: "Undo" }).click();
    await expect.poll(grams).toEqual(before);
  }

  // More on days than it makes: said, and mended with one click.
  await edge.focus();
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: /Change day or amount of Barley/ }).click();
  await page.getByLabel("Portions", { exact: true }).fill("2");
  await page.getByRole("button", { name: "Save" }).click();
  await expect(page.getByText("You planned 1,470 g; this makes about 987 g")).toBeVisible();
  await page.getByRole("button", { name: "Cook 3 portions" }).click();
  await expect(page.getByText(/You planned/)).toHaveCount(0);
  await page.getByRole("status").getByRole("button", { name: "Undo" }).click();
  await expect(page.getByText("You planned 1,470 g; this makes about 987 g")).toBeVisible();

  // A day before its prep day is refused, and nothing moves.
  await page.goto(`${demo.url}/plan`);
  await lay(page, toPack(page, "Barley and mushroom stew"), 0);
  await expect(page.getByText(/is cooked on Sunday, 29 November/)).toBeVisible();
});

test("what is planned is cooked, weighed and packed as planned, and eaten; until then it is not to be eaten", async ({
  page,
  demo,
}) => {
  const { eaters } = await week(demo);
  const isa = eaters[0].eaterId as string;
  await page.goto(`${demo.url}/plan?week=2026-11-25`);
  // The dal that was cooked today waits to be packed: a portion of it for Isa on Saturday, two days from the first that nothing was eaten on.
  const dal = page.getByRole("button", { name: /^Red lentil dal, not packed yet.*cooked Wed 25 Nov$/ });
  await lay(page, dal, 2);
  await expect(page.getByRole("slider")).toHaveCount(1);
  await page.goto(`${demo.url}/eat?day=2026-11-28`);
  await expect(page.getByText("This day is still to come", { exact: false })).toBeVisible();
  await expect(page.getByRole("button", { name: /^Not quite/ }).first()).toBeVisible();
  await expect(page.getByRole("button", { name: /^Ate it/ })).toHaveCount(0);
  await page.getByRole("link", { name: "Pack first" }).click();
  await expect(page.getByText("1 portion lies on a day.")).toBeVisible();
  await page.getByLabel("Full pan on the scale").fill("5830");
  await page.getByLabel("Empty pan").fill("1630");
  await expect(page.getByText("for Isa, Sat 28 Nov")).toBeVisible();
  await page.getByRole("button", { name: /^Make 10 boxes/ }).click();
  await expect(page.getByRole("heading", { name: "10 boxes" })).toBeVisible();
  await page.goto(`${demo.url}/eat?day=2026-11-28`);
  await expect(page.getByRole("link", { name: "Pack first" })).toHaveCount(0);
  const day = await demo.get(`/api/eat/${isa}/2026-11-28`);
  const box = day.day.items.find(({ grams }: { grams: number }) => grams === 420);
  expect(box.boxId).not.toBeNull();

  await page.goto(`${demo.url}/pack`);
  await page
    .getByRole("region", { name: "To be cooked" })
    .getByRole("link", { name: /Buckwheat/ })
    .click();
  await expect(page.getByText(/Planned for Sunday 29 November: 8 portions, about 1,710 g/)).toBeVisible();
  await page.getByRole("button", { name: "It is cooked" }).click();
  await expect(page.getByLabel("Full pan on the scale")).toBeVisible();
  await page.goto(`${demo.url}/plan`);
  await expect(dayOf(page, "Wednesday 25 November").first()).toBeVisible();
  await expect(toPack(page, "Buckwheat pancakes")).toHaveAccessibleName(/cooked Wed 25 Nov/);
});

test("labels print as strips of tape, with for whom and which day, and nothing of the program around them", async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.url}/pack`);
  await page
    .getByRole("region", { name: "In their boxes" })
    .getByRole("link", { name: /Red lentil dal/ })
    .first()
    .click();
  await expect(page.getByText(/^for (Isa|Bram|Noor), /).first()).toBeVisible();
  await page.emulateMedia({ media: "print" });
  await expect(page.getByRole("navigation")).toBeHidden();
  await expect(page.getByRole("link", { name: "Lay them on days" })).toBeHidden();
  const labels = page.getByRole("listitem").filter({ hasText: "Red lentil dal" });
  expect(await labels.count()).toBeGreaterThanOrEqual(5);
  for (const label of await labels.all()) await expect(label).toBeVisible();
  // No strip is cut by the foot of a page: each is kept whole.
  expect(await labels.first().evaluate((label) => getComputedStyle(label).breakInside)).toBe("avoid");
  const pdf = await page.pdf({ format: "A4" });
  expect(pdf.subarray(0, 5).toString()).toBe("%PDF-");
  expect(pdf.length).toBeGreaterThan(5_000);
});

test("a batch changed in another tab is not overwritten, and what was not saved is said", async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.url}/plan?week=${monday}`);
  await page.getByRole("button", { name: /Change day or amount of Barley/ }).click();
  await page.getByLabel("Portions", { exact: true }).fill("12");
  const { unpacked } = await week(demo);
  const stew = unpacked.find(({ name }: { name: string }) => name.startsWith("Barley"));
  const answer = await fetch(`${demo.url}/api/cook/planned/${stew.batchId}`, {
    method: "PUT",
    headers: { "content-type": "application/json", "If-Match": `"${stew.version}"` },
    body: JSON.stringify({ day: "2026-11-29", portions: 7 }),
  });
  expect(answer.ok).toBe(true);
  await page.getByRole("button", { name: "Save" }).click();
  await expect(page.getByText(/changed elsewhere/)).toBeVisible();
  const portions = async () =>
    (await week(demo)).unpacked.find(({ batchId }: { batchId: string }) => batchId === stew.batchId)
      ?.portions;
  expect(await portions()).toBe(7);

  // Opened before the newer state is there it follows it. Seen anew it can be changed, and taken off the list.
  await page.getByRole("button", { name: /Change day or amount of Barley/ }).click();
  await expect(page.getByLabel("Portions", { exact: true })).toHaveValue("7");
  await page.getByLabel("Portions", { exact: true }).fill("12");
  await page.getByRole("button", { name: "Save" }).click();
  await expect.poll(portions).toBe(12);
  await expect(page.getByText("5,920 g of about 5,920 g left")).toBeVisible();
  await page.getByRole("button", { name: /Change day or amount of Barley/ }).click();
  await page.getByRole("button", { name: "Do not cook it" }).click();
  await expect.poll(portions).toBeUndefined();
  await expect(toPack(page, "Barley and mushroom stew")).toHaveCount(0);
});

test("a part of the day is filled with what suits it, and what is laid goes there", async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.url}/plan`);
  await page.getByRole("button", { name: "Open Sunday 29 November, Isa" }).click();
  const drawer = page.getByRole("dialog");
  await drawer.getByLabel("Part of the day to fill").selectOption("evening");
  const fits = drawer.getByRole("region", { name: "What still fits" });
  const offer = fits.getByRole("button", { name: /^Lay / }).first();
  const name = (await offer.getAttribute("aria-label"))!.replace("Lay ", "");
  await offer.click();
  await expect(drawer.getByLabel(`Part of the day for ${name}`)).toHaveValue("evening");
});

test("days out of sight follow the lens as well, and their blocks are as long as what they hold", async ({
  page,
  shown,
}) => {
  await page.goto(`${shown.url}/plan`);
  await page.getByRole("button", { name: "all", exact: true }).click();
  await page.keyboard.press("2");
  const last = dayOf(page, "Sunday 29 November").first();
  await last.scrollIntoViewIfNeeded();
  await expect(last).toHaveAccessibleName(/ g,/);
  const week = await shown.get("/api/plan/weeks/2026-11-25");
  const items = week.eaters[0].days[6].items as { figures: { protein: { value: number } } }[];
  const boxes = await last
    .getByRole("listitem")
    .evaluateAll((blocks) => blocks.map((block) => parseFloat(block.style.width)));
  expect(boxes).toHaveLength(items.length);
  // Blocks wide enough to be drawn to scale keep the proportions of their grams.
  const scaled = boxes
    .map((width, i) => ({ width, grams: items[i]!.figures.protein.value }))
    .filter(({ width }) => width > 7);
  for (const { width, grams } of scaled)
    expect(width / grams).toBeCloseTo(scaled[0]!.width / scaled[0]!.grams, 1);
});

test("pieces that may be halved are sized by the half, told so, and packed so", async ({ page, empty }) => {
  const aim = { leading: "energy", bands: { energy: { max: 2000 } }, rule: null };
  await empty.send("POST", "/api/aim/eaters", { name: "Isa", aim });
  const waffles = {
    name: "Oat waffles",
    lines: ["500 g chickpeas, boiled"],
    portions: 4,
    pieces: 6,
    cookedGrams: 600,
  };
  const recipe = await empty.send("POST", "/api/recipes", waffles);
  await empty.send("POST", "/api/cook/batches", { recipeId: recipe.id, cookedOn: "2026-11-25" });
  await page.goto(`${empty.url}/recipes/${recipe.id}`);
  await page.getByLabel("may be halved").check();
  await expect.poll(async () => (await empty.get(`/api/recipes/${recipe.id}`)).mayHalve).toBe(true);

  await page.goto(`${empty.url}/plan`);
  await lay(page, toPack(page, "Oat waffles"), 2);
  const edge = page.getByRole("slider", { name: "Size of Oat waffles" });
  await expect(edge).toHaveAttribute("aria-valuetext", "1 1/2 pieces");
  await edge.focus();
  await page.keyboard.press("ArrowLeft");
  await page.keyboard.press("ArrowLeft");
  await page.keyboard.press("Enter");
  await expect(edge).toHaveAttribute("aria-valuetext", "half a piece");
  await expect(page.getByText(/5 1\/2 pieces/)).toBeVisible();
  await page.getByRole("link", { name: "Weigh and pack" }).click();
  await page.getByLabel("Full pan on the scale").fill("600");
  await page.getByLabel("Boxes", { exact: true }).fill("3");
  await expect(page.getByText(/half a piece/)).toBeVisible();
  await expect(page.getByText(/2 1\/2 pieces/)).toBeVisible();
});
