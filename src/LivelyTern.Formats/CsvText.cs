using System.Globalization;
using System.Text;

namespace LivelyTern.Formats;

/// <summary>A table as CSV (RFC 4180).</summary>
public static class CsvText
{
    /// <summary>Writes it: a line of headers, then a line a row.</summary>
    /// <param name="header">The names of the columns.</param>
    /// <param name="rows">The rows, each with a field for each column; null for nothing.</param>
    public static string Write(IReadOnlyList<string> header, IEnumerable<IReadOnlyList<string?>> rows)
    {
        ArgumentNullException.ThrowIfNull(header);
        ArgumentNullException.ThrowIfNull(rows);
        var text = new StringBuilder().AppendJoin(',', header.Select(Field)).Append("\r\n");
        foreach (var row in rows) text.AppendJoin(',', row.Select(Field)).Append("\r\n");
        return text.ToString();
    }

    // What begins like a formula is written as text: a spreadsheet would work it out.
    private static string Field(string? value)
    {
        if (string.IsNullOrEmpty(value)) return "";
        var said = value[0] is '=' or '+' or '-' or '@' or '\t' && !decimal.TryParse(value, CultureInfo.InvariantCulture, out _)
            ? "'" + value
            : value;
        return said.AsSpan().ContainsAny(",\"\r\n") ? $"\"{said.Replace("\"", "\"\"", StringComparison.Ordinal)}\"" : said;
    }
}
