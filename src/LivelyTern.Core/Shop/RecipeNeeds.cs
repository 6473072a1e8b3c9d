using LivelyTern.Core.Cook;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Recipes;

namespace LivelyTern.Core.Shop;

/// <summary>What a batch of a recipe takes, as purchased, with the recipes that are parts of it.</summary>
/// <param name="Foods">What is bought.</param>
/// <param name="NotRead">The lines that were not understood: nobody knows what to buy for them.</param>
public sealed record RecipeNeeds(IReadOnlyList<Needed> Foods, IReadOnlyList<string> NotRead)
{
    /// <summary>The needs of a batch. What is taken out again (frying oil, a bay leaf) is bought all the same.</summary>
    /// <param name="book">The recipes.</param>
    /// <param name="recipe">The recipe.</param>
    /// <param name="factor">How many times what it makes.</param>
    /// <param name="instead">Foods that stand in for others in this batch.</param>
    /// <param name="withoutParts">Whether to leave out what a put-together dish takes of batches that are bought for by themselves.</param>
    public static RecipeNeeds Of(
        RecipeBook book, Recipe recipe, decimal factor, IReadOnlyList<Substitution> instead, bool withoutParts = false)
    {
        ArgumentNullException.ThrowIfNull(book);
        ArgumentNullException.ThrowIfNull(instead);
        var needs = new List<Needed>();
        var missed = new List<string>();
        var open = new Stack<(Recipe Recipe, decimal Factor)>([(recipe, factor)]);
        while (open.TryPop(out var next))
        {
            foreach (var line in next.Recipe.Lines.Where(line => !line.Written.IsOut))
            {
                if (line.Contents is null) missed.Add(line.Written.Text);
                foreach (var part in line.Read.Ingredients.Where(part => !IsLeftOut(part)))
                    Add(part with { Weight = part.Weight * next.Factor }, line.Read.Parts.Note);
            }
        }

        return new(needs, [.. missed.Where(text => !string.IsNullOrWhiteSpace(text)).Distinct(StringComparer.Ordinal)]);

        bool IsLeftOut(Ingredient part) => withoutParts && recipe.Yield.IsPutTogether && RecipeBook.IsRecipe(part);

        void Add(Ingredient part, string note)
        {
            if (RecipeBook.RecipeOf(part.Food.Id) is { } id)
            {
                var sub = book.Read(id);
                if (sub.Weight.Value > 0) open.Push((sub, part.Weight / sub.Weight));
                return;
            }

            foreach (var one in Substitution.All(instead, new([part]), book.Find).Ingredients)
                if (AsPurchased.Of(one, note, book.Find) is { } need) needs.Add(need);
        }
    }
}
