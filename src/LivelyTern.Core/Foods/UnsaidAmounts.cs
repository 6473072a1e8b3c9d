using System.Text.RegularExpressions;
using LivelyTern.Core.Measures;
using static LivelyTern.Core.Foods.LineText;

namespace LivelyTern.Core.Foods;

/// <summary>What is used without an amount: a pinch, to taste, for the pan, to serve; recorded at the least that it can be.</summary>
internal static class UnsaidAmounts
{
    /// <summary>Said of a seasoning: as much as one likes.</summary>
    public const string ToTaste = "to taste";

    // A seasoning that is pinched is not meant by more than this.
    private static readonly Grams MostPinched = new(60m);

    private static readonly Regex TraceOpening = Pattern(
        @"^(?:(?:an?|one|two|three|[1-9])\s+)?(?:(?:small|good|generous|large|big|tiny|little|hearty)\s+)?"
        + @"(?:pinch(?:es)?|dash(?:es)?|sprinkles?|sprinkling|twists?|grinds?|grinding|few grinds|few twists)\s+(?:of\s+)?(?<food>\S.*)$");

    private static readonly string[] Traces = ["pinch", "dash", "sprinkl", "twist", "grind"];

    // What is used without an amount being said.
    private static readonly Regex Purpose = Pattern(
        @"\b(?:for|to)\s+(?:\w+\s+)?(?:serv|garnish|tast|fry|greas|drizzl|dust|sprinkl|finish|decorat|coat|brush|topp|top\b"
        + @"|the\s+(?:pan|tin|dish|top)|cook|roll|dip|spray|saut)"
        + @"|\bas\s+(?:needed|required|desired)|\bif\s+(?:needed|desired|you\s+like)|\boptional\b|\bplus\s+extra\b");

    /// <summary>Whether a line says what it is used for, "for frying", "to serve", "optional".</summary>
    public static bool SaysWhatFor(string line) => Purpose.IsMatch(line);

    /// <summary>The food of a pinch or of what is taken to taste, and what was said of how much; null for any other line.</summary>
    public static (string Food, string Said)? Trace(string text)
    {
        var trimmed = text.Trim();
        if (Traces.Any(word => Says(trimmed, word)) && TraceOpening.Match(trimmed) is { Success: true } opening)
            return (opening.Groups["food"].Value, "");
        var isToTaste = trimmed.EndsWith(ToTaste, StringComparison.OrdinalIgnoreCase) && AmountText.Read(trimmed) is null;
        return isToTaste ? (trimmed[..^ToTaste.Length].TrimEnd(' ', ','), ToTaste) : null;
    }

    /// <summary>Whether it has no energy at all.</summary>
    public static bool IsWater(Food food) => food.Per100g is { Energy: 0, Protein: 0, Carbohydrate: 0 };

    /// <summary>The least of it, in grams: nothing of a seasoning, a spray, a spoonful for the pan, a gram of what is served.</summary>
    // Common practice, no published source: a pan takes a teaspoon of oil at least, and who serves something serves a gram of it.
    public static Grams LeastOf(Food food, string line)
    {
        if (IsPinched(food) || IsWater(food)) return Grams.Zero;
        if (food.MeasureNamed("spray") is { } spray) return spray.Weight;
        var isForThePan = food.Group == FoodGroup.Fats && !line.Contains("serv", StringComparison.OrdinalIgnoreCase);
        return isForThePan && food.WeightOf(1, Unit.Teaspoon) is { } spoon ? new(Math.Round(spoon.Value, 2)) : new Grams(1);
    }

    /// <summary>Whether it is a seasoning of which a pinch is taken.</summary>
    // Salt, pepper, herbs: what a spoon or a leaf holds is a few grams. Not a sauce, nor a recipe of one's own.
    public static bool IsPinched(Food food) =>
        food is { Group: FoodGroup.Seasonings, Per100g.Energy: not null } && food.Measures.Any(measure => measure.Weight.Value <= 7)
        && !FacetWords.IsPoured(NameFacets.Of(food.Name, isName: true).Head);

    /// <summary>Whether so much of it can't be meant by a seasoning's name.</summary>
    public static bool IsTooMuchToPinch(Food food, Grams weight) => IsPinched(food) && weight > MostPinched;
}
