using LivelyTern.Soak.Files;
using LivelyTern.Soak.Requests;
using Microsoft.Extensions.DependencyInjection;

namespace LivelyTern.Web.Tests;

/// <summary>A small share of <c>./tern soak requests</c>: the same storm at fixed seeds, where time is not asked about.</summary>
public sealed class RequestStormTests
{
    public static TheoryData<int, bool> Chances => new() { { 1, true }, { 2, false } };

    [Theory]
    [MemberData(nameof(Chances))]
    public async Task Whatever_is_asked_is_answered_and_every_screen_goes_on(int seed, bool demo)
    {
        using var host = new Host(demo: demo);
        var document = new ApiDocument(await host.GetAsync("/openapi/v1.json"));
        var storm = new RequestStorm(host, document, new Random(seed), new(2026, 11, 25), patience: null);
        await storm.RunAsync(asked => asked < 600);
        Assert.True(storm.ScreensAsked > 150, storm.ToString());
    }

    [Fact]
    public async Task Every_door_that_takes_something_says_how_much_of_it()
    {
        using var host = new Host();
        var document = new ApiDocument(await host.GetAsync("/openapi/v1.json"));
        var seen = 0;
        void Look(System.Text.Json.Nodes.JsonObject pointed, HashSet<string> within, string where)
        {
            var (schema, _) = document.Resolve(pointed);
            if (!within.Add(schema.GetPath())) return;
            var type = schema["type"]?.ToJsonString() ?? "";
            void Says(string bound) => Assert.True(schema[bound] is not null, $"{where} has no {bound}");
            if (type.Contains("\"number\"", StringComparison.Ordinal)) Says("maximum");
            if (type.Contains("\"string\"", StringComparison.Ordinal) && schema["format"] is null && schema["enum"] is null) Says("maxLength");
            if (type.Contains("\"array\"", StringComparison.Ordinal)) Says("maxItems");
            seen++;
            if (schema["items"] is { } items) Look(items.AsObject(), within, where + "[]");
            if (schema["additionalProperties"] is { } values) Look(values.AsObject(), within, where + "{}");
            foreach (var (name, member) in schema["properties"]?.AsObject() ?? []) Look(member!.AsObject(), within, $"{where}.{name}");
        }

        foreach (var door in document.Doors.Where(door => door.Body is not null)) Look(door.Body!, [], door.ToString());
        Assert.True(seen > 1_000, $"only {seen} places were looked at");
    }
}

/// <summary>A small share of <c>./tern soak files</c>.</summary>
public sealed class FileStormTests
{
    [Theory]
    [InlineData(1)]
    [InlineData(2)]
    public async Task Whatever_file_comes_it_ends_and_nothing_of_it_is_left(int seed)
    {
        using var host = new Host();
        var uploads = Path.Combine(Path.ChangeExtension(host.Data, ".work"), "imports");
        var storm = new FileStorm(host, new Random(seed), new(2026, 11, 25), patience: null);
        await storm.RunAsync(sent => sent < 150);
        Assert.True(storm is { Ready: > 5, Failed: > 5, Taken: > 0 }, storm.ToString());
        var desk = host.Services.GetRequiredService<Foods.ImportDesk>();
        Assert.True(Directory.GetFiles(uploads).Length <= storm.Ready + storm.Failed, "more files than imports");

        // What nobody asked for in a while goes with its file.
        desk.Sweep(new(2026, 11, 26, 12, 0, 0, TimeSpan.Zero));
        Assert.Empty(Directory.GetFiles(uploads));
    }

    [Fact]
    public void What_an_earlier_host_left_is_cleared_at_the_start_and_at_the_end()
    {
        string left;
        using (var host = new Host())
        {
            left = Path.Combine(Path.ChangeExtension(host.Data, ".work"), "imports", "left");
            Directory.CreateDirectory(Path.GetDirectoryName(left)!);
            File.WriteAllText(left, "x");
        }

        Assert.False(File.Exists(left));
        var data = Path.Combine(Path.GetDirectoryName(left)!, "..", "..", "tern.db");
        Directory.CreateDirectory(Path.GetDirectoryName(left)!);
        File.WriteAllText(left, "x");
        using var next = new Host(Path.GetFullPath(data));
        Assert.False(File.Exists(left));
    }
}
