using System.Buffers.Binary;
using System.Text;

namespace LivelyTern.Formats.Foods;

/// <summary>Very many short texts, each kept as its bytes of UTF-8 and no object of its own.</summary>
public sealed class TextStore
{
    private const int PageBits = 20, PageBytes = 1 << PageBits, MostPages = 1 << (31 - PageBits), LengthBytes = sizeof(int);
    private readonly List<byte[]> pages = [];
    private int used = PageBytes;

    /// <summary>Keeps a text.</summary>
    /// <returns>Where it is.</returns>
    /// <exception cref="UnreadableFileException">There is more than 2 GB of it.</exception>
    public int Add(ReadOnlySpan<char> text)
    {
        var length = Encoding.UTF8.GetByteCount(text);
        if (used + LengthBytes + length > PageBytes)
        {
            // A text that is longer than a page has one of its own.
            if (pages.Count == MostPages) throw new UnreadableFileException(UnreadableFileException.TooLarge);
            pages.Add(new byte[Math.Max(PageBytes, LengthBytes + length)]);
            used = 0;
        }

        var at = ((pages.Count - 1) << PageBits) | used;
        var place = pages[^1].AsSpan(used);
        BinaryPrimitives.WriteInt32LittleEndian(place, length);
        Encoding.UTF8.GetBytes(text, place[LengthBytes..]);
        used = Math.Min(PageBytes, used + LengthBytes + length);
        return at;
    }

    /// <summary>A text that was kept.</summary>
    /// <param name="at">Where it is.</param>
    public string Get(int at)
    {
        var place = pages[at >> PageBits].AsSpan(at & (PageBytes - 1));
        return Encoding.UTF8.GetString(place.Slice(LengthBytes, BinaryPrimitives.ReadInt32LittleEndian(place)));
    }
}
