using LivelyTern.Core.Cook.PrepDay;
using LivelyTern.Core.Cook.Run;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Keep;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Recipes;
using LivelyTern.Core.Recipes.Steps;

namespace LivelyTern.Core.Tests.Cook;

/// <summary>What can hurt somebody is said at the step it belongs to, and at no other.</summary>
public sealed class StepCautionsTests
{
    private static string Cautions(string verb, string[] steps, params (string Food, FoodGroup Group)[] lines)
    {
        var dish = new PrepDish(
            Guid.NewGuid(), "dish", StepToDo.Of([.. steps.Select(text => new RecipeStep(text))]), 1, 4, null,
            [.. lines.Select((line, i) => new PrepLine(line.Food, line.Food, new(500), "", line.Group) { Position = i })]);
        var tasks = PrepDayTasks.Of([dish], KitchenEquipment.AtFirst, PrepDayWishes.AtFirst).Tasks;
        return string.Join(" ", StepCautions.Of(tasks.Single(task => task.Verb == verb), [dish]));
    }

    [Theory]
    [InlineData("bake", "Chop the chicken.|Bake 30 minutes at 180 °C.", "chicken breast, raw", FoodGroup.Meat, "done-inside")]
    [InlineData("chop", "Chop the chicken.|Bake 30 minutes at 180 °C.", "chicken breast, raw", FoodGroup.Meat, "raw-poultry")]
    [InlineData("chop", "Chop the chicken.|Bake 30 minutes at 180 °C.", "chicken breast, roasted", FoodGroup.Meat, "")]
    [InlineData("chop", "Chop the beef.|Bake 30 minutes at 180 °C.", "beef, raw", FoodGroup.Meat, "")]
    [InlineData("bake", "Chop the carrots.|Bake 30 minutes at 180 °C.", "carrot", FoodGroup.Vegetables, "")]
    [InlineData("bake", "Fill the silicone mould and bake it 30 minutes at 180 °C.", "rolled oats", FoodGroup.Grains, "silicone")]
    [InlineData("simmer", "Simmer 60 minutes.", "kidney beans, dry", FoodGroup.Pulses, "kidney-beans")]
    [InlineData("simmer", "Simmer 60 minutes.", "kidney beans, canned", FoodGroup.Pulses, "")]
    [InlineData("simmer", "Simmer 60 minutes.", "white beans, dry", FoodGroup.Pulses, "")]
    [InlineData("get out", "Simmer 60 minutes.", "kidney beans, dry", FoodGroup.Pulses, "")]
    public void A_caution_stands_at_its_step(string verb, string steps, string food, FoodGroup group, string cautions) =>
        Assert.Equal(cautions, Cautions(verb, steps.Split('|'), (food, group)));

    [Fact]
    public void Under_pressure_meat_has_both_of_its_cautions_and_every_one_has_its_words_and_source()
    {
        var steps = new[] { "Cook in the pressure cooker for 20 minutes." };
        var verb = PrepDayTasks.Of(
            [new(Guid.NewGuid(), "dish", StepToDo.Of([new RecipeStep(steps[0])]), 1, 4, null, [])],
            KitchenEquipment.AtFirst, PrepDayWishes.AtFirst).Tasks.First(task => task.Kind == PrepKind.Step).Verb;
        Assert.Equal("done-inside pressure", Cautions(verb, steps, ("beef, raw", FoodGroup.Meat)));
        Assert.All(StepCautions.All, code => Assert.NotEmpty(Caution.All.Single(one => one.Code == code).Source));
    }

    // USDA FSIS safe minimum internal temperatures: poultry 165 °F, mince and egg dishes 160 °F, whole meat and fish 145 °F.
    [Fact]
    public void Doneness_is_the_published_one()
    {
        var text = Caution.All.Single(one => one.Code == StepCautions.DoneInside).Text;
        foreach (var (celsius, fahrenheit) in new[] { (74, 165), (71, 160), (63, 145) })
        {
            Assert.Contains($"{celsius} °C ({fahrenheit} °F)", text);
            Assert.Equal(celsius, Math.Round((fahrenheit - 32) / 1.8));
        }
    }
}
