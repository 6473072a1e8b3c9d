using System.IO.Compression;

namespace LivelyTern.Formats.Foods;

/// <summary>What a file of foods is, found by looking into it.</summary>
public static class FoodFiles
{
    /// <summary>Opens a file: a zip of FoodData Central's CSV set or of one JSON or CSV file, JSON, or any other text as CSV.</summary>
    /// <param name="path">The file.</param>
    /// <param name="mapping">For CSV, which column is what; null to guess.</param>
    /// <exception cref="UnreadableFileException">It is none of these.</exception>
    public static IFoodFile Open(string path, CsvMapping? mapping = null)
    {
        var length = new FileInfo(path).Length;
        if (length == 0) throw new UnreadableFileException("The file is empty.");
        return IsZip(path) ? OfZip(path, mapping) : OfText(() => File.OpenRead(path), length, mapping);
    }

    /// <summary>The headers and first rows of a CSV file, plain or alone in a zip; null where it is no CSV.</summary>
    public static (IReadOnlyList<string> Headers, IReadOnlyList<IReadOnlyList<string>> Rows)? Peek(string path, int rows) =>
        Open(path) is FoodCsv ? FoodCsv.Peek(() => IsZip(path) ? OpenOnly(path) : File.OpenRead(path), rows) : null;

    private static IFoodFile OfZip(string path, CsvMapping? mapping)
    {
        try
        {
            using var zip = ZipFile.OpenRead(path);
            FdcCsv.Check(zip);
            if (FdcCsv.IsOne(zip)) return new FdcCsv(path);
            return OnlyOf(zip) is { } only
                ? OfText(() => OpenOnly(path), only.Length, mapping)
                : throw new UnreadableFileException(
                    "In this zip there is neither FoodData Central's set (food.csv, food_nutrient.csv) nor one single table.");
        }
        catch (InvalidDataException error)
        {
            throw new UnreadableFileException("The zip is damaged: fetch it again.", error);
        }
    }

    private static IFoodFile OfText(Func<Stream> open, long length, CsvMapping? mapping)
    {
        using (var stream = open())
        {
            for (var letter = stream.ReadByte(); letter >= 0; letter = stream.ReadByte())
            {
                // Blank space and the mark of UTF-8 before the first letter.
                if (letter is ' ' or '\n' or '\r' or '\t' or 0xEF or 0xBB or 0xBF) continue;
                if (letter is '{' or '[') return new FdcJson(open, length);
                break;
            }
        }

        return new FoodCsv(open, length, mapping ?? CsvMapping.Guess(FoodCsv.Peek(open, 0).Headers));
    }

    private static bool IsZip(string path)
    {
        using var stream = File.OpenRead(path);
        return stream.ReadByte() == 'P' && stream.ReadByte() == 'K';
    }

    private static ZipArchiveEntry? OnlyOf(ZipArchive zip)
    {
        bool Ends(ZipArchiveEntry entry, string with) => entry.Name.EndsWith(with, StringComparison.OrdinalIgnoreCase);
        return zip.Entries.Where(entry => Ends(entry, ".csv") || Ends(entry, ".json")).ToList() is [var only] ? only : null;
    }

    private static Within OpenOnly(string path)
    {
        var zip = ZipFile.OpenRead(path);
        return new Within(zip, OnlyOf(zip)!.Open());
    }

    /// <summary>A stream of a zip that closes the zip with itself.</summary>
    private sealed class Within(ZipArchive zip, Stream inner) : ReadingStream
    {
        public override int Read(Span<byte> buffer) => inner.Read(buffer);

        protected override void Dispose(bool disposing)
        {
            if (disposing)
            {
                inner.Dispose();
                zip.Dispose();
            }

            base.Dispose(disposing);
        }
    }
}
