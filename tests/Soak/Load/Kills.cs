using System.Collections.Concurrent;
using System.Globalization;
using Microsoft.Data.Sqlite;

namespace LivelyTern.Soak.Load;

/// <summary>
/// Power cuts: while several write, the program is ended from one moment to the next. The file is whole each time, the program starts on it
/// by itself, and what was acknowledged is there.
/// </summary>
/// <param name="chance">Where chance comes from.</param>
public sealed class Kills(Random chance)
{
    private const int Writers = 6;
    private readonly string data = Path.Combine(Directory.CreateTempSubdirectory("tern-kills-").FullName, "tern.db");

    // What was acknowledged last: of a recipe its version and its line, and each recipe that was added.
    private readonly ConcurrentDictionary<string, (int Version, string Line)> written = new(StringComparer.Ordinal);
    private int acknowledged;

    public int Killed { get; private set; }

    /// <summary>Goes on for as long as wanted.</summary>
    /// <exception cref="InvalidOperationException">Something that was acknowledged is lost, or the file is not whole.</exception>
    public async Task RunAsync(Func<int, bool> goOn)
    {
        while (goOn(Killed))
        {
            using (var host = await RunningHost.StartAsync(data))
            {
                await AllIsThereAsync(host.Asker);
                var stop = false;
                var writers = Enumerable.Range(0, Writers).Select(i => WriteAsync(host.Asker, i, () => Volatile.Read(ref stop))).ToList();
                await Task.Delay(chance.Next(20, 1_500));
                host.Kill();
                Volatile.Write(ref stop, true);
                await Task.WhenAll(writers);
            }

            Killed++;
            MustBe("ok", "integrity_check");
            MustBe(null, "foreign_key_check");
        }

        using var last = await RunningHost.StartAsync(data);
        await AllIsThereAsync(last.Asker);
    }

    public override string ToString() => $"{Killed} kills, {acknowledged} writes acknowledged, none lost, the file whole each time";

    private async Task WriteAsync(Asker house, int writer, Func<bool> isOver)
    {
        var own = "";
        for (var i = 0; !isOver(); i++)
        {
            var line = string.Create(CultureInfo.InvariantCulture, $"{writer + 1} g salt, {Killed}-{i}");
            try
            {
                var answer = own.Length == 0 || i % 20 == 0
                    ? await house.PostAsync("/api/recipes", new { name = $"Of {writer}", lines = new[] { line }, portions = 1 })
                    : await house.MustAsync(HttpMethod.Put, $"/api/recipes/{own}",
                        new { name = $"Of {writer}", lines = new[] { line }, portions = 1 }, written[own].Version);
                own = (string)answer["id"]!;
                written[own] = ((int)answer["version"]!, line);
                Interlocked.Increment(ref acknowledged);
            }
            catch (Exception error) when (error is HttpRequestException or TaskCanceledException or IOException)
            {
                // Cut off: it may be there or not. A recipe of which that is not known is written no more.
                return;
            }
        }
    }

    private async Task AllIsThereAsync(Asker house)
    {
        foreach (var (id, (version, line)) in written)
        {
            var (status, now) = await house.SendAsync(HttpMethod.Get, $"/api/recipes/{id}");
            var isThere = status == 200 && (int)now["version"]! >= version
                && ((int)now["version"]! > version || (string?)now["lines"]![0] == line);
            if (!isThere) throw new InvalidOperationException($"After {Killed} kills “{line}” (version {version}) is lost: {now}");
        }

        // What was looked at once need not be looked at each time.
        if (written.Count > 2_000) written.Clear();
    }

    private void MustBe(string? said, string pragma)
    {
        using var file = new SqliteConnection($"Data Source={data};Pooling=False");
        file.Open();
        using var command = file.CreateCommand();
        command.CommandText = $"SELECT * FROM pragma_{pragma}";
        var found = command.ExecuteScalar()?.ToString();
        if (found != said) throw new InvalidOperationException($"After {Killed} kills {pragma} says {found}: {data}");
    }
}
