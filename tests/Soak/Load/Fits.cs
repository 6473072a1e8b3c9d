using System.Diagnostics;
using System.Globalization;

namespace LivelyTern.Soak.Load;

/// <summary>
/// The largest problem that is taken, by ten at once, each asked for one second: who comes too late is told so, and meanwhile the house
/// answers as ever.
/// </summary>
/// <param name="host">The house.</param>
public sealed class Fits(RunningHost host)
{
    private const int AtOnce = 10, Eaters = 12, Days = 14, Batches = 60, Sizes = 40, Fillers = 200;
    private int answered, late;
    private double longest, longestHealth, most;

    /// <summary>Goes on for as long as wanted.</summary>
    /// <exception cref="InvalidOperationException">Something was answered wrongly.</exception>
    public async Task RunAsync(Func<bool> goOn)
    {
        var body = Problem();
        do
        {
            var asked = Enumerable.Range(0, AtOnce).Select(_ => AskAsync(body)).ToList();
            while (!asked.TrueForAll(one => one.IsCompleted))
            {
                var watch = Stopwatch.StartNew();
                using var health = await host.Asker.Http.GetAsync("/health");
                health.EnsureSuccessStatusCode();
                longestHealth = Math.Max(longestHealth, watch.Elapsed.TotalMilliseconds);
                most = Math.Max(most, host.Megabytes);
                await Task.Delay(50);
            }

            await Task.WhenAll(asked);
        }
        while (goOn());
    }

    public override string ToString() => string.Create(
        CultureInfo.InvariantCulture,
        $"{answered} fits of the largest problem, asked for 1 s: the longest took {longest:0.0} s in its turn and out of it, {late} were told to "
        + $"come again; meanwhile /health within {longestHealth:0} ms, memory {most:0} MB at most");

    private async Task AskAsync(object body)
    {
        var watch = Stopwatch.StartNew();
        var (status, answer) = await host.Asker.SendAsync(HttpMethod.Post, "/api/calc/fit", body);
        if (status == 503) late++;
        else if (status == 200) (answered, longest) = (answered + 1, Math.Max(longest, watch.Elapsed.TotalSeconds));
        else throw new InvalidOperationException($"{status} {answer}");
    }

    private static object Problem()
    {
        object Figures(double kcal) => new { energy = kcal, protein = kcal / 20, carbohydrate = kcal / 9, fat = kcal / 30 };
        var day = new
        {
            bands = new { energy = new { min = 1800, target = 1900, max = 2000 }, protein = new { min = 90 }, fat = new { max = 80 } },
            mostBoxes = 4,
            mostServings = 8,
        };
        return new
        {
            problem = new
            {
                start = "2026-11-25",
                eaters = Enumerable.Range(0, Eaters).Select(e =>
                    new { id = $"e{e}", name = $"Eater {e}", leading = "energy", days = Enumerable.Repeat(day, Days), boxesAlike = 5 }),
                batches = Enumerable.Range(0, Batches).Select(b => new
                {
                    id = $"b{b}",
                    name = $"Batch {b}",
                    grams = (double?)null,
                    firstDay = 0,
                    lastDay = Days - 1,
                    isPacked = true,
                    sizes = Enumerable.Range(0, Sizes).Select(s =>
                        new { grams = 150 + (10 * s), figures = Figures((150 + (10 * s)) * (1 + (b % 7 / 7.0))), boxes = 3 }),
                }),
                fillers = Enumerable.Range(0, Fillers).Select(f => new { id = $"f{f}", name = $"Filler {f}", figures = Figures(20 + f), most = 5 }),
                wishes = new { },
            },
            seconds = 1,
        };
    }
}
