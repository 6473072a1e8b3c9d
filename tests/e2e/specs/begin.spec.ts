import { expect, test } from "../house";

test("five minutes from nothing to a day that says something", async ({ page, empty }) => {
  await page.goto(empty.url);
  await expect(page.getByRole("heading", { name: "Begin" })).toBeVisible();

  // Who eats: a points cook and a macro eater, each with the ruler it gives.
  await page.getByLabel("Name").fill("Po");
  await page.getByRole("button", { name: "Points" }).click();
  await page.getByLabel("points a day, at most").fill("25");
  await page.getByLabel("one point is so many kcal").fill("40");
  await expect(page.getByRole("list", { name: "Po" })).toBeVisible();
  await page.getByRole("button", { name: "Add them" }).click();
  await expect(page.getByText("Po eats here.")).toBeVisible();
  await page.getByRole("button", { name: "And someone else" }).click();
  await page.getByLabel("Name").fill("Mac");
  await page.getByRole("button", { name: "Protein, carbs and fat" }).click();
  await page.getByLabel("protein, g a day").fill("200");
  await page.getByLabel("carbs, g a day").fill("200");
  await page.getByLabel("fat, g a day").fill("50");
  await page.getByRole("button", { name: "Add them" }).click();
  await expect(page.getByText("Po, Mac eat here.")).toBeVisible();
  const eaters = await empty.get("/api/aim/eaters");
  expect([eaters[0].aim.bands.points.max, eaters[0].aim.rule.perUnit.energy]).toEqual([25, 0.025]);
  expect(eaters[1].aim.bands.energy.target).toBe(2050);

  // A first dish, and a portion of it for both on tomorrow.
  await page.getByRole("button", { name: "Next" }).click();
  await page.getByRole("button", { name: "Take it: Chickpea and tomato pot" }).click();
  await page.getByRole("button", { name: "Cook it and lay it" }).click();
  await expect(page.getByText("Done: it is planned, and lies on Thursday 26 November.")).toBeVisible();
  await page.getByRole("link", { name: "See the week" }).click();
  const week = await empty.get("/api/plan/weeks/2026-11-26");
  for (const eater of week.eaters)
    expect(eater.days[3].items.map(({ name }: { name: string }) => name)).toEqual([
      "Chickpea and tomato pot",
    ]);
  await expect(page.getByRole("list", { name: /Po, Thursday 26 November: 1\d pt/ })).toBeVisible();
});

test("a pasted recipe begins as well, every step can be skipped, and the starters are read whole", async ({
  page,
  empty,
}) => {
  for (const starter of await empty.get("/api/recipes/starters")) {
    const { lines } = await empty.send("POST", "/api/calc/recipe", starter);
    for (const { line } of lines) expect(line.problem, `${starter.name}: ${line.text}`).toBeNull();
  }
  await page.goto(`${empty.url}/plan`);
  await page.getByRole("link", { name: "Begin: five minutes" }).click();
  await page.getByRole("button", { name: "Skip this" }).click();
  await page
    .getByLabel("A recipe of yours, as it stands in your notes")
    .fill("Tomato soup\nserves 4\n1 kg tomatoes\n2 onions\n1 blorp");
  await page.getByRole("button", { name: "Read it" }).click();
  await expect(page.getByText(/Without anybody to eat there is no day yet/)).toBeVisible();
  expect((await empty.get("/api/recipes")).map(({ name }: { name: string }) => name)).toEqual([
    "Tomato soup",
  ]);
  await page.getByRole("link", { name: "Begin with an empty week" }).click();
  await expect(page.getByText("A week of rulers, one for each day")).toBeVisible();
});

test("whoever is added is added once, and the next one's form stays however slow the host is", async ({
  page,
  empty,
}) => {
  await page.goto(empty.url);
  await page.getByLabel("Name").fill("Po");
  await page.getByLabel("kcal a day").fill("2000");
  // What is asked anew after the first is added comes late.
  await page.route("**/api/overview", async (route) => {
    await new Promise((later) => setTimeout(later, 2_000));
    await route.continue();
  });
  await page.getByRole("button", { name: "Add them" }).click();
  await page
    .getByLabel("Name")
    .press("Enter", { timeout: 1_500 })
    .catch(() => undefined);
  await expect(page.getByText("Po eats here.")).toBeVisible();
  const late = page.waitForResponse("**/api/overview");
  await page.getByRole("button", { name: "And someone else" }).click();
  await page.getByLabel("Name").fill("Ann");
  await Promise.race([late, page.waitForTimeout(3_000)]);
  await expect(page.getByLabel("Name")).toHaveValue("Ann");
  expect((await empty.get("/api/aim/eaters")).map(({ name }: { name: string }) => name)).toEqual(["Po"]);
});

test("a dish that somebody must never get is laid for the others, and it says so", async ({
  page,
  empty,
}) => {
  await page.goto(empty.url);
  const [po, ann] = ["Po", "Ann"];
  for (const name of [po, ann]) {
    if (name === ann) await page.getByRole("button", { name: "And someone else" }).click();
    await page.getByLabel("Name").fill(name);
    await page.getByLabel("kcal a day").fill("2000");
    await page.getByRole("button", { name: "Add them" }).click();
    await expect(page.getByText(name === po ? "Po eats here." : "Po, Ann eat here.")).toBeVisible();
  }
  const eaters = await empty.get("/api/aim/eaters");
  const { id, version, aim, ways } = eaters[1];
  const never = { name: ann, aim, ways: { ...ways, neverFoods: ["chickpeas-canned"] } };
  await empty.send("PUT", `/api/aim/eaters/${id}`, never, version);
  await page.getByRole("button", { name: "Next" }).click();
  await page.getByRole("button", { name: "Take it: Chickpea and tomato pot" }).click();
  await page.getByRole("button", { name: "Cook it and lay it" }).click();
  await expect(page.getByText("It is planned, and lies on Thursday 26 November for Po.")).toBeVisible();
  await expect(page.getByText(/^Ann: .*must never/)).toBeVisible();
  const days = async () =>
    (await empty.get("/api/plan/weeks/2026-11-26")).eaters.map(
      (eater: { days: { items: unknown[] }[] }) => eater.days[3]!.items.length,
    );
  expect(await days()).toEqual([1, 0]);

  // Asked for again, also after a look at another step, nothing is planned or laid twice.
  await page.getByRole("button", { name: "A first dish" }).click();
  await page.getByRole("button", { name: "On tomorrow" }).click();
  await expect(page.getByText("It is planned, and lies on Thursday 26 November for Po.")).toBeVisible();
  await page.getByRole("button", { name: "Try again for Ann" }).click();
  await expect(page.getByText(/^Ann: .*must never/)).toBeVisible();
  expect([await days(), (await empty.get("/api/cook/batches")).length]).toEqual([[1, 0], 1]);
});

test("the demo is seen next door, and touches nothing here", async ({ page, context, empty }) => {
  await page.goto(empty.url);
  const opened = context.waitForEvent("page");
  await page.getByRole("button", { name: "Look into a demo household first" }).click();
  const demo = await opened;
  await demo.waitForURL(/\/plan$/);
  await expect(demo.getByRole("button", { name: "Isa", exact: true })).toBeVisible();
  await expect(demo.getByText("Demo household").first()).toBeVisible();
  const url = new URL(demo.url()).origin;
  expect(url).not.toBe(empty.url);
  expect((await (await fetch(`${url}/api/overview`)).json()).eaters).toBe(3);
  expect((await empty.get("/api/overview")).eaters).toBe(0);

  // Asked again it is the same one; the demo itself offers none.
  expect((await empty.send("POST", "/api/demo", {})).url).toBe(url);
  expect((await fetch(`${url}/api/demo`, { method: "POST" })).status).toBe(422);
});
