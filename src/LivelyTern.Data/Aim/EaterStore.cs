using LivelyTern.Core.Aim;
using LivelyTern.Core.Measures;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Aim;

/// <summary>The eaters of the household.</summary>
public sealed class EaterStore(TernDb db, TimeProvider clock)
{
    private const int MostDaysAway = 62;

    /// <summary>The most eaters of one household.</summary>
    public const int Most = 12;

    /// <summary>The household's day.</summary>
    public DateOnly Today => clock.Today();

    /// <summary>The eaters in their order, without those taken off.</summary>
    public async Task<IReadOnlyList<EaterRow>> ListAsync() =>
        await db.Eaters.AsNoTracking().AsSplitQuery().Where(row => row.ArchivedAt == null).OrderBy(row => row.Position).ToListAsync();

    /// <summary>All who were ever at the table and are still kept, those at it first.</summary>
    public async Task<IReadOnlyList<EaterRow>> EverybodyAsync() => await db.Eaters.AsNoTracking().IgnoreAutoIncludes()
        .OrderBy(row => row.ArchivedAt != null).ThenBy(row => row.Position).ToListAsync();

    /// <summary>One eater, also one taken off; null where there is none.</summary>
    public Task<EaterRow?> FindAsync(Guid id) => db.Eaters.AsNoTracking().AsSplitQuery().SingleOrDefaultAsync(row => row.Id == id);

    /// <summary>The names of some, those who are no longer at the table too.</summary>
    public async Task<IReadOnlyDictionary<Guid, string>> NamesAsync(IReadOnlyCollection<Guid> ids) =>
        await db.Eaters.AsNoTracking().IgnoreAutoIncludes().Where(row => ids.Contains(row.Id))
            .ToDictionaryAsync(row => row.Id, row => row.Name);

    /// <summary>Adds an eater at the end of the table.</summary>
    public Task<Outcome<EaterRow>> AddAsync(string name, DayAim aim, bool clinicianSetIt) => db.InTurnAsync<EaterRow>(async () =>
    {
        ArgumentNullException.ThrowIfNull(aim);
        var eaters = await ListAsync();
        var problems = Problems(name, aim, clinicianSetIt, eaters);
        if (eaters.Count >= Most) problems.Add(TooMany);
        if (problems.Count > 0) return problems;
        var row = new EaterRow { Id = Guid.CreateVersion7(), Name = name.Trim(), ClinicianSetIt = clinicianSetIt, Position = eaters.Count };
        row.SetAim(StoredAim.Of(aim, []), Today);
        db.Eaters.Add(row);
        await db.SaveChangesAsync();
        return row;
    });

    /// <summary>Changes an eater that was read at a version.</summary>
    /// <param name="id">The eater.</param>
    /// <param name="version">The version it was read at.</param>
    /// <param name="name">As the others call them.</param>
    /// <param name="aim">Their usual day.</param>
    /// <param name="clinicianSetIt">A clinician set an energy aim below the floor.</param>
    /// <param name="ways">How they eat; null leaves it as it is.</param>
    /// <param name="body">The body to be kept; null leaves it as it is.</param>
    public Task<Outcome<EaterRow>> ChangeAsync(
        Guid id, int version, string name, DayAim aim, bool clinicianSetIt, EatingWays? ways = null, Body? body = null) =>
        db.InTurnAsync(() => WriteAsync(id, version, name, aim, clinicianSetIt, ways, body));

    private async Task<Outcome<EaterRow>> WriteAsync(
        Guid id, int version, string name, DayAim aim, bool clinicianSetIt, EatingWays? ways, Body? body)
    {
        ArgumentNullException.ThrowIfNull(aim);
        if (await db.Eaters.SingleOrDefaultAsync(row => row.Id == id) is not { } row) return Stale.Gone("eater");
        if (row.Version != version) return Stale.Problem;
        var problems = Problems(name, aim, clinicianSetIt, (await ListAsync()).Where(other => other.Id != id));
        problems.AddRange((ways ?? row.WaysFrom(Today)).Problems(aim, clinicianSetIt));
        problems.AddRange(FarDates(ways?.OtherDays ?? []));
        if (problems.Count > 0) return problems;
        (row.Name, row.ClinicianSetIt, row.Body) = (name.Trim(), clinicianSetIt, body ?? row.Body);
        row.SetAim(StoredAim.Of(aim, (ways ?? row.Ways).OtherDays), Today);
        if (ways is not null)
        {
            row.KeptWays = ways with { OtherDays = [] };
            SetDates(row, ways.OtherDays);
        }

        return await db.SaveAsync(row, row);
    }

    /// <summary>Moves the energy of the usual day to another goal, and every bound of it by as much.</summary>
    /// <param name="id">The eater.</param>
    /// <param name="before">The goal that was seen, in kcal.</param>
    /// <param name="goal">The goal, in kcal.</param>
    /// <returns>The goal now.</returns>
    public async Task<Outcome<decimal>> MoveEnergyAsync(Guid id, decimal before, decimal goal)
    {
        if (await db.Eaters.SingleOrDefaultAsync(row => row.Id == id && row.ArchivedAt == null) is not { } row) return Stale.Gone("eater");
        var (aim, band) = (row.Aim, row.Aim[Measure.Energy]);
        if (band.Goal != before) return Stale.Problem;
        var moved = aim with { Bands = new Dictionary<Measure, Band>(aim.Bands) { [Measure.Energy] = band.MovedTo(goal) } };
        var changed = await ChangeAsync(id, row.Version, row.Name, moved, row.ClinicianSetIt);
        return changed.Succeeded ? moved[Measure.Energy].Goal!.Value : changed.Problems.ToList();
    }

    /// <summary>Sets one measure's band for one date, whoever else changed the eater; a null band takes it away again.</summary>
    /// <returns>The eater, and the band that the date had before.</returns>
    public async Task<Outcome<(EaterRow Row, Band? Before)>> SetDateAsync(Guid id, DateOnly day, Measure measure, Band? band, string name)
    {
        if (await db.Eaters.SingleOrDefaultAsync(row => row.Id == id && row.ArchivedAt == null) is not { } row) return Stale.Gone("eater");
        if (KitchenDays.Refusal(day, Today, "day") is { } far) return far;
        if (day < Today) return new Problem("day-past", "day", "That day is past: it stays as it was.");
        var ways = row.WaysFrom(Today);
        var other = ways.OtherDays.FirstOrDefault(one => one.Date == day);
        var before = other?.Bands.GetValueOrDefault(measure);
        var bands = (other?.Bands ?? new Dictionary<Measure, Band>()).Where(one => one.Key != measure).ToDictionary();
        if (band is not null) bands[measure] = band;
        var others = ways.OtherDays.Where(one => one.Date != day).ToList();
        if (bands.Count > 0) others.Add(new OtherDay(other?.Name ?? name, null, day, bands));
        ways = ways with { OtherDays = others };
        var problems = ways.Problems(row.Aim, row.ClinicianSetIt).ToList();
        if (problems.Count > 0) return problems;
        SetDates(row, ways.OtherDays);
        return await db.SaveAsync(row, (row, before));
    }

    /// <summary>Says that an eater is away on some days, or here after all; days past stay as they were.</summary>
    /// <param name="id">The eater.</param>
    /// <param name="days">The days.</param>
    /// <param name="slot">The part of each; null for the whole day.</param>
    /// <param name="isAway">Whether they are away.</param>
    /// <returns>The days for which that is new.</returns>
    public async Task<Outcome<IReadOnlyList<DateOnly>>> SetAwayAsync(
        Guid id, IReadOnlyList<DateOnly> days, string? slot, bool isAway)
    {
        ArgumentNullException.ThrowIfNull(days);
        if (await db.Eaters.SingleOrDefaultAsync(row => row.Id == id && row.ArchivedAt == null) is not { } row) return Stale.Gone("eater");
        if (days.Count is 0 or > MostDaysAway) return new Problem("away-days", "days", $"Between 1 and {MostDaysAway} days at a time.");
        if (days.Select(day => KitchenDays.Refusal(day, Today, "days")).FirstOrDefault(far => far is not null) is { } far) return far;
        if (days.Any(day => day < Today)) return new Problem("day-past", "days", "That day is past: it stays as it was.");
        var part = row.Ways.Slots.FirstOrDefault(one => string.Equals(one.Name, slot, StringComparison.OrdinalIgnoreCase))?.Name;
        if (slot is not null && part is null) return new Problem("slot-unknown", "slot", "This eater has no such part of the day.");
        bool IsThat(AwayRow away, DateOnly day) => away.Day == day && string.Equals(away.Slot, part ?? "", StringComparison.Ordinal);
        var changed = days.Distinct().Where(day => row.Aways.Exists(away => IsThat(away, day)) != isAway).ToList();
        if (isAway) row.Aways.AddRange(changed.Select(day => new AwayRow { EaterId = id, Day = day, Slot = part ?? "" }));
        else row.Aways.RemoveAll(away => changed.Exists(day => IsThat(away, day)));
        return await db.SaveAsync<IReadOnlyList<DateOnly>>(row, changed);
    }

    private IEnumerable<Problem> FarDates(IReadOnlyList<OtherDay> days)
    {
        for (var i = 0; i < days.Count; i++)
        {
            if (days[i].Date is { } date && KitchenDays.Refusal(date, Today, $"ways.otherDays[{i}]") is { } far) yield return far;
        }
    }

    // The dates from today on as they are to be: rows that stay are changed in place. Those of days past stay as they were.
    private void SetDates(EaterRow row, IReadOnlyList<OtherDay> days)
    {
        var dates = days.Where(day => day.Date >= Today);
        var wanted = dates.SelectMany(day => day.Bands.Select(band => (Day: day.Date!.Value, day.Name, band.Key, band.Value))).ToList();
        row.DateBands.RemoveAll(band => band.Day >= Today && !wanted.Exists(one => one.Day == band.Day && one.Key == band.Measure));
        foreach (var (day, name, measure, band) in wanted)
        {
            var kept = row.DateBands.Find(one => one.Day == day && one.Measure == measure);
            if (kept is null) row.DateBands.Add(kept = new DateBandRow { EaterId = row.Id, Day = day, Measure = measure, Name = name });
            (kept.Name, kept.Min, kept.Target, kept.Max, kept.Tolerance) = (name, band.Min, band.Target, band.Max, band.Tolerance);
        }
    }

    /// <summary>
    /// Takes an eater off the table, or back to it. Nothing they ate is lost. What still lies on their days is seen to by the command that
    /// takes them off.
    /// </summary>
    public Task<Outcome<EaterRow>> ArchiveAsync(Guid id, int version, bool archived) => db.InTurnAsync(async () =>
    {
        if (await db.Eaters.SingleOrDefaultAsync(row => row.Id == id) is not { } row) return Stale.Gone("eater");
        if (row.Version != version) return Stale.Problem;
        if (!archived)
        {
            var others = (await ListAsync()).Where(other => other.Id != id).ToList();
            if (NameProblem(row.Name, others) is { } taken) return taken;
            if (others.Count >= Most) return TooMany;
        }

        row.ArchivedAt = archived ? clock.GetUtcNow() : null;
        return await db.SaveAsync(row, row);
    });

    /// <summary>Has an eater's figures shown to them no longer, or again. What is kept stays as it is.</summary>
    public async Task<Outcome<EaterRow>> SetQuietAsync(Guid id, bool isQuiet)
    {
        if (await db.Eaters.SingleOrDefaultAsync(row => row.Id == id) is not { } row) return Stale.Gone("eater");
        row.IsQuiet = isQuiet;
        return await db.SaveAsync(row, row);
    }

    private static List<Problem> Problems(string? name, DayAim aim, bool clinicianSetIt, IEnumerable<EaterRow> others)
    {
        var problems = aim.Problems(clinicianSetIt).ToList();
        if (NameProblem(name, others) is { } problem) problems.Add(problem);
        return problems;
    }

    private static Problem TooMany => new("eaters-many", "name", $"One household holds up to {Most} eaters.");

    private static Problem? NameProblem(string? name, IEnumerable<EaterRow> others)
    {
        var trimmed = (name ?? "").Trim();
        if (trimmed.Length is 0 or > 40) return new("name-missing", "name", "Give the eater a name of up to 40 letters.");
        return others.Any(other => string.Equals(other.Name, trimmed, StringComparison.OrdinalIgnoreCase))
            ? new("name-taken", "name", $"There is a {trimmed} already: add a letter to tell them apart.")
            : null;
    }
}
