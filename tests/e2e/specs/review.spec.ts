import { readFile } from "node:fs/promises";
import { expect, test } from "../house";

test("the body's trend: three months as a line, a slip in the open, written down and undone", async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.url}/plan`);
  await page.getByRole("link", { name: /^Review/ }).click();
  await page.getByRole("button", { name: "The body", exact: true }).click();
  const body = page.getByRole("region", { name: "The body's trend" });
  await expect(
    body.getByRole("img", { name: /^Weight from .*: the trend goes from 70\.\d to 6\d\.\d kg/ }),
  ).toBeVisible();
  await expect(body.getByText(/^−0\.\d\d kg a week over the last 28 days$/)).toBeVisible();
  await expect(body.getByText(/^1,[789]\d\d kcal a day keep this weight$/)).toBeVisible();

  // Two digits swapped: named, and mended with one press; undone, it stands there again.
  const slip = body.getByRole("region", { name: "Left out of the line" });
  await expect(slip).toContainText("is far from the days around it");
  await slip.getByRole("button", { name: /^It was 69\.\d kg$/ }).click();
  await expect(slip).toHaveCount(0);
  await page.getByRole("status").getByRole("button", { name: "Undo", exact: true }).click();
  await expect(slip).toBeVisible();

  // What stands on today already is not written over; what can't be is refused, and stays typed.
  const weight = body.getByLabel("The scale says");
  await weight.fill("700");
  await body.getByRole("button", { name: "Write it down" }).click();
  await expect(body.getByText("A body weighs between 25 and 400 kg: check the number.")).toBeVisible();
  await expect(weight).toHaveValue("700");
});

test("from an empty house: stones, the first weigh-in, and what is not known yet is said", async ({
  page,
  empty,
}) => {
  await page.goto(`${empty.url}/review`);
  await expect(page.getByText("What the weeks teach")).toBeVisible();
  const bands = { energy: { min: 1450, target: 1525, max: 1600 } };
  await empty.send("POST", "/api/aim/eaters", { name: "Isa", aim: { leading: "energy", bands, rule: null } });
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto(`${empty.url}/review`);
  await expect(page.getByText("Nothing was written down in this week", { exact: false })).toBeVisible();
  await page.getByRole("button", { name: "The kitchen", exact: true }).click();
  await expect(page.getByText("Nothing was thrown away in the last half year.")).toBeVisible();
  await page.getByRole("button", { name: "The body", exact: true }).click();
  await expect(page.getByText("The first weigh-in begins the line.", { exact: false })).toBeVisible();
  await page.getByLabel("The scale says").fill("11 st 3");
  await page.getByRole("button", { name: "Write it down" }).click();
  await expect(page.getByText("11 st 3 on Wed 25 Nov written down.").first()).toBeVisible();
  await expect(page.getByText("With a second weigh-in there will be a rate.")).toBeVisible();
  await page.getByText("All weigh-ins").click();
  await expect(page.getByRole("row", { name: /Wed 25 Nov 71\.2/ })).toBeVisible();
  await page.getByRole("button", { name: "Take 11 st 3 on Wed 25 Nov off" }).click();
  await expect(page.getByText("The first weigh-in begins the line.", { exact: false })).toBeVisible();
});

test("a week against its plan and aim: the sums come out, a verdict stands beside the recipe, the drawing goes along", async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.url}/review`);
  await expect(page.getByText("16 Nov – 22 Nov")).toBeVisible();
  const week = page.getByRole("region", { name: "The week as it was" });
  await expect(week.getByText(/^planned 1,\d{3} · aim 1,450–1,600$/)).toBeVisible();
  await expect(
    week.getByText("1 thing was guessed: give or take 100 kcal at most.", { exact: true }),
  ).toBeVisible();

  // What the screen says adds up: planned and every cause make what was eaten.
  const said = await week.getByText(/^On 7 days: planned/).innerText();
  const [, planned, eaten] = /planned ([\d,]+), eaten ([\d,]+) kcal/
    .exec(said)!
    .map((n) => n.replace(",", ""));
  const causes = await week.getByRole("img", { name: /^What was eaten otherwise/ }).textContent();
  const by = [...causes!.matchAll(/([+−])([\d,]+)/g)].reduce(
    (sum, [, sign, n]) => sum + (sign === "+" ? 1 : -1) * Number(n!.replace(",", "")),
    0,
  );
  expect(Math.abs(Number(planned) + by - Number(eaten))).toBeLessThanOrEqual(4);

  // Through another measure everything is measured anew.
  await page.getByRole("button", { name: "protein", exact: true }).click();
  await expect(week.getByText(/^On 7 days: planned .* g protein/)).toBeVisible();
  await page.getByRole("button", { name: "kcal", exact: true }).click();

  // The drawing and its table go along as files.
  const rulers = page.getByRole("img", { name: "Isa's week in kcal", exact: false });
  await expect(rulers).toBeVisible();
  const taken = async (kind: string) => {
    const [file] = await Promise.all([
      page.waitForEvent("download"),
      week.getByRole("button", { name: kind, exact: true }).first().click(),
    ]);
    return { name: file.suggestedFilename(), bytes: await readFile(await file.path()) };
  };
  const csv = await taken("CSV");
  expect(csv.name).toBe("week-2026-11-16-Isa.csv");
  const rows = csv.bytes.toString("utf8").trim().split("\r\n");
  expect([rows.length, rows[1]!.slice(0, 11)]).toEqual([8, "2026-11-16,"]);
  const svg = (await taken("SVG")).bytes.toString("utf8");
  expect(svg).toMatch(/^<svg [^>]*xmlns/);
  expect(svg).not.toContain("var(--");
  expect((await taken("PNG")).bytes.subarray(1, 4).toString()).toBe("PNG");

  // A verdict is written with each press, taken back, and stands beside the version it was cooked from.
  await page.getByRole("button", { name: "How was it: Baked falafel" }).click();
  await page.getByRole("group", { name: "Again" }).getByRole("button", { name: "with changes" }).click();
  await page.getByLabel("What to change next time").fill("more cumin");
  await page.getByLabel("What to change next time").press("Enter");
  const dish = page.getByRole("listitem").filter({ hasText: "Baked falafel" }).last();
  await expect(dish).toContainText("again, with changes · “more cumin”");
  await page.getByRole("button", { name: "Undo", exact: true }).first().click();
  await expect(dish).not.toContainText("more cumin");
  await expect(dish).toContainText("again, with changes");
  await page.goto(`${demo.url}/recipes`);
  await page.getByRole("link", { name: "Baked falafel", exact: false }).first().click();
  await page.getByRole("button", { name: "History" }).click();
  const beside = page.getByRole("listitem").filter({ hasText: "Isa, cooked Sun 15 Nov, reheated:" }).last();
  await expect(beside).toContainText("again, with changes");
});

test("an aim is worked out from the trend when asked, set when said so, and undone", async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.url}/review?view=body`);
  await page.getByRole("button", { name: "Bram", exact: true }).click();
  await page.getByRole("button", { name: "0.25 kg a week less" }).click();
  await expect(page.getByText("worked out for a steady weight", { exact: false })).toBeVisible();
  await page.getByRole("button", { name: "stay at this weight" }).click();
  const set = page.getByRole("button", { name: /^Change the aim from 2,200 to [\d,]+ kcal$/ });
  const to = /to ([\d,]+) kcal/.exec(await set.innerText())![1]!;
  await set.click();
  await expect(page.getByText("The usual day aims at just that.")).toBeVisible();
  const target = async () => {
    const eaters: { name: string; aim: { bands: { energy: { target: number } } } }[] =
      await demo.get("/api/aim/eaters");
    return eaters.find(({ name }) => name === "Bram")!.aim.bands.energy.target;
  };
  expect(await target()).toBe(Number(to.replace(",", "")));
  await page.getByRole("button", { name: "Undo", exact: true }).first().click();
  await expect(set).toBeVisible();
  expect(await target()).toBe(2200);
});
