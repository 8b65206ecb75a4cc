using System.ComponentModel.DataAnnotations;

namespace Garten.Server.Hosting;

/// <summary>Limits of the server, from the section <c>Limits</c> of its configuration (<c>Limits__LargestBodyMebibytes=16</c> in the
/// environment); checked when it starts.</summary>
internal sealed class ServerLimits
{
    public const string Section = "Limits";

    /// <summary>Largest body of a request, in MiB. A batch with a key text of 1 MiB in it, written as JSON with every character escaped,
    /// still fits into 8.</summary>
    [Range(1, 256)]
    public int LargestBodyMebibytes { get; set; } = 8;

    /// <summary>Most commands of one batch.</summary>
    [Range(1, 100_000)]
    public int MostCommands { get; set; } = 1000;

    /// <summary>Seconds after which a database that doesn't answer a connection is said to be away.</summary>
    [Range(1, 600)]
    public int ConnectSeconds { get; set; } = 5;

    /// <summary>The same for a statement.</summary>
    [Range(1, 3600)]
    public int StatementSeconds { get; set; } = 15;

    /// <summary>Seconds that a request waits its turn before it is asked to come again.</summary>
    [Range(1, 600)]
    public int PatienceSeconds { get; set; } = 15;

    /// <summary>Exports at a time. Each copies all records out: more at once would only make each other slower, and fill the
    /// memory.</summary>
    [Range(1, 100)]
    public int MostExports { get; set; } = 2;

    /// <summary>Uploads at a time; each reads a whole flora.</summary>
    [Range(1, 100)]
    public int MostUploads { get; set; } = 2;

    /// <summary>Days after which a copy of the database is wanted: a month of records is more than anyone wants to lose.</summary>
    [Range(1, 3650)]
    public int CopyWantedAfterDays { get; set; } = 30;

    /// <summary>Largest body in bytes.</summary>
    public long LargestBody => (long)LargestBodyMebibytes << 20;
}
