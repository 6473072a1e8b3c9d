namespace LivelyTern.Core.Recipes;

/// <summary>A few recipes of our own making to begin with, in plain foods that every shop has.</summary>
public static class StarterRecipes
{
    /// <summary>All of them; each is read whole against the built-in foods.</summary>
    public static IReadOnlyList<WrittenRecipe> All { get; } =
    [
        Of(
            "Chickpea and tomato pot", 6, null,
            [
                "2 x 400 g tin chickpeas, drained", "2 x 400 g tin chopped tomatoes", "2 onions, chopped", "300 g spinach, frozen",
                "2 tbsp olive oil", "300 g rice, dry", "2 tsp curry powder", "500 ml water",
            ],
            [new("Soften the onions in the oil with the curry powder.", HandsOn: 8, Occupies: [Occupies.Ring]),
            new(
                "Add everything else and simmer until the rice is soft.", HandsOn: 4, Unattended: 20, Occupies: [Occupies.Ring],
                DoneWhen: "the rice is soft")]),
        Of(
            "Chicken and root vegetable tray", 5, null,
            ["900 g chicken breast, raw", "800 g potatoes", "4 carrots", "2 onions", "3 tbsp olive oil", "1 tsp salt"],
            [new(
                "Cut everything into pieces of one size, toss with the oil, roast.", HandsOn: 20, Unattended: 40,
                Occupies: [Occupies.Oven], DoneWhen: "the chicken reads 74 °C")]),
        Of(
            "Oat and banana muffins", 6, 12,
            ["250 g rolled oats", "3 bananas, medium", "3 eggs", "250 g greek yogurt, fat-free", "2 tsp baking powder", "50 g walnuts"],
            [new("Mash the bananas, stir everything together, fill twelve cups.", HandsOn: 15),
            new("Bake until firm.", Unattended: 25, Occupies: [Occupies.Oven], DoneWhen: "a skewer comes out clean")]),
        Of(
            "Egg and spinach bake", 4, 8,
            ["8 eggs", "300 g spinach, frozen", "150 g feta", "200 g cottage cheese", "1 tbsp butter"],
            [new("Thaw and press the spinach, whisk everything, pour into a buttered dish.", HandsOn: 15),
            new("Bake until set; cut into eight.", Unattended: 30, Occupies: [Occupies.Oven], DoneWhen: "the middle is firm")]),
    ];

    private static WrittenRecipe Of(
        string name, int portions, int? pieces, IReadOnlyList<string> lines, IReadOnlyList<RecipeStep> steps) =>
        new(name, [.. lines.Select(line => new WrittenLine(line))], new(portions, pieces), steps);
}
