using LivelyTern.Core.Cook.PrepDay;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Recipes;

namespace LivelyTern.Core.Cook.Run;

/// <summary>What a step of the work can hurt somebody with: the codes of the cautions that stand beside it (under Keep).</summary>
public static class StepCautions
{
    /// <summary>Cooked through by the probe: meat, poultry, fish, eggs on the heat.</summary>
    public const string DoneInside = "done-inside";

    /// <summary>Raw poultry is not rinsed, and has its own board.</summary>
    public const string RawPoultry = "raw-poultry";

    /// <summary>Dry kidney beans are boiled first.</summary>
    public const string KidneyBeans = "kidney-beans";

    /// <summary>The pressure is let off before the lid comes off.</summary>
    public const string Pressure = "pressure";

    /// <summary>Hot silicone bends.</summary>
    public const string Silicone = "silicone";

    /// <summary>All of them.</summary>
    public static IReadOnlyList<string> All { get; } = [RawPoultry, KidneyBeans, DoneInside, Pressure, Silicone];

    /// <summary>The cautions of a task, in that order.</summary>
    /// <param name="task">The task.</param>
    /// <param name="dishes">The dishes of its day.</param>
    public static IReadOnlyList<string> Of(PrepTask task, IReadOnlyList<PrepDish> dishes)
    {
        ArgumentNullException.ThrowIfNull(task);
        ArgumentNullException.ThrowIfNull(dishes);
        if (task.Kind is not (PrepKind.Prepare or PrepKind.Step)) return [];
        var own = dishes.Where(dish => task.Dishes.Contains(dish.Id)).ToList();
        var parts = own.Where(dish => task.Step is { } at && at < dish.Steps.Count)
            .SelectMany(dish => dish.Steps[task.Step!.Value].Way.Parts).ToList();
        var isHot = task.Kind == PrepKind.Step && parts.Exists(Preparations.IsHot);
        var lines = own.SelectMany(dish => dish.Lines).ToList();
        var handled = own.SelectMany(dish => dish.Lines.Where(line => task.Lines.Contains(new(dish.Id, line.Position)))).ToList();
        bool Applies(string code) => code switch
        {
            RawPoultry => handled.Exists(IsRawPoultry),
            KidneyBeans => isHot && lines.Exists(IsDryKidneyBean),
            DoneInside => isHot && lines.Exists(line => line.Group is FoodGroup.Meat or FoodGroup.Fish or FoodGroup.Eggs),
            Pressure => isHot && parts.Exists(part => part.Uses.Contains(Occupies.PressureCooker)),
            _ => task.Text.Contains("silicone", StringComparison.OrdinalIgnoreCase),
        };
        return [.. All.Where(Applies)];
    }

    private static bool IsRawPoultry(PrepLine line) =>
        KeepingWords.Of(line.Name, line.Group) == KeepingKind.Poultry && !Says(line, "cooked", "roasted", "boiled", "canned", "smoked");

    private static bool IsDryKidneyBean(PrepLine line) =>
        Says(line, "kidney") && Says(line, "bean", "beans") && !Says(line, "canned", "boiled", "cooked", "tin", "tinned");

    private static bool Says(PrepLine line, params string[] words) =>
        FoodWords.All(line.Name).Intersect(words, StringComparer.Ordinal).Any();
}
