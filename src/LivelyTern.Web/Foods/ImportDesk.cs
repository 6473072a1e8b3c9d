using System.Collections.Concurrent;
using LivelyTern.Core.Foods;
using LivelyTern.Data.Disk;
using LivelyTern.Data.Foods;
using LivelyTern.Formats;
using LivelyTern.Formats.Foods;

namespace LivelyTern.Web.Foods;

/// <summary>Where an import stands.</summary>
public enum ImportState
{
    /// <summary>The file is read through for the preview; nothing is written.</summary>
    Looking,

    /// <summary>The preview is there; the user decides.</summary>
    Ready,

    /// <summary>The rows are written.</summary>
    Taking,

    /// <summary>The library is there.</summary>
    Done,

    /// <summary>Stopped by the user; nothing of it was kept.</summary>
    Stopped,

    /// <summary>It can't be read; nothing of it was kept.</summary>
    Failed,
}

/// <summary>An import on its way: a file, its preview, and the writing of it.</summary>
public sealed class Import(string name, string source, string path, bool isShipped)
{
    /// <summary>Its id.</summary>
    public Guid Id { get; } = Guid.NewGuid();

    /// <summary>What the library will be called.</summary>
    public string Name { get; } = name;

    /// <summary>Its source and licence.</summary>
    public string Source { get; } = source;

    /// <summary>The file.</summary>
    public string Path { get; } = path;

    /// <summary>Whether the file ships with the program, and is not to be deleted.</summary>
    public bool IsShipped { get; } = isShipped;

    /// <summary>Where it stands.</summary>
    public ImportState State { get; internal set; } = ImportState.Looking;

    /// <summary>The share done of this state, 0 to 1.</summary>
    public double Progress { get; internal set; }

    /// <summary>What kind of file it is.</summary>
    public string? Kind { get; internal set; }

    /// <summary>The file as it was looked through, with what it keeps for the writing; null where that was let go.</summary>
    public IFoodFile? File { get; internal set; }

    /// <summary>For a CSV file its headers and first rows.</summary>
    public (IReadOnlyList<string> Headers, IReadOnlyList<IReadOnlyList<string>> Rows)? Table { get; internal set; }

    /// <summary>For a CSV file which column is what.</summary>
    public CsvMapping? Mapping { get; internal set; }

    /// <summary>The first foods, as they would be taken.</summary>
    public IReadOnlyList<ImportedRow> Sample { get; internal set; } = [];

    /// <summary>What the file comes to.</summary>
    public ImportReport? Report { get; internal set; }

    /// <summary>Why it failed, in words.</summary>
    public string? Failure { get; internal set; }

    /// <summary>The library it became.</summary>
    public int? LibraryId { get; internal set; }

    /// <summary>When anybody last asked for it.</summary>
    internal DateTimeOffset AskedAt { get; set; }

    internal CancellationTokenSource Stop { get; set; } = new();

    internal Task Work { get; set; } = Task.CompletedTask;

    internal Lock Gate { get; } = new();
}

/// <summary>
/// The imports of this run. The file lies in the work folder until the import is over, has failed or was left alone for half an hour;
/// reading and writing go on beside all other work, and can be stopped at any row.
/// </summary>
public sealed class ImportDesk : IAsyncDisposable
{
    /// <summary>How long a preview waits for somebody to ask for it.</summary>
    public static readonly TimeSpan Patience = TimeSpan.FromMinutes(30);

    private const int Sampled = 40;
    private const int MostImports = 20;

    /// <summary>From how many foods on they take much memory.</summary>
    private const int Many = 100_000;
    private readonly ConcurrentDictionary<Guid, Import> imports = new();
    private readonly IServiceScopeFactory scopes;
    private readonly TimeProvider clock;
    private readonly QuietMemory memory;
    private readonly ILogger<ImportDesk> log;
    private readonly WorkFolder work;
    private readonly ITimer sweeping;

    /// <summary>No imports yet.</summary>
    public ImportDesk(IServiceScopeFactory scopes, WorkFolder work, TimeProvider clock, QuietMemory memory, ILogger<ImportDesk> log)
    {
        (this.scopes, this.clock, this.memory, this.log, this.work) = (scopes, clock, memory, log, work);
        sweeping = TimeProvider.System.CreateTimer(_ => Sweep(clock.GetUtcNow()), null, Patience / 6, Patience / 6);
    }

    /// <summary>The import of this id, or null.</summary>
    public Import? Find(Guid id)
    {
        if (!imports.TryGetValue(id, out var import)) return null;
        import.AskedAt = clock.GetUtcNow();
        return import;
    }

    /// <summary>Lets go of the previews nobody has asked for in a while, with their files.</summary>
    /// <param name="now">The moment.</param>
    public void Sweep(DateTimeOffset now)
    {
        var before = now - Patience;
        foreach (var import in imports.Values.Where(import => import.AskedAt < before))
        {
            lock (import.Gate)
            {
                if (import.State == ImportState.Taking || !imports.TryRemove(import.Id, out _)) continue;
                import.Stop.Cancel();
            }

            Clear(import);
        }
    }

    /// <summary>Whether a library is being written.</summary>
    public bool IsTaking => imports.Values.Any(import => import.State == ImportState.Taking);

    /// <summary>Takes a file in and looks through it.</summary>
    /// <param name="name">What it is called.</param>
    /// <param name="content">Its bytes; written to a file first.</param>
    /// <param name="stop">Ends the taking in.</param>
    public async Task<Import> TakeInAsync(string name, Stream content, CancellationToken stop)
    {
        ArgumentNullException.ThrowIfNull(content);
        var path = System.IO.Path.Combine(work.Of("imports"), Guid.NewGuid().ToString("N"));
        try
        {
            await using var file = File.Create(path);
            await content.CopyToAsync(file, stop);
        }
        catch
        {
            File.Delete(path);
            throw;
        }

        return Start(new Import(name, name, path, isShipped: false));
    }

    /// <summary>Looks through a file that ships with the program.</summary>
    public Import TakeShipped(string name, string source, string path) => Start(new Import(name, source, path, isShipped: true));

    /// <summary>Looks through it again with another mapping.</summary>
    /// <returns>False where it is not waiting for that.</returns>
    public bool Remap(Import import, CsvMapping mapping)
    {
        ArgumentNullException.ThrowIfNull(import);
        lock (import.Gate)
        {
            if (import.State is not (ImportState.Ready or ImportState.Looking or ImportState.Failed) || import.Table is null) return false;
            import.Stop.Cancel();
            (import.Stop, import.Mapping) = (new(), mapping);
            Look(import);
            return true;
        }
    }

    /// <summary>Writes the library.</summary>
    /// <returns>False where there is nothing to write, or it is being written.</returns>
    public bool Take(Import import)
    {
        ArgumentNullException.ThrowIfNull(import);
        lock (import.Gate)
        {
            if (import.State != ImportState.Ready || import.Report is not { Taken: > 0 }) return false;
            (import.State, import.Progress) = (ImportState.Taking, 0);
            import.Work = Run(import, async (progress, stop) =>
            {
                await using var scope = scopes.CreateAsyncScope();
                var rows = (import.File ?? FoodFiles.Open(import.Path, import.Mapping)).Rows(progress, stop);
                var writer = scope.ServiceProvider.GetRequiredService<LibraryWriter>();
                var (library, report) = await writer.WriteAsync(import.Name, import.Source, rows, stop);
                (import.LibraryId, import.Report, import.State, import.Progress) = (library.Id, report, ImportState.Done, 1);
                Clear(import);
            }, import.Stop.Token);
            return true;
        }
    }

    /// <summary>Stops it. What was written of it is taken back.</summary>
    public async Task StopAsync(Import import)
    {
        ArgumentNullException.ThrowIfNull(import);
        await import.Stop.CancelAsync();
        await import.Work;
        lock (import.Gate)
        {
            if (import.State == ImportState.Done) return;
            if (import.State != ImportState.Failed) import.State = ImportState.Stopped;
        }

        Clear(import);
    }

    /// <inheritdoc/>
    public async ValueTask DisposeAsync()
    {
        await sweeping.DisposeAsync();
        foreach (var import in imports.Values)
        {
            await import.Stop.CancelAsync();
            await import.Work;
            Clear(import);
        }
    }

    private Import Start(Import import)
    {
        // What is over and was not looked at again makes room.
        var over = imports.Values.Where(other => other.State is ImportState.Done or ImportState.Stopped or ImportState.Failed);
        foreach (var old in over.Take(Math.Max(0, imports.Count - MostImports)))
        {
            imports.TryRemove(old.Id, out _);
            Clear(old);
        }

        import.AskedAt = clock.GetUtcNow();

        // Of the previews that wait only the newest keeps what it has read.
        foreach (var other in imports.Values) other.File = null;
        imports[import.Id] = import;
        Look(import);
        return import;
    }

    private void Look(Import import)
    {
        (import.State, import.Progress, import.Failure, import.Report) = (ImportState.Looking, 0, null, null);
        var mapping = import.Mapping;
        import.Work = Run(import, (progress, stop) =>
        {
            import.Table ??= FoodFiles.Peek(import.Path, 5);
            if (import.Table is { } table) import.Mapping ??= CsvMapping.Guess(table.Headers);
            var file = FoodFiles.Open(import.Path, mapping ?? import.Mapping);
            var tally = new ImportTally();
            var sample = new List<ImportedRow>();
            foreach (var row in file.Rows(progress, stop))
            {
                var counted = tally.Count(row);
                if (counted.Food is not null && sample.Count < Sampled) sample.Add(counted);
            }

            // Another mapping may have been chosen meanwhile: then what this look found is nobody's.
            lock (import.Gate)
            {
                stop.ThrowIfCancellationRequested();
                (import.File, import.Kind) = (file, file.Kind);
                (import.Sample, import.Report, import.Progress) = (sample, tally.Report(), 1);
                import.State = ImportState.Ready;
            }

            return Task.CompletedTask;
        }, import.Stop.Token);
    }

    private Task Run(Import import, Func<IProgress<double>, CancellationToken, Task> work, CancellationToken stop) => Task.Run(
        async () =>
        {
            try
            {
                await work(new Told(import, stop), stop);
                if (import.Report is not { } read || read.Taken + read.Refused < Many) return;
                QuietMemory.GiveBack();
                memory.WasMuch();
            }
            catch (OperationCanceledException)
            {
                // Whoever stopped it says what becomes of it.
            }
            catch (UnreadableFileException unreadable)
            {
                Fail(import, unreadable.Message, stop);
            }
            catch (Exception error)
            {
                // Whatever it is, nobody else would hear of it, and the import would go on for ever.
                log.LogWarning(error, "The import of {Name} broke off", import.Name);
                var sentence = FileTrouble.Of(error)?.Sentence ?? "The file could not be read to its end.";
                Fail(import, $"{sentence} Nothing of it was kept.", stop);
            }
        },
        CancellationToken.None);

    // A table whose columns can be chosen anew is looked through again; any other file is of no use any more.
    private static void Fail(Import import, string sentence, CancellationToken stop)
    {
        lock (import.Gate)
        {
            if (stop.IsCancellationRequested) return;
            (import.Failure, import.State) = (sentence, ImportState.Failed);
        }

        if (import.Table is null) Clear(import);
    }

    private static void Clear(Import import)
    {
        import.File = null;
        if (!import.IsShipped) System.IO.File.Delete(import.Path);
    }

    private sealed class Told(Import import, CancellationToken stop) : IProgress<double>
    {
        public void Report(double value)
        {
            if (!stop.IsCancellationRequested) import.Progress = value;
        }
    }
}
