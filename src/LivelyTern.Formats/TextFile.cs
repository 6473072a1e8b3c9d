using System.Text;

namespace LivelyTern.Formats;

/// <summary>
/// Text of unknown encoding: UTF-8 with or without a mark, UTF-16 with one, else Windows-1252 (of which Latin-1 is a part).
/// </summary>
public static class TextFile
{
    private const int Looked = 1 << 20;

    static TextFile() => Encoding.RegisterProvider(CodePagesEncodingProvider.Instance);

    /// <summary>A reader in the encoding the first megabyte speaks for.</summary>
    /// <param name="stream">At its start; it is closed with the reader.</param>
    public static StreamReader Open(Stream stream)
    {
        ArgumentNullException.ThrowIfNull(stream);
        var head = new byte[Looked];
        var length = stream.ReadAtLeast(head, Looked, throwOnEndOfStream: false);
        var rest = new Rejoined(head.AsMemory(0, length), stream);
        return new StreamReader(
            rest, EncodingOf(head.AsSpan(0, length), isWhole: length < Looked), detectEncodingFromByteOrderMarks: true, 1 << 16);
    }

    /// <summary>The text of these bytes.</summary>
    public static string Read(byte[] bytes)
    {
        using var reader = Open(new MemoryStream(bytes));
        return reader.ReadToEnd();
    }

    private static Encoding EncodingOf(ReadOnlySpan<byte> head, bool isWhole)
    {
        // A letter of several bytes may be cut at the end of what was looked at.
        for (var cut = 0; cut <= (isWhole ? 0 : 3); cut++)
        {
            if (System.Text.Unicode.Utf8.IsValid(head[..^Math.Min(cut, head.Length)])) return Encoding.UTF8;
        }

        return Encoding.GetEncoding(1252);
    }

    /// <summary>What was read ahead, then the rest of the stream.</summary>
    private sealed class Rejoined(ReadOnlyMemory<byte> head, Stream rest) : ReadingStream
    {
        private int at;

        public override int Read(Span<byte> buffer)
        {
            if (at >= head.Length) return rest.Read(buffer);
            var take = Math.Min(buffer.Length, head.Length - at);
            head.Span.Slice(at, take).CopyTo(buffer);
            at += take;
            return take;
        }

        protected override void Dispose(bool disposing)
        {
            if (disposing) rest.Dispose();
            base.Dispose(disposing);
        }
    }
}
