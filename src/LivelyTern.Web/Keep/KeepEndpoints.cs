using LivelyTern.Core.Pack;
using LivelyTern.Data;
using LivelyTern.Data.Keep;
using LivelyTern.Web.Http;

namespace LivelyTern.Web.Keep;

/// <summary>A box, at the version it was read at.</summary>
public sealed record BoxAt(Guid Id, int Version);

/// <summary>Boxes to be put somewhere: all of them or none.</summary>
public sealed record PutBoxesRequest(IReadOnlyList<BoxAt> Boxes, BoxPlace Place);

/// <summary>Their versions now.</summary>
public sealed record PutBoxesAnswer(IReadOnlyList<BoxAt> Boxes);

/// <summary>Keep: where boxes are.</summary>
public static class KeepEndpoints
{
    /// <summary>Maps <c>/api/keep</c>.</summary>
    public static void MapKeep(this IEndpointRouteBuilder api)
    {
        var keep = api.MapGroup("/keep").WithTags("Keep");
        keep.MapPost("/boxes/put", async (PutBoxesRequest body, PutBoxes boxes, TimeProvider clock) =>
        {
            var which = body.Boxes.DistinctBy(box => box.Id).ToDictionary(box => box.Id, box => box.Version);
            var put = await boxes.DoAsync(which, body.Place, clock.Today());
            return put.Answer(now => new PutBoxesAnswer([.. now.Select(box => new BoxAt(box.Key, box.Value))]));
        }).WithName("putBoxes");
    }
}
