using LivelyTern.Core.Cook;
using LivelyTern.Core.Foods;
using LivelyTern.Data.Cook;

namespace LivelyTern.Web.Cook;

/// <summary>A line of a batch.</summary>
/// <param name="Position">Which, from 0.</param>
/// <param name="Text">As the recipe writes it, for its own portions.</param>
/// <param name="Name">The food, where it is one that went in; else as it is written.</param>
/// <param name="PlannedName">The same of what was to go in.</param>
/// <param name="IsTakenOut">Whether it is taken out again.</param>
/// <param name="PlannedGrams">What was to go in; below zero where it is taken out.</param>
/// <param name="ReallyText">What went in instead, as typed; empty where it was left out; null where it went in as planned.</param>
/// <param name="WentInGrams">What went in.</param>
public sealed record BatchLineView(
    int Position, string Text, string Name, string PlannedName, bool IsTakenOut, decimal PlannedGrams, string? ReallyText,
    decimal WentInGrams)
{
    /// <summary>The lines of a batch as shown.</summary>
    public static async Task<IReadOnlyList<BatchLineView>> OfAsync(BatchRow row, BatchReader reader)
    {
        ArgumentNullException.ThrowIfNull(reader);
        static string NameOf(Contents contents, string written) => contents.Ingredients is [var only] ? only.Food.Name : written;
        static string Written(BatchLine line) => line.ReallyText is { Length: > 0 } really ? really : line.Text;
        return
        [
            .. (await reader.LinesOfAsync(row)).Select((line, i) => new BatchLineView(
                i, line.Text, NameOf(line.WentIn, Written(line)), NameOf(line.Planned, line.Text), line.IsTakenOut,
                line.Planned.RawWeight.Value, line.ReallyText, line.WentIn.RawWeight.Value)),
        ];
    }
}

/// <summary>A batch as it is cooked.</summary>
/// <param name="Id">The batch.</param>
/// <param name="RecipeId">Its recipe.</param>
/// <param name="Name">The dish.</param>
/// <param name="Letters">Its tape mark.</param>
/// <param name="Tint">Its tint.</param>
/// <param name="State">Where it stands.</param>
/// <param name="CookedOn">The day it was cooked, or is to be.</param>
/// <param name="Portions">For how many portions.</param>
/// <param name="RawGrams">What goes or went in, before cooking.</param>
/// <param name="PanGrams">The empty pan, where it was weighed.</param>
/// <param name="CookedGrams">What it weighed without the pan; null until it is weighed.</param>
/// <param name="Yield">Cooked by raw weight, written when it was weighed.</param>
/// <param name="ExpectedGrams">What it is expected to weigh; null once it is packed, or where that is not known.</param>
/// <param name="Lines">What goes or went in.</param>
/// <param name="Together">What it is put together from, and what is put together from it.</param>
/// <param name="Version">For the next write.</param>
public sealed record CookView(
    Guid Id, Guid RecipeId, string Name, string Letters, int Tint, BatchState State, DateOnly CookedOn, int Portions, decimal RawGrams,
    decimal? PanGrams, decimal? CookedGrams, decimal? Yield, decimal? ExpectedGrams, IReadOnlyList<BatchLineView> Lines,
    TogetherView Together, int Version)
{
    /// <summary>A batch as shown.</summary>
    public static async Task<CookView> OfAsync(BatchRow row, BatchReader reader)
    {
        ArgumentNullException.ThrowIfNull(row);
        ArgumentNullException.ThrowIfNull(reader);
        var batch = await reader.ReadAsync(row);
        var lines = await BatchLineView.OfAsync(row, reader);
        return new(
            row.Id, row.RecipeId, batch.RecipeName, row.Letters, row.Tint, row.State, row.CookedOn, row.Portions,
            batch.Contents.RawWeight.Value,
            Data.Milligrams.ToGrams(row.PanMilligrams)?.Value, batch.Cooked?.Value, row.Yield, batch.Expected?.Weight.Value, lines,
            await TogetherView.OfAsync(batch, row, reader), row.Version);
    }
}
