using System.Text.Json.Nodes;

namespace LivelyTern.Web.Tests;

/// <summary>
/// Long random days at the real host, by fixed seeds: boxes, portions and foods are laid, moved, sized, locked, eaten, taken off, packed,
/// emptied back
/// and undone, labels, recipes and exclusions changed, in any order. Whatever is answered, nothing is lost, doubled or changed that nobody
/// touched, and
/// nothing comes onto a day that its eater must never get.
/// </summary>
public sealed class ManyHandsTests
{
    private const string Monday = "2026-11-23";
    // Today often: nothing is eaten on the others.
    private static readonly string[] Days = ["2026-11-25", "2026-11-25", "2026-11-25", "2026-11-26", "2026-11-27", "2026-11-28", "2026-11-29"];

    private sealed record Item(string Id, string Eater, string Day, string? Box, string? Batch, decimal Grams, bool IsEaten, string? Text,
        bool IsNever);

    private sealed class House(Host host, Random chance)
    {
        public List<string> Eaters { get; } = [];

        public List<string> Batches { get; } = [];

        public List<string> Changes { get; } = [];

        /// <summary>A spread whose label names milk, or does not.</summary>
        public required string Spread { get; init; }

        public required string Recipe { get; init; }

        public bool SpreadHasMilk { get; private set; }

        /// <summary>The eaters who must never get milk, now.</summary>
        public HashSet<string> Careful { get; } = [];

        public static object Label(bool hasMilk) => new
        {
            name = "House spread",
            group = "fats",
            allergens = hasMilk ? new[] { "milk" } : [],
            label = new { basis = "per100g", servingGrams = (decimal?)null, convention = "total", kilocalories = 300 },
        };

        public T Any<T>(IReadOnlyList<T> of) => of[chance.Next(of.Count)];

        public async Task<(List<Item> Items, JsonNode Week)> LookAsync()
        {
            var week = await host.GetAsync($"/api/plan/weeks/{Monday}");
            return ([.. week["eaters"]!.AsArray().SelectMany(eater =>
                eater!["days"]!.AsArray().SelectMany(day => day!["items"]!.AsArray().Select(item => new Item(
                (string)item!["id"]!, (string)eater["eaterId"]!, (string)day["day"]!, (string?)item["boxId"], (string?)item["batchId"],
                    (decimal)item["grams"]!, item["eatenAt"] is not null, (string?)item["text"], item["never"] is not null))))], week);
        }

        public async Task<(int Status, JsonNode Body)> StepAsync(List<Item> items, JsonNode week)
        {
            var version = (int)week["version"]!;
            var (eater, day) = (Any(Eaters), Any(Days));
            var item = items.Count > 0 ? Any(items) : null;
            var batch = Any(Batches);
            var shelf = week["shelf"]!.AsArray().SelectMany(group => group!["boxIds"]!.AsArray()).Select(id => (string)id!).ToList();
            switch (chance.Next(item is null ? 4 : 34))
            {
                case 0 when shelf.Count > 0:
                    return await host.SendAsync(HttpMethod.Post, "/api/plan/boxes",
                    new { boxId = Any(shelf), eaterId = eater, day, place = chance.Next(4) }, version);
                case 0 or 1:
                    return await host.SendAsync(HttpMethod.Post, "/api/plan/portions",
                    new { batchId = batch, eaterId = eater, day, grams = chance.Next(3) == 0 ? (decimal?)chance.Next(50, 400) : null },
                    version);
                case 2:
                    return await host.SendAsync(HttpMethod.Post, "/api/plan/foods", new { text = "1 apple", eaterId = eater, day },
                    version);
                case 3: return await BatchAsync(batch);
                case 4:
                    return await host.SendAsync(HttpMethod.Put, $"/api/plan/items/{item!.Id}/place",
                    new { eaterId = eater, day, place = chance.Next(4) }, version);
                case 5: return await host.SendAsync(HttpMethod.Delete, $"/api/plan/items/{item!.Id}", null, version);
                case 6:
                    return await host.SendAsync(HttpMethod.Put, $"/api/eat/items/{item!.Id}", new { eaten = chance.Next(3) > 0 },
                    version);
                case 7:
                    return await host.SendAsync(HttpMethod.Put, "/api/plan/portions",
                    new { batchId = batch, eaterId = eater, grams = chance.Next(0, 500) }, version);
                case 8:
                    return await host.SendAsync(HttpMethod.Put, $"/api/plan/items/{item!.Id}/lock",
                    new { isLocked = chance.Next(2) == 0 }, version);
                case 9: return await BatchAsync(batch);
                case 10:
                    return await host.SendAsync(HttpMethod.Put, $"/api/plan/items/{item!.Id}/amount", new { text = "2 apples" },
                    chance.Next(5) == 0 ? version - 1 : version);
                case 11: return await LabelAsync();
                case 12: return await NeverAsync(eater);
                case 13: return await RewriteAsync();
                case 14 or 15:
                    return await host.SendAsync(HttpMethod.Post, "/api/plan/foods",
                    new { text = "20 g house spread", eaterId = eater, day }, version);
                case 16:
                    return await host.SendAsync(HttpMethod.Put, $"/api/plan/items/{item!.Id}/amount",
                    new { text = "30 g house spread" }, version);
                case 17:
                    return await host.SendAsync(HttpMethod.Post, "/api/plan/copies",
                    new { eaterId = item!.Eater, day = item.Day, to = new[] { Any(Days), Any(Days) } }, version);
                case 18: return await MendAsync(eater, day, version);
                case 19: return await EatPartAsync(item!, version);
                case 20: return await BoxAsync(batch, version);
                case 21: return await BoxAsync(batch, version);
                case 22: return await WentInAsync(batch);
                case 23 or 24:
                    return await host.SendAsync(HttpMethod.Post, "/api/plan/entries",
                    new
                    {
                        text = Any(
                    ["1 apple and half an oat bake box", "2 oat bake boxes", "100 g oat bake; dinner 600 kcal", "20 g house spread"]),
                        eaterId = eater,
                        day,
                        eaten = chance.Next(2) == 0
                    }, version);
                case 25:
                    return await host.SendAsync(HttpMethod.Post, "/api/plan/guests",
                    new { eaterId = eater, day, guests = chance.Next(0, 4), batchId = batch }, version);
                case 26:
                    return await host.SendAsync(HttpMethod.Post, "/api/plan/holds",
                    new
                    {
                        eaterId = eater,
                        day,
                        measure = Any(["fat", "energy", "points"]),
                        amount = chance.Next(0, 400),
                        slot = Any(["evening", null])
                    }, version);
                case 27: return await host.SendAsync(HttpMethod.Post, $"/api/plan/items/{item!.Id}/freeze", null, version);
                case 28:
                    return await host.SendAsync(HttpMethod.Put, $"/api/aim/eaters/{eater}/away",
                    new { days = new[] { day }, isAway = chance.Next(2) == 0, slot = Any(["noon", null]) });
                case 29: return await EatOtherwiseAsync(item!, version);
                case 30:
                    return await host.SendAsync(HttpMethod.Post, $"/api/eat/items/{item!.Id}/shared",
                    new { withEaterId = eater, share = chance.Next(0, 11) / 10m }, version);
                case 31:
                    return await host.SendAsync(HttpMethod.Post, "/api/eat/again",
                    new { itemIds = new[] { item!.Id, Any(items).Id }, eaterId = eater, day, eaten = chance.Next(3) > 0 }, version);
                case 32: return await host.SendAsync(HttpMethod.Post, $"/api/eat/corrections/{batch}");
                default:
                    return Changes.Count > 0
                    ? await host.SendAsync(HttpMethod.Post, $"/api/plan/changes/{Any(Changes)}/undo", "") : (0, JsonValue.Create(0));
            }
        }

        private Task<(int Status, JsonNode Body)> EatPartAsync(Item item, int version) =>
            host.SendAsync(HttpMethod.Put, $"/api/eat/items/{item.Id}", new { eaten = true, grams = chance.Next(-5, 300) }, version);

        private Task<(int Status, JsonNode Body)> EatOtherwiseAsync(Item item, int version)
        {
            object how = chance.Next(2) == 0
                ? new { eaten = true, times = chance.Next(0, 25) / 10m }
                : new { eaten = true, amount = Any(["half", "a serving and a half", "120 g", "3 boxes", "much"]) };
            return host.SendAsync(HttpMethod.Put, $"/api/eat/items/{item.Id}", how, version);
        }

        private async Task<(int Status, JsonNode Body)> LabelAsync()
        {
            var path = $"/api/foods/{Uri.EscapeDataString(Spread)}";
            var answer = await host.SendAsync(HttpMethod.Put, path, Label(!SpreadHasMilk), (int)(await host.GetAsync(path))["version"]!);
            SpreadHasMilk = !SpreadHasMilk;
            return answer;
        }

        private async Task<(int Status, JsonNode Body)> NeverAsync(string eater)
        {
            if (!Careful.Remove(eater)) Careful.Add(eater);
            var row = (await host.GetAsync("/api/aim/eaters")).AsArray().Single(one => (string?)one!["id"] == eater)!;
            var body = new
            {
                name = row["name"],
                aim = row["aim"],
                ways = new { neverAllergens = Careful.Contains(eater) ? new[] { "milk" } : [] }
            };
            return await host.SendAsync(HttpMethod.Put, $"/api/aim/eaters/{eater}", body, (int)row["version"]!);
        }

        private async Task<(int Status, JsonNode Body)> RewriteAsync()
        {
            var row = await host.GetAsync($"/api/recipes/{Recipe}");
            string[] lines = ["400 g rolled oats", Any(["4 eggs", "100 g butter", "100 g house spread"])];
            return await host.SendAsync(HttpMethod.Put, $"/api/recipes/{Recipe}", new { name = "Oat bake", lines, portions = 4 },
                (int)row["version"]!);
        }

        private async Task<(int Status, JsonNode Body)> MendAsync(string eater, string day, int version)
        {
            var mends = (await host.GetAsync($"/api/plan/days/{eater}/{day}"))["mends"]!.AsArray();
            var made = mends.Count == 0 ? "none" : (string)Any([.. mends])!["id"]!;
            return await host.SendAsync(HttpMethod.Post, $"/api/plan/days/{eater}/{day}/mends", new { id = made }, version);
        }

        private List<string> Some(JsonArray boxes) =>
            [.. Enumerable.Range(0, chance.Next(1, 4)).Select(_ => (string)Any([.. boxes])!["id"]!).Distinct(StringComparer.Ordinal)];

        // Put somewhere, eaten, given away, thrown away, one or some: also what is eaten or gone, which is refused.
        private async Task<(int Status, JsonNode Body)> BoxAsync(string id, int version)
        {
            var boxes = (await host.GetAsync($"/api/pack/batches/{id}"))["boxes"]!.AsArray();
            if (boxes.Count == 0) return (0, JsonValue.Create(0));
            var box = Any([.. boxes])!;
            return chance.Next(7) switch
            {
                0 => await host.SendAsync(HttpMethod.Post, $"/api/plan/boxes/{box["id"]}/given-away", null, version),
                1 => await host.SendAsync(HttpMethod.Post, $"/api/plan/boxes/{box["id"]}/thrown-away", null, version),
                2 => await host.SendAsync(HttpMethod.Post, "/api/keep/boxes/let-go",
                    new { boxIds = Some(boxes), isThrownAway = chance.Next(2) == 0, why = Any(["it went off", null]) }, version),
                3 => await host.SendAsync(HttpMethod.Post, "/api/keep/boxes/eaten",
                    new { boxIds = Some(boxes), eaterId = Any(Eaters), day = Any(Days) }, version),
                4 => await host.SendAsync(HttpMethod.Post, "/api/keep/boxes/still-there",
                    new { boxes = new[] { new { id = box["id"], version = (int)box["version"]! } } }),
                _ => await host.SendAsync(HttpMethod.Post, "/api/keep/boxes/put",
                    new
                    {
                        boxes = new[] { new { id = box["id"], version = (int)box["version"]! - (chance.Next(6) == 0 ? 1 : 0) } },
                        place = Any(["fridge", "freezer", "counter", "takenAlong"])
                    }),
            };
        }

        private async Task<(int Status, JsonNode Body)> WentInAsync(string id)
        {
            var batch = await host.GetAsync($"/api/cook/batches/{id}");
            return await host.SendAsync(HttpMethod.Put, $"/api/cook/batches/{id}/lines/{chance.Next(3)}",
                new { text = Any(["", "300 g rolled oats", "100 g butter", null]) }, (int)batch["version"]!);
        }

        // Cooked, packed, emptied back, planned larger: whatever the batch is ready for, and what it is not.
        private async Task<(int Status, JsonNode Body)> BatchAsync(string id)
        {
            var batch = await host.GetAsync($"/api/pack/batches/{id}");
            var version = (int)batch["version"]!;
            if ((string?)batch["state"] == "planned")
            {
                return chance.Next(2) == 0
                    ? await host.SendAsync(HttpMethod.Post, $"/api/cook/planned/{id}/cooked", null, version)
                    : await host.SendAsync(HttpMethod.Put, $"/api/cook/planned/{id}",
                        new { day = Any(Days), portions = chance.Next(1, 9) }, version);
            }

            if (chance.Next(4) == 0) return await host.SendAsync(HttpMethod.Put, $"/api/cook/batches/{id}/weight",
                new { fullGrams = chance.Next(700, 1300), panGrams = 100 }, version);
            return batch["boxes"]!.AsArray().Count > 0
                ? await host.SendAsync(HttpMethod.Delete, $"/api/pack/batches/{id}/boxes", null, version)
                : await host.SendAsync(HttpMethod.Post, $"/api/pack/batches/{id}/boxes",
                    new
                    {
                        fullGrams = chance.Next(700, 1300),
                        panGrams = 100,
                        boxes = chance.Next(1, 9),
                        pieces = chance.Next(3) == 0 ? (int?)chance.Next(4, 40) : null
                    }, version);
        }
    }

    public static TheoryData<int> Chances => Seeds.Or(1, 2, 3);

    [Theory]
    [MemberData(nameof(Chances))]
    public async Task Whatever_hands_do_nothing_is_lost_doubled_or_changed_behind_their_backs(int seed)
    {
        using var host = new Host();
        var chance = new Random(seed);
        var (first, recipe, _) = await host.LaidTableAsync();
        var spread = (string)(await host.PostAsync("/api/foods", House.Label(hasMilk: false)))["id"]!;
        var house = new House(host, chance) { Spread = spread, Recipe = recipe.ToString() };
        house.Eaters.Add(first.ToString());
        house.Eaters.Add(
            (string)(await host.PostAsync("/api/aim/eaters",
            new
            {
                name = "Bo",
                aim = new { leading = "energy", bands = new { energy = new { max = 2000 } }, rule = (object?)null }
            }))["id"]!);
        house.Batches.Add((string)(await host.GetAsync("/api/pack/batches"))[0]!["id"]!);
        foreach (var planned in (
            await host.PostAsync("/api/cook/planned",
            new
            {
                day = "2026-11-26",
                dishes = new[] { new { recipeId = recipe, portions = 4 }, new { recipeId = recipe, portions = 2 } }
            })).AsArray())
            house.Batches.Add((string)planned!["id"]!);

        var refused = 0;
        var spreads = new Dictionary<string, bool>(StringComparer.Ordinal);
        List<string> ledger = [];
        for (var step = 0; step < 120; step++)
        {
            var (before, week) = await house.LookAsync();
            var (status, answer) = await house.StepAsync(before, week);
            Assert.True(status is 0 or 200 or 404 or 409 or 412 or 422, $"{status} {answer}");
            var (after, now) = await house.LookAsync();
            if (status != 200)
            {
                // What is refused changes nothing at all, and says why.
                refused += status == 0 ? 0 : 1;
                Assert.Equal(week.ToJsonString(), now.ToJsonString());
                if (status > 0) Assert.False(string.IsNullOrWhiteSpace((string?)answer["detail"]));
                continue;
            }

            if (answer["id"] is { } change && answer["days"] is not null) house.Changes.Add((string)change!);
            await StatesFollowEventsAsync(host);
            await HoldsAsync(host, house, before, after, now);
            NothingExcludedCame(house, before, after, spreads);
            ledger = await LedgerHoldsAsync(host, ledger, after);
        }

        Assert.InRange(refused, 5, 100);
        await LookedBackOnAsync(host, house.Eaters);
        await TakenOutAndPutBackAsync(host);
    }

    // All of it in another house, from either kind of backup: equal table by table, and the week says the same.
    private static async Task TakenOutAndPutBackAsync(Host host)
    {
        var said = (await host.GetAsync($"/api/plan/weeks/{Monday}"))["eaters"]!.ToJsonString();
        foreach (var backup in new[] { await Backups.JsonOfAsync(host), await Backups.FileOfAsync(host) })
        {
            using var other = new Host();
            await Backups.PutBackAsync(other, backup);
            Backups.AreSame(host.Data, other.Data);
            Assert.Equal(said, (await other.GetAsync($"/api/plan/weeks/{Monday}"))["eaters"]!.ToJsonString());
        }
    }

    // A week later: planned and all differences are what was eaten, in every measure, and that is what the day itself says.
    private static async Task LookedBackOnAsync(Host host, List<string> eaters)
    {
        var copy = Path.Combine(Directory.CreateTempSubdirectory("tern-").FullName, "tern.db");
        await OldFile.AskAsync(host.Data, $"VACUUM INTO '{copy}'");
        using var later = new Host(copy, today: "2026-12-02");
        foreach (var eater in eaters)
        {
            var week = await later.GetAsync($"/api/review/week/{eater}/2026-11-25");
            var day = (await host.GetAsync($"/api/eat/{eater}/2026-11-25"))["day"]!;
            foreach (var (measure, one) in week["measures"]!.AsObject())
            {
                var by = week["causes"]!.AsArray().Sum(cause => (decimal?)cause!["by"]![measure]?["value"] ?? 0);
                Assert.Equal((decimal)one!["eatenOfPlanned"]!["value"]!, (decimal)one["planned"]!["value"]! + by, 9);
                Assert.Equal(
                    (decimal)day["eaten"]![measure]!["value"]!, (decimal)week["days"]![2]!["eaten"]![measure]!["value"]!, 9);
            }
        }
    }

    // How a box stands is what its last event says, the eaten ones are those that lie on days as eaten, and a batch with boxes is packed.
    internal static async Task StatesFollowEventsAsync(Host host)
    {
        var wrong = await OldFile.AskAsync(host.Data, """
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
            UNION ALL SELECT 'batch ' || b.Id FROM Batches b WHERE (b.State = 'Packed') IS NOT EXISTS (SELECT 1 FROM Boxes WHERE BatchId = b.Id AND State <> 'EmptiedBack')
            UNION ALL SELECT 'weight ' || b.Id FROM Batches b WHERE b.State IN ('Cooked', 'Packed') AND (b.CookedMilligrams IS NULL OR b.Yield IS NULL)
            UNION ALL SELECT 'grams ' || b.Id FROM Batches b WHERE b.State = 'Packed' AND b.CookedMilligrams + 1000 <
              (SELECT sum(p.Milligrams) FROM BoxParts p JOIN Boxes x ON x.Id = p.BoxId WHERE p.BatchId = b.Id AND x.State <> 'EmptiedBack')
            """);
        Assert.Empty(wrong);
    }

    // The ledger only grows, and what stands of it is what lies on days as eaten.
    private static async Task<List<string>> LedgerHoldsAsync(Host host, List<string> before, List<Item> items)
    {
        var entries = await OldFile.AskAsync(host.Data,
            "SELECT Id || ItemId || EaterId || Day || EatenAt || Measures || coalesce(CorrectsId, '') FROM Entries");
        Assert.Empty(before.Except(entries));
        var standing = await OldFile.AskAsync(host.Data, """
            SELECT lower(ItemId) || ' ' || Day FROM Entries entry
            WHERE NOT IsTakenBack AND NOT EXISTS (SELECT 1 FROM Entries other WHERE other.CorrectsId = entry.Id)
            """);
        Assert.Equal(items.Where(item => item.IsEaten).Select(item => $"{item.Id} {item.Day}").Order(StringComparer.Ordinal),
            standing.Order(StringComparer.Ordinal));
        return entries;
    }

    /// <param name="spreads">The spread as it was first seen on a day, by item: whether its label named milk then.</param>
    private static void NothingExcludedCame(House house, List<Item> before, List<Item> after, Dictionary<string, bool> spreads)
    {
        // What is marked lay there before the mark, on that very day, as that very thing.
        foreach (var item in after.Where(item => item.IsNever))
            Assert.Contains(before, old =>
                (old.Id, old.Eater, old.Day) == (item.Id, item.Eater, item.Day) && old.Box == item.Box && old.Batch == item.Batch
                || old.Id == item.Id && old.Batch != item.Batch);

        // And the mark is right, judged here by what the label said then and says now.
        foreach (var item in after.Where(item => item.Text?.Contains("spread", StringComparison.Ordinal) == true))
        {
            var hadMilk = spreads[item.Id] = spreads.GetValueOrDefault(item.Id) || house.SpreadHasMilk;
            if (!item.IsEaten && house.Careful.Contains(item.Eater) && house.SpreadHasMilk) Assert.True(item.IsNever, item.Text);
            if (!hadMilk || !house.Careful.Contains(item.Eater)) Assert.False(item.IsNever, item.Text);
        }
    }

    private static async Task HoldsAsync(Host host, House house, List<Item> before, List<Item> after, JsonNode week)
    {
        // Of each box what lies on days, in one piece or in parts, and what is on the shelf is all that is in it; of one that was given or
        // thrown away only what was eaten of it before.
        var laid = after.Where(item => item.Box is not null).ToLookup(item => item.Box!);
        var shelf = new Dictionary<string, decimal?>(StringComparer.Ordinal);
        foreach (var group in week["shelf"]!.AsArray())
        {
            var left = (bool)group!["isRest"]! ? (decimal?)group["grams"]! : null;
            foreach (var id in group["boxIds"]!.AsArray()) shelf.Add((string)id!, left);
        }

        foreach (var id in house.Batches)
        {
            var batch = await host.GetAsync($"/api/pack/batches/{id}");
            var boxes = batch["boxes"]!.AsArray();
            foreach (var box in boxes)
            {
                var (boxId, all, isThere) = (
                    (string)box!["id"]!, (decimal)box["grams"]!, (string?)box["state"] is "packed" or "partEaten" or "eaten");
                var onDays = laid[boxId].Sum(item => item.Grams);
                if (isThere)
                    Assert.InRange(onDays + (shelf.TryGetValue(boxId, out var rest) ? rest ?? all : 0), all - 0.001m, all + 0.001m);
                else Assert.True(onDays < all && !shelf.ContainsKey(boxId) && laid[boxId].All(item => item.IsEaten), $"{box}");
            }

            // No gram of a packed batch is lost but those that are said to be over.
            if (boxes.Count > 0) Assert.True(boxes.Sum(box =>
                (decimal)box!["grams"]!) <= (decimal)batch["fullGrams"]! - (decimal)batch["panGrams"]! + 0.001m);
            Assert.Equal(boxes.Count > 0 ? 0 : after.Count(item => item.Batch == id), batch["planned"]!.AsArray().Count);
        }

        // A portion is of a batch that is not packed, on no day before it is cooked, and never eaten.
        var unpacked = week["unpacked"]!.AsArray().ToDictionary(batch => (string)batch!["batchId"]!, batch => batch!);
        foreach (var portion in after.Where(item => item.Batch is not null))
        {
            Assert.False(portion.IsEaten);
            if ((string?)unpacked[portion.Batch!]["state"] == "planned") Assert.True(
                string.CompareOrdinal(portion.Day, (string)unpacked[portion.Batch!]["cookedOn"]!) >= 0);
        }

        foreach (var (id, batch) in unpacked)
            Assert.Equal((decimal)batch["grams"]! - (decimal)batch["leftGrams"]!,
                after.Where(item => item.Batch == id).Sum(item => item.Grams));

        // What was eaten stays on its day, eaten or not eaten any more; it leaves only by an undo.
        foreach (var eaten in before.Where(item => item.IsEaten))
        {
            var still = after.SingleOrDefault(item => item.Id == eaten.Id);
            if (still is not null) Assert.Equal((eaten.Day, eaten.Eater), (still.Day, still.Eater));
        }
    }

    [Fact]
    public async Task One_hand_packs_while_others_lay_and_size_and_every_portion_ends_as_one_box()
    {
        using var host = new Host();
        var (eater, recipe, _) = await host.LaidTableAsync();
        var planned =
            (await host.PostAsync("/api/cook/planned",
            new { day = "2026-11-25", dishes = new[] { new { recipeId = recipe, portions = 6 } } }))[0]!;
        var id = (string)planned["id"]!;
        var cooked = await host.PostAsync($"/api/cook/planned/{id}/cooked", null, (int)planned["version"]!);
        foreach (var day in Days.Distinct().Take(3)) await host.PostAsync("/api/plan/portions", new { batchId = id, eaterId = eater, day },
            await host.PlanVersionAsync());

        async Task<int> LayAsync(int i)
        {
            var version = await host.PlanVersionAsync();
            return i % 2 == 0
                ? (await host.SendAsync(HttpMethod.Post, "/api/plan/portions", new { batchId = id, eaterId = eater, day = Days[2 + (i % 5)] },
                    version)).Status
                : (await host.SendAsync(HttpMethod.Put, "/api/plan/portions", new { batchId = id, eaterId = eater, grams = 100 + i },
                    version)).Status;
        }

        var hands = Enumerable.Range(0, 8).Select(i => Task.Run(() => LayAsync(i))).ToList();
        var packing = Task.Run(async () =>
            (await host.SendAsync(HttpMethod.Post, $"/api/pack/batches/{id}/boxes", new { fullGrams = 1000, panGrams = 100, boxes = 12 },
            (int)cooked["version"]!)).Status);
        var statuses = await Task.WhenAll([.. hands, packing]);
        Assert.All(statuses, status =>
            Assert.True(status is 200 or 404 or 409 or 412 or 422, status.ToString(System.Globalization.CultureInfo.InvariantCulture)));
        if (await packing != 200) await host.PostAsync($"/api/pack/batches/{id}/boxes",
            new { fullGrams = 1000, panGrams = 100, boxes = 12 }, (int)(await host.GetAsync($"/api/pack/batches/{id}"))["version"]!);

        var week = await host.GetAsync($"/api/plan/weeks/{Monday}");
        var items = week["eaters"]!.AsArray().SelectMany(one => one!["days"]!.AsArray()).SelectMany(day =>
            day!["items"]!.AsArray()).ToList();
        Assert.InRange(items.Count, 3, 7);
        Assert.All(items, item => Assert.True(item!["boxId"] is not null && item["batchId"] is null));
        Assert.Equal(12, (await host.GetAsync($"/api/pack/batches/{id}"))["boxes"]!.AsArray().Count);
        Assert.Equal(items.Count, items.Select(item => (string)item!["boxId"]!).Distinct().Count());
    }

    [Fact]
    public async Task A_file_from_before_batches_were_planned_keeps_every_box_on_its_day()
    {
        var path = await OldFile.LayAsync("AimAndPlan", """
            INSERT INTO Eaters (Id, Name, Aim, ClinicianSetIt, Position, Version) VALUES ('01A00000-0000-7000-8000-0000000000E1', 'Isa', '{"leading":"energy","bands":{"energy":{"min":1450,"target":null,"max":1600}},"rule":null}', 0, 0, 1);
            INSERT INTO Recipes (Id, Name, Letters, Tint, Portions, ChangedAt, Version) VALUES ('01A00000-0000-7000-8000-0000000000A1', 'Old bake', 'OB', 0, 4, 0, 1);
            INSERT INTO Batches (Id, RecipeId, RecipeName, Letters, Tint, CookedOn, Portions, Contents, PanGrams, FullGrams, Version)
              VALUES ('01A00000-0000-7000-8000-0000000000B1', '01A00000-0000-7000-8000-0000000000A1', 'Old bake', 'OB', 0, '2026-11-24', 2, '{"ingredients":[],"somethingUnread":false}', '100', '700', 1);
            INSERT INTO Boxes (Id, BatchId, Number, Grams) VALUES ('01A00000-0000-7000-8000-0000000000C1', '01A00000-0000-7000-8000-0000000000B1', 1, '300'), ('01A00000-0000-7000-8000-0000000000C2', '01A00000-0000-7000-8000-0000000000B1', 2, '300');
            INSERT INTO PlanItems (Id, EaterId, Day, Position, BoxId, IsLocked, IsFitted) VALUES ('01A00000-0000-7000-8000-0000000000D1', '01A00000-0000-7000-8000-0000000000E1', '2026-11-26', 0, '01A00000-0000-7000-8000-0000000000C1', 1, 0);
            """);
        using var upgraded = new Host(path);
        var week = await upgraded.GetAsync($"/api/plan/weeks/{Monday}");
        var item = week["eaters"]![0]!["days"]![3]!["items"]![0]!;
        Assert.Equal(("01a00000-0000-7000-8000-0000000000c1", 300m, true),
            ((string)item["boxId"]!, (decimal)item["grams"]!, (bool)item["isLocked"]!));
        Assert.Equal("01a00000-0000-7000-8000-0000000000c2",
            (string)Assert.Single(Assert.Single(week["shelf"]!.AsArray())!["boxIds"]!.AsArray())!);
        Assert.Empty(week["unpacked"]!.AsArray());
        await upgraded.MustAsync(HttpMethod.Delete, $"/api/plan/items/{item["id"]}", null, (int)week["version"]!);
        Assert.Equal(2, (await upgraded.GetAsync($"/api/plan/weeks/{Monday}"))["shelf"]![0]!["boxIds"]!.AsArray().Count);
    }
}
