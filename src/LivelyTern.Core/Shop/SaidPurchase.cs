using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Shop;

/// <summary>What to buy, as one says it in a shop: "2 × 500 g", "1.25 kg", "about 3 medium", "some".</summary>
public static class SaidPurchase
{
    private const decimal Kilogram = 1000, Tens = 10;

    /// <summary>What is still to be bought of a food; of what is in the basket, what that is.</summary>
    public static string Of(ListedFood line)
    {
        ArgumentNullException.ThrowIfNull(line);
        if (line.State != ListState.ToBuy) return line.Basket is { Bought: { Value: > 0 } held } ? Weight(held) : "";
        if (line.Sum.Buy == Grams.Zero) return "some";
        if (line.Sum.Packages.Count > 0) return string.Join(" + ", line.Sum.Packages.Select(some => Said(line.Sold, some)));
        return line.Pieces is not var (count, measure) ? Weight(line.Sum.Buy)
            : measure is "piece" ? $"about {count}"
            : $"about {count} {(count == 1 || FoodWords.IsSize(measure) ? measure : FoodWords.Plural(measure))}";
    }

    /// <summary>A weight as a shop says it, never less than it is: 333.3 g are 334 g, 1,204 g are 1.21 kg.</summary>
    public static string Weight(Grams weight) =>
        weight.Value >= Kilogram ? $"{AmountText.Say(Math.Ceiling(weight.Value / Tens) * Tens / Kilogram)} kg"
            : weight.Value >= Tens ? $"{AmountText.Say(Math.Ceiling(weight.Value))} g"
            : $"{AmountText.Say(Math.Ceiling(weight.Value * Tens) / Tens)} g";

    /// <summary>A weight in grams, to the gram: 1205 g.</summary>
    public static string Exactly(Grams weight) => $"{AmountText.Say(Rounding.ToStep(weight.Value, weight.Value >= Tens ? 1 : 0.1m))} g";

    private static string Said(SoldAs sold, PackageCount some)
    {
        var ml = sold.Packages.FirstOrDefault(package => package.Holds == some.Size)?.Ml;
        var package = ml is { } fills ? Package(fills, "l", "ml") : Package(some.Size.Value, "kg", "g");
        return some.Count == 1 ? package : $"{some.Count} × {package}";
    }

    // A package holds what it holds.
    private static string Package(decimal size, string large, string small) =>
        size >= Kilogram ? $"{AmountText.Say(size / Kilogram)} {large}" : $"{AmountText.Say(size)} {small}";
}
