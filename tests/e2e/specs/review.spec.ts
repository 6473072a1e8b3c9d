import { expect, test } from "../house";

test("the body's trend: three months as a line, a slip in the open, written down and undone", async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.url}/plan`);
  await page.getByRole("link", { name: /^Review/ }).click();
  const body = page.getByRole("region", { name: "The body's trend" });
  await expect(
    body.getByRole("img", { name: /^Weight from .*: the trend goes from 70\.\d to 6\d\.\d kg/ }),
  ).toBeVisible();
  await expect(body.getByText(/^−0\.\d\d kg a week over the last 28 days$/)).toBeVisible();
  await expect(
    body.getByText(/is not known yet\. It takes what was eaten on half of the days/),
  ).toBeVisible();

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
