using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Pack;

/// <summary>A box that is filled in its own way.</summary>
/// <param name="Wish">What it is to hold; null for the portion that lies on a day, as it is planned.</param>
/// <param name="Planned">What that portion was planned as; null for a box of no day.</param>
/// <param name="Got">What the scale said that is in it; null while it is still to be filled.</param>
public sealed record OwnBox(BoxWish? Wish, Grams? Planned, Grams? Got);

/// <summary>
/// A batch into boxes, each in its own way. Portions on days get their share of it, the others divide what those leave; from the first
/// box on the scale it goes by what each really got.
/// </summary>
public static class OwnWays
{
    /// <summary>Divides it.</summary>
    /// <param name="cooked">What the batch weighs.</param>
    /// <param name="by">What it is measured out by.</param>
    /// <param name="expected">What it was planned by.</param>
    /// <param name="inDishes">Grams of it that go into put-together dishes, and into none of these boxes.</param>
    /// <param name="volumeMl">What all of it fills, in millilitres; null where nobody knows.</param>
    /// <param name="boxes">The boxes, those of planned portions in the order of their days.</param>
    /// <param name="read">What a weight of the batch holds of a budget's measure; more of it never holds less.</param>
    public static Outcome<DividedBatch> Of(
        Grams cooked, MeasuredOut by, Grams expected, Grams inDishes, decimal? volumeMl, IReadOnlyList<OwnBox> boxes,
        Func<AtMostWish, Grams, decimal> read)
    {
        ArgumentNullException.ThrowIfNull(by);
        ArgumentNullException.ThrowIfNull(boxes);
        ArgumentNullException.ThrowIfNull(read);
        if (by.Pieces is not null && boxes.Any(box => box.Got is not null))
            return new Problem("pieces-weighed", "boxes", "What goes by the piece is counted, and not weighed box by box.");
        if (Wrong(boxes, by, volumeMl) is { } wrong) return wrong;
        var here = by.Units - InDishes(inDishes, by);
        if (here < 1)
        {
            var sentence = $"{inDishes.Value:0.#} g of it go into put-together dishes, and nothing is left for boxes of its own.";
            return new Problem("all-in-dishes", "boxes", sentence);
        }

        var planned = AsPlanned(by, expected, inDishes, boxes);
        if (!planned.Succeeded) return planned.Problems.ToList();
        BoxWish InUnits(BoxWish wish) => wish switch
        {
            VolumeWish filled => InSteps(cooked * (filled.Ml / volumeMl!.Value) / by.Each),
            WeightWish given when by.Pieces is not null => InSteps(given.Weight / by.Each),
            PiecesWish counted when by.Pieces is { } made => new WeightWish(new(counted.Count / made.Step)),
            _ => wish,
        };
        var wishes = boxes.Select((box, i) => box.Wish is { } wish ? InUnits(wish) : new WeightWish(new(planned.Value![i]))).ToList();
        var divided = Portioning.Of(new(here), null, wishes, (wish, units) => read(wish, by.Each * units.Value), by.Say);
        if (!divided.Succeeded) return divided.Problems.ToList();
        var asked = divided.Value!.Portions.Select(units => units.Value).ToList();
        var isBudget = wishes.ConvertAll(wish => wish is AtMostWish);
        var now = Filling.Now(asked, divided.Value.Over.Value, isBudget, [.. boxes.Select(box => box.Got?.Value)], here);
        return Filled(cooked, by, here, [.. asked.Zip(isBudget)], now);
    }

    // Each box's grams to the milligram, so that all of them are the milligrams of their sum.
    private static DividedBatch Filled(
        Grams cooked, MeasuredOut by, decimal here, IReadOnlyList<(decimal Units, bool IsMost)> asked, IReadOnlyList<decimal> units)
    {
        var (sofar, portions) = (0m, new List<DividedPortion>());
        Grams Up(decimal to) => (cooked * (to / by.Units)).ToMilligram();
        foreach (var (one, target) in units.Zip(asked))
        {
            var weight = by.Pieces is null ? Up(sofar + one) - Up(sofar) : new(cooked.Value * one / by.Units);
            portions.Add(new(weight, by.PiecesIn(one)) { OnScale = new(one), Target = new(target.Units), IsMost = target.IsMost });
            sofar += one;
        }

        var over = here - sofar;
        return new(portions, Math.Max(0, by.PiecesIn(over) ?? 0), Up(Math.Max(0, over))) { Missing = new(Math.Max(0, -over)) };
    }

    // Of a piece that is begun for a dish the rest goes into none of these boxes.
    private static decimal InDishes(Grams inDishes, MeasuredOut by)
    {
        var units = inDishes / by.Each;
        return by.Pieces is null ? units : Math.Ceiling(units);
    }

    private static Outcome<decimal[]> AsPlanned(MeasuredOut by, Grams expected, Grams inDishes, IReadOnlyList<OwnBox> boxes)
    {
        var planned = boxes.Where(box => box.Planned is not null).Select(box => box.Planned!.Value).ToList();
        if (planned.Count == 0) return new decimal[boxes.Count];
        var (factor, taken) = (1 / by.Each.Value, InDishes(inDishes, by));
        IReadOnlyList<decimal> units;
        if (by.Pieces is { } made)
        {
            var counted = Divide.PiecesAsPlanned(made, expected, planned, planned.Count, taken * made.Step);
            if (!counted.Succeeded) return counted.Problems.ToList();
            units = [.. counted.Value!.Portions.Select(count => count / made.Step)];
        }
        else
        {
            var shares = Divide.AsPlanned(
                new(by.Units), expected * factor, planned.ConvertAll(portion => portion * factor), planned.Count, new(taken));
            if (!shares.Succeeded) return shares.Problems.ToList();
            units = [.. shares.Value!.Portions.Select(portion => portion.Value)];
        }

        var next = 0;
        return boxes.Select(box => box.Planned is null ? 0 : units[next++]).ToArray();
    }

    // The nearest whole step, at least one; what thirds leave behind in the last decimals does not turn a half the other way.
    private static WeightWish InSteps(decimal units) =>
        new(new(units <= 0 ? units : Math.Max(1, Rounding.ToStep(decimal.Round(units, 6), 1))));

    private static Problem? Wrong(IReadOnlyList<OwnBox> boxes, MeasuredOut by, decimal? volumeMl)
    {
        Problem? Of(OwnBox box, int i) => (box, by.Pieces) switch
        {
            ({ Got: { Value: <= 0 or > Divide.MostGrams } }, _) =>
                new("box-weight", $"boxes[{i}].got", "A box holds more than 0 g and less than 100 kg: weigh it again."),
            ({ Wish: PiecesWish counted }, { } made) when counted.Count % made.Step != 0 => new(
                "pieces-halved", $"boxes[{i}].pieces",
                made.Step == Cook.Batch.WholePiece ? "These pieces stay whole: type a whole number." : "Type whole pieces, or halves."),
            ({ Wish: VolumeWish }, _) when volumeMl is not > 0 =>
                new("cup-unknown", "cupGrams", "Nobody knows yet what a cup of it weighs: weigh one, and type that."),
            ({ Wish: VolumeWish { Ml: <= 0 } }, _) => new("box-volume", $"boxes[{i}].cups", "A box holds more than nothing."),
            _ => null,
        };
        return boxes.Select(Of).FirstOrDefault(problem => problem is not null);
    }
}
