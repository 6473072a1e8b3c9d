using LivelyTern.Core.Foods;
using LivelyTern.Core.Keep;
using LivelyTern.Core.Measures;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Keep;

/// <summary>The rules the household keeps food by, and the cautions it has read.</summary>
public sealed class KeepingStore(TernDb db, TimeProvider clock)
{
    /// <summary>The rules, and the version to change them on: 0 while nobody chose.</summary>
    public async Task<(KeepingRules Rules, int Version)> RulesAsync()
    {
        if (await db.Keeping.AsNoTracking().SingleOrDefaultAsync() is not { } row) return (KeepingRules.Default, 0);
        var rules = KeepingRules.Of(row.Guidelines, row.Own.Days);
        return rules.Value is { } kept
            ? (kept, row.Version)
            : throw new InvalidDataException($"The stored rules of keeping can't be read: {rules.Problems[0].Sentence}");
    }

    /// <summary>Chooses the rules, at the version they were read at.</summary>
    /// <param name="version">That version.</param>
    /// <param name="guidelines">The code of the guideline set.</param>
    /// <param name="own">Days in the fridge of the household's own, by kind; none longer than the set's.</param>
    public Task<Outcome<int>> SetAsync(int version, string guidelines, IReadOnlyDictionary<KeepingKind, int> own) =>
        db.InTurnAsync<int>(async () =>
        {
            if (KeepingRules.Of(guidelines, own) is { Succeeded: false } wrong) return wrong.Problems.ToList();
            var row = await db.Keeping.SingleOrDefaultAsync();
            if ((row?.Version ?? 0) != version) return Stale.Problem;
            var stored = new StoredOwnDays(StoredOwnDays.Shape, own);
            if (row is not null)
            {
                (row.Guidelines, row.Own) = (guidelines, stored);
                return await db.SaveAsync(row, version + 1);
            }

            db.Keeping.Add(new() { Guidelines = guidelines, Own = stored });
            await db.SaveChangesAsync();
            return 1;
        });

    /// <summary>The codes of the cautions that were read.</summary>
    public async Task<IReadOnlySet<string>> ReadCautionsAsync() =>
        (await db.ReadCautions.AsNoTracking().Select(row => row.Code).ToListAsync()).ToHashSet(StringComparer.Ordinal);

    /// <summary>A caution was read, or is to be shown again.</summary>
    public Task<Outcome<string>> ReadAsync(string code, bool isRead) => db.InTurnAsync<string>(async () =>
    {
        if (!Caution.All.Any(caution => string.Equals(caution.Code, code, StringComparison.Ordinal))) return Stale.Gone("caution");
        var row = await db.ReadCautions.SingleOrDefaultAsync(one => one.Code == code);
        if (isRead && row is null) db.ReadCautions.Add(new() { Code = code, At = clock.GetUtcNow() });
        if (!isRead && row is not null) db.ReadCautions.Remove(row);
        await db.SaveChangesAsync();
        return code;
    });
}
