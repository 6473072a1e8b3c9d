using LivelyTern.Core.Aim;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Recipes;
using LivelyTern.Data.Recipes;
using LivelyTern.Web.Aim;
using LivelyTern.Web.Foods;
using LivelyTern.Web.Http;

namespace LivelyTern.Web.Recipes;

/// <summary>
/// The lines of a recipe and what it makes, as sent. Each list runs beside <paramref name="Lines"/> and may be left out.
/// </summary>
/// <param name="Lines">"600 g red lentils, dry".</param>
/// <param name="Portions">How many portions a batch makes.</param>
/// <param name="Foods">For each line the id of the food or recipe chosen, or "" where its words say enough.</param>
/// <param name="Parts">For each line what it is for.</param>
/// <param name="TakenOut">For each line whether it is taken out again.</param>
/// <param name="Keys">For each line its key, by which versions and variants know it; "" for a new one.</param>
/// <param name="Pieces">How many pieces, where it makes pieces.</param>
/// <param name="CookedGrams">What the finished batch weighs, in grams.</param>
/// <param name="Fills">What it fills, as it is said: "8 cups", "900 ml".</param>
/// <param name="Pan">The pan it is made in.</param>
/// <param name="MayHalve">Whether a piece may be halved.</param>
/// <param name="IsPutTogether">Whether it is put together from other recipes: the lines are then what one box gets.</param>
public record RecipeLines(
    IReadOnlyList<string> Lines, int Portions, IReadOnlyList<string?>? Foods = null, IReadOnlyList<RecipePart>? Parts = null,
    IReadOnlyList<bool>? TakenOut = null, IReadOnlyList<string?>? Keys = null, int? Pieces = null, decimal? CookedGrams = null,
    string? Fills = null, Pan? Pan = null, bool MayHalve = false, bool IsPutTogether = false)
{
    /// <summary>The same as the core writes it.</summary>
    /// <param name="name">The recipe's name.</param>
    /// <param name="steps">Its steps.</param>
    public WrittenRecipe Written(string name = "", IReadOnlyList<RecipeStep>? steps = null) => new(
        name, [.. Lines.Select(LineAt)], new(Portions, Pieces, CookedGrams, VolumeMl, Pan, MayHalve, IsPutTogether), steps);

    // What can't be read is no volume, and refused as such.
    private decimal? VolumeMl => string.IsNullOrWhiteSpace(Fills) ? null : SaidVolume.Read(Fills) ?? 0;

    private WrittenLine LineAt(string? text, int i) =>
        new(text ?? "", At(Foods, i) is { Length: > 0 } id ? id : null, At(Parts, i), At(TakenOut, i), At(Keys, i) ?? "");

    private static T? At<T>(IReadOnlyList<T>? list, int i) => list is not null && i < list.Count ? list[i] : default;
}

/// <summary>A recipe to be saved.</summary>
/// <param name="Name">What the cook calls it.</param>
/// <param name="Lines">Its lines as typed.</param>
/// <param name="Portions">How many portions a batch makes.</param>
/// <param name="Foods">As in <see cref="RecipeLines"/>.</param>
/// <param name="Parts">As in <see cref="RecipeLines"/>.</param>
/// <param name="TakenOut">As in <see cref="RecipeLines"/>.</param>
/// <param name="Keys">As in <see cref="RecipeLines"/>.</param>
/// <param name="Pieces">As in <see cref="RecipeLines"/>.</param>
/// <param name="CookedGrams">As in <see cref="RecipeLines"/>.</param>
/// <param name="Fills">As in <see cref="RecipeLines"/>.</param>
/// <param name="Pan">As in <see cref="RecipeLines"/>.</param>
/// <param name="Steps">How it is made.</param>
/// <param name="BaseId">For a new recipe, the recipe it is a variant of.</param>
/// <param name="MayHalve">As in <see cref="RecipeLines"/>.</param>
/// <param name="IsPutTogether">As in <see cref="RecipeLines"/>.</param>
public sealed record RecipeRequest(
    string Name, IReadOnlyList<string> Lines, int Portions, IReadOnlyList<string?>? Foods = null, IReadOnlyList<RecipePart>? Parts = null,
    IReadOnlyList<bool>? TakenOut = null, IReadOnlyList<string?>? Keys = null, int? Pieces = null, decimal? CookedGrams = null,
    string? Fills = null, Pan? Pan = null, IReadOnlyList<RecipeStep>? Steps = null, Guid? BaseId = null,
    bool MayHalve = false, bool IsPutTogether = false)
    : RecipeLines(Lines, Portions, Foods, Parts, TakenOut, Keys, Pieces, CookedGrams, Fills, Pan, MayHalve, IsPutTogether);

/// <summary>Where a line of a variant comes from.</summary>
public enum LineOrigin
{
    /// <summary>The recipe's own line; in a variant one it adds.</summary>
    Own,

    /// <summary>The base's line as it is.</summary>
    Base,

    /// <summary>In the place of one of the base's.</summary>
    Replaced,
}

/// <summary>A recipe as written down. The lists run beside <paramref name="Lines"/>.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Name">What the cook calls it.</param>
/// <param name="Letters">Its two letters on the tape.</param>
/// <param name="Tint">Its tint.</param>
/// <param name="Portions">How many portions a batch makes.</param>
/// <param name="Lines">Its lines as typed; those of a variant with its base's.</param>
/// <param name="Foods">The foods chosen, or "".</param>
/// <param name="Parts">What each line is for.</param>
/// <param name="TakenOut">Whether each is taken out again.</param>
/// <param name="Keys">Each line's key.</param>
/// <param name="Origins">Where each line comes from.</param>
/// <param name="Dropped">The base's lines that a variant leaves out.</param>
/// <param name="Pieces">How many pieces.</param>
/// <param name="CookedGrams">What the finished batch weighs.</param>
/// <param name="Fills">What it fills, as it is said: "8 cups", "900 ml".</param>
/// <param name="Pan">The pan it is made in.</param>
/// <param name="MayHalve">Whether a piece may be halved.</param>
/// <param name="IsPutTogether">Whether it is put together from other recipes: the lines are then what one box gets.</param>
/// <param name="Steps">How it is made.</param>
/// <param name="HandsOn">Minutes with both hands, over all steps.</param>
/// <param name="Unattended">Minutes that pass by themselves, over all steps.</param>
/// <param name="BaseId">The recipe it is a variant of.</param>
/// <param name="BaseName">That recipe's name.</param>
/// <param name="Variants">The variants of this recipe.</param>
/// <param name="ChangedAt">When it was saved last.</param>
/// <param name="Archived">Whether it was taken off the list.</param>
/// <param name="Version">The version to change it on.</param>
public sealed record RecipeView(
    Guid Id, string Name, string Letters, int Tint, int Portions, IReadOnlyList<string> Lines, IReadOnlyList<string> Foods,
    IReadOnlyList<RecipePart> Parts, IReadOnlyList<bool> TakenOut, IReadOnlyList<string> Keys, IReadOnlyList<LineOrigin> Origins,
    IReadOnlyList<string> Dropped, int? Pieces, decimal? CookedGrams, string? Fills, Pan? Pan, bool MayHalve, bool IsPutTogether,
    IReadOnlyList<RecipeStep> Steps, int HandsOn, int Unattended, Guid? BaseId, string? BaseName, IReadOnlyList<RecipeName> Variants,
    DateTimeOffset ChangedAt, bool Archived, int Version);

/// <summary>A recipe by name, with its mark and for how many portions it is usually cooked; nothing of it is computed.</summary>
public sealed record RecipeName(Guid Id, string Name, string Letters, int Tint, int Portions);

/// <summary>A recipe in the list: its portion's figures with it.</summary>
public sealed record RecipeRowView(
    Guid Id, string Name, string Letters, int Tint, int Portions, decimal PortionGrams, IReadOnlyDictionary<Measure, Figure> Portion,
    int NotUnderstood, Guid? BaseId, IReadOnlyList<Allergen> Allergens, bool IsPutTogether);

/// <summary>Grams and measures of a batch, or of one portion of it.</summary>
/// <param name="Grams">What went in, before cooking.</param>
/// <param name="Figures">Every measure, each with whether it is complete.</param>
/// <param name="Missing">For a nutrient that is not complete, the foods that lack it.</param>
public sealed record ContentsView(
    decimal Grams, IReadOnlyDictionary<Measure, Figure> Figures, IReadOnlyDictionary<Measure, IReadOnlyList<string>> Missing)
{
    /// <summary>Contents as shown.</summary>
    public static ContentsView Of(Core.Foods.Contents contents, PointsRule? rule)
    {
        ArgumentNullException.ThrowIfNull(contents);
        var totals = MeasureTotals.Of(contents, rule);
        return new(contents.RawWeight.Value, Figure.Of(totals), MeasureTotals.Missing([contents], totals));
    }
}

/// <summary>A line in its recipe.</summary>
/// <param name="Line">The line, read, with what it brings to the batch.</param>
/// <param name="Shares">Its share of the batch in each measure, 0 to 1; below zero where it is taken out.</param>
/// <param name="Portion">What it costs a portion in each measure, points before rounding; empty where it was not understood.</param>
public sealed record RecipeLineView(
    LineView Line, IReadOnlyDictionary<Measure, decimal> Shares, IReadOnlyDictionary<Measure, Figure> Portion);

/// <summary>How much food for how much energy.</summary>
/// <param name="KcalPer100g">kcal in 100 g of the finished dish; null where it weighs nothing.</param>
/// <param name="GramsPer100Kcal">Grams of the finished dish in 100 kcal; null where it has none.</param>
public sealed record DensityView(decimal? KcalPer100g, decimal? GramsPer100Kcal);

/// <summary>A recipe, computed.</summary>
/// <param name="Batch">The whole.</param>
/// <param name="Portion">One portion.</param>
/// <param name="Lines">Each line and its share.</param>
/// <param name="NotUnderstood">The lines that could not be read, as typed.</param>
/// <param name="Standings">How many lines are sure, taken by what is usual, and open.</param>
/// <param name="Rule">The name of the points rule used; null without one.</param>
/// <param name="ExactPoints">The portion's points before rounding; null without a rule.</param>
/// <param name="PortionGrams">What a portion weighs, cooked where that is known.</param>
/// <param name="IsCookedWeight">Whether that is a cooked weight.</param>
/// <param name="Density">How much food for how much energy.</param>
/// <param name="IncompleteProtein">Grams of a portion's protein that lacks an essential amino acid altogether (gelatin, collagen).</param>
/// <param name="Allergens">The allergens of everything in it.</param>
/// <param name="Remarks">What looks wrong.</param>
/// <param name="PortionVolume">What a portion fills, "1 1/3 cups", where it is said what the whole fills.</param>
public sealed record CalcRecipeAnswer(
    ContentsView Batch, ContentsView Portion, IReadOnlyList<RecipeLineView> Lines, IReadOnlyList<string> NotUnderstood,
    LineStandings Standings, string? Rule, Figure? ExactPoints, decimal PortionGrams, bool IsCookedWeight,
    DensityView Density, decimal IncompleteProtein, IReadOnlyList<Allergen> Allergens, IReadOnlyList<Problem> Remarks,
    string? PortionVolume)
{
    /// <summary>A recipe as computed, with points where there is a rule.</summary>
    public static CalcRecipeAnswer Of(Recipe recipe, PointsRule? rule)
    {
        ArgumentNullException.ThrowIfNull(recipe);
        var exact = rule is null ? null : rule with { Step = 0 };
        var (batch, portion) = (recipe.Batch, recipe.Portion);
        var kcal = batch.Totals[Nutrient.Energy].Known;
        var weight = recipe.Weight.Value;
        RecipeLineView Show(RecipeLine line, IReadOnlyDictionary<Measure, decimal> shares)
        {
            var ofPortion = line.Contents?.Scale(1m / recipe.Yield.Portions);
            var figures = ofPortion is null
                ? new Dictionary<Measure, Figure>()
                : Figure.Of(MeasureTotals.Of(ofPortion, exact));
            return new(LineView.Of(line.Read, rule, line.Contents), shares, figures);
        }

        return new(
            ContentsView.Of(batch, rule), ContentsView.Of(portion, rule), [.. recipe.Lines.Zip(recipe.Shares(rule), Show)],
            [.. recipe.Lines.Where(line => line.Contents is null).Select(line => line.Read.Text)],
            LineStandings.Of(recipe.Lines.Select(line => line.Read)),
            rule?.Name, rule is null ? null : Figure.Of(rule.Exact(portion)), weight / recipe.Yield.Portions,
            recipe.Yield.CookedGrams is not null || recipe.Yield.IsPutTogether,
            new(weight > 0 ? kcal / weight * 100 : null, kcal > 0 ? weight / kcal * 100 : null), portion.IncompleteProtein, batch.Allergens,
            [.. recipe.TakenTooMuch.Take(1).Select(TakenTooMuch), .. AtLeast(batch)],
            recipe.Yield.VolumeMl is { } ml ? SaidVolume.Of(ml / recipe.Yield.Portions, ml) : null);
    }

    private static IEnumerable<Problem> AtLeast(Core.Foods.Contents batch)
    {
        var open = batch.Ingredients.Where(one => one.IsAtLeast).Select(one => $"{one.Weight.Value:0.##} g {one.Food.Name}").ToList();
        if (open.Count == 0) yield break;
        yield return new(
            "amount-unsaid", "lines", $"Nobody says how much of it is used: counted at least are {string.Join(", ", open)}.");
    }

    private static Problem TakenTooMuch(Nutrient nutrient)
    {
        var name = nutrient.ToString().ToLowerInvariant();
        return new("taken-too-much", "takenOut", $"More {name} is taken out than went in: check the line that is taken out.");
    }
}

/// <summary>A recipe to be computed, nothing stored.</summary>
/// <param name="Lines">As in <see cref="RecipeLines"/>.</param>
/// <param name="Portions">As in <see cref="RecipeLines"/>.</param>
/// <param name="Foods">As in <see cref="RecipeLines"/>.</param>
/// <param name="Parts">As in <see cref="RecipeLines"/>.</param>
/// <param name="TakenOut">As in <see cref="RecipeLines"/>.</param>
/// <param name="Keys">As in <see cref="RecipeLines"/>.</param>
/// <param name="Pieces">As in <see cref="RecipeLines"/>.</param>
/// <param name="CookedGrams">As in <see cref="RecipeLines"/>.</param>
/// <param name="Fills">As in <see cref="RecipeLines"/>.</param>
/// <param name="Pan">As in <see cref="RecipeLines"/>.</param>
/// <param name="Rule">The points rule; without one there are no points.</param>
/// <param name="SelfId">The recipe it is, where it is one: it is then no part of itself.</param>
/// <param name="MayHalve">As in <see cref="RecipeLines"/>.</param>
/// <param name="IsPutTogether">As in <see cref="RecipeLines"/>.</param>
public sealed record CalcRecipeRequest(
    IReadOnlyList<string> Lines, int Portions, IReadOnlyList<string?>? Foods = null, IReadOnlyList<RecipePart>? Parts = null,
    IReadOnlyList<bool>? TakenOut = null, IReadOnlyList<string?>? Keys = null, int? Pieces = null, decimal? CookedGrams = null,
    string? Fills = null, Pan? Pan = null, PointsRule? Rule = null, Guid? SelfId = null, bool MayHalve = false,
    bool IsPutTogether = false)
    : RecipeLines(Lines, Portions, Foods, Parts, TakenOut, Keys, Pieces, CookedGrams, Fills, Pan, MayHalve, IsPutTogether);

/// <summary>A saved version of a recipe: what changed since the one before, and the figures of a portion then and now.</summary>
/// <param name="Version">Its number.</param>
/// <param name="SavedAt">When.</param>
/// <param name="Name">The recipe's name then.</param>
/// <param name="Written">The recipe as it was, ready to be saved again.</param>
/// <param name="Changes">What changed against the version before.</param>
/// <param name="Portions">Portions then.</param>
/// <param name="Then">A portion's figures as they were computed then.</param>
/// <param name="Now">A portion of that version with the foods as they are now.</param>
public sealed record RecipeVersionView(
    int Version, DateTimeOffset SavedAt, string Name, RecipeRequest Written, IReadOnlyList<LineChange> Changes, int Portions,
    IReadOnlyDictionary<Measure, Figure> Then, IReadOnlyDictionary<Measure, Figure> Now);
