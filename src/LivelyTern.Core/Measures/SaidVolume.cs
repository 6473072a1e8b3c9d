namespace LivelyTern.Core.Measures;

/// <summary>
/// What a part of a dish fills, as its cook would say it: in cups where the whole comes to cups, else in millilitres. Of 8 cups for six
/// each gets "1 1/3 cups", for five "about 1 2/3 cups"; of 2 litres for six "330 ml".
/// </summary>
public static class SaidVolume
{
    private const decimal CupExactly = 0.002m, Nearly = 0.02m, LeastCups = 0.2m, LeastMl = 20m;

    // The marks of a set of measuring cups.
    private static readonly decimal[] Marks = [0, 0.25m, 1m / 3, 0.5m, 2m / 3, 0.75m, 1];

    /// <summary>Says it.</summary>
    /// <param name="ml">The part, in millilitres.</param>
    /// <param name="whole">What the dish was said to fill, in millilitres.</param>
    /// <returns>
    /// The nearest mark, or ten millilitres, "about" where that is more than 2 % off; null where it is too little to be measured so.
    /// </returns>
    public static string? Of(decimal ml, decimal whole)
    {
        var inCups = whole / Unit.Cup.InBase;
        if (Math.Abs(inCups - Nearest(inCups)) > CupExactly * inCups)
            return ml < LeastMl ? null : Say(Rounding.ToStep(ml, ml < 100 ? 5 : 10), ml, "ml", "ml");
        var cups = ml / Unit.Cup.InBase;
        return cups < LeastCups ? null : Say(Nearest(cups), cups, "cup", "cups");
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
