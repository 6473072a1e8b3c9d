using LivelyTern.Core.Aim;
using LivelyTern.Core.Cook;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using LivelyTern.Core.Plan;
using LivelyTern.Web.Http;
using LivelyTern.Web.Keep;

namespace LivelyTern.Web.Plan;

/// <summary>Something on a day, as shown.</summary>
/// <param name="Id">The item.</param>
/// <param name="BoxId">Its box, or null for a plain food.</param>
/// <param name="Name">The dish, or the food.</param>
/// <param name="Text">A plain food as typed.</param>
/// <param name="Letters">The tape mark of a box.</param>
/// <param name="Tint">The tint of a box, 0 to 7.</param>
/// <param name="Grams">Its weight: cooked for a box.</param>
/// <param name="Pieces">Pieces in the box, or in the portion, where it comes in pieces.</param>
/// <param name="CookedOn">The day its batch was cooked.</param>
/// <param name="EatenAt">When it was eaten; null while planned.</param>
/// <param name="Figures">What it holds, points under this eater's rule.</param>
/// <param name="ExactPoints">Its points before rounding, or null without a rule.</param>
/// <param name="Slot">The slot of the day it is for.</param>
/// <param name="IsLocked">Whether it stays where it is when days are fitted.</param>
/// <param name="GiveOrTake">For a meal out, and a box that was divided by eye: kcal either way; null for all else.</param>
/// <param name="IsFrozen">Whether that day lies past its time in the fridge: then it has to be frozen, and thawed the day before.</param>
/// <param name="IsOver">Whether it is a box past its last day, not eaten.</param>
/// <param name="BatchId">The batch of a portion that is not packed yet; null for all else. Its figures are by what the batch is expected to
/// weigh.</param>
/// <param name="Never">Why its eater must never get it, where that came after it was laid and it is not eaten; null for all else.</param>
/// <param name="PartOf">Where it is only some of a box: the grams of all of it; null for all else.</param>
/// <param name="IsForGuests">Whether it is for guests: then it counts nothing.</param>
/// <param name="Hold">The amount it keeps free; null for all else. What of it is still open are its figures.</param>
/// <param name="Volume">What it fills, "1 1/3 cups", where its recipe says what it fills; null for all else.</param>
/// <param name="PieceStep">Where it is a portion that comes in pieces, by how many it is sized: 1, or a half; null for all else.</param>
public sealed record ItemView(
    Guid Id, Guid? BoxId, string Name, string? Text, string? Letters, int? Tint, decimal Grams, decimal? Pieces, DateOnly? CookedOn,
    DateTimeOffset? EatenAt, IReadOnlyDictionary<Measure, Figure> Figures, Figure? ExactPoints, string? Slot, bool IsLocked,
    decimal? GiveOrTake, bool IsFrozen, bool IsOver, Guid? BatchId = null, NeverView? Never = null,
    decimal? PartOf = null, bool IsForGuests = false, Hold? Hold = null, string? Volume = null,
    decimal? PieceStep = null);

/// <summary>Why an eater must never get something.</summary>
/// <param name="Allergens">Allergens in it.</param>
/// <param name="Foods">Names of foods in it.</param>
/// <param name="IsUnknown">Whether it holds something whose allergens nobody stated.</param>
public sealed record NeverView(IReadOnlyList<Allergen> Allergens, IReadOnlyList<string> Foods, bool IsUnknown)
{
    /// <summary>A reason as shown.</summary>
    public static NeverView? Of(Never? never) => never is null ? null : new(never.Allergens, never.Foods, never.IsUnknown);
}

/// <summary>Something that its eater must never get and that nobody has answered for yet.</summary>
/// <param name="EaterId">Whose day.</param>
/// <param name="Eater">Their name.</param>
/// <param name="Day">The day.</param>
/// <param name="ItemId">What lies there.</param>
/// <param name="Name">What it is called.</param>
/// <param name="Why">Why they must never get it.</param>
public sealed record ExcludedView(Guid EaterId, string Eater, DateOnly Day, Guid ItemId, string Name, NeverView Why);

/// <summary>One day of one eater against their aim.</summary>
/// <param name="Day">The day.</param>
/// <param name="Items">What lies on it, in order.</param>
/// <param name="Sums">The whole day, eaten and planned.</param>
/// <param name="Eaten">What was eaten so far.</param>
/// <param name="Left">What is left to each target after what was eaten.</param>
/// <param name="Bands">Where each sum lies in its band.</param>
/// <param name="Missing">For each nutrient not complete, the foods that lack it.</param>
/// <param name="Fits">Whether something lies on it, every band that is set holds as far as the figures are known, and nothing lies on it
/// that its eater must never get.</param>
/// <param name="Verdict">The same, with what is not known and what is empty told apart.</param>
/// <param name="Aim">The aim of that day: the usual one, or that of its weekday or date.</param>
/// <param name="AwayIn">The parts of the day in which the eater is away; the day then asks for the rest of it.</param>
/// <param name="DayName">What that day is called where its aim differs: "training day"; else null.</param>
/// <param name="Grams">Grams of food on it.</param>
/// <param name="KcalPer100g">Its energy density; null where nothing lies on it.</param>
/// <param name="ExactPoints">The day's points with no entry rounded; null without a rule.</param>
/// <param name="GiveOrTake">How far the day's energy may lie from its sum, for meals out and what was divided by eye; else 0.</param>
public sealed record DayView(
    DateOnly Day, IReadOnlyList<ItemView> Items, IReadOnlyDictionary<Measure, Figure> Sums, IReadOnlyDictionary<Measure, Figure> Eaten,
    IReadOnlyDictionary<Measure, decimal> Left, IReadOnlyDictionary<Measure, BandReading> Bands,
    IReadOnlyDictionary<Measure, IReadOnlyList<string>> Missing, bool Fits, DayVerdict Verdict, DayAim Aim,
    IReadOnlyList<string> AwayIn, string? DayName, decimal Grams,
    decimal? KcalPer100g, decimal GiveOrTake, Figure? ExactPoints);

/// <summary>One eater's week.</summary>
/// <param name="EaterId">The eater.</param>
/// <param name="Name">Their name.</param>
/// <param name="Aim">Their aim.</param>
/// <param name="Days">Seven days, Monday first.</param>
/// <param name="Sums">The week's sums.</param>
/// <param name="FitDays">How many of the days with something on them fit.</param>
/// <param name="LaidDays">How many days have something on them.</param>
/// <param name="Slots">Their slots, in the order of the day.</param>
/// <param name="Reserve">Their weekly reserve of the leading measure; null without one.</param>
/// <param name="ReserveDrawn">What the week's days draw of it, all together.</param>
public sealed record EaterWeekView(
    Guid EaterId, string Name, DayAim Aim, IReadOnlyList<DayView> Days, IReadOnlyDictionary<Measure, Figure> Sums, int FitDays,
    int LaidDays,
    IReadOnlyList<Slot> Slots, decimal? Reserve, decimal ReserveDrawn);

/// <summary>How an eater stands this week.</summary>
/// <param name="FitDays">How many of the days with something on them fit.</param>
/// <param name="LaidDays">How many days have something on them.</param>
/// <param name="Left">What is left today to each target.</param>
public sealed record EaterState(int FitDays, int LaidDays, IReadOnlyDictionary<Measure, decimal> Left);

/// <summary>Boxes of one batch on the shelf, in one place.</summary>
/// <param name="BatchId">The batch.</param>
/// <param name="Name">The dish.</param>
/// <param name="Letters">Its tape mark.</param>
/// <param name="Tint">Its tint, 0 to 7.</param>
/// <param name="CookedOn">When it was cooked.</param>
/// <param name="BoxIds">The boxes, in their order.</param>
/// <param name="Boxes">The same, each with the version to write on.</param>
/// <param name="Place">Where they are.</param>
/// <param name="Grams">The first box's weight; of one that is part eaten, of what is left.</param>
/// <param name="IsRest">Whether it is what is left of one box.</param>
/// <param name="Pieces">Its pieces, where counted.</param>
/// <param name="Figures">The first box's figures, for each eater by id: points differ.</param>
/// <param name="UseBy">The last day, as they are kept now.</param>
/// <param name="KeepingSource">The guideline that day rests on.</param>
/// <param name="IsOver">Whether that day is past.</param>
/// <param name="NeverFor">Eaters, by id, who must never get it, and why.</param>
/// <param name="Volume">What the first box fills, where that is known.</param>
public sealed record ShelfView(
    Guid BatchId, string Name, string Letters, int Tint, DateOnly CookedOn, IReadOnlyList<Guid> BoxIds, IReadOnlyList<BoxAt> Boxes,
    BoxPlace Place, decimal Grams, bool IsRest, decimal? Pieces,
    IReadOnlyDictionary<Guid, IReadOnlyDictionary<Measure, Figure>> Figures, DateOnly UseBy,
    string KeepingSource, bool IsOver, IReadOnlyDictionary<Guid, NeverView> NeverFor, string? Volume);

/// <summary>What an expected weight rests on.</summary>
/// <param name="From">Earlier batches, the recipe, or what goes in.</param>
/// <param name="SpreadGrams">How far earlier batches lay from it either way, in grams; 0 where that is not known.</param>
public sealed record ExpectedView(ExpectedFrom From, decimal SpreadGrams);

/// <summary>A batch that is not packed yet.</summary>
/// <param name="BatchId">The batch.</param>
/// <param name="Name">The dish.</param>
/// <param name="Letters">Its tape mark.</param>
/// <param name="Tint">Its tint, 0 to 7.</param>
/// <param name="CookedOn">When it was cooked, or is to be.</param>
/// <param name="State">Where it stands: planned, in its pan, or weighed.</param>
/// <param name="Expected">What its weight rests on while it is not measured; null where it is.</param>
/// <param name="Grams">What it makes; null where that is not known: more is taken out of its recipe than goes in, or nothing in it has a
/// weight.</param>
/// <param name="Portions">For how many portions.</param>
/// <param name="LeftGrams">Grams on no day and in no dish; below zero where more is taken than it makes.</param>
/// <param name="InDishesGrams">Grams that go into put-together dishes.</param>
/// <param name="IsForDishes">Whether nothing worth laying is left beside those.</param>
/// <param name="PortionsLaid">For how many portions it would have to be made for what lies on days.</param>
/// <param name="NewGrams">What a new portion weighs, for each eater by id: as their others, else an ordinary one.</param>
/// <param name="Figures">Such a portion's figures, for each eater by id.</param>
/// <param name="UseBy">The last day from the fridge.</param>
/// <param name="KeepingSource">The guideline that day rests on.</param>
/// <param name="Version">The batch's version, for a change of day or amount.</param>
/// <param name="NeverFor">Eaters, by id, who must never get it, and why.</param>
/// <param name="PieceGrams">What one piece weighs, where it comes in pieces; else null.</param>
/// <param name="NewVolumes">What such a portion fills, for each eater by id, where its recipe says what it fills.</param>
public sealed record UnpackedView(
    Guid BatchId, string Name, string Letters, int Tint, DateOnly CookedOn, BatchState State, ExpectedView? Expected, decimal? Grams,
    int Portions, decimal LeftGrams, decimal InDishesGrams, bool IsForDishes, int PortionsLaid, IReadOnlyDictionary<Guid, decimal> NewGrams,
    IReadOnlyDictionary<Guid, IReadOnlyDictionary<Measure, Figure>> Figures, DateOnly UseBy, string KeepingSource, int Version,
    IReadOnlyDictionary<Guid, NeverView> NeverFor, decimal? PieceGrams,
    IReadOnlyDictionary<Guid, string> NewVolumes);

/// <summary>A week of every eater, the shelf, and what is still to be packed.</summary>
/// <param name="Start">Its Monday.</param>
/// <param name="Today">The household's day.</param>
/// <param name="Version">The number of the last change to any day: a write on one of these days carries it.</param>
/// <param name="Eaters">Their weeks.</param>
/// <param name="Shelf">The boxes on no day.</param>
/// <param name="Unpacked">The batches that are not packed yet.</param>
/// <param name="LeftOut">What is stored for these days and can't be shown.</param>
public sealed record WeekView(
    DateOnly Start, DateOnly Today, int Version, IReadOnlyList<EaterWeekView> Eaters, IReadOnlyList<ShelfView> Shelf,
    IReadOnlyList<UnpackedView> Unpacked,
    IReadOnlyList<LeftOutView> LeftOut);

/// <summary>A portion that is stored of a batch that is in its boxes.</summary>
/// <param name="EaterId">Whose day.</param>
/// <param name="Day">The day.</param>
/// <param name="Name">The dish.</param>
public sealed record LeftOutView(Guid EaterId, DateOnly Day, string Name);
