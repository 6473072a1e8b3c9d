using System.Collections.Immutable;
using LivelyTern.Core.Aim;
using LivelyTern.Core.Cook;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using LivelyTern.Core.Plan;
using LivelyTern.Core.Plan.Fit;
using LivelyTern.Core.Recipes;

namespace LivelyTern.Core.Tests.Plan;

public sealed class WeekCalendarTests
{
    private static readonly DateOnly Monday = new(2026, 11, 23);
    private static readonly Guid Ada = Guid.Parse("00000000-0000-0000-0000-00000000000a"),
        Bo = Guid.Parse("00000000-0000-0000-0000-00000000000b");

    private static Box Box(int number, string dish, DateOnly cookedOn, bool isRice = false) => new(
        new(number, 0, 0, new byte[8]),
        new Batch(new(number + 100, 0, 0, new byte[8]), dish, new TapeMark("XX", 1), cookedOn,
            new([(isRice
            ? Kitchen.Of("brown rice", new(Energy: 360)) with { Keeping = KeepingKind.Rice } : Kitchen.Of("plain", new(Energy: 100)))
            .Grams(1000)]), new Grams(1000)),
        new Grams(300), null);

    private static PlanItem Laid(Box box, string? slot = null) => new(Guid.NewGuid(), new LaidBox(box.Id)) { Slot = slot };

    private static FittedEater Eater(Guid id, string name, params Slot[] slots) =>
        new(new Eater(id, name, new(Measure.Energy, new Dictionary<Measure, Band>(), null)), EatingWays.Plain with { OwnSlots = slots });

    private static PlanBoard Board(params (Guid Eater, int Day, PlanItem[] Items)[] days) =>
        new(days.ToImmutableDictionary(day => new EaterDay(day.Eater, Monday.AddDays(day.Day)), day => day.Items.ToImmutableList()));

    [Fact]
    public void A_meal_is_one_entry_at_its_slots_time_and_keeps_its_name_when_it_changes()
    {
        var (stew, bake) = (Box(1, "stew", Monday), Box(2, "bake", Monday));
        var ada = Eater(Ada, "Ada", new("noon", new(12, 30), 0.5m, true), new("late", new(21, 0), 0.5m, true));
        var fruit = Kitchen.Of("apple", new(Energy: 52));
        var apple = new PlanItem(Guid.NewGuid(), new PlainFood("1 apple", fruit.Grams(100))) { Slot = "noon" };
        var loose = new PlanItem(Guid.NewGuid(), new PlainFood("1 pear", Kitchen.Of("pear", new(Energy: 57)).Grams(100)));
        var entries = WeekCalendar.Of([ada], Board((Ada, 1, [Laid(stew, "noon"), apple, Laid(bake, "LATE"), loose])),
            Stock.Of([stew, bake]), [], Monday);
        var noon = Assert.Single(entries, entry => entry.At == new TimeOnly(12, 30));
        Assert.Equal(("Ada: stew, 1 apple", Monday.AddDays(1)), (noon.Title, noon.Day));
        Assert.StartsWith("noon, 352 kcal", noon.Text); // 300 of 1,000 g of stew at 100 kcal in 100 g, and 52
        Assert.Equal("Ada: bake", Assert.Single(entries, entry => entry.At == new TimeOnly(21, 0)).Title);
        Assert.Equal("Ada: 1 pear",
            Assert.Single(entries, entry => entry.At is null && entry.Uid.StartsWith("meal-", StringComparison.Ordinal)).Title);

        var quiet = WeekCalendar.Of(
            [ada with { IsQuiet = true }], Board((Ada, 1, [Laid(stew, "noon"), loose])), Stock.Of([stew]), [], Monday);
        var meals = quiet.Where(entry => entry.Uid.StartsWith("meal-", StringComparison.Ordinal)).OrderByDescending(entry => entry.At);
        Assert.Equal(["noon\n· stew", "· 1 pear"], meals.Select(entry => entry.Text));

        var later = WeekCalendar.Of([ada], Board((Ada, 1, [Laid(bake, "noon")])), Stock.Of([stew, bake]), [], Monday);
        Assert.Equal(noon.Uid, Assert.Single(later, entry => entry.At is not null).Uid);
        Assert.Equal(entries.Count, entries.Select(entry => entry.Uid).Distinct().Count());
    }

    [Fact]
    public void What_lies_past_its_fridge_days_is_to_be_thawed_the_day_before_rice_sooner_than_stew()
    {
        var (stew, other, rice) = (Box(1, "stew", Monday), Box(2, "stew", Monday), Box(3, "fried rice", Monday, isRice: true));
        var board = Board((Ada, 3, [Laid(stew)]), (Ada, 4, [Laid(other)]), (Bo, 4, [Laid(rice)]));
        var thaws = WeekCalendar.Of([Eater(Ada, "Ada"), Eater(Bo, "Bo")], board, Stock.Of([stew, other, rice]), [], Monday).Where(entry =>
            entry.Uid.StartsWith("thaw-", StringComparison.Ordinal)).ToList();
        var one = Assert.Single(thaws);
        Assert.Equal((Monday.AddDays(3), "Move to the fridge to thaw: stew, fried rice"), (one.Day, one.Title));
        Assert.Contains("· stew, for Ada on Friday", one.Text);
        Assert.Contains("Never thaw on the counter", one.Text);

        // Rice keeps one day, stew three; what was eaten needs no thawing.
        Assert.Single(WeekCalendar.Of([Eater(Bo, "Bo")], Board((Bo, 2, [Laid(rice)])), Stock.Of([rice]), [], Monday), entry =>
            entry.Uid.StartsWith("thaw-", StringComparison.Ordinal));
        Assert.DoesNotContain(
            WeekCalendar.Of([Eater(Ada, "Ada")], Board((Ada, 4, [Laid(stew) with { EatenAt = DateTimeOffset.UnixEpoch }])),
            Stock.Of([stew]), [], Monday), entry => entry.Uid.StartsWith("thaw-", StringComparison.Ordinal));
    }

    [Fact]
    public void A_prep_day_names_its_batches_once_and_another_eaters_day_is_not_told()
    {
        var (stew, again, bake) = (Box(1, "stew", Monday), Box(2, "stew", Monday), Box(3, "bake", Monday.AddDays(1)));
        var board = Board((Ada, 1, [Laid(stew)]), (Ada, 2, [Laid(again)]), (Bo, 2, [Laid(bake)]));
        var stock = Stock.Of([stew, again, bake]);
        Assert.Equal(["Prep day: stew", "Prep day: bake"],
            WeekCalendar.Of([Eater(Ada, "Ada"), Eater(Bo, "Bo")], board, stock, [], Monday).Where(entry =>
            entry.Uid.StartsWith("prep-", StringComparison.Ordinal)).Select(entry => entry.Title));
        Assert.DoesNotContain(WeekCalendar.Of([Eater(Ada, "Ada")], board, stock, [], Monday), entry =>
            entry.Title.Contains("bake", StringComparison.Ordinal));
    }

    // Cooked on Monday and kept three days: for Friday it is frozen tonight, for Thursday it is not; on no day, Thursday is its last.
    [Fact]
    public void What_is_for_a_later_day_is_frozen_tonight_and_what_is_on_no_day_has_its_last_day_named()
    {
        var (friday, thursday, spare) = (Box(1, "stew", Monday), Box(2, "stew", Monday), Box(3, "bake", Monday));
        var board = Board((Ada, 4, [Laid(friday)]), (Ada, 3, [Laid(thursday)]));
        var entries = WeekCalendar.Of([Eater(Ada, "Ada")], board, Stock.Of([friday, thursday]), [spare], Monday);
        var freeze = Assert.Single(entries, entry => entry.Uid.StartsWith("freeze-", StringComparison.Ordinal));
        Assert.Equal((Monday, "Freeze tonight: 1 box", "· stew, for Ada on Friday"), (freeze.Day, freeze.Title, freeze.Text));
        var last = Assert.Single(entries, entry => entry.Uid.StartsWith("last-day-", StringComparison.Ordinal));
        Assert.Equal((Monday.AddDays(3), "· bake, 1 box"), (last.Day, last.Text));
        var inFreezer = friday with { Life = friday.Life.Put(BoxPlace.Freezer, Monday) };
        Assert.DoesNotContain(
            WeekCalendar.Of([Eater(Ada, "Ada")], board, Stock.Of([inFreezer, thursday]), [], Monday),
            entry => entry.Uid.StartsWith("freeze-", StringComparison.Ordinal));
    }
}
