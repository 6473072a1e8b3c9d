using Microsoft.Data.Sqlite;

namespace LivelyTern.Data.Disk;

/// <summary>What is wrong with the household's file or its disk, in one sentence with what to do.</summary>
/// <param name="Code">A short name of it.</param>
/// <param name="Status">503 (it can't be written or read now) or 507 (there is no room), as in RFC 9110 and RFC 4918.</param>
/// <param name="Sentence">The sentence.</param>
public sealed record FileTrouble(string Code, int Status, string Sentence)
{
    /// <summary>It can't be read or written now.</summary>
    public const int Unavailable = 503;

    /// <summary>There is no room for it.</summary>
    public const int NoRoom = 507;

    private const string DiskFull = "disk-full", FileLocked = "file-locked", FileReadOnly = "file-read-only",
        FileUnopened = "file-unopened", DiskFailed = "disk-failed", FileDamaged = "file-damaged";

    // https://www.sqlite.org/rescode.html
    private const int Busy = 5, Locked = 6, ReadOnly = 8, InputOutput = 10, Corrupt = 11, Full = 13, CannotOpen = 14, NoDatabase = 26;

    // What Linux says of files, the number of an IOException there: errno(3).
    private const int NotPermitted = 1, IoFailed = 5, Denied = 13, NoSpace = 28, ReadOnlyDisk = 30, NoQuota = 122;

    /// <summary>The sentence of a file with damaged pages.</summary>
    public const string Damaged =
        "The household's file is damaged. Stop the program and start it with --last-copy: that lays the damaged file aside "
        + "and puts the last of the daily copies in its place.";

    /// <summary>What an error says of the file; null where it says nothing of it.</summary>
    public static FileTrouble? Of(Exception? error)
    {
        for (; error is not null; error = error.InnerException)
        {
            if (error is FileTroubleException known) return known.Trouble;
            if (error is SqliteException { SqliteErrorCode: var code } && OfSqlite(code) is { } trouble) return trouble;
            if (error is IOException { HResult: var errno } && OfSystem(errno) is { } said) return said;
        }

        return null;
    }

    /// <summary>What damaged pages say.</summary>
    public static FileTrouble OfDamage { get; } = new(FileDamaged, Unavailable, Damaged);

    /// <summary>What a folder says that can't be written.</summary>
    public static FileTrouble OfFolder(string folder, Exception error)
    {
        ArgumentNullException.ThrowIfNull(error);
        return new(
            "folder-unwritable", Unavailable,
            $"The folder {folder} can't be written ({error.Message.TrimEnd('.')}). Allow it to the one who starts the program, or name "
            + "another file with --data.");
    }

    /// <summary>Why something beside the household's file could not be read or written (a copy, a backup), and what to do.</summary>
    /// <param name="error">An error of the disk.</param>
    public static string Why(Exception error) => Of(error) switch
    {
        null => "A file or a folder is in the way, or can't be read or written. Look at the folder beside the household's file.",
        { Code: DiskFull } => "The disk is full. Make room on it.",
        { Code: FileLocked } => "Another program holds the file. Close that program.",
        { Code: FileReadOnly } => "The file or its folder can't be written. Allow writing to it.",
        { Code: FileUnopened } => "The file or its folder is not there, or may not be read. Put it back.",
        { Code: FileDamaged } => "The file is damaged.",
        { Code: DiskFailed } => "The disk could not be read or written. Look after the disk.",
        { Sentence: var sentence } => sentence,
    };

    private static FileTrouble? OfSqlite(int code) => code switch
    {
        Full => OfCode(DiskFull),
        Busy or Locked => OfCode(FileLocked),
        ReadOnly => OfCode(FileReadOnly),
        CannotOpen => OfCode(FileUnopened),
        InputOutput => OfCode(DiskFailed),
        Corrupt or NoDatabase => OfCode(FileDamaged),
        _ => null,
    };

    private static FileTrouble? OfSystem(int errno) => errno switch
    {
        NoSpace or NoQuota => OfCode(DiskFull),
        NotPermitted or Denied or ReadOnlyDisk => OfCode(FileReadOnly),
        IoFailed => OfCode(DiskFailed),
        _ => null,
    };

    private static FileTrouble OfCode(string code) => code switch
    {
        DiskFull => new(code, NoRoom,
            "The disk is full: nothing was saved. Make room on it, then do that again; what you typed is still on the screen."),
        FileLocked => new(code, Unavailable,
            "Another program holds the household's file: nothing was saved. Close that program, then do it again."),
        FileReadOnly => new(code, Unavailable,
            "The household's file or its folder can't be written: nothing was saved. Allow writing to it again, then do it again."),
        FileUnopened => new(code, Unavailable,
            "The household's file can't be opened: it, its folder or its disk is not there any more, or may not be read. Put it back, and "
            + "start the program again."),
        DiskFailed => new(code, Unavailable,
            "The disk could not be read or written: nothing was saved. Look after the disk; the daily copies lie beside the file."),
        _ => OfDamage,
    };
}

/// <summary>Something is wrong with the household's file or its disk.</summary>
public sealed class FileTroubleException(FileTrouble trouble, Exception? inner = null) : IOException(trouble.Sentence, inner)
{
    /// <summary>What.</summary>
    public FileTrouble Trouble { get; } = trouble;
}
