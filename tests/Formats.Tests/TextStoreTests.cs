using LivelyTern.Formats.Foods;

namespace LivelyTern.Formats.Tests;

/// <summary>What is kept of very many names comes back letter by letter, wherever its page ends.</summary>
public sealed class TextStoreTests
{
    [Fact]
    public void Every_text_comes_back_whatever_its_length()
    {
        var (store, chance) = (new TextStore(), new Random(5));
        string Any(int i) => i % 400 == 0
            ? new string((char)('a' + (i % 26)), 1_100_000 + i)
            : new string([.. Enumerable.Range(0, chance.Next(0, 9_000)).Select(_ => (char)chance.Next(32, 0x2fff))]);
        var texts = Enumerable.Range(0, 900).Select(Any).ToList();
        var places = texts.ConvertAll(text => store.Add(text));
        Assert.Equal(texts, places.Select(store.Get));
        Assert.Equal("", store.Get(store.Add("")));
    }
}
