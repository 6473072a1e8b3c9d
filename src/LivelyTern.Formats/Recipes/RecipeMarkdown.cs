using System.Globalization;
using System.Text;
using LivelyTern.Core.Aim;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Recipes;
using LivelyTern.Core.Recipes.Steps;

namespace LivelyTern.Formats.Recipes;

/// <summary>A recipe as Markdown, to print or to send.</summary>
public static class RecipeMarkdown
{
    private static readonly (Nutrient Nutrient, string Name, string Unit)[] Rows =
    [
        (Nutrient.Energy, "energy", "kcal"), (Nutrient.Protein, "protein", "g"), (Nutrient.Carbohydrate, "carbohydrate, fibre within", "g"),
        (Nutrient.Fibre, "fibre", "g"), (Nutrient.Fat, "fat", "g"), (Nutrient.SaturatedFat, "saturated fat", "g"),
        (Nutrient.Salt, "salt", "g"),
    ];

    /// <summary>Writes it; figures that are not wholly known read "at least".</summary>
    public static string Write(WrittenRecipe written, Recipe recipe)
    {
        ArgumentNullException.ThrowIfNull(written);
        ArgumentNullException.ThrowIfNull(recipe);
        var text = new StringBuilder();
        var makes = recipe.Yield.IsPutTogether ? $"1 box ({SaidYield.PutTogether})" : $"{recipe.Yield.Portions} portions";
        text.Append(CultureInfo.InvariantCulture, $"# {MarkdownText.Plain(written.Name)}\n\nMakes {makes}");
        if (recipe.Yield.Pieces is { } pieces) text.Append(CultureInfo.InvariantCulture, $", {pieces} pieces");
        if (recipe.Yield is { Pieces: not null, MayHalve: true }) text.Append(" that ").Append(SaidYield.MayBeHalved);
        if (!recipe.Yield.IsPutTogether)
            text.Append(CultureInfo.InvariantCulture, $", {recipe.Weight.Value / recipe.Yield.Portions:0} g each");
        text.Append(".\n\n## Ingredients\n");
        foreach (var part in written.Lines.Where(line => !line.IsOut).GroupBy(line => line.Part).OrderBy(group => group.Key))
        {
            text.Append('\n');
            if (part.Key != RecipePart.Main) text.Append(CultureInfo.InvariantCulture, $"{Heading(part.Key)}:\n\n");
            foreach (var line in part) text.Append(CultureInfo.InvariantCulture, $"- {MarkdownText.Plain(line.Text)}\n");
        }

        foreach (var line in written.Lines.Where(line => line.IsOut))
            text.Append(CultureInfo.InvariantCulture, $"- taken out again: {MarkdownText.Plain(line.Text)}\n");
        if (written.ToDo is { Count: > 0 } steps)
        {
            text.Append("\n## Method\n\n");
            for (var i = 0; i < steps.Count; i++)
                text.Append(CultureInfo.InvariantCulture, $"{i + 1}. {MarkdownText.Plain(steps[i].Written.Text)}{Times(steps[i])}\n");
        }

        text.Append("\n## One portion\n\n| | |\n|---|---:|\n");
        var totals = recipe.Portion.Totals;
        foreach (var (nutrient, name, unit) in Rows)
        {
            var total = totals[nutrient];
            var amount = Rounding.ToStep(total.Known, nutrient == Nutrient.Energy ? 1 : 0.1m);
            var atLeast = total.IsComplete ? "" : "at least ";
            text.Append(CultureInfo.InvariantCulture, $"| {name} | {atLeast}{amount:0.#} {unit} |\n");
        }

        return text.ToString();
    }

    private static string Heading(RecipePart part) => part switch
    {
        RecipePart.Sauce => "For the sauce",
        RecipePart.Topping => "Topping, added at eating",
        RecipePart.Side => "On the side",
        _ => "",
    };

    // What the sentence says itself is not said again.
    private static string Times(StepToDo step)
    {
        var times = new List<string>();
        if (step.Written.HandsOn > 0) times.Add($"{step.Written.HandsOn} min hands-on");
        if (step.Written.Unattended > 0) times.Add($"{step.Written.Unattended} min unattended");
        if (step.Written.TemperatureC is { } celsius) times.Add($"{celsius} °C");
        if (step.Written.DoneWhen is { Length: > 0 } done) times.Add("done when " + MarkdownText.Plain(done));
        return times.Count == 0 ? "" : $" ({string.Join(", ", times)})";
    }
}
