namespace LivelyTern.Data.Backup;

/// <summary>The rows of a backup, whatever kind of file it is.</summary>
internal interface IBackupRows : IDisposable
{
    /// <summary>The last migration of the file it was made from.</summary>
    string Shape { get; }

    /// <summary>Its rows, table by table.</summary>
    /// <param name="tables">The tables of that shape.</param>
    /// <returns>For each row its table, and a value for each of its columns; the array is filled anew for the next one.</returns>
    /// <exception cref="UnfitBackupException">It can't be read to its end, or holds what no file of that shape holds.</exception>
    IEnumerable<(KeptTable Table, object[] Values)> Read(IReadOnlyList<KeptTable> tables);
}
