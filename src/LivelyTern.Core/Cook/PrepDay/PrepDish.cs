using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Recipes.Steps;

namespace LivelyTern.Core.Cook.PrepDay;

/// <summary>A food that goes into a dish, as it is prepared.</summary>
/// <param name="FoodId">Which food.</param>
/// <param name="Name">Its name.</param>
/// <param name="Weight">How much of it, at this batch's size.</param>
/// <param name="Note">How the line says it is prepared: "chopped".</param>
/// <param name="Group">What kind of food it is.</param>
public sealed record PrepLine(string FoodId, string Name, Grams Weight, string Note, FoodGroup Group)
{
    /// <summary>Which line of the recipe brings it, from 0.</summary>
    public int Position { get; init; }
}

/// <summary>What a put-together dish takes of another batch, over all its boxes.</summary>
/// <param name="Batch">The other batch.</param>
/// <param name="Name">What it is.</param>
/// <param name="Weight">Cooked grams of it.</param>
public sealed record PrepPart(Guid Batch, string Name, Grams Weight);

/// <summary>A dish to be cooked on a prep day.</summary>
/// <param name="Id">Its batch.</param>
/// <param name="Name">What it is called.</param>
/// <param name="Steps">How it is made.</param>
/// <param name="Factor">How many times what its recipe makes.</param>
/// <param name="Boxes">Into how many boxes it is packed; none where all of it goes into put-together dishes.</param>
/// <param name="RecipePieces">How many pieces its recipe makes; null where it makes none.</param>
/// <param name="Lines">What goes in.</param>
public sealed record PrepDish(
    Guid Id, string Name, IReadOnlyList<StepToDo> Steps, decimal Factor, int Boxes, int? RecipePieces, IReadOnlyList<PrepLine> Lines)
{
    /// <summary>Its recipe.</summary>
    public Guid RecipeId { get; init; }

    /// <summary>The batches that it is put together from; null where it is cooked itself.</summary>
    public IReadOnlyList<PrepPart>? Parts { get; init; }

    /// <summary>How many days before the dish is cooked it is looked at; 0 for its own day.</summary>
    public int DaysAhead { get; init; }

    /// <summary>What of it was done before.</summary>
    public IReadOnlyList<AheadWork> Done { get; init; } = [];

    /// <summary>What goes in, all together.</summary>
    public Grams Raw => new(Lines.Sum(line => Math.Max(0, line.Weight.Value)));

    /// <summary>How many pieces this batch makes; null where it makes none.</summary>
    public int? Pieces => RecipePieces is { } pieces ? (int)Math.Ceiling(pieces * Factor) : null;
}

/// <summary>A line of a dish.</summary>
/// <param name="Dish">The dish.</param>
/// <param name="Position">Which of its lines, from 0.</param>
public sealed record DishLine(Guid Dish, int Position);

/// <summary>What kind of work a task is.</summary>
public enum PrepKind
{
    /// <summary>Everything out onto the table.</summary>
    GetOut,

    /// <summary>Washing and chopping, for one dish or for several in one go.</summary>
    Prepare,

    /// <summary>A part of a step of a recipe.</summary>
    Step,

    /// <summary>Cooling before the lids go on.</summary>
    Cool,

    /// <summary>Into the boxes.</summary>
    Pack,

    /// <summary>What was done ahead, put away for the day of its dish.</summary>
    PutAway,

    /// <summary>Washing up.</summary>
    WashUp,
}

/// <summary>So much of a food for one of the dishes.</summary>
/// <param name="Dish">The dish.</param>
/// <param name="Food">The food's name.</param>
/// <param name="Grams">How much.</param>
/// <param name="FoodId">Which food; null where it is a dish.</param>
public sealed record PrepAmount(Guid Dish, string Food, decimal Grams, string? FoodId = null);

/// <summary>A stretch of a task that has a name of its own: coming to pressure, under pressure, release.</summary>
/// <param name="Verb">Its name.</param>
/// <param name="Minutes">How long.</param>
public sealed record PrepPhase(string Verb, int Minutes);

/// <summary>One way of doing a task.</summary>
/// <param name="Verb">What is done, by the verb's name.</param>
/// <param name="Celsius">Degrees of the oven or the like; null where none are said.</param>
/// <param name="Loads">In how many loads it is done.</param>
public sealed record PrepWay(string Verb, int? Celsius, int Loads)
{
    /// <summary>The minutes it would take without the cook's own times; null where none of those stand.</summary>
    public int? Usual { get; init; }

    /// <summary>In one go, without heat.</summary>
    public static PrepWay Plain(string verb) => new(verb, null, 1);
}

/// <summary>A task of a prep day, as it is told to a cook; what it needs and when it can be done stands in its schedule task.</summary>
/// <param name="Id">Its name in the problem.</param>
/// <param name="Kind">What kind of work it is.</param>
/// <param name="Dishes">For which dishes; none where it is for all.</param>
/// <param name="Ways">How it is done, beside the ways of its schedule task, in their order.</param>
/// <param name="Step">Which step of the recipe it is part of, from 0; null where it is none.</param>
/// <param name="Text">The sentence of that step; empty where there is none.</param>
/// <param name="IsHandsOn">Whether a cook stands by with both hands.</param>
/// <param name="IsAbout">Whether its minutes are the usual ones and not said.</param>
/// <param name="Amounts">What is prepared for which dish.</param>
/// <param name="Phases">Its stretches, where it has several.</param>
public sealed record PrepTask(
    string Id, PrepKind Kind, IReadOnlyList<Guid> Dishes, IReadOnlyList<PrepWay> Ways, int? Step, string Text, bool IsHandsOn, bool IsAbout,
    IReadOnlyList<PrepAmount> Amounts, IReadOnlyList<PrepPhase> Phases)
{
    /// <summary>What is done, by the verb's name, in the way it is written first.</summary>
    public string Verb => Ways[0].Verb;

    /// <summary>Whether some of it is work that its sentence asks for without naming a food.</summary>
    public bool HasUnnamed { get; init; }

    /// <summary>The lines of its dishes that it handles.</summary>
    public IReadOnlyList<DishLine> Lines { get; init; } = [];
}
