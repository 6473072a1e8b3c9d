using System.Globalization;
using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text.Json;
using System.Text.Json.Serialization;

namespace LivelyTern.Devices.Printer;

/// <summary>A label printer at an address, over the protocol of docs/devices.md.</summary>
/// <param name="at">Where it is: "http://192.168.1.22/printer".</param>
public sealed class HttpLabelPrinter(Uri at) : ILabelPrinter, IDisposable
{
    private const double MostMm = 100_000;

    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web)
    {
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase, allowIntegerValues: false) },
        MaxDepth = 4,
    };

    private readonly HttpClient http = new() { Timeout = TimeSpan.FromSeconds(5), MaxResponseContentBufferSize = 4096 };

    /// <inheritdoc/>
    public async Task<PrinterState> StateAsync(CancellationToken stop = default)
    {
        try
        {
            var said = await http.GetFromJsonAsync<PrinterState>(new Uri(at.ToString().TrimEnd('/') + "/state"), Json, stop);
            return said is { TapeWidthMm: >= 0 and <= MostMm, TapeLeftMm: >= 0 and <= MostMm } ? said : PrinterState.Lost;
        }
        catch (Exception gone) when (gone is HttpRequestException or JsonException or TaskCanceledException or InvalidOperationException)
        {
            return PrinterState.Lost;
        }
    }

    /// <inheritdoc/>
    public async Task<PrintSays> PrintAsync(PrintedLabel label, CancellationToken stop = default)
    {
        ArgumentNullException.ThrowIfNull(label);
        using var body = new ByteArrayContent(label.Png);
        body.Headers.ContentType = new MediaTypeHeaderValue("image/png");
        var size = string.Create(CultureInfo.InvariantCulture, $"width={label.WidthMm:0.##}&height={label.HeightMm:0.##}");
        try
        {
            using var answer = await http.PostAsync(new Uri($"{at.ToString().TrimEnd('/')}/labels?{size}"), body, stop);
            return answer.StatusCode switch
            {
                HttpStatusCode.OK or HttpStatusCode.Accepted => PrintSays.Printed,
                HttpStatusCode.Conflict => PrintSays.NoTape,
                HttpStatusCode.UnprocessableEntity => PrintSays.TooWide,
                _ => PrintSays.Lost,
            };
        }
        catch (Exception gone) when (gone is HttpRequestException or TaskCanceledException)
        {
            return PrintSays.Lost;
        }
    }

    /// <inheritdoc/>
    public void Dispose() => http.Dispose();
}
