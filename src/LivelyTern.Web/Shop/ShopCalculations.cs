using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Recipes;
using LivelyTern.Core.Shop;
using LivelyTern.Data.Recipes;
using LivelyTern.Web.Http;
using Microsoft.AspNetCore.Http.HttpResults;

namespace LivelyTern.Web.Shop;

/// <summary>A package in which a food is sold.</summary>
/// <param name="Food">The food, by name.</param>
/// <param name="Grams">What it holds.</param>
public sealed record CalcPackage(string Food, decimal Grams);

/// <summary>What is needed, what is there, and what is sold.</summary>
/// <param name="Lines">What is needed: "1.2 kg red lentils, dry".</param>
/// <param name="Pantry">What is in the house, as it was bought.</param>
/// <param name="Packages">The packages sold; a food without one is bought by weight.</param>
public sealed record CalcShopRequest(
    IReadOnlyList<string> Lines, IReadOnlyList<string>? Pantry = null, IReadOnlyList<CalcPackage>? Packages = null);

/// <summary>Packages of one size.</summary>
public sealed record CalcPackages(decimal Grams, int Count);

/// <summary>One food of the list, in grams as purchased: need + over = buy + have.</summary>
/// <param name="FoodId">The food.</param>
/// <param name="Food">Its name.</param>
/// <param name="Need">What is needed.</param>
/// <param name="Have">What is in the house.</param>
/// <param name="Buy">What is bought.</param>
/// <param name="Packages">In which packages; empty where it is sold by weight or nothing is bought.</param>
/// <param name="Over">What will be over.</param>
public sealed record CalcShopLine(
    string FoodId, string Food, decimal Need, decimal Have, decimal Buy, IReadOnlyList<CalcPackages> Packages, decimal Over)
{
    /// <summary>A line as shown.</summary>
    public static CalcShopLine Of(ShopLine line)
    {
        ArgumentNullException.ThrowIfNull(line);
        return new(
            line.Food.Id, line.Food.Name, line.Need.Value, line.Have.Value, line.Buy.Value,
            [.. line.Packages.Select(some => new CalcPackages(some.Size.Value, some.Count))], line.Over.Value);
    }
}

/// <summary>A line that counts nothing, and why.</summary>
public sealed record CalcShopMissed(string Line, string Why);

/// <summary>The list.</summary>
/// <param name="Foods">Food by food.</param>
/// <param name="NotUnderstood">Lines that count nothing here.</param>
public sealed record CalcShopAnswer(IReadOnlyList<CalcShopLine> Foods, IReadOnlyList<CalcShopMissed> NotUnderstood);

/// <summary>A shopping list from lines; nothing is stored.</summary>
public static class ShopCalculations
{
    private const int MostLines = 5000;
    private const decimal LargestPackage = 100_000;

    /// <summary>Maps <c>/api/calc/shop</c>.</summary>
    public static void MapShopCalculations(this IEndpointRouteBuilder api) =>
        api.MapGroup("/calc").WithTags("Calculate").MapPost("/shop", SumAsync).WithName("calcShop");

    private static async Task<Results<Ok<CalcShopAnswer>, ProblemHttpResult>> SumAsync(CalcShopRequest body, RecipeStore recipes)
    {
        if (Problems(body).ToList() is { Count: > 0 } problems) return Answers.Problem(problems);
        var known = await recipes.BookAsync();
        var missed = new List<CalcShopMissed>();
        var needs = body.Lines.SelectMany(line => Read(line, isNeed: true)).ToList();
        var pantry = (body.Pantry ?? []).SelectMany(line => Read(line, isNeed: false)).ToList();
        var sizes = new Dictionary<string, IReadOnlyList<Grams>>(StringComparer.Ordinal);
        foreach (var package in body.Packages ?? [])
        {
            // Any weight will do: it is the name that is read.
            if (FoodLine.Read($"1 g {package.Food}", known).AsOne.Ingredient?.Food.Id is not { } id)
                missed.Add(new(package.Food, "No food here is called that."));
            else sizes[id] = [.. sizes.GetValueOrDefault(id, []), new(package.Grams)];
        }

        return TypedResults.Ok(new CalcShopAnswer([.. ShoppingSum.Of(needs, pantry, sizes).Select(CalcShopLine.Of)], missed));

        IEnumerable<Needed> Read(string? text, bool isNeed)
        {
            if (string.IsNullOrWhiteSpace(text)) return [];
            var line = FoodLine.Read(text, known);
            if (line.Ingredients.Count == 0) missed.Add(new(text, line.Problem?.Sentence ?? "This line was not understood."));
            var isDrained = line.Parts.Note.Contains("drained", StringComparison.OrdinalIgnoreCase);
            return isNeed
                ? line.Ingredients.Select(one => new Needed(one.Food, AsPurchased.Of(one.Food, one.Weight, isDrained)))
                : AsPurchased.Said(line);
        }
    }

    private static IEnumerable<Problem> Problems(CalcShopRequest body)
    {
        foreach (var (name, lines) in new[] { ("lines", body.Lines), ("pantry", body.Pantry ?? []) })
        {
            if (lines.Count > MostLines) yield return new("lines-many", name, $"Up to {MostLines} lines are read at once.");
            for (var i = 0; i < Math.Min(lines.Count, MostLines); i++)
                if (lines[i] is { Length: > WrittenRecipe.LongestLine })
                    yield return new("line-long", $"{name}[{i}]", $"A line holds up to {WrittenRecipe.LongestLine} letters.");
        }

        var packages = body.Packages ?? [];
        if (packages.Count > MostLines) yield return new("packages-many", "packages", $"Up to {MostLines} packages are read at once.");
        for (var i = 0; i < Math.Min(packages.Count, MostLines); i++)
        {
            if (packages[i] is not { Food.Length: > 0 and <= 200 } package)
                yield return new("package-food", $"packages[{i}].food", "Say of which food the package is.");
            else if (package.Grams is not (> 0 and <= LargestPackage))
                yield return new(
                    "package-grams", $"packages[{i}].grams", $"A package of {package.Food} holds more than 0 g and at most 100 kg.");
        }
    }
}
