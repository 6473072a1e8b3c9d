using System.Collections;
using System.Globalization;
using System.Text;
using QRCoder;

namespace LivelyTern.Formats.Labels;

/// <summary>A QR code (ISO/IEC 18004) as a shape.</summary>
internal sealed class QrCode
{
    private const int Quiet = 4;
    private readonly List<BitArray> rows;

    /// <summary>The code of a text.</summary>
    public QrCode(string text)
    {
        using var maker = new QRCodeGenerator();
        using var code = maker.CreateQrCode(text, QRCodeGenerator.ECCLevel.M);
        rows = code.ModuleMatrix;
    }

    /// <summary>How many modules it is wide, with the quiet ones around it.</summary>
    public int Modules => rows.Count;

    /// <summary>It as a path over a square of a side, quiet modules within.</summary>
    public string Over(Place from, double side)
    {
        var (path, module) = (new StringBuilder(), side / rows.Count);
        for (var y = Quiet; y < rows.Count - Quiet; y++)
        {
            // Neighbours are one rectangle: no hairline runs between them.
            for (var x = Quiet; x < rows.Count - Quiet; x++)
            {
                if (!rows[y][x]) continue;
                var begin = x;
                while (x < rows.Count - Quiet && rows[y][x]) x++;
                var (left, top) = (from.X + (begin * module), from.Y + (y * module));
                var length = (x - begin) * module;
                path.Append(CultureInfo.InvariantCulture, $"M{left:0.####} {top:0.####}h{length:0.####}v{module:0.####}h{-length:0.####}z");
            }
        }

        return path.ToString();
    }
}
