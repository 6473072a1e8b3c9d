using LivelyTern.Data;
using LivelyTern.Data.Disk;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Web;

/// <summary>
/// The household's file while this host has it: taken at the start, let go at the end, and what is wrong with it in between.
/// </summary>
public sealed class HouseholdFile(StartOptions start, ILogger<HouseholdFile> log) : IDisposable
{
    private HeldFile? held;
    private volatile FileTrouble? met, damage;

    /// <summary>Takes the file, looks at it and opens it.</summary>
    /// <param name="services">Those of a scope.</param>
    /// <exception cref="FileTroubleException">It can't be taken, or is not well.</exception>
    public async Task OpenAsync(IServiceProvider services)
    {
        var path = start.DatabasePath;
        var folder = Path.GetDirectoryName(path)!;
        try
        {
            Directory.CreateDirectory(folder);
        }
        catch (Exception error) when (error is IOException or UnauthorizedAccessException)
        {
            throw new FileTroubleException(FileTrouble.OfFolder(folder, error), error);
        }

        held = HeldFile.Take(path, start.Url);
        if (start.WantsLastCopy && await StartCheck.PutLastCopyBackAsync(path, start.Clock.GetLocalNow()) is { } done)
            log.LogWarning("{Done}", done);
        var isLarge = File.Exists(path) && new FileInfo(path).Length > StartCheck.Large;
        if (await LookAsync(!isLarge) is { } trouble) throw new FileTroubleException(trouble);
        await Kitchen.OpenAsync(services);
        held.Watch();

        // A large file takes seconds to look through: that goes on beside the first work.
        if (isLarge) _ = Task.Run(LookThroughAsync);
    }

    /// <summary>Remembers that something was wrong with it.</summary>
    public void Met(FileTrouble trouble) => met = trouble;

    /// <summary>
    /// What is wrong with it now: it is not where it was, can't be read, or, where the last write found it so, can still not be written.
    /// </summary>
    public async Task<FileTrouble?> TroubleAsync(TernDb db)
    {
        ArgumentNullException.ThrowIfNull(db);
        try
        {
            HeldFile.MustBeThere(start.DatabasePath);
            await db.Database.SqlQuery<int>($"SELECT count(*) AS Value FROM sqlite_master").SingleAsync();
            if (met is not null) await TernFile.TryWritingAsync(db);
            met = null;
            return damage;
        }
        catch (Exception error) when (FileTrouble.Of(error) is not null)
        {
            return met = FileTrouble.Of(error);
        }
    }

    /// <inheritdoc/>
    public void Dispose() => held?.Dispose();

    private Task<FileTrouble?> LookAsync(bool isThorough) =>
        StartCheck.LookAsync(start.DatabasePath, StartCheck.KnownMigrations(), isThorough);

    private async Task LookThroughAsync()
    {
        try
        {
            damage = await LookAsync(isThorough: true);
        }
        catch (Exception error) when (FileTrouble.Of(error) is not null)
        {
            damage = FileTrouble.Of(error);
        }

        if (damage is not null) log.LogError("{Damage}", damage.Sentence);
    }
}
