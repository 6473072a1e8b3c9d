using System.Globalization;
using LivelyTern.Core.Aim;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Keep;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using LivelyTern.Core.Recipes;

namespace LivelyTern.Core.Plan.Labels;

/// <summary>What a line of a label is about; the earlier it stands here, the later it is left out where the label is too small.</summary>
public enum LabelPart
{
    /// <summary>What is in it that somebody may not eat. Never left out.</summary>
    Contains,

    /// <summary>Who must never get it. Never left out.</summary>
    NotFor,

    /// <summary>Until when, and what to do before. Never left out.</summary>
    Dates,

    /// <summary>The dish. Never left out, but cut short.</summary>
    Dish,

    /// <summary>How much, and what that is. Never left out.</summary>
    Amount,

    /// <summary>Whose it is, and for which day.</summary>
    Whose,

    /// <summary>What is added when it is eaten.</summary>
    AtEating,

    /// <summary>How it is heated.</summary>
    Heating,

    /// <summary>When it was cooked.</summary>
    Cooked,

    /// <summary>What was put in, part by part.</summary>
    PutIn,
}

/// <summary>A line of a label.</summary>
/// <param name="Part">What it is about.</param>
/// <param name="Text">What it says.</param>
public sealed record LabelLine(LabelPart Part, string Text);

/// <summary>What stands on the label of a box, or of one that is still to be filled.</summary>
/// <param name="Box">The box, with what it holds or is to hold.</param>
/// <param name="Code">Its code.</param>
/// <param name="UseBy">Its last days.</param>
/// <param name="Today">The day it is printed.</param>
public sealed record BoxLabel(Box Box, BoxCode Code, UseBy UseBy, DateOnly Today)
{
    /// <summary>Whether it is still to be filled: then its weight, and what that is, are about.</summary>
    public bool IsAhead { get; init; }

    /// <summary>Whose it is; null where that is nobody's yet.</summary>
    public string? Eater { get; init; }

    /// <summary>For which of their days; null where it lies on none.</summary>
    public DateOnly? Day { get; init; }

    /// <summary>Whether it is for guests on that day.</summary>
    public bool IsForGuests { get; init; }

    /// <summary>Energy, then the measure its eater's day is laid along.</summary>
    public IReadOnlyList<KeyValuePair<Measure, Total>> Figures { get; init; } = [];

    /// <summary>The eaters who must never get it.</summary>
    public IReadOnlyList<string> NotFor { get; init; } = [];

    /// <summary>What the cook wrote for the dish.</summary>
    public BoxNotes Notes { get; init; } = BoxNotes.None;

    /// <summary>How its tape looks.</summary>
    public TapeMark Mark => Box.Batch.Mark;

    /// <summary>The dish.</summary>
    public string Dish => Box.Batch.RecipeName;

    /// <summary>Its lines, from the top.</summary>
    public IReadOnlyList<LabelLine> Lines
    {
        get
        {
            (LabelPart Part, string? Text)[] all =
            [
                (LabelPart.Dish, Dish), (LabelPart.Whose, Whose), (LabelPart.Amount, Amount), (LabelPart.Dates, Dates),
                (LabelPart.Contains, Contains), (LabelPart.NotFor, NotFor.Count > 0 ? "Not for " + string.Join(", ", NotFor) : null),
                (LabelPart.Heating, Notes.Heating is { } heating ? "Heat: " + heating : null),
                (LabelPart.AtEating, AtEating is { Length: > 0 } added ? "Add at eating: " + added : null),
                (LabelPart.PutIn, PutIn is { Length: > 0 } parts ? parts : null),
                (LabelPart.Cooked, (Box.Batch.IsPlanned ? "To be made " : "Cooked ") + Together(Said(Box.Batch.EatenFrom(Today)))),
            ];
            return [.. all.Where(line => line.Text is not null).Select(line => new LabelLine(line.Part, line.Text!))];
        }
    }

    private string AtEating => string.Join(", ", PartsSaid(isBeside: true).Concat(Notes.AtEating is { } own ? [own] : []));

    private string PutIn => string.Join(" · ", PartsSaid(isBeside: false));

    // "40 g Gravy (cup)"; a pinch is not said.
    private IEnumerable<string> PartsSaid(bool isBeside)
    {
        string Said(BoxPart part) => Together(Number(Rounding.ToStep(part.Weight.Value, 1)) + " g") + " " + part.Name;
        return Box.Main.PutIn
            .Where(part => part.Weight.Value >= 0.5m)
            .Where(part => isBeside == string.Equals(part.Compartment, BatchShare.Beside, StringComparison.Ordinal))
            .Select(part => part.Compartment is { } where && !isBeside ? $"{Said(part)} ({where})" : Said(part));
    }

    private string? Whose => (Eater, Day) switch
    {
        (null, _) => null,
        ({ } name, null) => name,
        ({ } name, { } day) => (IsForGuests ? "Guests of " : "") + name + ", " + Together(Said(day)),
    };

    private string Amount
    {
        get
        {
            var about = IsAhead || Box.EyeSpread is not null ? "about " : "";
            var said = new List<string> { about + Number(Rounding.ToStep(Box.Weight.Value, IsAhead ? 1 : 0.1m)) + " g" };
            if (Box.Pieces is { } count) said.Add(Number(count) + (count == 1 ? " piece" : " pieces"));
            if (Box.Batch.SaidVolumeOf(Box.Weight) is { } volume) said.Add(volume);
            said.AddRange(Figures.Select(figure => FigureSaid(figure.Key, figure.Value)));
            return string.Join(" · ", said.Select(one => Together(one)));
        }
    }

    private string? Contains
    {
        get
        {
            var contents = Box.Contents;
            var named = string.Join(", ", contents.Allergens.Select(Never.Word));
            return (named.Length > 0, contents.KnowsAllergens) switch
            {
                (true, true) => "Contains " + named,
                (true, false) => $"Contains {named}; more is not known",
                (false, false) => "Its allergens are not all known",
                _ => null,
            };
        }
    }

    // What is for a day after its last in the fridge is frozen at once, out of the freezer the day before, and eaten within a day.
    private string Dates
    {
        get
        {
            if (UseBy.IsOver(Today)) return "Past its last day, " + Together(Said(UseBy.Last));
            var laid = Day is { } day ? new BoxLaid(new(Guid.Empty, day), Guid.Empty) : null;
            var kept = new KeptBox(Box, UseBy, laid);
            if (KeepingTasks.MustBeFrozen(kept))
            {
                var cooked = Box.Batch.EatenFrom(Today);
                var (freeze, thaw) = (cooked > Today ? cooked : Today, Day!.Value.AddDays(-1));
                return Together("Freeze", Said(freeze)) + (thaw > freeze ? " · " + Together("Thaw", Said(thaw)) : "");
            }

            var useBy = Together("Use by", UseBy.IsFrozen ? SaidYear(UseBy.Last) : Said(UseBy.Last));
            if (!kept.IsInFreezer) return useBy;
            var frozen = Together(IsAhead ? "Freeze" : "Frozen", Said(Box.Life.FrozenOn ?? Today));
            if (Day is { } eaten && eaten > Today) frozen += " · " + Together("Thaw", Said(eaten.AddDays(-1)));
            return $"{frozen} · {useBy}";
        }
    }

    private static string FigureSaid(Measure measure, Total total)
    {
        var mark = total.Certainty switch
        {
            Certainty.Exact => "",
            Certainty.AtLeast => "at least ",
            Certainty.AtMost => "at most ",
            _ => "about ",
        };
        var known = total.Known;
        if (known == 0 && total.Certainty == Certainty.AtLeast) return "? " + Unit(measure, 0);
        return mark + Number(Decimals(measure, known)) + " " + Unit(measure, known);
    }

    // Words that stay in one row: a number and its unit, a date.
    private static string Together(params string[] words) => string.Join(' ', words).Replace(' ', NoBreak);

    private const char NoBreak = '\u00a0';

    private static decimal Decimals(Measure measure, decimal value) => measure == Measure.Energy ? Rounding.ToStep(value, 1)
        : measure == Measure.Points ? value : Rounding.ToStep(value, 0.1m);

    private static string Unit(Measure measure, decimal value) => measure switch
    {
        Measure.Energy => "kcal",
        Measure.Points => value == 1 ? "point" : "points",
        Measure.Carbohydrate => "g carbs",
        Measure.NetCarbohydrate => "g net carbs",
        Measure.SaturatedFat => "g saturated fat",
        _ => "g " + measure.ToString().ToLowerInvariant(),
    };

    private static string Number(decimal value) => value.ToString("#,0.##", CultureInfo.InvariantCulture);

    private static string Said(DateOnly day) => day.ToString("ddd d MMM", CultureInfo.InvariantCulture);

    private static string SaidYear(DateOnly day) => day.ToString("d MMM yyyy", CultureInfo.InvariantCulture);
}
