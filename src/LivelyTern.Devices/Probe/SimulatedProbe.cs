namespace LivelyTern.Devices.Probe;

/// <summary>
/// A probe thermometer in a food that is not there. The food nears what is around it by Newton's law of cooling: the difference falls by
/// the same share in every minute.
/// </summary>
public sealed class SimulatedProbe
{
    private const double Room = 21, Lowest = -40, Highest = 300;
    private double celsius = Room, around = Room, perMinute = 0.05;

    /// <summary>Puts the food somewhere.</summary>
    /// <param name="surroundings">°C around it: 180 in an oven, 21 on the counter, 4 in a fridge.</param>
    /// <param name="share">
    /// By how much of the difference it nears that in a minute, above 0 and below 1: shallow boxes more, a full pot less.
    /// </param>
    public void PutInto(double surroundings, double share)
    {
        around = Math.Clamp(surroundings, Lowest, Highest);
        perMinute = Math.Clamp(share, 0.001, 0.99);
    }

    /// <summary>Puts the probe into a food that is so warm.</summary>
    public void StickInto(double warm) => celsius = Math.Clamp(warm, Lowest, Highest);

    /// <summary>Lets time go by.</summary>
    public void Advance(double seconds) => celsius = around + ((celsius - around) * Math.Pow(1 - perMinute, seconds / 60));

    /// <summary>What it shows now.</summary>
    public ProbeReading Read(DateTimeOffset at) => new(at, Math.Round((decimal)celsius, 1, MidpointRounding.AwayFromZero));
}
