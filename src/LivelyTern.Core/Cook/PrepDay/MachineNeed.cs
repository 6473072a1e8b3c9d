using LivelyTern.Core.Recipes;
using LivelyTern.Core.Recipes.Steps;

namespace LivelyTern.Core.Cook.PrepDay;

/// <summary>How a part of a step takes up the machines of a kitchen: how much of each, and how often.</summary>
/// <param name="Loads">How often.</param>
/// <param name="Uses">How much of each kind at once.</param>
internal sealed record MachineNeed(int Loads, IReadOnlyDictionary<Occupies, int> Uses)
{
    /// <summary>What a part of a dish needs.</summary>
    public static MachineNeed Of(PrepDish dish, StepToDo step, StepPart part, KitchenEquipment kitchen, Action<KitchenWarning> warn)
    {
        var uses = new Dictionary<Occupies, int>();
        var loads = LoadsSaid(dish, step, part);
        foreach (var kind in part.Uses)
        {
            var there = kitchen.CountOf(kind);
            if (there == 0) warn(new(dish.Id, KitchenLack.NotThere, kind));
            var (times, units) = Fill(dish, part, kind, kitchen);
            if (loads == 1 && times > 1)
            {
                loads = times;
                warn(new(dish.Id, KitchenLack.TooLarge, kind, times));
            }

            uses[kind] = units;
        }

        return new(loads, uses);
    }

    // "Three at a time", of 24 pieces: eight loads.
    private static int LoadsSaid(PrepDish dish, StepToDo step, StepPart part)
    {
        if (part.Grows == Grows.WithTheAmount) return 1;
        var reading = step.Reading;
        if (reading.AtATime is { } atATime && dish.Pieces is { } pieces) return Up(pieces, atATime);
        return reading.Loads is { } loads ? (int)Math.Ceiling(loads * Math.Max(1, dish.Factor)) : 1;
    }

    // How often a kind is filled for the dish, and how many of it at once: shelves of the oven, rings for several pots.
    private static (int Times, int Units) Fill(PrepDish dish, StepPart part, Occupies kind, KitchenEquipment kitchen)
    {
        var holds = kitchen.HoldsOf(kind);
        var kilograms = dish.Raw.Value / 1000;
        switch (kind)
        {
            case Occupies.Oven:
                var shelves = Math.Max(1, (int)(holds ?? 1));
                var trays = Up(kilograms, kitchen.HoldsOf(Occupies.Tray) ?? 2.5m);
                return (Up(trays, shelves), Math.Min(trays, shelves));
            case Occupies.Tray:
                return (1, Math.Clamp(Up(kilograms, holds ?? 2.5m), 1, Math.Max(1, kitchen.CountOf(kind))));
            case Occupies.Ring when !part.IsHandsOn:
                var pots = Up(kilograms, holds ?? 5);
                var rings = Math.Max(1, kitchen.CountOf(kind));
                return (Up(pots, rings), Math.Min(pots, rings));
            case Occupies.WaffleIron when dish.Pieces is { } pieces:
                return (Up(pieces, holds ?? 1), 1);
            case Occupies.SlowCooker or Occupies.PressureCooker or Occupies.AirFryer or Occupies.Blender when holds is { } most:
                return (Up(kilograms, most), 1);
            default:
                return (1, 1);
        }
    }

    private static int Up(decimal amount, decimal each) => Math.Clamp((int)Math.Ceiling(amount / each), 1, 200);

    /// <summary>The minutes of a part for this batch.</summary>
    public static int MinutesOf(PrepDish dish, StepToDo step, StepPart part, int loads)
    {
        // What the cook typed is for the recipe as it stands, all its loads together: "25 minutes" for nine rounds through the iron.
        var isTotal = part.IsHandsOn ? step.Written.HandsOn is not null : step.Written.Unattended is not null;
        var isInLoads = part.Grows == Grows.WithTheLoads || step.Reading is { AtATime: not null } or { Loads: not null };
        if (part.Grows == Grows.WithTheAmount || (isTotal && loads > 1 && isInLoads)) return Whole(part.Minutes * dish.Factor);
        return Whole((decimal)part.Minutes * loads);
    }

    private static int Whole(decimal minutes) => (int)Math.Clamp(Math.Ceiling(minutes), 1, 10_080);
}
