using System.Globalization;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Pack;

/// <summary>
/// The number on a box's label: its batch, its place in that batch's row of boxes, and a check digit, so that a digit read or typed wrong
/// names no other box. "12-003-5" is the third box of batch 12. It is the same before the box is filled.
/// </summary>
/// <param name="Batch">The number of the batch in this household, from 1.</param>
/// <param name="Number">Which of its boxes, from 1.</param>
public sealed record BoxCode(int Batch, int Number)
{
    /// <summary>The part of a box page's address before the code.</summary>
    public const string PagePath = "/box/";

    private const int NumberDigits = 3, MostBatchDigits = 7, LongestText = 400;

    // A totally anti-symmetric quasigroup of order 10: every single digit wrong and every two neighbours swapped are found. H. M. Damm,
    // Total anti-symmetrische Quasigruppen, Marburg 2004 (the table from memory; that it finds them is tested).
    private static readonly string[] Table =
    [
        "0317598642", "7092154863", "4206871359", "1750983426", "6123045978", "3674209581", "5869720134", "8945362017", "9438617205",
        "2581436790",
    ];

    /// <summary>Its digits, check digit last: what the QR code's address ends in.</summary>
    public string Digits
    {
        get
        {
            var said = string.Create(CultureInfo.InvariantCulture, $"{Batch}{Number:000}");
            return said + CheckDigit(said);
        }
    }

    /// <summary>As it is printed: "12-003-5".</summary>
    public override string ToString()
    {
        var digits = Digits;
        return $"{digits[..^(NumberDigits + 1)]}-{digits[^(NumberDigits + 1)..^1]}-{digits[^1]}";
    }

    /// <summary>The check digit of some digits: 4 of 572.</summary>
    public static char CheckDigit(string digits)
    {
        ArgumentNullException.ThrowIfNull(digits);
        var interim = 0;
        foreach (var digit in digits) interim = Table[interim][digit - '0'] - '0';
        return (char)('0' + interim);
    }

    /// <summary>
    /// Reads what somebody typed, with or without its dashes, or what was in a QR code: the address of a box's page, at whatever address
    /// the program had when the label was printed.
    /// </summary>
    /// <returns>The code; or that it is none of ours, or that a digit of it is wrong.</returns>
    public static Outcome<BoxCode> Read(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        var said = text.Trim();
        if (said.Length > LongestText) return NotOurs;
        if (said.Contains("//", StringComparison.Ordinal))
        {
            if (!Uri.TryCreate(said, UriKind.Absolute, out var page)) return NotOurs;
            if (page.Scheme is not ("http" or "https") || !page.AbsolutePath.StartsWith(PagePath, StringComparison.Ordinal)) return NotOurs;
            said = page.AbsolutePath[PagePath.Length..].TrimEnd('/');
        }

        var digits = string.Concat(said.Where(char.IsAsciiDigit));
        var isDigits = said.All(letter => char.IsAsciiDigit(letter) || letter is '-' or ' ' or '.' or '–');
        if (!isDigits || digits.Length is < NumberDigits + 2 or > MostBatchDigits + NumberDigits + 1) return NotOurs;
        if (CheckDigit(digits) != '0')
            return new Problem("code-misread", "code", "A digit of that number is wrong, or missing: look at the label once more.");
        var batch = int.Parse(digits[..^(NumberDigits + 1)], CultureInfo.InvariantCulture);
        var number = int.Parse(digits[^(NumberDigits + 1)..^1], CultureInfo.InvariantCulture);
        return batch > 0 && number > 0 && digits[0] != '0' ? new BoxCode(batch, number) : NotOurs;
    }

    private static Problem NotOurs => new(
        "code-not-ours", "code", "That is not the code of a box here: it stands on the label as numbers, like 12-003-5.");
}
