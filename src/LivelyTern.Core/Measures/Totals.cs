using System.Collections.Immutable;

namespace LivelyTern.Core.Measures;

/// <summary>A sum that knows whether anything in it was unknown, and to which side the truth may lie.</summary>
/// <param name="Known">What is known of it: kcal, grams or points.</param>
/// <param name="Certainty">Whether the true figure may be more, or less.</param>
public readonly record struct Total(decimal Known, Certainty Certainty = Certainty.Exact)
{
    /// <summary>Nothing, known to be nothing.</summary>
    public static Total None => new(0);

    /// <summary>Whether all of it is known.</summary>
    public bool IsComplete => Certainty == Certainty.Exact;

    /// <summary>A figure that is known, or of which only a part is.</summary>
    public static Total Of(decimal known, bool isKnown) => new(known, isKnown ? Certainty.Exact : Certainty.AtLeast);

    /// <summary>The same, where a part of it is that certain.</summary>
    public Total With(Certainty other) => this with { Certainty = Certainty.And(other) };

    /// <summary>Both together; incomplete if either is.</summary>
    public static Total operator +(Total a, Total b) => new(a.Known + b.Known, a.Certainty.And(b.Certainty));

    /// <summary>The same total, scaled: half of an unknown is still unknown, at least 5 g off leave at most the rest.</summary>
    public static Total operator *(Total a, decimal factor) =>
        factor == 0 ? None : new(a.Known * factor, factor < 0 ? a.Certainty.TurnedRound() : a.Certainty);
}

/// <summary>Sums of every nutrient over some food: energy in kcal, all others in grams.</summary>
public sealed class Totals
{
    private readonly ImmutableArray<Total> values;

    private Totals(ImmutableArray<Total> values, Total netCarbohydrate = default) =>
        (this.values, NetCarbohydrate) = (values, netCarbohydrate);

    /// <summary>
    /// Carbohydrate less fibre and polyols, in grams. Where a fibre figure is not known nothing is taken off for it: the total reads
    /// "at most".
    /// </summary>
    public Total NetCarbohydrate { get; }

    /// <summary>No food at all.</summary>
    public static Totals None { get; } = new([.. Nutrients.All.Select(_ => Total.None)], Total.None);

    /// <summary>The total of one nutrient.</summary>
    public Total this[Nutrient nutrient] => values[(int)nutrient];

    /// <summary>
    /// What these weights of these foods hold. 50 g of a food with 12 g protein per 100 g and no fibre figure hold
    /// 6 g protein, and "at least 0 g" fibre.
    /// </summary>
    public static Totals Of(IEnumerable<(Nutrients Per100g, Grams Weight)> parts)
    {
        ArgumentNullException.ThrowIfNull(parts);
        var count = Nutrients.All.Count;
        var sums = new decimal[count];
        var certainty = new Certainty[count];
        foreach (var (per100g, weight) in parts)
        {
            var hundreds = weight.Value * 0.01m;
            if (hundreds == 0) continue;
            for (var i = 0; i < count; i++)
            {
                if (per100g[(Nutrient)i] is { } value) sums[i] += value * hundreds;
                else certainty[i] = certainty[i].And(hundreds < 0 ? Certainty.AtMost : Certainty.AtLeast);
            }
        }

        return new([.. sums.Select((sum, i) => new Total(sum, certainty[i]))], Total.None);
    }

    /// <summary>Both together.</summary>
    public static Totals operator +(Totals a, Totals b)
    {
        ArgumentNullException.ThrowIfNull(a);
        ArgumentNullException.ThrowIfNull(b);
        return new([.. a.values.Select((total, i) => total + b.values[i])], a.NetCarbohydrate + b.NetCarbohydrate);
    }

    /// <summary>A share of it: a third of a batch holds a third of each nutrient.</summary>
    public static Totals operator *(Totals a, decimal factor)
    {
        ArgumentNullException.ThrowIfNull(a);
        return new([.. a.values.Select(total => total * factor)], a.NetCarbohydrate * factor);
    }

    /// <summary>The same totals with one replaced.</summary>
    public Totals With(Nutrient nutrient, Total total) => new(values.SetItem((int)nutrient, total), NetCarbohydrate);

    /// <summary>The same totals with this net carbohydrate.</summary>
    public Totals WithNet(Total net) => new(values, net);

    /// <summary>Marks every nutrient as "at least": something went in that nobody could read.</summary>
    public Totals AtLeast() =>
        new([.. values.Select(total => total.With(Certainty.AtLeast))], NetCarbohydrate.With(Certainty.AtLeast));
}
