using System.Globalization;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using OpenQA.Selenium;
using OpenQA.Selenium.Chrome;
using OpenQA.Selenium.Support.UI;

namespace Garten.Benchmarks;

/// <summary>The list of a visit at the keyboard, in headless Chromium without the network, with a flora of 4,000 taxa: what a keystroke
/// takes of the page's thread, and how long until what fits stands below.</summary>
internal sealed class ListBench(TextWriter to) : IAsyncDisposable
{
    private const int Taxa = 4_000;
    private const string Island = "list-isle";

    // So long nothing is typed after a key, so that all that it leads to is over.
    private const int RestMilliseconds = 250;
    private static readonly string[] Names = ["ve al", "gen no", "vel", "mirvim", "lo ta", "sal", "ruma"];
    private static readonly string[] Beginnings =
    [
        "Vellorna",
        "Genella",
        "Mirelda",
        "Lotessa",
        "Salmora",
        "Rumessa",
        "Carpessa",
        "Ostrenda",
    ];

    private readonly OwnServer _own = new("serve");

    public ValueTask DisposeAsync() => _own.DisposeAsync();

    public async Task RunAsync()
    {
        CultureInfo.CurrentCulture = CultureInfo.InvariantCulture;
        var address = new Uri($"http://127.0.0.1:{_own.Port}");
        using var client = new HttpClient { BaseAddress = address, Timeout = TimeSpan.FromMinutes(5) };
        await _own.StartAsync(client);
        await BringFloraAsync(client);
        var visit = await BeginAsync(client);
        using var driver = BrowserBench.Chromium();
        driver.Navigate().GoToUrl(new Uri(address, $"/site-visits/{visit}"));
        var field = new WebDriverWait(driver, TimeSpan.FromMinutes(3)).Until(d =>
            d.FindElements(By.CssSelector("input[role=combobox]")).FirstOrDefault()
        )!;
        field.SendKeys("vel");
        // Once the core on the device answers, the server isn't needed.
        new WebDriverWait(driver, TimeSpan.FromMinutes(3)).Until(d => d.FindElements(By.CssSelector("[role=option]")).Count > 0);
        Thread.Sleep(TimeSpan.FromSeconds(10));
        driver.ExecuteCdpCommand("Network.enable", []);
        driver.ExecuteCdpCommand(
            "Network.emulateNetworkConditions",
            new()
            {
                ["offline"] = true,
                ["latency"] = 0,
                ["downloadThroughput"] = 0,
                ["uploadThroughput"] = 0,
            }
        );
        driver.ExecuteCdpCommand("Performance.enable", []);
        driver.ExecuteScript(
            "window.spent_=[];let at=0,last=0;const list=document.querySelector('[role=listbox]');"
                + "new MutationObserver(()=>{last=performance.now()})"
                + ".observe(list,{subtree:true,childList:true,characterData:true,attributes:true});"
                + "addEventListener('keydown',e=>{if(at)window.spent_.push(Math.max(0,last-at));at=e.timeStamp;last=0},true)"
        );
        List<double> script = [];
        foreach (var name in Names)
        {
            field.SendKeys(Keys.Escape);
            Thread.Sleep(RestMilliseconds);
            foreach (var key in name)
            {
                var before = MapBench.Script(driver);
                field.SendKeys(key.ToString());
                Thread.Sleep(RestMilliseconds);
                script.Add(1000 * (MapBench.Script(driver) - before));
            }
        }
        field.SendKeys(Keys.Escape);
        var shown = JsonSerializer.Deserialize<double[]>((string)driver.ExecuteScript("return JSON.stringify(window.spent_)")!)!;
        Tell("script of the page's thread a keystroke", script);
        Tell("from the key to what fits", [.. shown.Where(s => s > 0)]);
    }

    private void Tell(string what, List<double> milliseconds)
    {
        milliseconds.Sort();
        to.WriteLine(
            $"{what}: median {milliseconds[milliseconds.Count / 2]:0.0} ms, longest {milliseconds[^1]:0.0} ms of {milliseconds.Count}, "
                + $"{Taxa} taxa, no network"
        );
    }

    private static async Task BringFloraAsync(HttpClient client)
    {
        var random = new Random(4);
        var taxa = new StringBuilder("name,family,cells,habitats,phenology\n");
        var matrix = new StringBuilder("taxon,margin,length\n");
        for (var i = 0; i < Taxa; i++)
        {
            var name =
                $"{Beginnings[i % Beginnings.Length]} {InventedWord.Of(random, 5)}{new string((char)('a' + i % 26), 1)}{new string((char)('a' + i / 26 % 26), 1)}{new string((char)('a' + i / 676), 1)}";
            taxa.Append(CultureInfo.InvariantCulture, $"{name},Generaceae,B2,heath,flower may–jul\n");
            matrix.Append(CultureInfo.InvariantCulture, $"{name},{(i % 2 == 0 ? "entire" : "toothed")},{20 + i % 40}–{40 + i % 50}\n");
        }
        var form = new MultipartFormDataContent { { new StringContent(Island), "name" } };
        foreach (
            var (field, text) in new[]
            {
                (
                    "characters",
                    "id,name,organ,kind,unit,states\nmargin,margin,leaf,categorical,,entire|toothed\nlength,length,leaf,length,mm,\n"
                ),
                ("taxa", taxa.ToString()),
                ("matrix", matrix.ToString()),
            }
        )
        {
            var part = new ByteArrayContent(Encoding.UTF8.GetBytes(text));
            part.Headers.ContentType = new("text/csv");
            form.Add(part, field, $"{field}.csv");
        }
        (await client.PostAsync(new Uri("/api/v1/floras", UriKind.Relative), form)).EnsureSuccessStatusCode();
        (
            await client.PostAsync(new Uri($"/api/v1/floras/{Island}/publish", UriKind.Relative), new StringContent(""))
        ).EnsureSuccessStatusCode();
    }

    private static async Task<Guid> BeginAsync(HttpClient client)
    {
        var (place, visit) = (Guid.CreateVersion7(), Guid.CreateVersion7());
        var commands = new JsonObject
        {
            ["commands"] = new JsonArray(
                new JsonObject
                {
                    ["kind"] = "savePlace",
                    ["id"] = Guid.CreateVersion7(),
                    ["placeId"] = place,
                    ["name"] = "List Edge",
                    ["locality"] = "",
                    ["latitude"] = 57.4,
                    ["longitude"] = -11.2,
                    ["uncertaintyMetres"] = 200,
                    ["caution"] = "",
                    ["cell"] = "B2",
                },
                new JsonObject
                {
                    ["kind"] = "saveSiteVisit",
                    ["id"] = Guid.CreateVersion7(),
                    ["siteVisitId"] = visit,
                    ["placeId"] = place,
                    ["date"] = DateTime.Today.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture),
                    ["startedAt"] = "00:01",
                    ["people"] = new JsonArray(new JsonObject { ["id"] = Guid.CreateVersion7(), ["name"] = "Bench" }),
                }
            ),
        };
        (await client.PostAsJsonAsync(new Uri("/api/v1/commands", UriKind.Relative), commands)).EnsureSuccessStatusCode();
        return visit;
    }
}
