using System.Text.Json.Nodes;

namespace LivelyTern.Soak.Requests;

/// <summary>What the house has said of itself: ids by what they are of, and the versions that go with them.</summary>
public sealed class Known(Random chance)
{
    private const int MostOfAKind = 200;
    private readonly Dictionary<string, List<string>> ids = new(StringComparer.OrdinalIgnoreCase);
    private readonly Dictionary<string, int> versions = new(StringComparer.OrdinalIgnoreCase);

    /// <summary>Remembers what an answer names.</summary>
    /// <param name="path">Where it came from.</param>
    /// <param name="answer">The answer.</param>
    public void Learn(string path, JsonNode? answer) => Learn(answer, Singular(path.Split('?')[0].Split('/').LastOrDefault(IsWord) ?? ""));

    /// <summary>An id of that kind, like "eaterId"; any other where none is known.</summary>
    public string? Id(string kind)
    {
        if (ids.TryGetValue(kind, out var own)) return own[chance.Next(own.Count)];
        var all = ids.Values.ToList();
        return all.Count == 0 ? null : all[chance.Next(all.Count)] is var some ? some[chance.Next(some.Count)] : null;
    }

    /// <summary>The kind of a place in a path: of "/api/recipes/{id}" it is "recipeId".</summary>
    public static string KindOf(string path, string place)
    {
        if (place != "id") return place;
        var segments = path.Split('/');
        var at = Array.IndexOf(segments, "{id}");
        return at > 0 ? Singular(segments[at - 1]) + "Id" : place;
    }

    /// <summary>The version seen last of the thing with that id.</summary>
    public int? Version(string? id) => id is not null && versions.TryGetValue(id, out var version) ? version : null;

    private static bool IsWord(string segment) => segment.Length > 0 && segment.All(char.IsLetter);

    private static string Singular(string word) => word switch
    {
        "batches" or "boxes" or "dishes" => word[..^2],
        "planned" or "unpacked" => "batch",
        _ when word.EndsWith('s') => word[..^1],
        _ => word,
    };

    private void Learn(JsonNode? node, string name)
    {
        if (node is JsonArray many)
        {
            foreach (var one in many) Learn(one, name);
            return;
        }

        if (node is not JsonObject thing) return;
        foreach (var (key, value) in thing)
        {
            if (value is JsonValue text && text.TryGetValue<string>(out var said))
            {
                if (key == "id") Keep(name + "Id", said);
                else if (key.EndsWith("Id", StringComparison.Ordinal)) Keep(key, said);
            }
            else if (value is JsonArray some && key.EndsWith("Ids", StringComparison.Ordinal))
            {
                foreach (var one in some.OfType<JsonValue>()) Keep(key[..^1], one.ToString());
            }
            else Learn(value, Singular(key));
        }

        if (thing["version"] is JsonValue number && number.TryGetValue<int>(out var version) && thing["id"] is JsonValue id)
            versions[id.ToString()] = version;
    }

    private void Keep(string kind, string id)
    {
        if (!ids.TryGetValue(kind, out var known)) ids[kind] = known = [];
        if (known.Contains(id)) return;
        if (known.Count < MostOfAKind) known.Add(id);
        else known[chance.Next(MostOfAKind)] = id;
    }
}
