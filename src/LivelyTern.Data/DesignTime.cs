using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Design;

namespace LivelyTern.Data;

/// <summary>Lets <c>dotnet ef migrations add</c> see the model without a running host.</summary>
public sealed class DesignTime : IDesignTimeDbContextFactory<TernDb>
{
    /// <inheritdoc/>
    public TernDb CreateDbContext(string[] args) =>
        new(new DbContextOptionsBuilder<TernDb>().UseSqlite("Data Source=design-time.db").Options);
}
