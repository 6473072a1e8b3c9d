using FsCheck;
using LivelyTern.Core.Pack;

namespace LivelyTern.Core.Tests.Pack;

/// <summary>The number on a label: whatever digit is wrong, it names no other box.</summary>
public sealed class BoxCodeTests
{
    private static readonly System.Collections.Generic.IReadOnlyList<char> Digits = [.. "0123456789"];

    // H. M. Damm's own example: 572 has the check digit 4.
    [Fact]
    public void The_check_digit_is_that_of_its_published_example() => Assert.Equal('4', BoxCode.CheckDigit("572"));

    [SeededProperty]
    public bool A_digit_wrong_or_two_swapped_is_refused_and_the_right_ones_are_read_back(PositiveInt batch, PositiveInt number)
    {
        var code = new BoxCode(1 + (batch.Get * 37 % 99_999), 1 + (number.Get % 999));
        var digits = code.Digits;
        var wrong = Enumerable.Range(0, digits.Length)
            .SelectMany(at => Digits.Where(digit => digit != digits[at]).Select(digit => digits[..at] + digit + digits[(at + 1)..]));
        var swapped = Enumerable.Range(0, digits.Length - 1).Where(at => digits[at] != digits[at + 1])
            .Select(at => digits[..at] + digits[at + 1] + digits[at] + digits[(at + 2)..]);
        string[] right = [digits, code.ToString(), $" {code} ", $"http://kitchen.lan:5080/box/{digits}", $"https://tern.lan/box/{digits}/"];
        return right.All(text => BoxCode.Read(text).Value == code) && wrong.Concat(swapped).All(text => !BoxCode.Read(text).Succeeded);
    }

    [Theory]
    [InlineData("", "code-not-ours")]
    [InlineData("soup", "code-not-ours")]
    [InlineData("0200000000044", "code-not-ours")] // the number under a barcode
    [InlineData("https://example.org/somewhere", "code-not-ours")]
    [InlineData("https://example.org/box/soup", "code-not-ours")]
    [InlineData("ftp://kitchen.lan/box/120035", "code-not-ours")]
    [InlineData("javascript:alert(1)//box/", "code-not-ours")]
    [InlineData("12-003-6", "code-misread")]
    [InlineData("12-03-5", "code-misread")]
    public void What_is_no_code_of_ours_says_so(string text, string code) => Assert.Equal(code, BoxCode.Read(text).Problems[0].Code);

    [Fact]
    public void It_is_printed_in_groups() => Assert.Equal("12-003-" + BoxCode.CheckDigit("12003"), new BoxCode(12, 3).ToString());
}
