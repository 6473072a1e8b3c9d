using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Foods;

/// <summary>A food as a file states it, brought to 100 g.</summary>
/// <param name="Code">The file's own name for it.</param>
/// <param name="Name">Its name.</param>
/// <param name="Group">Its kind, as near as the file's own group says.</param>
/// <param name="Per100g">What 100 g hold.</param>
/// <param name="Convention">What its carbohydrate contains.</param>
/// <param name="Measures">Its household measures, "cup=240;tbsp=15" in grams, or null.</param>
/// <param name="Gtin">The number under its barcode, 14 digits, or null.</param>
public sealed record ImportedFood(
    string Code, string Name, FoodGroup Group, Nutrients Per100g, CarbohydrateConvention Convention, string? Measures = null,
    string? Gtin = null);

/// <summary>A row of a file, read.</summary>
/// <param name="Row">Its place, from 1, as an editor counts the lines after the header.</param>
/// <param name="Food">The food, or null where it was refused.</param>
/// <param name="Refused">Why it was refused, in words; null where it was not.</param>
/// <param name="Doubts">What looks wrong about a food that was taken.</param>
public sealed record ImportedRow(long Row, ImportedFood? Food, string? Refused, IReadOnlyList<Doubt> Doubts)
{
    private const decimal MostKcal = 1000m;

    /// <summary>A food held against itself: refused where it can't be, doubted where it looks wrong.</summary>
    public static ImportedRow Of(long row, ImportedFood food)
    {
        ArgumentNullException.ThrowIfNull(food);
        if (string.IsNullOrWhiteSpace(food.Name)) return Refuse(row, "it has no name");
        var any = false;
        foreach (var nutrient in Nutrients.All)
        {
            if (food.Per100g[nutrient] is not { } value) continue;
            any = true;
            if (value < 0) return Refuse(row, $"{Say(nutrient)} is below zero");
            if (nutrient == Nutrient.Energy ? value > MostKcal : value > 101m)
                return Refuse(row, $"{Say(nutrient)} is {value:0.#} in 100 g, more than can be");
        }

        return any ? new(row, food, null, Foods.Doubts.Of(food.Per100g, food.Convention)) : Refuse(row, "it has no figures");
    }

    /// <summary>A row that is not taken.</summary>
    public static ImportedRow Refuse(long row, string why) => new(row, null, why, []);

    /// <summary>The household measures of "cup=240;tbsp=15", in grams, with their source; empty for null.</summary>
    public static IReadOnlyList<HouseholdMeasure> MeasuresOf(string? text, string source)
    {
        Grams Weight(string number) => new(decimal.Parse(number, System.Globalization.CultureInfo.InvariantCulture));
        var pairs = (text ?? "").Split(';', StringSplitOptions.RemoveEmptyEntries).Select(pair => pair.Split('='));
        return [.. pairs.Select(pair => new HouseholdMeasure(pair[0], Weight(pair[1]), source))];
    }

    private static string Say(Nutrient nutrient) =>
        nutrient switch { Nutrient.SaturatedFat => "saturated fat", _ => nutrient.ToString().ToLowerInvariant() };
}
