using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Shop;
using LivelyTern.Data.Foods;
using LivelyTern.Data.Shop;

namespace LivelyTern.Data.Demo;

/// <summary>The demo's cupboard, its prices, and a list that is half ticked: the supply boat is being loaded.</summary>
public sealed class DemoShop(PantryStore pantry, ShopStore shop, FoodStore foods, TimeProvider clock)
{
    // What is in the house, and in how many days its package names its last; "" for none.
    private static readonly (string Line, int? Days)[] Cupboard =
    [
        ("500 g olive oil", null), ("750 g rapeseed oil", null), ("1 kg rolled oats", null), ("500 g quick oats", null),
        ("1 kg wholemeal wheat flour", null), ("150 g baking powder", null), ("500 g red lentils, dry", null), ("1 kg oat milk", 6),
        ("450 g skyr", 2), ("180 g tahini", null), ("600 g rye bread", 3), ("1.5 kg potatoes", null), ("40 g dill, fresh", 1),
    ];

    // Prices are made up, for the first package of each.
    private static readonly (string Food, decimal Price)[] Prices =
    [
        ("carrot", 1.10m), ("mushrooms", 3.20m), ("onion", 1.60m), ("cheddar", 2.80m), ("pearl barley, dry", 1.40m),
        ("olive oil", 6.90m), ("parsley, fresh", 1.20m), ("vegetable stock, ready to use", 1.90m), ("buckwheat flour", 2.60m),
        ("feta", 2.20m), ("chickpeas, canned, drained", 0.90m), ("spinach, frozen", 1.80m), ("skyr, plain", 1.30m),
    ];

    private static readonly (string Food, decimal Grams)[] InTheBasket =
    [
        ("carrot", 500), ("mushrooms", 1000), ("onion", 1000), ("cheddar", 200), ("feta", 200), ("chickpeas, canned, drained", 1200),
        ("spinach, frozen", 450), ("pearl barley, dry", 1000), ("parsley, fresh", 30),
    ];

    /// <summary>Lays it.</summary>
    public async Task SeedAsync()
    {
        var known = await foods.CatalogueAsync();
        Ingredient Read(string line) =>
            FoodLine.Read(line, known).Ingredient ?? throw new InvalidOperationException($"The demo can't read “{line}”.");
        PutInPantry Put((string Line, int? Days) thing)
        {
            var part = Read(thing.Line);
            DateOnly? last = thing.Days is { } days ? clock.Today().AddDays(days) : null;
            return new(part.Food.Id, part.Food.Name, part.Weight, last);
        }

        var salt = Read("1 g salt").Food;
        Must(await pantry.AddAsync([.. Cupboard.Select(Put), new PutInPantry(salt.Id, salt.Name, null)]));
        foreach (var (name, price) in Prices)
        {
            var sold = SoldAs.Commonly(Read($"1 g {name}").Food);
            IReadOnlyList<SoldPackage> priced = sold.Packages.Count > 0
                ? [sold.Packages[0] with { Price = price }, .. sold.Packages.Skip(1)]
                : [new SoldPackage(new Grams(1000), price)];
            Must(await shop.SetSoldAsync(Read($"1 g {name}").Food.Id, 0, sold with { Packages = priced }));
        }

        Must(await shop.SetAislesAsync(0, Aisles.AtFirst with { Currency = "€" }));
        Must(await shop.WriteOnAsync(Guid.CreateVersion7(), "lamp oil", null));
        Must(await shop.WriteOnAsync(Guid.CreateVersion7(), "2 l semi-skimmed milk", null));
        var now = clock.GetUtcNow();
        Must(await shop.TickAsync([.. InTheBasket.Select(one => new Tick(Read($"1 g {one.Food}").Food.Id, true, new(one.Grams), now))]));
    }

    private static void Must<T>(Outcome<T> outcome)
    {
        if (!outcome.Succeeded)
            throw new InvalidOperationException("The demo does not pass the program's own rules: " + outcome.Problems[0].Sentence);
    }
}
