using LivelyTern.Core.Aim;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Plan.Fit;

/// <summary>A span of days to be filled with boxes and fillers so that every day lies in its bands.</summary>
/// <param name="Start">The first day.</param>
/// <param name="Eaters">Who eats, each with the same number of days.</param>
/// <param name="Batches">What was cooked, or will be.</param>
/// <param name="Fillers">What may fill the gaps.</param>
/// <param name="Wishes">What counts how much where not everything can be had.</param>
public sealed record FitProblem(
    DateOnly Start, IReadOnlyList<FitEater> Eaters, IReadOnlyList<FitBatch> Batches, IReadOnlyList<FitFiller> Fillers, FitWishes Wishes)
{
    /// <summary>The longest span, in days.</summary>
    public const int MostDays = 14;

    /// <summary>The most eaters of one problem.</summary>
    public const int MostEaters = 12;

    /// <summary>The most batches of one problem.</summary>
    public const int MostBatches = 60;

    /// <summary>The most fillers of one problem.</summary>
    public const int MostFillers = 200;

    /// <summary>How many days the span has.</summary>
    public int DayCount => Eaters.Count == 0 ? 0 : Eaters[0].Days.Count;

    /// <summary>
    /// What is wrong with the problem itself, field by field. A week that cannot be filled well is no problem of this kind.
    /// </summary>
    public IEnumerable<Problem> Problems()
    {
        if (Eaters.Count is 0 or > MostEaters)
            yield return new("fit-eaters", "eaters", $"Fit between 1 and {MostEaters} eaters at a time.");
        if (Batches.Count > MostBatches) yield return new("fit-batches", "batches", $"Fit up to {MostBatches} batches at a time.");
        if (Fillers.Count > MostFillers) yield return new("fit-fillers", "fillers", $"Fit up to {MostFillers} fillers at a time.");
        foreach (var problem in Wishes.Problems()) yield return problem;
        foreach (var (eater, i) in Eaters.Select((eater, i) => (eater, i)))
        {
            var at = $"eaters[{i}]";
            if (eater.Days.Count is 0 or > MostDays)
                yield return new("fit-days", $"{at}.days", $"{eater.Name} needs between 1 and {MostDays} days.");
            else if (eater.Days.Count != DayCount)
                yield return new(
                    "fit-days-differ", $"{at}.days", "Every eater needs the same number of days; close those that are not to be filled.");
            if (eater.BoxesAlike is < 0 or > 99)
                yield return new("fit-alike", $"{at}.boxesAlike", "Boxes of one batch that are welcome lie between 0 and 99.");
            foreach (var problem in eater.Days.SelectMany((day, d) => day.Problems($"{at}.days[{d}]"))) yield return problem;
        }

        foreach (var problem in Batches.SelectMany((batch, i) => batch.Problems($"batches[{i}]", DayCount))) yield return problem;
        foreach (var problem in Fillers.SelectMany((filler, i) => filler.Problems($"fillers[{i}]"))) yield return problem;
        var names = Eaters.Select(eater => eater.Id).ToList();
        if (names.Distinct(StringComparer.Ordinal).Count() != names.Count)
            yield return new("fit-ids", "eaters", "Two eaters have the same id.");
    }
}

/// <summary>One eater of a fit.</summary>
/// <param name="Id">Names them in batches and fillers.</param>
/// <param name="Name">As the others call them.</param>
/// <param name="Leading">The measure whose target is kept closest.</param>
/// <param name="Days">Their days, in order.</param>
/// <param name="BoxesAlike">How many boxes of one dish they like in the span before it is the same again; many where that is
/// fine.</param>
public sealed record FitEater(string Id, string Name, Measure Leading, IReadOnlyList<FitDay> Days, int BoxesAlike = 99);

/// <summary>One eater's one day to be filled.</summary>
/// <param name="Bands">What the day may hold.</param>
/// <param name="Fixed">What lies on it already and stays: eaten, locked, an event.</param>
/// <param name="MostBoxes">How many boxes may be added; 0 closes the day to boxes.</param>
/// <param name="MostServings">How many servings of fillers may be added; 0 closes it to them.</param>
public sealed record FitDay(
    IReadOnlyDictionary<Measure, Band> Bands, IReadOnlyDictionary<Measure, decimal>? Fixed = null, int MostBoxes = 3, int MostServings = 6)
{
    /// <summary>
    /// The bands that the day is read by, where those that are aimed at are narrower so that rounding never leads out of them; null where
    /// they are the same.
    /// </summary>
    public IReadOnlyDictionary<Measure, Band>? ReadBy { get; init; }

    /// <summary>The dishes that lie on it already and stay, if any: none of them is laid there again.</summary>
    public IReadOnlyList<string>? Dishes { get; init; }

    /// <summary>Servings that a day takes of an eater who wants as many as it takes.</summary>
    public const int ManyServings = 8;

    /// <summary>Whether something lies on it already: with that alone it may fit.</summary>
    public bool HasFixed { get; init; } = Fixed?.Values.Any(value => value != 0) == true;

    internal IEnumerable<Problem> Problems(string at)
    {
        foreach (var problem in Bands.SelectMany(band => band.Value.Problems($"{at}.bands.{band.Key}"))) yield return problem;
        if (MostBoxes is < 0 or > 20) yield return new("fit-boxes", $"{at}.mostBoxes", "A day takes between 0 and 20 boxes.");
        if (MostServings is < 0 or > 40)
            yield return new("fit-servings", $"{at}.mostServings", "A day takes between 0 and 40 servings of fillers.");
        if (Fixed?.Values.Any(value => Math.Abs(value) > 1_000_000m) == true)
            yield return new("figure-absurd", $"{at}.fixed", "A figure lies between 0 and a million.");
    }
}

/// <summary>A box size of a batch.</summary>
/// <param name="Grams">Cooked weight.</param>
/// <param name="Figures">What it holds, kcal and grams.</param>
/// <param name="Points">Its points for each eater by id, rounded as one entry.</param>
/// <param name="Boxes">How many boxes of it are packed; null where the batch is divided by the fit.</param>
/// <param name="ProteinFor">Its grams of protein for each eater, by id, who counts less of it than <paramref name="Figures"/> say: without
/// gelatin and collagen.</param>
public sealed record FitSize(
    decimal Grams, IReadOnlyDictionary<Measure, decimal> Figures, IReadOnlyDictionary<string, decimal>? Points = null, int? Boxes = null,
    IReadOnlyDictionary<string, decimal>? ProteinFor = null)
{
    /// <summary>What it counts for an eater: kcal, grams or points.</summary>
    public decimal For(string eater, Measure measure) => measure == Measure.Points
        ? Points?.GetValueOrDefault(eater) ?? 0
        : measure == Measure.Protein && ProteinFor?.TryGetValue(eater, out var protein) == true
            ? protein
            : Figures.GetValueOrDefault(measure);

    internal bool IsAbsurd => Figures.Values.Concat(ProteinFor?.Values ?? []).Any(value => Math.Abs(value) > 1_000_000m);
}

/// <summary>A batch, packed into boxes or still to be divided.</summary>
/// <param name="Id">Stable identity.</param>
/// <param name="Name">The dish.</param>
/// <param name="Sizes">The sizes a box of it can have. Divided by the fit, every box of one eater has one size.</param>
/// <param name="Grams">Cooked grams there are, or will be; null where its boxes are packed and counted.</param>
/// <param name="FirstDay">The first day it can be eaten, from 0.</param>
/// <param name="LastDay">The last day it may be eaten, by its use-by, in the freezer where it freezes.</param>
/// <param name="ExcludedFor">Eaters who must never get it: an absolute exclusion.</param>
/// <param name="DislikedBy">Eaters who would rather not.</param>
/// <param name="Dish">What it is a batch of: two batches of one dish are the same again. Null where its id says so.</param>
/// <param name="AmountIsOpen">Whether less of it can be cooked than <paramref name="Grams"/>: then what is not taken is not left
/// over.</param>
public sealed record FitBatch(
    string Id, string Name, IReadOnlyList<FitSize> Sizes, decimal? Grams, int FirstDay = 0, int LastDay = FitProblem.MostDays,
    IReadOnlyList<string>? ExcludedFor = null, IReadOnlyList<string>? DislikedBy = null, bool AmountIsOpen = false, string? Dish = null)
{
    /// <summary>Whether its boxes are already packed.</summary>
    public bool IsPacked => Grams is null;

    internal IEnumerable<Problem> Problems(string at, int days)
    {
        if (Sizes.Count is 0 or > 40) yield return new("fit-sizes", $"{at}.sizes", $"{Name} needs between 1 and 40 box sizes.");
        if (Sizes.Any(size => size.Grams is <= 0 or > 10_000m))
            yield return new("fit-size-absurd", $"{at}.sizes", $"A box of {Name} weighs more than 0 g and up to 10 kg.");
        if (Sizes.Any(size => size.IsAbsurd)) yield return new("figure-absurd", $"{at}.sizes", "A figure lies between 0 and a million.");
        if (Grams is < 0 or > 100_000m) yield return new("weight-absurd", $"{at}.grams", $"{Name} weighs between 0 g and 100 kg.");
        if (IsPacked && Sizes.Any(size => size.Boxes is null or < 0 or > 500))
            yield return new(
                "fit-boxes-missing", $"{at}.sizes",
                $"Say how many boxes of {Name} are packed in each size, or how many grams of it there are.");
        if (FirstDay > LastDay) yield return new("fit-keeps-no-day", $"{at}.lastDay", $"{Name} would have to be eaten before it is there.");
        if (FirstDay < 0 || FirstDay > Math.Max(days, FitProblem.MostDays))
            yield return new("fit-first-day", $"{at}.firstDay", $"{Name} is first eaten on one of the days.");
    }
}

/// <summary>A plain food that may fill a gap, in whole servings.</summary>
/// <param name="Id">Stable identity.</param>
/// <param name="Name">As printed, with its serving: "1 apple".</param>
/// <param name="Figures">What one serving holds, kcal and grams.</param>
/// <param name="Points">For each eater by id: the points of 1, 2, 3 ... servings as one entry.</param>
/// <param name="Most">The most servings a day.</param>
/// <param name="ExcludedFor">Eaters who must never get it.</param>
/// <param name="DislikedBy">Eaters who would rather not.</param>
/// <param name="ProteinFor">One serving's grams of protein for each eater, by id, who counts less of it than <paramref name="Figures"/>
/// say: without gelatin and collagen.</param>
public sealed record FitFiller(
    string Id, string Name, IReadOnlyDictionary<Measure, decimal> Figures,
    IReadOnlyDictionary<string, IReadOnlyList<decimal>>? Points = null, int Most = 2, IReadOnlyList<string>? ExcludedFor = null,
    IReadOnlyList<string>? DislikedBy = null, IReadOnlyDictionary<string, decimal>? ProteinFor = null)
{
    /// <summary>What so many servings of it, eaten as one entry, count for an eater: kcal, grams or points.</summary>
    public decimal For(string eater, Measure measure, int servings) => servings == 0 ? 0
        : measure == Measure.Points ? Points?.GetValueOrDefault(eater)?[servings - 1] ?? 0
        : measure == Measure.Protein && ProteinFor?.TryGetValue(eater, out var protein) == true
            ? protein * servings
            : Figures.GetValueOrDefault(measure) * servings;

    internal IEnumerable<Problem> Problems(string at)
    {
        if (Most is < 0 or > 10) yield return new("fit-most", $"{at}.most", $"Up to 10 servings of {Name} a day.");
        if (Figures.Values.Concat(ProteinFor?.Values ?? []).Any(value => Math.Abs(value) > 1_000_000m))
            yield return new("figure-absurd", $"{at}.figures", "A figure lies between 0 and a million.");
        if (Points?.Values.Any(values => values.Count < Most) == true)
            yield return new("fit-points", $"{at}.points", $"Give the points of 1 to {Most} servings of {Name}.");
    }
}

/// <summary>What counts how much where not everything can be had; each from 0, not at all, over 2, as usual, to 4, very much.</summary>
/// <param name="Closeness">Days close to their targets, not only inside the bands.</param>
/// <param name="LessWaste">Nothing left over of what was cooked.</param>
/// <param name="Variety">Not the same batch over and over.</param>
/// <param name="FewerFillers">Boxes rather than many small things.</param>
public sealed record FitWishes(int Closeness = 2, int LessWaste = 2, int Variety = 2, int FewerFillers = 2)
{
    /// <summary>What is wrong with them.</summary>
    public IEnumerable<Problem> Problems()
    {
        var all = new[]
        {
            (Closeness, "closeness"), (LessWaste, "lessWaste"), (Variety, "variety"), (FewerFillers, "fewerFillers"),
        };
        foreach (var (wish, name) in all)
        {
            if (wish is < 0 or > 4)
                yield return new("wish-absurd", $"wishes.{name}", "A wish lies between 0, not at all, and 4, very much.");
        }
    }
}
