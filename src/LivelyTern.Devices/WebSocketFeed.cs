using System.Net.WebSockets;
using System.Runtime.CompilerServices;
using System.Text;

namespace LivelyTern.Devices;

/// <summary>A device at an address, spoken to over WebSocket; where it does not answer it is tried again.</summary>
/// <typeparam name="T">What it shows.</typeparam>
/// <param name="address">Where it is: "ws://192.168.1.20/scale".</param>
/// <param name="read">Reads a message; null for nonsense.</param>
/// <param name="waits">How long to wait before it is tried again.</param>
public sealed class WebSocketFeed<T>(Uri address, Func<string, T?> read, TimeSpan waits) : IDeviceFeed<T>
    where T : class
{
    // A device that says nothing for so long is lost, though its line still stands.
    private static readonly TimeSpan Silence = TimeSpan.FromSeconds(3);

    private ClientWebSocket? line;

    /// <summary>How many messages were nonsense so far.</summary>
    public int Nonsense { get; private set; }

    /// <inheritdoc/>
    public async IAsyncEnumerable<T?> ReadAsync([EnumeratorCancellation] CancellationToken stop)
    {
        while (!stop.IsCancellationRequested)
        {
            using var socket = new ClientWebSocket();
            if (await ConnectAsync(socket, stop))
            {
                line = socket;
                while (await NextAsync(socket, stop) is { } text)
                {
                    if (read(text) is { } reading) yield return reading;
                    else Nonsense++;
                }

                line = null;
            }

            yield return null;
            await WaitAsync(stop);
        }
    }

    /// <inheritdoc/>
    public async Task SendAsync(string wish)
    {
        if (line is not { State: WebSocketState.Open } socket) return;
        try
        {
            await socket.SendAsync(Encoding.UTF8.GetBytes(wish), WebSocketMessageType.Text, endOfMessage: true, CancellationToken.None);
        }
        catch (Exception lost) when (lost is WebSocketException or ObjectDisposedException or InvalidOperationException)
        {
            // It went in this moment: the reading says so.
        }
    }

    private async Task<bool> ConnectAsync(ClientWebSocket socket, CancellationToken stop)
    {
        try
        {
            using var soon = CancellationTokenSource.CreateLinkedTokenSource(stop);
            soon.CancelAfter(Silence);
            await socket.ConnectAsync(address, soon.Token);
            return true;
        }
        catch (Exception lost) when (lost is WebSocketException or OperationCanceledException)
        {
            return false;
        }
    }

    // The next message; null where the line is gone, silent, or says more at once than any reading is long.
    private static async Task<string?> NextAsync(ClientWebSocket socket, CancellationToken stop)
    {
        var buffer = new byte[DeviceMessage.Longest];
        var filled = 0;
        try
        {
            using var soon = CancellationTokenSource.CreateLinkedTokenSource(stop);
            soon.CancelAfter(Silence);
            while (filled < buffer.Length)
            {
                var got = await socket.ReceiveAsync(buffer.AsMemory(filled), soon.Token);
                if (got.MessageType == WebSocketMessageType.Close) return null;
                filled += got.Count;
                if (got.EndOfMessage) return Encoding.UTF8.GetString(buffer, 0, filled);
            }

            return null;
        }
        catch (Exception lost) when (lost is WebSocketException or OperationCanceledException)
        {
            return null;
        }
    }

    private async Task WaitAsync(CancellationToken stop)
    {
        try
        {
            await Task.Delay(waits, stop);
        }
        catch (OperationCanceledException)
        {
            // Not wanted any more.
        }
    }
}
