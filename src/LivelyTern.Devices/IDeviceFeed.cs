namespace LivelyTern.Devices;

/// <summary>A device that shows readings, wherever it is.</summary>
/// <typeparam name="T">What it shows.</typeparam>
public interface IDeviceFeed<T>
    where T : class
{
    /// <summary>
    /// Its readings as they come, until they are not wanted any more; null when it is lost. It is looked for again by itself.
    /// </summary>
    /// <param name="stop">Ends it.</param>
    IAsyncEnumerable<T?> ReadAsync(CancellationToken stop);

    /// <summary>Sends it a wish, such as "tare"; nothing happens where it is not there.</summary>
    /// <param name="wish">A line of the protocol.</param>
    Task SendAsync(string wish);
}
