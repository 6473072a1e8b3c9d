using LivelyTern.Core.Foods;
using LivelyTern.Core.Pack;
using LivelyTern.Devices.Printer;

namespace LivelyTern.Web.Plan;

/// <summary>A kind of paper for labels; lengths in millimetres.</summary>
/// <param name="Code">How a script names it.</param>
/// <param name="Name">How a cook does.</param>
/// <param name="PageWidth">The page.</param>
/// <param name="PageHeight">The page.</param>
/// <param name="Columns">How many labels beside each other.</param>
/// <param name="Rows">How many below each other.</param>
/// <param name="IsStrip">Whether it is a strip that holds one, for a label printer.</param>
public sealed record LabelPaperView(string Code, string Name, double PageWidth, double PageHeight, int Columns, int Rows, bool IsStrip);

/// <summary>Labels to be made: of boxes that are there, or of the boxes that a batch is still to be packed into.</summary>
/// <param name="Paper">The code of the paper.</param>
/// <param name="BoxIds">The boxes, in the order of their labels.</param>
/// <param name="BatchId">The batch that is still to be packed.</param>
/// <param name="Order">How it is to be packed.</param>
/// <param name="From">Which label of the first page is the first that is still there, from 1.</param>
/// <param name="Home">The program's address as a phone reaches it, for the codes; that of the request where it isn't said.</param>
public sealed record LabelsRequest(
    string Paper, IReadOnlyList<Guid>? BoxIds = null, Guid? BatchId = null, PackRequest? Order = null, int From = 1, string? Home = null);

/// <summary>Labels on their paper.</summary>
/// <param name="Labels">How many there are.</param>
/// <param name="Gone">How many boxes are no longer there: they have none.</param>
/// <param name="Home">The address in their codes.</param>
/// <param name="Pages">Each page, as SVG.</param>
public sealed record LabelsView(int Labels, int Gone, string Home, IReadOnlyList<string> Pages);

/// <summary>Labels sent to the label printer, one strip each.</summary>
/// <param name="Labels">What to print, as above; on a strip.</param>
/// <param name="After">How many of them are printed already: where the tape was used up in between.</param>
public sealed record PrintLabelsRequest(LabelsRequest Labels, int After = 0);

/// <summary>What the label printer made of it.</summary>
/// <param name="Printed">How many are printed, those before among them.</param>
/// <param name="Of">How many were to be.</param>
/// <param name="Says">What it said of the first that is not; "printed" where all are.</param>
public sealed record PrintLabelsAnswer(int Printed, int Of, PrintSays Says);

/// <summary>What the cook wrote about the boxes of a dish.</summary>
/// <param name="Heating">How a box is heated.</param>
/// <param name="AtEating">What is added when it is eaten.</param>
/// <param name="Version">The version to change it on; 0 while nothing is written.</param>
public sealed record BoxNotesView(string? Heating, string? AtEating, int Version);

/// <summary>What is to be written about the boxes of a dish; empty for nothing.</summary>
public sealed record BoxNotesRequest(string? Heating, string? AtEating);

/// <summary>A box, as its label's code finds it: there, or gone.</summary>
/// <param name="Id">The box.</param>
/// <param name="Code">Its code, as it is printed.</param>
/// <param name="BatchId">Its batch.</param>
/// <param name="RecipeId">The dish's recipe.</param>
/// <param name="Name">The dish.</param>
/// <param name="Letters">Its tape mark.</param>
/// <param name="Tint">Its tint, 0 to 7.</param>
/// <param name="Number">Which box of its batch, from 1.</param>
/// <param name="Boxes">How many boxes that batch was packed into.</param>
/// <param name="State">How it stands.</param>
/// <param name="CookedOn">When it was cooked.</param>
/// <param name="PackedGrams">What was packed into it.</param>
/// <param name="Allergens">The allergens of everything in it.</param>
/// <param name="KnowsAllergens">Whether those of everything in it are known.</param>
/// <param name="Notes">What the cook wrote for the dish.</param>
/// <param name="Happened">What happened to it, the latest first.</param>
/// <param name="PutIn">What was put into it part by part; none where it was packed as a whole.</param>
/// <param name="Container">What the household calls its container; null where nobody said.</param>
public sealed record BoxPageView(
    Guid Id, string Code, Guid BatchId, Guid RecipeId, string Name, string Letters, int Tint, int Number, int Boxes, BoxState State,
    DateOnly CookedOn, decimal PackedGrams, IReadOnlyList<Allergen> Allergens, bool KnowsAllergens, BoxNotesView Notes,
    IReadOnlyList<BoxHappenedView> Happened, IReadOnlyList<PutInView> PutIn, string? Container);

/// <summary>Something that happened to a box.</summary>
/// <param name="On">The household's day then.</param>
/// <param name="Kind">What.</param>
/// <param name="Place">Where it was after that.</param>
/// <param name="Why">Why, where somebody said so.</param>
public sealed record BoxHappenedView(DateOnly On, BoxEventKind Kind, BoxPlace Place, string? Why);

/// <summary>What was typed, or read from a QR code.</summary>
public sealed record ReadCodeRequest(string Text);
