namespace LivelyTern.Web;

/// <summary>
/// Where what is uploaded lies while it is worked on: a folder beside the household's file (<c>tern.work/</c>), on the disk that has to
/// have room for it anyway. It is emptied at the start, for the host before may have ended with the power, and goes at the end.
/// </summary>
public sealed class WorkFolder : IDisposable
{
    private readonly ILogger<WorkFolder> log;
    private readonly string folder;

    /// <summary>An empty one.</summary>
    public WorkFolder(StartOptions start, ILogger<WorkFolder> log)
    {
        ArgumentNullException.ThrowIfNull(start);
        this.log = log;
        folder = System.IO.Path.ChangeExtension(start.DatabasePath, ".work");
        Clear();
    }

    /// <summary>A part of it, made where it is not there yet.</summary>
    /// <param name="name">What it is for.</param>
    public string Of(string name) => Directory.CreateDirectory(System.IO.Path.Combine(folder, name)).FullName;

    /// <inheritdoc/>
    public void Dispose() => Clear();

    private void Clear()
    {
        try
        {
            if (Directory.Exists(folder)) Directory.Delete(folder, recursive: true);
        }
        catch (Exception error) when (error is IOException or UnauthorizedAccessException)
        {
            log.LogWarning(error, "The folder {Folder} could not be cleared", folder);
        }
    }
}
