using System.Globalization;
using System.Text;
using LivelyTern.Core.Plan.Labels;

namespace LivelyTern.Formats.Labels;

/// <summary>
/// Lays a label out on its paper: the dish's mark on the left, the code on the right, its lines between. What does not fit is set smaller,
/// then what is needed least is left out, then the code; what somebody may not eat, and until when it keeps, always stands there whole.
/// </summary>
public static class LabelLayout
{
    private const double LineHeight = 1.18, Gap = 0.25, SmallestModule = 0.3, Padding = 1.6;
    private const string Ink = LabelSheet.Ink;
    private static readonly LabelPart[] LeftOutFirst =
        [LabelPart.PutIn, LabelPart.Cooked, LabelPart.AtEating, LabelPart.Heating, LabelPart.Whose];

    /// <summary>Draws a label.</summary>
    /// <param name="label">What stands on it.</param>
    /// <param name="size">Its paper, in millimetres.</param>
    /// <param name="page">The address of its box's page, for the QR code.</param>
    public static LabelDrawing Of(BoxLabel label, Size size, Uri page)
    {
        ArgumentNullException.ThrowIfNull(label);
        ArgumentNullException.ThrowIfNull(page);
        var code = new QrCode(page.AbsoluteUri);
        var mark = Math.Clamp(size.Height * 0.27, 6.5, 11);
        var side = Math.Max(Math.Clamp(size.Height * 0.5, 11, 22), code.Modules * SmallestModule);
        var left = mark + Padding + 0.6;
        Size Between(double right) => new(size.Width - left - right, size.Height - (2 * Padding));
        var beside = Between(side + 1.2);
        var lines = label.Lines;
        for (var drops = 0; drops <= LeftOutFirst.Length; drops++)
        {
            var kept = lines.Where(line => !LeftOutFirst.Take(drops).Contains(line.Part)).ToList();
            if (Fitted(kept, beside, Most(size), Readable(size)) is { } block)
                return Draw(label, size, mark, left, block, side, code);
        }

        // Without the code there is room for what must stand there; in the end in smaller letters.
        var must = lines.Where(line => !LeftOutFirst.Contains(line.Part)).ToList();
        var rest = Fitted(must, Between(Padding), Most(size), 0) ?? throw new InvalidOperationException("A label of no size.");
        return Draw(label, size, mark, left, rest, 0, code);
    }

    private static double Most(Size size) => Math.Min(4.4, size.Height / 8.5);

    // The smallest letters before something is left out: 6 points, less on the smallest paper.
    private static double Readable(Size size) => Math.Min(2.1, size.Height / 16);

    // The largest letters in which all of it fits between.
    private static Block? Fitted(List<LabelLine> lines, Size room, double most, double least)
    {
        for (var em = most; em >= Math.Max(least, 0.2); em *= 0.96)
        {
            if (Block.Set(lines, room, em) is { } block) return block;
        }

        return null;
    }

    private static LabelDrawing Draw(BoxLabel label, Size size, double mark, double left, Block block, double side, QrCode code)
    {
        var shapes = new List<DrawnShape>
        {
            new(Torn(size, mark), TapePattern.Tints[label.Mark.Tint % TapePattern.Tints.Count]),
        };
        var cell = new Place(Tear + 0.3, 0.6);
        var pattern = TapePattern.Over(label.Mark.Tint, cell, new(mark - Tear - 0.3, size.Height - 1.2));
        if (pattern.Length > 0) shapes.Add(new(pattern, "#7f8898", 0.25));
        shapes.Add(new(Edge(size), Ink, 0.15));
        var texts = new List<DrawnText>();
        var top = (size.Height - block.Height) / 2;
        foreach (var (text, y, em, isBold) in block.Rows)
            texts.Add(new(text, new(left, top + y), em, isBold, LabelFont.WidthOf(text, isBold) * em));

        // The letters on a plain patch, so that the pattern does not run through them.
        var letters = Math.Min(4.2, mark * 0.45);
        var width = LabelFont.WidthOf(label.Mark.Letters, isBold: true) * letters;
        var middle = (mark + Tear) / 2;
        shapes.Add(new(Rect(middle - (width / 2) - 0.5, (size.Height / 2) - (letters * 0.75), width + 1, letters * 1.5), "#ffffff"));
        texts.Add(new(
            label.Mark.Letters, new(middle - (width / 2), (size.Height / 2) + (letters * LabelFont.CapHeight / 2)), letters, true, width));
        if (side > 0)
        {
            var said = label.Code.ToString();
            var small = Math.Min(2.4, side / (LabelFont.WidthOf(said, isBold: true) + 0.2));
            var above = Math.Max(Padding / 2, (size.Height - side - small) / 2);
            var at = new Place(size.Width - side - 0.8, above);
            shapes.Add(new(code.Over(at, side), Ink));
            var wide = LabelFont.WidthOf(said, isBold: true) * small;
            texts.Add(new(said, new(at.X + ((side - wide) / 2), above + side + (small * 0.5)), small, true, wide));
        }

        var says = string.Join(". ", label.Lines.Select(line => line.Text).Append("Code " + label.Code)).Replace('\u00a0', ' ');
        return new(size, shapes, texts, says);
    }

    private const double Tear = 1.1;

    // The mark's cell, torn at its left end.
    private static string Torn(Size size, double mark) => string.Create(
        CultureInfo.InvariantCulture, $"M{mark:0.##} 0{Teeth(size.Height, 0, Tear)}L{mark:0.##} {size.Height:0.##}z");

    // The tape's own edge, torn at both ends: where it is cut out of a plain page.
    private static string Edge(Size size)
    {
        var (w, h) = (size.Width, size.Height);
        var (left, right) = (Teeth(h, 0.15, Tear), Teeth(h, w - 0.15, -Tear));
        return string.Create(CultureInfo.InvariantCulture, $"M{Tear + 0.15:0.##} 0{left}M{w - 0.15 - Tear:0.##} 0{right}");
    }

    private static string Teeth(double height, double x, double depth)
    {
        var path = new StringBuilder();
        var count = Math.Max(4, (int)(height / 3)) * 2;
        for (var i = 0; i <= count; i++)
            path.Append(CultureInfo.InvariantCulture, $"L{x + (i % 2 == 0 ? depth : 0):0.##} {height * i / count:0.##}");
        return path.ToString();
    }

    private static string Rect(double x, double y, double width, double height) =>
        string.Create(CultureInfo.InvariantCulture, $"M{x:0.##} {y:0.##}h{width:0.##}v{height:0.##}h{-width:0.##}z");

    /// <summary>Lines set in letters of one size.</summary>
    private sealed record Block(IReadOnlyList<(string Text, double Y, double Em, bool IsBold)> Rows, double Height)
    {
        /// <summary>Them in letters of a size, or null where they don't fit.</summary>
        public static Block? Set(List<LabelLine> lines, Size room, double em)
        {
            var (rows, y) = (new List<(string, double, double, bool)>(), 0.0);
            foreach (var line in lines)
            {
                var (factors, isBold, most) = LookOf(line.Part);

                // Rather smaller than cut short.
                var said = LabelFont.Printable(line.Text);
                var size = em * factors.FirstOrDefault(factor => Wrapped(said, em * factor, isBold, room.Width).Count <= most, factors[^1]);
                foreach (var text in CutShort(Wrapped(said, size, isBold, room.Width), size, isBold, room.Width, most))
                {
                    rows.Add((text, y + (size * 0.92), size, isBold));
                    y += size * LineHeight;
                }

                y += em * Gap * 0.5;
                if (y - (em * Gap * 0.5) > room.Height) return null;
            }

            // A word that is wider than its line has not fitted.
            return rows.Exists(row => LabelFont.WidthOf(row.Item1, row.Item4) * row.Item3 > room.Width + 0.01)
                ? null
                : new(rows, y - (em * Gap * 0.5));
        }

        private static (double[] Factors, bool IsBold, int MostRows) LookOf(LabelPart part) => part switch
        {
            LabelPart.Dish => ([1.35, 1.2, 1.05, 0.9], true, 2),
            LabelPart.Whose => ([1.1, 0.95], true, 1),
            LabelPart.Amount or LabelPart.Dates => ([1], true, int.MaxValue),
            LabelPart.Contains or LabelPart.NotFor => ([0.9], true, int.MaxValue),
            LabelPart.Heating or LabelPart.AtEating or LabelPart.PutIn => ([0.85], false, 3),
            _ => ([0.85], false, 2),
        };

        // Words into rows no wider than there is room.
        private static List<string> Wrapped(string text, double em, bool isBold, double width)
        {
            double WidthOf(string row) => LabelFont.WidthOf(row, isBold) * em;
            var rows = new List<string>();
            var row = "";
            foreach (var word in text.Split(' ').SelectMany(word => Broken(word, WidthOf, width)))
            {
                var longer = row.Length == 0 ? word : row + " " + word;
                if (row.Length > 0 && WidthOf(longer) > width)
                {
                    rows.Add(row);
                    row = word;
                }
                else
                {
                    row = longer;
                }
            }

            rows.Add(row);
            return rows;
        }

        // No more rows than may be: the last ends in an ellipsis.
        private static List<string> CutShort(List<string> rows, double em, bool isBold, double width, int most)
        {
            if (rows.Count <= most) return rows;
            var last = string.Join(' ', rows.Skip(most - 1));
            while (last.Length > 1 && LabelFont.WidthOf(last + "…", isBold) * em > width) last = last[..^1].TrimEnd();
            return [.. rows.Take(most - 1), last + "…"];
        }

        // A word too long for any row is broken where the row ends.
        private static IEnumerable<string> Broken(string word, Func<string, double> widthOf, double width)
        {
            while (word.Length > 1 && widthOf(word) > width)
            {
                var fits = word.Length - 1;
                while (fits > 1 && widthOf(word[..fits]) > width) fits--;
                if (char.IsHighSurrogate(word[fits - 1]) && fits > 1) fits--;
                yield return word[..fits];
                word = word[fits..];
            }

            yield return word;
        }
    }
}
