using LivelyTern.Core.Cook;
using LivelyTern.Core.Eat;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Keep;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using LivelyTern.Core.Plan;
using LivelyTern.Core.Recipes;

namespace LivelyTern.Core.Tests.Eat;

/// <summary>What lies on a day was eaten, but not just so: no gram is lost and none is eaten twice.</summary>
public sealed class OtherThanPlannedTests
{
    private static readonly DateTimeOffset At = new(2026, 11, 25, 12, 30, 0, TimeSpan.Zero);
    private static readonly EaterDay Ada = new(Id(1), new(2026, 11, 25)), Ben = Ada with { EaterId = Id(2) };
    private static readonly Batch Dal = new(
        Id(10), "Red lentil dal", new TapeMark("RL", 1), Ada.Day, new([Kitchen.Lentils.Grams(300)]), new Grams(1200));
    private static readonly Box First = new(Id(11), Dal, new(320), null), Second = new(Id(12), Dal, new(300), null);
    private static readonly PlanItem Boxed = new(Id(21), new LaidBox(First.Id)) { Slot = "noon" };

    private static Guid Id(int n) => new(n, 0, 0, new byte[8]);

    private static (PlanBoard Board, OtherThanPlanned Day) Laid(PlanItem item, params Box[] shelf)
    {
        var board = PlanBoard.Empty.Apply(PlanBoard.Empty.Lay(item, Ada, 0).Value!).Value!;
        var next = 100;
        return (board, new(board, Stock.Of([First, Second]), shelf, (text, _) => FoodLine.Read(text, Kitchen.Catalogue), () => Id(next++)));
    }

    private static string After(PlanBoard board, Outcome<PlanChange> change)
    {
        if (change.Value is not { } made) return change.Problems[0].Code;
        var days = board.Apply(made).Value!;
        string Show(PlanItem item) => item.What switch
        {
            LaidBox box => $"{box.BoxId.ToString()[7]} {box.Part?.Value.ToString("0.###", null) ?? "all"}",
            PlainFood food => food.Text,
            MealOut meal => FormattableString.Invariant($"{meal.Food.Food.Per100g.Energy * meal.Food.Weight.Value / 100:0} kcal"),
            _ => "?",
        } + (item.EatenAt is null ? "" : " eaten");
        return string.Join(" | ", new[] { Ada, Ben }.Select(day => string.Join(", ", days[day].Select(Show))));
    }

    [Theory]
    [InlineData("0.5", "b 160 eaten | ")]
    [InlineData("1", "b all eaten | ")]
    [InlineData("1.5", "b all eaten, c 160 eaten | ")]
    [InlineData("1.9375", "b all eaten, c all eaten | ")]
    [InlineData("2", "dish-short")]
    [InlineData("0", "times-absurd")]
    [InlineData("11", "times-absurd")]
    public void Of_a_box_more_than_is_in_it_comes_out_of_another_on_the_shelf(string times, string after)
    {
        var (board, day) = Laid(Boxed, Second);
        Assert.Equal(after, After(board, day.EatenTimes(Boxed.Id, decimal.Parse(times, null), At)));
    }

    [Theory]
    [InlineData("a serving and a half", "b all eaten, c 160 eaten | ")]
    [InlineData("1 1/2 servings", "b all eaten, c 160 eaten | ")]
    [InlineData("half", "b 160 eaten | ")]
    [InlineData("352 g", "b all eaten, c 32 eaten | ")]
    [InlineData("200", "b 200 eaten | ")]
    [InlineData("much", "amount-unread")]
    [InlineData("700 g", "dish-short")]
    public void An_amount_is_typed_as_people_say_it(string typed, string after)
    {
        var (board, day) = Laid(Boxed, Second);
        Assert.Equal(after, After(board, day.EatenTyped(Boxed.Id, typed, At)));
    }

    [Fact]
    public void Of_the_same_dish_what_is_thawed_comes_before_what_is_frozen()
    {
        var frozen = Second with { Life = Second.Life.Put(BoxPlace.Freezer, Ada.Day) };
        var thawed = new Box(Id(13), Dal with { Id = Id(9), CookedOn = Ada.Day.AddDays(-1) }, new(300), null);
        var (board, day) = Laid(Boxed, frozen, thawed);
        Assert.Equal("b all eaten, d 160 eaten | ", After(board, day.EatenTimes(Boxed.Id, 1.5m, At)));
    }

    [Fact]
    public void Plain_foods_and_meals_out_are_eaten_by_shares_and_by_new_amounts()
    {
        // Common practice, no published source: of 30 g, "a serving and a half" is 45 g.
        var oats = new PlanItem(Id(22), new PlainFood("30 g quick oats", Kitchen.Oats.Grams(30)));
        var (board, day) = Laid(oats);
        Assert.Equal("45 g quick oats eaten | ", After(board, day.EatenTyped(oats.Id, "a serving and a half", At)));
        Assert.Equal("40 g quick oats eaten | ", After(board, day.EatenTyped(oats.Id, "40", At)));
        Assert.Equal("15 g quick oats eaten | 15 g quick oats eaten", After(board, day.Shared(oats.Id, 0.5m, Ben.EaterId, At)));

        var out_ = new PlanItem(Id(23), SaidMeal.Read("canteen 600 kcal")!.Value.Value!);
        (board, day) = Laid(out_);
        Assert.Equal("900 kcal eaten | ", After(board, day.EatenTimes(out_.Id, 1.5m, At)));
        Assert.Equal("700 kcal eaten | ", After(board, day.EatenTyped(out_.Id, "700 kcal", At)));
        Assert.Equal("150 kcal eaten | 450 kcal eaten", After(board, day.Shared(out_.Id, 0.25m, Ben.EaterId, At)));
    }

    [Fact]
    public void What_is_not_packed_or_only_kept_free_is_not_eaten_in_parts_either()
    {
        var portion = new PlanItem(Id(24), new Portion(Dal.Id, new(300)));
        var hold = new PlanItem(Id(25), new Hold(Core.Aim.Measure.Fat, 30));
        foreach (var (item, code) in new[] { (portion, "not-packed"), (hold, "hold-eaten") })
        {
            var board = PlanBoard.Empty.Apply(PlanBoard.Empty.Lay(item, Ada, 0).Value!).Value!;
            var stock = new Stock(new Dictionary<Guid, Box>(), new Dictionary<Guid, Batch> { [Dal.Id] = Dal });
            var day = new OtherThanPlanned(board, stock, [], (text, _) => FoodLine.Read(text, Kitchen.Catalogue), Guid.NewGuid);
            Assert.Equal(code, After(board, day.EatenTimes(item.Id, 0.5m, At)));
            Assert.Equal(code, After(board, day.EatenTyped(item.Id, "half", At)));
        }

        var (laid, other) = Laid(Boxed);
        Assert.Equal("share-alone", After(laid, other.Shared(Boxed.Id, 0.5m, Ada.EaterId, At)));
        Assert.Equal("share-absurd", After(laid, other.Shared(Boxed.Id, 1, Ben.EaterId, At)));
        Assert.Equal("item-gone", After(laid, other.EatenTimes(Id(99), 1, At)));
    }

    [SeededProperty]
    public bool However_a_box_is_shared_or_eaten_its_grams_are_all_there(ushort milligrams, byte share, bool isShared)
    {
        var box = new Box(First.Id, Dal, new(50 + (milligrams / 1000m)), null);
        var board = PlanBoard.Empty.Apply(PlanBoard.Empty.Lay(Boxed, Ada, 0).Value!).Value!;
        var day = new OtherThanPlanned(
            board, Stock.Of([box]), [Second], (text, _) => FoodLine.Read(text, Kitchen.Catalogue), Guid.NewGuid);
        var own = (share + 1) / 257m;
        var change = isShared ? day.Shared(Boxed.Id, own, Ben.EaterId, At) : day.EatenTimes(Boxed.Id, own * 2, At);
        var items = board.Apply(change.Value!).Value!.Days.SelectMany(one => one.Value).ToList();
        decimal Eaten(Box of) => items.Where(item => item.BoxId == of.Id).Sum(item => item.PartOfBox?.Value ?? of.Weight.Value);
        var wanted = isShared ? box.Weight : (box.Weight * (own * 2)).ToMilligram();
        return items.TrueForAll(item => item.EatenAt == At && item.PartOfBox is null or { Value: > 0 })
            && Eaten(box) <= box.Weight.Value && Eaten(box) + Eaten(Second) == wanted.Value;
    }
}
