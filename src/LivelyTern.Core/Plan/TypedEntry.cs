using System.Text.RegularExpressions;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;

namespace LivelyTern.Core.Plan;

/// <summary>One thing typed for a day, as it was understood.</summary>
/// <param name="Text">As typed.</param>
/// <param name="What">What is laid for it: one thing, or a box each of "2 lentil boxes"; empty where it was not understood.</param>
/// <param name="Problem">What was not understood, with what would mend it.</param>
public sealed record TypedEntry(string Text, IReadOnlyList<Laid> What, Problem? Problem)
{
    /// <summary>How many things are taken at once; more are refused.</summary>
    public const int Most = 60;

    // Between two things in one line.
    private static readonly Regex Separator = new(
        @",|\s\+\s|\s&\s|\s(?:and|plus)\s",
        RegexOptions.ExplicitCapture | RegexOptions.NonBacktracking | RegexOptions.IgnoreCase);

    private static readonly char[] Lines = ['\n', ';'];

    /// <summary>How it was read as a food; null where it is a dish or a meal with its figures.</summary>
    public FoodLine? Line { get; init; }

    /// <summary>Boxes and portions it may mean, where it was not understood: of each dish one.</summary>
    public IReadOnlyList<Box> Offers { get; init; } = [];

    /// <summary>
    /// The forms in which a food may have been weighed, raw or cooked, where its words do not say which; the raw one first.
    /// </summary>
    public IReadOnlyList<Food> Forms { get; init; } = [];

    /// <summary>Whether it is plain water: that is not tracked, and nothing is laid for it.</summary>
    public bool IsWater { get; init; }

    /// <summary>A recipe of that name of which there is no box and no batch.</summary>
    public Guid? RecipeId { get; init; }

    /// <summary>
    /// What is typed in one go, thing by thing: lines, and within a line what an amount begins. "150 g strawberries, 2 eggs and a coffee"
    /// are three; "3 onions, chopped" is one, "fish and chips" too.
    /// </summary>
    /// <param name="text">As typed.</param>
    public static IReadOnlyList<IReadOnlyList<string>> Apart(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        var lines = text.Split(Lines, StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);
        return [.. lines.Select(line => ApartInLine(line).ToList())];
    }

    private static IEnumerable<string> ApartInLine(string line)
    {
        var from = 0;
        foreach (Match between in Separator.Matches(line))
        {
            var (head, tail) = (line[from..between.Index], line[(between.Index + between.Length)..]);
            if (IsWithinNumber(head, tail) || !IsAThing(head) || AmountText.Read(tail) is not { Rest.Length: > 0 }) continue;
            yield return head.Trim();
            from = between.Index + between.Length;
        }

        yield return line[from..].Trim();
    }

    private static bool IsWithinNumber(string head, string tail) => head is [.., >= '0' and <= '9'] && tail is [>= '0' and <= '9', ..];

    // Not only the first half of an amount: "1 cup plus 2 tbsp oats".
    private static bool IsAThing(string head) => head.Any(char.IsLetter) && AmountText.Read(head) is not { Rest.Length: 0 };
}
