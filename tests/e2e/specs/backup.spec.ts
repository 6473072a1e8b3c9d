import { Ajv } from "ajv";
import addFormats from "ajv-formats";
import { readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import type { Page } from "@playwright/test";
import { expect, test } from "../house";

const schema = JSON.parse(
  readFileSync(join(import.meta.dirname, "..", "..", "..", "docs", "backup.schema.json"), "utf8"),
) as object;

/** Presses a link that gives a file. @returns the file as it came down. */
async function taken(page: Page, name: string) {
  const coming = page.waitForEvent("download");
  await page.getByRole("link", { name, exact: true }).click();
  const file = await coming;
  return { name: file.suggestedFilename(), path: await file.path() };
}

test("everything goes along as JSON that keeps to its schema, and comes back after a mishap, which can be undone", async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.url}/plan`);
  await page.getByRole("link", { name: "Backup" }).click();
  const { name, path } = await taken(page, "Everything, as JSON");
  expect(name).toBe("lively-tern-2026-11-25.json");
  const ajv = new Ajv({ allErrors: true, strict: false });
  addFormats.default(ajv);
  const isFit = ajv.compile(schema);
  expect(isFit(JSON.parse(readFileSync(path, "utf8"))), JSON.stringify(isFit.errors?.slice(0, 5))).toBe(true);

  // Just what is here.
  const choose = page.getByLabel("Choose a backup");
  await choose.setInputFiles(path);
  await expect(page.getByText("holds just what is here: nothing would change")).toBeVisible();
  await page.getByRole("button", { name: "Close" }).click();

  // A mishap: a recipe is written over, an eater goes.
  const recipes = (await demo.get("/api/recipes")) as { id: string; name: string; version: number }[];
  const dal = recipes.find((recipe) => recipe.name.includes("lentil dal"))!;
  const { version } = await demo.get(`/api/recipes/${dal.id}`);
  await demo.send("PUT", `/api/recipes/${dal.id}`, { name: "Oops", lines: ["1 egg"], portions: 1 }, version);
  const { id } = ((await demo.get("/api/aim/eaters")) as { id: string }[])[0]!;
  await demo
    .send("PUT", `/api/review/body/${id}/2026-11-25`, { text: "64.4", unit: "kilograms" })
    .catch(() => null);

  await choose.setInputFiles(path);
  const would = page.getByRole("region", { name: /would take the place of everything here/ });
  await expect(would.getByRole("row", { name: /Recipes/ })).toContainText("1 becomes as it was: Oops");
  await would.getByRole("button", { name: "Put it back" }).click();
  await expect(would).toHaveCount(0);
  await page.getByRole("link", { name: /^Recipes/ }).click();
  await expect(page.getByRole("link", { name: /lentil dal/ })).toBeVisible();
  await expect(page.getByText("Oops")).toHaveCount(0);

  // And back once more: what was here before it was put back had been copied.
  await page.getByRole("button", { name: "Undo", exact: true }).first().click();
  await expect(page.getByRole("link", { name: /Oops/ })).toBeVisible();
});

test("a copy is made on the spot and says what it would change; what is no backup says so and changes nothing", async ({
  page,
  empty,
}) => {
  await page.goto(`${empty.url}/backup`);
  await expect(page.getByText("No copy yet")).toBeVisible();
  await page.getByRole("button", { name: "Copy it now" }).click();
  const copies = page.getByRole("region", { name: "Copies on this machine" });
  await expect(copies.getByRole("listitem")).toContainText("Wednesday 25 November");
  await empty.send("POST", "/api/recipes", { name: "Since then", lines: ["1 egg"], portions: 1 });
  await copies.getByRole("button", { name: "What would it change?" }).click();
  await expect(page.getByRole("row", { name: /Recipes/ })).toContainText("1 goes: Since then");
  await page.getByRole("button", { name: "Leave everything as it is" }).click();
  await expect(page.getByRole("row")).toHaveCount(0);

  const { path } = await taken(page, "Everything, as the database file");
  const half = `${path}.half`;
  writeFileSync(half, readFileSync(path).subarray(0, 40_000));
  const choose = page.getByLabel("Choose a backup");
  await choose.setInputFiles(half);
  await expect(page.getByText(/damaged and can't be read whole. Nothing was changed/)).toBeVisible();
  await choose.setInputFiles(join(import.meta.dirname, "backup.spec.ts"));
  await expect(page.getByText(/This is not a backup of this program/)).toBeVisible();
  expect(((await empty.get("/api/recipes")) as unknown[]).length).toBe(1);
});

test("the phone has it behind more, with tables of one eater", async ({ page, demo }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto(`${demo.url}/eat`);
  await page.getByRole("button", { name: "More" }).click();
  await page.getByRole("link", { name: "Backup" }).click();
  await page.getByLabel("Whose").selectOption({ index: 1 });
  const { name, path } = await taken(page, "Weigh-ins");
  expect(name).toBe("weighIns-2026-11-25.csv");
  const lines = readFileSync(path, "utf8").trim().split("\r\n");
  expect(lines[0]).toBe("day,eater,weight_kg,as_typed,unit_typed");
  expect(new Set(lines.slice(1).map((line) => line.split(",")[1])).size).toBe(1);
});

test("an eater is erased by their name only, and is nowhere after it", async ({ page, empty }) => {
  const aim = { leading: "energy", bands: { energy: { max: 2000 } }, rule: null };
  for (const name of ["Ada", "Bo"]) await empty.send("POST", "/api/aim/eaters", { name, aim });
  await page.goto(`${empty.url}/backup`);
  await page.getByLabel("Whose").selectOption("Bo");
  expect((await taken(page, "All of Bo’s own")).name).toBe("Bo-2026-11-25.zip");
  await page.getByRole("button", { name: "Erase Bo" }).click();
  const drawer = page.getByRole("dialog", { name: "Erase Bo" });
  await drawer.getByLabel("Type “Bo”").fill("Ada");
  await drawer.getByRole("button", { name: "Erase Bo for good" }).click();
  await expect(drawer.getByText("Type “Bo”, so that nobody is erased by a slip.")).toBeVisible();
  await drawer.getByLabel("Type “Bo”").fill("bo");
  await drawer.getByRole("button", { name: "Erase Bo for good" }).click();
  await expect(drawer).toHaveCount(0);
  await expect(page.getByLabel("Whose").getByRole("option")).toHaveText(["everybody", "Ada"]);
  await page.getByRole("link", { name: /^Aim/ }).click();
  await expect(page.getByRole("region", { name: "Ada" })).toBeVisible();
  await expect(page.getByRole("region", { name: "Bo" })).toHaveCount(0);
});
