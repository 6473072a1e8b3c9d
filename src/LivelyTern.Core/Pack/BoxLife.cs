namespace LivelyTern.Core.Pack;

/// <summary>Where a box stands in its life.</summary>
public enum BoxState
{
    /// <summary>Full.</summary>
    Packed,

    /// <summary>Some of it was eaten; the rest is in it.</summary>
    PartEaten,

    /// <summary>Eaten.</summary>
    Eaten,

    /// <summary>Given away; what was eaten of it before stays eaten.</summary>
    GivenAway,

    /// <summary>Thrown away; what was eaten of it before stays eaten.</summary>
    ThrownAway,

    /// <summary>Emptied back into its pan: it was packed by mistake, or is packed anew.</summary>
    EmptiedBack,
}

/// <summary>Where a box is.</summary>
public enum BoxPlace
{
    /// <summary>In the fridge.</summary>
    Fridge,

    /// <summary>In the freezer.</summary>
    Freezer,

    /// <summary>Out on the counter.</summary>
    Counter,

    /// <summary>Taken along.</summary>
    TakenAlong,
}

/// <summary>What happens to a box.</summary>
public enum BoxEventKind
{
    /// <summary>It was packed.</summary>
    Packed,

    /// <summary>It was put somewhere else.</summary>
    Put,

    /// <summary>It was laid on somebody's day, or taken off it.</summary>
    MeantFor,

    /// <summary>Some of it was eaten.</summary>
    PartEaten,

    /// <summary>It was eaten, or the rest of it.</summary>
    Eaten,

    /// <summary>It was not eaten after all.</summary>
    NotEaten,

    /// <summary>It was given away.</summary>
    GivenAway,

    /// <summary>It was thrown away.</summary>
    ThrownAway,

    /// <summary>It is here after all.</summary>
    Back,

    /// <summary>It was emptied back into its pan.</summary>
    EmptiedBack,

    /// <summary>Past its last day, somebody looked, and it is still here.</summary>
    StillThere,
}

/// <summary>How a box stands. Only events change it: each holds how the box stands after it.</summary>
/// <param name="State">Full, part eaten, eaten, or gone.</param>
/// <param name="Place">Where it is, or was last.</param>
/// <param name="PlacedOn">Since which day it is in the freezer, or out of it.</param>
/// <param name="FrozenOn">The day it was frozen last; null where it never was.</param>
/// <param name="For">Whose it is; null for whoever wants it.</param>
public sealed record BoxLife(BoxState State, BoxPlace Place, DateOnly PlacedOn, DateOnly? FrozenOn, Guid? For)
{
    /// <summary>A box as it comes from the bench: it goes into the fridge.</summary>
    /// <param name="on">The day it was packed.</param>
    /// <param name="eater">Whose it is; null for whoever wants it.</param>
    public static BoxLife New(DateOnly on, Guid? eater) => new(BoxState.Packed, BoxPlace.Fridge, on, null, eater);

    /// <summary>Whether there is something in it to eat.</summary>
    public bool IsThere => State is BoxState.Packed or BoxState.PartEaten;

    /// <summary>
    /// The same box put somewhere on a day. From the fridge to the counter it is no longer out of the freezer than before. Back in the
    /// freezer on the day it came out it is as if it had stayed; on a later day it is frozen anew, that day.
    /// </summary>
    public BoxLife Put(BoxPlace place, DateOnly on)
    {
        if (place == BoxPlace.Freezer == (Place == BoxPlace.Freezer)) return this with { Place = place };
        if (place != BoxPlace.Freezer) return this with { Place = place, PlacedOn = on };
        var isBackAtOnce = FrozenOn is not null && PlacedOn == on;
        return this with { Place = place, PlacedOn = on, FrozenOn = isBackAtOnce ? FrozenOn : on };
    }
}

/// <summary>A change to a box.</summary>
/// <param name="BoxId">The box.</param>
/// <param name="Kind">What happened.</param>
/// <param name="Before">How it stood.</param>
/// <param name="After">How it stands then.</param>
public sealed record BoxChange(Guid BoxId, BoxEventKind Kind, BoxLife Before, BoxLife After)
{
    /// <summary>Why, where it was given or thrown away.</summary>
    public string? Why { get; init; }

    /// <summary>The change that takes this one back; taking that back does it again, for the same reason.</summary>
    public BoxChange Inverse => new(BoxId, BoxEventKind.Back, After, Before) { Why = Why };
}
