using System.Globalization;
using System.Text;
using System.Xml;
using SkiaSharp;

namespace LivelyTern.Formats.Labels;

/// <summary>Labels on pages of one kind of paper, as SVG, as PDF or as the picture a label printer takes.</summary>
public sealed class LabelSheet
{
    private const float PointsPerMm = 72 / 25.4f;

    /// <summary>Labels on paper.</summary>
    /// <param name="paper">The paper.</param>
    /// <param name="labels">The labels, drawn in its size.</param>
    /// <param name="from">Which label of the first page is the first that is still there, from 1.</param>
    public LabelSheet(LabelPaper paper, IReadOnlyList<LabelDrawing> labels, int from = 1)
    {
        ArgumentNullException.ThrowIfNull(paper);
        ArgumentNullException.ThrowIfNull(labels);
        ArgumentOutOfRangeException.ThrowIfLessThan(from, 1);
        ArgumentOutOfRangeException.ThrowIfGreaterThan(from, paper.PerPage);
        Paper = paper;
        Pages = [.. labels.Select((label, i) => (label, At: i + from - 1)).GroupBy(one => one.At / paper.PerPage)
            .Select(page => page.Select(one => (paper.PlaceOf(one.At % paper.PerPage), one.label)).ToList())];
    }

    /// <summary>What they are on.</summary>
    public LabelPaper Paper { get; }

    /// <summary>The labels of each page, and where each lies on it.</summary>
    public IReadOnlyList<IReadOnlyList<(Place At, LabelDrawing Label)>> Pages { get; }

    /// <summary>
    /// A page as an SVG file that needs nothing else: its words are outlines, and stand in each label's title as words.
    /// </summary>
    /// <param name="page">Which, from 0.</param>
    public string Svg(int page)
    {
        var (text, glyphs) = (new StringBuilder(), new GlyphBox());
        using (var xml = XmlWriter.Create(text, new() { OmitXmlDeclaration = true, ConformanceLevel = ConformanceLevel.Fragment }))
        {
            foreach (var (at, label) in Pages[page])
            {
                xml.WriteStartElement("g");
                xml.WriteAttributeString("transform", $"translate({Short(at.X)} {Short(at.Y)})");
                xml.WriteElementString("title", XmlSafe(label.Says));
                foreach (var shape in label.Shapes) WriteShape(xml, shape);
                foreach (var words in label.Texts) glyphs.Write(xml, words);
                xml.WriteEndElement();
            }
        }

        var (w, h) = (Short(Paper.Page.Width), Short(Paper.Page.Height));
        return $"""<svg xmlns="http://www.w3.org/2000/svg" width="{w}mm" height="{h}mm" viewBox="0 0 {w} {h}">"""
            + $"<defs>{glyphs.Outlines}</defs>{text}</svg>";
    }

    /// <summary>All pages as a PDF, each in the size of the paper.</summary>
    /// <param name="title">What its reader shows as its name.</param>
    public byte[] Pdf(string title)
    {
        using var file = new MemoryStream();
        using (var document = SKDocument.CreatePdf(file, new SKDocumentPdfMetadata { Title = title, Creator = "Lively Tern" }))
        {
            foreach (var page in Pages)
            {
                using var canvas = document.BeginPage((float)Paper.Page.Width * PointsPerMm, (float)Paper.Page.Height * PointsPerMm);
                canvas.Scale(PointsPerMm);
                Paint(canvas, page);
                document.EndPage();
            }

            document.Close();
        }

        return file.ToArray();
    }

    /// <summary>A page as a picture, black on white with greys: what a label printer takes.</summary>
    /// <param name="page">Which, from 0.</param>
    /// <param name="dotsPerInch">How fine.</param>
    public byte[] Png(int page, int dotsPerInch)
    {
        var dots = dotsPerInch / 25.4f;
        using var bitmap = new SKBitmap(
            (int)Math.Round(Paper.Page.Width * dots), (int)Math.Round(Paper.Page.Height * dots), SKColorType.Gray8, SKAlphaType.Opaque);
        using var canvas = new SKCanvas(bitmap);
        canvas.Clear(SKColors.White);
        canvas.Scale(dots);
        Paint(canvas, Pages[page]);
        using var png = bitmap.Encode(SKEncodedImageFormat.Png, 100);
        return png.ToArray();
    }

    private static void Paint(SKCanvas canvas, IEnumerable<(Place At, LabelDrawing Label)> labels)
    {
        foreach (var (at, label) in labels)
        {
            canvas.Save();
            canvas.Translate((float)at.X, (float)at.Y);
            foreach (var shape in label.Shapes) Paint(canvas, shape);
            foreach (var words in label.Texts)
            {
                using var font = LabelFont.At(words.IsBold, (float)words.Size);
                using var ink = new SKPaint { Color = SKColor.Parse(Ink), IsAntialias = true };
                canvas.DrawText(words.Text, (float)words.At.X, (float)words.At.Y, SKTextAlign.Left, font, ink);
            }

            canvas.Restore();
        }
    }

    private static void Paint(SKCanvas canvas, DrawnShape shape)
    {
        using var path = SKPath.ParseSvgPathData(shape.Path);
        using var paint = new SKPaint { Color = SKColor.Parse(shape.Colour), IsAntialias = true };
        if (shape.Stroke > 0) (paint.Style, paint.StrokeWidth) = (SKPaintStyle.Stroke, (float)shape.Stroke);
        canvas.DrawPath(path, paint);
    }

    private static void WriteShape(XmlWriter xml, DrawnShape shape)
    {
        xml.WriteStartElement("path");
        xml.WriteAttributeString("d", shape.Path);
        xml.WriteAttributeString("fill", shape.Stroke > 0 ? "none" : shape.Colour);
        if (shape.Stroke > 0)
        {
            xml.WriteAttributeString("stroke", shape.Colour);
            xml.WriteAttributeString("stroke-width", Short(shape.Stroke));
        }

        xml.WriteEndElement();
    }

    internal const string Ink = "#14213a";

    private static string Short(double value) => value.ToString("0.###", CultureInfo.InvariantCulture);

    private static string XmlSafe(string text) => string.Concat(text.Where(XmlConvert.IsXmlChar));

    // The outlines of a page's letters: each once, however often it is used.
    private sealed class GlyphBox
    {
        private readonly HashSet<(bool IsBold, ushort Glyph)> known = [];
        private readonly StringBuilder outlines = new();

        public string Outlines => outlines.ToString();

        public void Write(XmlWriter xml, DrawnText words)
        {
            using var font = LabelFont.At(words.IsBold, LabelFont.UnitsPerEm);
            var glyphs = font.GetGlyphs(words.Text);
            var widths = font.GetGlyphWidths(glyphs);
            var scale = words.Size / LabelFont.UnitsPerEm;
            xml.WriteStartElement("g");
            xml.WriteAttributeString("fill", Ink);
            xml.WriteAttributeString(
                "transform",
                $"translate({Short(words.At.X)} {Short(words.At.Y)}) scale({scale.ToString("0.######", CultureInfo.InvariantCulture)})");
            var x = 0f;
            for (var i = 0; i < glyphs.Length; i++)
            {
                if (Outline(font, words.IsBold, glyphs[i]))
                {
                    xml.WriteStartElement("use");
                    xml.WriteAttributeString("href", $"#{NameOf(words.IsBold, glyphs[i])}");
                    xml.WriteAttributeString("x", Short(x));
                    xml.WriteEndElement();
                }

                x += widths[i];
            }

            xml.WriteEndElement();
        }

        private bool Outline(SKFont font, bool isBold, ushort glyph)
        {
            using var path = font.GetGlyphPath(glyph);
            if (path is null || path.IsEmpty) return false;
            if (known.Add((isBold, glyph)))
                outlines.Append(CultureInfo.InvariantCulture, $"<path id=\"{NameOf(isBold, glyph)}\" d=\"{path.ToSvgPathData()}\"/>");
            return true;
        }

        private static string NameOf(bool isBold, ushort glyph) =>
            string.Create(CultureInfo.InvariantCulture, $"{(isBold ? 'b' : 'r')}{glyph}");
    }
}
