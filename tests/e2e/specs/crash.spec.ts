import { expect, test, type House } from "../house";

interface Week {
  version: number;
  eaters: {
    eaterId: string;
    days: { day: string; items: { id: string; grams: number; name: string }[] }[];
  }[];
}

const week = (house: House) => house.get("/api/plan/weeks/2026-11-25") as Promise<Week>;
const foodsOf = (seen: Week, name: string) =>
  seen.eaters
    .flatMap(({ days }) => days.flatMap(({ items }) => items))
    .filter((item) => item.name === name)
    .map(({ grams }) => grams);

/** Writes one thing after another until the host is gone. @returns what was answered, and what was on its way. */
async function until(gone: { now: boolean; answers: number[][] }, write: (count: number) => Promise<void>) {
  const answered: number[] = [];
  gone.answers.push(answered);
  let onItsWay: number | null = null;
  for (let count = 1; !gone.now; count++) {
    onItsWay = count;
    try {
      await write(count);
      answered.push(count);
      onItsWay = null;
    } catch (error) {
      // A network error: the host is gone. Anything it said itself is a fault.
      if (String(error).includes("Error: 4") || String(error).includes("Error: 5")) throw error;
      break;
    }
  }
  return { answered, onItsWay };
}

/** A process of its own, so that it can be killed. */
async function restartAsProcess(house: House) {
  await house.close();
  await house.openProcess();
}

test("what was answered is there after the power went, and nothing is half there", async ({ demo }) => {
  await restartAsProcess(demo);
  const before = await week(demo);
  const eaterId = before.eaters[0]!.eaterId;
  const [recipe] = (await demo.get("/api/recipes")) as { id: string; name: string }[];
  const laid: number[] = [];
  const named: number[] = [];
  const written: number[] = [];
  let [maybeLaid, maybeWritten]: (number | null)[] = [null, null];
  for (let round = 1; round <= 3; round++) {
    const gone = { now: false, answers: [] as number[][] };
    let { version } = await week(demo);
    const sheet = await demo.get(`/api/recipes/${recipe!.id}`);
    let recipeVersion = sheet.version as number;
    const hands = [
      // Raspberries of 1, 2, 3 ... g on Saturday.
      until(gone, async (count) => {
        const body = { text: `${round * 1000 + count} g raspberries`, eaterId, day: "2026-11-28" };
        ({ version } = await demo.send("POST", "/api/plan/foods", body, version));
      }),
      // New recipes, one after another.
      until(gone, async (count) => {
        const body = {
          name: `Soup ${round * 1000 + count}`,
          lines: ["500 g carrots", "1 l water"],
          portions: 4,
        };
        await demo.send("POST", "/api/recipes", body);
      }),
      // One recipe, saved again and again: its first line counts the saves.
      until(gone, async (count) => {
        const body = {
          name: recipe!.name,
          lines: [`${round * 1000 + count} g red lentils, dry`],
          portions: 4,
        };
        ({ version: recipeVersion } = await demo.send(
          "PUT",
          `/api/recipes/${recipe!.id}`,
          body,
          recipeVersion,
        ));
      }),
    ];
    await expect.poll(() => Math.min(...gone.answers.map(({ length }) => length))).toBeGreaterThan(2);
    await new Promise((wait) => setTimeout(wait, 37 * round));
    const crashed = demo.crash().then(() => (gone.now = true));
    const [foods, recipes, saves] = await Promise.all(hands);
    await crashed;
    const at = (count: number) => round * 1000 + count;
    laid.push(...foods!.answered.map(at));
    named.push(...recipes!.answered.map(at));
    written.push(at(saves!.answered.at(-1)!));
    maybeLaid = foods!.onItsWay === null ? null : at(foods!.onItsWay);
    maybeWritten = saves!.onItsWay === null ? null : at(saves!.onItsWay);

    await demo.openProcess();
    const after = await week(demo);
    const there = foodsOf(after, "raspberries");
    expect(there).toEqual(expect.arrayContaining(laid));
    const extra = there.filter((grams) => !laid.includes(grams));
    expect(extra.every((grams) => grams === maybeLaid)).toBe(true);
    laid.push(...extra);
    const names = ((await demo.get("/api/recipes")) as { name: string }[]).map(({ name }) => name);
    expect(names).toEqual(expect.arrayContaining(named.map((count) => `Soup ${count}`)));
    const kept = await demo.get(`/api/recipes/${recipe!.id}`);
    expect([written.at(-1), maybeWritten]).toContain(parseInt(kept.lines[0]));

    // The other eaters' days, which nobody touched, are as they were.
    expect(after.eaters.slice(1)).toEqual(before.eaters.slice(1));
  }
});

test("an import cut off by a crash leaves no half library behind, and can be taken in again", async ({
  empty,
}) => {
  await restartAsProcess(empty);
  const [offer] = (await empty.get("/api/libraries")).offered as { key: string }[];
  const ready = async (id: string, state: string) =>
    expect
      .poll(async () => (await empty.get(`/api/imports/${id}`)).state as string, { timeout: 60_000 })
      .toBe(state);
  const begin = async () => {
    const { id } = (await empty.send("POST", `/api/imports/offered/${offer!.key}`, null)) as { id: string };
    await ready(id, "ready");
    await empty.send("POST", `/api/imports/${id}/take`, null);
    return id;
  };
  for (const wait of [0, 40, 120]) {
    await begin();
    await new Promise((later) => setTimeout(later, wait));
    await empty.crash();
    await empty.openProcess();
    const { libraries } = await empty.get("/api/libraries");
    expect(libraries.length === 0 || libraries[0].taken === 542).toBe(true);
    const found = (await empty.get("/api/foods?q=amaranth%20seed")) as { source: string }[];
    const indian = found.filter(({ source }) => source.startsWith("Indian Food"));
    expect(indian.length > 0).toBe(libraries.length > 0);
    for (const { id } of libraries) await fetch(`${empty.url}/api/libraries/${id}`, { method: "DELETE" });
  }
  await ready(await begin(), "done");
  expect((await empty.get("/api/libraries")).libraries).toHaveLength(1);
});
