using LivelyTern.Core.Review;

namespace LivelyTern.Core.Tests.Review;

/// <summary>How a simulated body and its eater behave.</summary>
/// <param name="Name">What is special.</param>
/// <param name="Days">How many days.</param>
/// <param name="Scale">The scale's scatter, kg.</param>
/// <param name="Water">How far water swings, kg.</param>
/// <param name="Cycle">A swing over four weeks, kg.</param>
/// <param name="Weighed">The share of days on which it is weighed.</param>
/// <param name="Written">The share of days of which it is written down what was eaten.</param>
/// <param name="Change">By how much its need changes half way, kcal.</param>
public sealed record BodyKind(
    string Name, int Days = 90, double Scale = 0.25, double Water = 0.4, double Cycle = 0, double Weighed = 0.9, double Written = 0.95,
    double Change = 0)
{
    public static IReadOnlyList<BodyKind> All { get; } =
    [
        new("plain"), new("noisy scale", Scale: 0.7), new("water swings", Water: 0.9), new("four-week swings", Water: 0.5, Cycle: 0.5),
        new("gaps", Weighed: 0.3), new("intake missing", Written: 0.6), new("need changes half way", Change: 300),
        new("five weeks only", Days: 36), new("half a year", Days: 180, Weighed: 0.6, Written: 0.8),
    ];

    public override string ToString() => Name;
}

/// <summary>
/// A body with a known need. It is not the model that reads it: its need falls with its weight by 22 kcal a kg (Hall et al., Lancet 2011,
/// from memory), its tissue holds 7,700 kcal a kg give or take 5 %, water follows its own days, weekends are eaten otherwise.
/// </summary>
public sealed class SimulatedBody
{
    private SimulatedBody(IReadOnlyList<WeighIn> weighIns, IReadOnlyList<DayIntake> intake, double need, double rate) =>
        (WeighIns, Intake, Need, RatePerWeek) = (weighIns, intake, need, rate);

    public IReadOnlyList<WeighIn> WeighIns { get; }

    public IReadOnlyList<DayIntake> Intake { get; }

    /// <summary>What it needs on the last day, kcal.</summary>
    public double Need { get; }

    /// <summary>What its tissue gained a week in the last four weeks, kg.</summary>
    public double RatePerWeek { get; }

    public static SimulatedBody Of(BodyKind kind, int seed)
    {
        var chance = new Random(seed);
        double Normal() => Math.Sqrt(-2 * Math.Log(1 - chance.NextDouble())) * Math.Cos(2 * Math.PI * chance.NextDouble());
        var start = new DateOnly(2026, 6, 1);
        var (mass, water, mood) = (60 + (40 * chance.NextDouble()), 0.0, 0.0);
        var (first, holds, phase) = (mass, 7700 * (1 + (0.05 * Normal())), chance.NextDouble() * 28);
        var basis = 1700 + (900 * chance.NextDouble());
        var aimed = basis - 600 + (800 * chance.NextDouble());
        var (weighIns, intake, masses, need) = (new List<WeighIn>(), new List<DayIntake>(), new List<double>(), basis);
        for (var day = 0; day < kind.Days; day++)
        {
            need = basis + (22 * (mass - first)) + (day >= kind.Days / 2 ? kind.Change : 0);
            masses.Add(mass);
            water = (0.7 * water) + (Math.Sqrt(1 - 0.49) * kind.Water * Normal());
            var swing = kind.Cycle * Math.Sin(2 * Math.PI * (day + phase) / 28);
            if (day == 0 || day == kind.Days - 1 || chance.NextDouble() < kind.Weighed)
                weighIns.Add(new(start.AddDays(day), decimal.Round((decimal)(mass + water + swing + (kind.Scale * Normal())), 1)));
            mood = (0.3 * mood) + (250 * Normal());
            var eaten = Math.Max(500, aimed + mood + (day % 7 >= 5 ? 220 : 0));
            if (chance.NextDouble() < kind.Written)
                intake.Add(new(start.AddDays(day), decimal.Round((decimal)(eaten * (1 + (0.06 * Normal()))))));
            mass += (eaten - need + (40 * Normal())) / holds;
        }

        return new(weighIns, intake, need, (masses[^1] - masses[^29]) / 4);
    }
}
