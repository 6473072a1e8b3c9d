using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Foods;

/// <summary>
/// The number under a barcode: 8, 12, 13 or 14 digits of which the last is a check digit. From the right the digits before it count 3, 1,
/// 3, 1 ...; the check digit brings their sum up to a multiple of ten. Source: GS1 General Specifications.
/// </summary>
public static class Gtin
{
    /// <summary>The check digit of the digits before it: 629104150021 has 3.</summary>
    /// <param name="digits">Digits only.</param>
    public static int CheckDigit(string digits)
    {
        ArgumentNullException.ThrowIfNull(digits);
        var sum = digits.Reverse().Select((digit, i) => (digit - '0') * (i % 2 == 0 ? 3 : 1)).Sum();
        return (10 - (sum % 10)) % 10;
    }

    /// <summary>A number as typed or scanned, as 14 digits, spaces and hyphens forgiven; or what is wrong with it.</summary>
    public static Outcome<string> Read(string typed)
    {
        ArgumentNullException.ThrowIfNull(typed);
        var digits = typed.Replace(" ", "", StringComparison.Ordinal).Replace("-", "", StringComparison.Ordinal);
        if (digits.Length == 0 || !digits.All(char.IsAsciiDigit))
            return new Problem("gtin-digits", "gtin", "A barcode's number has digits only.");
        if (digits.Length is not (8 or 12 or 13 or 14))
            return new Problem("gtin-length", "gtin", $"A barcode's number has 8, 12, 13 or 14 digits: this has {digits.Length}.");
        if (CheckDigit(digits[..^1]) != digits[^1] - '0')
            return new Problem("gtin-check", "gtin", "A digit is wrong: the last one does not fit the others. Read the number again.");
        return digits.PadLeft(14, '0');
    }
}
