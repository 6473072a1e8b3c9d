using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Recipes.Steps;

namespace LivelyTern.Core.Cook.PrepDay;

/// <summary>Work of a dish that is done, or may be, on a day before it is cooked.</summary>
/// <param name="Verb">What is done, by the verb's name; <see cref="WholeStep"/> where it is all of a step.</param>
/// <param name="FoodId">To which food; null where none is named.</param>
/// <param name="What">The food's name; the step's sentence where none is named.</param>
/// <param name="Weight">How much of it; zero where no food is named.</param>
/// <param name="Step">The sentence of its step; empty where only a line of the recipe asks for it.</param>
public sealed record AheadWork(string Verb, string? FoodId, string What, Grams Weight, string Step)
{
    /// <summary>Stands for the verbs of a step that is done as a whole: boiled, mixed, soaked.</summary>
    public const string WholeStep = "step";

    // Washed and cut vegetables keep some days in the fridge, raw meat and fish a day: common practice, no published source.
    private const int DaysCut = 3, DaysCutMeat = 1;

    // What is left of a food when so little of it is missing is not worth a board.
    private const decimal NextToNothing = 0.05m;

    /// <summary>What of a dish can be done so many days before it is cooked, and is not yet.</summary>
    /// <param name="dish">The dish.</param>
    /// <param name="days">How many days before; at least one.</param>
    public static IReadOnlyList<AheadWork> Of(PrepDish dish, int days)
    {
        ArgumentNullException.ThrowIfNull(dish);
        var ahead = dish with { DaysAhead = days };
        string StepOf(int? at) => at is { } step ? dish.Steps[step].Written.Text : "";
        var prepared = Preparations.OfDish(ahead)
            .Select(one => new AheadWork(one.Verb.Name, one.FoodId, one.Food, one.Weight, StepOf(one.Step)));
        var steps = Enumerable.Range(0, dish.Steps.Count).Where(at => IsNow(ahead, at) && Preparations.HasMore(dish, at))
            .Select(at => new AheadWork(WholeStep, null, StepOf(at), Grams.Zero, StepOf(at)));
        return [.. prepared, .. steps];
    }

    /// <summary>Whether a step, beside what is washed and cut for it, is done on the day that a dish is looked at for.</summary>
    /// <param name="dish">The dish.</param>
    /// <param name="at">Which step, from 0.</param>
    internal static bool IsNow(PrepDish dish, int at)
    {
        var step = dish.Steps[at];
        return (step.DaysAhead ?? 0) >= dish.DaysAhead && !dish.Done.Any(done => done.IsOf(WholeStep, null, step.Written.Text));
    }

    /// <summary>What of a preparation is left to do on the day that a dish is looked at for; null for nothing.</summary>
    internal static Preparation? Left(PrepDish dish, Preparation one)
    {
        var step = one.Step is { } at ? dish.Steps[at] : null;
        if ((step?.DaysAhead ?? UsualDays(dish, one.FoodId)) < dish.DaysAhead) return null;
        var done = dish.Done.Where(work => work.IsOf(one.Verb.Name, one.FoodId, step?.Written.Text ?? "")).ToList();
        if (done.Count == 0) return one;
        if (one.FoodId is null) return null;
        var left = one.Weight - new Grams(done.Sum(work => work.Weight.Value));
        if (left.Value <= one.Weight.Value * NextToNothing) return null;
        var minutes = one.IsAbout
            ? Preparations.MinutesFor(one.Verb, left)
            : (int)Math.Ceiling(one.Minutes * (left / one.Weight));
        return one with { Weight = left, Minutes = minutes };
    }

    private static int UsualDays(PrepDish dish, string? foodId)
    {
        static bool IsMeat(PrepLine line) => line.Group is FoodGroup.Meat or FoodGroup.Fish;
        bool IsIt(PrepLine line) => foodId is null || string.Equals(line.FoodId, foodId, StringComparison.Ordinal);
        return dish.Lines.Any(line => IsIt(line) && IsMeat(line)) ? DaysCutMeat : DaysCut;
    }

    private bool IsOf(string verb, string? foodId, string step) =>
        string.Equals(Verb, verb, StringComparison.Ordinal)
        && (foodId is null
            ? FoodId is null && string.Equals(Step, step, StringComparison.Ordinal)
            : string.Equals(FoodId, foodId, StringComparison.Ordinal));
}
