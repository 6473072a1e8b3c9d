using LivelyTern.Core.Foods;

namespace LivelyTern.Core.Recipes;

/// <summary>The two letters and the tint by which a dish is known on every tape label.</summary>
/// <param name="Letters">Two letters, "LD".</param>
/// <param name="Tint">One of eight tints with patterns, 0 to 7.</param>
public sealed record TapeMark(string Letters, int Tint)
{
    /// <summary>How many tints there are.</summary>
    public const int Tints = 8;

    /// <summary>
    /// A mark for a new dish: initials of its first two telling words where they are free ("Lentil dal" is LD), else the first letter
    /// with each later letter of the name, else with digits; and the tint used least so far. Where all its letters are taken, those that no
    /// other dish has under that tint: letters and pattern together stay apart as long as there are any left.
    /// </summary>
    /// <param name="name">The dish.</param>
    /// <param name="taken">The marks of the other dishes.</param>
    public static TapeMark For(string name, IReadOnlyCollection<TapeMark> taken)
    {
        ArgumentNullException.ThrowIfNull(name);
        ArgumentNullException.ThrowIfNull(taken);
        var words = FoodWords.Telling(name).Select(word => new string([.. word.Where(char.IsLetterOrDigit)])).Where(word => word.Length > 0)
            .ToList();
        var all = string.Concat(words).ToUpperInvariant();
        var first = all.Length > 0 ? all[0] : 'X';
        IEnumerable<string> initials = words.Count > 1 ? words.Skip(1).Select(word => $"{first}{char.ToUpperInvariant(word[0])}") : [];
        List<string> wishes =
        [
            .. initials, .. all.Skip(1).Select(letter => $"{first}{letter}"),
            .. Enumerable.Range(1, 10).Select(digit => $"{first}{digit % 10}"),
        ];
        bool IsTaken(string letters) => taken.Any(mark => string.Equals(mark.Letters, letters, StringComparison.Ordinal));
        var byUse = Enumerable.Range(0, Tints).OrderBy(tint => taken.Count(mark => mark.Tint == tint)).ToList();
        if (wishes.Find(wish => !IsTaken(wish)) is { } letters) return new(letters, byUse[0]);
        var pairs = byUse.SelectMany(tint => wishes.Select(wish => new TapeMark(wish, tint)));
        return pairs.FirstOrDefault(mark => !taken.Contains(mark)) ?? new(wishes[0], byUse[0]);
    }
}
