using System.Text;

namespace LivelyTern.Formats;

/// <summary>Text within Markdown.</summary>
internal static class MarkdownText
{
    /// <summary>Signs that mean something to Markdown or HTML are shown as they were typed.</summary>
    public static string Plain(string text)
    {
        var plain = new StringBuilder(text.Length);
        foreach (var letter in text.ReplaceLineEndings(" "))
        {
            if (letter is '\\' or '`' or '*' or '_' or '<' or '>' or '[' or ']' or '|' or '#') plain.Append('\\');
            plain.Append(letter);
        }

        return plain.ToString();
    }
}
