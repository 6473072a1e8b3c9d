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
  ["plan", "/plan", desk],
  ["plan-all", "/plan", desk, (page) => page.getByRole("button", { name: "all", exact: true }).click()],
  ["plan-night", "/plan", desk, (page) => page.getByRole("button", { name: "Night kitchen" }).click()],
  ["pack", "/pack", desk, weigh],
  ["pack-phone", "/pack", phone, weigh],
  ["eat", "/eat", desk],
  ["eat-phone", "/eat", phone],
];

async function weigh(page: Page) {
  await page.getByRole("region", { name: "To be packed" }).getByRole("link").click();
  await page.getByLabel("Full pan").fill("6330");
  await page.getByText("in each box").waitFor();
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
