using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Cook.PrepDay;

/// <summary>A cook and when they are free.</summary>
/// <param name="Name">Who.</param>
/// <param name="From">From when.</param>
/// <param name="To">Until when; null for as long as it takes.</param>
public sealed record CookHours(string Name, TimeOnly From, TimeOnly? To = null);

/// <summary>How a prep day is to be.</summary>
/// <param name="Cooks">Who cooks when; at least one.</param>
/// <param name="DoneBy">By when all is to be done; null without a limit.</param>
/// <param name="Supper">When the dish of <paramref name="SupperDish"/> stands on the table; null for no supper.</param>
/// <param name="SupperDish">Which dish that is; null for none.</param>
/// <param name="LeftOut">Dishes left out of this day.</param>
/// <param name="Ahead">Dishes of later days of which what can be done ahead is done on this day.</param>
public sealed record PrepDayWishes(
    IReadOnlyList<CookHours> Cooks, TimeOnly? DoneBy = null, TimeOnly? Supper = null, Guid? SupperDish = null,
    IReadOnlyList<Guid>? LeftOut = null, IReadOnlyList<Guid>? Ahead = null)
{
    private const int MostCooks = 4, MostLeftOut = 60;

    /// <summary>One cook from ten o'clock, for as long as it takes.</summary>
    public static PrepDayWishes AtFirst { get; } = new([new("", new(10, 0))]);

    /// <summary>When the day begins: when the first cook comes.</summary>
    public TimeOnly Begins => Cooks.Min(cook => cook.From);

    /// <summary>The same day begun at another time: whoever was to come first comes then, and nobody has left before.</summary>
    public PrepDayWishes Begun(TimeOnly at)
    {
        var first = Begins;
        CookHours Hours(CookHours cook)
        {
            var from = cook.From == first || cook.From < at ? at : cook.From;
            return cook with { From = from, To = cook.To <= from ? null : cook.To };
        }

        return this with { Cooks = [.. Cooks.Select(Hours)] };
    }

    /// <summary>The same day where whoever leaves last stays as long as it takes.</summary>
    internal PrepDayWishes WithoutAnEnd()
    {
        var last = Cooks.Max(cook => cook.To);
        return this with { Cooks = [.. Cooks.Select(cook => cook.To == last ? cook with { To = null } : cook)] };
    }

    /// <summary>Minutes that whoever leaves last stays longer; 0 where they need not.</summary>
    /// <param name="lastHands">When hands are needed last, in minutes from the day's beginning.</param>
    internal int Overtime(int lastHands) => Cooks.Max(cook => cook.To) is { } last
        ? Math.Max(0, lastHands - (int)(last.ToTimeSpan() - Begins.ToTimeSpan()).TotalMinutes)
        : 0;

    /// <summary>What is wrong with them.</summary>
    public IEnumerable<Problem> Problems()
    {
        if (Cooks.Count is 0 or > MostCooks)
        {
            yield return new("cooks-many", "cooks", $"A prep day has 1 to {MostCooks} cooks.");
            yield break;
        }

        for (var i = 0; i < Cooks.Count; i++)
        {
            if (Cooks[i].Name is not { Length: <= 60 })
                yield return new("cook-name", $"cooks[{i}].name", "A name has up to 60 letters.");
            if (Cooks[i].To <= Cooks[i].From)
                yield return new("cook-hours", $"cooks[{i}].to", "A cook leaves later on the same day than they come.");
        }

        if (DoneBy <= Begins) yield return new("done-by", "doneBy", "That is before the first cook comes.");
        if (Supper <= Begins) yield return new("supper", "supper", "That is before the first cook comes.");
        if (Ahead is { Count: > MostLeftOut })
            yield return new("ahead-many", "ahead", $"Up to {MostLeftOut} dishes are prepared ahead on a day.");
        if (LeftOut is { Count: > MostLeftOut })
            yield return new("left-out-many", "leftOut", $"Up to {MostLeftOut} dishes can be left out.");
    }
}
