using Npgsql;

namespace Garten.Server.Database;

/// <summary>Short forms for plain ADO.NET: a command with its parameters in the order of $1, $2 …</summary>
internal static class Sql
{
    public static NpgsqlCommand Command(this NpgsqlConnection connection, string sql, params ReadOnlySpan<object?> parameters)
    {
        var command = new NpgsqlCommand(sql, connection);
        foreach (var value in parameters)
            command.Parameters.Add(new NpgsqlParameter { Value = Storable(value) ?? DBNull.Value });
        return command;
    }

    public static NpgsqlParameter Json(string value) =>
        new() { Value = StorableJson(value), NpgsqlDbType = NpgsqlTypes.NpgsqlDbType.Jsonb };

    // Text that the database would refuse doesn't reach it: it would refuse it while it binds the parameters, and a statement that was just
    // being prepared then is taken for prepared by the driver, though what it answers with was never told (Npgsql 10.0.3). The next one who
    // uses it on that connection would fail.
    internal static object? Storable(object? value) =>
        value switch
        {
            string text when text.Contains('\0', StringComparison.Ordinal) => throw NoSuchText(PostgresErrorCodes.CharacterNotInRepertoire),
            IEnumerable<string?> texts when texts.Any(t => t?.Contains('\0', StringComparison.Ordinal) == true) => throw NoSuchText(
                PostgresErrorCodes.CharacterNotInRepertoire
            ),
            _ => value,
        };

    // The same character as JSON writes it; behind another backslash it is no such character.
    private static string StorableJson(string json)
    {
        const string nul = "\\u0000";
        for (var at = json.IndexOf(nul, StringComparison.Ordinal); at >= 0; at = json.IndexOf(nul, at + 1, StringComparison.Ordinal))
        {
            var before = 0;
            while (at - before > 0 && json[at - before - 1] == '\\')
                before++;
            if (before % 2 == 0)
                throw NoSuchText(PostgresErrorCodes.UntranslatableCharacter);
        }
        return json;
    }

    private static PostgresException NoSuchText(string state) =>
        new("A text holds a character that can't be kept.", "ERROR", "ERROR", state);

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
