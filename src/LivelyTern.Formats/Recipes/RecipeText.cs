using System.Globalization;
using System.Text.RegularExpressions;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Recipes;

namespace LivelyTern.Formats.Recipes;

/// <summary>
/// A recipe as plain text: its name, what goes in line by line, then how it is made. Headings such as "Ingredients", "For the sauce:" and
/// "Method" part it; without them a line that begins with an amount goes in and the text after it is a step.
/// </summary>
public static class RecipeText
{
    private static readonly Regex BulletPattern = new(@"^(?:[-*•·▢☐]\s+|\d{1,2}[.)]\s+)", RegexOptions.NonBacktracking);
    private static readonly Regex NumberedPattern = new(@"^\s*\d{1,2}[.)]\s", RegexOptions.NonBacktracking);

    private enum Place
    {
        Top,
        Lines,
        Steps,
    }

    /// <summary>Reads one recipe.</summary>
    /// <param name="text">The text.</param>
    /// <param name="stop">Ends the reading.</param>
    public static ReadRecipes Read(string text, CancellationToken stop)
    {
        ArgumentNullException.ThrowIfNull(text);
        var (name, place, part) = ("", Place.Top, RecipePart.Main);
        var lines = new List<WrittenLine>();
        var steps = new List<RecipeStep>();
        var missed = new List<string>();
        var said = new SaidYield();
        foreach (var raw in text.Split('\n'))
        {
            stop.ThrowIfCancellationRequested();
            var line = BulletPattern.Replace(raw.Trim().TrimStart('#').Trim(), "").Replace("**", "", StringComparison.Ordinal).Trim();
            if (line.Length == 0 || line.All(letter => letter is '-' or '=' or '_' or '*')) continue;
            if (SaidYield.IsSaidIn(line))
            {
                said = said.Or(SaidYield.Read(line)!);
                continue;
            }

            var heading = line.TrimEnd(':', ' ').ToLowerInvariant();
            if (heading is "ingredients" or "you need" or "what goes in") (place, part) = (Place.Lines, RecipePart.Main);
            else if (heading is "method" or "directions" or "instructions" or "steps" or "preparation" or "how to make it")
                place = Place.Steps;
            else if (line.EndsWith(':') && PartOf(heading) is { } named && place != Place.Steps) (place, part) = (Place.Lines, named);
            else if (name.Length == 0 && place == Place.Top && !IsLine(line)) name = line.Length <= 120 ? line : line[..120];
            else if (line.Length > 2000) missed.Add(line[..200] + " …");
            else if (place == Place.Steps) AddStep(line);
            else if (IsLine(line) && line.Length <= WrittenRecipe.LongestLine && lines.Count < WrittenRecipe.MostLines)
                (place, lines) = (Place.Lines, [.. lines, new(line, Part: part)]);
            else if (place == Place.Lines && NumberedPattern.IsMatch(raw)) AddStep(line);
            else if (place == Place.Lines && line.Length <= 60 && lines.Count < WrittenRecipe.MostLines && !line.EndsWith('.'))
                lines.Add(new(line, Part: part));
            else if (place == Place.Lines && line.EndsWith('.')) AddStep(line);
            else missed.Add(line.Length <= 200 ? line : line[..200] + " …");
        }

        return lines.Count == 0 && steps.Count == 0
            ? new([], ["No line here says how much of what goes in."])
            : new([new(name, lines, said.ToYield(), steps, missed)], []);

        void AddStep(string step)
        {
            if (steps.Count < WrittenRecipe.MostSteps) steps.Add(new(step));
            else missed.Add(step);
        }
    }

    private static bool IsLine(string line) =>
        AmountText.Read(line) is { Rest.Length: > 0 } || line.EndsWith("to taste", StringComparison.OrdinalIgnoreCase)
            || line.StartsWith("pinch", StringComparison.OrdinalIgnoreCase);

    private static RecipePart? PartOf(string heading)
    {
        bool Has(params string[] words) => Array.Exists(words, word => heading.Contains(word, StringComparison.Ordinal));
        if (Has("sauce", "dressing", "glaze")) return RecipePart.Sauce;
        if (Has("topping", "to serve", "garnish")) return RecipePart.Topping;
        if (Has("side", "salad")) return RecipePart.Side;
        return heading.StartsWith("for ", StringComparison.Ordinal) ? RecipePart.Main : null;
    }
}
