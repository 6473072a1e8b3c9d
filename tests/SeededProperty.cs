using System.Globalization;
using System.Reflection;

namespace LivelyTern.Tests;

/// <summary>
/// A property over made-up values from the one seed. It stands in for FsCheck's own attribute, whose seeds are new each time.
/// </summary>
[AttributeUsage(AttributeTargets.Method)]
public sealed class SeededPropertyAttribute : FsCheck.Xunit.PropertyAttribute
{
    /// <summary>Starts from the seed; the second number is any odd one.</summary>
    public SeededPropertyAttribute() => Replay = string.Create(CultureInfo.InvariantCulture, $"({Seeds.Current},7919)");
}

/// <summary>No property starts from a seed of its own making.</summary>
public sealed class SeededPropertyTests
{
    [Fact]
    public void Every_property_starts_from_the_one_seed() =>
        Assert.All(
            typeof(SeededPropertyTests).Assembly.GetTypes().SelectMany(type => type.GetMethods()),
            method => Assert.True(method.GetCustomAttribute<FsCheck.Xunit.PropertyAttribute>() is null or SeededPropertyAttribute,
                method.Name));
}
