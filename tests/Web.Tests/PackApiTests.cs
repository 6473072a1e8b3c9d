namespace LivelyTern.Web.Tests;

/// <summary>A batch portioned by a script, each box in its own way.</summary>
public sealed class PackApiTests(PackApiTests.House house) : IClassFixture<PackApiTests.House>
{
    /// <summary>One host for all of them: nothing is stored.</summary>
    public sealed class House : IDisposable
    {
        public Host Host { get; } = new();

        public void Dispose() => Host.Dispose();
    }

    // 420 of 3,900 kcal are 506.15 g of 4,700 g; what is left of 3,794 g goes 2 to 3.
    [Fact]
    public async Task Given_grams_go_first_then_the_budget_then_the_shares_and_nothing_is_lost()
    {
        const string Body = """
            {"grams": 4700, "figures": {"energy": 3900, "protein": 190},
             "boxes": [{"grams": 400}, {"atMost": {"measure": "energy", "value": 420}}, {"share": 2}, {"share": 3}]}
            """;
        var packed = await house.Host.PostAsync("/api/calc/pack", Body);
        var boxes = packed["boxes"]!.AsArray();
        Assert.Equal([400m, 506, 1518, 2276], boxes.Select(box => (decimal)box!["grams"]!));
        Assert.Equal(0, (decimal)packed["over"]!["grams"]!);
        decimal Sum(string measure) =>
            boxes.Append(packed["over"]).Sum(box => (decimal)box!["figures"]![measure]!);
        Assert.Equal(3900, Sum("energy"), 9);
        Assert.Equal(190, Sum("protein"), 9);
        Assert.InRange((decimal)boxes[1]!["figures"]!["energy"]!, 419, 420);
    }

    // 39 points in 4,700 g: a portion that rounds to 4 weighs less than 4.5 / 39 of it, 542.3 g.
    [Fact]
    public async Task Points_are_rounded_once_so_the_largest_of_four_points_is_just_under_four_and_a_half()
    {
        const string Body = """
            {"grams": 4700, "figures": {"points": 39}, "pointsStep": 1, "boxes": [{"atMost": {"measure": "points", "value": 4}}]}
            """;
        var packed = await house.Host.PostAsync("/api/calc/pack", Body);
        Assert.Equal((542, 4158), ((decimal)packed["boxes"]![0]!["grams"]!, (decimal)packed["over"]!["grams"]!));
    }

    [Theory]
    [InlineData("""{"grams": 300, "figures": {}, "boxes": [{"grams": 200}, {"grams": 150}]}""", "batch-short", "50 g are missing")]
    [InlineData("""{"grams": 300, "figures": {}, "boxes": [{"grams": 200, "share": 1}]}""", "box-unclear", "one of")]
    [InlineData("""{"grams": 300, "figures": {}, "boxes": [null]}""", "member-missing", "boxes[0]")]
    [InlineData("""{"grams": 300, "figures": {}, "boxes": [{}]}""", "box-unclear", "one of")]
    [InlineData("""{"grams": 300, "figures": {}, "boxes": []}""", "boxes-many", "at a time|between 1")]
    [InlineData("""{"grams": 300, "figures": {}, "boxes": [{"pieces": 3}]}""", "pieces-unknown", "how many pieces")]
    [InlineData("""{"grams": 300, "figures": {}, "pieces": 0, "boxes": [{"pieces": 17}]}""", "pieces-unknown", "how many pieces")]
    [InlineData(
        """{"grams": 300, "figures": {}, "boxes": [{"atMost": {"measure": "fat", "value": 4}}]}""", "figure-missing", "not among")]
    [InlineData("""{"grams": 0, "figures": {}, "boxes": [{"share": 1}]}""", "weight-absurd", "check the number")]
    public async Task What_makes_no_boxes_is_said(string body, string code, string part)
    {
        var (status, refused) = await house.Host.SendAsync(HttpMethod.Post, "/api/calc/pack", body);
        Assert.Equal((422, code), (status, (string)refused["errors"]![0]!["code"]!));
        Assert.Contains(part.Split('|'), one => ((string)refused["detail"]!).Contains(one, StringComparison.Ordinal));
    }
}
