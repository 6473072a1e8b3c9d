using LivelyTern.Core.Aim;
using LivelyTern.Core.Cook;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Plan;
using LivelyTern.Data;
using LivelyTern.Data.Aim;
using LivelyTern.Data.Cook;
using LivelyTern.Data.Foods;
using LivelyTern.Data.Plan;
using LivelyTern.Data.Shop;
using LivelyTern.Web.Http;
using LivelyTern.Web.Plan;

namespace LivelyTern.Web.Shop;

/// <summary>A food that is not sold: what could stand in for it, and what that does to dishes and days.</summary>
public sealed class InsteadDesk(
    TernDb db, PlanStore plan, PlanReader reader, PrepDayStore prepDays, BatchReader batches, EaterStore eaters, FoodStore foods,
    SubstituteFood command)
{
    private const int DaysAhead = 366;

    private sealed record Touched(
        IReadOnlyList<BatchRow> Batches, PlanBoard Board, IReadOnlyList<(EaterDay Where, PlanItem Item, PlainFood Food)> Items,
        IReadOnlyList<EaterRow> Table);

    /// <summary>
    /// Foods of the same use that every eater may have who would get them, those with the nearest energy first. A food without a use has
    /// none: any food can be chosen by name.
    /// </summary>
    public async Task<IReadOnlyList<Food>> StandInsAsync(Food food, int most)
    {
        ArgumentNullException.ThrowIfNull(food);
        if (food.Use is not { } use) return [];
        await using var once = await db.ReadOnceAsync();
        var touched = await TouchedAsync(food.Id);
        bool MayAll(Food other) => Refusal(touched, new(food.Id, other.Id, 1), other) is null;
        decimal Apart(Food other) => Math.Abs((other.Per100g.Energy ?? 0) - (food.Per100g.Energy ?? 0));
        return
        [
            .. (await foods.CatalogueAsync()).All.Where(other => Same(other.Use, use) && !Same(other.Id, food.Id))
                .OrderBy(Apart).ThenBy(other => other.Name, StringComparer.Ordinal).Where(MayAll).Take(most),
        ];
    }

    /// <summary>What stands in for a food, or it for others, in batches still to be cooked.</summary>
    public async Task<IReadOnlyList<InsteadView>> StandingInAsync(string foodId)
    {
        var known = await foods.AllAsync();
        string NameOf(string id) => known.Find(id)?.Name ?? id;
        bool Is(string id) => Same(id, foodId);
        var rows = (await prepDays.ToCookAsync()).Where(row => row.State == BatchState.Planned);
        return
        [
            .. rows.SelectMany(row => (row.Instead?.Read() ?? []).Where(one => Is(one.FoodId) || Is(one.InsteadId))
                .Select(one => new InsteadView(row.Id, row.RecipeName, one, NameOf(one.FoodId), NameOf(one.InsteadId)))),
        ];
    }

    /// <summary>Tries a substitute, or makes it.</summary>
    /// <param name="with">What stands in for what.</param>
    /// <param name="isMade">Whether it is made, and not only tried.</param>
    public async Task<Outcome<InsteadAnswer>> DoAsync(Substitution with, bool isMade)
    {
        ArgumentNullException.ThrowIfNull(with);
        var known = await foods.AllAsync();
        if (known.Find(with.FoodId) is not { } food) return Stale.Gone("food");
        if (known.Find(with.InsteadId) is not { } instead) return new Problem("instead-gone", "insteadId", "There is no such food here.");
        if (Same(food.Id, instead.Id))
            return new Problem("instead-same", "insteadId", "That is the same food: choose another.");
        if (with.PerGram is not (>= 0.01m and <= Substitution.MostPerGram))
            return new Problem("instead-amount", "perGram", $"Take between 1 g and {Substitution.MostPerGram * 100} g in place of 100 g.");
        var (answer, change) = await TryAsync(with, food, instead);
        if (!answer.Succeeded || !isMade) return answer;
        var made = await command.DoAsync(change!);
        return made.Succeeded ? answer.Value! with { ChangeId = made.Value?.Id } : made.Problems.ToList();
    }

    private static bool Same(string? one, string other) => string.Equals(one, other, StringComparison.Ordinal);

    private async Task<(Outcome<InsteadAnswer> Answer, FoodSubstitution? Change)> TryAsync(Substitution with, Food food, Food instead)
    {
        await using var once = await db.ReadOnceAsync();
        var touched = await TouchedAsync(food.Id);
        if (touched.Batches.Count + touched.Items.Count == 0)
            return (new Problem("instead-nothing", "", $"Nothing that is planned has {food.Name} in it as it is."), null);
        if (Refusal(touched, with, instead) is { } never) return (never, null);
        var changed = touched.Batches.Select(row => WithInstead(row, with)).ToList();
        var before = (await batches.ReadAsync(touched.Batches)).ToDictionary(batch => batch.Id);
        var read = (await batches.ReadAsync(changed)).ToDictionary(batch => batch.Id);
        var after = read.ToDictionary(
            one => one.Key, one => PutTogether.With(one.Value, part => read.GetValueOrDefault(part.Id, part)));
        var change = new FoodSubstitution(
            with, [.. before.Keys], touched.Items.ToDictionary(one => one.Item.Id, one => Replaced(one.Food, with, instead)));
        InsteadBatchView Dish(Batch batch) => new(
            batch.Id, batch.RecipeName, PortionOf(batch), PortionOf(after[batch.Id]));
        var days = await DaysAsync(touched, change, before, after);
        return (new InsteadAnswer(instead.Name, [.. before.Values.Select(Dish)], days, Kept(touched, food), null), change);
    }

    private async Task<Touched> TouchedAsync(string foodId)
    {
        var rows = (await prepDays.ToCookAsync()).Where(row => row.State == BatchState.Planned).ToList();
        bool Has(Batch batch) => batch.Contents.Ingredients.Any(part => Same(part.Food.Id, foodId));
        var having = (await batches.ReadAsync(rows)).Where(Has).Select(batch => batch.Id).ToHashSet();
        var monday = KitchenDays.MondayOf(reader.Today);
        var board = await plan.BoardAsync(monday, monday.AddDays(DaysAhead));
        var items = board.PlainFoodsFrom(reader.Today).Where(one => Same(one.Food.Food.Food.Id, foodId)).ToList();
        return new([.. rows.Where(row => having.Contains(row.Id))], board, items, await eaters.ListAsync());
    }

    // Who must never get the other food, and would: by a portion of a batch on their day, or as it is.
    private static Problem? Refusal(Touched touched, Substitution with, Food instead)
    {
        var ids = touched.Batches.Select(row => row.Id).ToHashSet();
        var holds = new Contents([new(instead, new(100))]);
        foreach (var eater in touched.Table)
        {
            if (eater.Ways.WhyNever(holds) is not { } why) continue;
            bool Lies(PlanItem item) => item.EatenAt is null
                && ((item.Portion is { } portion && ids.Contains(portion.BatchId))
                    || (item.What is PlainFood plain && Same(plain.Food.Food.Id, with.FoodId)));
            if (touched.Board.Days.Any(day => day.Key.EaterId == eater.Id && day.Value.Any(Lies)))
            {
                var sentence = $"{eater.Name} must never get {why.InWords}, and would with {instead.Name}: choose another food.";
                return new("never-for", "insteadId", sentence);
            }
        }

        return null;
    }

    private static BatchRow WithInstead(BatchRow row, Substitution with)
    {
        var others = (row.Instead?.Read() ?? []).Where(one => !Same(one.FoodId, with.FoodId));
        return new()
        {
            Id = row.Id,
            RecipeId = row.RecipeId,
            RecipeName = row.RecipeName,
            Letters = row.Letters,
            Tint = row.Tint,
            State = row.State,
            CookedOn = row.CookedOn,
            Portions = row.Portions,
            IsPutTogether = row.IsPutTogether,
            Instead = StoredInstead.Of([.. others, with]),
            Version = row.Version,
        };
    }

    private static PlainFood Replaced(PlainFood plain, Substitution with, Food instead)
    {
        var weight = (plain.Food.Weight * with.PerGram).ToMilligram();
        var amount = plain.Food.Weight == Grams.Zero ? "" : $"{AmountText.Say(Rounding.ToStep(weight.Value, 0.1m))} g ";
        return new(amount + instead.Name, plain.Food with { Food = instead, Weight = weight });
    }

    private static IReadOnlyDictionary<Measure, Figure> PortionOf(Batch batch) =>
        Figure.Of(MeasureTotals.Of(batch.Contents.Scale(1m / batch.Portions), null));

    private async Task<IReadOnlyList<InsteadDayView>> DaysAsync(
        Touched touched, FoodSubstitution change, Dictionary<Guid, Batch> before, Dictionary<Guid, Batch> after)
    {
        bool IsOfBatch(PlanItem item) => item.EatenAt is null && item.Portion is { } portion && before.ContainsKey(portion.BatchId);
        bool IsTouched(PlanItem item) => change.Items.ContainsKey(item.Id) || IsOfBatch(item);
        var days = touched.Board.Days.Where(day => day.Key.Day >= reader.Today && day.Value.Any(IsTouched)).Select(day => day.Key).ToList();
        var stock = await plan.StockAsync(touched.Board);
        Batch Then(KeyValuePair<Guid, Batch> one) => after.GetValueOrDefault(one.Key, one.Value);
        var then = stock with { Unpacked = stock.Unpacked.ToDictionary(one => one.Key, Then) };
        var eaten = await reader.EatenAsync(touched.Board);
        var steps = change.Items.Select(one => (Func<PlanBoard, Outcome<PlanChange>>)(board => board.Amend(one.Key, one.Value)));
        var changed = change.Items.Count == 0 ? touched.Board : touched.Board.Apply(touched.Board.InOne(steps).Value!).Value!;
        var table = touched.Table.ToDictionary(eater => eater.Id);
        var was = reader.WeeksOf(days, table, touched.Board, stock, eaten);
        var will = reader.WeeksOf(days, table, changed, then, eaten);
        return
        [
            .. touched.Table.SelectMany(eater => days.Where(day => day.EaterId == eater.Id).OrderBy(day => day.Day)
                .Select(day => DayOf(eater, was[day], will[day]))),
        ];
    }

    private static InsteadDayView DayOf(EaterRow eater, DayView was, DayView will)
    {
        var leading = will.Aim.Leading;
        return new(eater.Id, eater.Name, will.Day, leading, was.Sums[leading], will.Sums[leading], was.Fits, will.Fits);
    }

    // Boiled rice that lies on a day was laid as that: dry couscous does not take its place.
    private IReadOnlyList<string> Kept(Touched touched, Food food) =>
    [
        .. touched.Board.PlainFoodsFrom(reader.Today).Where(one => Same(one.Food.Food.Food.CookedFrom?.RawId, food.Id))
            .Select(one => one.Food.Text).Distinct(StringComparer.Ordinal),
    ];
}
