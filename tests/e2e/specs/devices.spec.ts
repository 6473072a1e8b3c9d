import { expect, test } from "../house";

test("the scale's reading is taken with one press; a lost scale is said, typing works all the same, and it comes back by itself", async ({
  page,
  demo,
}) => {
  const play = (act: string, amount = 0) => demo.send("POST", "/api/devices/play", { act, amount });
  await page.goto(`${demo.url}/pack`);
  await page.getByRole("region", { name: "To be packed" }).getByRole("link").click();
  const scale = page.getByRole("region", { name: "Scale" });
  await play("put", 2480);
  await expect(scale.getByText("2,480")).toBeVisible();
  await expect(scale.getByText("Scale: at rest")).toBeVisible();
  await scale.getByRole("button", { name: "Take as full pan" }).click();
  await expect(page.getByLabel("Full pan")).toHaveValue("2480");
  await scale.getByRole("button", { name: "Set to zero" }).click();
  await expect(scale.getByText(/^0\b/)).toBeVisible();
  await play("put", -35);
  await expect(scale.getByText("−35")).toBeVisible(); // out of a jar on the scale
  await expect(scale.getByRole("button", { name: "Take as full pan" })).toBeDisabled();
  await play("put", 9000);
  await expect(scale.getByText("too heavy for this scale")).toBeVisible();

  await play("unplug");
  await expect(scale.getByText("not there: type the weight")).toBeVisible();
  await page.getByLabel("Full pan").fill("6330");
  await expect(page.getByText("in each box")).toBeVisible();
  await play("plug");
  await expect(scale.getByText("too heavy for this scale")).toBeVisible();

  // The hands for it, in the program itself.
  await page.getByRole("button", { name: "Play with it" }).click();
  const panel = page.getByRole("dialog");
  await panel.getByRole("button", { name: "Clear the scale" }).click();
  await panel.getByRole("button", { name: "Show ounces" }).click();
  await panel.getByRole("button", { name: "Set to zero" }).click();
  await panel.getByLabel("Grams to put on").fill("283");
  await panel.getByRole("button", { name: "Put on" }).click();
  await expect(panel.getByText("10.0 oz · at rest")).toBeVisible();
  await panel.getByRole("button", { name: "Just off the heat" }).click();
  await expect(panel.getByText(/^9[12]\.\d °C/)).toBeVisible();
});
