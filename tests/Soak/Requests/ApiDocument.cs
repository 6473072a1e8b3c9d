using System.Text.Json.Nodes;

namespace LivelyTern.Soak.Requests;

/// <summary>One thing that can be asked of the house.</summary>
/// <param name="Method">How.</param>
/// <param name="Path">Where, with its places open: "/api/recipes/{id}".</param>
/// <param name="Parameters">What its path and its query take.</param>
/// <param name="Body">The schema of its JSON body; null where it takes none or a file.</param>
/// <param name="TakesFile">It takes the bytes of a file.</param>
public sealed record Door(HttpMethod Method, string Path, IReadOnlyList<DoorParameter> Parameters, JsonObject? Body, bool TakesFile)
{
    public override string ToString() => $"{Method} {Path}";
}

/// <summary>What a path or a query takes.</summary>
public sealed record DoorParameter(string Name, bool IsInPath, bool IsInQuery, JsonObject Schema);

/// <summary>The house's own OpenAPI document: which doors there are, and what goes through each.</summary>
public sealed class ApiDocument
{
    private readonly JsonNode document;

    public ApiDocument(JsonNode document)
    {
        this.document = document;
        Doors = [.. document["paths"]!.AsObject()
            .SelectMany(path => path.Value!.AsObject().Select(one => DoorOf(path.Key, one.Key, one.Value!)))];
    }

    public IReadOnlyList<Door> Doors { get; }

    /// <summary>A schema itself, where it is only pointed to, and whether null stands beside it.</summary>
    public (JsonObject Schema, bool MayBeNull) Resolve(JsonObject schema)
    {
        var mayBeNull = false;
        while (true)
        {
            if (schema["$ref"] is { } to) schema = document["components"]!["schemas"]![((string)to!).Split('/')[^1]]!.AsObject();
            else if (schema["oneOf"] is JsonArray several && several.Select(one => one!.AsObject()).ToList() is var each
                && each.Exists(one => (string?)(one["type"] as JsonValue) == "null"))
            {
                mayBeNull = true;
                schema = each.First(one => one["type"] is not JsonValue type || (string?)type != "null");
            }
            else break;
        }

        if (schema["type"] is JsonArray types && types.Any(type => (string?)type == "null")) mayBeNull = true;
        return (schema, mayBeNull);
    }

    private static Door DoorOf(string path, string method, JsonNode said)
    {
        var parameters = (said["parameters"]?.AsArray() ?? []).Select(one => one!.AsObject())
            .Where(one => (string?)one["in"] is "path" or "query")
            .Select(one => new DoorParameter((string)one["name"]!, (string?)one["in"] == "path", (string?)one["in"] == "query",
                one["schema"]!.AsObject())).ToList();
        var content = said["requestBody"]?["content"]?.AsObject();
        var body = content?["application/json"]?["schema"]?.AsObject();
        return new(new HttpMethod(method.ToUpperInvariant()), path, parameters, body, content is not null && body is null);
    }
}
