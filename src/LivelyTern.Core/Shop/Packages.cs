using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Shop;

/// <summary>So many packages of one size.</summary>
/// <param name="Size">What one holds.</param>
/// <param name="Count">How many.</param>
public sealed record PackageCount(Grams Size, int Count);

/// <summary>Which packages to buy, where a shop sells only whole ones.</summary>
public static class Packages
{
    /// <summary>The most sizes of one food that are looked at.</summary>
    public const int MostSizes = 6;

    // How far below as many as would do alone the larger sizes are tried: what fewer leave is filled with smaller ones.
    private const int Fewer = 40;

    // Many sizes and a large amount have too many combinations: as many are looked at as take no time.
    private const int MostTried = 100_000;

    /// <summary>
    /// The packages that leave least over; of those that leave the same, the fewest. 1,080 g in bags of 868 g are two bags; 700 g in 500 g
    /// and 1 kg are one bag of 1 kg. Of many sizes and a large amount the best of the first 100,000 combinations, from as many large ones
    /// as would do alone downwards.
    /// </summary>
    /// <param name="wanted">What is to be bought at least; more than nothing.</param>
    /// <param name="sizes">The sizes sold, each more than nothing.</param>
    public static IReadOnlyList<PackageCount> For(Grams wanted, IReadOnlyList<Grams> sizes)
    {
        ArgumentNullException.ThrowIfNull(sizes);
        var sold = sizes.Where(size => size.Value > 0).Distinct().OrderDescending().Take(MostSizes).ToList();
        if (wanted.Value <= 0 || sold.Count == 0) return [];
        var counts = new int[sold.Count];
        (decimal Bought, int Packages, int[] Counts)? best = null;
        var tried = 0;
        Try(0, wanted.Value, 0, 0);
        return [.. sold.Zip(best!.Value.Counts, (size, count) => new PackageCount(size, count)).Where(some => some.Count > 0)];

        void Try(int at, decimal left, decimal bought, int packages)
        {
            if (best is not null && ++tried > MostTried) return;
            if (best is { } found && (bought > found.Bought || (bought == found.Bought && packages >= found.Packages))) return;
            if (left <= 0)
            {
                best = (bought, packages, [.. counts]);
                return;
            }

            if (at == sold.Count) return;
            var size = sold[at].Value;
            var most = (int)Math.Min(1_000_000, Math.Ceiling(left / size));
            var least = at == sold.Count - 1 ? most : Math.Max(0, most - Fewer);
            for (var count = most; count >= least; count--)
            {
                counts[at] = count;
                Try(at + 1, left - (count * size), bought + (count * size), packages + count);
            }

            counts[at] = 0;
        }
    }
}
