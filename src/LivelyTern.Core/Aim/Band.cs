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

/// <summary>
/// What a day may hold of one measure, as it was written: each bound optional, in kcal, grams or points. What a day is read by are its
/// bounds, <see cref="Resolved"/>.
/// </summary>
/// <param name="Min">At least this.</param>
/// <param name="Target">About this.</param>
/// <param name="Max">At most this.</param>
public sealed record Band(decimal? Min = null, decimal? Target = null, decimal? Max = null)
{
    /// <summary>The share of a target that is fine either way where nothing else is said.</summary>
    public const decimal UsualTolerance = 0.05m;

    /// <summary>How far from the target is fine, either way.</summary>
    public decimal? Tolerance { get; init; }

    /// <summary>
    /// The band with all its bounds: a least or most of its own holds; else it follows from the target and its tolerance, which is 5 % of
    /// the target where none is said. 2,000 give or take 50 is 1,950 to 2,050; 2,000 alone is 1,900 to 2,100.
    /// </summary>
    public Band Resolved()
    {
        if (Target is not { } target) return this;
        var tolerance = Tolerance ?? (target * UsualTolerance);
        return this with { Min = Min ?? Math.Max(0, target - tolerance), Max = Max ?? (target + tolerance) };
    }

    /// <summary>The band without the bounds that follow from its target and tolerance: as it would be written.</summary>
    public Band Written()
    {
        if (Target is not { } target || Tolerance is not { } tolerance) return this;
        return this with
        {
            Min = Min == Math.Max(0, target - tolerance) ? null : Min,
            Max = Max == target + tolerance ? null : Max,
        };
    }

    /// <summary>
    /// This band, as written, with what another day says of it in place: what the day leaves open stays as usual, its give-or-take too. Of
    /// the usual numbers those go that contradict the day's own. 2,100 give or take 100 is, on a day of 2,600, 2,600 give or take 100.
    /// </summary>
    public Band With(Band day)
    {
        ArgumentNullException.ThrowIfNull(day);
        var both = new Band(day.Min ?? Min, day.Target ?? Target, day.Max ?? Max) { Tolerance = day.Tolerance ?? Tolerance };
        bool Contradicts(decimal? low, decimal? high) => low > high;
        if (day.Max is null && (Contradicts(both.Min, both.Max) || Contradicts(both.Target, both.Max))) both = both with { Max = null };
        if (day.Min is null && (Contradicts(both.Min, both.Max) || Contradicts(both.Min, both.Target))) both = both with { Min = null };
        if (day.Target is null && (Contradicts(both.Min, both.Target) || Contradicts(both.Target, both.Max)))
            both = both with { Target = null, Tolerance = null };
        return both;
    }

    /// <summary>What a day goes for: the target, else the most, else the least; null without a bound.</summary>
    public decimal? Goal => Target ?? Max ?? Min;

    /// <summary>
    /// The same band around another goal: every bound moves by as much. 1,900 to 2,100 around 2,000 is, around 1,800, 1,700 to 1,900. A
    /// band without a bound stays open.
    /// </summary>
    public Band MovedTo(decimal goal)
    {
        if (Goal is not { } was) return this;
        decimal? Moved(decimal? bound) => bound is { } value ? Math.Max(0, value + goal - was) : null;
        return this with { Min = Moved(Min), Target = Moved(Target), Max = Moved(Max) };
    }

    /// <summary>A share of it: 0.7 of 2,000 give or take 100 is 1,400 give or take 70.</summary>
    public static Band operator *(Band band, decimal share)
    {
        ArgumentNullException.ThrowIfNull(band);
        return new(band.Min * share, band.Target * share, band.Max * share) { Tolerance = band.Tolerance * share };
    }

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

    /// <summary>
    /// Reads a total against the band's bounds. 1,685 against 1,450 to 1,600 is 85 over; 1,336 has room for 114 to 264. What is past the
    /// most may be covered by a reserve: 1,685 with 100 in reserve draws 85 and lies within.
    /// </summary>
    /// <param name="total">What the day holds.</param>
    /// <param name="reserve">What may be drawn on past the most.</param>
    public BandReading Read(Total total, decimal reserve = 0)
    {
        var (value, band) = (total.Known, Resolved());
        var drawn = Math.Clamp(value - (band.Max ?? value), 0, Math.Max(0, reserve));
        var most = band.Max + drawn;
        var position = value > most ? BandPosition.Over : value < band.Min ? BandPosition.Under : BandPosition.Within;
        return new(
            position,
            Over: value > most ? value - most : null,
            RoomFrom: value < band.Min ? band.Min - value : null,
            RoomTo: most is { } max && value <= max ? max - value : null,
            Left: band.Goal - value)
        {
            Drawn = drawn > 0 ? drawn : null,
            Certainty = total.Certainty,
            IsSure = total.Certainty switch
            {
                Certainty.Exact => true,
                Certainty.AtLeast => band.Max is null || value > most,
                Certainty.AtMost => band.Min is null || value < band.Min,
                _ => false,
            },
        };
    }
}

/// <summary>A total against its band, in the measure's own unit.</summary>
/// <param name="Position">Under, within or over.</param>
/// <param name="Over">How far past the maximum, or null.</param>
/// <param name="RoomFrom">What is still missing to the minimum, or null.</param>
/// <param name="RoomTo">What still fits under the maximum, or null.</param>
/// <param name="Left">What is left to the target (else the maximum, else the minimum); below zero where it is passed; null without a
/// bound.</param>
public sealed record BandReading(BandPosition Position, decimal? Over, decimal? RoomFrom, decimal? RoomTo, decimal? Left)
{
    /// <summary>What was drawn from the reserve to lie within, or nearer; null for nothing.</summary>
    public decimal? Drawn { get; init; }

    /// <summary>How certain the total is that was read.</summary>
    public Certainty Certainty { get; init; }

    /// <summary>
    /// Whether the true total lies there too, whatever is not known of it: at most 23 of at most 26 is sure, at least 23 is not.
    /// </summary>
    public bool IsSure { get; init; } = true;
}
