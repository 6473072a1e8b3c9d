// From a key to what it changes on the screen, in a real browser, against a host of its own: in the recipe workbench, and in the week of four eaters; and from the scale to the screen. Run by ./tern bench.
import { createRequire } from "node:module";
import { spawn } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";

const { chromium } = createRequire(new URL("../tests/e2e/package.json", import.meta.url))("@playwright/test");
const folder = mkdtempSync(join(tmpdir(), "tern-keys-"));
const url = "http://127.0.0.1:5185";
const host = spawn(
  "dotnet",
  [".build/host/LivelyTern.Web.dll", "--port", "5185", "--data", join(folder, "tern.db"), "--demo", "true"],
  { stdio: "ignore" },
);
try {
  for (let i = 0; i < 300; i++) {
    const up = await fetch(`${url}/health`).then(
      ({ ok }) => ok,
      () => false,
    );
    if (up) break;
    await new Promise((wait) => setTimeout(wait, 100));
  }
  const browser = await chromium.launch({
    executablePath: process.env.TERN_CHROMIUM ?? "/usr/bin/chromium",
    args: ["--no-sandbox", "--disable-gpu", "--disable-quic"],
  });
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await recipeWorkbench(page);
  await weekOfFour(page);
  await scaleToScreen(page);
  await browser.close();
} finally {
  const stopped = new Promise((done) => host.once("exit", done));
  host.kill("SIGTERM");
  await stopped;
  rmSync(folder, { recursive: true, force: true });
}

function tell(what, times, of = "keys") {
  const sorted = times.sort((a, b) => a - b);
  const at = (share) => sorted[Math.floor(sorted.length * share)].toFixed(0);
  console.log(
    `${what}, ${sorted.length} ${of}: p50 ${at(0.5)} ms, p95 ${at(0.95)} ms (wanted: p95 within 100 ms)`,
  );
}

async function recipeWorkbench(page) {
  await page.goto(`${url}/recipes`);
  await page.getByRole("link", { name: /lentil dal/ }).click();
  const line = page.getByLabel("Line 1", { exact: true });
  await line.waitFor();
  await page.waitForTimeout(1500);
  // Each key changes the amount; the time runs from the key to the first frame in which the portion's figures differ.
  const times = await page.evaluate(async () => {
    const input = document.querySelector("[aria-label='Line 1']");
    const figures = () => document.querySelector("aside dl").textContent;
    const set = Object.getOwnPropertyDescriptor(Object.getPrototypeOf(input), "value").set;
    const measured = [];
    for (let i = 0; i < 130; i++) {
      const before = figures();
      const start = performance.now();
      set.call(input, `${700 + ((i * 37) % 200)} g red lentils, dry`);
      input.dispatchEvent(new Event("input", { bubbles: true }));
      while (figures() === before && performance.now() - start < 3000)
        await new Promise((frame) => requestAnimationFrame(frame));
      if (i >= 10) measured.push(performance.now() - start);
      await new Promise((rest) => setTimeout(rest, 40));
    }
    return measured;
  });
  tell("a keystroke in the recipe workbench to new figures", times);
}

// A fourth eater who eats as the first does; then every block of 28 rulers is measured anew with each key, and a box is carried from place to place.
async function weekOfFour(page) {
  const send = (method, path, body, version) =>
    fetch(url + path, {
      method,
      headers: { "content-type": "application/json", "If-Match": `"${version}"` },
      body: JSON.stringify(body),
    }).then((answer) => answer.json());
  const today = new Date().toISOString().slice(0, 10);
  const week = await (await fetch(`${url}/api/plan/weeks/${today}`)).json();
  const fourth = await send("POST", "/api/aim/eaters", { name: "Fourth", aim: week.eaters[0].aim });
  let { version } = week;
  for (const { day, items } of week.eaters[0].days) {
    for (const { grams, name } of items) {
      const made = await send(
        "POST",
        "/api/plan/foods",
        { text: `${Math.round(grams)} g rolled oats`, eaterId: fourth.id, day },
        version,
      );
      if (made.version) ({ version } = made);
      else throw new Error(`${name} could not be laid: ${made.detail}`);
    }
  }
  await page.goto(`${url}/plan`);
  await page.getByRole("button", { name: "all", exact: true }).click();
  await page
    .getByRole("list", { name: /^Fourth/ })
    .first()
    .waitFor();
  await page.waitForTimeout(1500);
  // From the key to the frame after the one in which the screen differs.
  const measure = (keys, differs) =>
    page.evaluate(
      async ([keys, differs]) => {
        const frame = () => new Promise((next) => requestAnimationFrame(next));
        const look = new Function(`return ${differs}`);
        const measured = [];
        for (let i = 0; i < 110; i++) {
          const before = look();
          const start = performance.now();
          document.activeElement.dispatchEvent(
            new KeyboardEvent("keydown", { key: keys[i % keys.length], bubbles: true, cancelable: true }),
          );
          while (look() === before && performance.now() - start < 3000) await frame();
          await frame();
          if (i >= 10) measured.push(performance.now() - start);
          await new Promise((rest) => setTimeout(rest, 40));
        }
        return measured;
      },
      [keys, differs],
    );
  tell(
    "a key that measures the week of four eaters anew",
    await measure(["2", "3", "4", "1"], "document.querySelector('main').textContent"),
  );
  await page
    .getByRole("button", { name: /, \d+ box(es)?, .* each, cooked/ })
    .first()
    .click();
  tell(
    "an arrow that carries a box over the week of four eaters",
    await measure(
      ["ArrowDown", "ArrowDown", "ArrowUp", "ArrowUp"],
      "document.querySelector('[data-day].outline-2')?.dataset.day",
    ),
  );
}

// From a reading of the scale, by its own clock, to the first frame that shows it: ten readings a second while the load changes.
async function scaleToScreen(page) {
  await page.goto(`${url}/pack`);
  await page.getByRole("region", { name: "To be packed" }).getByRole("link").click();
  await page.locator("[data-reading]").waitFor();
  const play = (amount) =>
    fetch(`${url}/api/devices/play`, {
      method: "POST",
      headers: { "Content-Type": "application/json" },
      body: JSON.stringify({ act: "put", amount }),
    });
  let up = 1;
  const hands = setInterval(() => void play(40 * (up = -up)), 350);
  const times = await page.evaluate(async () => {
    const shown = document.querySelector("[data-reading]").parentElement;
    const measured = [];
    let last = shown.dataset.at;
    while (measured.length < 220) {
      await new Promise((frame) => requestAnimationFrame(frame));
      if (shown.dataset.at === last || !shown.dataset.at) continue;
      last = shown.dataset.at;
      measured.push(Date.now() - Date.parse(last));
    }
    return measured.slice(20);
  });
  clearInterval(hands);
  tell("a reading of the simulated scale, over WebSocket, host and stream, to the frame that shows it", times, "readings");
}
