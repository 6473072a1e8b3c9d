using LivelyTern.Core.Plan;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Plan;

/// <summary>The numbers by which two hands on one day are told apart.</summary>
internal static class DayVersions
{
    /// <summary>Takes the next number for a change and marks the days it touched with it; saved with the change.</summary>
    internal static async Task<int> NextVersionAsync(this TernDb db, IEnumerable<EaterDay> touched)
    {
        var number = ++(await db.PlanVersions.SingleAsync()).Version;
        foreach (var day in touched.Distinct())
        {
            var row = await db.EaterDays.FindAsync(day.EaterId, day.Day);
            if (row is null) db.EaterDays.Add(row = new EaterDayRow { EaterId = day.EaterId, Day = day.Day });
            row.Version = number;
        }

        return number;
    }
}
