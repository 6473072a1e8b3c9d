using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Shop;

/// <summary>An amount of something in the house as it is typed: "500 g", "500", "half", "2 packages", "enough", "none".</summary>
public static class PantryAmount
{
    private static readonly HashSet<string> Enough = new(StringComparer.OrdinalIgnoreCase) { "enough", "plenty", "lots", "always" };
    private static readonly HashSet<string> None = new(StringComparer.OrdinalIgnoreCase) { "none", "nothing", "empty", "used up", "no" };
    private static readonly string[] Package = ["package", "packages", "packet", "packets", "pack", "packs", "bag", "bags"];

    /// <summary>What was typed; null for enough that nobody counts.</summary>
    /// <param name="typed">As typed.</param>
    /// <param name="now">What is written down now; null for enough.</param>
    /// <param name="food">The food.</param>
    /// <param name="sold">How it is sold here.</param>
    /// <param name="foods">To read a measure of it.</param>
    public static Outcome<InHouse> Read(string typed, Grams? now, Food food, SoldAs sold, IFoods foods)
    {
        ArgumentNullException.ThrowIfNull(typed);
        ArgumentNullException.ThrowIfNull(food);
        ArgumentNullException.ThrowIfNull(sold);
        var said = typed.Trim();
        if (Enough.Contains(said)) return new InHouse(null);
        if (None.Contains(said)) return new InHouse(Grams.Zero);
        if (said is "half" or "1/2" or "½" && now is { } whole) return Checked((whole * 0.5m).ToMilligram());
        if (AmountText.Read(said) is not { } amount) return Unread;
        if (amount is { Unit: null, Rest: "" }) return Checked(new Grams(amount.Quantity).ToMilligram());
        if (Package.Contains(amount.Rest.Trim(), StringComparer.OrdinalIgnoreCase) && sold.Packages.Count > 0)
            return Checked((sold.Packages[0].Holds * amount.Quantity).ToMilligram());
        var line = FoodLine.Read($"{said} {food.Name}", foods, food);
        return AsPurchased.Said(line) is [{ Purchased: { Value: > 0 } weight }] ? Checked(weight) : Unread;
    }

    private static Problem Unread => new("pantry-unread", "text", "Type how much there is: 500 g, half, 2 packages, or enough.");

    private static Outcome<InHouse> Checked(Grams amount) => amount.Value is >= 0 && amount <= PantryItem.Most
        ? new InHouse(amount)
        : new Problem("pantry-amount", "text", "What is in the house weighs between 0 g and 100 kg.");
}
