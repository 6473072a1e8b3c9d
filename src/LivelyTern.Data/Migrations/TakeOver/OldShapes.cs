using System.Text.Json;
using System.Text.Json.Serialization;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Data.Foods;

namespace LivelyTern.Data.Migrations.TakeOver;

/// <summary>
/// What earlier programs wrote as JSON, when the core's own records were the shape of it. Apart from the core, so that a member renamed
/// there changes nothing here; a member that is not there was not known then.
/// </summary>
internal static class OldShapes
{
    private static readonly JsonSerializerOptions Options = new(JsonSerializerDefaults.Web)
    {
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase) },
    };

    public static T Read<T>(string text) =>
        JsonSerializer.Deserialize<T>(text, Options) ?? throw new InvalidDataException($"A stored {typeof(T).Name} is empty.");

    public sealed record OldGrams(decimal Value);

    public sealed record OldMeasure(string Name, OldGrams Weight, string Source);

    public sealed record OldCookedFrom(string RawId, decimal YieldFactor, string Source);

    public sealed record OldFood(
        string Id, string Name, List<string>? Aliases, FoodGroup Group, Dictionary<Nutrient, decimal?>? Per100g, CarbohydrateConvention Convention,
        List<OldMeasure>? Measures, string? Source, decimal Refuse, decimal? DrainedShare, OldCookedFrom? CookedFrom, List<decimal>? PackageGrams,
        List<Allergen>? Allergens, StorageKind Storage, string? Use, bool HasIncompleteProtein, string? Gtin, bool IsOwn)
    {
        /// <summary>The food as it is kept now.</summary>
        /// <param name="keeping">How long it keeps, which was not written down then.</param>
        public StoredFood ToStored(KeepingKind keeping) => new(
            1, Id, Name, Aliases ?? [], Group, (Per100g ?? []).Where(one => one.Value is not null).ToDictionary(one => one.Key, one => one.Value!.Value),
            Convention, [.. (Measures ?? []).Select(own => new StoredMeasure(own.Name, own.Weight.Value, own.Source))], Source ?? "",
            Refuse, DrainedShare, CookedFrom is { } raw ? new(raw.RawId, raw.YieldFactor, raw.Source) : null,
            PackageGrams ?? [], Allergens ?? [], Storage, keeping, Use, HasIncompleteProtein, Gtin, IsOwn);

        /// <summary>How its kind was told then: by "rice" in its name.</summary>
        public KeepingKind KeepingThen =>
            Group == FoodGroup.Grains && Name.Contains("rice", StringComparison.OrdinalIgnoreCase) ? KeepingKind.Rice : KeepingKind.Ordinary;
    }

    public sealed record OldIngredient(OldFood Food, OldGrams Weight, bool IsTrace);

    public sealed record OldContents(List<OldIngredient> Ingredients, bool SomethingUnread);

    public sealed record OldPortion(Guid BatchId, OldGrams Weight);

    public sealed record OldItem(
        Guid Id, Guid? BoxId, string? Text, OldIngredient? Food, DateTimeOffset? EatenAt, OldPortion? Portion, string? Slot, bool IsLocked, bool IsFitted,
        decimal? GiveOrTake);

    public sealed record OldWhere(Guid EaterId, DateOnly Day);

    public sealed record OldDay(OldWhere Where, List<OldItem> Before, List<OldItem> After);

    public sealed record OldChange(List<OldDay> Days);
}
