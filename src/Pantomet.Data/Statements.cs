using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Storage;

namespace Pantomet.Data;

/// <summary>Statements that are run many times in one transaction: each is prepared once.</summary>
public sealed class Statements : IDisposable
{
    /// <summary>How many values a statement may list.</summary>
    public const int AtOnce = 400;

    private readonly SqliteConnection _connection;
    private readonly SqliteTransaction? _transaction;
    private readonly Dictionary<string, SqliteCommand> _prepared = [];

    /// <summary>Statements on a database whose connection is open, within its transaction.</summary>
    public Statements(PantometDb db)
    {
        ArgumentNullException.ThrowIfNull(db);
        _connection = (SqliteConnection)db.Database.GetDbConnection();
        _transaction = db.Database.CurrentTransaction?.GetDbTransaction() as SqliteTransaction;
    }

    /// <summary>Runs a statement with its values <c>$1</c>, <c>$2</c> ...</summary>
    public Task RunAsync(string sql, params object?[] values) => Bound(sql, values).ExecuteNonQueryAsync();

    /// <summary>Reads rows.</summary>
    public async Task<List<T>> ReadAsync<T>(string sql, Func<SqliteDataReader, T> row, params object?[] values)
    {
        ArgumentNullException.ThrowIfNull(row);
        var all = new List<T>();
        await using var reader = await Bound(sql, values).ExecuteReaderAsync();
        while (reader.Read())
        {
            all.Add(row(reader));
        }

        return all;
    }

    /// <inheritdoc/>
    public void Dispose()
    {
        foreach (var command in _prepared.Values)
        {
            command.Dispose();
        }
    }

    private SqliteCommand Bound(string sql, object?[] values)
    {
        if (!_prepared.TryGetValue(sql, out var command))
        {
            command = _connection.CreateCommand();
#pragma warning disable CA2100 // Texts of this program; what comes from outside is bound as a value.
            command.CommandText = sql;
#pragma warning restore CA2100
            command.Transaction = _transaction;
            for (var i = 1; i <= values.Length; i++)
            {
                command.Parameters.Add(new SqliteParameter { ParameterName = $"${i}" });
            }

            _prepared[sql] = command;
        }

        for (var i = 0; i < values.Length; i++)
        {
            command.Parameters[i].Value = values[i] switch
            {
                null => DBNull.Value,
                Guid id => id.ToString().ToUpperInvariant(),
                bool yes => yes ? 1 : 0,
                var value => value,
            };
        }

        return command;
    }
}
