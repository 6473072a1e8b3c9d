using System.Globalization;
using System.IO.Compression;
using System.Text;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using Sylvan.Data.Csv;

namespace LivelyTern.Formats.Foods;

/// <summary>
/// A download of FoodData Central as a set of CSV files in a zip: <c>food.csv</c> and <c>food_nutrient.csv</c>, and where they are there
/// <c>food_category.csv</c>, <c>food_portion.csv</c>, <c>measure_unit.csv</c> and <c>branded_food.csv</c>. Figures are per 100 g,
/// carbohydrate by difference, fibre within. Format: FoodData Central, Download Field Descriptions (from memory).
/// </summary>
/// <param name="path">The zip.</param>
public sealed class FdcCsv(string path) : IFoodFile
{
    /// <summary>Packed more than this many times over, a file is not a table but a trap.</summary>
    private const long MostRatio = 250;
    private const long MostBytes = 12L << 30;
    private const int HighestNutrient = 4096;

    // In the place of a text that is not there.
    private const int None = -1;

    /// <summary>The share of the work that the joining is.</summary>
    private const double Joining = 0.5;

    // FoodData Central's nutrient ids. Sodium is in mg, energy in kcal; 2047 and 2048 are energy by general and by specific factors.
    private static readonly (int Id, Nutrient Nutrient)[] Ids =
    [
        (1008, Nutrient.Energy), (1003, Nutrient.Protein), (1004, Nutrient.Fat), (1258, Nutrient.SaturatedFat),
        (1005, Nutrient.Carbohydrate),
        (2000, Nutrient.Sugars), (1079, Nutrient.Fibre), (1093, Nutrient.Salt), (1086, Nutrient.Polyols), (1018, Nutrient.Alcohol),
    ];

    private static readonly int[] OtherEnergy = [2048, 2047];
    private static readonly HashSet<string>.AlternateLookup<ReadOnlySpan<char>> Types =
        new HashSet<string>(StringComparer.Ordinal) { "foundation_food", "sr_legacy_food", "survey_fndds_food", "branded_food" }
            .GetAlternateLookup<ReadOnlySpan<char>>();

    // Kept from the first reading for the next: what was looked at is what is taken, and joining it again would take longer than writing
    // it.
    private Joined? joined;

    /// <inheritdoc/>
    public string Kind => "FoodData Central, a set of CSV files";

    /// <summary>Whether a zip holds such a set.</summary>
    public static bool IsOne(ZipArchive zip) => Entry(zip, "food.csv") is not null && Entry(zip, "food_nutrient.csv") is not null;

    /// <summary>Refuses a zip that unpacks to many times its size.</summary>
    public static void Check(ZipArchive zip)
    {
        ArgumentNullException.ThrowIfNull(zip);
        foreach (var entry in zip.Entries)
        {
            if (entry.Length > MostBytes || (entry.Length > 10 << 20 && entry.Length / Math.Max(1, entry.CompressedLength) > MostRatio))
                throw new UnreadableFileException(UnreadableFileException.TooLarge);
        }
    }

    /// <inheritdoc/>
    public IEnumerable<ImportedRow> Rows(IProgress<double>? progress = null, CancellationToken stop = default)
    {
        var begun = joined is null ? Joining : 0;
        var table = joined ??= Join(progress, stop);
        foreach (var (row, why) in table.Skipped) yield return ImportedRow.Refuse(row, why);
        var values = new decimal?[Ids.Length];
        using var zip = Open();
        var i = 0;
        foreach (var (id, name, category) in Named(zip, table))
        {
            if (i % 1000 == 0)
            {
                stop.ThrowIfCancellationRequested();
                progress?.Report(begun + ((1 - begun) * i / table.Measures.Length));
            }

            for (var k = 0; k < Ids.Length; k++)
            {
                var (value, nutrient) = (table.Figures[(i * Ids.Length) + k], Ids[k].Nutrient);
                decimal? figure = float.IsNaN(value) ? null : TableLimits.Figure(value);
                values[(int)nutrient] = nutrient == Nutrient.Salt && figure is { } sodium ? Label.SaltOf(sodium) : figure;
            }

            var (measure, gtin) = (table.Measures[i], table.Gtins?[i] ?? 0);
            yield return ImportedRow.Of(++i, new(
                id.ToString(CultureInfo.InvariantCulture), name, GroupWords.GroupOf(table.Categories.GetValueOrDefault(category)),
                FoodCsv.OfValues(values), CarbohydrateConvention.Total, measure == None ? null : table.Texts.Get(measure),
                gtin == 0 ? null : gtin.ToString("D14", CultureInfo.InvariantCulture)));
        }
    }

    // The foods in their order, from the file once more: their names are the most of it, and are kept by nobody meanwhile.
    private static IEnumerable<(int Id, string Name, int Category)> Named(ZipArchive zip, Joined table)
    {
        using var reader = Reader(zip, "food.csv")!;
        var columns = FoodColumns.Of(reader);
        for (var place = 0; reader.Read();)
        {
            if (columns.IdOf(reader) is not { } id || table.Places.Find(id) != place) continue;
            yield return (id, reader.GetString(columns.Name).Trim(), Whole(reader, columns.Category) ?? 0);
            place++;
        }
    }

    private Joined Join(IProgress<double>? progress, CancellationToken stop)
    {
        using var zip = Open();
        Check(zip);
        var (texts, places) = (new TextStore(), new Places());
        var skipped = new List<(long Row, string Why)>();
        ReadFoods(zip, places, skipped, stop);
        progress?.Report(0.1);

        var figures = new float[places.Count * Ids.Length];
        Array.Fill(figures, float.NaN);
        ReadNutrients(zip, places, figures, progress, stop);
        var measures = new int[places.Count];
        Array.Fill(measures, None);
        ReadPortions(zip, places, texts, measures, stop);
        var gtins = ReadBarcodes(zip, places, texts, measures, stop);
        return new(places, texts, figures, measures, gtins, ReadNames(zip, "food_category.csv", "description"), skipped);
    }

    private ZipArchive Open()
    {
        try
        {
            return ZipFile.OpenRead(path);
        }
        catch (InvalidDataException error)
        {
            throw new UnreadableFileException("The zip is damaged: fetch it again.", error);
        }
    }

    private static void ReadFoods(ZipArchive zip, Places places, List<(long Row, string Why)> skipped, CancellationToken stop)
    {
        using var reader = Reader(zip, "food.csv")!;
        var columns = FoodColumns.Of(reader);
        for (var row = 1L; reader.Read(); row++)
        {
            if (row % 10_000 == 0) stop.ThrowIfCancellationRequested();
            TableLimits.MayHave(places.Count);
            if (!columns.IsFood(reader)) skipped.Add((row, "it is a sample of a food, not a food"));
            else if (columns.IdOf(reader) is not { } food) skipped.Add((row, "its fdc_id is not a number"));
            else if (!places.TryAdd(food, places.Count)) skipped.Add((row, $"fdc_id {food} is there twice"));
        }
    }

    // Where the columns of food.csv are.
    private sealed record FoodColumns(int Id, int Type, int Name, int Category)
    {
        public static FoodColumns Of(CsvDataReader reader) => new(
            At(reader, "fdc_id"), At(reader, "data_type", isNeeded: false), At(reader, "description"),
            At(reader, "food_category_id", isNeeded: false));

        public bool IsFood(CsvDataReader reader) => Type < 0 || Types.Contains(reader.GetFieldSpan(Type));

        // The id of a row that is a food; null where it is none or has none.
        public int? IdOf(CsvDataReader reader) => IsFood(reader) ? Whole(reader, Id) : null;
    }

    private static void ReadNutrients(
        ZipArchive zip, Places places, float[] figures, IProgress<double>? progress, CancellationToken stop)
    {
        var slots = new sbyte[HighestNutrient];
        Array.Fill(slots, (sbyte)-1);
        for (var i = 0; i < Ids.Length; i++) slots[Ids[i].Id] = (sbyte)i;
        foreach (var other in OtherEnergy) slots[other] = (sbyte)Ids.Length;
        using var reader = Reader(zip, "food_nutrient.csv")!;
        var (food, nutrient, amount) = (At(reader, "fdc_id"), At(reader, "nutrient_id"), At(reader, "amount"));
        var (last, place) = (int.MinValue, -1);
        for (var row = 1L; reader.Read(); row++)
        {
            if (row % 100_000 == 0)
            {
                stop.ThrowIfCancellationRequested();
                progress?.Report(0.1 + (0.3 * Math.Min(1, row / (14.0 * Math.Max(1, places.Count)))));
            }

            if (Whole(reader, nutrient) is not (>= 0 and < HighestNutrient and var id) || slots[id] < 0) continue;
            if (!int.TryParse(reader.GetFieldSpan(food), CultureInfo.InvariantCulture, out var of)) continue;

            // The rows of one food stand together, as a rule.
            if (of != last) (last, place) = (of, places.Find(of));
            if (place < 0 || !float.TryParse(reader.GetFieldSpan(amount), CultureInfo.InvariantCulture, out var value)) continue;
            var slot = slots[id];
            if (slot < Ids.Length) figures[(place * Ids.Length) + slot] = value;
            else if (float.IsNaN(figures[place * Ids.Length])) figures[place * Ids.Length] = value;
        }
    }

    private static void ReadPortions(
        ZipArchive zip, Places places, TextStore texts, int[] measures, CancellationToken stop)
    {
        using var reader = Reader(zip, "food_portion.csv");
        if (reader is null) return;
        var units = ReadNames(zip, "measure_unit.csv", "name");
        var (food, amount, unit, modifier, weight) = (
            At(reader, "fdc_id"), At(reader, "amount", isNeeded: false), At(reader, "measure_unit_id", isNeeded: false),
            At(reader, "modifier", isNeeded: false), At(reader, "gram_weight"));
        for (var row = 1L; reader.Read(); row++)
        {
            if (row % 100_000 == 0) stop.ThrowIfCancellationRequested();
            if (Whole(reader, food) is not { } of || places.Find(of) is not (>= 0 and var place)) continue;
            var many = Amount(reader, amount) is > 0 and var said ? said : 1m;
            if (TableLimits.Weight(Amount(reader, weight) ?? 0, many) is not { } grams) continue;
            var name = unit >= 0 && int.TryParse(reader.GetFieldSpan(unit), CultureInfo.InvariantCulture, out var id)
                && units.TryGetValue(id, out var known) && !string.Equals(known, "undetermined", StringComparison.Ordinal)
                ? known
                : null;
            Add(texts, ref measures[place], name ?? (modifier >= 0 ? reader.GetString(modifier) : ""), grams);
        }
    }

    private static long[]? ReadBarcodes(
        ZipArchive zip, Places places, TextStore texts, int[] measures, CancellationToken stop)
    {
        using var reader = Reader(zip, "branded_food.csv");
        if (reader is null) return null;
        var gtins = new long[measures.Length];
        var (food, gtin, size, unit) = (
            At(reader, "fdc_id"), At(reader, "gtin_upc", isNeeded: false), At(reader, "serving_size", isNeeded: false),
            At(reader, "serving_size_unit", isNeeded: false));
        for (var row = 1L; reader.Read(); row++)
        {
            if (row % 100_000 == 0) stop.ThrowIfCancellationRequested();
            if (Whole(reader, food) is not { } of || places.Find(of) is not (>= 0 and var place)) continue;
            if (gtin >= 0 && Gtin.Read(reader.GetString(gtin)) is { Succeeded: true, Value: { } number })
                gtins[place] = long.Parse(number, CultureInfo.InvariantCulture);
            var isInGrams = unit >= 0 && reader.GetFieldSpan(unit) is "g" or "G" or "GRM";
            if (isInGrams && TableLimits.Weight(Amount(reader, size) ?? 0, 1) is { } grams)
                Add(texts, ref measures[place], "serving", grams);
        }

        return gtins;
    }

    // "cup, chopped" is a cup; a name without letters is none.
    private static void Add(TextStore texts, ref int measures, string name, string grams)
    {
        var word = name.Split([',', ';', '='], 2)[0].Trim();
        if (word.Length is 0 or > 30 || !word.Any(char.IsLetter)) return;
        var before = measures == None ? "" : texts.Get(measures);
        if (before.Length > 200 || before.Contains(word + "=", StringComparison.Ordinal)) return;
        measures = texts.Add(before.Length == 0 ? $"{word}={grams}" : $"{before};{word}={grams}");
    }

    private static Dictionary<int, string> ReadNames(ZipArchive zip, string file, string column)
    {
        var names = new Dictionary<int, string>();
        using var reader = Reader(zip, file);
        if (reader is null) return names;
        var (id, name) = (At(reader, "id"), At(reader, column));
        while (reader.Read())
        {
            if (int.TryParse(reader.GetFieldSpan(id), CultureInfo.InvariantCulture, out var number)) names[number] = reader.GetString(name);
        }

        return names;
    }

    private static ZipArchiveEntry? Entry(ZipArchive zip, string name) =>
        zip.Entries.FirstOrDefault(entry => string.Equals(entry.Name, name, StringComparison.OrdinalIgnoreCase));

    private static CsvDataReader? Reader(ZipArchive zip, string name)
    {
        if (Entry(zip, name) is not { } entry) return null;
        var text = new StreamReader(new Counted(entry.Open(), MostBytes), Encoding.UTF8, detectEncodingFromByteOrderMarks: true, 1 << 16);
        var options = new CsvDataReaderOptions
        {
            HasHeaders = true,
            BufferSize = 1 << 17,
            MaxBufferSize = 1 << 22,
            OwnsReader = true,
            Delimiter = ',',
        };
        try
        {
            return CsvDataReader.Create(text, options);
        }
        catch (Exception error) when (error is CsvFormatException or CsvRecordTooLargeException or InvalidOperationException
            or IndexOutOfRangeException)
        {
            throw new UnreadableFileException($"{name} in this zip is no table with a header line.", error);
        }
    }

    // A whole number in a column; null where there is none, or no such column.
    private static int? Whole(CsvDataReader reader, int column) =>
        column >= 0 && int.TryParse(reader.GetFieldSpan(column), CultureInfo.InvariantCulture, out var number) ? number : null;

    private static decimal? Amount(CsvDataReader reader, int column)
    {
        if (column < 0) return null;
        var isNumber = decimal.TryParse(reader.GetFieldSpan(column), NumberStyles.Float, CultureInfo.InvariantCulture, out var number);
        return isNumber ? number : null;
    }

    private static int At(CsvDataReader reader, string column, bool isNeeded = true)
    {
        for (var i = 0; i < reader.FieldCount; i++)
        {
            if (string.Equals(reader.GetName(i), column, StringComparison.OrdinalIgnoreCase)) return i;
        }

        return isNeeded
            ? throw new UnreadableFileException($"A file of the set has no column {column}: it is not in FoodData Central's shape.")
            : -1;
    }

    // Where each food stands, by its id. As a rule the ids grow from row to row: then a search in them takes the place of a dictionary,
    // which is four times as large.
    private sealed class Places
    {
        private readonly List<int> ids = [], rows = [];
        private readonly Dictionary<int, int> others = [];

        public int Count => ids.Count + others.Count;

        public bool TryAdd(int id, int row)
        {
            if (Find(id) >= 0) return false;
            if (ids.Count > 0 && id < ids[^1])
            {
                others.Add(id, row);
                return true;
            }

            ids.Add(id);
            rows.Add(row);
            return true;
        }

        /// <returns>The row, or a negative number.</returns>
        public int Find(int id)
        {
            var at = ids.Count > 0 && id > ids[^1] ? -1 : ids.BinarySearch(id);
            return at >= 0 ? rows[at] : others.GetValueOrDefault(id, -1);
        }
    }

    /// <summary>
    /// The files joined by food: measures as places in <paramref name="Texts"/>, figures in columns, ten to a food, to seven digits and
    /// NaN where none is stated. About 80 bytes a food.
    /// </summary>
    private sealed record Joined(
        Places Places, TextStore Texts, float[] Figures, int[] Measures, long[]? Gtins, Dictionary<int, string> Categories,
        List<(long Row, string Why)> Skipped);
}
