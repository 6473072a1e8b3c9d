using LivelyTern.Core.Cook;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using LivelyTern.Core.Pack.Containers;
using LivelyTern.Core.Recipes;

namespace LivelyTern.Core.Tests.Pack;

public sealed class ContainersTests
{
    private static Batch Of(string dish, decimal grams, decimal? ml = null, int? pieces = null) =>
        new(Guid.NewGuid(), dish, new TapeMark("XX", 1), new(2026, 11, 29), new([Kitchen.Lentils.Grams(grams)]), new Grams(grams))
        {
            VolumeMl = ml,
            Pieces = pieces,
        };

    private static BatchShare Bowl(params BoxPart[] parts) =>
        new(Of("Bowl", 1000), new(parts.Sum(part => part.Weight.Value))) { PutIn = parts };

    private static FoodInBox Food(string name, FoodGroup group, decimal grams, string? where = null) =>
        new(name, new(Kitchen.Lentils with { Name = name, Group = group, Measures = [] }, new(grams)), where);

    private static readonly Container TwoPart = new(ContainerKind.Box, "Two-part")
    {
        Compartments = [new("large", 600), new("small", 250)],
    };

    // 4,000 g of a stew fill 4,200 ml: 400 g are 420 ml, in ice 458 ml.
    [Theory]
    [InlineData(500, false, FillSays.Fits)]
    [InlineData(500, true, FillSays.Fits)]
    [InlineData(450, false, FillSays.Fits)]
    [InlineData(450, true, FillSays.TooFullToFreeze)]
    [InlineData(419, false, FillSays.TooMuch)]
    public void A_share_fits_by_its_dish_s_volume_and_leaves_room_to_freeze(double holds, bool isFrozen, FillSays says)
    {
        var box = new Container(ContainerKind.Box, "Box") { Compartments = [new(null, (decimal)holds)] };
        var fill = Assert.Single(BoxFill.Of(box, [], new(Of("Stew", 4000, 4200), new(400)), isFrozen));
        Assert.Equal((420m, says), (fill.Filled, fill.Says));

        // Nobody knows what it fills: that is said, and not worked out as if it were water.
        var unknown = Assert.Single(BoxFill.Of(box, [], new(Of("Stew", 4000), new(400)), isFrozen));
        Assert.Equal((FillSays.Unknown, 0m, "Stew"), (unknown.Says, unknown.Filled, unknown.Unknown.Single()));
    }

    // A cup of butter (227 g by its tablespoon of 14.2 g) fills 236.6 ml.
    [Fact]
    public void Each_compartment_and_each_cup_stands_by_itself()
    {
        var cup = new Container(ContainerKind.Cup, "Sauce cup") { Compartments = [new(null, 60)] };
        var bowl = Bowl(
            new BatchShare(Of("Mash", 1000, 1000), new(500)), new BatchShare(Of("Beans", 500, 1000), new(150), null, "small"),
            new BatchShare(Of("Gravy", 500, 500), new(50), null, "sauce CUP"), Food("walnuts", FoodGroup.NutsAndSeeds, 20, "beside"),
            new FoodInBox("butter", Kitchen.Butter.Grams(20), "small"));
        var fills = BoxFill.Of(TwoPart, [cup], bowl, isFrozen: false);
        Assert.Equal([null, "small", "sauce CUP"], fills.Select(fill => fill.Name));
        Assert.Equal([FillSays.Fits, FillSays.TooMuch, FillSays.Fits], fills.Select(fill => fill.Says));
        Assert.Equal(300 + (20 * 236.6m / (Kitchen.Butter.WeightOf(1, Unit.Cup)!.Value.Value)), fills[1].Filled, 1);
    }

    [Fact]
    public void A_bag_holds_its_rows_of_pieces()
    {
        var bag = new Container(ContainerKind.Bag, "Bag") { Rows = (4, 4) };
        FillSays Says(decimal? pieces) => BoxFill.Of(bag, [], new(Of("Meatballs", 1000, pieces: 50), new(320), pieces), true).Single().Says;
        Assert.Equal([FillSays.Fits, FillSays.TooMuch, FillSays.Unknown], new[] { Says(16), Says(16.5m), Says(null) });
    }

    // Common practice, no published source: crisp things go soft beside wet ones.
    [Fact]
    public void What_goes_soft_does_not_lie_beside_what_is_wet()
    {
        var (gravy, stew) = (new BatchShare(Of("Onion gravy", 500), new(50)), new BatchShare(Of("Beef stew", 500), new(300)));
        var nuts = Food("walnuts", FoodGroup.NutsAndSeeds, 20);
        SoftBeside Soft(string crisp, string wet) => new(crisp, wet);
        Assert.Equal([Soft("walnuts", "Onion gravy"), Soft("walnuts", "Beef stew")], LieApart.In([gravy, nuts, stew]));
        Assert.Empty(LieApart.In([gravy with { Compartment = "cup" }, nuts]));
        Assert.Empty(LieApart.In([stew, nuts with { Compartment = BatchShare.Beside }]));
        Assert.Empty(LieApart.In([stew, Food("peanut butter", FoodGroup.NutsAndSeeds, 20), Food("rice", FoodGroup.Grains, 150)]));
        Assert.Empty(LieApart.In([nuts, Food("chilli powder", FoodGroup.Seasonings, 2), Food("stock cube", FoodGroup.Seasonings, 10)]));
        Assert.Equal([Soft("croutons", "yogurt, plain")],
            LieApart.In([Food("croutons", FoodGroup.Grains, 15), Food("yogurt, plain", FoodGroup.Dairy, 100)]));
    }

    [Fact]
    public void What_can_t_be_a_container_is_refused()
    {
        (Container One, string? Code)[] all =
        [
            (TwoPart, null), (new(ContainerKind.Pan, "Pot") { Empty = new Grams(1830) }, null),
            (new(ContainerKind.Box, " "), "container-name"),
            (new(ContainerKind.Bag, "Bag"), "container-rows"), (new(ContainerKind.Bag, "Bag") { Rows = (0, 4) }, "container-rows"),
            (TwoPart with { Rows = (4, 4) }, "container-rows"), (TwoPart with { Kind = ContainerKind.Cup }, "container-parts"),
            (TwoPart with { Compartments = [new("a", 100), new("A", 100)] }, "container-parts"),
            (TwoPart with { Compartments = [new("a", 100), new(null, 100)] }, "container-parts"),
            (TwoPart with { Compartments = [new(null, 0)] }, "container-volume"), (TwoPart with { Empty = Grams.Zero }, "container-weight"),
            (TwoPart with { Count = 0 }, "container-count"),
        ];
        foreach (var (one, code) in all) Assert.Equal(code, one.Refusal?.Code);
    }
}
