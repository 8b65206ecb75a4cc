using System.Diagnostics;
using System.Globalization;
using System.Net.Http.Json;
using System.Net.Sockets;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Garten.Testing;

namespace Garten.Benchmarks;

/// <summary>
/// Measures a server of its own over very many records: every address that a page reads, by the load tool <c>ab</c> with eight clients, and
/// how many visits a
/// second are taken in. See docs/performance.md.
/// </summary>
internal sealed partial class DataOfSize(TextWriter output)
{
    private const int Plants = 20_000,
        Determinations = 200_000,
        Observations = 1_000_000;
    private const int Clients = 8,
        Requests = 400;
    private const int Batches = 40,
        PerBatch = 100;
    private static readonly TimeSpan ToStart = TimeSpan.FromMinutes(2);

    public async Task RunAsync(string root)
    {
        await using var database = await TestDatabase.CreateAsync();
        var port = FreePort.Find();
        var address = string.Create(CultureInfo.InvariantCulture, $"http://127.0.0.1:{port}");
        using var client = new HttpClient { BaseAddress = new Uri(address), Timeout = TimeSpan.FromMinutes(2) };
        using var server = Start(root, database.ConnectionString, address);
        try
        {
            await AnswersAsync(client);
            await ManyRecords.MakeAsync(database.ConnectionString, Plants, Determinations, Observations, CancellationToken.None);
            await output.WriteLineAsync(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"{Observations:N0} observations, {Determinations:N0} determinations, {Plants:N0} plants; {Clients} clients, {Requests} requests each address"
                )
            );
            await output.WriteLineAsync("| address | median ms | p95 ms | answered |\n|---|---|---|---|");
            var plant = (string)((JsonArray)(await client.GetFromJsonAsync<JsonNode>("/api/v1/plants?size=1"))!)[0]!["id"]!;
            var place = (string)((JsonArray)(await client.GetFromJsonAsync<JsonNode>("/api/v1/places"))!)[^1]!["id"]!;
            foreach (
                var path in new[]
                {
                    "health",
                    "places",
                    "people",
                    "keys",
                    "keys/shelf",
                    "floras",
                    "records",
                    "records?taxon=Genus3%20species43",
                    $"records?place={place}",
                    "plants",
                    "plants?text=peg%20199",
                    $"plants?place={place}",
                    $"plants/{plant}",
                    "populations",
                    "seasons/firsts",
                    "seasons/open",
                    "contradictions",
                }
            )
            {
                var (median, p95, failed) = await LoadAsync($"{address}/api/v1/{path}");
                await output.WriteLineAsync(
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"| {path.Replace(plant, "…", StringComparison.Ordinal).Replace(place, "…", StringComparison.Ordinal)} | {median} | {p95} | {Requests - failed} of {Requests} |"
                    )
                );
            }
            server.Refresh();
            await output.WriteLineAsync(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"memory of the server {server.WorkingSet64 >> 20} MB, at most {server.PeakWorkingSet64 >> 20} MB"
                )
            );
            var (one, several) = (await WriteAsync(client, 1), await WriteAsync(client, Clients));
            await output.WriteLineAsync(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"visits taken in: {one:0} a second by one device, {several:0} by {Clients}, in batches of {PerBatch}"
                )
            );
        }
        finally
        {
            server.Kill(entireProcessTree: true);
            await server.WaitForExitAsync();
        }
    }

    private static Process Start(string root, string database, string address)
    {
        var start = new ProcessStartInfo("dotnet", [Path.Combine(root, "artifacts", "server", "Garten.Server.dll")])
        {
            UseShellExecute = false,
            RedirectStandardOutput = true,
            WorkingDirectory = Path.Combine(root, "artifacts", "server"),
        };
        start.Environment["GARTEN_DATABASE"] = database;
        start.Environment["GARTEN_WEB"] = Path.Combine(root, "artifacts", "web");
        start.Environment["GARTEN_DEMO"] = Path.Combine(root, "demo");
        start.Environment["ASPNETCORE_URLS"] = address;
        var server = Process.Start(start)!;
        server.BeginOutputReadLine();
        return server;
    }

    private static async Task AnswersAsync(HttpClient client)
    {
        for (var began = Stopwatch.StartNew(); began.Elapsed < ToStart; await Task.Delay(200))
        {
            try
            {
                if ((await client.GetAsync(new Uri("/api/v1/health", UriKind.Relative))).IsSuccessStatusCode)
                    return;
            }
            catch (HttpRequestException)
            {
                // Not yet.
            }
        }
        throw new TimeoutException("The server doesn't answer.");
    }

    private static async Task<(int Median, int P95, int Failed)> LoadAsync(string address)
    {
        // Once before: what is worked out once isn't what is measured.
        using (var client = new HttpClient())
            await client.GetByteArrayAsync(new Uri(address));
        using var tool = Process.Start(
            new ProcessStartInfo("ab", ["-q", "-l", "-c", $"{Clients}", "-n", $"{Requests}", address])
            {
                UseShellExecute = false,
                RedirectStandardOutput = true,
            }
        ) ?? throw new InvalidOperationException("ab isn't installed: apt-get install apache2-utils");
        var told = await tool.StandardOutput.ReadToEndAsync();
        await tool.WaitForExitAsync();
        int Number(Regex pattern) =>
            pattern.Match(told) is { Success: true } match ? int.Parse(match.Groups[1].Value, CultureInfo.InvariantCulture) : 0;
        return (Number(Median), Number(Percentile), Number(Failures) + Number(Refusals));
    }

    private static async Task<double> WriteAsync(HttpClient client, int devices)
    {
        var plants = (JsonArray)(await client.GetFromJsonAsync<JsonNode>("/api/v1/plants?size=500&text=peg"))!;
        var began = Stopwatch.StartNew();
        await Task.WhenAll(
            Enumerable
                .Range(0, devices)
                .Select(async d =>
                {
                    for (var b = d; b < Batches; b += devices)
                    {
                        var commands = new JsonArray([
                            .. Enumerable
                                .Range(0, PerBatch)
                                .Select(i =>
                                    (JsonNode)
                                        new JsonObject
                                        {
                                            ["kind"] = "visitPlant",
                                            ["id"] = Guid.CreateVersion7().ToString(),
                                            ["visitId"] = Guid.CreateVersion7().ToString(),
                                            ["plantId"] = (string)plants[(b * PerBatch + i) % plants.Count]!["id"]!,
                                            ["date"] = DateTime.UtcNow.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture),
                                            ["recorder"] = new JsonObject
                                            {
                                                ["id"] = "0197a1c0-5b00-7a11-9c3e-2f6f6b1d0d01",
                                                ["name"] = "Ilse Marrin",
                                            },
                                            ["state"] = "alive",
                                        }
                                ),
                        ]);
                        using var answer = await client.PostAsJsonAsync("/api/v1/commands", new JsonObject { ["commands"] = commands });
                        var results = (await answer.Content.ReadFromJsonAsync<JsonNode>())!["results"]!.AsArray();
                        if (results.Any(r => (string)r!["status"]! != "applied"))
                            throw new InvalidOperationException(results.First(r => (string)r!["status"]! != "applied")!.ToJsonString());
                    }
                })
        );
        return Batches * PerBatch / began.Elapsed.TotalSeconds;
    }

    [GeneratedRegex(@"^\s*50%\s+(\d+)", RegexOptions.Multiline)]
    private static partial Regex Median { get; }

    [GeneratedRegex(@"^\s*95%\s+(\d+)", RegexOptions.Multiline)]
    private static partial Regex Percentile { get; }

    [GeneratedRegex(@"^Failed requests:\s+(\d+)", RegexOptions.Multiline)]
    private static partial Regex Failures { get; }

    [GeneratedRegex(@"^Non-2xx responses:\s+(\d+)", RegexOptions.Multiline)]
    private static partial Regex Refusals { get; }
}
