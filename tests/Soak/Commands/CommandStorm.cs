using System.Globalization;

namespace LivelyTern.Soak.Commands;

/// <summary>
/// Random commands through the API, about one week: boxes, portions and foods are laid, moved, sized, locked, eaten, taken off, packed,
/// emptied back, undone, undone once more and done again, labels, recipes and exclusions changed under them, eaters, recipes and foods put
/// away and brought back, in any order. After each the <see cref="Invariants"/> hold, what was refused has changed nothing, and the screens
/// answer.
/// </summary>
/// <param name="house">The house.</param>
/// <param name="data">Its file.</param>
/// <param name="chance">Where chance comes from.</param>
/// <param name="screensEvery">After how many commands the screens that show this week are looked at.</param>
public sealed class CommandStorm(Asker house, string data, Random chance, int screensEvery = 1)
{
    private const int AllScreensEvery = 20;

    private static readonly DateOnly Today = new(2026, 11, 25);
    private readonly Hands hands = new(house, chance);
    private readonly SortedDictionary<int, int> statuses = [];

    /// <summary>The eaters of the house.</summary>
    public IReadOnlyList<string> Eaters => hands.Eaters;

    /// <summary>How many commands were given.</summary>
    public int Given { get; private set; }

    /// <summary>How many of them were refused.</summary>
    public int Refused => statuses.Where(one => one.Key is not (0 or 200)).Sum(one => one.Value);

    /// <summary>How many answers screens have got.</summary>
    public int ScreensAsked { get; private set; }

    /// <summary>Moves into an empty house and goes on for as long as wanted.</summary>
    /// <param name="goOn">By how many commands were given: whether to go on.</param>
    /// <exception cref="InvalidOperationException">Something does not hold.</exception>
    public async Task RunAsync(Func<int, bool> goOn)
    {
        await hands.MoveInAsync();
        var invariants = new Invariants(house, data, hands);
        var before = await Seen.LookAsync(house);
        for (; goOn(Given); Given++)
        {
            var answer = await hands.DoAsync(before);
            if (answer.Status is not (0 or 200 or 404 or 409 or 412 or 422))
                throw new InvalidOperationException($"Command {Given}: {answer.Status} {answer.Body}");
            statuses[answer.Status] = statuses.GetValueOrDefault(answer.Status) + 1;
            var after = await Seen.LookAsync(house);
            try
            {
                if (answer.Status != 200) IsRefused(answer, before, after);
                else await invariants.HoldAsync(before, after);
                if (Given % AllScreensEvery == 0) ScreensAsked += await Screens.AllAnswerAsync(house, Today, chance);
                else if (Given % screensEvery == 0) await SomeScreensAsync();
            }
            catch (InvalidOperationException error)
            {
                throw new InvalidOperationException(
                    $"After command {Given} ({answer.Status}): {error.Message}. Last:\n{string.Join('\n', house.Lately)}", error);
            }

            before = after;
        }
    }

    public override string ToString() =>
        string.Create(CultureInfo.InvariantCulture, $"{Given} commands ")
        + $"({string.Join(", ", statuses.Where(one => one.Key > 0).Select(one => $"{one.Value} x {one.Key}"))}), after each the invariants "
        + string.Create(CultureInfo.InvariantCulture, $"held, {ScreensAsked} answers to screens");

    // What is refused changes nothing at all, and says why.
    private static void IsRefused(Answer answer, Seen before, Seen after)
    {
        if (!string.Equals(before.Week.ToJsonString(), after.Week.ToJsonString(), StringComparison.Ordinal))
            throw new InvalidOperationException("It was refused and changed the week.");
        if (answer.Status > 0 && string.IsNullOrWhiteSpace((string?)answer.Body["detail"]))
            throw new InvalidOperationException("It was refused without a word.");
    }

    // What stands on the screens that show this week, after every command.
    private async Task SomeScreensAsync()
    {
        var eater = hands.Eaters[chance.Next(hands.Eaters.Count)];
        foreach (var path in new[]
        {
            $"/api/overview?eaterId={eater}", $"/api/eat/{eater}/2026-11-25", $"/api/plan/days/{eater}/2026-11-26",
            $"/api/review/week/{eater}/2026-11-25", "/api/keep", "/api/shop/list", "/api/cook/batches", "/api/pack/batches",
        })
        {
            var (status, answer) = await house.SendAsync(HttpMethod.Get, path);
            if (status != 200) throw new InvalidOperationException($"The screen that asks for {path} gets {status}: {answer}");
            ScreensAsked++;
        }
    }
}
