import { expect, test } from "@playwright/test";
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { numberIn, sentNumber, weightIn, wholeIn } from "../../../web/src/ui/numbers";

// The same table holds the lines (tests/Core.Tests/Measures/TypedNumberTests.cs).
const table = JSON.parse(readFileSync(join(import.meta.dirname, "../../numbers.json"), "utf8")) as [
  string,
  number,
][];

test("a field reads a number as a line does", () => {
  for (const [typed, number] of table) expect(numberIn(typed), typed).toBeCloseTo(number, 10);
  expect(["1350", " 1350,5 ", "12345678901"].map(numberIn)).toEqual([1350, 1350.5, 12345678901]);
  for (const typed of ["abc", "1 350", "12 3", "1,2,3", "1/0", "12 g", "1e3", "½½"])
    expect([numberIn(typed), sentNumber(typed), wholeIn(typed)], typed).toEqual([NaN, -1, null]);
  expect([numberIn(" "), sentNumber(""), wholeIn("")]).toEqual([null, null, null]);
  expect([wholeIn("1,200"), wholeIn("6"), wholeIn("1.5"), numberIn("-3")]).toEqual([1200, 6, null, -3]);
});

test("what was weighed in two pans is put together", () => {
  expect(["3620+3400", "1,200 + 750.5 + 80", "690", ""].map(weightIn)).toEqual([7020, 2030.5, 690, null]);
  expect(["3620+", "+", "600 + x"].map((typed) => [weightIn(typed), sentNumber(typed, weightIn)])).toEqual(
    Array(3).fill([NaN, -1]),
  );
});
