using System.Globalization;
using System.Runtime.CompilerServices;
using System.Text.Json;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;

namespace LivelyTern.Formats.Foods;

/// <summary>
/// A download of FoodData Central as JSON (Foundation, SR Legacy, survey or branded foods): an object with one list of foods. Read food by
/// food. Format: FoodData Central, Download Field Descriptions (from memory).
/// </summary>
/// <param name="open">Opens the file at its start.</param>
/// <param name="length">Its bytes, for the progress.</param>
public sealed class FdcJson(Func<Stream> open, long length) : IFoodFile
{
    private const int MostMeasures = 20;

    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web);

    // The numbers FoodData Central prints beside its nutrients; 957 and 958 are energy by general and by specific factors.
    private static readonly Dictionary<string, Nutrient> Numbers = new(StringComparer.Ordinal)
    {
        ["208"] = Nutrient.Energy,
        ["203"] = Nutrient.Protein,
        ["204"] = Nutrient.Fat,
        ["606"] = Nutrient.SaturatedFat,
        ["205"] = Nutrient.Carbohydrate,
        ["269"] = Nutrient.Sugars,
        ["291"] = Nutrient.Fibre,
        ["307"] = Nutrient.Salt,
        ["299"] = Nutrient.Polyols,
        ["221"] = Nutrient.Alcohol,
    };

    /// <inheritdoc/>
    public string Kind => "FoodData Central, JSON";

    /// <inheritdoc/>
    public IEnumerable<ImportedRow> Rows(IProgress<double>? progress = null, CancellationToken stop = default)
    {
        using var counted = new Counted(open());
        using var list = new FirstList(counted);
        var foods = JsonSerializer.DeserializeAsyncEnumerable<FoodJson>(list, Json, stop).GetAsyncEnumerator(stop);
        var codes = new HashSet<long>();
        for (var row = 1L; ; row++)
        {
            FoodJson? food;
            try
            {
                // The stream is a file's or the memory's: nothing is waited for.
                if (!foods.MoveNextAsync().AsTask().GetAwaiter().GetResult()) break;
                food = foods.Current;
            }
            catch (JsonException error)
            {
                throw new UnreadableFileException($"The JSON breaks off at food {row}, or is not in FoodData Central's shape.", error);
            }

            TableLimits.MayHave(row);
            if (row % 100 == 0) progress?.Report(Math.Min(1, (double)counted.Taken / Math.Max(1, length)));
            if (food is null) yield return ImportedRow.Refuse(row, "it is empty");
            else if (!codes.Add(food.FdcId)) yield return ImportedRow.Refuse(row, $"fdcId {food.FdcId} is there twice");
            else yield return ImportedRow.Of(row, Read(food));
        }

        if (!list.WasFound) throw new UnreadableFileException("There is no list of foods in this JSON.");
    }

    private static ImportedFood Read(FoodJson food)
    {
        var values = new decimal?[Nutrients.All.Count];
        decimal? otherEnergy = null;
        foreach (var row in (food.FoodNutrients ?? []).OfType<NutrientRowJson>())
        {
            if (row.Nutrient?.Number is not { } number || row.Amount is not { } stated) continue;
            var amount = TableLimits.Figure(stated);
            if (number is "957" or "958") otherEnergy ??= amount;
            else if (Numbers.TryGetValue(number, out var nutrient) && !IsInKilojoules(nutrient, row.Nutrient.UnitName))
                values[(int)nutrient] = nutrient == Nutrient.Salt ? Label.SaltOf(amount) : amount;
        }

        values[0] ??= otherEnergy;
        var portions = (food.FoodPortions ?? []).OfType<PortionJson>().Select(portion => (Name: NameOf(portion), Grams: GramsOf(portion)));
        var named = portions.Where(one => one.Name.Length is > 0 and <= 30 && one.Grams is not null)
            .DistinctBy(one => one.Name, StringComparer.OrdinalIgnoreCase).Take(MostMeasures);
        var measures = string.Join(';', named.Select(one => $"{one.Name}={one.Grams}"));
        var gtin = food.GtinUpc is { } typed && Gtin.Read(typed) is { Succeeded: true } good ? good.Value : null;
        return new(
            food.FdcId.ToString(CultureInfo.InvariantCulture), (food.Description ?? "").Trim(),
            GroupWords.GroupOf(food.FoodCategory?.Description ?? food.BrandedFoodCategory), FoodCsv.OfValues(values),
            CarbohydrateConvention.Total, measures.Length > 0 ? measures : null, gtin);
    }

    private static bool IsInKilojoules(Nutrient nutrient, string? unit) =>
        nutrient == Nutrient.Energy && string.Equals(unit, "kJ", StringComparison.OrdinalIgnoreCase);

    // "cup, chopped" is a cup.
    private static string NameOf(PortionJson portion)
    {
        var name = portion.MeasureUnit?.Name is { } unit && unit is not "undetermined" ? unit : portion.Modifier ?? "";
        return name.Split([',', ';', '='], 2)[0].Trim();
    }

    private static string? GramsOf(PortionJson portion) =>
        TableLimits.Weight(portion.GramWeight ?? 0, portion.Amount is > 0 and var many ? many : 1m);

    private sealed record FoodJson(
        long FdcId, string? Description, CategoryJson? FoodCategory, string? BrandedFoodCategory, string? GtinUpc,
        List<NutrientRowJson?>? FoodNutrients, List<PortionJson?>? FoodPortions);

    private sealed record CategoryJson(string? Description);

    private sealed record NutrientRowJson(NutrientJson? Nutrient, decimal? Amount);

    private sealed record NutrientJson(string? Number, string? UnitName);

    private sealed record PortionJson(decimal? Amount, UnitJson? MeasureUnit, string? Modifier, decimal? GramWeight);

    private sealed record UnitJson(string? Name);

    /// <summary>The first list of a JSON text, and nothing before or after it.</summary>
    private sealed class FirstList(Stream inner) : ReadingStream
    {
        private int depth, braces, start, size;
        private bool isText, isEscaped, isOver;

        public bool WasFound { get; private set; }

        public override int Read(Span<byte> buffer)
        {
            while (!isOver)
            {
                var read = inner.Read(buffer);
                if (read == 0)
                {
                    isOver = true;
                    if (WasFound) return 0;

                    // An empty list for a text that has none.
                    "[]"u8.CopyTo(buffer);
                    return 2;
                }

                var kept = Keep(buffer[..read]);
                if (kept > 0) return kept;
            }

            return 0;
        }

        // Moves what is within the list to the front.
        private int Keep(Span<byte> bytes)
        {
            var kept = 0;
            foreach (var letter in bytes)
            {
                if (isOver) break;
                var within = depth > 0;
                if (isText)
                {
                    if (isEscaped) isEscaped = false;
                    else if (letter == '\\') isEscaped = true;
                    else if (letter == '"') isText = false;
                }
                else if (letter == '"') isText = true;
                else if (letter == '[')
                {
                    if (depth == 0) start = braces;
                    (depth, WasFound) = (depth + 1, true);
                }
                else if (letter == ']' && --depth == 0) isOver = true;
                else if (letter == '{') braces++;
                else if (letter == '}') braces--;
                else if (letter == ',' && depth == 1 && braces == start) size = 0;
                if (within && ++size > TableLimits.JsonBytes)
                    throw new UnreadableFileException($"One food of it takes more than {TableLimits.JsonBytes >> 20} MB: that is none.");
                if (within || depth > 0) bytes[kept++] = letter;
            }

            return kept;
        }
    }
}
