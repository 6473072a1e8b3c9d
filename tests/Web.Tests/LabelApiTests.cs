using System.Net.Http.Json;
using System.Text.Json.Nodes;
using System.Xml.Linq;

namespace LivelyTern.Web.Tests;

/// <summary>Labels and their codes: before the boxes are filled, while they are there, when they are gone.</summary>
public sealed class LabelApiTests : IDisposable
{
    private readonly Host host = new();

    public void Dispose() => host.Dispose();

    private static string CodeOf(JsonNode body) => (string)body["errors"]![0]!["code"]!;

    // What the labels say, in words: the titles of the drawing.
    private static List<string> Said(JsonNode labels) =>
    [
        .. labels["pages"]!.AsArray().SelectMany(page => XDocument.Parse((string)page!).Descendants())
            .Where(one => one.Name.LocalName == "title").Select(one => one.Value),
    ];

    private static List<string> Codes(JsonNode labels) => Said(labels).ConvertAll(said => said[(said.LastIndexOf(' ') + 1)..]);

    private async Task<JsonNode> BatchAsync(JsonNode batch) => await host.GetAsync($"/api/pack/batches/{batch["id"]}");

    private async Task<JsonNode> CookAsync(int portions = 4)
    {
        var recipe = await host.PostAsync(
            "/api/recipes", new { name = "Lentil stew", lines = new[] { "1 kg red lentils, dry", "2 l water", "100 g butter" }, portions });
        return await host.PostAsync("/api/cook/batches", new { recipeId = recipe["id"] });
    }

    private async Task<JsonNode> PackAsync(JsonNode batch, object body) =>
        await host.PostAsync($"/api/pack/batches/{batch["id"]}/boxes", body, (int)(await BatchAsync(batch))["version"]!);

    private static Guid[] Ids(JsonNode batch) => [.. batch["boxes"]!.AsArray().Select(box => (Guid)box!["id"]!)];

    [Fact]
    public async Task A_label_made_before_its_box_is_filled_is_the_label_of_that_box_also_when_it_is_filled_anew()
    {
        var batch = await CookAsync();
        var order = new { fullGrams = 2800, panGrams = 0, boxes = 4 };
        var ahead = await host.PostAsync("/api/labels", new { paper = "strip-62x29", batchId = batch["id"], order });
        Assert.Equal((4, 0, 4), ((int)ahead["labels"]!, (int)ahead["gone"]!, ahead["pages"]!.AsArray().Count));
        Assert.All(Said(ahead), said => Assert.Contains("about 700 g", said));
        Assert.All(Said(ahead), said => Assert.Contains("Contains milk", said));
        var codes = Codes(ahead);
        var (status, early) = await host.SendAsync(HttpMethod.Get, $"/api/keep/codes/{codes[1]}");
        Assert.Equal((422, "label-ahead"), (status, CodeOf(early)));

        var packed = await PackAsync(batch, order);
        var filled = await host.PostAsync("/api/labels", new { paper = "a4-3x8", boxIds = Ids(packed), from = 23 });
        Assert.Equal(codes, Codes(filled));
        Assert.Equal(2, filled["pages"]!.AsArray().Count);
        Assert.All(Said(filled), said => Assert.Contains(". 700 g", said));
        var page = await host.GetAsync($"/api/keep/codes/{codes[1]}");
        Assert.Equal((Ids(packed)[1], 2, "packed"), ((Guid)page["id"]!, (int)page["number"]!, (string)page["state"]!));
        var late = new { paper = "a4-3x8", batchId = batch["id"], order };
        Assert.Equal(409, (await host.SendAsync(HttpMethod.Post, "/api/labels", late)).Status);

        // Back in the pan its label is of no box; filled anew, the same number is the new box's.
        await host.MustAsync(HttpMethod.Delete, $"/api/pack/batches/{batch["id"]}/boxes", null, (int)(await BatchAsync(batch))["version"]!);
        Assert.Equal("label-gone", CodeOf((await host.SendAsync(HttpMethod.Get, $"/api/keep/codes/{codes[1]}")).Body));
        var anew = await PackAsync(batch, new { fullGrams = 2800, boxes = 2 });
        var digits = codes[1].Replace("-", "", StringComparison.Ordinal);
        var found = await host.PostAsync("/api/keep/codes", new { text = $"http://another.lan/box/{digits}" });
        Assert.Equal((Ids(anew)[1], 1400), ((Guid)found["id"]!, (decimal)found["packedGrams"]!));
        Assert.Equal("label-gone", CodeOf((await host.SendAsync(HttpMethod.Get, $"/api/keep/codes/{codes[3]}")).Body));
    }

    [Fact]
    public async Task What_is_eaten_or_gone_has_no_label_any_more_and_its_page_says_what_became_of_it()
    {
        var eater = (Guid)(await host.PostAsync("/api/aim/eaters", new
        {
            name = "Isa",
            aim = new { leading = "protein", bands = new { protein = new { min = 100 } }, rule = (object?)null },
        }))["id"]!;
        var packed = await PackAsync(await CookAsync(), new { fullGrams = 2800, boxes = 4 });
        var ids = Ids(packed);
        var code = Codes(await host.PostAsync("/api/labels", new { paper = "a4-2x7", boxIds = ids }));
        async Task DoAsync(string path, object body) => await host.PostAsync(path, body, await host.PlanVersionAsync());
        await DoAsync("/api/keep/boxes/eaten", new { boxIds = new[] { ids[0] }, eaterId = eater, day = "2026-11-25" });
        await DoAsync("/api/keep/boxes/let-go", new { boxIds = new[] { ids[1] }, isThrownAway = true, why = "it fell" });
        await DoAsync("/api/plan/boxes", new { boxId = ids[2], eaterId = eater, day = "2026-12-03" });

        var left = await host.PostAsync("/api/labels", new { paper = "a4-2x7", boxIds = ids });
        Assert.Equal((2, 2), ((int)left["labels"]!, (int)left["gone"]!));
        Assert.Equal(code[2..], Codes(left));
        Assert.Contains("Isa, Thu 3 Dec", Said(left)[0]);
        Assert.Contains("Freeze Wed 25 Nov · Thaw Wed 2 Dec", Said(left)[0]);

        // 1,000 g of dry lentils and 100 g of butter in four boxes: her leading measure stands beside the energy.
        Assert.Matches(@"\d kcal · [\d.]+ g protein", Said(left)[0]);
        var eaten = await host.GetAsync($"/api/keep/codes/{code[0]}");
        Assert.Equal(("eaten", "eaten"), ((string)eaten["state"]!, (string)eaten["happened"]![0]!["kind"]!));
        var thrown = await host.GetAsync($"/api/keep/codes/{code[1]}");
        Assert.Equal(("thrownAway", "it fell"), ((string)thrown["state"]!, (string)thrown["happened"]![0]!["why"]!));
    }

    [Fact]
    public async Task What_is_written_of_a_dish_stands_on_its_labels_and_two_hands_do_not_overwrite_each_other()
    {
        var batch = await CookAsync();
        var recipe = (await BatchAsync(batch))["recipeId"];
        var at = $"/api/pack/dishes/{recipe}/notes";
        Assert.Equal(0, (int)(await host.GetAsync(at))["version"]!);
        var first = await host.MustAsync(HttpMethod.Put, at, new { heating = "3 min,  lid ajar", atEating = "" }, 0);
        Assert.Equal((1, "3 min, lid ajar", null), ((int)first["version"]!, (string)first["heating"]!, (string?)first["atEating"]));
        Assert.Equal(412, (await host.SendAsync(HttpMethod.Put, at, new { heating = "other", atEating = "" }, 0)).Status);
        await host.MustAsync(HttpMethod.Put, at, new { heating = "3 min, lid ajar", atEating = "lemon" }, 1);
        Assert.Equal(422, (await host.SendAsync(HttpMethod.Put, at, new { heating = new string('x', 121), atEating = "" }, 2)).Status);
        Assert.Equal(428, (await host.SendAsync(HttpMethod.Put, at, new { heating = "", atEating = "" })).Status);
        Assert.Equal(404, (await host.SendAsync(
            HttpMethod.Put, $"/api/pack/dishes/{Guid.NewGuid()}/notes", new { heating = "", atEating = "" }, 0)).Status);
        var order = new { fullGrams = 2800, boxes = 4 };
        var ahead = await host.PostAsync("/api/labels", new { paper = "a4-2x4", batchId = batch["id"], order });
        Assert.Contains("Heat: 3 min, lid ajar. Add at eating: lemon.", Said(ahead)[0]);
        var pdf = await host.Http.PostAsJsonAsync("/api/labels/pdf", new { paper = "a4-2x4", batchId = batch["id"], order });
        Assert.Equal("application/pdf", pdf.Content.Headers.ContentType?.MediaType);
        Assert.StartsWith("%PDF-", await pdf.Content.ReadAsStringAsync());
    }

    [Fact]
    public async Task What_can_not_be_is_said_and_nothing_comes_of_it()
    {
        var batch = await CookAsync();
        var order = new { fullGrams = 2800, boxes = 4 };
        (object Body, int Status, string Code)[] wrong =
        [
            (new { paper = "parchment", batchId = batch["id"], order }, 422, "paper-unknown"),
            (new { paper = "a4-3x8", batchId = batch["id"], order, from = 25 }, 422, "label-first"),
            (new { paper = "a4-3x8", batchId = batch["id"], order, from = 0 }, 422, "label-first"),
            (new { paper = "a4-3x8" }, 422, "labels-unclear"),
            (new { paper = "a4-3x8", boxIds = Array.Empty<Guid>(), batchId = batch["id"] }, 422, "labels-unclear"),
            (new { paper = "a4-3x8", boxIds = Array.Empty<Guid>() }, 422, "labels-many"),
            (new { paper = "a4-3x8", boxIds = Enumerable.Range(0, 301).Select(_ => Guid.NewGuid()) }, 422, "labels-many"),
            (new { paper = "a4-3x8", batchId = batch["id"] }, 422, "order-missing"),
            (new { paper = "a4-3x8", batchId = Guid.NewGuid(), order }, 404, "not-found"),
            (new { paper = "a4-3x8", batchId = batch["id"], order, home = "kitchen" }, 422, "home-unclear"),
            (new { paper = "a4-3x8", batchId = batch["id"], order, home = "javascript:alert(1)" }, 422, "home-unclear"),
        ];
        foreach (var (body, status, code) in wrong)
        {
            var (said, answer) = await host.SendAsync(HttpMethod.Post, "/api/labels", body);
            Assert.Equal((status, code), (said, CodeOf(answer)));
        }

        var nobody = await host.PostAsync("/api/labels", new { paper = "a4-3x8", boxIds = new[] { Guid.NewGuid() } });
        Assert.Equal((0, 1, 0), ((int)nobody["labels"]!, (int)nobody["gone"]!, nobody["pages"]!.AsArray().Count));
        var stranger = new LivelyTern.Core.Pack.BoxCode(99, 1);
        Assert.Equal("code-not-ours", CodeOf((await host.SendAsync(HttpMethod.Get, $"/api/keep/codes/{stranger}")).Body));
        Assert.Equal("code-not-ours", CodeOf((await host.SendAsync(HttpMethod.Post, "/api/keep/codes", new { text = "soup" })).Body));
        var (none, noPrinter) = await host.SendAsync(
            HttpMethod.Post, "/api/labels/print", new { labels = new { paper = "strip-62x29", batchId = batch["id"], order } });
        Assert.Equal((422, "no-printer"), (none, CodeOf(noPrinter)));
    }

    [Fact]
    public async Task The_printer_stops_where_its_tape_ends_and_goes_on_from_there()
    {
        using var demo = new Host(demo: true);
        Task PlayAsync(string act, double amount = 0) => demo.PostAsync("/api/devices/play", new { act, amount });
        var shelves = await demo.GetAsync("/api/keep");
        var boxIds = shelves["groups"]!.AsArray().SelectMany(group => group!["boxes"]!.AsArray()).Select(box => (Guid)box!["id"]!).Take(5);
        var labels = new { paper = "strip-62x29", boxIds = boxIds.ToArray() };
        async Task<(int, int, string)> PrintAsync(object of, int after = 0)
        {
            var said = await demo.PostAsync("/api/labels/print", new { labels = of, after });
            return ((int)said["printed"]!, (int)said["of"]!, (string)said["says"]!);
        }

        // 70 mm of tape are two labels of 29 mm with 3 mm between cuts.
        await PlayAsync("shortTape", 70);
        Assert.Equal((2, 5, "noTape"), await PrintAsync(labels));
        Assert.Equal("noTape", (string)(await demo.GetAsync("/api/devices/printer"))["stands"]!);
        await PlayAsync("newTape", 62);
        Assert.Equal((5, 5, "printed"), await PrintAsync(labels, 2));
        var printer = await demo.GetAsync("/api/devices/printer");
        Assert.Equal([5, 4, 3, 2, 1], printer["tray"]!.AsArray().Select(label => (int)label!["id"]!));
        Assert.Equal(5000 - (3 * 32), (double)printer["tapeLeftMm"]!);
        Assert.Equal([0x89, .. "PNG"u8], (await demo.Http.GetByteArrayAsync("/api/devices/printer/tray/3"))[..4]);
        Assert.Equal((0, 5, "tooWide"), await PrintAsync(new { paper = "strip-100x50", labels.boxIds }));
        Assert.Equal("paper-sheet", CodeOf((await demo.SendAsync(
            HttpMethod.Post, "/api/labels/print", new { labels = new { paper = "a4-3x8", labels.boxIds } })).Body));
        await PlayAsync("unplug");
        Assert.Equal((0, 5, "lost"), await PrintAsync(labels));
        Assert.Equal("lost", (string)(await demo.GetAsync("/api/devices/printer"))["stands"]!);
        await PlayAsync("plug");
        await PlayAsync("emptyTray");
        Assert.Empty((await demo.GetAsync("/api/devices/printer"))["tray"]!.AsArray());
    }
}
