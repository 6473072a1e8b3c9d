using LivelyTern.Core.Aim;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Recipes;

/// <summary>A line of a recipe, read: what it says and what it brings to the batch.</summary>
/// <param name="Written">As the cook wrote it.</param>
/// <param name="Read">What was understood.</param>
/// <param name="Contents">What it brings: one food, or all that is in another recipe; with weights below zero where it is taken out. Null
/// where it was not understood.</param>
public sealed record RecipeLine(WrittenLine Written, FoodLine Read, Contents? Contents);

/// <summary>What a box of a put-together dish gets of another recipe.</summary>
/// <param name="RecipeId">The other recipe.</param>
/// <param name="ABox">Cooked grams of it in one box; more than none.</param>
public sealed record DishPart(Guid RecipeId, Grams ABox);

/// <summary>A list of amounts, with what it makes.</summary>
/// <param name="Name">What the cook calls it.</param>
/// <param name="Lines">The lines, read.</param>
/// <param name="Yield">What a batch makes.</param>
public sealed record Recipe(string Name, IReadOnlyList<RecipeLine> Lines, RecipeYield Yield)
{
    /// <summary>
    /// What a whole batch contains, without what is taken out; "at least" in every measure where a line was not understood.
    /// </summary>
    public Contents Batch => new(
        [.. Lines.SelectMany(line => line.Contents?.Ingredients ?? [])],
        SomethingUnread: Lines.Any(line => line.Contents?.SomethingUnread ?? true));

    /// <summary>What one portion contains.</summary>
    public Contents Portion => Batch.Scale(1m / Yield.Portions);

    /// <summary>
    /// What the finished batch weighs: as it was weighed, else what went in; a put-together dish what its lines say. In grams.
    /// </summary>
    public Grams Weight => Yield.IsPutTogether ? new(InTheBox.Sum(part => part.Weight.Value))
        : Yield.CookedGrams is { } cooked ? new(cooked)
        : Batch.RawWeight;

    /// <summary>What a box of a put-together dish gets of other recipes, each once.</summary>
    public IReadOnlyList<DishPart> Parts =>
    [
        .. from part in InTheBox
           group part.Weight.Value by RecipeBook.RecipeOf(part.Food.Id) into own
           where own.Key is not null && own.Sum() > 0
           select new DishPart(own.Key!.Value, new(own.Sum())),
    ];

    /// <summary>
    /// The lines of a put-together dish that bring plain foods, with only those; of any other recipe all of its lines.
    /// </summary>
    public IReadOnlyList<RecipeLine> OwnLines => Yield.IsPutTogether
        ? [.. Lines.Where(line => line.Contents is null || !line.Read.Ingredients.All(RecipeBook.IsRecipe)).Select(WithoutParts)]
        : Lines;

    /// <summary>What plain foods bring to a put-together dish.</summary>
    public Contents Plain => new(
        [.. OwnLines.SelectMany(line => line.Contents?.Ingredients ?? [])],
        SomethingUnread: OwnLines.Any(line => line.Contents?.SomethingUnread ?? true));

    private IEnumerable<Ingredient> InTheBox => Lines.SelectMany(Weighed);

    private static IEnumerable<Ingredient> Weighed(RecipeLine line) =>
        line.Read.Ingredients.Select(part => line.Written.IsOut ? part with { Weight = part.Weight * -1 } : part);

    private static RecipeLine WithoutParts(RecipeLine line) => line.Contents is { } brought
        ? line with { Contents = brought with { Ingredients = [.. Weighed(line).Where(part => !RecipeBook.IsRecipe(part))] } }
        : line;

    /// <summary>The nutrients of which more is taken out than went in: a slip in a line that takes out.</summary>
    public IReadOnlyList<Nutrient> TakenTooMuch =>
        Lines.Any(line => line.Written.IsOut) ? [.. Nutrients.All.Where(nutrient => Batch.Totals[nutrient].Known < 0)] : [];

    /// <summary>
    /// For each line its share of the batch in each measure: 0.7 where it brings seven tenths, below zero where it is taken out. A measure
    /// is left out where the line was not understood, its figure is not known, or the batch has none of it. Points are shared before
    /// rounding.
    /// </summary>
    public IReadOnlyList<IReadOnlyDictionary<Measure, decimal>> Shares(PointsRule? rule)
    {
        var exact = rule is null ? null : rule with { Step = 0 };
        var whole = MeasureTotals.Of(Batch, exact);
        IReadOnlyDictionary<Measure, decimal> SharesOfLine(RecipeLine line) =>
            line.Contents is { } part ? SharesOf(MeasureTotals.Of(part, exact), whole) : new Dictionary<Measure, decimal>();
        return [.. Lines.Select(SharesOfLine)];
    }

    private static Dictionary<Measure, decimal> SharesOf(
        IReadOnlyDictionary<Measure, Total> own, IReadOnlyDictionary<Measure, Total> whole) =>
        own.Where(total => total.Value.IsComplete && whole[total.Key].Known != 0)
            .ToDictionary(total => total.Key, total => total.Value.Known / whole[total.Key].Known);
}
