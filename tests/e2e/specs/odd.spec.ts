import { expect, test, type House } from "../house";

// As long as a name may be, without a place to break it; letters that turn a line around; a script.
const long = "W".repeat(118);
const turned = "‮<script>alert(1)</script> ½🥚 & “;";

interface Made {
  id: string;
  version: number;
}

const days = ["2026-11-25", "2026-11-26", "2026-11-27"];

async function household(house: House) {
  const post = (path: string, body: unknown, version?: number) =>
    house.send("POST", path, body, version) as Promise<Made>;
  const aim = { leading: "energy", bands: { energy: { min: 1450, target: 1525, max: 1600 } }, rule: null };
  const eaters = [
    await post("/api/aim/eaters", { name: "W".repeat(40), aim }),
    await post("/api/aim/eaters", { name: "<b>‮oB", aim }),
  ];
  const recipe = (name: string, lines: string[], more: object = {}) =>
    post("/api/recipes", { name, lines, portions: 4, ...more });
  const odd = [
    await recipe("Only a pinch", ["a pinch of salt"]),
    await recipe("More out than in", ["100 g rolled oats", "200 g milk"], { takenOut: [false, true] }),
    await recipe(long, ["400 g rolled oats", `4 eggs, ${"x".repeat(280)}`], {
      steps: [{ text: "y".repeat(1900) }],
    }),
    await recipe(turned, ["400 g rolled oats", "no such food at all", turned]),
  ];
  for (const { id } of odd)
    await post("/api/cook/planned", { day: days[1], dishes: [{ recipeId: id, portions: 4 }] });

  // Grams typed for kilograms.
  const batch = await post("/api/cook/batches", { recipeId: odd[2]!.id });
  const weighed = { fullGrams: 99_000, panGrams: 455, boxes: 4 };
  const packed = (await post(`/api/pack/batches/${batch.id}/boxes`, weighed, batch.version)) as Made & {
    boxes: { id: string }[];
  };
  await post(
    "/api/plan/boxes",
    { boxId: packed.boxes[0]!.id, eaterId: eaters[0]!.id, day: days[0] },
    2 ** 31 - 1,
  );
  for (const text of [`10 g rolled oats, ${"z".repeat(200)}`, "0.01 g salt", "99 kg rolled oats"])
    await post("/api/plan/foods", { text, eaterId: eaters[0]!.id, day: days[0] }, 2 ** 31 - 1);
  await post("/api/shop/own", { text: "Ω".repeat(200) });
  await post("/api/shop/pantry", { text: "99 kg rolled oats" });
  return { odd, batch };
}

for (const [name, viewport] of [
  ["desk", { width: 1280, height: 800 }],
  ["phone", { width: 390, height: 844 }],
] as const)
  test(`what is odd, endless or turned around takes no room down and makes none wider, ${name}`, async ({
    browser,
    empty,
  }) => {
    const { odd, batch } = await household(empty);
    const context = await browser.newContext({ viewport });
    const page = await context.newPage();
    const wrong: string[] = [];
    page.on("pageerror", (error) => wrong.push(`${page.url()}: ${error.message}`));
    page.on("console", (said) => said.type() === "error" && wrong.push(`${page.url()}: ${said.text()}`));
    page.on("dialog", (dialog) => {
      wrong.push(`${page.url()}: a script ran`);
      void dialog.dismiss();
    });
    const rooms = ["aim", "recipes", ...odd.map(({ id }) => `recipes/${id}`), "foods", "plan", "shop"];
    rooms.push("shop?view=pantry", `cook?day=${days[1]}`, "pack", `pack/${batch.id}`, "containers", "keep");
    rooms.push(
      "keep?view=cooling",
      "eat",
      "eye",
      "review",
      "review?view=body",
      "review?view=kitchen",
      "backup",
    );
    for (const room of rooms) {
      await page.goto(`${empty.url}/${room}`);
      await page.getByText("Fetching").waitFor({ state: "detached" });
      await expect(page.getByRole("heading").first()).toBeAttached();
      await page.waitForTimeout(200);
      if ((await page.getByText(/went wrong|no answer|can.t be shown/i).count()) > 0)
        wrong.push(`${room} is down`);
      const wide = await page.evaluate(() =>
        Math.max(
          ...[document.documentElement, ...document.querySelectorAll("main")].map(
            ({ scrollWidth, clientWidth }) => scrollWidth - clientWidth,
          ),
        ),
      );
      const links = page.getByRole("link", { name: "Write its steps" });
      if (room.startsWith("cook") && name === "desk") {
        // The sentence about the dish whose name turns around reads on after it, its link at the end.
        const [link, sentence] = [
          await links.last().boundingBox(),
          await links.last().locator("..").boundingBox(),
        ];
        expect(link!.x).toBeGreaterThan(sentence!.x + 200);
      }
      if (wide > 0) wrong.push(`${room} is ${wide} px wider than the screen`);
    }
    expect(wrong).toEqual([]);
    await context.close();
  });
