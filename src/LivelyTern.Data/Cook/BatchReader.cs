using LivelyTern.Core.Cook;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Recipes;
using LivelyTern.Data.Foods;
using LivelyTern.Data.Recipes;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Cook;

/// <summary>Batches as the core knows them: what was cooked, what waits in its pan, what is to be cooked, and what could be.</summary>
public sealed class BatchReader(TernDb db, RecipeStore recipes, FoodStore foods, FoodRecords records, BatchCache read)
{
    private const int EarlierBatches = 12;
    private static readonly BatchState[] NotPacked = [BatchState.Planned, BatchState.Cooking, BatchState.Cooked];

    /// <summary>
    /// The batches that are not in boxes, each with what it is expected to weigh; one still to be cooked as its recipe stands now.
    /// </summary>
    public async Task<IReadOnlyList<Batch>> UnpackedAsync()
    {
        var rows = await db.Batches.AsNoTracking().Include(row => row.Lines.OrderBy(line => line.Position))
            .Where(row => NotPacked.Contains(row.State)).OrderBy(row => row.CookedOn).ThenBy(row => row.Id).ToListAsync();
        return await ReadAsync(rows);
    }

    /// <summary>These batches, by id.</summary>
    public async Task<IReadOnlyDictionary<Guid, Batch>> ByIdAsync(IEnumerable<Guid> ids)
    {
        var wanted = ids.Distinct().ToList();
        if (wanted.Count == 0) return new Dictionary<Guid, Batch>();
        var rows = await db.Batches.AsNoTracking().Where(row => wanted.Contains(row.Id)).ToListAsync();
        var contents = rows.ToDictionary(row => row.Id, row => read.Find(row));
        var unread = contents.Where(one => one.Value is null).Select(one => one.Key).ToList();
        if (unread.Count > 0)
        {
            var lines = (await db.BatchLines.AsNoTracking().Where(line => unread.Contains(line.BatchId)).ToListAsync())
                .ToLookup(line => line.BatchId);
            var stored = await StoredAsync(lines.SelectMany(own => own));
            foreach (var row in rows.Where(row => contents[row.Id] is null))
            {
                var sum = SumOf(lines[row.Id], stored);
                contents[row.Id] = sum;

                // What a command has written and may yet take back is not remembered.
                if (db.Database.CurrentTransaction is null || db.IsReading) read.Remember(row, sum);
            }
        }

        return (await ReadAsync(rows, row => contents[row.Id]!)).ToDictionary(batch => batch.Id);
    }

    /// <summary>One batch with its lines.</summary>
    public async Task<Batch> ReadAsync(BatchRow row) => (await ReadAsync([row]))[0];

    /// <summary>
    /// Batches with their lines, with the allergens their foods are known to have today: one to be cooked as its recipe stands now; one not
    /// in boxes with what it is expected to weigh.
    /// </summary>
    public async Task<IReadOnlyList<Batch>> ReadAsync(IReadOnlyList<BatchRow> rows)
    {
        ArgumentNullException.ThrowIfNull(rows);
        var stored = await StoredAsync(rows.SelectMany(row => row.Lines));
        return await ReadAsync(rows, row => SumOf(row.Lines, stored));
    }

    private async Task<IReadOnlyList<Batch>> ReadAsync(IReadOnlyList<BatchRow> rows, Func<BatchRow, Contents> contentsOf)
    {
        if (rows.Count == 0) return [];
        var known = await foods.AllAsync();
        var parts = await PartsAsync(rows);
        var unpacked = rows.Where(row => NotPacked.Contains(row.State)).ToList();
        var book = unpacked.Count == 0 ? null : await recipes.BookAsync();
        var earlier = await EarlierAsync([.. unpacked.Select(row => row.RecipeId).Distinct()]);
        return [.. rows.Select(Read)];

        Contents WithInstead(BatchRow row, Contents contents) =>
            row is { State: BatchState.Planned, Instead: { } instead } ? Substitution.All(instead.Read(), contents, known.Find) : contents;

        Batch Read(BatchRow row)
        {
            var (mark, contents) = (new TapeMark(row.Letters, row.Tint), contentsOf(row).AsKnownToday(known.Find));
            var batch = new Batch(row.Id, row.RecipeName, mark, row.CookedOn, contents, Milligrams.ToGrams(row.CookedMilligrams))
            {
                State = row.State,
                Portions = row.Portions,
                VolumeMl = row.VolumeMl,
            };
            if (NotPacked.Contains(row.State))
            {
                batch = AsExpected(
                    row, batch, book!.Read(row.RecipeId), earlier.GetValueOrDefault(row.RecipeId, []),
                    contents => WithInstead(row, contents));
            }

            return parts.TryGetValue(row.Id, out var own) ? PutTogether.Of(batch, batch.Contents, own) : batch;
        }
    }

    // What dishes that are put together take of other batches: what is in their boxes, or their share of what there is.
    private async Task<Dictionary<Guid, IReadOnlyList<BatchPart>>> PartsAsync(IReadOnlyList<BatchRow> rows)
    {
        var together = rows.Where(row => row.IsPutTogether).ToDictionary(row => row.Id);
        if (together.Count == 0) return [];
        var links = await db.BatchParts.AsNoTracking().Where(link => together.Keys.Contains(link.DishId)).ToListAsync();
        var of = await ByIdAsync(links.Select(link => link.PartId));
        var asked = await InDishesAsync(of.Keys);
        Grams WeightOf(BatchPartRow link)
        {
            var weight = Milligrams.ToGrams(link.Milligrams);
            if (together[link.DishId].State != BatchState.Planned) return weight;
            var (packed, open) = asked[link.PartId];
            return (weight * PutTogether.ShareOf(of[link.PartId].Weight, packed, open)).ToMilligram();
        }

        return links.GroupBy(link => link.DishId).ToDictionary(
            own => own.Key,
            own => (IReadOnlyList<BatchPart>)[.. own.Select(link => new BatchPart(of[link.PartId], WeightOf(link)))]);
    }

    /// <summary>
    /// What put-together dishes take of batches: what is in their boxes, and what those that are not packed ask for. Zero where none does.
    /// </summary>
    public async Task<IReadOnlyDictionary<Guid, (Grams Packed, Grams Asked)>> InDishesAsync(IEnumerable<Guid> ids)
    {
        var parts = ids.ToList();
        var links = await (
            from link in db.BatchParts.AsNoTracking()
            join dish in db.Batches on link.DishId equals dish.Id
            where parts.Contains(link.PartId) && (dish.State == BatchState.Planned || dish.State == BatchState.Packed)
            select new { link.PartId, link.Milligrams, IsPacked = dish.State == BatchState.Packed }).ToListAsync();
        var byPart = links.ToLookup(link => link.PartId);
        Grams Sum(Guid part, bool isPacked) =>
            Milligrams.ToGrams(byPart[part].Where(link => link.IsPacked == isPacked).Sum(link => link.Milligrams));
        return parts.ToDictionary(id => id, id => (Sum(id, true), Sum(id, false)));
    }

    /// <summary>Grams of a batch of such a weight that dishes take, and that go into no box of its own.</summary>
    public async Task<Grams> TakenByDishesAsync(Guid id, Grams? weight)
    {
        var (packed, asked) = (await InDishesAsync([id]))[id];
        return PutTogether.TakenOf(weight, packed, asked);
    }

    /// <summary>What a put-together dish asks for of each batch it takes of, over all its boxes.</summary>
    public async Task<IReadOnlyDictionary<Guid, Grams>> AskedAsync(Guid dishId) =>
        await db.BatchParts.AsNoTracking().Where(link => link.DishId == dishId)
            .ToDictionaryAsync(link => link.PartId, link => Milligrams.ToGrams(link.Milligrams));

    /// <summary>The dishes that take of a batch, and how much.</summary>
    public async Task<IReadOnlyList<(BatchRow Dish, Grams Weight)>> GoesIntoAsync(Guid partId)
    {
        var dishes = await (
            from link in db.BatchParts.AsNoTracking()
            join dish in db.Batches.AsNoTracking() on link.DishId equals dish.Id
            where link.PartId == partId && (dish.State == BatchState.Planned || dish.State == BatchState.Packed)
            orderby dish.CookedOn, dish.Id
            select new { dish, link.Milligrams }).ToListAsync();
        return [.. dishes.Select(one => (one.dish, Milligrams.ToGrams(one.Milligrams)))];
    }

    /// <summary>What goes into a batch, line by line: as it was started, or as its recipe stands while it is planned.</summary>
    public async Task<IReadOnlyList<BatchLine>> LinesOfAsync(BatchRow row)
    {
        ArgumentNullException.ThrowIfNull(row);
        if (row.State == BatchState.Planned)
        {
            var lines = await LinesOfRecipeAsync(row);
            if (lines.Any(line => line.Planned.Ingredients.Count > 0)) return lines;
        }
        var stored = await StoredAsync(row.Lines);
        return [.. row.Lines.OrderBy(line => line.Position).Select(line => LineOf(line, stored))];
    }

    /// <summary>What its recipe as it stands now puts into a batch of that size.</summary>
    internal async Task<IReadOnlyList<BatchLine>> LinesOfRecipeAsync(BatchRow row)
    {
        var book = await recipes.BookAsync();
        var recipe = book.Read(row.RecipeId);
        var factor = (decimal)row.Portions / recipe.Yield.Portions;
        var instead = row.Instead?.Read() ?? [];
        BatchLine Line(RecipeLine line)
        {
            var own = line.Contents ?? new Contents([], SomethingUnread: true);
            var contents = Substitution.All(instead, own, book.Find);
            return new(TextOf(line, own, contents), line.Written.IsOut, contents.Scale(factor));
        }

        return [.. recipe.OwnLines.Select(Line)];
    }

    // A line of one food for which another goes in is written as that one; within a recipe that is a part it stays as written.
    private static string TextOf(RecipeLine line, Contents own, Contents contents)
    {
        if (ReferenceEquals(own, contents) || own.Ingredients is not [var was] || contents.Ingredients is not [var now])
            return line.Written.Text;
        var weight = now.IsTrace && now.Weight == Grams.Zero ? "" : $"{AmountText.Say(Rounding.ToStep(Math.Abs(now.Weight.Value), 1))} g ";
        return $"{weight}{now.Food.Name}, for {was.Food.Name}";
    }

    /// <summary>Contents as they are kept, their foods as they stand now; within a command.</summary>
    internal async Task<StoredContents> StoreAsync(Contents contents)
    {
        var ids = await records.KeepAsync(contents.Ingredients.Select(part => part.Food));
        var parts = contents.Ingredients.Zip(ids, (part, id) => new StoredPart(id, part.Weight.Value, part.IsTrace));
        return new(StoredContents.Shape, [.. parts], contents.SomethingUnread);
    }

    /// <summary>When each recipe was cooked last, or is to be.</summary>
    public async Task<IReadOnlyDictionary<Guid, DateOnly>> LastCookedAsync() =>
        await db.Batches.AsNoTracking().Where(row => row.State != BatchState.Discarded).GroupBy(row => row.RecipeId)
            .Select(own => new { own.Key, Last = own.Max(row => row.CookedOn) }).ToDictionaryAsync(own => own.Key, own => own.Last);

    /// <summary>The recipes of which a batch is planned and not cooked yet.</summary>
    public async Task<IReadOnlySet<Guid>> PlannedRecipesAsync() =>
        (await db.Batches.AsNoTracking().Where(row => row.State == BatchState.Planned).Select(row => row.RecipeId).ToListAsync())
            .ToHashSet();

    /// <summary>
    /// Every recipe on the list as a batch that could be cooked on a day: its own portions, what it is expected to weigh; its id is the
    /// recipe's.
    /// </summary>
    public async Task<IReadOnlyList<Batch>> CouldBeCookedAsync(DateOnly day)
    {
        var rows = (await recipes.ListAsync()).Select(recipe => new BatchRow
        {
            Id = recipe.Id,
            RecipeId = recipe.Id,
            RecipeName = recipe.Name,
            Letters = recipe.Letters,
            Tint = recipe.Tint,
            CookedOn = day,
            State = BatchState.Planned,
            Portions = recipe.UsualPortions,
        }).ToList();
        return [.. (await ReadAsync(rows)).Where(batch => batch.Contents.Ingredients.Count > 0 && batch.Weight is { Value: > 0 })];
    }

    private static Batch AsExpected(
        BatchRow row, Batch batch, Recipe recipe, IReadOnlyList<decimal> earlier, Func<Contents, Contents> withInstead)
    {
        var factor = (decimal)row.Portions / recipe.Yield.Portions;
        if (row.State == BatchState.Planned && recipe.Batch.Ingredients.Count > 0)
        {
            var contents = row.IsPutTogether ? recipe.Plain : recipe.Batch;
            batch = batch with { RecipeName = recipe.Name, Contents = withInstead(contents.Scale(factor)) };
        }

        var raw = recipe.Batch.RawWeight;
        decimal? yieldFactor = recipe.Yield.CookedGrams is { } cooked && raw.Value > 0 ? cooked / raw.Value : null;
        return batch with
        {
            Expected = recipe.Yield.IsPutTogether
                ? new(recipe.Weight * factor, Grams.Zero, ExpectedFrom.Parts)
                : ExpectedWeight.Of(batch.Contents.RawWeight, yieldFactor, earlier),
            Pieces = row.Pieces ?? PiecesOf(recipe.Yield, row.Portions),
            PieceStep = recipe.Yield.MayHalve ? Batch.HalfPiece : Batch.WholePiece,
            VolumeMl = recipe.Yield.VolumeMl * factor,
        };
    }

    private static int? PiecesOf(RecipeYield yield, int portions) => yield.Pieces is { } pieces
        ? Math.Max(1, (int)Math.Round((decimal)pieces * portions / yield.Portions, MidpointRounding.AwayFromZero))
        : null;

    /// <summary>Cooked by raw weight of the last batches of a recipe that are packed; null where there is none.</summary>
    public async Task<UsualYield?> UsualYieldAsync(Guid recipeId) => UsualYield.Of((await EarlierAsync([recipeId]))[recipeId]);

    // The yields of the last batches of each recipe; one that is cooked often leaves the others theirs.
    private async Task<Dictionary<Guid, List<decimal>>> EarlierAsync(List<Guid> recipeIds)
    {
        var yields = new Dictionary<Guid, List<decimal>>();
        foreach (var id in recipeIds)
        {
            yields[id] = await db.Batches.AsNoTracking()
                .Where(row => row.RecipeId == id && row.State == BatchState.Packed && row.Yield != null)
                .OrderByDescending(row => row.CookedOn).ThenByDescending(row => row.Id).Take(EarlierBatches).Select(row => row.Yield!.Value)
                .ToListAsync();
        }

        return yields;
    }

    private Task<IReadOnlyDictionary<long, Food>> StoredAsync(IEnumerable<BatchLineRow> lines) =>
        records.ReadAsync(lines.SelectMany(line => FoodsOf(line.Planned).Concat(FoodsOf(line.Really))));

    private static Contents SumOf(IEnumerable<BatchLineRow> lines, IReadOnlyDictionary<long, Food> stored) =>
        BatchLine.Sum(lines.OrderBy(line => line.Position).Select(line => LineOf(line, stored)));

    private static IEnumerable<long> FoodsOf(StoredContents? contents) => contents?.Parts.Select(part => part.Food) ?? [];

    private static BatchLine LineOf(BatchLineRow line, IReadOnlyDictionary<long, Food> stored) => new(
        line.Text, line.IsTakenOut, Read(line.Planned, stored), line.ReallyText, line.Really is { } really ? Read(really, stored) : null);

    private static Contents Read(StoredContents contents, IReadOnlyDictionary<long, Food> stored) => new(
        [.. contents.Parts.Select(part => new Ingredient(stored[part.Food], new(part.Grams), part.IsTrace))], contents.SomethingUnread);
}
