using System.Globalization;
using LivelyTern.Core.Aim;
using LivelyTern.Core.Cook;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using LivelyTern.Data.Aim;
using LivelyTern.Data.Cook;
using LivelyTern.Data.Foods;
using LivelyTern.Data.Plan;
using LivelyTern.Data.Recipes;
using Microsoft.Data.Sqlite;

namespace LivelyTern.Data.Migrations.TakeOver;

/// <summary>
/// Batches, boxes and what lies on days go over from the shape they had before they had a state of their own: what was guessed from counts
/// and nulls is written down, foods become records that are kept once, weights whole milligrams.
/// </summary>
internal sealed class ThingsWithALife(SqliteConnection connection, SqliteTransaction transaction)
{
    private readonly HashSet<long> kept = [];

    public void Run()
    {
        TakeFoodsOver();
        TakeRecipesAndEatersOver();
        TakeBatchesOver();
        TakeBoxesOver();
        TakeItemsOver();
        TakeChangesOver();
        Execute("""
            DROP TABLE "PlanItems"; ALTER TABLE "NewPlanItems" RENAME TO "PlanItems";
            DROP TABLE "Boxes"; ALTER TABLE "NewBoxes" RENAME TO "Boxes";
            DROP TABLE "Batches"; ALTER TABLE "NewBatches" RENAME TO "Batches";
            CREATE INDEX "IX_Batches_RecipeId_CookedOn" ON "Batches" ("RecipeId", "CookedOn");
            CREATE INDEX "IX_Batches_State" ON "Batches" ("State");
            CREATE INDEX "IX_Boxes_BatchId" ON "Boxes" ("BatchId");
            CREATE INDEX "IX_Boxes_ForId" ON "Boxes" ("ForId");
            CREATE INDEX "IX_Boxes_State" ON "Boxes" ("State");
            CREATE INDEX "IX_PlanItems_BatchId" ON "PlanItems" ("BatchId");
            CREATE UNIQUE INDEX "IX_PlanItems_BoxId" ON "PlanItems" ("BoxId");
            CREATE INDEX "IX_PlanItems_Day" ON "PlanItems" ("Day");
            CREATE INDEX "IX_PlanItems_EaterId_Day" ON "PlanItems" ("EaterId", "Day");
            CREATE INDEX "IX_PlanItems_FoodRecordId" ON "PlanItems" ("FoodRecordId");
            CREATE TRIGGER "BoxEvents_stay" BEFORE UPDATE ON "BoxEvents"
              BEGIN SELECT RAISE(ABORT, 'What happened to a box is not rewritten.'); END;
            CREATE TRIGGER "BoxEvents_remain" BEFORE DELETE ON "BoxEvents"
              BEGIN SELECT RAISE(ABORT, 'What happened to a box is not taken out.'); END;
            """);
    }

    private void TakeFoodsOver()
    {
        foreach (var row in Rows("SELECT Id, Food FROM Foods"))
        {
            var food = OldShapes.Read<OldShapes.OldFood>(row.Text(1)!);
            var stored = StoredJson.Write(food.ToStored(KeepingWords.Of(food.Name, food.Group)));
            Execute("UPDATE Foods SET Food = $food WHERE Id = $id", ("$food", stored), ("$id", row.Text(0)));
        }
    }

    private void TakeRecipesAndEatersOver()
    {
        Rewrite<OldShapes.OldPan>("Recipes", "Pan", pan => StoredJson.Write(pan.ToStored()));
        Rewrite<List<OldShapes.OldStep>>(
            "Recipes", "Steps", steps => StoredJson.Write(new StoredSteps(1, [.. steps.Select(step => step.ToStored())])));
        Rewrite<List<OldShapes.OldVariantChange>>(
            "Recipes", "Changes", all => StoredJson.Write(new StoredVariant(1, [.. all.Select(one => one.ToStored())])));
        Rewrite<OldShapes.OldRecipe>("RecipeVersions", "Written", recipe => StoredJson.Write(recipe.ToStored()));
        Rewrite<Dictionary<Measure, OldShapes.OldTotal>>("RecipeVersions", "Portion", totals => StoredJson.Write(new StoredPortionTotals(
            1, totals.ToDictionary(one => one.Key, one => new StoredTotal(one.Value.AtLeast, one.Value.IsComplete)))));
        Rewrite<OldShapes.OldWays>("Eaters", "Ways", ways => StoredJson.Write(ways.ToStored()));
        Rewrite<OldShapes.OldBody>("Eaters", "Body", body => StoredJson.Write(body.ToStored()));
    }

    private void Rewrite<TOld>(string table, string column, Func<TOld, string> anew)
    {
        foreach (var row in Rows($"SELECT Id, {column} FROM {table} WHERE {column} IS NOT NULL"))
        {
            var stored = string.Equals(row.Text(1), "null", StringComparison.Ordinal) ? null : anew(OldShapes.Read<TOld>(row.Text(1)!));
            Execute($"UPDATE {table} SET {column} = $stored WHERE Id = $id", ("$stored", stored), ("$id", row.Text(0)));
        }
    }

    private void TakeBatchesOver()
    {
        var boxes = Rows("SELECT BatchId, Grams, Pieces FROM Boxes").ToLookup(row => row.Text(0)!, StringComparer.Ordinal);
        var rows = Rows("""
            SELECT Id, RecipeId, RecipeName, Letters, Tint, IsAhead, CookedOn, Portions, Contents, PanGrams, FullGrams, Version FROM Batches
            """);
        foreach (var row in rows)
        {
            var contents = OldShapes.Read<OldShapes.OldContents>(row.Text(8)!);
            var (pan, full) = (row.Number(9), row.Number(10));
            var cooked = full - pan is > 0 and var weight ? new Grams(weight) : (Grams?)null;
            var own = boxes[row.Text(0)!].ToList();
            var notPacked = row.Number(5) == 1 ? BatchState.Planned : cooked is null ? BatchState.Cooking : BatchState.Cooked;
            var state = own.Count > 0 ? BatchState.Packed : notPacked;
            var counted = own.Find(box => box.Number(2) is not null && box.Number(1) > 0);
            int? pieces = counted is null || cooked is null
                ? null
                : (int)Math.Round(cooked.Value.Value * counted.Number(2)!.Value / counted.Number(1)!.Value);
            var raw = new Grams(contents.Ingredients.Sum(part => part.Weight.Value));
            Execute(
                """
                INSERT INTO NewBatches (
                    Id, RecipeId, RecipeName, Letters, Tint, State, CookedOn, Portions, PanMilligrams, CookedMilligrams, Yield, Pieces,
                    Version)
                VALUES ($id, $recipe, $name, $letters, $tint, $state, $on, $portions, $pan, $cooked, $yield, $pieces, $version)
                """,
                ("$id", row.Text(0)), ("$recipe", row.Text(1)), ("$name", row.Text(2)), ("$letters", row.Text(3)), ("$tint", row.Number(4)),
                ("$state", state.ToString()), ("$on", row.Text(6)), ("$portions", row.Number(7)),
                ("$pan", pan is { } empty ? Milligrams.Of(new(empty)) : null),
                ("$cooked", cooked is { } known ? Milligrams.Of(known) : null), ("$yield", BatchStore.YieldOf(raw, cooked)),
                ("$pieces", pieces), ("$version", row.Number(11)));
            for (var i = 0; i < contents.Ingredients.Count; i++) AddLine(row.Text(0)!, i, contents.Ingredients[i]);
            if (contents.SomethingUnread) AddLine(row.Text(0)!, contents.Ingredients.Count, null);
        }
    }

    // Which line of the recipe brought it was not written down then: each food is a line of its own, and what was not understood is
    // another.
    private void AddLine(string batch, int position, OldShapes.OldIngredient? part)
    {
        StoredPart[] parts = part is null ? [] : [new(Keep(part.Food), part.Weight.Value, part.IsTrace)];
        var stored = new StoredContents(StoredContents.Shape, parts, SomethingUnread: part is null);
        Execute(
            "INSERT INTO BatchLines (BatchId, Position, Text, IsTakenOut, Planned) VALUES ($batch, $position, $text, $out, $planned)",
            ("$batch", batch), ("$position", position), ("$text", part?.Food.Name ?? "?"), ("$out", part?.Weight.Value < 0),
            ("$planned", StoredJson.Write(stored)));
    }

    private void TakeBoxesOver()
    {
        var laid = Rows("SELECT BoxId, EaterId, EatenAt FROM PlanItems WHERE BoxId IS NOT NULL")
            .ToDictionary(row => row.Text(0)!, StringComparer.Ordinal);
        var rows = Rows("""
            SELECT x.Id, x.BatchId, x.Number, x.Grams, x.Pieces, b.CookedOn FROM Boxes x JOIN Batches b ON b.Id = x.BatchId
            """);
        foreach (var row in rows)
        {
            var item = laid.GetValueOrDefault(row.Text(0)!);
            var eatenAt = item?.Number(2);
            Execute(
                """
                INSERT INTO NewBoxes (Id, BatchId, Number, State, Place, PlacedOn, ForId, Version)
                VALUES ($id, $batch, $number, $state, 'Fridge', $on, $for, 1)
                """,
                ("$id", row.Text(0)), ("$batch", row.Text(1)), ("$number", row.Number(2)),
                ("$state", (eatenAt is null ? BoxState.Packed : BoxState.Eaten).ToString()), ("$on", row.Text(5)), ("$for", item?.Text(1)));
            Execute(
                "INSERT INTO BoxParts (BoxId, Position, BatchId, Milligrams, Pieces) VALUES ($id, 0, $batch, $weight, $pieces)",
                ("$id", row.Text(0)), ("$batch", row.Text(1)), ("$weight", Milligrams.Of(new(row.Number(3) ?? 0))),
                ("$pieces", row.Number(4)));
            var packedOn = DateOnly.Parse(row.Text(5)!, CultureInfo.InvariantCulture);
            var packedAt = new DateTimeOffset(packedOn, TimeOnly.MinValue, TimeSpan.Zero).UtcTicks;
            AddEvent(row, packedAt, BoxEventKind.Packed, BoxState.Packed, item?.Text(1));
            if (eatenAt is { } at) AddEvent(row, (long)at, BoxEventKind.Eaten, BoxState.Eaten, item!.Text(1));
        }
    }

    private void AddEvent(Row box, long at, BoxEventKind kind, BoxState state, string? eater) => Execute(
        "INSERT INTO BoxEvents (BoxId, At, Kind, State, Place, PlacedOn, ForId) VALUES ($id, $at, $kind, $state, 'Fridge', $on, $for)",
        ("$id", box.Text(0)), ("$at", at), ("$kind", kind.ToString()), ("$state", state.ToString()), ("$on", box.Text(5)), ("$for", eater));

    private void TakeItemsOver()
    {
        Execute("""
            INSERT INTO NewPlanItems (
              Id, EaterId, Day, Position, BoxId, BatchId, Milligrams, Text, FoodRecordId, FoodGrams, FoodIsTrace, EatenAt, Slot,
              IsLocked, IsFitted, GiveOrTake, NeverAnswered)
            SELECT Id, EaterId, Day, Position, BoxId, BatchId, CAST(round(Grams * 1000) AS INTEGER), Text, NULL, NULL, 0, EatenAt, Slot,
              IsLocked, IsFitted, GiveOrTake, NeverAnswered FROM PlanItems
            """);
        foreach (var row in Rows("SELECT Id, Food FROM PlanItems WHERE Food IS NOT NULL"))
        {
            if (row.Text(1) is not { } text || string.Equals(text, "null", StringComparison.Ordinal)) continue;
            var food = OldShapes.Read<OldShapes.OldIngredient>(text);
            Execute(
                "UPDATE NewPlanItems SET FoodRecordId = $record, FoodGrams = $grams, FoodIsTrace = $trace WHERE Id = $id",
                ("$record", Keep(food.Food)), ("$grams", food.Weight.Value), ("$trace", food.IsTrace), ("$id", row.Text(0)));
        }
    }

    private void TakeChangesOver()
    {
        foreach (var row in Rows("SELECT Id, Change FROM PlanChanges"))
        {
            var old = OldShapes.Read<OldShapes.OldChange>(row.Text(1)!);
            StoredDayChange Day(OldShapes.OldDay day) =>
                new(day.Where.EaterId, day.Where.Day, [.. day.Before.Select(ItemOf)], [.. day.After.Select(ItemOf)]);
            var stored = new StoredPlanChange(StoredPlanChange.Shape, [.. old.Days.Select(Day)], []);
            Execute("UPDATE PlanChanges SET Change = $change WHERE Id = $id", ("$change", StoredJson.Write(stored)), ("$id", row.Text(0)));
        }
    }

    private StoredPlanItem ItemOf(OldShapes.OldItem item) => new(
        item.Id, item.BoxId, item.Portion is { } portion ? new(portion.BatchId, Milligrams.Of(new(portion.Weight.Value))) : null,
        item.Food is { } food ? new(item.Text, Keep(food.Food), food.Weight.Value, food.IsTrace, item.GiveOrTake) : null,
        item.EatenAt, item.Slot, item.IsLocked, item.IsFitted);

    private long Keep(OldShapes.OldFood food)
    {
        var record = FoodRecords.RowOf(food.ToStored(food.KeepingThen));
        if (kept.Add(record.Id))
            Execute("INSERT OR IGNORE INTO FoodRecords (Id, Stored) VALUES ($id, $stored)", ("$id", record.Id), ("$stored", record.Stored));
        return record.Id;
    }

    private List<Row> Rows(string sql)
    {
        using var command = Command(sql);
        using var reader = command.ExecuteReader();
        var rows = new List<Row>();
        while (reader.Read())
        {
            var values = new object[reader.FieldCount];
            reader.GetValues(values);
            rows.Add(new(values));
        }

        return rows;
    }

    private void Execute(string sql, params (string Name, object? Value)[] values)
    {
        using var command = Command(sql);
        foreach (var (name, value) in values) command.Parameters.AddWithValue(name, value ?? DBNull.Value);
        command.ExecuteNonQuery();
    }

    private SqliteCommand Command(string sql)
    {
        var command = connection.CreateCommand();
        (command.Transaction, command.CommandText) = (transaction, sql);
        return command;
    }

    private sealed class Row(object[] values)
    {
        public string? Text(int column) => values[column] is DBNull ? null : Convert.ToString(values[column], CultureInfo.InvariantCulture);

        public decimal? Number(int column) =>
            values[column] is DBNull ? null : Convert.ToDecimal(values[column], CultureInfo.InvariantCulture);
    }
}
