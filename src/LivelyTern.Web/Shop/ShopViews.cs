using LivelyTern.Core.Aim;
using LivelyTern.Core.Cook;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Shop;
using LivelyTern.Web.Http;

namespace LivelyTern.Web.Shop;

/// <summary>What some of a food is bought for.</summary>
/// <param name="Kind">"batch", "day", or "hand" where the household wrote it on.</param>
/// <param name="Id">The batch, the thing on the day, or what was written on.</param>
/// <param name="Name">The dish, the eater, or the words written on.</param>
/// <param name="Day">When; null for what was written on.</param>
/// <param name="Grams">How much, as purchased.</param>
public sealed record NeedView(string Kind, Guid Id, string Name, DateOnly? Day, decimal Grams)
{
    /// <summary>A need as shown.</summary>
    public static NeedView Of(PlannedNeed need)
    {
        ArgumentNullException.ThrowIfNull(need);
        var grams = need.What.Purchased.Value;
        return need.Source switch
        {
            ForBatch batch => new("batch", batch.BatchId, batch.Name, batch.Day, grams),
            ForDay day => new("day", day.ItemId, day.Eater, day.Day, grams),
            ByHand hand => new("hand", hand.Id, hand.Text, null, grams),
            _ => throw new InvalidOperationException("A need has a source."),
        };
    }
}

/// <summary>One food of the list; in grams as purchased, need + over = buy + have.</summary>
/// <param name="Key">What a tick of it names: the food's id.</param>
/// <param name="Name">The food.</param>
/// <param name="State">Where it stands.</param>
/// <param name="Said">What to buy, as one says it; of what is in the basket, what that is.</param>
/// <param name="Need">What is needed.</param>
/// <param name="Have">What is in the house and in the basket.</param>
/// <param name="House">What of that is in the house.</param>
/// <param name="Basket">What is in the basket; null for nothing.</param>
/// <param name="Buy">What is still to be bought.</param>
/// <param name="Over">What will be over.</param>
/// <param name="OverSaid">The same, as one says it, where packages are to blame; else null.</param>
/// <param name="CouldUse">How many recipes could use what is over.</param>
/// <param name="IsNotNeeded">Whether it is in the basket and nothing needs it any more.</param>
/// <param name="Cost">What it costs; null where a price is missing.</param>
/// <param name="InsteadOf">The foods it stands in for.</param>
/// <param name="For">What it is for.</param>
public sealed record ListedView(
    string Key, string Name, ListState State, string Said, decimal Need, decimal Have, decimal House,
    decimal? Basket, decimal Buy, decimal Over,
    string? OverSaid, int CouldUse, bool IsNotNeeded, decimal? Cost, IReadOnlyList<string> InsteadOf, IReadOnlyList<NeedView> For);

/// <summary>Something written on by hand that is no food with an amount.</summary>
/// <param name="Key">What a tick of it names.</param>
/// <param name="Id">The item.</param>
/// <param name="Text">As written.</param>
/// <param name="IsTicked">Whether it is in the basket.</param>
/// <param name="AisleId">Where such a thing stands, as far as its words say.</param>
public sealed record WrittenOnView(string Key, Guid Id, string Text, bool IsTicked, string AisleId);

/// <summary>An aisle with what is in it.</summary>
public sealed record AisleView(string Id, string Name, IReadOnlyList<ListedView> Foods, IReadOnlyList<WrittenOnView> Written);

/// <summary>A batch that the list buys for.</summary>
/// <param name="Id">The batch.</param>
/// <param name="RecipeId">Its recipe.</param>
/// <param name="Name">The dish.</param>
/// <param name="Day">When it is cooked.</param>
/// <param name="Portions">For how many portions.</param>
/// <param name="Cost">What its foods cost, by the gram; of what prices were noted for.</param>
/// <param name="Unpriced">How many of its foods have no price.</param>
/// <param name="PerPortion">The same for a portion.</param>
/// <param name="NotRead">Lines of its recipe that were not understood: the list does not have them.</param>
public sealed record ShopBatchView(
    Guid Id, Guid RecipeId, string Name, DateOnly Day, int Portions, decimal Cost, int Unpriced, decimal PerPortion,
    IReadOnlyList<string> NotRead);

/// <summary>The list.</summary>
/// <param name="Today">The household's day.</param>
/// <param name="Until">The last day it buys for; null for all that is planned.</param>
/// <param name="LastDay">The last day on which anything is planned; null for none.</param>
/// <param name="Aisles">The aisles with something in them, in the household's order.</param>
/// <param name="Batches">The batches it buys for.</param>
/// <param name="ToBuy">How many things are still to be bought.</param>
/// <param name="InBasket">How many are in the basket.</param>
/// <param name="Cost">What all of it costs, of what prices were noted for.</param>
/// <param name="Unpriced">How many of its foods have no price.</param>
/// <param name="Currency">What stands before a price.</param>
public sealed record ShopListView(
    DateOnly Today, DateOnly? Until, DateOnly? LastDay, IReadOnlyList<AisleView> Aisles, IReadOnlyList<ShopBatchView> Batches, int ToBuy,
    int InBasket, decimal Cost, int Unpriced, string Currency);

/// <summary>The household's aisles.</summary>
public sealed record AislesView(Aisles Aisles, int Version);

/// <summary>A tick said on a phone.</summary>
/// <param name="Key">The food's id, or the key of what was written on.</param>
/// <param name="IsTicked">Whether it is in the basket.</param>
/// <param name="Grams">How much of it is.</param>
/// <param name="At">When, by the phone's clock.</param>
public sealed record TickRequest(string Key, bool IsTicked, decimal Grams, DateTimeOffset At);

/// <summary>Ticks, in whatever order; sent again they count once.</summary>
public sealed record TicksRequest(IReadOnlyList<TickRequest> Ticks);

/// <summary>What became of ticks.</summary>
/// <param name="List">The list now.</param>
/// <param name="Gone">Names of what was ticked and nothing needs any more: it is kept as bought.</param>
public sealed record TicksAnswer(ShopListView List, IReadOnlyList<string> Gone);

/// <summary>Something to be written on the list.</summary>
/// <param name="Text">As written.</param>
/// <param name="FoodId">The food chosen; null where the words say enough.</param>
/// <param name="Id">Chosen by who sends it, so that it may be sent again; null lets the host choose.</param>
public sealed record WriteOnRequest(string Text, string? FoodId = null, Guid? Id = null);

/// <summary>A package as shown and sent.</summary>
/// <param name="Grams">What it holds; where it fills so much, what that weighs, and when sent nobody's matter.</param>
/// <param name="Price">What it costs.</param>
/// <param name="Ml">What it fills, in millilitres, where it is sold by volume.</param>
public sealed record PackageView(decimal Grams, decimal? Price, decimal? Ml = null);

/// <summary>How a food is sold here, to be written down.</summary>
public sealed record SoldAsRequest(IReadOnlyList<PackageView> Packages, bool IsLoose, string? Aisle)
{
    /// <summary>It as the core knows it, or what can't be.</summary>
    /// <param name="food">What is sold so.</param>
    public Outcome<SoldAs> ToSoldAs(Food food)
    {
        ArgumentNullException.ThrowIfNull(food);
        var packages = new List<SoldPackage>();
        foreach (var (i, one) in Packages.Index())
        {
            var isVolume = one.Ml is > 0 and <= SoldAs.LargestPackage;
            var weight = isVolume ? food.PackageOf(one.Ml!.Value) : new Grams(one.Grams);
            if (weight is not { } holds)
            {
                var sentence = $"How much a millilitre of {food.Name} weighs is not known here: say what the package holds in grams.";
                return new Problem("package-ml", $"packages[{i}].ml", sentence);
            }

            packages.Add(new(holds, one.Price, one.Ml));
        }

        return SoldAs.Said(packages, IsLoose, Aisle);
    }

    /// <summary>It as shown.</summary>
    public static SoldAsRequest Of(SoldAs sold)
    {
        ArgumentNullException.ThrowIfNull(sold);
        return new([.. sold.Packages.Select(one => new PackageView(one.Holds.Value, one.Price, one.Ml))], sold.IsLoose, sold.Aisle);
    }
}

/// <summary>A food that could stand in.</summary>
/// <param name="Id">The food.</param>
/// <param name="Name">Its name.</param>
/// <param name="KcalPer100g">Its energy.</param>
/// <param name="ProteinPer100g">Its protein.</param>
public sealed record StandInView(string Id, string Name, decimal? KcalPer100g, decimal? ProteinPer100g);

/// <summary>A recipe that could use what is over.</summary>
public sealed record CouldUseView(Guid RecipeId, string Name, decimal Grams, int Portions, bool IsEnough);

/// <summary>A food of the list in depth.</summary>
/// <param name="Id">The food.</param>
/// <param name="Name">Its name.</param>
/// <param name="Sold">How it is sold here.</param>
/// <param name="Aisle">The aisle it stands in.</param>
/// <param name="Version">For the next write of how it is sold.</param>
/// <param name="CouldUse">Recipes that could use what is over.</param>
/// <param name="StandIns">Foods that could stand in for it.</param>
/// <param name="Instead">What stands in for it, or it for others, in batches still to be cooked.</param>
public sealed record ShopFoodView(
    string Id, string Name, SoldAsRequest Sold, string Aisle, int Version, IReadOnlyList<CouldUseView> CouldUse,
    IReadOnlyList<StandInView> StandIns, IReadOnlyList<InsteadView> Instead);

/// <summary>A food that stands in for another in a batch still to be cooked.</summary>
public sealed record InsteadView(Guid BatchId, string Batch, Substitution With, string Of, string Instead);

/// <summary>Another food in place of one that is not sold.</summary>
/// <param name="InsteadId">The other food.</param>
/// <param name="PerGram">How many grams of it for a gram.</param>
public sealed record InsteadRequest(string InsteadId, decimal PerGram = 1);

/// <summary>What a substitute does to a dish.</summary>
public sealed record InsteadBatchView(
    Guid Id, string Name, IReadOnlyDictionary<Measure, Figure> Before, IReadOnlyDictionary<Measure, Figure> After);

/// <summary>What a substitute does to a day.</summary>
/// <param name="EaterId">Whose.</param>
/// <param name="Name">Their name.</param>
/// <param name="Day">The day.</param>
/// <param name="Measure">The measure they lead by.</param>
/// <param name="Before">The day's sum of it.</param>
/// <param name="After">The same with the other food.</param>
/// <param name="FitBefore">Whether the day fits.</param>
/// <param name="FitsAfter">Whether it does then.</param>
public sealed record InsteadDayView(
    Guid EaterId, string Name, DateOnly Day, Measure Measure, Figure Before, Figure After, bool FitBefore, bool FitsAfter);

/// <summary>What a substitute changes.</summary>
/// <param name="Name">The other food.</param>
/// <param name="Batches">Dishes, a portion of each before and after.</param>
/// <param name="Days">The days it touches.</param>
/// <param name="Kept">What stays as it is all the same: a cooked form on a day, which was laid as that.</param>
/// <param name="ChangeId">The change of the days, once it is made; null where no plain food was replaced.</param>
public sealed record InsteadAnswer(
    string Name, IReadOnlyList<InsteadBatchView> Batches, IReadOnlyList<InsteadDayView> Days, IReadOnlyList<string> Kept, Guid? ChangeId);

/// <summary>What stood in is out of these batches again.</summary>
public sealed record PutBackRequest(IReadOnlyList<Guid> Batches, Substitution With);

/// <summary>How many.</summary>
public sealed record CountAnswer(int Count);
