import { test as base, expect, type Locator, type Page } from "@playwright/test";
import { spawn, type ChildProcess } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { createServer } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";

const root = join(import.meta.dirname, "..", "..");

const freePort = () =>
  new Promise<number>((resolve) => {
    const server = createServer().listen(0, "127.0.0.1", () => {
      const { port } = server.address() as { port: number };
      server.close(() => resolve(port));
    });
  });

/** The real host with a file of its own. */
export class House {
  url = "";
  private process: ChildProcess | null = null;
  private readonly folder = mkdtempSync(join(tmpdir(), "tern-e2e-"));

  constructor(private readonly isDemo: boolean) {}

  /** Starts it, on the same address again after a stop. Wednesday, 25 November 2026 in every test. */
  async open() {
    const port = this.url ? Number(new URL(this.url).port) : await freePort();
    this.url = `http://127.0.0.1:${port}`;
    this.process = spawn(
      "dotnet",
      [
        join(root, ".build/host/LivelyTern.Web.dll"),
        "--port",
        String(port),
        "--data",
        join(this.folder, "tern.db"),
        "--today",
        "2026-11-25",
        "--demo",
        String(this.isDemo),
      ],
      { stdio: "ignore" },
    );
    for (let tries = 0; tries < 300; tries++) {
      const up = await fetch(`${this.url}/health`).then(
        (answer) => answer.ok,
        () => false,
      );
      if (up) return;
      await new Promise((wait) => setTimeout(wait, 100));
    }
    throw new Error("The host did not start.");
  }

  async close() {
    const stopped = new Promise((done) => this.process?.once("exit", done));
    this.process?.kill("SIGTERM");
    await stopped;
  }

  async end() {
    await this.close();
    rmSync(this.folder, { recursive: true, force: true });
  }

  async get(path: string) {
    return (await fetch(this.url + path)).json();
  }
}

export const test = base.extend<{ empty: House; demo: House }>({
  // eslint-disable-next-line no-empty-pattern
  empty: async ({}, use) => {
    const house = new House(false);
    await house.open();
    await use(house);
    await house.end();
  },
  // eslint-disable-next-line no-empty-pattern
  demo: async ({}, use) => {
    const house = new House(true);
    await house.open();
    await use(house);
    await house.end();
  },
});

/** The list of what lies on a day, by its spoken label. */
export const dayOf = (page: Page, day: string) => page.getByRole("list", { name: new RegExp(`, ${day}`) });

/** Drags as a hand does, in many small moves. */
export async function drag(page: Page, from: Locator, to: Locator) {
  const middle = async (of: Locator) => {
    await of.scrollIntoViewIfNeeded();
    const { x, y, width, height } = (await of.boundingBox())!;
    return [x + width / 2, y + height / 2] as const;
  };
  const start = await middle(from);
  await page.mouse.move(...start);
  await page.mouse.down();
  await page.mouse.move(start[0] + 8, start[1] + 8, { steps: 4 });
  await page.mouse.move(...(await middle(to)), { steps: 15 });
  await page.waitForTimeout(80);
  await page.mouse.up();
}

export { expect };
