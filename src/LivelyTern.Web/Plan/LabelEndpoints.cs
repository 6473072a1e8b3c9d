using LivelyTern.Core.Measures;
using LivelyTern.Core.Plan.Labels;
using LivelyTern.Data.Plan;
using LivelyTern.Devices.Printer;
using LivelyTern.Formats.Labels;
using LivelyTern.Web.Devices;
using LivelyTern.Web.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;

namespace LivelyTern.Web.Plan;

/// <summary>Labels: on the screen, as PDF, on the label printer; and the box a label's code names.</summary>
public static class LabelEndpoints
{
    private const int DotsPerInch = 300, LongestHome = 200;

    /// <summary>Maps <c>/api/labels</c>, <c>/api/keep/codes</c> and <c>/api/pack/dishes</c>.</summary>
    public static void MapLabels(this IEndpointRouteBuilder api)
    {
        var labels = api.MapGroup("/labels").WithTags("Labels");
        labels.MapGet("/papers", () => LabelPaper.All.Select(Show).ToList()).WithName("listLabelPapers");
        labels.MapPost("", async (LabelsRequest body, LabelDesk desk, HttpRequest request) =>
            (await DrawAsync(body, desk, request)).Answer(drawn => new LabelsView(
                drawn.Labels.Labels, drawn.Labels.Gone, drawn.Home.GetLeftPart(UriPartial.Authority),
                [.. Enumerable.Range(0, drawn.Labels.Sheet.Pages.Count).Select(drawn.Labels.Sheet.Svg)]))).WithName("drawLabels");
        labels.MapPost("/pdf", async Task<Results<FileContentHttpResult, ProblemHttpResult>> (
            LabelsRequest body, LabelDesk desk, HttpRequest request) =>
        {
            var drawn = await DrawAsync(body, desk, request);
            if (!drawn.Succeeded) return Answers.Problem(drawn.Problems);
            return TypedResults.File(drawn.Value!.Labels.Sheet.Pdf("Labels"), "application/pdf", "labels.pdf");
        }).WithName("labelsAsPdf");
        labels.MapPost("/print", async Task<Results<Ok<PrintLabelsAnswer>, ProblemHttpResult>> (
            PrintLabelsRequest body, LabelDesk desk, DeviceDesk devices, HttpRequest request, CancellationToken stop) =>
        {
            if (await devices.PrinterAsync() is not { } printer) return Answers.Problem([DeviceEndpoints.NoPrinter]);
            var drawn = await DrawAsync(body.Labels with { From = 1 }, desk, request);
            if (!drawn.Succeeded) return Answers.Problem(drawn.Problems);
            var sheet = drawn.Value!.Labels.Sheet;
            if (!sheet.Paper.IsStrip)
                return Answers.Problem([new("paper-sheet", "paper", "A label printer prints strips: choose one, or print the sheet.")]);
            return TypedResults.Ok(await PrintAsync(sheet, Math.Max(0, body.After), printer, stop));
        }).WithName("printLabels");

        api.MapGet("/keep/codes/{code}", async (string code, BoxPages pages) => (await pages.FindAsync(code)).Answer(page => page))
            .WithTags("Keep").WithName("findBox");
        api.MapPost("/keep/codes", async (ReadCodeRequest body, BoxPages pages) => (await pages.FindAsync(body.Text)).Answer(page => page))
            .WithTags("Keep").WithName("readCode");
        var dishes = api.MapGroup("/pack/dishes/{recipeId:guid}/notes").WithTags("Pack");
        dishes.MapGet("", async (Guid recipeId, BoxNotesStore store) =>
            (await store.OfAsync([recipeId])).TryGetValue(recipeId, out var own)
                ? new BoxNotesView(own.Notes.Heating, own.Notes.AtEating, own.Version)
                : new BoxNotesView(null, null, 0)).WithName("getBoxNotes");
        dishes.MapPut("", async Task<Results<Ok<BoxNotesView>, ProblemHttpResult>> (
            Guid recipeId, BoxNotesRequest body, [FromHeader(Name = "If-Match")] string? ifMatch, BoxNotesStore store) =>
        {
            var (version, missing) = Answers.VersionOf(ifMatch);
            if (missing is not null) return missing;
            var notes = BoxNotes.Of(body.Heating, body.AtEating);
            if (!notes.Succeeded) return Answers.Problem(notes.Problems);
            var (heating, atEating) = (notes.Value!.Heating, notes.Value.AtEating);
            return (await store.SetAsync(recipeId, version, notes.Value)).Answer(now => new BoxNotesView(heating, atEating, now));
        }).WithName("setBoxNotes");
    }

    // One after the other, until one is not printed.
    private static async Task<PrintLabelsAnswer> PrintAsync(LabelSheet sheet, int after, ILabelPrinter printer, CancellationToken stop)
    {
        var (of, size) = (sheet.Pages.Count, sheet.Paper.Label);
        for (var i = after; i < of; i++)
        {
            var says = await printer.PrintAsync(new(sheet.Png(i, DotsPerInch), size.Width, size.Height), stop);
            if (says != PrintSays.Printed) return new(i, of, says);
        }

        return new(of, of, PrintSays.Printed);
    }

    private static async Task<Outcome<(DrawnLabels Labels, Uri Home)>> DrawAsync(LabelsRequest body, LabelDesk desk, HttpRequest request)
    {
        var said = string.IsNullOrWhiteSpace(body.Home) ? $"{request.Scheme}://{request.Host}" : body.Home.Trim();
        if (said.Length > LongestHome || !Uri.TryCreate(said, UriKind.Absolute, out var home) || home.Scheme is not ("http" or "https"))
            return new Problem("home-unclear", "home", "An address looks like http://192.168.1.5:5080.");
        var drawn = await desk.DrawAsync(body, home);
        return drawn.Succeeded ? (drawn.Value!, home) : drawn.Problems.ToList();
    }

    private static LabelPaperView Show(LabelPaper paper) => new(
        paper.Code, paper.Name, paper.Page.Width, paper.Page.Height, paper.Columns, paper.Rows, paper.IsStrip);
}
