using FsCheck.Xunit;
using LivelyTern.Core.Recipes;

namespace LivelyTern.Core.Tests.Recipes;

public class FamilyTests
{
    private static WrittenLine Line(string key, string text) => new(text, Key: key);

    private static readonly WrittenLine[] Base = [Line("a", "100 g oats"), Line("b", "2 eggs"), Line("c", "10 g butter")];

    [SeededProperty]
    public bool A_variant_of_nothing_changed_is_its_base(string[] texts)
    {
        var lines = texts.Select((text, i) => Line($"k{i}", text ?? "")).ToList();
        return Family.Changes(lines, lines).Count == 0 && Family.Apply(lines, []).SequenceEqual(lines);
    }

    // Any variant, made by dropping, rewriting and adding by chance, comes back from its changes as it was.
    [SeededProperty]
    public bool A_variant_is_what_its_changes_make_of_the_base(byte[] acts)
    {
        var variant = new List<WrittenLine>(Base);
        for (var i = 0; i < acts.Length; i++)
        {
            var at = variant.Count == 0 ? 0 : acts[i] / 3 % variant.Count;
            if (acts[i] % 3 == 0 && variant.Count > 0) variant.RemoveAt(at);
            else if (acts[i] % 3 == 1 && variant.Count > 0) variant[at] = variant[at] with { Text = $"{i} g something" };
            else variant.Insert(Math.Min(at, variant.Count), Line($"new{i}", $"{i} g new"));
        }

        return Family.Apply(Base, Family.Changes(Base, variant)).SequenceEqual(variant);
    }

    [Fact]
    public void A_change_of_the_base_reaches_every_flavour_but_where_it_has_its_own_line()
    {
        var changes = Family.Changes(Base, [Base[0], Line("b", "3 duck eggs"), Line("new", "5 g chilli"), Base[2]]);
        WrittenLine[] changed = [Line("a", "120 g oats"), Line("b", "2 large eggs"), Line("d", "1 banana"), Line("c", "10 g butter")];
        Assert.Equal(["120 g oats", "3 duck eggs", "5 g chilli", "1 banana", "10 g butter"],
            Family.Apply(changed, changes).Select(line => line.Text));
    }

    [Fact]
    public void What_a_variant_put_in_the_place_of_a_line_that_is_gone_stays()
    {
        var changes = Family.Changes(Base, [Base[0], Line("b", "3 duck eggs"), Base[2]]);
        Assert.Equal(["100 g oats", "10 g butter", "3 duck eggs"], Family.Apply([Base[0], Base[2]], changes).Select(line => line.Text));
    }

    [Fact]
    public void Versions_are_told_apart_line_by_line()
    {
        var changes = RecipeHistory.Between(Base, [Line("a", "100 g oats"), Line("c", "20 g butter"), Line("x", "1 apple")]);
        Assert.Equal(
            [(LineChangeKind.Changed, "10 g butter", "20 g butter"), (LineChangeKind.Added, null, "1 apple"),
                (LineChangeKind.Removed, "2 eggs", null)],
            changes.Select(change => (change.Kind, change.Before?.Text, change.After?.Text)));
    }
}
