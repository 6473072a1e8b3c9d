using System.Globalization;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;

namespace LivelyTern.Soak.Requests;

/// <summary>
/// Makes up what a door takes, by its schema: right in kind and likely in size, or with some of it broken: of another kind, beyond its
/// bounds, of a size nobody means.
/// </summary>
/// <param name="document">The house's document.</param>
/// <param name="known">What it said of itself.</param>
/// <param name="chance">Where chance comes from.</param>
/// <param name="today">The house's day.</param>
public sealed class MadeUp(ApiDocument document, Known known, Random chance, DateOnly today)
{
    private const int Deepest = 9;

    private static readonly string[] Lines =
    [
        "400 g rolled oats", "4 eggs", "1 apple", "2 tbsp olive oil", "a pinch of salt", "1/2 cup milk", "1 (400 g) tin chopped tomatoes",
        "500 ml stock", "30 g butter", "1 oat bake box", "100 g oat bake", "dinner 600 kcal", "2 apples and half an oat bake box",
        "salt to taste", "3 cloves garlic, crushed", "1 kg lean pork", "2 onions, finely chopped", "20 g house spread", "200",
    ];

    private static readonly string[] Odd =
    [
        "", " ", "0", "-1", "1e9 kg salt", "999999 x 999999 kg rolled oats", "0.0000000001 g salt", "1/0 cup oats", "NaN", "∞ eggs",
        "\u0000", "\u0001\u001b[2J", "\u202e g 001", "🥚🥚", "<script>alert(1)</script>", "'; drop table recipes; --", "\r\nBEGIN:VEVENT",
        "%s%n", "{{7*7}}", "../../etc/passwd", "99999999999999999999999999 eggs", "½½ cup", "((((", "))))", "1 ,,,,,", "\uFEFF1 egg",
        "79228162514264337593543950335 g salt", "1e-28 g salt", "0.00000000000000000000000001 g", "1:00:00:00", "9999-99-99",
        "dinner 999999999999999999999999999999 kcal", "-999999999999999999999999999999",
        "oats 0.00000000000000000000000000000001 g", "0.004 g salt",
    ];

    private static readonly string[] Rows =
    [
        "~", "~ about ", "(", "1 ", "1/", "<div>", "½", "and ", ", ", "or ", "- ", "x ", "a", "\n", "🥚", "g ", "1 g salt; ", "٣", "\"", "\\",
    ];

    private static readonly string[] OddNumbers =
    [
        "0", "-1", "1e-26", "1e-28", "-1e-28", "1e9", "1e12", "2147483647", "2147483648", "-2147483648", "1e20", "7.9e28", "1e29",
        "1e400", "-1e400", "0.1e1", "0.333333333333333333333333333333333333", "null", "\"5\"", "NaN", "true", "[]", "{}",
        "99999999999999999999999999999999999999",
    ];

    private static readonly string[] OtherKinds =
        ["null", "[]", "{}", "\"text\"", "12", "true", "[null]", "[[]]", "{\"a\":1}", "", "\"\\ud800\""];

    /// <summary>How much of it is broken: 0 none of it, 1 all.</summary>
    public double Broken { get; set; }

    private bool Breaks => Broken > 0 && chance.NextDouble() < Broken;

    /// <summary>A JSON value of a schema.</summary>
    public string Json(JsonObject schema)
    {
        var text = new StringBuilder();
        Write(text, schema, "", 0);
        return text.ToString();
    }

    /// <summary>What stands for a place in a path or a query, not yet escaped.</summary>
    public string Place(Door door, DoorParameter parameter)
    {
        // A path that names the zero character is refused by the server itself.
        if (Breaks)
            return chance.Next(2) == 0 ? Any(Odd).Replace("\0", "", StringComparison.Ordinal) : chance.Next(30) == 0 ? Row(300) : "no-such";
        var (schema, _) = document.Resolve(parameter.Schema);
        if (parameter.Name is "id" || parameter.Name.EndsWith("Id", StringComparison.Ordinal))
            return known.Id(Known.KindOf(door.Path, parameter.Name)) ?? Guid.Empty.ToString();
        var text = new StringBuilder();
        Write(text, schema, parameter.Name, 0);
        return text.ToString() is ['"', .. var said, '"'] && !said.Contains('\\') ? said : text.ToString();
    }

    /// <summary>Something that is no request at all.</summary>
    public string Garbage() => chance.Next(8) switch
    {
        0 => "",
        1 => new string('[', chance.Next(1, 100_000)),
        2 => string.Concat(Enumerable.Repeat("{\"a\":", chance.Next(1, 50_000))),
        3 => "{broken",
        4 => $"\"{JsonEncodedText.Encode(Row(200_000))}\"",
        5 => "\uFEFF{}",
        6 => "[" + string.Join(',', Enumerable.Repeat("null", chance.Next(1, 50_000))) + "]",
        _ => Any(OtherKinds),
    };

    private T Any<T>(T[] of) => of[chance.Next(of.Length)];

    private string Row(int longest) => string.Concat(Enumerable.Repeat(Any(Rows), chance.Next(1, longest)));

    private void Write(StringBuilder text, JsonObject pointed, string name, int depth)
    {
        if (Breaks && chance.Next(3) == 0)
        {
            text.Append(Any(OtherKinds));
            return;
        }

        var (schema, mayBeNull) = document.Resolve(pointed);
        if (mayBeNull && chance.Next(3) == 0 || depth > Deepest)
        {
            text.Append(depth > Deepest && schema["items"] is not null ? "[]" : "null");
            return;
        }

        if (schema["enum"] is JsonArray words) text.Append(Breaks ? "\"no-such\"" : Any([.. words])?.ToJsonString() ?? "null");
        else if (schema["items"] is JsonObject items) WriteList(text, items, name, depth);
        else if (schema["properties"] is JsonObject members) WriteThing(text, schema, members, depth);
        else if (schema["additionalProperties"] is JsonObject values) WriteTable(text, values, depth);
        else WriteOne(text, schema, name);
    }

    private void WriteThing(StringBuilder text, JsonObject schema, JsonObject members, int depth)
    {
        var needed = (schema["required"]?.AsArray() ?? []).Select(one => (string)one!).ToHashSet(StringComparer.Ordinal);
        text.Append('{');
        foreach (var (name, member) in members)
        {
            if (needed.Contains(name) ? Breaks && chance.Next(4) == 0 : chance.Next(2) == 0) continue;
            if (text[^1] != '{') text.Append(',');
            text.Append('"').Append(JsonEncodedText.Encode(name)).Append("\":");
            Write(text, member!.AsObject(), name, depth + 1);
        }

        text.Append('}');
    }

    private void WriteList(StringBuilder text, JsonObject items, string name, int depth)
    {
        var count = Breaks && depth < 3 ? Any([0, 100, 1_000, 20_000]) : chance.Next(0, 4);
        if (count > 100)
        {
            var one = new StringBuilder();
            Write(one, items, name, depth + 1);
            text.Append('[').AppendJoin(',', Enumerable.Repeat(one.ToString(), Math.Min(count, 900_000 / (one.Length + 1)))).Append(']');
            return;
        }

        text.Append('[');
        for (var i = 0; i < count; i++)
        {
            if (i > 0) text.Append(',');
            Write(text, items, name, depth + 1);
        }

        text.Append(']');
    }

    private void WriteTable(StringBuilder text, JsonObject values, int depth)
    {
        string[] keys = Breaks ? Odd : ["energy", "protein", "carbohydrate", "fat", "points", "fibre"];
        text.Append('{');
        foreach (var key in keys.Where(_ => chance.Next(3) == 0).Distinct())
        {
            if (text[^1] != '{') text.Append(',');
            text.Append('"').Append(JsonEncodedText.Encode(key)).Append("\":");
            Write(text, values, key, depth + 1);
        }

        text.Append('}');
    }

    private void WriteOne(StringBuilder text, JsonObject schema, string name)
    {
        var type = schema["type"] is JsonArray several
            ? several.Select(one => (string?)one).First(one => one != "null") : (string?)schema["type"];
        switch (type)
        {
            case "boolean": text.Append(Breaks ? Any(OddNumbers) : chance.Next(2) == 0 ? "true" : "false"); break;
            case "integer" or "number": text.Append(Number(schema, name, type == "integer")); break;
            default: text.Append('"').Append(JsonEncodedText.Encode(Text(schema, name))).Append('"'); break;
        }
    }

    private string Number(JsonObject schema, string name, bool isWhole)
    {
        // What is asked to think for long may take long: the storm's patience is for answers.
        if (name is "seconds") return Breaks ? Any(["-1", "0", "1e9", "1e-28"]) : "0.1";
        if (name is "rounds") return "1";
        if (Breaks) return chance.Next(3) == 0 && schema["maximum"] is { } most ? Beyond(most) : Any(OddNumbers);
        if (isWhole) return chance.Next(0, chance.Next(3) == 0 ? 100 : 9).ToString(CultureInfo.InvariantCulture);
        var size = Any([1m, 10m, 100m, 1_000m]);
        return Math.Round((decimal)chance.NextDouble() * size, chance.Next(0, 4)).ToString(CultureInfo.InvariantCulture);
    }

    private static string Beyond(JsonNode most) => (most.GetValue<double>() * 1.001 + 1).ToString("R", CultureInfo.InvariantCulture);

    private string Text(JsonObject schema, string name)
    {
        if (Breaks)
        {
            if (chance.Next(6) == 0) return Row(chance.Next(40) == 0 ? 60_000 : 400);
            if (schema["maxLength"] is { } most && chance.Next(4) == 0) return new string('x', Math.Min((int)most + 1, 100_000));
            return Any(Odd);
        }

        return (string?)schema["format"] switch
        {
            "uuid" => known.Id(name.EndsWith('s') ? name[..^1] : name) ?? Guid.Empty.ToString(),
            "date" => Day().ToString("yyyy-MM-dd", CultureInfo.InvariantCulture),
            "time" => $"{chance.Next(24):00}:{chance.Next(60):00}:00",
            "date-time" => $"{Day():yyyy-MM-dd}T10:00:00Z",
            _ => name switch
            {
                "foodId" or "insteadId" or "freeFoods" or "foods" => known.Id("foodId") ?? "oats",
                "slot" => Any(["morning", "noon", "evening", "between"]),
                "guidelines" => Any(["us", "uk", "no-such"]),
                "name" => Any(["Oat bake", "Stew", "Isa", "Soup", "Curry"]) + chance.Next(100).ToString(CultureInfo.InvariantCulture),
                "gtin" => "0400638133393",
                "group" => "grains",
                _ => Any(Lines),
            },
        };
    }

    private DateOnly Day() => Breaks
        ? Any([DateOnly.MinValue, DateOnly.MaxValue, today.AddYears(11), today.AddYears(-11)])
        : today.AddDays(chance.Next(-9, 15));
}
