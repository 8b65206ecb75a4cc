using OpenQA.Selenium;
using Xunit;

namespace Garten.Ui.Tests;

/// <summary>What a botanist does from key to record, by keyboard alone.</summary>
public sealed class JourneyTests(GartenSite site) : IClassFixture<GartenSite>
{
    private const string Hedge =
        "Key to the hedge\n\n1. Leaves opposite ... 2\n1. Leaves alternate ... Tharsina spinosa Hask.\n2. Twigs winged ... Vellorna alata Hask.\n2. Twigs round ... 9\n";

    [Fact]
    public void AKeyIsPastedMendedSavedFollowedKeptAndFoundAgainByKeyboardAlone()
    {
        var browser = site.Browse();
        browser.Open("/keys");
        browser.TabTo("Paste a key");
        browser.Press(Keys.Enter);
        browser.Find("textarea[aria-invalid=false]:enabled");
        browser.TabTo("Key text");
        browser.Press(Hedge);
        // The problem stands with its line and column; Enter on it goes there.
        browser.UntilText("6:20");
        Assert.Contains("there is no couplet 9", browser.Text, StringComparison.Ordinal);
        Assert.False(browser.Control("Save").Enabled);
        browser.ShouldBeAccessible();
        browser.TabTo("✕ 6:20");
        browser.Press(Keys.Enter);
        browser.Until(() => browser.FocusedName == "Key text", "the focus in the text");
        browser.Press("Vellorna cinerea Ormdal");
        browser.UntilText("✓ Sound");
        browser.Press(Keys.Shift + Keys.Tab);
        browser.Until(() => browser.FocusedName == "Save", "the focus on Save");
        browser.Press(Keys.Enter);
        browser.UntilText("Follow this key");

        browser.TabTo("Follow this key");
        browser.Press(Keys.Enter);
        browser.UntilText("3 taxa stand");
        browser.Press("1");
        browser.UntilText("Couplet 2");
        browser.Press("0");
        browser.UntilText("Every path has come to its end");
        browser.Press(Keys.Backspace);
        browser.UntilText("the last one on this way");
        browser.Press("2");
        browser.UntilText("One taxon stands");
        // Any couplet of the trail is opened again and changed, and changed back.
        browser.TabTo("Couplet 1 of Key to the hedge");
        browser.Press(Keys.Enter);
        browser.UntilText("Open again");
        browser.Press("2");
        browser.UntilText("The trail ends here");
        Assert.Contains("Tharsina spinosa", browser.Text, StringComparison.Ordinal);
        browser.TabTo("Couplet 1 of Key to the hedge");
        browser.Press(Keys.Enter);
        browser.UntilText("Open again");
        browser.Press("1");
        browser.UntilText("One taxon stands");
        Assert.Contains("Vellorna cinerea", browser.Text, StringComparison.Ordinal);
        browser.ShouldBeAccessible();

        browser.TabTo("Keep it");
        browser.Press(Keys.Enter);
        browser.UntilText("Keep it as Vellorna cinerea");
        browser.TabTo("Keep the record");
        browser.Press(Keys.Enter);
        browser.UntilText("Choose the place, or add it.");
        browser.UntilText("Write who determined it.");
        browser.ShouldBeAccessible();
        browser.Press(Keys.Enter);
        browser.Until(() => browser.All("[role=option]").Count > 0, "the places");
        browser.Press(Keys.Enter);
        browser.Until(() => browser.All("[role=option]").Count == 0, "the chosen place");
        browser.TabTo("Recorder");
        browser.Press("Runa Velt" + Keys.Tab);
        browser.TabTo("Which plant");
        browser.Press("behind the hedge");
        browser.TabTo("Note");
        browser.Press("Wings looked for, not found.");
        browser.TabTo("Keep the record");
        browser.Press(Keys.Enter);
        browser.Until(() => browser.Path.StartsWith("/plants/", StringComparison.Ordinal), "the plant's page");
        browser.UntilText("Stands now");
        Assert.Contains("Wings looked for, not found.", browser.Text, StringComparison.Ordinal);
        Assert.Contains("Twigs round", browser.Text, StringComparison.Ordinal);
        browser.ShouldBeAccessible();

        browser.TabTo("Records");
        browser.Press(Keys.Enter);
        browser.UntilText("behind the hedge");
        browser.TabTo("Export");
        browser.Press(Keys.Enter);
        Assert.StartsWith(
            "/api/v1/records.csv",
            new Uri(browser.Control("CSV table").GetAttribute("href")!).AbsolutePath,
            StringComparison.Ordinal
        );
        browser.Press(Keys.Escape);
        browser.Until(() => browser.All("[role=menu]").Count == 0, "the forms are put away");
        browser.TabTo("Taxon");
        browser.Press("cinerea");
        browser.Until(() => browser.All("[role=option]").Count > 0, "names to choose");
        browser.Press(Keys.Down + Keys.Enter);
        browser.Until(
            () => browser.All("ol li") is { Count: >= 2 } lines && lines.All(l => l.Text.Contains("cinerea", StringComparison.Ordinal)),
            "the records of that taxon"
        );
        browser.ShouldBeAccessible();
        browser.ShouldHaveNoErrors();
    }

    [Fact]
    public void APlantDeterminedAgainKeepsItsFirstDetermination()
    {
        var browser = site.Browse();
        browser.Open("/records?of=plants");
        browser.Click("Ondrelia palustris or Ondrelia × media");
        browser.Click("Determine it again");
        browser.ShouldBeAccessible();
        browser.Click("Key to the leafless twigs of Torvane");
        browser.UntilText("20 taxa stand");
        foreach (var (key, next) in new[] { ("2", "Couplet 2"), ("1", "Couplet 3"), ("1", "Couplet 4"), ("1", "The trail ends here") })
        {
            browser.Press(key);
            browser.UntilText(next);
        }
        browser.Click("Keep it");
        browser.Find("[name=recorder]").SendKeys("Ilse Marrin");
        browser.Click("Keep the record");
        browser.Until(() => browser.All("article").Count == 2, "both determinations");
        Assert.Equal(["Ondrelia palustris", "Ondrelia palustris or Ondrelia × media"], browser.All("article h3").Select(h => h.Text));
        browser.Open("/records");
        browser.UntilText("determined again later");
        browser.ShouldHaveNoErrors();
    }

    [Fact]
    public void ByThumbOnAPhoneThroughAForkIntoTheNextKey()
    {
        var browser = site.Browse(390, 844, touch: true);
        browser.Open("/bench");
        browser.UntilText("Begin with a key");
        browser.ShouldFitTheScreen();
        browser.Tap("Follow Key to the woody plants of Torvane in leaf");
        browser.UntilText("24 taxa");
        browser.ShouldFitTheScreen();
        browser.Tap("2 Leaves thin");
        browser.UntilText("Couplet 2");
        browser.Tap("1 Leaves opposite");
        browser.UntilText("Couplet 3");
        browser.Tap("1 Leaves lobed");
        browser.UntilText("Young twigs with two corky wings");
        browser.Tap("0 Can’t tell");
        browser.UntilText("under 1a");
        // The other open path is within reach too.
        browser.Tap("Trail");
        browser.Tap("Go on at couplet 3 of Key to Vellorna");
        browser.UntilText("Leaf grey beneath");
        browser.Tap("1 Leaf grey");
        browser.UntilText("3 taxa");
        browser.Tap("Keep it as it stands");
        browser.UntilText("kept as an open set");
        browser.ShouldFitTheScreen();
        browser.ShouldBeAccessible();
        browser.Tap("Place");
        browser.Tap("Harrow Alder Wood");
        browser.Until(() => browser.All("[role=option]").Count == 0, "the chosen place");
        browser.Find("[name=recorder]").SendKeys("Tove Askling");
        browser.Tap("Keep the record");
        browser.UntilText("Stands now");
        Assert.Contains("3 taxa open within Vellorna", browser.Text, StringComparison.Ordinal);
        browser.ShouldFitTheScreen();
        browser.Open("/records");
        browser.UntilText("◐ 3 taxa open");
        browser.ShouldFitTheScreen();
        browser.Open("/keys/new");
        browser.UntilText("Key text");
        browser.ShouldFitTheScreen();
        browser.ShouldHaveNoErrors();
    }

    [Fact]
    public void ADateInTheFutureIsSaidAtItsFieldAndAPlaceIsAdded()
    {
        var browser = site.Browse();
        browser.Open("/bench");
        browser.Click("Follow Key to Carpessa");
        browser.UntilText("4 taxa stand");
        browser.Press("1");
        browser.UntilText("The trail ends here");
        browser.Click("Keep it");
        browser.Find("[name=recorder]").SendKeys("Runa Velt");
        browser.SetDate("[name=date]", "2099-12-31");
        browser.Click("Add a place");
        browser.Find("[role=dialog] [name=name]").SendKeys("Skarn Ridge");
        browser.Find("[role=dialog] [name=latitude]").SendKeys("157");
        browser.Find("[role=dialog] [name=longitude]").SendKeys("west");
        browser.Find("[role=dialog] [name=uncertaintyMetres]").SendKeys("50");
        browser.ShouldBeAccessible();
        browser.Click("Add the place");
        browser.UntilText("This isn’t a number.");
        browser.Find("[role=dialog] [name=longitude]").SendKeys(Keys.Control + "a" + Keys.Null + "-11,3");
        browser.Click("Add the place");
        browser.UntilText("The latitude isn't one.");
        browser.Find("[role=dialog] [name=latitude]").SendKeys(Keys.Control + "a" + Keys.Null + "57.4");
        browser.Click("Add the place");
        browser.Until(() => browser.All("[role=dialog]").Count == 0, "the closed dialog");
        browser.Click("Keep the record");
        browser.UntilText("This date is in the future.");
        browser.SetDate("[name=date]", "2026-05-31");
        browser.Click("Keep the record");
        browser.UntilText("seen on 31 May 2026");
        Assert.Contains("Skarn Ridge", browser.Text, StringComparison.Ordinal);
    }

    [Fact]
    public void WhileTheDatabaseIsAwayNothingTypedIsLostAndItIsSentWhenItIsBack()
    {
        var browser = site.Browse();
        browser.Open("/bench");
        browser.Click("Follow Key to Carpessa");
        browser.UntilText("4 taxa stand");
        browser.Press("2");
        browser.UntilText("Couplet 2");
        browser.Click("Keep it as it stands");
        browser.Click("Place");
        browser.Click("Harrow Alder Wood");
        browser.Until(() => browser.All("[role=option]").Count == 0, "the chosen place");
        browser.Find("[name=recorder]").SendKeys("Runa Velt");
        browser.Find("[name=note]").SendKeys("Written in the rain.");
        site.Relay.TakeAway();
        try
        {
            browser.Click("Keep the record");
            browser.UntilText("The database doesn’t answer.");
            browser.UntilText("waiting to be sent");
            browser.ShouldBeAccessible();
            // Also after the page was closed and opened again.
            browser.Open("/records");
            browser.UntilText("Waiting to be sent: 1.");
            browser.UntilText("waiting to be sent");
        }
        finally
        {
            site.Relay.BringBack();
        }
        browser.Until(
            () =>
                !browser.Text.Contains("doesn’t answer", StringComparison.Ordinal)
                && browser.Text.Contains("Written in the rain.", StringComparison.Ordinal),
            "the record among the others"
        );
        Assert.DoesNotContain("waiting to be sent", browser.Text, StringComparison.OrdinalIgnoreCase);
        Assert.Single(browser.All("ol li"), line => line.Text.Contains("Written in the rain.", StringComparison.Ordinal));
    }
}
