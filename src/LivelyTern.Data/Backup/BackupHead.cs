namespace LivelyTern.Data.Backup;

/// <summary>How a backup in JSON begins.</summary>
/// <param name="Format">What it is: <see cref="Name"/>.</param>
/// <param name="Version">The version of the format, from 1.</param>
/// <param name="Shape">The last migration of the file it was made from: which tables and columns it has.</param>
/// <param name="MadeAt">When it was made.</param>
internal sealed record BackupHead(string Format, int Version, string Shape, DateTimeOffset MadeAt)
{
    /// <summary>The name of the format.</summary>
    public const string Name = "lively-tern-backup";

    /// <summary>The name of what is one eater's own, in the same form.</summary>
    public const string OfEater = "lively-tern-eater";

    /// <summary>The newest version of the format that this program knows, and the one it writes.</summary>
    public const int Newest = 1;
}
