import AxeBuilder from "@axe-core/playwright";
import { expect, test } from "../house";

test("guessed, then put on the scale: after three of a kind it is known what weighing is worth, and a box by eye says how far off it is", async ({
  page,
  empty,
}) => {
  const aim = { leading: "energy", bands: { energy: { min: 1450, target: 1525, max: 1600 } }, rule: null };
  const isa = await empty.send("POST", "/api/aim/eaters", { name: "Isa", aim });
  const dal = await empty.send("POST", "/api/recipes", {
    name: "Dal",
    lines: ["500 g red lentils, dry", "1 l water"],
    portions: 4,
  });
  const batch = await empty.send("POST", "/api/cook/batches", { recipeId: dal.id });
  await page.goto(`${empty.url}/eye`);
  await expect(page.getByText("Nothing is known of your eye yet")).toBeVisible();
  const guess = async (text: string, real: string) => {
    await page.getByLabel("What you think it is").fill(text);
    await page.getByLabel("What you think it is").press("Enter");
    await expect(page.getByRole("heading", { name: `Now put it on the scale: ${text}` })).toBeVisible();
    await page.getByLabel("It weighs").fill(real);
    await page.getByLabel("It weighs").press("Enter");
  };
  await guess("30 g walnuts", "45");
  await expect(page.getByText("walnuts: 45 g, 15 g more than you guessed.")).toBeVisible();
  await guess("40 g walnuts", "40");
  await expect(page.getByText("walnuts: 40 g, as you guessed.")).toBeVisible();
  await guess("30 g almonds", "0");
  await expect(page.getByText("It weighs between 1 g and 10 kg.")).toBeVisible();
  await page.getByLabel("It weighs").fill("36");
  await page.getByRole("button", { name: "That is what it weighs" }).click();

  // 50 %, 0 and 20 % more: 23 % on average, s = 0.252, the next 0.29 of some 255 kcal off.
  const nuts = page.getByRole("listitem").filter({ hasText: "nuts and seeds" });
  await expect(nuts).toContainText("Weigh it:");
  await expect(nuts).toContainText(/There is 23\s% more than you think\./);
  expect((await new AxeBuilder({ page }).analyze()).violations).toEqual([]);
  await page.getByRole("button", { name: "Take back almonds, 30 g" }).click();
  await expect(nuts).toBeHidden();

  // Nobody weighs the boxes: each is "about", and its day says so.
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto(`${empty.url}/pack/${batch.id}`);
  await page.getByLabel("Full pan").fill("1600");
  await page.getByLabel("Boxes", { exact: true }).fill("4");
  await page.getByLabel("by eye, no box is weighed").check();
  await expect(page.getByText(/^By eye a box is off by about \d+ kcal either way/)).toBeVisible();
  await expect(page.getByRole("button", { name: "Fill them on the scale" })).toBeHidden();
  await page.getByRole("button", { name: "Make 4 boxes" }).click();
  await expect(page.getByText("about 400 g").first()).toBeVisible();
  const { boxes } = await empty.get(`/api/pack/batches/${batch.id}`);
  const { version } = await empty.get("/api/plan/weeks/2026-11-25");
  const lay = { boxId: boxes[0].id, eaterId: isa.id, day: "2026-11-25" };
  await empty.send("POST", "/api/plan/boxes", lay, version);
  await page.goto(`${empty.url}/eat`);
  await expect(page.getByText(/^give or take \d+ kcal for what nobody weighed$/)).toBeVisible();
});
