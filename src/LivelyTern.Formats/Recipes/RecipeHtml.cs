using AngleSharp.Dom;
using AngleSharp.Html.Parser;

namespace LivelyTern.Formats.Recipes;

/// <summary>A saved page: every block of JSON-LD in it is read; where there is none its text is.</summary>
public static class RecipeHtml
{
    /// <summary>Reads a page. Nothing is fetched, nothing in it is run.</summary>
    public static ReadRecipes Read(string html)
    {
        using var page = new HtmlParser(new HtmlParserOptions { IsScripting = false }).ParseDocument(html);
        bool IsJsonLd(IElement script) =>
            (script.GetAttribute("type") ?? "").Trim().StartsWith("application/ld+json", StringComparison.OrdinalIgnoreCase);
        var blocks = page.QuerySelectorAll("script").Where(IsJsonLd).Select(script => script.TextContent).ToList();
        return blocks.Count > 0
            ? RecipeJsonLd.Read(blocks)
            : new([], ["There is no recipe in this page that a program can read. Copy the recipe's text and paste it instead."]);
    }

    /// <summary>
    /// The text of a fragment: "&lt;b&gt;2&lt;/b&gt; eggs &amp;amp; salt" is "2 eggs &amp; salt". What a script holds is no text.
    /// </summary>
    public static string Plain(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        if (text.AsSpan().IndexOfAny('<', '&') < 0) return text.Trim();
        using var page = new HtmlParser(new HtmlParserOptions { IsScripting = false }).ParseDocument("<body>" + text);
        foreach (var silent in page.QuerySelectorAll("script, style, template").ToList()) silent.Remove();
        return (page.Body?.TextContent ?? "").Trim();
    }
}
