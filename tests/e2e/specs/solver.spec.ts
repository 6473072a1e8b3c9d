import highs from "highs";
import type { CalcFitAnswer, FitBatch, FitEater, FitFiller, FitProblem, FitSize } from "../../../web/src/api";
import { chance } from "../chance";
import { expect, test } from "../house";

/**
 * The fit against HiGHS, a solver of other making (MIT licence), with the model written anew from docs/fit.md: not a line of it is ours.
 * Figures are whole and bounds divide a hundred thousand, so that no rounding stands between the two.
 */
test.describe("an independent solver", () => {
  function problemOf(seed: number, eaterCount: number, dayCount: number): FitProblem {
    const { whole, pick, often } = chance(seed);
    const ids = ["a", "b", "c"].slice(0, eaterCount);
    const names = () => ids.filter(() => often(0.25));
    /** What one eater counts of some protein that the others count in full. */
    const proteinFor = (protein: number) => (often(0.4) ? { [pick(ids)]: whole(0, protein) } : null);
    const eaters: FitEater[] = ids.map((id) => ({
      id,
      name: id,
      leading: "energy",
      boxesAlike: whole(1, 3),
      days: Array.from({ length: dayCount }, () => {
        const target = pick([400, 500, 1000]);
        return {
          bands: {
            energy: often(0.7)
              ? { min: target - whole(20, 60), target, max: target + whole(20, 60), tolerance: null }
              : { min: null, target: null, max: target, tolerance: null },
            protein: { min: pick([20, 25, 40, 50]), target: null, max: null, tolerance: null },
          },
          fixed: { energy: whole(0, 150), protein: whole(0, 8) },
          mostBoxes: whole(1, 2),
          mostServings: whole(0, 3),
        };
      }),
    }));
    const batches: FitBatch[] = ["p", "q", "r"].map((id, i) => {
      const isPacked = i === 0 || often(0.4);
      const firstDay = whole(0, 1);
      const [kcal, protein] = [whole(70, 160), whole(3, 14)];
      return {
        id,
        name: id,
        sizes: [200, 300, 400].map((grams) => ({
          grams,
          figures: { energy: Math.round((grams * kcal) / 100), protein: Math.round((grams * protein) / 100) },
          boxes: isPacked ? whole(0, 2) : null,
          proteinFor: proteinFor(Math.round((grams * protein) / 100)),
        })),
        grams: isPacked ? null : whole(500, 1600),
        firstDay,
        lastDay: Math.max(firstDay, whole(dayCount - 2, dayCount - 1)),
        excludedFor: names(),
        dislikedBy: names(),
        amountIsOpen: !isPacked && often(0.3),
        dish: i > 0 && often(0.3) ? "the same dish" : null,
      };
    });
    const fillers: FitFiller[] = ["f", "g"].map((id) => {
      const protein = whole(0, 20);
      return {
        id,
        name: id,
        figures: { energy: whole(40, 200), protein },
        most: whole(1, 2),
        excludedFor: names(),
        dislikedBy: names(),
        proteinFor: proteinFor(protein),
      };
    });
    return { start: "2026-11-23", eaters, batches, fillers, wishes: {} };
  }

  /** The model of docs/fit.md at "as usual", in CPLEX's LP format. */
  function written({ eaters, batches, fillers }: FitProblem) {
    const costs: string[] = [];
    const rules: string[] = [];
    const binaries: string[] = [];
    const whole: string[] = [];
    const most: string[] = [];
    let spared = 0;
    const cost = (value: number, name: string) =>
      value !== 0 && costs.push(`${value < 0 ? "-" : "+"} ${Math.abs(value)} ${name}`);
    const rule = (terms: [number, string][], sign: "<=" | ">=" | "=", value: number) =>
      terms.length > 0 &&
      rules.push(
        `r${rules.length}: ${terms.map(([k, name]) => `${k < 0 ? "-" : "+"} ${Math.abs(k)} ${name}`).join(" ")} ${sign} ${value}`,
      );
    const dish = (b: number) => batches[b]!.dish ?? batches[b]!.id;
    const dishes = [...new Set(batches.map((_, b) => dish(b)))];
    const boxes: { e: number; d: number; b: number; s: number; name: string }[] = [];
    eaters.forEach((eater, e) =>
      eater.days.forEach((_, d) =>
        batches.forEach((batch, b) => {
          if (batch.excludedFor!.includes(eater.id) || d < batch.firstDay! || d > batch.lastDay!) return;
          batch.sizes.forEach((__, s) => boxes.push({ e, d, b, s, name: `box_${e}_${d}_${b}_${s}` }));
        }),
      ),
    );
    const ones = (some: typeof boxes): [number, string][] => some.map(({ name }) => [1, name]);
    binaries.push(...boxes.map(({ name }) => name));

    batches.forEach((batch, b) => {
      const of = boxes.filter((box) => box.b === b);
      const isPacked = batch.grams === null;
      // Left over: 600 a packed box, or a middle portion's grams.
      const waste = batch.amountIsOpen ? 0 : isPacked ? 600 : 600 / batch.sizes[1]!.grams;
      spared +=
        waste * (isPacked ? batch.sizes.reduce((sum, { boxes: there }) => sum + there!, 0) : batch.grams!);
      of.forEach(({ e, s, name }) =>
        cost(
          (batch.dislikedBy!.includes(eaters[e]!.id) ? 800 : 0) -
            waste * (isPacked ? 1 : batch.sizes[s]!.grams),
          name,
        ),
      );
      if (isPacked)
        return batch.sizes.forEach(({ boxes: there }, s) =>
          rule(ones(of.filter((box) => box.s === s)), "<=", there!),
        );
      rule(
        of.map(({ s, name }) => [batch.sizes[s]!.grams, name]),
        "<=",
        batch.grams!,
      );
      eaters.forEach((_, e) => {
        const own = of.filter((box) => box.e === e);
        if (own.length === 0) return;
        const sizes = batch.sizes.map((__, s) => `size_${e}_${b}_${s}`);
        binaries.push(...sizes);
        rule(
          sizes.map((name) => [1, name]),
          "<=",
          1,
        );
        own.forEach(({ s, name }) =>
          rule(
            [
              [1, name],
              [-1, sizes[s]!],
            ],
            "<=",
            0,
          ),
        );
      });
    });

    eaters.forEach((eater, e) => {
      dishes.forEach((one, k) => {
        const of = boxes.filter((box) => box.e === e && dish(box.b) === one);
        rule([...ones(of), [-1, `again_${e}_${k}`]], "<=", eater.boxesAlike!);
        cost(300, `again_${e}_${k}`);
        eater.days.forEach((_, d) => rule(ones(of.filter((box) => box.d === d)), "<=", 1));
      });
      eater.days.forEach((day, d) => {
        const on = boxes.filter((box) => box.e === e && box.d === d);
        rule(ones(on), "<=", day.mostBoxes!);
        const servings = fillers.flatMap((filler, f) =>
          filler.excludedFor!.includes(eater.id) ? [] : [{ filler, name: `serving_${e}_${d}_${f}` }],
        );
        servings.forEach(({ filler, name }) => {
          whole.push(name);
          most.push(`0 <= ${name} <= ${filler.most}`);
          cost(40 + (filler.dislikedBy!.includes(eater.id) ? 200 : 0), name);
        });
        rule(
          servings.map(({ name }) => [1, name]),
          "<=",
          day.mostServings!,
        );
        for (const [measure, { min, target, max }] of Object.entries(day.bands)) {
          const counted = ({ figures, proteinFor }: FitSize | FitFiller) =>
            (measure === "protein" ? proteinFor?.[eater.id] : undefined) ?? figures[measure]!;
          const sum: [number, string][] = [
            ...on.map(({ b, s, name }): [number, string] => [counted(batches[b]!.sizes[s]!), name]),
            ...servings.map(({ filler, name }): [number, string] => [counted(filler), name]),
          ];
          const there = day.fixed![measure]!;
          const per = 100_000 / (target ?? max ?? min)!;
          const name = `${e}_${d}_${measure}`;
          if (max != null) rule([...sum, [-1, `over_${name}`]], "<=", max - there);
          if (min != null) rule([...sum, [1, `under_${name}`]], ">=", min - there);
          if (max != null) cost(per, `over_${name}`);
          if (min != null) cost(per, `under_${name}`);
          if (target != null) {
            rule([...sum, [-1, `past_${name}`], [1, `short_${name}`]], "=", target - there);
            for (const off of ["past", "short"])
              cost((measure === eater.leading ? 10_000 : 5_000) / target, `${off}_${name}`);
          }
        }
      });
    });
    const model = [
      "Minimize",
      ` obj: ${costs.join("\n ")}`,
      "Subject To",
      ...rules,
      "Bounds",
      ...most,
      "Binary",
      ...binaries,
      "General",
      ...whole,
      "End",
    ];
    return { model: model.join("\n"), spared };
  }

  for (const [eaters, days] of [
    [1, 7],
    [2, 3],
    [3, 2],
  ] as const)
    test(`finds no better week for ${eaters} in ${days} days than the one that is proven best`, async ({
      shown,
    }) => {
      const solver = await highs();
      for (let seed = 1; seed <= 8; seed++) {
        const problem = problemOf(seed * 10 + eaters, eaters, days);
        const { model, spared } = written(problem);
        const theirs = solver.solve(model, { mip_rel_gap: 0, mip_abs_gap: 0 });
        expect(theirs.Status, `seed ${seed}`).toBe("Optimal");
        const ours = (await shown.send("POST", "/api/calc/fit", { problem, seconds: 60 })) as CalcFitAnswer;
        expect(ours.isBest, `seed ${seed}`).toBe(true);
        expect(ours.objective, `seed ${seed}`).toBe(Math.round(theirs.ObjectiveValue + spared));
      }
    });
});
