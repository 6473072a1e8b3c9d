using System.Buffers.Binary;
using System.Collections.Concurrent;
using System.Runtime.CompilerServices;
using System.Security.Cryptography;
using System.Text;
using LivelyTern.Core.Foods;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace LivelyTern.Data.Foods;

/// <summary>
/// A food as it stood when something was made or laid with it, each state once. It is never changed: what was cooked with it keeps its
/// figures, whatever the food's label says later.
/// </summary>
public sealed class FoodRecordRow
{
    /// <summary>The first 64 bits of the SHA-256 of what is stored.</summary>
    public long Id { get; set; }

    /// <summary>The food, as a <see cref="StoredFood"/>.</summary>
    public required string Stored { get; set; }
}

/// <summary>The food records that were read, for the whole host. A record is never changed, so none is ever forgotten.</summary>
public sealed class FoodRecordCache : IKept
{
    internal ConcurrentDictionary<long, Food> Foods { get; } = [];

    internal ConditionalWeakTable<Food, object> Ids { get; } = [];

    /// <inheritdoc/>
    public void Forget()
    {
        Foods.Clear();
        Ids.Clear();
    }
}

/// <summary>Foods as they stood.</summary>
public sealed class FoodRecords(TernDb db, FoodRecordCache read)
{
    /// <summary>The id under which a food's state is kept, and its text.</summary>
    internal static FoodRecordRow RowOf(StoredFood food)
    {
        var stored = StoredJson.Write(food);
        var hash = SHA256.HashData(Encoding.UTF8.GetBytes(stored));
        return new FoodRecordRow { Id = BinaryPrimitives.ReadInt64BigEndian(hash), Stored = stored };
    }

    /// <summary>Keeps the state of foods that something is about to be made of; within the command's transaction.</summary>
    /// <returns>Their records' ids, in the same order.</returns>
    public async Task<IReadOnlyList<long>> KeepAsync(IEnumerable<Food> foods)
    {
        ArgumentNullException.ThrowIfNull(foods);
        var ids = new List<long>();
        foreach (var food in foods)
        {
            if (read.Ids.TryGetValue(food, out var known))
            {
                ids.Add((long)known);
                continue;
            }

            var row = RowOf(StoredFood.Of(food));
            await db.Database.ExecuteSqlAsync($"INSERT OR IGNORE INTO FoodRecords (Id, Stored) VALUES ({row.Id}, {row.Stored})");
            ids.Add(row.Id);
        }

        return ids;
    }

    /// <summary>The foods of these records, by id.</summary>
    /// <exception cref="InvalidDataException">One of them is not there, or can't be read.</exception>
    public async Task<IReadOnlyDictionary<long, Food>> ReadAsync(IEnumerable<long> ids)
    {
        var wanted = ids.ToHashSet();
        var found = new Dictionary<long, Food>();
        foreach (var id in wanted)
        {
            if (read.Foods.TryGetValue(id, out var food)) found[id] = food;
        }

        var missing = wanted.Where(id => !found.ContainsKey(id)).ToList();
        if (missing.Count == 0) return found;

        // What a command has written and may yet take back is not remembered.
        var isWritten = db.Database.CurrentTransaction is null || db.IsReading;
        foreach (var row in await db.FoodRecords.AsNoTracking().Where(row => missing.Contains(row.Id)).ToListAsync())
        {
            var food = StoredJson.Read<StoredFood>(row.Stored).ToFood();
            found[row.Id] = isWritten ? Remember(row.Id, food) : food;
        }

        return found.Count == wanted.Count
            ? found
            : throw new InvalidDataException("A food that something was made of is not in the file.");
    }

    private Food Remember(long id, Food food)
    {
        var one = read.Foods.GetOrAdd(id, food);
        read.Ids.AddOrUpdate(one, id);
        return one;
    }
}

internal sealed class FoodRecordRows : IEntityTypeConfiguration<FoodRecordRow>
{
    public void Configure(EntityTypeBuilder<FoodRecordRow> builder)
    {
        builder.ToTable("FoodRecords");
        builder.Property(row => row.Id).ValueGeneratedNever();
    }
}
