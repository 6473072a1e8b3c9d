using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Foods;

/// <summary>A weight of one food, as it went in.</summary>
/// <param name="Food">The food, with the figures it had then.</param>
/// <param name="Weight">Grams; zero for a trace.</param>
/// <param name="IsTrace">
/// A pinch, or "to taste": recorded, too little to weigh. With a weight it is what was used without an amount, and that is the least of it.
/// </param>
public sealed record Ingredient(Food Food, Grams Weight, bool IsTrace = false)
{
    /// <summary>Whether more of it may have gone in than its weight: "oil, for frying".</summary>
    public bool IsAtLeast => IsTrace && Weight.Value != 0;

    /// <summary>The same, where its food's label has come to name more allergens since: with those too.</summary>
    /// <param name="find">A food as it is known today, or null.</param>
    public Ingredient AsKnownToday(Func<string, Food?> find)
    {
        ArgumentNullException.ThrowIfNull(find);
        var more = find(Food.Id)?.Allergens.Except(Food.Allergens).ToList();
        return more is not { Count: > 0 } ? this : this with { Food = Food with { Allergens = [.. Food.Allergens.Concat(more).Order()] } };
    }
}

/// <summary>What is in a batch, a box or a bite: weights of foods, from which every measure follows.</summary>
public sealed record Contents(IReadOnlyList<Ingredient> Ingredients, bool SomethingUnread = false)
{
    /// <summary>Salt from which up a trace of a food leaves the day's salt "at least", in grams per 100 g.</summary>
    private const decimal SaltyPer100g = 10m;

    /// <summary>Nothing.</summary>
    public static Contents Nothing { get; } = new([]);

    /// <summary>The weight of what went in, before cooking.</summary>
    public Grams RawWeight => new(Ingredients.Sum(ingredient => ingredient.Weight.Value));

    /// <summary>What it holds of every nutrient. Water that leaves in cooking changes the weight, not this.</summary>
    public Totals Totals
    {
        get
        {
            var sums = Totals.Of(Ingredients.Select(ingredient => (ingredient.Food.Per100g, ingredient.Weight)));
            sums = InOneConvention(sums);
            sums = Ingredients.Where(ingredient => ingredient.IsAtLeast).Aggregate(sums, WithAtLeast);
            if (Ingredients.Any(IsSaltyTrace)) sums = sums.With(Nutrient.Salt, sums[Nutrient.Salt].With(Certainty.AtLeast));
            return SomethingUnread ? sums.AtLeast() : sums;
        }
    }

    /// <summary>
    /// Grams of protein that lacks an essential amino acid altogether, from gelatin and collagen; they are within the protein.
    /// </summary>
    public decimal IncompleteProtein =>
        Ingredients.Where(ingredient => ingredient.Food.HasIncompleteProtein)
            .Sum(ingredient => (ingredient.Food.Per100g.Protein ?? 0) * ingredient.Weight.Value / 100m);

    /// <summary>The allergens of everything in it.</summary>
    public IReadOnlyList<Allergen> Allergens => [.. Ingredients.SelectMany(ingredient => ingredient.Food.Allergens).Distinct().Order()];

    /// <summary>Whether somebody stated the allergens of everything in it.</summary>
    public bool KnowsAllergens => !SomethingUnread && Ingredients.All(ingredient => ingredient.Food.KnowsAllergens);

    /// <summary>Two together.</summary>
    public static Contents Both(Contents one, Contents other)
    {
        ArgumentNullException.ThrowIfNull(one);
        ArgumentNullException.ThrowIfNull(other);
        return new([.. one.Ingredients, .. other.Ingredients], one.SomethingUnread || other.SomethingUnread);
    }

    /// <summary>A share of it: one of six equal portions is a sixth of every ingredient.</summary>
    /// <param name="factor">The share; 0 to 1 for a part, more to scale up.</param>
    public Contents Scale(decimal factor) =>
        this with { Ingredients = [.. Ingredients.Select(ingredient => ingredient with { Weight = ingredient.Weight * factor })] };

    /// <summary>
    /// The same contents with the allergens known today: a food holds what it was known to hold when it went in, and what its label says
    /// now. The figures stay those of then.
    /// </summary>
    /// <param name="find">A food as it is known today, or null.</param>
    public Contents AsKnownToday(Func<string, Food?> find)
    {
        ArgumentNullException.ThrowIfNull(find);
        var known = Ingredients.Select(ingredient => ingredient.AsKnownToday(find)).ToList();
        return known.SequenceEqual(Ingredients, ReferenceEqualityComparer.Instance) ? this : this with { Ingredients = known };
    }

    /// <summary>The same contents with each food once: butter in the pastry and in the sauce are one weight of butter.</summary>
    public Contents Gathered() => this with
    {
        Ingredients =
        [
            .. Ingredients.GroupBy(ingredient => (ingredient.Food.Id, ingredient.IsTrace, ingredient.Food.Per100g))
                .Select(same => same.First() with { Weight = new(same.Sum(ingredient => ingredient.Weight.Value)) }),
        ],
    };

    /// <summary>The names of the foods for which a nutrient is not known.</summary>
    public IReadOnlyList<string> Missing(Nutrient nutrient)
    {
        bool IsLacking(Ingredient ingredient) =>
            (ingredient.Weight.Value != 0 && ingredient.Food.Per100g[nutrient] is null)
            || (nutrient == Nutrient.Salt && IsSaltyTrace(ingredient));
        return [.. Ingredients.Where(IsLacking).Select(ingredient => ingredient.Food.Name).Distinct(StringComparer.Ordinal)];
    }

    // Labels of two conventions in one dish: carbohydrate is brought to "total, fibre within" for all, and net is what is left without
    // fibre and polyols. 100 g of a European bread with 40 g carbohydrate and 8 g fibre hold 48 g in total and 40 g net. Polyols that a
    // label does not state are none: it has to name them where they were put in (Regulation (EU) No 1169/2011, Annex VII part C; 21 CFR
    // 101.9(c)(6)(iv)).
    private Totals InOneConvention(Totals sums)
    {
        var (total, net) = (Total.None, Total.None);
        foreach (var (food, weight, _) in Ingredients)
        {
            if (weight.Value == 0) continue;
            var (hundreds, per100g) = (weight.Value / 100m, food.Per100g);
            var carbohydrate = per100g.Carbohydrate ?? 0;
            var fibre = per100g.Fibre ?? 0;
            var isTotal = food.Convention == CarbohydrateConvention.Total;

            // Where there is next to no carbohydrate an unknown fibre figure hides nothing.
            var knowsFibre = per100g.Fibre is not null || (isTotal && per100g.Carbohydrate < 0.5m);
            var isKnown = per100g.Carbohydrate is not null;
            var unknown = isKnown ? Certainty.Exact : Certainty.AtLeast;
            var lacksFibre = knowsFibre ? Certainty.Exact : Certainty.AtLeast;
            total += new Total(isTotal ? carbohydrate : carbohydrate + fibre, isTotal ? unknown : unknown.And(lacksFibre)) * hundreds;
            var bare = carbohydrate - (isTotal ? fibre : 0) - (per100g.Polyols ?? 0);
            net += new Total(bare, isTotal ? unknown.And(lacksFibre.TurnedRound()) : unknown) * hundreds;
        }

        return sums.With(Nutrient.Carbohydrate, total).WithNet(net);
    }

    // Of what was used without an amount every figure it has may be more.
    private static Totals WithAtLeast(Totals sums, Ingredient ingredient)
    {
        var per100g = ingredient.Food.Per100g;
        var certainty = ingredient.Weight.Value < 0 ? Certainty.AtMost : Certainty.AtLeast;
        foreach (var nutrient in Nutrients.All)
        {
            if (per100g[nutrient] is not 0) sums = sums.With(nutrient, sums[nutrient].With(certainty));
        }

        return per100g.Carbohydrate is 0 ? sums : sums.WithNet(sums.NetCarbohydrate.With(certainty));
    }

    private static bool IsSaltyTrace(Ingredient ingredient) => ingredient.IsTrace && !(ingredient.Food.Per100g.Salt < SaltyPer100g);
}
