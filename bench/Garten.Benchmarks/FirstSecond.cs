using System.Globalization;
using System.Text.Json;
using OpenQA.Selenium;
using OpenQA.Selenium.Chrome;
using OpenQA.Selenium.Support.UI;

namespace Garten.Benchmarks;

/// <summary>
/// What somebody waits for: from a click, or from an address, until something can be read; in a browser that was just started, in one
/// that is warm, after a reload, and at a fourth of the processor's speed. Each moment is taken in the page itself, by its own clock.
/// </summary>
internal sealed class FirstSecond(TextWriter to, Uri server)
{
    private const int Runs = 9;

    // A middling phone; workers of Chromium aren't slowed by it.
    private const int Slow = 4;

    // Notes when each thing can first be read, the tasks of the page's thread over 50 ms, and what moved while it loaded.
    private const string Watch = """
        window.seen={};window.long=[];window.shift=0;
        window.marks={
          couplet:()=>/^Couplet/.test(document.querySelector('#couplet')?.textContent??''),
          look:()=>document.querySelector('[aria-label^="Best to check next"],#next')!==null&&/taxa/.test(document.body.innerText),
          year:()=>document.querySelectorAll('ul[aria-label="Through the year"] li').length>0,
          today:()=>document.querySelector('#in-season')!==null&&/Go to|Nothing that is open/.test(document.querySelector('main').innerText),
          follow:()=>document.querySelector('button[aria-label^="Follow Key to the woody"]')!==null,
        };
        new PerformanceObserver(l=>l.getEntries().forEach(e=>long.push(Math.round(e.duration)))).observe({type:'longtask',buffered:true});
        new PerformanceObserver(l=>l.getEntries().forEach(e=>{if(!e.hadRecentInput)shift+=e.value})).observe({type:'layout-shift',buffered:true});
        const look=()=>{if(document.body)for(const [name,is] of Object.entries(marks))if(!(name in seen)&&is())seen[name]=performance.now();};
        addEventListener('DOMContentLoaded',()=>{new MutationObserver(look).observe(document.documentElement,{subtree:true,childList:true,characterData:true});look();});
        """;

    private readonly Dictionary<string, List<double>> _found = [];

    public void Run()
    {
        CultureInfo.CurrentCulture = CultureInfo.InvariantCulture;
        foreach (var rate in new[] { 1, Slow })
        {
            var speed = rate == 1 ? "" : " at a fourth of the speed";
            for (var run = 0; run < Runs; run++)
            {
                Visit(rate, speed);
                OpenToday(rate, speed);
            }
            Tell();
        }
    }

    private void Tell()
    {
        foreach (var (what, times) in _found)
            to.WriteLine(
                $"{what}: median {Median(times):0.###}, from {times.Min():0.###} to {times.Max():0.###} of {times.Count.ToString(CultureInfo.InvariantCulture)}"
            );
        _found.Clear();
    }

    private static double Median(List<double> all) => all.Order().ElementAt(all.Count / 2);

    private void Note(string what, double value)
    {
        if (!_found.TryGetValue(what, out var all))
            _found[what] = all = [];
        all.Add(value);
    }

    private void OpenToday(int rate, string speed)
    {
        using var driver = Chromium(rate);
        driver.Navigate().GoToUrl(server);
        Note($"Today complete, fresh{speed} (ms)", Seen(driver, "today"));
        Settled(driver);
        Note($"Today, layout shift{speed}", Number(driver, "shift"));
        Note($"Today, longest task of the page{speed} (ms)", Number(driver, "Math.max(0,...long)"));
    }

    private void Visit(int rate, string speed)
    {
        using var driver = Chromium(rate);
        driver.Navigate().GoToUrl(new Uri(server, "/bench"));
        Seen(driver, "follow");
        Note($"click to couplet, fresh{speed} (ms)", Click(driver, "button[aria-label^=\"Follow Key to the woody\"]", "couplet"));
        Settled(driver);
        Note($"couplet, reloaded{speed} (ms)", Reload(driver, "couplet"));
        Note($"couplet, layout shift{speed}", Number(driver, "shift"));
        Settled(driver);
        // A lead is answered: until the next couplet stands.
        Note($"a couplet's answer{speed} (ms)", Answer(driver));
        Go(driver, "/bench");
        Seen(driver, "follow");
        Note($"click to couplet, warm{speed} (ms)", Click(driver, "button[aria-label^=\"Follow Key to the woody\"]", "couplet"));
        Go(driver, "/bench");
        Seen(driver, "follow");
        Note($"click to the first look, fresh{speed} (ms)", ClickText(driver, "Identify by characters", "look"));
        Settled(driver);
        Note($"look, reloaded{speed} (ms)", Reload(driver, "look"));
        Settled(driver);
        Go(driver, "/bench");
        Seen(driver, "follow");
        Note($"click to the first look, warm{speed} (ms)", ClickText(driver, "Identify by characters", "look"));
        Note($"tasks of the page over 50 ms after a click, longest{speed} (ms)", Number(driver, "Math.max(0,...long)"));
        Go(driver, "/flora");
        Note($"click to the year, first{speed} (ms)", Click(driver, "a[href='/seasons']", "year"));
        Go(driver, "/flora");
        Note($"click to the year, warm{speed} (ms)", Click(driver, "a[href='/seasons']", "year"));
        Note($"year, reloaded{speed} (ms)", Reload(driver, "year"));
    }

    private static ChromeDriver Chromium(int rate)
    {
        var options = new ChromeOptions { BinaryLocation = "/usr/bin/chromium" };
        options.AddArguments(
            "--headless=new",
            "--no-sandbox",
            "--disable-gpu",
            "--no-first-run",
            "--disable-background-networking",
            "--disable-component-update",
            "--disable-sync",
            "--window-size=1280,800"
        );
        var driver = new ChromeDriver(
            ChromeDriverService.CreateDefaultService("/usr/bin", "chromedriver"),
            options,
            TimeSpan.FromMinutes(3)
        );
        driver.ExecuteCdpCommand("Page.addScriptToEvaluateOnNewDocument", new Dictionary<string, object?> { ["source"] = Watch });
        // What is slow is a phone.
        if (rate > 1)
            driver.ExecuteCdpCommand(
                "Emulation.setDeviceMetricsOverride",
                new Dictionary<string, object?>
                {
                    ["width"] = 390,
                    ["height"] = 844,
                    ["deviceScaleFactor"] = 1,
                    ["mobile"] = true,
                }
            );
        if (rate > 1)
            driver.ExecuteCdpCommand("Emulation.setCPUThrottlingRate", new Dictionary<string, object?> { ["rate"] = rate });
        return driver;
    }

    private static double Number(ChromeDriver driver, string script) =>
        Convert.ToDouble(driver.ExecuteScript($"return {script}"), CultureInfo.InvariantCulture);

    private static double Seen(ChromeDriver driver, string mark)
    {
        var wait = new WebDriverWait(driver, TimeSpan.FromSeconds(60)) { PollingInterval = TimeSpan.FromMilliseconds(25) };
        return Convert.ToDouble(wait.Until(_ => driver.ExecuteScript($"return window.seen?.{mark}??null")), CultureInfo.InvariantCulture);
    }

    private static double Click(ChromeDriver driver, string css, string mark) =>
        After(driver, $"document.querySelector({JsonSerializer.Serialize(css)})", mark);

    private static double ClickText(ChromeDriver driver, string text, string mark) =>
        After(driver, $"[...document.querySelectorAll('button')].find(b=>b.textContent==={JsonSerializer.Serialize(text)})", mark);

    private static double After(ChromeDriver driver, string element, string mark)
    {
        var wait = new WebDriverWait(driver, TimeSpan.FromSeconds(60)) { PollingInterval = TimeSpan.FromMilliseconds(25) };
        wait.Until(_ => driver.ExecuteScript($"return {element}!=null") is true);
        var from = Number(driver, $"(()=>{{delete seen.{mark};long.length=0;const t=performance.now();{element}.click();return t;}})()");
        return Seen(driver, mark) - from;
    }

    private static double Answer(ChromeDriver driver)
    {
        driver.ExecuteScript(
            "window.marks.next=()=>/^Couplet/.test(document.querySelector('#couplet')?.textContent??'')&&document.querySelector('#couplet').textContent!==window.before"
        );
        driver.ExecuteScript("window.before=document.querySelector('#couplet').textContent;delete seen.next;");
        var from = Number(
            driver,
            "(()=>{const t=performance.now();document.querySelector('[role=group][aria-labelledby=couplet] button[aria-keyshortcuts=\"2\"]').click();return t;})()"
        );
        return Seen(driver, "next") - from;
    }

    private static double Reload(ChromeDriver driver, string mark)
    {
        driver.Navigate().Refresh();
        return Seen(driver, mark);
    }

    // Within the page, as its own links do.
    private static void Go(ChromeDriver driver, string path)
    {
        driver.ExecuteScript(
            $"delete seen.follow;delete seen.couplet;delete seen.look;delete seen.year;document.querySelector('nav[aria-label=Rooms] a[href=\"{path}\"]').click()"
        );
        var wait = new WebDriverWait(driver, TimeSpan.FromSeconds(60)) { PollingInterval = TimeSpan.FromMilliseconds(25) };
        wait.Until(_ =>
            driver.ExecuteScript(
                $"return location.pathname==='{path}'&&document.querySelector('ul[aria-label=\"Through the year\"]')===null"
            )
                is true
        );
    }

    // Until the core in the worker has had its time.
    private static void Settled(ChromeDriver driver)
    {
        Thread.Sleep(TimeSpan.FromSeconds(2.5));
        driver.ExecuteScript("return 1");
    }
}
