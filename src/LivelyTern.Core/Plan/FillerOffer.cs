using System.Globalization;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Plan;

/// <summary>An amount of a plain food that may fill a gap.</summary>
/// <param name="Text">As it is laid on the plan: "1 apple".</param>
/// <param name="Food">What it means.</param>
public sealed record FillerOffer(string Text, Ingredient Food)
{
    private const decimal ScaleStep = 5m, MostGrams = 1000m;
    private const int MostServings = 3, MostAmounts = 80;

    // What it is called after its grams, where it is one that is weighed; null where it is counted.
    private readonly string? weighed = AfterGrams(Text);

    // What is counted, and how many; null where it is weighed or measured.
    private readonly (int Count, string What)? counted = InWholeOnes(Text);

    /// <summary>Whether any weight of it can be laid; else whole servings.</summary>
    public bool IsWeighed => weighed is not null;

    /// <summary>How many it is, where it is counted in whole ones: 2 of "2 eggs"; else null.</summary>
    public int? Count => counted?.Count;

    /// <summary>So many of what is counted: of "2 eggs", "5 eggs" or "1 egg".</summary>
    /// <param name="count">How many, at least 1.</param>
    /// <exception cref="InvalidOperationException">It is not counted.</exception>
    public FillerOffer Counting(int count)
    {
        var (own, what) = counted ?? throw new InvalidOperationException($"“{Text}” is not counted.");
        if (count == own) return this;
        return new($"{count} {FoodWords.InNumber(what, count)}", Food with { Weight = new(Food.Weight.Value * count / own) });
    }

    /// <summary>So many servings of it: "40 g butter" of 20 g, "4 eggs" of 2, "2 apples" of 1; of anything else "2 x …".</summary>
    public FillerOffer Times(int count)
    {
        if (count == 1) return this;
        if (counted is { } whole) return Counting(whole.Count * count);
        var weight = Food.Weight * count;
        return new(weighed is null ? Measured(count) : TextOf(weight.Value), Food with { Weight = weight });
    }

    private string Measured(int count) =>
        AmountText.Read(Text) is { Also: null, Pack: null, IsAbout: false, Rest.Length: > 0, Unit: not null } one
            ? $"{one.Scale(count).Print()} {one.Rest}"
            : string.Create(CultureInfo.InvariantCulture, $"{count} x {Text}");

    /// <summary>Another weight of it.</summary>
    public FillerOffer Weighing(decimal grams) => new(TextOf(grams), Food with { Weight = new(grams) });

    /// <summary>
    /// The amounts of it that are tried: up to three servings; where it is weighed, half a serving to three in steps of 5 g, or of more
    /// where that were many.
    /// </summary>
    public IEnumerable<FillerOffer> Amounts()
    {
        if (!IsWeighed) return Enumerable.Range(1, MostServings).Select(Times);
        var serving = Food.Weight.Value;
        var most = Math.Min(serving * MostServings, Math.Max(serving, MostGrams));
        var step = Math.Max(1, Math.Ceiling(most / ScaleStep / MostAmounts)) * ScaleStep;
        var first = Math.Max(step, Rounding.ToStep(serving / 2, step));
        var steps = Enumerable.Range(0, MostAmounts).Select(i => first + (i * step)).TakeWhile(weight => weight <= most);
        return steps.Where(weight => weight != serving).Select(Weighing).Prepend(this);
    }

    private static string? AfterGrams(string text) =>
        AmountText.Read(text) is { Also: null, Pack: null, IsAbout: false } amount && amount.Unit == Unit.Gram && amount.Rest.Length > 0
            ? amount.Rest
            : null;

    private static (int Count, string What)? InWholeOnes(string text) =>
        AmountText.Read(text) is { Unit: null, Also: null, Pack: null, IsAbout: false, Rest.Length: > 0 } amount
            && amount.Quantity is >= 1 and <= 1000 && amount.Quantity == decimal.Truncate(amount.Quantity)
            ? ((int)amount.Quantity, amount.Rest)
            : null;

    private string TextOf(decimal grams) => string.Create(CultureInfo.InvariantCulture, $"{grams:0.#} g {weighed ?? Food.Food.Name}");
}
