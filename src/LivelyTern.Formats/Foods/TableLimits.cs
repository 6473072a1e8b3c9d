using System.Globalization;
using LivelyTern.Core.Measures;

namespace LivelyTern.Formats.Foods;

/// <summary>How large a table of foods may be, and what its figures may be before anything is worked out with them.</summary>
internal static class TableLimits
{
    /// <summary>Columns of a table. The Indian tables that ship with the program have 423: each figure with its error.</summary>
    public const int Columns = 500;

    /// <summary>Foods of a file.</summary>
    public const int Rows = 2_000_000;

    /// <summary>Letters of a table's row.</summary>
    public const int RowLetters = 20_480;

    /// <summary>Bytes of one food written as JSON, with all its nutrients.</summary>
    public const int JsonBytes = 1 << 20;

    // Far beyond what 100 g can hold, so that the row is refused for it, and near enough to be worked with.
    private const decimal Beyond = 1_000_000_000m;

    /// <summary>Refuses a file of too many foods.</summary>
    /// <param name="row">The row that is read.</param>
    public static void MayHave(long row)
    {
        if (row > Rows)
            throw new UnreadableFileException($"There are more than {Rows / 1_000_000} million foods in it: take a part of it.");
    }

    /// <summary>A figure that can be worked with.</summary>
    public static decimal Figure(decimal value) => Math.Clamp(value, -Beyond, Beyond);

    /// <summary>A figure that can be worked with, to seven digits; it is a number.</summary>
    public static decimal Figure(float value) => (decimal)Math.Clamp(value, (float)-Beyond, (float)Beyond);

    /// <summary>The grams of one of a household measure, as they are written; null where they can't be.</summary>
    /// <param name="weight">Grams of all of them.</param>
    /// <param name="many">How many.</param>
    public static string? Weight(decimal weight, decimal many)
    {
        if (weight is <= 0 or > Limits.HeaviestGrams || many is < Limits.Lightest or > Limits.LargestNumber) return null;
        var grams = weight / many;
        return grams is >= Limits.Lightest and <= Limits.HeaviestGrams ? grams.ToString("0.##", CultureInfo.InvariantCulture) : null;
    }
}
