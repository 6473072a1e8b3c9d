using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Data;
using LivelyTern.Data.Foods;
using LivelyTern.Devices;

namespace LivelyTern.Web.Foods;

/// <summary>A food by name.</summary>
public sealed record FoodName(string Id, string Name, FoodGroup Group)
{
    /// <summary>A food's name.</summary>
    public static FoodName Of(Food food)
    {
        ArgumentNullException.ThrowIfNull(food);
        return new(food.Id, food.Name, food.Group);
    }
}

/// <summary>A household measure: grams of one, and who weighed it.</summary>
public sealed record MeasureView(string Name, decimal Grams, string Source);

/// <summary>The other form of a food: the raw one it is cooked from, or what it is cooked to.</summary>
/// <param name="Id">The other food.</param>
/// <param name="Name">Its name.</param>
/// <param name="YieldFactor">Cooked weight / raw weight.</param>
/// <param name="Source">Where the factor comes from.</param>
/// <param name="IsRaw">Whether the other one is the raw form.</param>
public sealed record OtherForm(string Id, string Name, decimal YieldFactor, string Source, bool IsRaw);

/// <summary>Everything known about a food.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Name">Its name.</param>
/// <param name="Aliases">Other names.</param>
/// <param name="Group">Its kind.</param>
/// <param name="Per100g">What 100 g hold, as stated; null is not known.</param>
/// <param name="NetCarbohydrate">Grams of net carbohydrate in 100 g, from either convention; null where a part is not known.</param>
/// <param name="TotalCarbohydrate">Grams of carbohydrate in 100 g, fibre within, from either convention.</param>
/// <param name="Convention">What its carbohydrate figure contains.</param>
/// <param name="Measures">Its household measures.</param>
/// <param name="Refuse">The share thrown away.</param>
/// <param name="DrainedShare">The share of a tin left when drained.</param>
/// <param name="OtherForms">Raw and cooked forms.</param>
/// <param name="PackageGrams">Package sizes.</param>
/// <param name="Allergens">Its allergens.</param>
/// <param name="Storage">Where it is kept.</param>
/// <param name="Keeping">How long it keeps once cooked.</param>
/// <param name="Use">What it does in a dish.</param>
/// <param name="IncompleteProtein">Whether its protein lacks an essential amino acid altogether.</param>
/// <param name="Gtin">The number under its barcode.</param>
/// <param name="Own">Whether the cook wrote it down.</param>
/// <param name="Archived">Whether it was taken off the list.</param>
/// <param name="Source">Where its figures come from.</param>
/// <param name="Doubts">What looks wrong.</param>
/// <param name="KcalByFactors">What the general factors make of its parts.</param>
/// <param name="Version">The version to change it on; 0 where it can't be changed.</param>
/// <param name="PointsPer100g">Points its packet states for 100 g; null where none.</param>
public sealed record FoodView(
    string Id, string Name, IReadOnlyList<string> Aliases, FoodGroup Group, Nutrients Per100g, decimal? NetCarbohydrate,
    decimal? TotalCarbohydrate, CarbohydrateConvention Convention, IReadOnlyList<MeasureView> Measures, decimal Refuse,
    decimal? DrainedShare, IReadOnlyList<OtherForm> OtherForms, IReadOnlyList<decimal> PackageGrams, IReadOnlyList<Allergen> Allergens,
    StorageKind Storage, KeepingKind Keeping, string? Use, bool IncompleteProtein, string? Gtin, bool Own, bool Archived, string Source,
    IReadOnlyList<Doubt> Doubts, decimal KcalByFactors, int Version, decimal? PointsPer100g)
{
    /// <summary>A food as shown.</summary>
    public static FoodView Of(Food food, FoodRow? row, FoodCatalogue kitchen)
    {
        ArgumentNullException.ThrowIfNull(food);
        ArgumentNullException.ThrowIfNull(kitchen);
        var net = new Contents([new(food, new Grams(100))]).Totals.NetCarbohydrate;
        var cooked = kitchen.All.Where(other => string.Equals(other.CookedFrom?.RawId, food.Id, StringComparison.Ordinal));
        var forms = cooked.Select(other => new OtherForm(
            other.Id, other.Name, other.CookedFrom!.YieldFactor, other.CookedFrom.Source, false)).ToList();
        if (food.CookedFrom is { } from && kitchen.Find(from.RawId) is { } raw)
            forms.Add(new(raw.Id, raw.Name, from.YieldFactor, from.Source, true));
        return new(
            food.Id, food.Name, food.Aliases, food.Group, food.Per100g, net.IsComplete ? net.Known : null, food.TotalCarbohydrate,
            food.Convention, [.. food.Measures.Select(measure => new MeasureView(measure.Name, measure.Weight.Value, measure.Source))],
            food.Refuse, food.DrainedShare, forms, food.PackageGrams, food.Allergens, food.Storage, food.Keeping, food.Use,
            food.HasIncompleteProtein, food.Gtin, food.IsOwn, row?.ArchivedAt is not null, food.Source,
            Core.Foods.Doubts.Of(food.Per100g, food.Convention),
            EnergyFactors.Kilocalories(food.Per100g, food.Convention == CarbohydrateConvention.Total),
            row is not null && food.IsOwn ? row.Version : 0, food.PointsPer100g);
    }
}

/// <summary>An own food as written.</summary>
/// <param name="Name">What the cook calls it.</param>
/// <param name="Group">Its kind.</param>
/// <param name="Label">Its label as printed.</param>
/// <param name="PackageGrams">What a package holds.</param>
/// <param name="Allergens">The allergens it names.</param>
/// <param name="Gtin">The number under its barcode.</param>
/// <param name="Keeping">How long it keeps once cooked; null as its name says.</param>
public sealed record OwnFoodRequest(
    string Name, FoodGroup Group, Label Label, decimal? PackageGrams = null, IReadOnlyList<Allergen>? Allergens = null,
    string? Gtin = null, KeepingKind? Keeping = null)
{
    /// <summary>The same for the store.</summary>
    public OwnFood Own => new(Name, Group, Label, PackageGrams, Allergens ?? [], Gtin, Keeping);
}

/// <summary>A label, read.</summary>
/// <param name="Per100g">What 100 g hold.</param>
/// <param name="KcalByFactors">What the general factors make of its parts.</param>
/// <param name="Doubts">What looks wrong, in plain words.</param>
/// <param name="Printed">The serving as a North American label prints it.</param>
public sealed record LabelAnswer(
    Nutrients Per100g, decimal KcalByFactors, IReadOnlyList<Doubt> Doubts, IReadOnlyDictionary<Nutrient, string> Printed);

/// <summary>What a barcode stands for.</summary>
/// <param name="Gtin">The number, 14 digits.</param>
/// <param name="Food">The food here that has it, or null.</param>
/// <param name="Product">What the look-up device knows of it, as an own food to be written down; null where nothing.</param>
public sealed record BarcodeAnswer(string Gtin, FoodName? Food, OwnFoodRequest? Product)
{
    /// <summary>A product as an own food to be written down.</summary>
    public static OwnFoodRequest Of(Product product)
    {
        ArgumentNullException.ThrowIfNull(product);
        return new(
            product.Name, product.Group, product.Label, product.PackageGrams, product.Allergens,
            product.Gtin.TrimStart('0').PadLeft(13, '0'));
    }
}

/// <summary>A household measure to be weighed once.</summary>
public sealed record MissingMeasureView(string FoodId, string FoodName, string Measure);

/// <summary>Packages of one size.</summary>
public sealed record PackView(decimal Count, decimal Each, string Unit);

/// <summary>The parts of a line, as understood.</summary>
/// <param name="From">The quantity, or the lower end of a range; null for a trace.</param>
/// <param name="To">The upper end.</param>
/// <param name="Unit">The unit of mass or volume, or null for a count.</param>
/// <param name="Measure">The household measure or size, or null.</param>
/// <param name="Pack">The packages it was said in, or null.</param>
/// <param name="FoodText">The words that name the food.</param>
/// <param name="Note">What else was said.</param>
/// <param name="Also">The same amount as it was said a second time, in other units; null otherwise.</param>
public sealed record LinePartsView(
    decimal? From, decimal? To, string? Unit, string? Measure, PackView? Pack, string FoodText, string Note, string? Also)
{
    /// <summary>The parts as shown.</summary>
    public static LinePartsView Of(LineParts parts)
    {
        ArgumentNullException.ThrowIfNull(parts);
        var amount = parts.Amount;
        var pack = amount?.Pack is { } size ? new PackView(size.Count, size.Each, size.Unit.Name) : null;
        return new(
            amount?.From, amount?.To, amount?.Unit?.Name, parts.Measure, pack, parts.FoodText, parts.Note, amount?.Also?.Print());
    }
}
