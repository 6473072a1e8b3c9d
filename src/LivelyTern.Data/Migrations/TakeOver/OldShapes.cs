using System.Text.Json;
using System.Text.Json.Serialization;
using LivelyTern.Core.Aim;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Recipes;
using LivelyTern.Data.Aim;
using LivelyTern.Data.Foods;
using LivelyTern.Data.Recipes;

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
        string Id, string Name, List<string>? Aliases, FoodGroup Group, Dictionary<Nutrient, decimal?>? Per100g,
        CarbohydrateConvention Convention, List<OldMeasure>? Measures, string? Source, decimal Refuse, decimal? DrainedShare,
        OldCookedFrom? CookedFrom, List<decimal>? PackageGrams, List<Allergen>? Allergens, StorageKind Storage, string? Use,
        bool HasIncompleteProtein, string? Gtin, bool IsOwn)
    {
        /// <summary>The food as it is kept now.</summary>
        /// <param name="keeping">How long it keeps, which was not written down then.</param>
        public StoredFood ToStored(KeepingKind keeping) => new(
            1, Id, Name, Aliases ?? [], Group,
            (Per100g ?? []).Where(one => one.Value is not null).ToDictionary(one => one.Key, one => one.Value!.Value),
            Convention, [.. (Measures ?? []).Select(own => new StoredMeasure(own.Name, own.Weight.Value, own.Source))], Source ?? "",
            Refuse, DrainedShare, CookedFrom is { } raw ? new(raw.RawId, raw.YieldFactor, raw.Source) : null,
            PackageGrams ?? [], Allergens ?? [], Storage, keeping, Use, HasIncompleteProtein, Gtin, IsOwn);

        /// <summary>How its kind was told then: by "rice" in its name.</summary>
        public KeepingKind KeepingThen =>
            Group == FoodGroup.Grains && Name.Contains("rice", StringComparison.OrdinalIgnoreCase)
                ? KeepingKind.Rice
                : KeepingKind.Ordinary;
    }

    public sealed record OldIngredient(OldFood Food, OldGrams Weight, bool IsTrace);

    public sealed record OldContents(List<OldIngredient> Ingredients, bool SomethingUnread);

    public sealed record OldPortion(Guid BatchId, OldGrams Weight);

    public sealed record OldItem(
        Guid Id, Guid? BoxId, string? Text, OldIngredient? Food, DateTimeOffset? EatenAt, OldPortion? Portion, string? Slot,
        bool IsLocked, bool IsFitted, decimal? GiveOrTake);

    public sealed record OldWhere(Guid EaterId, DateOnly Day);

    public sealed record OldDay(OldWhere Where, List<OldItem> Before, List<OldItem> After);

    public sealed record OldChange(List<OldDay> Days);

    public sealed record OldPan(PanShape Shape, decimal LengthCm, decimal? WidthCm)
    {
        public StoredPan ToStored() => new(1, Shape, LengthCm, WidthCm);
    }

    public sealed record OldStep(string Text, int HandsOn, int Unattended, List<Occupies>? Occupies, int? TemperatureC, string? DoneWhen)
    {
        public StoredStep ToStored() => new(Text, HandsOn, Unattended, Occupies ?? [], TemperatureC, DoneWhen);
    }

    public sealed record OldLine(string Text, string? FoodId, RecipePart Part, bool IsTakenOut, string? Key)
    {
        public StoredLine ToStored() => new(Text, FoodId, Part, IsTakenOut, Key ?? "");
    }

    public sealed record OldVariantChange(VariantKind Kind, string Key, OldLine? Line, string? After)
    {
        public StoredVariantChange ToStored() => new(Kind, Key, Line?.ToStored(), After);
    }

    public sealed record OldYield(int Portions, int? Pieces, decimal? CookedGrams, decimal? VolumeMl, OldPan? Pan)
    {
        public StoredYield ToStored() => new(Portions, Pieces, CookedGrams, VolumeMl, Pan?.ToStored());
    }

    public sealed record OldRecipe(string Name, List<OldLine> Lines, OldYield Yield, List<OldStep>? Steps)
    {
        public StoredRecipe ToStored() => new(
            1, Name, [.. Lines.Select(line => line.ToStored())], Yield.ToStored(), [.. (Steps ?? []).Select(step => step.ToStored())]);
    }

    public sealed record OldTotal(decimal AtLeast, bool IsComplete);

    public sealed record OldSlot(string Name, TimeOnly? At, decimal? Share, bool TakesBox);

    public sealed record OldWays(
        List<OldSlot>? OwnSlots, decimal? Reserve, List<Allergen>? NeverAllergens, List<string>? NeverFoods, List<string>? RatherNot,
        List<string>? Likes, int? AlikeWelcome)
    {
        public StoredWays ToStored() => new(
            1, [.. (OwnSlots ?? []).Select(slot => new StoredSlot(slot.Name, slot.At, slot.Share, slot.TakesBox))], Reserve,
            NeverAllergens ?? [], NeverFoods ?? [], RatherNot ?? [], Likes ?? [], AlikeWelcome);
    }

    public sealed record OldBody(
        Sex Sex, decimal Age, decimal WeightKg, decimal HeightCm, decimal? BodyFatShare, bool IsPregnantOrBreastfeeding)
    {
        public StoredBody ToStored() => new(1, Sex, Age, WeightKg, HeightCm, BodyFatShare, IsPregnantOrBreastfeeding);
    }
}
