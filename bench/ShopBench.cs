using System.Diagnostics;
using System.Globalization;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Recipes;
using LivelyTern.Data.Disk;
using LivelyTern.Data;
using LivelyTern.Data.Cook;
using LivelyTern.Data.Foods;
using LivelyTern.Data.Recipes;
using LivelyTern.Data.Shop;
using Microsoft.Extensions.DependencyInjection;

namespace LivelyTern.Bench;

/// <summary>The list for 20 batches from a pantry of 5,000 things, asked of the host on loopback, against <c>/health</c> in the same run.</summary>
internal static class ShopBench
{
    private const int Batches = 20, Things = 5_000;
    private const string Url = "http://127.0.0.1:5186";
    private static readonly DateOnly Today = new(2026, 11, 25);

    public static async Task RunAsync()
    {
        var data = Path.Combine(Directory.CreateTempSubdirectory("tern-bench-").FullName, "tern.db");
        await MakeAsync(data);
        Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
        using var host = Process.Start(new ProcessStartInfo("dotnet", [".build/host/LivelyTern.Web.dll", "--port", "5186", "--data", data, "--today", "2026-11-25"]) { RedirectStandardOutput = true, UseShellExecute = false })!;
        try
        {
            using var http = new HttpClient { BaseAddress = new Uri(Url) };
            while (!await IsUpAsync(http)) await Task.Delay(50);
            var health = await MeasureAsync(http, "/health");
            foreach (var (what, path) in new[] { ("the list", "/api/shop/list"), ("what is in the house", "/api/shop/pantry"), ("the page for a phone", "/api/shop/list.html") })
            {
                var times = await MeasureAsync(http, path);
                Console.WriteLine(string.Create(CultureInfo.InvariantCulture,
                    $"{what}, {Batches} batches, a pantry of {Things}: p50 {times[100]:0.0} ms, p95 {times[190]:0.0} ms, {times[190] / health[190]:0.0} x /health{(path.EndsWith("list", StringComparison.Ordinal) ? " (wanted: within 50 ms)" : "")}"));
            }
        }
        finally
        {
            host.Kill();
            await host.WaitForExitAsync();
            Directory.Delete(Path.GetDirectoryName(data)!, recursive: true);
        }
    }

    private static async Task<double[]> MeasureAsync(HttpClient http, string path)
    {
        var times = new double[200];
        for (var i = -50; i < times.Length; i++)
        {
            var watch = Stopwatch.StartNew();
            await http.GetByteArrayAsync(path);
            if (i >= 0) times[i] = watch.Elapsed.TotalMilliseconds;
        }

        Array.Sort(times);
        return times;
    }

    private static async Task<bool> IsUpAsync(HttpClient http)
    {
        try
        {
            return (await http.GetAsync("/health")).IsSuccessStatusCode;
        }
        catch (HttpRequestException)
        {
            return false;
        }
    }

    private static async Task MakeAsync(string data)
    {
        var services = new ServiceCollection().AddSingleton<TimeProvider>(new Wednesday()).AddKitchen(data).BuildServiceProvider();
        await using var scope = services.CreateAsyncScope();
        var all = scope.ServiceProvider;
        await TernFile.PrepareAsync(all.GetRequiredService<TernDb>());
        var (chance, foods) = (new Random(20261128), FoodTable.Read().ToList());
        string Line() => $"{chance.Next(20, 900)} g {foods[chance.Next(foods.Count)].Name}";
        var dishes = new List<(Guid, int)>();
        for (var i = 0; i < Batches; i++)
        {
            List<WrittenLine> lines = [.. Enumerable.Range(0, 12).Select(_ => new WrittenLine(Line()))];
            dishes.Add(((await all.GetRequiredService<RecipeStore>().AddAsync(new($"dish {i}", lines, new(6)))).Value!.Id, 8));
        }

        await all.GetRequiredService<BatchStore>().PlanAsync(Today.AddDays(3), Today, dishes);
        PutInPantry Thing()
        {
            var food = foods[chance.Next(foods.Count)];
            return new(food.Id, food.Name, new Grams(chance.Next(20, 2000)), Today.AddDays(chance.Next(2, 400)));
        }

        await all.GetRequiredService<PantryStore>().AddAsync([.. Enumerable.Range(0, Things).Select(_ => Thing())]);
    }

    private sealed class Wednesday : TimeProvider
    {
        public override DateTimeOffset GetUtcNow() => new(2026, 11, 25, 12, 0, 0, TimeSpan.Zero);
    }
}
