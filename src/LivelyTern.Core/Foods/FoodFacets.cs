namespace LivelyTern.Core.Foods;

/// <summary>A food by its facets: its names, read, and what holds of it whatever it is called by.</summary>
internal sealed class FoodFacets
{
    // Regulation (EC) No 1924/2006, Annex: low fat is at most 3 g of fat in 100 g, fat-free at most 0.5 g, sugar-free at most 0.5 g.
    private const decimal LowFat = 3m, FatFree = 0.5m, SugarFree = 0.5m;

    // At most this much fat a meat is called lean, and extra lean. Source: US 9 CFR 317.362.
    private const decimal Lean = 10m, ExtraLean = 5m;

    // A share of fat that is said and one that is held may differ by so much of the energy.
    private const decimal Near = 0.1m;

    private static readonly string[] CookedForms = ["cooked", "boiled", "roasted", "fried"];

    private readonly HashSet<Facet> held;

    /// <summary>Reads a food's names.</summary>
    public FoodFacets(Food food)
    {
        ArgumentNullException.ThrowIfNull(food);
        Food = food;
        Names =
        [
            .. food.Aliases.Prepend(food.Name).Select(name => new FoodName(food, name)),
            .. food.Usual.Select(name => new FoodName(food, name, isUsual: true)),
        ];
        held = [.. Names.SelectMany(name => name.Read.Facets.Where(facet => facet.Axis != FacetAxis.Form))];
        var forms = FormsOf(Names[0]);
        held.UnionWith(forms.Count > 0 ? forms : [.. Names.Where(name => !name.IsUsual).SelectMany(FormsOf)]);
    }

    /// <summary>The food.</summary>
    public Food Food { get; }

    /// <summary>Every name it has, its own first.</summary>
    public IReadOnlyList<FoodName> Names { get; }

    /// <summary>Whether it is weighed as cooked.</summary>
    public bool IsCooked => Food.CookedFrom is not null || CookedForms.Any(form => Holds(FacetAxis.Form, form));

    /// <summary>
    /// How far it is from what was said, 0 for just that: what was left open and what only nearly holds add to it. Null where something
    /// that was said does not hold.
    /// </summary>
    /// <param name="said">What was said.</param>
    /// <param name="forms">The forms that were said.</param>
    public decimal? Distance(NameFacets said, IReadOnlyList<string> forms)
    {
        ArgumentNullException.ThrowIfNull(said);
        var off = 0m;
        foreach (var form in forms)
        {
            if (!Add(OfForm(form))) return null;
        }

        if (said.FatShare is { } share && !Add(OfShare(share))) return null;
        foreach (var facet in said.Facets)
        {
            var one = facet.Axis switch
            {
                FacetAxis.Fat => OfFat(facet.Value),
                FacetAxis.Sweetening => OfSweetening(facet.Value),
                FacetAxis.Salt => Holds(facet) ? 0 : facet.Value is "low" ? 0.8m : 0.02m,
                FacetAxis.PackedIn => OfPacking(facet),
                FacetAxis.Skin => OfSkin(facet.Value),
                _ => 0m,
            };
            if (!Add(one)) return null;
        }

        return off;

        bool Add(decimal? more)
        {
            off += more ?? 0;
            return more is not null;
        }
    }

    private static List<Facet> FormsOf(FoodName name) => [.. name.Read.Facets.Where(facet => facet.Axis == FacetAxis.Form)];

    private bool Holds(FacetAxis axis, string value) => held.Contains(new(axis, value));

    private bool Holds(Facet facet) => held.Contains(facet);

    private bool HasAny(FacetAxis axis) => held.Any(facet => facet.Axis == axis);

    // A freezer changes no figures; a pan, a tin and a drying rack do.
    private decimal? OfForm(string said)
    {
        var isFrozen = Holds(FacetAxis.Form, "frozen");
        var isCanned = Holds(FacetAxis.Form, "canned");
        var isDry = Holds(FacetAxis.Form, "dry");
        switch (said)
        {
            case "raw":
                return IsCooked || isCanned ? null : isFrozen ? 0.2m : 0;
            case "fresh":
                return IsCooked || isCanned || isDry || isFrozen ? null : 0;
            case "dry":
                if (isDry) return 0;
                return HasAny(FacetAxis.Form) || IsCooked || !IsDryByNature ? null : 0.1m;
            case "canned":
                return isCanned ? 0 : !HasAny(FacetAxis.Form) && IsSoldInJars ? 0.1m : null;
            case "frozen":
                return IsCooked ? 0.5m : isFrozen ? 0 : isCanned || isDry ? null : 0.3m;
            case "fried":
                return Holds(FacetAxis.Form, "fried") ? 0 : null;
            default:
                if (!IsCooked) return IsToasted && said is "roasted" ? 0.1m : null;
                if (Holds(FacetAxis.Form, "fried")) return null;
                return Holds(FacetAxis.Form, said) ? 0 : said is "cooked" || Holds(FacetAxis.Form, "cooked") ? 0.05m : 0.2m;
        }
    }

    private bool IsDryByNature =>
        Food.Group is FoodGroup.Grains or FoodGroup.Pulses or FoodGroup.Seasonings or FoodGroup.Sweets or FoodGroup.NutsAndSeeds;

    private bool IsSoldInJars => Food.Group is FoodGroup.Seasonings or FoodGroup.Fats or FoodGroup.Sweets or FoodGroup.NutsAndSeeds;

    private bool IsToasted => Food.Group is FoodGroup.NutsAndSeeds or FoodGroup.Seasonings or FoodGroup.Fats;

    private decimal? OfShare(decimal said)
    {
        if (Food.Per100g is not { Fat: { } fat, Energy: { } energy }) return null;

        // Of two that are as near the fatter: what is counted then is not too little.
        var off = Math.Abs(fat - said);
        return off <= 0.6m || off * 9 <= energy * Near ? (off * 0.1m) + (fat < said ? 0.01m : 0) : null;
    }

    private decimal? OfFat(string said)
    {
        var fat = Food.Per100g.Fat;
        bool Is(string level) => Holds(FacetAxis.Fat, level);
        return said switch
        {
            "free" => Is("free") ? 0 : fat <= FatFree ? 0.1m : null,
            "low" => Is("low") ? 0 : Is("free") ? null : Is("light") ? 0.15m : fat <= LowFat ? 0.2m : null,
            "light" => Is("light") ? 0 : Is("free") ? null : Is("low") ? 0.15m : null,
            "full" => Is("full") ? 0 : Is("free") || Is("low") || Is("light") ? null : 0.05m,
            "lean" => Is("lean") ? 0 : Is("leanest") ? 0.1m : LeanMeat(Lean),
            _ => Is("leanest") ? 0 : LeanMeat(ExtraLean),
        };
    }

    private decimal? LeanMeat(decimal most) =>
        Food.Group == FoodGroup.Meat && Food.Per100g.Fat is { } fat && fat <= most ? 0.1m + (fat * 0.01m) : null;

    private decimal? OfSweetening(string said)
    {
        bool Is(string value) => Holds(FacetAxis.Sweetening, value);
        return said switch
        {
            "sweet" => Is("sweet") ? 0 : null,
            "free" => Is("free") ? 0 : Is("un") ? 0.05m : !Is("sweet") && Food.Per100g.Sugars <= SugarFree ? 0.1m : null,
            _ => Is("un") ? 0 : Is("free") ? 0.05m : Is("sweet") || Food is { Group: FoodGroup.Sweets, Per100g.Sugars: > 10 } ? null : 0.1m,
        };
    }

    private decimal? OfPacking(Facet said)
    {
        if (Holds(said)) return 0;
        return HasAny(FacetAxis.PackedIn) || said.Value is "oil" or "syrup" or "tomato" ? null : 0.1m;
    }

    // A bird's skin and bone weigh, a potato's skin is eaten.
    private decimal? OfSkin(string said)
    {
        bool Is(string value) => Holds(FacetAxis.Skin, value);
        return said switch
        {
            "off" => Is("on") ? null : 0,
            "on" => Is("on") ? 0 : Is("off") || Food.Group == FoodGroup.Meat ? null : 0,
            "bone" => Is("bone") ? 0 : Food.Group == FoodGroup.Meat && Food.Refuse == 0 ? null : 0.1m,
            _ => Is("bone") ? null : 0,
        };
    }
}

/// <summary>One name of a food, read.</summary>
/// <param name="food">The food.</param>
/// <param name="text">The name as written.</param>
/// <param name="isUsual">Whether the words only usually mean it: "milk" for whole milk.</param>
internal sealed class FoodName(Food food, string text, bool isUsual = false)
{
    /// <summary>The food.</summary>
    public Food Food { get; } = food;

    /// <summary>The name as written.</summary>
    public string Text { get; } = text;

    /// <summary>Whether the words only usually mean it.</summary>
    public bool IsUsual { get; } = isUsual;

    /// <summary>Its facets.</summary>
    public NameFacets Read { get; } = NameFacets.Of(text, isName: true);

    /// <summary>Every word of it, those that only describe too, in the order written.</summary>
    public IReadOnlyList<string> All { get; } = FoodWords.All(text);

    /// <summary>Those of its words that tell one food from another: by them it is found while typing.</summary>
    public IReadOnlySet<string> Telling => field ??= FoodWords.Telling(All).ToHashSet(StringComparer.Ordinal);

    /// <summary>Every word of it once, in alphabetical order.</summary>
    public string Key => field ??= KeyOf(All);

    /// <summary>Every word of a text once, in alphabetical order.</summary>
    public static string KeyOf(string text) => KeyOf(FoodWords.All(text));

    /// <summary>What it says that was not said, as a distance: a little for what is usual, more for what is not.</summary>
    public decimal Open(NameFacets said, bool saysForm)
    {
        ArgumentNullException.ThrowIfNull(said);
        var off = IsUsual ? 0.02m : 0m;
        foreach (var word in Read.Words)
        {
            if (!said.Words.Contains(word, StringComparer.Ordinal)) off += 1;
        }

        if (!string.Equals(Read.Head, said.Head, StringComparison.Ordinal)) off += 0.15m;
        foreach (var word in Read.Describing) off += said.Describing.Contains(word) ? -0.2m : 0.3m;
        foreach (var facet in Read.Facets)
        {
            var isSaid = facet.Axis == FacetAxis.Form ? saysForm : said.On(facet.Axis) is not null;
            if (!isSaid) off += OfUnsaid(facet);
        }

        return Read.FatShare is not null && said.FatShare is null ? off + 0.3m : off;
    }

    private static decimal OfUnsaid(Facet facet) => facet switch
    {
        (FacetAxis.Form, "raw" or "fresh") => 0.05m,
        (FacetAxis.Form, "dry") => 0.15m,
        (FacetAxis.Form, "frozen" or "canned") => 0.2m,
        (FacetAxis.Form, _) => 0.6m,
        (FacetAxis.Fat, "full") => 0.1m,
        (FacetAxis.Fat, _) => 0.4m,
        (FacetAxis.Sweetening, "un") => 0.1m,
        (FacetAxis.Sweetening, _) => 0.35m,
        (FacetAxis.Salt, "low") => 0.4m,
        (FacetAxis.Salt, _) => 0.05m,
        (FacetAxis.PackedIn, "water") => 0.05m,
        (FacetAxis.PackedIn, _) => 0.2m,
        (_, "off" or "boneless") => 0.05m,
        _ => 0.3m,
    };

    private static string KeyOf(IReadOnlyList<string> words) =>
        string.Join(' ', words.Distinct(StringComparer.Ordinal).Order(StringComparer.Ordinal));
}
