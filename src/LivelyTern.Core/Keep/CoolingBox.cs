using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Keep;

/// <summary>Where a box is put to cool.</summary>
public enum CoolingPlace
{
    /// <summary>On the counter, in still air.</summary>
    Counter,

    /// <summary>In the fridge, on a shelf, open or its lid ajar.</summary>
    Fridge,

    /// <summary>In a bowl of ice water that is stirred.</summary>
    IceWater,
}

/// <summary>Food in boxes that cool side by side, and how long that takes.</summary>
/// <param name="Boxes">How many boxes it is shared among.</param>
/// <param name="DepthCm">How deep it lies in each, in cm.</param>
/// <param name="Course">Its course.</param>
/// <param name="Stages">Against the two-stage limits.</param>
public sealed record CoolingChoice(int Boxes, double DepthCm, Cooling Course, TwoStages Stages);

/// <summary>
/// How fast food cools in a box, before anybody measures it: an estimate, always said with "about". Heat leaves a flat layer through its
/// top and its bottom; what slows it is the air or water outside, 2h, and the food itself, as the first term of the slab's series has it:
/// 1/k = ρc L / 2h + L² / π²α. Source of the law: Carslaw and Jaeger, Conduction of Heat in Solids (from memory).
/// </summary>
public static class CoolingBox
{
    /// <summary>The most boxes that are tried.</summary>
    public const int MostBoxes = 8;

    // Food that is mostly water: density times heat capacity, J/(m³ K), and thermal diffusivity, m²/s. From memory.
    private const double HeatOfVolume = 3.8e6, Diffusivity = 1.4e-7;

    // Density of a filled box, g/cm³; common practice, no published source.
    private const double GramsPerCm3 = 1.0;

    /// <summary>k, per minute, of a layer of some depth.</summary>
    /// <param name="depthCm">The depth of the food, in cm.</param>
    /// <param name="place">Where it cools.</param>
    public static double RatePerMinute(double depthCm, CoolingPlace place)
    {
        var metres = depthCm / 100;
        var outside = HeatOfVolume * metres / (2 * HeatTransfer(place));
        var within = metres * metres / (Math.PI * Math.PI * Diffusivity);
        return 60 / (outside + within);
    }

    /// <summary>The temperature of a place where nobody says otherwise, in °C; of the fridge that of the guideline set.</summary>
    public static double AmbientOf(CoolingPlace place, GuidelineSet set)
    {
        ArgumentNullException.ThrowIfNull(set);
        return place switch { CoolingPlace.Counter => 20, CoolingPlace.Fridge => (double)set.Fridge, _ => 1 };
    }

    /// <summary>How deep a weight lies in a box, in cm.</summary>
    /// <param name="weight">Grams.</param>
    /// <param name="lengthCm">The box inside, in cm.</param>
    /// <param name="widthCm">The box inside, in cm.</param>
    public static double DepthCm(Grams weight, double lengthCm, double widthCm) =>
        (double)weight.Value / GramsPerCm3 / (lengthCm * widthCm);

    /// <summary>The same food in one box, in two of that size, and so on.</summary>
    /// <param name="depthCm">How deep it lies in one box, in cm.</param>
    /// <param name="celsius">Its temperature when it goes in, in °C.</param>
    /// <param name="place">Where it cools.</param>
    /// <param name="ambient">The temperature there, in °C.</param>
    /// <returns>Each number of boxes up to the first that keeps the limits, or <see cref="MostBoxes"/>.</returns>
    public static Outcome<IReadOnlyList<CoolingChoice>> Choices(double depthCm, double celsius, CoolingPlace place, double ambient)
    {
        if (depthCm is not (> 0 and <= 60))
            return new Problem("depth-absurd", "depthCm", "Food lies up to 60 cm deep: check the number.");
        var choices = new List<CoolingChoice>();
        for (var boxes = 1; boxes <= MostBoxes; boxes++)
        {
            var depth = depthCm / boxes;
            var course = Cooling.With(ambient, [new(0, celsius)], RatePerMinute(depth, place));
            if (!course.Succeeded) return course.Problems.ToList();
            choices.Add(new(boxes, depth, course.Value!, TwoStages.Of(course.Value!)));
            if (choices[^1].Stages.Hold) break;
        }

        return choices;
    }

    // W/(m² K) on either face: still air, a fridge, stirred ice water. From memory.
    private static double HeatTransfer(CoolingPlace place) =>
        place switch { CoolingPlace.Counter => 10, CoolingPlace.Fridge => 12, _ => 200 };
}
