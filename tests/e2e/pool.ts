import { spawn } from "node:child_process";
import { once } from "node:events";
import { existsSync, readdirSync } from "node:fs";
import { join } from "node:path";
import { createInterface } from "node:readline";

const root = join(import.meta.dirname, "..", "..");

// One folder for each kind of machine: linux-x64, linux-arm64.
function built() {
  const folder = join(root, "tests/HostPool/bin/Release/net10.0");
  const found = readdirSync(folder)
    .map((machine) => join(folder, machine, "HostPool.dll"))
    .find((file) => existsSync(file));
  if (!found) throw new Error("The pool of hosts is not built: dotnet build tests/HostPool -c Release");
  return found;
}

/** Starts the pool of hosts (tests/HostPool) for all workers; its address is in TERN_POOL. @returns what ends it. */
export default async function startPool() {
  const pool = spawn("dotnet", [built(), join(root, ".build/host")], {
    stdio: ["ignore", "pipe", "inherit"],
  });
  const [address] = (await Promise.race([
    once(createInterface(pool.stdout), "line"),
    once(pool, "exit").then(() => Promise.reject(new Error("The pool of hosts did not start."))),
  ])) as [string];
  process.env.TERN_POOL = address;
  return async () => {
    const ended = once(pool, "exit");
    pool.kill("SIGTERM");
    await ended;
  };
}
