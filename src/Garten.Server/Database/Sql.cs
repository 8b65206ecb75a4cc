using Npgsql;

namespace Garten.Server.Database;

/// <summary>Short forms for plain ADO.NET: a command with its parameters in the order of $1, $2 …</summary>
internal static class Sql
{
    public static NpgsqlCommand Command(this NpgsqlConnection connection, string sql, params ReadOnlySpan<object?> parameters)
    {
        var command = new NpgsqlCommand(sql, connection);
        foreach (var value in parameters)
            command.Parameters.Add(new NpgsqlParameter { Value = value ?? DBNull.Value });
        return command;
    }

    public static NpgsqlParameter Json(string value) => new() { Value = value, NpgsqlDbType = NpgsqlTypes.NpgsqlDbType.Jsonb };

    public static NpgsqlCommand With(this NpgsqlCommand command, NpgsqlParameter parameter)
    {
        command.Parameters.Add(parameter);
        return command;
    }

    public static async Task<List<T>> ReadAllAsync<T>(this NpgsqlCommand command, Func<NpgsqlDataReader, T> row, CancellationToken stop)
    {
        await using (command)
        await using (var reader = await command.ExecuteReaderAsync(stop))
        {
            var rows = new List<T>();
            while (await reader.ReadAsync(stop))
                rows.Add(row(reader));
            return rows;
        }
    }

    public static async Task<int> RunAsync(this NpgsqlCommand command, CancellationToken stop)
    {
        await using (command)
            return await command.ExecuteNonQueryAsync(stop);
    }
}
