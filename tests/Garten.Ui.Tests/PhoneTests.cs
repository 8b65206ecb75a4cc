using System.Globalization;
using System.Text.Json;
using System.Text.Json.Nodes;
using Xunit;

namespace Garten.Ui.Tests;

/// <summary>One thumb on a phone: what is on the screen without scrolling, and how many taps a name takes.</summary>
public sealed class PhoneTests(GartenSite site) : IClassFixture<GartenSite>
{
    private const double MostOfThem = 0.9;
    private const int MostTaps = 8;

    // Each way through the keys is a couplet after the other: "can't tell" leaves all leads open, so that every couplet comes.
    private const int MostCouplets = 120;

    [Fact]
    public void LeadsAndCantTellStandOnTheScreenWithoutScrolling()
    {
        var browser = site.Browse(390, 844, touch: true);
        var (couplets, whole) = (0, 0);
        List<string> cut = [];
        foreach (var key in new[] { "the groups of woody plants", "the herbs, ferns and grasses", "the leafless twigs" })
        {
            browser.Open("/bench");
            browser.UntilText("Every couplet can be answered today.");
            browser.Tap($"Follow Key to {key}");
            browser.UntilText("Can’t tell: keep");
            for (var i = 0; i < MostCouplets; i++)
            {
                var before = browser.Run("return document.querySelector('#couplet')?.textContent??''");
                if (!before.StartsWith("Couplet", StringComparison.Ordinal))
                    break;
                var seen = JsonNode.Parse(
                    browser.Run(
                        """
                        const bar=[...document.querySelectorAll("nav[aria-label=Rooms]")].map(n=>n.getBoundingClientRect()).find(r=>r.height>0&&r.top>400);
                        const all=[...document.querySelectorAll('[role=group][aria-labelledby=couplet] > div > button, [role=group][aria-labelledby=couplet] > button')].map(b=>b.getBoundingClientRect());
                        return JSON.stringify({top:Math.min(...all.map(r=>r.top)),bottom:Math.max(...all.map(r=>r.bottom)),bar:bar.top,n:all.length});
                        """
                    )
                )!;
                couplets++;
                if ((double)seen["top"]! >= 0 && (double)seen["bottom"]! <= (double)seen["bar"]! && (int)seen["n"]! >= 3)
                    whole++;
                else
                    cut.Add($"{key} {before}: {seen.ToJsonString()}");
                var trail = browser.Text;
                browser.Tap("0 Can’t tell");
                browser.Until(() => browser.Text != trail, "the next couplet");
            }
        }
        Assert.True(couplets > 60, $"Only {couplets} couplets came.");
        Assert.True(
            whole >= MostOfThem * couplets,
            string.Create(CultureInfo.InvariantCulture, $"{whole} of {couplets} are whole; cut: {string.Join("\n", cut)}")
        );
    }

    [Theory]
    [InlineData("vellorna-cinerea")]
    [InlineData("umbrissa-minor")]
    [InlineData("convessa-fallax")]
    public async Task ANameLeadsAfterAFewTaps(string taxon)
    {
        var stop = TestContext.Current.CancellationToken;
        var characters = JsonNode.Parse(
            await site.Client.GetStringAsync(new Uri("/api/v1/floras/torvane/characters", UriKind.Relative), stop)
        )!;
        using var asked = await site.Client.PostAsync(
            new Uri("/api/v1/identify/describe", UriKind.Relative),
            new StringContent(
                JsonSerializer.Serialize(new { floraId = "torvane", taxa = new[] { taxon } }),
                System.Text.Encoding.UTF8,
                "application/json"
            ),
            stop
        );
        var described = JsonNode.Parse(await asked.Content.ReadAsStringAsync(stop))![0]!;
        var browser = site.Browse(390, 844, touch: true);
        browser.Open("/");
        browser.UntilText("A plant in hand");
        browser.Tap("A plant in hand");
        browser.Tap("Identify by characters");
        browser.UntilText("Best to check next");
        var taps = 2;
        for (; !browser.Text.Contains("Check this name", StringComparison.Ordinal); taps++)
        {
            Assert.True(taps < MostTaps, $"{taps} taps, and no name leads:\n{browser.Text}");
            var look = browser.Find("section[aria-label^='Best to check next']").GetAttribute("aria-label")!.Split(": ", 2)[1];
            var character = characters.AsArray().First(c => (string)c!["name"]! == look)!;
            var states = described["description"]!
                .AsArray()
                .FirstOrDefault(d => (string)d!["character"]! == (string)character["id"]!)
                ?["states"]?.AsArray();
            var before = browser.Text;
            if (states is not { Count: > 0 })
            {
                browser.Tap("Can’t tell");
            }
            else
            {
                var state = (string)states.OrderByDescending(s => (double)s!["share"]!).First()!["state"]!;
                var name = (string)character["states"]!.AsArray().First(s => (string)s!["id"]! == state)!["name"]!;
                browser.Click(browser.All($"[role=group][aria-label='States of {look}'] button").First(b => b.Text == name));
            }
            browser.Until(() => browser.Text != before, "the next look");
        }
        Assert.Contains((string)described["taxon"]!["name"]!, browser.Text, StringComparison.Ordinal);
        browser.ShouldFitTheScreen();
        browser.ShouldBeAccessible();
        // A step back is always there.
        browser.Tap("Back");
        browser.Until(() => !browser.Text.Contains("Check this name", StringComparison.Ordinal), "the look before");
        browser.ShouldHaveNoErrors();
    }

    [Fact]
    public void TheFiveRoomsAreAThumbAwayAndTheBarLeavesWhileSomethingIsTyped()
    {
        var browser = site.Browse(390, 844, touch: true);
        browser.Open("/");
        foreach (
            var (room, text) in new[]
            {
                ("Identify", "A plant in hand"),
                ("Field", "Enter one afterwards"),
                ("Flora", "Flora of Torvane"),
                ("Records", "Records"),
                ("Today", "Go to"),
            }
        )
        {
            browser.Tap(room);
            browser.UntilText(text);
            browser.ShouldFitTheScreen();
        }
        browser.Tap("Search everything");
        browser.Find("[role=dialog] input").SendKeys("ve al");
        browser.UntilText("Vellorna alata");
        browser.ShouldBeAccessible();
        Assert.DoesNotContain(browser.All("nav[aria-label=Rooms]"), n => n.Displayed && n.Location.Y > 400);
        browser.Find("[role=dialog] input").SendKeys(OpenQA.Selenium.Keys.Enter);
        browser.Until(() => browser.Path.Contains("/taxa/", StringComparison.Ordinal), "the taxon");
        browser.ShouldHaveNoErrors();
    }
}
