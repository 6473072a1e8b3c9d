using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Foods;

/// <summary>The foods a line may mean, with what was weighed at home.</summary>
public sealed class FoodStore(TernDb db, CatalogueCache cache, TimeProvider clock)
{
    /// <summary>Every food; a measure weighed at home comes before one from a table.</summary>
    public Task<FoodCatalogue> CatalogueAsync() => cache.GetAsync(async () =>
        new FoodCatalogue((await db.Foods.AsNoTracking().Include(row => row.WeighedMeasures).ToListAsync()).Select(WithWeighed)));

    /// <summary>Remembers what one measure of a food weighs. Weighing again replaces it.</summary>
    /// <param name="foodId">The food.</param>
    /// <param name="name">"cup", "tbsp", "piece": a volume unit in any spelling, or a word for a piece.</param>
    /// <param name="weight">Grams of one.</param>
    public async Task<Outcome<Food>> RememberMeasureAsync(string foodId, string name, Grams weight)
    {
        ArgumentNullException.ThrowIfNull(name);
        var measure = (Unit.Find(name)?.Name ?? name).Trim();
        if (measure.Length is 0 or > 30) return new Problem("measure-name", "measure", "Name the measure in a word or two, such as cup or slice.");
        if (Unit.Find(measure) is { Kind: UnitKind.Mass }) return new Problem("measure-mass", "measure", $"{measure} is a weight already: it needs no weighing.");
        if (weight.Value <= 0) return new Problem("weight-nothing", "grams", "Type what one of it weighs: more than 0 g.");
        if (weight.Value > 20_000m) return new Problem("weight-absurd", "grams", "More than 20 kg for one measure can't be meant: check the number.");
        var row = await db.Foods.Include(food => food.WeighedMeasures).SingleOrDefaultAsync(food => food.Id == foodId);
        if (row is null) return Stale.Gone("food");
        var known = row.WeighedMeasures.Find(own => string.Equals(own.Name, measure, StringComparison.OrdinalIgnoreCase));
        if (known is null) row.WeighedMeasures.Add(known = new() { FoodId = foodId, Name = measure });
        (known.Grams, known.WeighedAt) = (weight.Value, clock.GetUtcNow());
        await db.SaveChangesAsync();
        cache.Forget();
        return WithWeighed(row);
    }

    private static Food WithWeighed(FoodRow row) => row.WeighedMeasures.Count == 0 ? row.Food : row.Food with
    {
        Measures =
        [
            .. row.WeighedMeasures.Select(own => new HouseholdMeasure(own.Name, new Grams(own.Grams), "weighed at home")),
            .. row.Food.Measures.Where(measure => !row.WeighedMeasures.Exists(own => string.Equals(own.Name, measure.Name, StringComparison.OrdinalIgnoreCase))),
        ],
    };
}
