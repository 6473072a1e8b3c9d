import { test as base, expect, type Locator, type Page } from "@playwright/test";
import { spawn, type ChildProcess } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { createServer } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";

const program = join(import.meta.dirname, "..", "..", ".build", "host");

const freePort = () =>
  new Promise<number>((resolve) => {
    const server = createServer().listen(0, "127.0.0.1", () => {
      const { port } = server.address() as { port: number };
      server.close(() => resolve(port));
    });
  });

/** Opens or closes a host of the pool that pool.ts started. */
async function pool(method: "POST" | "DELETE", path: string, body?: unknown): Promise<{ port: number }> {
  const answer = await fetch(process.env.TERN_POOL + path, {
    method,
    headers: { "Content-Type": "application/json" },
    body: body === undefined ? null : JSON.stringify(body),
  });
  if (!answer.ok) throw new Error(`The host did not start: ${await answer.text()}`);
  return (answer.status === 204 ? { port: 0 } : await answer.json()) as { port: number };
}

/** The real host with a file of its own: in the pool, or a process of its own where it is to be killed or lives in another time zone. */
export class House {
  url = "";
  private process: ChildProcess | null = null;
  private readonly folder = mkdtempSync(join(tmpdir(), "tern-e2e-"));

  /**
   * @param isDemo Whether the demo is laid into it.
   * @param at The day it is there, or the moment it is when the house is opened; time passes then when it is let pass.
   */
  constructor(
    readonly isDemo: boolean,
    private readonly at = "2026-11-25",
  ) {}

  /** Its file, whole once the host is closed. */
  get file() {
    return join(this.folder, "tern.db");
  }

  private get port() {
    return this.url ? Number(new URL(this.url).port) : null;
  }

  /** Starts it in the pool, on the same address again after a stop. Wednesday, 25 November 2026, if nothing else is said. */
  async open() {
    const request = {
      data: this.file,
      isDemo: this.isDemo,
      today: this.at,
      port: this.port,
      isClockStill: this.at.includes("T"),
    };
    this.url = `http://127.0.0.1:${(await pool("POST", "/hosts", request)).port}`;
  }

  /**
   * Starts it as a process of its own, on the same address again after a stop.
   *
   * @param zone Where the machine is, "Pacific/Auckland"; as it is if nothing is said.
   */
  async openProcess(zone?: string) {
    const port = this.port ?? (await freePort());
    this.url = `http://127.0.0.1:${port}`;
    this.process = spawn(
      "dotnet",
      [
        join(program, "LivelyTern.Web.dll"),
        "--port",
        String(port),
        "--data",
        this.file,
        "--today",
        this.at,
        "--play-clock",
        this.at.includes("T") ? "still" : "false",
        "--demo",
        String(this.isDemo),
      ],
      { stdio: "ignore", env: zone ? { ...process.env, TZ: zone } : process.env },
    );
    // A busy machine gets the time it needs.
    for (let tries = 0; tries < 1800 && this.process.exitCode === null; tries++) {
      const up = await fetch(`${this.url}/health`).then(
        (answer) => answer.ok,
        () => false,
      );
      if (up) return;
      await new Promise((wait) => setTimeout(wait, 100));
    }
    await this.close();
    throw new Error("The host did not start.");
  }

  private get isProcess() {
    return this.process !== null && this.process.exitCode === null && this.process.signalCode === null;
  }

  private async endProcess(signal: "SIGTERM" | "SIGKILL") {
    const stopped = new Promise((done) => this.process?.once("exit", done));
    this.process?.kill(signal);
    await stopped;
  }

  async close() {
    if (this.isProcess) await this.endProcess("SIGTERM");
    else if (!this.process && this.port) await pool("DELETE", `/hosts/${this.port}`);
  }

  /** As when the power goes: no time for anything. */
  async crash() {
    if (!this.isProcess) throw new Error("Only a process of its own can be killed: openProcess().");
    await this.endProcess("SIGKILL");
  }

  /** Done with: its file goes with it. */
  async end() {
    if (this.isProcess) await this.crash();
    else await this.close();
    rmSync(this.folder, { recursive: true, force: true });
  }

  async get(path: string) {
    return (await fetch(this.url + path)).json();
  }

  /** Writes, on the version seen; what is refused is thrown with its sentence. */
  async send(method: string, path: string, body: unknown, version?: number) {
    const answer = await fetch(this.url + path, {
      method,
      headers: {
        "Content-Type": "application/json",
        ...(version === undefined ? {} : { "If-Match": `"${version}"` }),
      },
      body: JSON.stringify(body),
    });
    const said = answer.status === 204 ? null : await answer.json();
    if (!answer.ok) throw new Error(`${answer.status} ${JSON.stringify(said)}`);
    return said;
  }
}

async function opened(isDemo: boolean, use: (house: House) => Promise<void>) {
  const house = new House(isDemo);
  await house.open();
  await use(house);
  await house.end();
}

// Every test has a house of its own: a copy of the empty one or of the demo, which the pool makes once.
export const test = base.extend<{ empty: House; demo: House }, { shown: House }>({
  // A demo that is only looked at: one for each worker.
  // eslint-disable-next-line no-empty-pattern
  shown: [async ({}, use) => opened(true, use), { scope: "worker" }],
  // eslint-disable-next-line no-empty-pattern
  empty: async ({}, use) => opened(false, use),
  // eslint-disable-next-line no-empty-pattern
  demo: async ({}, use) => opened(true, use),
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

/** Ends a fit; a quick one has ended by itself before the hand is there. */
export async function keepDraft(page: Page) {
  const stop = page.getByRole("button", { name: "Stop and keep" });
  if (await stop.isEnabled()) await stop.click({ timeout: 2_000 }).catch(() => undefined);
  await expect(page.getByText(/The time is over|none is better/)).toBeVisible();
}

export { expect };
