using System.Data.Common;
using System.Diagnostics;
using System.Text;
using System.Text.Json.Nodes;
using LivelyTern.Data;
using LivelyTern.Data.Disk;
using LivelyTern.HostPool;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Diagnostics;
using Microsoft.Extensions.DependencyInjection;

namespace LivelyTern.Web.Tests;

/// <summary>
/// What can happen to the household's file: it says so in one sentence with what to do, nothing is acknowledged that is not written, and
/// what can be put right goes on without a new start. Codes as in https://www.sqlite.org/rescode.html, statuses as in RFC 9110 and 4918.
/// </summary>
public sealed class FileTests
{
    private static readonly object Bake = new { name = "Bake", lines = new[] { "400 g rolled oats" }, portions = 4 };

    private static async Task SaysAsync(Host host, int status, string code, string word)
    {
        var (got, answer) = await host.SendAsync(HttpMethod.Post, "/api/recipes", Bake);
        Assert.Equal((status, "urn:lively-tern:problem:" + code), (got, (string?)answer["type"]));
        Assert.Contains(word, (string)answer["detail"]!, StringComparison.Ordinal);
        var (health, said) = await host.SendAsync(HttpMethod.Get, "/health");
        Assert.Equal((status, (string?)answer["detail"]), (health, (string?)said["detail"]));
    }

    private static async Task IsWellAsync(Host host, int recipes)
    {
        Assert.Equal("ok", (string?)(await host.GetAsync("/health"))["status"]);
        await host.PostAsync("/api/recipes", Bake);
        Assert.Equal(recipes, (await host.GetAsync("/api/recipes")).AsArray().Count);
    }

    [Theory]
    [InlineData("deleted")]
    [InlineData("moved")]
    [InlineData("replaced")]
    public async Task A_file_that_is_not_where_it_was_is_noticed_at_the_next_write(string what)
    {
        using var host = new Host();
        await host.PostAsync("/api/recipes", Bake);
        var aside = host.Data + ".aside";
        await host.PostAsync("/api/backup/copies", null);
        var copy = Directory.GetFiles(Path.ChangeExtension(host.Data, ".copies")).Single();
        var copied = await File.ReadAllBytesAsync(copy);
        if (what == "deleted") File.Delete(host.Data);
        else File.Move(host.Data, aside);
        if (what == "replaced") File.Copy(aside, host.Data);
        await SaysAsync(host, 503, "file-gone", "put the file or a copy of it in its place");

        // Nor is what is not the household's any more copied over the day's copy.
        Assert.NotEqual(200, (await host.SendAsync(HttpMethod.Post, "/api/backup/copies")).Status);
        Assert.Equal(copied, await File.ReadAllBytesAsync(copy));
        if (what == "deleted") Assert.False(File.Exists(host.Data));
        if (what != "moved") return;
        Assert.Contains(aside, (string)(await host.SendAsync(HttpMethod.Get, "/health")).Body["detail"]!, StringComparison.Ordinal);

        // Moved back, it goes on.
        File.Move(aside, host.Data);
        await IsWellAsync(host, 2);
    }

    [Fact]
    public async Task A_full_disk_saves_nothing_and_once_there_is_room_it_goes_on()
    {
        using var disk = new SmallDisk();
        using var host = disk.Open();
        var saved = 0;
        async Task<int> WriteAsync()
        {
            var lines = Enumerable.Range(0, 200).Select(i => $"{i + 1} g rolled oats, {new string((char)('a' + (i % 26)), 250)}");
            var (status, answer) = await host.SendAsync(HttpMethod.Post, "/api/recipes", new { name = "Large", lines, portions = 4 });
            if (status == 200) saved++;
            else Assert.Equal("urn:lively-tern:problem:disk-full", (string?)answer["type"]);
            return status;
        }

        Assert.Equal(200, await WriteAsync());
        disk.Fill();
        for (var tries = 0; tries < 300 && await WriteAsync() == 200; tries++) { }
        Assert.Equal(507, await WriteAsync());
        var (health, said) = await host.SendAsync(HttpMethod.Get, "/health");
        Assert.Equal((507, true), (health, ((string)said["detail"]!).Contains("Make room", StringComparison.Ordinal)));
        foreach (var path in new[] { "/api/overview", "/api/plan/weeks/2026-11-25", "/api/recipes" }) await host.GetAsync(path);
        Assert.Equal(saved, (await host.GetAsync("/api/recipes")).AsArray().Count);
        disk.MakeRoom();
        await IsWellAsync(host, saved + 1);
        Assert.Equal(["ok"], await OldFile.AskAsync(host.Data, "PRAGMA integrity_check"));
    }

    [Fact]
    public async Task A_full_disk_and_a_folder_that_went_are_said_to_a_copy_a_backup_and_a_table_of_foods_too()
    {
        using var disk = new SmallDisk();
        using var host = disk.Open();
        var backup = await Backups.JsonOfAsync(host);
        var table = Encoding.UTF8.GetBytes("name,kcal\n" + string.Join('\n', Enumerable.Range(0, 200_000).Select(i => $"Food {i},{i % 900}")));

        // What is taken in lies in a folder that somebody may clear away.
        Assert.Equal(200, (await Backups.LookAsync(host, backup)).Status);
        Directory.Delete(Path.ChangeExtension(host.Data, ".work"), recursive: true);
        Assert.Equal(200, (await Backups.LookAsync(host, backup)).Status);
        if (!disk.IsMounted) return;
        disk.Fill();
        var (status, answer) = await host.SendAsync(HttpMethod.Post, "/api/backup/copies");
        Assert.Equal((422, "urn:lively-tern:problem:copy-failed"), (status, (string?)answer["type"]));
        Assert.Equal("Today's copy could not be made. The disk is full. Make room on it.", (string?)answer["detail"]);
        (status, answer) = await Backups.LookAsync(host, backup);
        Assert.Equal("It could not be read here. The disk is full. Make room on it. Nothing was changed.", (string?)answer["detail"]);
        using var content = new ByteArrayContent(table);
        content.Headers.ContentType = new("application/octet-stream");
        using var refused = await host.Http.PostAsync("/api/imports?name=foods.csv", content);
        Assert.Equal(507, (int)refused.StatusCode);
        disk.MakeRoom();
        Assert.Equal(200, (await host.SendAsync(HttpMethod.Post, "/api/backup/copies")).Status);
    }

    /// <summary>
    /// A disk of a few MB in memory, where the system lets the test have one; else a limit of the file's pages, which SQLite tells by the
    /// same code.
    /// </summary>
    private sealed class SmallDisk : IDisposable
    {
        private readonly string folder = Directory.CreateTempSubdirectory("tern-disk-").FullName;
        private readonly PageLimit limit = new();

        public bool IsMounted { get; }

        public SmallDisk() => IsMounted = Run("mount", "-t", "tmpfs", "-o", "size=24m", "tmpfs", folder);

        public Host Open()
        {
            using (var made = new Host()) OldFile.AskAsync(made.Data, $"VACUUM INTO '{Path.Combine(folder, "tern.db")}'").GetAwaiter().GetResult();
            return new Host(Path.Combine(folder, "tern.db"), services: IsMounted ? null : services =>
                services.ConfigureDbContext<TernDb>(db => db.AddInterceptors(limit)));
        }

        public void Fill()
        {
            limit.IsFull = true;
            if (!IsMounted) return;
            using var filler = File.Create(Path.Combine(folder, "filler"));
            try
            {
                while (true) filler.Write(new byte[4096]);
            }
            catch (IOException)
            {
                // Full.
            }
        }

        public void MakeRoom()
        {
            limit.IsFull = false;
            File.Delete(Path.Combine(folder, "filler"));
        }

        public void Dispose()
        {
            if (IsMounted) Run("umount", "-l", folder);
        }

        private static bool Run(string program, params string[] args)
        {
            try
            {
                using var process = Process.Start(new ProcessStartInfo(program, args) { RedirectStandardError = true, UseShellExecute = false })!;
                process.WaitForExit();
                return process.ExitCode == 0;
            }
            catch (System.ComponentModel.Win32Exception)
            {
                return false;
            }
        }
    }

    // https://www.sqlite.org/pragma.html#pragma_max_page_count: never below what there is.
    private sealed class PageLimit : DbConnectionInterceptor
    {
        public bool IsFull { get; set; }

        public override async Task ConnectionOpenedAsync(
            DbConnection connection, ConnectionEndEventData eventData, CancellationToken cancellationToken = default)
        {
            await using var command = connection.CreateCommand();
            command.CommandText = $"PRAGMA max_page_count = {(IsFull ? 1 : int.MaxValue)}";
            await command.ExecuteNonQueryAsync(cancellationToken);
        }
    }

    [Fact]
    public async Task A_file_that_another_program_holds_says_so_and_goes_on_afterwards()
    {
        using var host = new Host();
        await using (var other = new SqliteConnection($"Data Source={host.Data};Pooling=False"))
        {
            await other.OpenAsync();
            await using var held = other.BeginTransaction(deferred: false);
            await SaysAsync(host, 503, "file-locked", "Close that program");
        }

        await IsWellAsync(host, 1);
    }

    [Fact]
    public async Task Damaged_pages_say_so()
    {
        using var host = new Host();
        await host.PostAsync("/api/recipes", Bake);
        await OldFile.AskAsync(host.Data, "PRAGMA wal_checkpoint(TRUNCATE)");
        SqliteConnection.ClearAllPools();
        await DamageAsync(host.Data);
        var answers = new List<(int Status, JsonNode Body)>();
        foreach (var path in new[] { "/api/recipes", "/api/foods", "/api/pack/batches", "/api/plan/weeks/2026-11-25" })
            answers.Add(await host.SendAsync(HttpMethod.Get, path));
        Assert.Contains(answers, answer => answer.Status == 503);
        Assert.All(answers.Where(answer => answer.Status != 200), answer =>
            Assert.Equal((503, "urn:lively-tern:problem:file-damaged"), (answer.Status, (string?)answer.Body["type"])));
    }

    // All pages but the first two, as a failing disk leaves them.
    private static async Task DamageAsync(string path)
    {
        await using var file = File.Open(path, FileMode.Open, FileAccess.ReadWrite, FileShare.ReadWrite | FileShare.Delete);
        file.Position = 8192;
        var noise = new byte[4096];
        new Random(1).NextBytes(noise);
        while (file.Position < file.Length) await file.WriteAsync(noise);
    }

    private static async Task<string> NewFileAsync()
    {
        using var host = new Host();
        await host.PostAsync("/api/recipes", Bake);
        var copy = Path.Combine(Directory.CreateTempSubdirectory("tern-file-").FullName, "tern.db");
        await OldFile.AskAsync(host.Data, $"VACUUM INTO '{copy}'");
        return copy;
    }

    /// <summary>The built program as a process of its own, as far as it gets.</summary>
    private static async Task<(int Code, string Said)> StartAsync(string data, params string[] more)
    {
        var port = RealHost.FreePort().ToString(System.Globalization.CultureInfo.InvariantCulture);
        var start = new ProcessStartInfo("dotnet", [typeof(KitchenHost).Assembly.Location, "--data", data, "--port", port, .. more])
        {
            RedirectStandardError = true,
            RedirectStandardOutput = true,
            UseShellExecute = false,
        };
        using var process = Process.Start(start)!;
        var (said, printed) = (process.StandardError.ReadToEndAsync(), process.StandardOutput.ReadToEndAsync());
        await process.WaitForExitAsync();
        await printed;
        return (process.ExitCode, await said);
    }

    [Fact]
    public async Task A_damaged_file_is_refused_at_the_start_and_its_last_copy_offered_and_put_back()
    {
        var path = await NewFileAsync();
        var copies = Directory.CreateDirectory(Path.ChangeExtension(path, ".copies")).FullName;
        File.Copy(path, Path.Combine(copies, "2026-11-24.db"));
        await DamageAsync(path);
        var damaged = await File.ReadAllBytesAsync(path);
        var (code, said) = await StartAsync(path);
        Assert.Equal(1, code);
        Assert.Contains("is damaged", said, StringComparison.Ordinal);
        Assert.Contains("2026-11-24.db: start with --last-copy", said, StringComparison.Ordinal);
        Assert.DoesNotContain("   at ", said, StringComparison.Ordinal);
        Assert.Equal(damaged, await File.ReadAllBytesAsync(path));

        Assert.NotNull(await StartCheck.PutLastCopyBackAsync(path, DateTimeOffset.UnixEpoch));
        Assert.Equal(damaged, await File.ReadAllBytesAsync(Path.ChangeExtension(path, ".damaged-19700101000000.db")));
        using var host = new Host(path);
        Assert.Single((await host.GetAsync("/api/recipes")).AsArray());
        Assert.Null(await StartCheck.PutLastCopyBackAsync(path, DateTimeOffset.UnixEpoch));
    }

    [Fact]
    public async Task A_file_of_a_newer_program_or_of_another_is_refused_and_left_as_it_is()
    {
        var newer = await NewFileAsync();
        await OldFile.WriteAsync(newer, "INSERT INTO __EFMigrationsHistory VALUES ('29990101000000_Later', '99.0.0')");
        var other = Path.Combine(Path.GetDirectoryName(newer)!, "other.db");
        await OldFile.WriteAsync(other, "CREATE TABLE Notes (Text TEXT)");
        foreach (var (path, word) in new[] { (newer, "a newer Lively Tern"), (other, "is no household's file") })
        {
            var before = await File.ReadAllBytesAsync(path);
            var (code, said) = await StartAsync(path);
            Assert.Equal(1, code);
            Assert.Contains(word, said, StringComparison.Ordinal);
            Assert.DoesNotContain("   at ", said, StringComparison.Ordinal);
            Assert.Equal(before, await File.ReadAllBytesAsync(path));
            Assert.Empty(Directory.GetFiles(Path.GetDirectoryName(path)!, "*.before-*"));
        }
    }

    [Fact]
    public async Task A_second_host_on_one_file_is_refused_with_the_address_of_the_first()
    {
        using var host = new Host();
        var (code, said) = await StartAsync(host.Data);
        Assert.Equal(1, code);
        Assert.Contains($"runs already at {host.Http.BaseAddress!.GetLeftPart(UriPartial.Authority)}", said, StringComparison.Ordinal);
        await IsWellAsync(host, 1);
    }

    [Fact]
    public async Task A_host_that_ended_with_the_power_keeps_no_other_from_its_file()
    {
        var path = await NewFileAsync();
        await File.WriteAllTextAsync(path + ".lock", "http://127.0.0.1:5080\n");
        using (var host = new Host(path)) await IsWellAsync(host, 2);
        Assert.False(File.Exists(path + ".lock"));
    }

    [Fact]
    public async Task A_folder_that_can_not_be_made_gives_a_sentence()
    {
        var file = Path.Combine(Directory.CreateTempSubdirectory("tern-file-").FullName, "a-file");
        await File.WriteAllTextAsync(file, "");
        var (code, said) = await StartAsync(Path.Combine(file, "tern.db"));
        Assert.Equal(1, code);
        Assert.Contains("can't be written", said, StringComparison.Ordinal);
        Assert.DoesNotContain("   at ", said, StringComparison.Ordinal);
    }
}
