namespace LivelyTern.Core.Review;

/// <summary>
/// A linear model of a few hidden quantities, day by day, seen through one noisy number: filtered forward and smoothed backward. Durbin and
/// Koopman, Time Series Analysis by State Space Methods, chapter 4 (from memory).
/// </summary>
/// <param name="Step">How the state goes on from day to day; row by row.</param>
/// <param name="StepNoise">The variance of what comes to it each day.</param>
/// <param name="Seen">What of the state is seen.</param>
/// <param name="SeenNoise">The variance of seeing it.</param>
/// <param name="Start">The state before the first day.</param>
/// <param name="StartNoise">Its variance.</param>
public sealed record StateSpace(
    double[,] Step, double[,] StepNoise, double[] Seen, double SeenNoise, double[] Start, double[,] StartNoise)
{
    /// <summary>The state of a day: its mean and its variance.</summary>
    /// <param name="Mean">The mean.</param>
    /// <param name="Variance">The variance.</param>
    public sealed record Day(double[] Mean, double[,] Variance);

    /// <summary>All days.</summary>
    /// <param name="Predicted">Before what was seen on the day.</param>
    /// <param name="Filtered">With it.</param>
    /// <param name="LogLikelihood">How well the model foretold what was seen.</param>
    public sealed record Run(IReadOnlyList<Day> Predicted, IReadOnlyList<Day> Filtered, double LogLikelihood);

    /// <summary>Goes through the days.</summary>
    /// <param name="seen">What was seen, day by day; null where nothing was.</param>
    /// <param name="pushes">What is known to come to the state on each day; null for nothing.</param>
    /// <param name="extra">Variance that comes to it on each day besides; null for none.</param>
    /// <param name="copied">Up to this day the last quantity is a copy of the first, and then stays as it is; below 0 for none.</param>
    public Run Filter(
        IReadOnlyList<double?> seen, Func<int, double[]?>? pushes = null, Func<int, double[,]?>? extra = null, int copied = -1)
    {
        ArgumentNullException.ThrowIfNull(seen);
        var (mean, variance, likelihood) = ((double[])Start.Clone(), (double[,])StartNoise.Clone(), 0.0);
        var (predicted, filtered) = (new List<Day>(seen.Count), new List<Day>(seen.Count));
        for (var day = 0; day < seen.Count; day++)
        {
            if (day > 0)
            {
                mean = Matrices.Times(Step, mean);
                variance = Matrices.Plus(Matrices.Around(Step, variance), StepNoise);
                if (pushes?.Invoke(day) is { } push) mean = Matrices.Plus(mean, push);
                if (extra?.Invoke(day) is { } more) variance = Matrices.Plus(variance, more);
            }

            if (day <= copied) Matrices.CopyFirstToLast(mean, variance);
            predicted.Add(new(mean, variance));
            if (seen[day] is { } value)
            {
                var spread = Matrices.Times(variance, Seen);
                var total = Matrices.Dot(Seen, spread) + SeenNoise;
                var off = value - Matrices.Dot(Seen, mean);
                likelihood -= 0.5 * (Math.Log(2 * Math.PI * total) + (off * off / total));
                mean = Matrices.Moved(mean, spread, off, total);
                variance = Matrices.Less(variance, spread, total);
                if (day <= copied) Matrices.CopyFirstToLast(mean, variance);
            }

            filtered.Add(new(mean, variance));
        }

        return new(predicted, filtered, likelihood);
    }

    /// <summary>Each day in the light of all days.</summary>
    /// <param name="run">The days, filtered with this model.</param>
    public IReadOnlyList<Day> Smooth(Run run)
    {
        ArgumentNullException.ThrowIfNull(run);
        var days = run.Filtered.ToArray();
        for (var day = days.Length - 2; day >= 0; day--)
        {
            var gain = Matrices.Times(
                Matrices.TimesTurned(run.Filtered[day].Variance, Step), Matrices.Inverse(run.Predicted[day + 1].Variance));
            var off = Matrices.Minus(days[day + 1].Mean, run.Predicted[day + 1].Mean);
            var mean = Matrices.Plus(run.Filtered[day].Mean, Matrices.Times(gain, off));
            var apart = Matrices.Minus(days[day + 1].Variance, run.Predicted[day + 1].Variance);
            days[day] = new(mean, Matrices.Plus(run.Filtered[day].Variance, Matrices.Around(gain, apart)));
        }

        return days;
    }
}

/// <summary>The little of matrices that a filter needs, in plain loops: a trend goes through them a hundred thousand times.</summary>
internal static class Matrices
{
    public static double[] Times(double[,] matrix, double[] vector)
    {
        var result = new double[matrix.GetLength(0)];
        for (var i = 0; i < result.Length; i++)
            for (var j = 0; j < vector.Length; j++)
                result[i] += matrix[i, j] * vector[j];
        return result;
    }

    public static double[,] Times(double[,] one, double[,] other)
    {
        var (rows, inner, columns) = (one.GetLength(0), one.GetLength(1), other.GetLength(1));
        var result = new double[rows, columns];
        for (var i = 0; i < rows; i++)
            for (var k = 0; k < inner; k++)
            {
                if (one[i, k] == 0) continue;
                for (var j = 0; j < columns; j++) result[i, j] += one[i, k] * other[k, j];
            }

        return result;
    }

    /// <summary>One · the other turned.</summary>
    public static double[,] TimesTurned(double[,] one, double[,] other)
    {
        var (rows, inner, columns) = (one.GetLength(0), one.GetLength(1), other.GetLength(0));
        var result = new double[rows, columns];
        for (var i = 0; i < rows; i++)
            for (var j = 0; j < columns; j++)
            {
                var sum = 0.0;
                for (var k = 0; k < inner; k++) sum += one[i, k] * other[j, k];
                result[i, j] = sum;
            }

        return result;
    }

    /// <summary>Step · variance · step turned.</summary>
    public static double[,] Around(double[,] step, double[,] variance) => TimesTurned(Times(step, variance), step);

    public static double[,] Plus(double[,] one, double[,] other) => Sum(one, other, 1);

    public static double[,] Minus(double[,] one, double[,] other) => Sum(one, other, -1);

    public static double[] Plus(double[] one, double[] other) => Sum(one, other, 1);

    public static double[] Minus(double[] one, double[] other) => Sum(one, other, -1);

    /// <summary>What a mean is in the light of something seen that was so far off.</summary>
    public static double[] Moved(double[] mean, double[] spread, double off, double total)
    {
        var result = new double[mean.Length];
        for (var i = 0; i < result.Length; i++) result[i] = mean[i] + (spread[i] * off / total);
        return result;
    }

    /// <summary>What of a variance is left after something was seen.</summary>
    public static double[,] Less(double[,] variance, double[] spread, double total)
    {
        var result = (double[,])variance.Clone();
        for (var i = 0; i < spread.Length; i++)
            for (var j = 0; j < spread.Length; j++)
                result[i, j] -= spread[i] * spread[j] / total;
        return result;
    }

    public static double Dot(double[] one, double[] other)
    {
        var sum = 0.0;
        for (var i = 0; i < one.Length; i++) sum += one[i] * other[i];
        return sum;
    }

    public static void CopyFirstToLast(double[] mean, double[,] variance)
    {
        var last = mean.Length - 1;
        mean[last] = mean[0];
        for (var i = 0; i < last; i++) variance[i, last] = variance[last, i] = variance[i, 0];
        variance[last, last] = variance[0, 0];
    }

    /// <summary>By elimination, the largest first; a hair is added where two quantities are the same.</summary>
    public static double[,] Inverse(double[,] matrix)
    {
        const double hair = 1e-12;
        var size = matrix.GetLength(0);
        var (left, right) = ((double[,])matrix.Clone(), new double[size, size]);
        for (var i = 0; i < size; i++) (right[i, i], left[i, i]) = (1, left[i, i] + hair);
        for (var column = 0; column < size; column++)
        {
            var pivot = column;
            for (var row = column + 1; row < size; row++)
            {
                if (Math.Abs(left[row, column]) > Math.Abs(left[pivot, column])) pivot = row;
            }

            for (var j = 0; j < size; j++)
            {
                (left[column, j], left[pivot, j]) = (left[pivot, j], left[column, j]);
                (right[column, j], right[pivot, j]) = (right[pivot, j], right[column, j]);
            }

            var by = left[column, column];
            for (var j = 0; j < size; j++) (left[column, j], right[column, j]) = (left[column, j] / by, right[column, j] / by);
            for (var row = 0; row < size; row++)
            {
                var factor = left[row, column];
                if (row == column || factor == 0) continue;
                for (var j = 0; j < size; j++)
                {
                    left[row, j] -= factor * left[column, j];
                    right[row, j] -= factor * right[column, j];
                }
            }
        }

        return right;
    }

    private static double[,] Sum(double[,] one, double[,] other, int sign)
    {
        var result = new double[one.GetLength(0), one.GetLength(1)];
        for (var i = 0; i < result.GetLength(0); i++)
            for (var j = 0; j < result.GetLength(1); j++)
                result[i, j] = one[i, j] + (sign * other[i, j]);
        return result;
    }

    private static double[] Sum(double[] one, double[] other, int sign)
    {
        var result = new double[one.Length];
        for (var i = 0; i < result.Length; i++) result[i] = one[i] + (sign * other[i]);
        return result;
    }
}
