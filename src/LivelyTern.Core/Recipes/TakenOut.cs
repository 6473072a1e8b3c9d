using System.Text.RegularExpressions;

namespace LivelyTern.Core.Recipes;

/// <summary>Lines that say by themselves that something leaves the batch: "60 g fat poured off", "200 ml stock, skimmed off".</summary>
public static class TakenOut
{
    private static readonly Regex Saying = new(
        @"^\s*(?<what>.+?),?\s+(?:poured|drained|skimmed|thrown|spooned)\s+(?:off|away|out)\s*$",
        RegexOptions.ExplicitCapture | RegexOptions.NonBacktracking | RegexOptions.IgnoreCase);

    // What runs out of meat is nearly all fat: lard stands for it.
    private static readonly Regex BareFat = new(
        @"\b(?:rendered\s+|cooking\s+)?(?:fat|grease|drippings?)$", RegexOptions.NonBacktracking | RegexOptions.IgnoreCase);

    /// <summary>What it says leaves the batch, as a line to be read: "60 g lard"; null where it says no such thing.</summary>
    public static string? Said(string line)
    {
        ArgumentNullException.ThrowIfNull(line);
        return Saying.Match(line) is { Success: true } said ? BareFat.Replace(said.Groups["what"].Value.Trim(), "lard") : null;
    }
}
