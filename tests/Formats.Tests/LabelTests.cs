using System.Xml.Linq;
using LivelyTern.Core.Aim;
using LivelyTern.Core.Cook;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Keep;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using LivelyTern.Core.Plan.Labels;
using LivelyTern.Core.Recipes;
using LivelyTern.Formats.Labels;
using SkiaSharp;
using UglyToad.PdfPig;
using ZXing;
using ZXing.Common;

namespace LivelyTern.Formats.Tests;

/// <summary>Labels as they are drawn: all of it on its paper, its code read back by another library, its PDF by another.</summary>
public sealed class LabelTests
{
    private const string Wide = "Wwwwwwwwwwwwwwwwwwwwwwwwwwwwwwwwwwwwwwwwwwwwwwwwww";
    private static readonly DateOnly Today = new(2026, 11, 25);
    private static readonly Uri Page = new("http://kitchen-of-the-lighthouse.lan:5080/box/120035");

    public static TheoryData<string> Papers => [.. LabelPaper.All.Select(paper => paper.Code)];

    private static BoxLabel Label(string dish = "Red lentil dal", string eater = "Isa", bool isFull = false)
    {
        var food = new Food(
            "f", "f", [], FoodGroup.Pulses, new(Energy: 100, Protein: 10), CarbohydrateConvention.Total, [], "test")
        { Allergens = isFull ? Enum.GetValues<Allergen>() : [Allergen.Milk] };
        var batch = new Batch(Guid.NewGuid(), dish, new TapeMark("WM", 7), Today, new([new(food, new Grams(1000))]), new Grams(1000))
        { State = BatchState.Packed, Pieces = isFull ? 24 : null, VolumeMl = isFull ? 1500 : null };
        var box = new Box(Guid.NewGuid(), batch, new(412), isFull ? 4 : null);
        return new BoxLabel(box, new(12, 3), UseBy.Of(box, Today, KeepingRules.Default), Today)
        {
            Eater = eater,
            Day = Today.AddDays(8),
            IsAhead = isFull,
            Figures =
            [
                KeyValuePair.Create(Measure.Energy, new Total(412.4m, Certainty.AtLeast)),
                KeyValuePair.Create(Measure.NetCarbohydrate, new Total(23.44m)),
            ],
            NotFor = isFull ? ["Maximiliane", "Bartholomew", "Constantine"] : [],
            Notes = isFull ? new(new string('h', 59) + " " + new string('e', 60), new string('m', 120)) : BoxNotes.None,
        };
    }

    private static (double Left, double Top, double Right, double Bottom) BoxOf(DrawnText text) =>
        (text.At.X, text.At.Y - (text.Size * LabelFontCap), text.At.X + text.Width, text.At.Y + (text.Size * 0.2));

    private const double LabelFontCap = 0.7;

    // The longest of everything there can be, on the smallest paper and the largest.
    [Theory]
    [MemberData(nameof(Papers))]
    public void The_longest_name_and_all_allergens_still_fit_and_nothing_lies_over_anything(string paper)
    {
        var size = LabelPaper.Find(paper)!.Label;
        BoxLabel[] labels =
        [
            Label(), Label(isFull: true), Label(Wide + " " + Wide, Wide, isFull: true), Label(Wide + Wide),
            Label("日本の煮物 🍲 Борщ", "Ж"), Label("Y", "Z"), Label(string.Join(' ', Enumerable.Repeat("and", 40))),
        ];
        foreach (var label in labels)
        {
            var drawn = LabelLayout.Of(label, size, Page);
            var boxes = drawn.Texts.Select(text => (text.Text, Box: BoxOf(text))).ToList();
            Assert.All(boxes, one => Assert.True(
                one.Box.Left >= 0 && one.Box.Top >= 0 && one.Box.Right <= size.Width && one.Box.Bottom <= size.Height, one.ToString()));
            foreach (var (one, other) in boxes.SelectMany((one, i) => boxes.Skip(i + 1).Select(other => (one, other))))
            {
                var isApart = one.Box.Right <= other.Box.Left || other.Box.Right <= one.Box.Left
                    || one.Box.Bottom <= other.Box.Top || other.Box.Bottom <= one.Box.Top;
                Assert.True(isApart, $"{paper}: {one} over {other}");
            }

            // Set smaller, broken or without what is needed least: what must stand there stands there, letter by letter.
            static string Letters(string text) => string.Concat(text.Where(char.IsLetterOrDigit));
            var said = Letters(string.Concat(drawn.Texts.Select(text => text.Text)));
            LabelPart[] must = [LabelPart.Contains, LabelPart.NotFor, LabelPart.Dates, LabelPart.Amount];
            Assert.All(label.Lines.Where(line => must.Contains(line.Part)), line => Assert.Contains(Letters(line.Text), said));
            Assert.Contains(drawn.Texts, text => text.Text == label.Mark.Letters);
        }
    }

    // Of an ordinary dish nothing is left out on any paper but the smallest strips.
    [Theory]
    [InlineData("a4-2x7")]
    [InlineData("a4-3x8")]
    [InlineData("a4-3x7")]
    [InlineData("letter-2x5")]
    [InlineData("strip-89x36")]
    public void An_ordinary_label_has_all_its_lines_and_its_code(string paper)
    {
        var label = Label() with { Notes = new("10 min at 160 °C, or cold", "a spoon of skyr, herbs") };
        var drawn = LabelLayout.Of(label, LabelPaper.Find(paper)!.Label, Page);
        var said = string.Join(' ', drawn.Texts.Select(text => text.Text));
        Assert.All(label.Lines, line => Assert.Contains(line.Text, said));
        Assert.Contains(label.Code.ToString(), said);
    }

    [Theory]
    [MemberData(nameof(Papers))]
    public void Its_code_is_read_back_by_another_library_at_the_size_it_is_printed_in(string code)
    {
        var paper = LabelPaper.Find(code)!;
        var alone = paper with { Page = paper.Label, Columns = 1, Rows = 1, First = new(0, 0) };
        var png = new LabelSheet(alone, [LabelLayout.Of(Label(), paper.Label, Page)]).Png(0, 300);
        using var bitmap = SKBitmap.Decode(png);
        Assert.Equal(Math.Round(paper.Label.Width / 25.4 * 300), bitmap.Width);
        var source = new RGBLuminanceSource(bitmap.Copy(SKColorType.Rgba8888).Bytes, bitmap.Width, bitmap.Height,
            RGBLuminanceSource.BitmapFormat.RGBA32);
        var reader = new BarcodeReaderGeneric
        {
            Options = new DecodingOptions { PossibleFormats = [BarcodeFormat.QR_CODE], TryHarder = true },
        };
        Assert.Equal(Page.AbsoluteUri, reader.Decode(source)?.Text);
    }

    [Fact]
    public void Sheets_lie_within_their_pages_and_no_label_over_another()
    {
        foreach (var paper in LabelPaper.All)
        {
            var places = Enumerable.Range(0, paper.PerPage).Select(paper.PlaceOf).ToList();
            Assert.All(places, at => Assert.True(
                at.X >= 0 && at.Y >= 0 && at.X + paper.Label.Width <= paper.Page.Width + 0.01
                && at.Y + paper.Label.Height <= paper.Page.Height + 0.01, $"{paper.Code} {at}"));
            Assert.True(paper.Columns == 1 || paper.Pitch.Width >= paper.Label.Width, paper.Code);
            Assert.True(paper.Rows == 1 || paper.Pitch.Height >= paper.Label.Height, paper.Code);
        }

        Assert.Equal(LabelPaper.All.Count, LabelPaper.All.DistinctBy(paper => paper.Code).Count());
    }

    // 16 labels from the 20th of 24 on: 5 on the first page, 11 on the next. ISO 216 A4 is 210 x 297 mm.
    [Fact]
    public void The_pdf_has_pages_of_its_papers_size_and_says_what_stands_on_the_labels()
    {
        var paper = LabelPaper.Find("a4-3x8")!;
        var labels = Enumerable.Range(0, 16).Select(_ => LabelLayout.Of(Label("Żurek à la crème"), paper.Label, Page)).ToList();
        var sheet = new LabelSheet(paper, labels, from: 20);
        Assert.Equal([5, 11], sheet.Pages.Select(page => page.Count));
        using var pdf = PdfDocument.Open(sheet.Pdf("Labels"));
        Assert.Equal(2, pdf.NumberOfPages);

        // In whole points, as the library writes pages: less than a fifth of a millimetre off.
        Assert.All(pdf.GetPages(), page => Assert.Equal((595, 842), (page.Width, page.Height)));
        static string Said(string text) => string.Concat(text.Where(letter => !char.IsWhiteSpace(letter) && letter != '\u00a0'));
        var text = Said(pdf.GetPage(2).Text);
        Assert.Equal(11, text.Split("Żurekàlacrème").Length - 1);
        Assert.Contains("atleast412kcal", text);
        Assert.Contains("Containsmilk", text);
        Assert.Contains("FreezeWed25Nov·ThawWed2Dec", text);
        Assert.Contains(new BoxCode(12, 3).ToString(), text);
    }

    [Fact]
    public void The_svg_is_of_its_papers_size_has_an_outline_for_each_letter_and_its_words_in_titles()
    {
        var paper = LabelPaper.Find("strip-62x29")!;
        var label = Label("Stew <b> & \"peas\"");
        var svg = XDocument.Parse(new LabelSheet(paper, [LabelLayout.Of(label, paper.Label, Page)]).Svg(0)).Root!;
        Assert.Equal(("62mm", "29mm"), ((string?)svg.Attribute("width"), (string?)svg.Attribute("height")));
        var all = svg.Descendants().ToList();
        var known = all.Select(one => (string?)one.Attribute("id")).OfType<string>().ToHashSet();
        var used = all.Where(one => one.Name.LocalName == "use").Select(one => ((string)one.Attribute("href")!)[1..]).ToList();
        Assert.True(used.Count > 60);
        Assert.All(used, id => Assert.Contains(id, known));
        Assert.StartsWith("Stew <b> & \"peas\". Isa, Thu 3 Dec. 412 g", all.First(one => one.Name.LocalName == "title").Value);
    }
}
