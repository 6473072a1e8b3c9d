namespace LivelyTern.Core.Aim;

/// <summary>Someone who eats from the batches.</summary>
/// <param name="Id">Stable identity.</param>
/// <param name="Name">As the others call them.</param>
/// <param name="Aim">What their day may hold.</param>
public sealed record Eater(Guid Id, string Name, DayAim Aim);
