using LivelyTern.Core.Aim;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Plan;

/// <summary>An eater whose days are to be fitted or mended.</summary>
/// <param name="Eater">The eater.</param>
/// <param name="Ways">How they eat.</param>
public sealed record FittedEater(Eater Eater, EatingWays Ways)
{
    /// <summary>Whether their figures are left out of what is shown.</summary>
    public bool IsQuiet { get; init; }

    /// <summary>What things counted when they were eaten, by item.</summary>
    public IReadOnlyDictionary<Guid, IReadOnlyDictionary<Measure, Total>> Counted { get; init; } =
        new Dictionary<Guid, IReadOnlyDictionary<Measure, Total>>();

    /// <summary>What each day of the weeks around draws of its week's reserve as the plan lies; days without a draw are left out.</summary>
    public IReadOnlyDictionary<DateOnly, decimal> Drawn { get; init; } = new Dictionary<DateOnly, decimal>();

    /// <summary>What a day may hold.</summary>
    public DayAim AimOn(DateOnly day) => Ways.AimOn(Eater.Aim, day);

    /// <summary>What of the reserve the days before a day left of it.</summary>
    public decimal ReserveOn(DateOnly day) => LeftBy(KitchenDays.WeekOf(day).Where(other => other < day));

    /// <summary>What of the reserve no other day of its week draws.</summary>
    public decimal SpareReserveOn(DateOnly day) => LeftBy(KitchenDays.WeekOf(day).Where(other => other != day));

    /// <summary>Every measure of something on a day: what was eaten as it counted then.</summary>
    public IReadOnlyDictionary<Measure, Total> MeasuresOf(PlanItem item, Contents contents, DayAim aim)
    {
        ArgumentNullException.ThrowIfNull(item);
        ArgumentNullException.ThrowIfNull(aim);
        return Counted.TryGetValue(item.Id, out var counted) ? counted : aim.Count(contents);
    }

    private decimal LeftBy(IEnumerable<DateOnly> days) => Math.Max(0, (Ways.Reserve ?? 0) - days.Sum(day => Drawn.GetValueOrDefault(day)));
}
