using System.Diagnostics;
using System.Globalization;
using LivelyTern.Core.Foods;
using LivelyTern.Data.Foods;
using Sylvan.Data.Csv;

namespace LivelyTern.Bench;

/// <summary>
/// Reading lines as cooks write them, as a ratio to splitting the same lines into words; and the longest that any of them takes.
/// </summary>
internal static class LineBench
{
    // Nothing here says anything; each tries to make a pattern run long. 300 letters are the most a line may have.
    private static readonly string[] Hostile =
    [
        Filled("1 "), Filled("1/"), Filled("("), Filled("a, "), Filled("and "), Filled("1 cup plus "), Filled("1 (1-oz "), Filled("½"),
        Filled("salt and pepper, "), Filled("raw cooked "), Filled("1-2-"), Filled("chicken breast "), Filled("1 heaped "), Filled("~"),
    ];

    public static void Run()
    {
        var foods = new FoodCatalogue(FoodTable.Read());
        var lines = Corpus();
        const int Rounds = 10;
        int ReadAll() => lines.Sum(line => FoodLine.Read(line, foods).Ingredient is null ? 0 : 1);
        for (var i = 0; i < Rounds; i++) ReadAll();
        foreach (var line in Hostile) FoodLine.Read(line, foods);

        var ratios = new List<double>();
        for (var i = 0; i < 7; i++)
        {
            var ours = Time(() => Enumerable.Range(0, Rounds).Sum(_ => ReadAll()));
            var bare = Time(() => Enumerable.Range(0, 10 * Rounds).Sum(_ => lines.Sum(line => FoodWords.All(line).Count)));
            ratios.Add(ours / bare * 10);
            if (i == 6) Say($"{lines.Count} lines of the corpus: {ours * 1000 / lines.Count / Rounds:0.000} ms a line");
        }

        ratios.Sort();
        Say($"reading them, against only splitting them into words: {ratios[3]:0} x (of 7 runs {ratios[0]:0} to {ratios[6]:0})");
        Slowest("a line of the corpus", lines, foods);
        Slowest("a hostile line of 300 letters", Hostile, foods);
        var many = Enumerable.Range(0, 5000).Select(i => lines[i % lines.Count]).ToList();
        Say($"5,000 lines: {Time(() => many.Sum(line => FoodLine.Read(line, foods).Ingredient is null ? 0 : 1)):0.00} s");
    }

    // Of three readings the quickest, since a collection in between is not the line's.
    private static void Slowest(string what, IReadOnlyList<string> lines, FoodCatalogue foods)
    {
        double Quickest(string line) => Enumerable.Range(0, 3).Min(_ => Time(() => FoodLine.Read(line, foods).Ingredient is null ? 0 : 1));
        var (time, line) = lines.Select(line => (Quickest(line), line)).Max();
        Say($"the slowest of {lines.Count}, {what}: {time * 1000:0.00} ms ({(line.Length > 40 ? line[..40] : line)})");
    }

    private static List<string> Corpus()
    {
        using var csv = CsvDataReader.Create("tests/lines/corpus.csv");
        var lines = new List<string>();
        while (csv.Read()) lines.Add(csv.GetString(1));
        return lines;
    }

    private static double Time(Func<int> act)
    {
        var watch = Stopwatch.StartNew();
        act();
        return watch.Elapsed.TotalSeconds;
    }

    private static string Filled(string part) => string.Concat(Enumerable.Repeat(part, 300))[..300];

    private static void Say(FormattableString what) => Console.WriteLine(what.ToString(CultureInfo.InvariantCulture));
}
