using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Aim;

/// <summary>A part of the day in which an eater eats.</summary>
/// <param name="Name">The eater's own word for it: "before the watch".</param>
/// <param name="At">When, or null.</param>
/// <param name="Share">The share of the day's leading measure it should hold, 0 to 1; null where it does not matter.</param>
/// <param name="TakesBox">Whether a box is eaten then.</param>
public sealed record Slot(string Name, TimeOnly? At, decimal? Share, bool TakesBox);

/// <summary>Bands of other days: those of a weekday, or of one date, in place of the usual ones.</summary>
/// <param name="Name">Why: "training day", "party".</param>
/// <param name="Weekday">Every such day; null for one date.</param>
/// <param name="Date">That one day; null for a weekday.</param>
/// <param name="Bands">The bands that differ; a measure that is not here keeps its usual band.</param>
public sealed record OtherDay(string Name, DayOfWeek? Weekday, DateOnly? Date, IReadOnlyDictionary<Measure, Band> Bands);

/// <summary>An eater is away: for a whole day, or for one of its parts.</summary>
/// <param name="Day">The day.</param>
/// <param name="Slot">The part, by name; null for the whole day.</param>
public sealed record Away(DateOnly Day, string? Slot);

/// <summary>How an eater eats: other bands on some days, slots, a reserve, what they must never get, would rather not, and like.</summary>
public sealed record EatingWays
{
    /// <summary>Nothing said: usual days, the starting slots.</summary>
    public static EatingWays Plain { get; } = new();

    /// <summary>Slots for an eater who has named none.</summary>
    public static IReadOnlyList<Slot> StartingSlots { get; } =
    [
        new("morning", new(7, 30), 0.25m, true), new("noon", new(12, 30), 0.3m, true),
        new("evening", new(18, 30), 0.35m, true), new("between", null, 0.1m, false),
    ];

    /// <summary>Bands of weekdays and dates that differ.</summary>
    public IReadOnlyList<OtherDay> OtherDays { get; init; } = [];

    /// <summary>The eater's own slots, in the order of the day; empty for the starting ones.</summary>
    public IReadOnlyList<Slot> OwnSlots { get; init; } = [];

    /// <summary>A weekly amount of the leading measure that any day may draw on past its maximum; null for none.</summary>
    public decimal? Reserve { get; init; }

    /// <summary>Allergens they must never get.</summary>
    public IReadOnlyList<Allergen> NeverAllergens { get; init; } = [];

    /// <summary>Ids of foods they must never get.</summary>
    public IReadOnlyList<string> NeverFoods { get; init; } = [];

    /// <summary>Ids of foods they would rather not.</summary>
    public IReadOnlyList<string> RatherNot { get; init; } = [];

    /// <summary>Amounts they like to fill a gap with: "1 apple".</summary>
    public IReadOnlyList<string> Likes { get; init; } = [];

    /// <summary>How many boxes of one batch are welcome in a week; null where the same all week is fine.</summary>
    public int? BoxesAlike { get; init; }

    /// <summary>How many fillers a fit may lay on a day; null for as many as it takes.</summary>
    public int? FillersADay { get; init; }

    /// <summary>When they are away.</summary>
    public IReadOnlyList<Away> Away { get; init; } = [];

    /// <summary>The slots of a day, own or starting.</summary>
    public IReadOnlyList<Slot> Slots => OwnSlots.Count > 0 ? OwnSlots : StartingSlots;

    /// <summary>Whether they are away all day: then the day asks nothing.</summary>
    public bool IsAway(DateOnly day) => Away.Any(away => away.Day == day && away.Slot is null);

    /// <summary>The slots of a day in which they are here.</summary>
    public IReadOnlyList<Slot> SlotsOn(DateOnly day)
    {
        bool IsHere(Slot slot) =>
            !Away.Any(away => away.Day == day && string.Equals(away.Slot, slot.Name, StringComparison.OrdinalIgnoreCase));
        return IsAway(day) ? [] : Away.Any(away => away.Day == day) ? [.. Slots.Where(IsHere)] : Slots;
    }

    // How much of a day is spent here, 0 to 1: away at noon, which is 30 % of the day, 0.7. A slot without a share is as large as another.
    private decimal ShareHere(DateOnly day)
    {
        decimal ShareOf(IReadOnlyList<Slot> slots) => slots.Sum(slot => slot.Share ?? (1m / Slots.Count));
        var (here, all) = (SlotsOn(day), ShareOf(Slots));
        return here.Count == Slots.Count || all <= 0 ? 1 : ShareOf(here) / all;
    }

    /// <summary>
    /// The aim of a day, with all its bounds: what its date says, else its weekday, else the usual day, number by number. See
    /// <see cref="Band.With"/>. Away all day it asks nothing; away for a part of it, the rest is asked for its share.
    /// </summary>
    public DayAim AimOn(DayAim usual, DateOnly day)
    {
        ArgumentNullException.ThrowIfNull(usual);
        var bands = usual.Bands.ToDictionary();
        foreach (var other in OtherDays.Where(other => other.Weekday == day.DayOfWeek).Concat(OtherDays.Where(other => other.Date == day)))
        {
            foreach (var (measure, band) in other.Bands) bands[measure] = bands.GetValueOrDefault(measure, Band.Open).With(band);
        }

        if (IsAway(day)) return usual with { Bands = new Dictionary<Measure, Band>(), IsAway = true };
        var aim = (usual with { Bands = bands }).Resolved();
        var here = ShareHere(day);
        return here == 1 ? aim : aim with { Bands = aim.Bands.ToDictionary(band => band.Key, band => band.Value * here) };
    }

    /// <summary>
    /// Whether the eater must never get this: an allergen, a food, or, where allergens matter, a food whose allergens nobody stated.
    /// </summary>
    /// <param name="contents">What it holds.</param>
    public bool Forbids(Contents contents) => WhyNever(contents) is not null;

    /// <summary>Why the eater must never get this; null where they may.</summary>
    /// <param name="contents">What it holds.</param>
    public Never? WhyNever(Contents contents)
    {
        ArgumentNullException.ThrowIfNull(contents);
        if (NeverAllergens.Count == 0 && NeverFoods.Count == 0) return null;
        var foods = contents.Ingredients.Select(part => part.Food).ToList();
        var allergens = NeverAllergens.Count == 0 ? [] : contents.Allergens.Intersect(NeverAllergens).ToList();
        var excluded = foods.Where(food => NeverFoods.Contains(food.Id, StringComparer.Ordinal));
        var named = excluded.Select(food => food.Name).Distinct(StringComparer.Ordinal).ToList();
        var isUnknown = NeverAllergens.Count > 0 && !contents.KnowsAllergens;
        return allergens.Count + named.Count > 0 || isUnknown ? new(allergens, named, isUnknown) : null;
    }

    /// <summary>Whether the eater would rather not have this.</summary>
    public bool Dislikes(Contents contents)
    {
        ArgumentNullException.ThrowIfNull(contents);
        return contents.Ingredients.Any(part => RatherNot.Contains(part.Food.Id, StringComparer.Ordinal));
    }

    /// <summary>What is wrong, field by field.</summary>
    /// <param name="usual">The usual day.</param>
    /// <param name="clinicianSetIt">A deliberate confirmation that a clinician set an energy aim below the floor.</param>
    public IEnumerable<Problem> Problems(DayAim usual, bool clinicianSetIt)
    {
        ArgumentNullException.ThrowIfNull(usual);
        foreach (var (other, i) in OtherDays.Select((other, i) => (other, i)))
        {
            var at = $"ways.otherDays[{i}]";
            if (other.Name.Trim().Length is 0 or > 40)
                yield return new("other-day-name", $"{at}.name", "Say in up to 40 letters what day that is.");
            if (other.Weekday is null == other.Date is null) yield return new("other-day-when", at, "Choose either a weekday or a date.");
            if (other.Bands.Count == 0) yield return new("other-day-empty", at, "Say what that day may hold.");
            var aim = usual with { Bands = other.Bands.ToDictionary(band => band.Key, band => usual[band.Key].With(band.Value)) };
            var ofBands = aim.Problems(clinicianSetIt).Where(problem => problem.Field.StartsWith("bands.", StringComparison.Ordinal));
            foreach (var problem in ofBands) yield return problem with { Field = $"{at}.{problem.Field}" };
        }

        if (OtherDays.Count > 200)
            yield return new("other-days-many", "ways.otherDays", "Up to 200 other days: take off those that are past.");
        if (OtherDays.Select(other => (other.Weekday, other.Date)).Distinct().Count() != OtherDays.Count)
            yield return new("other-day-twice", "ways.otherDays", "A day is named twice: keep one of the two.");
        if (OwnSlots.Count > 8) yield return new("slots-many", "ways.ownSlots", "A day has up to 8 slots.");
        if (OwnSlots.Any(slot => slot.Name.Trim().Length is 0 or > 24))
            yield return new("slot-name", "ways.ownSlots", "Give each slot a name of up to 24 letters.");
        else if (OwnSlots.Select(slot => slot.Name.Trim()).Distinct(StringComparer.OrdinalIgnoreCase).Count() != OwnSlots.Count)
            yield return new("slot-twice", "ways.ownSlots", "Two slots have the same name.");
        if (OwnSlots.Any(slot => slot.Share is < 0 or > 1) || OwnSlots.Sum(slot => slot.Share ?? 0) > 1.0001m)
            yield return new("slot-shares", "ways.ownSlots", "The shares of the day come to more than the whole.");
        if (Reserve is < 0 or > Band.Largest)
            yield return new("reserve-absurd", "ways.reserve", "A weekly reserve lies between 0 and 20,000.");
        if (BoxesAlike is < 1 or > 99)
            yield return new("alike-absurd", "ways.boxesAlike", "Say how many boxes of one batch are welcome in a week, from 1.");
        if (FillersADay is < 0 or > 40)
            yield return new("fillers-absurd", "ways.fillersADay", "Say how many small things a day may take, from 0 to 40.");
        if (NeverFoods.Count + RatherNot.Count + Likes.Count > 600)
            yield return new("ways-many", "ways", "Up to 600 foods can be named here.");
        if (Likes.Any(text => text.Length > 200)) yield return new("line-long", "ways.likes", "An amount holds up to 200 letters.");
        if (NeverFoods.Intersect(RatherNot, StringComparer.Ordinal).Any())
            yield return new("never-and-rather", "ways.ratherNot", "A food is named both as never and as rather not: keep one.");
    }
}
