using System.Diagnostics;
using System.Globalization;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using LivelyTern.Bench;
using LivelyTern.Core.Aim;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Plan;
using LivelyTern.Data.Foods;

if (args.Contains("--weeks"))
{
    WeekBench.Run(args.Contains("--plain"));
    return;
}

if (args.Contains("--household"))
{
    await HouseholdBench.RunAsync();
    return;
}

if (args.Contains("--library"))
{
    await LibraryBench.RunAsync();
    return;
}

if (args.Contains("--lines"))
{
    LineBench.Run();
    return;
}

if (args.Contains("--prep"))
{
    PrepDayBench.Run();
    return;
}

if (args.Contains("--pack"))
{
    PackBench.Run();
    return;
}

if (args.Contains("--trend"))
{
    TrendBench.Run();
    return;
}

if (args.Contains("--shop"))
{
    await ShopBench.RunAsync();
    return;
}

// Speed as ratios within one run: our sums against the bare loop of multiplications over arrays doing the same sums.
var table = FoodTable.Read();
var chance = new Random(20261123);
var nutrients = Nutrients.All.Count;

Contents Draw(int lines) => new([.. Enumerable.Range(0, lines).Select(_ => new Ingredient(table[chance.Next(table.Count)], new Grams(chance.Next(1, 800))))]);

// A recipe of 30 lines; a week of 4 eaters: 28 days of 6 entries of 8 foods each.
var recipe = Draw(30);
var week = Enumerable.Range(0, 28).Select(_ => Enumerable.Range(0, 6).Select(_ => Draw(8)).ToList()).ToList();
var aim = new DayAim(Measure.Energy, new Dictionary<Measure, Band> { [Measure.Energy] = new(1450, 1525, 1600) }, PointsRule.Starting);

Compare("nutrient totals of a 30-line recipe", 20_000,
    () => recipe.Totals[Nutrient.Energy].Known,
    Bare([recipe]));
Compare("nutrient totals of a week of 4 eaters", 200,
    () => week.Sum(day => day.Sum(entry => entry.Totals[Nutrient.Energy].Known)),
    Bare([.. week.SelectMany(day => day)]));
Compare("that week read whole, with points and bands", 200,
    () => week.Sum(day => DayReading.Of(day, aim).Sums[Measure.Energy].Known),
    Bare([.. week.SelectMany(day => day)]));

LineBench.Run();
PrepDayBench.Run();
PackBench.Run();
await CallsAsync();
await ShopBench.RunAsync();
WeekBench.Run(args.Contains("--plain"));
await LibraryBench.RunAsync();
await HouseholdBench.RunAsync();

Func<decimal> Bare(IReadOnlyList<Contents> entries)
{
    var values = entries.Select(entry => entry.Ingredients.Select(part => Nutrients.All.Select(nutrient => part.Food.Per100g[nutrient] ?? 0).ToArray()).ToArray()).ToArray();
    var weights = entries.Select(entry => entry.Ingredients.Select(part => part.Weight.Value).ToArray()).ToArray();
    return () =>
    {
        var energy = 0m;
        for (var e = 0; e < values.Length; e++)
        {
            var sums = new decimal[nutrients];
            for (var i = 0; i < values[e].Length; i++)
            {
                var hundreds = weights[e][i] * 0.01m;
                for (var n = 0; n < sums.Length; n++) sums[n] += values[e][i][n] * hundreds;
            }

            energy += sums[0];
        }

        return energy;
    };
}

static void Compare(string what, int rounds, Func<decimal> ours, Func<decimal> bare)
{
    if (ours() != bare()) throw new InvalidOperationException($"{what}: the sums differ");
    var ratios = new List<double>();
    for (var i = 0; i < 7; i++) ratios.Add(Time(ours, rounds) / Time(bare, rounds));
    ratios.Sort();
    Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"{what}: {ratios[3]:0.00} x the bare loop (of 7 runs {ratios[0]:0.00} to {ratios[6]:0.00})"));
}

static double Time(Func<decimal> act, int rounds)
{
    var watch = Stopwatch.StartNew();
    for (var i = 0; i < rounds; i++) act();
    return watch.Elapsed.TotalSeconds;
}

// 1,000 calls of /api/calc/recipe on loopback, against 1,000 of /health in the same run; then days to be mended and menus of the demo's
// week.
static async Task CallsAsync()
{
    var data = Path.Combine(Directory.CreateTempSubdirectory("tern-bench-").FullName, "tern.db");
    const string url = "http://127.0.0.1:5183";
    using var host = Process.Start(new ProcessStartInfo("dotnet", [".build/host/LivelyTern.Web.dll", "--port", "5183", "--data", data, "--demo", "true"]) { RedirectStandardOutput = true, UseShellExecute = false })!;
    try
    {
        using var http = new HttpClient { BaseAddress = new Uri(url) };
        for (var i = 0; i < 300 && !await IsUpAsync(http); i++) await Task.Delay(50);
        string[] five = ["600 g red lentils, dry", "2 tbsp rapeseed oil", "2 x 400 g tin chopped tomatoes", "3 onions, chopped", "1.5 l water"];
        async Task<double[]> MeasureAsync(Func<Task<HttpResponseMessage>> call, int calls = 1000, int first = 200)
        {
            var times = new double[calls];
            for (var i = -first; i < times.Length; i++)
            {
                var watch = Stopwatch.StartNew();
                using var answer = await call();
                answer.EnsureSuccessStatusCode();
                await answer.Content.ReadAsByteArrayAsync();
                if (i >= 0) times[i] = watch.Elapsed.TotalMilliseconds;
            }

            Array.Sort(times);
            return times;
        }

        var health = await MeasureAsync(() => http.GetAsync("/health"));
        foreach (var times in new[] { 2, 6 })
        {
            var body = new { lines = Enumerable.Repeat(five, times).SelectMany(lines => lines), portions = 6 };
            var recipe = await MeasureAsync(() => http.PostAsJsonAsync("/api/calc/recipe", body));
            Console.WriteLine(string.Create(CultureInfo.InvariantCulture,
                $"/api/calc/recipe, {5 * times} lines, 1,000 calls: p50 {recipe[500]:0.00} ms, p95 {recipe[950]:0.00} ms; p95 is {recipe[950] / health[950]:0.0} x that of /health ({health[950]:0.00} ms)"));
        }

        await PlansAsync(http, MeasureAsync);
    }
    finally
    {
        host.Kill();
        await host.WaitForExitAsync();
    }

    static async Task<bool> IsUpAsync(HttpClient http)
    {
        try
        {
            using var answer = await http.GetAsync("/health");
            return answer.IsSuccessStatusCode;
        }
        catch (HttpRequestException)
        {
            return false;
        }
    }
}

// Days of the demo that are out of their bands, each with its mends, and a menu for the week after.
static async Task PlansAsync(HttpClient http, Func<Func<Task<HttpResponseMessage>>, int, int, Task<double[]>> measureAsync)
{
    var today = DateOnly.FromDateTime(DateTime.Now);
    var week = JsonNode.Parse(await http.GetStringAsync($"/api/plan/weeks/{today:yyyy-MM-dd}"))!;
    var outs = week["eaters"]!.AsArray().SelectMany(eater => eater!["days"]!.AsArray().Where(day => !(bool)day!["fits"]! && DateOnly.Parse((string)day["day"]!, CultureInfo.InvariantCulture) >= today)
        .Select(day => $"/api/plan/days/{eater["eaterId"]}/{day!["day"]}")).ToList();
    var mends = new List<double>();
    foreach (var path in outs) mends.AddRange(await measureAsync(() => http.GetAsync(path), 10, 2));
    mends.Sort();
    if (mends.Count > 0) Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"a day out of its bands with what would mend it, {outs.Count} days of the demo: p50 {mends[mends.Count / 2]:0} ms, p95 {mends[mends.Count * 95 / 100]:0} ms (wanted: within 1 s)"));

    var monday = DateOnly.Parse((string)week["start"]!, CultureInfo.InvariantCulture).AddDays(7);
    var menu = await measureAsync(() => http.PostAsJsonAsync("/api/plan/menus", new { from = monday, to = monday.AddDays(6), prepDay = monday.AddDays(-1), dishes = 4 }), 3, 1);
    Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"a menu of 4 dishes for 3 eaters and 7 days: {menu[1]:0} ms, of which up to 2,500 for filling the days with it"));
}
