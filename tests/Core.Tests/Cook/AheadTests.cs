using LivelyTern.Core.Cook.PrepDay;
using LivelyTern.Core.Cook.Schedule;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Recipes;
using LivelyTern.Core.Recipes.Steps;

namespace LivelyTern.Core.Tests.Cook;

/// <summary>What of a dish of a later day is washed, chopped and boiled before, and what is then left for its own.</summary>
public class AheadTests
{
    private static PrepDish Dish(
        string name, int daysAhead, RecipeStep[] steps, params (string Food, decimal Grams, FoodGroup Group)[] lines) =>
        new(
            Guid.NewGuid(), name, StepToDo.Of(steps), 1, 4, null,
            [.. lines.Select(line => new PrepLine(line.Food, line.Food, new(line.Grams), "", line.Group))])
        {
            DaysAhead = daysAhead,
        };

    private static PrepDish Stew(int daysAhead = 0) => Dish(
        "stew", daysAhead,
        [new("Chop the onions and dice the beef."), new("Boil the barley for 30 minutes (up to 2 days ahead)."), new("Simmer 40 minutes.")],
        ("onion", 300, FoodGroup.Vegetables), ("beef", 500, FoodGroup.Meat), ("barley", 200, FoodGroup.Grains));

    private static PrepDayTasks TasksOf(params PrepDish[] dishes) =>
        PrepDayTasks.Of(dishes, KitchenEquipment.AtFirst, PrepDayWishes.AtFirst);

    private static IEnumerable<string> WorkOf(PrepDish dish, int days) =>
        AheadWork.Of(dish, days).Select(work =>
            work.Verb == AheadWork.WholeStep ? work.What[..4] : $"{work.Verb} {work.Weight.Value} {work.What}");

    // Cut vegetables three days before, meat one: common practice, no published source.
    [Theory]
    [InlineData(1, "chop 300 onion", "chop 500 beef", "Boil")]
    [InlineData(2, "chop 300 onion", "Boil")]
    [InlineData(3, "chop 300 onion")]
    [InlineData(4)]
    public void What_can_be_done_ahead_depends_on_how_long_it_keeps(int days, params string[] work) =>
        Assert.Equal(work.Order(), WorkOf(Stew(), days).Order());

    [Fact]
    public void The_cook_says_how_long_a_step_may_be_done_ahead()
    {
        var dish = Dish(
            "salad", 0, [new("Chop the onions.", DaysAhead: 0), new("Whisk the dressing.", DaysAhead: 5)],
            ("onion", 100, FoodGroup.Vegetables));
        Assert.Empty(WorkOf(dish with { Steps = [dish.Steps[0]] }, 1));
        Assert.Equal(["Whis"], WorkOf(dish, 5));
    }

    [Theory]
    [InlineData("Boil the rice for 12 minutes, up to two days ahead.", 2, 12)]
    [InlineData("Boil the rice for 12 minutes, 3 days in advance.", 3, 12)]
    [InlineData("The day before, boil the rice for 12 minutes.", 1, 12)]
    [InlineData("Soak the beans overnight.", null, 480)]
    [InlineData("Rest it a day, then slice.", null, null)]
    public void A_sentence_may_say_it(string sentence, int? days, int? unattended)
    {
        var step = StepToDo.Of([new(sentence)])[0];
        Assert.Equal(days, step.DaysAhead);
        if (unattended is not null) Assert.Equal(unattended, step.Way.Unattended);
    }

    [Fact]
    public void On_the_prep_day_it_is_chopped_in_one_go_with_the_others_and_put_away()
    {
        var soup = Dish("soup", 0, [new("Chop the onions."), new("Simmer 20 minutes.")], ("onion", 200, FoodGroup.Vegetables));
        var stew = Stew(daysAhead: 2);
        var tasks = TasksOf(soup, stew);
        var chop = tasks.Tasks.Single(task => task.Kind == PrepKind.Prepare);
        Assert.Equal([(soup.Id, 200m), (stew.Id, 300m)], chop.Amounts.Select(amount => (amount.Dish, amount.Grams)));
        var own = tasks.Tasks.Where(task => task.Dishes is [var dish] && dish == stew.Id).ToList();
        Assert.Equal([PrepKind.Step, PrepKind.Cool, PrepKind.PutAway], own.Select(task => task.Kind));
        Assert.Equal("Boil the barley for 30 minutes (up to 2 days ahead).", own[0].Text);
        Assert.Contains(tasks.Problem.Tasks.Single(task => task.Id.EndsWith(".away", StringComparison.Ordinal)).After,
            bond => bond.Id.EndsWith(".cool", StringComparison.Ordinal));
    }

    [Fact]
    public void On_its_own_day_only_what_is_left_is_done()
    {
        var stew = Stew() with { Done = AheadWork.Of(Stew(), 2) };
        var tasks = TasksOf(stew).Tasks;
        var chop = tasks.Single(task => task.Kind == PrepKind.Prepare);
        Assert.Equal([("beef", 500m)], chop.Amounts.Select(amount => (amount.Food, amount.Grams)));
        Assert.Equal(["Simmer 40 minutes."], tasks.Where(task => task.Kind == PrepKind.Step).Select(task => task.Text));

        // It is made for more after all: the onions that are missing are chopped on the day.
        var more = stew with { Lines = [.. stew.Lines.Select(line => line with { Weight = line.Weight * 1.5m })] };
        Assert.Equal([("onion", 150m), ("beef", 750m)],
            TasksOf(more).Tasks.Single(task => task.Kind == PrepKind.Prepare).Amounts.Select(amount => (amount.Food, amount.Grams)));
        Assert.Empty(WorkOf(stew, 2));
    }
}
