using Microsoft.Data.Sqlite;

namespace Zendle.Store.Corpus;

/// <summary>Prepared statements, each prepared once; inside one transaction when there is one.</summary>
internal sealed class SqlSession(SqliteConnection connection, SqliteTransaction? transaction) : IDisposable
{
    private readonly Dictionary<string, SqliteCommand> prepared = [];

    public void Run(string sql, params ReadOnlySpan<object?> values) => Command(sql, values).ExecuteNonQuery();

    public object? Scalar(string sql, params ReadOnlySpan<object?> values) => Command(sql, values).ExecuteScalar();

    public SqliteDataReader Query(string sql, params ReadOnlySpan<object?> values) =>
        Command(sql, values).ExecuteReader();

    public int Number(string sql, params ReadOnlySpan<object?> values) =>
        Convert.ToInt32(Scalar(sql, values), System.Globalization.CultureInfo.InvariantCulture);

    public List<long> Numbers(string sql, params ReadOnlySpan<object?> values)
    {
        var numbers = new List<long>();
        using var reader = Query(sql, values);
        while (reader.Read())
            numbers.Add(reader.GetInt64(0));
        return numbers;
    }

    private SqliteCommand Command(string sql, params ReadOnlySpan<object?> values)
    {
        if (!prepared.TryGetValue(sql, out var command))
        {
            prepared[sql] = command = connection.CreateCommand();
            command.Transaction = transaction;
#pragma warning disable CA2100 // every statement is a constant of this project; values travel as parameters
            command.CommandText = sql;
#pragma warning restore CA2100
            for (var i = 0; i < values.Length; i++)
                command.Parameters.AddWithValue("$" + i, DBNull.Value);
        }
        for (var i = 0; i < values.Length; i++)
            command.Parameters[i].Value = values[i] ?? DBNull.Value;
        return command;
    }

    public void Dispose()
    {
        foreach (var command in prepared.Values)
            command.Dispose();
    }
}
