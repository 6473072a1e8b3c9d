using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Recipes;

namespace LivelyTern.Core.Tests.Recipes;

public class RecipeBookTests
{
    private static readonly Guid Base = Guid.Parse("00000000-0000-0000-0000-000000000001"),
        Dish = Guid.Parse("00000000-0000-0000-0000-000000000002"), Third = Guid.Parse("00000000-0000-0000-0000-000000000003");

    private static RecipeBook Book(params (Guid Id, WrittenRecipe Recipe)[] recipes) =>
        new(Kitchen.Catalogue, recipes.ToDictionary(pair => pair.Id, pair => pair.Recipe));

    private static WrittenRecipe Of(string name, RecipeYield yield, params WrittenLine[] lines) => new(name, lines, yield);

    [Theory]
    [InlineData("250 g tomato base", 0.25)]
    [InlineData("1 portion tomato base", 0.25)]
    [InlineData("2 portions of tomato base", 0.5)]
    [InlineData("1/2 tomato base", 0.125)] // half of what a bare count means, which is a portion
    public void A_recipe_is_an_ingredient_by_weight_and_by_the_portion(string line, decimal share)
    {
        // 1,000 g of lentils and 200 g of butter cook down to 1,000 g.
        var book = Book(
            (Base, Of("Tomato base", new(4, CookedGrams: 1000), new WrittenLine("1 kg red lentils, dry"),
            new WrittenLine("200 g butter"))), (Dish, Of("Stew", new(1), new WrittenLine(line))));
        var stew = book.Read(Dish).Batch;
        Assert.Equal(share * ((10 * 358) + (2 * 717)), stew.Totals[Nutrient.Energy].Known);
        Assert.Equal([share * 1000, share * 200], stew.Ingredients.Select(part => part.Weight.Value));
    }

    [Fact]
    public void Figures_of_a_recipe_inside_another_follow_from_its_foods_so_unknown_stays_at_least()
    {
        var book = Book((Base, Of("Filling", new(1), new WrittenLine("100 g rye bread"), new WrittenLine("100 g quick oats"))),
            (Dish, Of("Pie", new(1), new WrittenLine("200 g filling"))));
        Assert.Equal(Total.Of(10, false), book.Read(Dish).Batch.Totals[Nutrient.Fibre]);
        Assert.Equal(["rye bread"], book.Read(Dish).Batch.Missing(Nutrient.Fibre));
    }

    [Fact]
    public void A_circle_is_told_by_its_names_and_never_read_round()
    {
        var book = Book(
            (Base, Of("Sauce", new(1), new WrittenLine("100 g butter"), new WrittenLine("100 g stew", RecipeBook.IdOf(Dish)))),
            (Dish, Of("Stew", new(1), new WrittenLine("100 g pie", RecipeBook.IdOf(Third)))),
            (Third, Of("Pie", new(1), new WrittenLine("50 g sauce", RecipeBook.IdOf(Base)))));
        Assert.Equal(["Stew", "Pie", "Sauce", "Stew"],
            book.LoopOf(Of("Stew", new(1), new WrittenLine("100 g pie", RecipeBook.IdOf(Third))), Dish));
        Assert.Null(book.LoopOf(Of("Stew", new(1), new WrittenLine("100 g butter")), Dish));

        // Whoever is opened first: what can be read is read, the line that closes the circle says so.
        foreach (var id in new[] { Base, Dish, Third, Base })
        {
            var recipe = book.Read(id);
            Assert.False(recipe.Batch.Totals[Nutrient.Energy].IsComplete);
        }

        var closing = Book((Base, Of("Sauce", new(1), new WrittenLine("10 g sauce", RecipeBook.IdOf(Base))))).Read(Base).Lines.Single();
        Assert.Equal("recipe-loop", closing.Read.Problem!.Code);
    }

    [Fact]
    public void A_recipe_named_like_a_food_means_the_food_within_itself()
    {
        var book = Book((Base, Of("Rye bread", new(1), new WrittenLine("300 g rye bread"), new WrittenLine("100 g butter"))),
            (Dish, Of("Toast", new(1), new WrittenLine("100 g rye bread"))));
        Assert.Equal((3 * 258) + 717, book.Read(Base).Batch.Totals[Nutrient.Energy].Known);
        Assert.Equal(((3 * 258) + 717) / 4m, book.Read(Dish).Batch.Totals[Nutrient.Energy].Known);
    }

    [Fact]
    public void Thirty_recipes_each_twice_in_the_next_are_read_at_once()
    {
        var ids = Enumerable.Range(0, 30).Select(i => Guid.Parse($"00000000-0000-0000-0000-{i + 1:D12}")).ToList();
        var book = Book(
            [.. ids.Select((id, i) =>
            (id, Of($"layer {i}", new(1),
            i == 0 ? [new("1 g butter")] : [new($"1 g layer {i - 1}", RecipeBook.IdOf(ids[i - 1])),
            new($"1 g layer {i - 1}", RecipeBook.IdOf(ids[i - 1]))])))]);
        Assert.Equal(2, book.Read(ids[29]).Batch.RawWeight.Value);
    }

    [Fact]
    public void A_recipe_that_is_gone_or_put_away_is_not_meant_by_its_name()
    {
        var written =
            new Dictionary<Guid, WrittenRecipe>
            {
                [Base] = Of("Tomato base", new(1), new WrittenLine("100 g butter")),
                [Dish] = Of("Stew", new(1), new WrittenLine("100 g tomato base"), new WrittenLine("100 g x", RecipeBook.IdOf(Third)),
            new WrittenLine("100 g x", RecipeBook.IdOf(Base)))
            };
        var lines = new RecipeBook(Kitchen.Catalogue, written, new HashSet<Guid> { Base }).Read(Dish).Lines;
        Assert.Equal(["food-unknown", "recipe-gone", null], lines.Select(line => line.Read.Problem?.Code));
        Assert.Equal(717, lines[2].Contents!.Totals[Nutrient.Energy].Known);
    }
}
