namespace LivelyTern.Data;

/// <summary>A row that counts its changes, so that no write wins silently over another.</summary>
public interface IVersioned
{
    /// <summary>Counts up with each change.</summary>
    int Version { get; set; }
}
