using LivelyTern.Core.Aim;
using LivelyTern.Core.Foods;

namespace LivelyTern.Data.Aim;

#pragma warning disable CS1591 // Stored shapes mirror the core's records, where the units are documented.

/// <summary>A slot of the day as it is kept.</summary>
public sealed record StoredSlot(string Name, TimeOnly? At, decimal? Share, bool TakesBox);

/// <summary>How an eater eats, as it is kept; the days that differ are kept apart.</summary>
public sealed record StoredWays(
    int V, IReadOnlyList<StoredSlot> OwnSlots, decimal? Reserve, IReadOnlyList<Allergen> NeverAllergens, IReadOnlyList<string> NeverFoods,
    IReadOnlyList<string> RatherNot, IReadOnlyList<string> Likes, int? BoxesAlike, int? FillersADay = null)
{
    public static StoredWays Of(EatingWays ways)
    {
        ArgumentNullException.ThrowIfNull(ways);
        var slots = ways.OwnSlots.Select(slot => new StoredSlot(slot.Name, slot.At, slot.Share, slot.TakesBox));
        return new(1, [.. slots], ways.Reserve, ways.NeverAllergens, ways.NeverFoods, ways.RatherNot, ways.Likes, ways.BoxesAlike,
            ways.FillersADay);
    }

    public EatingWays ToWays() => new()
    {
        OwnSlots = [.. OwnSlots.Select(slot => new Slot(slot.Name, slot.At, slot.Share, slot.TakesBox))],
        Reserve = Reserve,
        NeverAllergens = NeverAllergens,
        NeverFoods = NeverFoods,
        RatherNot = RatherNot,
        Likes = Likes,
        BoxesAlike = BoxesAlike,
        FillersADay = FillersADay,
    };
}

/// <summary>A body as it is kept.</summary>
public sealed record StoredBody(
    int V, Sex Sex, decimal Age, decimal WeightKg, decimal HeightCm, decimal? BodyFatShare, bool IsPregnantOrBreastfeeding)
{
    public static StoredBody Of(Body body)
    {
        ArgumentNullException.ThrowIfNull(body);
        return new(1, body.Sex, body.Age, body.WeightKg, body.HeightCm, body.BodyFatShare, body.IsPregnantOrBreastfeeding);
    }

    public Body ToBody() => new(Sex, Age, WeightKg, HeightCm, BodyFatShare, IsPregnantOrBreastfeeding);
}
