using Npgsql;

namespace Garten.Server.Commands;

/// <summary>Who sent a command.</summary>
/// <param name="Device">The device; null where none was named.</param>
/// <param name="Person">Whose paired device it is; null on the server's own machine.</param>
internal sealed record Sender(Guid? Device, Guid? Person)
{
    /// <summary>The server itself.</summary>
    public static Sender Server { get; } = new(null, null);
}

/// <summary>What a command is carried out in.</summary>
/// <param name="Connection">Open, within the transaction of the command.</param>
/// <param name="Now">The moment at which it came in.</param>
/// <param name="Sender">Who sent it.</param>
internal sealed record CommandContext(NpgsqlConnection Connection, DateTimeOffset Now, Sender Sender)
{
    /// <summary>Plants whose rows in the lists are made again at the end of the batch, all at once.</summary>
    public HashSet<Guid> PlantsChanged { get; } = [];

    /// <summary>Determinations that were added, by their numbers: their names are put among those of the lists at the end of the
    /// batch.</summary>
    public List<long> Determined { get; } = [];

    /// <summary>Names of lists that were added, in their order: two batches that put them among the others never wait for each
    /// other.</summary>
    public SortedSet<string> NamesListed { get; } = new(StringComparer.Ordinal);

    /// <summary>People who are known to be kept within this transaction.</summary>
    public HashSet<Guid> PeopleThere { get; } = [];

    /// <summary>The latest day that isn't in the future: a device's own day may be a day ahead of the server's, where its zone
    /// is.</summary>
    public DateOnly LatestDay => DateOnly.FromDateTime(Now.UtcDateTime).AddDays(1);

    /// <summary>Reads the day on which something was seen.</summary>
    /// <exception cref="CommandRefusedException">There is no such day, it is before records began, or in the future.</exception>
    public DateOnly Date(string text, string field = "eventDate")
    {
        var date = Check.Date(text, field);
        if (date > LatestDay)
            throw Refusal.Of(
                422,
                "date.future",
                "This date is in the future.",
                "Give the day on which the plant was seen: today or earlier.",
                field
            );
        return date;
    }
}
