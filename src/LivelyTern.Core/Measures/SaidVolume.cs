using System.Globalization;

namespace LivelyTern.Core.Measures;

/// <summary>
/// What a part of a dish fills, as its cook would say it: in cups where the whole comes to cups, else in millilitres. Of 8 cups for six
/// each gets "1 1/3 cups", for five "about 1 2/3 cups"; of 2 litres for six "330 ml".
/// </summary>
public static class SaidVolume
{
    private const decimal LeastBareMl = 50m;
    private const decimal CupExactly = 0.002m, Nearly = 0.02m, LeastCups = 0.2m, LeastMl = 20m;

    // The marks of a set of measuring cups.
    private static readonly decimal[] Marks = [0, 0.25m, 1m / 3, 0.5m, 2m / 3, 0.75m, 1];

    /// <summary>
    /// Reads what a dish is said to fill: "8 cups", "1 1/2 l", "900 ml", "900". A bare 8 says nothing: cups, or litres?
    /// </summary>
    /// <returns>Millilitres; null where it can't be read.</returns>
    public static decimal? Read(string text)
    {
        if (AmountText.Read(text + " ") is not { Rest: "", Quantity: > 0 } amount) return null;
        return amount.Unit switch
        {
            { Kind: UnitKind.Volume } unit => amount.Quantity * unit.InBase,
            null when amount.Quantity >= LeastBareMl => amount.Quantity,
            _ => null,
        };
    }

    /// <summary>What a whole dish fills, to be read again: "8 cups" where it comes to cups, else "900 ml".</summary>
    /// <param name="ml">Millilitres.</param>
    public static string Of(decimal ml) =>
        ComesToCups(ml)
            ? Say(Nearest(ml / Unit.Cup.InBase), ml / Unit.Cup.InBase, "cup", "cups")
            : string.Create(CultureInfo.InvariantCulture, $"{ml:0.##} ml");

    /// <summary>Says it.</summary>
    /// <param name="ml">The part, in millilitres.</param>
    /// <param name="whole">What the dish was said to fill, in millilitres.</param>
    /// <returns>
    /// The nearest mark, or ten millilitres, "about" where that is more than 2 % off; null where it is too little to be measured so.
    /// </returns>
    public static string? Of(decimal ml, decimal whole)
    {
        if (!ComesToCups(whole))
            return ml < LeastMl ? null : Say(Rounding.ToStep(ml, ml < 100 ? 5 : 10), ml, "ml", "ml");
        var cups = ml / Unit.Cup.InBase;
        return cups < LeastCups ? null : Say(Nearest(cups), cups, "cup", "cups");
    }

    private static bool ComesToCups(decimal whole)
    {
        var inCups = whole / Unit.Cup.InBase;
        return Math.Abs(inCups - Nearest(inCups)) <= CupExactly * inCups;
    }

    private static string Say(decimal said, decimal really, string one, string more)
    {
        var about = Math.Abs(said - really) > Nearly * really ? "about " : "";
        return $"{about}{AmountText.Say(said)} {(said > 1 ? more : one)}";
    }

    private static decimal Nearest(decimal cups)
    {
        var whole = Math.Floor(cups);
        return Marks.Select(mark => whole + mark).MinBy(mark => Math.Abs(mark - cups));
    }
}
