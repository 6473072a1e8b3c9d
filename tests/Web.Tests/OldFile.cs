using LivelyTern.Data.Disk;
using LivelyTern.Data;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace LivelyTern.Web.Tests;

/// <summary>Files as earlier programs left them: brought to a migration, then filled by hand.</summary>
internal static class OldFile
{
    /// <summary>Lays a file of the shape it had after a migration.</summary>
    public static async Task<string> LayAsync(string migration, string sql)
    {
        var path = Path.Combine(Directory.CreateTempSubdirectory("tern-old-").FullName, "tern.db");
        await using (var db = new TernDb(new DbContextOptionsBuilder<TernDb>().UseSqlite($"Data Source={path}").Options))
        {
            await db.GetService<IMigrator>().MigrateAsync(migration);
            await using var connection = db.Database.GetDbConnection();
            await connection.OpenAsync();
            await using var command = connection.CreateCommand();
            command.CommandText = sql;
            await command.ExecuteNonQueryAsync();
        }

        SqliteConnection.ClearAllPools();
        return path;
    }

    /// <summary>A hand in the file: writes past the program.</summary>
    /// <returns>How many rows it changed.</returns>
    public static async Task<int> WriteAsync(string path, string sql)
    {
        await using var connection =
            new SqliteConnection(new SqliteConnectionStringBuilder { DataSource = path, Pooling = false }.ToString());
        await connection.OpenAsync();
        await using var command = connection.CreateCommand();
        command.CommandText = sql;
        return await command.ExecuteNonQueryAsync();
    }

    /// <summary>Runs some SQL on a file, and reads the first column of what it gives.</summary>
    public static async Task<List<string>> AskAsync(string path, string sql)
    {
        await using var connection =
            new SqliteConnection(new SqliteConnectionStringBuilder { DataSource = path, Pooling = false }.ToString());
        await connection.OpenAsync();
        await using var command = connection.CreateCommand();
        command.CommandText = sql;
        await using var reader = await command.ExecuteReaderAsync();
        var rows = new List<string>();
        while (await reader.ReadAsync()) rows.Add(reader.GetString(0));
        return rows;
    }
}
