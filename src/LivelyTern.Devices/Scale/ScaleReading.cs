namespace LivelyTern.Devices.Scale;

/// <summary>How a kitchen scale's reading stands.</summary>
public enum ScaleState
{
    /// <summary>Something was just put on or taken off: the reading still moves.</summary>
    Settling,

    /// <summary>The reading has come to rest.</summary>
    Stable,

    /// <summary>More is on it than it can weigh: there is no reading.</summary>
    Overload,

    /// <summary>It turned itself off: there is no reading.</summary>
    Off,
}

/// <summary>What a kitchen scale shows.</summary>
/// <param name="At">When, by the scale's clock.</param>
/// <param name="Grams">
/// Grams since it was set to nothing, in whole grams; below zero for what is taken out. Null where there is none.
/// </param>
/// <param name="State">How it stands.</param>
/// <param name="Unit">What its own display shows: "g" or "oz". The reading here is in grams all the same.</param>
public sealed record ScaleReading(DateTimeOffset At, decimal? Grams, ScaleState State, string Unit);
