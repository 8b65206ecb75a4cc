using System.Globalization;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using OpenQA.Selenium;
using OpenQA.Selenium.Chrome;
using OpenQA.Selenium.Support.UI;

namespace Garten.Benchmarks;

/// <summary>The map with 10,000 records of lists, moved by its keys in headless Chromium against a running server: script a
/// frame.</summary>
internal sealed class MapBench(TextWriter to, Uri server) : IDisposable
{
    private const int Records = 10_000;
    private const int Batch = 500;
    private const int Moves = 60;
    private const double SpanDegrees = 0.05;

    private readonly HttpClient _client = new() { BaseAddress = server, Timeout = TimeSpan.FromMinutes(5) };

    public void Dispose() => _client.Dispose();

    public async Task RunAsync()
    {
        CultureInfo.CurrentCulture = CultureInfo.InvariantCulture;
        await BringAsync();
        using var driver = BrowserBench.Chromium();
        driver.Navigate().GoToUrl(new Uri(server, "/map"));
        var wait = new WebDriverWait(driver, TimeSpan.FromMinutes(2));
        wait.Until(d => d.FindElements(By.CssSelector(".map-count")).Count > 0);
        driver.ExecuteCdpCommand("Performance.enable", []);
        driver.ExecuteScript(
            "window.frames_=0;window.long_=0;(function f(){window.frames_++;requestAnimationFrame(f)})();"
                + "new PerformanceObserver(l=>{for(const e of l.getEntries())window.long_=Math.max(window.long_,e.duration)}).observe({type:'longtask'});"
                + "document.querySelector('[role=application]').focus()"
        );
        Move(driver, Keys.ArrowLeft, 8);
        var (script, frames) = (Script(driver), Frames(driver));
        Move(driver, Keys.ArrowRight, Moves / 2);
        Move(driver, Keys.ArrowLeft, Moves / 2);
        var spent = Script(driver) - script;
        var drawn = Frames(driver) - frames;
        to.WriteLine(
            $"{Moves} moves of the map with {Records} records: {drawn} frames, {1000 * spent / drawn:0.00} ms of script a frame, "
                + $"{1000 * spent / Moves:0.0} ms a move; longest task {driver.ExecuteScript("return Math.round(window.long_)")} ms"
        );
    }

    private static void Move(ChromeDriver driver, string key, int times)
    {
        for (var i = 0; i < times; i++)
        {
            driver.SwitchTo().ActiveElement().SendKeys(key);
            Thread.Sleep(300);
        }
    }

    // Seconds of script since the page began.
    internal static double Script(ChromeDriver driver)
    {
        var metrics = (Dictionary<string, object>)driver.ExecuteCdpCommand("Performance.getMetrics", [])!;
        return ((IEnumerable<object>)metrics["metrics"])
            .Cast<Dictionary<string, object>>()
            .Where(m => (string)m["name"] == "ScriptDuration")
            .Select(m => Convert.ToDouble(m["value"], CultureInfo.InvariantCulture))
            .Single();
    }

    private static long Frames(ChromeDriver driver) =>
        Convert.ToInt64(driver.ExecuteScript("return window.frames_"), CultureInfo.InvariantCulture);

    private async Task BringAsync()
    {
        var places = (await _client.GetFromJsonAsync<JsonArray>(new Uri("/api/v1/places", UriKind.Relative)))!;
        var place = places[0]!;
        var points = (await _client.GetFromJsonAsync<JsonArray>(new Uri("/api/v1/map/points", UriKind.Relative)))!;
        if (points.Count >= Records)
            return;
        var (visit, random) = (Guid.CreateVersion7(), new Random(1));
        var recorder = new JsonObject { ["id"] = Guid.CreateVersion7(), ["name"] = "Bench" };
        await SendAsync([
            new JsonObject
            {
                ["kind"] = "saveSiteVisit",
                ["id"] = Guid.CreateVersion7(),
                ["siteVisitId"] = visit,
                ["placeId"] = (string)place["id"]!,
                ["date"] = "2020-05-02",
                ["startedAt"] = "",
                ["people"] = new JsonArray(recorder.DeepClone()),
            },
        ]);
        for (var at = 0; at < Records; at += Batch)
            await SendAsync([
                .. Enumerable
                    .Range(at, Batch)
                    .Select(i => new JsonObject
                    {
                        ["kind"] = "listTaxon",
                        ["id"] = Guid.CreateVersion7(),
                        ["lineId"] = Guid.CreateVersion7(),
                        ["siteVisitId"] = visit,
                        ["taxon"] = $"Genella species{i % 300}",
                        ["recorder"] = recorder.DeepClone(),
                        ["compartment"] = $"{i}",
                        ["site"] = new JsonObject
                        {
                            ["latitude"] = (double)place["latitude"]! + (random.NextDouble() - 0.5) * SpanDegrees,
                            ["longitude"] = (double)place["longitude"]! + (random.NextDouble() - 0.5) * 2 * SpanDegrees,
                            ["uncertaintyMetres"] = 5,
                        },
                    }),
            ]);
    }

    private async Task SendAsync(JsonObject[] commands)
    {
        var sent = await _client.PostAsJsonAsync(
            new Uri("/api/v1/commands", UriKind.Relative),
            new JsonObject { ["commands"] = new JsonArray([.. commands]) }
        );
        sent.EnsureSuccessStatusCode();
    }
}
