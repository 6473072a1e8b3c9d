using LivelyTern.Core.Cook;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using LivelyTern.Data.Cook;
using LivelyTern.Data.Pack;

namespace LivelyTern.Data.Plan;

/// <summary>A part over the boxes of its dish.</summary>
/// <param name="BatchId">The batch; null for a plain food.</param>
/// <param name="Line">Which line of the dish a plain food is, from 0; null for a batch.</param>
/// <param name="Compartment">Where it lies; null for the box itself.</param>
/// <param name="Part">What it is, and how much is asked and there.</param>
/// <param name="Over">What each box gets.</param>
public sealed record DividedPart(Guid? BatchId, int? Line, string? Compartment, PartToPut Part, PartOverBoxes Over);

/// <summary>A put-together dish whose parts are put in one after another.</summary>
/// <param name="Parts">Its parts over the boxes: the batches, then the plain foods that are weighed.</param>
/// <param name="InBoxes">What is in each box, the pinches too.</param>
/// <param name="Lines">What goes in of its plain foods, over all boxes.</param>
/// <param name="Dish">The dish as it is then: it weighs what its boxes hold.</param>
public sealed record DividedParts(
    IReadOnlyList<DividedPart> Parts, IReadOnlyList<IReadOnlyList<BoxPart>> InBoxes, IReadOnlyList<BatchLine> Lines, Batch Dish)
{
    /// <summary>The boxes hold more of a part than there is; null where they do not.</summary>
    public Problem? Heavier => Parts.FirstOrDefault(part => part.Over.Missing > Grams.Zero) is { } heavy
        ? new(
            "part-short", "parts",
            $"The boxes hold {heavy.Over.Missing.Value:0.#} g of {heavy.Part.Name} more than there is: weigh a box again, or its pan.")
        : null;
}

/// <summary>Puts a put-together dish into its boxes part by part. Nothing is stored.</summary>
public sealed class DividePartByPart(BatchReader reader, BoxStore boxes)
{
    /// <summary>The most letters a compartment's name has.</summary>
    public const int MostLetters = 40;

    /// <summary>Its boxes as they are then.</summary>
    /// <param name="row">The dish.</param>
    /// <param name="dish">The same, as it was planned.</param>
    /// <param name="ordered">Its boxes, were it packed as a whole: a box's share of each part is its share of the dish.</param>
    /// <param name="order">The parts as they are ordered; those that are not named go into the box itself, as much as is asked.</param>
    public async Task<Outcome<DividedOrder>> DoAsync(BatchRow row, Batch dish, DividedOrder ordered, IReadOnlyList<OrderedPart> order)
    {
        ArgumentNullException.ThrowIfNull(row);
        ArgumentNullException.ThrowIfNull(dish);
        ArgumentNullException.ThrowIfNull(ordered);
        ArgumentNullException.ThrowIfNull(order);
        if (!row.IsPutTogether) return new Problem("parts-none", "parts", "It is not put together from parts.");
        if (dish.Weight is not { } whole) return new Problem("weight-nothing", "", "There is nothing to pack: none of its parts is there.");
        var weights = ordered.Divided.Portions.Select(portion => portion.Weight).ToList();
        var share = weights.Sum(weight => weight.Value) / whole.Value;
        var lines = await reader.LinesOfAsync(row);
        if (order.Any(one => !IsKnown(one, dish, lines)) || order.DistinctBy(one => (one.BatchId, one.Line)).Count() != order.Count)
            return Stale.Problem;
        if (order.Any(one => one.Compartment?.Length is > MostLetters))
            return new Problem("compartment-long", "parts", $"A compartment's name has at most {MostLetters} letters.");
        var inDishes = await reader.InDishesAsync(dish.Parts.Select(part => part.Of.Id));
        var divided = new List<DividedPart>();
        var inBoxes = weights.ConvertAll(_ => new List<BoxPart>());
        var targets = new decimal[weights.Count];
        var ofDish = new List<BatchPart>();
        Problem? wrong = null;
        DividedPart? Divide(Guid? batchId, int? line, PartToPut part)
        {
            var own = order.FirstOrDefault(one => one.BatchId == batchId && one.Line == line);
            var over = PartByPart.Of(part, weights, own is { Got.Count: > 0 } ? own.Got : [.. weights.Select(_ => (Grams?)null)]);
            wrong ??= over.Succeeded ? null : over.Problems[0];
            for (var i = 0; i < over.Value?.Boxes.Count; i++) targets[i] += over.Value.Boxes[i].Target.Value;
            return over.Succeeded ? new(batchId, line, own?.Compartment, part, over.Value!) : null;
        }

        foreach (var (of, weight) in dish.Parts)
        {
            // What is in its pan: not in boxes of its own, nor in those of other dishes.
            Grams? there = of.Cooked is { } cooked ? cooked - inDishes[of.Id].Packed - await boxes.OfOwnAsync(of.Id) : null;
            if (Divide(of.Id, null, new(of.RecipeName, weight * share, there)) is not { } part) return wrong!;
            divided.Add(part);
            ofDish.Add(new(of, new(part.Over.Boxes.Sum(box => box.Weight.Value))));
            for (var i = 0; i < inBoxes.Count; i++)
                inBoxes[i].Add(new BatchShare(of, part.Over.Boxes[i].Weight, null, part.Compartment));
        }

        var wentIn = new List<BatchLine>();
        for (var at = 0; at < lines.Count; at++)
        {
            var line = lines[at];
            var factors = weights.ConvertAll(weight => weight / whole);
            string? compartment = null;
            if (IsWeighed(line))
            {
                var asked = line.Planned.RawWeight;
                if (Divide(null, at, new(NameOf(line), asked * share, null)) is not { } part) return wrong!;
                divided.Add(part);
                (factors, compartment) = ([.. part.Over.Boxes.Select(box => box.Weight / asked)], part.Compartment);
            }

            wentIn.Add(line with { Planned = line.Planned.Scale(factors.Sum()) });
            for (var i = 0; i < inBoxes.Count; i++)
            {
                var foods = line.Planned.Scale(factors[i]).Ingredients
                    .Select(food => new FoodInBox(line.Text, food with { Weight = food.Weight.ToMilligram() }, compartment)).ToList();
                inBoxes[i].AddRange(foods);
                if (!IsWeighed(line)) targets[i] += foods.Sum(food => food.Weight.Value);
            }
        }

        var portions = inBoxes.Select((own, i) => new DividedPortion(new(own.Sum(part => part.Weight.Value)), null)
        {
            Target = new(targets[i]),
        }).ToList();
        var empty = portions.FindIndex(portion => portion.Weight.Value < 1);
        if (empty >= 0) return new Problem("box-empty", "parts", $"Nothing is in box {empty + 1}: take fewer boxes, or put something in.");
        var sum = new Grams(portions.Sum(portion => portion.Weight.Value));
        var packed = PutTogether.Of(dish, BatchLine.Sum(wentIn), ofDish) with { Cooked = sum, Expected = null };
        return ordered with
        {
            Divided = new(portions, 0, Grams.Zero),
            Parts = new(divided, inBoxes.ConvertAll(own => (IReadOnlyList<BoxPart>)own), wentIn, packed),
        };
    }

    /// <summary>Whether a line can be put in by its weight; a pinch, and what is taken out again, follow by eye.</summary>
    public static bool IsWeighed(BatchLine line)
    {
        ArgumentNullException.ThrowIfNull(line);
        return !line.IsTakenOut && line.Planned.RawWeight.Value >= 1;
    }

    /// <summary>What a plain food is called: by its name, where its line is of one.</summary>
    public static string NameOf(BatchLine line)
    {
        ArgumentNullException.ThrowIfNull(line);
        return line.Planned.Ingredients is [var only] ? only.Food.Name : line.Text;
    }

    private static bool IsKnown(OrderedPart part, Batch dish, IReadOnlyList<BatchLine> lines) => part switch
    {
        { BatchId: { } id, Line: null } => dish.Parts.Any(own => own.Of.Id == id),
        { BatchId: null, Line: { } at } => at >= 0 && at < lines.Count && IsWeighed(lines[at]),
        _ => false,
    };
}
