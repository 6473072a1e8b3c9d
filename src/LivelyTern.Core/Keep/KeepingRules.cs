using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Keep;

/// <summary>The rules a household keeps food by: a guideline set, and for some kinds fewer days of its own.</summary>
public sealed class KeepingRules
{
    private readonly Dictionary<KeepingKind, KeepingRule> rules;

    private KeepingRules(GuidelineSet set, IReadOnlyDictionary<KeepingKind, int> own)
    {
        (Set, Own) = (set, own);
        KeepingRule Kept(KeepingRule rule) => own.TryGetValue(rule.Kind, out var days) ? Stricter(rule, days) : rule;
        rules = set.Rules.ToDictionary(rule => rule.Kind, Kept);
    }

    /// <summary>The guideline set.</summary>
    public GuidelineSet Set { get; }

    /// <summary>Days in the fridge of the household's own, by kind.</summary>
    public IReadOnlyDictionary<KeepingKind, int> Own { get; }

    /// <summary>
    /// Where nobody chose: the shorter end of the North American chart, and a day for cooked rice, as the UK Food Standards Agency has it
    /// (from memory).
    /// </summary>
    public static KeepingRules Default { get; } =
        new(GuidelineSet.Us, new Dictionary<KeepingKind, int> { [KeepingKind.Rice] = 1 });

    /// <summary>A set as it is published.</summary>
    public static KeepingRules Of(GuidelineSet set) =>
        new(set ?? throw new ArgumentNullException(nameof(set)), new Dictionary<KeepingKind, int>());

    /// <summary>A household's rules: none may be laxer than its guideline.</summary>
    /// <param name="code">The guideline set.</param>
    /// <param name="own">Days in the fridge of its own, by kind; 0 is the day itself.</param>
    public static Outcome<KeepingRules> Of(string code, IReadOnlyDictionary<KeepingKind, int> own)
    {
        ArgumentNullException.ThrowIfNull(own);
        if (GuidelineSet.Find(code) is not { } set)
            return GuidelineSet.Unknown;
        Problem? Wrong(KeepingKind kind, int days)
        {
            if (set.Of(kind) is not { } rule) return new("kind-unknown", $"own.{kind}", $"{set.Name} has no days for that kind.");
            if (days < 0) return new("days-negative", $"own.{kind}", "Days are 0 (the day itself) or more.");
            var most = rule.Fridge.Least == 1 ? "1 day" : $"{rule.Fridge.Least} days";
            return days <= rule.Fridge.Least
                ? null
                : new("rule-laxer", $"own.{kind}", $"{set.Name} says {most}: your own rule can only be shorter.");
        }

        var problems = own.Select(one => Wrong(one.Key, one.Value)).OfType<Problem>().ToList();
        return problems.Count > 0 ? problems : new KeepingRules(set, own);
    }

    /// <summary>
    /// The rule of a kind. What a set says nothing of keeps as a cooked dish does, which is the shorter time for all that is eaten as it
    /// is.
    /// </summary>
    public KeepingRule Of(KeepingKind kind) => rules.GetValueOrDefault(kind) ?? rules[KeepingKind.Ordinary];

    /// <summary>The rule that decides of several kinds: the shortest in the fridge; of those alike a kind before "any dish".</summary>
    public KeepingRule Strictest(IEnumerable<KeepingKind> kinds) =>
        kinds.Select(Of).OrderBy(rule => rule.Fridge.Least).ThenBy(rule => rule.Kind == KeepingKind.Ordinary)
            .ThenBy(rule => rule.Kind).First();

    /// <summary>
    /// The rule that decides of several kinds in the freezer: what does not freeze well before all, else the shortest.
    /// </summary>
    public KeepingRule StrictestFrozen(IEnumerable<KeepingKind> kinds) =>
        kinds.Select(Of).OrderBy(rule => rule.Freezer?.Least ?? 0).ThenBy(rule => rule.Kind == KeepingKind.Ordinary)
            .ThenBy(rule => rule.Kind).First();

    private static KeepingRule Stricter(KeepingRule rule, int days) => rule with
    {
        Fridge = new(days, days),
        Source = $"your own rule; {rule.Source} says {rule.Fridge.Least}",
        IsOwn = days < rule.Fridge.Least,
    };
}
