using System.Globalization;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Garten.Testing;
using OpenQA.Selenium;
using Xunit;

namespace Garten.Ui.Tests;

/// <summary>A day in a wood: the server's process is ended, the browser begun anew from its profile, and the work goes on.</summary>
public sealed partial class AwayTests(GartenSite site) : IClassFixture<GartenSite>
{
    // The other test of this class, where it comes first, tags some more.
    private const int PlantsOfTheDemo = 90;

    [Fact]
    public async Task WithoutAServerAllGoesOnAndIsSentWhenItIsBack()
    {
        var stop = TestContext.Current.CancellationToken;
        var browser = site.Browse();
        browser.Open("/along");
        browser.UntilText("Nothing was taken along yet.");
        browser.ShouldBeAccessible();
        browser.Click("Take it along");
        browser.UntilText("Ready to leave");
        browser.UntilText("plants with their history");
        var plants = PlantsTaken(browser);
        Assert.True(plants >= PlantsOfTheDemo, $"{plants} plants were taken along.");
        browser.ShouldBeAccessible();
        browser.ShouldFitTheScreen();
        // What another device does meanwhile is fetched alone.
        await TagElsewhereAsync(stop);
        browser.Click("Fetch what is new");
        browser.Until(() => PlantsTaken(browser) == plants + 1, "the plant tagged elsewhere");
        await site.EndServerAsync();
        try
        {
            browser.Restart();
            browser.Size(1280, 800);
            browser.Open("/");
            browser.UntilText("Out of reach of the server.");
            browser.UntilText("In season at your places");
            browser.ShouldBeAccessible();
            ReadAPlantATaxonAndTheLists(browser);
            FollowAKeyAndKeepIt(browser);
            SiftContrastAndConfirm(browser);
            Tag(browser);
            VisitAndCount(browser);
            PasteAKeyAndUseIt(browser);
            ListOnAVisit(browser);
            RecordAPlot(browser);
            browser.Go("/plants");
            browser.UntilText("tag of another");
            browser.Go("/records");
            UntilWaiting(browser, 13);
            // And again after another night.
            browser.Restart();
            browser.Open("/records");
            UntilWaiting(browser, 13);
            browser.UntilText("Sorvella pinnata");
        }
        finally
        {
            site.StartAgain();
        }
        browser.Until(() => !browser.Text.Contains("Waiting to be sent", StringComparison.Ordinal), "all to be sent");
        await site.UntilServedAsync("/api/v1/records", "Keyed in the wood.");
        await site.UntilServedAsync("/api/v1/records", "By a key of the wood.");
        await site.UntilServedAsync("/api/v1/plants?text=tag%2099", "tag 99");
        await site.UntilServedAsync("/api/v1/site-visits/whole", "Listed in the wood.");
        var surveys = (await site.Client.GetFromJsonAsync<JsonNode>("/api/v1/surveys", stop))!.AsArray();
        await site.UntilServedAsync($"/api/v1/surveys/{surveys.First(s => (int)s!["plots"]! > 0)!["id"]}", "Plotted in the wood.");
        var populations = await site.Client.GetStringAsync(new Uri("/api/v1/populations", UriKind.Relative), stop);
        Assert.Contains("Counted in the wood.", populations, StringComparison.Ordinal);
        browser.Go("/hand");
        browser.UntilText("Nothing. What the server refuses");
    }

    /// <summary>Something between the device and the server that answers in its place, breaks off, or is late: the page says what is true,
    /// goes on with what is on the device, and loses nothing.</summary>
    [Fact]
    public async Task WhateverLiesOnTheWayNothingIsLost()
    {
        await using var way = new LyingRelay(site.Address.Port);
        using var browser = new Browser(new Uri($"http://127.0.0.1:{way.Port}"));
        browser.Size(1280, 800);
        browser.Open("/along");
        browser.UntilText("Nothing was taken along yet.");
        browser.Click("Take it along");
        browser.UntilText("Ready to leave");
        var place = (string)
            (await site.Client.GetFromJsonAsync<JsonNode>("/api/v1/places", TestContext.Current.CancellationToken))![0]!["id"]!;
        foreach (var lie in new[] { Lie.Portal, Lie.Forbidding, Lie.Reset, Lie.Yesterday })
        {
            way.Lie = lie;
            browser.Open("/plants");
            browser.UntilText("Out of reach of the server.");
            browser.UntilText("by the second footbridge");
            Assert.Equal("queued", browser.Run(HandTests.Queue, TagOf(place, $"tag in spite of {lie}")));
            browser.Open("/plants");
            browser.UntilText("Waiting to be sent: 1.");
            browser.UntilText($"tag in spite of {lie}");
            way.Lie = Lie.None;
            browser.Until(() => !browser.Text.Contains("Waiting to be sent", StringComparison.Ordinal), "it to be sent");
            await site.UntilServedAsync("/api/v1/plants?text=in%20spite", $"tag in spite of {lie}");
        }
        way.Lie = Lie.Slow;
        Assert.Equal("queued", browser.Run(HandTests.Queue, TagOf(place, "tag in spite of all delay")));
        browser.Open("/plants");
        browser.UntilText("tag in spite of all delay");
        await site.UntilServedAsync("/api/v1/plants?text=in%20spite", "tag in spite of all delay");
        way.Lie = Lie.None;
        browser.Open("/hand");
        browser.UntilText("Nothing. What the server refuses");
    }

    private static string TagOf(string place, string label) =>
        $$"""[{"kind":"tagPlant","id":"{{Guid.CreateVersion7()}}","plantId":"{{Guid.CreateVersion7()}}","placeId":"{{place}}","label":"{{label}}","taggedOn":"2026-05-02","recorder":{"id":"0197a1c0-5b00-7a11-9c3e-2f6f6b1d0d01","name":"Ilse Marrin"} }]""";

    private static void ReadAPlantATaxonAndTheLists(Browser browser)
    {
        browser.Go("/records");
        browser.UntilText("Euphorra lactea");
        // Page by page, as the server tells them; narrowed too.
        var shown = Records(browser).Count;
        browser.Click("Show older records");
        browser.Until(() => Records(browser).Count > shown, "older records");
        browser.Go("/records?of=lists");
        browser.Until(
            () =>
                Records(browser) is { Count: > 0 } lines
                && lines.All(l => l.FindElements(By.CssSelector("a[href^='/site-visits/']")).Count == 1),
            "records of lists alone"
        );
        browser.Go("/plants");
        browser.Type("Find", "second foot");
        browser.UntilText("by the second footbridge");
        browser.ClickLink("/plants/", "second footbridge");
        browser.UntilText("Vellorna torvanica");
        browser.Go("/flora");
        browser.Type("Any name", "ve al");
        browser.ClickLink("/flora/torvane/taxa/", "Vellorna alata");
        browser.UntilText("Description");
        browser.Go("/seasons");
        browser.UntilText("can be named by what they show");
        browser.Go("/visits");
        browser.UntilText("open questions about");
    }

    private static IReadOnlyCollection<IWebElement> Records(Browser browser) => browser.All("ol[aria-label^='Records'] > li");

    [GeneratedRegex(@"(\d+) plants\s+with their history", RegexOptions.CultureInvariant)]
    private static partial Regex PlantsWithHistory();

    private static int PlantsTaken(Browser browser) =>
        PlantsWithHistory().Match(browser.Text) is { Success: true } found
            ? int.Parse(found.Groups[1].Value, CultureInfo.InvariantCulture)
            : 0;

    private static void UntilWaiting(Browser browser, int count) =>
        browser.UntilText(string.Create(CultureInfo.InvariantCulture, $"Waiting to be sent: {count}."));

    private static void Record(Browser browser, string note)
    {
        browser.Click("Place");
        browser.Click("Harrow Alder Wood");
        browser.Until(() => browser.All("[role=option]").Count == 0, "the chosen place");
        browser.Find("[name=recorder]").SendKeys("Runa Velt");
        browser.Find("[name=note]").SendKeys(note);
        browser.Click("Keep the record");
        browser.UntilText("Kept on this device on");
    }

    private static void FollowAKeyAndKeepIt(Browser browser)
    {
        browser.Go("/bench");
        browser.Click("Follow Key to Carpessa");
        browser.UntilText("4 taxa stand");
        browser.Press("2");
        browser.UntilText("Couplet 2");
        browser.Click("Keep it as it stands");
        Record(browser, "Keyed in the wood.");
        UntilWaiting(browser, 1);
    }

    private static void SiftContrastAndConfirm(Browser browser)
    {
        browser.Go("/bench");
        browser.Click("Identify by characters");
        browser.UntilText("Nothing seen yet: 73 taxa");
        SiftTests.At(browser, "Lang Meadow", "2026-06-10");
        browser.UntilText("Lang Meadow, 10 June");
        browser.Click("Look at kind of fruit");
        browser.UntilText("asked for by the list");
        SiftTests.State(browser, "kind of fruit", "plumed achene");
        browser.UntilText("One of");
        browser.Press(Keys.Escape);
        browser.UntilText("Senecorra discoidea");
        browser.Click("Inflorescence");
        SiftTests.State(browser, "phyllaries", "overlapping");
        browser.Press(Keys.Escape);
        // What leads is on the shortlist by itself: until it has settled the click would take one off.
        browser.UntilText("Crepessa hirsuta, ahead");
        browser.Click("Shortlist: Crepessa ambigua");
        browser.Click("Contrast the 2 of the shortlist");
        browser.UntilText("Seen on this plant");
        browser.Find("nav[aria-label='Ways to name the plant'] a[href$='/confirm']").Click();
        browser.UntilText("Is it really Crepessa");
        browser.UntilText("Report as");
        browser.Click("Keep it as");
        Record(browser, "Confirmed in the wood.");
        UntilWaiting(browser, 2);
    }

    private static void Tag(Browser browser)
    {
        browser.Go("/plants");
        browser.Click("Tag a plant");
        // At the place where the last record was made.
        browser.UntilText("Tagged on");
        browser.Type("Tag", "tag 99");
        browser.Type("Tagged by", "Ilse Marrin");
        browser.Click("Keep the tag");
        UntilWaiting(browser, 3);
        browser.UntilText("tag 99");
    }

    private static void VisitAndCount(Browser browser)
    {
        browser.Go("/plants");
        browser.ClickLink("/plants/", "tag 99");
        browser.Click("Visit it");
        browser.UntilText("How was it found?");
        browser.Click("State: alive");
        browser.Type("Recorder", "Ilse Marrin");
        browser.Click("Keep the visit");
        UntilWaiting(browser, 4);
        // The form has led on.
        browser.UntilText("Last visited on");
        browser.Go("/plants");
        browser.ClickLink("/populations/", "alder edge");
        browser.Click("Count it");
        browser.Click("Ten more");
        browser.Type("Recorder", "Ilse Marrin");
        browser.Type("Note", "Counted in the wood.");
        browser.Click("Keep the count");
        UntilWaiting(browser, 5);
        browser.UntilText("10 stems");
    }

    private static void ListOnAVisit(Browser browser)
    {
        browser.Go("/site-visits");
        browser.UntilText("person-min");
        browser.Click("Begin a visit to Harrow Alder Wood");
        browser.UntilText("What grows here?");
        foreach (var typed in new[] { "ve al", "sor pin f" })
            browser.Find("input[role=combobox]").SendKeys(typed + Keys.Enter);
        browser.UntilText("Sorvella pinnata");
        browser.UntilText("frequent");
        browser.Click("End the visit");
        browser.UntilText("Seen here before and not on this list");
        browser.Type("Note", "Listed in the wood.");
        browser.Find("form button[type=submit]").Click();
        browser.UntilText("What the visit says");
        UntilWaiting(browser, 11);
        browser.Go("/site-visits");
        browser.UntilText("2 taxa");
        browser.Go("/map");
        browser.UntilText("within its boundary");
    }

    private static void RecordAPlot(Browser browser)
    {
        browser.Go("/surveys");
        browser.Click("Plots at Lang Meadow");
        browser.UntilText("40 plots");
        browser.ClickLink("/surveys/", "L02");
        browser.Click("Begin one now");
        browser.Until(() => !browser.Text.Contains("No visit is open here today.", StringComparison.Ordinal), "the visit");
        browser.Find("input[role=combobox]").SendKeys("ve al 7" + Keys.Enter);
        browser.Until(() => browser.All("ol[aria-label='In the plot'] > li").Count == 1, "the line");
        browser.Type("Note", "Plotted in the wood.");
        browser.Click("Keep it: 1 line");
        UntilWaiting(browser, 13);
        browser.UntilText("Recorded by");
        browser.Go(browser.Path[..browser.Path.IndexOf("/plots", StringComparison.Ordinal)] + "/figures");
        browser.UntilText("How constant each taxon is");
    }

    private async Task TagElsewhereAsync(CancellationToken stop)
    {
        var places = (await site.Client.GetFromJsonAsync<JsonNode>("/api/v1/places", stop))!.AsArray();
        var response = await site.Client.PostAsJsonAsync(
            "/api/v1/commands",
            new
            {
                commands = new[]
                {
                    new
                    {
                        kind = "tagPlant",
                        id = Guid.CreateVersion7(),
                        plantId = Guid.CreateVersion7(),
                        placeId = (string)places[0]!["id"]!,
                        label = "tag of another",
                        taggedOn = "2026-05-01",
                        recorder = new { id = Guid.CreateVersion7(), name = "Another" },
                    },
                },
            },
            stop
        );
        Assert.Contains("applied", await response.Content.ReadAsStringAsync(stop), StringComparison.Ordinal);
    }

    private static void PasteAKeyAndUseIt(Browser browser)
    {
        browser.Go("/keys/new");
        browser.Type("Key text", "Two of the wood\n1 Leaves in pairs ... Vellorna alata\n- Leaves one by one ... Carpessa rubra\n");
        browser.UntilText("✓ Sound");
        browser.Find("button[aria-describedby=save-why]").Click();
        browser.UntilText("It can be followed already.");
        UntilWaiting(browser, 6);
        browser.UntilText("Leaves one by one");
        browser.Click("Follow this key");
        browser.UntilText("Couplet 1");
        browser.Press("2");
        // "Keep it as it stands" is another button, and goes with the couplet.
        browser.UntilText("The trail ends here");
        browser.UntilText("Carpessa rubra");
        browser.Click("Keep it");
        browser.Find("[name=note]").SendKeys("By a key of the wood.");
        browser.Click("Keep the record");
        browser.UntilText("Kept on this device on");
    }
}
