using LivelyTern.Core.Cook.Schedule;
using LivelyTern.Core.Recipes;

namespace LivelyTern.Core.Cook.PrepDay;

/// <summary>The capacities of a kitchen and its cooks by name, as a schedule knows them.</summary>
internal static class Capacities
{
    /// <summary>A cook's hands.</summary>
    public static string Cook(int i) => $"cook:{i}";

    /// <summary>An oven, of several.</summary>
    public static string Oven(int i) => $"oven:{i}";

    /// <summary>All there is of a kind but of ovens.</summary>
    public static string Of(Occupies kind) => char.ToLowerInvariant(kind.ToString()[0]) + kind.ToString()[1..];

    /// <summary>The ways in which some minutes can be spent: by whichever cook, in whichever oven.</summary>
    public static IEnumerable<TaskMode> Ways(
        int minutes, bool isHandsOn, IReadOnlyDictionary<Occupies, int> uses, int? celsius, int cooks, int ovens)
    {
        var fixedUses = uses.Where(use => use.Key != Occupies.Oven)
            .ToDictionary(use => Of(use.Key), use => use.Value, StringComparer.Ordinal);
        for (var cook = 0; cook < (isHandsOn ? cooks : 1); cook++)
        {
            for (var oven = 0; oven < (uses.ContainsKey(Occupies.Oven) ? Math.Max(1, ovens) : 1); oven++)
            {
                var own = new Dictionary<string, int>(fixedUses, StringComparer.Ordinal);
                if (isHandsOn) own[Cook(cook)] = 1;
                Dictionary<string, int>? heat = null;
                if (uses.TryGetValue(Occupies.Oven, out var shelves))
                {
                    own[Oven(oven)] = shelves;
                    heat = new(StringComparer.Ordinal) { [Oven(oven)] = celsius ?? UsualOven };
                }

                yield return new(minutes, own, heat);
            }
        }
    }

    // Where no sentence says how hot: common practice, no published source.
    private const int UsualOven = 180;
}
