using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Plan.Fit;

namespace LivelyTern.Core.Plan.Menus;

/// <summary>
/// Chooses dishes so that the days can fit: one after another the dish that lowers the cost of a first plan most, then dishes in each
/// other's place while that lowers it. What is cooked often, what shares foods and what uses up the house count beside it, as
/// <c>docs/fit.md</c> writes down.
/// </summary>
public sealed class MenuSearch
{
    private const int LastWeek = 15_000, WeekBefore = 5000, SharedFood = 500, AlikeDish = 20_000, UsedUp = 20_000, MostTried = 30;
    private const decimal Alike = 0.7m, WorthSharing = 20m;
    private const int FinalRounds = 1;
    private const double FinalSeconds = 2.5;

    private readonly WeekToFit week;
    private readonly IWeekFitter fitter;
    private readonly MenuWish wish;
    private readonly CancellationToken stop;
    private readonly List<MenuDish> dishes;
    private readonly FitTables tables;
    private readonly IFirstPlans firstPlans;
    private readonly Dictionary<Guid, int> offered;
    private readonly HashSet<int> candidates;
    private readonly Dictionary<Guid, IReadOnlyDictionary<string, Ingredient>> foods;

    /// <summary>Takes days, what is there for them, and the collection.</summary>
    /// <param name="week">The days, with every dish among their unpacked batches, under its recipe's id and with an open amount.</param>
    /// <param name="collection">The dishes; one that is forbidden to every eater is left out.</param>
    /// <param name="wish">What is asked for.</param>
    /// <param name="fitter">Fits days.</param>
    /// <param name="stop">Stops the search: the best so far is the answer.</param>
    public MenuSearch(WeekToFit week, IReadOnlyList<MenuDish> collection, MenuWish wish, IWeekFitter fitter, CancellationToken stop)
    {
        ArgumentNullException.ThrowIfNull(week);
        ArgumentNullException.ThrowIfNull(wish);
        (this.week, this.fitter, this.wish, this.stop) = (week, fitter, wish, stop);
        tables = new(week.Problem);
        firstPlans = fitter.FirstPlans(tables);
        var places = new Dictionary<string, int>(StringComparer.Ordinal);
        for (var at = 0; at < week.Problem.Batches.Count; at++)
        {
            var batch = week.Problem.Batches[at];
            if (batch.ExcludedFor?.Count != week.Problem.Eaters.Count) places.Add(batch.Id, at);
        }
        offered = collection.Where(dish => places.ContainsKey(dish.RecipeId.ToString()))
            .ToDictionary(dish => dish.RecipeId, dish => places[dish.RecipeId.ToString()]);
        candidates = [.. offered.Values];
        foods = collection.ToDictionary(dish => dish.RecipeId, Telling);
        dishes = [.. collection.Where(dish => offered.ContainsKey(dish.RecipeId) && !wish.Without.Contains(dish.RecipeId))
            .OrderByDescending(dish => wish.Keep.Contains(dish.RecipeId)).ThenBy(dish => OwnCost(dish))
            .ThenBy(dish => dish.Batch.Batch.RecipeName, StringComparer.Ordinal).Take(MostTried + wish.Keep.Count)];
    }

    /// <summary>The menu.</summary>
    /// <param name="enough">Ends the choosing: dishes still missing are the next of the collection, and the days are filled.</param>
    public ProposedMenu Propose(CancellationToken enough = default)
    {
        using var over = CancellationTokenSource.CreateLinkedTokenSource(enough, stop);
        var chosen = Choose(over.Token);
        return Show([.. chosen, .. dishes.Except(chosen).Take(Math.Max(0, wish.Dishes - chosen.Count))]);
    }

    private List<MenuDish> Choose(CancellationToken over)
    {
        var chosen = dishes.Where(dish => wish.Keep.Contains(dish.RecipeId)).ToList();
        var cost = Cost(chosen);
        List<MenuDish> With(MenuDish more) => [.. chosen, more];
        while (chosen.Count < wish.Dishes && Best(dishes.Except(chosen).Select(With), over) is var (menu, menuCost))
            (chosen, cost) = (menu, menuCost);

        // Once round: each dish that need not stay against every other.
        for (var i = 0; i < chosen.Count && !over.IsCancellationRequested; i++)
        {
            if (wish.Keep.Contains(chosen[i].RecipeId)) continue;
            var at = i;
            List<MenuDish> Instead(MenuDish dish) => [.. chosen.Select((was, k) => k == at ? dish : was)];
            if (Best(dishes.Except(chosen).Select(Instead), over) is var (other, otherCost) && otherCost < cost)
                (chosen, cost) = (other, otherCost);
        }

        return chosen;
    }

    // A round that was cut short knows no best dish, only the best of those it came to.
    private (List<MenuDish> Menu, long Cost)? Best(IEnumerable<List<MenuDish>> menus, CancellationToken over)
    {
        (List<MenuDish>, long)? best = null;
        foreach (var menu in menus)
        {
            if (over.IsCancellationRequested) break;
            var cost = Cost(menu);
            if (best is null || cost < best.Value.Item2) best = (menu, cost);
        }

        return best;
    }

    private FitPlan First(IEnumerable<MenuDish> menu)
    {
        var chosen = menu.Select(dish => offered[dish.RecipeId]).ToHashSet();
        return firstPlans.With(batch => chosen.Contains(batch) || !candidates.Contains(batch));
    }

    // What a first plan costs with these dishes, and what they cost as a menu.
    private long Cost(List<MenuDish> menu)
    {
        var cost = tables.Cost(First(menu)).Total + menu.Sum(OwnCost);
        for (var i = 0; i < menu.Count; i++)
        {
            for (var k = 0; k < i; k++)
                cost += IsAlike(menu[i], menu[k]) ? AlikeDish : -(SharedFood * Math.Min(4, Shared(menu[i], menu[k]).Count));
        }

        return cost;
    }

    private long OwnCost(MenuDish dish)
    {
        var ago = dish.LastCooked is { } last ? Math.Abs(wish.PrepDay.DayNumber - last.DayNumber) : int.MaxValue;
        var again = ago switch { <= 8 => LastWeek, <= 15 => WeekBefore, _ => 0 };
        var used = Uses(dish, dish.Batch.Whole).Sum(part => part.Of.Value <= 0 ? 0 : UsedUp * (part.Weight / part.Of));
        return again + (dish.Opinion?.MenuCost ?? 0) - (long)used;
    }

    // What tells a dish: foods of some weight that are not seasonings or fats.
    private static IReadOnlyDictionary<string, Ingredient> Telling(MenuDish dish) =>
        dish.Batch.Batch.Contents.Gathered().Ingredients
            .Where(part => part.Weight.Value >= WorthSharing && part.Food.Group is not (FoodGroup.Seasonings or FoodGroup.Fats))
            .GroupBy(part => part.Food.Id, StringComparer.Ordinal)
            .ToDictionary(same => same.Key, same => same.First(), StringComparer.Ordinal);

    private List<string> Shared(MenuDish one, MenuDish other)
    {
        var both = foods[one.RecipeId].Where(food => foods[other.RecipeId].ContainsKey(food.Key));
        return [.. both.Select(food => food.Value.Food.Name).Order(StringComparer.Ordinal)];
    }

    // Two dishes of mostly the same foods are one dish twice, whatever they share.
    private bool IsAlike(MenuDish one, MenuDish other)
    {
        var (mine, theirs) = (foods[one.RecipeId], foods[other.RecipeId]);
        var (all, others) = (mine.Values.Sum(part => part.Weight.Value), theirs.Values.Sum(part => part.Weight.Value));
        if (all <= 0 || others <= 0) return false;
        return mine.Where(part => theirs.ContainsKey(part.Key))
            .Sum(part => Math.Min(part.Value.Weight.Value / all, theirs[part.Key].Weight.Value / others)) >= Alike;
    }

    // Of what is in the house, as much as the dish takes when so much of it is cooked.
    private IEnumerable<UsesUp> Uses(MenuDish dish, Grams cooked)
    {
        var share = dish.Batch.Whole.Value <= 0 ? 0 : cooked / dish.Batch.Whole;
        foreach (var have in wish.AtHand.Where(have => have.Weight.Value > 0))
        {
            if (foods[dish.RecipeId].TryGetValue(have.Food.Id, out var part))
                yield return new(have.Food.Name, new(Math.Min(have.Weight.Value, part.Weight.Value * share)), have.Weight);
        }
    }

    private ProposedMenu Show(List<MenuDish> chosen)
    {
        IEnumerable<SharedFoods> SharedWith(MenuDish dish) =>
            chosen.Where(other => other != dish).Select(other => new SharedFoods(other.Batch.Batch.RecipeName, Shared(dish, other)));

        // The days filled with just these; batches nobody asked for are not there.
        var others = Enumerable.Range(0, week.Problem.Batches.Count).Where(batch => !candidates.Contains(batch));
        List<int> order = [.. others, .. chosen.Select(dish => offered[dish.RecipeId])];
        var problem = week.Problem with { Batches = [.. order.Select(batch => week.Problem.Batches[batch])] };
        var plan = fitter.Fit(new FitTables(problem), new FitEffort(FinalSeconds, FinalRounds), null, stop).Plan;
        var first = order.Count - chosen.Count;
        var shown = chosen.Select((dish, i) =>
        {
            var boxes = plan.Boxes.Where(box => box.Batch == first + i).ToList();
            var grams = boxes.Sum(box => problem.Batches[first + i].Sizes[box.Size].Grams);
            var each = dish.Batch.Whole.Value / Math.Max(1, dish.Batch.Batch.Portions);
            var portions = boxes.Count == 0 ? dish.Batch.Batch.Portions : Math.Max(1, (int)Math.Ceiling((grams / each) - 0.02m));
            return new ProposedDish(
                dish.RecipeId, dish.Batch.Batch.RecipeName, portions, boxes.Count, wish.Keep.Contains(dish.RecipeId), dish.LastCooked,
                [.. Uses(dish, new Grams(portions * each))], [.. SharedWith(dish).Where(shared => shared.Foods.Count > 0)])
            {
                Opinion = dish.Opinion,
            };
        }).ToList();

        // What fits without the dishes fits with them too: the days need not take them.
        var without = FitDays(week.Problem, First([]));
        return new(shown, Math.Max(FitDays(problem, plan), without), without, Days(problem).Count());
    }

    private static IEnumerable<(int Eater, int Day)> Days(FitProblem problem) =>
        from e in Enumerable.Range(0, problem.Eaters.Count)
        from d in Enumerable.Range(0, problem.DayCount)
        where problem.Eaters[e].Days[d].Bands.Count > 0
        select (e, d);

    private static int FitDays(FitProblem problem, FitPlan plan) =>
        Days(problem).Count(at => FittedDay.Read(problem, plan, at.Eater, at.Day).Fits);
}
