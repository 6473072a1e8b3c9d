using LivelyTern.Core.Foods;

namespace LivelyTern.Core.Aim;

/// <summary>Why an eater must never get something.</summary>
/// <param name="Allergens">The allergens in it that they must never get.</param>
/// <param name="Foods">Names of the foods in it that they must never get.</param>
/// <param name="IsUnknown">Whether it holds something whose allergens nobody stated, where allergens matter.</param>
public sealed record Never(IReadOnlyList<Allergen> Allergens, IReadOnlyList<string> Foods, bool IsUnknown)
{
    /// <summary>The reason in words: "milk, sesame"; "peanut butter"; "something whose allergens are not known".</summary>
    public string InWords
    {
        get
        {
            var named = Allergens.Select(Word).Concat(Foods).ToList();
            return named.Count > 0 ? string.Join(", ", named) : "something whose allergens are not known";
        }
    }

    /// <summary>Tells one reason from another: what was answered for milk is not answered for milk and nuts.</summary>
    public string Key => string.Join('|', Allergens.Select(allergen => allergen.ToString()).Concat(Foods).Append(IsUnknown ? "?" : ""));

    /// <summary>An allergen as one says it: "tree nuts".</summary>
    public static string Word(Allergen allergen) => allergen == Allergen.TreeNuts ? "tree nuts" : allergen.ToString().ToLowerInvariant();
}
