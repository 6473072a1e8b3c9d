import type { Page } from "@playwright/test";
import { expect, test, type House } from "../house";

interface Shelves {
  groups: { name: string; place: string; isOver: boolean; boxes: { id: string }[] }[];
  tasks: Record<"freeze" | "thaw" | "eatFirst" | "over", string[]>;
  waste: { boxes: number; grams: number };
}

const shelves = (house: House) => house.get("/api/keep") as Promise<Shelves>;
const undo = (page: Page) =>
  page.getByRole("banner").getByRole("button", { name: "Undo", exact: true }).click();

test("what to freeze, to thaw and what is past its day stands on top, and each is done with one press", async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.url}/keep`);
  await expect(page.getByRole("link", { name: /^Keep 1 box past its last day/ })).toBeVisible();
  const past = page.getByRole("region", { name: "What became of this?" });
  await expect(past.getByText("past its last day, Wed 18 Nov")).toBeVisible();
  await past.getByRole("button", { name: "Thrown away …" }).click();
  await past.getByRole("button", { name: "it went off" }).click();
  await expect(past).toBeHidden();
  await expect(page.getByText("it went off (1)")).toBeVisible();

  const freeze = page.getByRole("region", { name: "Freeze tonight" });
  await expect(freeze.getByText("for Isa Sat; Bram Thu; Noor Fri")).toBeVisible();
  await freeze.getByRole("button", { name: "All 3 are in the freezer" }).click();
  await expect(freeze).toBeHidden();
  expect((await shelves(demo)).tasks.freeze).toEqual([]);
  await undo(page);
  await expect(freeze).toBeVisible();

  // One dish of several by itself, and then the rest.
  const thaw = page.getByRole("region", { name: "Thaw for tomorrow" });
  await thaw.getByRole("button", { name: "Buckwheat pancakes is in the fridge" }).click();
  await expect(thaw.getByText("Buckwheat pancakes")).toBeHidden();
  await thaw.getByRole("button", { name: /^All \d are in the fridge/ }).click();
  await expect(thaw).toBeHidden();

  expect((await shelves(demo)).waste.boxes).toBe(1);
});

test("boxes are chosen by the strip or singly, and moved, eaten and given away together", async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.url}/keep`);
  const fridge = page.getByRole("region", { name: /^Fridge/ });
  const strip = fridge.getByRole("button", { name: /^Fish and fennel tray bake, 4 ×/ });
  await strip.click();
  await expect(strip).toHaveAttribute("aria-pressed", "true");
  const chosen = page.getByRole("region", { name: "4 boxes chosen" });
  await chosen.getByRole("button", { name: "Choose none" }).click();

  await fridge.getByRole("button", { name: "Choose single boxes of Fish and fennel tray bake" }).click();
  await expect(fridge.getByText("By the rule for cooked fish.")).toBeVisible();
  await expect(fridge.getByText("In the freezer potato turns soft and grainy.")).toBeVisible();
  await fridge.getByRole("checkbox").last().check();
  const one = page.getByRole("region", { name: "1 box chosen" });
  await one.getByRole("button", { name: "Freezer" }).click();
  await expect(page.getByText("1 box put: freezer.")).toBeVisible();
  await expect(
    page.getByRole("region", { name: /^Freezer/ }).getByText("Fish and fennel tray bake"),
  ).toBeVisible();

  // Eaten by somebody yesterday, from the shelf.
  await fridge.getByRole("button", { name: /^Seed bars, 5 ×/ }).click();
  const bars = page.getByRole("region", { name: "5 boxes chosen" });
  await bars.getByRole("button", { name: "Eaten …" }).click();
  await bars.getByLabel("On", { exact: true }).selectOption("2026-11-24");
  await bars.getByRole("button", { name: "Bram" }).click();
  await expect(page.getByText("Bram ate 5 boxes.")).toBeVisible();
  await page.goto(`${demo.url}/eat?day=2026-11-24`);
  await page.getByRole("button", { name: "Bram" }).click();
  await expect(page.getByText("Seed bars").nth(4)).toBeVisible();
  const undone = page.waitForResponse(/\/undo$/);
  await undo(page);
  expect((await undone).ok()).toBe(true);
  await page.getByRole("link", { name: /^Keep/ }).click();
  await expect(fridge.getByRole("button", { name: /^Seed bars, 5 ×/ })).toBeVisible();
});

test("the rules can be stricter than their guideline, never laxer, and a read caution is found again", async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.url}/keep`);
  await page.getByRole("button", { name: "Read: don't show it here again" }).first().click();
  await expect(page.getByText("Past its last day: when in doubt, throw it out")).toBeHidden();
  await page.getByRole("button", { name: "Rules", exact: true }).click();
  const row = page.getByRole("row", { name: /cooked fish/ });
  await expect(row).toContainText("3 – 4 days");
  const own = page.getByRole("textbox", { name: "Your own days for cooked fish" });
  await own.fill("9");
  await own.press("Enter");
  await expect(page.getByText("North America says 3 days: your own rule can only be shorter.")).toBeVisible();
  await expect(own).toHaveValue("9");
  await own.fill("1");
  await own.press("Enter");
  await expect(page.getByText("The rules are changed.")).toBeVisible();
  await page.getByRole("button", { name: "United Kingdom" }).click();
  await expect(row).toContainText("2 days");
  await expect(own).toHaveValue("1");
  await page.getByRole("button", { name: /^Show it again at its step: Past its last day/ }).click();

  // What was cooked on Sunday is over by the shorter rules, all of it.
  await page.getByRole("button", { name: "Shelves" }).click();
  await expect(page.getByText("Past its last day: when in doubt, throw it out")).toBeVisible();
  await expect(page.getByRole("region", { name: "What became of these?" })).toBeVisible();
  expect((await shelves(demo)).groups.filter(({ place, isOver }) => place === "fridge" && !isOver)).toEqual(
    [],
  );
});

test("while it cools its temperature is told against the limits, and shallower boxes show what they gain", async ({
  page,
  demo,
}) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto(`${demo.url}/keep?view=cooling`);
  await page.getByRole("button", { name: "in the fridge" }).click();
  const note = async (celsius: string) => {
    await page.getByRole("textbox", { name: "Its temperature" }).fill(celsius);
    await page.getByRole("button", { name: "Note it" }).click();
    await expect(page.getByRole("textbox", { name: "Its temperature" })).toHaveValue("");
  };
  await note("62");
  await expect(page.getByText("Measure it again in five minutes or more")).toBeVisible();
  await page.getByLabel("How deep it lies").fill("7");
  await note("61");
  await expect(page.getByText("too late").first()).toBeVisible();
  await expect(page.getByRole("img", { name: /Its temperature over time/ })).toBeVisible();
  await page.getByRole("textbox", { name: "Its temperature" }).fill("620");
  await page.getByRole("button", { name: "Note it" }).click();
  await expect(page.getByText("check the probe")).toBeVisible();
  await expect(page.getByRole("textbox", { name: "Its temperature" })).toHaveValue("620");
  await expect(page.getByText(/^Split it into \d boxes: then it is cold in time\.$/)).toBeVisible();
  await page.getByRole("button", { name: /^Remove 61\.0 °C/ }).click();
  await expect(page.getByText("The reading of 61.0 °C is removed.")).toBeVisible();
});

test("an empty house says what will be on the shelves, and the shelves are whole on a phone", async ({
  page,
  empty,
  demo,
}) => {
  await page.goto(`${empty.url}/keep`);
  await expect(page.getByRole("heading", { name: "Your boxes will be here" })).toBeVisible();
  await expect(page.getByRole("link", { name: "Pack a batch" })).toBeVisible();
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto(`${demo.url}/keep`);
  await page.getByRole("button", { name: /^Baked falafel, 1 ×/ }).click();
  const chosen = page.getByRole("region", { name: "1 box chosen" });
  await chosen.getByRole("button", { name: "Given away" }).click();
  await expect(page.getByText("1 box given away.")).toBeVisible();
  await undo(page);
  await expect(page.getByRole("button", { name: /^Baked falafel, 1 ×/ })).toBeVisible();
});
