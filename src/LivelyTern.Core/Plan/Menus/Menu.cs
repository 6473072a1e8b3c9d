using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Plan.Menus;

/// <summary>A recipe of the collection that could be cooked.</summary>
/// <param name="RecipeId">The recipe.</param>
/// <param name="Batch">It, as a batch to be cooked on the prep day, of which nothing lies on days; its id is the recipe's.</param>
/// <param name="LastCooked">When it was cooked last, or is planned for already; null where never.</param>
public sealed record MenuDish(Guid RecipeId, UnpackedBatch Batch, DateOnly? LastCooked)
{
    /// <summary>What was said of it after it was eaten; null for nothing.</summary>
    public DishOpinion? Opinion { get; init; }
}

/// <summary>What a menu is asked for.</summary>
/// <param name="PrepDay">The day the batches are cooked.</param>
/// <param name="Dishes">How many dishes.</param>
/// <param name="Keep">Recipes that are in it in any case.</param>
/// <param name="Without">Recipes that are not.</param>
/// <param name="AtHand">What is in the house and wants to be used.</param>
public sealed record MenuWish(
    DateOnly PrepDay, int Dishes, IReadOnlyList<Guid> Keep, IReadOnlyList<Guid> Without, IReadOnlyList<Ingredient> AtHand)
{
    /// <summary>The most dishes of one prep day.</summary>
    public const int MostDishes = 8;

    /// <summary>What is wrong with it, field by field.</summary>
    public IEnumerable<Problem> Problems()
    {
        if (Dishes is < 1 or > MostDishes) yield return new("menu-dishes", "dishes", $"Propose between 1 and {MostDishes} dishes.");
        if (Keep.Count > Dishes) yield return new("menu-keep", "keep", "More dishes are kept than the menu has.");
        if (Keep.Intersect(Without).Any()) yield return new("menu-keep", "without", "A dish is both kept and left out: choose one.");
        if (AtHand.Count > 60) yield return new("menu-at-hand", "atHand", "Name up to 60 things that are in the house.");
    }
}

/// <summary>Something of the house that a dish uses.</summary>
/// <param name="Name">The food.</param>
/// <param name="Weight">Grams of it that go in.</param>
/// <param name="Of">Grams there are.</param>
public sealed record UsesUp(string Name, Grams Weight, Grams Of);

/// <summary>Foods that two dishes of a menu have in common.</summary>
/// <param name="OtherDish">The other dish.</param>
/// <param name="Foods">The foods.</param>
public sealed record SharedFoods(string OtherDish, IReadOnlyList<string> Foods);

/// <summary>A dish of a proposed menu, and why.</summary>
/// <param name="RecipeId">The recipe.</param>
/// <param name="Name">The dish.</param>
/// <param name="Portions">For how many of the recipe's portions it would be cooked.</param>
/// <param name="Boxes">How many boxes the days then take of it.</param>
/// <param name="IsKept">Whether it was asked for.</param>
/// <param name="LastCooked">When it was cooked last; null where never.</param>
/// <param name="UsesUp">What of the house it uses.</param>
/// <param name="Shares">What it has in common with the other dishes.</param>
public sealed record ProposedDish(
    Guid RecipeId, string Name, int Portions, int Boxes, bool IsKept, DateOnly? LastCooked, IReadOnlyList<UsesUp> UsesUp,
    IReadOnlyList<SharedFoods> Shares)
{
    /// <summary>What was said of it after it was eaten; null for nothing.</summary>
    public DishOpinion? Opinion { get; init; }
}

/// <summary>A proposed menu.</summary>
/// <param name="Dishes">Its dishes; fewer than asked for where the collection has no more.</param>
/// <param name="FitDays">How many of the days fit with it, in a quick fit.</param>
/// <param name="FitWithout">How many fit with what is there already.</param>
/// <param name="AllDays">How many days there are.</param>
public sealed record ProposedMenu(IReadOnlyList<ProposedDish> Dishes, int FitDays, int FitWithout, int AllDays);
