namespace LivelyTern.Data;

/// <summary>A clock that can be set: the demo is laid as if its weeks had been lived one after another.</summary>
public interface IMovableClock
{
    /// <summary>Has it be another moment, from which time goes on.</summary>
    void MoveTo(DateTimeOffset moment);
}
