using System.Diagnostics;
using System.Globalization;
using System.IO.Compression;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using LivelyTern.Core.Foods;
using Microsoft.Data.Sqlite;

namespace LivelyTern.Bench;

/// <summary>
/// 400,000 made-up foods in FoodData Central's shape: taken in by the host from its zip, against a bare INSERT loop of the same columns in
/// one transaction in this same run; then searched as typed.
/// </summary>
internal static class LibraryBench
{
    private const int Foods = 400_000;

    private static readonly string[] Kinds = ["bread", "soup", "yogurt", "cheese", "granola", "cracker", "sauce", "lentils", "chickpeas", "sausage", "pasta", "noodles", "rice", "juice", "cookie", "cereal", "tofu", "salmon", "chicken", "turkey", "beans", "spread", "butter", "pickles", "salsa", "dressing", "muffin", "tortilla", "pizza", "burrito"];
    private static readonly string[] Says = ["whole", "light", "smoked", "roasted", "organic", "salted", "unsalted", "creamy", "crunchy", "spicy", "mild", "sweet", "sour", "frozen", "canned", "dried", "raw", "cooked", "baked", "grilled", "vanilla", "garlic", "lemon", "pepper", "onion", "tomato", "basil", "honey", "maple", "ginger", "coconut", "almond", "peanut", "oat", "wheat", "rye", "spelt", "sesame", "pumpkin", "apple"];

    public static async Task RunAsync()
    {
        var folder = Directory.CreateTempSubdirectory("tern-bench-").FullName;
        var zip = Path.Combine(folder, "fdc.zip");
        Generate(zip);
        var data = Path.Combine(folder, "tern.db");
        const string url = "http://127.0.0.1:5184";
        using var host = Process.Start(new ProcessStartInfo("dotnet", [".build/host/LivelyTern.Web.dll", "--port", "5184", "--data", data]) { RedirectStandardOutput = true, UseShellExecute = false })!;
        try
        {
            using var http = new HttpClient { BaseAddress = new Uri(url), Timeout = TimeSpan.FromMinutes(5) };
            await UpAsync(http);
            using var file = new StreamContent(File.OpenRead(zip));
            file.Headers.ContentType = new("application/octet-stream");
            using var sent = await http.PostAsync("/api/imports?name=generated", file);
            var import = JsonNode.Parse(await sent.Content.ReadAsStringAsync())!;
            var looked = Stopwatch.StartNew();
            await UntilAsync(http, import, "ready");
            var looking = looked.Elapsed.TotalSeconds;
            var watch = Stopwatch.StartNew();
            using (await http.PostAsync($"/api/imports/{import["id"]}/take", null)) await UntilAsync(http, import, "done");
            var taking = watch.Elapsed.TotalSeconds;
            var peak = PeakMegabytes(host.Id);
            var bare = Bare(Path.Combine(folder, "bare.db"));
            Console.WriteLine(string.Create(CultureInfo.InvariantCulture,
                $"import of {Foods:N0} foods (zip of CSV, joined, checked, indexed by word): {Foods / taking:N0} rows/s, {Foods / taking / (Foods / bare):0.00} x the bare INSERT loop ({Foods / bare:N0} rows/s); its preview read {Foods / looking:N0} rows/s; the host's peak memory {peak} MB"));
            await SearchAsync(http);
        }
        finally
        {
            host.Kill();
            await host.WaitForExitAsync();
            Directory.Delete(folder, recursive: true);
        }
    }

    private static async Task SearchAsync(HttpClient http)
    {
        var chance = new Random(3);
        var times = new List<double>();
        for (var i = 0; i < 60; i++)
        {
            // Two words as they are typed, letter by letter; every fourth with a slip.
            var words = $"{Says[chance.Next(Says.Length)]} {Kinds[chance.Next(Kinds.Length)]}";
            if (i % 4 == 3) words = words.Remove(words.Length - 3, 1);
            for (var letters = 1; letters <= words.Length; letters++)
            {
                var watch = Stopwatch.StartNew();
                using var answer = await http.GetAsync("/api/foods?q=" + Uri.EscapeDataString(words[..letters]));
                await answer.Content.ReadAsByteArrayAsync();
                answer.EnsureSuccessStatusCode();
                if (i >= 4) times.Add(watch.Elapsed.TotalMilliseconds);
            }
        }

        times.Sort();
        Console.WriteLine(string.Create(CultureInfo.InvariantCulture,
            $"search over {Foods:N0} foods as typed, {times.Count:N0} keystrokes: p50 {times[times.Count / 2]:0.0} ms, p95 {times[times.Count * 95 / 100]:0.0} ms, slowest {times[^1]:0.0} ms (wanted: p95 within 50 ms)"));
    }

    private static void Generate(string path)
    {
        var chance = new Random(20261123);
        using var zip = ZipFile.Open(path, ZipArchiveMode.Create);
        void Write(string name, Action<StreamWriter> rows)
        {
            using var writer = new StreamWriter(zip.CreateEntry(name, CompressionLevel.Fastest).Open());
            rows(writer);
        }

        Write("food.csv", writer =>
        {
            writer.WriteLine("\"fdc_id\",\"data_type\",\"description\",\"food_category_id\",\"publication_date\"");
            for (var i = 0; i < Foods; i++)
                writer.WriteLine(string.Create(CultureInfo.InvariantCulture, $"\"{i + 1000}\",\"branded_food\",\"{Name(chance, i)}\",\"\",\"2026-10-01\""));
        });
        Write("food_nutrient.csv", writer =>
        {
            writer.WriteLine("\"id\",\"fdc_id\",\"nutrient_id\",\"amount\"");
            for (var i = 0; i < Foods; i++)
            {
                // Parts by chance, energy from the factors as labels round it; one food in a hundred has a slip in its energy.
                var (protein, fat, carbohydrate) = (chance.NextDouble() * 30, chance.NextDouble() * 30, chance.NextDouble() * 39);
                var fibre = carbohydrate * 0.2 * chance.NextDouble();
                var energy = Math.Round(((4 * protein) + (9 * fat) + (4 * (carbohydrate - fibre)) + (2 * fibre)) / 10) * (i % 100 == 0 ? 20 : 10);
                foreach (var (id, amount) in new (int, double)[] { (1008, energy), (1003, protein), (1004, fat), (1258, fat / 3), (1005, carbohydrate), (2000, carbohydrate / 2), (1079, fibre), (1093, chance.NextDouble() * 900), (1018, 0), (1086, 0) })
                    writer.WriteLine(string.Create(CultureInfo.InvariantCulture, $"\"{i * 10}\",\"{i + 1000}\",\"{id}\",\"{amount:0.0#}\""));
            }
        });
    }

    private static string Name(Random chance, int i) => $"{Says[chance.Next(Says.Length)]} {Says[chance.Next(Says.Length)]} {Kinds[i % Kinds.Length]}, {Says[chance.Next(Says.Length)]} {i % 997}".ToUpperInvariant();

    /// <summary>
    /// The seconds of the bare loop: one prepared statement, one transaction, the table as it is, no reading, no checking, no word index.
    /// </summary>
    private static double Bare(string path)
    {
        using var connection = new SqliteConnection($"Data Source={path}");
        connection.Open();
        void Run(string sql)
        {
            using var command = connection.CreateCommand();
            command.CommandText = sql;
            command.ExecuteNonQuery();
        }

        Run("PRAGMA journal_mode = WAL");
        Run("PRAGMA synchronous = NORMAL");
        Run("CREATE TABLE LibraryFoods (Id INTEGER PRIMARY KEY AUTOINCREMENT, LibraryId INTEGER NOT NULL, Code TEXT NOT NULL, Name TEXT NOT NULL, \"Group\" INTEGER NOT NULL, Convention INTEGER NOT NULL, Measures TEXT, Gtin TEXT, IsDoubtful INTEGER NOT NULL, Energy REAL, Protein REAL, Fat REAL, SaturatedFat REAL, Carbohydrate REAL, Sugars REAL, Fibre REAL, Salt REAL, Polyols REAL, Alcohol REAL)");
        Run("CREATE INDEX a ON LibraryFoods (LibraryId)");
        var chance = new Random(1);
        var names = Enumerable.Range(0, 5000).Select(i => Name(chance, i)).ToArray();
        var watch = Stopwatch.StartNew();
        using var transaction = connection.BeginTransaction();
        using var insert = connection.CreateCommand();
        insert.Transaction = transaction;
        insert.CommandText = "INSERT INTO LibraryFoods (LibraryId, Code, Name, \"Group\", Convention, Measures, Gtin, IsDoubtful, Energy, Protein, Fat, SaturatedFat, Carbohydrate, Sugars, Fibre, Salt, Polyols, Alcohol) VALUES ($0, $1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14, $15, $16, $17)";
        var values = Enumerable.Range(0, 18).Select(i => insert.Parameters.Add(new SqliteParameter($"${i}", null))).ToArray();
        insert.Prepare();
        for (var row = 0; row < Foods; row++)
        {
            (values[0].Value, values[1].Value, values[2].Value, values[3].Value, values[4].Value) = (1, row.ToString(CultureInfo.InvariantCulture), names[row % names.Length], (int)FoodGroup.Grains, 0);
            (values[5].Value, values[6].Value, values[7].Value) = (DBNull.Value, DBNull.Value, true);
            for (var i = 0; i < 10; i++) values[8 + i].Value = row % 97 * 0.37;
            insert.ExecuteNonQuery();
        }

        transaction.Commit();
        return watch.Elapsed.TotalSeconds;
    }

    private static async Task UntilAsync(HttpClient http, JsonNode import, string state)
    {
        while (true)
        {
            var now = JsonNode.Parse(await http.GetStringAsync($"/api/imports/{import["id"]}"))!;
            if ((string)now["state"]! == state) return;
            if ((string)now["state"]! == "failed") throw new InvalidOperationException((string)now["failure"]!);
            await Task.Delay(20);
        }
    }

    private static async Task UpAsync(HttpClient http)
    {
        for (var i = 0; i < 600; i++)
        {
            try
            {
                using var answer = await http.GetAsync("/health");
                if (answer.IsSuccessStatusCode) return;
            }
            catch (HttpRequestException)
            {
            }

            await Task.Delay(50);
        }
    }

    // The most the process ever held, as Linux counts it.
    private static long PeakMegabytes(int process) => File.Exists($"/proc/{process}/status")
        ? long.Parse(new string([.. File.ReadLines($"/proc/{process}/status").First(line => line.StartsWith("VmHWM")).Where(char.IsDigit)]), CultureInfo.InvariantCulture) / 1024
        : 0;
}
