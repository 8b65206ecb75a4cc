using Garten.Testing;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Hosting.Server;
using Microsoft.AspNetCore.Hosting.Server.Features;
using Microsoft.AspNetCore.Http.Features;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.Extensions.DependencyInjection;
using Npgsql;
using Xunit;

namespace Garten.Ui.Tests;

/// <summary>The whole application with the demo island, served as in use, on a database of its own that can be taken away.</summary>
public sealed class GartenSite : IAsyncLifetime
{
    private TestDatabase _database = null!;
    private WebApplicationFactory<Program> _factory = null!;

    public TcpRelay Relay { get; private set; } = null!;

    public Uri Address { get; private set; } = null!;

    public HttpClient Client { get; private set; } = null!;

    /// <summary>The folder of the repository.</summary>
    public static string Root { get; } = FindRoot();

    public async ValueTask InitializeAsync()
    {
        _database = await TestDatabase.CreateAsync();
        var connection = new NpgsqlConnectionStringBuilder(_database.ConnectionString);
        Relay = new TcpRelay(connection.Port);
        connection.Port = Relay.Port;
        var web = Environment.GetEnvironmentVariable("GARTEN_WEB") ?? Path.Combine(Root, "artifacts", "web");
        Assert.True(File.Exists(Path.Combine(web, "index.html")), $"The web app isn't built in {web}: run the tests with ./garten test.");
        _factory = new WebApplicationFactory<Program>().WithWebHostBuilder(b => b
            .UseSetting("urls", "http://127.0.0.1:0")
            .UseSetting("GARTEN_DATABASE", connection.ConnectionString)
            .UseSetting("GARTEN_WEB", web)
            .UseSetting("GARTEN_DEMO", Path.Combine(Root, "demo")));
        _factory.UseKestrel();
        _factory.StartServer();
        Address = new Uri(_factory.Services.GetRequiredService<IServer>().Features.GetRequiredFeature<IServerAddressesFeature>().Addresses.First());
        Client = new HttpClient { BaseAddress = Address };
    }

    public async ValueTask DisposeAsync()
    {
        Client.Dispose();
        await _factory.DisposeAsync();
        await Relay.DisposeAsync();
        await _database.DisposeAsync();
    }

    private static string FindRoot()
    {
        var folder = new DirectoryInfo(AppContext.BaseDirectory);
        while (folder is not null && !File.Exists(Path.Combine(folder.FullName, "Garten.slnx"))) folder = folder.Parent;
        return folder!.FullName;
    }
}
