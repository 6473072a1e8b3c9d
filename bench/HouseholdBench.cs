using System.Diagnostics;
using System.Globalization;
using System.Text;
using System.Text.Json.Nodes;
using LivelyTern.Core.Aim;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Plan;
using LivelyTern.Core.Recipes;
using LivelyTern.Data.Disk;
using LivelyTern.Data;
using LivelyTern.Data.Aim;
using LivelyTern.Data.Cook;
using LivelyTern.Data.Foods;
using LivelyTern.Data.Pack;
using LivelyTern.Data.Plan;
using LivelyTern.Data.Recipes;
using Microsoft.Data.Sqlite;
using Microsoft.Extensions.DependencyInjection;

namespace LivelyTern.Bench;

/// <summary>
/// A household with three years behind it, made through the stores that users go through: four eaters, 156 weeks, four batches a week in
/// boxes, six plain foods a day for each. Then what a day asks of the host: the overview, the week, and ticking "Ate it" to its answer.
/// </summary>
internal static class HouseholdBench
{
    private const int Weeks = 156, BatchesAWeek = 4, BoxesABatch = 7, BoxesLeft = 26, FoodsADay = 6;
    private const string Url = "http://127.0.0.1:5185";
    private static readonly DateOnly LastMonday = new(2026, 11, 23);

    private static readonly string[] Dishes =
    [
        "600 g red lentils, dry|400 g tin chopped tomatoes|3 onions|2 tbsp rapeseed oil|1 l water", "800 g chicken breast|500 g rice|300 g peas|2 tbsp olive oil",
        "500 g pearl barley|600 g mushrooms|1 onion|100 g butter", "700 g chickpeas, canned|400 g spinach|200 ml coconut milk|2 tbsp rapeseed oil",
        "6 eggs|300 g flour|500 ml milk|100 g butter", "900 g potatoes|400 g salmon|200 g cream|1 leek",
    ];

    private static readonly string[] Foods =
        ["1 apple", "200 g skyr", "60 g quick oats", "200 ml oat milk", "1 banana", "2 slices rye bread", "30 g walnuts", "2 eggs", "150 g strawberries", "1 pear"];

    public static async Task RunAsync()
    {
        var data = Path.Combine(Directory.CreateTempSubdirectory("tern-bench-").FullName, "tern.db");
        var watch = Stopwatch.StartNew();
        await MakeAsync(data);
        SqliteConnection.ClearAllPools();
        await using (var connection = new SqliteConnection($"Data Source={data}"))
        {
            await connection.OpenAsync();
            await using var command = connection.CreateCommand();
            command.CommandText = "PRAGMA wal_checkpoint(TRUNCATE)";
            await command.ExecuteNonQueryAsync();
            command.CommandText = "SELECT (SELECT count(*) FROM Entries) || ' entries, ' || (SELECT count(*) FROM Boxes) || ' boxes, ' || (SELECT count(*) FROM FoodRecords) || ' food records'";
            var rows = await command.ExecuteScalarAsync();
            Console.WriteLine(string.Create(CultureInfo.InvariantCulture,
                $"three years of four eaters, made in {watch.Elapsed.TotalSeconds:0} s: {rows}, {new FileInfo(data).Length / 1e6:0.0} MB (wanted: under 60 MB)"));
        }

        using var host = Process.Start(new ProcessStartInfo("dotnet", [".build/host/LivelyTern.Web.dll", "--port", "5185", "--data", data, "--today", "2026-11-25"]) { RedirectStandardOutput = true, UseShellExecute = false })!;
        try
        {
            using var http = new HttpClient { BaseAddress = new Uri(Url) };
            while (!await IsUpAsync(http)) await Task.Delay(50);

            // A host that was just started still compiles what it runs; the figures that are wanted are those of one that has been up for a
            // while.
            foreach (var (when, isWarm) in new[] { ("just started", false), ("warm", true) })
            {
                await MeasureAsync($"/health, {when}", 500, async () => await http.GetByteArrayAsync("/health"), 0);
                await MeasureAsync(
                    $"the overview, {when}", 500, async () => await http.GetByteArrayAsync("/api/overview"), isWarm ? 10 : 0);
                await MeasureAsync(
                    $"the week, {when}", 300, async () => await http.GetByteArrayAsync("/api/plan/weeks/2026-11-25"), isWarm ? 30 : 0);
            }

            var week = JsonNode.Parse(await http.GetStringAsync("/api/plan/weeks/2026-11-25"))!;
            var eater = (string)week["eaters"]![0]!["eaterId"]!;
            await MeasureAsync(
                "today of one eater", 300, async () => await http.GetByteArrayAsync($"/api/eat/{eater}/2026-11-25"), 20);
            await MeasureAsync(
                "a week looked back on", 100, async () => await http.GetByteArrayAsync($"/api/review/week/{eater}/2026-11-18"), 100);
            await MeasureAsync(
                "the body's trend over all of it", 60, async () => await http.GetByteArrayAsync($"/api/review/body/{eater}"), 100);
            SayPeak(host);
            var item = week["eaters"]![0]!["days"]![2]!["items"]!.AsArray().First(one => one!["boxId"] is not null)!;
            var (version, isEaten) = ((int)week["version"]!, false);
            await MeasureAsync("ticking \"Ate it\"", 300, async () =>
            {
                isEaten = !isEaten;
                using var request = new HttpRequestMessage(HttpMethod.Put, $"/api/eat/items/{item["id"]}")
                {
                    Content = new StringContent(isEaten ? "{\"eaten\":true}" : "{\"eaten\":false}", Encoding.UTF8, "application/json"),
                };
                request.Headers.TryAddWithoutValidation("If-Match", version.ToString(CultureInfo.InvariantCulture));
                using var answer = await http.SendAsync(request);
                answer.EnsureSuccessStatusCode();
                version = (int)JsonNode.Parse(await answer.Content.ReadAsStringAsync())!["version"]!;
            }, 30);
            await MeasureBackupAsync(http);
            SayPeak(host);
        }
        finally
        {
            host.Kill();
            await host.WaitForExitAsync();
        }

        await MeasureShelvesAsync(data);
        Directory.Delete(Path.GetDirectoryName(data)!, recursive: true);
    }

    // All of it out, as either kind of backup; held against what is here, which is the same; and put in its place.
    private static async Task MeasureBackupAsync(HttpClient http)
    {
        foreach (var (kind, path) in new[] { ("JSON", "/api/backup"), ("the database file", "/api/backup/file") })
        {
            for (var round = 0; round < 3; round++)
            {
                var watch = Stopwatch.StartNew();
                var backup = await http.GetByteArrayAsync(path);
                var taken = watch.Elapsed.TotalSeconds;
                watch.Restart();
                using var content = new ByteArrayContent(backup);
                content.Headers.ContentType = new("application/octet-stream");
                using var looked = await http.PostAsync("/api/backup/restores?name=bench", content);
                looked.EnsureSuccessStatusCode();
                var look = watch.Elapsed.TotalSeconds;
                var id = (string)JsonNode.Parse(await looked.Content.ReadAsStringAsync())!["id"]!;
                using var applied = await http.PostAsync($"/api/backup/restores/{id}/apply", null);
                applied.EnsureSuccessStatusCode();
                var back = watch.Elapsed.TotalSeconds;
                Console.WriteLine(string.Create(CultureInfo.InvariantCulture,
                    $"a full backup, {kind}, {backup.Length / 1e6:0.0} MB: out in {taken:0.00} s (wanted: within 3 s),"));
                Console.WriteLine(string.Create(CultureInfo.InvariantCulture,
                    $"  back in {back:0.0} s, {look:0.0} s of it for the preview (wanted: within 10 s)"));
            }
        }
    }

    // Over the three years a batch every second week went into 26 boxes that nobody ate: what the shelves cost then.
    private static async Task MeasureShelvesAsync(string data)
    {
        var clock = new HouseClock();
        await using (var services = new ServiceCollection().AddKitchen(data).AddSingleton<TimeProvider>(clock).BuildServiceProvider())
        {
            for (var week = 0; week < Weeks; week += 2)
            {
                clock.Day = LastMonday.AddDays(-7 * week);
                await using var scope = services.CreateAsyncScope();
                var recipe = (await scope.ServiceProvider.GetRequiredService<RecipeStore>().ListAsync())[week % Dishes.Length].Id;
                await CookAsync(scope.ServiceProvider, recipe, clock.Day, new(), BoxesLeft);
            }
        }

        SqliteConnection.ClearAllPools();
        using var host = Process.Start(new ProcessStartInfo("dotnet", [".build/host/LivelyTern.Web.dll", "--port", "5185", "--data", data, "--today", "2026-11-25"]) { RedirectStandardOutput = true, UseShellExecute = false })!;
        try
        {
            using var http = new HttpClient { BaseAddress = new Uri(Url) };
            while (!await IsUpAsync(http)) await Task.Delay(50);
            var boxes = (int)JsonNode.Parse(await http.GetStringAsync("/api/keep/state"))!["boxes"]!;
            await MeasureAsync($"the shelves, {boxes} boxes", 200, async () => await http.GetByteArrayAsync("/api/keep"), 50);
            await MeasureAsync($"their state for the rail, {boxes} boxes", 200, async () => await http.GetByteArrayAsync("/api/keep/state"), 0);
        }
        finally
        {
            host.Kill();
            await host.WaitForExitAsync();
        }
    }

    private static async Task MeasureAsync(string what, int calls, Func<Task> call, int wanted)
    {
        var times = new double[calls];
        for (var i = -50; i < calls; i++)
        {
            var watch = Stopwatch.StartNew();
            await call();
            if (i >= 0) times[i] = watch.Elapsed.TotalMilliseconds;
        }

        Array.Sort(times);
        Console.WriteLine(string.Create(CultureInfo.InvariantCulture,
            $"{what}, {calls} calls: p50 {times[calls / 2]:0.0} ms, p95 {times[calls * 95 / 100]:0.0} ms{(wanted > 0 ? $" (wanted: p95 within {wanted} ms)" : "")}"));
    }

    private static void SayPeak(Process host)
    {
        host.Refresh();
        Console.WriteLine(string.Create(CultureInfo.InvariantCulture,
            $"the host's memory at its most until then: {host.PeakWorkingSet64 / 1e6:0} MB (wanted: under 400 MB)"));
    }

    private static async Task<bool> IsUpAsync(HttpClient http)
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

    private static async Task MakeAsync(string data)
    {
        var clock = new HouseClock();
        await using var services = new ServiceCollection().AddKitchen(data).AddSingleton<TimeProvider>(clock).BuildServiceProvider();
        clock.Day = LastMonday.AddDays(-7 * (Weeks - 1));
        var (eaters, recipes) = await LayTableAsync(services);
        var chance = new Random(20261126);
        for (var monday = clock.Day; monday <= LastMonday; monday = monday.AddDays(7))
        {
            await using var scope = services.CreateAsyncScope();
            var boxes = new Queue<Guid>();
            for (var i = 0; i < BatchesAWeek; i++) await CookAsync(scope.ServiceProvider, recipes[chance.Next(recipes.Count)], monday, boxes);
            for (var day = monday; day < monday.AddDays(7); day = day.AddDays(1))
            {
                clock.Day = day > new DateOnly(2026, 11, 25) ? new(2026, 11, 25) : day;
                foreach (var eater in eaters) await LayDayAsync(services, new(eater, day), boxes, chance, isEaten: day < new DateOnly(2026, 11, 25));
            }
        }

        clock.Day = new(2026, 11, 25);
        await WeighAsync(services, eaters, chance);
    }

    // On the scale on most days: about a thousand times each.
    private static async Task WeighAsync(IServiceProvider services, List<Guid> eaters, Random chance)
    {
        await using var scope = services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<TernDb>();
        foreach (var eater in eaters)
        {
            var kg = 60m + chance.Next(30);
            for (var day = LastMonday.AddDays(-7 * (Weeks - 1)); day <= new DateOnly(2026, 11, 25); day = day.AddDays(1))
            {
                kg += (chance.Next(21) - 10) / 200m;
                if (chance.Next(12) == 0) continue;
                var text = string.Create(CultureInfo.InvariantCulture, $"{kg:0.0} kg");
                var at = new DateTimeOffset(day, new(7, 0), TimeSpan.Zero);
                db.WeighIns.Add(new() { EaterId = eater, Day = day, Grams = (int)(kg * 1000), Text = text, WrittenAt = at });
            }
        }

        await db.SaveChangesAsync();
    }

    private static async Task<(List<Guid> Eaters, List<Guid> Recipes)> LayTableAsync(IServiceProvider services)
    {
        await using var scope = services.CreateAsyncScope();
        await TernFile.PrepareAsync(scope.ServiceProvider.GetRequiredService<TernDb>());
        var (eaters, recipes) = (new List<Guid>(), new List<Guid>());
        foreach (var (name, most, rule) in new[] { ("Ada", 1600m, PointsRule.Starting), ("Bo", 2300m, null), ("Cem", 1900m, null), ("Dora", 2000m, PointsRule.Starting) })
        {
            var bands = new Dictionary<Measure, Band> { [Measure.Energy] = new(most - 150, most - 75, most), [Measure.Protein] = new(Min: 70) };
            eaters.Add((await scope.ServiceProvider.GetRequiredService<EaterStore>().AddAsync(name, new(Measure.Energy, bands, rule), clinicianSetIt: false)).Value!.Id);
        }

        var store = scope.ServiceProvider.GetRequiredService<RecipeStore>();
        for (var i = 0; i < Dishes.Length * 5; i++)
        {
            var lines = Dishes[i % Dishes.Length].Split('|').Select(line => new WrittenLine(line));
            recipes.Add((await store.AddAsync(new($"Dish {i + 1}", [.. lines], new(BoxesABatch)))).Value!.Id);
        }

        return (eaters, recipes);
    }

    private static async Task CookAsync(IServiceProvider services, Guid recipe, DateOnly day, Queue<Guid> boxes, int count = BoxesABatch)
    {
        var batch = (await services.GetRequiredService<BatchStore>().CookAsync(recipe, day, day)).Value!;
        var packed = await services.GetRequiredService<PackBatch>().DoAsync(batch.Id, batch.Version, new(new(400), new(3400), count, null));
        foreach (var box in await services.GetRequiredService<BoxStore>().OfBatchAsync(packed.Value!.Id)) boxes.Enqueue(box.Id);
    }

    private static async Task LayDayAsync(IServiceProvider services, EaterDay where, Queue<Guid> boxes, Random chance, bool isEaten)
    {
        await using var scope = services.CreateAsyncScope();
        var known = await scope.ServiceProvider.GetRequiredService<FoodStore>().AllAsync();
        DateTimeOffset? at = isEaten ? new DateTimeOffset(where.Day, new(12, 0), TimeSpan.Zero) : null;
        var items = new List<PlanItem>();
        if (boxes.TryDequeue(out var box)) items.Add(new(Guid.CreateVersion7(), new LaidBox(box), at));
        for (var i = 0; i < FoodsADay; i++)
        {
            var text = Foods[chance.Next(Foods.Length)];
            var food = FoodLine.Read(text, known).Ingredient ?? throw new InvalidOperationException(text);
            items.Add(new(Guid.CreateVersion7(), new PlainFood(text, food), at));
        }

        var steps = items.ConvertAll<Func<PlanBoard, Outcome<PlanChange>>>(item => board => board.Lay(item, where, int.MaxValue));
        var made = await scope.ServiceProvider.GetRequiredService<DayChanges>()
            .MakeAsync(null, [where], [.. items.Select(item => item.BoxId).OfType<Guid>()], board => board.InOne(steps));
        if (!made.Succeeded) throw new InvalidOperationException(made.Problems[0].Sentence);
    }

    private sealed class HouseClock : TimeProvider
    {
        public DateOnly Day { get; set; }

        public override TimeZoneInfo LocalTimeZone => TimeZoneInfo.Utc;

        public override DateTimeOffset GetUtcNow() => new(Day, new(12, 0), TimeSpan.Zero);
    }
}
