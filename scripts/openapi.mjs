// Writes docs/openapi.json as the built program serves it.
import { spawn } from "node:child_process";
import { once } from "node:events";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { createServer } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";

const root = join(import.meta.dirname, "..");
const folder = mkdtempSync(join(tmpdir(), "tern-openapi-"));
const port = await new Promise((resolve) => {
  const server = createServer().listen(0, "127.0.0.1", () => {
    const { port: free } = server.address();
    server.close(() => resolve(free));
  });
});
const host = spawn(
  "dotnet",
  [join(root, ".build/host/LivelyTern.Web.dll"), "--port", String(port), "--data", join(folder, "tern.db")],
  { stdio: ["ignore", "ignore", "inherit"] },
);
try {
  let document;
  while (document === undefined && host.exitCode === null)
    document = await fetch(`http://127.0.0.1:${port}/openapi/v1.json`).then(
      (answer) => answer.text(),
      () => new Promise((wait) => setTimeout(wait, 100)),
    );
  if (document === undefined) throw new Error("The program did not start.");
  writeFileSync(join(root, "docs/openapi.json"), `${document.trim()}\n`);
} finally {
  const ended = once(host, "exit");
  host.kill("SIGTERM");
  await ended;
  rmSync(folder, { recursive: true, force: true });
}
