using System.Text.Json.Nodes;
using Microsoft.Data.Sqlite;

namespace LivelyTern.Soak.Commands;

/// <summary>
/// What holds after every command, whatever it was: nothing is lost, doubled or changed that nobody touched, and nothing comes onto a day
/// that its eater must never get.
/// </summary>
/// <param name="house">The house.</param>
/// <param name="data">Its file.</param>
/// <param name="hands">What was done to it.</param>
public sealed class Invariants(Asker house, string data, Hands hands)
{
    private const decimal Milligram = 0.001m;

    // The spread as it was first seen on a day, by item: whether its label named milk then.
    private readonly Dictionary<string, bool> spreads = new(StringComparer.Ordinal);
    private List<string> ledger = [];

    /// <summary>Looks whether all of it holds after a command.</summary>
    /// <exception cref="InvalidOperationException">Something does not.</exception>
    public async Task HoldAsync(Seen before, Seen after)
    {
        StatesFollowEvents(data);
        BoxesAreWhole(before, after, await BatchesAsync());
        PortionsAreOfBatches(after);
        NothingExcludedCame(before.Items, after.Items);
        LedgerHolds(after.Items);
    }

    /// <summary>
    /// How a box stands is what its last event says, the eaten ones are those that lie on days as eaten, and a batch with boxes is packed.
    /// </summary>
    /// <param name="data">The household's file.</param>
    public static void StatesFollowEvents(string data)
    {
        var wrong = Ask(data, """
            SELECT 'box ' || x.Id FROM Boxes x JOIN BoxEvents e ON e.Id = (SELECT max(last.Id) FROM BoxEvents last WHERE last.BoxId = x.Id)
            WHERE (x.State, x.Place, x.PlacedOn, ifnull(x.FrozenOn, ''), ifnull(x.ForId, ''))
              IS NOT (e.State, e.Place, e.PlacedOn, ifnull(e.FrozenOn, ''), ifnull(e.ForId, ''))
            UNION ALL SELECT 'no event ' || Id FROM Boxes WHERE NOT EXISTS (SELECT 1 FROM BoxEvents WHERE BoxId = Boxes.Id)
            UNION ALL SELECT 'eaten ' || Id FROM
              (SELECT x.Id, x.State, w.Milligrams AS Weight, ifnull((SELECT sum(ifnull(i.Milligrams, w.Milligrams)) FROM PlanItems i
                WHERE i.BoxId = x.Id AND i.EatenAt IS NOT NULL), 0) AS Eaten
              FROM Boxes x JOIN (SELECT BoxId, sum(Milligrams) AS Milligrams FROM BoxParts GROUP BY BoxId) w ON w.BoxId = x.Id)
              WHERE State IN ('Packed', 'PartEaten', 'Eaten')
                AND State <> CASE WHEN Eaten = 0 THEN 'Packed' WHEN Eaten < Weight THEN 'PartEaten' ELSE 'Eaten' END
            UNION ALL SELECT 'gone ' || x.Id FROM Boxes x JOIN PlanItems i ON i.BoxId = x.Id
              WHERE x.State NOT IN ('Packed', 'PartEaten', 'Eaten')
                AND (x.State = 'EmptiedBack' OR i.Milligrams IS NULL OR i.EatenAt IS NULL)
            UNION ALL SELECT 'whose ' || x.Id FROM Boxes x WHERE x.State IN ('Packed', 'PartEaten', 'Eaten') AND NOT CASE
              WHEN EXISTS (SELECT 1 FROM PlanItems i WHERE i.BoxId = x.Id AND (i.EatenAt IS NULL OR x.State = 'Eaten'))
              THEN x.ForId IN (SELECT i.EaterId FROM PlanItems i WHERE i.BoxId = x.Id AND (i.EatenAt IS NULL OR x.State = 'Eaten'))
              ELSE x.ForId IS NULL END
            UNION ALL SELECT 'batch ' || b.Id FROM Batches b
              WHERE (b.State = 'Packed') IS NOT EXISTS (SELECT 1 FROM Boxes WHERE BatchId = b.Id AND State <> 'EmptiedBack')
            UNION ALL SELECT 'weight ' || b.Id FROM Batches b
              WHERE b.State IN ('Cooked', 'Packed') AND (b.CookedMilligrams IS NULL OR b.Yield IS NULL)
            UNION ALL SELECT 'grams ' || b.Id FROM Batches b WHERE b.State = 'Packed' AND b.CookedMilligrams + 1000 <
              (SELECT sum(p.Milligrams) FROM BoxParts p JOIN Boxes x ON x.Id = p.BoxId WHERE p.BatchId = b.Id AND x.State <> 'EmptiedBack')
            """);
        Must(wrong.Count == 0, $"The file says otherwise: {string.Join(", ", wrong)}");
    }

    // The ledger only grows, and what stands of it is what lies on days as eaten.
    private void LedgerHolds(IReadOnlyList<Laid> items)
    {
        var entries = Ask(data, "SELECT Id || ItemId || EaterId || Day || EatenAt || Measures || coalesce(CorrectsId, '') FROM Entries");
        var known = entries.ToHashSet(StringComparer.Ordinal);
        Must(ledger.TrueForAll(known.Contains), "An entry of what was eaten was changed.");
        ledger = entries;
        var standing = Ask(data, """
            SELECT lower(ItemId) || ' ' || Day FROM Entries entry
            WHERE NOT IsTakenBack AND NOT EXISTS (SELECT 1 FROM Entries other WHERE other.CorrectsId = entry.Id)
            """);
        var eaten = items.Where(item => item.IsEaten).Select(item => $"{item.Id} {item.Day}").Order(StringComparer.Ordinal);
        Must(eaten.SequenceEqual(standing.Order(StringComparer.Ordinal)), "The ledger says otherwise than the days.");
    }

    private void NothingExcludedCame(IReadOnlyList<Laid> before, IReadOnlyList<Laid> after)
    {
        // What is marked lay there before the mark, on that very day, as that very thing.
        foreach (var item in after.Where(item => item.IsNever))
        {
            Must(before.Any(old => (old.Id, old.Eater, old.Day, old.Box, old.Batch) == (item.Id, item.Eater, item.Day, item.Box, item.Batch)
                || (old.Id == item.Id && old.Batch != item.Batch)), $"What is excluded came onto a day: {item}");
        }

        // And the mark is right, judged here by what the label said then and says now.
        foreach (var item in after.Where(item => item.Text?.Contains("spread", StringComparison.Ordinal) == true))
        {
            var isOld = hands.HasCopied && !spreads.ContainsKey(item.Id) && spreads.ContainsValue(value: true);
            var hadMilk = spreads[item.Id] = spreads.GetValueOrDefault(item.Id) || hands.SpreadHasMilk || isOld;
            var isCareful = hands.Careful.Contains(item.Eater);
            if (!item.IsEaten && isCareful && hands.SpreadHasMilk) Must(item.IsNever, $"No mark: {item}");
            if (!hadMilk || !isCareful) Must(!item.IsNever, $"A mark: {item}");
        }
    }

    private async Task<List<(string Id, JsonNode Batch)>> BatchesAsync()
    {
        var batches = new List<(string, JsonNode)>();
        foreach (var id in hands.Batches) batches.Add((id, await house.GetAsync($"/api/pack/batches/{id}")));
        return batches;
    }

    private static void BoxesAreWhole(Seen before, Seen after, List<(string Id, JsonNode Batch)> batches)
    {
        // Of each box what lies on days, in one piece or in parts, and what is on the shelf is all that is in it; of one that was given or
        // thrown away only what was eaten of it before.
        var laid = after.Items.Where(item => item.Box is not null).ToLookup(item => item.Box!, StringComparer.Ordinal);
        var shelf = new Dictionary<string, decimal?>(StringComparer.Ordinal);
        foreach (var group in after.Week["shelf"]!.AsArray())
        {
            var left = (bool)group!["isRest"]! ? (decimal?)group["grams"]! : null;
            foreach (var id in group["boxIds"]!.AsArray()) shelf.Add((string)id!, left);
        }

        foreach (var (id, batch) in batches)
        {
            var boxes = batch["boxes"]!.AsArray();
            foreach (var box in boxes)
            {
                var (boxId, all) = ((string)box!["id"]!, (decimal)box["grams"]!);
                var onDays = laid[boxId].Sum(item => item.Grams);
                var onShelf = shelf.TryGetValue(boxId, out var rest) ? rest ?? all : 0;
                Must((string?)box["state"] is "packed" or "partEaten" or "eaten"
                    ? Math.Abs(onDays + onShelf - all) <= Milligram
                    : onDays < all && !shelf.ContainsKey(boxId) && laid[boxId].All(item => item.IsEaten),
                    $"{onDays} g on days and {onShelf} g on the shelf of {box}");
            }

            // No gram of a packed batch is lost but those that are said to be over.
            if (boxes.Count > 0)
            {
                var inBoxes = boxes.Sum(box => (decimal)box!["grams"]!);
                Must(inBoxes <= (decimal)batch["fullGrams"]! - (decimal)batch["panGrams"]! + Milligram, $"{inBoxes} g in boxes of {batch}");
            }

            var portions = after.Items.Count(item => item.Batch == id);
            Must(batch["planned"]!.AsArray().Count == (boxes.Count > 0 ? 0 : portions), $"{portions} portions on days of {batch}");
        }

        // What was eaten stays on its day, eaten or not eaten any more; it leaves only by an undo.
        foreach (var eaten in before.Items.Where(item => item.IsEaten))
        {
            var still = after.Items.SingleOrDefault(item => item.Id == eaten.Id);
            Must(still is null || (eaten.Day, eaten.Eater) == (still.Day, still.Eater), $"{eaten} moved to {still}");
        }
    }

    // A portion is of a batch that is not packed, on no day before it is cooked, and never eaten.
    private static void PortionsAreOfBatches(Seen after)
    {
        var unpacked = after.Week["unpacked"]!.AsArray()
            .ToDictionary(batch => (string)batch!["batchId"]!, batch => batch!, StringComparer.Ordinal);
        foreach (var portion in after.Items.Where(item => item.Batch is not null))
        {
            Must(!portion.IsEaten, $"Eaten before it is packed: {portion}");
            var batch = unpacked[portion.Batch!];
            Must((string?)batch["state"] != "planned" || string.CompareOrdinal(portion.Day, (string)batch["cookedOn"]!) >= 0,
                $"Before it is cooked: {portion}");
        }

        foreach (var (id, batch) in unpacked)
        {
            var onDays = after.Items.Where(item => item.Batch == id).Sum(item => item.Grams);
            Must((decimal)batch["grams"]! - (decimal)batch["leftGrams"]! == onDays, $"{onDays} g on days of {batch}");
        }
    }

    private static void Must(bool holds, string otherwise)
    {
        if (!holds) throw new InvalidOperationException(otherwise);
    }

    private static List<string> Ask(string data, string sql)
    {
        using var connection = new SqliteConnection($"Data Source={data};Mode=ReadOnly;Pooling=False");
        connection.Open();
        using var command = connection.CreateCommand();
        command.CommandText = sql;
        using var reader = command.ExecuteReader();
        var rows = new List<string>();
        while (reader.Read()) rows.Add(reader.GetString(0));
        return rows;
    }
}
