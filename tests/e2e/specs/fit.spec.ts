import ICAL from "ical.js";
import { dayOf, expect, keepDraft, test } from "../house";

test("a week is fitted, half the draft taken, a day broken, mended with a suggestion, and all undone", async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.url}/plan`);
  const before = await demo.get("/api/plan/weeks/2026-11-25");
  await page.getByRole("button", { name: "Fit", exact: true }).click();
  await page.getByRole("button", { name: "Find a plan" }).click();
  await expect(page.getByText("of 5 days fit")).toBeVisible();
  await keepDraft(page);

  // A part of the draft: not Wednesday, not Thursday.
  const draft = page.getByRole("region", { name: "Fit the days" }).getByRole("listitem");
  for (const day of ["Wed", "Thu"]) {
    const box = draft.filter({ hasText: day }).getByRole("checkbox");
    if (await box.count()) await box.uncheck();
  }
  await page.getByRole("button", { name: /^Take \d days$/ }).click();
  await expect(page.getByText(/days laid from the draft|Laid, but without/)).toBeVisible();
  const taken = await demo.get("/api/plan/weeks/2026-11-25");
  const itemsOf = (week: typeof before, day: number) =>
    week.eaters[0].days[day].items.map(({ id }: { id: string }) => id);
  for (const day of [0, 1, 2, 3]) expect(itemsOf(taken, day)).toEqual(itemsOf(before, day));
  expect(itemsOf(taken, 6)).not.toEqual(itemsOf(before, 6));

  // A day that fits now is broken by butter and mended by a suggestion.
  const day = [6, 5, 4].find((one) => taken.eaters[0].days[one].fits)!;
  const named = ["Friday 27", "Saturday 28", "Sunday 29"][day - 4]! + " November";
  await page.getByRole("button", { name: "Close" }).click();
  await page.getByLabel("on", { exact: true }).selectOption(taken.eaters[0].days[day].day);
  const entry = page.getByLabel("What to add, and how much");
  await entry.fill("60 g butter");
  await page.getByRole("button", { name: "Lay it" }).click();
  await expect(dayOf(page, named).first()).toHaveAccessibleName(/over/);
  await page.getByRole("button", { name: `Open ${named}, Isa` }).click();
  const drawer = page.getByRole("dialog");
  const mends = drawer.getByRole("region", { name: "What would mend it" }).getByRole("button");
  await expect(mends.first()).toBeVisible();
  expect(await mends.count()).toBeGreaterThanOrEqual(2);
  await mends.first().click();
  await expect(drawer.getByText(/^fits/).first()).toBeVisible();
  await drawer.getByRole("button", { name: "Close" }).click();
  await expect(dayOf(page, named).first()).toHaveAccessibleName(/, fits/);

  for (let steps = 0; steps < 3; steps++) {
    const { version } = await demo.get("/api/plan/weeks/2026-11-25");
    await page.getByRole("button", { name: "Undo" }).click();
    await expect
      .poll(async () => (await demo.get("/api/plan/weeks/2026-11-25")).version)
      .toBeGreaterThan(version);
  }
  const after = await demo.get("/api/plan/weeks/2026-11-25");
  for (const day of [0, 1, 2, 3, 4, 5, 6]) expect(itemsOf(after, day)).toEqual(itemsOf(before, day));
});

test("a fit that is not heard of any more says so, and is heard of again", async ({ page, demo }) => {
  await page.goto(`${demo.url}/plan`);
  await page.route("**/api/plan/fits/*", (route) =>
    route.fulfill({ status: 500, json: { detail: "It broke." } }),
  );
  await page.getByRole("button", { name: "Fit", exact: true }).click();
  await page.getByRole("button", { name: "Find a plan" }).click();
  const panel = page.getByRole("region", { name: "Fit the days" });
  await expect(panel.getByText("It broke.")).toBeVisible();
  await page.unroute("**/api/plan/fits/*");
  await expect(panel.getByText("It broke.")).toHaveCount(0);
  await keepDraft(page);
});

test("a day in depth: why, a lock, what still fits, a meal out entered ahead", async ({ page, demo }) => {
  await page.goto(`${demo.url}/plan`);
  await page.getByRole("button", { name: "Open Saturday 28 November, Isa" }).click();
  const drawer = page.getByRole("dialog");
  await drawer.getByRole("button", { name: "Why is it here?" }).last().click();
  await expect(drawer.getByText("It was laid by hand.")).toBeVisible();
  await drawer.getByRole("button", { name: /^Lock Seed bars/ }).click();
  await expect(drawer.getByRole("button", { name: /^Unlock Seed bars/ })).toBeVisible();
  await drawer.getByText("A meal out").click();
  await drawer.getByRole("button", { name: "Lay the meal" }).click();
  await expect(drawer.getByText("Give the meal a name")).toBeVisible();
  await drawer.getByLabel("Name of the meal").fill("supper at the harbour");
  await drawer.getByLabel("kcal, line 1").fill("300");
  await drawer.getByLabel("up to, line 1").fill("500");
  await drawer.getByRole("button", { name: "Lay the meal" }).click();
  await expect(drawer.getByText("give or take 100 kcal")).toBeVisible();
  const offer = drawer.getByRole("region", { name: "What still fits" }).getByRole("button").first();
  const name = (await offer.getAttribute("aria-label"))!.replace("Lay ", "");
  await offer.click();
  await expect(page.getByText(`${name} laid on Saturday`)).toBeVisible();
});

test("an eater's ways are kept: never, another day, own parts of the day, give or take, a need taken", async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.url}/aim`);
  const sheet = page.getByRole("region", { name: "Isa" });
  await sheet.getByText("Never, and rather not").click();
  await sheet.getByRole("button", { name: "peanuts", exact: true }).click();
  await sheet.getByText("Other days", { exact: true }).click();
  await sheet.getByRole("button", { name: "Another day" }).click();
  await sheet.getByLabel("What day that is").fill("rowing");
  await sheet.getByLabel("When", { exact: true }).selectOption("thursday");
  await sheet.getByLabel("rowing, Energy, most").fill("1900");
  await expect(sheet.getByText("not saved yet")).toBeVisible();
  await expect(sheet.getByRole("alert")).toHaveCount(0); // nothing is asked for while it is still being written
  await sheet.getByLabel("rowing, Energy, most").blur();
  await expect(sheet.getByText("saved", { exact: true })).toBeVisible();
  await sheet.getByText("Variety and weekly extra").click();
  await sheet.getByRole("textbox", { name: "Foods to fill a gap" }).fill("125 g raspberries");
  await sheet.getByRole("textbox", { name: "Foods to fill a gap" }).press("Enter");
  await sheet.getByText("Parts of the day").click();
  await sheet.getByRole("button", { name: "Name my own" }).click();
  await sheet.getByLabel("Name of a part of the day").first().fill("before the lamp");
  await sheet.getByLabel("Name of a part of the day").first().blur();
  await sheet.getByLabel("Energy, give or take", { exact: true }).fill("50");
  await sheet.getByLabel("Energy, give or take", { exact: true }).blur();
  // What follows from it stands in the fields that were left empty; nothing is written there.
  await sheet.getByLabel("Energy, least", { exact: true }).fill("");
  await sheet.getByLabel("Energy, least", { exact: true }).blur();
  await expect(sheet.getByLabel("Energy, least", { exact: true })).toHaveAttribute("placeholder", "1475");
  await expect(sheet.getByText("saved", { exact: true })).toBeVisible();
  await page.reload();
  const isa = (await demo.get("/api/aim/eaters")).find(({ name }: { name: string }) => name === "Isa");
  expect(isa.ways.likes).toEqual(["125 g raspberries"]);
  const depth = await demo.get(`/api/plan/days/${isa.id}/2026-11-28`);
  expect(depth.stillFits.length).toBeGreaterThan(0);
  expect(isa.ways.neverAllergens).toEqual(["peanuts"]);
  expect(isa.ways.otherDays[0]).toMatchObject({
    name: "rowing",
    weekday: "thursday",
    bands: { energy: { max: 1900 } },
  });
  expect(isa.ways.ownSlots[0].name).toBe("before the lamp");

  await page.getByRole("region", { name: "Isa" }).getByRole("button", { name: "Work out a target" }).click();
  const need = page.getByRole("dialog");
  await need.getByRole("textbox", { name: "Age" }).fill("35");
  await need.getByRole("textbox", { name: "Weight" }).fill("65");
  await need.getByRole("textbox", { name: "Height" }).fill("165");
  await expect(need.getByText("1,345")).toBeVisible();
  await need.getByRole("textbox", { name: "To lose" }).fill("3");
  await expect(need.getByText(/Faster than 1 kg a week/)).toBeVisible();
  await need.getByRole("textbox", { name: "To lose" }).fill("0.25");
  await need.getByRole("button", { name: /^Aim for/ }).click();
  await expect(page.getByText(/Isa aims for/)).toBeVisible();
});

test("the calendar reads back with an independent parser: meals, prep days, thaw reminders", async ({
  demo,
}) => {
  const text = await (await fetch(`${demo.url}/api/plan/calendar.ics`)).text();
  const events = new ICAL.Component(ICAL.parse(text))
    .getAllSubcomponents("vevent")
    .map((event) => new ICAL.Event(event));
  expect(new Set(events.map(({ uid }) => uid)).size).toBe(events.length);
  const week = await demo.get("/api/plan/weeks/2026-11-25");
  for (const eater of week.eaters)
    for (const day of eater.days) {
      const meals = events.filter(
        ({ summary, startDate }) =>
          summary.startsWith(`${eater.name}: `) && startDate.toString().startsWith(day.day),
      );
      const said = meals.flatMap(({ summary }) => summary.slice(eater.name.length + 2).split(", "));
      expect(said.length).toBe(day.items.length);
    }
  const thaw = events.find(
    ({ summary, startDate }) =>
      summary.startsWith("Move to the fridge") && startDate.toString() === "2026-11-26",
  );
  expect(thaw!.startDate.isDate).toBe(true);
  expect(thaw!.description).toContain("Red lentil dal, for Isa on Friday");
  expect(events.some(({ summary }) => summary.startsWith("Prep day: "))).toBe(true);
  const breakfast = events.find(
    ({ summary, startDate }) => summary.startsWith("Isa: ") && startDate.toString() === "2026-11-27T07:30:00",
  );
  expect(breakfast!.endDate.toString()).toBe("2026-11-27T08:00:00");
});
