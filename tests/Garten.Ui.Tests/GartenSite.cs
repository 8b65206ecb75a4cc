using System.Diagnostics;
using System.Globalization;
using Garten.Testing;
using Microsoft.AspNetCore.Hosting.Server;
using Microsoft.AspNetCore.Hosting.Server.Features;
using Microsoft.AspNetCore.Http.Features;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.Extensions.DependencyInjection;
using Npgsql;
using Xunit;

namespace Garten.Ui.Tests;

/// <summary>The whole application with the demo island, served as in use, on a database of its own that can be taken away.</summary>
public class GartenSite : IAsyncLifetime
{
    /// <summary>The day that it takes for today; empty for that of the machine.</summary>
    protected virtual string Today => "";

    /// <summary>Settings of its own.</summary>
    protected virtual IReadOnlyDictionary<string, string> Settings { get; } =
        new Dictionary<string, string>(StringComparer.Ordinal)
        {
            // Whoever walks on is under trees, without the sky, for a shorter while.
            ["StandIns:Pace"] = "4",
        };

    /// <summary>Whether anything is done with it in this run.</summary>
    protected virtual bool IsWanted => true;

    private TestDatabase _database = null!;
    private WebApplicationFactory<Program> _factory = null!;

    public TcpRelay Relay { get; private set; } = null!;

    public Uri Address { get; private set; } = null!;

    public HttpClient Client { get; private set; } = null!;

    /// <summary>Straight to the database, past the relay.</summary>
    public string ConnectionString => _database.ConnectionString;

    private Browser? _browser;

    /// <summary>A browser at the first page of a new user; the tests of a class have it one after the other.</summary>
    public Browser Browse(int width = 1280, int height = 800, bool touch = false)
    {
        _browser ??= new Browser(Address);
        _browser.BeginAnew(width, height, touch);
        return _browser;
    }

    /// <summary>Waits until the server's own answer holds a text.</summary>
    public async Task UntilServedAsync(string address, string text)
    {
        var stop = TestContext.Current.CancellationToken;
        var waited = Stopwatch.StartNew();
        while (!(await Client.GetStringAsync(new Uri(address, UriKind.Relative), stop)).Contains(text, StringComparison.Ordinal))
        {
            Assert.True(waited.Elapsed < Browser.Patience, $"Waited for “{text}” at {address}. The page shows:\n{_browser?.Text}");
            await Task.Delay(50, stop);
        }
    }

    public async ValueTask InitializeAsync()
    {
        if (!IsWanted)
            return;
        _database = await DatabaseTemplates.CopyAsync(Today, async connection =>
        {
            await using var factory = Factory(connection, "", Today);
            factory.StartServer();
        });
        var connection = new NpgsqlConnectionStringBuilder(_database.ConnectionString);
        Relay = new TcpRelay(connection.Port);
        connection.Port = Relay.Port;
        _throughRelay = connection.ConnectionString;
        Start(port: 0);
        Client = new HttpClient { BaseAddress = Address };
    }

    private string _throughRelay = "";

    private void Start(int port)
    {
        var web = Environment.GetEnvironmentVariable("GARTEN_WEB") ?? Path.Combine(Repository.Root, "artifacts", "web");
        Assert.True(File.Exists(Path.Combine(web, "index.html")), $"The web app isn't built in {web}: run the tests with ./garten test.");
        _factory = Factory(_throughRelay, web, Today, port)
            .WithWebHostBuilder(b =>
            {
                foreach (var (name, value) in Settings)
                    b.UseSetting(name, value);
            });
        _factory.UseKestrel();
        _factory.StartServer();
        Address = new Uri(
            _factory.Services.GetRequiredService<IServer>().Features.GetRequiredFeature<IServerAddressesFeature>().Addresses.First()
        );
    }

    /// <summary>Ends the server: nothing answers at its address any more.</summary>
    public ValueTask EndServerAsync() => _factory.DisposeAsync();

    /// <summary>Starts it again where it was.</summary>
    public void StartAgain() => Start(Address.Port);

    private static WebApplicationFactory<Program> Factory(string database, string web, string today, int port = 0)
    {
        var factory = new WebApplicationFactory<Program>().WithWebHostBuilder(b =>
            b.UseSetting("urls", $"http://127.0.0.1:{port.ToString(CultureInfo.InvariantCulture)}")
                .UseSetting("GARTEN_DATABASE", database)
                .UseSetting("GARTEN_WEB", web)
                .UseSetting("GARTEN_TODAY", today)
                .UseSetting("GARTEN_DEMO", Path.Combine(Repository.Root, "demo"))
        );
        factory.UseKestrel();
        return factory;
    }

    public async ValueTask DisposeAsync()
    {
        GC.SuppressFinalize(this);
        if (!IsWanted)
            return;
        _browser?.Dispose();
        Client.Dispose();
        await _factory.DisposeAsync();
        await Relay.DisposeAsync();
        await _database.DisposeAsync();
    }
}

/// <summary>The same on a day in June, when most of the island is in leaf and flower; only where pictures are taken.</summary>
public sealed class GartenInJune : GartenSite
{
    /// <summary>Where pictures go to; empty where none are taken.</summary>
    public static string Pictures => Environment.GetEnvironmentVariable("GARTEN_SCREENSHOTS") ?? "";

    protected override string Today => "2026-06-10";

    protected override bool IsWanted => Pictures.Length > 0;
}
