using System.Net.Sockets;
using Garten.Server.Hosting;

var app = GartenHost.Build(new WebApplicationOptions { Args = args });
await GartenHost.PrepareAsync(app);
try
{
    await app.StartAsync();
}
catch (Exception error) when (error is IOException or SocketException)
{
    // An address that isn't one of this machine, or a port that is in use: no stack says it better.
    await Console.Error.WriteLineAsync($"The server can't listen: {error.Message}");
    return 1;
}
await app.WaitForShutdownAsync();
return 0;

/// <summary>Named so that tests can start it.</summary>
public partial class Program;
