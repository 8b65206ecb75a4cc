using System.Globalization;
using Npgsql;

namespace Garten.Server.Database;

/// <summary>How many connections this server may hold, by what its database allows.</summary>
internal sealed class ConnectionLimit
{
    /// <summary>Connections kept for what must always go: whether the database answers.</summary>
    public const int Kept = 2;

    // Servers that may stand beside one another on one database without being asked how many they are.
    private const int Servers = 3;

    // Below this a server is slow, above it two dozen cores would have nothing to do.
    private const int Fewest = 4;
    private const int Most = 50;

    /// <summary>Connections of the pool, 4 to 50; until the database was asked what a small one allows.</summary>
    public int Connections { get; private set; } = 16;

    /// <summary>Asks the database: a third of what it has for ordinary users.</summary>
    /// <param name="connection">Open.</param>
    public void Ask(NpgsqlConnection connection)
    {
        ArgumentNullException.ThrowIfNull(connection);
        using var ask = new NpgsqlCommand(
            "select current_setting('max_connections')::int - current_setting('superuser_reserved_connections')::int",
            connection
        );
        Connections = Math.Clamp(Convert.ToInt32(ask.ExecuteScalar(), CultureInfo.InvariantCulture) / Servers, Fewest, Most);
    }
}
