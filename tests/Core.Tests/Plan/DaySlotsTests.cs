using FsCheck;
using FsCheck.Fluent;
using FsCheck.Xunit;
using LivelyTern.Core.Aim;
using LivelyTern.Core.Plan;

namespace LivelyTern.Core.Tests.Plan;

/// <summary>Things and the parts of a day, by chance: nothing is lost, what lies stays, boxes spread before they double.</summary>
public sealed class DaySlotsTests
{
    private static readonly Guid Pot = Guid.NewGuid();

    private static PlanItem Item(int number, int kind, string? slot) => kind switch
    {
        0 => new(new(number, 0, 0, new byte[8]), new LaidBox(Guid.NewGuid())) { Slot = slot },
        1 => new(new(number, 0, 0, new byte[8]), new Portion(Pot, new(300))) { Slot = slot },
        _ => new(new(number, 0, 0, new byte[8]), new PlainFood($"food {number}", Kitchen.Oats.Grams(10 + number))) { Slot = slot },
    };

    private static Arbitrary<(Slot[] Slots, PlanItem[] Stays, PlanItem[] Laid)> Drawn => (
        from slots in Gen.Choose(1, 5)
        from takes in Gen.Elements(true, true, false).ArrayOf(slots)
        from shares in Gen.Choose(0, 100 / slots).ArrayOf(slots)
        from stays in Gen.Choose(0, 2).Zip(Gen.Choose(-1, slots - 1)).ListOf()
        from laid in Gen.Choose(0, 2).ListOf()
        select (
            Enumerable.Range(0, slots).Select(i =>
                new Slot($"part {i}", null, shares[i] % 3 == 0 ? null : shares[i] / 100m, takes[i])).ToArray(),
            stays.Take(6).Select((stay, i) => Item(i, stay.Item1, stay.Item2 < 0 ? null : $"part {stay.Item2}")).ToArray(),
            laid.Take(8).Select((kind, i) => Item(100 + i, kind, null)).ToArray())).ToArbitrary();

    private static decimal Kcal(PlanItem item) => item.IsOfBatch ? 300 + item.Id.ToByteArray()[0] : 40 + item.Id.ToByteArray()[0];

    [SeededProperty(MaxTest = 400)]
    public Property What_is_laid_is_all_there_in_its_order_each_in_a_part_of_the_day() => Prop.ForAll(Drawn, drawn =>
    {
        var (slots, stays, laid) = drawn;
        var placed = DaySlots.Place(stays, laid, slots, Kcal).ToList();
        Assert.Equal(laid.Select(item => item.Id), placed.Select(item => item.Id));
        Assert.All(placed, item => Assert.Contains(slots, slot => slot.Name == item.Slot));
        Assert.All(placed.Zip(laid), pair => Assert.Equal(pair.Second, pair.First with { Slot = null }));

        // A box goes where boxes are eaten, if there is such a part; and none has two while another has none.
        var takers = slots.Where(slot => slot.TakesBox).Select(slot => slot.Name).ToList();
        if (takers.Count > 0) Assert.All(placed.Where(item => item.IsOfBatch), item => Assert.Contains(item.Slot!, takers));
        int In(string slot, IEnumerable<PlanItem> items) => items.Count(item => item.IsOfBatch && item.Slot == slot);
        var open = takers.Count > 0 ? takers : [.. slots.Select(slot => slot.Name)];
        if (placed.Any(item => item.IsOfBatch))
        {
            var after = open.Select(slot => In(slot, stays) + In(slot, placed)).ToList();
            Assert.True(after.Max() - after.Min() <= 1 || open.Any(slot => In(slot, stays) == after.Max()));
        }
    });

    [SeededProperty(MaxTest = 200)]
    public Property In_the_order_of_the_day_nothing_is_lost_and_what_has_no_part_comes_last() => Prop.ForAll(Drawn, drawn =>
    {
        var (slots, stays, laid) = drawn;
        var ordered = DaySlots.Order([.. stays, .. laid], slots).ToList();
        Assert.Equal(stays.Concat(laid).Select(item => item.Id).Order(), ordered.Select(item => item.Id).Order());
        int At(PlanItem item) => Array.FindIndex(slots, slot => slot.Name == item.Slot) is >= 0 and var at ? at : slots.Length;
        Assert.Equal(ordered.Select(At).Order(), ordered.Select(At));
        Assert.Equal(DaySlots.Order(ordered, slots), ordered);
    });
}
