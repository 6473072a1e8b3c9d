using System.Globalization;
using System.Text;

namespace LivelyTern.Formats.Shop;

/// <summary>A list as CSV (RFC 4180): a line for each thing, grams as plain numbers.</summary>
public static class ShoppingCsv
{
    private const string Header = "aisle,name,amount,grams,cost,note,ticked";

    /// <summary>Writes it.</summary>
    public static string Write(ShoppingSheet sheet)
    {
        ArgumentNullException.ThrowIfNull(sheet);
        var text = new StringBuilder(Header).Append("\r\n");
        foreach (var aisle in sheet.Aisles)
        {
            foreach (var line in aisle.Lines)
            {
                string?[] fields =
                [
                    aisle.Name, line.Name, line.Amount, line.Grams.ToString("0.###", CultureInfo.InvariantCulture),
                    line.Cost?.ToString("0.00", CultureInfo.InvariantCulture), line.Note, line.IsTicked ? "yes" : "no",
                ];
                text.AppendJoin(',', fields.Select(Field)).Append("\r\n");
            }
        }

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
