using System.Globalization;
using LivelyTern.Data.Backup;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Disk;

/// <summary>What is looked at before a file is opened: that it is a household's, of no newer program than this one, and whole.</summary>
public static class StartCheck
{
    // What another program may have left; quick_check looks through every page, https://www.sqlite.org/pragma.html#pragma_quick_check.
    private const string Whole = "ok", History = "__EFMigrationsHistory";
    private const int Corrupt = 11, NoDatabase = 26;

    /// <summary>Up to how large a file is looked through, page by page, before the program starts; a larger one beside its work.</summary>
    public const long Large = 64_000_000;

    /// <summary>Looks at a file, and changes nothing of it.</summary>
    /// <param name="path">The file; one that is not there or is empty is well.</param>
    /// <param name="known">The migrations this program knows.</param>
    /// <param name="isThorough">Whether every page of it is looked through.</param>
    /// <returns>What is wrong with it; null where it is well.</returns>
    /// <exception cref="SqliteException">It can't be read now.</exception>
    public static async Task<FileTrouble?> LookAsync(string path, IEnumerable<string> known, bool isThorough = true)
    {
        if (!File.Exists(path) || new FileInfo(path).Length == 0) return null;
        try
        {
            await using var file = new SqliteConnection(new SqliteConnectionStringBuilder
            {
                DataSource = path,
                Mode = SqliteOpenMode.ReadOnly,
                Pooling = false,
                DefaultTimeout = 10,
            }.ToString());
            await file.OpenAsync();
            var tables = await ReadAsync(file, "SELECT name FROM sqlite_master WHERE type = 'table'");
            if (tables.Count > 0 && !tables.Contains(History, StringComparer.Ordinal)) return OfAnother(path);
            var applied = tables.Count == 0 ? [] : await ReadAsync(file, $"SELECT MigrationId FROM {History}");
            var newer = applied.Except(known, StringComparer.Ordinal).ToList();
            if (newer.Count > 0) return NewerProgram(path, newer[^1]);
            if (!isThorough) return null;
            var found = await ReadAsync(file, "PRAGMA quick_check(1)");
            return string.Equals(found[0], Whole, StringComparison.Ordinal) ? null : Damaged(path, found[0]);
        }
        catch (SqliteException error) when (error.SqliteErrorCode is Corrupt or NoDatabase)
        {
            // What is no database may have been one, where there are copies of it.
            return error.SqliteErrorCode == NoDatabase && NewestOf(path) is null ? OfAnother(path) : Damaged(path, error.Message);
        }
    }

    /// <summary>
    /// Lays a damaged file aside (<c>tern.damaged-….db</c>, with what lies beside it) and puts the last whole copy in its place. A file
    /// that is whole stays where it is.
    /// </summary>
    /// <param name="path">The file.</param>
    /// <param name="now">The moment, for the name of what is laid aside.</param>
    /// <returns>What was done, in a sentence; null where the file is whole.</returns>
    /// <exception cref="FileTroubleException">There is no copy that is whole.</exception>
    public static async Task<string?> PutLastCopyBackAsync(string path, DateTimeOffset now)
    {
        var isThere = File.Exists(path) && new FileInfo(path).Length > 0;
        if (isThere && await LookAsync(path, KnownMigrations()) is not { Code: "file-damaged" }) return null;
        var copy = await LastCopyAsync(path) ?? throw new FileTroubleException(new(
            "copy-none", FileTrouble.Unavailable, $"There is no whole copy of {path} to put in its place."));
        var aside = string.Create(CultureInfo.InvariantCulture, $"{Path.ChangeExtension(path, null)}.damaged-{now:yyyyMMddHHmmss}.db");
        foreach (var end in new[] { "", "-wal", "-shm" })
        {
            if (File.Exists(path + end)) File.Move(path + end, aside + end);
        }

        var part = path + ".part";
        File.Copy(copy, part, overwrite: true);
        File.Move(part, path);
        return $"{path} is the copy {Path.GetFileName(copy)} now" + (isThere ? $"; the damaged file was laid aside as {aside}." : ".");
    }

    /// <summary>The migrations this program knows.</summary>
    public static IReadOnlyList<string> KnownMigrations()
    {
        using var db = new TernDb(new DbContextOptionsBuilder<TernDb>().UseSqlite("Data Source=:memory:").Options);
        return [.. db.Database.GetMigrations()];
    }

    private static FileTrouble NewerProgram(string path, string migration) => new(
        "file-newer", FileTrouble.Unavailable,
        $"{path} was written by a newer Lively Tern (it has {migration}, which this one does not know). It was left as it is: start the "
        + "newer program, or name another file with --data.");

    private static FileTrouble OfAnother(string path) => new(
        "file-of-another", FileTrouble.Unavailable, $"{path} can't be opened: it is no household's file. It was left as it is.");

    private static FileInfo? NewestOf(string path) => Directory.Exists(Copies.FolderOf(path))
        ? new DirectoryInfo(Copies.FolderOf(path)).EnumerateFiles("*.db").MaxBy(copy => copy.LastWriteTimeUtc)
        : null;

    private static FileTrouble Damaged(string path, string found)
    {
        var last = NewestOf(path);
        var offer = last is null
            ? "There is no copy of it."
            : $"Its last copy is {last.FullName}: start with --last-copy to lay the damaged file aside and put that in its place.";
        return new("file-damaged", FileTrouble.Unavailable, $"{path} is damaged ({found.Trim()}). {offer}");
    }

    // The newest copy that is whole; one from before an upgrade is older than the day's.
    private static async Task<string?> LastCopyAsync(string path)
    {
        var folder = Copies.FolderOf(path);
        if (!Directory.Exists(folder)) return null;
        foreach (var copy in new DirectoryInfo(folder).EnumerateFiles("*.db").OrderByDescending(copy => copy.LastWriteTimeUtc))
        {
            if (await LookAsync(copy.FullName, KnownMigrations()) is null) return copy.FullName;
        }

        return null;
    }

    private static async Task<List<string>> ReadAsync(SqliteConnection file, string sql)
    {
        await using var command = file.CreateCommand();
        command.CommandText = sql;
        await using var reader = await command.ExecuteReaderAsync();
        List<string> rows = [];
        while (await reader.ReadAsync()) rows.Add(reader.GetString(0));
        return rows;
    }
}
