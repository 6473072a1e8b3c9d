namespace LivelyTern.Devices.Probe;

/// <summary>What a probe thermometer shows.</summary>
/// <param name="At">When, by the probe's clock.</param>
/// <param name="Celsius">°C, to a tenth.</param>
public sealed record ProbeReading(DateTimeOffset At, decimal Celsius);
