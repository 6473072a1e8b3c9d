using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Plan;
using LivelyTern.Core.Recipes;
using LivelyTern.Core.Shop;
using LivelyTern.Data;
using LivelyTern.Data.Aim;
using LivelyTern.Data.Cook;
using LivelyTern.Data.Foods;
using LivelyTern.Data.Plan;
using LivelyTern.Data.Recipes;
using LivelyTern.Data.Shop;
using LivelyTern.Formats.Shop;

namespace LivelyTern.Web.Shop;

/// <summary>All that the list is made of, as it stands.</summary>
/// <param name="Foods">The foods on it.</param>
/// <param name="Written">What was written on by hand and is no food with an amount.</param>
/// <param name="Batches">The batches it buys for, each with its needs, and with all that is in it, of its parts too.</param>
/// <param name="Ticked">The keys that are ticked.</param>
/// <param name="Aisles">The aisles.</param>
/// <param name="Today">The household's day.</param>
/// <param name="Until">The last day it buys for.</param>
/// <param name="LastDay">The last day on which anything is planned.</param>
public sealed record ReadList(
    IReadOnlyList<ListedFood> Foods, IReadOnlyList<OwnItemRow> Written,
    IReadOnlyList<(BatchRow Row, string Name, RecipeNeeds Needs, RecipeNeeds All)> Batches,
    IReadOnlySet<string> Ticked, Aisles Aisles, DateOnly Today, DateOnly? Until, DateOnly? LastDay)
{
    /// <summary>What was written on by hand and is bought whole, by the food's id.</summary>
    public ILookup<string, Guid> OwnFor => Foods.Where(line => line.State != ListState.ToBuy)
        .SelectMany(line => line.For.Select(need => (line.Sum.Food.Id, need.Source))).Where(one => one.Source is ByHand)
        .ToLookup(one => one.Id, one => ((ByHand)one.Source).Id, StringComparer.Ordinal);
}

/// <summary>Reads the list from the plan, the pantry and the basket.</summary>
public sealed class ShopReader(
    TernDb db, ShopStore shop, PantryStore pantry, PlanStore plan, PrepDayStore prepDays, EaterStore eaters, RecipeStore recipes,
    FoodStore foods, TimeProvider clock)
{
    private const int DaysAhead = 366;
    private Dictionary<string, List<RecipeUse>>? uses;

    /// <summary>The list of all that is planned, or of what is planned up to a day.</summary>
    /// <param name="until">The last day; null for all.</param>
    public async Task<ReadList> ReadAsync(DateOnly? until)
    {
        await using var once = await db.ReadOnceAsync();
        var today = clock.Today();
        var (known, book) = (await foods.AllAsync(), await recipes.BookAsync());
        var planned = (await prepDays.ToCookAsync()).Where(row => row.State == Core.Cook.BatchState.Planned).ToList();
        var board = await plan.BoardAsync(today, today.AddDays(DaysAhead));
        var names = (await eaters.ListAsync()).ToDictionary(row => row.Id, row => row.Name);
        var (onDays, lastDay) = OnDays(board, names, known);
        foreach (var row in planned) lastDay = lastDay is null || row.CookedOn > lastDay ? Max(row.CookedOn, today) : lastDay;
        bool IsIn(DateOnly day) => until is null || day <= until;
        (BatchRow, string, RecipeNeeds, RecipeNeeds) NeedsOf(BatchRow row)
        {
            var recipe = book.Read(row.RecipeId);
            var factor = (decimal)row.Portions / recipe.Yield.Portions;
            var instead = row.Instead?.Read() ?? [];
            var own = RecipeNeeds.Of(book, recipe, factor, instead, withoutParts: true);
            return (row, recipe.Name, own, row.IsPutTogether ? RecipeNeeds.Of(book, recipe, factor, instead) : own);
        }

        List<(BatchRow Row, string Name, RecipeNeeds Needs, RecipeNeeds All)> batches =
            [.. planned.Where(row => IsIn(Max(row.CookedOn, today))).Select(NeedsOf)];
        var forBatches = batches.SelectMany(one => one.Needs.Foods.Select(need =>
            new PlannedNeed(need, new ForBatch(one.Row.Id, one.Name, Max(one.Row.CookedOn, today)))));
        var (written, byHand) = await ByHandAsync(known);
        List<PlannedNeed> needs =
            [.. forBatches, .. onDays.Where(need => IsIn(((ForDay)need.Source).Day)), .. byHand];
        var ticks = await shop.BasketAsync();
        var basket = BasketOf(ticks, known);
        var ids = needs.Select(need => need.What.Food.Id).Concat(basket.Keys.Select(food => food.Id)).ToHashSet(StringComparer.Ordinal);
        var house = await pantry.OfAsync(ids);
        var soldAs = await shop.SoldAsAsync();
        var (aisles, _) = await shop.AislesAsync();
        return new(
            ShoppingList.Of(needs, house, basket, soldAs, aisles), written, batches,
            ticks.Select(tick => tick.Key).ToHashSet(StringComparer.Ordinal), aisles, today, until, lastDay);
    }

    /// <summary>The recipes that use a food, with how much of it they take, as purchased.</summary>
    public async Task<IReadOnlyList<RecipeUse>> UsesAsync(string foodId)
    {
        if (uses is null)
        {
            var (book, list) = (await recipes.BookAsync(), await recipes.ListAsync());
            uses = new(StringComparer.Ordinal);
            foreach (var row in list.Where(row => book.Has(row.Id)))
            {
                var needs = RecipeNeeds.Of(book, book.Read(row.Id), 1, []).Foods;
                foreach (var same in needs.GroupBy(need => need.Food.Id, StringComparer.Ordinal))
                {
                    if (!uses.TryGetValue(same.Key, out var own)) uses[same.Key] = own = [];
                    own.Add(new(row.Id, row.Name, row.Portions, new(same.Sum(need => need.Purchased.Value))));
                }
            }
        }

        return uses.GetValueOrDefault(foodId, []);
    }

    /// <summary>The list as the screens show it.</summary>
    public async Task<ShopListView> ShowAsync(DateOnly? until)
    {
        await using var once = await db.ReadOnceAsync();
        var list = await ReadAsync(until);
        var known = await foods.AllAsync();
        var views = new Dictionary<ListedFood, ListedView>(ReferenceEqualityComparer.Instance);
        var instead = list.Batches.SelectMany(batch => batch.Row.Instead?.Read() ?? [])
            .ToLookup(one => one.InsteadId, one => known.Find(one.FoodId)?.Name ?? one.FoodId, StringComparer.Ordinal);
        foreach (var line in list.Foods)
        {
            var could = line.IsOver ? OverOffers.For(line.Sum.Over, await UsesAsync(line.Sum.Food.Id)).Count : 0;
            views[line] = new(
                line.Sum.Food.Id, line.Sum.Food.Name, line.State, SaidPurchase.Of(line), line.Sum.Need.Value, line.Sum.Have.Value,
                line.House.Value,
                line.Basket?.Bought.Value, line.Sum.Buy.Value, line.Sum.Over.Value,
                line.IsOver ? SaidPurchase.Weight(line.Sum.Over) : null, could, line.IsNotNeeded, line.Cost,
                [.. instead[line.Sum.Food.Id].Distinct(StringComparer.Ordinal)], [.. line.For.Select(NeedView.Of)]);
        }

        var soldAs = await shop.SoldAsAsync();
        var written = list.Written.Select(row => WrittenOn(row, list, soldAs, known)).ToLookup(own => own.AisleId, StringComparer.Ordinal);
        AisleView AisleOf(Aisle aisle) => new(
            aisle.Id, aisle.Name, [.. list.Foods.Where(line => line.Aisle == aisle).Select(line => views[line])], [.. written[aisle.Id]]);
        var aisles = list.Aisles.InOrder.Select(AisleOf);
        ShopBatchView BatchOf((BatchRow Row, string Name, RecipeNeeds Needs, RecipeNeeds All) batch)
        {
            var (row, name, needs, all) = batch;
            var cost = Cost.Of(all.Foods, soldAs);
            return new(
                row.Id, row.RecipeId, name, row.CookedOn, row.Portions, cost.Known, cost.Unpriced, cost.Known / row.Portions,
                needs.NotRead);
        }

        var paid = list.Foods.Where(line => line.State != ListState.InHouse).ToList();
        return new(
            list.Today, list.Until, list.LastDay, [.. aisles.Where(aisle => aisle.Foods.Count + aisle.Written.Count > 0)],
            [.. list.Batches.Select(BatchOf)],
            paid.Count(line => line.State == ListState.ToBuy) + list.Written.Count(row => !list.Ticked.Contains(Tick.KeyOf(row.Id))),
            paid.Count(line => line.State == ListState.InBasket) + list.Written.Count(row => list.Ticked.Contains(Tick.KeyOf(row.Id))),
            paid.Sum(line => line.Cost ?? 0), paid.Count(line => line.Cost is null), list.Aisles.Currency);
    }

    /// <summary>The list as it is taken along.</summary>
    public static ShoppingSheet SheetOf(ShopListView list, string title)
    {
        ArgumentNullException.ThrowIfNull(list);
        string NoteOf(ListedView line)
        {
            var names = line.For.Select(need => need.Name).Distinct(StringComparer.Ordinal).ToList();
            var what = line.InsteadOf.Count > 0 ? $"for {string.Join(", ", line.InsteadOf)}; " : "";
            return what + string.Join(", ", names);
        }

        SheetLine Line(ListedView line) => new(
            line.Key, line.Said, line.Name, NoteOf(line), line.State == ListState.InBasket,
            line.State == ListState.ToBuy ? line.Buy + (line.Basket ?? 0) : line.Basket ?? 0, line.Cost);
        SheetLine Own(WrittenOnView own) => new(own.Key, "", own.Text, "", own.IsTicked, 0, null);
        SheetAisle Aisle(AisleView aisle) => new(
            aisle.Name,
            [.. aisle.Foods.Where(line => line.State != ListState.InHouse).Select(Line), .. aisle.Written.Select(Own)]);
        return new(title, [.. list.Aisles.Select(Aisle).Where(aisle => aisle.Lines.Count > 0)], list.Currency);
    }

    private static DateOnly Max(DateOnly one, DateOnly other) => one > other ? one : other;

    private static WrittenOnView WrittenOn(OwnItemRow row, ReadList list, Func<Food, SoldAs> soldAs, IFoods known)
    {
        var key = Tick.KeyOf(row.Id);
        return new(key, row.Id, row.Text, list.Ticked.Contains(key), list.Aisles.OfWritten(row.Text, known, soldAs).Id);
    }

    // Plain foods that are still to be eaten, guests' too; with the last day on which anything lies.
    private static (List<PlannedNeed> Needs, DateOnly? Last) OnDays(PlanBoard board, Dictionary<Guid, string> names, IFoods known)
    {
        bool IsHere(EaterDay where) => names.ContainsKey(where.EaterId);
        var needs = new List<PlannedNeed>();
        foreach (var (where, item, plain) in board.PlainFoodsFrom(DateOnly.MinValue).Where(one => IsHere(one.Where)))
        {
            var part = plain.Food with { Food = known.Find(plain.Food.Food.Id) ?? plain.Food.Food };
            if (AsPurchased.Of(part, plain.Text, known.Find) is { } need)
                needs.Add(new(need, new ForDay(item.Id, names[where.EaterId], where.Day)));
        }

        var last = board.Days.Where(day => IsHere(day.Key) && day.Value.Any(item => item.EatenAt is null))
            .Select(day => (DateOnly?)day.Key.Day).Max();
        return (needs, last);
    }

    // "2 l milk" is a need like any other; "kitchen paper" stands there as it was written.
    private async Task<(List<OwnItemRow> Written, List<PlannedNeed> Needs)> ByHandAsync(IFoods known)
    {
        var (written, needs) = (new List<OwnItemRow>(), new List<PlannedNeed>());
        foreach (var row in await shop.OwnAsync())
        {
            var line = FoodLine.Read(row.Text, known, row.FoodId is null ? null : known.Find(row.FoodId));
            var read = AsPurchased.Said(line);
            if (read.Count == 0 || read.Any(need => need.Purchased == Grams.Zero)) written.Add(row);
            else needs.AddRange(read.Select(need => new PlannedNeed(need, new ByHand(row.Id, row.Text))));
        }

        return (written, needs);
    }

    private static Dictionary<Food, InBasket> BasketOf(IReadOnlyList<Tick> ticks, IFoods known)
    {
        var basket = new Dictionary<Food, InBasket>();
        foreach (var tick in ticks)
            if (Tick.ItemOf(tick.Key) is null && known.Find(tick.Key) is { } food) basket[food] = new(tick.Bought);
        return basket;
    }
}
