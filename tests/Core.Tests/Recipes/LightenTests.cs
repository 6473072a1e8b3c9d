using FsCheck.Xunit;
using LivelyTern.Core.Aim;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Recipes;

namespace LivelyTern.Core.Tests.Recipes;

public class LightenTests
{
    private static readonly Food Cream = Kitchen.Of("double cream",
        new(Energy: 340, Protein: 3, Fat: 36)) with
    { Use = "cream", Allergens = [Allergen.Milk] };
    private static readonly Food Light = Kitchen.Of("light cream",
        new(Energy: 120, Protein: 3, Fat: 10)) with
    { Use = "cream", Allergens = [Allergen.Milk] };
    private static readonly Food Soya = Kitchen.Of("soya cream",
        new(Energy: 150, Protein: 3, Fat: 14)) with
    { Use = "cream", Allergens = [Allergen.Soy] };
    private static readonly Food Fish = Kitchen.Of("fish", new(Energy: 90, Protein: 20, Fat: 1));
    private static readonly FoodCatalogue Foods = new([Cream, Light, Soya, Fish]);

    private static readonly Recipe Pie = new RecipeBook(Foods, new Dictionary<Guid, WrittenRecipe>())
        .Read(new WrittenRecipe("Fish pie", [new("600 g fish"), new("200 g double cream, whipped")], new(4)));

    private static IReadOnlyList<LightenIdea> Ideas(decimal less, decimal keep, params Allergen[] excluded) =>
        Lighten.Ideas(Pie, new(less, keep, excluded), Foods.All).Value!;

    [Fact]
    public void The_swap_that_reaches_the_goal_and_gives_nothing_up_comes_first()
    {
        // A portion has 50 g of cream: 170 kcal; the light one has 60. 110 kcal off, protein unchanged.
        var best = Ideas(60, 25)[0];
        Assert.Equal((LightenKind.Swap, "200 g soya cream, whipped", -95m, 0m, true),
            (best.Steps[0].Kind, best.Steps[0].Text, best.Change, best.Protein, best.ReachesGoal));
        Assert.Equal("light-cream", Ideas(100, 25)[0].Steps.Single().FoodId);
        Assert.Contains("150 instead of 340 kcal in 100 g", best.Steps[0].Reason);
    }

    [Fact]
    public void It_is_lightened_in_any_measure_and_half_a_point_is_no_point()
    {
        // A portion of 305 kcal is 6 points at 50 kcal a point: a point less is 5, so at most 274 kcal.
        IReadOnlyList<LightenIdea> In(Measure measure, decimal less, PointsRule? rule = null) =>
            Lighten.Ideas(Pie, new(less, 0, null, measure, rule), Foods.All).Value!;
        var point = In(Measure.Points, 1, PointsRule.Starting);
        Assert.All(point.Where(idea => idea.ReachesGoal), idea =>
            Assert.True(idea.Change <= -1 && idea.Portion.Totals[Nutrient.Energy].Known < 275));
        Assert.All(point, idea => Assert.Equal(Math.Round(idea.Change), idea.Change));
        Assert.Contains("2.4 instead of 6.8 points in 100 g",
            point.SelectMany(idea => idea.Steps).First(step => step.FoodId == "light-cream").Reason);
        Assert.Equal("light-cream", In(Measure.Fat, 12)[0].Steps.Single().FoodId);
        Assert.Equal("goal-points", Lighten.Ideas(Pie, new(1, 0, null, Measure.Points), Foods.All).Problems.Single().Code);
    }

    [Fact]
    public void What_is_excluded_is_never_suggested() =>
        Assert.DoesNotContain(Ideas(60, 25, Allergen.Soy).SelectMany(idea => idea.Steps), step => step.FoodId == "soya-cream");

    [Fact]
    public void Reductions_that_cost_the_protein_do_not_reach_the_goal()
    {
        var ideas = Ideas(60, 30);
        Assert.All(ideas.Where(idea => idea.ReachesGoal), idea =>
            Assert.True(idea.Portion.Totals[Nutrient.Protein].Known >= 30 && idea.Change <= -60));
        Assert.True(ideas.TakeWhile(idea => idea.ReachesGoal).Count() == ideas.Count(idea => idea.ReachesGoal),
            "those that reach it stand first");
        Assert.DoesNotContain(ideas.Where(idea => idea.ReachesGoal), idea => idea.Steps.Any(step => step.Line == 0));
    }

    [Fact]
    public void Two_lines_together_where_one_is_not_enough()
    {
        var pair = Ideas(200, 0).First(idea => idea.Steps.Count == 2);
        Assert.True(pair.ReachesGoal);
        Assert.Equal([0, 1], pair.Steps.Select(step => step.Line).Order());
    }

    [SeededProperty]
    public bool Every_idea_holds_when_it_is_done_by_hand(byte less, byte keep)
    {
        foreach (var idea in Ideas(less + 1, keep % 40))
        {
            var lines = Pie.Lines.Select(line => line.Written).ToList();
            foreach (var step in idea.Steps) lines[step.Line] = new WrittenLine(step.Text, step.FoodId);
            var done = new RecipeBook(Foods, new Dictionary<Guid, WrittenRecipe>())
                .Read(new WrittenRecipe("", [.. lines.Where(line => line.Text.Length > 0)], new(4))).Portion.Totals;
            if (Math.Abs(done[Nutrient.Energy].Known - idea.Portion.Totals[Nutrient.Energy].Known) > 0.001m) return false;
            if (Math.Abs(done[Nutrient.Energy].Known - Pie.Portion.Totals[Nutrient.Energy].Known - idea.Change) > 0.001m) return false;
            if (idea.ReachesGoal && (idea.Change > -(less + 1) || done[Nutrient.Protein].Known < keep % 40)) return false;
        }

        return true;
    }

    [Theory]
    [InlineData(0, 0, "goal-none")]
    [InlineData(9999, 0, "goal-none")]
    [InlineData(50, -1, "goal-protein")]
    public void A_goal_that_cannot_be_is_named(decimal less, decimal keep, string code) =>
        Assert.Equal(code, Lighten.Ideas(Pie, new(less, keep), Foods.All).Problems.Single().Code);
}
