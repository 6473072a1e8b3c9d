namespace LivelyTern.Core.Plan.Fit;

/// <summary>What fills a gap in a household that has laid little by hand yet.</summary>
public static class StartingFillers
{
    /// <summary>The fewest offers a fit works with, before these are added.</summary>
    public const int Fewest = 8;

    /// <summary>Amounts as people say them, read against the foods like any other line.</summary>
    public static IReadOnlyList<string> Texts { get; } =
    [
        "1 apple", "1 banana", "1 orange", "1 carrot", "150 g skyr", "1 egg", "1 slice rye bread", "30 g almonds", "200 ml oat milk",
        "100 g cottage cheese", "40 g rolled oats", "150 g strawberries", "10 g butter", "30 g cheddar", "70 g avocado", "100 g tuna",
    ];
}
