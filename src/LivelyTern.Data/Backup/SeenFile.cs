using LivelyTern.Data.Disk;
using Microsoft.Data.Sqlite;

namespace LivelyTern.Data.Backup;

/// <summary>
/// The household's file as it was when somebody looked at it: knows whether anything was written since, by whatever hand. SQLite says so
/// itself (<c>PRAGMA data_version</c>); now and then it says so where only its own log was tidied up, and never the other way round.
/// </summary>
public sealed class SeenFile : IDisposable
{
    private readonly SqliteConnection file;
    private readonly long version;

    /// <summary>As it is now.</summary>
    public SeenFile(TernDb db)
    {
        ArgumentNullException.ThrowIfNull(db);
        file = new(TernFile.Unpooled(db.PathOf()));
        file.Open();
        version = Version();
    }

    /// <summary>Whether nothing was written since.</summary>
    public bool IsAsSeen => Version() == version;

    /// <inheritdoc/>
    public void Dispose() => file.Dispose();

    private long Version()
    {
        using var command = file.CreateCommand();
        command.CommandText = "PRAGMA data_version";
        return (long)command.ExecuteScalar()!;
    }
}
