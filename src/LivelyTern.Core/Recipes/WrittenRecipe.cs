using LivelyTern.Core.Measures;
using LivelyTern.Core.Recipes.Steps;

namespace LivelyTern.Core.Recipes;

/// <summary>What a line of a recipe is for.</summary>
public enum RecipePart
{
    /// <summary>The dish itself.</summary>
    Main,

    /// <summary>Its sauce.</summary>
    Sauce,

    /// <summary>Added at eating.</summary>
    Topping,

    /// <summary>Served beside it.</summary>
    Side,
}

/// <summary>A line as the cook wrote it.</summary>
/// <param name="Text">As typed: an amount of a food or of another recipe.</param>
/// <param name="FoodId">What the cook chose for it, a food's id or a recipe's (<see cref="RecipeBook.IdOf"/>); null where its words say
/// enough.</param>
/// <param name="Part">What it is for.</param>
/// <param name="IsTakenOut">Whether it is taken out again: fat poured off, trimmings, marinade thrown away.</param>
/// <param name="Key">Names the line through later versions and in variants.</param>
public sealed record WrittenLine(
    string Text, string? FoodId = null, RecipePart Part = RecipePart.Main, bool IsTakenOut = false, string Key = "")
{
    /// <summary>Whether it is taken out again, because it was marked so or because it says so: "60 g fat poured off".</summary>
    public bool IsOut => IsTakenOut || TakenOut.Said(Text) is not null;
}

/// <summary>What a step needs for itself while it lasts.</summary>
public enum Occupies
{
    /// <summary>The oven, at the step's temperature.</summary>
    Oven,

    /// <summary>A ring of the stove.</summary>
    Ring,

    /// <summary>The slow cooker.</summary>
    SlowCooker,

    /// <summary>The pressure cooker.</summary>
    PressureCooker,

    /// <summary>The microwave.</summary>
    Microwave,

    /// <summary>The air fryer.</summary>
    AirFryer,

    /// <summary>The waffle iron.</summary>
    WaffleIron,

    /// <summary>The blender.</summary>
    Blender,

    /// <summary>A baking tray.</summary>
    Tray,

    /// <summary>A board.</summary>
    Board,

    /// <summary>Room in the fridge, to chill.</summary>
    Fridge,
}

/// <summary>A step of the work. What the cook leaves out is what its sentence says (<see cref="Steps.StepReader"/>).</summary>
/// <param name="Text">What to do.</param>
/// <param name="HandsOn">Minutes with both hands, 0 for none; null as the sentence says.</param>
/// <param name="Unattended">Minutes that pass by themselves, 0 for none; null as the sentence says.</param>
/// <param name="Occupies">What it needs for itself; null as the sentence says.</param>
/// <param name="TemperatureC">Degrees Celsius of the oven or the like; null as the sentence says.</param>
/// <param name="DoneWhen">How to see that it is done.</param>
/// <param name="DaysAhead">Up to how many days before the dish is cooked it may be done; 0 for never before; null as the sentence
/// says.</param>
public sealed record RecipeStep(
    string Text, int? HandsOn = null, int? Unattended = null, IReadOnlyList<Occupies>? Occupies = null, int? TemperatureC = null,
    string? DoneWhen = null, int? DaysAhead = null);

/// <summary>The shape of a pan.</summary>
public enum PanShape
{
    /// <summary>Length by width.</summary>
    Rectangular,

    /// <summary>A diameter.</summary>
    Round,
}

/// <summary>A pan, by the floor it offers.</summary>
/// <param name="Shape">Its shape.</param>
/// <param name="LengthCm">Length or diameter, in centimetres.</param>
/// <param name="WidthCm">Width in centimetres; none for a round one.</param>
public sealed record Pan(PanShape Shape, decimal LengthCm, decimal? WidthCm = null)
{
    /// <summary>Square centimetres: 30 x 20 cm are 600, a round 20 cm is 314.</summary>
    public decimal AreaCm2 => Shape == PanShape.Round ? LengthCm * LengthCm * (decimal)Math.PI / 4m : LengthCm * (WidthCm ?? LengthCm);

    /// <summary>What is wrong with its size.</summary>
    /// <param name="field">The field to name.</param>
    public IEnumerable<Problem> Problems(string field)
    {
        if (LengthCm is not (> 0 and <= 200) || WidthCm is <= 0 or > 200)
            yield return new("pan-size", field, "A pan measures more than 0 and at most 200 cm each way.");
    }
}

/// <summary>What a recipe makes.</summary>
/// <param name="Portions">Portions; at least 1.</param>
/// <param name="Pieces">Pieces, where it makes pieces.</param>
/// <param name="CookedGrams">What the finished batch weighs, where it was weighed.</param>
/// <param name="VolumeMl">What it fills, in millilitres.</param>
/// <param name="Pan">The pan it is made in.</param>
/// <param name="MayHalve">Whether a piece may be cut in two: a portion is then also half a piece, or one and a half.</param>
/// <param name="IsPutTogether">Whether it is put together from other recipes and plain foods, which are cooked apart: its lines are then
/// what one box gets, by the cooked weight of each.</param>
public sealed record RecipeYield(
    int Portions, int? Pieces = null, decimal? CookedGrams = null, decimal? VolumeMl = null, Pan? Pan = null, bool MayHalve = false,
    bool IsPutTogether = false)
{
    /// <summary>The boxes that a put-together dish is planned for where nobody says how many.</summary>
    public const int UsualBoxes = 6;

    /// <summary>The portions a batch of it is planned for where nobody says how many.</summary>
    public int UsualPortions => IsPutTogether ? UsualBoxes : Portions;

    /// <summary>The most portions a batch is cut into.</summary>
    public const int MostPortions = 1000;

    /// <summary>What is wrong with it, field by field.</summary>
    public IEnumerable<Problem> Problems()
    {
        if (Portions < 1) yield return new("portions-none", "portions", "A batch makes at least one portion.");
        if (Portions > MostPortions)
            yield return new("portions-absurd", "portions", $"More than {MostPortions} portions can't be meant: check the number.");
        if (Pieces is < 1 or > 10_000) yield return new("pieces-absurd", "pieces", "Pieces are a whole number from 1 to 10,000.");
        if (CookedGrams is <= 0 or > 100_000m)
            yield return new("cooked-weight", "cookedGrams", "A finished batch weighs more than 0 g and at most 100 kg.");
        if (IsPutTogether && (Portions != 1 || Pieces is not null || CookedGrams is not null))
            yield return new("put-together-box", "portions", "A put-together dish is written for one box and weighs what goes into it.");
        if (VolumeMl is <= 0 or > 100_000m)
            yield return new("volume", "fills", "Say what it fills like 8 cups, 2 l or 900 ml; at most 100 l.");
        foreach (var problem in Pan?.Problems("pan") ?? []) yield return problem;
    }
}

/// <summary>A recipe as the cook wrote it down.</summary>
/// <param name="Name">What the cook calls it.</param>
/// <param name="Lines">Its lines.</param>
/// <param name="Yield">What it makes.</param>
/// <param name="Steps">How it is made.</param>
public sealed record WrittenRecipe(
    string Name, IReadOnlyList<WrittenLine> Lines, RecipeYield Yield, IReadOnlyList<RecipeStep>? Steps = null)
{
    /// <summary>The most lines a recipe holds.</summary>
    public const int MostLines = 200;

    /// <summary>The longest line.</summary>
    public const int LongestLine = 300;

    /// <summary>Why a line is too long to be read; null where it is not.</summary>
    public static Problem? ProblemOfLine(string line)
    {
        ArgumentNullException.ThrowIfNull(line);
        return line.Length > LongestLine ? new("line-long", "text", $"A line holds up to {LongestLine} letters.") : null;
    }

    /// <summary>The most steps.</summary>
    public const int MostSteps = 100;

    /// <summary>The steps as they are done.</summary>
    public IReadOnlyList<StepToDo> ToDo => StepToDo.Of(Steps);

    private const int LongestStep = 2000;
    private const int MostMinutes = 10_080;

    /// <summary>The most days before a dish that a step of it may be done.</summary>
    public const int MostDaysAhead = 7;

    /// <summary>What is wrong with it, field by field, but for its name.</summary>
    public IEnumerable<Problem> Problems()
    {
        foreach (var problem in LineProblems(Lines).Concat(Yield.Problems()).Concat(StepProblems(Steps ?? []))) yield return problem;
    }

    /// <summary>What is wrong with steps, step by step.</summary>
    public static IEnumerable<Problem> StepProblems(IReadOnlyList<RecipeStep> steps)
    {
        ArgumentNullException.ThrowIfNull(steps);
        if (steps.Count > MostSteps) yield return new("steps-many", "steps", $"A recipe holds up to {MostSteps} steps.");
        for (var i = 0; i < Math.Min(steps.Count, MostSteps); i++)
        {
            var step = steps[i];
            if (step.Text is not { Length: <= LongestStep } || step.DoneWhen is { Length: > LongestStep })
                yield return new("step-long", $"steps[{i}].text", $"A step holds up to {LongestStep} letters.");
            if (step.HandsOn is < 0 or > MostMinutes || step.Unattended is < 0 or > MostMinutes)
                yield return new("step-minutes", $"steps[{i}].handsOn", "A step takes between no minutes and a week.");
            if (step.DaysAhead is < 0 or > MostDaysAhead)
                yield return new("step-ahead", $"steps[{i}].daysAhead", $"A step is done up to {MostDaysAhead} days ahead.");
            if (step.TemperatureC is < -40 or > 500)
                yield return new("step-temperature", $"steps[{i}].temperatureC", "A temperature between −40 and 500 °C.");
        }
    }

    /// <summary>What is wrong with lines that are only to be read.</summary>
    public static IEnumerable<Problem> LineProblems(IReadOnlyList<WrittenLine>? lines)
    {
        if (lines is null)
        {
            yield return new("lines-missing", "lines", "Give the recipe's lines, one text each.");
            yield break;
        }

        if (lines.Count > MostLines) yield return new("lines-many", "lines", $"A recipe holds up to {MostLines} lines.");
        for (var i = 0; i < Math.Min(lines.Count, MostLines); i++)
        {
            if (lines[i].Text is not { Length: <= LongestLine })
                yield return new("line-long", $"lines[{i}]", $"A line holds up to {LongestLine} letters.");
        }
    }
}
