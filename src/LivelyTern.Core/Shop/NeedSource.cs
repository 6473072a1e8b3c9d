using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Shop;

/// <summary>What something is bought for.</summary>
public abstract record NeedSource;

/// <summary>A batch that is to be cooked.</summary>
/// <param name="BatchId">The batch.</param>
/// <param name="Name">The dish.</param>
/// <param name="Day">When it is cooked.</param>
public sealed record ForBatch(Guid BatchId, string Name, DateOnly Day) : NeedSource;

/// <summary>Something that lies on an eater's day as it is.</summary>
/// <param name="ItemId">The thing on the day.</param>
/// <param name="Eater">Whose day.</param>
/// <param name="Day">The day.</param>
public sealed record ForDay(Guid ItemId, string Eater, DateOnly Day) : NeedSource;

/// <summary>Something that no plan asks for: the household wrote it on the list.</summary>
/// <param name="Id">The item.</param>
/// <param name="Text">As written.</param>
public sealed record ByHand(Guid Id, string Text) : NeedSource;

/// <summary>Something needed, and what for.</summary>
/// <param name="What">The food and how much, as purchased; nothing for a pinch.</param>
/// <param name="Source">What for.</param>
public sealed record PlannedNeed(Needed What, NeedSource Source)
{
    /// <summary>Whether only some of it is needed, which nobody weighs: a pinch of salt.</summary>
    public bool IsSome => What.Purchased == Grams.Zero;
}
