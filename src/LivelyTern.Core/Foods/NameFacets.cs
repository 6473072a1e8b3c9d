using System.Globalization;

namespace LivelyTern.Core.Foods;

/// <summary>
/// What words say of a food, facet by facet: those of a line and those of a food's own name are read alike. "Extra lean ground beef
/// (96/4)" is the words beef and minced, the facet "leanest", and 4 % of fat.
/// </summary>
internal sealed class NameFacets
{
    // Meats, and what stands in for them: "ground" and "minced" before these is another food, before others a way to cut.
    private static readonly HashSet<string> Minced = new(StringComparer.Ordinal)
    {
        "beef", "pork", "turkey", "chicken", "lamb", "veal", "venison", "bison", "meat", "chuck", "steak", "soya", "plant", "vegetarian",
        "vegan", "vegetable", "sirloin", "kangaroo", "goat", "duck", "salmon", "plant based", "meat free", "round", "sausage",
    };

    // More fat than this is no food's share but a cocoa's, "70 %"; less is.
    private const decimal MostFat = 50m;

    private readonly List<string> words = [];
    private readonly HashSet<string> describing = new(StringComparer.Ordinal);
    private readonly List<Facet> facets = [];

    private NameFacets()
    {
    }

    /// <summary>The words that name the food, each once, in the order written.</summary>
    public IReadOnlyList<string> Words => words;

    /// <summary>The noun: the last naming word before any comma, "lentil" of "red lentils, dry".</summary>
    public string Head { get; private set; } = "";

    /// <summary>The words that describe it and leave its figures as they are.</summary>
    public IReadOnlySet<string> Describing => describing;

    /// <summary>What is said of its form, fat, sugar, salt, skin and what it lies in.</summary>
    public IReadOnlyList<Facet> Facets => facets;

    /// <summary>Grams of fat in 100 g, where a number says so: "5 %", "93 % lean", "80/20".</summary>
    public decimal? FatShare { get; private set; }

    // "(99 %)": more than a half alone is what is lean of a meat, or of chocolate what is cocoa.
    private decimal? Most { get; set; }

    /// <summary>Whether nothing in it names a food.</summary>
    public bool IsNameless => words.Count == 0;

    /// <summary>Reads the words.</summary>
    /// <param name="text">A name, or the words after an amount.</param>
    /// <param name="isName">Whether it is a food's own name: then all its words name it where none else does.</param>
    public static NameFacets Of(string text, bool isName = false)
    {
        var read = new NameFacets();
        var end = text.AsSpan().IndexOfAny(',', '(') is > 0 and var at ? at : text.Length;
        read.Take(Tokens(text[..end]));
        read.Head = read.words.LastOrDefault() ?? "";
        read.Take(Tokens(text[end..]));
        read.Settle();
        if (isName && read.IsNameless) read.NameAll(Tokens(text));
        return read;
    }

    /// <summary>The same with what was said elsewhere in the line: its facets, not its words.</summary>
    public NameFacets With(NameFacets note)
    {
        var both = new NameFacets { Head = Head, FatShare = FatShare ?? note.FatShare };
        both.words.AddRange(words);
        both.describing.UnionWith(describing);
        both.facets.AddRange(facets.Concat(note.facets).Distinct());
        if (both.FatShare is null && (Most ?? note.Most) is { } lean && both.words.Exists(Minced.Contains)) both.FatShare = 100 - lean;
        return both;
    }

    /// <summary>The value said on an axis, or null.</summary>
    public string? On(FacetAxis axis)
    {
        foreach (var facet in facets)
        {
            if (facet.Axis == axis) return facet.Value;
        }

        return null;
    }

    // "fat-free", "5 %", "93/7": words, percentages and shares, in lower case, without accents, in the singular.
    private static List<string> Tokens(string text)
    {
        var plain = FoodWords.WithoutAccents(text.ToLowerInvariant());
        var tokens = new List<string>();
        for (var at = 0; at < plain.Length;)
        {
            var from = at;
            if (char.IsAsciiDigit(plain[at]))
            {
                while (IsDigit(plain, at) || (at < plain.Length && plain[at] is '.' or ',' or '/' && IsDigit(plain, at + 1))) at++;
                var number = plain[from..at].Replace(',', '.');
                var sign = at;
                while (sign < plain.Length && plain[sign] == ' ') sign++;
                if (sign < plain.Length && plain[sign] == '%') (number, at) = (number + "%", sign + 1);
                tokens.Add(number);
            }
            else if (char.IsLetter(plain[at]))
            {
                while (at < plain.Length && (char.IsLetter(plain[at]) || plain[at] is '\'' or '’')) at++;
                var word = plain[from..at].Replace("'s", "", StringComparison.Ordinal).Replace("’s", "", StringComparison.Ordinal);
                word = FoodWords.Singular(word.Trim('\'', '’'));
                if (word.Length > 0) tokens.Add(word);
            }
            else
            {
                at++;
            }
        }

        return tokens;
    }

    private static bool IsDigit(string text, int at) => at < text.Length && char.IsAsciiDigit(text[at]);

    private void Take(List<string> tokens)
    {
        for (var at = 0; at < tokens.Count;)
        {
            var taken = Number(tokens, at);
            if (taken == 0) taken = Row(tokens, at);
            at += taken;
        }
    }

    // How many tokens a share takes: "5 % fat", "95 % lean", "98 % fat-free", "93/7", "50 % less fat", "85 % cocoa".
    private int Number(List<string> tokens, int at)
    {
        var token = tokens[at];
        string Next(int by) => at + by < tokens.Count ? tokens[at + by] : "";
        if (token.IndexOf('/', StringComparison.Ordinal) is > 0 and var slash)
        {
            var (lean, fat) = (Value(token[..slash]), Value(token[(slash + 1)..].TrimEnd('%')));
            if (lean + fat != 100 || lean < MostFat) return 0;
            FatShare = fat;
            return Next(1) is "lean" ? 2 : 1;
        }

        if (!token.EndsWith('%') || Value(token[..^1]) is not (>= 0 and <= 100 and var share)) return 0;
        switch (Next(1), Next(2))
        {
            case ("fat", "free"):
                FatShare = 100 - share;
                return 3;
            case ("reduced" or "less" or "lower", "fat"):
                facets.Add(new(FacetAxis.Fat, "light"));
                return 3;
            case ("lean", _):
                FatShare = 100 - share;
                return 2;
            case ("extra", "lean"):
                FatShare = 100 - share;
                return 3;
            case ("fat", _) or ("milkfat", _):
                FatShare = share;
                return 2;
            case ("milk", "fat"):
                FatShare = share;
                return 3;
            case ("cocoa" or "cacao", _):
                Add(token);
                return 2;
            case var _ when share == 100:
                describing.Add(token);
                return 1;
            case var _ when share > MostFat:
                Most = share;
                Add(token);
                return 1;
            default:
                if (words is [.., "fat"]) words.RemoveAt(words.Count - 1);
                FatShare = share;
                return 1;
        }
    }

    private static decimal Value(string number) => decimal.TryParse(number, CultureInfo.InvariantCulture, out var value) ? value : -1;

    // The longest row of words that means something together, else the one word.
    private int Row(List<string> tokens, int at)
    {
        var most = FacetWords.IsBeginning(tokens[at]) ? Math.Min(FacetWords.Longest, tokens.Count - at) : 1;
        for (var many = most; many > 0; many--)
        {
            var row = many == 1 ? tokens[at] : string.Join(' ', tokens.Skip(at).Take(many));
            if (FacetWords.IsName(row))
            {
                foreach (var word in tokens.Skip(at).Take(many)) AddOrMean(word);
                return many;
            }

            if (FacetWords.MeantBy(row) is { } meant)
            {
                foreach (var word in meant) One(word);
                return many;
            }

            if (many > 1 && FacetWords.FacetOf(row) is null && !FacetWords.IsDescribing(row)) continue;
            One(row);
            return many;
        }

        return 1;
    }

    private void One(string row)
    {
        if (FacetWords.FacetOf(row) is { } facet)
        {
            facets.Add(facet);
            if (row is "whole milk") describing.Add("milk");
        }
        else if (FacetWords.IsDescribing(row))
        {
            describing.Add(row);
        }
        else if (!FacetWords.IsStopping(row))
        {
            Add(row);
        }
    }

    private void AddOrMean(string word)
    {
        foreach (var one in FacetWords.MeantBy(word) ?? [word])
        {
            if (!FacetWords.IsStopping(one)) Add(one);
        }
    }

    private void Add(string word)
    {
        if (!words.Contains(word, StringComparer.Ordinal)) words.Add(word);
    }

    // "Minced beef" is minced as beef is, "minced garlic" is garlic; "whole milk" alone is milk, "ricotta, whole milk" is not.
    private void Settle()
    {
        if (describing.Remove("milk") && words.Count == 0) Name("milk");
        var isGround = describing.Contains("minced") || describing.Contains("ground");
        if (isGround && (words.Exists(Minced.Contains) || (words.Count == 0 && describing.Contains("minced"))))
        {
            describing.Remove("minced");
            describing.Remove("ground");
            Add("minced");
            if (Head.Length == 0) Head = words[0];
        }
    }

    // Where nothing else names a food, all that its name says does: "raw", "low-fat spread".
    private void NameAll(List<string> all)
    {
        foreach (var word in all.Where(word => !FacetWords.IsStopping(word))) Name(word);
    }

    private void Name(string word)
    {
        Add(word);
        Head = word;
    }
}
