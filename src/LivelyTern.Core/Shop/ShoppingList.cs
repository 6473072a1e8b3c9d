using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Shop;

/// <summary>Where a food of the list stands.</summary>
public enum ListState
{
    /// <summary>Still to be bought, or more of it.</summary>
    ToBuy,

    /// <summary>In the basket.</summary>
    InBasket,

    /// <summary>Enough of it is in the house.</summary>
    InHouse,
}

/// <summary>What is in the basket of a food.</summary>
/// <param name="Bought">How much; nothing for what nobody weighs.</param>
public sealed record InBasket(Grams Bought);

/// <summary>What is in the house of a food.</summary>
/// <param name="Amount">How much, as purchased; null for enough that nobody counts.</param>
public sealed record InHouse(Grams? Amount);

/// <summary>One food of the list.</summary>
/// <param name="Sum">Need, have (in the house and in the basket), buy, packages, over.</param>
/// <param name="For">What it is for, in the order of the days.</param>
/// <param name="Basket">What is in the basket; null for nothing.</param>
/// <param name="State">Where it stands.</param>
/// <param name="Sold">How it is sold.</param>
/// <param name="Aisle">Where.</param>
/// <param name="Cost">What is still to be bought and what is in the basket cost; null where a price is missing.</param>
public sealed record ListedFood(
    ShopLine Sum, IReadOnlyList<PlannedNeed> For, InBasket? Basket, ListState State, SoldAs Sold, Aisle Aisle, decimal? Cost)
{
    /// <summary>Whether only some is needed, which nobody weighs: a pinch of salt.</summary>
    public bool IsSome => For.Count > 0 && For.All(need => need.IsSome);

    /// <summary>Whether it is in the basket and nothing needs it any more.</summary>
    public bool IsNotNeeded => For.Count == 0;

    /// <summary>What is in the house of it, without what is in the basket.</summary>
    public Grams House => Sum.Have - (Basket?.Bought ?? Grams.Zero);

    // Less than this is what clings to the package.
    private const decimal LeastOver = 0.5m;

    /// <summary>
    /// Whether some of it will be over that was bought with the rest: of what is sold loose nobody has to buy more than is needed.
    /// </summary>
    public bool IsOver => Sum.Over.Value >= LeastOver && (Sum.Packages.Count > 0 || Basket is not null) && !Sold.IsLoose;

    /// <summary>
    /// How many of the food as it comes: 3 of a medium onion for 330 g that are eaten. Null where it is sold in packages, or nobody counts
    /// it.
    /// </summary>
    public (int Count, string Measure)? Pieces
    {
        get
        {
            if (Sum.Packages.Count > 0 || Sum.Buy == Grams.Zero || Sum.Food.Piece is not { Weight.Value: > 0 } piece) return null;
            if (NotCounted.Contains(piece.Name)) return null;
            var eaten = Sum.Buy.Value * AsPurchased.KeptOf(Sum.Food);
            var count = Math.Ceiling((eaten / piece.Weight.Value) - Nearly);
            return count is >= 1 and <= MostCounted ? ((int)count, piece.Name) : null;
        }
    }

    // A twentieth of an onion more is no other onion.
    private const decimal Nearly = 0.05m;
    private const int MostCounted = 60;
    private static readonly HashSet<string> NotCounted =
        ["slice", "handful", "sprig", "leaf", "can", "tin", "jar", "rasher", "wedge", "ring"];
}

/// <summary>A list: needs summed, less what is in the house and in the basket, up to whole packages.</summary>
public static class ShoppingList
{
    /// <summary>The list, by aisles in their order, then by name.</summary>
    /// <param name="needs">What is needed.</param>
    /// <param name="house">What is in the house, by food.</param>
    /// <param name="basket">What is in the basket, by food; it stays on the list where nothing needs it any more.</param>
    /// <param name="soldAs">How a food is sold here.</param>
    /// <param name="aisles">The aisles.</param>
    public static IReadOnlyList<ListedFood> Of(
        IReadOnlyList<PlannedNeed> needs, IReadOnlyDictionary<string, InHouse> house, IReadOnlyDictionary<Food, InBasket> basket,
        Func<Food, SoldAs> soldAs, Aisles aisles)
    {
        ArgumentNullException.ThrowIfNull(needs);
        ArgumentNullException.ThrowIfNull(house);
        ArgumentNullException.ThrowIfNull(basket);
        ArgumentNullException.ThrowIfNull(soldAs);
        ArgumentNullException.ThrowIfNull(aisles);
        var byFood = needs.ToLookup(need => need.What.Food.Id, StringComparer.Ordinal);
        var bought = basket.ToDictionary(one => one.Key.Id, one => one.Value, StringComparer.Ordinal);
        var foods = needs.Select(need => need.What.Food).Concat(basket.Keys).DistinctBy(food => food.Id, StringComparer.Ordinal);
        var order = aisles.InOrder.Select((aisle, at) => (aisle.Id, at))
            .ToDictionary(one => one.Id, one => one.at, StringComparer.Ordinal);
        return [.. foods.Select(Listed).OrderBy(line => order[line.Aisle.Id]).ThenBy(line => line.Sum.Food.Name, StringComparer.Ordinal)];

        ListedFood Listed(Food food)
        {
            IReadOnlyList<PlannedNeed> own = [.. byFood[food.Id].OrderBy(need => DayOf(need.Source))];
            var (there, inBasket, sold) = (house.GetValueOrDefault(food.Id), bought.GetValueOrDefault(food.Id), soldAs(food));
            var need = new Grams(own.Sum(one => one.What.Purchased.Value));
            var isEnough = there is { Amount: null };
            var have = (isEnough ? need : there?.Amount ?? Grams.Zero) + (inBasket?.Bought ?? Grams.Zero);
            var sum = ShoppingSum.Of(food, need, have, sold.Sizes);
            var state = sum.Buy > Grams.Zero || IsMissing() ? ListState.ToBuy
                : inBasket is null ? ListState.InHouse
                : ListState.InBasket;
            return new(sum, own, inBasket, state, sold, aisles.Of(food, sold), CostOf());

            bool IsMissing() => need == Grams.Zero && own.Count > 0 && inBasket is null && !isEnough && !(there?.Amount > Grams.Zero);

            decimal? CostOf()
            {
                var toPay = sum.Buy == Grams.Zero ? 0 : sold.CostOf(sum.Buy, sum.Packages);
                if (inBasket is not { Bought: { Value: > 0 } held }) return toPay;

                // What was taken in other sizes than are noted costs what so much of it does.
                var packed = Packages.For(held, sold.Sizes);
                var isWhole = packed.Sum(some => some.Size.Value * some.Count) == held.Value;
                return toPay + sold.CostOf(held, isWhole ? packed : []);
            }
        }
    }

    private static DateOnly DayOf(NeedSource source) => source switch
    {
        ForBatch batch => batch.Day,
        ForDay day => day.Day,
        _ => DateOnly.MaxValue,
    };
}
