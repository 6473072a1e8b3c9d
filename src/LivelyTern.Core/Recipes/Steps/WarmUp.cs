namespace LivelyTern.Core.Recipes.Steps;

/// <summary>How long an oven takes to come to its heat, or from one to another: common practice, no published source.</summary>
public static class WarmUp
{
    private const int Room = 20, DegreesAMinute = 13, DegreesAMinuteDown = 8;

    /// <summary>Whole minutes from a cold oven: 13 to 180 °C, 14 to 200 °C.</summary>
    /// <param name="celsius">Where it is to come.</param>
    public static int FromCold(int celsius) => Between(Room, celsius);

    /// <summary>Whole minutes from one heat to another: 2 from 180 up to 200 °C, 3 from there down.</summary>
    /// <param name="from">Where it is, in °C.</param>
    /// <param name="to">Where it is to come.</param>
    public static int Between(int from, int to) =>
        to >= from ? Up(to - from, DegreesAMinute) : Up(from - to, DegreesAMinuteDown);

    private static int Up(int degrees, int each) => (degrees + each - 1) / each;
}
