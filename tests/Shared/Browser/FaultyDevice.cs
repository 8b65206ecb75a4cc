using System.Diagnostics;
using System.Globalization;
using System.Text.Json;
using System.Text.Json.Nodes;
using OpenQA.Selenium;
using OpenQA.Selenium.Chrome;

namespace Garten.Testing;

/// <summary>A device in a wood: Chromium with a profile of its own, which is ended without notice and begun again.</summary>
public sealed partial class FaultyDevice : IDisposable
{
    private static readonly TimeSpan Patience = TimeSpan.FromMinutes(2);

    // A form that doesn't come, because what it is fetched from is gone, is left.
    private static readonly TimeSpan FormPatience = TimeSpan.FromSeconds(8);
    private readonly DirectoryInfo _profile = Directory.CreateTempSubdirectory("garten-device-");
    private readonly Uri _server;
    private ChromeDriver? _driver;

    public FaultyDevice(Uri server) => _server = server;

    // What a form's page does when something is kept, on its own store and its second copy: what comes back as "kept" is on the disk.
    private const string Keep = """
        const [commands,done]=[JSON.parse(arguments[0]),arguments[arguments.length-1]];
        const opened=indexedDB.open('garten');
        opened.onerror=()=>done('not opened');
        opened.onsuccess=()=>{
          const db=opened.result;
          const change=db.transaction(['outbox','kept'],'readwrite',{durability:'strict'});
          const marked=change.objectStore('kept').get('garten-store');
          const waiting=commands.map(it=>({id:it.command.id,command:it.command,creates:it.creates}));
          for(const it of waiting)change.objectStore('outbox').add(it).onsuccess=e=>it.seq=e.target.result;
          change.oncomplete=async()=>{
            db.close();
            const mark=marked.result,copy=await caches.open('garten-copy');
            const put=(...it)=>copy.put(...it).catch(()=>done('not copied'));
            await put(`/what-waits/${mark}/${waiting[0].seq}-${waiting.at(-1).seq}`,new Response(JSON.stringify({mark,waiting})));
            new BroadcastChannel('garten-outbox').postMessage({kind:'changed',taken:false});
            done('kept');
          };
          change.onabort=change.onerror=()=>done('aborted');
        };
        """;

    private const string Mark = """
        const done=arguments[arguments.length-1];
        const opened=indexedDB.open('garten');
        opened.onsuccess=()=>{
          const db=opened.result;
          const change=db.transaction('kept','readwrite',{durability:'strict'});
          const was=change.objectStore('kept').get('bench-mark');
          change.objectStore('kept').put(true,'bench-mark');
          change.oncomplete=()=>{db.close();done(was.result===true)};
        };
        """;

    private bool _hasStarted;

    /// <summary>How often its browser came back without the store that it had: cleared by the browser itself.</summary>
    public int Cleared { get; private set; }

    private const string Waiting = """
        const done=arguments[arguments.length-1];
        const opened=indexedDB.open('garten');
        opened.onsuccess=()=>{
          const db=opened.result;
          const [waiting,refused]=['outbox','refused'].map(s=>db.transaction(s).objectStore(s).count());
          refused.onsuccess=()=>{done([waiting.result,refused.result]);db.close()};
        };
        """;

    private const string Facts = """
        const done=arguments[arguments.length-1];
        (async()=>{
          const db=await new Promise(ok=>{const r=indexedDB.open('garten');r.onsuccess=()=>ok(r.result)});
          const all=await new Promise(ok=>{const r=db.transaction('answers').objectStore('answers').getAll();r.onsuccess=()=>ok(r.result)});
          db.close();
          const facts=all.filter(a=>/^(plant:|places$|populations$)/.test(a.name)).sort((a,b)=>a.name<b.name?-1:1).map(a=>[a.name,a.value]);
          const hash=await crypto.subtle.digest('SHA-256',new TextEncoder().encode(JSON.stringify(facts)));
          done(facts.length+' '+[...new Uint8Array(hash)].map(b=>b.toString(16).padStart(2,'0')).join(''));
        })();
        """;

    /// <summary>Starts it at a page, and waits until its store is there.</summary>
    public void Start(string path = "/plants")
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
            "--lang=en-GB",
            "--window-size=1280,900",
            $"--user-data-dir={_profile.FullName}"
        );
        var service = ChromeDriverService.CreateDefaultService("/usr/bin", "chromedriver");
        service.SuppressInitialDiagnosticInformation = true;
        service.HideCommandPromptWindow = true;
        _driver = new ChromeDriver(service, options, Patience);
        _driver.Manage().Timeouts().AsynchronousJavaScript = Patience;
        Open(path);
        Until(
            () =>
                (bool)
                    _driver.ExecuteAsyncScript(
                        "const done=arguments[0];indexedDB.databases().then(all=>done(all.some(d=>d.name==='garten'&&d.version>0)&&document.querySelector('main')!==null))"
                    )!,
            "the page and its store"
        );
        // A mark in the store tells whether the browser has begun it anew.
        var marked = (bool)_driver.ExecuteAsyncScript(Mark)!;
        if (_hasStarted && !marked)
            Cleared++;
        _hasStarted = true;
    }

    public void Open(string path) => _driver!.Navigate().GoToUrl(new Uri(_server, path));

    /// <summary>Ends all its processes at once, as a device does whose battery is out.</summary>
    public void Kill()
    {
        foreach (var process in OwnProcesses())
            process.Kill();
        End();
    }

    /// <summary>Has its tab crash; the browser is begun again afterwards.</summary>
    public void Crash()
    {
        try
        {
            _driver!.Navigate().GoToUrl("chrome://crash");
        }
        catch (WebDriverException)
        {
            // That is the crash.
        }
        End();
    }

    private void End()
    {
        try
        {
            _driver?.Quit();
        }
        catch (WebDriverException)
        {
            // There is nothing left that could be asked to end.
        }
        _driver?.Dispose();
        _driver = null;
        foreach (var process in OwnProcesses())
            process.Kill();
    }

    private List<Process> OwnProcesses()
    {
        var own = new List<Process>();
        foreach (var process in Process.GetProcesses())
        {
            try
            {
                var said = File.ReadAllText(string.Create(CultureInfo.InvariantCulture, $"/proc/{process.Id}/cmdline"));
                if (said.Contains(_profile.FullName, StringComparison.Ordinal) && !said.Contains("chromedriver", StringComparison.Ordinal))
                    own.Add(process);
            }
            catch (Exception gone) when (gone is IOException or UnauthorizedAccessException or InvalidOperationException)
            {
                // Over already.
            }
        }
        return own;
    }

    /// <summary>Keeps commands in one step of the page's own outbox; false where it didn't say that they are kept.</summary>
    public bool KeepAll(IReadOnlyList<FaultyFact> facts)
    {
        var text = new JsonArray([
            .. facts.Select(f => new JsonObject
            {
                ["command"] = f.Command.DeepClone(),
                ["creates"] = new JsonArray([.. f.Creates.Select(c => JsonValue.Create(c))]),
            }),
        ]).ToJsonString();
        try
        {
            return (string?)_driver!.ExecuteAsyncScript(Keep, text) == "kept";
        }
        catch (Exception gone) when (IsGone(gone))
        {
            return false;
        }
    }

    /// <summary>How many changes wait on it, and how many were refused.</summary>
    public (long Waiting, long Refused) Count()
    {
        var counts = (IReadOnlyCollection<object>)_driver!.ExecuteAsyncScript(Waiting)!;
        return ((long)counts.First(), (long)counts.Last());
    }

    /// <summary>Takes everything along, and gives the hash of all facts that are on it then.</summary>
    public string TakeAlong()
    {
        OpenAlong();
        Button()!.Click();
        Until(() => Text().Contains("Ready to leave", StringComparison.Ordinal) && Button() is { Enabled: true }, "all to be here");
        return (string)_driver!.ExecuteAsyncScript(Facts)!;
    }

    /// <summary>Opens the page of what is taken along.</summary>
    public void OpenAlong()
    {
        Open("/along");
        Until(() => Button() is { Enabled: true }, "what can be taken along");
    }

    /// <summary>Fetches there what has changed since; milliseconds until it is on the device.</summary>
    public double FetchWhatIsNew() =>
        Took(
            "it.button=[...document.querySelectorAll('main button')].find(b=>b.textContent==='Fetch what is new');it.button.click()",
            "it.button.disabled?!(it.began=true):it.began===true&&document.querySelector('main').textContent.includes('Ready to leave')",
            new Dictionary<string, object>()
        );

    /// <summary>Milliseconds until nothing waits on it any more, looked at twenty times a second.</summary>
    public double UntilSent() =>
        Took(
            """
            const opened=indexedDB.open('garten');
            opened.onsuccess=()=>{
              const look=()=>{
                const waiting=opened.result.transaction('outbox').objectStore('outbox').count();
                waiting.onsuccess=()=>waiting.result===0?(opened.result.close(),it.sent=true):setTimeout(look,50);
              };
              look();
            };
            """,
            "it.sent",
            new Dictionary<string, object>()
        );

    /// <summary>Ends it in peace and starts it again.</summary>
    public void Restart(string path)
    {
        End();
        Start(path);
    }

    /// <summary>Slows the page's thread to a share of its speed.</summary>
    public void Slow(int rate) => _driver!.ExecuteCdpCommand("Emulation.setCPUThrottlingRate", new() { ["rate"] = rate });

    /// <summary>Marks every flora on the page of what is taken along.</summary>
    public void ChooseAllFloras()
    {
        Until(() => _driver!.FindElements(By.CssSelector("section[aria-labelledby='along-floras'] input")).Count > 0, "the floras");
        foreach (var box in _driver!.FindElements(By.CssSelector("section[aria-labelledby='along-floras'] input")).Where(b => !b.Selected))
            box.Click();
    }

    /// <summary>How many seconds something takes.</summary>
    public static double Timed(Action work)
    {
        var began = Stopwatch.GetTimestamp();
        work();
        return Stopwatch.GetElapsedTime(began).TotalSeconds;
    }

    /// <summary>Seconds from the address until a text stands on the page; or, with something to be clicked, from the click.</summary>
    public double UntilSeen(string path, string text, string? click = null, string? then = null)
    {
        var began = Stopwatch.GetTimestamp();
        Open(path);
        Until(() => Text().Contains(text, StringComparison.Ordinal), text);
        if (click is null)
            return Stopwatch.GetElapsedTime(began).TotalSeconds;
        Until(() => _driver!.FindElements(By.CssSelector(click)).Count > 0, click);
        const double thousand = 1000;
        return Took(
                "document.querySelector(it.click).click()",
                "document.querySelector('main')?.textContent.includes(it.then)",
                new Dictionary<string, object> { ["click"] = click, ["then"] = then! }
            ) / thousand;
    }

    /// <summary>Waits until something stands on the page.</summary>
    public void UntilThere(string css) => Until(() => _driver!.FindElements(By.CssSelector(css)).Count > 0, css);

    // By the page's own clock, looked at before each frame.
    private const string Timing = """
        const [act,isThere,done]=[new Function('it',arguments[0]),new Function('it','return '+arguments[1]),arguments[arguments.length-1]];
        const began=performance.now(),it=arguments[2];
        act(it);
        const look=()=>isThere(it)?done(performance.now()-began):performance.now()-began>30000?done(-1):requestAnimationFrame(look);
        requestAnimationFrame(look);
        """;

    private double Took(string act, string isThere, object it)
    {
        var took = Convert.ToDouble(_driver!.ExecuteAsyncScript(Timing, act, isThere, it), CultureInfo.InvariantCulture);
        return took >= 0 ? took : throw new TimeoutException($"Waited for {isThere}.");
    }

    /// <summary>Goes to a page as a link within the application does; milliseconds until a text stands there.</summary>
    public double Move(string path, string text) =>
        Took(
            "history.pushState(null,'',it.path);dispatchEvent(new PopStateEvent('popstate'))",
            "document.querySelector('main')?.textContent.includes(it.text)",
            new Dictionary<string, object> { ["path"] = path, ["text"] = text }
        );

    /// <summary>Types into a field at once; milliseconds until the first that is found holds what was typed.</summary>
    public double Typed(string field, string text, string found)
    {
        UntilThere(field);
        return Took(
            "const f=document.querySelector(it.field);Object.getOwnPropertyDescriptor(HTMLInputElement.prototype,'value').set.call(f,it.text);f.dispatchEvent(new Event('input',{bubbles:true}))",
            "document.querySelector(it.found)?.textContent.includes(it.text)",
            new Dictionary<string, object>
            {
                ["field"] = field,
                ["text"] = text,
                ["found"] = found,
            }
        );
    }

    /// <summary>Opens the search of everything.</summary>
    public void Search() => _driver!.FindElement(By.CssSelector("body")).SendKeys("/");

    /// <summary>Closes it.</summary>
    public void CloseSearch()
    {
        _driver!.FindElement(By.CssSelector("[role=dialog] input")).SendKeys(Keys.Escape);
        Until(() => _driver.FindElements(By.CssSelector("[role=dialog]")).Count == 0, "the search to close");
    }

    private IWebElement? Button() =>
        _driver!.FindElements(By.CssSelector("main button")).FirstOrDefault(b => b.Text is "Take it along" or "Fetch what is new");

    private string Text() => (string)_driver!.ExecuteScript("return document.body.innerText")!;

    private static void Until(Func<bool> condition, string what, TimeSpan? patience = null)
    {
        for (var began = Stopwatch.GetTimestamp(); !Holds(condition); Thread.Sleep(50))
        {
            if (Stopwatch.GetElapsedTime(began) > (patience ?? Patience))
                throw new TimeoutException($"Waited for {what}.");
        }
    }

    private static bool Holds(Func<bool> condition)
    {
        try
        {
            return condition();
        }
        catch (Exception moving) when (moving is StaleElementReferenceException or NoSuchElementException or JavaScriptException)
        {
            return false;
        }
    }

    public void Dispose()
    {
        Kill();
        try
        {
            _profile.Delete(true);
        }
        catch (IOException)
        {
            // Written to until the last; the machine clears it away.
        }
    }
}

/// <summary>Something that a device does, and what comes into being by it.</summary>
/// <param name="Kind">Its kind of command.</param>
/// <param name="Name">Stands in it, and in nothing else.</param>
/// <param name="Command">The command.</param>
/// <param name="Creates">Ids of what comes into being.</param>
/// <param name="Look">The look at a plant that it has; all zeros for none.</param>
public sealed record FaultyFact(string Kind, string Name, JsonObject Command, IReadOnlyList<string> Creates, Guid Look);
