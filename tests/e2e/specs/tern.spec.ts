import { execFile, spawn } from "node:child_process";
import { cpSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { createServer } from "node:net";
import { tmpdir } from "node:os";
import { basename, join } from "node:path";
import { expect, test } from "@playwright/test";

const root = join(import.meta.dirname, "..", "..", "..");

/** Runs the one script, and says how it ended. */
const tern = (...args: string[]) => run(join(root, "tern"), args);

const run = (script: string, args: string[], environment: Record<string, string> = {}) =>
  new Promise<{ code: number; out: string; err: string }>((done) => {
    const options = { timeout: 120_000, env: { ...process.env, ...environment } };
    execFile(script, args, options, (error, out, err) =>
      done({ code: typeof error?.code === "number" ? error.code : error ? 1 : 0, out, err }),
    );
  });

const listening = (port: number) =>
  new Promise<ReturnType<typeof createServer>>((ready) => {
    const server = createServer();
    server.listen(port, "127.0.0.1", () => ready(server));
  });

test.describe("the one script", () => {
  test("says what it can do, and names a slip of the finger", async () => {
    expect((await tern()).out).toContain("./tern demo");
    for (const [args, words] of [
      [["demo", "--prot", "5081"], "Unknown option: --prot"],
      [["run", "--port", "kitchen"], "--port needs a number between 1 and 65535"],
      [["run", "--port=70000"], "--port needs a number between 1 and 65535"],
      [["demo", "--data"], "--data needs a value"],
      [["run", "--scale", "kitchen"], "--scale needs the device's address"],
    ] as const) {
      const { code, err } = await tern(...args);
      expect(code, args.join(" ")).toBe(2);
      expect(err).toContain(words);
    }
  });

  test("a port that is taken gets a sentence, not a stack of lines", async () => {
    const server = await listening(0);
    const { port } = server.address() as { port: number };
    const folder = mkdtempSync(join(tmpdir(), "tern-port-"));
    const { code, out, err } = await tern("run", "--port", String(port), "--data", join(folder, "tern.db"));
    server.close();
    rmSync(folder, { recursive: true, force: true });
    expect(code).toBe(1);
    expect(out + err).toContain(String(port));
    expect(out + err).not.toMatch(/^\s+at /m);
    expect(err).toMatch(/Port \d+ is free: start with --port \d+/);
  });

  test("without a network each source of packages gets a sentence, and the next start trusts nothing of it", async () => {
    const folder = mkdtempSync(join(tmpdir(), "tern-offline-"));
    const made = /^(node_modules|bin|obj|wwwroot|libraries|generated)$/;
    for (const part of ["tern", "scripts", "src", "web", "docs/openapi.json", "global.json"])
      cpSync(join(root, part), join(folder, part), {
        recursive: true,
        filter: (file) => !made.test(basename(file)),
      });
    for (const part of ["Directory.Build.props", "Directory.Packages.props"])
      cpSync(join(root, part), join(folder, part));
    const nowhere = "http://127.0.0.1:9";
    const { code, err } = await run(join(folder, "tern"), ["demo"], {
      HTTP_PROXY: nowhere,
      HTTPS_PROXY: nowhere,
      NUGET_PACKAGES: join(folder, "nuget"),
      NUGET_HTTP_CACHE_PATH: join(folder, "nuget-http"),
      npm_config_cache: join(folder, "npm"),
    });
    const left = readdirSync(join(folder, ".build"));
    rmSync(folder, { recursive: true, force: true });
    expect(code).toBe(1);
    expect(err.match(/^NuGet could not fetch: .*$/gm)).toHaveLength(1);
    expect(err.match(/^npm could not fetch packages \(.*$/gm)).toHaveLength(1);
    expect(left).toEqual(["logs"]);
  });

  test("the host is built for one household: little memory rather than many requests at once", () => {
    const { runtimeOptions } = JSON.parse(
      readFileSync(join(root, ".build/host/LivelyTern.Web.runtimeconfig.json"), "utf8"),
    ) as { runtimeOptions: { configProperties: Record<string, unknown> } };
    expect(runtimeOptions.configProperties["System.GC.Server"]).toBe(false);
  });

  test("a file that is no household's gets a sentence, and stays as it is", async () => {
    const folder = mkdtempSync(join(tmpdir(), "tern-other-"));
    const file = join(folder, "letters.db");
    const letters = "Dear Bram,\n".repeat(400);
    writeFileSync(file, letters);
    const { code, err } = await tern("run", "--port", "5097", "--data", file);
    expect(code).toBe(1);
    expect(err).toContain(`${file} can't be opened`);
    expect(err).not.toMatch(/^\s+at /m);
    expect(readFileSync(file, "utf8")).toBe(letters);
    rmSync(folder, { recursive: true, force: true });
  });

  test("a demo starts without building anew, serves its week, and ends when it is told to", async () => {
    const folder = mkdtempSync(join(tmpdir(), "tern-demo-"));
    const server = await listening(0);
    const { port } = server.address() as { port: number };
    await new Promise((closed) => server.close(closed));
    const demo = spawn(join(root, "tern"), [
      "demo",
      `--port=${port}`,
      "--data",
      join(folder, "tern.db"),
      "--today",
      "2026-11-25",
    ]);
    let said = "";
    demo.stdout.on("data", (words: Buffer) => (said += words.toString()));
    demo.stderr.on("data", (words: Buffer) => (said += words.toString()));
    try {
      await expect
        .poll(
          () =>
            fetch(`http://127.0.0.1:${port}/health`).then(
              ({ status }) => status,
              () => 0,
            ),
          { timeout: 60_000 },
        )
        .toBe(200);
      const week = (await (await fetch(`http://127.0.0.1:${port}/api/plan/weeks/2026-11-25`)).json()) as {
        eaters: { name: string }[];
      };
      expect(week.eaters.map(({ name }) => name)).toEqual(["Isa", "Bram", "Noor"]);
      expect(said).not.toContain("Building");
    } finally {
      const ended = new Promise<number | null>((done) => demo.once("exit", done));
      demo.kill("SIGTERM");
      expect([0, 143, null]).toContain(await ended);
      rmSync(folder, { recursive: true, force: true });
    }
  });
});
