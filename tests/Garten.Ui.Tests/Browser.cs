using System.Text.Json;
using Garten.Testing;
using OpenQA.Selenium;
using OpenQA.Selenium.Chrome;
using OpenQA.Selenium.Interactions;
using OpenQA.Selenium.Support.UI;
using Xunit;

namespace Garten.Ui.Tests;

/// <summary>Headless Chromium as its user has it: a keyboard or a thumb, and a page that is waited for, never slept for.</summary>
public sealed class Browser : IDisposable
{
    // Long enough for a machine many times slower than usual: only what fails takes so long.
    internal static readonly TimeSpan Patience = TimeSpan.FromMinutes(1);
    private readonly string _profile = Directory.CreateTempSubdirectory("garten-browser-").FullName;
    private readonly Uri _address;
    private ChromeDriver _driver;

    public Browser(Uri address)
    {
        _address = address;
        _driver = Start();
    }

    /// <summary>Ends the browser's process and starts another one on the same device: what it kept is there, what it held in memory is
    /// gone.</summary>
    public void Restart()
    {
        try
        {
            _driver.Quit();
        }
        catch (WebDriverException)
        {
            // It has ended by itself.
        }
        _driver.Dispose();
        _driver = Start();
    }

    private ChromeDriver Start()
    {
        // Over TLS it is the server's own authority that vouches, which this machine wasn't told to trust.
        var options = new ChromeOptions
        {
            BinaryLocation = "/usr/bin/chromium",
            AcceptInsecureCertificates = _address.Scheme == Uri.UriSchemeHttps,
        };
        options.AddArguments(
            "--headless=new",
            "--no-sandbox",
            "--disable-gpu",
            "--disable-quic",
            "--no-first-run",
            "--disable-background-networking",
            "--disable-component-update",
            "--disable-sync",
            "--hide-scrollbars",
            "--lang=en-GB",
            // The core's runtime is translated for this processor by each page that starts it, for a second and a half of work; a browser
            // that was used for longer keeps the outcome. So much of it is kept at once here, and the next page has it.
            "--js-flags=--wasm-caching-hard-threshold=500000",
            $"--user-data-dir={_profile}"
        );
        // What the reader reads: dates and numbers are written so.
        options.AddUserProfilePreference("intl.accept_languages", "en-GB,en");
        options.SetLoggingPreference(LogType.Browser, LogLevel.All);
        var service = ChromeDriverService.CreateDefaultService("/usr/bin", "chromedriver");
        service.SuppressInitialDiagnosticInformation = true;
        var driver = new ChromeDriver(service, options, TimeSpan.FromMinutes(2));
        driver.Manage().Timeouts().AsynchronousJavaScript = Patience;
        return driver;
    }

    // An address of the application at which none of it runs; it is on the device.
    private const string Bare = "/licences.txt";

    /// <summary>A new tab of a device that has the application but was never worked with: nothing of what was kept or chosen before is
    /// left.</summary>
    public void BeginAnew(int width, int height, bool touch)
    {
        AgainAfterACrash(NewTab);
        Size(width, height, touch);
    }

    private void NewTab()
    {
        var before = _driver.CurrentWindowHandle;
        var tab = _driver.SwitchTo().NewWindow(WindowType.Tab).CurrentWindowHandle;
        _driver.SwitchTo().Window(before).Close();
        _driver.SwitchTo().Window(tab);
        // A tab that another one lies over takes no keys.
        _driver.ExecuteCdpCommand("Page.bringToFront", []);
        BeforeEachPage(NoteWhatIsDone);
        _driver.ExecuteCdpCommand(
            "Storage.clearDataForOrigin",
            new() { ["origin"] = _address.GetLeftPart(UriPartial.Authority), ["storageTypes"] = "cookies,local_storage,indexeddb" }
        );
        // The program's own files stay; the second copy of what waited doesn't.
        _driver.Navigate().GoToUrl(new Uri(_address, Bare));
        _driver.ExecuteAsyncScript("caches.delete('garten-copy').then(arguments[0])");
        _driver.Manage().Logs.GetLog(LogType.Browser);
    }

    // Now and then Chromium's own process for a page ends as the page is left or begun. What is on the device is there after a new start,
    // and the page is loaded anew in any case.
    private void AgainAfterACrash(Action action)
    {
        try
        {
            action();
        }
        catch (WebDriverException crashed) when (crashed.Message.Contains("tab crashed", StringComparison.Ordinal))
        {
            Restart();
            if (_size is var (width, height, touch))
                Size(width, height, touch);
            action();
        }
    }

    private (int Width, int Height, bool Touch)? _size;

    /// <summary>Requests to addresses of this form are lost on their way from now on; none are where nothing is said.</summary>
    public void Lose(params string[] addresses)
    {
        _driver.ExecuteCdpCommand("Network.enable", []);
        _driver.ExecuteCdpCommand("Network.setBlockedURLs", new() { ["urls"] = addresses });
    }

    /// <summary>Lets the device know something before the application is begun.</summary>
    public void Knows(string name, string value)
    {
        if (Path != Bare)
            Open(Bare);
        _driver.ExecuteScript("localStorage.setItem(arguments[0],arguments[1])", name, value);
    }

    /// <summary>Runs a script on each page of this tab before its own: what a device has that this machine hasn't.</summary>
    public void BeforeEachPage(string script) =>
        _driver.ExecuteCdpCommand("Page.addScriptToEvaluateOnNewDocument", new() { ["source"] = script });

    /// <summary>Opens a page in another tab beside this one and goes there.</summary>
    public void Beside(string path)
    {
        _driver.SwitchTo().NewWindow(WindowType.Tab);
        Open(path);
    }

    /// <summary>Goes to the other one of two tabs.</summary>
    public void OtherTab() => _driver.SwitchTo().Window(_driver.WindowHandles.First(h => h != _driver.CurrentWindowHandle));

    public void CloseOtherTab()
    {
        var own = _driver.CurrentWindowHandle;
        OtherTab();
        _driver.Close();
        _driver.SwitchTo().Window(own);
    }

    public void Dispose()
    {
        _driver.Quit();
        _driver.Dispose();
        // Some of the browser's processes end a moment after it, and write to the profile until then. What can't be cleared away is left to
        // the machine: no test has failed by it.
        for (var left = TimeSpan.FromSeconds(5); ; left -= Pause)
        {
            try
            {
                Directory.Delete(_profile, recursive: true);
                return;
            }
            catch (Exception still) when (still is IOException or UnauthorizedAccessException)
            {
                if (left <= TimeSpan.Zero)
                    return;
                Thread.Sleep(Pause);
            }
        }
    }

    private static readonly TimeSpan Pause = TimeSpan.FromMilliseconds(100);

    public void Size(int width, int height, bool touch = false)
    {
        _size = (width, height, touch);
        _driver.ExecuteCdpCommand(
            "Emulation.setDeviceMetricsOverride",
            new()
            {
                ["width"] = width,
                ["height"] = height,
                ["deviceScaleFactor"] = 1,
                ["mobile"] = touch,
            }
        );
        _driver.ExecuteCdpCommand("Emulation.setTouchEmulationEnabled", new() { ["enabled"] = touch });
    }

    public void Open(string path) => AgainAfterACrash(() => _driver.Navigate().GoToUrl(new Uri(_address, path)));

    /// <summary>Goes to a page as a link within the application does: nothing is loaded anew.</summary>
    public void Go(string path)
    {
        ((IJavaScriptExecutor)_driver).ExecuteScript(
            "history.pushState(null,'',arguments[0]);dispatchEvent(new PopStateEvent('popstate'))",
            path
        );
    }

    public string Path => new Uri(_driver.Url).AbsolutePath;

    /// <summary>Waits for a condition, and says what the page showed where it never came.</summary>
    public void Until(Func<bool> condition, string what)
    {
        try
        {
            new WebDriverWait(SteadyClock.Shared, _driver, Patience, TimeSpan.FromMilliseconds(50)).Until(_ =>
            {
                try
                {
                    return condition();
                }
                catch (Exception moving) when (moving is StaleElementReferenceException or NoSuchElementException)
                {
                    return false;
                }
            });
        }
        catch (WebDriverTimeoutException)
        {
            Assert.Fail($"Waited for {what}. Last done to the page at {Path}:\n{Done}\nIt shows:\n{Text}");
        }
    }

    // Waits within the page, which is looked at when something changes in it: asking from outside again and again takes as much of the
    // machine as many a page does.
    private const string WaitForText = """
        const wanted=arguments[0],has=()=>document.body?.innerText.includes(wanted);
        if(has())return 'there';
        return await new Promise(done=>{
          let isDue=false;
          const end=()=>{seen.disconnect();clearInterval(now);clearTimeout(last);done(has()?'there':'not yet')};
          const seen=new MutationObserver(()=>{if(isDue)return;isDue=true;setTimeout(()=>{isDue=false;if(has())end()},30)});
          seen.observe(document,{subtree:true,childList:true,characterData:true,attributes:true});
          const now=setInterval(()=>{if(has())end()},500),last=setTimeout(end,5000);
        });
        """;

    public void UntilText(string text) =>
        Until(
            () =>
            {
                try
                {
                    return Run(WaitForText, text) == "there";
                }
                catch (WebDriverException left) when (left is JavaScriptException or WebDriverTimeoutException)
                {
                    // The page was left meanwhile.
                    return false;
                }
            },
            $"the text “{text}”"
        );

    // The keys and clicks that reached a page, with what they fell on and when: what a test did that fell beside what it was meant for.
    private const string NoteWhatIsDone =
        "window.done=[];for(const kind of ['keydown','mousedown','click'])addEventListener(kind,e=>done.push([performance.now()|0,kind,(e.target.outerHTML??'page').slice(0,80),e.key??''].join(' ')),true)";

    private string Done => (string)_driver.ExecuteScript("return (window.done??[]).slice(-30).join('\\n')")!;

    /// <summary>What the page shows, as text.</summary>
    public string Text => (string)_driver.ExecuteScript("return document.body.innerText")!;

    public IReadOnlyList<IWebElement> All(string css) => _driver.FindElements(By.CssSelector(css));

    public IWebElement Find(string css)
    {
        // What is found counts, not what is there a moment later: a page may be drawing itself anew.
        IWebElement? found = null;
        Until(() => (found = All(css) is [var first, ..] ? first : null) is not null, css);
        return found!;
    }

    // All that may be part of an element's name, without spaces: the browser is asked for the name itself only where this holds what is
    // looked for.
    private const string Sayings =
        "const squeezed=t=>(t??'').replace(/\\s+/g,''),sayings=e=>squeezed([e.getAttribute('aria-label'),...(e.getAttribute('aria-labelledby')??'').split(' ').map(i=>document.getElementById(i)?.textContent),...[...(e.labels??[])].map(l=>l.textContent),e.textContent,e.placeholder,e.title].join(' '));";

    /// <summary>The button or link with this accessible name, or whose name begins so.</summary>
    public IWebElement Control(string name)
    {
        IWebElement? found = null;
        Until(
            () => (found = Said(name).FirstOrDefault(e => NameOf(e).StartsWith(name, StringComparison.Ordinal))) is not null,
            $"the control “{name}”"
        );
        return found!;
    }

    private IEnumerable<IWebElement> Said(string name) =>
        (
            (System.Collections.IEnumerable)
                _driver.ExecuteScript(
                    Sayings
                        + "const wanted=squeezed(arguments[0]);return [...document.querySelectorAll('button,a,[role=option],[role=combobox]')].filter(e=>sayings(e).includes(wanted)&&e.checkVisibility({visibilityProperty:true}))",
                    name
                )!
        ).Cast<IWebElement>();

    public void Click(string name) => OnWhatStays(() => Click(Control(name)));

    // Whether a click reached a control, noted before whatever it does is done. What opens as the button goes down lies over it as it
    // comes up: that is a click on the page. Where the page is left by it nothing of this is there.
    private const string NoteTheClick =
        "const own=arguments[0];window.tapped=false;addEventListener('click',e=>{const t=e.target;window.tapped=own.contains(t)||t===document.body||t===document.documentElement||t.closest('button,a,input,label,summary')!==null},{capture:true,once:true})";

    // A click comes within a frame or two of the finger's leaving.
    private static readonly TimeSpan NoTap = TimeSpan.FromSeconds(2);
    private const int MostTaps = 5;

    private bool WasClicked()
    {
        for (var left = NoTap; left > TimeSpan.Zero; left -= Pause)
        {
            if (_driver.ExecuteScript("return window.tapped!==false") is true)
                return true;
            Thread.Sleep(Pause);
        }
        return false;
    }

    // A page that draws itself anew may put another element in the place of the one that was found: nothing was done to that one yet, and
    // the new one is looked for.
    private void OnWhatStays(Action act) =>
        Until(
            () =>
            {
                act();
                return true;
            },
            "an element that stays where it was found"
        );

    /// <summary>Clicks an element in the middle of the screen, where nothing that stays in place covers it. Where it moves just then the
    /// click falls beside it: whoever sees that clicks again.</summary>
    public void Click(IWebElement element)
    {
        for (var tries = 0; tries < MostTaps; tries++)
        {
            _driver.ExecuteScript("arguments[0].scrollIntoView({block:'center'})", element);
            _driver.ExecuteScript(NoteTheClick, element);
            element.Click();
            if (WasClicked())
                return;
        }
    }

    /// <summary>Follows the first link to such an address whose text holds this.</summary>
    public void ClickLink(string address, string text)
    {
        Until(
            () =>
            {
                var found = All($"main a[href^='{address}']").FirstOrDefault(a => a.Text.Contains(text, StringComparison.Ordinal));
                if (found is not null)
                    Click(found);
                return found is not null;
            },
            $"the link “{text}”"
        );
    }

    /// <summary>Taps with a finger in the middle of the control.</summary>
    public void Tap(string name) => Tap(name, tries: 1);

    private void Tap(string name, int tries)
    {
        IWebElement control = null!;
        // A page that still moves under the finger would let it tap something else.
        Until(
            () =>
            {
                control = Control(name);
                _driver.ExecuteScript("arguments[0].scrollIntoView({block:'center'})", control);
                return Run(
                        "const at=()=>{const r=arguments[0].getBoundingClientRect();return r.x+','+r.y};const a=at();await new Promise(d=>requestAnimationFrame(()=>requestAnimationFrame(()=>requestAnimationFrame(d))));return arguments[0].isConnected&&a===at()?'still':'moves'",
                        control
                    ) == "still";
            },
            $"“{name}” standing still"
        );
        // Beside what lies above the control, if that covers its middle.
        var spot =
            (IReadOnlyDictionary<string, object>)
                _driver.ExecuteScript(
                    "const e=arguments[0],r=e.getBoundingClientRect(),m=r.x+r.width/2,y=r.y+r.height/2,own=x=>{const h=document.elementFromPoint(x,y);return h&&(e.contains(h)||h.contains(e))};"
                        + "return {off:([m,r.x+26].find(own)??m)-m,h:r.height}",
                    control
                )!;
        Assert.True(Convert.ToDouble(spot["h"]) >= 44, $"“{name}” is only {spot["h"]} px high.");
        // Where it is drawn anew or moves between the finger's coming and its leaving, nothing was tapped, or what does nothing: whoever
        // sees that taps again.
        _driver.ExecuteScript(NoteTheClick, control);
        try
        {
            Touch(control, Convert.ToInt32(spot["off"]));
        }
        catch (Exception moved) when (moved is MoveTargetOutOfBoundsException or StaleElementReferenceException)
        {
            // It has gone from under the finger: that is a tap on nothing.
        }
        if (WasClicked())
            return;
        // It fell where nothing is any more.
        if (tries < MostTaps)
            Tap(name, tries + 1);
    }

    // The finger's coming and leaving are sent together: where the page is too busy to take in the one before the other is sent, half a
    // second may lie between them, and a finger that rests so long taps nothing.
    private void Touch(IWebElement control, int beside)
    {
        var finger = new PointerInputDevice(PointerKind.Touch);
        _driver.PerformActions([
            new ActionSequence(finger)
                .AddAction(finger.CreatePointerMove(control, beside, 0, TimeSpan.Zero))
                .AddAction(finger.CreatePointerDown(MouseButton.Touch))
                .AddAction(finger.CreatePointerUp(MouseButton.Touch)),
        ]);
    }

    /// <summary>Types into the field of this label.</summary>
    public void Type(string label, string text)
    {
        IWebElement? field = null;
        Until(
            () =>
                (
                    field =
                        _driver.ExecuteScript(
                            "return [...document.querySelectorAll('input,textarea')].find(e=>[...(e.labels??[])].some(l=>l.textContent.startsWith(arguments[0]))&&e.checkVisibility())??null",
                            label
                        ) as IWebElement
                )
                    is not null,
            $"the field “{label}”"
        );
        field!.Click();
        field.SendKeys(text);
    }

    /// <summary>Presses keys where the focus is.</summary>
    public void Press(string keys) => _driver.SwitchTo().ActiveElement().SendKeys(keys);

    private static string NameOf(IWebElement element) => ((WebElement)element).ComputedAccessibleLabel ?? "";

    public string FocusedName => NameOf(_driver.SwitchTo().ActiveElement());

    /// <summary>Goes on with Tab until the control of this name has the focus.</summary>
    public void TabTo(string name)
    {
        for (var i = 0; i < 120; i++)
        {
            if (
                _driver.ExecuteScript(Sayings + "return sayings(document.activeElement).includes(squeezed(arguments[0]))", name) is true
                && FocusedName.StartsWith(name, StringComparison.Ordinal)
            )
                return;
            foreach (var type in new[] { "keyDown", "keyUp" })
                _driver.ExecuteCdpCommand(
                    "Input.dispatchKeyEvent",
                    new()
                    {
                        ["type"] = type,
                        ["key"] = "Tab",
                        ["code"] = "Tab",
                        ["windowsVirtualKeyCode"] = 9,
                    }
                );
        }
        Assert.Fail($"“{name}” can't be reached with Tab. The page at {Path} shows:\n{Text}");
    }

    public string Run(string script, params object[] arguments) =>
        (string)
            _driver.ExecuteAsyncScript(
                "const done=arguments[arguments.length-1];(async()=>{" + script + "})().then(done,e=>done('failed: '+e))",
                arguments
            )!;

    /// <summary>Checks the page with axe-core; every rule of WCAG 2.2 A and AA counts. Nothing is fetched for it: the two rules that look
    /// at sound and at media queries have nothing to look at here.</summary>
    public void ShouldBeAccessible()
    {
        if (_driver.ExecuteScript("return typeof axe") is not "object")
            _driver.ExecuteScript(
                File.ReadAllText(System.IO.Path.Combine(Repository.Root, "web", "node_modules", "axe-core", "axe.min.js"))
            );
        var found = Run(
            "const r=await axe.run(document,{runOnly:['wcag2a','wcag2aa','wcag21a','wcag21aa','wcag22aa','best-practice'],resultTypes:['violations'],preload:false});return JSON.stringify(r.violations.map(v=>v.id+': '+v.nodes.map(n=>n.target+' '+(n.any[0]?.message??n.failureSummary)).join(' | ')))"
        );
        Assert.True(
            found == "[]",
            $"At {Path}: {string.Join("\n", JsonSerializer.Deserialize<string[]>(found.StartsWith('[') ? found : JsonSerializer.Serialize(new[] { found }))!)}"
        );
    }

    /// <summary>No error may stand in the browser's console but those of requests that a test made fail.</summary>
    public void ShouldHaveNoErrors()
    {
        var errors = _driver
            .Manage()
            .Logs.GetLog(LogType.Browser)
            .Where(e => e.Level == LogLevel.Severe && !e.Message.Contains("Failed to load resource", StringComparison.Ordinal))
            .Select(e => e.Message);
        Assert.Empty(errors);
    }

    /// <summary>The page is never wider than the screen.</summary>
    public void ShouldFitTheScreen() =>
        Assert.Equal(
            "fits",
            Run(
                // A phone shows a page that is too wide smaller than it is.
                "const page=document.documentElement,wide=Math.max(page.scrollWidth,page.clientWidth),room=Math.ceil(visualViewport.width*visualViewport.scale)+1;return wide<=room?'fits':wide+' of '+room"
            )
        );

    /// <summary>Gives a date field its day; in which order its parts are typed depends on the machine's language.</summary>
    public void SetDate(string css, string day) =>
        _driver.ExecuteScript(
            "Object.getOwnPropertyDescriptor(HTMLInputElement.prototype,'value').set.call(arguments[0],arguments[1]);arguments[0].dispatchEvent(new Event('input',{bubbles:true}))",
            Find(css),
            day
        );

    public void Shoot(string file)
    {
        // A font that is still on its way would leave its letters out of the picture.
        Run("await document.fonts.ready; return 'there'");
        _driver.GetScreenshot().SaveAsFile(file);
    }
}
