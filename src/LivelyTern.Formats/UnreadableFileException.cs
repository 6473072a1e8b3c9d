namespace LivelyTern.Formats;

/// <summary>A file that can't be read at all, with a sentence that says why.</summary>
public sealed class UnreadableFileException : Exception
{
    /// <summary>The sentence for what unpacks to more than can be meant.</summary>
    public const string TooLarge = "What is packed in this file is too large. Unpack it and take the part you need.";

    /// <summary>Without a sentence.</summary>
    public UnreadableFileException()
    {
    }

    /// <summary>With a sentence for the user.</summary>
    public UnreadableFileException(string message)
        : base(message)
    {
    }

    /// <summary>With a sentence for the user and what lies behind it.</summary>
    public UnreadableFileException(string message, Exception innerException)
        : base(message, innerException)
    {
    }
}
