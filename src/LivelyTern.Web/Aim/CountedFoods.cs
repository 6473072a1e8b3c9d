using LivelyTern.Core.Aim;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Data.Aim;
using LivelyTern.Data.Foods;
using LivelyTern.Web.Foods;
using LivelyTern.Web.Http;
using Microsoft.AspNetCore.Http.HttpResults;

namespace LivelyTern.Web.Aim;

/// <summary>A food in a list.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Name">Its name.</param>
/// <param name="Group">Its kind.</param>
/// <param name="Per100g">Every measure of 100 g but points.</param>
/// <param name="Own">Whether the cook wrote it down.</param>
/// <param name="Source">Where its figures come from.</param>
public sealed record FoodRowView(
    string Id, string Name, FoodGroup Group, IReadOnlyDictionary<Measure, Figure> Per100g, bool Own, string Source)
{
    /// <summary>A food as listed.</summary>
    public static FoodRowView Of(Food food, PointsRule? rule)
    {
        ArgumentNullException.ThrowIfNull(food);
        return new(
            food.Id, food.Name, food.Group, Figure.Of(MeasureTotals.Of(new Contents([new(food, new Grams(100))]), rule)), food.IsOwn,
            food.Source);
    }
}

/// <summary>A food that a line may mean as well.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Name">Its name.</param>
/// <param name="By">What tells it from the food taken: energy, protein, carbohydrate or fat.</param>
/// <param name="Apart">How much more of that the line would have with it, in kcal or grams; below zero where it is less.</param>
public sealed record OtherFoodView(string Id, string Name, Measure By, decimal Apart)
{
    /// <summary>Another food as shown.</summary>
    public static OtherFoodView Of(OtherFood other)
    {
        ArgumentNullException.ThrowIfNull(other);
        var by = other.By switch
        {
            Nutrient.Protein => Measure.Protein,
            Nutrient.Carbohydrate => Measure.Carbohydrate,
            Nutrient.Fat => Measure.Fat,
            _ => Measure.Energy,
        };
        return new(other.Food.Id, other.Food.Name, by, other.Apart);
    }
}

/// <summary>One of several foods that a line names.</summary>
/// <param name="Text">The line it would be alone.</param>
/// <param name="Food">The food.</param>
/// <param name="Grams">Its weight.</param>
/// <param name="About">Whether the weight is estimated.</param>
/// <param name="Trace">A pinch, or used without an amount.</param>
/// <param name="FoodText">The words that name it.</param>
/// <param name="Others">Other foods those words may mean.</param>
public sealed record ReadPartView(
    string Text, FoodName Food, decimal Grams, bool About, bool Trace, string FoodText, IReadOnlyList<OtherFoodView> Others)
{
    /// <summary>One of several as shown.</summary>
    public static ReadPartView Of(FoodLine line)
    {
        ArgumentNullException.ThrowIfNull(line);
        var (food, weight, isTrace) = line.Ingredient!;
        return new(
            line.Text, FoodName.Of(food), weight.Value, line.IsAbout, isTrace, line.Parts.FoodText,
            [.. line.Others.Select(OtherFoodView.Of)]);
    }
}

/// <summary>How many lines are sure, taken by what is usual, and open.</summary>
public sealed record LineStandings(int Sure, int ByDefault, int Open)
{
    /// <summary>How many of each.</summary>
    public static LineStandings Of(IEnumerable<FoodLine> lines)
    {
        var standings = lines.Select(line => line.Standing).ToList();
        int Count(LineStanding standing) => standings.Count(one => one == standing);
        return new(Count(LineStanding.Sure), Count(LineStanding.ByDefault), Count(LineStanding.Open));
    }
}

/// <summary>A line, read.</summary>
/// <param name="Text">As typed.</param>
/// <param name="Parts">What was understood, part by part.</param>
/// <param name="Food">The food understood, or null.</param>
/// <param name="Grams">Its weight, below zero where it is taken out; or null.</param>
/// <param name="About">Whether the weight is estimated.</param>
/// <param name="Trace">A pinch or "to taste": recorded, not counted.</param>
/// <param name="Figures">What it holds.</param>
/// <param name="Problem">What was not understood.</param>
/// <param name="Candidates">Foods it could be.</param>
/// <param name="MissingMeasure">The measure that would mend it.</param>
/// <param name="Instead">The lines to write in its place that would be understood: "salt, to taste" and "pepper, to taste".</param>
/// <param name="Standing">How far it can be relied on.</param>
/// <param name="Others">Other foods it may mean, more than a tenth apart from the one taken.</param>
/// <param name="Several">The foods it names, where it names several and all are understood; else empty.</param>
public sealed record LineView(
    string Text, LinePartsView Parts, FoodName? Food, decimal? Grams, bool About, bool Trace, IReadOnlyDictionary<Measure, Figure> Figures,
    Problem? Problem, IReadOnlyList<FoodName> Candidates, MissingMeasureView? MissingMeasure, IReadOnlyList<string> Instead,
    LineStanding Standing, IReadOnlyList<OtherFoodView> Others, IReadOnlyList<ReadPartView> Several)
{
    /// <summary>A line as shown, its points under a rule.</summary>
    /// <param name="line">The line, read.</param>
    /// <param name="rule">The points rule, or null.</param>
    /// <param name="contents">What it brings, where that is not just its food; null for its food.</param>
    public static LineView Of(FoodLine line, PointsRule? rule, Contents? contents = null)
    {
        ArgumentNullException.ThrowIfNull(line);
        var brings = contents ?? (line.Ingredients.Count > 0 ? new Contents(line.Ingredients) : null);
        var food = line.Ingredient is { } part ? FoodName.Of(part.Food) : null;
        var figures = brings is not null ? Figure.Of(MeasureTotals.Of(brings, rule)) : new Dictionary<Measure, Figure>();
        var sign = contents?.RawWeight.Value < 0 ? -1 : 1;
        return new(
            line.Text, LinePartsView.Of(line.Parts), food, brings is null ? null : line.Ingredients.Sum(one => one.Weight.Value) * sign,
            line.IsAbout,
            line.Ingredient?.IsTrace ?? false, figures, line.Problem, [.. line.Candidates.Select(FoodName.Of)],
            line.Missing is { } missing ? new(missing.Food.Id, missing.Food.Name, missing.Measure) : null, line.Instead, line.Standing,
            [.. line.Others.Select(OtherFoodView.Of)],
            [.. line.Several.Select(ReadPartView.Of)]);
    }

    /// <summary>The answer to a line that was not understood: why, and what it could mean.</summary>
    public static ProblemHttpResult NotUnderstood(FoodLine line)
    {
        ArgumentNullException.ThrowIfNull(line);
        var one = line.AsOne;
        var view = Of(one, null);
        return Answers.Problem([one.Problem! with { Field = "text" }], new Dictionary<string, object?>(StringComparer.Ordinal)
        {
            ["candidates"] = view.Candidates,
            ["missingMeasure"] = view.MissingMeasure,
        });
    }
}

/// <summary>Foods as an eater counts them: with points under their rule.</summary>
public static class CountedFoods
{
    private const int MostFound = 60, MostListed = 5000;

    /// <summary>Maps the list of <c>/api/foods</c>.</summary>
    public static void MapCountedFoods(this IEndpointRouteBuilder api) =>
        api.MapGet("/foods", FindAsync).WithTags("Foods").WithName("findFoods");

    // Without a text the kitchen's foods, own and recent first; with one the libraries' too. A group narrows either.
    private static async Task<List<FoodRowView>> FindAsync(
        string? q, FoodGroup? group, bool? own, int? most, Guid? eaterId, FoodStore store, EaterStore eaters)
    {
        var rule = eaterId is { } eater ? (await eaters.FindAsync(eater))?.Aim.Rule : null;
        bool Fits(Food food) => (group is null || food.Group == group) && (own is not true || food.IsOwn);
        var many = Math.Clamp(most ?? (string.IsNullOrWhiteSpace(q) ? MostListed : 12), 1, MostListed);
        var kitchen = await store.CatalogueAsync();
        if (string.IsNullOrWhiteSpace(q))
            return [.. kitchen.Suggest("", int.MaxValue).Where(Fits).Take(many).Select(food => FoodRowView.Of(food, rule))];
        var text = q.Length > 200 ? q[..200] : q;
        var looked = group is null && own is not true ? Math.Min(many, MostFound) : MostFound * 10;
        var found = (await store.AllAsync()).Suggest(text, looked).Where(Fits).Take(many);
        return [.. found.Select(food => FoodRowView.Of(food, rule))];
    }
}
