namespace LivelyTern.Core.Measures;

/// <summary>What a food table states. Energy is in kilocalories, all others in grams.</summary>
public enum Nutrient
{
    /// <summary>Kilocalories.</summary>
    Energy,

    /// <summary>Grams of protein.</summary>
    Protein,

    /// <summary>Grams of fat.</summary>
    Fat,

    /// <summary>Grams of saturated fat, part of fat.</summary>
    SaturatedFat,

    /// <summary>Grams of carbohydrate, in the convention its food names.</summary>
    Carbohydrate,

    /// <summary>Grams of sugars, part of carbohydrate.</summary>
    Sugars,

    /// <summary>Grams of fibre.</summary>
    Fibre,

    /// <summary>Grams of salt (sodium x 2.5).</summary>
    Salt,

    /// <summary>Grams of polyols.</summary>
    Polyols,

    /// <summary>Grams of alcohol.</summary>
    Alcohol,
}

/// <summary>
/// What 100 g of a food hold. Null is "not known", which is never the same as zero: a sum over a null is "at least".
/// </summary>
/// <param name="Energy">Kilocalories per 100 g.</param>
/// <param name="Protein">Grams per 100 g.</param>
/// <param name="Fat">Grams per 100 g.</param>
/// <param name="SaturatedFat">Grams per 100 g.</param>
/// <param name="Carbohydrate">Grams per 100 g, in the food's convention.</param>
/// <param name="Sugars">Grams per 100 g.</param>
/// <param name="Fibre">Grams per 100 g.</param>
/// <param name="Salt">Grams per 100 g.</param>
/// <param name="Polyols">Grams per 100 g.</param>
/// <param name="Alcohol">Grams per 100 g.</param>
public sealed record Nutrients(
    decimal? Energy = null,
    decimal? Protein = null,
    decimal? Fat = null,
    decimal? SaturatedFat = null,
    decimal? Carbohydrate = null,
    decimal? Sugars = null,
    decimal? Fibre = null,
    decimal? Salt = null,
    decimal? Polyols = null,
    decimal? Alcohol = null)
{
    /// <summary>All nutrients, in the order of the table.</summary>
    public static IReadOnlyList<Nutrient> All { get; } = Enum.GetValues<Nutrient>();

    /// <summary>One nutrient per 100 g (kcal or g), or null where it is not known.</summary>
    public decimal? this[Nutrient nutrient] => nutrient switch
    {
        Nutrient.Energy => Energy,
        Nutrient.Protein => Protein,
        Nutrient.Fat => Fat,
        Nutrient.SaturatedFat => SaturatedFat,
        Nutrient.Carbohydrate => Carbohydrate,
        Nutrient.Sugars => Sugars,
        Nutrient.Fibre => Fibre,
        Nutrient.Salt => Salt,
        Nutrient.Polyols => Polyols,
        Nutrient.Alcohol => Alcohol,
        _ => throw new ArgumentOutOfRangeException(nameof(nutrient)),
    };
}
