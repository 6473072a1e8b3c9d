using LivelyTern.Core.Cook;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;

namespace LivelyTern.Core.Keep;

/// <summary>The last days of a batch or a box.</summary>
/// <param name="Fridge">The last day from the fridge.</param>
/// <param name="Freezer">The last day where it is frozen in time; that of the fridge for what does not freeze well.</param>
/// <param name="Rule">The rule that decides in the fridge.</param>
/// <param name="FreezerRule">The rule that decides in the freezer.</param>
/// <param name="IsFrozen">Whether it is in the freezer, and went there in time.</param>
public sealed record UseBy(DateOnly Fridge, DateOnly Freezer, KeepingRule Rule, KeepingRule FreezerRule, bool IsFrozen = false)
{
    /// <summary>
    /// The last days of a batch: by the strictest rule of what is in it, from the day it is cooked; of a put-together dish those of the
    /// part that keeps shortest, from the day that part is cooked.
    /// </summary>
    /// <param name="batch">Cooked, or still to be: then today at the earliest.</param>
    /// <param name="today">The household's day.</param>
    /// <param name="rules">The household's rules.</param>
    public static UseBy Of(Batch batch, DateOnly today, KeepingRules rules) => Kept(batch, today, rules).IfNotFrozen();

    /// <summary>
    /// The last days of a box: those of what keeps shortest in it, the plain foods as the batch it is named for. Frozen within its days
    /// in the fridge it keeps for its days in the freezer, and a day when it has come out; frozen later it is as if it were not.
    /// </summary>
    /// <param name="box">The box.</param>
    /// <param name="today">The household's day.</param>
    /// <param name="rules">The household's rules.</param>
    public static UseBy Of(Box box, DateOnly today, KeepingRules rules)
    {
        ArgumentNullException.ThrowIfNull(box);
        ArgumentNullException.ThrowIfNull(rules);
        var from = box.Batch.EatenFrom(today);
        var plain = box.Others.OfType<FoodInBox>().Select(KeepingKinds.Of).OfType<KeepingKind>().Distinct();
        var parts = box.Batches.Select(batch => Kept(batch, today, rules)).Concat(plain.Select(kind => From(from, [kind], rules)));
        var kept = Strictest(parts);
        if (box.Life.FrozenOn is not { } frozen || frozen > kept.Fridge) return kept.IfNotFrozen();

        // What does not freeze well, and is frozen all the same, keeps there as any cooked dish does.
        if (kept.FreezerRule.Freezer is null)
            kept = kept with { Freezer = KitchenDays.After(from, rules.Of(KeepingKind.Ordinary).Freezer!.Value.Least) };
        if (box.Life.Place == BoxPlace.Freezer) return kept with { IsFrozen = true };
        var thawed = KitchenDays.After(box.Life.PlacedOn, GuidelineSet.DaysThawed);
        var last = thawed < kept.Freezer ? thawed : kept.Freezer;
        return kept with { Fridge = last, Freezer = last };
    }

    /// <summary>The last days of something of several kinds, from a day on.</summary>
    /// <param name="from">The day it was cooked.</param>
    /// <param name="kinds">At least one.</param>
    /// <param name="rules">The rules.</param>
    public static UseBy From(DateOnly from, IReadOnlyList<KeepingKind> kinds, KeepingRules rules)
    {
        ArgumentNullException.ThrowIfNull(rules);
        var (fridge, freezer) = (rules.Strictest(kinds), rules.StrictestFrozen(kinds));
        return new(
            KitchenDays.After(from, fridge.Fridge.Least), KitchenDays.After(from, freezer.Freezer?.Least ?? 0), fridge, freezer);
    }

    /// <summary>The last day as it is kept now.</summary>
    public DateOnly Last => IsFrozen ? Freezer : Fridge;

    /// <summary>Whether it freezes well, by its kinds.</summary>
    public bool FreezesWell => FreezerRule.Freezer is not null;

    /// <summary>
    /// Whether its days are over: in the fridge, nobody knows here whether it was frozen in time, and the program does not offer it of
    /// itself.
    /// </summary>
    public bool IsOver(DateOnly today) => Last < today;

    /// <summary>Whether a box eaten on a day has to come out of the freezer.</summary>
    public bool IsFrozenFor(DateOnly day) => IsFrozen || day > Fridge;

    private static UseBy Kept(Batch batch, DateOnly today, KeepingRules rules)
    {
        ArgumentNullException.ThrowIfNull(batch);
        var own = From(batch.EatenFrom(today), KeepingKinds.Of(batch), rules);
        return Strictest(batch.Parts.Select(part => Kept(part.Of, today, rules)).Append(own));
    }

    // Each of the two days by what is strictest for it.
    private static UseBy Strictest(IEnumerable<UseBy> all)
    {
        var parts = all.ToList();
        var (fridge, freezer) = (parts.MinBy(useBy => useBy.Fridge)!, parts.MinBy(useBy => useBy.Freezer)!);
        return fridge with { Freezer = freezer.Freezer, FreezerRule = freezer.FreezerRule };
    }

    private UseBy IfNotFrozen() => FreezesWell && Freezer > Fridge ? this : this with { Freezer = Fridge };
}
