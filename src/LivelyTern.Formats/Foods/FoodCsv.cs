using System.Globalization;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using Sylvan.Data.Csv;

namespace LivelyTern.Formats.Foods;

/// <summary>What a column of figures is measured in.</summary>
public enum ColumnUnit
{
    /// <summary>Grams.</summary>
    Gram,

    /// <summary>Milligrams.</summary>
    Milligram,

    /// <summary>Kilocalories.</summary>
    Kilocalorie,

    /// <summary>Kilojoules.</summary>
    Kilojoule,

    /// <summary>Grams of sodium, to be read as salt.</summary>
    SodiumGram,

    /// <summary>Milligrams of sodium, to be read as salt.</summary>
    SodiumMilligram,
}

/// <summary>Where a nutrient stands in a file.</summary>
/// <param name="Column">The header of its column.</param>
/// <param name="Unit">What it is measured in.</param>
public sealed record MappedColumn(string Column, ColumnUnit Unit);

/// <summary>Which column of a CSV file is what. Headers are matched as they stand in the file.</summary>
/// <param name="Name">The column of names.</param>
/// <param name="Code">The file's own codes; null to number the rows.</param>
/// <param name="Group">The column of groups.</param>
/// <param name="Gtin">The column of barcode numbers.</param>
/// <param name="ServingGrams">Where the figures are per serving, the column of its weight in grams; null for per 100 g.</param>
/// <param name="Nutrients">The columns of figures.</param>
/// <param name="Convention">What carbohydrate contains.</param>
public sealed record CsvMapping(
    string? Name, string? Code, string? Group, string? Gtin, string? ServingGrams,
    IReadOnlyDictionary<Nutrient, MappedColumn> Nutrients, CarbohydrateConvention Convention)
{
    private static readonly (Nutrient Nutrient, string[] Words)[] Headers =
    [
        (Nutrient.Energy, ["enerc", "energy", "kcal", "calories", "kj"]), (Nutrient.SaturatedFat, ["fasat", "saturat", "saturates"]),
        (Nutrient.Fat, ["fatce", "total fat", "fat"]),
        (Nutrient.Sugars, ["fsugar", "sugar"]), (Nutrient.Polyols, ["polyol", "sugar alcohol"]),
        (Nutrient.Fibre, ["fibtg", "fibre", "fiber"]), (Nutrient.Carbohydrate, ["choavldf", "carbohydrate", "carbs", "carb"]),
        (Nutrient.Protein, ["protcnt", "protein"]), (Nutrient.Salt, ["salt", "sodium", "; na"]), (Nutrient.Alcohol, ["alcohol"]),
    ];

    /// <summary>What the headers say, as far as they do: "Energy (kJ)" is energy in kJ, "sodium_mg" salt from sodium.</summary>
    public static CsvMapping Guess(IReadOnlyList<string> headers)
    {
        ArgumentNullException.ThrowIfNull(headers);
        string? Find(params string[] words) => words.SelectMany(word => headers.Where(header => Says(header, word))).FirstOrDefault();
        var nutrients = new Dictionary<Nutrient, MappedColumn>();
        var used = new HashSet<string>(StringComparer.Ordinal);
        foreach (var (nutrient, words) in Headers)
        {
            var free = headers.Where(header => !IsError(header) && !used.Contains(header));
            if (words.SelectMany(word => free.Where(header => Says(header, word))).FirstOrDefault() is not { } header) continue;
            used.Add(header);
            nutrients[nutrient] = new(header, UnitOf(nutrient, header));
        }

        var isWithoutFibre = headers.Any(header => Says(header, "choavldf") || Says(header, "available carbohydrate"));
        return new(
            Name: Find("food name", "description", "product name", "name", "food"),
            Code: Find("food code", "fdc_id", "ndb", "code", "id"),
            Group: Find("food group", "category", "group"),
            Gtin: Find("gtin", "barcode", "ean", "upc"),
            ServingGrams: Find("serving_grams", "serving size (g)", "serving g"),
            nutrients,
            isWithoutFibre ? CarbohydrateConvention.WithoutFibre : CarbohydrateConvention.Total);
    }

    private static bool Says(string header, string word) => header.Contains(word, StringComparison.OrdinalIgnoreCase);

    // Columns of standard errors beside the figures: "Energy; enerc_e".
    private static bool IsError(string header) =>
        header.EndsWith("_e", StringComparison.Ordinal) || Says(header, "error") || Says(header, "acids") || Says(header, "unsaturat");

    private static ColumnUnit UnitOf(Nutrient nutrient, string header) => nutrient switch
    {
        Nutrient.Energy => Says(header, "kj") || Says(header, "enerc") ? ColumnUnit.Kilojoule : ColumnUnit.Kilocalorie,
        Nutrient.Salt when !Says(header, "salt") => Says(header, "mg") ? ColumnUnit.SodiumMilligram : ColumnUnit.SodiumGram,
        _ => Says(header, "(mg)") || Says(header, "_mg") ? ColumnUnit.Milligram : ColumnUnit.Gram,
    };
}

/// <summary>A CSV file of foods, one a row, under a mapping. Delimiter, encoding and decimal comma are found by looking.</summary>
/// <param name="open">Opens the file at its start.</param>
/// <param name="length">Its bytes, for the progress.</param>
/// <param name="mapping">Which column is what.</param>
public sealed class FoodCsv(Func<Stream> open, long length, CsvMapping mapping) : IFoodFile
{
    private const int LongestLine = TableLimits.RowLetters / 1024;

    /// <inheritdoc/>
    public string Kind => "a table of foods (CSV)";

    /// <summary>The headers of a file, and its first rows as they stand.</summary>
    /// <param name="open">Opens the file at its start.</param>
    /// <param name="rows">How many rows to show.</param>
    public static (IReadOnlyList<string> Headers, IReadOnlyList<IReadOnlyList<string>> Rows) Peek(Func<Stream> open, int rows)
    {
        using var counted = new Counted(open());
        using var reader = Reader(counted);
        var headers = Enumerable.Range(0, reader.FieldCount).Select(i => reader.GetName(i) ?? "").ToList();
        if (headers.Count < 2)
            throw new UnreadableFileException(
                "This is no table: its first line has fewer than two columns. Save it as CSV, with a header line.");
        var shown = new List<IReadOnlyList<string>>();
        while (shown.Count < rows && reader.Read())
            shown.Add([.. Enumerable.Range(0, headers.Count).Select(i => i < reader.RowFieldCount ? reader.GetString(i) : "")]);
        return (headers, shown);
    }

    /// <inheritdoc/>
    public IEnumerable<ImportedRow> Rows(IProgress<double>? progress = null, CancellationToken stop = default)
    {
        using var counted = new Counted(open());
        using var reader = Reader(counted);
        var columns = Enumerable.Range(0, reader.FieldCount).GroupBy(i => reader.GetName(i) ?? "", StringComparer.Ordinal)
            .ToDictionary(group => group.Key, group => group.First(), StringComparer.Ordinal);
        int At(string? header) => header is not null && columns.TryGetValue(header, out var at) ? at : -1;
        var (name, code, groupAt, gtin, serving) = (
            At(mapping.Name), At(mapping.Code), At(mapping.Group), At(mapping.Gtin), At(mapping.ServingGrams));
        var figures = mapping.Nutrients.Where(pair => At(pair.Value.Column) >= 0)
            .Select(pair => (pair.Key, At: At(pair.Value.Column), pair.Value.Unit, pair.Value.Column)).ToList();
        if (name < 0) throw new UnreadableFileException("Say which column holds the names.");
        if (figures.Count == 0) throw new UnreadableFileException("Say which columns hold the figures: energy at least.");
        for (var row = 1L; ; row++)
        {
            stop.ThrowIfCancellationRequested();
            ImportedRow read;
            try
            {
                if (!reader.Read()) yield break;
                TableLimits.MayHave(row);
                string? Text(int at) => at >= 0 && at < reader.RowFieldCount ? reader.GetString(at).Trim() : null;
                read = Read(row, Text, name, code, groupAt, gtin, serving, figures);
            }
            catch (Exception error) when (IsUnreadable(error))
            {
                throw new UnreadableFileException(
                    $"The table breaks off at row {row}: a quote is not closed, or a line is longer than {LongestLine} kB.", error);
            }

            if (row % 500 == 0) progress?.Report(Math.Min(1, (double)counted.Taken / Math.Max(1, length)));
            yield return read;
        }
    }

    private ImportedRow Read(
        long row, Func<int, string?> text, int name, int code, int groupAt, int gtin, int serving,
        List<(Nutrient Nutrient, int At, ColumnUnit Unit, string Column)> figures)
    {
        var per = 1m;
        if (serving >= 0)
        {
            if (Number(text(serving)) is not { } grams || grams is < Limits.Lightest or > 5000)
                return ImportedRow.Refuse(row, "its serving has no weight in grams");
            per = 100m / grams;
        }

        var values = new decimal?[Nutrients.All.Count];
        foreach (var (nutrient, at, unit, column) in figures)
        {
            var cell = text(at);
            if (IsUnknown(cell)) continue;
            if (Number(cell) is not { } value) return ImportedRow.Refuse(row, $"“{Short(cell!)}” under {Short(column)} is not a number");
            values[(int)nutrient] = InGrams(value, unit) * per;
        }

        var number = gtin >= 0 && text(gtin) is { Length: > 0 } typed ? Gtin.Read(typed) : default;
        return ImportedRow.Of(row, new(
            code >= 0 && text(code) is { Length: > 0 } own ? Short(own) : row.ToString(CultureInfo.InvariantCulture),
            Short(text(name) ?? ""), GroupWords.GroupOf(text(groupAt)), OfValues(values), mapping.Convention,
            Gtin: number is { Value: not null, Succeeded: true } ? number.Value : null));
    }

    /// <summary>Figures in the order of <see cref="Nutrient"/>.</summary>
    internal static Nutrients OfValues(decimal?[] values) =>
        new(values[0], values[1], values[2], values[3], values[4], values[5], values[6], values[7], values[8], values[9]);

    private static decimal InGrams(decimal value, ColumnUnit unit) => unit switch
    {
        ColumnUnit.Milligram => value / 1000m,
        ColumnUnit.Kilojoule => value / EnergyFactors.KilojoulesPerKilocalorie,
        ColumnUnit.SodiumGram => value * Label.SaltPerSodium,
        ColumnUnit.SodiumMilligram => Label.SaltOf(value),
        _ => value,
    };

    // Tables write "N", "-" or nothing for what was not analysed.
    private static bool IsUnknown(string? cell) =>
        string.IsNullOrWhiteSpace(cell)
            || cell is "-" or "–" or "N" or "n" or "NA" or "N/A" or "n/a" or "null" or "NULL" or "." or "nd" or "ND";

    // "1,5" is a decimal comma, "1,234.5" a thousand; "tr" and "<0.1" are so little that they count as nothing.
    private static decimal? Number(string? cell)
    {
        if (cell is null) return null;
        var text = cell.Trim();
        bool Is(string word) => text.Equals(word, StringComparison.OrdinalIgnoreCase);
        if (text.StartsWith('<') || Is("tr") || Is("trace")) return 0;
        if (text.Contains(',', StringComparison.Ordinal))
            text = text.Contains('.', StringComparison.Ordinal) ? text.Replace(",", "", StringComparison.Ordinal) : text.Replace(',', '.');
        return decimal.TryParse(text, NumberStyles.Float, CultureInfo.InvariantCulture, out var value) && Math.Abs(value) < 1e12m
            ? value
            : null;
    }

    private static string Short(string text) => text.Length <= 200 ? text : text[..200];

    private static CsvDataReader Reader(Counted counted)
    {
        var text = TextFile.Open(counted);
        try
        {
            var options = new CsvDataReaderOptions
            {
                HasHeaders = true,
                BufferSize = 1 << 14,
                MaxBufferSize = TableLimits.RowLetters,
                OwnsReader = true,
                CsvStyle = CsvStyle.Standard,
            };
            var reader = CsvDataReader.Create(text, options);
            if (reader.FieldCount <= TableLimits.Columns) return reader;
            reader.Dispose();
            throw new UnreadableFileException(
                $"This table has more than {TableLimits.Columns} columns: take out those that are not needed.");
        }
        catch (Exception error) when (IsUnreadable(error) || error is IndexOutOfRangeException)
        {
            throw new UnreadableFileException("This can't be read as a table. Save it as CSV, with a header line, in UTF-8.", error);
        }
    }

    private static bool IsUnreadable(Exception error) =>
        error is CsvFormatException or CsvRecordTooLargeException or InvalidOperationException or FormatException;
}
