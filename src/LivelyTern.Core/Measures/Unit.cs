namespace LivelyTern.Core.Measures;

/// <summary>What a unit measures.</summary>
public enum UnitKind
{
    /// <summary>Grams.</summary>
    Mass,

    /// <summary>Millilitres.</summary>
    Volume,
}

/// <summary>A unit of mass or volume that a cook writes down.</summary>
/// <param name="Name">How it is printed: <c>tbsp</c>.</param>
/// <param name="Kind">Mass or volume.</param>
/// <param name="InBase">How many grams or millilitres one of it is.</param>
/// <param name="Spellings">The words that mean it, in lower case.</param>
/// <param name="Source">Where the factor comes from.</param>
public sealed record Unit(string Name, UnitKind Kind, decimal InBase, IReadOnlyList<string> Spellings, string Source)
{
    private const string Metric = "SI";
    private const string Customary = "NIST SP 811 / Handbook 44";
    private const string Imperial = "UK Weights and Measures Act 1985";
    private const string Labelling = "US 21 CFR 101.9(b)(5)(viii)";
    private const string MetricKitchen = "common practice, no published source";

    /// <summary>The gram.</summary>
    public static Unit Gram { get; } = new("g", UnitKind.Mass, 1m, ["g", "gram", "grams", "gr", "gm", "gms", "grm", "grms"], Metric);

    /// <summary>The millilitre.</summary>
    public static Unit Millilitre { get; } = new(
        "ml", UnitKind.Volume, 1m, ["ml", "mls", "millilitre", "millilitres", "milliliter", "milliliters", "cc"], Metric);

    /// <summary>The litre.</summary>
    public static Unit Litre { get; } = new(
        "l", UnitKind.Volume, 1000m, ["l", "ltr", "ltrs", "litre", "litres", "liter", "liters"], Metric);

    /// <summary>The US cup, 236.5882365 mL.</summary>
    public static Unit Cup { get; } = new(
        "cup", UnitKind.Volume, 236.5882365m, ["cup", "cups", "us cup", "us cups", "c", "cupful", "cupfuls"], Customary);

    /// <summary>The US tablespoon, 14.78676478 mL.</summary>
    public static Unit Tablespoon { get; } = new(
        "tbsp", UnitKind.Volume, 14.78676478m,
        [
            "tbsp", "tbsps", "tbs", "tb", "tbl", "tbls", "tblsp", "tblsps", "tablespoon", "tablespoons", "table spoon", "table spoons",
            "tablespoonful",
        ],
        Customary);

    /// <summary>The US teaspoon, 4.92892159 mL.</summary>
    public static Unit Teaspoon { get; } = new("tsp", UnitKind.Volume, 4.92892159m,
        ["tsp", "tsps", "teasp", "teaspoon", "teaspoons", "tea spoon", "tea spoons", "teaspoonful"], Customary);

    /// <summary>Every unit the house knows.</summary>
    public static IReadOnlyList<Unit> All { get; } =
    [
        Gram,
        new("kg", UnitKind.Mass, 1000m, ["kg", "kgs", "kilo", "kilos", "kilogram", "kilograms"], Metric),
        new("mg", UnitKind.Mass, 0.001m, ["mg", "milligram", "milligrams"], Metric),
        new("oz", UnitKind.Mass, 28.349523125m, ["oz", "ozs", "ounce", "ounces"], Customary),
        new("lb", UnitKind.Mass, 453.59237m, ["lb", "lbs", "pound", "pounds"], Customary),
        Millilitre,
        new("cl", UnitKind.Volume, 10m, ["cl", "centilitre", "centilitres"], Metric),
        new("dl", UnitKind.Volume, 100m, ["dl", "decilitre", "decilitres", "deciliter", "deciliters"], Metric),
        Litre,
        Cup,
        Tablespoon,
        Teaspoon,
        new("fl oz", UnitKind.Volume, 29.57352956m, ["fl oz", "floz", "fluid oz", "fluid ounce", "fluid ounces"], Customary),
        new("pint", UnitKind.Volume, 473.176473m, ["pint", "pints", "us pint", "us pints", "pt", "pts"], Customary),
        new("quart", UnitKind.Volume, 946.352946m, ["quart", "quarts", "qt", "qts"], Customary),
        new("gallon", UnitKind.Volume, 3785.411784m, ["gallon", "gallons", "gal", "gals"], Customary),
        new("dessertspoon", UnitKind.Volume, 10m, ["dessertspoon", "dessertspoons", "dsp", "dessert spoon"], MetricKitchen),
        new("label cup", UnitKind.Volume, 240m, ["label cup", "label cups"], Labelling),
        new("label tbsp", UnitKind.Volume, 15m, ["label tbsp", "label tablespoon", "label tablespoons"], Labelling),
        new("label tsp", UnitKind.Volume, 5m, ["label tsp", "label teaspoon", "label teaspoons"], Labelling),
        new("label fl oz", UnitKind.Volume, 30m, ["label fl oz"], Labelling),
        new("label oz", UnitKind.Mass, 28m, ["label oz"], Labelling),
        new("metric cup", UnitKind.Volume, 250m, ["metric cup", "metric cups"], MetricKitchen),
        new("Australian tbsp", UnitKind.Volume, 20m, ["australian tbsp", "australian tablespoon", "australian tablespoons"], MetricKitchen),
        new("imperial fl oz", UnitKind.Volume, 28.4130625m, ["imperial fl oz", "imperial fluid ounce", "imperial fluid ounces"], Imperial),
        new("imperial pint", UnitKind.Volume, 568.26125m, ["imperial pint", "imperial pints", "uk pint", "uk pints"], Imperial),
    ];

    private static readonly Dictionary<string, Unit> BySpelling =
        All.SelectMany(unit => unit.Spellings.Select(spelling => (spelling, unit)))
            .ToDictionary(pair => pair.spelling, pair => pair.unit, StringComparer.Ordinal);

    /// <summary>The unit a word means, or null.</summary>
    /// <param name="word">As typed, in any case; a full stop is forgiven; a lone capital T is a tablespoon.</param>
    public static Unit? Find(string word)
    {
        ArgumentNullException.ThrowIfNull(word);

        // The one place where a capital tells: T is a tablespoon, t a teaspoon.
        var plain = word.Trim().TrimEnd('.');
        if (plain is "T") return Tablespoon;
        if (plain is "t") return Teaspoon;
        return BySpelling.GetValueOrDefault(plain.Replace(". ", " ", StringComparison.Ordinal).ToLowerInvariant());
    }
}
