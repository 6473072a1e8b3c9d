namespace LivelyTern.Core.Keep;

/// <summary>One of the limits that cooling is held to.</summary>
/// <param name="Celsius">The temperature to be reached, in °C.</param>
/// <param name="WithinMinutes">Minutes it may take, from when it was at <see cref="TwoStages.FromCelsius"/>.</param>
/// <param name="Minutes">Minutes it takes; null where it is never reached.</param>
public sealed record CoolingStage(double Celsius, double WithinMinutes, double? Minutes)
{
    /// <summary>Whether it holds.</summary>
    public bool Holds => Minutes <= WithinMinutes;
}

/// <summary>
/// The two-stage limits of cooling: from 135 °F (57 °C) to 70 °F (21 °C) within two hours, and to 41 °F (5 °C) within six hours in all.
/// Source: FDA Food Code 2022, 3-501.14.
/// </summary>
/// <param name="First">To 21 °C.</param>
/// <param name="Second">To 5 °C.</param>
public sealed record TwoStages(CoolingStage First, CoolingStage Second)
{
    /// <summary>135 °F.</summary>
    public static readonly double FromCelsius = Celsius(135);

    /// <summary>70 °F.</summary>
    public static readonly double FirstCelsius = Celsius(70);

    /// <summary>41 °F.</summary>
    public static readonly double SecondCelsius = Celsius(41);

    /// <summary>Where the limits come from.</summary>
    public const string Source = "FDA Food Code 2022, 3-501.14";

    private const double FirstMinutes = 120, AllMinutes = 360;

    /// <summary>Whether both hold.</summary>
    public bool Hold => First.Holds && Second.Holds;

    /// <summary>
    /// A course against the limits. The clock starts when it comes down to 57 °C; where it was never warmer, at the first reading.
    /// </summary>
    public static TwoStages Of(Cooling course)
    {
        ArgumentNullException.ThrowIfNull(course);
        var start = course.MinutesUntil(FromCelsius);
        CoolingStage Stage(double celsius, double within) => new(celsius, within, course.MinutesUntil(celsius) - start);
        return new(Stage(FirstCelsius, FirstMinutes), Stage(SecondCelsius, AllMinutes));
    }

    private static double Celsius(double fahrenheit) => (fahrenheit - 32) / 1.8;
}
