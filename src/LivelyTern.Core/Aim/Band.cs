using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Aim;

/// <summary>Where a total lies against its band.</summary>
public enum BandPosition
{
    /// <summary>Below the minimum: there is room.</summary>
    Under,

    /// <summary>Inside the band, or no bound is set.</summary>
    Within,

    /// <summary>Above the maximum.</summary>
    Over,
}

/// <summary>What a day may hold of one measure: each bound optional, in kcal, grams or points.</summary>
/// <param name="Min">At least this.</param>
/// <param name="Target">About this.</param>
/// <param name="Max">At most this.</param>
public sealed record Band(decimal? Min = null, decimal? Target = null, decimal? Max = null)
{
    /// <summary>How far from the target is fine, either way; the bounds are then the target less and more this.</summary>
    public decimal? Tolerance { get; init; }

    /// <summary>The band with its bounds taken from target and tolerance: 2,000 give or take 50 is 1,950 to 2,050.</summary>
    public Band Resolved() =>
        Target is { } target && Tolerance is { } tolerance
            ? this with { Min = Math.Max(0, target - tolerance), Max = target + tolerance }
            : this;

    /// <summary>No bound at all.</summary>
    public static Band Open { get; } = new();

    /// <summary>Whether no bound is set.</summary>
    public bool IsOpen => Min is null && Target is null && Max is null;

    /// <summary>The largest bound a day can mean, in any measure.</summary>
    public const decimal Largest = 20_000m;

    /// <summary>What is wrong with the band: a bound below zero or beyond reason, or bounds out of order.</summary>
    /// <param name="field">The field's name in the request.</param>
    public IEnumerable<Problem> Problems(string field)
    {
        foreach (var (bound, name) in new[] { (Min, "min"), (Target, "target"), (Max, "max") })
        {
            if (bound < 0) yield return new("bound-negative", $"{field}.{name}", "This can't be below zero.");
            if (bound > Largest)
                yield return new("bound-absurd", $"{field}.{name}", $"More than {Largest:0} a day can't be meant: check the number.");
        }

        if (Tolerance < 0) yield return new("bound-negative", $"{field}.tolerance", "This can't be below zero.");
        if (Tolerance is not null && Target is null)
            yield return new("tolerance-alone", $"{field}.target", "Give or take from what? Set the target.");
        if (Min > Max) yield return new("bounds-crossed", $"{field}.max", $"The most ({Max:0.##}) is below the least ({Min:0.##}).");
        else if (Min > Target)
            yield return new("bounds-crossed", $"{field}.target", $"The target ({Target:0.##}) is below the least ({Min:0.##}).");
        else if (Target > Max)
            yield return new("bounds-crossed", $"{field}.target", $"The target ({Target:0.##}) is above the most ({Max:0.##}).");
    }

    /// <summary>Reads a total against the band. 1,685 against 1,450 to 1,600 is 85 over; 1,336 has room for 114 to 264.</summary>
    public BandReading Read(Total total)
    {
        var value = total.AtLeast;
        var position = value > Max ? BandPosition.Over : value < Min ? BandPosition.Under : BandPosition.Within;
        var goal = Target ?? Max ?? Min;
        return new(
            position,
            Over: value > Max ? value - Max : null,
            RoomFrom: value < Min ? Min - value : null,
            RoomTo: Max is { } max && value <= max ? max - value : null,
            Left: goal - value);
    }
}

/// <summary>A total against its band, in the measure's own unit.</summary>
/// <param name="Position">Under, within or over.</param>
/// <param name="Over">How far past the maximum, or null.</param>
/// <param name="RoomFrom">What is still missing to the minimum, or null.</param>
/// <param name="RoomTo">What still fits under the maximum, or null.</param>
/// <param name="Left">What is left to the target (else the maximum, else the minimum); below zero where it is passed; null without a
/// bound.</param>
public sealed record BandReading(BandPosition Position, decimal? Over, decimal? RoomFrom, decimal? RoomTo, decimal? Left);
