using Microsoft.Data.Sqlite;

namespace LivelyTern.Data.Backup;

/// <summary>What a column holds, by how it is declared.</summary>
internal enum Holds
{
    /// <summary>Whole numbers; instants (as UTC ticks) and flags among them.</summary>
    Whole,

    /// <summary>Numbers.</summary>
    Real,

    /// <summary>Text; days, ids, decimals and JSON among it.</summary>
    Text,
}

/// <summary>A column of a table as it stands in a file.</summary>
internal sealed record KeptColumn(string Name, Holds Holds)
{
    public string InBackup { get; } = KeptTable.Camel(Name);
}

/// <summary>
/// A table of a household's file whose rows make up what is kept: all but what is made out of them (the index of names) and the list of
/// migrations, which the shape of a backup stands for.
/// </summary>
internal sealed record KeptTable(string Name, IReadOnlyList<KeptColumn> Columns)
{
    /// <summary>How far SQLite has counted its own ids.</summary>
    public const string Sequence = "sqlite_sequence";

    private const string Names =
        "SELECT name FROM pragma_table_list WHERE schema = 'main' AND type = 'table' AND name NOT LIKE '\\_\\_EF%' ESCAPE '\\' "
        + "AND name <> 'sqlite_schema' ORDER BY name";

    /// <summary>Its name in a backup.</summary>
    public string InBackup { get; } = Camel(Name);

    /// <summary>Its columns, quoted.</summary>
    public string ColumnList => string.Join(", ", Columns.Select(column => Quoted(column.Name)));

    /// <summary>A name within SQL.</summary>
    public static string Quoted(string name) => $"\"{name}\"";

    /// <summary>The tables of a file.</summary>
    public static IReadOnlyList<KeptTable> AllOf(SqliteConnection file)
    {
        var names = new List<string>();
        using (var command = file.CreateCommand())
        {
            command.CommandText = Names;
            using var rows = command.ExecuteReader();
            while (rows.Read()) names.Add(rows.GetString(0));
        }

        return names.ConvertAll(name => new KeptTable(name, ColumnsOf(file, name)));
    }

    internal static string Camel(string name) => char.ToLowerInvariant(name[0]) + name[1..];

    private static List<KeptColumn> ColumnsOf(SqliteConnection file, string table)
    {
        using var command = file.CreateCommand();
        command.CommandText = "SELECT name, type FROM pragma_table_info($table)";
        command.Parameters.AddWithValue("$table", table);
        using var rows = command.ExecuteReader();
        var columns = new List<KeptColumn>();
        while (rows.Read()) columns.Add(new(rows.GetString(0), HoldsOf(table, rows.GetString(0), rows.GetString(1))));
        return columns;
    }

    private static Holds HoldsOf(string table, string column, string declared) => declared switch
    {
        "INTEGER" => Holds.Whole,
        "REAL" => Holds.Real,
        "TEXT" => Holds.Text,

        // Of SQLite's own making, and declared as nothing.
        "" when string.Equals(table, Sequence, StringComparison.Ordinal) =>
            string.Equals(column, "seq", StringComparison.Ordinal) ? Holds.Whole : Holds.Text,
        _ => throw new InvalidDataException($"{table}.{column} is declared as {declared}."),
    };
}
