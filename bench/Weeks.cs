using LivelyTern.Core.Aim;
using LivelyTern.Core.Plan.Fit;

namespace LivelyTern.Bench;

/// <summary>
/// Weeks made up from a seed: eaters with different aims, batches that keep for a few days or freeze, fillers in servings.
/// </summary>
public static class Weeks
{
    /// <summary>A week in which most days can fit, with work to do.</summary>
    public static FitProblem Of(int seed, int eaters, int days = 7, int batches = 8, int fillers = 20, int sizes = 5)
    {
        var chance = new Random(seed);
        decimal Between(double low, double high) => Math.Round((decimal)(low + (chance.NextDouble() * (high - low))), 1);
        var names = Enumerable.Range(0, eaters).Select(e => $"e{e}").ToList();
        var table = names.Select(name =>
        {
            var energy = 50 * (int)Between(28, 52);
            var bands = new Dictionary<Measure, Band>
            {
                [Measure.Energy] = new(energy - 60, energy, energy + 60),
                [Measure.Protein] = new(Min: Math.Round(energy * 0.045m)),
                [Measure.Fat] = new(Max: Math.Round(energy * 0.042m)),
            };
            if (chance.Next(3) == 0) bands[Measure.Carbohydrate] = new(Max: Math.Round(energy * 0.115m));
            return new FitEater(name, name, Measure.Energy, [.. Enumerable.Range(0, days).Select(_ => new FitDay(bands))], chance.Next(2) == 0 ? 2 : 99);
        }).ToList();
        Dictionary<Measure, decimal> Scaled(Dictionary<Measure, decimal> per100g, decimal grams) => per100g.ToDictionary(pair => pair.Key, pair => pair.Value * grams / 100);
        var pots = Enumerable.Range(0, batches).Select(b =>
        {
            var (protein, fat, carbohydrate) = (Between(4, 14), Between(2, 9), Between(6, 22));
            var per100g = new Dictionary<Measure, decimal> { [Measure.Energy] = (4 * protein) + (9 * fat) + (4 * carbohydrate), [Measure.Protein] = protein, [Measure.Fat] = fat, [Measure.Carbohydrate] = carbohydrate };
            var grams = Math.Round(eaters * days * 2.4m * 350 / batches * Between(0.8, 1.2), 0);
            var freezes = chance.Next(2) == 0;
            List<string> excluded = eaters > 1 && chance.Next(4) == 0 ? [names[chance.Next(eaters)]] : [];
            List<string> disliked = chance.Next(3) == 0 ? [names[chance.Next(eaters)]] : [];
            return new FitBatch($"b{b}", $"batch {b}", [.. Enumerable.Range(0, sizes).Select(s => new FitSize(250 + (s * 60), Scaled(per100g, 250 + (s * 60))))], grams, 0, freezes ? days : chance.Next(3, days), excluded, disliked);
        }).ToList();
        var snacks = Enumerable.Range(0, fillers).Select(f =>
        {
            var (protein, fat, carbohydrate) = (Between(0, 14), Between(0, 9), Between(2, 30));
            return new FitFiller($"f{f}", $"filler {f}", new Dictionary<Measure, decimal> { [Measure.Energy] = (4 * protein) + (9 * fat) + (4 * carbohydrate), [Measure.Protein] = protein, [Measure.Fat] = fat, [Measure.Carbohydrate] = carbohydrate });
        }).ToList();
        return new(new DateOnly(2026, 11, 23), table, pots, snacks, new());
    }
}
