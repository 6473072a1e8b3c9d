using System.Globalization;
using System.Text;

namespace LivelyTern.Formats.Labels;

/// <summary>The tints of tape and their patterns, as they are on every screen (<c>web/src/main.css</c>): told apart in grey too.</summary>
internal static class TapePattern
{
    private const double Period = 1.8;

    /// <summary>The tints, by number.</summary>
    public static IReadOnlyList<string> Tints { get; } =
        ["#dcb3a4", "#f0c68c", "#c9b89c", "#a8cbd7", "#c7d49a", "#f0df90", "#cfc2df", "#9fcdb9"];

    /// <summary>The pattern of a tint over a box, as the path of a thin line; empty for the one without.</summary>
    public static string Over(int tint, Place from, Size size)
    {
        var path = new StringBuilder();
        var (w, h) = (size.Width, size.Height);
        void Line(double x1, double y1, double x2, double y2) =>
            path.Append(CultureInfo.InvariantCulture, $"M{from.X + x1:0.##} {from.Y + y1:0.##}L{from.X + x2:0.##} {from.Y + y2:0.##}");
        void Down()
        {
            for (var c = -w + Period; c < h; c += Period * 1.4)
                Line(Math.Max(0, -c), Math.Max(0, c), Math.Min(w, h - c), Math.Min(h, w + c));
        }

        void Up()
        {
            for (var c = Period; c < w + h; c += Period * 1.4) Line(Math.Max(0, c - h), Math.Min(h, c), Math.Min(w, c), Math.Max(0, c - w));
        }

        switch (tint)
        {
            case 1:
                for (var y = Period / 2; y < h; y += Period)
                    for (var x = Period / 2; x < w - 0.3; x += Period) Line(x, y, x + 0.3, y);
                break;
            case 2: Down(); break;
            case 3:
                for (var y = Period / 2; y < h; y += Period) Line(0, y, w, y);
                break;
            case 4: Down(); Up(); break;
            case 5:
                for (var x = Period / 2; x < w; x += Period) Line(x, 0, x, h);
                break;
            case 6: Up(); break;
            case 7:
                for (var y = Period; y < h - 0.4; y += Period) Wave(path, from.X, from.Y + y, w);
                break;
            default: break;
        }

        return path.ToString();
    }

    private static void Wave(StringBuilder path, double x, double y, double width)
    {
        var half = width / 4;
        path.Append(CultureInfo.InvariantCulture, $"M{x:0.##} {y:0.##}q{half / 2:0.##} -0.8 {half:0.##} 0t{half:0.##} 0t{half:0.##} 0");
        path.Append(CultureInfo.InvariantCulture, $"t{half:0.##} 0");
    }
}
