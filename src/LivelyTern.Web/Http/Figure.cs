using LivelyTern.Core.Aim;
using LivelyTern.Core.Measures;

namespace LivelyTern.Web.Http;

/// <summary>A number on the wire: kcal, grams or points, unrounded but for points.</summary>
/// <param name="Value">What is known of it.</param>
/// <param name="Complete">Whether all of it is known.</param>
/// <param name="Certainty">Whether the true figure may be more, less, or either.</param>
public sealed record Figure(decimal Value, bool Complete, Certainty Certainty)
{
    /// <summary>Nothing, known to be nothing.</summary>
    public static Figure None { get; } = Of(Total.None);

    /// <summary>A total as a figure.</summary>
    public static Figure Of(Total total) => new(total.Known, total.IsComplete, total.Certainty);

    /// <summary>The sum of some figures.</summary>
    public static Figure Sum(IEnumerable<Figure> figures) => Of(figures.Aggregate(Total.None, (sum, figure) => sum + figure.Total));

    /// <summary>What it is more than another.</summary>
    public Figure Less(Figure other)
    {
        ArgumentNullException.ThrowIfNull(other);
        return Of(Total + (other.Total * -1));
    }

    private Total Total => new(Value, Certainty);

    /// <summary>Totals by measure as figures.</summary>
    public static IReadOnlyDictionary<Measure, Figure> Of(IReadOnlyDictionary<Measure, Total> totals) =>
        totals.ToDictionary(pair => pair.Key, pair => Of(pair.Value));
}
