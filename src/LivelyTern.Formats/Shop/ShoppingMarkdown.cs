using System.Globalization;
using System.Text;

namespace LivelyTern.Formats.Shop;

/// <summary>A list as Markdown: a heading for each aisle, a box to tick for each line.</summary>
public static class ShoppingMarkdown
{
    /// <summary>Writes it.</summary>
    public static string Write(ShoppingSheet sheet)
    {
        ArgumentNullException.ThrowIfNull(sheet);
        var text = new StringBuilder();
        text.Append(CultureInfo.InvariantCulture, $"# {MarkdownText.Plain(sheet.Title)}\n");
        foreach (var aisle in sheet.Aisles)
        {
            text.Append(CultureInfo.InvariantCulture, $"\n## {MarkdownText.Plain(aisle.Name)}\n\n");
            foreach (var line in aisle.Lines)
            {
                var amount = line.Amount.Length > 0 ? $"{MarkdownText.Plain(line.Amount)} " : "";
                var note = line.Note.Length > 0 ? $" ({MarkdownText.Plain(line.Note)})" : "";
                var box = line.IsTicked ? "[x]" : "[ ]";
                text.Append(CultureInfo.InvariantCulture, $"- {box} {amount}{MarkdownText.Plain(line.Name)}{note}\n");
            }
        }

        return text.ToString();
    }
}
