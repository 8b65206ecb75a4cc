namespace Garten.Server.Features.Health;

/// <summary>Whether the server and its database answer.</summary>
/// <param name="Status"><c>ready</c>.</param>
/// <param name="Epoch">Which life of the database this is: a restore from a copy begins another one.</param>
/// <param name="CopyWanted">Whether no copy of it was made for a month.</param>
/// <param name="IsSandbox">Whether this is a sandbox: what is kept here is gone when it ends.</param>
/// <param name="LastChange">The number of the last change: where it is another one than a device knows, something is new.</param>
public sealed record HealthReport(string Status, Guid Epoch, bool CopyWanted, bool IsSandbox = false, long LastChange = 0);
