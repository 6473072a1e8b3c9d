using System.Text.Json;
using System.Text.Json.Serialization;
using LivelyTern.Devices.Probe;
using LivelyTern.Devices.Scale;

namespace LivelyTern.Devices;

/// <summary>
/// The messages of the protocol, each a line of JSON in a WebSocket text message (docs/devices.md). What is no such message, or shows
/// what no such device can, is nonsense: it is left out and counted.
/// </summary>
public static class DeviceMessage
{
    /// <summary>The longest message that is read, in bytes.</summary>
    public const int Longest = 4096;

    private const decimal MostGrams = 200_000, LowestCelsius = -60, HighestCelsius = 600;

    private static readonly JsonSerializerOptions Strict = new(JsonSerializerDefaults.Web)
    {
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase, allowIntegerValues: false) },
        NumberHandling = JsonNumberHandling.Strict,
        MaxDepth = 4,
    };

    private sealed record ScaleMessage(string Type, DateTimeOffset At, decimal? Grams, ScaleState State, string Unit);

    private sealed record ProbeMessage(string Type, DateTimeOffset At, decimal Celsius);

    /// <summary>A scale's reading as it is sent.</summary>
    public static string Write(ScaleReading reading)
    {
        ArgumentNullException.ThrowIfNull(reading);
        return JsonSerializer.Serialize(new ScaleMessage("scale", reading.At, reading.Grams, reading.State, reading.Unit), Strict);
    }

    /// <summary>A probe's reading as it is sent.</summary>
    public static string Write(ProbeReading reading)
    {
        ArgumentNullException.ThrowIfNull(reading);
        return JsonSerializer.Serialize(new ProbeMessage("probe", reading.At, reading.Celsius), Strict);
    }

    /// <summary>A scale's reading; null for nonsense.</summary>
    public static ScaleReading? ReadScale(string text)
    {
        if (Read<ScaleMessage>(text) is not { Type: "scale", Unit: "g" or "oz" } message) return null;
        var hasReading = message.State is ScaleState.Settling or ScaleState.Stable;
        if (hasReading != (message.Grams is not null) || message.Grams is < -MostGrams or > MostGrams) return null;
        return new(message.At, message.Grams is { } grams ? decimal.Round(grams, 1) : null, message.State, message.Unit);
    }

    /// <summary>A probe's reading; null for nonsense.</summary>
    public static ProbeReading? ReadProbe(string text) =>
        Read<ProbeMessage>(text) is { Type: "probe", Celsius: >= LowestCelsius and <= HighestCelsius } message
            ? new(message.At, decimal.Round(message.Celsius, 1))
            : null;

    private static T? Read<T>(string text)
        where T : class
    {
        try
        {
            return JsonSerializer.Deserialize<T>(text, Strict);
        }
        catch (JsonException)
        {
            return null;
        }
    }
}
