using LivelyTern.Core.Aim;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using LivelyTern.Web.Http;
using Microsoft.AspNetCore.Http.HttpResults;

namespace LivelyTern.Web.Pack;

/// <summary>A weight, or pieces, to be divided; nothing stored.</summary>
public sealed record CalcPortionsRequest(int Portions, decimal? Grams = null, int? Pieces = null);

/// <summary>Divided.</summary>
/// <param name="Portions">Whole grams, or pieces, for each portion; the largest first.</param>
/// <param name="Over">What is left over: part of a gram, or pieces that do not go round.</param>
/// <param name="Unit">"g" or "pieces".</param>
public sealed record CalcPortionsAnswer(IReadOnlyList<decimal> Portions, decimal Over, string Unit);

/// <summary>A batch to be portioned, each box in its own way; nothing stored.</summary>
/// <param name="Grams">What it weighs.</param>
/// <param name="Figures">What all of it holds; points before rounding.</param>
/// <param name="Boxes">What each box is to hold.</param>
/// <param name="Pieces">How many pieces it makes, where boxes ask for pieces.</param>
/// <param name="PointsStep">To which step points are rounded; 0 for not at all.</param>
public sealed record CalcPackRequest(
    decimal Grams, IReadOnlyDictionary<Measure, decimal> Figures, IReadOnlyList<CalcPackBox> Boxes, int? Pieces = null,
    decimal PointsStep = 0);

/// <summary>What a box is to hold: one of these.</summary>
/// <param name="Grams">A weight of its own.</param>
/// <param name="Pieces">So many pieces.</param>
/// <param name="AtMost">The largest that is still at most so much.</param>
/// <param name="Share">A share of what the others leave.</param>
public sealed record CalcPackBox(decimal? Grams = null, decimal? Pieces = null, CalcAtMost? AtMost = null, decimal? Share = null);

/// <summary>A budget.</summary>
public sealed record CalcAtMost(Measure Measure, decimal Value);

/// <summary>A weight of the batch, and what it holds.</summary>
public sealed record CalcPackedBox(decimal Grams, IReadOnlyDictionary<Measure, decimal> Figures);

/// <summary>Portioned.</summary>
/// <param name="Boxes">Each box, in the order they were asked for.</param>
/// <param name="Over">What is over.</param>
public sealed record CalcPackAnswer(IReadOnlyList<CalcPackedBox> Boxes, CalcPackedBox Over);

/// <summary>Pack: how a batch divides. The bench itself also knows the days, and stands with them.</summary>
public static class PackEndpoints
{
    /// <summary>Maps <c>/api/calc/portions</c> and <c>/api/calc/pack</c>.</summary>
    public static void MapPack(this IEndpointRouteBuilder api)
    {
        api.MapPost("/calc/portions", Calc).WithTags("Calculate").WithName("calcPortions");
        api.MapPost("/calc/pack", CalcPack).WithTags("Calculate").WithName("calcPack");
    }

    private const decimal AbsurdFigure = 1_000_000m;

    private static Results<Ok<CalcPortionsAnswer>, ProblemHttpResult> Calc(CalcPortionsRequest body) => (body.Grams, body.Pieces) switch
    {
        ({ } grams, null) => Divide.IntoEqual(new Grams(grams), body.Portions).Answer(equal =>
            new CalcPortionsAnswer([.. equal.Portions.Select(portion => portion.Value)], equal.Over.Value, "g")),
        (null, { } pieces) => Divide.ByPieces(new(pieces), body.Portions).Answer(counted =>
            new CalcPortionsAnswer(counted.Portions, counted.Over, "pieces")),
        _ => Answers.Problem([new("weight-or-pieces", "grams", "Give either the grams or the pieces to divide.")]),
    };

    private static Results<Ok<CalcPackAnswer>, ProblemHttpResult> CalcPack(CalcPackRequest body)
    {
        var problems = body.Boxes.SelectMany((box, i) => ProblemsOf(box, i, body.Figures)).ToList();
        if (body.Figures.Any(figure => figure.Value is < 0 or > AbsurdFigure))
            problems.Add(new("figure-absurd", "figures", "A figure lies between 0 and a million."));
        if (body.PointsStep is not 0 and not (>= 0.01m and <= 100m))
            problems.Add(new("step-absurd", "pointsStep", "Round points to a step between 0.01 and 100, or to 0 for no rounding."));
        if (problems.Count > 0) return Answers.Problem(problems);

        decimal Exact(Measure measure, decimal grams) => body.Figures[measure] * grams / body.Grams;
        decimal Read(AtMostWish wish, Grams weight)
        {
            var exact = Exact(wish.Measure, weight.Value);
            return wish.Measure == Measure.Points ? Rounding.ToStep(exact, body.PointsStep) : exact;
        }

        CalcPackedBox Show(Grams weight) =>
            new(weight.Value, body.Figures.ToDictionary(one => one.Key, one => Exact(one.Key, weight.Value)));
        return Portioning.Of(new(body.Grams), body.Pieces, [.. body.Boxes.Select(WishOf)], Read).Answer(divided =>
            new CalcPackAnswer([.. divided.Portions.Select(Show)], Show(divided.Over)));
    }

    private static IEnumerable<Problem> ProblemsOf(CalcPackBox? box, int i, IReadOnlyDictionary<Measure, decimal> figures)
    {
        object?[] ways = [box?.Grams, box?.Pieces, box?.AtMost, box?.Share];
        if (ways.Count(way => way is not null) != 1)
            yield return new("box-unclear", $"boxes[{i}]", "Give each box one of: grams, pieces, atMost, share.");
        else if (box!.AtMost is { } budget && !figures.ContainsKey(budget.Measure))
            yield return new("figure-missing", $"boxes[{i}].atMost", "What the batch holds of that is not among its figures.");
    }

    private static BoxWish WishOf(CalcPackBox box) => box switch
    {
        { Grams: { } grams } => new WeightWish(new(grams)),
        { Pieces: { } count } => new PiecesWish(count),
        { AtMost: { } budget } => new AtMostWish(budget.Measure, budget.Value),
        _ => new ShareWish(box.Share!.Value),
    };
}
