using System.Data;
using System.Data.Common;
using System.Globalization;
using System.Text;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Infrastructure;

namespace LivelyTern.Data.Foods;

/// <summary>All words of all library names, each once, to forgive slips with.</summary>
/// <param name="Words">In lower case.</param>
public sealed record LibraryWords(IReadOnlyList<string> Words);

/// <summary>
/// Libraries of foods: large tables, searched in SQLite. Names are indexed word by word (FTS5, with the beginnings of words); a word that
/// is in no name is replaced by those it may be a slip of.
/// </summary>
public sealed class LibraryStore(TernDb db, CachedRead<LibraryWords> words)
{
    private const string Prefix = FoodIds.Library;

    /// <summary>So many matches are looked at to rank the best; typing on narrows them.</summary>
    private const int Looked = 400;
    private const int MostWords = 8;
    private const int MostMeant = 12;
    private const int MostNamed = 6;
    private const string Columns =
        "f.Id, f.Name, f.\"Group\", f.Convention, f.Energy, f.Protein, f.Fat, f.SaturatedFat, f.Carbohydrate, f.Sugars, f.Fibre, f.Salt, "
        + "f.Polyols, f.Alcohol, f.Measures, f.Gtin, l.Source";

    private const string Whole = $"SELECT {Columns} FROM LibraryFoods f JOIN Libraries l ON l.Id = f.LibraryId WHERE l.IsWhole";

    private static readonly string Matching = string.Create(
        CultureInfo.InvariantCulture,
        $"SELECT rowid AS Id FROM LibraryNames WHERE LibraryNames MATCH $query LIMIT {Looked}");

    private bool? any;

    /// <summary>The row of a library food's id, or null where it is no such id.</summary>
    public static long? RowOf(string id)
    {
        ArgumentNullException.ThrowIfNull(id);
        if (!id.StartsWith(Prefix, StringComparison.Ordinal)) return null;
        return long.TryParse(id.AsSpan(Prefix.Length), CultureInfo.InvariantCulture, out var row) ? row : null;
    }

    /// <summary>The libraries, newest first, with those whose import is still on its way.</summary>
    public async Task<IReadOnlyList<LibraryRow>> ListAsync() =>
        await db.Libraries.AsNoTracking().OrderByDescending(row => row.Id).ToListAsync();

    /// <summary>Whether there is a library to look into; asked of the file once for each request.</summary>
    public async Task<bool> AnyAsync() => any ??= await db.Libraries.AnyAsync(row => row.IsWhole);

    /// <summary>One food, or null.</summary>
    public Food? Find(string id) =>
        RowOf(id) is { } row ? Query(Whole + " AND f.Id = $row", ("$row", row)).FirstOrDefault() : null;

    /// <summary>The food under a barcode, or null.</summary>
    /// <param name="gtin">14 digits.</param>
    public Food? FindByGtin(string gtin) =>
        Query(Whole + " AND f.Gtin = $gtin LIMIT 1", ("$gtin", gtin)).FirstOrDefault();

    /// <summary>The foods whose name has exactly these words, in any order.</summary>
    public IReadOnlyList<Food> Named(string text)
    {
        var all = FoodWords.All(text).ToHashSet(StringComparer.Ordinal);
        if (all.Count is 0 or > MostWords) return [];

        // Whole words, and only the names: this is asked of every line that the kitchen's own names do not settle.
        string Forms(string word) =>
            $"(\"{word}\" OR \"{word}s\" OR \"{word}es\" OR \"{word[..^1]}ies\" OR \"{word[..^1]}ves\")";
        var query = string.Join(" AND ", all.Select(Letters).Where(word => word.Length > 0).Select(Forms));
        if (query.Length == 0) return [];
        using var command = Command(
            $"SELECT f.Id, f.Name FROM ({Matching}) n JOIN LibraryFoods f ON f.Id = n.Id", ("$query", query));
        using var reader = command.ExecuteReader();
        var ids = new List<string>();
        while (ids.Count < MostNamed && reader.Read())
        {
            if (all.SetEquals(FoodWords.All(reader.GetString(1))))
                ids.Add(Prefix + reader.GetInt64(0).ToString(CultureInfo.InvariantCulture));
        }

        return [.. ids.Select(Find).OfType<Food>()];
    }

    /// <summary>The foods whose words begin as typed, in any order, best first: fewest slips, whole words, the shortest name.</summary>
    /// <param name="typed">As typed so far.</param>
    /// <param name="most">How many at most.</param>
    /// <param name="isSlipForgiven">Whether a word that is in no name may be a slip of one that is.</param>
    public IReadOnlyList<Food> Search(string typed, int most, bool isSlipForgiven = true)
    {
        var own = FoodWords.Telling(typed);
        return [.. Match(typed, isSlipForgiven)
            .Select(food => (food, words: FoodWords.Telling(food.Name)))
            .OrderByDescending(pair => own.Count(word => pair.words.Contains(word, StringComparer.Ordinal)))
            .ThenBy(pair => pair.words.Count).ThenBy(pair => pair.food.Name.Length).ThenBy(pair => pair.food.Name, StringComparer.Ordinal)
            .Select(pair => pair.food).Take(most)];
    }

    private List<Food> Match(string typed, bool isSlipForgiven)
    {
        var query = QueryOf(typed, isSlipForgiven);
        return query is null ? [] : Query(
            $"SELECT {Columns} FROM ({Matching}) n JOIN LibraryFoods f ON f.Id = n.Id JOIN Libraries l ON l.Id = f.LibraryId "
            + "WHERE l.IsWhole",
            ("$query", query));
    }

    // Each word as the beginning of a word: ("lentils" OR "lentil"*) AND ("red"*). Where no name has such a word, the words it may be a
    // slip of.
    private string? QueryOf(string typed, bool isSlipForgiven)
    {
        var parts = new List<string>();
        var known = isSlipForgiven ? KnownWords() : [];
        foreach (var word in FoodWords.Telling(typed).Distinct(StringComparer.Ordinal).Take(MostWords))
        {
            var letters = Letters(word);
            if (letters.Length == 0) continue;
            var meant = !isSlipForgiven || HasBeginning(known, letters) ? [letters] : known
                .Select(other => (other, slips: Slips.To(letters, other))).Where(pair => pair.slips is not null)
                .OrderBy(pair => pair.slips).ThenBy(pair => pair.other.Length).Take(MostMeant).Select(pair => pair.other).ToList();
            if (meant.Count == 0) return null;

            // "berries" is kept as it stands in the names; "berry" would not be its beginning.
            if (letters.EndsWith('y')) meant = [.. meant, letters[..^1] + "ies"];
            parts.Add("(" + string.Join(" OR ", meant.Select(other => $"\"{other}\"*")) + ")");
        }

        return parts.Count == 0 ? null : string.Join(" AND ", parts);
    }

    private static string Letters(string word) => new([.. word.Where(char.IsLetterOrDigit)]);

    private static bool HasBeginning(IReadOnlyList<string> sorted, string beginning)
    {
        var (low, high) = (0, sorted.Count);
        while (low < high)
        {
            var middle = (low + high) / 2;
            if (string.CompareOrdinal(sorted[middle], beginning) < 0) low = middle + 1;
            else high = middle;
        }

        return low < sorted.Count && sorted[low].StartsWith(beginning, StringComparison.Ordinal);
    }

    private IReadOnlyList<string> KnownWords() => words.GetAsync(db, () =>
    {
        using var command = Command("SELECT term FROM LibraryWords");
        using var reader = command.ExecuteReader();
        var list = new List<string>();
        while (reader.Read()) list.Add(reader.GetString(0));
        list.Sort(StringComparer.Ordinal);
        return Task.FromResult(new LibraryWords(list));
    }).GetAwaiter().GetResult().Words;

    private List<Food> Query(string sql, (string Name, object Value) parameter)
    {
        using var command = Command(sql, parameter);
        using var reader = command.ExecuteReader();
        var foods = new List<Food>();
        while (reader.Read()) foods.Add(Read(reader));
        return foods;
    }

    private DbCommand Command(string sql, params ReadOnlySpan<(string Name, object Value)> parameters)
    {
        var connection = db.Database.GetDbConnection();
        if (connection.State != ConnectionState.Open) db.Database.OpenConnection();
        var command = connection.CreateCommand();
        command.CommandText = sql;
        foreach (var parameter in parameters)
        {
            var value = command.CreateParameter();
            (value.ParameterName, value.Value) = parameter;
            command.Parameters.Add(value);
        }

        var transaction = db.Database.CurrentTransaction as IInfrastructure<DbTransaction>;
        command.Transaction = transaction?.Instance;
        return command;
    }

    private static Food Read(DbDataReader row)
    {
        // A double of at most 15 digits is the decimal it was written from.
        decimal? Number(int at) => row.IsDBNull(at) ? null : (decimal)row.GetDouble(at);
        var source = row.GetString(16);
        return new Food(
            Prefix + row.GetInt64(0).ToString(CultureInfo.InvariantCulture), row.GetString(1), [], (FoodGroup)row.GetInt32(2),
            new Nutrients(Number(4), Number(5), Number(6), Number(7), Number(8), Number(9), Number(10), Number(11), Number(12), Number(13)),
            (CarbohydrateConvention)row.GetInt32(3), ImportedRow.MeasuresOf(row.IsDBNull(14) ? null : row.GetString(14), source), source)
        {
            Gtin = row.IsDBNull(15) ? null : row.GetString(15),
            Keeping = KeepingWords.Of(row.GetString(1), (FoodGroup)row.GetInt32(2)),
        };
    }
}
