using System.Collections.Concurrent;
using System.Text;
using SkiaSharp;

namespace LivelyTern.Formats.Labels;

/// <summary>The face of the labels, regular and bold; it ships with the program (SIL Open Font License, <c>Fonts/OFL.txt</c>).</summary>
internal static class LabelFont
{
    private static readonly SKTypeface Regular = Load("BricolageGrotesque-Regular.ttf"), Bold = Load("BricolageGrotesque-Bold.ttf");

    /// <summary>Units of an em in its outlines.</summary>
    public static int UnitsPerEm => Regular.UnitsPerEm;

    /// <summary>How high its capitals are, in ems.</summary>
    public const double CapHeight = 0.7;

    /// <summary>The face at a size, in whatever unit the size is.</summary>
    public static SKFont At(bool isBold, float size) => new(isBold ? Bold : Regular, size)
    {
        Hinting = SKFontHinting.None,
        LinearMetrics = true,
        Subpixel = true,
    };

    /// <summary>How wide a text of an em is, in ems: its letters side by side, as every drawing of it sets them.</summary>
    public static double WidthOf(string text, bool isBold)
    {
        var width = 0.0;
        foreach (var letter in text.EnumerateRunes()) width += Known.GetOrAdd((letter, isBold), Read).Width;
        return width;
    }

    /// <summary>A text without what the face has no letter for: that becomes a question mark.</summary>
    public static string Printable(string text)
    {
        var said = string.Concat(text.EnumerateRunes().Select(letter =>
            Rune.IsControl(letter) ? " " : Known.GetOrAdd((letter, false), Read).IsThere ? letter.ToString() : "?"));
        return string.Join(' ', said.Split(' ', StringSplitOptions.RemoveEmptyEntries));
    }

    private static readonly ConcurrentDictionary<(Rune Letter, bool IsBold), (double Width, bool IsThere)> Known = new();

    private static (double Width, bool IsThere) Read((Rune Letter, bool IsBold) one)
    {
        using var font = At(one.IsBold, UnitsPerEm);
        return (font.MeasureText(one.Letter.ToString()) / UnitsPerEm, font.GetGlyph(one.Letter.Value) != 0);
    }

    private static SKTypeface Load(string name)
    {
        using var stream = typeof(LabelFont).Assembly.GetManifestResourceStream(name)!;
        return SKTypeface.FromStream(stream) ?? throw new InvalidDataException($"The font {name} can't be read.");
    }
}
