using Garten.Server.Hosting;

var app = GartenHost.Build(new WebApplicationOptions { Args = args });
await GartenHost.PrepareAsync(app);
await app.RunAsync();

/// <summary>Named so that tests can start it.</summary>
public partial class Program;
