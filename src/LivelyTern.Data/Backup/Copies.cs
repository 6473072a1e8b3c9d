using System.Globalization;
using LivelyTern.Core.Measures;
using LivelyTern.Data.Disk;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Backup;

/// <summary>Why a copy was made.</summary>
public enum CopyKind
{
    /// <summary>A day's own.</summary>
    Daily,

    /// <summary>Before another backup was put in its place.</summary>
    BeforeRestore,

    /// <summary>Before a newer program changed the shape of the file.</summary>
    BeforeUpgrade,
}

/// <summary>A copy of the household's file.</summary>
/// <param name="Name">Its file's name.</param>
/// <param name="Kind">Why it was made.</param>
/// <param name="MadeAt">When.</param>
/// <param name="Bytes">How large it is.</param>
public sealed record Copy(string Name, CopyKind Kind, DateTimeOffset MadeAt, long Bytes);

/// <summary>
/// Copies of the household's file, in a folder beside it (<c>tern.copies/</c>): one a day, and one before anything is put back. Each is
/// made by SQLite's own online backup, looked through, and only then given its name; seven of each kind are kept.
/// </summary>
public sealed class Copies(TernDb db, TimeProvider clock)
{
    /// <summary>How many of each kind are kept.</summary>
    public const int Kept = 7;

    private const string Day = "yyyy-MM-dd", Before = "'before-restore-'yyyy-MM-dd'T'HHmmss";

    /// <summary>Whether it is the disk that says no, or the file on it.</summary>
    public static bool IsOfTheDisk(Exception error) => error is IOException or UnauthorizedAccessException or SqliteException;

    private string Own => db.PathOf();

    private string Folder => FolderOf(Own);

    /// <summary>Where a file's copies lie.</summary>
    internal static string FolderOf(string path) => Path.ChangeExtension(path, ".copies");

    /// <summary>The copies there are, the newest first.</summary>
    public IReadOnlyList<Copy> List()
    {
        var beside = Path.GetDirectoryName(Path.GetFullPath(Own))!;
        var upgrades = Directory.EnumerateFiles(beside, Path.GetFileNameWithoutExtension(Own) + ".before-*.db")
            .Select(path => CopyAt(path, CopyKind.BeforeUpgrade));
        var own = Directory.Exists(Folder) ? Directory.EnumerateFiles(Folder, "*.db") : [];
        return [.. own.Select(path => CopyAt(path, IsDaily(path) ? CopyKind.Daily : CopyKind.BeforeRestore)).Concat(upgrades)
            .OrderByDescending(copy => copy.MadeAt).ThenByDescending(copy => copy.Name, StringComparer.Ordinal)];
    }

    /// <summary>Where a copy lies; null where there is none of that name.</summary>
    public string? Find(string name) => List().FirstOrDefault(copy => string.Equals(copy.Name, name, StringComparison.Ordinal)) switch
    {
        null => null,
        { Kind: CopyKind.BeforeUpgrade } copy => Path.Combine(Path.GetDirectoryName(Path.GetFullPath(Own))!, copy.Name),
        var copy => Path.Combine(Folder, copy.Name),
    };

    /// <summary>Whether today's copy is there.</summary>
    public bool HasToday => File.Exists(PathOf(Day));

    /// <summary>Makes today's copy; the one there was of today gives way once this one is whole.</summary>
    /// <exception cref="IOException">There is no room for it, or its folder can't be written.</exception>
    /// <exception cref="SqliteException">The file can't be read.</exception>
    public Task<Copy> MakeTodaysAsync() => MakeAsync(PathOf(Day), CopyKind.Daily);

    /// <summary>Makes a copy before what is here is replaced.</summary>
    /// <inheritdoc cref="MakeTodaysAsync" path="/exception"/>
    public Task<Copy> MakeBeforeRestoreAsync()
    {
        // Two within one second are two.
        var path = PathOf(Before);
        for (var i = 2; File.Exists(path); i++)
            path = Path.ChangeExtension(PathOf(Before), string.Create(CultureInfo.InvariantCulture, $"{i}.db"));
        return MakeAsync(path, CopyKind.BeforeRestore);
    }

    /// <summary>Deletes all of them.</summary>
    /// <inheritdoc cref="MakeTodaysAsync" path="/exception"/>
    public void DeleteAll()
    {
        foreach (var copy in List()) File.Delete(Find(copy.Name)!);
    }

    /// <summary>Writes the file as it stands to another place, whole.</summary>
    /// <param name="path">Where to; an older file there gives way.</param>
    public async Task WriteToAsync(string path)
    {
        // What lies there now may be another file: that is not copied over what this one was.
        HeldFile.MustBeThere(Own);
        var part = path + ".part";
        File.Delete(part);
        try
        {
            await using (var own = new SqliteConnection(TernFile.Unpooled(Own)))
            await using (var copy = new SqliteConnection(TernFile.Unpooled(part, isNew: true)))
            {
                await own.OpenAsync();
                await copy.OpenAsync();
                own.BackupDatabase(copy);

                // One file by itself, without a log beside it.
                await ExecuteAsync(copy, "PRAGMA journal_mode = DELETE");
                var damage = await ExecuteAsync(copy, "PRAGMA quick_check(1)");
                if (!string.Equals(damage, "ok", StringComparison.Ordinal)) throw new FileTroubleException(FileTrouble.OfDamage);
            }

            File.Move(part, path, overwrite: true);
        }
        catch
        {
            File.Delete(part);
            throw;
        }
    }

    private async Task<Copy> MakeAsync(string path, CopyKind kind)
    {
        Directory.CreateDirectory(Folder);
        await WriteToAsync(path);
        var made = CopyAt(path, kind);

        // By a clock that was set back the newest is not the last in line.
        bool IsOlder(Copy copy) => copy.Kind == kind && !string.Equals(copy.Name, made.Name, StringComparison.Ordinal);
        foreach (var old in List().Where(IsOlder).Skip(Kept - 1)) File.Delete(Path.Combine(Folder, old.Name));
        return made;
    }

    private string PathOf(string pattern) =>
        Path.Combine(Folder, clock.GetLocalNow().ToString(pattern, CultureInfo.InvariantCulture) + ".db");

    private static bool IsDaily(string path) => DateOnly.TryParseExact(
        Path.GetFileNameWithoutExtension(path), Day, CultureInfo.InvariantCulture, DateTimeStyles.None, out _);

    // By its name where that says it: the household's clock may be another one than the disk's.
    private Copy CopyAt(string path, CopyKind kind)
    {
        var name = Path.GetFileName(path).Split('.')[0];
        var file = new FileInfo(path);
        var isNamed = DateTime.TryParseExact(
            name, [Day, Before], CultureInfo.InvariantCulture, DateTimeStyles.None, out var local);
        var at = isNamed
            ? new DateTimeOffset(local, clock.LocalTimeZone.GetUtcOffset(local))
            : new DateTimeOffset(file.LastWriteTimeUtc, TimeSpan.Zero);
        return new(file.Name, kind, at, file.Length);
    }

    private static async Task<string?> ExecuteAsync(SqliteConnection connection, string sql)
    {
        await using var command = connection.CreateCommand();
        command.CommandText = sql;
        return await command.ExecuteScalarAsync() as string;
    }
}
