using System.Text.Json.Nodes;

namespace LivelyTern.Soak;

/// <summary>What the screens of all rooms ask for: whatever has happened, each of it answers.</summary>
public static class Screens
{
    private static readonly string[] Always =
    [
        "/health", "/api/overview", "/api/aim/eaters", "/api/foods", "/api/recipes", "/api/recipes/names", "/api/cook/batches",
        "/api/cook/days", "/api/cook/ahead", "/api/cook/kitchen", "/api/pack/batches", "/api/pack/containers", "/api/pack/eye", "/api/keep",
        "/api/keep/state", "/api/keep/cooling", "/api/keep/guidelines", "/api/plan/kept-meals", "/api/plan/calendar.ics", "/api/shop/list",
        "/api/shop/list.md", "/api/shop/pantry", "/api/shop/aisles", "/api/review/kitchen", "/api/backup", "/api/libraries", "/api/devices",
    ];

    /// <summary>Asks for all of it.</summary>
    /// <param name="house">The house.</param>
    /// <param name="day">The day that is looked at.</param>
    /// <param name="chance">Chooses which of many batches and recipes are opened.</param>
    /// <returns>How many answered.</returns>
    /// <exception cref="InvalidOperationException">One did not.</exception>
    public static async Task<int> AllAnswerAsync(Asker house, DateOnly day, Random chance)
    {
        var (today, asked) = ($"{day:yyyy-MM-dd}", 0);
        async Task<string> AnswerAsync(string path, bool mayBeGone = false)
        {
            using var answer = await house.Http.GetAsync(path);
            var text = await answer.Content.ReadAsStringAsync();
            asked++;
            return answer.IsSuccessStatusCode || (mayBeGone && (int)answer.StatusCode == 404)
                ? text
                : throw new InvalidOperationException($"The screen that asks for {path} gets {(int)answer.StatusCode}: {text}");
        }

        foreach (var path in Always) await AnswerAsync(path);
        string[] days = [$"/api/plan/weeks/{today}", $"/api/plan/weeks/{day.AddDays(7):yyyy-MM-dd}", $"/api/cook/days/{today}"];
        foreach (var path in days)
            await AnswerAsync(path);
        foreach (var eater in Ids(await AnswerAsync("/api/aim/eaters")))
        {
            foreach (var path in new[]
            {
                $"/api/overview?eaterId={eater}", $"/api/eat/{eater}/{today}", $"/api/eat/{eater}/{today}/usual",
                $"/api/plan/days/{eater}/{today}", $"/api/review/week/{eater}/{today}", $"/api/review/body/{eater}",
                $"/api/recipes?eaterId={eater}", $"/api/backup/sheets/days.csv?eaterId={eater}",
            })
            {
                await AnswerAsync(path, mayBeGone: true);
            }
        }

        foreach (var batch in Some(Ids(await AnswerAsync("/api/pack/batches"))))
        {
            await AnswerAsync($"/api/pack/batches/{batch}", mayBeGone: true);
            await AnswerAsync($"/api/cook/batches/{batch}", mayBeGone: true);
        }

        foreach (var recipe in Some(Ids(await AnswerAsync("/api/recipes"))))
        {
            foreach (var path in new[] { "", "/versions", "/notes", "/recipe.jsonld", "/recipe.md" })
                await AnswerAsync($"/api/recipes/{recipe}{path}", mayBeGone: true);
        }

        return asked;

        IEnumerable<string> Some(List<string> all) =>
            all.Count <= 6 ? all : Enumerable.Range(0, 6).Select(_ => all[chance.Next(all.Count)]);
    }

    private static List<string> Ids(string answer) =>
        JsonNode.Parse(answer) is JsonArray many ? [.. many.Select(one => (string?)one!["id"]).OfType<string>()] : [];
}
