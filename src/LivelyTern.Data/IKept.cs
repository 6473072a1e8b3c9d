namespace LivelyTern.Data;

/// <summary>Something read from the file that the host keeps between requests.</summary>
public interface IKept
{
    /// <summary>Lets it go: what the file holds is another thing now.</summary>
    void Forget();
}
