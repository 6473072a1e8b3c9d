using LivelyTern.Core.Cook.Schedule;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Recipes;
using LivelyTern.Core.Recipes.Steps;

namespace LivelyTern.Core.Cook.PrepDay;

/// <summary>Makes the tasks of a prep day, dish by dish.</summary>
internal sealed class PrepDayBuilder(
    IReadOnlyList<PrepDish> dishes, KitchenEquipment kitchen, PrepDayWishes wishes, OwnTimes times, IReadOnlyList<PrepTask> begun)
{
    // Minutes of what no recipe writes down: common practice, no published source.
    private const int ToGetOut = 3, ToGetOutEach = 1, ToPack = 2, ToPutAway = 2;
    private const int ToWashUp = 5, ToWashUpEach = 3, ToCool = 30, ToComeToPressure = 12;
    private const int HandsWithoutSteps = 20, WaitWithoutSteps = 30;

    // Food is out of the heat and not in the cold for two hours at most (USDA FSIS).
    private const int TwoHours = 120;

    private readonly List<PrepTask> tasks = [];
    private readonly List<ScheduleTask> scheduled = [];
    private readonly HashSet<KitchenWarning> warnings = [];
    private readonly Dictionary<(Guid Dish, int? Step), List<string>> prepared = [];

    // "Bring it to pressure", the pressure, its release: one stretch in the cooker.
    private sealed record Piece(
        StepPart Part, StepToDo Step, int At, int Minutes, MachineNeed Need, List<PrepPhase> Phases,
        List<(TaskMode Mode, PrepWay Way)> OtherWays);

    public PrepDayTasks Build()
    {
        if (dishes.Count > 0)
        {
            Hands("get out", PrepKind.GetOut, [], "get out", ToGetOut + (ToGetOutEach * dishes.Count), []);
            Prepare();
            var ends = new Dictionary<Guid, List<TaskBond>>();
            foreach (var dish in dishes.OrderBy(dish => dish.Parts is not null))
            {
                var parts = (dish.Parts ?? []).Where(part => ends.ContainsKey(part.Batch));
                ends[dish.Id] = Cook(dish, [.. parts.SelectMany(part => ends[part.Batch])]);
            }

            var minutes = ToWashUp + (ToWashUpEach * dishes.Count);
            List<TaskBond> all = [.. ends.Values.SelectMany(end => end).Select(end => new TaskBond(end.Id, IsAlone: true)).Distinct()];
            Hands("wash up", PrepKind.WashUp, [], "wash up", minutes, all, Minute(wishes.DoneBy));
        }

        return new(tasks, new(scheduled, CapacitiesThere(), [.. Taken()], Heated()), [.. warnings]);
    }

    // Whole minutes from the day's beginning; below 0 before it.
    private int? Minute(TimeOnly? time) =>
        time is { } at ? (int)(at.ToTimeSpan() - wishes.Begins.ToTimeSpan()).TotalMinutes : null;

    private void Prepare()
    {
        var all = dishes.SelectMany(Preparations.OfDish).ToList();
        foreach (var (known, together) in Preparations.Together(all, begun))
        {
            var first = together[0];
            var isShared = together.Select(one => one.Dish).Distinct().Count() > 1;
            var what = isShared ? first.FoodId : $"{first.Dish:N}.{first.Step}";
            var id = known ?? NewId($"prepare {first.Verb.Name} {what}");
            var uses = first.Verb.Uses.Contains(Occupies.Board)
                ? new Dictionary<Occupies, int> { [Occupies.Board] = 1 }
                : [];
            foreach (var one in together) Add(prepared, (one.Dish, one.Step), id);
            var step = isShared ? null : first.Step;
            var usual = Preparations.MinutesOf(together);
            var own = times.Of(together, usual);
            List<TaskMode> modes = [.. Capacities.Ways(own ?? usual, true, uses, null, wishes.Cooks.Count, Ovens)];
            var ways = Alike(PrepWay.Plain(first.Verb.Name) with { Usual = own is null ? null : usual }, modes);
            var text = step is { } at ? DishOf(first.Dish).Steps[at].Written.Text : "";
            var isAbout = own is null && together.Any(one => one.IsAbout);
            List<PrepAmount> amounts = [.. together.Where(one => one.FoodId is not null).Select(AmountOf)];
            var task = new PrepTask(
                id, PrepKind.Prepare, [.. together.Select(one => one.Dish).Distinct()], ways, step, text, true, isAbout, amounts, []);
            task = task with
            {
                Lines = [.. amounts.SelectMany(LinesOf).Distinct()],
                HasUnnamed = together.Any(one => one.FoodId is null),
            };
            Add(task, modes, [new("get out")]);
        }
    }

    private static List<PrepWay> Alike(PrepWay way, IReadOnlyList<TaskMode> modes) => [.. modes.Select(_ => way)];

    private PrepDish DishOf(Guid id) => dishes.First(dish => dish.Id == id);

    private IEnumerable<DishLine> LinesOf(PrepAmount amount) =>
        DishOf(amount.Dish).Lines.Where(line => string.Equals(line.FoodId, amount.FoodId, StringComparison.Ordinal))
            .Select(line => new DishLine(amount.Dish, line.Position));

    // What is begun keeps the name it has, and nothing else gets it.
    private string NewId(string id)
    {
        while (begun.Any(task => string.Equals(task.Id, id, StringComparison.Ordinal))) id += "+";
        return id;
    }

    private static PrepAmount AmountOf(Preparation one) => new(one.Dish, one.Food, one.Weight.Value, one.FoodId);

    private static void Add(Dictionary<(Guid, int?), List<string>> to, (Guid, int?) key, string id)
    {
        if (!to.TryGetValue(key, out var list)) to[key] = list = [];
        if (!list.Contains(id)) list.Add(id);
    }

    // The dish from its first step to its boxes; what comes after it begins by these: its packing, or the end of its cooling where all of
    // it goes into dishes that are put together from it.
    private List<TaskBond> Cook(PrepDish dish, List<TaskBond> parts)
    {
        List<TaskBond> before = [new("get out"), .. parts];
        var ready = prepared.Where(pair => pair.Key.Dish == dish.Id)
            .Select(pair => (Step: pair.Key.Step ?? 0, Bonds: pair.Value.Select(id => new TaskBond(id)).ToList())).ToList();
        var pieces = PiecesOf(dish);
        var lastHot = pieces.FindLastIndex(piece => Preparations.IsHot(piece.Part));
        var hotId = "";
        for (var i = 0; i < pieces.Count; i++)
        {
            var piece = pieces[i];
            var id = IdOf(dish, pieces, i);
            before.AddRange(ready.Where(own => own.Step <= piece.At).SelectMany(own => own.Bonds));
            ready.RemoveAll(own => own.Step <= piece.At);
            var due = i == lastHot && wishes.SupperDish == dish.Id && dish.DaysAhead == 0 ? Minute(wishes.Supper) : null;
            var own = piece.Phases.Count > 0 ? null : OwnMinutes(dish, piece.Step, piece.Part, piece.Minutes);
            List<TaskMode> modes =
            [
                .. Capacities.Ways(
                    own ?? piece.Minutes, piece.Part.IsHandsOn, piece.Need.Uses, piece.Part.Celsius, wishes.Cooks.Count, Ovens),
            ];
            var way = new PrepWay(piece.Part.Verb, piece.Part.Celsius, piece.Need.Loads) { Usual = own is null ? null : piece.Minutes };
            var ways = Alike(way, modes);
            Add(
                new(
                    id, PrepKind.Step, [dish.Id], [.. ways, .. piece.OtherWays.Select(other => other.Way)], piece.At,
                    piece.Step.Written.Text, piece.Part.IsHandsOn, own is null && piece.Part.IsAbout, [], piece.Phases)
                {
                    Lines =
                    [
                        .. Preparations.GoIn(dish.Steps, piece.At, dish.Lines)
                            .Select(line => new DishLine(dish.Id, line.Position)).Distinct(),
                    ],
                },
                [.. modes, .. piece.OtherWays.Select(other => other.Mode)], [.. before.Distinct()], due);
            before = [new(id)];
            if (i == lastHot) hotId = id;
        }

        // What is chopped for no later step goes straight into the boxes.
        before.AddRange(ready.SelectMany(own => own.Bonds));
        return Pack(dish, pieces, lastHot, hotId, before);
    }

    // By its sentence and not by its place: a step written in between leaves all others their names.
    private static string IdOf(PrepDish dish, List<Piece> pieces, int i)
    {
        static (string Verb, string Text) Key(Piece piece) => (piece.Part.Verb, piece.Step.Written.Text);
        var nth = pieces.Take(i).Count(before => Key(before) == Key(pieces[i]));
        return $"{dish.Id:N}.{pieces[i].Part.Verb}.{HashOf(pieces[i].Step.Written.Text):x8}.{nth}";
    }

    // FNV-1a (Fowler, Noll, Vo): the same on every machine and in every run of the program.
    private static uint HashOf(string text) => text.Aggregate(2_166_136_261u, (hash, letter) => unchecked((hash ^ letter) * 16_777_619u));

    private List<TaskBond> Pack(PrepDish dish, List<Piece> pieces, int lastHot, string hotId, List<TaskBond> before)
    {
        var isCooling = pieces.Skip(lastHot + 1).Any(piece => !piece.Part.IsHandsOn);
        if (lastHot >= 0 && !isCooling)
        {
            var id = $"{dish.Id:N}.cool";
            Add(
                new(id, PrepKind.Cool, [dish.Id], [PrepWay.Plain("cool")], null, "", false, true, [], []),
                [new(ToCool, new Dictionary<string, int>(StringComparer.Ordinal))], [.. before]);
            before = [new(id)];
        }

        var minutes = dish.DaysAhead > 0 ? ToPutAway : ToPack + Math.Clamp(dish.Boxes, 1, 200);
        if (hotId.Length > 0)
        {
            // However long it cools, it is in its boxes within two hours, where the recipe itself does not ask for longer.
            var own = pieces.Skip(lastHot + 1).Sum(piece => piece.Minutes) + (isCooling ? 0 : ToCool) + minutes;
            if (own <= TwoHours) before.Add(new(hotId, 0, TwoHours - minutes));
        }

        if (dish.DaysAhead > 0)
        {
            var awayId = $"{dish.Id:N}.away";
            Hands(awayId, PrepKind.PutAway, [dish.Id], "put away", minutes, [.. before.Distinct()]);
            return [new(awayId)];
        }

        if (dish.Boxes == 0 && dish.Parts is null) return [.. before.Distinct()];
        var packId = $"{dish.Id:N}.pack";
        List<PrepAmount> amounts = [.. (dish.Parts ?? []).Select(part => new PrepAmount(dish.Id, part.Name, part.Weight.Value))];
        Hands(packId, PrepKind.Pack, [dish.Id], "pack", minutes, [.. before.Distinct()], null, amounts);
        return [new(packId)];
    }

    private List<Piece> PiecesOf(PrepDish dish)
    {
        if (dish.Steps.Count == 0 && (dish.Parts is not null || dish.DaysAhead > 0)) return [];
        if (dish.Steps.Count == 0)
        {
            warnings.Add(new(dish.Id, KitchenLack.NoSteps));
            return WithoutSteps(dish);
        }

        var pieces = new List<Piece>();
        var isCooked = false;
        for (var at = 0; at < dish.Steps.Count; at++)
        {
            var step = dish.Steps[at];
            if (!AheadWork.IsNow(dish, at))
            {
                isCooked |= step.Way.Parts.Any(Preparations.IsHot);
                continue;
            }

            foreach (var words in step.Reading.NotUnderstood) warnings.Add(new(dish.Id, KitchenLack.NotUnderstood, Words: words));
            for (var p = 0; p < step.Way.Parts.Count; p++)
            {
                var part = step.Way.Parts[p];
                var isSkipped = string.Equals(part.Verb, StepVerbs.Preheat.Name, StringComparison.Ordinal)
                    || Preparations.IsOne(dish, part, isCooked);
                isCooked |= Preparations.IsHot(part);
                if (isSkipped) continue;
                var need = MachineNeed.Of(dish, step, part, kitchen, warning => warnings.Add(warning));
                var minutes = MachineNeed.MinutesOf(dish, step, part, need.Loads);
                var piece = new Piece(part, step, at, minutes, need, [], OtherWays(dish, step, p));
                if (!GoesOnUnderPressure(pieces, piece) && !GoesOnByHand(pieces, piece)) pieces.Add(piece);
            }
        }

        return pieces;
    }

    // "Brown the mushrooms, then soften the onions": one stretch at one ring, without a break for other dishes.
    private static bool GoesOnByHand(List<Piece> pieces, Piece piece)
    {
        if (!piece.Part.IsHandsOn || pieces.Count == 0 || pieces[^1] is not { Part.IsHandsOn: true } before) return false;
        var isAlike = before.Need.Loads == piece.Need.Loads && before.Part.Uses.SequenceEqual(piece.Part.Uses);
        if (before.At != piece.At || !isAlike) return false;
        pieces[^1] = before with
        {
            Minutes = before.Minutes + piece.Minutes,
            Part = before.Part with { IsAbout = before.Part.IsAbout || piece.Part.IsAbout },
        };
        return true;
    }

    // What stays in the pressure cooker without a hand on it is one stretch, and coming to pressure is a part of it.
    private static bool GoesOnUnderPressure(List<Piece> pieces, Piece piece)
    {
        if (piece.Part.IsHandsOn || !piece.Part.Uses.Contains(Occupies.PressureCooker)) return false;
        var phase = new PrepPhase(piece.Part.Verb, piece.Minutes);
        if (pieces.Count > 0 && pieces[^1] is { Part.IsHandsOn: false, Phases.Count: > 0 } before && before.At == piece.At)
        {
            before.Phases.Add(phase);
            pieces[^1] = before with { Minutes = before.Minutes + piece.Minutes };
            return true;
        }

        var toPressure = ToComeToPressure * piece.Need.Loads;
        pieces.Add(piece with { Minutes = piece.Minutes + toPressure, Phases = [new("come to pressure", toPressure), phase] });
        return true;
    }

    // Another way of a step stands in for the part that it replaces, where it is one part itself.
    private List<(TaskMode Mode, PrepWay Way)> OtherWays(PrepDish dish, StepToDo step, int at)
    {
        var ways = new List<(TaskMode, PrepWay)>();
        var isOwnTime = step.Written is { Unattended: null, Occupies: null };
        foreach (var other in isOwnTime ? step.Reading.OtherWays : [])
        {
            if (other.Parts.Count != step.Way.Parts.Count) continue;
            var differ = Enumerable.Range(0, other.Parts.Count).Where(i => !IsSame(other.Parts[i], step.Way.Parts[i])).ToList();
            if (differ.Count != 1 || differ[0] != at) continue;
            var part = other.Parts[at];
            if (part.Uses.Any(kind => kitchen.CountOf(kind) == 0)) continue;
            var need = MachineNeed.Of(dish, step, part, kitchen, _ => { });
            var usual = MachineNeed.MinutesOf(dish, step, part, need.Loads);
            var own = OwnMinutes(dish, step, part, usual);
            var way = new PrepWay(part.Verb, part.Celsius, need.Loads) { Usual = own is null ? null : usual };
            ways.AddRange(Capacities.Ways(own ?? usual, part.IsHandsOn, need.Uses, part.Celsius, wishes.Cooks.Count, Ovens)
                .Select(mode => (mode, way)));
        }

        return ways;
    }

    // Where the recipe says how long something bakes, it bakes that long; all else takes what it took these cooks before.
    private int? OwnMinutes(PrepDish dish, StepToDo step, StepPart part, int usual) =>
        part.IsHandsOn || part.IsAbout ? times.Of(OwnTimes.KeyOf(dish.RecipeId, step.Written.Text, part.Verb), usual) : null;

    private static bool IsSame(StepPart one, StepPart other) =>
        one with { Uses = [], Words = "" } == other with { Uses = [], Words = "" } && one.Uses.SequenceEqual(other.Uses);

    private static List<Piece> WithoutSteps(PrepDish dish)
    {
        var step = new StepToDo(new(""), new(new([]), [], null, null, []), new([]));
        Piece Of(string verb, int minutes, bool isHandsOn, params Occupies[] uses) => new(
            new(verb, minutes, isHandsOn, true, null, uses, Grows.WithTheBatch), step, 0, minutes,
            new(1, uses.ToDictionary(use => use, _ => 1)), [], []);
        return [Of("prepare", HandsWithoutSteps, true), Of("cook", WaitWithoutSteps, false, Occupies.Ring)];
    }

    private void Hands(
        string id, PrepKind kind, IReadOnlyList<Guid> own, string verb, int minutes, IReadOnlyList<TaskBond> after, int? due = null,
        IReadOnlyList<PrepAmount>? amounts = null)
    {
        var known = times.Of(OwnTimes.KeyOf(kind), minutes);
        List<TaskMode> modes =
            [.. Capacities.Ways(known ?? minutes, true, new Dictionary<Occupies, int>(), null, wishes.Cooks.Count, Ovens)];
        var way = PrepWay.Plain(verb) with { Usual = known is null ? null : minutes };
        Add(new(id, kind, own, Alike(way, modes), null, "", true, known is null, amounts ?? [], []), modes, after, due);
    }

    private void Add(PrepTask task, IReadOnlyList<TaskMode> modes, IReadOnlyList<TaskBond> after, int? due = null)
    {
        tasks.Add(task);
        scheduled.Add(new(task.Id, modes, after, 0, due));
    }

    private int Ovens => kitchen.CountOf(Occupies.Oven);

    // What is needed and not there counts as one, so that the day can be shown; it is said.
    private Dictionary<string, int> CapacitiesThere()
    {
        var there = new Dictionary<string, int>(StringComparer.Ordinal);
        for (var i = 0; i < wishes.Cooks.Count; i++) there[Capacities.Cook(i)] = 1;
        for (var i = 0; i < Math.Max(1, Ovens); i++) there[Capacities.Oven(i)] = Math.Max(1, (int)(kitchen.HoldsOf(Occupies.Oven) ?? 1));
        foreach (var kind in Enum.GetValues<Occupies>().Where(kind => kind != Occupies.Oven))
            there[Capacities.Of(kind)] = Math.Max(1, kitchen.CountOf(kind));
        return there;
    }

    private Dictionary<string, int> Heated() =>
        Enumerable.Range(0, Math.Max(1, Ovens)).ToDictionary(Capacities.Oven, _ => kitchen.OvenApart, StringComparer.Ordinal);

    private IEnumerable<TakenTime> Taken()
    {
        for (var i = 0; i < wishes.Cooks.Count; i++)
        {
            var cook = wishes.Cooks[i];
            if (Minute(cook.From) is { } from and > 0) yield return new(Capacities.Cook(i), 0, from, 1);
            if (Minute(cook.To) is { } to) yield return new(Capacities.Cook(i), to, int.MaxValue, 1);
        }

        foreach (var quiet in kitchen.Quiet)
        {
            var (from, to) = (Math.Max(0, Minute(quiet.From)!.Value), Minute(quiet.To)!.Value);
            if (to <= 0) continue;
            foreach (var kind in quiet.Kinds.Distinct())
            {
                if (kind != Occupies.Oven) yield return new(Capacities.Of(kind), from, to, Math.Max(1, kitchen.CountOf(kind)));
                else
                {
                    for (var i = 0; i < Math.Max(1, Ovens); i++)
                        yield return new(Capacities.Oven(i), from, to, Math.Max(1, (int)(kitchen.HoldsOf(Occupies.Oven) ?? 1)));
                }
            }
        }
    }
}
