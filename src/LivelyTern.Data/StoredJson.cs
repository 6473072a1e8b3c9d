using System.Text.Json;
using System.Text.Json.Serialization;
using Microsoft.EntityFrameworkCore.ChangeTracking;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace LivelyTern.Data;

/// <summary>
/// What is kept as JSON has a type of its own, apart from the core's records, with the version of its shape in it, and is read strictly: a
/// member that is
/// missing or not known is an error, never a null, so that no renaming here silently reads old rows as nothing.
/// </summary>
internal static class StoredJson
{
    private static readonly JsonSerializerOptions Strict = new(JsonSerializerDefaults.Web)
    {
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase, allowIntegerValues: false) },
        UnmappedMemberHandling = JsonUnmappedMemberHandling.Disallow,
        RespectNullableAnnotations = true,
        RespectRequiredConstructorParameters = true,
        NumberHandling = JsonNumberHandling.Strict,
    };

    /// <summary>How the core's records themselves are kept, and were before.</summary>
    internal static JsonSerializerOptions Lenient { get; } = new(JsonSerializerDefaults.Web)
    {
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase) },
        IgnoreReadOnlyProperties = true,
    };

    /// <summary>As it is kept.</summary>
    public static string Write<T>(T stored) => JsonSerializer.Serialize(stored, Strict);

    /// <summary>As it was kept.</summary>
    /// <exception cref="InvalidDataException">It is not of that shape.</exception>
    public static T Read<T>(string text)
    {
        try
        {
            return JsonSerializer.Deserialize<T>(text, Strict) ?? throw new InvalidDataException($"A stored {typeof(T).Name} is empty.");
        }
        catch (JsonException error)
        {
            throw new InvalidDataException($"A stored {typeof(T).Name} can't be read: {error.Message}", error);
        }
    }

    /// <summary>Keeps one of the core's records as it is: of recipes and eaters, until they too have types of their own.</summary>
    public static void AsJson<T>(this PropertyBuilder<T> property) =>
        property.HasConversion(
            value => JsonSerializer.Serialize(value, Lenient),
            text => JsonSerializer.Deserialize<T>(text, Lenient)!,
            new ValueComparer<T>(
                (a, b) => JsonSerializer.Serialize(a, Lenient) == JsonSerializer.Serialize(b, Lenient),
                value => JsonSerializer.Serialize(value, Lenient).GetHashCode(StringComparison.Ordinal),
                value => value));

    /// <summary>Keeps a property strictly.</summary>
    public static void AsStored<T>(this PropertyBuilder<T> property)
        where T : class? =>
        property.HasConversion(stored => Write(stored), text => Read<T>(text), new ValueComparer<T>(
            (a, b) => string.Equals(Write(a!), Write(b!), StringComparison.Ordinal),
            stored => Write(stored).GetHashCode(StringComparison.Ordinal),
            stored => stored));
}
