using System.Diagnostics;
using System.Globalization;
using System.IO.Compression;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json.Nodes;
using Garten.Core.Contracts;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Packs;
using OpenQA.Selenium;
using OpenQA.Selenium.Chrome;
using OpenQA.Selenium.Support.UI;

namespace Garten.Benchmarks;

/// <summary>
/// The same in headless Chromium against a running server: a flora of 2,000 × 300 is brought and published there, then its pack loaded and
/// sifted in a worker, and the real page sifted by hand while tasks of its own thread are watched.
/// </summary>
internal sealed class BrowserBench(TextWriter to, Uri server) : IDisposable
{
    private const int Taxa = 2000;
    private const int Characters = 300;
    private const string FloraId = "generated-2000-300";

    private readonly HttpClient _client = new() { BaseAddress = server, Timeout = TimeSpan.FromMinutes(5) };

    public void Dispose() => _client.Dispose();

    public async Task RunAsync()
    {
        CultureInfo.CurrentCulture = CultureInfo.InvariantCulture;
        var (shelf, _, sheet) = GeneratedFlora.Make(Taxa, Characters);
        await BringAsync(shelf.Table);
        var pack = await _client.GetByteArrayAsync(new Uri($"/api/v1/floras/{FloraId}/columns", UriKind.Relative));
        using var squeezed = new MemoryStream();
        await using (var brotli = new BrotliStream(squeezed, CompressionLevel.Optimal, leaveOpen: true))
            await brotli.WriteAsync(pack);
        GC.Collect();
        var before = GC.GetTotalMemory(true);
        var ready = ReadyFlora.Read(pack);
        ready.Sifter.WarmUp(int.MaxValue);
        var memory = GC.GetTotalMemory(true) - before;
        GC.KeepAlive(ready);
        to.WriteLine(
            $"pack: {pack.Length / 1e6:0.00} MB, {squeezed.Length / 1e6:0.00} MB compressed (Brotli); in memory with all that later answers need {memory / 1e6:0.0} MB (native)"
        );
        using var driver = Chromium();
        driver.Navigate().GoToUrl(new Uri(server, "/keys"));
        InTheBrowser(driver, sheet);
        OnThePage(driver);
    }

    /// <summary>Reading keys alone.</summary>
    public async Task ReadAsync()
    {
        using var driver = Chromium();
        await new ReadingBench(to, _client).RunAsync(driver, server);
    }

    /// <summary>Floras whose characters are made of parts and qualities: their packs read by the core in the browser, and a sheet weighed
    /// without and with what follows from other characters.</summary>
    public void Composed()
    {
        CultureInfo.CurrentCulture = CultureInfo.InvariantCulture;
        var made = new ComposedBenchmarks();
        made.Make();
        var (dense, sparse, sheet) = made.Made;
        using var driver = Chromium();
        driver.Navigate().GoToUrl(new Uri(server, "/keys"));
        driver.Manage().Timeouts().AsynchronousJavaScript = TimeSpan.FromMinutes(4);
        // As many looks that the flora describes itself, in place of those that only follow.
        var columns = PackFile.Read(dense).Columns;
        var own = sheet.Where(o => columns.Find(o.Character) is not null).ToList();
        var others = columns
            .Columns.Select(c => c.Character)
            .Where(c => own.TrueForAll(o => o.Character != c.Id))
            .Take(sheet.Count - own.Count)
            .Select(c => (Character: c.Id, State: c.States[0].Id));
        static string Looks(IEnumerable<(string Character, string State)> looks) =>
            string.Join(',', looks.Select(l => $$"""{"character":"{{l.Character}}","states":["{{l.State}}"]}"""));
        var described = Looks([.. own.Select(o => (o.Character, o.States[0])), .. others]);
        var following = Looks(sheet.Select(o => (o.Character, o.States[0])));
        var result = (string)
            driver.ExecuteAsyncScript(
                """
                const done=arguments[arguments.length-1],[packs,described,following]=arguments;
                (async()=>{
                  const median=a=>a.sort((x,y)=>x-y)[Math.floor(a.length/2)];
                  const {dotnet}=await import(location.origin+'/_framework/dotnet.js');
                  const core=(await (await dotnet.create()).getAssemblyExports('Garten.Browser.dll')).Garten.Browser.CoreExports;
                  const bytes=packs.map(p=>Uint8Array.from(atob(p),c=>c.charCodeAt(0)));
                  const loads=pack=>{const times=[];for(let i=0;i<7;i++){const s=performance.now();core.LoadFlora(pack);times.push(performance.now()-s);}return {first:times[0],median:median(times)};};
                  const dense=loads(bytes[0]),sparse=loads(bytes[1]);
                  core.LoadFlora(bytes[0]);
                  const ask=(all,i)=>JSON.stringify({floraId:'composed',options:{looks:false,why:[]},observations:i%2?all:all.slice(0,-1)});
                  const timed=(looks,n)=>{const all=JSON.parse('['+looks+']');const times=[];for(let i=0;i<n;i++){const s=performance.now();core.Call('sift',ask(all,i));times.push(performance.now()-s);}return median(times.slice(n/2));};
                  const allDescribed=timed(described,160);
                  core.LoadVocabulary(new Uint8Array(await (await fetch('/api/v1/vocabulary/packed')).arrayBuffer()));
                  const withBearing=timed(following,160);
                  return JSON.stringify({dense,sparse,allDescribed,withBearing},(k,v)=>typeof v==='number'?Math.round(v*10)/10:v);
                })().then(done,e=>done('failed: '+e));
                """,
                new[] { Convert.ToBase64String(dense), Convert.ToBase64String(sparse) },
                described,
                following
            )!;
        to.WriteLine("packs of composed characters in the browser, milliseconds: " + result);
    }

    private async Task BringAsync(CharacterTable table)
    {
        var floras = await _client.GetFromJsonAsync<JsonArray>(new Uri("/api/v1/floras", UriKind.Relative));
        if (floras!.Any(f => (string)f!["id"]! == FloraId && (int)f["version"]! > 0))
            return;
        var characters = new StringBuilder("id,name,organ,kind,unit,states\n");
        foreach (var c in table.Characters)
            characters.Append(
                CultureInfo.InvariantCulture,
                $"{c.Id},{c.Name},{c.Organ.ToString().ToLowerInvariant()},{(c.IsQuantity ? "length,mm," : $"categorical,,{string.Join('|', c.States.Select(s => $"{s.Id}={s.Name}"))}")}\n"
            );
        var matrix = new StringBuilder("taxon," + string.Join(',', table.Characters.Select(c => c.Id)) + "\n");
        var n = 0;
        foreach (var d in table.Descriptions)
        {
            matrix.Append(CultureInfo.InvariantCulture, $"Genella species{n++:x}");
            foreach (var cell in d.Characters)
                matrix
                    .Append(',')
                    .Append(
                        cell.Range is { } r
                            ? string.Create(
                                CultureInfo.InvariantCulture,
                                $"({r.LowExtreme:0.##}–){r.Low:0.##}–{r.High:0.##}(–{r.HighExtreme:0.##})"
                            )
                            : string.Join(
                                " | ",
                                cell.States.Select((s, i) => i == 0 ? $"usually state {s.State[1..]}" : $"sometimes state {s.State[1..]}")
                            )
                    );
            matrix.Append('\n');
        }
        using var form = new MultipartFormDataContent { { new StringContent("Generated 2000 300"), "name" } };
        foreach (var (field, text) in new[] { ("characters", characters), ("matrix", matrix) })
        {
            var part = new ByteArrayContent(Encoding.UTF8.GetBytes(text.ToString()));
            part.Headers.ContentType = new("text/csv");
            form.Add(part, field, field + ".csv");
        }
        var watch = Stopwatch.StartNew();
        var answer = await _client.PostAsync(new Uri("/api/v1/floras", UriKind.Relative), form);
        if (!answer.IsSuccessStatusCode)
            throw new InvalidOperationException((await answer.Content.ReadAsStringAsync())[..500]);
        to.WriteLine($"brought in {watch.Elapsed.TotalSeconds:0.0} s");
        (await _client.PostAsync(new Uri($"/api/v1/floras/{FloraId}/publish", UriKind.Relative), null)).EnsureSuccessStatusCode();
    }

    internal static ChromeDriver Chromium()
    {
        var options = new ChromeOptions { BinaryLocation = "/usr/bin/chromium" };
        options.AddArguments(
            "--headless=new",
            "--no-sandbox",
            "--disable-gpu",
            "--disable-quic",
            "--no-first-run",
            "--disable-background-networking",
            "--disable-component-update",
            "--disable-sync",
            "--window-size=1280,800"
        );
        return new ChromeDriver(ChromeDriverService.CreateDefaultService("/usr/bin", "chromedriver"), options, TimeSpan.FromMinutes(4));
    }

    // The same core as the page's worker holds, asked again and again.
    private void InTheBrowser(ChromeDriver driver, IReadOnlyList<Observation> sheet)
    {
        var seen = string.Join(
            ',',
            sheet
                .SkipLast(1)
                .Select(o =>
                    o.Readings.Count > 0
                        ? $$"""{"character":"{{o.Character}}","values":[{{string.Join(',', o.Readings.Select(r => r.Value.ToString(CultureInfo.InvariantCulture)))}}]}"""
                        : $$"""{"character":"{{o.Character}}","states":["{{o.States[0]}}"]}"""
                )
        );
        driver.Manage().Timeouts().AsynchronousJavaScript = TimeSpan.FromMinutes(4);
        var result = (string)
            driver.ExecuteAsyncScript(
                """
                const done=arguments[arguments.length-1],[flora,seen]=arguments;
                (async()=>{
                  const median=a=>a.sort((x,y)=>x-y)[Math.floor(a.length/2)];
                  const {dotnet}=await import(location.origin+'/_framework/dotnet.js');
                  const core=(await (await dotnet.create()).getAssemblyExports('Garten.Browser.dll')).Garten.Browser.CoreExports;
                  const bytes=new Uint8Array(await (await fetch('/api/v1/floras/'+flora+'/columns')).arrayBuffer());
                  let t=performance.now(); core.LoadFlora(bytes); const load=performance.now()-t;
                  t=performance.now(); let worstWarmUp=0; for(;;){const s=performance.now(); const more=core.WarmUp(4); worstWarmUp=Math.max(worstWarmUp,performance.now()-s); if(!more) break;} const warmUp=performance.now()-t;
                  const ask=(i,looks)=>JSON.stringify({floraId:flora,options:{looks,why:[]},observations:[...JSON.parse('['+seen+']'),{character:'c3',values:[20+i*0.001]}]});
                  const timed=(n,run)=>{const times=[];for(let i=0;i<n;i++){const s=performance.now();run(i);times.push(performance.now()-s);}return median(times.slice(n/2));};
                  const rankedAnew=timed(160,i=>core.Call('sift',ask(1000+i,false)));
                  const withLooks=timed(40,i=>core.Call('sift',ask(i,true)));
                  const nothingSeen=timed(24,()=>core.Call('sift',JSON.stringify({floraId:flora})));
                  const taxa=JSON.parse(core.Call('describe',JSON.stringify({floraId:flora}))).slice(0,8).map(t=>t.taxon.id);
                  const contrastOfEight=timed(12,()=>core.Call('contrast',JSON.stringify({floraId:flora,taxa})));
                  return JSON.stringify({load,warmUp,worstWarmUp,rankedAnew,withLooks,nothingSeen,contrastOfEight},(k,v)=>typeof v==='number'?Math.round(v*10)/10:v);
                })().then(done,e=>done('failed: '+e));
                """,
                FloraId,
                seen
            )!;
        to.WriteLine("the core in the browser, milliseconds, JSON in and out: " + result);
    }

    // The page as its user has it: three looks recorded while its own thread is watched for tasks over 50 ms.
    private void OnThePage(ChromeDriver driver)
    {
        driver.Navigate().GoToUrl(new Uri(server, "/bench"));
        var wait = new WebDriverWait(driver, TimeSpan.FromMinutes(2)) { PollingInterval = TimeSpan.FromMilliseconds(50) };
        wait.IgnoreExceptionTypes(typeof(StaleElementReferenceException), typeof(NoSuchElementException));
        void Click(string css) => wait.Until(d => d.FindElements(By.CssSelector(css)).FirstOrDefault(e => e.Displayed))!.Click();
        wait.Until(d => d.FindElements(By.TagName("button")).FirstOrDefault(b => b.Text.StartsWith("Sift by", StringComparison.Ordinal)))!
            .Click();
        wait.Until(d => d.FindElement(By.TagName("body")).Text.Contains("Nothing seen yet", StringComparison.Ordinal));
        driver.ExecuteScript(
            "window.longTasks=[];new PerformanceObserver(l=>l.getEntries().forEach(e=>longTasks.push(Math.round(e.duration)))).observe({type:'longtask',buffered:false});let last=performance.now();window.longestGap=0;(function beat(){const now=performance.now();longestGap=Math.max(longestGap,now-last);last=now;requestAnimationFrame(beat)})()"
        );
        var watch = Stopwatch.StartNew();
        foreach (var organ in new[] { "Whole plant", "Twig", "Leaf" })
        {
            wait.Until(d =>
                        d.FindElements(By.CssSelector("nav[aria-label='Organs of the plant'] button"))
                            .FirstOrDefault(b => b.Text.StartsWith(organ, StringComparison.Ordinal))
                    )!
                .Click();
            Click("[aria-label^='States of'] button");
            wait.Until(d => d.FindElements(By.CssSelector("[aria-label^='States of'] button[aria-pressed=true]")).Count > 0);
            driver.SwitchTo().ActiveElement().SendKeys(Keys.Escape);
            wait.Until(d => d.FindElements(By.CssSelector("ol[aria-label=Standing]")).Count > 0);
        }
        var answer = driver.ExecuteScript("return JSON.stringify({longTasks,longestGap:Math.round(longestGap)})");
        to.WriteLine($"on the page, three looks in {watch.Elapsed.TotalSeconds:0.0} s: tasks of the page's own thread over 50 ms {answer}");
    }
}
