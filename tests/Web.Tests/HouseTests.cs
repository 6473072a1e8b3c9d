using ArchUnitNET.Domain;
using ArchUnitNET.Loader;
using ArchUnitNET.xUnit;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Data;
using LivelyTern.Data.Foods;
using static ArchUnitNET.Fluent.ArchRuleDefinition;

namespace LivelyTern.Web.Tests;

/// <summary>The floors apart, the rooms without circles, the tables true, the document served.</summary>
public sealed class HouseTests
{
    private static readonly Architecture House = new ArchLoader()
        .LoadAssemblies(typeof(Food).Assembly, typeof(TernDb).Assembly, typeof(Program).Assembly).Build();

    // What a thing is made of comes first; a room may use only the rooms before it.
    private static readonly string[] Order = ["Measures", "Foods", "Aim", "Recipes", "Cook", "Pack", "Keep", "Plan", "Shop", "Eat", "Review"];

    [Fact]
    public void The_core_knows_no_other_floor_no_database_and_no_web()
    {
        foreach (var outside in new[] { @"LivelyTern\.Data", @"LivelyTern\.Web", @"Microsoft\.EntityFrameworkCore", @"Microsoft\.AspNetCore", @"System\.IO", @"System\.Net" })
            Types().That().ResideInNamespaceMatching(@"^LivelyTern\.Core").Should().NotDependOnAnyTypesThat().ResideInNamespaceMatching("^" + outside).Check(House);
        Types().That().ResideInNamespaceMatching(@"^LivelyTern\.Data").Should().NotDependOnAnyTypesThat().ResideInNamespaceMatching(@"^LivelyTern\.Web").Check(House);
    }

    [Fact]
    public void Rooms_of_the_core_use_only_rooms_before_them()
    {
        for (var room = 0; room < Order.Length; room++)
        {
            foreach (var later in Order.Skip(room + 1))
                Types().That().ResideInNamespaceMatching($@"^LivelyTern\.Core\.{Order[room]}$").Should()
                    .NotDependOnAnyTypesThat().ResideInNamespaceMatching($@"^LivelyTern\.Core\.{later}$").WithoutRequiringPositiveResults().Check(House);
        }
    }

    [Fact]
    public void The_core_asks_for_no_clock_and_no_chance() =>
        Types().That().ResideInNamespaceMatching(@"^LivelyTern\.Core").Should()
            .NotDependOnAnyTypesThat().HaveFullNameMatching(@"^System\.(TimeProvider|Random|DateTime|Environment)$").Check(House);

    [Fact]
    public void Each_food_of_the_table_agrees_with_itself()
    {
        var foods = FoodTable.Read();
        Assert.True(foods.Count >= 60);
        Assert.Equal(foods.Count, foods.Select(food => food.Id).Distinct().Count());
        Assert.All(foods, food =>
        {
            var n = food.Per100g;
            var parts = (n.Protein ?? 0) + (n.Fat ?? 0) + (n.Carbohydrate ?? 0) + (n.Salt ?? 0);
            Assert.True(parts <= 100.5m, $"{food.Name}: parts are {parts} g of 100");
            Assert.True((n.SaturatedFat ?? 0) <= n.Fat && (n.Sugars ?? 0) <= n.Carbohydrate + 0.5m, $"{food.Name}: a part is more than its whole");
            Assert.False(string.IsNullOrWhiteSpace(food.Source));
            Assert.All(food.Measures, measure => Assert.InRange(measure.Weight.Value, 0.5m, 500m));

            // EU 1169/2011 Annex XIV. The one exception: what the table calls carbohydrate in baking powder is mostly carbonate, which feeds nobody.
            if (food.Id == "baking-powder") return;
            var byFactors = EnergyFactors.Kilocalories(n, carbohydrateContainsFibre: true);
            Assert.True(Math.Abs(byFactors - n.Energy!.Value) <= Math.Max(20, 0.15m * n.Energy.Value), $"{food.Name}: {n.Energy} kcal, by the factors {byFactors}");
        });
    }

    // USDA FoodData Central, SR Legacy, from memory (CHECKS of single foods): kcal, protein, fat, carbohydrate, fibre per 100 g.
    [Theory]
    [InlineData("egg", 143, 12.6, 9.5, 0.7, null)]
    [InlineData("egg-white", 52, 10.9, 0.2, 0.7, null)]
    [InlineData("banana", 89, 1.1, 0.3, 22.8, 2.6)]
    [InlineData("rolled-oats", 379, 13.2, 6.5, 67.7, 10.1)]
    [InlineData("chicken-breast-raw", 120, 22.5, 2.6, 0, null)]
    [InlineData("olive-oil", 884, 0, 100, 0, null)]
    [InlineData("butter", 717, 0.85, 81.1, 0.06, null)]
    [InlineData("white-sugar", 387, 0, 0, 100, null)]
    [InlineData("red-lentils-dry", 358, 23.9, 2.2, 63.1, 10.7)]
    [InlineData("brown-rice-dry", 367, 7.5, 3.2, 76.2, 3.6)]
    public void Single_foods_hold_what_the_public_table_says(string id, double kcal, double protein, double fat, double carbohydrate, double? fibre)
    {
        var food = FoodTable.Read().Single(food => food.Id == id).Per100g;
        Assert.Equal((kcal, protein, fat, carbohydrate), ((double)food.Energy!, (double)food.Protein!, (double)food.Fat!, (double)food.Carbohydrate!));
        if (fibre is not null) Assert.Equal(fibre, (double)food.Fibre!);
    }

    // Common practice, no published source.
    [Theory]
    [InlineData("4 tbsp butter", 56)]
    [InlineData("8 tbsp butter", 112)]
    [InlineData("1/2 cup quick oats", 40)]
    [InlineData("2 eggs", 100)]
    public void Household_measures_of_the_table_are_those_of_the_trade(string line, decimal grams) =>
        Assert.Equal(grams, FoodLine.Read(line, new FoodCatalogue(FoodTable.Read())).Ingredient!.Weight.Value);

    [Fact]
    public void Lean_mince_holds_the_fat_its_label_says()
    {
        // Common practice, no published source: 150 g of 5 % mince hold 7.5 g of fat, with half an egg about 10.
        var catalogue = new FoodCatalogue(FoodTable.Read());
        decimal Fat(params string[] lines) => new Contents([.. lines.Select(line => FoodLine.Read(line, catalogue).Ingredient!)]).Totals[Nutrient.Fat].AtLeast;
        Assert.Equal(7.5m, Fat("150 g lean minced beef"));
        Assert.InRange(Fat("150 g lean minced beef", "1/2 egg"), 9.5m, 10.5m);
    }

    [Fact]
    public async Task Every_food_of_the_table_is_found_by_each_of_its_names()
    {
        using var host = new Host();
        foreach (var food in FoodTable.Read())
        {
            var names = food.Aliases.Prepend(food.Name).ToList();
            var read = (await host.PostAsync("/api/calc/parse", new { lines = names.Select(name => $"100 g {name}") }))["lines"]!.AsArray();
            Assert.All(read, (line, i) => Assert.True((string?)line!["food"]?["id"] == food.Id, $"“{names[i]}” means {line["food"] ?? line["problem"]!["sentence"]}"));
        }
    }

    [Fact]
    public async Task The_demo_is_a_week_in_progress_by_the_programs_own_rules()
    {
        using var host = new Host(demo: true);
        var week = await host.GetAsync("/api/plan/weeks/2026-11-25");
        Assert.Equal(3, week["eaters"]!.AsArray().Count);
        Assert.True(week["shelf"]!.AsArray().Count >= 5);
        Assert.Contains(week["eaters"]!.AsArray(), eater => (int)eater!["fitDays"]! >= 3);
        var items = week["eaters"]!.AsArray().SelectMany(eater => eater!["days"]!.AsArray()).SelectMany(day => day!["items"]!.AsArray().Select(item => (Day: (string)day["day"]!, Eaten: item!["eatenAt"] is not null))).ToList();
        Assert.All(items.Where(item => string.CompareOrdinal(item.Day, "2026-11-25") < 0), item => Assert.True(item.Eaten));
        Assert.All(items.Where(item => string.CompareOrdinal(item.Day, "2026-11-25") > 0), item => Assert.False(item.Eaten));
        Assert.All((await host.GetAsync("/api/recipes")).AsArray(), recipe => Assert.Equal(0, (int)recipe!["notUnderstood"]!));
    }

    [Fact]
    public async Task The_document_lists_every_room_and_nothing_is_fetched_from_elsewhere()
    {
        using var host = new Host();
        var paths = (await host.GetAsync("/openapi/v1.json"))["paths"]!.AsObject().Select(path => path.Key).ToList();
        foreach (var room in new[] { "/api/aim/", "/api/foods", "/api/recipes", "/api/plan/", "/api/pack/", "/api/eat/", "/api/calc/recipe", "/api/calc/portions", "/api/calc/day", "/api/calc/parse" })
            Assert.Contains(paths, path => path.StartsWith(room, StringComparison.Ordinal));
        Assert.Equal("ok", (string?)(await host.GetAsync("/health"))["status"]);
        using var docs = await host.Http.GetAsync("/docs/");
        Assert.Equal(200, (int)docs.StatusCode);
        Assert.DoesNotContain("src=\"http", await docs.Content.ReadAsStringAsync());
        Assert.Contains("default-src 'self'", docs.Headers.GetValues("Content-Security-Policy").Single());
    }
}
