import type { Page } from "@playwright/test";
import { expect, House, test as base } from "../house";

interface Story extends House {
  pass: (minutes: number) => Promise<unknown>;
  eaters: Record<string, string>;
  bowl: { id: string };
}

const sunday = "2026-11-22";
const days = (count: number) => Array.from({ length: count }, (_, i) => `2026-11-${23 + i}`);

// A Sunday afternoon: a bowl for three eaters, five days for two of them and four for one, each their own size.
const test = base.extend<{ story: Story }>({
  // eslint-disable-next-line no-empty-pattern
  story: async ({}, use) => {
    const house = new House(false, `${sunday}T15:00`);
    await house.open();
    const aims = {
      Isa: { leading: "energy", bands: { energy: { min: 1450, target: 1525, max: 1600 } }, rule: null },
      Bram: { leading: "protein", bands: { protein: { min: 110 }, energy: { max: 2300 } }, rule: null },
      Noor: { leading: "netCarbohydrate", bands: { netCarbohydrate: { max: 120 } }, rule: null },
    };
    const eaters: Record<string, string> = {};
    for (const [name, aim] of Object.entries(aims))
      eaters[name] = (await house.send("POST", "/api/aim/eaters", { name, aim })).id;
    const recipe = (name: string, lines: string[], portions: number, more: object) =>
      house.send("POST", "/api/recipes", { name, lines, portions, ...more });
    await recipe("Mash", ["1 kg potatoes", "100 g butter"], 5, { cookedGrams: 1000 });
    await recipe("Roast chicken", ["800 g chicken breast"], 5, { cookedGrams: 600 });
    await recipe("Onion gravy", ["200 g onions", "300 ml water"], 5, { cookedGrams: 200, fills: "220 ml" });
    const bowl = await recipe("Chicken bowl", ["200 g mash", "120 g roast chicken", "40 g onion gravy"], 1, {
      isPutTogether: true,
    });
    const cup = { kind: "cup", name: "Sauce cup", count: 20, compartments: [{ volumeMl: 70 }] };
    await house.send("POST", "/api/pack/containers", cup);
    const [dish] = await house.send("POST", "/api/cook/planned", {
      day: sunday,
      dishes: [{ recipeId: bowl.id, portions: 14 }],
    });
    const sizes: [string, number, number][] = [
      ["Isa", 330, 5],
      ["Bram", 440, 5],
      ["Noor", 280, 4],
    ];
    for (const [name, grams, many] of sizes)
      for (const day of days(many)) {
        const { version } = await house.get(`/api/plan/weeks/${day}`);
        const portion = { batchId: dish.id, eaterId: eaters[name], day, grams };
        await house.send("POST", "/api/plan/portions", portion, version);
      }
    const pass = async (minutes: number) => {
      for (let left = minutes; left > 0; left -= 1440)
        await house.send("POST", "/api/demo/pass", { minutes: Math.min(left, 1440) });
    };
    await use(Object.assign(house, { pass, eaters, bowl: dish }));
    await house.end();
  },
});

async function weigh(page: Page, name: string, full: string) {
  await page.getByRole("link", { name: `Weigh ${name}` }).click();
  await page.getByRole("button", { name: "It is cooked" }).click();
  await page.getByLabel("Full pan on the scale").fill(full);
  await page.getByLabel("Empty pan").fill("1000");
  await page.getByRole("button", { name: /^Keep the weight/ }).click();
  await expect(page.getByText(`The weight of ${name} is kept.`)).toBeVisible();
  await page.getByRole("link", { name: "Chicken bowl" }).first().click();
}

test("weighed, packed into 14 boxes for three eaters with their sauce in cups, labelled, the later half frozen, thawed, eaten", async ({
  page,
  story,
}) => {
  await page.goto(`${story.url}/pack/${story.bowl.id}`);
  await weigh(page, "Mash", "3800");
  await weigh(page, "Roast chicken", "2650");
  await weigh(page, "Onion gravy", "1560");
  await page.getByRole("button", { name: "Put them in part by part" }).click();

  // The gravy goes into its cups, the chicken carries the protein and is weighed; the mash follows as planned.
  await page.getByRole("button", { name: /^Onion gravy/ }).click();
  await page.getByLabel("Where Onion gravy lies").selectOption("Sauce cup");
  await page.getByRole("button", { name: /^Roast chicken/ }).click();
  const before = await story.get(`/api/pack/batches/${story.bowl.id}`);
  const put: number[] = [];
  for (let box = 0; box < 14; box++) {
    const at = page.getByRole("region", { name: new RegExp(`^Roast chicken into box ${box + 1} of 14`) });
    const target = /Target ([\d.]+) g/.exec(await at.innerText().then((text) => text.replace(/\s+/g, " ")))!;
    put.push(Math.round(Number(target[1])));
    await at.getByLabel("Or type it").fill(String(put[box]));
    await at.getByLabel("Or type it").press("Enter");
  }
  await expect(page.getByRole("button", { name: /^Roast chicken 14 of 14/ })).toBeVisible();
  await page.getByRole("button", { name: "Back to the pan" }).click();
  await page.getByRole("button", { name: "Make 14 boxes" }).click();
  await expect(page.getByRole("heading", { name: "14 boxes" })).toBeVisible();

  // Every box is somebody's, holds what it got, and the parts are where they were, less that.
  interface Packed {
    boxes: {
      id: string;
      name: string;
      day: string;
      grams: number;
      putIn: { name: string; grams: number; compartment: string | null }[];
    }[];
  }
  const { boxes } = (await story.get(`/api/pack/batches/${story.bowl.id}`)) as Packed;
  const many = (name: string) => boxes.filter((box) => box.name === name).length;
  expect([many("Isa"), many("Bram"), many("Noor")]).toEqual([5, 5, 4]);
  const of = (name: string) =>
    boxes.reduce((sum, box) => sum + box.putIn.find((part) => part.name === name)!.grams, 0);
  expect(boxes.map((box) => box.putIn.find(({ name }) => name === "Roast chicken")!.grams)).toEqual(put);
  for (const { batchId, name } of before.together.parts) {
    const part = await story.get(`/api/pack/batches/${batchId}`);
    const into = part.together.goesInto[0].grams as number;
    expect(Math.abs(into - of(name))).toBeLessThan(0.01);
    expect(into).toBeLessThanOrEqual(part.fullGrams - part.panGrams + 0.001);
  }
  expect(boxes.every(({ putIn }) => putIn.some((part) => part.compartment === "Sauce cup"))).toBe(true);

  // A label for each, on two sheets of paper.
  await page.getByRole("link", { name: "Labels" }).click();
  await page.getByLabel("Paper").selectOption("a4-2x4");
  await expect(page.getByText("14 labels", { exact: true })).toBeVisible();
  await expect(page.getByRole("img", { name: "Page 2 of 2, labels" })).toBeVisible();
  const printed = (await page.pdf({ preferCSSPageSize: true })).toString("latin1");
  expect(printed.match(/\/Type\s*\/Page\b/g)).toHaveLength(2);
  const noors = await story.send("POST", "/api/labels", {
    paper: "a4-2x4",
    boxIds: boxes.filter(({ name }) => name === "Noor").map(({ id }) => id),
  });
  const code = /Code ([\d-]+)</.exec(noors.pages[0])![1]!;

  // Chicken keeps three days: what is for Thursday and Friday is frozen on Sunday night.
  await page.goto(`${story.url}/keep`);
  const freeze = page.getByRole("region", { name: "Freeze tonight" });
  for (const whose of ["for Isa Thu, Fri", "for Bram Thu, Fri", "for Noor Thu"])
    await expect(freeze.getByText(whose)).toBeVisible();
  await freeze.getByRole("button", { name: "All 5 are in the freezer" }).click();
  await expect(freeze).toBeHidden();

  // Monday to Wednesday they eat what is in the fridge; on Wednesday Thursday's boxes come out.
  for (const [day, passed] of [
    ["2026-11-23", 1440],
    ["2026-11-24", 1440],
    ["2026-11-25", 1440],
  ] as const) {
    await story.pass(passed);
    for (const { id, name } of boxes.filter((box) => box.day === day)) {
      const { version } = await story.get(`/api/plan/weeks/${day}`);
      const eat = { boxIds: [id], eaterId: story.eaters[name], day };
      await story.send("POST", "/api/keep/boxes/eaten", eat, version);
    }
  }
  await page.goto(`${story.url}/keep`);
  const thaw = page.getByRole("region", { name: "Thaw for tomorrow" });
  await thaw.getByRole("button", { name: "All 3 are in the fridge" }).click();
  await expect(thaw).toBeHidden();

  // Thursday noon, by the label's code: what is in it, and eaten.
  await story.pass(1440);
  const thursday = boxes.find(({ name, day }) => name === "Noor" && day === "2026-11-26")!;
  const last = await story.send("POST", "/api/labels", { paper: "a4-2x4", boxIds: [thursday.id] });
  const thursdays = /Code ([\d-]+)</.exec(last.pages[0])![1]!;
  expect(thursdays).not.toBe(code);
  await page.goto(`${story.url}/box/${thursdays}`);
  await expect(page.getByText("Onion gravy, Sauce cup")).toBeVisible();
  await page.getByRole("button", { name: "Eaten …" }).click();
  await page.getByRole("button", { name: "Noor" }).click();
  await expect(page.getByText(/^Noor ate/)).toBeVisible();
  const ate = await story.get(`/api/eat/${story.eaters.Noor}/2026-11-26`);
  expect(ate.day.items.map(({ eatenAt }: { eatenAt: string | null }) => eatenAt !== null)).toEqual([true]);
  const left = (await story.get("/api/keep")) as { groups: { place: string; boxes: unknown[] }[] };
  const there = (place: string) =>
    left.groups.filter((group) => group.place === place).reduce((sum, group) => sum + group.boxes.length, 0);
  expect([there("freezer"), there("fridge")]).toEqual([2, 2]);
});
