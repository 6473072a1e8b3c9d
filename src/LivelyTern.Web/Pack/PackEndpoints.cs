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

/// <summary>Pack: how a batch divides. The bench itself also knows the days, and stands with them.</summary>
public static class PackEndpoints
{
    /// <summary>Maps <c>/api/calc/portions</c>.</summary>
    public static void MapPack(this IEndpointRouteBuilder api) =>
        api.MapPost("/calc/portions", Calc).WithTags("Calculate").WithName("calcPortions");

    private static Results<Ok<CalcPortionsAnswer>, ProblemHttpResult> Calc(CalcPortionsRequest body) => (body.Grams, body.Pieces) switch
    {
        ({ } grams, null) => Divide.IntoEqual(new Grams(grams), body.Portions).Answer(equal =>
            new CalcPortionsAnswer([.. equal.Portions.Select(portion => portion.Value)], equal.Over.Value, "g")),
        (null, { } pieces) => Divide.ByPieces(new(pieces), body.Portions).Answer(counted =>
            new CalcPortionsAnswer(counted.Portions, counted.Over, "pieces")),
        _ => Answers.Problem([new("weight-or-pieces", "grams", "Give either the grams or the pieces to divide.")]),
    };
}
