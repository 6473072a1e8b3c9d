using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Pack;

/// <summary>A pan cut into squares: rows by columns.</summary>
/// <param name="Rows">How many rows.</param>
/// <param name="Columns">How many squares in each.</param>
public readonly record struct PanSquares(int Rows, int Columns)
{
    /// <summary>The most rows, and the most columns.</summary>
    public const int Most = 20;

    /// <summary>How many squares.</summary>
    public int Count => Rows * Columns;

    /// <summary>Why it can't be cut so; null where it can.</summary>
    public Problem? Refusal =>
        Rows is >= 1 and <= Most && Columns is >= 1 and <= Most
            ? null
            : new("squares-absurd", "rows", $"Cut between 1 and {Most} rows, and as many columns.");

    /// <summary>Whether a square has a crust: it lies at the rim.</summary>
    /// <param name="square">Its place, row by row from 0.</param>
    public bool IsEdge(int square) =>
        square / Columns is var row && square % Columns is var column
        && (row == 0 || row == Rows - 1 || column == 0 || column == Columns - 1);

    /// <summary>
    /// Which square goes into which box. Boxes that like an edge take squares from around the rim, once around; the others
    /// take from the middle, as far as there are. Each box's squares are as near one another as they come, row by row there and back.
    /// </summary>
    /// <param name="counts">How many squares each box gets.</param>
    /// <param name="likesEdge">Which boxes like an edge.</param>
    /// <returns>The box of each square, row by row; null for one that goes into none.</returns>
    public IReadOnlyList<int?> Assign(IReadOnlyList<int> counts, IReadOnlyList<bool> likesEdge)
    {
        ArgumentNullException.ThrowIfNull(counts);
        ArgumentNullException.ThrowIfNull(likesEdge);
        var boxOf = new int?[Count];
        if (counts.Sum() > Count) throw new ArgumentException("More squares are given than the pan has.", nameof(counts));
        var (edges, middle) = (new Queue<int>(Rim()), new Queue<int>(ThereAndBack().Where(IsInside)));
        void Give(int box, Queue<int> first, Queue<int> then)
        {
            for (var i = 0; i < counts[box]; i++) boxOf[first.Count > 0 ? first.Dequeue() : then.Dequeue()] = box;
        }

        for (var box = 0; box < counts.Count; box++) if (likesEdge[box]) Give(box, edges, middle);
        for (var box = 0; box < counts.Count; box++) if (!likesEdge[box]) Give(box, middle, edges);
        return boxOf;
    }

    private bool IsInside(int square) => !IsEdge(square);

    private IEnumerable<int> ThereAndBack()
    {
        for (var row = 0; row < Rows; row++)
            for (var i = 0; i < Columns; i++)
                yield return (row * Columns) + (row % 2 == 0 ? i : Columns - 1 - i);
    }

    // Once around, clockwise from the first corner.
    private IEnumerable<int> Rim()
    {
        var columns = Columns;
        int At(int row, int column) => (row * columns) + column;
        for (var column = 0; column < Columns; column++) yield return At(0, column);
        for (var row = 1; row < Rows; row++) yield return At(row, Columns - 1);
        if (Rows > 1) for (var column = Columns - 2; column >= 0; column--) yield return At(Rows - 1, column);
        if (Columns > 1) for (var row = Rows - 2; row > 0; row--) yield return At(row, 0);
    }
}
