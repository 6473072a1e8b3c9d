import AxeBuilder from "@axe-core/playwright";
import type { Page } from "@playwright/test";
import { gzipSync } from "node:zlib";
import { expect, test } from "../house";

const screens: [string, string, ((page: Page) => Promise<void>)?][] = [
  ["aim", "/aim", (page) => page.getByText("What a point is").first().click()],
  ["recipes", "/recipes"],
  ["workbench", "/recipes", (page) => page.getByRole("link", { name: /lentil dal/ }).click()],
  ["plan", "/plan"],
  ["plan of all", "/plan", (page) => page.getByRole("button", { name: "all", exact: true }).click()],
  ["plan while carrying", "/plan", (page) => page.getByRole("button", { name: /Seed bars, \d box/ }).click()],
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
    "packed",
    "/pack",
    (page) => page.getByRole("region", { name: "In their boxes" }).getByRole("link").first().click(),
  ],
  ["eat", "/eat"],
  ["keys", "/plan", (page) => page.keyboard.press("?")],
  ["finder", "/plan", (page) => page.keyboard.press("/")],
  ["no such page", "/moon"],
];

for (const [ground, size] of [
  ["light", { width: 1280, height: 800 }],
  ["dark", { width: 1280, height: 800 }],
  ["light", { width: 390, height: 844 }],
] as const)
  test(`axe finds nothing and nothing is logged, ${ground} at ${size.width}`, async ({ browser, demo }) => {
    test.setTimeout(180_000);
    const context = await browser.newContext({ viewport: size });
    await context.addInitScript((wanted) => localStorage.setItem("tern.ground", wanted), ground);
    const logged: string[] = [];
    for (const [name, path, act] of screens) {
      const page = await context.newPage();
      page.on(
        "console",
        (message) =>
          message.type() === "error" &&
          !/status of 422/.test(message.text()) &&
          logged.push(`${name}: ${message.text()}`),
      );
      page.on("pageerror", (error) => logged.push(`${name}: ${error.message}`));
      await page.goto(demo.url + path);
      await page.getByText("Fetching").waitFor({ state: "detached" });
      await expect(page.getByRole("link", { name: /^Plan/ })).toBeVisible();
      await act?.(page);
      await page.waitForTimeout(400);
      // The dark ground changes only colours, the phone everything but colours.
      const axe = new AxeBuilder({ page });
      if (ground === "dark") axe.withRules(["color-contrast"]);
      else if (size.width < 400) axe.disableRules(["color-contrast"]);
      const { violations } = await axe.analyze();
      expect(
        violations.map(
          ({ id, nodes }) => `${name}: ${id} ${nodes.map(({ html }) => html.slice(0, 160)).join(" | ")}`,
        ),
      ).toEqual([]);
      const overflow = await page.evaluate(
        () => document.documentElement.scrollWidth - document.documentElement.clientWidth,
      );
      expect(overflow, `${name} is wider than the screen`).toBeLessThanOrEqual(0);
      await page.close();
    }
    expect(logged).toEqual([]);
    await context.close();
  });

test("all script together is under 250 kB gzipped, and nothing is asked of another host", async ({
  page,
  demo,
}) => {
  const scripts = new Map<string, number>();
  const foreign: string[] = [];
  page.on("response", async (answer) => {
    if (!answer.url().startsWith(demo.url) && !answer.url().startsWith("data:")) foreign.push(answer.url());
    if (answer.status() === 200 && answer.url().endsWith(".js"))
      scripts.set(answer.url(), gzipSync(await answer.body()).length);
  });
  for (const room of ["plan", "aim", "recipes", "pack", "eat"]) {
    await page.goto(`${demo.url}/${room}`);
    await page.getByText("Fetching").waitFor({ state: "detached" });
    if (room === "recipes" || room === "pack") {
      await page.getByRole("main").getByRole("link").first().click();
      await page.waitForTimeout(300);
    }
  }
  await page.goto(`${demo.url}/docs/`);
  await page.waitForTimeout(1500);
  const ours = [...scripts].filter(([url]) => !url.includes("/docs/") && !url.includes("scalar"));
  const total = ours.reduce((sum, [, size]) => sum + size, 0);
  expect(total).toBeGreaterThan(50_000);
  expect(total).toBeLessThan(250_000);
  expect(foreign).toEqual([]);
});

for (const room of ["plan", "recipes", "eat", "pack", "aim"])
  test(`${room} does not shift while it loads`, async ({ page, demo }) => {
    await page.addInitScript(() => {
      const w = window as unknown as { shift: number };
      w.shift = 0;
      new PerformanceObserver((list) => {
        for (const entry of list.getEntries() as unknown as { value: number; hadRecentInput: boolean }[])
          if (!entry.hadRecentInput) w.shift += entry.value;
      }).observe({ type: "layout-shift", buffered: true });
    });
    await page.goto(`${demo.url}/${room}`);
    await page.getByText("Fetching").waitFor({ state: "detached" });
    await page.waitForTimeout(1200);
    await expect(page.getByRole("heading", { level: 1 })).toBeAttached();
    expect(await page.evaluate(() => (window as unknown as { shift: number }).shift)).toBeLessThan(0.01);
  });
