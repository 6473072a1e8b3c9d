using System.Globalization;
using System.IO.Compression;
using System.Text;
using LivelyTern.Core.Measures;
using LivelyTern.Data;
using LivelyTern.Data.Aim;
using LivelyTern.Data.Backup;
using LivelyTern.Data.Disk;
using LivelyTern.Formats;
using LivelyTern.Web.Foods;
using LivelyTern.Web.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;

namespace LivelyTern.Web.Backup;

/// <summary>A copy of the household's file.</summary>
/// <param name="Name">Its file's name.</param>
/// <param name="Kind">Why it was made.</param>
/// <param name="Day">The day it was made.</param>
/// <param name="MadeAt">When.</param>
/// <param name="Bytes">How large it is.</param>
public sealed record CopyView(string Name, CopyKind Kind, DateOnly Day, DateTimeOffset MadeAt, long Bytes);

/// <summary>The copies there are.</summary>
/// <param name="Copies">The newest first.</param>
/// <param name="Kept">How many of each kind are kept.</param>
/// <param name="IsDaily">Whether one is made each day.</param>
/// <param name="Trouble">Why today's could not be made; null where there is nothing to say.</param>
public sealed record CopiesView(IReadOnlyList<CopyView> Copies, int Kept, bool IsDaily, string? Trouble);

/// <summary>A backup that was read through: what putting it back would change.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Name">What its file was called.</param>
/// <param name="IsSame">Whether it holds just what is here.</param>
/// <param name="Differences">For each kind of thing what would go, come and change.</param>
public sealed record RestoreView(Guid Id, string Name, bool IsSame, IReadOnlyList<Difference> Differences);

/// <summary>Somebody of whom something is kept.</summary>
/// <param name="Id">Who.</param>
/// <param name="Name">Their name.</param>
/// <param name="IsAtTable">Whether they eat here now.</param>
public sealed record KeptEaterView(Guid Id, string Name, bool IsAtTable);

/// <summary>An eater to be erased.</summary>
/// <param name="Name">Their name, as it stands here.</param>
/// <param name="CopiesToo">Whether the copies on this machine, which still hold them, are deleted as well; then a new one is made.</param>
public sealed record EraseRequest(string Name, bool CopiesToo);

/// <summary>Somebody was erased.</summary>
/// <param name="Entries">How many things eaten went with them.</param>
/// <param name="Trouble">What of them may still lie on the disk, and why; null where all went well.</param>
public sealed record ErasedView(int Entries, string? Trouble);

/// <summary>It was put back.</summary>
/// <param name="Before">The copy of what was here before.</param>
public sealed record RestoredView(CopyView Before);

/// <summary>Everything out and in: a full backup as JSON or as the database file, what would change, and the daily copies.</summary>
public static class BackupEndpoints
{
    private const string SqliteType = "application/vnd.sqlite3", CsvType = "text/csv";

    private static readonly Dictionary<string, Func<HouseholdSheets, Guid?, Task<Sheet>>> Sheets = new(StringComparer.Ordinal)
    {
        ["entries"] = (sheets, eaterId) => sheets.EntriesAsync(eaterId),
        ["weighIns"] = (sheets, eaterId) => sheets.WeighInsAsync(eaterId),
        ["boxes"] = (sheets, eaterId) => sheets.BoxesAsync(eaterId),
        ["plan"] = (sheets, eaterId) => sheets.PlanAsync(eaterId),
    };

    /// <summary>Maps <c>/api/backup</c>.</summary>
    public static void MapBackup(this IEndpointRouteBuilder api)
    {
        var backup = api.MapGroup("/backup").WithTags("Backup");
        backup.MapGet("/", WriteJsonAsync).WithName("getBackup").Produces<Stream>(contentType: "application/json");
        backup.MapGet("/file", WriteFileAsync).WithName("getBackupFile").Produces<Stream>(contentType: SqliteType);
        backup.MapGet("/copies", (Copies copies, DailyCopies daily, StartOptions start) => Show(copies, daily, start))
            .WithName("listCopies");
        backup.MapPost("/copies", async Task<Results<Ok<CopiesView>, ProblemHttpResult>> (
            Copies copies, DailyCopies daily, StartOptions start) => await daily.MakeAsync(copies)
                ? TypedResults.Ok(Show(copies, daily, start))
                : Answers.Problem([new("copy-failed", "", daily.Trouble!)])).WithName("makeCopy");
        backup.MapGet("/sheets/{name}.csv", WriteSheetAsync).WithName("getSheet").Produces<string>(contentType: CsvType);
        backup.MapGet("/eaters", async (EaterStore eaters) => (await eaters.EverybodyAsync()).Where(row => !EraseEater.IsSomebody(row.Id))
            .Select(row => new KeptEaterView(row.Id, row.Name, row.ArchivedAt is null)).ToList()).WithName("listKeptEaters");
        backup.MapPost("/eaters/{id:guid}/erase", EraseAsync).WithName("eraseEater");
        backup.MapGet("/eaters/{id:guid}", WriteOwnAsync).WithName("getOwnData").Produces<Stream>(contentType: "application/zip");
        var restores = backup.MapGroup("/restores");
        restores.MapPost("/", async Task<Results<Ok<RestoreView>, ProblemHttpResult>> (
            string? name, HttpRequest request, RestoreDesk desk, TernDb db, CancellationToken stop) =>
            (await desk.TakeInAsync(NameOf(name), request.Body, db, stop)).Answer(Show))
            .WithMetadata(new RequestSizeLimitAttribute(ImportEndpoints.LargestFile)).Accepts<Stream>("application/octet-stream")
            .WithName("lookAtBackup");
        restores.MapPost("/copies/{name}", LookAtCopyAsync).WithName("lookAtCopy");
        restores.MapPost("/{id:guid}/apply", ApplyAsync).WithName("putBack");
        restores.MapDelete("/{id:guid}", (Guid id, RestoreDesk desk) => desk.InTurnAsync(id, _ =>
        {
            desk.Drop(id);
            return Task.FromResult(TypedResults.NoContent());
        })).WithName("dropBackup");
    }

    private static async Task WriteJsonAsync(HttpContext http, BackupWriter writer, TimeProvider clock)
    {
        var response = http.Response;
        Name(response, clock, "json", "application/json");

        // On one machine squeezing it costs more than it saves.
        response.Headers.ContentEncoding = "identity";
        await writer.WriteAsync(response.Body, http.RequestAborted);
    }

    private static byte[] CsvOf(Sheet sheet) => Encoding.UTF8.GetBytes(CsvText.Write(sheet.Header, sheet.Rows));

    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> WriteSheetAsync(
        string name, Guid? eaterId, HouseholdSheets sheets, TimeProvider clock) => Sheets.TryGetValue(name, out var sheet)
            ? TypedResults.File(
                CsvOf(await sheet(sheets, eaterId)), CsvType + "; charset=utf-8",
                string.Create(CultureInfo.InvariantCulture, $"{name}-{clock.Today():yyyy-MM-dd}.csv"))
            : Answers.Problem([Stale.Gone("table")]);

    // A zip, so that it is one thing to hand over.
    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> WriteOwnAsync(
        Guid id, EaterStore eaters, BackupWriter writer, HouseholdSheets sheets, TimeProvider clock, CancellationToken stop)
    {
        if (await eaters.FindAsync(id) is not { } eater) return Answers.Problem([Stale.Gone("eater")]);
        using var zipped = new MemoryStream();
        await using (var zip = new ZipArchive(zipped, ZipArchiveMode.Create, leaveOpen: true))
        {
            await using (var json = await zip.CreateEntry("own.json").OpenAsync(stop)) await writer.WriteOfAsync(json, id, stop);
            foreach (var (name, sheet) in Sheets)
            {
                await using var csv = await zip.CreateEntry(name + ".csv").OpenAsync(stop);
                await csv.WriteAsync(CsvOf(await sheet(sheets, id)), stop);
            }
        }

        return TypedResults.File(
            zipped.ToArray(), "application/zip",
            string.Create(CultureInfo.InvariantCulture, $"{eater.Name}-{clock.Today():yyyy-MM-dd}.zip"));
    }

    private static async Task<Results<Ok<ErasedView>, ProblemHttpResult>> EraseAsync(
        Guid id, EraseRequest body, EraseEater erase, Copies copies, DailyCopies daily)
    {
        var erased = await erase.RunAsync(id, body.Name);
        if (!erased.Succeeded) return Answers.Problem(erased.Problems);
        var (entries, trace) = erased.Value!;
        var trouble = trace is null ? null : $"They are erased, but free parts of the file may still hold them. {trace}";
        if (body.CopiesToo) trouble = await MakeCopiesAnewAsync(copies, daily) ?? trouble;
        return TypedResults.Ok(new ErasedView(entries, trouble));
    }

    private static async Task<string?> MakeCopiesAnewAsync(Copies copies, DailyCopies daily)
    {
        try
        {
            copies.DeleteAll();
        }
        catch (Exception error) when (Copies.IsOfTheDisk(error))
        {
            return $"They are erased, but not all copies could be deleted. {FileTrouble.Why(error)}";
        }

        return await daily.MakeAsync(copies) ? null : daily.Trouble;
    }

    private static async Task WriteFileAsync(HttpContext http, Copies copies, WorkFolder work, TimeProvider clock)
    {
        var path = Path.Combine(work.Of("backups"), Guid.NewGuid().ToString("N"));
        try
        {
            await copies.WriteToAsync(path);
            Name(http.Response, clock, "db", SqliteType);
            http.Response.ContentLength = new FileInfo(path).Length;
            await http.Response.SendFileAsync(path, http.RequestAborted);
        }
        finally
        {
            File.Delete(path);
        }
    }

    private static void Name(HttpResponse response, TimeProvider clock, string ending, string type)
    {
        response.ContentType = type;
        response.Headers.ContentDisposition = string.Create(
            CultureInfo.InvariantCulture, $"attachment; filename=\"lively-tern-{clock.Today():yyyy-MM-dd}.{ending}\"");
    }

    private static async Task<Results<Ok<RestoreView>, ProblemHttpResult>> LookAtCopyAsync(
        string name, Copies copies, RestoreDesk desk, TernDb db, CancellationToken stop)
    {
        if (copies.Find(name) is not { } path) return Answers.Problem([Stale.Gone("copy")]);
        await using var file = File.OpenRead(path);
        return (await desk.TakeInAsync(name, file, db, stop)).Answer(Show);
    }

    private static Task<Results<Ok<RestoredView>, ProblemHttpResult>> ApplyAsync(
        Guid id, RestoreDesk desk, RestoreBackup restore, ImportDesk imports, TernDb db, TimeProvider clock) =>
        desk.InTurnAsync(id, waiting => PutBackAsync(waiting, desk, restore, imports, db, clock));

    private static async Task<Results<Ok<RestoredView>, ProblemHttpResult>> PutBackAsync(
        WaitingRestore? waiting, RestoreDesk desk, RestoreBackup restore, ImportDesk imports, TernDb db, TimeProvider clock)
    {
        if (waiting is null) return Answers.Problem([Stale.Gone("backup")]);
        if (imports.IsTaking)
            return Answers.Problem([new("import-running", "", "A table of foods is being taken in: wait for its end, or stop it.")]);
        var restored = await restore.RunAsync(waiting.Path, waiting.Seen);
        if (restored.Succeeded) desk.Drop(waiting.Id);
        return await restored.AnswerWriteAsync(
            copy => Task.FromResult(new RestoredView(Show(copy, clock))),
            async () => Show(await desk.LookAgainAsync(waiting, db)));
    }

    private static CopiesView Show(Copies copies, DailyCopies daily, StartOptions start) => new(
        [.. copies.List().Select(copy => Show(copy, start.Clock))], Copies.Kept, !start.IsDemo, daily.Trouble);

    private static CopyView Show(Copy copy, TimeProvider clock) =>
        new(copy.Name, copy.Kind, clock.DayOf(copy.MadeAt), copy.MadeAt, copy.Bytes);

    private static RestoreView Show(WaitingRestore restore) => new(
        restore.Id, restore.Name, restore.Differences.All(difference => difference.IsNone), restore.Differences);

    private static string NameOf(string? path) =>
        Path.GetFileName(path ?? "") is { Length: > 0 } name ? name[..Math.Min(name.Length, 120)] : "a backup";
}
