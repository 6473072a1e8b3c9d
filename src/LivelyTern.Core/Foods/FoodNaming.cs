using System.Text.RegularExpressions;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Foods;

/// <summary>What the words of a line name: the foods they may mean, and what else they say.</summary>
/// <param name="Name">The words that name the food: "chicken breasts".</param>
/// <param name="Note">What else was said: "boneless, skinless, sliced".</param>
/// <param name="Said">All that was said of it.</param>
/// <param name="Meaning">The foods they may mean, the nearest first.</param>
internal sealed record FoodNaming(string Name, string Note, SaidFood Said, FoodMeaning Meaning)
{
    // How many notes may hold a word of the name, and how many words an "or" may share: more are not looked at.
    private const int MostNotes = 4, MostShared = 3;

    private static readonly char[] Marks = [',', '(', ')', ';'];

    // "Oil for frying", "butter or margarine": what follows is not part of the name.
    private static readonly Regex Tail = LineText.Pattern(
        @"^(?<name>\S.*?)\s+(?<tail>(?:for|cut (?:in|into|to|up|on|lengthways|lengthwise|crosswise|from|the|thin|thick|thinly)"
        + @"|or|plus (?:extra|more)|to (?:serve|garnish|taste|finish|drizzle|dust|decorate|coat)|at room"
        + @"|such as|like|as (?:needed|required|desired)|if (?:needed|desired|using|you like)|made (?:with|from|using|up)"
        + @"|from (?:a|the|about)"
        + @"|with (?:the|its|their|juices?|seeds)|about|approx\.?|[-–—])(?:\s.*)?)$");

    private static readonly string[] Tails =
    [
        " for ", " cut ", " or ", " plus ", " to ", " at ", " such ", " like ", " as ", " if ", " made ", " from ", " with ", " about ",
        " approx", " - ", " – ", " — ",
    ];

    private static readonly Regex Or = LineText.Pattern(@"^or\s+(?<other>\S.*)$");

    /// <summary>Reads the words after an amount.</summary>
    /// <param name="text">"chicken breasts (boneless), sliced".</param>
    /// <param name="foods">The foods they may mean.</param>
    /// <param name="chosen">The food the cook chose, where one was chosen.</param>
    /// <param name="isTinned">Whether it was said to be in a tin: then what is tinned is meant.</param>
    /// <param name="isCounted">Whether it is counted in pieces, of which cooking changes the weight and not what they hold.</param>
    public static FoodNaming Read(string text, IFoods foods, Food? chosen, bool isTinned = false, bool isCounted = false)
    {
        var (name, tail, note) = Split(text, foods);
        var all = Join(tail, note);
        var telling = Telling(note);
        var said = SaidFood.Of(name, telling, isTinned);
        if (chosen is not null) return Aside(new(name, all, said, FoodMeaning.Chosen(chosen)));
        var meaning = foods.Meaning(said);
        if (Shared(name, tail, telling, foods, isTinned) is { } shared) return Aside(shared with { Note = Join(tail, note) });
        if (meaning is { IsChosen: false } && WithNote(name, telling, foods, isTinned) is { } told) meaning = told;

        // A tin of what is not sold in tins is just the food, unless dry; three slices of bacon, cooked, are what three slices were.
        var isByTin = isTinned && said.Forms is ["canned"];
        if (meaning.Fits.Count == 0 && isByTin) meaning = NotDry(foods.Meaning(SaidFood.Of(name, telling))) ?? meaning;
        if (meaning.Fits.Count == 0 && isCounted && said.FormsInNote.Count > 0) meaning = foods.Meaning(said.OfAnyForm());

        // The name says it too, so that it is still said where the tin is not.
        if (isByTin && meaning.Fits is [var fit, ..] && !meaning.IsChosen
            && foods.Meaning(SaidFood.Of(name, telling)) is var bare && !(bare.Fits is [var loose, ..] && loose.Food == fit.Food))
            name = $"canned {name}";
        return Aside(new(name, all, said, meaning));
    }

    /// <summary>Two notes as one.</summary>
    public static string Join(string first, string second) =>
        first.Length == 0 ? second : second.Length == 0 ? first : $"{first}, {second}";

    // "onions, chopped" and "chickpeas (drained)": the note after the comma or in brackets is not part of the name, but "red lentils, dry"
    // is one name; "boneless, skinless thighs" begins with the note.
    private static (string Name, string Tail, string Note) Split(string text, IFoods foods)
    {
        var whole = text.Trim();
        if (foods.IsName(whole)) return (whole, "", "");
        var parts = whole.Split(Marks, StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);
        if (parts.Length == 0) return ("", "", "");
        var at = Array.FindIndex(parts, part => !part.Any(char.IsAsciiDigit) && !NameFacets.Of(WithoutTail(part).Name).IsNameless);
        if (at < 0) at = Array.FindIndex(parts, part => !NameFacets.Of(WithoutTail(part).Name).IsNameless);
        if (at < 0) at = 0;
        var (name, tail) = foods.IsName(parts[at]) ? (parts[at], "") : WithoutTail(parts[at]);
        var to = at;

        // "red lentils, dry, rinsed": the name may itself hold a comma.
        for (var last = parts.Length - 1; last > at && tail.Length == 0; last--)
        {
            var longer = string.Join(", ", parts[at..(last + 1)]);
            if (!foods.IsName(longer)) continue;
            (name, to) = (longer, last);
            break;
        }

        return (name, tail, string.Join(", ", [.. parts[..at], .. parts[(to + 1)..]]));
    }

    private static (string Name, string Tail) WithoutTail(string name) =>
        Tails.Any(word => LineText.Says(name, word)) && Tail.Match(name) is { Success: true } match
            ? (match.Groups["name"].Value, match.Groups["tail"].Value)
            : (name, "");

    // "Skim, or 1 % milk", "1 cup rice, 3 cups cooked": what else might be taken, and what comes of it, say nothing of what is.
    private static string Telling(string note) =>
        string.Join(", ", note.Split(", ").Where(one =>
            !one.StartsWith("or ", StringComparison.OrdinalIgnoreCase) && AmountText.Read(one) is not { Unit.Kind: UnitKind.Volume }));

    private static FoodMeaning? NotDry(FoodMeaning meaning) =>
        meaning.Fits is [var fit, ..] && !NameFacets.Of(fit.Food.Name).Facets.Contains(new(FacetAxis.Form, "dry")) ? meaning : null;

    // "Lentils, red", "onion, white": a note may name the food more closely.
    private static FoodMeaning? WithNote(string name, string note, IFoods foods, bool isTinned)
    {
        var notes = note.Split(", ", StringSplitOptions.RemoveEmptyEntries).Select(one => WithoutTail(one).Name)
            .Where(one => NameFacets.Of(one) is { IsNameless: false, Words.Count: <= 3 } && !one.Any(char.IsAsciiDigit));
        foreach (var one in notes.Take(MostNotes))
        {
            var closer = foods.Meaning(SaidFood.Of($"{one} {name}", note, isTinned));
            if (closer.Fits is [{ IsWhole: true }, ..]) return closer;
        }

        return null;
    }

    // "Olive or rapeseed oil" is olive oil; "butter or margarine" is butter: what follows "or" may lend its last words.
    private static FoodNaming? Shared(string name, string tail, string note, IFoods foods, bool isTinned)
    {
        if (Or.Match(tail) is not { Success: true } or) return null;
        var others = WithoutTail(or.Groups["other"].Value).Name.Split(' ', StringSplitOptions.RemoveEmptyEntries);
        foreach (var from in Enumerable.Range(NameFacets.Of(name).IsNameless ? 0 : 1, MostShared).TakeWhile(from => from < others.Length))
        {
            var lent = $"{name} {string.Join(' ', others[from..])}";
            var said = SaidFood.Of(lent, note, isTinned);
            if (foods.Meaning(said) is { Fits: [{ IsWhole: true }, ..] } meaning) return new(lent, "", said, meaning);
        }

        return null;
    }

    // Words that describe are put aside into the note, where the food is not called by them.
    private static FoodNaming Aside(FoodNaming of)
    {
        var name = of.Name.Replace("free range", "free-range", StringComparison.OrdinalIgnoreCase);
        var called = of.Meaning.Fits is [var fit, ..] ? FoodWords.All(fit.Name) : null;
        if (called is null || name.Contains(',', StringComparison.Ordinal)) return of;
        bool IsAside(string word)
        {
            var row = string.Join(' ', FoodWords.All(word));
            var isDescribing = FacetWords.IsDescribing(row) || FacetWords.FacetOf(row) is { Axis: FacetAxis.Skin };
            return isDescribing && row is not ("ground" or "minced") && !FoodWords.IsPreparation(row)
                && !FoodWords.All(row).Any(one => called.Contains(one, StringComparer.Ordinal));
        }

        var words = name.Split(' ', StringSplitOptions.RemoveEmptyEntries);
        var left = words.Where((word, at) => !IsAside(word) || (at > 0 && words[at - 1] is "the")).ToList();
        if (left.Count == words.Length || left.Count == 0) return of;

        // Only where what is left says the same: "whole" is part of "whole wheat".
        var (all, rest) = (NameFacets.Of(name), NameFacets.Of(string.Join(' ', left)));
        static string Figures(NameFacets read) =>
            string.Join(' ', read.Words.Order(StringComparer.Ordinal)) + read.FatShare
            + string.Concat(read.Facets.Where(facet => facet.Axis != FacetAxis.Skin));
        if (!string.Equals(Figures(all), Figures(rest), StringComparison.Ordinal)) return of;
        var aside = string.Join(' ', words.Where(word => !left.Contains(word, StringComparer.Ordinal)));
        return of with { Name = string.Join(' ', left), Note = Join(aside, of.Note) };
    }
}
