import AxeBuilder from "@axe-core/playwright";
import type { Page } from "@playwright/test";
import { gzipSync } from "node:zlib";
import { expect, test } from "../house";
import { screens } from "../screens";

// What shares its pieces with another screen is looked at on the light ground and in full width only.
const lookedAtOnce =
  /^(workbench, |to be cooked|barcode|one food|recipe read|plan of all|plan while|packed|labels of|keys|finder|no such)/;
// On the phone axe looks where a phone is used; elsewhere nothing may be wider than the screen.
const phonePlace =
  /^(shop|a food of the list|in the house|cook|the run|weighing in|pack|weighing|boxes their own way|filling|eye|containers|labels of a dish|a box|keep|cooling|eat|plan|day in depth)$/;

const perTest = 4;
const looks = Array.from({ length: Math.ceil(screens.length / perTest) }, (_, part) =>
  screens.slice(part * perTest, (part + 1) * perTest),
);

/** What axe finds. A row like the fifteen before it tells nothing new, and is what takes the time. */
async function faults(page: Page, look: string, rules: (axe: AxeBuilder) => AxeBuilder) {
  const axe = new AxeBuilder({ page })
    .options({ resultTypes: ["violations"] })
    .setLegacyMode(true)
    .exclude(":is(li, tr):nth-child(n + 16)");
  const { violations } = await rules(axe).analyze();
  return violations.map(
    ({ id, nodes }) => `${look}: ${id} ${nodes.map(({ html }) => html.slice(0, 160)).join(" | ")}`,
  );
}

for (const some of looks)
  test(`axe finds nothing and nothing is logged, light, dark and on a phone: ${some[0]![0]} to ${some.at(-1)![0]}`, async ({
    browser,
    shown,
  }) => {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
    const logged: string[] = [];
    for (const [name, path, act] of some) {
      const page = await context.newPage();
      page.on(
        "console",
        (message) =>
          message.type() === "error" &&
          !/status of 422/.test(message.text()) &&
          logged.push(`${name}: ${message.text()}`),
      );
      page.on("pageerror", (error) => logged.push(`${name}: ${error.message}`));
      await page.goto(shown.url + path);
      await page.getByText("Fetching").waitFor({ state: "detached" });
      await expect(page.getByRole("link", { name: /^Plan/ })).toBeVisible();
      await act?.(page);
      const fits = async (look: string) => {
        await page.waitForTimeout(300);
        await page.getByText("Fetching").waitFor({ state: "detached" });
        const overflow = await page.evaluate(
          () => document.documentElement.scrollWidth - document.documentElement.clientWidth,
        );
        expect(overflow, `${look} is wider than the screen`).toBeLessThanOrEqual(0);
      };
      await fits(name);
      expect(await faults(page, name, (axe) => axe)).toEqual([]);
      if (!lookedAtOnce.test(name)) {
        await page.evaluate(() => (document.documentElement.dataset.ground = "dark"));
        expect(await faults(page, `${name}, dark`, (axe) => axe.withRules(["color-contrast"]))).toEqual([]);
        await page.evaluate(() => (document.documentElement.dataset.ground = "light"));
        await page.setViewportSize({ width: 390, height: 844 });
        await fits(`${name} on the phone`);
        if (phonePlace.test(name))
          expect(
            await faults(page, `${name} on the phone`, (axe) => axe.disableRules(["color-contrast"])),
          ).toEqual([]);
      }
      await page.close();
    }
    expect(logged).toEqual([]);
    await context.close();
  });

test("a room on its way, and one that did not come, have their landmark and their title", async ({
  browser,
  shown,
}) => {
  const page = await browser.newPage();
  for (const path of [
    "/aim",
    "/foods",
    "/recipes",
    "/plan",
    "/shop",
    "/cook",
    "/pack",
    "/keep",
    "/eat",
    "/review",
    "/backup",
  ]) {
    let release = () => {};
    const held = new Promise<void>((resolve) => (release = resolve));
    await page.route("**/api/**", (route) => held.then(() => route.abort()));
    await page.goto(shown.url + path);
    await page.getByText("Fetching").waitFor();
    expect(await faults(page, `${path} on its way`, (axe) => axe)).toEqual([]);
    release();
    await page.getByRole("button", { name: "Try again" }).waitFor();
    expect(await faults(page, `${path} did not come`, (axe) => axe)).toEqual([]);
    await page.unroute("**/api/**");
    await page.getByRole("button", { name: "Try again" }).click();
    await page.getByRole("button", { name: "Try again" }).waitFor({ state: "detached" });
  }
  await page.close();
});

test("the script of any room is under 250 kB gzipped, and nothing is asked of another host", async ({
  browser,
  shown,
}) => {
  const foreign: string[] = [];
  for (const room of [
    "plan",
    "aim",
    "foods",
    "foods/libraries",
    "recipes",
    "shop",
    "cook",
    "pack",
    "keep",
    "eat",
    "review",
    "backup",
    "docs/",
  ]) {
    // Each from an empty cache, as on a first visit.
    const context = await browser.newContext();
    const page = await context.newPage();
    const scripts = new Map<string, Promise<number>>();
    page.on("response", (answer) => {
      if (!answer.url().startsWith(shown.url) && !answer.url().startsWith("data:"))
        foreign.push(answer.url());
      if (answer.status() === 200 && answer.url().endsWith(".js"))
        scripts.set(
          answer.url(),
          answer.body().then((body) => gzipSync(body).length),
        );
    });
    await page.goto(`${shown.url}/${room}`);
    await page.getByText("Fetching").waitFor({ state: "detached" });
    if (room === "recipes" || room === "pack") await page.getByRole("main").getByRole("link").first().click();
    await page.waitForTimeout(room === "docs/" ? 1500 : 300);
    await page.waitForLoadState("networkidle");
    const total = (await Promise.all(scripts.values())).reduce((sum, size) => sum + size, 0);
    if (room !== "docs/") {
      expect(total, room).toBeGreaterThan(50_000);
      expect(total, room).toBeLessThan(250_000);
    }
    await context.close();
  }
  expect(foreign).toEqual([]);
});

test("no room shifts while it loads", async ({ browser, shown }) => {
  for (const room of ["plan", "foods", "recipes", "eat", "shop", "cook", "pack", "keep", "aim", "review"]) {
    const page = await browser.newPage();
    await page.addInitScript(() => {
      const w = window as unknown as { shift: number };
      w.shift = 0;
      new PerformanceObserver((list) => {
        for (const entry of list.getEntries() as unknown as { value: number; hadRecentInput: boolean }[])
          if (!entry.hadRecentInput) w.shift += entry.value;
      }).observe({ type: "layout-shift", buffered: true });
    });
    await page.goto(`${shown.url}/${room}`);
    await page.getByText("Fetching").waitFor({ state: "detached" });
    await page.waitForTimeout(800);
    await expect(page.getByRole("heading", { level: 1 })).toBeAttached();
    expect(await page.evaluate(() => (window as unknown as { shift: number }).shift), room).toBeLessThan(
      0.01,
    );
    await page.close();
  }
});

test("at 200 % zoom and on a phone held sideways every room is whole: nothing sticks out, and its work can be reached", async ({
  page,
  shown,
}) => {
  // A window of 1280 x 800 at 200 % is one of 640 x 400.
  for (const viewport of [
    { width: 640, height: 400 },
    { width: 844, height: 390 },
  ]) {
    await page.setViewportSize(viewport);
    for (const room of ["aim", "foods", "recipes", "plan", "shop", "cook", "pack", "keep", "eat", "review"]) {
      await page.goto(`${shown.url}/${room}`);
      await page.getByText("Fetching").waitFor({ state: "detached" });
      await expect(page.getByRole("main")).toBeVisible();
      await page.waitForLoadState("networkidle");
      // Measured at one moment: a room on its way has a landmark of its own, which goes when the room is there.
      const { out, below, room_ } = await page.evaluate(() => ({
        out: document.documentElement.scrollWidth - window.innerWidth,
        below: document.documentElement.scrollHeight - window.innerHeight,
        room_: document.querySelector("main")!.getBoundingClientRect().toJSON() as DOMRect,
      }));
      expect(out, `${room} at ${viewport.width}`).toBeLessThanOrEqual(0);
      // The room scrolls, the frame around it never does.
      expect(below, `${room} at ${viewport.width}`).toBeLessThanOrEqual(0);
      expect(room_.height, `${room} at ${viewport.width}`).toBeGreaterThan(100);
      expect(room_.x + room_.width).toBeLessThanOrEqual(viewport.width + 1);
    }
  }
});

// Seen: the row that copies a day was wider than the phone.
test("what a tap opens on a phone is read without moving it sideways", async ({ page, shown }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  const isWhole = async (what: string) => {
    const opened = page.getByRole("dialog");
    await expect(opened.getByRole("heading").first(), what).toBeVisible();
    await page.waitForLoadState("networkidle");
    const out = await opened.evaluate((dialog) =>
      [dialog, ...dialog.querySelectorAll("*")]
        .filter((part) => getComputedStyle(part).position === "fixed")
        .map((part) => part.scrollWidth - part.clientWidth),
    );
    expect(Math.max(0, ...out), what).toBe(0);
    await opened.getByRole("button", { name: "Close" }).first().click();
    await expect(opened).toHaveCount(0);
  };
  await page.goto(`${shown.url}/plan`);
  await page.getByRole("button", { name: "all", exact: true }).click();
  for (const day of ["Wednesday 25 November", "Friday 27 November"])
    for (const who of ["Isa", "Noor"]) {
      await page.getByRole("button", { name: `Open ${day}, ${who}` }).click();
      await isWhole(`${day}, ${who}`);
    }
  for (const panel of ["What to cook", "Fit the days"]) {
    await page.getByRole("button", { name: panel === "What to cook" ? "Menu" : "Fit", exact: true }).click();
    const side = page.getByRole("region", { name: panel });
    await expect(side).toBeVisible();
    expect(await side.evaluate((part) => part.scrollWidth - part.clientWidth), panel).toBe(0);
    await side.getByRole("button", { name: "Close" }).click();
  }
  await page.goto(`${shown.url}/aim`);
  await page.getByRole("button", { name: "Work out a target" }).first().click();
  await isWhole("the need");
});
