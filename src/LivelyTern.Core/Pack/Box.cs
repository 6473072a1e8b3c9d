using LivelyTern.Core.Cook;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Pack;

/// <summary>Something in a box, in a compartment of its own or not.</summary>
/// <param name="Weight">Grams in it.</param>
/// <param name="Compartment">Which: "cup", "left"; null for the box itself.</param>
public abstract record BoxPart(Grams Weight, string? Compartment)
{
    /// <summary>What it is.</summary>
    public abstract string Name { get; }

    /// <summary>What it holds.</summary>
    public abstract Contents Contents { get; }

    /// <summary>A share of it, 0 to 1, by weight: pieces are no longer counted.</summary>
    public abstract BoxPart Share(decimal share);
}

/// <summary>A share of a batch.</summary>
/// <param name="Batch">The batch.</param>
/// <param name="Weight">Cooked grams.</param>
/// <param name="Pieces">How many pieces, where they were counted.</param>
/// <param name="Compartment">Which; null for the box itself.</param>
public sealed record BatchShare(Batch Batch, Grams Weight, decimal? Pieces = null, string? Compartment = null)
    : BoxPart(Weight, Compartment)
{
    /// <summary>
    /// Of a put-together dish whose parts were put in one after another, what of each is in it; empty where it is a share of the dish as a
    /// whole.
    /// </summary>
    public IReadOnlyList<BoxPart> PutIn { get; init; } = [];

    /// <summary>The compartment of what is not in the box but beside it, and added when it is eaten.</summary>
    public const string Beside = "beside";

    /// <inheritdoc/>
    public override string Name => Batch.RecipeName;

    /// <inheritdoc/>
    public override Contents Contents =>
        PutIn.Count == 0
            ? Batch.Holding(Weight)
            : new([.. PutIn.SelectMany(part => part.Contents.Ingredients)], Batch.Contents.SomethingUnread);

    /// <inheritdoc/>
    public override BatchShare Share(decimal share) =>
        this with { Weight = Weight * share, Pieces = null, PutIn = [.. PutIn.Select(part => part.Share(share))] };
}

/// <summary>A plain food put beside it: a spoon of yogurt in its cup.</summary>
/// <param name="Text">As typed.</param>
/// <param name="Food">The food and its weight.</param>
/// <param name="Compartment">Which; null for the box itself.</param>
public sealed record FoodInBox(string Text, Ingredient Food, string? Compartment = null) : BoxPart(Food.Weight, Compartment)
{
    /// <inheritdoc/>
    public override string Name => Food.Food.Name;

    /// <inheritdoc/>
    public override Contents Contents => new([Food]);

    /// <inheritdoc/>
    public override FoodInBox Share(decimal share)
    {
        var food = Food with { Weight = Food.Weight * share };
        return this with { Food = food, Weight = food.Weight };
    }
}

/// <summary>A packed container.</summary>
/// <param name="Id">Stable identity.</param>
/// <param name="Main">The share of the batch it is named for.</param>
/// <param name="Others">What else is in it, in order.</param>
/// <param name="Life">How it stands.</param>
public sealed record Box(Guid Id, BatchShare Main, IReadOnlyList<BoxPart> Others, BoxLife Life)
{
    /// <summary>A box of one batch only, as it comes from the bench.</summary>
    public Box(Guid id, Batch batch, Grams weight, decimal? pieces)
        : this(
            id, new BatchShare(batch, weight, pieces), [],
            BoxLife.New((batch ?? throw new ArgumentNullException(nameof(batch))).CookedOn, null))
    {
    }

    /// <summary>The batch it is named for.</summary>
    public Batch Batch => Main.Batch;

    /// <summary>How many pieces of that batch, where they were counted.</summary>
    public decimal? Pieces => Main.Pieces;

    /// <summary>All that is in it.</summary>
    public IEnumerable<BoxPart> Parts => Others.Prepend(Main);

    /// <summary>Grams in it.</summary>
    public Grams Weight => Others.Count == 0 ? Main.Weight : new(Parts.Sum(part => part.Weight.Value));

    /// <summary>
    /// Divided by eye, how far off its weight is two times in three, as its cook's eye was then, relative to that; null where it was
    /// weighed.
    /// </summary>
    public decimal? EyeSpread { get; init; }

    /// <summary>Whether it is only some of what was packed: the rest of it is eaten, or lies elsewhere.</summary>
    public bool IsPart { get; init; }

    /// <summary>Whether another box is of the same dish, of this batch or another.</summary>
    public bool IsOfTheDishOf(Box other)
    {
        ArgumentNullException.ThrowIfNull(other);
        return string.Equals(Batch.RecipeName, other.Batch.RecipeName, StringComparison.OrdinalIgnoreCase);
    }

    /// <summary>Boxes that differ by no more, in grams, are alike. Common practice, no published source.</summary>
    private const decimal AlikeGrams = 5;

    /// <summary>Whether two boxes of one batch may be told as one: about as much is in them, of each part that was put in too.</summary>
    public bool IsLike(Box other)
    {
        ArgumentNullException.ThrowIfNull(other);
        static bool IsNear(Grams one, Grams another) => Math.Abs(one.Value - another.Value) <= AlikeGrams;
        return IsNear(Weight, other.Weight) && EyeSpread == other.EyeSpread && Main.PutIn.Count == other.Main.PutIn.Count
            && Main.PutIn.Zip(other.Main.PutIn).All(one => IsNear(one.First.Weight, one.Second.Weight));
    }

    /// <summary>Boxes of one batch, those that are alike together, the heaviest first: the first tells what all of them hold.</summary>
    /// <typeparam name="T">What has a box.</typeparam>
    /// <param name="all">The boxes, those of one weight in the order they are to stand in.</param>
    /// <param name="of">Its box.</param>
    public static IEnumerable<IReadOnlyList<T>> Alike<T>(IEnumerable<T> all, Func<T, Box> of)
    {
        ArgumentNullException.ThrowIfNull(of);
        var group = new List<T>();
        foreach (var one in all.OrderByDescending(one => of(one).Weight.Value))
        {
            if (group.Count > 0 && !of(group[0]).IsLike(of(one)))
            {
                yield return group;
                group = [];
            }

            group.Add(one);
        }

        if (group.Count > 0) yield return group;
    }

    /// <summary>Some of it, of everything that is in it the same share.</summary>
    /// <param name="part">Grams of it; all of it where that is as much or more.</param>
    public Box Of(Grams part) =>
        part >= Weight
            ? this
            : this with
            {
                Main = Main.Share(part / Weight),
                Others = [.. Others.Select(other => other.Share(part / Weight))],
                IsPart = true,
            };

    /// <summary>The batches in it.</summary>
    public IEnumerable<Batch> Batches => Parts.OfType<BatchShare>().Select(share => share.Batch);

    /// <summary>What it holds: of each batch its share, and the plain foods.</summary>
    public Contents Contents
    {
        get
        {
            if (Others.Count == 0) return Main.Contents;
            var parts = Parts.Select(part => part.Contents).ToList();
            return new([.. parts.SelectMany(part => part.Ingredients)], parts.Exists(part => part.SomethingUnread));
        }
    }
}
