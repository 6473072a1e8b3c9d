using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Foods;

/// <summary>What a food's carbohydrate figure contains.</summary>
public enum CarbohydrateConvention
{
    /// <summary>"Total carbohydrate", with fibre and polyols in it (North America).</summary>
    Total,

    /// <summary>Carbohydrate without fibre (EU and UK).</summary>
    WithoutFibre,
}

/// <summary>Kinds of food, coarse enough to tick in a list of free foods.</summary>
public enum FoodGroup
{
    /// <summary>Vegetables, without potatoes and pulses.</summary>
    Vegetables,

    /// <summary>Fruit.</summary>
    Fruit,

    /// <summary>Potatoes and other starchy roots.</summary>
    Potatoes,

    /// <summary>Beans, lentils, peas, tofu.</summary>
    Pulses,

    /// <summary>Grains, flours, pasta and bread.</summary>
    Grains,

    /// <summary>Milk, yogurt, cheese, and plant drinks in their place.</summary>
    Dairy,

    /// <summary>Eggs.</summary>
    Eggs,

    /// <summary>Fish and seafood.</summary>
    Fish,

    /// <summary>Meat and poultry.</summary>
    Meat,

    /// <summary>Nuts and seeds.</summary>
    NutsAndSeeds,

    /// <summary>Oils, butter and other fats.</summary>
    Fats,

    /// <summary>Sugar, honey, chocolate, dried sweets.</summary>
    Sweets,

    /// <summary>Herbs, spices, stocks, sauces, vinegar, water.</summary>
    Seasonings,
}

/// <summary>What must be named on a label. Source: Regulation (EU) No 1169/2011, Annex II.</summary>
public enum Allergen
{
    /// <summary>Cereals containing gluten.</summary>
    Gluten,

    /// <summary>Crustaceans.</summary>
    Crustaceans,

    /// <summary>Eggs.</summary>
    Eggs,

    /// <summary>Fish.</summary>
    Fish,

    /// <summary>Peanuts.</summary>
    Peanuts,

    /// <summary>Soybeans.</summary>
    Soy,

    /// <summary>Milk.</summary>
    Milk,

    /// <summary>Tree nuts.</summary>
    TreeNuts,

    /// <summary>Celery.</summary>
    Celery,

    /// <summary>Mustard.</summary>
    Mustard,

    /// <summary>Sesame seeds.</summary>
    Sesame,

    /// <summary>Sulphur dioxide and sulphites.</summary>
    Sulphites,

    /// <summary>Lupin.</summary>
    Lupin,

    /// <summary>Molluscs.</summary>
    Molluscs,
}

/// <summary>Where a food is kept as it is bought.</summary>
public enum StorageKind
{
    /// <summary>Dry, in the cupboard.</summary>
    Cupboard,

    /// <summary>Out on the counter.</summary>
    Counter,

    /// <summary>In the fridge.</summary>
    Fridge,

    /// <summary>In the freezer.</summary>
    Freezer,
}

/// <summary>What a food, or a dish, is to the rules of how long things keep.</summary>
public enum KeepingKind
{
    /// <summary>As cooked dishes do.</summary>
    Ordinary,

    /// <summary>As cooked rice: its spores survive cooking, so it is kept shorter.</summary>
    Rice,

    /// <summary>Cooked poultry.</summary>
    Poultry,

    /// <summary>Cooked meat.</summary>
    Meat,

    /// <summary>Cooked fish and seafood.</summary>
    Fish,

    /// <summary>Dishes of egg: quiche, casserole, squares.</summary>
    EggDish,

    /// <summary>Hard-cooked eggs, in their shells or not.</summary>
    HardCookedEgg,

    /// <summary>Salads bound with a dressing: of egg, chicken, tuna, pasta, potato.</summary>
    MixedSalad,

    /// <summary>Soups and stews.</summary>
    Soup,

    /// <summary>Pizza.</summary>
    Pizza,

    /// <summary>Bacon as it comes from its packet.</summary>
    Bacon,

    /// <summary>Sliced cold meat, its packet opened.</summary>
    ColdMeat,

    /// <summary>Raw mince.</summary>
    RawMince,

    /// <summary>Raw pieces of poultry.</summary>
    RawPoultry,

    /// <summary>Raw whole cuts of meat.</summary>
    RawMeat,

    /// <summary>Raw eggs in their shells.</summary>
    EggInShell,
}

/// <summary>A cooked form and the raw food it is made of.</summary>
/// <param name="RawId">The raw food.</param>
/// <param name="YieldFactor">Cooked weight / raw weight: 2.8 for boiled rice, 0.73 for a roast breast.</param>
/// <param name="Source">Where the factor comes from.</param>
public sealed record CookedFrom(string RawId, decimal YieldFactor, string Source);

/// <summary>A cup, a spoon, a slice or a piece of one food, in grams.</summary>
/// <param name="Name">"cup", "tbsp", "medium", "slice", "piece".</param>
/// <param name="Weight">Grams of one.</param>
/// <param name="Source">Who weighed it.</param>
public sealed record HouseholdMeasure(string Name, Grams Weight, string Source)
{
    /// <summary>The source of what the cook weighed.</summary>
    public const string WeighedAtHome = "weighed at home";

    /// <summary>
    /// Whether it may be what a bare count means: those of a table and of a label, which come with the food; of what was weighed at home
    /// its sizes only.
    /// </summary>
    internal bool IsOfAWhole =>
        Volume is null && (!string.Equals(Source, WeighedAtHome, StringComparison.Ordinal) || FoodWords.IsSize(Name));

    /// <summary>The volume it takes, where its name is a unit of volume; this gives the food a density.</summary>
    public Millilitres? Volume => Unit.Find(Name) is { Kind: UnitKind.Volume } unit ? new Millilitres(unit.InBase) : null;
}

/// <summary>What one kind of food contains, and how a cook measures it.</summary>
/// <param name="Id">A stable name, such as <c>red-lentils-dry</c>.</param>
/// <param name="Name">As printed: "red lentils, dry".</param>
/// <param name="Aliases">Other names for the same thing.</param>
/// <param name="Group">Its kind.</param>
/// <param name="Per100g">What 100 g hold.</param>
/// <param name="Convention">What its carbohydrate figure contains.</param>
/// <param name="Measures">Its household measures; the first that is not a volume is what a bare count means.</param>
/// <param name="Source">Where the figures come from.</param>
public sealed record Food(
    string Id,
    string Name,
    IReadOnlyList<string> Aliases,
    FoodGroup Group,
    Nutrients Per100g,
    CarbohydrateConvention Convention,
    IReadOnlyList<HouseholdMeasure> Measures,
    string Source)
{
    /// <summary>How the id of something begins that is known by its printed figures only: a meal off a menu, a packet.</summary>
    internal const string PrintedPrefix = "printed:";

    /// <summary>Whether it is of its group at all: nobody knows what a meal off a menu is made of.</summary>
    internal bool IsOfItsGroup() => !Id.StartsWith(PrintedPrefix, StringComparison.Ordinal);

    /// <summary>Words that usually mean it and may mean others: "milk" for whole milk. What follows from them reads "about".</summary>
    public IReadOnlyList<string> Usual { get; init; } = [];

    /// <summary>The share of the bought weight that is thrown away (peel, bone), 0 to 1.</summary>
    public decimal Refuse { get; init; }

    /// <summary>The share of a tin's stated weight that is left when it is drained, 0 to 1; null for what is not sold in liquid.</summary>
    public decimal? DrainedShare { get; init; }

    /// <summary>The raw food this is the cooked form of, or null.</summary>
    public CookedFrom? CookedFrom { get; init; }

    /// <summary>The package sizes it is commonly sold in, in grams.</summary>
    public IReadOnlyList<decimal> PackageGrams { get; init; } = [];

    /// <summary>Where it is sold by volume, what each of these packages fills, in millilitres; else nothing.</summary>
    public IReadOnlyList<decimal> PackageMl { get; init; } = [];

    /// <summary>
    /// What a package weighs that says what it fills, in grams, to the milligram above: a litre in a recipe is a litre bought, and so are
    /// a thousand millilitres, which are weighed by a smaller measure.
    /// </summary>
    /// <param name="ml">Millilitres.</param>
    /// <returns>Null where nobody knows what a millilitre of it weighs.</returns>
    public Grams? PackageOf(decimal ml) =>
        WeightOf(ml, Unit.Millilitre) is { } small && WeightOf(ml / Unit.Litre.InBase, Unit.Litre) is { } large
            ? new Grams(Math.Ceiling(Math.Max(small.Value, large.Value) * 1000) / 1000)
            : null;

    /// <summary>The allergens it contains; what one brand adds is on its own label.</summary>
    public IReadOnlyList<Allergen> Allergens { get; init; } = [];

    /// <summary>Whether anyone stated its allergens: not so for a row of an imported library, where none listed means not known.</summary>
    public bool KnowsAllergens => Allergens.Count > 0 || !FoodIds.Is(Id, FoodIds.Library);

    /// <summary>What it is to the rules of how long things keep, as it is eaten.</summary>
    public KeepingKind Keeping { get; init; }

    /// <summary>Where it is kept as it is bought.</summary>
    public StorageKind Storage { get; init; } = StorageKind.Cupboard;

    /// <summary>
    /// What it does in a dish, such as "milk" or "cooking-fat": foods of one use can stand in for each other. Null where nothing can.
    /// </summary>
    public string? Use { get; init; }

    /// <summary>Whether its protein lacks an essential amino acid altogether: gelatin and collagen, which have no tryptophan.</summary>
    public bool HasIncompleteProtein { get; init; }

    /// <summary>
    /// Points that its packet or a menu states, for 100 g: whoever counts points counts these in place of what their rule makes of its
    /// figures. Null where none are stated. 17 crackers of 34 g that are 5 points have 14.7.
    /// </summary>
    public decimal? PointsPer100g { get; init; }

    /// <summary>The number under its barcode, or null.</summary>
    public string? Gtin { get; init; }

    /// <summary>Whether the cook wrote it down from a label.</summary>
    public bool IsOwn { get; init; }

    /// <summary>Total carbohydrate per 100 g, fibre within, from either convention; null where a part of it is not known.</summary>
    public decimal? TotalCarbohydrate =>
        Convention == CarbohydrateConvention.Total ? Per100g.Carbohydrate : Per100g.Carbohydrate + Per100g.Fibre;

    /// <summary>
    /// The measure that a bare count means: in "2 eggs", one egg. Null where none is known. A packet or a slice that was weighed at home is
    /// none: two apples are not two slices of one.
    /// </summary>
    public HouseholdMeasure? Piece => MeasureNamed("piece") ?? Measures.FirstOrDefault(measure => measure.IsOfAWhole);

    /// <summary>The measure of this name, in singular or plural, or null.</summary>
    public HouseholdMeasure? MeasureNamed(string name)
    {
        var one = FoodWords.Singular(name);
        return Measures.FirstOrDefault(own => string.Equals(FoodWords.Singular(own.Name), one, StringComparison.OrdinalIgnoreCase));
    }

    /// <summary>
    /// What a volume of this food weighs, through its own measures only: by the measure of that very unit where there is one (a
    /// tablespoon of butter is 14 g, so four are 56 g), else by the one nearest in size.
    /// </summary>
    /// <returns>Grams, or null where no volume of this food was ever weighed.</returns>
    public Grams? WeightOf(decimal quantity, Unit unit)
    {
        ArgumentNullException.ThrowIfNull(unit);
        if (unit.Kind == UnitKind.Mass) return new Grams(quantity * unit.InBase);
        var nearest = Measures.Where(measure => measure.Volume is not null)
            .OrderBy(measure => Math.Abs(Math.Log((double)(measure.Volume!.Value.Value / unit.InBase))))
            .FirstOrDefault();
        return nearest is null ? null : nearest.Weight * (quantity * unit.InBase / nearest.Volume!.Value.Value);
    }
}
