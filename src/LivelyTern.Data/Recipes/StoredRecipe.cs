using LivelyTern.Core.Aim;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Recipes;
using LivelyTern.Data.Aim;

namespace LivelyTern.Data.Recipes;

#pragma warning disable CS1591 // Stored shapes mirror the core's records, where the units are documented.

/// <summary>A pan as it is kept.</summary>
public sealed record StoredPan(int V, PanShape Shape, decimal LengthCm, decimal? WidthCm)
{
    public static StoredPan Of(Pan pan)
    {
        ArgumentNullException.ThrowIfNull(pan);
        return new(1, pan.Shape, pan.LengthCm, pan.WidthCm);
    }

    public Pan ToPan() => new(Shape, LengthCm, WidthCm);
}

/// <summary>A step as it is kept.</summary>
public sealed record StoredStep(
    string Text, int? HandsOn, int? Unattended, IReadOnlyList<Occupies>? Occupies, int? TemperatureC, string? DoneWhen,
    int? DaysAhead = null)
{
    /// <summary>Before this shape a step that said nothing was kept as taking no minutes and occupying nothing.</summary>
    public const int SaysNothingAsNull = 2;

    public static StoredStep Of(RecipeStep step)
    {
        ArgumentNullException.ThrowIfNull(step);
        return new(step.Text, step.HandsOn, step.Unattended, step.Occupies, step.TemperatureC, step.DoneWhen, step.DaysAhead);
    }

    public RecipeStep ToStep(int shape)
    {
        if (shape >= SaysNothingAsNull) return new(Text, HandsOn, Unattended, Occupies, TemperatureC, DoneWhen, DaysAhead);
        var isUnsaid = HandsOn is 0 && Unattended is 0;
        return new(
            Text, isUnsaid ? null : HandsOn, isUnsaid ? null : Unattended, Occupies is { Count: > 0 } uses ? uses : null, TemperatureC,
            DoneWhen);
    }
}

/// <summary>The steps of a recipe as they are kept.</summary>
public sealed record StoredSteps(int V, IReadOnlyList<StoredStep> Steps)
{
    public static StoredSteps Of(IReadOnlyList<RecipeStep> steps) =>
        new(StoredStep.SaysNothingAsNull, [.. steps.Select(StoredStep.Of)]);

    public IReadOnlyList<RecipeStep> ToSteps() => [.. Steps.Select(step => step.ToStep(V))];
}

/// <summary>A line as it is kept in a version or a variant.</summary>
public sealed record StoredLine(string Text, string? FoodId, RecipePart Part, bool IsTakenOut, string Key)
{
    public static StoredLine Of(WrittenLine line)
    {
        ArgumentNullException.ThrowIfNull(line);
        return new(line.Text, line.FoodId, line.Part, line.IsTakenOut, line.Key);
    }

    public WrittenLine ToLine() => new(Text, FoodId, Part, IsTakenOut, Key);
}

/// <summary>One difference of a variant as it is kept.</summary>
public sealed record StoredVariantChange(VariantKind Kind, string Key, StoredLine? Line, string? After);

/// <summary>What a variant changes, as it is kept.</summary>
public sealed record StoredVariant(int V, IReadOnlyList<StoredVariantChange> Changes)
{
    public static StoredVariant Of(IReadOnlyList<VariantChange> changes) => new(1, [.. changes.Select(Of)]);

    private static StoredVariantChange Of(VariantChange change) =>
        new(change.Kind, change.Key, change.Line is { } line ? StoredLine.Of(line) : null, change.After);

    public IReadOnlyList<VariantChange> ToChanges() =>
        [.. Changes.Select(one => new VariantChange(one.Kind, one.Key, one.Line?.ToLine(), one.After))];
}

/// <summary>What a recipe makes, as it is kept in a version.</summary>
public sealed record StoredYield(
    int Portions, int? Pieces, decimal? CookedGrams, decimal? VolumeMl, StoredPan? Pan, bool MayHalve = false,
    bool IsPutTogether = false);

/// <summary>A whole recipe as it is kept in a version.</summary>
public sealed record StoredRecipe(int V, string Name, IReadOnlyList<StoredLine> Lines, StoredYield Yield, IReadOnlyList<StoredStep> Steps)
{
    public static StoredRecipe Of(WrittenRecipe recipe)
    {
        ArgumentNullException.ThrowIfNull(recipe);
        var made = recipe.Yield;
        var pan = made.Pan is { } own ? StoredPan.Of(own) : null;
        return new(
            StoredStep.SaysNothingAsNull, recipe.Name, [.. recipe.Lines.Select(StoredLine.Of)],
            new(made.Portions, made.Pieces, made.CookedGrams, made.VolumeMl, pan, made.MayHalve, made.IsPutTogether),
            [.. (recipe.Steps ?? []).Select(StoredStep.Of)]);
    }

    public WrittenRecipe ToRecipe() => new(
        Name, [.. Lines.Select(line => line.ToLine())],
        new(Yield.Portions, Yield.Pieces, Yield.CookedGrams, Yield.VolumeMl, Yield.Pan?.ToPan(), Yield.MayHalve,
            Yield.IsPutTogether),
        Steps.Count == 0 ? null : [.. Steps.Select(step => step.ToStep(V))]);
}

/// <summary>What a portion of a version held, measure by measure.</summary>
public sealed record StoredPortionTotals(int V, IReadOnlyDictionary<Measure, StoredTotal> Totals)
{
    public static StoredPortionTotals Of(IReadOnlyDictionary<Measure, Total> totals) => new(1, StoredTotal.Of(totals));

    public IReadOnlyDictionary<Measure, Total> ToTotals() => StoredTotal.Read(Totals);
}
