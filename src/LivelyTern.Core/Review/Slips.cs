using LivelyTern.Core.Measures;

using System.Globalization;

namespace LivelyTern.Core.Review;

/// <summary>
/// Weigh-ins that can't be of this body, or hardly: 17 for 71, pounds in a row of kilograms, the other eater's. They are shown, not hidden,
/// and don't count. Nobody's tissue changes by a tenth in days: what lies further than that from the days around it is out, or than 6 kg
/// where a tenth is less. Common practice, no published source.
/// </summary>
internal static class Slips
{
    private const int Around = 5, LongestGapDays = 60;
    private const double Share = 0.1, LeastKg = 6;
    private const decimal KgPerPound = 0.45359237m;

    public static (List<WeighIn> Kept, List<LeftOut> Out) Apart(IReadOnlyList<WeighIn> weighIns)
    {
        var left = new List<LeftOut>();
        var inOrder = weighIns.OrderBy(one => one.Day).ToList();
        var possible = inOrder.FindAll(one => one.Kg is >= WeighIn.Least and <= WeighIn.Most);
        var kept = new List<WeighIn>();
        foreach (var one in inOrder)
        {
            var isPossible = one.Kg is >= WeighIn.Least and <= WeighIn.Most;
            var usual = UsualAround(one, possible);
            if (isPossible && (usual is not { } near || IsNear(one.Kg, near))) kept.Add(one);
            else left.Add(new(one, WhyNot(one, isPossible, usual), usual is { } there ? MeantBy(one.Kg, there) : null));
        }

        return (kept, left);
    }

    // The middle of the weigh-ins nearest in time, itself not among them; null with fewer than three.
    private static decimal? UsualAround(WeighIn of, List<WeighIn> all)
    {
        int Apart(WeighIn one) => Math.Abs(one.Day.DayNumber - of.Day.DayNumber);
        var near = all.Where(one => !ReferenceEquals(one, of) && Apart(one) <= LongestGapDays)
            .OrderBy(Apart).ThenBy(one => one.Day).Take(Around).Select(one => one.Kg).ToList();
        return near.Count < 3 ? null : Middle.Of(near);
    }

    private static bool IsNear(decimal kg, decimal usual) =>
        (double)Math.Abs(kg - usual) <= Math.Max(LeastKg, Share * (double)usual);

    private static string WhyNot(WeighIn one, bool isPossible, decimal? usual)
    {
        var kg = one.Kg.ToString("0.#", CultureInfo.InvariantCulture);
        if (!isPossible) return $"{kg} kg: a body weighs between {WeighIn.Least:0} and {WeighIn.Most:0} kg.";
        var around = usual!.Value.ToString("0.#", CultureInfo.InvariantCulture);
        return $"{kg} kg is far from the days around it, which are near {around} kg.";
    }

    // Two digits swapped, pounds for kilograms or the other way, a decimal point left out: if that lies near, it is offered.
    private static decimal? MeantBy(decimal kg, decimal usual)
    {
        decimal[] tries = [Swapped(kg), decimal.Round(kg * KgPerPound, 1), decimal.Round(kg / KgPerPound, 1), kg / 10, kg * 10];
        var near = tries.Where(one => IsNear(one, usual)).ToList();
        return near.Count == 0 ? null : near.MinBy(one => Math.Abs(one - usual));
    }

    private static decimal Swapped(decimal kg)
    {
        var whole = ((int)decimal.Truncate(kg)).ToString(CultureInfo.InvariantCulture);
        var part = kg - decimal.Truncate(kg);
        return whole.Length < 2 ? kg : int.Parse(whole[1..2] + whole[..1] + whole[2..], CultureInfo.InvariantCulture) + part;
    }
}
