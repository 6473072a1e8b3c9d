namespace LivelyTern.Data;

/// <summary>Keeps something read from the file between requests until it changes. One of each kind for the whole host.</summary>
/// <typeparam name="T">What is kept; never changed once read.</typeparam>
public sealed class CachedRead<T> : IKept
    where T : class
{
    private readonly Lock gate = new();
    private T? kept;
    private long forgotten;

    /// <summary>
    /// What is kept, read anew if something changed since. What was read before a change is not kept after it: neither where the change
    /// came while it was read, nor where the whole reading shows the file as it was before (<see cref="Transactions.ReadOnceAsync"/>).
    /// A command that has changed it and is not at its end reads it for itself.
    /// </summary>
    /// <param name="db">The file it is read from.</param>
    /// <param name="read">Reads it.</param>
    public async Task<T> GetAsync(TernDb db, Func<Task<T>> read)
    {
        ArgumentNullException.ThrowIfNull(db);
        ArgumentNullException.ThrowIfNull(read);
        if (db.Unsettled.TryGetValue(this, out var own))
        {
            if (own is null) db.Unsettled[this] = own = await read();
            return (T)own;
        }

        long seen;
        lock (gate)
        {
            if (kept is not null) return kept;
            seen = db.ReadingSince ?? Changes.Count;
        }

        var fresh = await read();
        lock (gate)
        {
            if (forgotten <= seen) kept = fresh;
        }

        return fresh;
    }

    /// <summary>Says that it changed: within a command that counts for that command alone until it is at its end.</summary>
    public void Forget(TernDb db)
    {
        ArgumentNullException.ThrowIfNull(db);
        if (db.IsInTurn) db.Unsettled[this] = null;
        else Forget();
    }

    /// <summary>Says that it changed, once that is in the file.</summary>
    public void Forget()
    {
        lock (gate)
        {
            forgotten = Changes.Next();
            kept = null;
        }
    }
}

/// <summary>Counts the changes of anything that is kept, so that a reading knows which came after it began.</summary>
internal static class Changes
{
    private static long count;

    public static long Count => Interlocked.Read(ref count);

    public static long Next() => Interlocked.Increment(ref count);
}
