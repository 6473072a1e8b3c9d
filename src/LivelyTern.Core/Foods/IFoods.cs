namespace LivelyTern.Core.Foods;

/// <summary>The foods a line may mean, wherever they are kept.</summary>
public interface IFoods
{
    /// <summary>The food of this id, or null.</summary>
    Food? Find(string id);

    /// <summary>The cooked forms of a raw food: of dry rice the boiled one.</summary>
    IReadOnlyList<Food> CookedFormsOf(string rawId);

    /// <summary>Whether a food has this very name, but for capitals and plurals: "Red lentils, dry".</summary>
    bool IsName(string text);

    /// <summary>The foods that may be meant, the nearest first: all that was said holds of each.</summary>
    FoodMeaning Meaning(SaidFood said);

    /// <summary>The foods that fit what was typed so far, best first, typing slips forgiven.</summary>
    IReadOnlyList<Food> Suggest(string typed, int most);
}
