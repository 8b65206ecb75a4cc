using System.Net.Http.Json;
using System.Text.Json;
using System.Text.Json.Nodes;
using Garten.Server.Features.Keys;
using Garten.Testing;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.Extensions.DependencyInjection;
using Npgsql;
using Xunit;

namespace Garten.Server.Tests;

/// <summary>The server on a database of its own, with a relay between them that can be cut.</summary>
public sealed class GartenServer : IAsyncLifetime
{
    private TestDatabase _database = null!;
    private WebApplicationFactory<Program> _factory = null!;

    public TcpRelay Relay { get; private set; } = null!;

    public HttpClient Client { get; private set; } = null!;

    /// <summary>Straight to the database, past the relay.</summary>
    public string ConnectionString => _database.ConnectionString;

    public async ValueTask InitializeAsync()
    {
        _database = await Databases.EmptyAsync();
        var connection = new NpgsqlConnectionStringBuilder(_database.ConnectionString);
        Relay = new TcpRelay(connection.Port);
        connection.Port = Relay.Port;
        _factory = new WebApplicationFactory<Program>().WithWebHostBuilder(b =>
            b.UseSetting("GARTEN_DATABASE", connection.ConnectionString).UseSetting("GARTEN_DEMO", "")
        );
        Client = _factory.CreateClient();
    }

    public async ValueTask DisposeAsync()
    {
        Client.Dispose();
        await _factory.DisposeAsync();
        await Relay.DisposeAsync();
        await _database.DisposeAsync();
    }

    /// <summary>A browser of its own on the same server.</summary>
    public HttpClient Browse(Guid device)
    {
        var client = _factory.CreateClient();
        client.DefaultRequestHeaders.Add("Garten-Device", device.ToString());
        return client;
    }

    /// <summary>Another server on the same database, with settings of its own.</summary>
    public WebApplicationFactory<Program> With(Action<IWebHostBuilder> settings) => _factory.WithWebHostBuilder(settings);

    /// <summary>Keeps how all keys are read, as the server does by itself after a while.</summary>
    public Task KeepReadingsAsync() =>
        _factory.Services.GetRequiredService<KeyReadingStep>().KeepAllAsync(TestContext.Current.CancellationToken);

    /// <summary>Sends a command as a script would and gives back status and body.</summary>
    public async Task<(int Status, JsonNode Body)> SendAsync(JsonObject command) =>
        await PostAsync("/api/v1/commands", new JsonObject { ["commands"] = new JsonArray(command.DeepClone()) });

    public async Task<(int Status, JsonNode Body)> PostAsync(string address, JsonNode body)
    {
        var response = await Client.PostAsJsonAsync(address, body, TestContext.Current.CancellationToken);
        return ((int)response.StatusCode, await Json(response));
    }

    public async Task<(int Status, JsonNode Body)> PostTextAsync(string address, HttpContent content)
    {
        var response = await Client.PostAsync(new Uri(address, UriKind.Relative), content, TestContext.Current.CancellationToken);
        return ((int)response.StatusCode, await Json(response));
    }

    public async Task<JsonNode> GetAsync(string address) =>
        (await Client.GetFromJsonAsync<JsonNode>(address, JsonSerializerOptions.Web, TestContext.Current.CancellationToken))!;

    private static async Task<JsonNode> Json(HttpResponseMessage response)
    {
        var text = await response.Content.ReadAsStringAsync(TestContext.Current.CancellationToken);
        if (!response.IsSuccessStatusCode)
            Assert.Equal("application/problem+json", response.Content.Headers.ContentType?.MediaType);
        return JsonNode.Parse(text)!;
    }
}
