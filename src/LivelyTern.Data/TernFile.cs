using System.Globalization;
using LivelyTern.Data.Foods;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data;

/// <summary>The database file: opened, migrated, and copied aside before a migration.</summary>
public static class TernFile
{
    /// <summary>The options for a file: foreign keys on, pooled connections.</summary>
    public static string ConnectionString(string path) =>
        new SqliteConnectionStringBuilder { DataSource = path, ForeignKeys = true, DefaultTimeout = 10 }.ToString();

    /// <summary>
    /// Brings the file to this program's shape. Where an older file needs it, a copy named <c>*.before-MIGRATION.db</c> is laid beside it
    /// first. Switches to WAL, and brings the built-in food table up to date without touching own foods or weighed measures.
    /// </summary>
    public static async Task PrepareAsync(TernDb db)
    {
        ArgumentNullException.ThrowIfNull(db);
        var path = new SqliteConnectionStringBuilder(db.Database.GetConnectionString()).DataSource;
        var pending = (await db.Database.GetPendingMigrationsAsync()).ToList();
        var applied = File.Exists(path) && new FileInfo(path).Length > 0;
        if (applied && pending.Count > 0)
        {
            var copy = string.Create(CultureInfo.InvariantCulture, $"{Path.ChangeExtension(path, null)}.before-{pending[0]}.db");
            await db.Database.ExecuteSqlAsync($"VACUUM INTO {FreshName(copy)}");
        }

        await db.Database.MigrateAsync();
        await db.Database.ExecuteSqlRawAsync("PRAGMA journal_mode=WAL");
        await BringFoodsUpToDateAsync(db);
    }

    private static string FreshName(string wanted)
    {
        var name = wanted;
        for (var i = 2; File.Exists(name); i++) name = Path.ChangeExtension(wanted, string.Create(CultureInfo.InvariantCulture, $".{i}.db"));
        return name;
    }

    private static async Task BringFoodsUpToDateAsync(TernDb db)
    {
        var rows = await db.Foods.ToDictionaryAsync(row => row.Id, StringComparer.Ordinal);
        foreach (var food in FoodTable.Read())
        {
            if (rows.TryGetValue(food.Id, out var row)) row.Food = food;
            else db.Foods.Add(new FoodRow { Id = food.Id, Food = food });
        }

        await db.SaveChangesAsync();
    }
}
