using System.Collections.Concurrent;
using LivelyTern.Core.Measures;
using LivelyTern.Data;
using LivelyTern.Data.Backup;

namespace LivelyTern.Web.Backup;

/// <summary>A backup that was read through and can be put back.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Name">What its file was called.</param>
/// <param name="Path">The work file.</param>
/// <param name="Differences">What differs from what is here.</param>
public sealed record WaitingRestore(Guid Id, string Name, string Path, IReadOnlyList<Difference> Differences);

/// <summary>The backups that wait to be put back, each as a file of its own in a folder that goes with the host.</summary>
public sealed class RestoreDesk(StartOptions start, ILogger<RestoreDesk> log) : IDisposable
{
    private const int Most = 3;
    private readonly ConcurrentDictionary<Guid, WaitingRestore> waiting = new();
    private readonly SemaphoreSlim turn = new(1, 1);
    private readonly string folder = Directory.CreateTempSubdirectory("lively-tern-restore-").FullName;

    /// <summary>The one of this id, or null.</summary>
    public WaitingRestore? Find(Guid id) => waiting.GetValueOrDefault(id);

    /// <summary>Takes a file in, reads it through and holds it against what is here. One after another.</summary>
    /// <param name="name">What it was called.</param>
    /// <param name="content">What is in it.</param>
    /// <param name="db">The household's file.</param>
    /// <param name="stop">Ends the taking in.</param>
    public async Task<Outcome<WaitingRestore>> TakeInAsync(string name, Stream content, TernDb db, CancellationToken stop)
    {
        ArgumentNullException.ThrowIfNull(content);
        await turn.WaitAsync(stop);
        var id = Guid.NewGuid();
        var (given, work) = (PathOf(id, "given"), PathOf(id, "db"));
        try
        {
            GiveMemoryBack();
            await using (var file = File.Create(given)) await content.CopyToAsync(file, stop);
            await Task.Run(() => WorkFile.MakeAsync(given, work, start.Clock), CancellationToken.None);
            var restore = new WaitingRestore(id, name, work, await Differences.FindAsync(db, work));
            foreach (var old in waiting.Keys.Take(Math.Max(0, waiting.Count - Most + 1))) Drop(old);
            return waiting[id] = restore;
        }
        catch (UnfitBackupException unfit)
        {
            log.LogInformation(unfit, "A backup was refused");
            Clear(id);
            return new Problem(unfit.Code, "file", unfit.Message);
        }
        catch (Exception error) when (Copies.IsOfTheDisk(error))
        {
            log.LogWarning(error, "A backup could not be taken in");
            Clear(id);
            return new Problem("backup-not-taken", "file", $"It could not be read here: {error.Message} Nothing was changed.");
        }
        catch
        {
            Clear(id);
            throw;
        }
        finally
        {
            File.Delete(given);
            turn.Release();
            GiveMemoryBack();
        }
    }

    /// <summary>The same, held against what is here now.</summary>
    public async Task<WaitingRestore> LookAgainAsync(WaitingRestore restore, TernDb db)
    {
        ArgumentNullException.ThrowIfNull(restore);
        return waiting[restore.Id] = restore with { Differences = await Differences.FindAsync(db, restore.Path) };
    }

    /// <summary>Lets it go.</summary>
    public void Drop(Guid id)
    {
        if (waiting.TryRemove(id, out _)) Clear(id);
    }

    /// <inheritdoc/>
    public void Dispose()
    {
        turn.Dispose();
        try
        {
            Directory.Delete(folder, recursive: true);
        }
        catch (IOException error)
        {
            log.LogWarning(error, "The folder {Folder} could not be cleared", folder);
        }
    }

    // Nothing else here takes as much memory as reading a whole household: what lies about unused makes room for it, and it for others.
    private static void GiveMemoryBack() =>
        GC.Collect(GC.MaxGeneration, GCCollectionMode.Aggressive, blocking: true, compacting: true);

    private void Clear(Guid id)
    {
        foreach (var file in Directory.EnumerateFiles(folder, id.ToString("N") + "*")) File.Delete(file);
    }

    private string PathOf(Guid id, string what) => Path.Combine(folder, $"{id:N}.{what}");
}
