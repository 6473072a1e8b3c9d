import { expect, test } from "../house";

const today = "2026-11-25";

test("several things are entered in one go, own dishes among them, and the hands stay in the field", async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.url}/eat`);
  const entry = page.getByLabel("What else was eaten, and how much");
  await entry.fill("half a lentil box, 150 g strawberries and 2 eggs");
  await expect(page.getByText(/^215 g Red lentil dal · 195/)).toBeVisible();
  await expect(page.getByText(/^Together /)).toBeVisible();
  await entry.press("Enter");
  await expect(entry).toHaveValue("");
  await expect(entry).toBeFocused();
  const eaten = page.getByRole("listitem").filter({ hasText: /strawberries/ });
  await expect(eaten.first()).toBeVisible();

  // Pressed by hand, the field keeps the focus too: the next thing is typed at once.
  await entry.fill("1 apple");
  await page.getByRole("button", { name: "Ate this" }).click();
  await expect(entry).toHaveValue("");
  await expect(entry).toBeFocused();
});

test("what is not known answers while it is typed, and its label is written from there", async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.url}/eat`);
  const entry = page.getByLabel("What else was eaten, and how much");
  await entry.fill("17 seaweed twists");
  await expect(page.getByText("No food here is called “seaweed twists”.")).toBeVisible();
  await page.getByRole("button", { name: "Write down the label of seaweed twists" }).click();
  const form = page.getByRole("dialog");
  await expect(form.getByLabel("Called")).toHaveValue("seaweed twists");
  await form.getByLabel("The figures are").selectOption("per serving");
  await form.getByLabel("a serving weighs").fill("34");
  await form.getByLabel("pieces in a serving").fill("17");
  await form.getByLabel("energy, kcal").fill("160");
  await form.getByRole("button", { name: "Write it down" }).click();
  await expect(form).toHaveCount(0);
  await expect(entry).toBeFocused();
  await expect(page.getByText(/^about 34 g seaweed twists · 160/)).toBeVisible();
  await entry.press("Enter");
  await expect(entry).toHaveValue("");

  // A bare name asks for one, a part of a dish's name offers its box.
  await entry.fill("apple");
  await page.getByRole("button", { name: "Write “1 apple”" }).click();
  await expect(entry).toHaveValue("1 apple");
  await entry.fill("barley");
  await page.getByRole("button", { name: /^Barley and mushroom stew/ }).click();
  await expect(page.getByText("Cook and pack it first: then its box can be eaten.")).toBeVisible();
});

test("points alone are enough for a dinner, and undo names what it takes back, in whatever room", async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.url}/eat`);
  await page.getByRole("button", { name: "Noor" }).click();
  await page.getByRole("button", { name: "points", exact: true }).click();
  const entry = page.getByLabel("What else was eaten, and how much");
  await entry.fill("dinner 9 points");
  await expect(page.getByText(/^dinner · 9/)).toBeVisible();
  await entry.press("Enter");
  const undo = page.getByRole("banner").getByRole("button", { name: "Undo", exact: true });
  await expect(undo).toHaveAttribute("title", "Undo: dinner 9 points written down.");
  const amount = page.getByLabel("How much dinner");
  await amount.fill("8 points");
  await amount.press("Enter");
  const { eaters } = await demo.get(`/api/plan/weeks/${today}`);
  const noor = eaters.find(({ name }: { name: string }) => name === "Noor").eaterId;
  const dinner = async () => {
    const { day } = await demo.get(`/api/eat/${noor}/${today}`);
    return day.items.find(({ text }: { text: string | null }) => text === "dinner")?.figures.points.value;
  };
  await expect.poll(dinner).toBe(8);

  // Done in one room, taken back in another: the last thing first, and it says what that is.
  await page.goto(`${demo.url}/foods`);
  await page.getByRole("link", { name: /^Plan/ }).click();
  await page.getByRole("button", { name: /Change day or amount of Barley/ }).click();
  await page.getByRole("button", { name: "Do not cook it" }).click();
  await page.getByRole("link", { name: /^Eat/ }).click();
  await expect(undo).toHaveAttribute("title", "Undo: Barley and mushroom stew is off the list.");
  await undo.click();
  await expect(page.getByText("Undone. Barley and mushroom stew is off the list.")).toBeVisible();
  await undo.click();
  await expect.poll(dinner).toBe(9);
  await undo.click();
  await expect.poll(dinner).toBe(undefined);
});

test("a dish that is not there is planned from where it was typed", async ({ page, demo }) => {
  await page.goto(`${demo.url}/plan`);
  await page.getByRole("complementary").getByLabel("What to add, and how much").fill("fish bake");
  await expect(page.getByText(/^No box of Fish and fennel tray bake is on the shelf/)).toBeVisible();
  await page.getByRole("link", { name: "Plan to cook it" }).click();
  const panel = page.getByRole("region", { name: "What to cook" });
  await expect(panel.getByLabel("Recipe to cook").locator("option:checked")).toHaveText(
    "Fish and fennel tray bake",
  );
  await panel.getByRole("button", { name: "Plan it" }).click();
  await expect(
    page.getByRole("button", { name: /^Fish and fennel tray bake, not packed yet/ }),
  ).toBeVisible();
  await panel.getByRole("button", { name: "Close" }).click();
  await expect(panel).toHaveCount(0);
});
