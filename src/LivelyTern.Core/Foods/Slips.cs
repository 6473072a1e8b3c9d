using System.Numerics;

namespace LivelyTern.Core.Foods;

/// <summary>Typing slips in a word: a letter wrong, missing, too many, or two swapped.</summary>
public static class Slips
{
    private const int MostForgiven = 2, Longest = 32;

    /// <summary>How many slips are forgiven in a word of this many letters: none up to 3, one up to 7, two from 8.</summary>
    public static int Forgiven(int letters) => letters switch { < 4 => 0, < 8 => 1, _ => MostForgiven };

    /// <summary>
    /// The slips by which a word may be what was meant, the typed letters being the word or its beginning; null where they are too many for
    /// so few letters.
    /// </summary>
    /// <param name="typed">As typed, lower case.</param>
    /// <param name="word">A word of a food's name, lower case.</param>
    public static int? To(string typed, string word)
    {
        ArgumentNullException.ThrowIfNull(typed);
        return AtMost(Forgiven(typed.Length), typed, word);
    }

    /// <summary>
    /// The fewest slips between what was typed and the word or a beginning of it (optimal string alignment distance), or null where there
    /// are more than are ever forgiven. "chikpeas" is one slip from "chickpeas", "lentlis" one from "lentils".
    /// </summary>
    public static int? Between(string typed, string word) => AtMost(MostForgiven, typed, word);

    /// <summary>The letters of a word, one bit for each of a to z, and one for all that is none of them.</summary>
    internal static uint Letters(string word)
    {
        var letters = 0u;
        foreach (var letter in word) letters |= 1u << (char.IsAsciiLetterLower(letter) ? letter - 'a' : 26);
        return letters;
    }

    /// <summary>
    /// Whether the letters of a word let it be what was typed: each letter that was typed and that it has not takes a slip.
    /// </summary>
    internal static bool MayBe(string typed, uint lettersTyped, uint letters) =>
        BitOperations.PopCount(lettersTyped & ~letters) <= Forgiven(typed.Length);

    private static int? AtMost(int most, string typed, string word)
    {
        ArgumentNullException.ThrowIfNull(typed);
        ArgumentNullException.ThrowIfNull(word);
        if (typed.Length - word.Length > most) return null;
        var width = Math.Min(word.Length, typed.Length + most);

        var many = width + 1;
        Span<int> rows = many <= Longest ? stackalloc int[3 * Longest] : new int[3 * many];
        Span<int> twoBack = rows[..many], back = rows.Slice(many, many), row = rows.Slice(2 * many, many);
        for (var j = 0; j <= width; j++) back[j] = j;
        for (var i = 1; i <= typed.Length; i++)
        {
            row[0] = i;
            var least = i;
            for (var j = 1; j <= width; j++)
            {
                var same = typed[i - 1] == word[j - 1] ? 0 : 1;
                row[j] = Math.Min(Math.Min(row[j - 1], back[j]) + 1, back[j - 1] + same);
                if (i > 1 && j > 1 && typed[i - 1] == word[j - 2] && typed[i - 2] == word[j - 1])
                    row[j] = Math.Min(row[j], twoBack[j - 2] + 1);
                least = Math.Min(least, row[j]);
            }

            if (least > most) return null;
            var third = twoBack;
            twoBack = back;
            back = row;
            row = third;
        }

        var fewest = most + 1;
        foreach (var slips in back) fewest = Math.Min(fewest, slips);
        return fewest <= most ? fewest : null;
    }
}
