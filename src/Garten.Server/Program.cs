using System.Net.Sockets;
using Garten.Server.Hosting;

if (args is [TakingIn.Word, var file, var address])
{
    using var server = new HttpClient { BaseAddress = new Uri(address) };
    var phrase = Environment.GetEnvironmentVariable(TakingIn.PhraseVariable) ?? "";
    return await TakingIn.RunAsync(file, server, phrase, Console.Out, CancellationToken.None);
}

// An address that isn't one of this machine, a port in use, a certificate that can't be read: no stack says it better.
try
{
    var app = GartenHost.Build(new WebApplicationOptions { Args = args });
    await GartenHost.PrepareAsync(app);
    await app.StartAsync();
    await app.WaitForShutdownAsync();
    return 0;
}
catch (Exception error) when (error is IOException or SocketException or Garten.Server.Hosting.Beyond.UnusableSettingException)
{
    await Console.Error.WriteLineAsync($"The server can't start: {error.Message}");
    return 1;
}

/// <summary>Named so that tests can start it.</summary>
public partial class Program;
