import type { Page } from "@playwright/test";
import { mkdirSync } from "node:fs";
import { join } from "node:path";
import { test } from "../house";

const folder = join(import.meta.dirname, "..", "..", "..", "docs", "screenshots");
const desk = { width: 1280, height: 800 };
const phone = { width: 390, height: 844 };

const shots: [string, string, typeof desk, ((page: Page) => Promise<void>)?][] = [
  ["aim", "/aim", desk],
  ["recipes", "/recipes", desk],
  ["recipe", "/recipes", desk, (page) => page.getByRole("link", { name: /lentil dal/ }).click()],
  ["foods", "/foods/chicken-breast-raw?q=chiken", desk],
  ["plan", "/plan", desk],
  ["menu", "/plan?week=2026-11-30", desk, menu],
  ["fit", "/plan", desk, fit],
  [
    "day",
    "/plan",
    desk,
    (page) =>
      page
        .getByRole("button", { name: /^Open Thursday/ })
        .first()
        .click(),
  ],
  ["begin", "/begin", desk, begin],
  ["shop", "/shop", desk],
  ["shop-phone", "/shop", phone],
  ["cook", "/cook?day=2026-11-29", desk, proven],
  ["cook-phone", "/cook", phone],
  ["pack", "/pack", desk, eachItsOwn],
  ["pack-phone", "/pack", phone, fill],
  ["labels", "/pack", desk, labels],
  ["keep", "/keep", desk, readCautions],
  ["eat-phone", "/eat", phone],
  ["review", "/review", desk],
];

async function menu(page: Page) {
  await page.getByRole("button", { name: "all", exact: true }).click();
  for (const down of [0, 3, 7]) {
    await page.getByRole("button", { name: /^Barley and mushroom stew, not packed yet/ }).focus();
    await page.keyboard.press("Enter");
    for (let i = 0; i < down; i++) await page.keyboard.press("ArrowDown");
    await page.keyboard.press("Enter");
    await page.waitForTimeout(500);
  }
  await page.getByRole("button", { name: "Menu", exact: true }).click();
  await page.getByLabel("Dishes").selectOption("2");
  await page.getByLabel("In the house, to be used up").fill("1.2 kg cod fillet");
  await page.getByRole("button", { name: "Propose a menu" }).click();
  await page.getByText(/uses .* g cod/).waitFor();
}

async function labels(page: Page) {
  await page
    .getByRole("region", { name: "In their boxes" })
    .getByRole("link", { name: /Chickpea/ })
    .first()
    .click();
  await page.getByRole("link", { name: "Labels" }).click();
  await page.getByLabel("Heat it like this").fill("10 min in the oven at 160 °C, or cold");
  await page.getByLabel("Add at eating").fill("a spoon of skyr, herbs");
  await page.getByRole("button", { name: "Keep these words" }).click();
  await page.getByLabel("Paper").selectOption("a4-2x7");
  await page.getByRole("img", { name: "Page 1 of 1, labels" }).waitFor();
  await page.waitForTimeout(600);
}

async function readCautions(page: Page) {
  const read = page.getByRole("button", { name: "Read: don't show it here again" });
  await read.first().waitFor();
  while ((await read.count()) > 0) {
    await read.first().click();
    await page.waitForTimeout(300);
  }
}

async function proven(page: Page) {
  await page.getByText("No shorter day is possible").waitFor();
}

async function inWords(page: Page) {
  await proven(page);
  await page.getByRole("main").evaluate((room) => room.scrollTo(0, 300));
}

async function begin(page: Page) {
  await page.getByRole("button", { name: "And someone else" }).click();
  await page.getByLabel("Name").fill("Ole");
  await page.getByLabel("kcal a day").fill("1,900");
}

async function fit(page: Page) {
  await page.getByRole("button", { name: "Fit", exact: true }).click();
  await page.getByRole("button", { name: "Find a plan" }).click();
  await page.getByText("of 5 days fit").waitFor();
}

async function weigh(page: Page) {
  await page.getByRole("region", { name: "To be packed" }).getByRole("link").click();
  await page.getByLabel("Full pan").fill("6330");
  await page.getByText("in each box").waitFor();
}

async function eachItsOwn(page: Page) {
  await weigh(page);
  await page.getByRole("button", { name: "each its own way" }).click();
  const people = await page.getByLabel("Whose box").first().locator("option").allTextContents();
  await page.getByLabel("How many boxes").first().fill("5");
  for (const [person, way, amount] of [
    [people[1]!, "at most", "620"],
    [people[2]!, "a weight", "540"],
  ]) {
    await page.getByRole("button", { name: "Add a box" }).click();
    await page.getByLabel("Whose box").last().selectOption(person!);
    const name = person!.replace("for ", "");
    await page.getByLabel(`How much ${name} gets`).selectOption(way!);
    await page.getByLabel(`Amount ${name}`).fill(amount!);
  }
  await page.getByLabel("to the freezer").first().check();
  await page.getByText("8 boxes, ").or(page.getByText("7 boxes, ")).waitFor();
}

async function fill(page: Page) {
  await weigh(page);
  await page.getByRole("button", { name: "Fill them on the scale" }).click();
  for (const weight of ["472", "468"]) {
    await page.getByLabel("Or type it").fill(weight);
    await page.getByLabel("Or type it").press("Enter");
  }
  await page.getByLabel("Or type it").fill("471");
}

test("the main views, from the demo", async ({ browser, demo }) => {
  mkdirSync(folder, { recursive: true });
  for (const [name, path, viewport, act] of shots) {
    const context = await browser.newContext({ viewport });
    const page = await context.newPage();
    await page.goto(demo.url + path);
    await page.getByText("Fetching").waitFor({ state: "detached" });
    await act?.(page);
    await page.waitForTimeout(700);
    await page.screenshot({ path: join(folder, `${name}.png`) });
    await context.close();
  }
});
