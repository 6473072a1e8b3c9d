using LivelyTern.Core.Aim;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack.Containers;
using LivelyTern.Core.Plan.Labels;
using LivelyTern.Core.Recipes;
using LivelyTern.Core.Review;
using LivelyTern.Data.Foods;

namespace LivelyTern.Data.Demo;

/// <summary>A dish of the demo: its recipe, the pan, and the boxes it goes into.</summary>
internal sealed record DemoDish(string Key, string Name, int Boxes, int? Pieces, decimal Pan, decimal Full, IReadOnlyList<string> Lines)
{
    public IReadOnlyList<RecipeStep> Steps { get; init; } = [];

    /// <summary>The tin or tray it is baked in, by its size.</summary>
    public Pan? Tin { get; init; }

    /// <summary>It as a recipe.</summary>
    public WrittenRecipe Written =>
        new(Name, [.. Lines.Select(line => new WrittenLine(line))], new(Boxes, Pieces, Full - Pan, Pan: Tin), Steps);
}

/// <summary>The demo's invented kitchen.</summary>
internal static class DemoKitchen
{
    public static IReadOnlyList<(string Name, DayAim Aim)> Eaters { get; } =
    [
        ("Isa", new(Measure.Energy, new Dictionary<Measure, Band>
        {
            [Measure.Energy] = new(1450, 1525, 1600), [Measure.Protein] = new(Min: 70),
        }, PointsRule.Starting)),
        ("Bram", new(Measure.Energy, new Dictionary<Measure, Band>
        {
            [Measure.Energy] = new(2100, 2200, 2300), [Measure.Protein] = new(Min: 110), [Measure.Fat] = new(Max: 90),
        }, null)),
        ("Noor", new(Measure.Points, new Dictionary<Measure, Band>
        {
            [Measure.Points] = new(Max: 26), [Measure.Energy] = new(Min: 1450, Max: 1850), [Measure.Protein] = new(Min: 75),
        }, NightWatch)),
    ];

    private static PointsRule NightWatch => new(
        "Night watch",
        new Dictionary<Nutrient, decimal>
        {
            [Nutrient.Energy] = 0.02m,
            [Nutrient.SaturatedFat] = 0.15m,
            [Nutrient.Fibre] = -0.05m,
        },
        1m, [FoodGroup.Vegetables, FoodGroup.Fruit], ["egg", "egg-white", "greek-yogurt-fat-free"]);

    /// <summary>
    /// How each of them eats: Isa is soon bored and keeps a reserve, Bram hauls supplies on Saturdays, Noor wakes in the afternoon.
    /// </summary>
    public static IReadOnlyDictionary<string, EatingWays> Ways { get; } = new Dictionary<string, EatingWays>(StringComparer.Ordinal)
    {
        ["Isa"] = new() { BoxesAlike = 2, Reserve = 300, RatherNot = ["cottage-cheese"] },
        ["Bram"] = new()
        {
            OtherDays =
            [
                new("hauling supplies", DayOfWeek.Saturday, null, new Dictionary<Measure, Band>
                {
                    [Measure.Energy] = new(2350, 2475, 2600),
                }),
            ],
        },
        ["Noor"] = new()
        {
            NeverAllergens = [Allergen.Crustaceans],
            OwnSlots =
            [
                new("after the watch", new(7, 0), 0.25m, true), new("on waking", new(15, 0), 0.35m, true),
                new("before the watch", new(20, 30), 0.3m, true), new("between", null, 0.1m, false),
            ],
        },
    };

    public static IReadOnlyList<DemoDish> Dishes { get; } =
    [
        new("BP", "Buckwheat pancakes", 8, 24, 0, 1710,
            [
                "300 g buckwheat flour", "100 g wheat flour, wholemeal", "4 eggs", "700 ml oat milk", "2 bananas, medium",
                "3 tbsp rapeseed oil", "2 tsp baking powder", "a pinch of salt",
            ])
        {
            Steps =
            [
                new("Whisk the wet into the dry, let the batter rest.", HandsOn: 10, Unattended: 20),
                new("Bake the pancakes, three at a time.", HandsOn: 25, Occupies: [Occupies.Ring], DoneWhen: "bubbles on top stay open"),
            ],
        },
        new("LD", "Red lentil dal", 10, null, 1630, 5930,
            [
                "700 g red lentils, dry", "2 x 400 g tin chopped tomatoes", "2 x 400 ml tin light coconut milk", "3 onions, chopped",
                "350 g spinach, frozen", "3 tbsp rapeseed oil", "4 tsp curry powder", "1.5 l water",
            ])
        {
            Steps =
            [
                new("Soften the onions in the oil with the curry powder.", HandsOn: 10, Occupies: [Occupies.Ring]),
                new(
                    "Add lentils, tomatoes, coconut milk and water; simmer.", HandsOn: 5, Unattended: 25, Occupies: [Occupies.Ring],
                    DoneWhen: "the lentils fall apart"),
                new("Stir in the spinach, cool in shallow boxes.", HandsOn: 5, Unattended: 30),
            ],
        },
        new("BM", "Barley and mushroom stew", 9, null, 1630, 6070,
            [
                "600 g pearl barley", "800 g mushrooms, sliced", "3 onions, chopped", "4 carrots", "3 tbsp olive oil",
                "200 g cheddar, grated", "2 l vegetable stock", "2 tbsp parsley, chopped",
            ])
        {
            Steps =
            [
                new("Brown the mushrooms, then soften onions and carrots.", HandsOn: 20, Occupies: [Occupies.Ring]),
                new(
                    "Add barley and stock, simmer with the lid on.", HandsOn: 3, Unattended: 45, Occupies: [Occupies.Ring],
                    DoneWhen: "the barley is soft with a bite"),
            ],
        },
        new("FF", "Fish and fennel tray bake", 8, null, 940, 4460,
            [
                "1.4 kg cod fillet", "1.8 kg potatoes", "3 fennel bulbs", "6 tbsp olive oil", "4 tbsp lemon juice", "1/4 cup parsley",
                "black pepper, to taste",
            ])
        {
            Tin = new(PanShape.Rectangular, 46, 36), Steps =
            [
                new("Slice potatoes and fennel thin, toss with the oil.", HandsOn: 15, Occupies: [Occupies.Board]),
                new("Roast the vegetables.", HandsOn: 2, Unattended: 30, Occupies: [Occupies.Oven, Occupies.Tray], TemperatureC: 200),
                new(
                    "Lay the fish on top and finish.", HandsOn: 3, Unattended: 12, Occupies: [Occupies.Oven, Occupies.Tray],
                    TemperatureC: 200, DoneWhen: "63 °C inside the thickest piece"),
            ],
        },
        new("FB", "Baked falafel", 6, 24, 610, 1720,
            [
                "3 x 400 g tin chickpeas, drained", "1 cup parsley, chopped", "3 tbsp tahini", "60 g plain flour", "4 tbsp olive oil",
                "1 tbsp cumin", "3 cloves garlic",
            ])
        {
            Tin = new(PanShape.Rectangular, 40, 30), Steps =
            [
                new(
                    "Blend everything but the flour, fold it in, chill.", HandsOn: 12, Unattended: 20,
                    Occupies: [Occupies.Blender, Occupies.Fridge]),
                new(
                    "Shape 24 balls, bake, turn once.", HandsOn: 15, Unattended: 25, Occupies: [Occupies.Oven, Occupies.Tray],
                    TemperatureC: 200, DoneWhen: "firm and brown below"),
            ],
        },
        new("CE", "Chickpea and spinach egg squares", 6, 12, 870, 2590,
            ["12 eggs", "400 g chickpeas, drained", "300 g spinach, frozen", "150 g feta", "2 onions, chopped", "2 tbsp olive oil"])
        {
            Tin = new(PanShape.Rectangular, 33, 23), Steps =
            [
                new("Thaw and press the spinach, soften the onions.", HandsOn: 12, Occupies: [Occupies.Ring]),
                new(
                    "Beat the eggs, mix all, bake.", HandsOn: 8, Unattended: 35, Occupies: [Occupies.Oven, Occupies.Tray],
                    TemperatureC: 180, DoneWhen: "71 °C in the middle"),
            ],
        },
        new("SB", "Seed bars", 20, 20, 0, 830,
            ["300 g rolled oats", "120 g sunflower seeds", "100 g pumpkin seeds", "150 g honey", "100 g dates", "80 g peanut butter"])
        {
            Tin = new(PanShape.Rectangular, 30, 20), Steps =
            [
                new("Warm honey, dates and peanut butter, mix with the rest, press into the tin.", HandsOn: 15, Occupies: [Occupies.Ring]),
                new(
                    "Bake, cool, cut into 20.", HandsOn: 8, Unattended: 50, Occupies: [Occupies.Oven, Occupies.Tray], TemperatureC: 160,
                    DoneWhen: "golden at the edge"),
            ],
        },
    ];

    /// <summary>A supper put together from what was cooked apart, line by line what one box gets.</summary>
    public static WrittenRecipe Bowl { get; } = new(
        "Lighthouse bowl",
        [
            new("4 baked falafel"), new("250 g red lentil dal"), new("80 g cucumber", Part: RecipePart.Topping),
            new("60 g skyr", Part: RecipePart.Topping),
        ],
        new(1, IsPutTogether: true));

    /// <summary>What the station's galley cooks in and packs into.</summary>
    public static IReadOnlyList<Container> Containers { get; } =
    [
        new(ContainerKind.Pan, "Blue stockpot") { Empty = new Grams(2140) },
        new(ContainerKind.Pan, "Black roasting tin") { Empty = new Grams(1385) },
        new(ContainerKind.Box, "Half-litre glass") { Empty = new Grams(390), Compartments = [new(null, 520)], Count = 24 },
        new(ContainerKind.Box, "Watch tin")
        {
            Empty = new Grams(310),
            Compartments = [new("big side", 620), new("small side", 260)],
            Count = 8,
        },
        new(ContainerKind.Cup, "Sauce cup") { Empty = new Grams(11), Compartments = [new(null, 60)], Count = 12 },
        new(ContainerKind.Bag, "Freezer bag") { Rows = (4, 4), Count = 30 },
    ];

    /// <summary>What is to be cooked on the coming prep day, and for how many portions.</summary>
    public static IReadOnlyList<(string Key, int Portions)> Ahead { get; } = [("BP", 8), ("BM", 9), ("CE", 8), ("LB", 4)];

    /// <summary>The dishes of which what is for the later half of the week is frozen on the prep day.</summary>
    public static IReadOnlyList<string> FrozenAtOnce { get; } = ["BP", "LD", "BM", "FB", "SB"];

    /// <summary>How long they have weighed themselves.</summary>
    public const int WeighedDays = 91;

    /// <summary>What each weighed at first, in kg, and by how much that changes a day.</summary>
    public static IReadOnlyList<(string Name, double Kg, double PerDay)> Scales { get; } =
        [("Isa", 70.6, -0.031), ("Bram", 83.2, 0.008), ("Noor", 62.4, -0.012)];

    /// <summary>Who swapped two digits, so many days ago.</summary>
    public static (string Name, int DaysAgo) Swapped => ("Isa", 36);

    /// <summary>How boxes are heated, and what is added when they are eaten.</summary>
    public static IReadOnlyList<(string Dish, BoxNotes Notes)> Notes { get; } =
    [
        ("LD", new("3 min, lid ajar, stir once", "40 g skyr, 10 g pumpkin seeds")), ("BM", new("3 min, lid ajar, stir once", null)),
        ("FF", new("2 min, covered: the fish dries out", "1 tbsp lemon juice")),
    ];

    /// <summary>What of last week went otherwise, by eater and day from Monday 0.</summary>
    public static IReadOnlyDictionary<(string Name, int Day), string> LastWeek { get; } = new Dictionary<(string, int), string>
    {
        [("Isa", 0)] = "more: 10 g pumpkin seeds + more: 40 g skyr",
        [("Isa", 2)] = "250 g skyr for 150 g skyr",
        [("Isa", 4)] = "more: out: Supper at the harbour, 450 to 650 kcal + not: 1 pear",
        [("Isa", 5)] = "more: 20 g dark chocolate",
        [("Bram", 1)] = "more: 40 g cheddar",
        [("Bram", 4)] = "not: 30 g walnuts",
        [("Noor", 1)] = "more: 10 g pumpkin seeds",
        [("Noor", 3)] = "more: 1 banana",
    };

    /// <summary>What was said of last week's dishes.</summary>
    public static IReadOnlyList<(string Dish, string Name, Serving Serving, Verdict Verdict)> Said { get; } =
    [
        ("LD", "Isa", Serving.Reheated, new(Taste.Favourite, Stood.Well, Stood.Well, Effort.Little, Again.Yes, null)),
        ("LD", "Noor", Serving.Reheated, new(Taste.Good, Stood.Well, null, null, Again.Yes, null)),
        (
            "FF", "Isa", Serving.Reheated,
            new(Taste.Good, Stood.Poorly, Stood.Fairly, Effort.WorthIt, Again.Changed, "Take the fish out sooner: it dries out reheated.")),
        ("BM", "Bram", Serving.Reheated, new(Taste.Good, Stood.Well, Stood.Well, null, null, "More salt in the stock.")),
    ];

    /// <summary>The dish of which a box of last week was forgotten.</summary>
    public const string Forgotten = "LD";

    /// <summary>Two foods off labels, one of each convention.</summary>
    public static IReadOnlyList<OwnFood> OwnFoods { get; } =
    [
        new(
            "Supply boat rye crispbread", FoodGroup.Grains,
            new(
                LabelBasis.Per100g, 12, CarbohydrateConvention.WithoutFibre, Kilocalories: 338, Protein: 9.5m, Fat: 1.6m,
                SaturatedFat: 0.3m, Carbohydrate: 62, Sugars: 1.4m, Fibre: 19, SaltGrams: 1.1m),
            250, [Allergen.Gluten], null),
        new(
            "Mainland protein pudding", FoodGroup.Dairy,
            new(
                LabelBasis.PerServing, 200, CarbohydrateConvention.Total, Kilocalories: 152, Protein: 20, Fat: 3, SaturatedFat: 2,
                Carbohydrate: 12, Sugars: 9, Fibre: 1, SodiumMilligrams: 120),
            200, [Allergen.Milk], null),
    ];

    /// <summary>Seven days for each eater, meals in order; two letters are a box of that dish, all else a plain food as typed.</summary>
    public static IReadOnlyList<(string Name, IReadOnlyList<string> Days)> Week { get; } =
    [
        ("Isa",
        [
            "BP + LD + 1 apple + FF + SB + 150 g skyr",
            "BP + BM + 1 pear + CE + SB + 200 g skyr",
            "BP + FF + 1 apple + LD",
            "BP + FB + 1 pear + BM + SB + 250 g skyr + 30 g walnuts",
            "60 g quick oats + 200 ml oat milk + LD + 250 g skyr + BM + SB + 1 apple",
            "60 g quick oats + 200 ml oat milk + 1 banana + CE + SB",
            "60 g quick oats + 200 ml oat milk + 1 banana",
        ]),
        ("Bram",
        [
            "80 g rolled oats + 300 ml oat milk + 1 banana + FF + 2 slices rye bread + 3 eggs + LD + SB + 300 g skyr",
            "80 g rolled oats + 300 ml oat milk + 1 banana + LD + 2 slices rye bread + 3 eggs + BM + SB + 300 g skyr",
            "80 g rolled oats + 300 ml oat milk + 1 banana + FF + 2 slices rye bread + 3 eggs + BM + SB + 300 g skyr",
            "80 g rolled oats + 300 ml oat milk + CE + 1 banana + FB + 2 slices rye bread + BM + SB + 200 g cottage cheese + 200 g skyr",
            "80 g rolled oats + 300 ml oat milk + 1 banana + LD + 2 slices rye bread + 3 eggs + FB + SB + 300 g skyr",
            "80 g rolled oats + 300 ml oat milk + 1 banana + BM + 2 slices rye bread + SB + 300 g skyr",
            "80 g rolled oats + 300 ml oat milk + 1 banana",
        ]),
        ("Noor",
        [
            "BP + 200 g skyr + BM + 1 apple + FF + SB + 2 eggs",
            "BP + 200 g skyr + FF + 1 orange + LD + SB + 2 eggs",
            "BP + 200 g skyr + CE + 1 apple + LD + SB + 2 eggs",
            "2 slices rye bread + 2 eggs + BM + 200 g skyr + FB + SB + 1 orange",
            "2 slices rye bread + 2 eggs + FB + 200 g skyr + CE + SB + 1 banana + 1 orange",
            "2 slices rye bread + 2 eggs + LD + 200 g skyr + SB",
            "2 slices rye bread + 2 eggs + 200 g skyr",
        ]),
    ];
}
