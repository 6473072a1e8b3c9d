using LivelyTern.Core.Measures;
using LivelyTern.Core.Recipes;

namespace LivelyTern.Core.Cook.PrepDay;

/// <summary>What a kitchen has of one kind.</summary>
/// <param name="Kind">The kind.</param>
/// <param name="Count">How many.</param>
/// <param name="Holds">How much one holds at once: shelves of an oven, pieces of a waffle iron, kilograms of all others; null where that
/// does not matter.</param>
public sealed record KitchenItem(Occupies Kind, int Count, decimal? Holds = null);

/// <summary>Hours in which some machines must be still: someone is asleep next door.</summary>
/// <param name="From">From when.</param>
/// <param name="To">Until when.</param>
/// <param name="Kinds">The machines.</param>
public sealed record QuietHours(TimeOnly From, TimeOnly To, IReadOnlyList<Occupies> Kinds);

/// <summary>What a kitchen has to cook with.</summary>
/// <param name="Items">What there is, by kind; a kind that is not listed is not there.</param>
/// <param name="OvenApart">How many °C apart two dishes may be asked to bake and still share an oven.</param>
/// <param name="Quiet">When which machines must be still.</param>
public sealed record KitchenEquipment(IReadOnlyList<KitchenItem> Items, int OvenApart, IReadOnlyList<QuietHours> Quiet)
{
    private const int MostOfAKind = 20, MostQuiet = 10;

    /// <summary>A household's kitchen to begin with: common practice, no published source.</summary>
    public static KitchenEquipment AtFirst { get; } = new(
        [
            new(Occupies.Oven, 1, 2), new(Occupies.Ring, 4, 5), new(Occupies.SlowCooker, 1, 5), new(Occupies.PressureCooker, 1, 4),
            new(Occupies.Microwave, 1), new(Occupies.AirFryer, 1, 1), new(Occupies.WaffleIron, 1, 4), new(Occupies.Blender, 1, 1.5m),
            new(Occupies.Tray, 3, 2.5m), new(Occupies.Board, 2), new(Occupies.Fridge, 4),
        ],
        10, []);

    /// <summary>How many of a kind there are.</summary>
    public int CountOf(Occupies kind) => Items.FirstOrDefault(item => item.Kind == kind)?.Count ?? 0;

    /// <summary>How much one of a kind holds at once; null where that does not matter.</summary>
    public decimal? HoldsOf(Occupies kind) => Items.FirstOrDefault(item => item.Kind == kind)?.Holds;

    /// <summary>What is wrong with it.</summary>
    public IEnumerable<Problem> Problems()
    {
        if (Items.GroupBy(item => item.Kind).Any(same => same.Count() > 1))
            yield return new("equipment-twice", "items", "Each kind of equipment stands in the list once.");
        for (var i = 0; i < Items.Count; i++)
        {
            if (Items[i].Count is < 0 or > MostOfAKind)
                yield return new("equipment-count", $"items[{i}].count", $"A kitchen has 0 to {MostOfAKind} of a kind.");
            if (Items[i].Holds is <= 0 or > 1000)
                yield return new("equipment-holds", $"items[{i}].holds", "What it holds at once is more than 0 and at most 1000.");
        }

        if (OvenApart is < 0 or > 60) yield return new("oven-apart", "ovenApart", "Two dishes share an oven 0 to 60 °C apart.");
        if (Quiet.Count > MostQuiet) yield return new("quiet-many", "quiet", $"Up to {MostQuiet} quiet times.");
        for (var i = 0; i < Quiet.Count; i++)
            if (Quiet[i].To <= Quiet[i].From)
                yield return new("quiet-hours", $"quiet[{i}]", "A quiet time ends later on the same day than it begins.");
    }
}
