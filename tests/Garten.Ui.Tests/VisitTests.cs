using System.Globalization;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using OpenQA.Selenium;
using Xunit;

namespace Garten.Ui.Tests;

/// <summary>A day out: the visit, its list by keyboard and by thumb, what was sought in vain, the map.</summary>
public sealed class VisitTests(GartenSite site) : IClassFixture<GartenSite>
{
    private static readonly string[] Twenty =
    [
        "ve al",
        "velcin",
        "ve lo",
        "on cr",
        "ond pal f",
        "carsca",
        "carp rub o",
        "carpnig",
        "ca pe",
        "thaspi r",
        "tha ine",
        "miv",
        "mirgla 12",
        "mi ca",
        "robped",
        "rob sub lf",
        "sorpin",
        "sor pil",
        "umb cor",
        "umbmin d",
    ];

    private static IWebElement Entry(Browser browser) => browser.Find("input[role=combobox]");

    // A person of its own for each: nobody is at two places at once.
    private static void Begin(Browser browser, string recorder)
    {
        browser.Knows("garten.recorder", recorder);
        browser.Knows("garten.place", "0197a1c0-5b00-7a11-9c3e-2f6f6b1d0a01");
        browser.Open("/site-visits");
        browser.Click("Begin a visit to Harrow Alder Wood");
        browser.UntilText("What grows here?");
        browser.UntilText("Seen here before, not yet today");
    }

    // What stands on the list stays there while it is sent and asked for again, also for a moment.
    private const string WatchTheList = """
        let last=0;window.gone='';
        const look=()=>{
          const now=document.querySelectorAll("ol[aria-label='The list'] > li").length;
          if(now<last)window.gone+=`${last} lines were ${now}; `;
          last=now;
        };
        new MutationObserver(look).observe(document,{subtree:true,childList:true});
        """;

    private static int Listed(Browser browser) => browser.All("ol[aria-label='The list'] > li").Count;

    private static void List(Browser browser, string typed)
    {
        var before = Listed(browser);
        Entry(browser).SendKeys(typed + Keys.Enter);
        browser.Until(() => Listed(browser) == before + 1, $"“{typed}” on the list");
    }

    [Fact]
    public async Task TwentyTaxaAreListedByAFewLettersEachAndStandInRecordsAndArchive()
    {
        var stop = TestContext.Current.CancellationToken;
        var browser = site.Browse();
        Begin(browser, "Ilse Marrin");
        var visit = browser.Path.Split('/')[^1];
        browser.Run(WatchTheList);
        foreach (var typed in Twenty)
        {
            if (typed == "miv")
            {
                // Too few letters for one taxon: it asks, and takes none of them in silence.
                Entry(browser).SendKeys("mi");
                browser.Until(
                    () => browser.All("[role=option]").Any(o => o.Text.Contains("Mirelda", StringComparison.Ordinal)),
                    "what fits"
                );
                Entry(browser).SendKeys(Keys.Enter);
                browser.UntilText("everal fit. Which one?");
                browser.ShouldBeAccessible();
                Entry(browser).SendKeys("r vim");
                browser.Until(() => browser.All("[role=option]").Count == 1, "the one that fits");
                Entry(browser).SendKeys(Keys.ArrowDown + Keys.Enter);
                browser.Until(() => Listed(browser) == Array.IndexOf(Twenty, typed) + 1, "the chosen one on the list");
                continue;
            }
            List(browser, typed);
        }
        browser.Until(() => Listed(browser) == Twenty.Length, "twenty taxa");
        browser.Until(() => !browser.Text.Contains("Waiting to be sent", StringComparison.Ordinal), "all to be sent");
        Assert.Equal("", browser.Run("return window.gone"));
        browser.UntilText("12 individuals");
        browser.UntilText("locally frequent");
        // A slip is taken back by its line; what the flora doesn't know is kept as it was written.
        List(browser, "ve hu");
        browser.Click("Undo Vellorna humilis");
        browser.Until(() => Listed(browser) == Twenty.Length, "the slip taken back");
        Entry(browser).SendKeys("Ignotella nova" + Keys.Enter);
        browser.Click("Keep it as I wrote it");
        browser.UntilText("The flora hasn’t this name");
        browser.Click("A plant I can’t name yet");
        browser.UntilText("unnamed 1");
        browser.ShouldBeAccessible();
        browser.Click("End the visit");
        browser.UntilText("Looked for in vain");
        browser.Click("Complete: Yes, all of them");
        browser.Click("Add what was sought");
        browser.Type("What", "Anthressa cerea");
        browser.Find("form button[type=submit]").Click();
        browser.UntilText("Say for how many minutes Anthressa cerea was sought");
        browser.Type("Minutes", "20");
        browser.ShouldBeAccessible();
        browser.Find("form button[type=submit]").Click();
        browser.UntilText("What the visit says");
        browser.UntilText("Looked for in vain");
        // The plant that had no name is named later, and its line with it.
        browser.Until(() => !browser.Text.Contains("Waiting to be sent", StringComparison.Ordinal), "all to be sent");
        var kept = (await site.Client.GetFromJsonAsync<JsonNode>($"/api/v1/site-visits/{visit}", stop))!;
        var plant = kept["lines"]!.AsArray().Select(l => (string?)l!["plantId"]).Single(p => p is not null);
        Assert.Equal(Twenty.Length + 2, kept["records"]!.AsArray().Count);
        await site.Client.PostAsJsonAsync(
            "/api/v1/commands",
            JsonNode.Parse(
                $$"""{"commands":[{"kind":"recordDetermination","id":"{{Guid.CreateVersion7()}}","determinationId":"{{Guid.CreateVersion7()}}","occurrenceId":"{{Guid.CreateVersion7()}}","plantId":"{{plant}}","plantLabel":"","placeId":"0197a1c0-5b00-7a11-9c3e-2f6f6b1d0a01","eventDate":"{{DateTime.Now.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture)}}","recorder":{"id":"{{Guid.CreateVersion7()}}","name":"Runa Velt"},"startKey":"","answers":[],"names":["Skarnia undulata"],"note":""}]}"""
            ),
            stop
        );
        browser.Open($"/site-visits/{visit}");
        browser.UntilText("Skarnia undulata");
        browser.Open("/records?of=lists");
        browser.UntilText("Umbrissa minor");
        browser.ShouldHaveNoErrors();
    }

    [Fact]
    public void WhatWasSentStaysOnTheListThoughTheServerIsNotReachedAfter()
    {
        var browser = site.Browse();
        Begin(browser, "Tove Askling");
        List(browser, "ve al");
        // The line is sent and taken in; the list as the server has it now doesn't arrive.
        browser.Lose("*/api/v1/site-visits/*");
        List(browser, "velcin");
        browser.Until(() => Waiting(browser) == "0", "nothing to wait any more");
        browser.Until(() => browser.Run("return String((await fetch('/api/v1/health')).status)") == "200", "the server to be there");
        for (var look = 0; look < 20; look++)
            Assert.Equal(2, Listed(browser));
        // Nor after a new start.
        browser.Open(browser.Path);
        browser.UntilText("What grows here?");
        browser.Until(() => Listed(browser) == 2, "both lines");
        browser.Lose();
        browser.Open(browser.Path);
        browser.Until(() => Listed(browser) == 2, "both lines as the server has them");
    }

    // A line typed and entered within one turn of the page: no answer can have come in between.
    private static void EnterAtOnce(Browser browser, string typed) =>
        browser.Run(
            """
            const field=document.querySelector('input[role=combobox]');
            Object.getOwnPropertyDescriptor(HTMLInputElement.prototype,'value').set.call(field,arguments[0]);
            field.dispatchEvent(new Event('input',{bubbles:true}));
            for(let turn=0;turn<5;turn++)await Promise.resolve();
            field.dispatchEvent(new KeyboardEvent('keydown',{key:'Enter',bubbles:true,cancelable:true}));
            return field.value;
            """,
            typed
        );

    [Fact]
    public void WhatIsEnteredFasterThanAnsweredOutlivesThePageAndIsNeverTakenInSilence()
    {
        var browser = site.Browse();
        Begin(browser, "Sela Thornby");
        var visit = browser.Path;
        EnterAtOnce(browser, "ve al");
        browser.Until(() => Listed(browser) == 1, "what is clear");
        EnterAtOnce(browser, "mi");
        browser.UntilText("“mi”: several fit. Which one?");
        browser.ShouldBeAccessible();
        // It is asked about again after a new start, and before the visit is ended.
        browser.Open(visit);
        browser.UntilText("“mi”: several fit. Which one?");
        Assert.Equal(1, Listed(browser));
        browser.Click("End the visit");
        browser.UntilText("Looked for in vain");
        browser.Find("form button[type=submit]").Click();
        browser.UntilText("“mi” was entered and isn’t settled yet");
        browser.ShouldBeAccessible();
        browser.Click("Back to the list");
        browser.UntilText("“mi”: several fit. Which one?");
        browser.Click("Mirelda viminea");
        browser.Until(() => Listed(browser) == 2, "the chosen one");
        browser.Open(visit);
        browser.Until(() => Listed(browser) == 2, "both lines");
        Assert.DoesNotContain("Which one?", browser.Text, StringComparison.Ordinal);
        // The page is left before the answer comes: then even what is clear is asked about, and not taken.
        EnterAtOnce(browser, "velcin");
        browser.Run("location.reload();return ''");
        browser.UntilText("What grows here?");
        browser.Until(
            () => Listed(browser) == 3 || browser.Text.Contains("Is it this one?", StringComparison.Ordinal),
            "it or its question"
        );
        if (Listed(browser) == 2)
            browser.Click("Vellorna cinerea");
        browser.Until(() => Listed(browser) == 3, "the third line");
        browser.ShouldHaveNoErrors();
    }

    private static string Waiting(Browser browser) => browser.Run("return localStorage.getItem('garten-waiting')");

    [Fact]
    public void OnThePhoneTheListIsWrittenByThumb()
    {
        var browser = site.Browse(390, 844, touch: true);
        Begin(browser, "Runa Velt");
        browser.Find("input[role=combobox]").SendKeys("so");
        browser.Until(() => browser.All("[role=option]").Count > 1, "taxa that fit");
        browser.ShouldFitTheScreen();
        // What fits lies above the keyboard: in the upper half.
        Assert.True(browser.All("[role=option]")[0].Location.Y < 422, "the first that fits");
        browser.Click(browser.All("[role=option]").First(o => o.Text.Contains("pinnata", StringComparison.Ordinal)));
        browser.Until(() => Listed(browser) == 1, "the first line");
        browser.Tap("Abundance: occasional");
        browser.UntilText("✓ occasional");
        browser.Until(
            () => Listed(browser) == 1 && browser.Find("ol[aria-label='The list']").Text.Contains("occasional", StringComparison.Ordinal),
            "it on the line"
        );
        browser.ShouldFitTheScreen();
        browser.ShouldBeAccessible();
        browser.ShouldHaveNoErrors();
    }

    [Fact]
    public async Task AListOutOfANotebookIsShownAsItIsReadBeforeItIsKept()
    {
        var browser = site.Browse();
        browser.Open("/site-visits");
        browser.Click("Enter one afterwards");
        browser.UntilText("Who was there?");
        browser.Find("main form [role=combobox][aria-haspopup=listbox]").Click();
        browser.Until(() => browser.All("[role=option]").Count > 1, "the places");
        browser.Click(browser.All("[role=option]").First(o => o.Text == "Lang Meadow"));
        browser.Until(() => browser.All("[role=option]").Count == 0, "the chosen place");
        browser.SetDate("input[type=date]", "2024-06-10");
        browser.Type("Who was there?", "Runa Velt, Tove Askling");
        browser.Click("Open its list");
        browser.UntilText("What grows here?");
        browser.Click("Paste a list");
        browser.Type("Names, one a line", "1. Vellorna alata f\n- on cr\nVellorna alata\nmirelda\nve\nIgnotella nova");
        browser.Click("Show how it is read");
        browser.UntilText("stands above already");
        browser.UntilText("several fit");
        browser.UntilText("no taxon of the flora fits");
        browser.ShouldBeAccessible();
        browser.Click("Put 3 on the list");
        browser.Until(() => Listed(browser) == 3, "what was clear");
        browser.UntilText("Ondrelia crenata");
        browser.UntilText("This visit was never ended.");
        // A position as it is written: what stands in the field counts, also where it stood there before.
        browser.Click("Add to or correct Ondrelia crenata");
        browser.Type("Where, as it is written", "B2 34 71");
        browser.UntilText("square B2 34 71, ± 18 m");
        browser.Press(Keys.Backspace + "2");
        browser.UntilText("square B2 34 72, ± 18 m");
        browser.Press(Keys.Backspace + "1");
        browser.UntilText("square B2 34 71, ± 18 m");
        browser.Click("Keep it");
        var visit = browser.Path.Split('/')[^1];
        await site.UntilServedAsync($"/api/v1/site-visits/{visit}", "\"uncertaintyMetres\":18");
        var served = (await site.Client.GetFromJsonAsync<JsonNode>($"/api/v1/site-visits/{visit}", TestContext.Current.CancellationToken))!;
        var placed = served["lines"]!.AsArray().Single(l => l!["latitude"]?.GetValueKind() == System.Text.Json.JsonValueKind.Number)!;
        var flora = (await site.Client.GetFromJsonAsync<JsonNode>("/api/v1/floras", TestContext.Current.CancellationToken))![0]!;
        var grid = System.Text.Json.JsonSerializer.Deserialize(flora["grid"], Garten.Core.Contracts.CoreJson.Default.FloraGrid)!;
        Assert.Equal(grid.Find("B2 34 71")!.Latitude, (double)placed["latitude"]!);
        browser.ShouldHaveNoErrors();
    }

    [Fact]
    public async Task TwoPlacesAreMadeOneAndTakenApartAgain()
    {
        var stop = TestContext.Current.CancellationToken;
        var (gone, kept) = (Guid.CreateVersion7(), Guid.CreateVersion7());
        var commands = $$"""
            {"commands":[
              {"kind":"savePlace","id":"{{Guid.CreateVersion7()}}","placeId":"{{gone}}","name":"Fennet Reach","locality":"","latitude":57.4,"longitude":-11.2,"uncertaintyMetres":50,"caution":"Deep mud."},
              {"kind":"savePlace","id":"{{Guid.CreateVersion7()}}","placeId":"{{kept}}","name":"Fennet Bank","locality":"","latitude":57.4,"longitude":-11.2,"uncertaintyMetres":50,"caution":""}]}
            """;
        using var body = new StringContent(commands, System.Text.Encoding.UTF8, "application/json");
        (await site.Client.PostAsync(new Uri("/api/v1/commands", UriKind.Relative), body, stop)).EnsureSuccessStatusCode();
        var browser = site.Browse();
        browser.Open($"/places/{gone}");
        browser.Click("Merge it");
        browser.Type("The place that stays", "Fennet B");
        browser.Press(Keys.ArrowDown + Keys.Enter);
        browser.UntilText("Nothing was recorded at “Fennet Reach”.");
        browser.UntilText("is minded at “Fennet Bank” too");
        browser.ShouldBeAccessible();
        browser.Click("Make them one");
        browser.Until(() => browser.Path == $"/places/{kept}", "the place that stays");
        browser.UntilText("“Fennet Reach” was merged into it.");
        browser.UntilText("Deep mud.");
        browser.ShouldBeAccessible();
        // An address that somebody kept leads on.
        browser.Open($"/places/{gone}");
        browser.Until(() => browser.Path == $"/places/{kept}", "the place that it leads on to");
        browser.Click("Separate again: Fennet Reach");
        browser.Until(() => !browser.Text.Contains("was merged into it", StringComparison.Ordinal), "the two apart");
        browser.Open($"/places/{gone}");
        browser.UntilText("Fennet Reach");
        browser.ShouldHaveNoErrors();
    }

    [Fact]
    public void AVisitThatEndsWithoutSignalEndsItsTrackAndTheNextBeginsOneAgain()
    {
        var browser = site.Browse(390, 844, touch: true);
        browser.Knows("garten.receiver", "simulated:well");
        Begin(browser, "Thora Quill");
        browser.Tap("Record my track");
        browser.UntilText("position ±");
        // The server has the visit without any line, and shows it so until what waits is put to it.
        browser.Lose("*/api/*");
        List(browser, "ve al");
        browser.Tap("End the visit");
        browser.UntilText("Looked for in vain");
        browser.Tap("End the visit");
        browser.UntilText("What the visit says");
        browser.Until(() => !browser.Text.Contains("● track", StringComparison.Ordinal), "the track to have ended");
        for (var look = 0; look < 20; look++)
            Assert.Equal("none", browser.Run("return localStorage.getItem('garten.track')??'none'"));
        browser.Lose();
        // While its end waits a page that has just begun shows the visit as the server has it, and would ask about it.
        browser.Until(() => Waiting(browser) == "0", "all to be sent");
        Begin(browser, "Thora Quill");
        browser.UntilText("● Track running");
        browser.Tap("● Track running");
        browser.UntilText("Record my track");
    }

    [Fact]
    public void ABoundaryIsTypedOrDrawnAndSaysWhatIsWrongWithIt()
    {
        var browser = site.Browse();
        browser.Open("/map?place=0197a1c0-5b00-7a11-9c3e-2f6f6b1d0a03");
        browser.UntilText("within its boundary");
        browser.Click("Change boundary and parts");
        browser.UntilText("18 corners");
        browser.Click(browser.Find("form details summary"));
        browser.Click(browser.Find("form details button"));
        browser.UntilText("Look at it on the map");
        browser.ShouldBeAccessible();
        browser.Click("Draw anew");
        browser.Type("Corners: latitude, longitude", "57.428, -11.190\n57.430, -11.188\n57.428, -11.188\n57.430, -11.190");
        browser.UntilText("crosses itself");
        browser.ShouldBeAccessible();
        browser.Click("Last corner back");
        browser.UntilText("3 corners");
        browser.Click("Keep it");
        browser.UntilText("Change boundary and parts");
        browser.UntilText("1.3 ha within its boundary");
        browser.ShouldHaveNoErrors();
    }

    [Fact]
    public async Task ANotebookIsPastedDecidedOnTakenInAndTakenBack()
    {
        var browser = site.Browse();
        browser.Open("/records");
        browser.Run("localStorage.setItem('garten.recorder','Sunna Vik')");
        browser.Click("Bring records");
        browser.Type(
            "Or paste a table",
            "place,day seen,species,recorder\nHarrow Alder Wood,June 1998,Vellorna alata,A. Thrane\n"
                + "Harrow Alder Wood,3/4/1999,Vellorna alatta,A. Thrane\n"
        );
        browser.Click("Look at what is pasted");
        browser.UntilText("can be read in two ways");
        browser.UntilText("Take 1 record in");
        browser.ShouldBeAccessible();
        browser.Click("the day comes first");
        browser.UntilText("The day comes first, as you said.");
        browser.UntilText("in no flora here");
        browser.Click("Vellorna alata");
        browser.UntilText("Take 2 records in");
        browser.Click("Take 2 records in");
        browser.UntilText("2 records were taken in from “pasted.txt”.");
        browser.Click("The visits");
        browser.UntilText("3 Apr 1999");
        browser.UntilText("1 – 30 Jun 1998");
        var served = await site.Client.GetStringAsync(
            "/api/v1/records?of=lists&taxon=Vellorna%20alata",
            TestContext.Current.CancellationToken
        );
        Assert.Contains("1999-04-03", served, StringComparison.Ordinal);
        browser.Open("/imports");
        browser.Click("Take it back");
        browser.Type("Why", "another moor");
        browser.Click("Take it back");
        browser.UntilText("Taken back by Sunna Vik");
        browser.Open("/site-visits");
        browser.UntilText("Enter one afterwards");
        Assert.DoesNotContain("3 Apr 1999", browser.Text, StringComparison.Ordinal);
        browser.ShouldHaveNoErrors();
    }

    private const string Wood = "0197a1c0-5b00-7a11-9c3e-2f6f6b1d0a01";

    [Fact]
    public async Task ATrackRunsOnWhateverPageOneIsAndStandsOnTheMap()
    {
        var stop = TestContext.Current.CancellationToken;
        var browser = site.Browse(390, 844, touch: true);
        // A receiver that says nothing is said to say nothing.
        browser.Knows("garten.receiver", "simulated:silent");
        Begin(browser, "Asta Holm");
        var visit = browser.Path.Split('/')[^1];
        browser.Tap("Record my track");
        browser.UntilText("No position just now. Lines are noted without a position.");
        browser.UntilText("△ track: no position");
        browser.Run("localStorage.setItem('garten.receiver','simulated:well');dispatchEvent(new Event('garten-receiver'))");
        browser.UntilText("position ±");
        browser.UntilText("so far");
        browser.ShouldFitTheScreen();
        browser.ShouldBeAccessible();
        List(browser, "ve al");
        browser.Go("/seasons");
        browser.UntilText("● track");
        browser.Go($"/site-visits/{visit}");
        // By squares: a line is of its square, wherever it is typed.
        browser.Run($"localStorage.setItem('garten.squares:{Wood}','100')");
        browser.Open($"/site-visits/{visit}");
        browser.Tap("Begin at ");
        browser.UntilText("Lines are of this square");
        List(browser, "velcin");
        browser.Click("Next: ");
        List(browser, "ve lo");
        browser.Tap("Details");
        browser.Tap("Ask the weather service");
        browser.Until(
            () =>
                browser
                    .Run("return [...document.querySelectorAll('input')].map(e=>e.value).join('|')")
                    .Contains("°C", StringComparison.Ordinal),
            "the weather"
        );
        browser.Tap("Leave it");
        browser.Tap("End the visit");
        browser.UntilText("Looked for in vain");
        browser.Tap("End the visit");
        browser.UntilText("What the visit says");
        browser.UntilText("Asta Holm, receiver");
        browser.Until(() => !browser.Text.Contains("● track", StringComparison.Ordinal), "the track to have ended");
        await site.UntilServedAsync($"/api/v1/site-visits/{visit}", "\"trackId\"");
        var kept = (await site.Client.GetFromJsonAsync<JsonNode>($"/api/v1/site-visits/{visit}", stop))!;
        var lines = kept["lines"]!.AsArray();
        Assert.All(lines, l => Assert.NotNull(l!["latitude"]));
        Assert.Equal(71, (double)lines[1]!["uncertaintyMetres"]!);
        Assert.NotEqual((string?)lines[1]!["compartment"], (string?)lines[2]!["compartment"]);
        browser.Size(1280, 800);
        browser.Open($"/map?place={Wood}&squares=100");
        browser.UntilText("Asta Holm: ");
        browser.UntilText("squares have records");
        browser.ShouldBeAccessible();
        browser.ShouldHaveNoErrors();
    }

    /// <summary>A receiver on a cable talks as its standard has it, in pieces that end where they will.</summary>
    [Fact]
    public async Task AReceiverOnACableTellsWhereOneIs()
    {
        var browser = site.Browse();
        browser.BeforeEachPage(
            """
            const sentence=t=>'$'+t+'*'+[...t].reduce((s,c)=>s^c.charCodeAt(0),0).toString(16).padStart(2,'0').toUpperCase()+'\r\n';
            const port={readable:null,open:async({baudRate})=>{if(baudRate!==4800)throw new Error('speed');
              port.readable=new ReadableStream({start(out){setInterval(()=>{const d=new Date(),two=n=>String(n).padStart(2,'0');
                const time=two(d.getUTCHours())+two(d.getUTCMinutes())+two(d.getUTCSeconds())+'.00',day=two(d.getUTCDate())+two(d.getUTCMonth()+1)+two(d.getUTCFullYear()%100);
                const all=new TextEncoder().encode(sentence('GPRMC,'+time+',A,5725.0920,N,01112.2760,W,0.1,0.0,'+day+',,,A')+sentence('GPGGA,'+time+',5725.0920,N,01112.2760,W,1,09,0.9,20.0,M,50.0,M,,')+sentence('GPGST,'+time+',,,,,3.0,4.0,5.0'));
                out.enqueue(all.slice(0,33));out.enqueue(all.slice(33))},500)}})},close:async()=>{}};
            Object.defineProperty(navigator,'serial',{value:{getPorts:async()=>[port],requestPort:async()=>port}});
            """
        );
        browser.Open("/devices");
        browser.UntilText("A receiver on a cable");
        browser.Click(browser.All("label").First(l => l.Text.StartsWith("A receiver on a cable", StringComparison.Ordinal)));
        browser.UntilText("Choose its port");
        browser.Open("/site-visits");
        Begin(browser, "Halla Brint");
        browser.Click("Record my track");
        browser.UntilText("position ±");
        List(browser, "ve al");
        await site.UntilServedAsync($"/api/v1/site-visits/{browser.Path.Split('/')[^1]}", "\"latitude\":57.4182,\"longitude\":-11.2046");
        browser.ShouldHaveNoErrors();
    }

    [Fact]
    public void ATrackIsBroughtAsAFileAndTakenBack()
    {
        var browser = site.Browse();
        browser.Open("/site-visits");
        browser.ClickLink("/site-visits/", "Lang Meadow");
        browser.UntilText("What the visit says");
        browser.UntilText("Bring a track from a file");
        var file = Path.Combine(Directory.CreateTempSubdirectory("garten-track-").FullName, "way.gpx");
        File.WriteAllText(
            file,
            """<gpx xmlns="http://www.topografix.com/GPX/1/1" version="1.1" creator="x"><trk><trkseg><trkpt lat="57.9" lon="-11.2"><time>2001-05-02T09:00:00Z</time></trkpt><trkpt lat="57.901" lon="-11.2"><time>2001-05-02T09:02:00Z</time></trkpt></trkseg></trk></gpx>"""
        );
        browser.Find("input[type=file]").SendKeys(file);
        browser.UntilText("outside the place");
        browser.UntilText("The file is of 2 May 2001");
        browser.ShouldBeAccessible();
        browser.Click("Keep this track");
        browser.UntilText("the file as it was");
        browser.Click("Take back the track");
        browser.Until(() => !browser.Text.Contains("the file as it was", StringComparison.Ordinal), "the track taken back");
        // What was seen on another day moves to a visit of its own.
        var before = Listed(browser);
        var path = browser.Path;
        browser.Click("Move lines to another visit");
        browser.UntilText("Choose what was seen elsewhere");
        browser.Click(browser.All("section[aria-labelledby=split] input[type=checkbox]")[0]);
        browser.ShouldBeAccessible();
        browser.Click("Move this one");
        browser.SetDate("input[type=date]", "2023-06-11");
        browser.Click("Move them there");
        browser.Until(() => browser.Path != path && Listed(browser) == 1, "the line on a visit of its own");
        browser.Open(path);
        browser.Until(() => Listed(browser) == before - 1, "the others where they were");
        browser.ShouldHaveNoErrors();
    }

    [Fact]
    public void APlannedVisitIsBegunWithItsQuestions()
    {
        var browser = site.Browse();
        browser.Open("/visits");
        browser.Run("localStorage.setItem('garten.recorder','Bryn Ask')");
        browser.UntilText("answer all that can be");
        browser.Click("Begin this visit");
        browser.UntilText("Planned for");
        browser.UntilText("still open");
        browser.ShouldBeAccessible();
        browser.ShouldHaveNoErrors();
    }

    [Fact]
    public void RecordsArePassedOnOnceAndWhatIsSaidOfThemStandsBesideOurs()
    {
        var browser = site.Browse();
        browser.Open("/deliveries");
        browser.Run("localStorage.setItem('garten.recorder','Runa Velt')");
        browser.UntilText("Nothing was passed on yet.");
        browser.Click("See what would go");
        browser.UntilText("Say to whom it goes.");
        browser.Type("To whom", "the island’s record centre");
        browser.Click("See what would go");
        browser.UntilText(" new");
        browser.UntilText("by grid cell");
        browser.ShouldBeAccessible();
        browser.Click("Keep it as passed on");
        browser.UntilText("the island’s record centre, no. 1");
        browser.Click("See what would go");
        browser.UntilText("They have all of it as it is.");
        browser.Click("the island’s record centre, no. 1");
        browser.UntilText("Its records");
        browser.Click("Note what they say of");
        browser.Click("They say: Asked about");
        browser.Click("Keep it");
        browser.UntilText("What they say is missing.");
        browser.Type("In their words", "Is there a specimen?");
        browser.Click("Keep it");
        browser.UntilText("△ asked about");
        browser.ShouldBeAccessible();
        browser.Open("/deliveries");
        browser.UntilText("1 asked about or not taken in");
        browser.ShouldHaveNoErrors();
    }
}
