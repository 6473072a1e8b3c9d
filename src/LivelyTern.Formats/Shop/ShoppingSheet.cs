namespace LivelyTern.Formats.Shop;

/// <summary>A line of a list as it is taken along.</summary>
/// <param name="Key">What is ticked.</param>
/// <param name="Amount">How much, as one says it; empty where nothing is said.</param>
/// <param name="Name">Of what.</param>
/// <param name="Note">What it is for, or what is over; empty for nothing.</param>
/// <param name="IsTicked">Whether it is in the basket.</param>
/// <param name="Grams">What is bought, in grams; 0 for what nobody weighs.</param>
/// <param name="Cost">What it costs; null where that is not known.</param>
public sealed record SheetLine(string Key, string Amount, string Name, string Note, bool IsTicked, decimal Grams, decimal? Cost);

/// <summary>An aisle of a list.</summary>
public sealed record SheetAisle(string Name, IReadOnlyList<SheetLine> Lines);

/// <summary>A list as it is taken along, on paper or on a phone.</summary>
/// <param name="Title">What it is called, with its days.</param>
/// <param name="Aisles">The aisles with something in them, in order.</param>
/// <param name="Currency">What stands before a price.</param>
public sealed record ShoppingSheet(string Title, IReadOnlyList<SheetAisle> Aisles, string Currency);
