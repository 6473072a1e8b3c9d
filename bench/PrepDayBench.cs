using System.Diagnostics;
using System.Globalization;
using LivelyTern.Core.Cook.PrepDay;
using LivelyTern.Core.Cook.Run;
using LivelyTern.Core.Cook.Schedule;
using LivelyTern.Core.Recipes;
using LivelyTern.Core.Recipes.Steps;
using LivelyTern.Solving.PrepDay;

namespace LivelyTern.Bench;

/// <summary>
/// Prep days of 6 and 12 recipes in one kitchen: how soon a first day is there, how near the bound after some seconds, a day laid out anew
/// after a delay; against the list by the longest remaining chain, and against one recipe after another.
/// </summary>
public static class PrepDayBench
{
    private static readonly string[][] Recipes =
    [
        ["Chop the onions and carrots, 10 minutes.", "Fry 8 minutes.", "Add the lentils and stock.", "Simmer 35 minutes.", "Blend 3 minutes.", "Season, 2 minutes."],
        ["Slice the potatoes, 12 minutes.", "Toss with the oil, 3 minutes.", "Roast 45 minutes at 200 °C.", "Lay the fish on top, 4 minutes.", "Bake 12 minutes at 200 °C."],
        ["Soak the bulgur 20 minutes.", "Chop the herbs, 8 minutes.", "Mix 5 minutes.", "Chill 1 hour.", "Stir, 2 minutes."],
        ["Brown the mince, 9 minutes.", "Add tomatoes, 3 minutes.", "Simmer 50 minutes.", "Layer, 12 minutes.", "Bake 40 minutes at 190 °C.", "Rest 10 minutes."],
        ["Whisk the batter, 6 minutes.", "Rest 20 minutes.", "Cook in the waffle iron for 5 minutes.", "Cool 15 minutes."],
        ["Chop everything, 15 minutes.", "Put it in the slow cooker, 3 minutes.", "Cook on low for 5 hours.", "Stir, 2 minutes."],
        ["Knead 10 minutes.", "Let rise 1 hour.", "Shape, 8 minutes.", "Let rise 30 minutes.", "Bake 30 minutes at 220 °C."],
        ["Peel the squash, 12 minutes.", "Roast 40 minutes at 180 °C.", "Mash, 5 minutes."],
        ["Rinse the rice, 2 minutes.", "Simmer 18 minutes.", "Fry the vegetables, 9 minutes.", "Mix 3 minutes.", "Cool 20 minutes."],
        ["Cream the butter, 6 minutes.", "Fold in the flour, 4 minutes.", "Bake 25 minutes at 180 °C.", "Cool 30 minutes.", "Ice, 10 minutes."],
        ["Sear the chicken, 10 minutes.", "Pressure cook for 20 minutes, 10 minutes natural release.", "Shred, 6 minutes."],
        ["Beat the eggs, 4 minutes.", "Soften the spinach, 5 minutes.", "Bake 35 minutes at 180 °C.", "Cut, 3 minutes."],
    ];

    /// <summary>Prints a row for each day.</summary>
    public static void Run()
    {
        Console.WriteLine("prep days (the first row warms up): recipes, tasks | first day ms | end, list, one after another, bound | ratio to list, to one after another | gap to bound | again after a delay ms");
        Row([.. Enumerable.Range(0, 6)], 0.1);
        Row([0, 1, 2, 3, 4, 5], 3);
        Row([6, 7, 8, 9, 1, 3, 0, 4], 3);
        Row([.. Enumerable.Range(0, 12)], 10);
        Row([.. Enumerable.Range(0, 24).Where(i => i % 12 != 5).Select(i => i % 12)], 10);
    }

    private static PrepDish Dish(int i) => new(
        Guid.NewGuid(), $"recipe {i}", StepToDo.Of([.. Recipes[i].Select(text => new RecipeStep(text))]), 1.5m, 6, i == 4 ? 24 : null,
        [new($"food {i}", $"food {i}", new(1800), "", LivelyTern.Core.Foods.FoodGroup.Grains)]);

    private static void Row(int[] recipes, double seconds)
    {
        List<PrepDish> dishes = [.. recipes.Select(Dish)];
        var scheduler = new CpSatPrepDayScheduler();
        LaidDay Lay(ScheduleProblem problem, double within) => scheduler.Lay(problem, new(within), CancellationToken.None);
        var start = Stopwatch.GetTimestamp();
        var tasks = PrepDayTasks.Of(dishes, KitchenEquipment.AtFirst, PrepDayWishes.AtFirst);
        var first = Lay(tasks.Problem, 0);
        var firstIn = Stopwatch.GetElapsedTime(start);
        var best = Lay(tasks.Problem, seconds);
        var oneAfterAnother = dishes.Sum(dish => Lay(PrepDayTasks.Of([dish], KitchenEquipment.AtFirst, PrepDayWishes.AtFirst).Problem, 0.5).End);

        // A quarter of an hour late after an hour: what is done is done, what goes on takes longer, all else is laid out anew, in the order it
        // had and in 24 others, as after every word of a cook.
        var begun = tasks.Tasks.Zip(tasks.Problem.Tasks, best.Tasks).Where(one => one.Third.Start < 60).Select(one => new BegunTask(
            one.First, one.First.Ways[one.Third.Mode], one.Second.Modes[one.Third.Mode], one.Third.Start,
            one.Third.End <= 60 ? one.Third.End : null)).ToList();
        var day = new DayToCook(dishes, KitchenEquipment.AtFirst, PrepDayWishes.AtFirst, OwnTimes.None);
        List<string> order = [.. best.Tasks.OrderBy(place => place.Start).Select(place => place.Id)];
        start = Stopwatch.GetTimestamp();
        _ = RestOfRun.Of(day, new(begun, [], 75), order, problem => scheduler.Lay(problem, new(0.4, 0), CancellationToken.None));
        var again = Stopwatch.GetElapsedTime(start);
        Console.WriteLine(string.Create(CultureInfo.InvariantCulture,
            $"{recipes.Length}, {tasks.Tasks.Count} | {firstIn.TotalMilliseconds:0} | {best.End}, {first.End}, {oneAfterAnother}, {best.Bound} | {(double)best.End / first.End:0.000}, {(double)best.End / oneAfterAnother:0.000} | {100.0 * (best.End - best.Bound) / best.Bound:0.0} %{(best.IsProven ? " proven" : "")} | {again.TotalMilliseconds:0}"));
    }
}
