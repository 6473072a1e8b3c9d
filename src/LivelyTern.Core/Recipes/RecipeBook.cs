using System.Collections.Concurrent;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Recipes;

/// <summary>
/// Recipes read against the foods, where a line may also be an amount of another recipe: "300 g tomato base", or "2 portions of dal". A
/// recipe that would contain itself is never read in a circle: the line that closes the loop is not understood, and says why.
/// </summary>
public sealed class RecipeBook : IFoods
{
    /// <summary>How deep recipes lie within each other: a sauce in a filling in a pie is three.</summary>
    public const int Deepest = 40;

    // So many loops are met in reading one recipe; where its names close more, they mean foods. Each way round a tangle of recipes that all
    // name each other would be gone else, and there are more of those than anybody waits for.
    private const int MostClosed = 40;

    private readonly IFoods foods;
    private readonly IReadOnlyDictionary<Guid, WrittenRecipe> written;
    private readonly ConcurrentDictionary<Guid, Recipe> shared;
    private readonly Dictionary<Guid, Recipe> read = [];
    private readonly List<Guid> path = [];
    private int closed, closedBefore;
    private readonly ILookup<string, Guid> byName;

    /// <summary>A book of these recipes over these foods.</summary>
    /// <param name="foods">The foods.</param>
    /// <param name="written">The recipes.</param>
    /// <param name="putAway">Those that are found by their id only.</param>
    /// <param name="shared">What other books of these very recipes and foods have read, and where they find what this one does.</param>
    public RecipeBook(
        IFoods foods, IReadOnlyDictionary<Guid, WrittenRecipe> written, IReadOnlySet<Guid>? putAway = null,
        ConcurrentDictionary<Guid, Recipe>? shared = null)
    {
        (this.foods, this.written, this.shared) = (foods, written, shared ?? []);
        byName = written.Where(pair => putAway?.Contains(pair.Key) != true)
            .ToLookup(pair => NameKey(pair.Value.Name), pair => pair.Key, StringComparer.Ordinal);
    }

    /// <summary>The id by which a line chooses a recipe.</summary>
    public static string IdOf(Guid recipe) => FoodIds.Recipe + recipe.ToString("D");

    /// <summary>The recipe an id means, or null where it means a food.</summary>
    public static Guid? RecipeOf(string id)
    {
        ArgumentNullException.ThrowIfNull(id);
        return FoodIds.Is(id, FoodIds.Recipe) && Guid.TryParse(id[FoodIds.Recipe.Length..], out var recipe) ? recipe : null;
    }

    /// <summary>Whether something in a line is an amount of a recipe, and no food.</summary>
    public static bool IsRecipe(Ingredient part)
    {
        ArgumentNullException.ThrowIfNull(part);
        return FoodIds.Is(part.Food.Id, FoodIds.Recipe);
    }

    /// <summary>Whether a recipe is in the book.</summary>
    public bool Has(Guid id) => written.ContainsKey(id);

    /// <summary>A recipe of the book, read.</summary>
    /// <param name="id">One of the book's recipes.</param>
    public Recipe Read(Guid id)
    {
        if (read.TryGetValue(id, out var known) || shared.TryGetValue(id, out known)) return known;
        if (path.Count == 0) closedBefore = closed;
        var before = closed;
        path.Add(id);
        var recipe = Read(written[id]);
        path.RemoveAt(path.Count - 1);

        // Within a loop what a recipe reads as depends on where the reading began: only what met none is kept.
        if (path.Count == 0 || closed == before) read[id] = recipe;
        if (closed == before) shared[id] = recipe;
        return recipe;
    }

    /// <summary>A recipe that need not be in the book, read.</summary>
    /// <param name="recipe">As written.</param>
    /// <param name="self">Its id, where it is one: it is then no part of itself.</param>
    public Recipe Read(WrittenRecipe recipe, Guid? self = null)
    {
        ArgumentNullException.ThrowIfNull(recipe);
        if (path.Count == 0) closedBefore = closed;
        if (self is { } own) path.Add(own);
        var lines = recipe.Lines.Select(ReadLine).ToList();
        if (self is not null) path.RemoveAt(path.Count - 1);
        return new(recipe.Name, lines, recipe.Yield);
    }

    /// <summary>The names of a circle that a recipe would close, "dal, sauce, dal"; null where there is none.</summary>
    /// <param name="recipe">As it is to be saved.</param>
    /// <param name="self">Its id.</param>
    public IReadOnlyList<string>? LoopOf(WrittenRecipe recipe, Guid self)
    {
        ArgumentNullException.ThrowIfNull(recipe);
        var been = new HashSet<Guid> { self };
        return Walk(recipe, [recipe.Name]);

        IReadOnlyList<string>? Walk(WrittenRecipe at, List<string> names)
        {
            foreach (var id in PartsOf(at))
            {
                if (id == self) return [.. names, recipe.Name];
                if (!been.Add(id) || !written.TryGetValue(id, out var next)) continue;
                if (Walk(next, [.. names, next.Name]) is { } loop) return loop;
            }

            return null;
        }
    }

    /// <summary>Why a recipe may not be saved because recipes would lie too deep within each other; null where they would not.</summary>
    /// <param name="recipe">As it is to be saved.</param>
    /// <param name="self">Its id, where it is one.</param>
    public Problem? TooDeepProblem(WrittenRecipe recipe, Guid? self)
    {
        ArgumentNullException.ThrowIfNull(recipe);
        var (below, above) = (new Dictionary<Guid, int>(), new Dictionary<Guid, int>());
        var users = written.SelectMany(one => PartsOf(one.Value).Select(part => (Part: part, User: one.Key)))
            .ToLookup(one => one.Part, one => one.User);
        var under = PartsOf(recipe).Select(part => Longest(part, id => PartsOf(written[id]), below)).DefaultIfEmpty(0).Max();
        var over = self is { } own ? users[own].Select(user => Longest(user, id => users[id], above)).DefaultIfEmpty(0).Max() : 0;
        return under + 1 + over > Deepest ? new("recipe-deep", "lines", TooDeep) : null;

        // What an old file holds deeper than that is not followed further.
        int Longest(Guid from, Func<Guid, IEnumerable<Guid>> next, Dictionary<Guid, int> known, int depth = 1)
        {
            if (known.TryGetValue(from, out var length)) return length;
            if (depth > Deepest || !written.ContainsKey(from)) return 1;
            length = 1 + next(from).Select(id => Longest(id, next, known, depth + 1)).DefaultIfEmpty(0).Max();
            return known[from] = length;
        }
    }

    private static IEnumerable<Guid> PartsOf(WrittenRecipe recipe) =>
        recipe.Lines.Select(line => line.FoodId is null ? null : RecipeOf(line.FoodId)).OfType<Guid>().Distinct();

    /// <inheritdoc/>
    public Food? Find(string id)
    {
        if (RecipeOf(id) is not { } recipe) return foods.Find(id);
        if (path.Contains(recipe)) closed++;
        else if (written.ContainsKey(recipe)) return AsFood(recipe);
        return null;
    }

    /// <inheritdoc/>
    public IReadOnlyList<Food> CookedFormsOf(string rawId) => foods.CookedFormsOf(rawId);

    /// <inheritdoc/>
    public bool IsName(string text) => Named(text) is not null || foods.IsName(text);

    /// <inheritdoc/>
    public FoodMeaning Meaning(SaidFood said)
    {
        ArgumentNullException.ThrowIfNull(said);
        return Named(said.Name) is { } recipe ? FoodMeaning.Chosen(AsFood(recipe)) : foods.Meaning(said);
    }

    /// <inheritdoc/>
    public IReadOnlyList<Food> Suggest(string typed, int most) => foods.Suggest(typed, most);

    /// <summary>A recipe brought in from elsewhere, its lines that name several foods parted into a line for each.</summary>
    public WrittenRecipe Apart(WrittenRecipe recipe)
    {
        ArgumentNullException.ThrowIfNull(recipe);
        List<WrittenLine> lines = [.. recipe.Lines.SelectMany(line => ReadLine(line).Read.Apart.Select(text => line with { Text = text }))];
        return lines.Count <= WrittenRecipe.MostLines ? recipe with { Lines = lines } : recipe;
    }

    private RecipeLine ReadLine(WrittenLine line)
    {
        var sub = line.FoodId is null ? null : RecipeOf(line.FoodId);
        if (sub is { } closing && path.Contains(closing))
        {
            closed++;
            var name = written[closing].Name;
            var sentence = $"{name} can't be a part of itself: take this line out, or choose something else for it.";
            return new(line, Unread(line, "recipe-loop", sentence), null);
        }

        if (sub is not null && IsTangled)
        {
            closed++;
            return new(line, Unread(line, "recipe-deep", TooDeep), null);
        }

        if (sub is { } gone && !written.ContainsKey(gone))
            return new(line, Unread(line, "recipe-gone", "The recipe chosen for this line is no longer here."), null);
        var said = FoodLine.Read(TakenOut.Said(line.Text) ?? line.Text, this, line.FoodId is null ? null : Find(line.FoodId));
        var reading = said with { Text = line.Text };
        var brought = reading.Ingredients.Select(ingredient => Bring(ingredient, line.IsOut)).ToList();
        return new(line, reading, brought.Count == 0 ? null : brought.Aggregate(Contents.Both));
    }

    private Contents Bring(Ingredient ingredient, bool isTakenOut)
    {
        var sign = isTakenOut ? -1 : 1;
        if (RecipeOf(ingredient.Food.Id) is not { } sub) return new([ingredient with { Weight = ingredient.Weight * sign }]);
        var recipe = Read(sub);
        return recipe.Weight.Value <= 0
            ? new([], SomethingUnread: true)
            : recipe.Batch.Gathered().Scale(sign * (ingredient.Weight / recipe.Weight));
    }

    // By its very name only, and never where it would close a loop: then the words mean a food.
    private Guid? Named(string text)
    {
        if (IsTangled)
        {
            closed++;
            return null;
        }

        var key = NameKey(text);
        foreach (var id in key.Length == 0 ? [] : byName[key])
        {
            if (!path.Contains(id) && path.TrueForAll(outer => !Reaches(id, outer))) return id;
            closed++;
        }

        return null;
    }

    private bool Reaches(Guid from, Guid to)
    {
        HashSet<Guid> been = [from];
        var open = new Stack<Guid>(been);
        while (open.TryPop(out var id))
        {
            if (id == to) return true;
            if (!written.TryGetValue(id, out var recipe)) continue;
            var meant = recipe.Lines.Select(line => line.FoodId is null ? null : RecipeOf(line.FoodId)).OfType<Guid>();
            foreach (var next in meant.Where(been.Add)) open.Push(next);
        }

        return false;
    }

    // A recipe as it is measured: by its weight, by the portion, by the piece. Its figures come from its own foods, not from here.
    private Food AsFood(Guid id)
    {
        var recipe = Read(id);
        List<HouseholdMeasure> measures = [];
        if (recipe.Weight.Value > 0)
        {
            if (recipe.Yield.Pieces is { } pieces) measures.Add(new("piece", recipe.Weight * (1m / pieces), recipe.Name));
            measures.Add(new("portion", recipe.Weight * (1m / recipe.Yield.Portions), recipe.Name));
            if (recipe.Yield.VolumeMl is { } volume) measures.Add(new("ml", recipe.Weight * (1m / volume), recipe.Name));
        }

        return new(IdOf(id), recipe.Name, [], FoodGroup.Seasonings, new(), CarbohydrateConvention.Total, measures, "your recipe")
        {
            Allergens = recipe.Batch.Allergens,
        };
    }

    // Too deep, or round too many loops: from here on nothing is followed further.
    private bool IsTangled => path.Count > Deepest || closed - closedBefore > MostClosed;

    private static string TooDeep => $"Recipes lie within each other up to {Deepest} deep: write what is in this one instead.";

    private static string NameKey(string text) => string.Join(' ', FoodWords.All(text));

    private static FoodLine Unread(WrittenLine line, string code, string sentence) =>
        new(line.Text, null, false, new(code, "line", sentence), [], null);
}
