namespace LivelyTern.Core.Measures;

/// <summary>The one rounding of the house: half away from zero, once, at display or where a rule says so.</summary>
public static class Rounding
{
    /// <summary>Rounds to a multiple of <paramref name="step"/>, half away from zero: 2.5 in steps of 1 is 3, and -2.5 is -3.</summary>
    /// <param name="value">Any amount.</param>
    /// <param name="step">A positive step in the same unit; 0 leaves the value as it is.</param>
    public static decimal ToStep(decimal value, decimal step) =>
        step == 0 ? value : Math.Round(value / step, MidpointRounding.AwayFromZero) * step;
}
