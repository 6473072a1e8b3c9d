namespace LivelyTern.Solving;

/// <summary>Chance from a seed, the same on any machine and at any time (xorshift64*, Vigna 2016).</summary>
internal sealed class Chance(ulong seed)
{
    private ulong state = (seed * 0x9E3779B97F4A7C15UL) | 1;

    /// <summary>A number from 0 to below a count.</summary>
    public int Pick(int count) => (int)(Next() % (ulong)count);

    /// <summary>A share from 0 to below 1.</summary>
    public double Share() => (Next() >> 11) * (1.0 / (1UL << 53));

    private ulong Next()
    {
        state ^= state >> 12;
        state ^= state << 25;
        state ^= state >> 27;
        return state * 0x2545F4914F6CDD1DUL;
    }
}
