using LivelyTern.Core.Recipes;
using LivelyTern.Core.Recipes.Steps;

namespace LivelyTern.Core.Tests.Recipes;

/// <summary>What a step asks for, part by part, and what a recipe from elsewhere says of all of them together.</summary>
public class StepPartsTests
{
    private static string Parts(string sentence) => string.Join(
        ", ",
        StepReader.Read([sentence])[0].Way.Parts.Select(part =>
            $"{part.Verb} {(part.IsAbout ? "~" : "")}{part.Minutes}{(part.IsHandsOn ? "h" : "")}"));

    [Theory]
    [InlineData("Soften the onions for 5 minutes, then add the lentils and simmer for 20 minutes.", "fry 5h, add ~1h, simmer 20")]
    [InlineData("Bring to the boil and simmer for 15 minutes.", "bring to the boil ~10, simmer 15")]
    [InlineData("Knead 10 minutes, rest 20 minutes.", "mix 10h, rest 20")]
    [InlineData("Roast 20 min, add sausages, another 25 min turning once", "roast 45, add ~1h")]
    [InlineData("Bake 15 minutes at 220 °C, then 30 minutes at 180 °C.", "bake 15, bake 30")]
    [InlineData("Drain the chickpeas.", "add ~1h")]
    [InlineData("Drain for 30 minutes.", "rest 30")]
    [InlineData("Boil the kettle and soak the bulgur 20 minutes.", "add ~1h, rest 20")]
    [InlineData("Melt the butter.", "warm ~3h")]
    [InlineData("Preheat the oven to 200 °C.", "preheat ~14")]
    [InlineData("Stir in the rest of the flour.", "add ~1h")] // the rest is a thing here
    [InlineData("Simmer until set.", "simmer ~20")]
    [InlineData("Leave to cool.", "cool ~30")]
    [InlineData("Put in the oven at 180 °C until golden.", "bake ~30")] // not the heating of the oven alone
    [InlineData("Put the oven on at 180 °C.", "preheat ~13")]
    [InlineData("Let it rise until doubled, about 1 hour.", "rest 60")]
    [InlineData("Freeze for up to 3 months.", "")]
    [InlineData("The oven rack goes in the middle.", "")]
    [InlineData("Add oil, salt and butter.", "add ~1h")]
    [InlineData("Oil the tin.", "add ~1h")]
    [InlineData("", "")]
    public void Each_verb_has_its_time(string sentence, string parts) => Assert.Equal(parts, Parts(sentence));

    [Theory]
    [InlineData("Bake 15 minutes at 220 °C, then 30 minutes at 180 °C.")]
    [InlineData("Bake at 220 °C for 15 minutes, then at 180 °C for 30 minutes.")]
    public void Each_stretch_in_the_oven_has_its_heat(string sentence)
    {
        var parts = StepReader.Read([sentence])[0].Way.Parts;
        Assert.Equal([(220, 15), (180, 30)], parts.Select(part => (part.Celsius!.Value, part.Minutes)));
    }

    [Theory]
    [InlineData("Fry three at a time, 4 minutes.", 3, null)]
    [InlineData("Bake in two batches, 10 minutes.", null, 2)]
    [InlineData("Fry in batches.", null, 2)]
    [InlineData("Bake 10 minutes.", null, null)]
    public void Loads_are_heard(string sentence, int? atATime, int? loads)
    {
        var reading = StepReader.Read([sentence])[0];
        Assert.Equal((atATime, loads), (reading.AtATime, reading.Loads));
    }

    /// <summary>A quicker way is a way of the whole step: what comes before it and after it belongs to both.</summary>
    [Fact]
    public void Another_way_keeps_what_is_done_before_and_after()
    {
        var reading = StepReader.Read(["Toss with the oil, roast 35 minutes at 200 °C or air-fry 12 minutes at 180 °C."])[0];
        Assert.Equal(["mix", "roast"], reading.Way.Parts.Select(part => part.Verb));
        var other = Assert.Single(reading.OtherWays);
        Assert.Equal(["mix", "air-fry"], other.Parts.Select(part => part.Verb));
        Assert.Equal((12, 180), (other.Unattended, other.Celsius));
    }

    /// <summary>A step of a few words: what the oven is set to, and what goes into it.</summary>
    [Theory]
    [InlineData("Oven 160C", "preheat", 160)]
    [InlineData("Oven on, 180 °C fan.", "preheat", 180)]
    [InlineData("200C", "preheat", 200)]
    [InlineData("Into the oven at 200 °C until golden.", "bake", 200)]
    [InlineData("Oven 160C 25 min", "bake", 160)]
    [InlineData("Drain and leave to steam dry 5 min", "rest", null)]
    [InlineData("Blend w/ butter & cream till smooth", "blend", null)]
    [InlineData("Fry with oil and butter", "fry", null)]
    public void Few_words_say_what_is_done(string sentence, string verb, int? celsius)
    {
        var part = Assert.Single(StepReader.Read([sentence])[0].Way.Parts);
        Assert.Equal((verb, celsius), (part.Verb, part.Celsius));
    }

    /// <summary>Another way is often said aside.</summary>
    [Theory]
    [InlineData("Roast at 200C for 30 minutes (air fryer 18 min at 190)", "roast", 30, "air-fry", 18, 190)]
    [InlineData("Roast 35 mins (or air fry 20 mins), shaking once.", "roast", 35, "air-fry", 20, null)]
    [InlineData("Simmer 40 minutes (pressure cooker: 12 minutes).", "simmer", 40, "pressure-cook", 12, null)]
    [InlineData("Air-fry 12 minutes (oven 25 minutes at 200 °C).", "air-fry", 12, "bake", 25, 200)]
    [InlineData("Slow cook on low 6 hours (4 hours on high).", "slow-cook", 360, "slow-cook", 240, null)]
    [InlineData("Bake 30 minutes (oven at 180 °C, turned after 15 minutes).", "bake", 30, null, 0, null)]
    [InlineData("Fry 10 minutes (about 5 minutes each side).", "fry", 10, null, 0, null)]
    public void Another_way_is_heard_aside(string sentence, string verb, int minutes, string? otherVerb, int otherMinutes, int? celsius)
    {
        var reading = StepReader.Read([sentence])[0];
        var part = Assert.Single(reading.Way.Parts, part => part.Verb == verb);
        Assert.Equal(minutes, part.Minutes);
        if (otherVerb is null)
        {
            Assert.Empty(reading.OtherWays);
            return;
        }

        var other = Assert.Single(Assert.Single(reading.OtherWays).Parts, part => part.Verb == otherVerb);
        Assert.Equal((otherMinutes, celsius), (other.Minutes, other.Celsius));
    }

    [Theory]
    [InlineData("Bake until golden or 20 minutes.")]
    [InlineData("Bake 20 to 25 minutes or until risen.")]
    [InlineData("Use butter or oil and fry 5 minutes.")]
    public void An_or_of_choice_is_no_other_way(string sentence) => Assert.Empty(StepReader.Read([sentence])[0].OtherWays);

    private static (int Hands, int Waits)[] Share(int? hands, int? waits, params string[] steps) =>
        [.. StepToDo.Of(SaidTotals.Share([.. steps.Select(text => new RecipeStep(text))], hands, waits)).Select(step =>
            (step.Way.HandsOn, step.Way.Unattended))];

    [Fact]
    public void Times_of_the_whole_are_shared_by_the_steps_that_say_none()
    {
        // Frying is usually 8 minutes and mixing 4: 24 minutes are 16 and 8.
        Assert.Equal([(16, 0), (8, 0), (0, 40)], Share(24, 40, "Fry the onions.", "Mix.", "Bake 40 minutes."));
        Assert.Equal([(0, 60), (0, 30)], Share(null, 90, "Bake.", "Let it rest."));

        // What is left by those that say their own; nothing where they say more than the whole.
        Assert.Equal([(0, 20), (0, 70)], Share(null, 90, "Simmer 20 minutes.", "Bake."));
        Assert.Equal([(0, 100), (0, 30)], Share(null, 90, "Simmer 100 minutes.", "Bake."));

        // No step has any of the kind: the first takes the hands, the last the waiting.
        Assert.Equal([(15, 0), (0, 0)], Share(15, null, "Whatever.", "Enjoy."));
        Assert.Equal([(0, 0), (0, 15)], Share(null, 15, "Whatever.", "Enjoy."));
    }

    /// <summary>Whatever is said of the whole is what the steps come to, where all of them leave their own unsaid.</summary>
    [SeededProperty(MaxTest = 100)]
    public void No_minute_of_the_whole_is_lost(byte hands, byte waits)
    {
        var shared = Share(hands + 5, waits + 5, "Fry the onions.", "Simmer.", "Mix.", "Bake until golden.", "Let it rest.");
        Assert.Equal((hands + 5, waits + 5), (shared.Sum(step => step.Hands), shared.Sum(step => step.Waits)));
    }

    [Fact]
    public void A_step_said_by_its_fields_alone_is_done_so()
    {
        var step = StepToDo.Of([new("Whatever it takes.", HandsOn: 7, Unattended: 30, Occupies: [Occupies.Oven], TemperatureC: 150)])[
            0].Way;
        Assert.Equal((7, 30, 150, false), (step.HandsOn, step.Unattended, step.Celsius, step.IsAbout));
        Assert.Equal([Occupies.Oven], step.Parts.Single(part => !part.IsHandsOn).Uses);
        Assert.Empty(StepToDo.Of(null));
    }

    [Fact]
    public void Nothing_occupied_is_not_the_same_as_nothing_said()
    {
        Assert.Equal([Occupies.Oven], StepToDo.Of([new("Bake 20 minutes.")])[0].Way.Uses);
        Assert.Empty(StepToDo.Of([new("Bake 20 minutes.", Occupies: [])])[0].Way.Uses);
    }
}
