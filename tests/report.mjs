// Ends a test run: the time of each step, the 20 slowest tests, and one line "N passed, N failed" over all suites.
// Usage: node tests/report.mjs RESULTS-FOLDER SECONDS SUITE...
import { existsSync, readFileSync } from "node:fs";
import { join } from "node:path";

const [folder, seconds, ...suites] = process.argv.slice(2);
const lines = (name) =>
  readFileSync(join(folder, name), "utf8")
    .split("\n")
    .filter(Boolean)
    .map((line) => line.split("\t"));

const counts = { passed: 0, failed: 0 };
const problems = [];
const fail = (sentence) => {
  counts.failed++;
  problems.push(sentence);
};

for (const [outcome, name] of lines("checks.tsv"))
  if (outcome === "passed") counts.passed++;
  else fail(name);

const text = (attribute) =>
  attribute.replace(/&(quot|apos|lt|gt|amp|#x?[0-9A-Fa-f]+);/g, (whole, name) =>
    name.startsWith("#")
      ? String.fromCodePoint(Number(name.replace("#x", "0x").replace("#", "")))
      : { quot: '"', apos: "'", lt: "<", gt: ">", amp: "&" }[name],
  );

/** @returns the tests of an xUnit run: name, seconds, whether it passed. A suite whose process died before its end counts as failed. */
function xunit(suite) {
  const [file, code] = [join(folder, `${suite}.trx`), join(folder, `${suite}.code`)];
  if (!existsSync(file)) return fail(`${suite} did not run`), [];
  const tests = [...readFileSync(file, "utf8").matchAll(/<UnitTestResult ([^>]*)>/g)].map(([, attributes]) => {
    const of = (name) => new RegExp(` ${name}="([^"]*)"`).exec(` ${attributes}`)?.[1] ?? "";
    const [hours, minutes, rest] = (of("duration") || "0:0:0").split(":").map(Number);
    return {
      name: `${suite}: ${text(of("testName")).replace(/^LivelyTern\.[A-Za-z]+\.Tests\./, "")}`,
      seconds: hours * 3600 + minutes * 60 + rest,
      passed: of("outcome") === "Passed",
    };
  });
  const ended = readFileSync(code, "utf8").trim();
  if (tests.length === 0 || (ended !== "0" && tests.every(({ passed }) => passed)))
    fail(`${suite} did not run to its end`);
  return tests;
}

/** @returns the tests of a Playwright run. */
function playwright() {
  const file = join(folder, "e2e.json");
  if (!existsSync(file)) return fail("e2e did not run"), [];
  const tests = [];
  const walk = (suite) => {
    for (const spec of suite.specs ?? [])
      for (const test of spec.tests)
        tests.push({
          name: `e2e: ${suite.file} › ${spec.title}`,
          seconds: test.results.reduce((sum, { duration }) => sum + duration, 0) / 1000,
          passed: test.status === "expected",
        });
    suite.suites?.forEach(walk);
  };
  const report = JSON.parse(readFileSync(file, "utf8"));
  report.suites.forEach(walk);
  for (const error of report.errors ?? []) fail(`e2e: ${error.message?.split("\n")[0]}`);
  if (tests.length === 0) fail("e2e ran no test");
  return tests;
}

const tests = suites.flatMap((suite) => (suite === "e2e" ? playwright() : xunit(suite)));
for (const test of tests)
  if (test.passed) counts.passed++;
  else fail(test.name);

const row = (amount, name) => console.log(`${amount.toFixed(1).padStart(8)} s  ${name}`);
console.log("\n== Time of each step (some run beside each other)");
for (const [time, name] of lines("steps.tsv")) row(Number(time), name);
row(Number(seconds), "in all");
console.log("\n== The 20 slowest tests");
for (const { name, seconds: time } of tests.toSorted((a, b) => b.seconds - a.seconds).slice(0, 20)) row(time, name);
if (problems.length > 0) {
  console.log("\n== Failed");
  for (const problem of problems) console.log(`  ${problem}`);
}
console.log(`\n${counts.passed} passed, ${counts.failed} failed`);
process.exitCode = counts.failed === 0 ? 0 : 1;
