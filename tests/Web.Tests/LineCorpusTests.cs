using System.Globalization;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Data.Foods;
using Sylvan.Data.Csv;

namespace LivelyTern.Web.Tests;

/// <summary>
/// Lines as cooks write them, against the table that ships: <c>tests/lines/corpus.csv</c>, written before the reader, each line with
/// the foods and the grams it must give and their source. Every fifth line was kept apart while the reader was made.
/// </summary>
public sealed class LineCorpusTests
{
    private static readonly FoodCatalogue Foods = new(FoodTable.Read());
    private static readonly IReadOnlyList<CorpusLine> Lines = CorpusLine.Read();

    private static IReadOnlyList<CorpusLine> Part(bool isApart) => [.. Lines.Where((_, i) => i % 5 == 4 == isApart)];

    [Theory]
    [InlineData(false, 0.99)]
    [InlineData(true, 0.95)]
    public void Nineteen_of_twenty_are_read_right_and_none_silently_wrong(bool isApart, double least)
    {
        var part = Part(isApart);
        var (right, wrong) = (0, new List<string>());
        foreach (var line in part)
        {
            var read = FoodLine.Read(line.Text, Foods);
            if (line.IsGivenBy(read)) right++;
            else if (read.Standing == LineStanding.Sure) wrong.Add($"{line.Text}: {line.Reads}, not {CorpusLine.Said(read)}");
        }

        Assert.Empty(wrong);
        Assert.True(right >= least * part.Count, $"{right} of {part.Count} are right");
    }

    // What a line leaves open is a choice where it changes the energy by more than a tenth, or as much of it by protein, carbs or fat:
    // yogurt's fat changes what a macro eater counts, though whole and fat-free are 8 % apart in energy.
    [Theory]
    [InlineData("500 g yogurt", "low-fat-yogurt", Nutrient.Fat, -8.5)] // 5 x (1.6 - 3.3)
    [InlineData("500 g yogurt", "coconut-yogurt", Nutrient.Energy, 245)] // 5 x (110 - 61)
    [InlineData("200 g greek yogurt", "greek-yogurt-fat-free", Nutrient.Energy, -76)] // 2 x (59 - 97)
    [InlineData("500 g low-fat yogurt", "", Nutrient.Energy, 0)]
    [InlineData("1 tsp yogurt", "", Nutrient.Energy, 0)] // half a gram of fat either way is no matter
    [InlineData("2 apples", "", Nutrient.Energy, 0)]
    public void What_changes_the_figures_is_offered(string text, string other, Nutrient by, decimal apart)
    {
        var read = FoodLine.Read(text, Foods);
        var offered = read.Others.SingleOrDefault(one => one.Food.Id == other);
        if (other.Length == 0) Assert.Equal((LineStanding.Sure, 0), (read.Standing, read.Others.Count));
        else Assert.Equal((LineStanding.ByDefault, by, apart), (read.Standing, offered!.By, offered.Apart));
    }

    // What a note says of another amount is not said of the one that is read.
    [Theory]
    [InlineData("1 cup rice, 3 cups cooked", "white-rice-dry=185")]
    [InlineData("1 cup rice, cooked", "white-rice-cooked=158")]
    [InlineData("2 eggs, fried in 1 tbsp olive oil", "egg=100 + olive-oil=13.5")]
    [InlineData("1 can tomatoes, 28 oz can", "chopped-tomatoes-canned=793.79")]
    public void A_note_is_of_its_own_amount(string text, string reads) =>
        Assert.True(new CorpusLine("", text, reads, "").IsGivenBy(FoodLine.Read(text, Foods)), CorpusLine.Said(FoodLine.Read(text, Foods)));

    [Fact]
    public void The_corpus_is_large_and_in_many_manners()
    {
        Assert.True(Lines.Count >= 500);
        Assert.True(Lines.GroupBy(line => line.Manner).Count(same => same.Count() >= 25) >= 6);
        Assert.All(Lines, line => Assert.NotEmpty(line.Source));
        Assert.Equal(Lines.Count, Lines.Select(line => line.Text).Distinct().Count());
    }

    /// <summary>Printed and read again every line gives the same, and twice of it twice.</summary>
    [Fact]
    public void Every_line_that_is_read_reads_back_and_scales()
    {
        Assert.All(Lines, line =>
        {
            var read = FoodLine.Read(line.Text, Foods);
            if (read.Ingredients.Count == 0) return;
            var (again, twice) = (FoodLine.Read(read.Print(), Foods), FoodLine.Read(read.Print(2), Foods));
            var foods = read.Ingredients.Select(one => one.Food.Id).Order().ToList();
            var said = $"{line.Text} is {read.Print()}, twice {read.Print(2)}: {CorpusLine.Said(again)}, {CorpusLine.Said(twice)}";
            Assert.True(foods.SequenceEqual(again.Ingredients.Select(one => one.Food.Id).Order()), said);
            Assert.True(foods.SequenceEqual(twice.Ingredients.Select(one => one.Food.Id).Order()), said);
            decimal Weight(FoodLine of) => of.Ingredients.Where(one => !one.IsTrace).Sum(one => one.Weight.Value);
            Assert.True(Math.Abs(Weight(again) - Weight(read)) <= 0.01m + (0.002m * Weight(read)), said);
            Assert.True(Math.Abs(Weight(twice) - (2 * Weight(read))) <= 0.01m + (0.002m * Weight(twice)), said);
        });
    }

    /// <summary>
    /// What is said is never taken off: with these words before or behind its name no food is taken of which they do not hold.
    /// </summary>
    [Theory]
    [InlineData("cooked", FoodWord.Cooked)]
    [InlineData("boiled", FoodWord.Cooked)]
    [InlineData("dried", FoodWord.Dry)]
    [InlineData("fat-free", FoodWord.FatFree)]
    [InlineData("fried", FoodWord.Fried)]
    [InlineData("raw", FoodWord.Raw)]
    public void What_contradicts_is_never_taken(string word, FoodWord meant)
    {
        foreach (var food in Foods.All)
        {
            foreach (var name in food.Aliases.Prepend(food.Name).Concat(food.Usual))
            {
                foreach (var text in new[] { $"100 g {word} {name}", $"100 g {name}, {word}" })
                {
                    var taken = FoodLine.Read(text, Foods).Ingredient?.Food;
                    Assert.True(taken is null || Holds(taken, meant), $"{text}: {taken?.Name}");
                }
            }
        }
    }

    public enum FoodWord
    {
        Cooked, Dry, FatFree, Fried, Raw,
    }

    // By the figures and the plain words of its names, apart from how the reader sees them.
    private static bool Holds(Food food, FoodWord word)
    {
        var names = string.Join(' ', food.Aliases.Prepend(food.Name)).ToLowerInvariant();
        bool Any(params string[] words) => words.Any(one => names.Contains(one, StringComparison.Ordinal));
        string[] cooked =
        [
            "cooked", "boiled", "roast", "baked", "grilled", "poached", "scrambled", "fried", "ready to", "ready-to", "porridge", "made up",
            "toast", "rotisserie", "braised", "stewed", "pulled", "microwave",
        ];
        return word switch
        {
            FoodWord.Cooked => food.CookedFrom is not null || Any(cooked),
            FoodWord.Dry => Any("dry", "dried", "powder", "flake")
                || food.Group is FoodGroup.Grains or FoodGroup.Seasonings or FoodGroup.Sweets or FoodGroup.NutsAndSeeds or FoodGroup.Pulses,
            FoodWord.FatFree => food.Per100g.Fat <= 0.6m || Any("fat-free", "fat free", "skim", "nonfat", "0%", "98%"),
            FoodWord.Fried => Any("fried", "frying", "sauteed"),
            _ => food.CookedFrom is null && !food.Name.Contains("boiled", StringComparison.Ordinal)
                && !food.Name.Contains("roasted", StringComparison.Ordinal) && !food.Name.Contains("canned", StringComparison.Ordinal),
        };
    }
}

/// <summary>A line of the corpus.</summary>
/// <param name="Manner">Whose manner it is in.</param>
/// <param name="Text">As written.</param>
/// <param name="Reads">What it must give: "egg=100 + salt=trace", "cooking-spray&gt;=0.25", or "?" where it must be asked.</param>
/// <param name="Source">Where the grams come from.</param>
internal sealed record CorpusLine(string Manner, string Text, string Reads, string Source)
{
    public static IReadOnlyList<CorpusLine> Read()
    {
        using var csv = CsvDataReader.Create(Path.Combine(AppContext.BaseDirectory, "lines", "corpus.csv"));
        var lines = new List<CorpusLine>();
        while (csv.Read()) lines.Add(new(csv.GetString(0), csv.GetString(1), csv.GetString(2), csv.GetString(3)));
        return lines;
    }

    public static string Said(FoodLine line) => line.Ingredients.Count == 0
        ? $"{line.Problem?.Code}"
        : string.Join(" + ", line.Ingredients.Select(one => $"{one.Food.Id}={one.Weight.Value:0.##}{(one.IsTrace ? " trace" : "")}"));

    /// <summary>Whether it is read so; weights within 2 %.</summary>
    public bool IsGivenBy(FoodLine line)
    {
        if (Reads == "?") return line.Ingredients.Count == 0;
        var wanted = Reads.Split(" + ");
        return wanted.Length == line.Ingredients.Count && wanted.Zip(line.Ingredients).All(pair => IsGivenBy(pair.First, pair.Second));
    }

    private static bool IsGivenBy(string wanted, Ingredient given)
    {
        var isLeast = wanted.Contains(">=", StringComparison.Ordinal);
        var at = wanted.IndexOf(isLeast ? ">=" : "=", StringComparison.Ordinal);
        var (foods, weight) = (wanted[..at].Split('/'), wanted[(at + (isLeast ? 2 : 1))..]);
        if (!foods.Contains(given.Food.Id)) return false;
        if (weight == "trace") return given is { IsTrace: true, Weight.Value: 0 };
        var grams = weight.Split('*').Aggregate(1m, (product, factor) => product * Quotient(factor));
        if (isLeast) return given.IsTrace && given.Weight.Value >= grams;
        return !given.IsTrace && Math.Abs(given.Weight.Value - grams) <= Math.Max(0.02m * grams, 0.06m);
    }

    private static decimal Quotient(string factor)
    {
        var numbers = factor.Split('/').Select(number => decimal.Parse(number, CultureInfo.InvariantCulture)).ToList();
        return numbers.Skip(1).Aggregate(numbers[0], (product, number) => product / number);
    }
}
