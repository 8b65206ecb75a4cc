namespace Garten.Server.Hosting;

/// <summary>More is asked at once than can be answered, and it waited its time: answered with 503 and when to try again.</summary>
public sealed class BusyException() : Exception("Too much is asked at once.");
