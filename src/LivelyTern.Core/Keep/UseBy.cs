using LivelyTern.Core.Cook;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;

namespace LivelyTern.Core.Keep;

/// <summary>The last days of a batch or a box.</summary>
/// <param name="Fridge">The last day from the fridge.</param>
/// <param name="Freezer">The last day where it is frozen in time.</param>
/// <param name="Rule">The rule it rests on.</param>
/// <param name="IsFrozen">Whether it is in the freezer, and went there in time.</param>
public sealed record UseBy(DateOnly Fridge, DateOnly Freezer, KeepingRule Rule, bool IsFrozen = false)
{
    /// <summary>
    /// The last days of a batch: the strictest of its ingredients' rules, from the day it is cooked; of a put-together dish those of the
    /// part that keeps shortest, from the day that part is cooked.
    /// </summary>
    /// <param name="batch">Cooked, or still to be: then today at the earliest.</param>
    /// <param name="today">The household's day.</param>
    public static UseBy Of(Batch batch, DateOnly today)
    {
        ArgumentNullException.ThrowIfNull(batch);
        var rule = KeepingRule.Of(batch.Contents);
        var cookedOn = batch.EatenFrom(today);
        var own = new UseBy(KitchenDays.After(cookedOn, rule.FridgeDays), KitchenDays.After(cookedOn, rule.FreezerDays), rule);
        return batch.Parts.Select(part => Of(part.Of, today)).Append(own).MinBy(useBy => useBy.Fridge)!;
    }

    /// <summary>
    /// The last days of a box: those of what keeps shortest in it. Frozen within its days in the fridge it keeps for its days in the
    /// freezer, and a day when it has come out; frozen later it is as if it were not.
    /// </summary>
    /// <param name="box">The box.</param>
    /// <param name="today">The household's day.</param>
    public static UseBy Of(Box box, DateOnly today)
    {
        ArgumentNullException.ThrowIfNull(box);
        var chilled = box.Batches.Select(batch => Of(batch, today)).MinBy(useBy => useBy.Fridge)!;
        if (box.Life.FrozenOn is not { } frozen || frozen > chilled.Fridge) return chilled;
        if (box.Life.Place == BoxPlace.Freezer) return chilled with { IsFrozen = true };
        var thawed = KitchenDays.After(box.Life.PlacedOn, KeepingRule.DaysThawed);
        var last = thawed < chilled.Freezer ? thawed : chilled.Freezer;
        return chilled with { Fridge = last, Freezer = last };
    }

    /// <summary>The last day as it is kept now.</summary>
    public DateOnly Last => IsFrozen ? Freezer : Fridge;

    /// <summary>
    /// Whether its days are over: in the fridge, nobody knows here whether it was frozen in time, and the program does not offer it of
    /// itself.
    /// </summary>
    public bool IsOver(DateOnly today) => Last < today;

    /// <summary>Whether a box eaten on a day has to come out of the freezer.</summary>
    public bool IsFrozenFor(DateOnly day) => IsFrozen || day > Fridge;
}
