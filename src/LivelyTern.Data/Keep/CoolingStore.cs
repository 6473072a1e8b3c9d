using LivelyTern.Core.Cook;
using LivelyTern.Core.Keep;
using LivelyTern.Core.Measures;
using LivelyTern.Data.Cook;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Keep;

/// <summary>A batch that was cooked lately, with the temperatures taken of it since.</summary>
public sealed record CoolingBatch(BatchRow Batch, IReadOnlyList<CoolingReadingRow> Readings);

/// <summary>Temperatures taken while batches cool.</summary>
public sealed class CoolingStore(TernDb db, TimeProvider clock)
{
    private const decimal Coldest = -40, Hottest = 200;

    // How long ago a batch was cooked that may still be cooling, in days; and for how long its course is shown.
    private const int DaysBack = 1;

    /// <summary>The batches cooked today and yesterday, the last first.</summary>
    public async Task<IReadOnlyList<CoolingBatch>> ListAsync()
    {
        var (today, since) = (clock.Today(), clock.Today().AddDays(-DaysBack));
        var batches = await db.Batches.AsNoTracking()
            .Where(row => row.State != BatchState.Planned && row.State != BatchState.Discarded)
            .Where(row => row.CookedOn >= since && row.CookedOn <= today && !row.IsPutTogether)
            .OrderByDescending(row => row.CookedOn).ThenByDescending(row => row.Id).ToListAsync();
        var ids = batches.ConvertAll(row => row.Id);
        var readings = (await db.CoolingReadings.AsNoTracking().Where(row => ids.Contains(row.BatchId)).ToListAsync())
            .OrderBy(row => row.At).ToLookup(row => row.BatchId);
        return [.. batches.Select(row => new CoolingBatch(row, [.. readings[row.Id]]))];
    }

    /// <summary>A temperature was taken now.</summary>
    public Task<Outcome<Guid>> TakeAsync(Guid batchId, CoolingReadingRow reading) => db.InTurnAsync<Guid>(async () =>
    {
        ArgumentNullException.ThrowIfNull(reading);
        if (await db.Batches.AsNoTracking().SingleOrDefaultAsync(row => row.Id == batchId) is not { } batch) return Stale.Gone("batch");
        if (batch.State is BatchState.Planned or BatchState.Discarded)
            return new Problem("not-cooked", "batchId", "That is not cooked yet: there is nothing to cool.");
        if (reading.Celsius is < Coldest or > Hottest)
            return new Problem("temperature-absurd", "celsius", $"A reading lies between {Coldest} and {Hottest} °C: check the probe.");
        if (reading.AmbientCelsius is < Coldest or > Hottest)
            return new Problem("temperature-absurd", "ambientCelsius", $"A kitchen lies between {Coldest} and {Hottest} °C.");
        if (reading.DepthCm is <= 0 or > 60) return new Problem("depth-absurd", "depthCm", "Food lies up to 60 cm deep: check the number.");
        if (await db.CoolingReadings.CountAsync(row => row.BatchId == batchId) >= Cooling.MostReadings)
            return new Problem("readings-many", "batchId", $"Up to {Cooling.MostReadings} readings are kept of one batch.");
        (reading.Id, reading.BatchId, reading.At) = (Guid.CreateVersion7(), batchId, clock.GetUtcNow());
        db.CoolingReadings.Add(reading);
        await db.SaveChangesAsync();
        return reading.Id;
    });

    /// <summary>A reading that was taken by mistake goes.</summary>
    public Task<Outcome<Guid>> RemoveAsync(Guid id) => db.InTurnAsync<Guid>(async () =>
    {
        if (await db.CoolingReadings.SingleOrDefaultAsync(row => row.Id == id) is not { } row) return Stale.Gone("reading");
        db.CoolingReadings.Remove(row);
        await db.SaveChangesAsync();
        return id;
    });
}
