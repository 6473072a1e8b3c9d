import { dayOf, expect, test } from "../house";

test("what came to be excluded is asked about once in every room, marked on the day, and taken off in one press", async ({
  page,
  demo,
}) => {
  const eaters = (await demo.get("/api/aim/eaters")) as {
    id: string;
    name: string;
    version: number;
    aim: unknown;
    ways: Record<string, unknown>;
  }[];
  const { id, name, version, aim, ways } = eaters[0]!;
  const week = await demo.get("/api/plan/weeks/2026-11-25");
  await demo.send(
    "POST",
    "/api/plan/foods",
    { text: "2 eggs", eaterId: id, day: "2026-11-28" },
    week.version,
  );
  await demo.send(
    "PUT",
    `/api/aim/eaters/${id}`,
    { name, aim, ways: { ...ways, neverAllergens: ["eggs"] } },
    version,
  );

  await page.goto(`${demo.url}/recipes`);
  const asked = page.getByRole("alert");
  await expect(asked).toContainText("must never get");
  await expect(asked).toContainText(`${name}, Sat 28 Nov: 2 eggs holds eggs`);
  await page.getByRole("link", { name: /^Plan/ }).click();
  const row = page.locator(`[data-day="${id}|2026-11-28"]`);
  await expect(row).toContainText(`never for ${name}: eggs`);
  await expect(row.getByText("fits", { exact: true })).toHaveCount(0);

  await asked.getByRole("button", { name: /^Leave/ }).click();
  await expect(asked).toHaveCount(0);
  await expect(row).toContainText(`never for ${name}: eggs`);

  // Another reason is asked about anew.
  const now = ((await demo.get("/api/aim/eaters")) as typeof eaters)[0]!;
  await demo.send(
    "PUT",
    `/api/aim/eaters/${id}`,
    { name, aim, ways: { ...ways, neverAllergens: ["eggs"], neverFoods: ["egg"] } },
    now.version,
  );
  // The week as it was read before the press arrives after it.
  let arrive = () => {};
  const pressed = new Promise<void>((done) => (arrive = done));
  await page.route(
    /\/api\/plan\/weeks\//,
    async (route) => {
      const before = await route.fetch();
      await pressed;
      await route.fulfill({ response: before });
    },
    { times: 1 },
  );
  await page.reload();
  await asked.getByRole("button", { name: /^Take/ }).click();
  await expect(asked).toHaveCount(0);
  arrive();
  await expect(dayOf(page, "Saturday").getByRole("button").first()).toBeVisible();
  await expect(dayOf(page, "Saturday").getByRole("button", { name: /^egg/ })).toHaveCount(0);
});

test("what must never be somebody's becomes no box for them, and the bench says so", async ({
  page,
  demo,
}) => {
  const [eater] = (await demo.get("/api/aim/eaters")) as {
    id: string;
    name: string;
    version: number;
    aim: unknown;
    ways: object;
  }[];
  const batches = (await demo.get("/api/pack/batches")) as { id: string; state: string }[];
  const waiting = batches.find(({ state }) => state === "cooking")!;
  const { version } = await demo.get("/api/plan/weeks/2026-11-25");
  const portion = { batchId: waiting.id, eaterId: eater!.id, day: "2026-11-27" };
  await demo.send("POST", "/api/plan/portions", portion, version);
  const ways = { ...eater!.ways, neverFoods: ["red-lentils-dry"] };
  await demo.send("PUT", `/api/aim/eaters/${eater!.id}`, { ...eater, ways }, eater!.version);

  await page.goto(`${demo.url}/pack/${waiting.id}`);
  await page.getByLabel("Full pan").fill("6,330");
  await page.getByRole("button", { name: /^Make/ }).click();
  await expect(page.getByText(`${eater!.name} must never get this`, { exact: false })).toBeVisible();
  const off = page.getByRole("button", { name: /^Take (it|them) off/ });
  await off.click();
  await expect(off).toHaveCount(0);
  await page.getByRole("button", { name: /^Make/ }).click();
  await expect(page.getByText(new RegExp(`NOT for ${eater!.name}`)).first()).toBeVisible();
});
