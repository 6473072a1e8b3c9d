import AxeBuilder from "@axe-core/playwright";
import { expect, test } from "../house";

test("a bowl put together from what is cooked apart: written, planned, cooked, weighed short, and in its boxes", async ({
  page,
  empty,
}) => {
  const aim = { leading: "energy", bands: { energy: { min: 1450, target: 1525, max: 1600 } }, rule: null };
  await empty.send("POST", "/api/aim/eaters", { name: "Isa", aim });
  const recipe = (name: string, lines: string[], portions: number, cookedGrams?: number) =>
    empty.send("POST", "/api/recipes", { name, lines, portions, cookedGrams });
  await recipe("Mash", ["1 kg potatoes", "100 g butter"], 5, 1000);
  await recipe("Lentil sauce", ["400 g red lentils, dry", "800 ml water"], 4, 1000);
  const bowl = await recipe("Lentil bowl", ["200 g mash", "150 g lentil sauce", "50 g sweetcorn, canned"], 4);

  await page.goto(`${empty.url}/recipes/${bowl.id}`);
  await page.getByLabel("put together in the box").check();
  await expect(page.getByRole("heading", { name: "One box" })).toBeVisible();
  await expect(page.getByText("400 g cooked")).toBeVisible();
  await page.getByRole("button", { name: "Cut", exact: true }).click();
  await expect(page.getByText("What goes into 6 boxes, shared among more or fewer.")).toBeVisible();
  await page.getByRole("button", { name: "Share it among 5 boxes" }).last().click();
  await page.getByRole("button", { name: "What goes in" }).click();
  await expect(page.getByLabel("Line 1", { exact: true })).toHaveValue("240 g mash");
  await page.getByRole("button", { name: "Undo" }).first().click();
  await expect(page.getByLabel("Line 1", { exact: true })).toHaveValue("200 g mash");
  await page.getByRole("button", { name: "Plan it for today" }).click();

  // Its parts are planned with it: 1,200 g of mash are six of its portions, 900 g of sauce four.
  await expect(page.getByRole("heading", { name: "What it is put together from" })).toBeVisible();
  const part = (name: string) => page.getByRole("listitem").filter({ hasText: name });
  await expect(part("Mash")).toContainText("1,200 g");
  await expect(part("sweetcorn")).toContainText("300 g");
  await expect(page.getByText("Weigh these first: Mash, Lentil sauce.")).toBeVisible();
  await page.goto(`${empty.url}/cook`);
  await expect(
    page.getByText("Put Lentil bowl together: 1,200 g Mash, 900 g Lentil sauce", { exact: true }),
  ).toBeVisible();

  // On the phone at the counter: the mash comes out lighter than it was to be, and is weighed only.
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto(`${empty.url}/pack`);
  await page.getByRole("link", { name: /Lentil bowl/ }).click();
  await page.getByRole("link", { name: "Weigh Mash" }).click();
  await expect(page.getByText("Nothing of it is left for boxes of its own")).toBeVisible();
  await page.getByRole("button", { name: "It is cooked" }).click();
  await page.getByLabel("Full pan on the scale").fill("1080");
  await page.getByRole("button", { name: "Keep the weight" }).click();
  await expect(page.getByText("The weight of Mash is kept.")).toBeVisible();
  await page.getByRole("link", { name: "Lentil bowl" }).first().click();
  await expect(part("Mash")).toContainText("1,080 g");
  await expect(part("Mash")).toContainText("180 g in each box");
  await page.getByRole("link", { name: "Weigh Lentil sauce" }).click();
  await page.getByRole("button", { name: "It is cooked" }).click();
  await page.getByLabel("Full pan on the scale").fill("1000");
  await page.getByRole("button", { name: /^Keep the weight/ }).click();
  await expect(page.getByText("The weight of Lentil sauce is kept.")).toBeVisible();
  await page.getByRole("link", { name: "Lentil bowl" }).first().click();
  expect((await new AxeBuilder({ page }).analyze()).violations).toEqual([]);
  await page.getByRole("button", { name: "Make 6 boxes" }).click();
  await expect(page.getByRole("heading", { name: "6 boxes" })).toBeVisible();

  // 1,080 + 900 + 300 g in six boxes; 100 g of sauce are over, and nothing of the mash.
  const week = await empty.get("/api/plan/weeks/2026-11-25");
  expect(week.shelf.flatMap(({ boxIds }: { boxIds: string[] }) => boxIds)).toHaveLength(6);
  expect(week.shelf[0].grams).toBe(380);
  const left = week.unpacked.map(({ name, leftGrams }: { name: string; leftGrams: number }) => [
    name,
    leftGrams,
  ]);
  expect(left).toEqual([["Lentil sauce", 100]]);
});
