using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Foods;

/// <summary>What a food's carbohydrate figure contains.</summary>
public enum CarbohydrateConvention
{
    /// <summary>"Total carbohydrate", with fibre and polyols in it (North America).</summary>
    Total,

    /// <summary>Carbohydrate without fibre (EU and UK).</summary>
    WithoutFibre,
}

/// <summary>Kinds of food, coarse enough to tick in a list of free foods.</summary>
public enum FoodGroup
{
    /// <summary>Vegetables, without potatoes and pulses.</summary>
    Vegetables,

    /// <summary>Fruit.</summary>
    Fruit,

    /// <summary>Potatoes and other starchy roots.</summary>
    Potatoes,

    /// <summary>Beans, lentils, peas, tofu.</summary>
    Pulses,

    /// <summary>Grains, flours, pasta and bread.</summary>
    Grains,

    /// <summary>Milk, yogurt, cheese, and plant drinks in their place.</summary>
    Dairy,

    /// <summary>Eggs.</summary>
    Eggs,

    /// <summary>Fish and seafood.</summary>
    Fish,

    /// <summary>Meat and poultry.</summary>
    Meat,

    /// <summary>Nuts and seeds.</summary>
    NutsAndSeeds,

    /// <summary>Oils, butter and other fats.</summary>
    Fats,

    /// <summary>Sugar, honey, chocolate, dried sweets.</summary>
    Sweets,

    /// <summary>Herbs, spices, stocks, sauces, vinegar, water.</summary>
    Seasonings,
}

/// <summary>A cup, a spoon, a slice or a piece of one food, in grams.</summary>
/// <param name="Name">"cup", "tbsp", "medium", "slice", "piece".</param>
/// <param name="Weight">Grams of one.</param>
/// <param name="Source">Who weighed it.</param>
public sealed record HouseholdMeasure(string Name, Grams Weight, string Source)
{
    /// <summary>The volume it takes, where its name is a unit of volume; this gives the food a density.</summary>
    public Millilitres? Volume => Unit.Find(Name) is { Kind: UnitKind.Volume } unit ? new Millilitres(unit.InBase) : null;
}

/// <summary>What one kind of food contains, and how a cook measures it.</summary>
/// <param name="Id">A stable name, such as <c>red-lentils-dry</c>.</param>
/// <param name="Name">As printed: "red lentils, dry".</param>
/// <param name="Aliases">Other names for the same thing.</param>
/// <param name="Group">Its kind.</param>
/// <param name="Per100g">What 100 g hold.</param>
/// <param name="Convention">What its carbohydrate figure contains.</param>
/// <param name="Measures">Its household measures; the first that is not a volume is what a bare count means.</param>
/// <param name="Source">Where the figures come from.</param>
public sealed record Food(
    string Id,
    string Name,
    IReadOnlyList<string> Aliases,
    FoodGroup Group,
    Nutrients Per100g,
    CarbohydrateConvention Convention,
    IReadOnlyList<HouseholdMeasure> Measures,
    string Source)
{
    /// <summary>The measure that a bare count means: in "2 eggs", one egg. Null where none is known.</summary>
    public HouseholdMeasure? Piece => Measures.FirstOrDefault(measure => measure.Volume is null);

    /// <summary>The measure of this name, in singular or plural, or null.</summary>
    public HouseholdMeasure? MeasureNamed(string name) =>
        Measures.FirstOrDefault(measure => string.Equals(FoodWords.Singular(measure.Name), FoodWords.Singular(name), StringComparison.OrdinalIgnoreCase));

    /// <summary>
    /// What a volume of this food weighs, through its own measures only: by the measure of that very unit where there is one (a
    /// tablespoon of butter is 14 g, so four are 56 g), else by the one nearest in size.
    /// </summary>
    /// <returns>Grams, or null where no volume of this food was ever weighed.</returns>
    public Grams? WeightOf(decimal quantity, Unit unit)
    {
        ArgumentNullException.ThrowIfNull(unit);
        if (unit.Kind == UnitKind.Mass) return new Grams(quantity * unit.InBase);
        var nearest = Measures.Where(measure => measure.Volume is not null)
            .OrderBy(measure => Math.Abs(Math.Log((double)(measure.Volume!.Value.Value / unit.InBase))))
            .FirstOrDefault();
        return nearest is null ? null : nearest.Weight * (quantity * unit.InBase / nearest.Volume!.Value.Value);
    }
}
