using System.Globalization;

namespace LivelyTern.Formats.Shop;

/// <summary>A list as CSV: a line for each thing, grams as plain numbers.</summary>
public static class ShoppingCsv
{
    private static readonly string[] Header = ["aisle", "name", "amount", "grams", "cost", "note", "ticked"];

    /// <summary>Writes it.</summary>
    public static string Write(ShoppingSheet sheet)
    {
        ArgumentNullException.ThrowIfNull(sheet);
        return CsvText.Write(Header, sheet.Aisles.SelectMany(aisle => aisle.Lines.Select(line => (string?[])
        [
            aisle.Name, line.Name, line.Amount, line.Grams.ToString("0.###", CultureInfo.InvariantCulture),
            line.Cost?.ToString("0.00", CultureInfo.InvariantCulture), line.Note, line.IsTicked ? "yes" : "no",
        ])));
    }
}
