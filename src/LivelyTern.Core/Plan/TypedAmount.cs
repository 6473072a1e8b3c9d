using System.Globalization;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;

namespace LivelyTern.Core.Plan;

/// <summary>
/// An amount typed for something that lies on a day: "352 g", "352", "half", of a plain food also a whole line anew. Of 350 g skyr "352" is
/// 352 g skyr and "half" 175 g; of 2 eggs "3" are 3 eggs; of a box "half" is half of what is in it; of what comes in pieces "3" are three
/// of them, and where they may be halved "1 1/2" one and a half; of what was said to fill 8 cups "1 cup" is an eighth; of a meal of 9
/// points "half" is half of it, and "8 points" are its points anew.
/// </summary>
public static class TypedAmount
{
    private const string Hint = "Type grams, like 352 g, or a share, like half.";
    private const string OfIt = " of it";
    private const decimal FewestGrams = 5m;

    private static readonly Dictionary<string, decimal> Shares = new(StringComparer.OrdinalIgnoreCase)
    {
        ["half"] = 0.5m,
        ["a half"] = 0.5m,
        ["a quarter"] = 0.25m,
        ["quarter"] = 0.25m,
        ["three quarters"] = 0.75m,
        ["a third"] = 1m / 3,
        ["two thirds"] = 2m / 3,
        ["double"] = 2m,
        ["twice"] = 2m,
        ["one and a half"] = 1.5m,
        ["a serving and a half"] = 1.5m,
        ["a portion and a half"] = 1.5m,
        ["a box and a half"] = 1.5m,
    };

    /// <summary>What share of what lies there is meant: 0.5 by "half" and by "50 %"; null where no share is.</summary>
    public static decimal? ShareOf(string typed)
    {
        ArgumentNullException.ThrowIfNull(typed);
        var said = typed.EndsWith(OfIt, StringComparison.OrdinalIgnoreCase) ? typed[..^OfIt.Length].TrimEnd() : typed;
        if (Shares.TryGetValue(said, out var share)) return share;
        if (!said.EndsWith('%')) return null;
        return decimal.TryParse(said[..^1], NumberStyles.Number, CultureInfo.InvariantCulture, out var percent) ? percent / 100 : null;
    }

    /// <summary>What it makes of the thing.</summary>
    /// <param name="what">What lies there.</param>
    /// <param name="box">Where it is a box, all of it; where it is a portion, it as a box. Null for a plain food.</param>
    /// <param name="typed">What was typed.</param>
    /// <param name="read">Reads a whole line, as an amount of the food of an id where one is given.</param>
    public static Outcome<Laid> Of(Laid what, Box? box, string typed, Func<string, string?, FoodLine> read)
    {
        ArgumentNullException.ThrowIfNull(what);
        ArgumentNullException.ThrowIfNull(typed);
        ArgumentNullException.ThrowIfNull(read);
        typed = typed.Trim();
        return what switch
        {
            PlainFood food => Of(food, typed, read),
            Portion portion when box is not null => Of(portion, box, typed),
            LaidBox laid when box is not null => Of(laid, box, typed),
            MealOut meal => Of(meal, typed),
            Hold hold => Of(hold, typed),
            _ => Unread,
        };
    }

    private static Outcome<Laid> Of(Hold hold, string typed)
    {
        var amount = ShareOf(typed) is { } share ? hold.Amount * share : AmountText.Read(typed)?.Quantity;
        if (amount is not { } kept) return new Problem("amount-unread", "text", "Type how much of it is kept free, as a number.");
        return Hold.ProblemOf(kept) is { } wrong ? wrong with { Field = "text" } : hold with { Amount = kept };
    }

    // Of a meal a share; or its figures anew, under its own name or another.
    private static Outcome<Laid> Of(MealOut meal, string typed)
    {
        if (ShareOf(typed) is { } share)
            return meal with { Food = meal.Food with { Weight = meal.Food.Weight * share }, GiveOrTake = meal.GiveOrTake * share };
        if (SaidMeal.Read(SaidMeal.IsFiguresOnly(typed) ? $"{meal.Name} {typed}" : typed) is not { } said)
            return new Problem("amount-unread", "text", "Type a share of it, like half, or its figures: 600 kcal, 9 points.");
        return said.Value is { } anew ? anew : said.Problems.ToList();
    }

    private static readonly Problem Unread = new("amount-unread", "text", Hint);

    private static Outcome<Laid> Of(Portion portion, Box box, string typed)
    {
        if ((PiecesOf(box, typed) ?? VolumeOf(box, typed) ?? WeightOf(portion.Weight, typed)) is not { } weight) return Unread;
        return Portion.ProblemOf(weight) is { } wrong ? wrong : portion with { Weight = box.Batch.ByThePiece(weight) };
    }

    // Of what comes in pieces a bare number is pieces: "3", "3 pieces".
    private static Grams? PiecesOf(Box box, string typed)
    {
        if (box.Pieces is not > 0 || ShareOf(typed) is not null) return null;
        if (AmountText.Read(typed) is not { Unit: null, IsAbout: false } amount) return null;
        return amount.Rest is "" or "piece" or "pieces" ? box.Weight * (amount.Quantity / box.Pieces.Value) : null;
    }

    // Of what was said to fill cups also cups: "1 1/3 cups".
    private static Grams? VolumeOf(Box box, string typed) =>
        AmountText.Read(typed) is { Rest: "", IsAbout: false, Unit: { Kind: UnitKind.Volume } unit } amount
            ? box.Batch.WeightOfMl(amount.Quantity * unit.InBase)
            : null;

    private static Outcome<Laid> Of(LaidBox laid, Box box, string typed)
    {
        if ((PiecesOf(box, typed) ?? VolumeOf(box, typed) ?? WeightOf(box.Weight, typed)) is not { } weight) return Unread;
        if (weight.ToMilligram().Value <= 0 || weight > box.Weight)
            return new Problem("part-absurd", "text", $"There are {box.Weight.Value:0.#} g in it: type how much of that.");
        return laid with { Part = weight < box.Weight ? weight : null };
    }

    private static Outcome<Laid> Of(PlainFood food, string typed, Func<string, string?, FoodLine> read)
    {
        if (ShareOf(typed) is { } share && AmountText.Read(food.Text) is not null)
        {
            var weight = food.Food.Weight * share;
            var offer = new FillerOffer(food.Text, food.Food);
            var text = offer.IsWeighed ? offer.Weighing(weight.Value).Text : Scaled(food.Text, share);
            return new PlainFood(text, food.Food with { Weight = weight });
        }

        // Another amount of the same words is of the same food: rice that was weighed boiled stays boiled.
        var line = Completed(food.Text, typed);
        var anew = read(line, NamesTheSame(food.Text, line) ? food.Food.Food.Id : null);
        return anew.Ingredient is { } ingredient ? new PlainFood(line, ingredient) : NotUnderstood(anew);
    }

    private static bool NamesTheSame(string one, string other) =>
        AmountText.Read(one)?.Rest is { Length: > 0 } words
        && string.Equals(words, AmountText.Read(other)?.Rest, StringComparison.OrdinalIgnoreCase);

    private static Problem NotUnderstood(FoodLine line) => (line.AsOne.Problem ?? Unread) with { Field = "text" };

    // A bare amount stands in place of the one that is written; a bare number keeps its unit too.
    private static string Completed(string written, string typed)
    {
        if (AmountText.Read(typed) is not { Rest: "" } amount) return typed;
        if (AmountText.Read(written) is not { Rest.Length: > 0 } was) return typed;
        var unit = amount.Unit is null && amount.Pack is null && was.Pack is null ? was.Unit : null;
        return unit is null ? $"{typed} {was.Rest}" : $"{typed} {unit.Name} {was.Rest}";
    }

    private static string Scaled(string text, decimal share)
    {
        var amount = AmountText.Read(text)!.Scale(share);
        return amount.Rest.Length == 0 ? amount.Print() : $"{amount.Print()} {amount.Rest}";
    }

    // Grams, with or without the word; a fraction or a word is a share. What may be either is asked for again.
    private static Grams? WeightOf(Grams now, string typed)
    {
        if (ShareOf(typed) is { } share) return now * share;
        if (AmountText.Read(typed) is not { Rest: "", IsAbout: false } amount) return null;
        return amount.Unit switch
        {
            null when amount.Quantity < 1 => now * amount.Quantity,
            null => amount.Quantity >= FewestGrams ? new Grams(amount.Quantity) : null,
            { Kind: UnitKind.Mass } unit => new Grams(amount.Quantity * unit.InBase),
            _ => null,
        };
    }
}
