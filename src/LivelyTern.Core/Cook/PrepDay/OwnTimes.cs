using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Cook.PrepDay;

/// <summary>How long something took once.</summary>
/// <param name="Key">What (<see cref="OwnTimes"/>).</param>
/// <param name="Usual">The minutes it was usually to take.</param>
/// <param name="Real">The minutes it took.</param>
public sealed record TimeTaken(string Key, int Usual, int Real);

/// <summary>
/// How long work takes these cooks, learned from how long it took them before: as a share of the usual minutes, so that it holds for a
/// batch of another size. The middle one of the last five times counts: 9, 14 and 30 minutes for what usually takes 10 are 14.
/// </summary>
public sealed class OwnTimes
{
    private const int LastTimes = 5;

    // What took a quarter or four times of what is usual says that a key was pressed late, not how long the work takes.
    private const decimal Least = 0.25m, Most = 4;

    private readonly Dictionary<string, decimal> shares;

    private OwnTimes(Dictionary<string, decimal> shares) => this.shares = shares;

    /// <summary>Nothing learned yet.</summary>
    public static OwnTimes None { get; } = new(new(StringComparer.Ordinal));

    /// <summary>What some times teach.</summary>
    /// <param name="taken">How long things took, the last first.</param>
    public static OwnTimes From(IEnumerable<TimeTaken> taken)
    {
        static bool IsLikely(TimeTaken one) =>
            one is { Usual: > 0, Real: > 0 } && (decimal)one.Real / one.Usual is >= Least and <= Most;
        return new(taken.Where(IsLikely).GroupBy(one => one.Key, StringComparer.Ordinal).ToDictionary(
            same => same.Key, same => Middle.Of(same.Take(LastTimes).Select(one => (decimal)one.Real / one.Usual)) ?? 1,
            StringComparer.Ordinal));
    }

    /// <summary>A part of a step of a recipe, by its sentence and its verb.</summary>
    public static string KeyOf(Guid recipeId, string sentence, string verb) => $"step {recipeId:N} {verb} {sentence}";

    /// <summary>Washing or chopping a food.</summary>
    public static string KeyOf(string verb, string foodId) => $"prepare {verb} {foodId}";

    /// <summary>Work that no recipe writes down: packing, washing up.</summary>
    public static string KeyOf(PrepKind kind) => $"kind {kind}";

    /// <summary>The whole minutes that something takes these cooks; null where they have not done it yet.</summary>
    /// <param name="key">What.</param>
    /// <param name="usual">The minutes it usually takes.</param>
    public int? Of(string key, int usual) => shares.TryGetValue(key, out var share) ? Whole(usual * share) : null;

    /// <summary>
    /// The whole minutes that foods washed or chopped in one go take these cooks; null where they have done none of them yet.
    /// </summary>
    /// <param name="together">The foods.</param>
    /// <param name="usual">The minutes it usually takes.</param>
    public int? Of(IReadOnlyList<Preparation> together, int usual)
    {
        ArgumentNullException.ThrowIfNull(together);
        decimal? ShareOf(Preparation one) =>
            one.FoodId is { } food && shares.TryGetValue(KeyOf(one.Verb.Name, food), out var share) ? share : null;
        if (!together.Any(one => ShareOf(one) is not null)) return null;
        var all = together.Sum(one => (decimal)one.Minutes);
        return all <= 0 ? null : Whole(usual * together.Sum(one => one.Minutes * (ShareOf(one) ?? 1)) / all);
    }

    private static int Whole(decimal minutes) => Math.Max(1, (int)Measures.Rounding.ToStep(minutes, 1));
}
