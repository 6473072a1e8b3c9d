using System.Text.Json.Nodes;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Tests.Measures;

/// <summary>
/// One reading of typed numbers: the table that holds the screens' fields (tests/e2e/specs/numbers.spec.ts) holds the lines too.
/// </summary>
public sealed class TypedNumberTests
{
    [Fact]
    public void A_line_reads_a_number_as_a_field_does()
    {
        var table = JsonNode.Parse(File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "numbers.json")))!.AsArray();
        Assert.True(table.Count > 10);
        foreach (var row in table)
        {
            var (typed, number) = ((string)row![0]!, (decimal)(double)row[1]!);
            Assert.Equal(number, AmountText.Read(typed + " g")?.From ?? -1, 10);
        }
    }
}
