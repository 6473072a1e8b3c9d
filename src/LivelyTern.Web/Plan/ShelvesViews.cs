using LivelyTern.Core.Aim;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Pack;
using LivelyTern.Web.Http;

namespace LivelyTern.Web.Plan;

/// <summary>A box on a shelf.</summary>
/// <param name="Id">The box.</param>
/// <param name="Version">The version to write on.</param>
/// <param name="Number">Its place in its batch's row of boxes, from 1.</param>
/// <param name="Grams">What is left in it.</param>
/// <param name="EaterId">On whose day it lies; null where it lies on none.</param>
/// <param name="Day">Which day that is.</param>
public sealed record KeptBoxView(Guid Id, int Version, int Number, decimal Grams, Guid? EaterId, DateOnly? Day);

/// <summary>Boxes of one batch that stand in one place, keep equally long and weigh about the same.</summary>
/// <param name="BatchId">The batch.</param>
/// <param name="Name">The dish.</param>
/// <param name="Letters">Its tape mark.</param>
/// <param name="Tint">Its tint, 0 to 7.</param>
/// <param name="CookedOn">When it was cooked.</param>
/// <param name="Place">Where they are.</param>
/// <param name="UseBy">The last day, as they are kept now.</param>
/// <param name="IsOver">Whether that day is past.</param>
/// <param name="IsRest">Whether it is what is left of one box.</param>
/// <param name="Grams">What the first holds.</param>
/// <param name="Pieces">Its pieces, where they are counted.</param>
/// <param name="Volume">What it fills, where that is known.</param>
/// <param name="Figures">Its figures, for each eater by id.</param>
/// <param name="NeverFor">Eaters, by id, who must never get it, and why.</param>
/// <param name="Kind">The kind whose rule decides of that day.</param>
/// <param name="Source">Where the rule comes from.</param>
/// <param name="FreezesPoorly">What in it does not freeze well, and what becomes of it; empty where all does.</param>
/// <param name="Boxes">The boxes, in their order.</param>
public sealed record KeptGroupView(
    Guid BatchId, string Name, string Letters, int Tint, DateOnly CookedOn, BoxPlace Place, DateOnly UseBy, bool IsOver, bool IsRest,
    decimal Grams, decimal? Pieces, string? Volume, IReadOnlyDictionary<Guid, IReadOnlyDictionary<Measure, Figure>> Figures,
    IReadOnlyDictionary<Guid, NeverView> NeverFor, KeepingKind Kind, string Source, IReadOnlyList<FreezesPoorlyView> FreezesPoorly,
    IReadOnlyList<KeptBoxView> Boxes);

/// <summary>Something that does not freeze well.</summary>
/// <param name="Name">The food, or the kind of dish.</param>
/// <param name="Becomes">What becomes of it.</param>
public sealed record FreezesPoorlyView(string Name, string Becomes);

/// <summary>What is to be done with boxes, by their ids.</summary>
/// <param name="Freeze">To be frozen tonight.</param>
/// <param name="Thaw">To be moved to the fridge today, for tomorrow.</param>
/// <param name="Late">For today, and still in the freezer.</param>
/// <param name="ThawTomorrow">To be moved to the fridge tomorrow.</param>
/// <param name="TooLate">For a day it does not keep to: it does not freeze well, or came out of the freezer already.</param>
/// <param name="EatFirst">Its last day is near, and it lies on no day by then.</param>
/// <param name="Over">Past its last day, and nobody has said what became of it.</param>
public sealed record KeepingTasksView(
    IReadOnlyList<Guid> Freeze, IReadOnlyList<Guid> Thaw, IReadOnlyList<Guid> Late, IReadOnlyList<Guid> ThawTomorrow,
    IReadOnlyList<Guid> TooLate, IReadOnlyList<Guid> EatFirst, IReadOnlyList<Guid> Over);

/// <summary>What was thrown away over the last weeks.</summary>
/// <param name="Since">From which day on.</param>
/// <param name="Boxes">How many boxes.</param>
/// <param name="Grams">What was left in them.</param>
/// <param name="Energy">Its energy, in kcal.</param>
/// <param name="Why">Why, as it was said, with how many boxes; the most first.</param>
public sealed record WasteView(DateOnly Since, int Boxes, decimal Grams, Figure Energy, IReadOnlyList<WasteReasonView> Why);

/// <summary>A reason, and how many boxes it was said of; null where nobody said why.</summary>
public sealed record WasteReasonView(string? Why, int Boxes);

/// <summary>The shelves.</summary>
/// <param name="Today">The household's day.</param>
/// <param name="Version">The number of the last change to any day, for a write that touches days.</param>
/// <param name="Guidelines">The name of the household's guideline set.</param>
/// <param name="Groups">All that is there, what keeps shortest first.</param>
/// <param name="Tasks">What is to be done.</param>
/// <param name="Waste">What was thrown away.</param>
public sealed record ShelvesView(
    DateOnly Today, int Version, string Guidelines, IReadOnlyList<KeptGroupView> Groups, KeepingTasksView Tasks, WasteView Waste);

/// <summary>What is to be done with boxes, in numbers.</summary>
/// <param name="Boxes">How many are there.</param>
/// <param name="Freeze">To be frozen tonight.</param>
/// <param name="Thaw">To be moved to the fridge today, or still frozen though they are for today.</param>
/// <param name="EatFirst">Their last day is near, and they lie on no day by then.</param>
/// <param name="Over">Past their last day, and nobody has said what became of them.</param>
public sealed record ShelvesState(int Boxes, int Freeze, int Thaw, int EatFirst, int Over);

/// <summary>Boxes that are given or thrown away.</summary>
/// <param name="BoxIds">The boxes.</param>
/// <param name="IsThrownAway">Thrown away; else given away.</param>
/// <param name="Why">Why, in a few words.</param>
public sealed record LetGoRequest(IReadOnlyList<Guid> BoxIds, bool IsThrownAway, string? Why = null);

/// <summary>Boxes that are eaten, all that is left in them.</summary>
/// <param name="BoxIds">The boxes.</param>
/// <param name="EaterId">Who ate them.</param>
/// <param name="Day">On which day.</param>
/// <param name="Slot">In which slot of it; null for none.</param>
public sealed record EatBoxesRequest(IReadOnlyList<Guid> BoxIds, Guid EaterId, DateOnly Day, string? Slot = null);
