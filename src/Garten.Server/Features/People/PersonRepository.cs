using Garten.Core.Contracts;
using Garten.Server.Commands;
using Garten.Server.Database;
using Npgsql;

namespace Garten.Server.Features.People;

/// <summary>The people who record.</summary>
internal sealed class PersonRepository(NpgsqlDataSource database)
{
    /// <summary>All people by name.</summary>
    public async Task<IReadOnlyList<PersonReference>> ListAsync(CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        return await connection
            .Command("select id, name from person order by name, id")
            .ReadAllAsync(r => new PersonReference(r.GetGuid(0), r.GetString(1)), stop);
    }

    // A person who is known keeps the name they have: a record never changes it. Of a batch most commands are of one person.
    internal static async Task EnsureAsync(CommandContext context, PersonReference person, CancellationToken stop)
    {
        if (context.PeopleThere.Add(person.Id))
            await EnsureAsync(context.Connection, person, stop);
    }

    internal static Task EnsureAsync(NpgsqlConnection connection, PersonReference person, CancellationToken stop) =>
        connection
            .Command("insert into person (id, name) values ($1, $2) on conflict (id) do nothing", person.Id, person.Name)
            .RunAsync(stop);
}
