using System.Collections.Concurrent;
using Microsoft.Win32.SafeHandles;

namespace LivelyTern.Data.Disk;

/// <summary>
/// The household's file while a host runs on it: no second host begins on it, and before every write it is looked at whether it still lies
/// where it did, for SQLite would go on writing into a file that was deleted, moved or replaced, and nobody would find it again.
/// </summary>
/// <remarks>
/// The lock is one of the system's on <c>tern.db.lock</c>, which holds the host's address; it goes with the process, however that ends.
/// Where the file lies is asked of <c>/proc/self/fd</c>; a system without that tells only a file that is gone.
/// </remarks>
public sealed class HeldFile : IDisposable
{
    private static readonly ConcurrentDictionary<string, HeldFile> Held = new(StringComparer.Ordinal);

    private readonly string path, address;
    private readonly FileStream mark;
    private SafeFileHandle? file;
    private string? lies;

    private HeldFile(string path, string address, FileStream mark) => (this.path, this.address, this.mark) = (path, address, mark);

    /// <summary>Takes the file for this host.</summary>
    /// <param name="path">The file; it need not be there yet.</param>
    /// <param name="address">Where this host is to be found.</param>
    /// <exception cref="FileTroubleException">Another host has it; or its folder can't be written.</exception>
    public static HeldFile Take(string path, string address)
    {
        path = Path.GetFullPath(path);
        if (Held.TryGetValue(path, out var first)) throw Taken(path, first.address);
        while (true)
        {
            var own = Open(path + ".lock");

            // A mac has no such lock; there only a second host of the same process is kept apart.
            if (!OperatingSystem.IsMacOS() && !IsLocked(own))
            {
                using var said = new StreamReader(own);
                throw Taken(path, said.ReadToEnd().Trim());
            }

            // Whoever had it before may have taken its mark away in this very moment.
            if (LiesOf(own.SafeFileHandle) is { } at && at.EndsWith(Deleted, StringComparison.Ordinal))
            {
                own.Dispose();
                continue;
            }

            own.SetLength(0);
            own.Write(System.Text.Encoding.UTF8.GetBytes(address + "\n"));
            own.Flush();
            return Held[path] = new(path, address, own);
        }
    }

    /// <summary>Remembers where the file lies, once it is there.</summary>
    public void Watch()
    {
        file = File.OpenHandle(path, FileMode.Open, FileAccess.Read, FileShare.ReadWrite | FileShare.Delete);
        lies = LiesOf(file);
    }

    /// <summary>Whether the file lies where it did when the host began; without a host on it there is nothing to say.</summary>
    /// <param name="path">The file.</param>
    /// <exception cref="FileTroubleException">It does not.</exception>
    public static void MustBeThere(string path)
    {
        if (!Held.TryGetValue(Path.GetFullPath(path), out var held) || held.file is not { } file) return;
        var now = LiesOf(file);
        var isThere = held.lies is null ? File.Exists(held.path) : string.Equals(now, held.lies, StringComparison.Ordinal);
        if (isThere) return;
        var moved = now is not null && !now.EndsWith(Deleted, StringComparison.Ordinal) ? $" It lies at {now} now." : "";
        throw new FileTroubleException(new(
            "file-gone", FileTrouble.Unavailable,
            $"{held.path} was deleted, moved or replaced while the program runs. Nothing was saved, and nothing will be until it is back: "
            + $"stop the program, put the file or a copy of it in its place, and start it again.{moved}"));
    }

    /// <inheritdoc/>
    public void Dispose()
    {
        if (!Held.TryRemove(new(path, this))) return;
        file?.Dispose();
        File.Delete(mark.Name);
        mark.Dispose();
    }

    private const string Deleted = " (deleted)";

    private static FileTroubleException Taken(string path, string address)
    {
        var where = address.Length > 0 ? $" at {address}" : "";
        return new(new(
            "file-taken", FileTrouble.Unavailable,
            $"{path} is in use by a Lively Tern that runs already{where}. Use that one, or stop it first."));
    }

    [System.Runtime.Versioning.UnsupportedOSPlatform("macos")]
    private static bool IsLocked(FileStream mark)
    {
        try
        {
            mark.Lock(0, 1);
            return true;
        }
        catch (IOException)
        {
            return false;
        }
    }

    private static FileStream Open(string mark)
    {
        try
        {
            return new(mark, FileMode.OpenOrCreate, FileAccess.ReadWrite, FileShare.ReadWrite | FileShare.Delete);
        }
        catch (Exception error) when (error is UnauthorizedAccessException or IOException)
        {
            throw new FileTroubleException(FileTrouble.OfFolder(Path.GetDirectoryName(mark)!, error), error);
        }
    }

    private static string? LiesOf(SafeFileHandle handle)
    {
        try
        {
            return new FileInfo($"/proc/self/fd/{handle.DangerousGetHandle()}").LinkTarget;
        }
        catch (IOException)
        {
            return null;
        }
    }
}
