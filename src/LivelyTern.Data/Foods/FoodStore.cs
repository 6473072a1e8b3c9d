using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Foods;

/// <summary>An own food as written down from a label.</summary>
/// <param name="Name">What the cook calls it.</param>
/// <param name="Group">Its kind.</param>
/// <param name="Label">Its label as printed.</param>
/// <param name="PackageGrams">What a package holds, in grams.</param>
/// <param name="Allergens">The allergens it names.</param>
/// <param name="Gtin">The number under its barcode, as typed or scanned; null for none.</param>
/// <param name="Keeping">How long it keeps once cooked; null as its name says (<see cref="KeepingWords"/>).</param>
public sealed record OwnFood(
    string Name, FoodGroup Group, Label Label, decimal? PackageGrams, IReadOnlyList<Allergen> Allergens, string? Gtin,
    KeepingKind? Keeping = null);

/// <summary>The foods a line may mean: those of the kitchen, and behind them the libraries.</summary>
public sealed class FoodStore(
    TernDb db, LibraryStore libraries, CachedRead<FoodIndex> keptFoods, CachedRead<FoodCatalogue> kept, TimeProvider clock)
{
    /// <summary>The foods of the kitchen, as this cook means and uses them.</summary>
    public Task<FoodCatalogue> CatalogueAsync() => kept.GetAsync(db, async () =>
    {
        var index = await IndexAsync();
        var choices = await db.FoodChoices.AsNoTracking().ToDictionaryAsync(row => row.Key, row => row.FoodId, StringComparer.Ordinal);
        var used = await db.Foods.AsNoTracking().Where(row => row.UsedAt != null).Select(row => new { row.Id, row.UsedAt }).ToListAsync();
        return new FoodCatalogue(index, choices, [.. used.OrderByDescending(row => row.UsedAt).Take(200).Select(row => row.Id)]);
    });

    // A measure weighed at home comes before one from a table.
    private Task<FoodIndex> IndexAsync() => keptFoods.GetAsync(db, async () =>
    {
        var rows = await db.Foods.AsNoTracking().Include(row => row.WeighedMeasures).ToListAsync();
        return new FoodIndex(
            rows.Where(row => row.ArchivedAt is null).Select(WithWeighed),
            [.. rows.Where(row => row.ArchivedAt is not null).Select(WithWeighed)]);
    });

    /// <summary>Every food a line may mean: the kitchen's first, and where it has none the libraries'.</summary>
    public async Task<IFoods> AllAsync()
    {
        var kitchen = await CatalogueAsync();
        return await libraries.AnyAsync() ? new KitchenAndLibraries(kitchen, libraries) : kitchen;
    }

    /// <summary>Remembers what one measure of a food weighs. Weighing again replaces it.</summary>
    /// <param name="foodId">The food; one of a library is taken into the kitchen.</param>
    /// <param name="name">"cup", "tbsp", "piece": a volume unit in any spelling, or a word for a piece.</param>
    /// <param name="weight">Grams of one.</param>
    public async Task<Outcome<Food>> RememberMeasureAsync(string foodId, string name, Grams weight)
    {
        ArgumentNullException.ThrowIfNull(name);
        var measure = (Unit.Find(name)?.Name ?? name).Trim();
        if (measure.Length is 0 or > 30)
            return new Problem("measure-name", "measure", "Name the measure in a word or two, such as cup or slice.");
        if (Unit.Find(measure) is { Kind: UnitKind.Mass })
            return new Problem("measure-mass", "measure", $"{measure} is a weight already: it needs no weighing.");
        if (weight.Value <= 0) return new Problem("weight-nothing", "grams", "Type what one of it weighs: more than 0 g.");
        if (weight.Value > 20_000m)
            return new Problem("weight-absurd", "grams", "More than 20 kg for one measure can't be meant: check the number.");
        await TakeAsync([foodId]);
        var remembered = await db.InTurnAsync<Food>(async () =>
        {
            var row = await db.Foods.Include(food => food.WeighedMeasures).SingleOrDefaultAsync(food => food.Id == foodId);
            if (row is null) return Stale.Gone("food");
            var known = row.WeighedMeasures.Find(own => string.Equals(own.Name, measure, StringComparison.OrdinalIgnoreCase));
            if (known is null) row.WeighedMeasures.Add(known = new() { FoodId = foodId, Name = measure });
            (known.Grams, known.WeighedAt) = (weight.Value, clock.GetUtcNow());
            await db.SaveChangesAsync();
            return WithWeighed(row);
        });
        Forget();
        return remembered;
    }

    /// <summary>Remembers which food the cook meant by some words; the same words mean it from now on.</summary>
    /// <param name="text">The words that name the food: "milk".</param>
    /// <param name="foodId">The food.</param>
    public async Task<Outcome<Food>> ChooseAsync(string text, string foodId)
    {
        var key = FoodWords.Key(text);
        if (key.Length is 0 or > 300) return new Problem("choice-words", "text", "Say which words the choice is for.");
        if (FoodIds.Is(foodId, FoodIds.Recipe)) return new Problem("choice-recipe", "foodId", "A recipe is meant by its own name only.");
        await TakeAsync([foodId]);
        if ((await CatalogueAsync()).Find(foodId) is not { } food) return Stale.Gone("food");
        var chosen = await db.InTurnAsync<Food>(async () =>
        {
            var row = await db.FoodChoices.FindAsync(key);
            if (row is null) db.FoodChoices.Add(row = new FoodChoiceRow { Key = key, FoodId = foodId });
            (row.FoodId, row.ChosenAt) = (foodId, clock.GetUtcNow());
            await db.SaveChangesAsync();
            return food;
        });
        kept.Forget(db);
        return chosen;
    }

    /// <summary>For each raw food of which it was asked, by its id, the id of the form in which it is weighed when it is eaten.</summary>
    public async Task<IReadOnlyDictionary<string, string>> WeighedAsAsync() =>
        await db.WeighedAs.AsNoTracking().ToDictionaryAsync(row => row.RawId, row => row.FoodId, StringComparer.Ordinal);

    /// <summary>Remembers in which form a food is weighed when it is eaten.</summary>
    /// <param name="foodId">That form: the raw food, or a cooked form of one.</param>
    public async Task<Outcome<Food>> WeighAsAsync(string foodId)
    {
        if ((await CatalogueAsync()).Find(foodId) is not { } food) return Stale.Gone("food");
        return await db.InTurnAsync<Food>(async () =>
        {
            var rawId = food.CookedFrom?.RawId ?? food.Id;
            var row = await db.WeighedAs.SingleOrDefaultAsync(one => one.RawId == rawId);
            if (row is null) db.WeighedAs.Add(row = new() { RawId = rawId, FoodId = foodId });
            row.FoodId = foodId;
            await db.SaveChangesAsync();
            return food;
        });
    }

    /// <summary>
    /// Says that foods were written into something: those of a library are taken into the kitchen, and all come first in a search.
    /// </summary>
    public async Task UsedAsync(IEnumerable<string> foodIds)
    {
        var ids = foodIds.Distinct(StringComparer.Ordinal).ToList();
        await TakeAsync(ids);
        var now = clock.GetUtcNow();
        var day = now.AddDays(-1);
        var stale = await db.Foods.Where(row => ids.Contains(row.Id) && (row.UsedAt == null || row.UsedAt < day)).ToListAsync();
        if (stale.Count == 0) return;
        foreach (var row in stale) row.UsedAt = now;
        await db.SaveChangesAsync();
        kept.Forget(db);
    }

    /// <summary>One food of the kitchen with its row, or null.</summary>
    public async Task<(Food Food, FoodRow Row)?> FindAsync(string id) =>
        await db.Foods.AsNoTracking().Include(row => row.WeighedMeasures).SingleOrDefaultAsync(row => row.Id == id) is { } row
            ? (WithWeighed(row), row)
            : null;

    /// <summary>Writes an own food down from its label.</summary>
    public async Task<Outcome<FoodRow>> AddOwnAsync(OwnFood own)
    {
        var id = FoodIds.Own + Guid.CreateVersion7().ToString("N");
        var added = await db.InTurnAsync<FoodRow>(async () =>
        {
            var (food, problems) = await ReadAsync(own, id);
            if (food is null) return problems;
            var row = new FoodRow { Id = id, Food = food, UsedAt = clock.GetUtcNow() };
            db.Foods.Add(row);
            await db.SaveChangesAsync();
            return row;
        });
        Forget();
        return added;
    }

    /// <summary>Corrects an own food. Batches already cooked keep the figures they were cooked with.</summary>
    public async Task<Outcome<FoodRow>> ChangeOwnAsync(string id, int version, OwnFood own)
    {
        var changed = await db.InTurnAsync(async () =>
        {
            if (await OwnAsync(id) is not { } row) return Stale.Gone("food of yours");
            if (row.Version != version) return Stale.Problem;
            var (food, problems) = await ReadAsync(own, id);
            if (food is null) return problems;
            row.Food = food;
            return await db.SaveAsync(row, row);
        });
        Forget();
        return changed;
    }

    /// <summary>Takes an own food off the list, or back to it. What was written with it still finds it.</summary>
    public Task<Outcome<FoodRow>> ArchiveOwnAsync(string id, int version, bool archived) => db.InTurnAsync(async () =>
    {
        if (await OwnAsync(id) is not { } row) return Stale.Gone("food of yours");
        if (row.Version != version) return Stale.Problem;
        if (!archived && await IsTakenAsync(row.Food.Name, id))
            return new Problem("name-taken", "name", $"You have another food called {row.Food.Name} by now: give that another name first.");
        row.ArchivedAt = archived ? clock.GetUtcNow() : null;
        var outcome = await db.SaveAsync(row, row);
        Forget();
        return outcome;
    });

    private async Task<FoodRow?> OwnAsync(string id) =>
        FoodIds.Is(id, FoodIds.Own) ? await db.Foods.Include(row => row.WeighedMeasures).SingleOrDefaultAsync(row => row.Id == id) : null;

    private async Task<(Food? Food, List<Problem> Problems)> ReadAsync(OwnFood own, string id)
    {
        ArgumentNullException.ThrowIfNull(own);
        var problems = new List<Problem>();
        var name = (own.Name ?? "").Trim();
        if (name.Length is 0 or > 120) problems.Add(new("name-missing", "name", "Give the food a name of up to 120 letters."));
        else if (await IsTakenAsync(name, id))
            problems.Add(new(
                "name-taken", "name", $"You have a food called {name} already: change that one, or say what is different about this one."));
        if (own.PackageGrams is <= 0 or > 100_000)
            problems.Add(new("package-weight", "packageGrams", "A package holds more than 0 g and at most 100 kg."));
        string? gtin = null;
        if (!string.IsNullOrWhiteSpace(own.Gtin))
        {
            var read = Gtin.Read(own.Gtin);
            if (read.Succeeded) gtin = read.Value;
            else problems.AddRange(read.Problems);
        }

        var figures = own.Label.Per100g();
        problems.AddRange(figures.Problems);
        if (problems.Count > 0) return (null, problems);
        return (new Food(
            id, name, [], own.Group, figures.Value!, own.Label.Convention, own.Label.Measures, "its label")
        {
            IsOwn = true,
            PointsPer100g = own.Label.PointsPer100g,
            Gtin = gtin,
            PackageGrams = own.PackageGrams is { } package ? [package] : [],
            Allergens = [.. own.Allergens.Distinct().Order()],
            Keeping = own.Keeping ?? KeepingWords.Of(name, own.Group),
        }, problems);
    }

    // Asked of the file itself: what another hand has just written is not in the catalogue yet.
    private async Task<bool> IsTakenAsync(string name, string id)
    {
        var key = FoodWords.Key(name);
        var others = await db.Foods.AsNoTracking()
            .Where(row => row.Id.StartsWith(FoodIds.Own) && row.Id != id && row.ArchivedAt == null).ToListAsync();
        return others.Exists(row => string.Equals(FoodWords.Key(row.Food.Name), key, StringComparison.Ordinal));
    }

    private async Task TakeAsync(IEnumerable<string> ids)
    {
        var wanted = ids.Where(id => LibraryStore.RowOf(id) is not null).ToList();
        if (wanted.Count == 0) return;
        var taken = wanted.Select(libraries.Find).OfType<Food>().ToList();
        var added = await db.InTurnAsync<int>(async () =>
        {
            var here = await db.Foods.Where(row => wanted.Contains(row.Id)).Select(row => row.Id).ToListAsync();
            var missing = taken.Where(food => !here.Contains(food.Id, StringComparer.Ordinal)).ToList();
            db.Foods.AddRange(missing.Select(food => new FoodRow { Id = food.Id, Food = food }));
            await db.SaveChangesAsync();
            return missing.Count;
        });
        if (added.Value > 0) Forget();
    }

    // The foods first: a catalogue that is read in between is not kept.
    private void Forget()
    {
        keptFoods.Forget(db);
        kept.Forget(db);
    }

    private static Food WithWeighed(FoodRow row)
    {
        if (row.WeighedMeasures.Count == 0) return row.Food;
        bool IsWeighed(HouseholdMeasure measure) =>
            row.WeighedMeasures.Exists(own => string.Equals(own.Name, measure.Name, StringComparison.OrdinalIgnoreCase));
        var weighed = row.WeighedMeasures.Select(own =>
            new HouseholdMeasure(own.Name, new Grams(own.Grams), HouseholdMeasure.WeighedAtHome));
        return row.Food with { Measures = [.. weighed, .. row.Food.Measures.Where(measure => !IsWeighed(measure))] };
    }

    /// <summary>The kitchen's foods, and where it has none of that name those of the libraries.</summary>
    private sealed class KitchenAndLibraries(FoodCatalogue kitchen, LibraryStore libraries) : IFoods
    {
        public Food? Find(string id) => kitchen.Find(id) ?? libraries.Find(id);

        public IReadOnlyList<Food> CookedFormsOf(string rawId) => kitchen.CookedFormsOf(rawId);

        public bool IsName(string text) => kitchen.IsName(text) || libraries.Named(text).Count > 0;

        // A library has many foods of a kind: those of just that name, else those that hold all the words and of which nothing is refused.
        public FoodMeaning Meaning(SaidFood said)
        {
            var here = kitchen.Meaning(said);
            if (here.Fits.Count > 0 || said.Name.Length == 0) return here;
            var found = libraries.Named(said.Name) is { Count: > 0 } named ? named : libraries.Search(said.Name, 6, isSlipForgiven: false);
            var meant = FoodMeaning.Among(said, found);
            return meant.Fits.Count > 0 ? meant : here;
        }

        public IReadOnlyList<Food> Suggest(string typed, int most)
        {
            var here = kitchen.Suggest(typed, most);
            return here.Count >= most
                ? here
                : [.. here, .. libraries.Search(typed, most - here.Count).Where(food => kitchen.Find(food.Id) is null)];
        }
    }
}
