using System.Buffers;
using AngleSharp.Dom;
using AngleSharp.Html.Parser;

namespace LivelyTern.Formats.Recipes;

/// <summary>A saved page: every block of JSON-LD in it is read; where there is none its text is.</summary>
public static class RecipeHtml
{
    private static readonly SearchValues<char> Letters =
        SearchValues.Create("abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789");

    private static readonly string[] Open =
    [
        "area", "base", "br", "col", "embed", "hr", "img", "input", "link", "meta", "param", "source", "track", "wbr", "li", "p", "dt",
        "dd", "option", "tr", "td", "th",
    ];

    // A page of a recipe nests some dozens deep. What a parser does for each tag grows with how deep it stands.
    private const int Deepest = 400;
    private const string TooDeep = "This page is nested deeper than any that holds a recipe: copy the recipe's text and paste it instead.";

    /// <summary>Reads a page. Nothing is fetched, nothing in it is run.</summary>
    /// <param name="html">The page.</param>
    /// <param name="stop">Ends the reading.</param>
    public static ReadRecipes Read(string html, CancellationToken stop)
    {
        ArgumentNullException.ThrowIfNull(html);
        if (IsTooDeep(html)) return new([], [TooDeep]);
        using var page = new HtmlParser(new HtmlParserOptions { IsScripting = false }).ParseDocument(html);
        bool IsJsonLd(IElement script) =>
            (script.GetAttribute("type") ?? "").Trim().StartsWith("application/ld+json", StringComparison.OrdinalIgnoreCase);
        var blocks = page.QuerySelectorAll("script").Where(IsJsonLd).Select(script => script.TextContent).ToList();
        return blocks.Count > 0
            ? RecipeJsonLd.Read(blocks, stop)
            : new([], ["There is no recipe in this page that a program can read. Copy the recipe's text and paste it instead."]);
    }

    /// <summary>
    /// The text of a fragment: "&lt;b&gt;2&lt;/b&gt; eggs &amp;amp; salt" is "2 eggs &amp; salt". What a script holds is no text.
    /// </summary>
    public static string Plain(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        if (!HasTags(text) || IsTooDeep(text)) return text.Trim();
        using var page = new HtmlParser(new HtmlParserOptions { IsScripting = false }).ParseDocument("<body>" + text);
        foreach (var silent in page.QuerySelectorAll("script, style, template").ToList()) silent.Remove();
        return (page.Body?.TextContent ?? "").Trim();
    }

    /// <summary>Whether anything in a text has to be taken off it or read as a letter.</summary>
    internal static bool HasTags(string text) => text.AsSpan().IndexOfAny('<', '&') >= 0;

    // One look along the text: what opens and does not close is counted, whatever it is, but for what never closes.
    private static bool IsTooDeep(string html)
    {
        var depth = 0;
        for (var at = html.IndexOf('<', StringComparison.Ordinal); at >= 0; at = html.IndexOf('<', at + 1))
        {
            var rest = html.AsSpan(at + 1);
            if (rest.StartsWith("/")) depth = Math.Max(0, depth - 1);
            else if (rest.Length > 0 && char.IsAsciiLetter(rest[0]) && !NeverCloses(rest) && ++depth > Deepest) return true;
        }

        return false;
    }

    // https://html.spec.whatwg.org/multipage/syntax.html#void-elements, and what browsers close by themselves.
    private static bool NeverCloses(ReadOnlySpan<char> tag)
    {
        var end = tag.IndexOfAnyExcept(Letters);
        var name = end < 0 ? tag : tag[..end];
        foreach (var known in Open)
        {
            if (name.Equals(known, StringComparison.OrdinalIgnoreCase)) return true;
        }

        return false;
    }
}
