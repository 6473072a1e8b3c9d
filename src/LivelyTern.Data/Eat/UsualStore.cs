using LivelyTern.Core.Eat;
using LivelyTern.Core.Plan;
using LivelyTern.Data.Plan;

namespace LivelyTern.Data.Eat;

/// <summary>What an eater has usually (<see cref="UsualEntries"/>).</summary>
public sealed class UsualStore(PlanStore plan, TimeProvider clock)
{
    /// <summary>What is offered for a day, the likeliest first.</summary>
    /// <param name="where">Whose day.</param>
    /// <param name="most">How many.</param>
    public async Task<IReadOnlyList<UsualEntry>> OfAsync(EaterDay where, int most)
    {
        var zone = clock.LocalTimeZone;
        var board = await plan.PlainAsync(where.EaterId, where.Day.AddDays(-UsualEntries.Days), where.Day);
        EatenOnce Once(DateOnly day, PlanItem item)
        {
            var at = TimeZoneInfo.ConvertTime(item.EatenAt!.Value, zone);
            return new(item.Id, item.What, day, DateOnly.FromDateTime(at.DateTime) == day ? TimeOnly.FromDateTime(at.DateTime) : null);
        }

        var eaten = board.Days.SelectMany(day => day.Value.Select(item => Once(day.Key.Day, item)));
        TimeOnly? hour = where.Day == clock.Today() ? TimeOnly.FromDateTime(clock.GetLocalNow().DateTime) : null;
        return UsualEntries.Of(eaten, where.Day, hour, most);
    }
}
