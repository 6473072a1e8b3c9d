using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Pack.Containers;

/// <summary>What a container of the household is for.</summary>
public enum ContainerKind
{
    /// <summary>A batch is cooked, and weighed, in it.</summary>
    Pan,

    /// <summary>A portion lies in it.</summary>
    Box,

    /// <summary>A small lidded one, in a box or beside it.</summary>
    Cup,

    /// <summary>Pieces lie in it in rows.</summary>
    Bag,
}

/// <summary>A compartment of a box.</summary>
/// <param name="Name">Which: "left"; null for the only one.</param>
/// <param name="VolumeMl">What it holds below its lid, in millilitres.</param>
public sealed record Compartment(string? Name, decimal VolumeMl);

/// <summary>A pan, a box, a cup or a bag that the household has, one or several alike.</summary>
/// <param name="Kind">What it is for.</param>
/// <param name="Name">What the household calls it.</param>
public sealed record Container(ContainerKind Kind, string Name)
{
    /// <summary>The most letters its name, or that of a compartment, has.</summary>
    public const int MostLetters = 40;

    private const int MostCompartments = 6, MostPieces = 20, MostAlike = 200;
    private const decimal MostMl = 20_000m, MostGrams = 20_000m;

    /// <summary>What it weighs empty, without its lid; null where nobody weighed it.</summary>
    public Grams? Empty { get; init; }

    /// <summary>Its compartments, the first of which is the box itself; none for a pan or a bag, or where nobody measured it.</summary>
    public IReadOnlyList<Compartment> Compartments { get; init; } = [];

    /// <summary>Of a bag, how many pieces lie in it down and across; null for any other.</summary>
    public (int Down, int Across)? Rows { get; init; }

    /// <summary>How many of it there are; null where nobody counted.</summary>
    public int? Count { get; init; }

    /// <summary>How many pieces it holds; null where it holds none in rows.</summary>
    public int? Pieces => Rows is { } rows ? rows.Down * rows.Across : null;

    /// <summary>The compartment of a name; the first for null. Null where there is none of it.</summary>
    public Compartment? Find(string? name) => name is null
        ? Compartments is [var first, ..] ? first : null
        : Compartments.FirstOrDefault(one => string.Equals(one.Name, name, StringComparison.OrdinalIgnoreCase));

    /// <summary>Why there can't be such a one; null where there can.</summary>
    public Problem? Refusal => this switch
    {
        _ when string.IsNullOrWhiteSpace(Name) => new("container-name", "name", "Say what you call it."),
        _ when Name.Length > MostLetters => new("container-name", "name", $"A name has at most {MostLetters} letters."),
        { Empty: { Value: <= 0 or > MostGrams } } =>
            new("container-weight", "emptyGrams", "Empty, it weighs more than 0 g and at most 20 kg."),
        { Count: < 1 or > MostAlike } => new("container-count", "count", $"There are between 1 and {MostAlike} of it."),
        { Kind: ContainerKind.Bag, Rows: null } => new("container-rows", "rows", "Say how many pieces lie in it, down and across."),
        { Rows: { } rows } when Kind != ContainerKind.Bag || rows.Down is < 1 or > MostPieces || rows.Across is < 1 or > MostPieces =>
            new("container-rows", "rows", $"In a bag lie between 1 and {MostPieces} pieces each way."),
        { Kind: ContainerKind.Pan or ContainerKind.Bag, Compartments.Count: > 0 } or { Compartments.Count: > MostCompartments }
            or { Kind: ContainerKind.Cup, Compartments.Count: > 1 } =>
            new("container-parts", "compartments", $"A box has at most {MostCompartments} compartments, a cup one, a pan and a bag none."),
        _ when Compartments.Any(one => one.VolumeMl is <= 0 or > MostMl) =>
            new("container-volume", "compartments", "A compartment holds more than 0 ml and at most 20 litres."),
        _ when Compartments.Count > 1 && !AreNamed =>
            new("container-parts", "compartments", $"Give each compartment a name of its own, of at most {MostLetters} letters."),
        _ => null,
    };

    private bool AreNamed =>
        Compartments.All(one => !string.IsNullOrWhiteSpace(one.Name) && one.Name.Length <= MostLetters)
        && Compartments.DistinctBy(one => one.Name, StringComparer.OrdinalIgnoreCase).Count() == Compartments.Count;
}
