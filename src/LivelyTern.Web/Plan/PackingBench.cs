using LivelyTern.Core.Aim;
using LivelyTern.Core.Cook;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Keep;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using LivelyTern.Core.Plan;
using LivelyTern.Data;
using LivelyTern.Data.Aim;
using LivelyTern.Data.Cook;
using LivelyTern.Data.Pack;
using LivelyTern.Data.Plan;
using LivelyTern.Web.Cook;
using LivelyTern.Web.Http;

namespace LivelyTern.Web.Plan;

/// <summary>A part of a put-together dish that was put into a box.</summary>
/// <param name="Name">What it is.</param>
/// <param name="Grams">Grams of it.</param>
/// <param name="Compartment">Where it lies: "beside" for what is added at eating; null for the box itself.</param>
public sealed record PutInView(string Name, decimal Grams, string? Compartment)
{
    private const decimal Least = 0.5m;

    /// <summary>What was put into a box part by part, without its pinches; none where it was packed as a whole.</summary>
    public static IReadOnlyList<PutInView> Of(Box box)
    {
        ArgumentNullException.ThrowIfNull(box);
        return
        [
            .. box.Main.PutIn.Where(part => part.Weight.Value >= Least)
                .Select(part => new PutInView(part.Name, part.Weight.Value, part.Compartment)),
        ];
    }
}

/// <summary>A box of a batch.</summary>
/// <param name="Id">The box.</param>
/// <param name="Number">Its place in the row, from 1.</param>
/// <param name="Grams">Cooked grams in it.</param>
/// <param name="Pieces">Pieces, where they are counted.</param>
/// <param name="State">Full, eaten or gone.</param>
/// <param name="Place">Where it is, or was last.</param>
/// <param name="Version">For the next write on it.</param>
/// <param name="EaterId">On whose day it lies; null where it lies on none.</param>
/// <param name="Name">Their name.</param>
/// <param name="Day">Which day that is.</param>
/// <param name="Never">Why they must never get it.</param>
/// <param name="Volume">What is in it fills so much, where that is known: "1 1/3 cups".</param>
/// <param name="IsForGuests">Whether it is for guests on that day, not for its eater.</param>
/// <param name="UseBy">The last day, as it is kept now.</param>
/// <param name="IsOver">Whether it is still there, and that day is past.</param>
/// <param name="PutIn">What was put into it part by part; none where it was packed as a whole.</param>
/// <param name="Container">What the household calls its container; null where nobody said.</param>
/// <param name="EyeSpread">Divided by eye, how far off its weight is, relative to that; null where it was weighed.</param>
public sealed record BoxView(
    Guid Id, int Number, decimal Grams, decimal? Pieces, BoxState State, BoxPlace Place, int Version, Guid? EaterId,
    string? Name, DateOnly? Day, NeverView? Never, string? Volume, bool IsForGuests, DateOnly UseBy, bool IsOver,
    IReadOnlyList<PutInView> PutIn, string? Container, decimal? EyeSpread);

/// <summary>An eater who must never get a batch, and why: it stands on every label.</summary>
public sealed record NeverForView(string Name, NeverView Why);

/// <summary>A portion that lies on a day: for its eater, or for guests.</summary>
/// <param name="ItemId">The portion.</param>
/// <param name="EaterId">On whose day.</param>
/// <param name="Name">Their name.</param>
/// <param name="Day">Which day.</param>
/// <param name="Grams">What it weighs.</param>
/// <param name="IsForGuests">Whether it is for guests on that day.</param>
public sealed record PlannedPortionView(Guid ItemId, Guid EaterId, string Name, DateOnly Day, decimal Grams, bool IsForGuests);

/// <summary>An empty pan that was weighed before.</summary>
/// <param name="Grams">What it weighs.</param>
/// <param name="Dish">What was in it last.</param>
public sealed record PanView(decimal Grams, string Dish);

/// <summary>An eater's own size of a dish.</summary>
/// <param name="EaterId">The eater.</param>
/// <param name="Name">Their name.</param>
/// <param name="Grams">What their last box of it weighed; null where they had none.</param>
/// <param name="CountsPoints">Whether they count points.</param>
/// <param name="Leading">The measure their day is laid along.</param>
public sealed record OwnSizeView(Guid EaterId, string Name, decimal? Grams, bool CountsPoints, Measure Leading);

/// <summary>A batch on the packing bench.</summary>
/// <param name="Id">The batch.</param>
/// <param name="RecipeId">Its recipe.</param>
/// <param name="Name">The dish.</param>
/// <param name="Letters">Its tape mark.</param>
/// <param name="Tint">Its tint.</param>
/// <param name="CookedOn">The day it was cooked, or is to be.</param>
/// <param name="State">Where it stands.</param>
/// <param name="Portions">How many portions it is made for.</param>
/// <param name="RawGrams">What went in.</param>
/// <param name="PanGrams">The empty pan, where weighed.</param>
/// <param name="FullGrams">The full pan, where weighed.</param>
/// <param name="RememberedPanGrams">The empty pan of the last batch of this recipe.</param>
/// <param name="Boxes">Its boxes; none before it is packed.</param>
/// <param name="Figures">The whole batch.</param>
/// <param name="Version">For the next write.</param>
/// <param name="Planned">Portions of it that lie on days, in the order in which they become boxes: for whom and for which day.</param>
/// <param name="ExpectedGrams">What it weighs or is expected to; null where it is packed.</param>
/// <param name="BoxesWanted">Into how many boxes it goes, as the plan has it.</param>
/// <param name="NeverFor">Eaters who must never get it.</param>
/// <param name="Pieces">How many pieces it makes, where it makes pieces.</param>
/// <param name="Together">What it is put together from, and what is put together from it.</param>
/// <param name="Pans">Empty pans that were weighed before, the newest first.</param>
/// <param name="OwnSizes">Who eats here, each with their own size of it; not those who must never get it.</param>
/// <param name="Components">What is in it by name, what brings most energy first.</param>
/// <param name="CupGrams">What a cup of it weighs as its recipe has it; null where that is not known.</param>
/// <param name="DaysVersion">The number of the last change to any day, for a write that touches the day a box lies on.</param>
public sealed record BatchView(
    Guid Id, Guid RecipeId, string Name, string Letters, int Tint, DateOnly CookedOn, BatchState State, int Portions, decimal RawGrams,
    decimal? PanGrams, decimal? FullGrams, decimal? RememberedPanGrams, IReadOnlyList<BoxView> Boxes,
    IReadOnlyDictionary<Measure, Figure> Figures, int Version, IReadOnlyList<PlannedPortionView> Planned, decimal? ExpectedGrams,
    int BoxesWanted, IReadOnlyList<NeverForView> NeverFor, int? Pieces, TogetherView Together,
    IReadOnlyList<PanView> Pans, IReadOnlyList<OwnSizeView> OwnSizes, IReadOnlyList<string> Components, decimal? CupGrams, int DaysVersion);

/// <summary>A batch in the list of the bench.</summary>
/// <param name="Id">The batch.</param>
/// <param name="Name">The dish.</param>
/// <param name="Letters">Its tape mark.</param>
/// <param name="Tint">Its tint.</param>
/// <param name="CookedOn">The day it was cooked, or is to be.</param>
/// <param name="State">Where it stands.</param>
/// <param name="Portions">How many portions it is made for.</param>
/// <param name="Boxes">How many boxes it is in.</param>
/// <param name="FirstGrams">What the first of them holds; null without one.</param>
public sealed record BatchInList(
    Guid Id, string Name, string Letters, int Tint, DateOnly CookedOn, BatchState State, int Portions, int Boxes, decimal? FirstGrams);

/// <summary>Reads batches with what of them lies on days, for the packing bench.</summary>
public sealed class PackingBench(
    TernDb db, BatchStore store, BatchReader reader, BoxStore boxes, ContainerStore containers,
    PortionsOnDays portions, PlanStore plan, EaterStore eaters, TimeProvider clock)
{
    private const int MostPans = 6, MostComponents = 12;

    /// <summary>Batches, those without boxes and then the newest first. What is in them is not read for this.</summary>
    public async Task<IReadOnlyList<BatchInList>> ListAsync(int most)
    {
        await using var once = await db.ReadOnceAsync();
        var rows = await store.ListAsync(most);
        var filled = await boxes.OfBatchesAsync([.. rows.Select(row => row.Id)]);
        BatchInList Show(BatchRow row)
        {
            var own = filled[row.Id].ToList();
            var first = own.Count == 0 ? (decimal?)null : Milligrams.ToGrams(own[0].Parts.Sum(part => part.Milligrams)).Value;
            return new(row.Id, row.RecipeName, row.Letters, row.Tint, row.CookedOn, row.State, row.Portions, own.Count, first);
        }

        return [.. rows.Select(Show)];
    }

    /// <summary>One batch, or null.</summary>
    public async Task<BatchView?> FindAsync(Guid id)
    {
        await using var once = await db.ReadOnceAsync();
        return await store.FindAsync(id) is { State: not BatchState.Discarded } row ? await ShowAsync(row) : null;
    }

    /// <summary>A batch with its portions or boxes on days.</summary>
    public async Task<BatchView> ShowAsync(BatchRow row)
    {
        ArgumentNullException.ThrowIfNull(row);
        var batch = await reader.ReadAsync(row);
        var table = await eaters.ListAsync();
        var names = table.ToDictionary(eater => eater.Id, eater => eater.Name);
        var reasons = table.Select(eater => (eater.Id, eater.Name, Why: NeverView.Of(eater.Ways.WhyNever(batch.Contents))));
        var never = reasons.Where(one => one.Why is not null).ToList();
        var filled = await BoxesAsync(row, names, never.ToDictionary(one => one.Id, one => one.Why!));
        var planned = (await portions.OfAsync(row.Id)).Select(item => new PlannedPortionView(
            item.Id, item.EaterId, names.GetValueOrDefault(item.EaterId, ""), item.Day, Milligrams.ToGrams(item.Milligrams ?? 0).Value,
            item.IsForGuests)).ToList();
        var together = await TogetherView.OfAsync(batch, row, reader);
        var sizes = await boxes.OwnSizesAsync(row.RecipeId);
        var own = table.Where(eater => !never.Exists(one => one.Id == eater.Id)).Select(eater => new OwnSizeView(
            eater.Id, eater.Name, sizes.TryGetValue(eater.Id, out var size) ? size.Value : null, eater.Aim.Rule is not null,
            eater.Aim.Leading));
        var (pan, remembered) = (Milligrams.ToGrams(row.PanMilligrams), await store.PanOfAsync(row.RecipeId));
        return new(
            row.Id, row.RecipeId, batch.RecipeName, row.Letters, row.Tint, row.CookedOn, row.State, row.Portions,
            batch.Contents.RawWeight.Value,
            pan?.Value, pan is { } empty ? batch.Cooked?.Value + empty.Value : null, remembered?.Value, filled,
            Figure.Of(MeasureTotals.Of(batch.Contents, null)), row.Version, planned, filled.Count > 0 ? null : batch.Weight?.Value,
            BoxesWanted(batch, planned, together), [.. never.Select(one => new NeverForView(one.Name, one.Why!))], batch.Pieces,
            together, [.. (await store.PansAsync(MostPans)).Select(one => new PanView(one.Weight.Value, one.Dish))], [.. own],
            [.. ComponentsOf(batch)], batch.WeightOfMl(Unit.Cup.InBase)?.Value, await plan.VersionAsync());
    }

    private async Task<IReadOnlyList<BoxView>> BoxesAsync(BatchRow row, Dictionary<Guid, string> names, Dictionary<Guid, NeverView> never)
    {
        var rows = await boxes.OfBatchAsync(row.Id);
        var laid = await portions.LaidAsync([.. rows.Select(box => box.Id)]);
        var today = clock.Today();
        var read = (await boxes.ReadAsync(rows)).ToDictionary(box => box.Id);
        var rules = await plan.RulesAsync();
        var called = await containers.NamesAsync(rows.Select(box => box.ContainerId).OfType<Guid>());
        BoxView Show(BoxRow box)
        {
            // A box whose day went by uneaten lies on none, and so does one of which the rest is on the shelf.
            var places = laid[box.Id].Where(item => item.EatenAt is not null || item.Day >= today).ToList();
            var item = places.Find(item => item.EatenAt is null) ?? (box.State == BoxState.Eaten ? places.LastOrDefault() : null);
            var isTheirs = read[box.Id].Life.IsThere && item is { EatenAt: null, IsForGuests: false };
            var why = isTheirs ? never.GetValueOrDefault(item!.EaterId) : null;
            var useBy = UseBy.Of(read[box.Id], today, rules);
            return new(
                box.Id, box.Number, read[box.Id].Weight.Value, read[box.Id].Pieces, box.State, box.Place, box.Version,
                item?.EaterId, item is null ? null : names.GetValueOrDefault(item.EaterId), item?.Day, why,
                read[box.Id].Batch.SaidVolumeOf(read[box.Id].Weight), item?.IsForGuests == true, useBy.Last,
                read[box.Id].Life.IsThere && useBy.IsOver(today), PutInView.Of(read[box.Id]),
                box.ContainerId is { } kept ? called[kept] : null, box.EyeSpread);
        }

        return [.. rows.Select(Show)];
    }

    private static IEnumerable<string> ComponentsOf(Batch batch) => batch.Contents.Ingredients
        .OrderByDescending(one => new Contents([one]).Totals[Nutrient.Energy].Known).Select(one => one.Food.Name)
        .Distinct(StringComparer.Ordinal).Take(MostComponents);

    private static int BoxesWanted(Batch batch, List<PlannedPortionView> planned, TogetherView together)
    {
        if (batch.State == BatchState.Packed || batch.Weight is null) return batch.Portions;
        var laid = new Grams(planned.Sum(portion => portion.Grams));
        Grams Into(bool isPacked) => new(together.GoesInto.Where(dish => dish.IsPacked == isPacked).Sum(dish => dish.Grams));
        var inDishes = PutTogether.TakenOf(batch.Weight, Into(isPacked: true), Into(isPacked: false));
        return new UnpackedBatch(batch, laid, new Dictionary<Guid, Grams>()) { InDishes = inDishes }.BoxesFor(planned.Count);
    }
}
