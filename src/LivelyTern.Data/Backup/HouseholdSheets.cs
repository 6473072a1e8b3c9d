using System.Globalization;
using LivelyTern.Core.Aim;
using LivelyTern.Core.Pack;
using LivelyTern.Data.Eat;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Backup;

/// <summary>A table for a spreadsheet: the names of its columns, with their units, and its rows.</summary>
public sealed record Sheet(IReadOnlyList<string> Header, IReadOnlyList<IReadOnlyList<string?>> Rows);

/// <summary>
/// What a household wrote, as tables for a spreadsheet: days as 2026-11-25, numbers with a point, of one eater or of all.
/// </summary>
public sealed class HouseholdSheets(TernDb db, TimeProvider clock)
{
    private static readonly Dictionary<Measure, string> Columns = new()
    {
        [Measure.Energy] = "energy_kcal",
        [Measure.Protein] = "protein_g",
        [Measure.Carbohydrate] = "carbohydrate_g",
        [Measure.NetCarbohydrate] = "net_carbohydrate_g",
        [Measure.Fat] = "fat_g",
        [Measure.SaturatedFat] = "saturated_fat_g",
        [Measure.Sugars] = "sugars_g",
        [Measure.Fibre] = "fibre_g",
        [Measure.Salt] = "salt_g",
        [Measure.Points] = "points",
    };

    /// <summary>
    /// What was eaten, as it stands now: what was taken back or corrected is not among it. A figure that is not wholly known is what is
    /// known of it, and its column is named in <c>not_wholly_known</c>.
    /// </summary>
    public async Task<Sheet> EntriesAsync(Guid? eaterId = null)
    {
        var eaters = await EatersAsync();
        var codes = await CodesAsync();
        var rows = await db.StandingEntries().Where(row => eaterId == null || row.EaterId == eaterId)
            .OrderBy(row => row.Day).ThenBy(row => row.EatenAt).ThenBy(row => row.Id).ToListAsync();
        return new(
            ["day", "time", "eater", "name", "grams", .. Columns.Values, "not_wholly_known", "box"],
            [.. rows.Select(row => (IReadOnlyList<string?>)
            [
                Said(row.Day), TimeOf(row.EatenAt), eaters.GetValueOrDefault(row.EaterId), row.Name, Said(row.Decigrams / 10m),
                .. Columns.Keys.Select(measure => row.Measures.Totals.TryGetValue(measure, out var total) ? Said(total.AtLeast) : null),
                string.Join(' ', Columns.Where(one => IsOpen(row, one.Key)).Select(one => one.Value)),
                row.BoxId is { } box ? codes.GetValueOrDefault(box) : null,
            ])]);
    }

    /// <summary>What scales said.</summary>
    public async Task<Sheet> WeighInsAsync(Guid? eaterId = null)
    {
        var eaters = await EatersAsync();
        var rows = await db.WeighIns.AsNoTracking().Where(row => eaterId == null || row.EaterId == eaterId)
            .OrderBy(row => row.Day).ThenBy(row => row.EaterId).ToListAsync();
        return new(
            ["day", "eater", "weight_kg", "as_typed", "unit_typed"],
            [.. rows.Select(row => (IReadOnlyList<string?>)
            [
                Said(row.Day), eaters.GetValueOrDefault(row.EaterId), Said(row.Grams / 1000m), row.Text, row.Unit.ToString(),
            ])]);
    }

    /// <summary>Every box that was packed, and where it is or what became of it; of one eater those that are or were theirs.</summary>
    public async Task<Sheet> BoxesAsync(Guid? eaterId = null)
    {
        var eaters = await EatersAsync();
        var rows = await db.Boxes.AsNoTracking().Include(row => row.Batch).Include(row => row.Parts)
            .Where(row => eaterId == null || row.ForId == eaterId)
            .OrderBy(row => row.Batch.Serial).ThenBy(row => row.Number).AsSplitQuery().ToListAsync();
        return new(
            ["box", "dish", "cooked_on", "grams", "state", "place", "there_since", "frozen_on", "eater"],
            [.. rows.Select(row => (IReadOnlyList<string?>)
            [
                CodeOf(row.Batch.Serial, row.Number), row.Batch.RecipeName, row.Batch.CookedOn is { } day ? Said(day) : null,
                Said(row.Parts.Sum(part => part.Milligrams) / 1000m), row.State.ToString(), row.Place.ToString(), Said(row.PlacedOn),
                row.FrozenOn is { } frozen ? Said(frozen) : null, row.ForId is { } whose ? eaters.GetValueOrDefault(whose) : null,
            ])]);
    }

    /// <summary>What lies on which day, eaten or to be eaten.</summary>
    public async Task<Sheet> PlanAsync(Guid? eaterId = null)
    {
        var eaters = await EatersAsync();
        var codes = await CodesAsync();
        var dishes = await db.Batches.AsNoTracking().ToDictionaryAsync(row => row.Id, row => row.RecipeName);
        var boxes = await db.Boxes.AsNoTracking().Select(row => new { row.Id, row.BatchId, Grams = row.Parts.Sum(part => part.Milligrams) })
            .ToDictionaryAsync(row => row.Id);
        var rows = await db.PlanItems.AsNoTracking().Where(row => eaterId == null || row.EaterId == eaterId)
            .OrderBy(row => row.Day).ThenBy(row => row.EaterId).ThenBy(row => row.Position).ToListAsync();
        return new(
            ["day", "eater", "meal", "name", "grams", "box", "eaten_at", "for_guests"],
            [.. rows.Select(row =>
            {
                var box = row.BoxId is { } id ? boxes.GetValueOrDefault(id) : null;
                var batch = row.BatchId ?? box?.BatchId;
                var grams = row.Milligrams is { } part ? part / 1000m : box is not null ? box.Grams / 1000m : row.FoodGrams;
                return (IReadOnlyList<string?>)
                [
                    Said(row.Day), eaters.GetValueOrDefault(row.EaterId), row.Slot,
                    batch is { } dish ? dishes.GetValueOrDefault(dish) : row.Text ?? HeldFree(row.HoldMeasure, row.HoldAmount),
                    grams is { } weight ? Said(weight) : null, row.BoxId is { } boxId ? codes.GetValueOrDefault(boxId) : null,
                    row.EatenAt is { } at ? TimeOf(at) : null, row.IsForGuests ? "yes" : null,
                ];
            })]);
    }

    private static bool IsOpen(EntryRow row, Measure measure) =>
        row.Measures.Totals.TryGetValue(measure, out var total) && !total.IsComplete;

    private static string? HeldFree(Measure? measure, decimal? amount) =>
        measure is { } of && amount is { } free ? $"kept free: {Said(free)} {Columns.GetValueOrDefault(of, of.ToString())}" : null;

    private async Task<Dictionary<Guid, string>> EatersAsync() =>
        await db.Eaters.AsNoTracking().IgnoreAutoIncludes().ToDictionaryAsync(row => row.Id, row => row.Name);

    private async Task<Dictionary<Guid, string>> CodesAsync() => await db.Boxes.AsNoTracking()
        .Select(row => new { row.Id, row.Batch.Serial, row.Number })
        .ToDictionaryAsync(row => row.Id, row => CodeOf(row.Serial, row.Number));

    private static string CodeOf(int batch, int number) => new BoxCode(batch, number).ToString();

    private string TimeOf(DateTimeOffset at) =>
        TimeZoneInfo.ConvertTime(at, clock.LocalTimeZone).ToString("yyyy-MM-dd HH:mm", CultureInfo.InvariantCulture);

    private static string Said(DateOnly day) => day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);

    private static string Said(decimal number) => number.ToString("0.############", CultureInfo.InvariantCulture);
}
