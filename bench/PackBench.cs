using System.Diagnostics;
using System.Globalization;
using LivelyTern.Core.Aim;
using LivelyTern.Core.Cook;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Keep;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using LivelyTern.Core.Plan.Labels;
using LivelyTern.Core.Recipes;
using LivelyTern.Data.Foods;
using LivelyTern.Formats.Labels;

namespace LivelyTern.Bench;

/// <summary>
/// A batch of 20 foods among 8 eaters: two boxes each, one of their own size and one by a budget, and what is left in shares; and 100
/// labels with all that can stand on one, as a PDF.
/// </summary>
internal static class PackBench
{
    private const int Eaters = 8, Calls = 400;

    public static void Run()
    {
        var (table, chance) = (FoodTable.Read(), new Random(20261128));
        Ingredient Some() => new(table[chance.Next(table.Count)], new(chance.Next(50, 800)));
        var contents = new Contents([.. Enumerable.Range(0, 20).Select(_ => Some())]);
        var cooked = new Grams(decimal.Floor(contents.RawWeight.Value * 0.8m));
        var batch = new Batch(Guid.NewGuid(), "Stew", new TapeMark("ST", 1), new(2026, 11, 25), contents, cooked);
        var rules = Enumerable.Range(0, Eaters).Select(i => i % 2 == 0 ? PointsRule.Starting : null).ToList();
        var ids = rules.ConvertAll(_ => Guid.NewGuid());
        OwnBox Own(BoxWish wish) => new(wish, null, null);
        var boxes = ids.SelectMany((id, i) => new[]
        {
            Own(new WeightWish(cooked * (1m / (40 + i)))),
            Own(new AtMostWish(rules[i] is null ? Measure.Energy : Measure.Points, rules[i] is null ? 120 + i : 2) { For = id }),
        }).Append(Own(new ShareWish(2))).Append(Own(new ShareWish(3))).ToList();
        decimal Read(AtMostWish wish, Grams weight) =>
            MeasureTotals.Of(batch.Holding(weight), rules[ids.IndexOf(wish.For!.Value)])[wish.Measure].Known;
        var times = new double[Calls];
        for (var i = -20; i < Calls; i++)
        {
            var watch = Stopwatch.StartNew();
            var divided = OwnWays.Of(cooked, MeasuredOut.ByWeight(cooked), cooked, Grams.Zero, null, boxes, Read);
            if (!divided.Succeeded) throw new InvalidOperationException(divided.Problems[0].Sentence);
            if (i >= 0) times[i] = watch.Elapsed.TotalMilliseconds;
        }

        Array.Sort(times);
        Console.WriteLine(string.Create(CultureInfo.InvariantCulture,
            $"a batch of 20 foods into {boxes.Count} boxes for {Eaters} eaters, each own size and budget: "
            + $"p50 {times[Calls / 2]:0.00} ms, p95 {times[Calls * 95 / 100]:0.00} ms (wanted: within 20 ms)"));
        Labels(batch with { State = BatchState.Packed });
    }

    private static void Labels(Batch batch)
    {
        var today = new DateOnly(2026, 11, 25);
        BoxLabel Label(int number)
        {
            var box = new Box(Guid.NewGuid(), batch, new(400 + number), null);
            return new BoxLabel(box, new(12, number), UseBy.Of(box, today, KeepingRules.Default), today)
            {
                Eater = "Maximiliane",
                Day = today.AddDays(number % 9),
                Figures = [.. MeasureTotals.Of(box.Contents, null).Take(2)],
                NotFor = ["Bartholomew"],
                Notes = new("10 min at 160 °C, or 3 min in the microwave, lid ajar", "a spoon of yogurt, lemon, toasted seeds"),
            };
        }

        foreach (var code in new[] { "a4-3x8", "letter-3x10", "strip-62x29" })
        {
            var paper = LabelPaper.Find(code)!;
            var times = new List<double>();
            for (var i = 0; i < 8; i++)
            {
                var watch = Stopwatch.StartNew();
                var drawn = Enumerable.Range(1, 100)
                    .Select(number => LabelLayout.Of(Label(number), paper.Label, new($"http://kitchen.lan:5080/box/12{number:000}5")));
                var bytes = new LabelSheet(paper, [.. drawn]).Pdf("Labels").Length;
                if (bytes == 0) throw new InvalidOperationException("An empty PDF.");
                times.Add(watch.Elapsed.TotalMilliseconds);
            }

            var (first, then) = (times[0], times.Skip(1).Max());
            Console.WriteLine(string.Create(CultureInfo.InvariantCulture,
                $"100 labels as PDF on {paper.Name}: first {first:0} ms, then at most {then:0} ms (wanted: within 2 s)"));
        }
    }
}
