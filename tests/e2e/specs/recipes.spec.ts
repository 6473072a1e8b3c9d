import jsonld from "jsonld";
import { expect, test } from "../house";

// The part of schema.org's own context that a recipe needs; offline, so it is given here.
const context = { "@vocab": "https://schema.org/" };

test("a batch is cut another way, backwards from what a portion may be", async ({ page, demo }) => {
  await page.goto(`${demo.url}/recipes`);
  await page.getByRole("link", { name: /lentil dal/ }).click();
  await page.getByRole("button", { name: "Cut", exact: true }).click();
  // 3,906 kcal in 4,300 g: 330 g are 299.8 kcal, 331 g would be 300.7.
  await page.getByLabel("Largest portion still at most").fill("300");
  await expect(page.getByText("330 g a portion, so 14 portions")).toBeVisible();
  await page.getByLabel("Largest portion still at most").fill("0");
  await expect(page.getByRole("main").getByRole("alert")).toHaveCount(0);
  await page.getByRole("button", { name: "Cut into 14", exact: true }).click();
  await expect(page.getByLabel("Number of portions")).toHaveValue("14");
  await expect(page.getByText("saved", { exact: true })).toBeVisible();
});

test("a line is swapped, a lighter way taken, and both are undone", async ({ page, demo }) => {
  await page.goto(`${demo.url}/recipes`);
  await page.getByRole("link", { name: /lentil dal/ }).click();
  await page.getByRole("button", { name: "Swap", exact: true }).click();
  await page.getByLabel("Line", { exact: true }).selectOption("2");
  // What is found comes into a place kept for it: the next button stays under the hand that reaches for it.
  const next = page.getByRole("button", { name: "Find ways" });
  const stood = (await next.boundingBox())!.y;
  await page.getByLabel("would be").fill("800 g coconut milk");
  const energy = page.getByRole("row", { name: /energy/ });
  // 800 g of 197 kcal against about 811.5 g of 73, over ten portions.
  await expect(energy).toContainText("+98 kcal");
  expect((await next.boundingBox())!.y).toBe(stood);
  await page.getByRole("button", { name: "Take it" }).first().click();
  await page.getByLabel("How much lighter").fill("90");
  await next.click();
  const best = page.getByRole("listitem").filter({ hasText: "coconut milk, light for coconut milk" }).first();
  await expect(best).toContainText("73 instead of 197 kcal in 100 g");
  await best.getByRole("button", { name: "Take it" }).click();
  await page.getByRole("button", { name: "What goes in" }).click();
  await expect(page.getByLabel("Line 3", { exact: true })).toHaveValue("800 g coconut milk, light");
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(page.getByLabel("Line 3", { exact: true })).toHaveValue("800 g coconut milk");
});

test("a variant follows its base, scales to another pan and keeps its history", async ({ page, demo }) => {
  await page.goto(`${demo.url}/recipes`);
  await page.getByRole("link", { name: "Baked falafel", exact: false }).first().click();
  await page.getByLabel("Line 1", { exact: true }).fill("1 kg chickpeas, drained");
  await expect(page.getByText("saved", { exact: true })).toBeVisible();
  await page.getByRole("link", { name: "Hot falafel" }).click();
  await expect(page.getByLabel("Line 1", { exact: true })).toHaveValue("1 kg chickpeas, drained");
  await expect(page.getByText("A variant of Baked falafel")).toBeVisible();

  await page.getByText("Make more or less of it").click();
  await page.getByRole("button", { name: "another pan" }).click();
  await page.getByLabel("Length of the pan").last().fill("30");
  await page.getByLabel("Width of the pan").last().fill("20");
  await expect(page.getByText("0.5 times everything, 3 portions")).toBeVisible();
  await page.getByRole("button", { name: "Scale it" }).click();
  await expect(page.getByLabel("Line 1", { exact: true })).toHaveValue("1/2 kg chickpeas, drained");
  await expect(page.getByText("saved", { exact: true })).toBeVisible();
  await page.getByRole("button", { name: "History" }).click();
  await expect(page.getByRole("heading", { name: /Version 2/ })).toBeVisible();
  await page.getByRole("button", { name: "Back to this" }).click();
  await expect(page.getByLabel("Number of portions")).toHaveValue("6");
});

test("a recipe inside itself is refused with the names of the circle", async ({ page, demo }) => {
  const recipes: { id: string; name: string }[] = await demo.get("/api/recipes");
  const dal = recipes.find(({ name }) => name === "Red lentil dal")!;
  const stew = recipes.find(({ name }) => name.startsWith("Barley"))!;
  await page.goto(`${demo.url}/recipes/${stew.id}`);
  await page.getByLabel("Line 1", { exact: true }).fill("200 g red lentil dal");
  await expect(page.getByText("saved", { exact: true })).toBeVisible();
  await page.goto(`${demo.url}/recipes/${dal.id}`);
  const last = page.getByPlaceholder("add a line");
  await last.fill("100 g barley and mushroom stew");
  // By its name it would close a circle, so the words mean no food here.
  await expect(page.getByRole("alert").first()).toContainText("No food here is called");
});

test("steps with their minutes are kept", async ({ page, demo }) => {
  await page.goto(`${demo.url}/recipes`);
  await page.getByRole("link", { name: /Seed bars/ }).click();
  await page.getByRole("button", { name: "Steps" }).click();
  await page.getByRole("button", { name: "Add a step" }).click();
  await page.getByLabel("Step 3", { exact: true }).fill("Wrap each bar.");
  await page.getByLabel("min hands-on").last().fill("x");
  await expect(page.getByRole("alert").first()).toContainText("between no minutes and a week");
  await page.getByLabel("min hands-on").last().fill("10");
  await page.getByRole("button", { name: "board" }).last().click();
  await expect(page.getByText("saved", { exact: true })).toBeVisible();
  await page.reload();
  await expect(page.getByText("33 min hands-on, 50 min unattended")).toBeVisible();
  await page.getByRole("button", { name: "Step 3 earlier" }).click();
  await expect(page.getByLabel("Step 2", { exact: true })).toHaveValue("Wrap each bar.");
});

test("a recipe is read from pasted text: how its lines stand, the next open one, and a choice that is remembered", async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.url}/recipes`);
  await page.getByRole("button", { name: "From a file or text" }).click();
  const text = [
    ...["Bowl", "Serves 2", "200 g greek yogurt", "100 g moon dust", "<script>alert(1)</script>"],
    ...["1 bunch rhubarb", "Salt and pepper", "1 egg plus 2 egg whites"],
  ];
  await page.getByLabel("or paste the text").fill(text.join("\n"));
  await page.getByRole("button", { name: "Read it" }).click();
  const dialog = page.getByRole("dialog");
  await expect(dialog.getByText("4 lines sure · 1 by what is usual · 3 open")).toBeVisible();
  await dialog.getByRole("button", { name: "Write it down" }).click();

  // It begins at the first line that is open, and leads on to the next.
  await expect(page.getByRole("heading", { name: "Bowl" })).toBeAttached();
  const line = (number: number) => page.getByLabel(`Line ${number}`, { exact: true });
  await expect(line(2)).toBeFocused();
  await expect(line(8)).toHaveValue("2 egg whites");
  await page.getByRole("button", { name: "Next open line" }).click();
  await expect(line(3)).toBeFocused();
  await line(3).fill("100 g pear");
  await page.getByLabel(/1 bunch of rhubarb.* weighs/).fill("300");
  await page.getByRole("button", { name: "Remember" }).click();
  const standing = page.getByRole("group", { name: "How the lines were read" });
  await expect(standing).toContainText("1 open");
  await line(2).fill("100 g apple");
  await expect(standing).not.toContainText("open");

  // What was left open: one press, and the same words mean it from now on.
  await page.getByRole("button", { name: "Next one to choose" }).click();
  await expect(line(1)).toBeFocused();
  await page.getByRole("button", { name: /^greek yogurt, fat-free/ }).click();
  await expect(standing).toBeHidden();
  await expect(page.getByText("saved", { exact: true })).toBeVisible();
  const { lines } = await demo.send("POST", "/api/calc/parse", { lines: ["50 g greek yogurt"] });
  expect([lines[0].food.id, lines[0].standing]).toEqual(["greek-yogurt-fat-free", "sure"]);
});

test("JSON-LD expands to schema.org terms under an independent reader", async ({ demo }) => {
  const recipes: { id: string }[] = await demo.get("/api/recipes");
  const said: string[] = [];
  for (const { id } of recipes) {
    const file = await demo.get(`/api/recipes/${id}/recipe.jsonld`);
    expect(file["@context"]).toBe("https://schema.org");
    const [recipe] = (await jsonld.expand({ ...file, "@context": context })) as Record<string, unknown[]>[];
    const term = (name: string) => recipe![`https://schema.org/${name}`] as Record<string, unknown>[];
    expect(recipe!["@type"]).toEqual(["https://schema.org/Recipe"]);
    expect(term("name")[0]!["@value"]).toBe(file.name);
    expect(term("recipeIngredient").length).toBe(file.recipeIngredient.length);
    // A dish put together has no steps of its own.
    if (file.recipeInstructions?.length > 0)
      expect(term("recipeInstructions").length).toBe(file.recipeInstructions.length);
    else expect((await demo.get(`/api/recipes/${id}`)).isPutTogether).toBe(true);
    const nutrition = term("nutrition")[0]!;
    expect(nutrition["@type"]).toEqual(["https://schema.org/NutritionInformation"]);
    const calories = nutrition["https://schema.org/calories"] as { "@value": string }[];
    expect(calories[0]!["@value"]).toMatch(/^\d+(\.\d)? calories$/);
    // Times are handed on where somebody said them.
    const total = (term("totalTime") as Record<string, unknown>[] | undefined)?.[0]?.["@value"];
    if (total) said.push(String(total));
    // Nothing in the file is outside the vocabulary.
    expect(
      Object.keys(recipe!).every((key) => key === "@type" || key.startsWith("https://schema.org/")),
    ).toBe(true);
  }
  expect(said.length).toBeGreaterThan(1);
  for (const total of said) expect(total).toMatch(/^PT(\d+H)?(\d+M)?$/);
});
