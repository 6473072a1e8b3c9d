import type { Page } from "@playwright/test";
import { keepDraft } from "./house";

/** A screen of the demo: its name, its address, and what is pressed there until it is whole. */
export type Screen = [string, string, ((page: Page) => Promise<void>)?];

/** Every screen there is, with what opens on it. */
export const screens: Screen[] = [
  [
    "aim",
    "/aim",
    async (page) => {
      for (const part of [
        "What a point is",
        "Never, and rather not",
        "Other days",
        "Parts of the day",
        "Variety and weekly extra",
        "Without numbers",
      ])
        await page.getByText(part).first().click();
    },
  ],
  ["recipes", "/recipes"],
  ["workbench", "/recipes", (page) => page.getByRole("link", { name: /lentil dal/ }).click()],
  ["foods", "/foods"],
  ["one food", "/foods/chicken-breast-raw?q=chicken"],
  [
    "label",
    "/foods",
    async (page) => {
      await page.getByRole("button", { name: "From a label" }).click();
      await page.getByLabel("energy, kcal").fill("900");
      await page.getByLabel("protein", { exact: true }).fill("10");
      await page.getByLabel("fat", { exact: true }).fill("10");
      await page.getByLabel("carbohydrate", { exact: true }).fill("10");
      await page.getByText("can't be quite right").waitFor();
    },
  ],
  ["barcode", "/foods", (page) => page.getByRole("button", { name: "By barcode" }).click()],
  [
    "import preview",
    "/foods/libraries",
    async (page) => {
      await page.getByRole("button", { name: "Take it in" }).click();
      await page.getByText("foods would be taken").waitFor();
      await page.getByText("Which column is what").click();
    },
  ],
  ["recipe read", "/recipes", (page) => page.getByRole("button", { name: "From a file or text" }).click()],
  ...(["Steps", "Cut", "History"] as const).map((view): Screen => [
    `workbench, ${view}`,
    "/recipes",
    async (page) => {
      await page.getByRole("link", { name: /lentil dal/ }).click();
      await page.getByRole("button", { name: view, exact: true }).click();
      await page.getByRole("list").last().waitFor();
    },
  ]),
  [
    "swap bench",
    "/recipes",
    async (page) => {
      await page.getByRole("link", { name: /lentil dal/ }).click();
      await page.getByRole("button", { name: "Swap", exact: true }).click();
      await page.getByLabel("would be").fill("800 g red lentils, dry");
      await page.getByRole("button", { name: "Find ways" }).click();
      await page.getByRole("button", { name: "Take it" }).nth(1).waitFor();
    },
  ],
  ["plan", "/plan"],
  ["plan of all", "/plan", (page) => page.getByRole("button", { name: "all", exact: true }).click()],
  ["plan while carrying", "/plan", (page) => page.getByRole("button", { name: /Seed bars, \d box/ }).click()],
  [
    "fit draft",
    "/plan",
    async (page) => {
      await page.getByRole("button", { name: "Fit", exact: true }).click();
      await page.getByText("What counts how much").click();
      await page.getByRole("button", { name: "Find a plan" }).click();
      await keepDraft(page);
    },
  ],
  [
    "menu, and a batch changed",
    "/plan",
    async (page) => {
      await page
        .getByRole("button", { name: /Change day or amount of/ })
        .first()
        .click();
      await page.getByRole("button", { name: "Menu", exact: true }).click();
      await page.getByRole("button", { name: "Propose a menu" }).click();
      await page.getByRole("button", { name: /^Plan \d batch/ }).waitFor();
    },
  ],
  [
    "to be cooked",
    "/pack",
    (page) => page.getByRole("region", { name: "To be cooked" }).getByRole("link").first().click(),
  ],
  [
    "day in depth",
    "/plan",
    async (page) => {
      await page
        .getByRole("button", { name: /^Open Thursday/ })
        .first()
        .click();
      await page.getByRole("button", { name: "Why is it here?" }).first().click();
      await page.getByText("A meal out").click();
    },
  ],
  [
    "need",
    "/aim",
    async (page) => {
      await page.getByRole("button", { name: "Work out a target" }).first().click();
      await page.getByRole("textbox", { name: "Age" }).fill("35");
      await page.getByRole("textbox", { name: "Weight" }).fill("65");
      await page.getByRole("textbox", { name: "Height" }).fill("165");
      await page.getByText("kcal a day").waitFor();
    },
  ],
  ["shop", "/shop"],
  [
    "a food of the list",
    "/shop",
    async (page) => {
      await page.getByRole("button", { name: "More about cheddar" }).click();
      await page.getByRole("group", { name: "Not sold here?" }).getByRole("button").first().click();
      await page.getByText("What it does to the days").waitFor();
    },
  ],
  ["aisles", "/shop", (page) => page.getByRole("button", { name: "Aisles and currency" }).click()],
  ["in the house", "/shop?view=pantry"],
  ["cook", "/cook?day=2026-11-29"],
  ["the run", "/cook"],
  [
    "weighing in",
    "/cook",
    async (page) => {
      await page.getByRole("button", { name: "What goes into Red lentil dal" }).click();
      await page.getByRole("button", { name: "Change 3 onions, chopped" }).click();
    },
  ],
  [
    "kitchen",
    "/cook?day=2026-11-29",
    async (page) => {
      await page.getByRole("button", { name: "Everything in the kitchen" }).click();
      await page.getByRole("button", { name: "Add a quiet time" }).click();
    },
  ],
  ["pack", "/pack"],
  [
    "weighing",
    "/pack",
    async (page) => {
      await page.getByRole("region", { name: "To be packed" }).getByRole("link").click();
      await page.getByLabel("Full pan").fill("100");
    },
  ],
  [
    "boxes their own way",
    "/pack",
    async (page) => {
      await page.getByRole("region", { name: "To be packed" }).getByRole("link").click();
      await page.getByLabel("Full pan").fill("3000");
      await page.getByRole("button", { name: "squares of the pan" }).click();
      await page.getByRole("button", { name: "each its own way" }).click();
      await page.getByRole("img", { name: /squares/ }).waitFor();
    },
  ],
  [
    "filling",
    "/pack",
    async (page) => {
      await page.getByRole("region", { name: "To be packed" }).getByRole("link").click();
      await page.getByLabel("Full pan").fill("3000");
      await page.getByRole("button", { name: "Fill them on the scale" }).click();
      await page.getByLabel("Or type it").fill("500");
      await page.getByRole("button", { name: "Take 500 g" }).click();
    },
  ],
  [
    "packed",
    "/pack",
    (page) => page.getByRole("region", { name: "In their boxes" }).getByRole("link").first().click(),
  ],
  ["containers", "/containers"],
  ["eye", "/eye"],
  ["a container", "/containers", (page) => page.getByRole("button", { name: "Change Watch tin" }).click()],
  [
    "labels",
    "/keep",
    async (page) => {
      await page
        .getByRole("button", { name: /^Fish and fennel tray bake, 4 ×/ })
        .first()
        .click();
      const chosen = page.getByRole("region", { name: /chosen$/ });
      await chosen.getByRole("link", { name: "Labels" }).click();
      await page.getByRole("img", { name: "Page 1 of 1, labels" }).waitFor();
    },
  ],
  [
    "labels of a dish",
    "/pack",
    async (page) => {
      await page.getByRole("region", { name: "In their boxes" }).getByRole("link").first().click();
      await page.getByRole("link", { name: "Labels" }).click();
      await page.getByRole("img", { name: "Page 1 of 1, labels" }).waitFor();
    },
  ],
  ["a box", "/box/13-002-1"],
  ["no such box", "/box/soup"],
  [
    "keep",
    "/keep",
    (page) =>
      page
        .getByRole("button", { name: /^Choose single boxes/ })
        .last()
        .click(),
  ],
  [
    "cooling",
    "/keep?view=cooling",
    async (page) => {
      await page.getByRole("button", { name: "in the fridge" }).click();
      await page.getByLabel("How deep it lies").fill("7");
      await page.getByText("Split it into").waitFor();
    },
  ],
  ["rules", "/keep?view=rules"],
  ["eat", "/eat"],
  [
    "not quite",
    "/eat",
    (page) =>
      page
        .getByRole("button", { name: /^Not quite/ })
        .first()
        .click(),
  ],
  [
    "weigh it",
    "/eat",
    async (page) => {
      await page.getByRole("button", { name: "Weigh onto the plate" }).click();
      await page.getByLabel("What is it?").fill("white rice");
      await page.getByLabel("Grams").fill("150");
      await page.getByText("How was it weighed?").waitFor();
    },
  ],
  [
    "what still fits",
    "/eat",
    async (page) => {
      await page.getByRole("button", { name: "What still fits" }).click();
      await page.getByRole("dialog").getByRole("listitem").first().waitFor();
    },
  ],
  [
    "review",
    "/review",
    async (page) => {
      await page.getByText("The same as a table").first().click();
      await page.getByRole("button", { name: "How was it: Red lentil dal" }).click();
    },
  ],
  [
    "review, the body",
    "/review?view=body",
    async (page) => {
      await page.getByText("All weigh-ins").click();
      await page.getByRole("button", { name: "0.25 kg a week less" }).click();
      await page.getByText("Change the aim from").waitFor();
    },
  ],
  ["review, the kitchen", "/review?view=kitchen", (page) => page.getByText("Thrown away").waitFor()],
  ["backup", "/backup", (page) => page.getByText("Copies on this machine").waitFor()],
  ["fit again", "/eat", (page) => page.getByRole("button", { name: "Fit the rest again" }).click()],
  ["keys", "/plan", (page) => page.keyboard.press("?")],
  ["finder", "/plan", (page) => page.keyboard.press("/")],
  ["no such page", "/moon"],
];
