using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Recipes.Steps;

/// <summary>A step as it is done: what its sentence says, and where the cook said otherwise, that.</summary>
/// <param name="Written">As the cook wrote it.</param>
/// <param name="Reading">What its sentence says.</param>
/// <param name="Way">How it is done.</param>
public sealed record StepToDo(RecipeStep Written, StepReading Reading, StepWay Way)
{
    /// <summary>Up to how many days before the dish is cooked it may be done; null where nobody says.</summary>
    public int? DaysAhead => Written.DaysAhead ?? Reading.DaysAhead;

    /// <summary>The steps of a recipe, in order.</summary>
    /// <param name="steps">As written; null for none.</param>
    public static IReadOnlyList<StepToDo> Of(IReadOnlyList<RecipeStep>? steps)
    {
        if (steps is not { Count: > 0 }) return [];
        var readings = StepReader.Read([.. steps.Select(step => step.Text ?? "")]);
        return [.. steps.Zip(readings, (step, reading) => new StepToDo(step, reading, Said(step, reading.Way)))];
    }

    // "Bake, cool, cut into 20", of which 8 minutes are said to be hands-on: they are the cutting's.
    private static StepWay Said(RecipeStep step, StepWay read)
    {
        var parts = read.Parts.ToList();
        if (step.HandsOn is { } hands) Spread(parts, hands, isHandsOn: true);
        if (step.Unattended is { } waits) Spread(parts, waits, isHandsOn: false);
        if (step.Occupies is { } uses) Place(parts, uses);
        if (step.TemperatureC is { } celsius && parts.Count > 0)
        {
            var warm = parts.FindLastIndex(part => part.Celsius is not null || part.Uses.Contains(Occupies.Oven));
            if (warm < 0) warm = parts.FindLastIndex(part => !part.IsHandsOn);
            if (warm < 0) warm = parts.Count - 1;
            parts[warm] = parts[warm] with { Celsius = celsius };
        }

        return new(parts);
    }

    // The minutes said, shared by the parts of that kind as the sentence has them; none of that kind, and there is one now.
    private static void Spread(List<StepPart> parts, int minutes, bool isHandsOn)
    {
        var own = parts.Select((part, at) => (part, at)).Where(pair => pair.part.IsHandsOn == isHandsOn).ToList();
        if (minutes == 0)
        {
            parts.RemoveAll(part => part.IsHandsOn == isHandsOn);
            return;
        }

        // "Bake the pancakes, three at a time": 25 minutes by hand are the baking's, which a sentence alone would leave to itself.
        var stoodBy = isHandsOn && own.Count == 0 ? parts.FindIndex(part => part.IsAbout && part.Uses.Count > 0) : -1;
        if (stoodBy >= 0)
        {
            parts[stoodBy] = parts[stoodBy] with { Minutes = minutes, IsHandsOn = true, IsAbout = false };
            return;
        }

        if (own.Count == 0)
        {
            var verb = isHandsOn ? StepVerbs.Mix : StepVerbs.Rest;
            parts.Insert(isHandsOn ? 0 : parts.Count, new(verb.Name, minutes, isHandsOn, false, null, [], Grows.WithTheBatch));
            return;
        }

        var before = Math.Max(1, own.Sum(pair => pair.part.Minutes));
        var (reached, given) = (0, 0);
        foreach (var (part, at) in own)
        {
            reached += part.Minutes;
            var upTo = (int)Rounding.ToStep((decimal)minutes * reached / before, 1);
            parts[at] = part with { Minutes = upTo - given, IsAbout = false };
            given = upTo;
        }

        parts.RemoveAll(part => part.IsHandsOn == isHandsOn && part.Minutes == 0);
    }

    // What it occupies stays where the sentence has it; what the sentence does not name goes with the longest wait, else the longest work.
    private static void Place(List<StepPart> parts, IReadOnlyList<Occupies> uses)
    {
        for (var i = 0; i < parts.Count; i++) parts[i] = parts[i] with { Uses = [.. parts[i].Uses.Where(uses.Contains)] };
        var more = uses.Except(parts.SelectMany(part => part.Uses)).ToList();
        if (more.Count == 0 || parts.Count == 0) return;
        var longest = parts.Index().OrderBy(pair => pair.Item.IsHandsOn).ThenByDescending(pair => pair.Item.Minutes).First().Index;
        parts[longest] = parts[longest] with { Uses = [.. parts[longest].Uses, .. more] };
    }
}
