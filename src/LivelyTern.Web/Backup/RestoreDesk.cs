using System.Collections.Concurrent;
using LivelyTern.Core.Measures;
using LivelyTern.Data;
using LivelyTern.Data.Backup;
using LivelyTern.Data.Disk;

namespace LivelyTern.Web.Backup;

/// <summary>A backup that was read through and can be put back.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Name">What its file was called.</param>
/// <param name="Path">The work file.</param>
/// <param name="Seen">What is here, as it was when they were held against each other.</param>
/// <param name="Differences">What differs from that.</param>
public sealed record WaitingRestore(Guid Id, string Name, string Path, SeenFile Seen, IReadOnlyList<Difference> Differences);

/// <summary>The backups that wait to be put back, each as a file of its own in the folder for such.</summary>
public sealed class RestoreDesk(StartOptions start, WorkFolder work, ILogger<RestoreDesk> log) : IDisposable
{
    private const int Most = 3;
    private const long Large = 20_000_000;
    private readonly ConcurrentDictionary<Guid, WaitingRestore> waiting = new();
    private readonly SemaphoreSlim turn = new(1, 1);

    private string Folder => work.Of("restores");

    /// <summary>Does something with the one of this id, or with null where there is none any more; one after another.</summary>
    public async Task<T> InTurnAsync<T>(Guid id, Func<WaitingRestore?, Task<T>> act)
    {
        ArgumentNullException.ThrowIfNull(act);
        await turn.WaitAsync();
        try
        {
            return await act(waiting.GetValueOrDefault(id));
        }
        finally
        {
            turn.Release();
        }
    }

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
        var (given, work, isLarge) = (PathOf(id, "given"), PathOf(id, "db"), false);
        try
        {
            await using (var file = File.Create(given)) await content.CopyToAsync(file, stop);
            isLarge = new FileInfo(given).Length > Large;

            // Nothing else here takes as much memory as reading years of a household: what lies about makes room for it, and it for others.
            if (isLarge) QuietMemory.GiveBack();
            await Task.Run(() => WorkFile.MakeAsync(given, work, start.Clock), CancellationToken.None);
            foreach (var old in waiting.Keys.Take(Math.Max(0, waiting.Count - Most + 1))) Drop(old);
            return waiting[id] = await HeldAgainstAsync(id, name, work, db);
        }
        catch (UnfitBackupException unfit)
        {
            log.LogInformation(unfit, "A backup was refused");
            Clear(id);
            return new Problem(unfit.Code, "file", unfit.Message);
        }
        catch (Exception error) when (error is not BadHttpRequestException && Copies.IsOfTheDisk(error))
        {
            log.LogWarning(error, "A backup could not be taken in");
            Clear(id);
            return new Problem("backup-not-taken", "file", $"It could not be read here. {FileTrouble.Why(error)} Nothing was changed.");
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
            if (isLarge) QuietMemory.GiveBack();
        }
    }

    /// <summary>The same, held against what is here now.</summary>
    public async Task<WaitingRestore> LookAgainAsync(WaitingRestore restore, TernDb db)
    {
        ArgumentNullException.ThrowIfNull(restore);
        restore.Seen.Dispose();
        return waiting[restore.Id] = await HeldAgainstAsync(restore.Id, restore.Name, restore.Path, db);
    }

    /// <summary>Lets it go.</summary>
    public void Drop(Guid id)
    {
        if (!waiting.TryRemove(id, out var restore)) return;
        restore.Seen.Dispose();
        Clear(id);
    }

    /// <inheritdoc/>
    public void Dispose()
    {
        turn.Dispose();
        foreach (var restore in waiting.Values) restore.Seen.Dispose();
    }

    // What is written while they are held against each other is something that nobody has seen.
    private static async Task<WaitingRestore> HeldAgainstAsync(Guid id, string name, string work, TernDb db)
    {
        var seen = new SeenFile(db);
        return new(id, name, work, seen, await Differences.FindAsync(db, work));
    }

    private void Clear(Guid id)
    {
        foreach (var file in Directory.EnumerateFiles(Folder, id.ToString("N") + "*")) File.Delete(file);
    }

    private string PathOf(Guid id, string what) => Path.Combine(Folder, $"{id:N}.{what}");
}
