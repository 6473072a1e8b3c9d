using System.Globalization;
using LivelyTern.Data.Disk;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Backup;

/// <summary>What differs between what is here and a backup, of one kind of thing.</summary>
/// <param name="Kind">What kind: <c>eaters</c>, <c>entries</c>, …</param>
/// <param name="Here">How many are here.</param>
/// <param name="InBackup">How many are in the backup.</param>
/// <param name="Go">How many are here and not in the backup.</param>
/// <param name="Come">How many are in the backup and not here.</param>
/// <param name="Change">How many are in both and differ.</param>
/// <param name="Going">Some of those that would go, as a cook would name them.</param>
/// <param name="Coming">Some of those that would come.</param>
/// <param name="Changing">Some of those that differ, as they are here.</param>
public sealed record Difference(
    string Kind, long Here, long InBackup, long Go, long Come, long Change, IReadOnlyList<string> Going, IReadOnlyList<string> Coming,
    IReadOnlyList<string> Changing)
{
    /// <summary>Whether there is none.</summary>
    public bool IsNone => Go + Come + Change == 0;
}

/// <summary>Holds a household's file against a backup that was brought to its shape.</summary>
public static class Differences
{
    private const int MostNamed = 3;

    /// <summary>The things that are compared as wholes, with what belongs to each.</summary>
    private static readonly Thing[] Things =
    [
        new("eaters", "Eaters", ["Id"], new("thing.Name"),
            [new("Aims", ["EaterId"]), new("DateBands", ["EaterId"]), new("Aways", ["EaterId"])]),
        new("foods", "Foods", ["Id"], new("json_extract(thing.Food, '$.name')"), [new("WeighedMeasures", ["FoodId"])]),
        new("libraries", "Libraries", ["Id"], new("thing.Name"), []),
        new("recipes", "Recipes", ["Id"], new("thing.Name"),
        [
            new("RecipeLineRow", ["RecipeId"]), new("RecipeVersions", ["RecipeId"]), new("RecipeNotes", ["RecipeId"]),
            new("BoxNotes", ["RecipeId"]),
        ]),
        new("batches", "Batches", ["Id"], new("thing.RecipeName", "thing.CookedOn"),
        [
            new("BatchLines", ["BatchId"]), new("BatchParts", ["DishId"]), new("DoneAhead", ["BatchId"]),
            new("CoolingReadings", ["BatchId"]), new("Verdicts", ["BatchId"]),
        ]),
        new("boxes", "Boxes", ["Id"],
            new("(SELECT RecipeName || ' ' || thing.Number FROM {0}.Batches batch WHERE batch.Id = thing.BatchId)"),
            [new("BoxParts", ["BoxId"]), new("BoxPutIns", ["BoxId"]), new("BoxEvents", ["BoxId"])]),
        new("days", "(SELECT DISTINCT EaterId, Day FROM {0}.PlanItems)", ["EaterId", "Day"], new(Eater, "thing.Day"),
            [new("PlanItems", ["EaterId", "Day"])]),
        new("entries", "Entries", ["Id"], new(Eater, "thing.Day", "thing.Name"), []),
        new("weighIns", "WeighIns", ["EaterId", "Day"], new(Eater, "thing.Day", "thing.Text"), []),
    ];

    /// <summary>What the kitchen knows besides, row by row.</summary>
    private static readonly string[] Kitchen =
    [
        "FoodChoices", "WeighedAs", "KeptMeals", "PlannedDays", "Containers", "EyeTries", "Equipment", "PrepDays", "Runs", "RunOvens",
        "RunTasks", "Aisles", "OwnItems", "Ticks", "SoldAs", "Pantry", "PantryUses", "Keeping", "ReadCautions",
    ];

    /// <summary>What only serves the others: records that they point to, what undo needs, counts, and the foods within libraries.</summary>
    private static readonly string[] Serving =
        ["FoodRecords", "PlanChanges", "PlanVersions", "EaterDays", "LibraryFoods", KeptTable.Sequence];

    private const string Eater = "(SELECT Name FROM {0}.Eaters eater WHERE eater.Id = thing.EaterId)";

    /// <summary>The tables that are looked at, or known to serve others: all there are.</summary>
    public static IReadOnlyCollection<string> Tables { get; } =
    [
        .. Things.Where(thing => !thing.Head.StartsWith('(')).Select(thing => thing.Head),
        .. Things.SelectMany(thing => thing.Children).Select(child => child.Table), .. Kitchen, .. Serving,
    ];

    /// <summary>Finds what differs.</summary>
    /// <param name="db">The household's file.</param>
    /// <param name="work">The backup, as a file of the same shape.</param>
    public static async Task<IReadOnlyList<Difference>> FindAsync(TernDb db, string work)
    {
        ArgumentNullException.ThrowIfNull(db);
        await using var both = new SqliteConnection(TernFile.Unpooled(db.PathOf()));
        await both.OpenAsync();
        await using (var attach = both.CreateCommand())
        {
            attach.CommandText = "ATTACH $work AS backup";
            attach.Parameters.AddWithValue("$work", work);
            await attach.ExecuteNonQueryAsync();
        }

        var tables = KeptTable.AllOf(both).ToDictionary(table => table.Name, StringComparer.Ordinal);
        await using var reading = both.BeginTransaction(deferred: true);
        var question = new Question(both, reading, tables);
        return [.. Things.Select(question.Of), question.OfKitchen()];
    }

    /// <summary>How a cook names a thing: "Isa, 25 Nov: 1 apple".</summary>
    private sealed record Named(string Name, string Day = "NULL", string What = "NULL");

    private sealed record Child(string Table, string[] Of);

    /// <summary>A thing, its table, what names it there, how a cook names it, and the rows that are parts of it.</summary>
    private sealed record Thing(string Kind, string Head, string[] Key, Named Name, Child[] Children)
    {
        public string In(string file) => Head.StartsWith('(')
            ? string.Format(CultureInfo.InvariantCulture, Head, file)
            : $"{file}.{KeptTable.Quoted(Head)}";
    }

    private sealed class Question(SqliteConnection both, SqliteTransaction reading, Dictionary<string, KeptTable> tables)
    {
        private const string Here = "main", There = "backup";

        public Difference Of(Thing thing)
        {
            var only = (string mine, string other) => $"SELECT {Keys(thing, "thing")} FROM {thing.In(mine)} thing WHERE NOT EXISTS "
                + $"(SELECT 1 FROM {thing.In(other)} other WHERE {Same(thing.Key, "other", thing.Key, "thing")})";
            var changed = $"SELECT {Keys(thing, "thing")} FROM ({string.Join(" UNION ", Changed(thing))}) thing "
                + $"WHERE EXISTS (SELECT 1 FROM {thing.In(Here)} h WHERE {Same(thing.Key, "h", thing.Key, "thing")}) "
                + $"AND EXISTS (SELECT 1 FROM {thing.In(There)} b WHERE {Same(thing.Key, "b", thing.Key, "thing")})";
            var (go, come) = (only(Here, There), only(There, Here));
            return new(
                thing.Kind, Count($"SELECT * FROM {thing.In(Here)}"), Count($"SELECT * FROM {thing.In(There)}"), Count(go), Count(come),
                Count(changed), NamesOf(thing, go, Here), NamesOf(thing, come, There), NamesOf(thing, changed, Here));
        }

        public Difference OfKitchen()
        {
            var (here, there, go, come) = (0L, 0L, 0L, 0L);
            foreach (var name in Kitchen)
            {
                var columns = Columns(name, []);
                here += Count($"SELECT 1 FROM {Here}.{name}");
                there += Count($"SELECT 1 FROM {There}.{name}");
                go += Count(Only(name, columns, Here, There));
                come += Count(Only(name, columns, There, Here));
            }

            return new("kitchen", here, there, go, come, 0, [], [], []);
        }

        // A thing is another one where its own row differs, or a row of what belongs to it.
        private IEnumerable<string> Changed(Thing thing)
        {
            if (!thing.Head.StartsWith('(')) yield return Either(thing.Head, thing.Key, thing.Key);
            foreach (var child in thing.Children) yield return Either(child.Table, child.Of, thing.Key);
        }

        private string Either(string table, string[] of, string[] key)
        {
            var columns = Columns(table, of);
            var named = string.Join(", ", of.Select((name, at) => $"{KeptTable.Quoted(name)} AS {KeptTable.Quoted(key[at])}"));
            return $"SELECT {named} FROM ({Only(table, columns, Here, There)}) "
                + $"UNION SELECT {named} FROM ({Only(table, columns, There, Here)})";
        }

        private static string Only(string table, string columns, string mine, string other) =>
            $"SELECT {columns} FROM {mine}.{KeptTable.Quoted(table)} EXCEPT SELECT {columns} FROM {other}.{KeptTable.Quoted(table)}";

        // How often a row was changed, or when it was last used, does not make it another one, nor does a number that SQLite gave it.
        private string Columns(string table, string[] of) => string.Join(
            ", ",
            tables[table].Columns
                .Where(column => !IsCount(table, column) && !IsGiven(column, of)).Select(column => KeptTable.Quoted(column.Name)));

        private static bool IsCount(string table, KeptColumn column) =>
            column.Name is "UsedAt"
            || (column.Name is nameof(IVersioned.Version) && !string.Equals(table, "RecipeVersions", StringComparison.Ordinal));

        private static bool IsGiven(KeptColumn column, string[] of) =>
            column is { Name: "Id", Holds: Holds.Whole } && !of.Contains(column.Name, StringComparer.Ordinal);

        private List<string> NamesOf(Thing thing, string which, string file)
        {
            var name = string.Format(
                CultureInfo.InvariantCulture, $"{thing.Name.Name}, {thing.Name.Day}, {thing.Name.What}", file);
            var names = new List<string>();
            using var command = Command(
                $"SELECT {name} FROM {thing.In(file)} thing JOIN ({which}) which ON {Same(thing.Key, "thing", thing.Key, "which")} "
                + $"ORDER BY 2 DESC, 1, 3 LIMIT {MostNamed.ToString(CultureInfo.InvariantCulture)}");
            using var rows = command.ExecuteReader();
            while (rows.Read())
            {
                var day = rows.IsDBNull(1) ? "" : ", " + DayOf(rows.GetString(1)).ToString("d MMM", CultureInfo.InvariantCulture);
                var what = rows.IsDBNull(2) ? "" : ": " + rows.GetString(2);
                if (!rows.IsDBNull(0)) names.Add(rows.GetString(0) + day + what);
            }

            return names;
        }

        private static DateOnly DayOf(string stored) => DateOnly.ParseExact(stored, "yyyy-MM-dd", CultureInfo.InvariantCulture);

        private long Count(string select)
        {
            using var command = Command($"SELECT count(*) FROM ({select})");
            return (long)command.ExecuteScalar()!;
        }

        private SqliteCommand Command(string sql)
        {
            var command = both.CreateCommand();
            (command.Transaction, command.CommandText) = (reading, sql);
            return command;
        }

        private static string Keys(Thing thing, string of) => string.Join(", ", thing.Key.Select(name => $"{of}.{KeptTable.Quoted(name)}"));

        private static string Same(string[] ours, string us, string[] theirs, string them) => string.Join(
            " AND ", ours.Zip(theirs, (our, their) => $"{us}.{KeptTable.Quoted(our)} = {them}.{KeptTable.Quoted(their)}"));
    }
}
