using LivelyTern.Core.Cook.Schedule;
using LivelyTern.Core.Recipes;

namespace LivelyTern.Core.Cook.PrepDay;

/// <summary>What would help a day that is late, or takes longer than its cooks have.</summary>
public enum WayOutKind
{
    /// <summary>Begin so many minutes sooner.</summary>
    BeginSooner,

    /// <summary>One more cook for the whole day.</summary>
    AnotherCook,

    /// <summary>One more of a machine.</summary>
    AnotherMachine,

    /// <summary>A dish less.</summary>
    LeaveOut,
}

/// <summary>Something that would help, tried.</summary>
/// <param name="Kind">What.</param>
/// <param name="Minutes">How many minutes sooner; 0 where that is not the matter.</param>
/// <param name="Machine">One more of which machine.</param>
/// <param name="Dish">Which dish less.</param>
/// <param name="Late">Minutes it would still be late.</param>
/// <param name="End">The minute the day would end, from when it begins now.</param>
public sealed record WayOut(WayOutKind Kind, int Minutes, Occupies? Machine, Guid? Dish, int Late, int End);

/// <summary>A prep day laid out, and what stands in its way.</summary>
/// <param name="Tasks">What is to be done.</param>
/// <param name="Day">When.</param>
/// <param name="Chain">The chain of tasks that sets the end; where the day is late, that of the task that is late most.</param>
/// <param name="Overtime">Minutes that the cook who leaves last would have to stay longer; 0 where their hours are kept.</param>
/// <param name="WaysOut">What would help, what helps most first; empty where nothing need.</param>
public sealed record PrepDayPlan(
    PrepDayTasks Tasks, LaidDay Day, IReadOnlyList<ChainLink> Chain, int Overtime, IReadOnlyList<WayOut> WaysOut)
{
    private const int MostWaysOut = 4, RoundedTo = 5, MostAttempts = 6;

    /// <summary>Lays out a day.</summary>
    /// <param name="dishes">What is cooked.</param>
    /// <param name="kitchen">With what.</param>
    /// <param name="wishes">By whom, when.</param>
    /// <param name="lay">Lays out the day.</param>
    /// <param name="atOnce">Lays out what would help, each at once.</param>
    /// <param name="times">How long it took these cooks before; null for the usual times.</param>
    public static PrepDayPlan Of(
        IReadOnlyList<PrepDish> dishes, KitchenEquipment kitchen, PrepDayWishes wishes, Func<ScheduleProblem, LaidDay> lay,
        Func<ScheduleProblem, LaidDay> atOnce, OwnTimes? times = null)
    {
        ArgumentNullException.ThrowIfNull(dishes);
        ArgumentNullException.ThrowIfNull(wishes);
        ArgumentNullException.ThrowIfNull(lay);
        ArgumentNullException.ThrowIfNull(atOnce);
        List<PrepDish> cooked = [.. dishes.Where(dish => wishes.LeftOut?.Contains(dish.Id) != true)];
        var tasks = PrepDayTasks.Of(cooked, kitchen, wishes, times);
        var day = lay(tasks.Problem);
        var overtime = 0;
        if (day.Tasks.Count < tasks.Tasks.Count)
        {
            // The hours of the cooks are too short for it, whatever the order: it is shown how much.
            var longer = wishes.WithoutAnEnd();
            tasks = PrepDayTasks.Of(cooked, kitchen, longer, times);
            day = lay(tasks.Problem);
            overtime = wishes.Overtime(LastHands(day, tasks));
        }

        var chain = LongestChain.Of(tasks.Problem, day, LatestTask(tasks.Problem, day));
        var waysOut = day.Late == 0 && overtime == 0 ? [] : WaysOutOf(cooked, kitchen, wishes, times, day.Late, overtime, chain, atOnce);
        return new(tasks, day, chain, overtime, waysOut);
    }

    private static int LastHands(LaidDay day, PrepDayTasks tasks) =>
        day.Tasks.Zip(tasks.Tasks, (place, task) => task.IsHandsOn ? place.End : 0).DefaultIfEmpty(0).Max();

    private static string? LatestTask(ScheduleProblem problem, LaidDay day)
    {
        if (day.Late == 0) return null;
        return day.Tasks.Zip(problem.Tasks, (place, task) => (place.Id, Over: task.Due is { } due ? place.End - due : int.MinValue))
            .MaxBy(pair => pair.Over).Id;
    }

    // Each small change tried at once; what leaves nothing late comes first, then what leaves least.
    private static List<WayOut> WaysOutOf(
        List<PrepDish> dishes, KitchenEquipment kitchen, PrepDayWishes wishes, OwnTimes? times, int late, int overtime,
        IReadOnlyList<ChainLink> chain, Func<ScheduleProblem, LaidDay> atOnce)
    {
        var over = Math.Max(late, overtime);
        var found = new List<WayOut>();
        Try(new(WayOutKind.AnotherCook, 0, null, null, 0, 0), dishes, kitchen, wishes with
        {
            Cooks = [.. wishes.Cooks, new("", wishes.Begins, wishes.Cooks.Max(cook => cook.To))],
        });
        foreach (var kind in chain.Select(link => MachineOf(link.Capacity)).OfType<Occupies>().Distinct())
        {
            Try(new(WayOutKind.AnotherMachine, 0, kind, null, 0, 0), dishes, kitchen with
            {
                Items = [.. kitchen.Items.Select(item => item.Kind == kind ? item with { Count = item.Count + 1 } : item)],
            }, wishes);
        }

        foreach (var dish in dishes.Where(dish => dish.Id != wishes.SupperDish && dishes.Count > 1))
            Try(new(WayOutKind.LeaveOut, 0, null, dish.Id, 0, 0), [.. dishes.Where(other => other != dish)], kitchen, wishes);
        BeginSooner();
        return [.. found.OrderBy(way => way.Late).ThenBy(way => way.Kind).ThenBy(way => way.End).Take(MostWaysOut)];

        // By as much as is late; where other things are in the way too, by more, as long as that helps.
        void BeginSooner()
        {
            var (sooner, still) = (0, over);
            for (var attempt = 0; attempt < MostAttempts && still > 0; attempt++)
            {
                sooner += (still + RoundedTo - 1) / RoundedTo * RoundedTo;
                if (wishes.Begins.ToTimeSpan().TotalMinutes < sooner) break;
                CookHours Sooner(CookHours cook) => cook.From == wishes.Begins ? cook with { From = cook.From.AddMinutes(-sooner) } : cook;
                var earlier = wishes with { Cooks = [.. wishes.Cooks.Select(Sooner)] };
                var before = found.Count;
                Try(new(WayOutKind.BeginSooner, sooner, null, null, 0, 0), dishes, kitchen, earlier, sooner);
                if (found.Count == before) break;
                still = found[^1].Late;
                if (still > 0 && attempt + 1 < MostAttempts) found.RemoveAt(found.Count - 1);
            }
        }

        void Try(WayOut way, IReadOnlyList<PrepDish> cooked, KitchenEquipment with, PrepDayWishes wished, int sooner = 0)
        {
            var tasks = PrepDayTasks.Of(cooked, with, wished, times);
            var day = atOnce(tasks.Problem);
            var isShort = day.Tasks.Count < tasks.Tasks.Count;
            if (isShort)
            {
                tasks = PrepDayTasks.Of(cooked, with, wished.WithoutAnEnd(), times);
                day = atOnce(tasks.Problem);
            }

            var stillLate = day.Late + (isShort ? wished.Overtime(LastHands(day, tasks)) : 0);
            if (stillLate < late + overtime) found.Add(way with { Late = stillLate, End = day.End - sooner });
        }
    }

    private static Occupies? MachineOf(string? capacity)
    {
        if (capacity is null) return null;
        var name = capacity.Split(':')[0];
        return Enum.TryParse<Occupies>(name, ignoreCase: true, out var kind) ? kind : null;
    }
}
