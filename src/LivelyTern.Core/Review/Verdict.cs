using LivelyTern.Core.Measures;
using LivelyTern.Core.Plan.Menus;

namespace LivelyTern.Core.Review;

/// <summary>How a dish came to the table.</summary>
public enum Serving
{
    /// <summary>On the day it was cooked.</summary>
    Fresh,

    /// <summary>Later, out of its box.</summary>
    Reheated,
}

/// <summary>How it tasted.</summary>
public enum Taste
{
    /// <summary>A favourite.</summary>
    Favourite,

    /// <summary>Good.</summary>
    Good,

    /// <summary>All right.</summary>
    Fair,

    /// <summary>Not to this eater's taste.</summary>
    NotMine,
}

/// <summary>How it stood reheating, or keeping.</summary>
public enum Stood
{
    /// <summary>Like fresh.</summary>
    Well,

    /// <summary>A little less.</summary>
    Fairly,

    /// <summary>Poorly.</summary>
    Poorly,
}

/// <summary>The work it was.</summary>
public enum Effort
{
    /// <summary>Little.</summary>
    Little,

    /// <summary>Worth it.</summary>
    WorthIt,

    /// <summary>Too much.</summary>
    TooMuch,
}

/// <summary>Whether to make it again.</summary>
public enum Again
{
    /// <summary>Just so.</summary>
    Yes,

    /// <summary>With changes.</summary>
    Changed,

    /// <summary>Not again.</summary>
    No,
}

/// <summary>What an eater says of a batch; whatever is null was not said.</summary>
/// <param name="Taste">How it tasted.</param>
/// <param name="Reheats">How it stood reheating; of what was reheated only.</param>
/// <param name="Keeps">How it stood keeping; of what was kept only.</param>
/// <param name="Effort">The work it was.</param>
/// <param name="Again">Whether to make it again.</param>
/// <param name="ToChange">What is to be different next time.</param>
public sealed record Verdict(Taste? Taste, Stood? Reheats, Stood? Keeps, Effort? Effort, Again? Again, string? ToChange)
{
    /// <summary>The most letters of what is to be different.</summary>
    public const int Longest = 300;

    /// <summary>The same as it is kept, or what is wrong with it: of what was eaten fresh it can't be said how it reheats.</summary>
    public Outcome<Verdict> For(Serving serving)
    {
        var text = string.Join(' ', (ToChange ?? "").Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries));
        if (text.Length > Longest) return new Problem("verdict-long", "toChange", $"Up to {Longest} letters.");
        if (serving == Serving.Fresh && (Reheats ?? Keeps) is not null)
            return new Problem("verdict-fresh", "reheats", "It was eaten fresh: how it keeps and reheats is said of what was reheated.");
        return this with { ToChange = text.Length > 0 ? text : null };
    }
}

/// <summary>A verdict, and of what it is.</summary>
/// <param name="EaterId">Whose.</param>
/// <param name="Serving">How it came to the table.</param>
/// <param name="CookedOn">When the batch was cooked.</param>
/// <param name="Verdict">What was said.</param>
public sealed record SaidOfDish(Guid EaterId, Serving Serving, DateOnly CookedOn, Verdict Verdict);

/// <summary>What verdicts say, and what a household thinks of a dish.</summary>
public static class Opinions
{
    /// <summary>Whether nothing is said.</summary>
    public static bool IsEmpty(this Verdict verdict) =>
        verdict is { Taste: null, Reheats: null, Keeps: null, Effort: null, Again: null, ToChange: null };

    /// <summary>Whether the eater would have the dish again; null where that can't be told.</summary>
    public static bool? IsWanted(this Verdict verdict)
    {
        ArgumentNullException.ThrowIfNull(verdict);
        return verdict switch
        {
            { Again: Again.No } => false,
            { Again: not null } => true,
            { Taste: Taste.Favourite or Taste.Good } => true,
            { Taste: Taste.NotMine } => false,
            _ => null,
        };
    }

    /// <summary>
    /// Each eater by what they said last; of one batch what they said of it reheated goes before: that is how most of its boxes are eaten.
    /// </summary>
    public static DishOpinion Of(IEnumerable<SaidOfDish> said)
    {
        ArgumentNullException.ThrowIfNull(said);
        var latest = said.OrderByDescending(one => one.CookedOn).ThenByDescending(one => one.Serving).ToList();
        var wanted = latest.Where(one => one.Verdict.IsWanted() is not null).DistinctBy(one => one.EaterId)
            .Select(one => one.Verdict.IsWanted()!.Value).ToList();
        var newest = latest.Count == 0 ? [] : latest.Where(one => one.CookedOn == latest[0].CookedOn);
        var changes = newest.Select(one => one.Verdict.ToChange).OfType<string>().Distinct(StringComparer.OrdinalIgnoreCase).ToList();
        return new(
            wanted.Count(again => again), wanted.Count(again => !again), changes.Count > 0 ? string.Join("; ", changes) : null);
    }
}
