using System.Threading.Channels;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Data.Disk;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using SQLitePCL;
using static SQLitePCL.raw;

namespace LivelyTern.Data.Foods;

/// <summary>What an import came to.</summary>
/// <param name="Taken">Rows taken.</param>
/// <param name="Refused">Rows refused.</param>
/// <param name="Doubtful">Rows taken that look wrong.</param>
/// <param name="Refusals">Refused rows, some of them, each with its reason.</param>
/// <param name="DoubtfulRows">Rows that look wrong, some of them.</param>
/// <param name="Reasons">For each kind of refusal or doubt how many rows have it.</param>
public sealed record ImportReport(
    long Taken, long Refused, long Doubtful, IReadOnlyList<ImportedRow> Refusals, IReadOnlyList<ImportedRow> DoubtfulRows,
    IReadOnlyDictionary<string, long> Reasons);

/// <summary>Counts rows as they pass.</summary>
public sealed class ImportTally
{
    private const int Shown = 100, MostReasons = 200;
    private readonly List<ImportedRow> refusals = [];
    private readonly List<ImportedRow> doubtful = [];
    private readonly Dictionary<string, long> reasons = new(StringComparer.Ordinal);

    // Of names only what tells them apart: 64 bits, so that millions of them fit.
    private readonly HashSet<ulong> names = [];
    private long taken, refused, doubted;

    /// <summary>The row, counted; one whose name was there before gains that doubt.</summary>
    public ImportedRow Count(ImportedRow row)
    {
        ArgumentNullException.ThrowIfNull(row);
        if (row.Food is null)
        {
            refused++;
            Reason("refused: " + row.Refused!.Split('“')[0].Trim());
            if (refusals.Count < Shown) refusals.Add(row);
            return row;
        }

        taken++;
        if (!names.Add(MarkOf(row.Food.Name)))
            row = row with { Doubts = [.. row.Doubts, new("name-twice", "Another row has the same name.")] };
        if (row.Doubts.Count == 0) return row;
        doubted++;
        foreach (var doubt in row.Doubts) Reason(doubt.Code);
        if (doubtful.Count < Shown) doubtful.Add(row);
        return row;
    }

    /// <summary>What was counted so far.</summary>
    public ImportReport Report() =>
        new(
            taken, refused, doubted, [.. refusals], [.. doubtful],
            reasons.OrderByDescending(pair => pair.Value).Take(40).ToDictionary(StringComparer.Ordinal));

    private void Reason(string reason)
    {
        if (reasons.Count < MostReasons || reasons.ContainsKey(reason)) reasons[reason] = reasons.GetValueOrDefault(reason) + 1;
    }

    // FNV-1a, whatever the case. http://www.isthe.com/chongo/tech/comp/fnv/
    private static ulong MarkOf(string name)
    {
        var mark = 14_695_981_039_346_656_037UL;
        foreach (var letter in name) mark = unchecked((mark ^ char.ToUpperInvariant(letter)) * 1_099_511_628_211UL);
        return mark;
    }
}

/// <summary>
/// Writes a library: in parts of some thousand rows, each in its turn, so that other writing waits for one part at most, and out of sight
/// until it is whole. What is stopped or breaks off is taken back.
/// </summary>
public sealed class LibraryWriter(TernDb db, CachedRead<LibraryWords> words, TimeProvider clock)
{
    private const int Part = 4_000;
    private const string Insert =
        "INSERT INTO LibraryFoods (LibraryId, Code, Name, \"Group\", Convention, Measures, Gtin, IsDoubtful, Energy, Protein, Fat, "
        + "SaturatedFat, Carbohydrate, Sugars, Fibre, Salt, Polyols, Alcohol) "
        + "VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)";

    /// <summary>Takes all rows as one library.</summary>
    /// <param name="name">What it is called.</param>
    /// <param name="source">Its source and licence, in words.</param>
    /// <param name="rows">The rows.</param>
    /// <param name="stop">Stops it: then nothing of it stays.</param>
    public async Task<(LibraryRow Library, ImportReport Report)> WriteAsync(
        string name, string source, IEnumerable<ImportedRow> rows, CancellationToken stop)
    {
        ArgumentNullException.ThrowIfNull(rows);
        var library = new LibraryRow { Name = name, Source = source, ImportedAt = clock.GetUtcNow() };
        db.Libraries.Add(library);
        await db.SaveChangesAsync(CancellationToken.None);
        var tally = new ImportTally();
        try
        {
            await using var connection = new SqliteConnection(db.Database.GetConnectionString());
            await connection.OpenAsync(stop);
            await ExecuteAsync(connection, "PRAGMA synchronous = NORMAL");
            await ExecuteAsync(connection, "PRAGMA wal_autocheckpoint = 0");

            // The next parts are read and checked while one is written; no more than one waits.
            var parts = Channel.CreateBounded<ImportedRow[]>(new BoundedChannelOptions(1) { SingleReader = true, SingleWriter = true });
            using var both = CancellationTokenSource.CreateLinkedTokenSource(stop);
            var reading = ReadAsync(rows, tally, parts.Writer, both.Token);
            try
            {
                await foreach (var part in parts.Reader.ReadAllAsync(stop))
                {
                    using var turn = await TurnAsync(stop);
                    WritePart(connection, library.Id, part);
                }
            }
            finally
            {
                await both.CancelAsync();
                await reading.ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
            }

            stop.ThrowIfCancellationRequested();
            await ExecuteAsync(connection, "PRAGMA wal_checkpoint(PASSIVE)");
        }
        catch
        {
            await RemoveAsync(library.Id);
            throw;
        }

        var report = tally.Report();
        (library.IsWhole, library.Taken, library.Refused, library.Doubtful) = (true, report.Taken, report.Refused, report.Doubtful);
        await db.SaveChangesAsync(CancellationToken.None);
        words.Forget();
        return (library, report);
    }

    /// <summary>Takes a library away as one. Foods of it that something was written with were taken into the kitchen and stay.</summary>
    /// <returns>Whether it was there.</returns>
    public async Task<bool> RemoveAsync(int id)
    {
        using (await TurnAsync())
            await db.Libraries.Where(row => row.Id == id).ExecuteUpdateAsync(set => set.SetProperty(row => row.IsWhole, false));
        await using (var connection = new SqliteConnection(db.Database.GetConnectionString()))
        {
            await connection.OpenAsync();
            // Names are kept in pieces. One is written anew only when nearly all of it is gone, as a library's own pieces soon are, and not
            // after every tenth.
            using (await TurnAsync()) await ExecuteAsync(
                connection, "INSERT INTO LibraryNames (LibraryNames, rank) VALUES ('deletemerge', 90)");
            for (var gone = 1; gone > 0;)
            {
                using var turn = await TurnAsync();
                await using var transaction = (SqliteTransaction)await connection.BeginTransactionAsync();
                var part = $"SELECT Id FROM LibraryFoods WHERE LibraryId = {id} LIMIT {Part}";
                await ExecuteAsync(connection, $"DELETE FROM LibraryNames WHERE rowid IN ({part})", transaction);
                gone = await ExecuteAsync(connection, $"DELETE FROM LibraryFoods WHERE Id IN ({part})", transaction);
                await transaction.CommitAsync();
            }
        }

        int was;
        using (await TurnAsync()) was = await db.Libraries.Where(row => row.Id == id).ExecuteDeleteAsync();
        db.ChangeTracker.Clear();
        words.Forget();
        return was > 0;
    }

    /// <summary>Takes away what a crash left half written.</summary>
    public async Task RemoveHalvesAsync()
    {
        foreach (var id in await db.Libraries.Where(row => !row.IsWhole).Select(row => row.Id).ToListAsync()) await RemoveAsync(id);
    }

    private Task<IDisposable> TurnAsync(CancellationToken stop = default) => WriteTurn.TakeAsync(db.Database.GetConnectionString(), stop);

    private static Task ReadAsync(
        IEnumerable<ImportedRow> rows, ImportTally tally, ChannelWriter<ImportedRow[]> parts, CancellationToken stop) =>
        Task.Run(
        async () =>
        {
            try
            {
                foreach (var part in rows.Select(tally.Count).Where(row => row.Food is not null).Chunk(Part))
                    await parts.WriteAsync(part, stop);
                parts.Complete();
            }
            catch (Exception error)
            {
                parts.Complete(error);
                throw;
            }
        },
        CancellationToken.None);

    // Bound by place through SQLite's own functions: looking each parameter up by its name would take longer than the insert.
    private static void WritePart(SqliteConnection connection, int library, ImportedRow[] part)
    {
        using var transaction = connection.BeginTransaction();
        var db = connection.Handle!;
        Check(db, sqlite3_prepare_v2(db, Insert, out var insert));
        try
        {
            foreach (var row in part)
            {
                Bind(insert, library, row);
                if (sqlite3_step(insert) != SQLITE_DONE) Check(db, sqlite3_errcode(db));
                sqlite3_reset(insert);
            }
        }
        finally
        {
            sqlite3_finalize(insert);
        }

        var end = sqlite3_last_insert_rowid(db);
        using var index = connection.CreateCommand();
        index.Transaction = transaction;
        index.CommandText = "INSERT INTO LibraryNames (rowid, Name) SELECT Id, Name FROM LibraryFoods WHERE Id > $from AND Id <= $to";
        index.Parameters.AddWithValue("$from", end - part.Length);
        index.Parameters.AddWithValue("$to", end);
        index.ExecuteNonQuery();
        transaction.Commit();
    }

    private static void Bind(sqlite3_stmt insert, int library, ImportedRow row)
    {
        var food = row.Food!;
        sqlite3_bind_int(insert, 1, library);
        sqlite3_bind_text(insert, 2, food.Code);
        sqlite3_bind_text(insert, 3, food.Name);
        sqlite3_bind_int(insert, 4, (int)food.Group);
        sqlite3_bind_int(insert, 5, (int)food.Convention);
        if (food.Measures is null) sqlite3_bind_null(insert, 6);
        else sqlite3_bind_text(insert, 6, food.Measures);
        if (food.Gtin is null) sqlite3_bind_null(insert, 7);
        else sqlite3_bind_text(insert, 7, food.Gtin);
        sqlite3_bind_int(insert, 8, row.Doubts.Count > 0 ? 1 : 0);
        for (var i = 0; i < Nutrients.All.Count; i++)
        {
            if (food.Per100g[(Nutrient)i] is { } figure) sqlite3_bind_double(insert, 9 + i, (double)figure);
            else sqlite3_bind_null(insert, 9 + i);
        }
    }

    private static void Check(sqlite3 db, int code)
    {
        if (code != SQLITE_OK) throw new SqliteException(sqlite3_errmsg(db).utf8_to_string(), code);
    }

    private static async Task<int> ExecuteAsync(SqliteConnection connection, string sql, SqliteTransaction? transaction = null)
    {
        await using var command = connection.CreateCommand();
        (command.CommandText, command.Transaction) = (sql, transaction);
        return await command.ExecuteNonQueryAsync();
    }
}
