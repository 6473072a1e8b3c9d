namespace LivelyTern.Web.Tests;

/// <summary>One host for all tests of a class, as its fixture: for tests that calculate, are refused, or bring all they look at.</summary>
public sealed class SharedHost : IDisposable
{
    public Host Host { get; } = new();

    public void Dispose() => Host.Dispose();
}
