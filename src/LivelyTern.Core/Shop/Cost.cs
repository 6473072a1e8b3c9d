namespace LivelyTern.Core.Shop;

/// <summary>What something costs, as far as prices were noted.</summary>
/// <param name="Known">The sum of what is known, in the household's currency.</param>
/// <param name="Unpriced">How many foods of it have no price: with any it is "at least".</param>
public sealed record Cost(decimal Known, int Unpriced)
{
    /// <summary>What the foods of a dish cost, by the gram as they are bought; what nobody weighs costs nothing.</summary>
    /// <param name="foods">The foods.</param>
    /// <param name="soldAs">How each is sold.</param>
    public static Cost Of(IEnumerable<Needed> foods, Func<Foods.Food, SoldAs> soldAs)
    {
        ArgumentNullException.ThrowIfNull(foods);
        ArgumentNullException.ThrowIfNull(soldAs);
        var (known, without) = (0m, new HashSet<string>(StringComparer.Ordinal));
        foreach (var need in foods.Where(need => need.Purchased.Value > 0))
        {
            if (soldAs(need.Food).PerGram is { } price) known += price * need.Purchased.Value;
            else without.Add(need.Food.Id);
        }

        return new(known, without.Count);
    }
}
