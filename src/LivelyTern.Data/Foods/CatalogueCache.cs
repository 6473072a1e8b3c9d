using LivelyTern.Core.Foods;

namespace LivelyTern.Data.Foods;

/// <summary>Keeps the catalogue between requests until a food or a measure changes. One for the whole host.</summary>
public sealed class CatalogueCache
{
    private readonly Lock gate = new();
    private FoodCatalogue? kept;
    private int changes;

    /// <summary>The catalogue, read anew if something changed since; what was read before a change is not kept after it.</summary>
    public async Task<FoodCatalogue> GetAsync(Func<Task<FoodCatalogue>> read)
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

    /// <summary>Says that a food or a measure changed.</summary>
    public void Forget()
    {
        lock (gate)
        {
            changes++;
            kept = null;
        }
    }
}
