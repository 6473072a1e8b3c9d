namespace LivelyTern.Data;

/// <summary>Keeps something read from the file between requests until it changes. One of each kind for the whole host.</summary>
/// <typeparam name="T">What is kept; never changed once read.</typeparam>
public sealed class Kept<T>
    where T : class
{
    private readonly Lock gate = new();
    private T? kept;
    private int changes;

    /// <summary>What is kept, read anew if something changed since; what was read before a change is not kept after it.</summary>
    public async Task<T> GetAsync(Func<Task<T>> read)
    {
        ArgumentNullException.ThrowIfNull(read);
        int seen;
        lock (gate)
        {
            if (kept is not null) return kept;
            seen = changes;
        }

        var fresh = await read();
        lock (gate)
        {
            if (seen == changes) kept = fresh;
        }

        return fresh;
    }

    /// <summary>Says that it changed.</summary>
    public void Forget()
    {
        lock (gate)
        {
            changes++;
            kept = null;
        }
    }
}
