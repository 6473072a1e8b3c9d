using LivelyTern.Core.Measures;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data;

/// <summary>Writes that carry the version they saw: a stale one is refused, never a silent win.</summary>
public static class Stale
{
    private const int Constraint = 19;

    /// <summary>The code of the refusal.</summary>
    public const string Code = "stale";

    /// <summary>The refusal itself.</summary>
    public static Problem Problem { get; } = new(
        Code, "", "This was changed elsewhere since you opened it. Look at it as it is now, then make your change again.");

    /// <summary>The code of something that is not there.</summary>
    public const string GoneCode = "not-found";

    /// <summary>Something that is not there.</summary>
    public static Problem Gone(string what) => new(GoneCode, "", $"There is no such {what} here any more.");

    /// <summary>Counts the row up and saves all, or says that another write came first.</summary>
    internal static async Task<Outcome<T>> SaveAsync<T>(this TernDb db, IVersioned row, T value)
    {
        row.Version++;
        try
        {
            await db.SaveChangesAsync();
            return value;
        }
        catch (DbUpdateConcurrencyException)
        {
            return Problem;
        }
        catch (DbUpdateException update) when (update.InnerException is SqliteException { SqliteErrorCode: Constraint })
        {
            // Another hand was first: it laid the box, or took away what this write refers to.
            return Problem;
        }
    }
}
