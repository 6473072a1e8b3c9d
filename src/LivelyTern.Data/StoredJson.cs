using System.Text.Json;
using System.Text.Json.Serialization;
using Microsoft.EntityFrameworkCore.ChangeTracking;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace LivelyTern.Data;

/// <summary>
/// What is kept as JSON has a type of its own, apart from the core's records, with the version of its shape in it, and is read strictly: a
/// member that is missing or not known is an error, never a null, so that no renaming here silently reads old rows as nothing.
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

    /// <summary>Keeps one of the core's records strictly, through the type it is stored as.</summary>
    /// <param name="property">The property.</param>
    /// <param name="of">What is stored of it.</param>
    /// <param name="read">It, of what was stored.</param>
    public static void AsStored<T, TStored>(this PropertyBuilder<T> property, Func<T, TStored> of, Func<TStored, T> read)
        where T : class? =>
        property.HasConversion(value => Write(of(value)), text => read(Read<TStored>(text)), new ValueComparer<T>(
            (a, b) => string.Equals(a == null ? null : Write(of(a)), b == null ? null : Write(of(b)), StringComparison.Ordinal),
            value => value == null ? 0 : Write(of(value)).GetHashCode(StringComparison.Ordinal),
            value => value));

    /// <summary>Keeps a property strictly.</summary>
    public static void AsStored<T>(this PropertyBuilder<T> property)
        where T : class? =>
        property.HasConversion(stored => Write(stored), text => Read<T>(text), new ValueComparer<T>(
            (a, b) => string.Equals(Write(a!), Write(b!), StringComparison.Ordinal),
            stored => Write(stored).GetHashCode(StringComparison.Ordinal),
            stored => stored));
}
