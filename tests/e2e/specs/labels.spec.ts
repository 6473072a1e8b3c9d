import { readFileSync } from "node:fs";
import type { Page } from "@playwright/test";
import { expect, test, type House } from "../house";

interface Group {
  name: string;
  place: string;
  batchId: string;
  boxes: { id: string; number: number }[];
}

const groups = async (house: House) => ((await house.get("/api/keep")) as { groups: Group[] }).groups;

/** The code of a box's label, as the label itself says it. */
async function codeOf(house: House, boxId: string) {
  const { pages } = (await house.send("POST", "/api/labels", {
    paper: "strip-62x29",
    boxIds: [boxId],
  })) as { pages: string[] };
  return /Code ([\d-]+)</.exec(pages[0]!)![1]!;
}

const openLabels = async (page: Page, dish: RegExp) => {
  await page
    .getByRole("region", { name: "In their boxes" })
    .getByRole("link", { name: dish })
    .first()
    .click();
  await page.getByRole("link", { name: "Labels" }).click();
  await expect(page.getByRole("img", { name: "Page 1 of 1, labels" })).toBeVisible();
};

test("labels of a batch are chosen, worded, printed on the page they are for, and taken as files", async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.url}/pack`);
  await openLabels(page, /Chickpea/);
  await expect(page.getByText("5 labels", { exact: true })).toBeVisible();
  await page.getByRole("checkbox", { name: "Box 6" }).uncheck();
  await expect(page.getByText("4 labels", { exact: true })).toBeVisible();
  await page.getByRole("button", { name: "none", exact: true }).click();
  await expect(page.getByText("Choose the boxes that are to have labels.")).toBeVisible();
  await expect(page.getByRole("button", { name: "Print" })).toBeDisabled();
  await page.getByRole("button", { name: "all", exact: true }).click();

  await page.getByLabel("Heat it like this").fill("10 min at 160 °C");
  await page.getByRole("button", { name: "Keep these words" }).click();
  await expect(page.getByText("The words for Chickpea and spinach egg squares are kept.")).toBeVisible();
  const drawn = () => page.getByRole("img", { name: /^Page 1 of/ }).getAttribute("src");
  await expect.poll(async () => decodeURIComponent((await drawn())!)).toContain("Heat: 10 min at 160 °C");

  // Begun at the last label of the sheet, the other four are on the next.
  await page.getByLabel("Paper").selectOption("letter-2x5");
  await page.getByLabel("Begin at label").fill("11");
  await expect(page.getByText("This paper has the labels 1 to 10.")).toBeVisible();
  await page.getByLabel("Begin at label").fill("10");
  await expect(page.getByRole("img", { name: "Page 2 of 2, labels" })).toBeVisible();

  // What the browser prints is the sheet alone: two pages of Letter, 612 x 792 points.
  const printed = (await page.pdf({ preferCSSPageSize: true })).toString("latin1");
  expect(printed.match(/\/Type\s*\/Page\b/g)).toHaveLength(2);
  expect(new Set(printed.match(/\/MediaBox \[[^\]]+\]/g))).toEqual(new Set(["/MediaBox [0 0 612 792]"]));

  const download = page.waitForEvent("download");
  await page.getByRole("button", { name: "PDF" }).click();
  const file = await (await download).path();
  expect(readFileSync(file).subarray(0, 5).toString()).toBe("%PDF-");
  await expect(page.getByRole("link", { name: "SVG of page 1" })).toHaveAttribute("download", "labels-1.svg");
});

test("the label printer stops where its tape ends, and prints the rest from a new roll", async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.url}/pack`);
  await openLabels(page, /Chickpea/);
  const printer = page.getByRole("region", { name: "Label printer" });
  await expect(printer.getByText("62 mm tape, 5.0 m left")).toBeVisible();
  await expect(printer.getByText("It prints strips: choose one above.")).toBeVisible();
  await page.getByLabel("Paper").selectOption("strip-62x29");
  await printer.getByRole("button", { name: "Nearly use up the tape" }).click();
  await expect(printer.getByText("62 mm tape, 0.1 m left")).toBeVisible();
  await printer.getByRole("button", { name: "Print 5 strips" }).click();
  await expect(printer.getByText("2 of 5 are printed, then the tape was used up.")).toBeVisible();
  await printer.getByRole("button", { name: "Put in a roll of 62 mm" }).click();
  await printer.getByRole("button", { name: "Print the 3 that are left" }).click();
  await expect(page.getByText("3 strips are printed.")).toBeVisible();
  await expect(printer.getByRole("img", { name: "Printed label 5" })).toBeVisible();
  await expect(printer.getByRole("img")).toHaveCount(5);
});

test("nothing is printed while the labels of another paper are on their way", async ({ page, demo }) => {
  await page.goto(`${demo.url}/pack`);
  await openLabels(page, /Chickpea/);
  const printer = page.getByRole("region", { name: "Label printer" });
  await expect(page.getByRole("button", { name: "Print", exact: true })).toBeEnabled();
  let release = () => {};
  const held = new Promise<void>((resolve) => (release = resolve));
  await page.route("**/api/labels", async (route) => {
    await held;
    await route.continue();
  });
  await page.getByLabel("Paper").selectOption("strip-62x29");
  await expect(printer.getByRole("button", { name: /^Print/ })).toBeDisabled();
  await expect(page.getByRole("button", { name: "Print", exact: true })).toBeDisabled();
  await expect(page.getByRole("button", { name: "PDF" })).toBeDisabled();
  release();
  await expect(printer.getByRole("button", { name: "Print 5 strips" })).toBeEnabled();
  await page.unrouteAll({ behavior: "wait" });
});

test("labels can be made before their boxes are filled, as the bench has them", async ({ page, demo }) => {
  await page.goto(`${demo.url}/pack`);
  await page.getByRole("region", { name: "To be packed" }).getByRole("link").click();
  await page.getByLabel("Full pan").fill("6330");
  await expect(page.getByText("in each box")).toBeVisible();
  await page.getByRole("link", { name: "Labels" }).click();
  await expect(page.getByText(/^\d+ labels for boxes still to be filled/)).toBeVisible();
  await page.getByRole("link", { name: "Back", exact: true }).click();
  await expect(page.getByLabel("Full pan")).toHaveValue("6330");
});

test("by its label a box is found on the phone, typed or in a picture, and its page says how it stands", async ({
  page,
  demo,
}) => {
  const fish = (await groups(demo)).find(({ name, place }) => name.startsWith("Fish") && place === "fridge")!;
  const [one, two] = [fish.boxes[0]!, fish.boxes[1]!];
  const code = await codeOf(demo, one.id);
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto(`${demo.url}/keep`);
  const field = page.getByLabel("Number on a label");
  await field.fill(code.slice(0, -1) + ((Number(code.at(-1)) + 1) % 10));
  await field.press("Enter");
  await expect(page.getByText("A digit of that number is wrong, or missing")).toBeVisible();
  await field.fill(code.replaceAll("-", " "));
  await field.press("Enter");
  await expect(page.getByText(`Fish and fennel tray bake, box ${one.number}, is chosen.`)).toBeVisible();
  await expect(page.getByRole("region", { name: "1 box chosen" })).toBeVisible();

  // A picture of the other one's label, as it came out of the printer.
  const labels = { paper: "strip-62x29", boxIds: [two.id] };
  await demo.send("POST", "/api/labels/print", { labels, after: 0 });
  const strip = await page.request.get(`${demo.url}/api/devices/printer/tray/1`);
  const picture = { name: "label.png", mimeType: "image/png", buffer: await strip.body() };
  await page.getByLabel("From a picture").setInputFiles(picture);
  await expect(page.getByText(`Fish and fennel tray bake, box ${two.number}, is chosen.`)).toBeVisible();
  const chosen = page.getByRole("region", { name: "2 boxes chosen" });
  await chosen.getByRole("button", { name: "Freezer" }).click();
  await expect(page.getByText("2 boxes put: freezer.")).toBeVisible();
  await page
    .getByLabel("From a picture")
    .setInputFiles({ name: "no.png", mimeType: "image/png", buffer: Buffer.from("nothing") });
  await expect(page.getByText("That is no picture this browser can open.")).toBeVisible();

  await page.goto(`${demo.url}/box/${code}`);
  await expect(page.getByRole("heading", { name: "Fish and fennel tray bake" })).toBeVisible();
  await expect(page.getByText("Contains fish")).toBeVisible();
  await expect(page.getByText("put: freezer")).toBeVisible();
  await page.getByRole("button", { name: "Thrown away …" }).click();
  const gone = page.waitForResponse(/let-go$/);
  await page.getByRole("button", { name: "it went off" }).click();
  expect((await gone).ok()).toBe(true);
  await expect(page.getByText("thrown away, it went off")).toBeVisible();

  // Its label is of no box on the shelf any more, and says so.
  await page.goto(`${demo.url}/keep`);
  await field.fill(code);
  await field.press("Enter");
  await expect(page.getByText(`Fish and fennel tray bake, box ${one.number}: thrown away.`)).toBeVisible();
  await page.keyboard.press("Escape");
  await page.getByRole("heading", { name: "Keep", exact: true }).click();
  await page.keyboard.press("/");
  await page.getByRole("combobox", { name: "Find anything" }).fill(code);
  await page.getByRole("option", { name: /^Fish and fennel tray bake/ }).click();
  await expect(page.getByText("thrown away", { exact: true })).toBeVisible();
  await page.goto(`${demo.url}/box/9999-001-1`);
  await expect(page.getByRole("heading", { name: "No box of that label" })).toBeVisible();
});
