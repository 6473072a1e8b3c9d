using FsCheck.Xunit;
using LivelyTern.Core.Foods;

namespace LivelyTern.Core.Tests.Foods;

public class SearchTests
{
    private static readonly Food Chickpeas = Kitchen.Of("chickpeas, canned, drained", new()),
        Chicken = Kitchen.Of("chicken breast, raw", new()), Thigh = Kitchen.Of("chicken thigh, raw", new());
    private static readonly Food Milk = Kitchen.Of("whole milk", new()), Oat = Kitchen.Of("oat milk", new()),
        Own = Kitchen.Of("island oat milk", new()) with { IsOwn = true };
    private static readonly FoodCatalogue Foods = new([Chickpeas, Chicken, Thigh, Milk, Oat, Own, Kitchen.Lentils]);

    [Theory]
    [InlineData("chikpeas", "chickpeas, canned, drained")] // a letter missing
    [InlineData("chickpeees", "chickpeas, canned, drained")] // a letter wrong and one too many
    [InlineData("lentlis", "red lentils, dry")] // two swapped
    [InlineData("lentils red", "red lentils, dry")] // any order
    [InlineData("brest chiken", "chicken breast, raw")]
    [InlineData("milk whole", "whole milk")]
    [InlineData("chickp", "chickpeas, canned, drained")] // as typed so far
    public void A_search_forgives_slips_and_order(string typed, string found) => Assert.Equal(found, Foods.Suggest(typed, 5)[0].Name);

    [Theory]
    [InlineData("xyzzy")]
    [InlineData("mil oat chicken")]
    public void What_is_nowhere_finds_nothing(string typed) => Assert.Empty(Foods.Suggest(typed, 5));

    [Fact]
    public void Own_foods_and_those_used_last_come_first()
    {
        Assert.Equal("island oat milk", Foods.Suggest("milk", 5)[0].Name);
        var used = new FoodCatalogue(Foods.All, recent: [Milk.Id]);
        Assert.Equal(["whole milk", "island oat milk", "oat milk"], used.Suggest("milk", 5).Select(food => food.Name));
    }

    [Fact]
    public void What_was_chosen_for_some_words_is_meant_by_them_from_then_on()
    {
        Assert.Equal([Milk], Foods.Meaning(SaidFood.Of("milk")).Best); // whole milk is milk, oat milk is of oats
        var chosen = new FoodCatalogue(Foods.All,
            new Dictionary<string, string> { [FoodWords.Key("milk")] = Oat.Id, [FoodWords.Key("gone")] = "no-such-food" });
        Assert.Equal([Oat], chosen.Meaning(SaidFood.Of("milk")).Best);
        Assert.Equal("oat milk", FoodLine.Read("200 g milk, cold", chosen).Ingredient!.Food.Name);
        Assert.Empty(chosen.Meaning(SaidFood.Of("gone")).Best);
    }

    [Fact]
    public void A_food_put_away_is_found_by_its_id_only()
    {
        var foods = new FoodCatalogue(new FoodIndex([Milk], [Oat]));
        Assert.Equal((Oat, 0, 1), (foods.Find(Oat.Id), foods.Suggest("oat", 5).Count, foods.All.Count));
        Assert.Empty(foods.Meaning(SaidFood.Of("oat milk")).Best);
    }

    // One letter changed, dropped, doubled or swapped with the next, anywhere in a word of five letters or more.
    [SeededProperty]
    public bool One_slip_in_a_long_word_is_always_forgiven(byte place, byte kind, byte letter)
    {
        string[] words = ["onion", "chickpea", "buckwheat"];
        var foods = new FoodCatalogue(words.Select(name => Kitchen.Of(name, new())));
        foreach (var word in words)
        {
            var at = place % word.Length;
            var other = (char)('a' + (letter % 26));
            var typed = (kind % 4) switch
            {
                0 => word[..at] + other + word[(at + 1)..],
                1 => word.Remove(at, 1),
                2 => word.Insert(at, other.ToString()),
                _ => at + 1 < word.Length ? word[..at] + word[at + 1] + word[at] + word[(at + 2)..] : word,
            };
            if (Slips.Between(typed, word) is not <= 1 || Slips.To(typed, word) is null) return false;
            if (!foods.Suggest(typed, 1).Any(food => food.Name == word)) return false;
        }

        return true;
    }

    [Theory]
    [InlineData("rie", "rice", false)] // three letters are too few to guess with
    [InlineData("rise", "rice", true)]
    [InlineData("bean", "bread", false)]
    [InlineData("buckweat", "buckwheat", true)]
    [InlineData("bukweat", "buckwheat", false)] // seven letters forgive one
    public void Short_words_forgive_less(string typed, string word, bool mayMean) =>
        Assert.Equal(mayMean, Slips.To(typed, word) is not null);
}
