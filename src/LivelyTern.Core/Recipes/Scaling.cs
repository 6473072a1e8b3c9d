using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Recipes;

/// <summary>How far a recipe is scaled; exactly one is given.</summary>
/// <param name="Factor">By a factor: 0.5 is half of it.</param>
/// <param name="Portions">To a number of portions of the same size.</param>
/// <param name="Line">By what is at hand of one line's food, with <paramref name="AtHand"/>: the line's place, from 0.</param>
/// <param name="AtHand">How much there is: "340 g", "2 tins", "3".</param>
/// <param name="Pan">To another pan, at the depth it had.</param>
public sealed record ScaleBy(decimal? Factor = null, int? Portions = null, int? Line = null, string? AtHand = null, Pan? Pan = null);

/// <summary>A recipe scaled.</summary>
/// <param name="Factor">What every amount was multiplied by.</param>
/// <param name="Lines">The lines with their new amounts.</param>
/// <param name="Yield">What it makes now.</param>
/// <param name="DepthFactor">How deep it stands in its pan against before: 1.25 is a quarter deeper. Null where no pan is known.</param>
/// <param name="Unscaled">The places of the lines whose amount could not be scaled: a trace, or not understood.</param>
public sealed record ScaledRecipe(
    decimal Factor, IReadOnlyList<WrittenLine> Lines, RecipeYield Yield, decimal? DepthFactor, IReadOnlyList<int> Unscaled);

/// <summary>Half of it, twelve portions of it, what the jar still holds of one thing, or another pan.</summary>
public static class Scaling
{
    private const decimal Least = 0.001m, Most = 1000m;

    /// <summary>Scales a recipe, and says what that does to its depth in the pan.</summary>
    /// <param name="recipe">The recipe, read.</param>
    /// <param name="by">How far.</param>
    public static Outcome<ScaledRecipe> Scale(Recipe recipe, ScaleBy by)
    {
        ArgumentNullException.ThrowIfNull(recipe);
        ArgumentNullException.ThrowIfNull(by);
        var found = FactorOf(recipe, by);
        if (!found.Succeeded) return found.Problems.ToList();
        var factor = found.Value;
        if (factor is < Least or > Most)
            return new Problem(
                "scale-absurd", "by", "That scales it to less than a thousandth or more than a thousand times: check the number.");

        var pan = recipe.Yield.Pan;
        decimal? depth = pan is null ? null : by.Pan is null ? factor : factor * pan.AreaCm2 / by.Pan.AreaCm2;
        var portions = recipe.Yield.IsPutTogether ? 1 : by.Portions
            ?? Math.Clamp((int)Math.Round(recipe.Yield.Portions * factor, MidpointRounding.AwayFromZero), 1, RecipeYield.MostPortions);
        WrittenLine Scaled(RecipeLine line) =>
            line.Read.Parts.Amount is null ? line.Written : line.Written with { Text = line.Read.Print(factor) };
        return new ScaledRecipe(
            factor,
            [.. recipe.Lines.Select(Scaled)],
            recipe.Yield with
            {
                // A pan cut the same way has the same portions, whatever their size.
                Portions = portions,
                Pieces = recipe.Yield.Pieces is { } pieces
                    ? Math.Max(1, (int)Math.Round(pieces * factor, MidpointRounding.AwayFromZero))
                    : null,
                CookedGrams = recipe.Yield.CookedGrams * factor,
                VolumeMl = recipe.Yield.VolumeMl * factor,
                Pan = by.Pan ?? pan,
            },
            depth,
            [.. recipe.Lines.Select((line, i) => (line, i)).Where(pair => pair.line.Read.Parts.Amount is null).Select(pair => pair.i)]);
    }

    private static Outcome<decimal> FactorOf(Recipe recipe, ScaleBy by)
    {
        if (by.Factor is { } factor)
            return factor > 0 ? factor : new Problem("factor-none", "by.factor", "Scale by a number above zero: 0.5 is half, 2 is double.");
        if (by.Portions is { } portions)
            return portions is >= 1 and <= RecipeYield.MostPortions
                ? (decimal)portions / recipe.Yield.Portions
                : new Problem("portions-none", "by.portions", "A batch makes at least one portion.");
        if (by.Pan is { } pan)
        {
            if (pan.Problems("by.pan").FirstOrDefault() is { } wrong) return wrong;
            return recipe.Yield.Pan is { } own
                ? pan.AreaCm2 / own.AreaCm2
                : new Problem("pan-unknown", "by.pan", "Say first which pan the recipe is made in.");
        }

        return by.Line is not null
            ? ByLine(recipe, by)
            : new Problem("scale-missing", "by", "Say how far to scale: a factor, portions, what is at hand of one line, or a pan.");
    }

    // "340 g" of the line's food is at hand: in grams where both are known, else in the line's own unit.
    private static Outcome<decimal> ByLine(Recipe recipe, ScaleBy by)
    {
        var problem = new Problem("line-unread", "by.line", "Choose a line whose amount is understood.");
        if (by.Line is not { } at || at < 0 || at >= recipe.Lines.Count) return problem;
        if (recipe.Lines[at].Read is not { Ingredient: { IsTrace: false, Weight.Value: > 0 } ingredient } line) return problem;
        if (AmountText.Read((by.AtHand ?? "").Trim() + " ") is not { Quantity: > 0 } hand)
            return new Problem("at-hand", "by.atHand", "Type how much of it there is, as in “340 g” or “2”.");
        if (hand.Unit is { } unit)
            return ingredient.Food.WeightOf(hand.Quantity, unit) is { } weight
                ? weight / ingredient.Weight
                : new Problem(
                    "at-hand-unit", "by.atHand", $"What a {unit.Name} of {ingredient.Food.Name} weighs is not known: type it in grams.");
        return line.Parts.Amount is { Unit: null, Quantity: > 0 } count
            ? hand.Quantity / count.Quantity
            : new Problem("at-hand-unit", "by.atHand", "Type it with its unit, as in “340 g”.");
    }
}
