using System.Text.Json.Nodes;

namespace LivelyTern.Soak.Commands;

/// <summary>Something that lies on a day, as the week shows it.</summary>
public sealed record Laid(
    string Id, string Eater, string Day, string? Box, string? Batch, decimal Grams, bool IsEaten, string? Text, bool IsNever);

/// <summary>The week as it is shown at one moment.</summary>
/// <param name="Week">All of it.</param>
/// <param name="Items">What lies on its days.</param>
public sealed record Seen(JsonNode Week, IReadOnlyList<Laid> Items)
{
    /// <summary>The Monday of the week that is looked at.</summary>
    public const string Monday = "2026-11-23";

    public int Version => (int)Week["version"]!;

    /// <summary>The boxes on the shelf.</summary>
    public List<string> Shelf =>
        [.. Week["shelf"]!.AsArray().SelectMany(group => group!["boxIds"]!.AsArray()).Select(id => (string)id!)];

    public static async Task<Seen> LookAsync(Asker house)
    {
        var week = await house.GetAsync($"/api/plan/weeks/{Monday}");
        return new(week, [.. week["eaters"]!.AsArray().SelectMany(eater => eater!["days"]!.AsArray().SelectMany(day =>
            day!["items"]!.AsArray().Select(item => new Laid(
                (string)item!["id"]!, (string)eater["eaterId"]!, (string)day["day"]!, (string?)item["boxId"], (string?)item["batchId"],
                (decimal)item["grams"]!, item["eatenAt"] is not null, (string?)item["text"], item["never"] is not null))))]);
    }
}
