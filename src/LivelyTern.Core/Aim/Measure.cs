using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Aim;

/// <summary>What a day can be measured by: the nutrients, and points under an eater's own rule.</summary>
public enum Measure
{
    /// <summary>Kilocalories.</summary>
    Energy,

    /// <summary>Grams of protein.</summary>
    Protein,

    /// <summary>Grams of carbohydrate.</summary>
    Carbohydrate,

    /// <summary>Grams of fat.</summary>
    Fat,

    /// <summary>Grams of fibre.</summary>
    Fibre,

    /// <summary>Grams of saturated fat.</summary>
    SaturatedFat,

    /// <summary>Grams of sugars.</summary>
    Sugars,

    /// <summary>Grams of salt.</summary>
    Salt,

    /// <summary>Grams of carbohydrate without fibre and polyols.</summary>
    NetCarbohydrate,

    /// <summary>Points under the eater's rule.</summary>
    Points,
}

/// <summary>Which nutrient a measure reads.</summary>
public static class MeasureNutrient
{
    /// <summary>Every measure, in the order shown.</summary>
    public static IReadOnlyList<Measure> All { get; } = Enum.GetValues<Measure>();

    /// <summary>The nutrient behind a measure, or null for points and net carbohydrate.</summary>
    public static Nutrient? Nutrient(this Measure measure) => measure switch
    {
        Measure.Energy => Measures.Nutrient.Energy,
        Measure.Protein => Measures.Nutrient.Protein,
        Measure.Carbohydrate => Measures.Nutrient.Carbohydrate,
        Measure.Fat => Measures.Nutrient.Fat,
        Measure.Fibre => Measures.Nutrient.Fibre,
        Measure.SaturatedFat => Measures.Nutrient.SaturatedFat,
        Measure.Sugars => Measures.Nutrient.Sugars,
        Measure.Salt => Measures.Nutrient.Salt,
        _ => null,
    };
}
