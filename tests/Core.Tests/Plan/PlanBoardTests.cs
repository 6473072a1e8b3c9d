using System.Collections.Immutable;
using FsCheck;
using FsCheck.Fluent;
using FsCheck.Xunit;
using LivelyTern.Core.Aim;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Plan;

namespace LivelyTern.Core.Tests.Plan;

/// <summary>One thing a user does to a plan, by small numbers, so that the steps meet each other.</summary>
public sealed record Step(int Kind, int Item, int Day, int Place);

public static class Steps
{
    public static Arbitrary<Step> Step() =>
        (from kind in Gen.Choose(0, 9)
         from item in Gen.Choose(0, 11)
         from day in Gen.Choose(0, 3)
         from place in Gen.Choose(-1,
            6)
         select new Step(kind, item, day, place)).ToArbitrary();
}

[Properties(Arbitrary = [typeof(Steps)], MaxTest = 300)]
public class PlanBoardTests
{
    private static readonly Guid[] Ids = [.. Enumerable.Range(1, 12).Select(i => new Guid(i, 0, 0, new byte[8]))];
    private static readonly EaterDay[] Days = [.. Enumerable.Range(0, 4).Select(i =>
        new EaterDay(Ids[i / 2], new DateOnly(2026, 11, 23 + (i % 2))))];

    private static Outcome<PlanChange> Take(PlanBoard board, Step step) => step.Kind switch
    {
        // A new item has an id of its own.
        0 or 5 when board.Find(Ids[step.Item]) is not null => new Problem("there", "", ""),
        0 => board.Lay(new PlanItem(Ids[step.Item], new LaidBox(Ids[step.Item])), Days[step.Day], step.Place),
        1 => board.Move(Ids[step.Item], Days[step.Day], step.Place),
        2 => board.TakeOff(Ids[step.Item]),
        3 => board.Eat(Ids[step.Item], DateTimeOffset.UnixEpoch),
        4 => board.Eat(Ids[step.Item], null),
        5 => board.Lay(new PlanItem(Ids[step.Item], new Portion(Ids[step.Item % 2], new(100 + step.Place))), Days[step.Day], step.Place),
        6 => board.Size(Days[step.Day].EaterId, Ids[step.Item % 2], new(200 + (10 * step.Place))),
        7 => board.Size(Ids[step.Item], new(300 + step.Place)),
        8 => board.Lock(Ids[step.Item], step.Place % 2 == 0),
        _ => board.Amend(Ids[step.Item], new PlainFood("10 g quick oats", Kitchen.Oats.Grams(10))),
    };

    private static string Print(PlanBoard board) => string.Join('\n', board.Days
        .OrderBy(day => day.Key.EaterId).ThenBy(day => day.Key.Day)
        .Select(day =>
            $"{day.Key.EaterId} {day.Key.Day}: " + string.Join(", ",
            day.Value.Select(item => $"{item.Id} {item.BoxId} {item.Portion} {item.Text} {item.EatenAt} {item.IsLocked}"))));

    [SeededProperty]
    public bool Undo_restores_exactly_and_redo_does_it_again(Step[] steps)
    {
        var board = PlanBoard.Empty;
        var boards = new List<PlanBoard> { board };
        var made = new List<PlanChange>();
        foreach (var step in steps)
        {
            var change = Take(board, step);
            if (!change.Succeeded) continue;
            board = board.Apply(change.Value!).Value!;
            made.Add(change.Value!);
            boards.Add(board);
        }

        for (var i = made.Count - 1; i >= 0; i--)
        {
            board = board.Apply(made[i].Inverse).Value!;
            if (Print(board) != Print(boards[i])) return false;
            if (!made[i].Days.TrueForAll(IsWholeAgain)) return false;
        }

        foreach (var change in made) board = board.Apply(change.Inverse.Inverse).Value!;
        return Print(board) == Print(boards[^1]);
    }

    // Of a day's change only the difference is kept: with the day as it lies there it is the same again, with any other it is refused.
    private static bool IsWholeAgain(DayChange day)
    {
        var kept = DayDifference.Of(day);
        bool Same(ImmutableList<PlanItem> one, ImmutableList<PlanItem> other) =>
            one.SequenceEqual(other) && one.Select(item => item.IsFitted).SequenceEqual(other.Select(item => item.IsFitted));
        return kept.On(day.After) is { Succeeded: true, Value: { } again } && Same(again.Before, day.Before) && Same(again.After, day.After)
            && kept.On(day.Before).Succeeded == day.Before.SequenceEqual(day.After)
            && kept.Went.Count <= day.Before.Count && kept.Came.Count <= day.After.Count;
    }

    [Fact]
    public void What_a_step_left_as_it_was_is_not_kept_with_it()
    {
        var items = Enumerable.Range(1, 60).Select(i =>
            new PlanItem(new Guid(i, 0, 0, new byte[8]), new PlainFood($"{i} g quick oats", Kitchen.Oats.Grams(i)))).ToImmutableList();
        var board = new PlanBoard(PlanBoard.Empty.Days.Add(Days[0], items));
        var moved = DayDifference.Of(Assert.Single(board.Move(items[0].Id, Days[0], 40).Value!.Days));
        Assert.Equal((0, 40), (Assert.Single(moved.Went).Place, Assert.Single(moved.Came).Place));
        var eaten = DayDifference.Of(Assert.Single(board.Eat(items[7].Id, DateTimeOffset.UnixEpoch).Value!.Days));
        Assert.Equal((7, 7), (Assert.Single(eaten.Went).Place, Assert.Single(eaten.Came).Place));
        var off = DayDifference.Of(Assert.Single(board.TakeOff(items[59].Id).Value!.Days));
        Assert.True(off.Came.IsEmpty && off.Went.Single().Place == 59);
    }

    /// <summary>A day is known again by all that its things are told apart by, and by nothing else.</summary>
    [SeededProperty]
    public bool Marks_are_equal_where_things_are(int one, int other)
    {
        PlanItem Thing(int of)
        {
            var bits = new System.Collections.Specialized.BitVector32(of);
            var (text, grams) = (bits[4] ? "oats 1" : "oats", bits[8] ? 1.50m : 1.5m + (bits[16] ? 1 : 0));
            Laid what = (of & 3) switch
            {
                0 => new LaidBox(Ids[0], bits[4] ? null : new(grams)),
                1 => new Portion(Ids[bits[4] ? 0 : 1], new(grams)),
                2 when bits[32] => new PlainFood(text, Kitchen.Oats.Grams(grams)),
                2 => new MealOut(text, Kitchen.Oats.Grams(grams), bits[64] ? 1 : 0),
                _ => new Hold(bits[4] ? Measure.Fat : Measure.Energy, grams),
            };
            var (at, slot) = (bits[128] ? DateTimeOffset.UnixEpoch : (DateTimeOffset?)null, bits[256] ? "noon" : null);
            return new(Ids[3], what, at) { Slot = slot, IsLocked = bits[512] };
        }

        DayChange To(PlanItem item) => new(Days[0], [], [item]);
        var (a, b) = (Thing(one), Thing(other));
        return DayDifference.Of(To(a)).On([b]).Succeeded == (a == b) && DayDifference.Of(To(a)).On([Thing(one)]).Succeeded;
    }

    /// <summary>
    /// Laid, taken off, put back, moved and eaten: putting it back once more would take it from the day on which it was eaten.
    /// </summary>
    [Fact]
    public void A_step_done_again_takes_nothing_from_another_day()
    {
        PlanBoard Do(PlanBoard board, Outcome<PlanChange> change) => board.Apply(change.Value!).Value!;
        var apple = new PlanItem(Ids[3], new PlainFood("10 g quick oats", Kitchen.Oats.Grams(10)));
        var laid = Do(PlanBoard.Empty, PlanBoard.Empty.Lay(apple, Days[0], 0));
        var off = laid.TakeOff(apple.Id).Value!;
        var back = Do(laid, off);
        back = Do(back, off.Inverse);
        var moved = Do(back, back.Move(apple.Id, Days[1], 0));
        var eaten = Do(moved, moved.Eat(apple.Id, DateTimeOffset.UnixEpoch));
        Assert.Equal("item-elsewhere", eaten.Apply(off.Inverse).Problems.Single().Code);
    }

    [Fact]
    public void A_meal_out_is_not_changed_into_a_food()
    {
        var meal = new PlanItem(Ids[4], new MealOut("supper", Kitchen.Oats.Grams(100), 0));
        var board = PlanBoard.Empty.Apply(PlanBoard.Empty.Lay(meal, Days[0], 0).Value!).Value!;
        Outcome<Laid> Typed(string text) => TypedAmount.Of(meal.What, null, text, (line, _) => FoodLine.Read(line, Kitchen.Catalogue));
        Assert.Equal("amount-unread", Typed("10 g quick oats").Problems.Single().Code);
        Assert.Equal(new MealOut("supper", Kitchen.Oats.Grams(50), 0), Typed("half").Value);
        Assert.Equal(("supper", 9m), ((MealOut)Typed("9 points").Value!) is var nine ? (nine.Name, nine.Food.Food.PointsPer100g) : default);
    }

    [SeededProperty]
    public bool A_box_lies_on_one_day_at_most_and_what_was_eaten_stays_on_its_day(Step[] steps)
    {
        var board = PlanBoard.Empty;
        foreach (var step in steps)
        {
            var change = Take(board, step);
            if (!change.Succeeded) continue;
            var after = board.Apply(change.Value!).Value!;
            var eaten = board.Days.SelectMany(day => day.Value.Where(item => item.EatenAt is not null).Select(item => (item.Id, day.Key)));
            if (eaten.Any(before => after.Find(before.Id) != before.Key)) return false;
            board = after;
            var boxes = board.Days.Values.SelectMany(items => items).Select(item => item.BoxId).OfType<Guid>().ToList();
            if (board.Days.Values.SelectMany(items => items).Any(item => item is { Portion: not null, EatenAt: not null })) return false;
            if (boxes.Distinct().Count() != boxes.Count || board.Days.Values.Any(items => items.IsEmpty)) return false;
        }

        return true;
    }

    [SeededProperty]
    public bool Portions_of_one_eater_and_batch_sized_together_are_all_of_one_size_and_no_others_change(Step[] steps, ushort grams)
    {
        var board = PlanBoard.Empty;
        foreach (var step in steps.Where(step => step.Kind is 0 or 5 or 1))
        {
            if (Take(board, step) is { Succeeded: true } change) board = board.Apply(change.Value!).Value!;
        }

        var (eater, batch, size) = (Days[0].EaterId, Ids[0], new Grams(1 + (grams % 9000)));
        bool IsSized(EaterDay where, PlanItem item) => where.EaterId == eater && item.Portion?.BatchId == batch;
        var sized = board.Size(eater, batch, size);
        var has = board.Days.Any(day => day.Value.Exists(item => IsSized(day.Key, item)));
        if (!sized.Succeeded) return !has;
        var after = board.Apply(sized.Value!).Value!;
        bool IsRight(EaterDay day, (PlanItem Now, PlanItem Was) pair) =>
            pair.Now == (IsSized(day, pair.Was) ? pair.Was with { What = new Portion(batch, size) } : pair.Was);
        return has && after.Days.All(day => day.Value.Zip(board[day.Key]).All(pair => IsRight(day.Key, pair)))
            && Print(after.Apply(sized.Value!.Inverse).Value!) == Print(board);
    }

    [Fact]
    public void A_change_made_on_a_day_that_moved_on_is_refused()
    {
        var item = new PlanItem(Ids[0], new LaidBox(Ids[0]));
        var lay = PlanBoard.Empty.Lay(item, Days[0], 0).Value!;
        var board = PlanBoard.Empty.Apply(lay).Value!;
        Assert.Equal("plan-moved-on", board.Apply(lay).Problems.Single().Code);
        Assert.Equal("box-taken", board.Lay(item with { Id = Ids[1] }, Days[1], 0).Problems.Single().Code);
    }
}
