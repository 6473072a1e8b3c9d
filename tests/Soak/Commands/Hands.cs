using System.Text.Json.Nodes;

namespace LivelyTern.Soak.Commands;

/// <summary>What came of one command.</summary>
/// <param name="Status">Its status; 0 where there was nothing to ask.</param>
/// <param name="Body">Its answer.</param>
public readonly record struct Answer(int Status, JsonNode Body)
{
    public static readonly Answer Nothing = new(0, JsonValue.Create(0));

    public static implicit operator Answer((int Status, JsonNode Body) answer) => new(answer.Status, answer.Body);
}

/// <summary>Hands that do whatever can be done to a week, in any order: one random command after another, through the API.</summary>
/// <param name="house">The house.</param>
/// <param name="chance">Where chance comes from.</param>
public sealed class Hands(Asker house, Random chance)
{
    private const int MostBatches = 8;

    // Today often: nothing is eaten on the others.
    private static readonly string[] Days =
        ["2026-11-25", "2026-11-25", "2026-11-25", "2026-11-26", "2026-11-27", "2026-11-28", "2026-11-29"];

    private static readonly string[] Typed =
        ["1 apple and half an oat bake box", "2 oat bake boxes", "100 g oat bake; dinner 600 kcal", "20 g house spread"];

    /// <summary>The eaters.</summary>
    public List<string> Eaters { get; } = [];

    /// <summary>The batches.</summary>
    public List<string> Batches { get; } = [];

    /// <summary>The eaters who must never get milk, now.</summary>
    public HashSet<string> Careful { get; } = [];

    /// <summary>Whether the last command laid once more what lay on a day already, as it was known when it was laid there.</summary>
    public bool HasCopied { get; private set; }

    /// <summary>Whether the spread's label names milk, now.</summary>
    public bool SpreadHasMilk { get; private set; }

    private readonly List<string> changes = [];
    private string spread = "", recipe = "";

    /// <summary>Two eaters, a dish in its boxes and two more of it planned, and a spread whose label changes.</summary>
    public async Task MoveInAsync()
    {
        var (isa, dish, _) = await house.LaidTableAsync();
        spread = (string)(await house.PostAsync("/api/foods", Label(hasMilk: false)))["id"]!;
        recipe = dish.ToString();
        var bo = await house.PostAsync("/api/aim/eaters",
            new { name = "Bo", aim = new { leading = "energy", bands = new { energy = new { max = 2000 } }, rule = (object?)null } });
        Eaters.AddRange([isa.ToString(), (string)bo["id"]!]);
        Batches.Add((string)(await house.GetAsync("/api/pack/batches"))[0]!["id"]!);
        var planned = await house.PostAsync("/api/cook/planned", new
        {
            day = "2026-11-26",
            dishes = new[] { new { recipeId = recipe, portions = 4 }, new { recipeId = recipe, portions = 2 } },
        });
        Batches.AddRange(planned.AsArray().Select(batch => (string)batch!["id"]!));
    }

    /// <summary>One command, about the week as it was seen.</summary>
    public async Task<Answer> DoAsync(Seen seen)
    {
        var answer = await AnyAsync(seen);
        if (answer.Status == 200 && answer.Body is JsonObject made && made["id"] is { } id && made["days"] is not null)
            changes.Add((string)id!);
        return answer;
    }

    private async Task<Answer> AnyAsync(Seen seen)
    {
        var (version, eater, day, batch) = (seen.Version, Any(Eaters), Any(Days), Any(Batches));
        async Task<Answer> SendAsync(HttpMethod method, string path, object? body) => await house.SendAsync(method, path, body, version);
        Task<Answer> PostAsync(string path, object? body) => SendAsync(HttpMethod.Post, path, body);
        Task<Answer> PutAsync(string path, object? body) => SendAsync(HttpMethod.Put, path, body);
        var item = seen.Items.Count > 0 ? Any(seen.Items) : null;
        var boxed = seen.Items.Where(one => one.Box is not null && one.Day == Days[0]).ToList() is { Count: > 0 } laid ? Any(laid) : item;
        var which = chance.Next(item is null ? 9 : 45);
        HasCopied = which is 22 or 37;
        switch (which)
        {
            case 0 when seen.Shelf.Count > 0:
                return await PostAsync("/api/plan/boxes", new { boxId = Any(seen.Shelf), eaterId = eater, day, place = chance.Next(4) });
            case 0 or 1:
                return await PostAsync("/api/plan/portions",
                    new { batchId = batch, eaterId = eater, day, grams = chance.Next(3) == 0 ? (decimal?)chance.Next(50, 400) : null });
            case 2: return await PostAsync("/api/plan/foods", new { text = "1 apple", eaterId = eater, day });
            case 3 or 4: return await BatchAsync(batch);
            case 5: return await OnAndOffTheShelfAsync($"/api/recipes/{recipe}");
            case 6: return await OnAndOffTheShelfAsync($"/api/foods/{Uri.EscapeDataString(spread)}");
            case 7: return await LeaveAndComeBackAsync(eater, seen);
            case 8: return await AnotherBatchAsync();
            case 9:
                return await PutAsync($"/api/plan/items/{item!.Id}/place", new { eaterId = eater, day, place = chance.Next(4) });
            case 10: return await SendAsync(HttpMethod.Delete, $"/api/plan/items/{item!.Id}", null);
            case 11: return await PutAsync($"/api/eat/items/{item!.Id}", new { eaten = chance.Next(3) > 0 });
            case 12: return await PutAsync("/api/plan/portions", new { batchId = batch, eaterId = eater, grams = chance.Next(0, 500) });
            case 13: return await PutAsync($"/api/plan/items/{item!.Id}/lock", new { isLocked = chance.Next(2) == 0 });
            case 14: return await PutAsync($"/api/plan/items/{item!.Id}/slot", new { slot = Any(["noon", "evening", null]) });
            case 15:
                version -= chance.Next(5) == 0 ? 1 : 0;
                return await PutAsync($"/api/plan/items/{item!.Id}/amount", new { text = "2 apples" });
            case 16: return await LabelAsync();
            case 17: return await NeverAsync(eater);
            case 18: return await RewriteAsync();
            case 19 or 20: return await PostAsync("/api/plan/foods", new { text = "20 g house spread", eaterId = eater, day });
            case 21: return await PutAsync($"/api/plan/items/{item!.Id}/amount", new { text = "30 g house spread" });
            case 22:
                return await PostAsync("/api/plan/copies",
                    new { eaterId = item!.Eater, day = item.Day, to = new[] { Any(Days), Any(Days) } });
            case 23: return await MendAsync(eater, day, version);
            case 24: return await PutAsync($"/api/eat/items/{boxed!.Id}", new { eaten = true, grams = chance.Next(-5, 300) });
            case 25 or 26: return await BoxAsync(batch, version);
            case 27: return await WentInAsync(batch);
            case 28 or 29:
                var text = Any(Typed);
                return await PostAsync("/api/plan/entries", new { text, eaterId = eater, day, eaten = chance.Next(2) == 0 });
            case 30: return await PostAsync("/api/plan/guests", new { eaterId = eater, day, guests = chance.Next(0, 4), batchId = batch });
            case 31:
                var (measure, slot) = (Any(["fat", "energy", "points"]), Any(["evening", null]));
                return await PostAsync("/api/plan/holds", new { eaterId = eater, day, measure, amount = chance.Next(0, 400), slot });
            case 32: return await PostAsync($"/api/plan/items/{boxed!.Id}/freeze", null);
            case 33:
                return await house.SendAsync(HttpMethod.Put, $"/api/aim/eaters/{eater}/away",
                    new { days = new[] { day }, isAway = chance.Next(2) == 0, slot = Any(["noon", null]) });
            case 34: return await PutAsync($"/api/eat/items/{boxed!.Id}", new { eaten = true, times = chance.Next(0, 25) / 10m });
            case 35:
                return await PutAsync($"/api/eat/items/{boxed!.Id}",
                    new { eaten = true, amount = Any(["half", "a serving and a half", "120 g", "3 boxes", "much"]) });
            case 36:
                return await PostAsync($"/api/eat/items/{boxed!.Id}/shared", new { withEaterId = eater, share = chance.Next(0, 11) / 10m });
            case 37:
                return await PostAsync("/api/eat/again",
                    new { itemIds = new[] { item!.Id, Any(seen.Items).Id }, eaterId = eater, day, eaten = chance.Next(3) > 0 });
            case 38: return await house.SendAsync(HttpMethod.Post, $"/api/eat/corrections/{batch}");
            case 39: return await MealOutAsync(eater, day, version);
            case 40: return await FitAsync(eater);
            default: return await UndoAsync();
        }
    }

    private T Any<T>(IReadOnlyList<T> of) => of[chance.Next(of.Count)];

    private static object Label(bool hasMilk) => new
    {
        name = "House spread",
        group = "fats",
        allergens = hasMilk ? new[] { "milk" } : [],
        label = new { basis = "per100g", servingGrams = (decimal?)null, convention = "total", kilocalories = 300 },
    };

    // Of the last few most often: an undo, the undo of that, and now and then one that was undone already.
    private async Task<Answer> UndoAsync()
    {
        if (changes.Count == 0) return Answer.Nothing;
        var change = chance.Next(3) == 0 ? Any(changes) : changes[^Math.Min(changes.Count, chance.Next(1, 4))];
        Answer undone = await house.SendAsync(HttpMethod.Post, $"/api/plan/changes/{change}/undo", "");
        if (undone.Status != 200 || chance.Next(2) == 0) return undone;
        var (again, said) = await house.SendAsync(HttpMethod.Post, $"/api/plan/changes/{change}/undo", "");
        if (again != 409) throw new InvalidOperationException($"A step was undone twice: {again} {said}");
        if (chance.Next(2) == 0) return undone;
        return await house.SendAsync(HttpMethod.Post, $"/api/plan/changes/{undone.Body["id"]}/undo", "");
    }

    private async Task<Answer> LabelAsync()
    {
        var path = $"/api/foods/{Uri.EscapeDataString(spread)}";
        var row = await house.GetAsync(path);
        var answer = await house.SendAsync(HttpMethod.Put, path, Label(!SpreadHasMilk), (int)row["version"]!);
        if (answer.Status == 200) SpreadHasMilk = !SpreadHasMilk;
        return answer;
    }

    private async Task<JsonNode> EaterAsync(string eater) =>
        (await house.GetAsync("/api/aim/eaters")).AsArray().Single(one => (string?)one!["id"] == eater)!;

    private async Task<Answer> NeverAsync(string eater)
    {
        if (!Careful.Remove(eater)) Careful.Add(eater);
        var row = await EaterAsync(eater);
        var ways = new { neverAllergens = Careful.Contains(eater) ? new[] { "milk" } : [] };
        return await house.SendAsync(HttpMethod.Put, $"/api/aim/eaters/{eater}", new { name = row["name"], aim = row["aim"], ways },
            (int)row["version"]!);
    }

    // What is laid for an eater is taken off first, as they are told to.
    private async Task<Answer> LeaveAndComeBackAsync(string eater, Seen seen)
    {
        if (chance.Next(2) == 0)
        {
            foreach (var item in seen.Items.Where(one => one.Eater == eater && !one.IsEaten && (one.Box ?? one.Batch) is not null))
            {
                var version = (await Seen.LookAsync(house)).Version;
                await house.MustAsync(HttpMethod.Delete, $"/api/plan/items/{item.Id}", null, version);
            }
        }

        var left = await house.SendAsync(HttpMethod.Delete, $"/api/aim/eaters/{eater}", null, (int)(await EaterAsync(eater))["version"]!);
        if (left.Status != 200) return left;
        await Screens.AllAnswerAsync(house, new(2026, 11, 25), chance);
        return await house.SendAsync(HttpMethod.Post, $"/api/aim/eaters/{eater}/restore", null, (int)left.Body["version"]!);
    }

    // Put away, or brought back where it was put away.
    private async Task<Answer> OnAndOffTheShelfAsync(string path)
    {
        var row = await house.GetAsync(path);
        var version = (int)row["version"]!;
        if (!(bool)row["archived"]! && chance.Next(4) > 0) return Answer.Nothing;
        return (bool)row["archived"]!
            ? await house.SendAsync(HttpMethod.Post, $"{path}/restore", null, version)
            : await house.SendAsync(HttpMethod.Delete, path, null, version);
    }

    private async Task<Answer> RewriteAsync()
    {
        var row = await house.GetAsync($"/api/recipes/{recipe}");
        string[] lines = ["400 g rolled oats", Any(["4 eggs", "100 g butter", "100 g house spread"])];
        return await house.SendAsync(HttpMethod.Put, $"/api/recipes/{recipe}", new { name = "Oat bake", lines, portions = 4 },
            (int)row["version"]!);
    }

    private async Task<Answer> MendAsync(string eater, string day, int version)
    {
        var mends = (await house.GetAsync($"/api/plan/days/{eater}/{day}"))["mends"]!.AsArray();
        var made = mends.Count == 0 ? "none" : (string)Any([.. mends])!["id"]!;
        return await house.SendAsync(HttpMethod.Post, $"/api/plan/days/{eater}/{day}/mends", new { id = made }, version);
    }

    private async Task<Answer> MealOutAsync(string eater, string day, int version)
    {
        var items = new[] { new { name = "fish", figures = new { energy = chance.Next(100, 900) } } };
        return await house.SendAsync(HttpMethod.Post, "/api/plan/events", new { eaterId = eater, day, name = "Supper", items }, version);
    }

    // All that a short fit proposes is taken.
    private async Task<Answer> FitAsync(string eater)
    {
        var started = await house.SendAsync(HttpMethod.Post, "/api/plan/fits",
            new { from = Days[3], to = Days[^1], eaterIds = new[] { eater }, scope = "gaps", seconds = 0.2 });
        if (started.Status != 200) return started;
        var fit = started.Body;
        while (!(bool)fit["isDone"]!)
        {
            await Task.Delay(50);
            fit = await house.GetAsync($"/api/plan/fits/{fit["id"]}");
        }

        var days = fit["days"]!.AsArray().Select(one => new { eaterId = one!["eaterId"], day = one["day"] });
        var taken = await house.SendAsync(HttpMethod.Post, $"/api/plan/fits/{fit["id"]}/take",
            new { draft = fit["draft"], days }, (int)(await house.GetAsync($"/api/plan/weeks/{Seen.Monday}"))["version"]!);
        return taken.Status == 200 && taken.Body["made"] is { } made ? (200, made.DeepClone()) : taken;
    }

    private async Task<Answer> AnotherBatchAsync()
    {
        if (Batches.Count >= MostBatches) return Answer.Nothing;
        var made = await house.SendAsync(HttpMethod.Post, "/api/cook/planned",
            new { day = Any(Days), dishes = new[] { new { recipeId = recipe, portions = chance.Next(1, 7) } } });
        if (made.Status == 200) Batches.AddRange(made.Body.AsArray().Select(batch => (string)batch!["id"]!));
        return made;
    }

    private List<string> Some(JsonArray boxes) =>
        [.. Enumerable.Range(0, chance.Next(1, 4)).Select(_ => (string)Any([.. boxes])!["id"]!).Distinct(StringComparer.Ordinal)];

    // Put somewhere, eaten, given away, thrown away, one or some: also what is eaten or gone, which is refused.
    private async Task<Answer> BoxAsync(string id, int version)
    {
        var (status, batch) = await house.SendAsync(HttpMethod.Get, $"/api/pack/batches/{id}");
        if (status != 200) return (status, batch);
        if (batch["boxes"]!.AsArray() is not { Count: > 0 } boxes) return await BatchAsync(id);
        var box = Any([.. boxes])!;
        var (boxId, seen) = ((string)box["id"]!, (int)box["version"]!);
        return chance.Next(7) switch
        {
            0 => await house.SendAsync(HttpMethod.Post, $"/api/plan/boxes/{boxId}/given-away", null, version),
            1 => await house.SendAsync(HttpMethod.Post, $"/api/plan/boxes/{boxId}/thrown-away", null, version),
            2 => await house.SendAsync(HttpMethod.Post, "/api/keep/boxes/let-go",
                new { boxIds = Some(boxes), isThrownAway = chance.Next(2) == 0, why = Any(["it went off", null]) }, version),
            3 => await house.SendAsync(HttpMethod.Post, "/api/keep/boxes/eaten",
                new { boxIds = Some(boxes), eaterId = Any(Eaters), day = Any(Days) }, version),
            4 => await house.SendAsync(HttpMethod.Post, "/api/keep/boxes/still-there",
                new { boxes = new[] { new { id = boxId, version = seen } } }),
            _ => await house.SendAsync(HttpMethod.Post, "/api/keep/boxes/put", new
            {
                boxes = new[] { new { id = boxId, version = seen - (chance.Next(6) == 0 ? 1 : 0) } },
                place = Any(["fridge", "freezer", "counter", "takenAlong"]),
            }),
        };
    }

    private async Task<Answer> WentInAsync(string id)
    {
        var (status, batch) = await house.SendAsync(HttpMethod.Get, $"/api/cook/batches/{id}");
        if (status != 200) return (status, batch);
        return await house.SendAsync(HttpMethod.Put, $"/api/cook/batches/{id}/lines/{chance.Next(3)}",
            new { text = Any(["", "300 g rolled oats", "100 g butter", null]) }, (int)batch["version"]!);
    }

    // Cooked, packed, emptied back, planned larger, discarded and brought back: whatever the batch is ready for, and what it is not.
    private async Task<Answer> BatchAsync(string id)
    {
        var (status, batch) = await house.SendAsync(HttpMethod.Get, $"/api/pack/batches/{id}");
        if (status != 200) return (status, batch);
        var version = (int)batch["version"]!;
        if (chance.Next(8) == 0) return await DiscardAsync(id, version);
        if ((string?)batch["state"] == "planned")
        {
            return chance.Next(2) == 0
                ? await house.SendAsync(HttpMethod.Post, $"/api/cook/planned/{id}/cooked", null, version)
                : await house.SendAsync(HttpMethod.Put, $"/api/cook/planned/{id}",
                    new { day = Any(Days), portions = chance.Next(1, 9) }, version);
        }

        var full = chance.Next(700, 1300);
        if (chance.Next(4) == 0)
            return await house.SendAsync(HttpMethod.Put, $"/api/cook/batches/{id}/weight",
                new { fullGrams = full, panGrams = 100 }, version);
        if (batch["boxes"]!.AsArray().Count > 0)
            return await house.SendAsync(HttpMethod.Delete, $"/api/pack/batches/{id}/boxes", null, version);
        var pieces = chance.Next(3) == 0 ? (int?)chance.Next(4, 40) : null;
        return await house.SendAsync(HttpMethod.Post, $"/api/pack/batches/{id}/boxes",
            new { fullGrams = full, panGrams = 100, boxes = chance.Next(1, 9), pieces }, version);
    }

    private async Task<Answer> DiscardAsync(string id, int version)
    {
        var gone = await house.SendAsync(HttpMethod.Delete, $"/api/cook/batches/{id}", null, version);
        return gone.Status == 200
            ? await house.SendAsync(HttpMethod.Post, $"/api/cook/batches/{id}/restore", null, (int)gone.Body["version"]!)
            : gone;
    }
}
