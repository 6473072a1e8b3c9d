namespace LivelyTern.Core.Foods;

/// <summary>Typing slips in a word: a letter wrong, missing, too many, or two swapped.</summary>
public static class Slips
{
    /// <summary>How many slips are forgiven in a word of this many letters: none up to 3, one up to 7, two from 8.</summary>
    public static int Forgiven(int letters) => letters switch { < 4 => 0, < 8 => 1, _ => 2 };

    /// <summary>
    /// The slips by which a word may be what was meant, the typed letters being the word or its beginning; null where they are too many for
    /// so few letters.
    /// </summary>
    /// <param name="typed">As typed, lower case.</param>
    /// <param name="word">A word of a food's name, lower case.</param>
    public static int? To(string typed, string word) => Between(typed, word) is { } slips && slips <= Forgiven(typed.Length) ? slips : null;

    /// <summary>
    /// The fewest slips between what was typed and the word or a beginning of it (optimal string alignment distance), or null where there
    /// are more than are ever forgiven. "chikpeas" is one slip from "chickpeas", "lentlis" one from "lentils".
    /// </summary>
    public static int? Between(string typed, string word)
    {
        ArgumentNullException.ThrowIfNull(typed);
        ArgumentNullException.ThrowIfNull(word);
        const int Most = 2;
        if (typed.Length - word.Length > Most) return null;
        var width = Math.Min(word.Length, typed.Length + Most);
        int[] twoBack = new int[width + 1], back = new int[width + 1], row = new int[width + 1];
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

            if (least > Most) return null;
            (twoBack, back, row) = (back, row, twoBack);
        }

        var fewest = back.Min();
        return fewest <= Most ? fewest : null;
    }
}
