namespace LivelyTern.Data.Backup;

/// <summary>What was given can't be put back; nothing was changed.</summary>
public sealed class UnfitBackupException : Exception
{
    /// <summary>Without a reason.</summary>
    public UnfitBackupException() => Code = "backup-unfit";

    /// <summary>With a sentence a cook understands.</summary>
    public UnfitBackupException(string message)
        : base(message) => Code = "backup-unfit";

    /// <summary>With a sentence a cook understands, and what lies behind it.</summary>
    public UnfitBackupException(string message, Exception innerException)
        : base(message, innerException) => Code = "backup-unfit";

    /// <summary>With a stable name for programs.</summary>
    public UnfitBackupException(string code, string message)
        : base(message) => Code = code;

    /// <summary>A stable name for programs, such as <c>backup-newer</c>.</summary>
    public string Code { get; }
}
