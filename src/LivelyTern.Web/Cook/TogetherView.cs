using LivelyTern.Core.Cook;
using LivelyTern.Data.Cook;

namespace LivelyTern.Web.Cook;

/// <summary>A batch that a put-together dish takes of.</summary>
/// <param name="BatchId">The batch.</param>
/// <param name="Name">What it is.</param>
/// <param name="Letters">Its tape mark.</param>
/// <param name="Tint">Its tint.</param>
/// <param name="State">Where it stands.</param>
/// <param name="CookedOn">The day it was cooked, or is to be.</param>
/// <param name="Grams">What all boxes of the dish get of it.</param>
/// <param name="Asked">What they would get if there were enough of it.</param>
/// <param name="IsWeighed">Whether it is weighed.</param>
/// <param name="Pieces">How many pieces that is, where it comes in pieces.</param>
/// <param name="Expected">What its weight rests on while it is not weighed; null where it is.</param>
public sealed record DishPartView(
    Guid BatchId, string Name, string Letters, int Tint, BatchState State, DateOnly CookedOn, decimal Grams, decimal Asked, bool IsWeighed,
    decimal? Pieces, ExpectedFrom? Expected);

/// <summary>A put-together dish that takes of a batch.</summary>
/// <param name="BatchId">The dish.</param>
/// <param name="Name">What it is.</param>
/// <param name="Grams">What it takes.</param>
/// <param name="IsPacked">Whether that is in its boxes already.</param>
public sealed record GoesIntoView(Guid BatchId, string Name, decimal Grams, bool IsPacked);

/// <summary>A plain food in a put-together dish, over all its boxes; 0 g where nobody weighs it.</summary>
public sealed record PlainPartView(string Name, decimal Grams);

/// <summary>What a batch is put together from, and what is put together from it.</summary>
/// <param name="IsPutTogether">Whether it is put together from others.</param>
/// <param name="Parts">The batches it takes of.</param>
/// <param name="Plain">The plain foods in it.</param>
/// <param name="GoesInto">The dishes that take of it.</param>
public sealed record TogetherView(
    bool IsPutTogether, IReadOnlyList<DishPartView> Parts, IReadOnlyList<PlainPartView> Plain, IReadOnlyList<GoesIntoView> GoesInto)
{
    /// <summary>How a batch stands in this.</summary>
    public static async Task<TogetherView> OfAsync(Batch batch, BatchRow row, BatchReader reader)
    {
        ArgumentNullException.ThrowIfNull(batch);
        ArgumentNullException.ThrowIfNull(row);
        ArgumentNullException.ThrowIfNull(reader);
        var asked = row.IsPutTogether ? await reader.AskedAsync(row.Id) : new Dictionary<Guid, Core.Measures.Grams>();
        DishPartView Show(BatchPart part) => new(
            part.Of.Id, part.Of.RecipeName, part.Of.Mark.Letters, part.Of.Mark.Tint, part.Of.State, part.Of.CookedOn, part.Weight.Value,
            asked[part.Of.Id].Value, part.Of.Cooked is not null, part.Of.PiecesIn(part.Weight),
            part.Of.Cooked is null ? part.Of.Expected?.From : null);
        var into = await reader.GoesIntoAsync(row.Id);
        GoesIntoView Into((BatchRow Dish, Core.Measures.Grams Weight) one) =>
            new(one.Dish.Id, one.Dish.RecipeName, one.Weight.Value, one.Dish.State == BatchState.Packed);
        var plain = batch.Plain?.Gathered().Ingredients.Select(part => new PlainPartView(part.Food.Name, part.Weight.Value)) ?? [];
        return new(row.IsPutTogether, [.. batch.Parts.Select(Show)], [.. plain], [.. into.Select(Into)]);
    }
}
