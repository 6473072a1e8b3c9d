using System.Text.RegularExpressions;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Recipes;

/// <summary>
/// What a recipe makes, as people write it: "makes 12 muffins", "serves 6 (1 1/3 cups each)", "8 cups", "about 1.8 kg", "6".
/// </summary>
/// <param name="Portions">Portions; null where it does not say.</param>
/// <param name="Pieces">Pieces; null where it makes none, or does not say.</param>
/// <param name="CookedGrams">What it weighs, in grams.</param>
/// <param name="VolumeMl">What it fills, in millilitres.</param>
/// <param name="MayHalve">Whether it says that a piece may be halved: "12 muffins (may be halved)".</param>
/// <param name="IsPutTogether">Whether it says that it is put together: "1 box (put together)".</param>
public sealed record SaidYield(
    int? Portions = null, int? Pieces = null, decimal? CookedGrams = null, decimal? VolumeMl = null, bool MayHalve = false,
    bool IsPutTogether = false)
{
    /// <summary>The words that say that a dish is put together, in brackets.</summary>
    public const string PutTogether = "put together";

    /// <summary>The words that say that a piece may be halved, in brackets.</summary>
    public const string MayBeHalved = "may be halved";

    private const string LeadWords =
        @"(?:serves|makes|yields?|servings|portions|about|approx\.?|approximately|for|ca\.?|enough for|recipe yield)\s*:?\s+";

    private static readonly Regex LeadPattern = new($"^\\s*(?:{LeadWords})+", RegexOptions.NonBacktracking | RegexOptions.IgnoreCase);
    private static readonly Regex EachPattern = new(
        @"^(?<main>[^()]*)\((?<inner>[^()]*)\)\s*(?<each>each|per serving|per portion|a serving|a portion)?\.?\s*$",
        RegexOptions.NonBacktracking | RegexOptions.IgnoreCase | RegexOptions.ExplicitCapture);

    private static readonly string[] OfPeople = ["serving", "portion", "person", "people", "eater", "plate", "bowl"];
    private static readonly string[] EachWords = [" each", " per serving", " per portion", " a serving", " a portion"];

    /// <summary>Whether a line says what is made, and not what goes in: it begins with "makes", "serves" or the like.</summary>
    public static bool IsSaidIn(string line)
    {
        ArgumentNullException.ThrowIfNull(line);
        return LeadPattern.IsMatch(line) && Read(line) is not null;
    }

    /// <summary>Reads one text; null where it says nothing of the kind.</summary>
    public static SaidYield? Read(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        var plain = LeadPattern.Replace(text.Trim(), "").Trim().TrimEnd('.');
        var (main, inner, isEach) = Parts(plain);
        if (!main.Any(char.IsDigit) || AmountText.Read(main + " ") is not { Quantity: > 0 } amount) return null;
        var said = amount.Unit is null ? Counted(amount) : OfAmount(amount, 1);
        if (MayBeHalved.Equals(inner, StringComparison.OrdinalIgnoreCase)) return said with { MayHalve = said.Pieces is not null };
        if (PutTogether.Equals(inner, StringComparison.OrdinalIgnoreCase))
            return new(1, IsPutTogether: true);
        if (inner is null || AmountText.Read(inner + " ") is not { Unit: not null, Quantity: > 0 } beside) return said;
        var more = OfAmount(beside, isEach ? said.Pieces ?? said.Portions ?? 1 : 1);
        return said with { CookedGrams = said.CookedGrams ?? more.CookedGrams, VolumeMl = said.VolumeMl ?? more.VolumeMl };
    }

    /// <summary>What this says, and where it says nothing, what another does.</summary>
    public SaidYield Or(SaidYield other)
    {
        ArgumentNullException.ThrowIfNull(other);
        var (grams, ml) = (CookedGrams ?? other.CookedGrams, VolumeMl ?? other.VolumeMl);
        return new(
            Portions ?? other.Portions, Pieces ?? other.Pieces, grams, ml, MayHalve || other.MayHalve,
            IsPutTogether || other.IsPutTogether);
    }

    /// <summary>As a recipe's yield; one portion where nothing was said of them.</summary>
    public RecipeYield ToYield() => IsPutTogether
        ? new(1, VolumeMl: VolumeMl, IsPutTogether: true)
        : new(Portions ?? 1, Pieces, CookedGrams, VolumeMl, MayHalve: MayHalve);

    // "6 (1 1/3 cups each)": what stands in brackets is of each, or of all.
    private static (string Main, string? Inner, bool IsEach) Parts(string text)
    {
        if (EachPattern.Match(text) is not { Success: true } match) return (text, null, false);
        var inner = match.Groups["inner"].Value.Trim();
        var each = EachWords.FirstOrDefault(word => inner.EndsWith(word, StringComparison.OrdinalIgnoreCase));
        return (match.Groups["main"].Value, each is null ? inner : inner[..^each.Length], each is not null || match.Groups["each"].Success);
    }

    private static SaidYield OfAmount(AmountText amount, int times) => amount.Unit!.Kind == UnitKind.Mass
        ? new(CookedGrams: amount.Quantity * amount.Unit.InBase * times)
        : new(VolumeMl: amount.Quantity * amount.Unit.InBase * times);

    private static SaidYield Counted(AmountText amount)
    {
        var whole = (int)Math.Clamp(Math.Round(amount.Quantity, MidpointRounding.AwayFromZero), 1, RecipeYield.MostPortions);
        var word = amount.Rest.Trim().ToLowerInvariant();
        var isOfPeople = word.Length == 0 || OfPeople.Any(one => word.StartsWith(one, StringComparison.Ordinal));
        return isOfPeople ? new(whole) : new(whole, whole);
    }
}
