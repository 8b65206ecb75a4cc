using OpenQA.Selenium;
using Xunit;

namespace Garten.Ui.Tests;

public sealed class SeasonTests(GartenSite site) : IClassFixture<GartenSite>
{
    private static void Type(Browser browser, string label, string text)
    {
        var field = browser
            .All("main input, main textarea")
            .First(e => ((WebElement)e).ComputedAccessibleLabel?.StartsWith(label, StringComparison.Ordinal) == true);
        field.SendKeys(Keys.Control + "a" + Keys.Null + text);
    }

    [Fact]
    public void APlantIsTaggedVisitedAgainAndItsSeasonsStandSideBySide()
    {
        var browser = site.Browse();
        browser.Open("/plants");
        browser.Click("Tag a plant");
        browser.UntilText("Choose the place first.");
        browser.Find("main [role=combobox][aria-haspopup=listbox]").Click();
        browser.Click("Lang Meadow");
        browser.UntilText("Tagged on");
        browser.Click("Keep the tag");
        browser.UntilText("Write what the tag says.");
        Type(browser, "Tag", "tag 88");
        Type(browser, "Tagged by", "Ilse Marrin");
        Type(browser, "Latitude", "57.9");
        browser.Click("Keep the tag");
        browser.UntilText("Give latitude, longitude and uncertainty");
        Type(browser, "Longitude", "-11.17");
        Type(browser, "± metres", "5");
        browser.Click("Keep the tag");
        // Half a degree of latitude from its place.
        browser.UntilText("from Lang Meadow. Check latitude and longitude");
        Type(browser, "Latitude", "57.403");
        Type(browser, "Landmark", "gatepost");
        Type(browser, "Bearing from it", "90");
        Type(browser, "Distance", "7");
        browser.Click("Keep the tag");
        browser.UntilText("7 m east (90°) of the gatepost");
        browser.ShouldBeAccessible();

        browser.Click("Visit it");
        browser.UntilText("How was it found?");
        browser.Click("flower: not yet");
        Type(browser, "Branch", "low branch");
        browser.Click("Sex: female");
        browser.UntilText("low branch female");
        browser.Click("Leaf");
        browser.UntilText("margin of the leaf");
        browser
            .Find("section[aria-label='margin of the leaf']")
            .FindElements(By.CssSelector("[aria-pressed]"))
            .Single(b => b.Text == "toothed")
            .Click();
        // Escape leads back, as it does wherever a part is looked at.
        browser.Press(Keys.Escape);
        browser.UntilText("How was it found?");
        browser.UntilText("margin of the leaf: toothed");
        // A dead plant still shows what it shows.
        browser.Click("State: dead");
        browser.UntilText("What does it show?");
        // What is noted stays on the device until it is kept.
        browser.Go(browser.Path);
        browser.UntilText("margin of the leaf: toothed");
        Type(browser, "Recorder", "Ilse Marrin");
        browser.Click("Keep the visit");
        browser.UntilText("no flower yet");
        browser.UntilText("low branch female");
        browser.ShouldBeAccessible();
        browser.ShouldHaveNoErrors();
    }

    [Fact]
    public void APopulationIsCountedWithOneThumbAndKeptWithoutSignal()
    {
        var browser = site.Browse(390, 844, touch: true);
        browser.Open("/plants");
        browser.ClickLink("/populations/", "tarn outflow");
        browser.Tap("Count it");
        browser.Tap("One more: 0 so far");
        browser.Tap("One more: 1 so far");
        browser.Tap("Ten more");
        browser.Tap("One less");
        browser.UntilText("11 shoots.");
        browser.ShouldFitTheScreen();
        Type(browser, "Recorder", "Ilse Marrin");
        site.Relay.TakeAway();
        try
        {
            browser.Tap("Keep the count");
            browser.UntilText("Waiting to be sent: 1");
        }
        finally
        {
            site.Relay.BringBack();
        }
        browser.UntilText("11 shoots, Ilse Marrin");
        browser.UntilText("▼ shoots");
        browser.ShouldBeAccessible();
        browser.ShouldHaveNoErrors();
    }

    [Fact]
    public void TodaySaysWhereToGoAndAVisitIsMovedAndSaysWhatIsLost()
    {
        var browser = site.Browse();
        browser.Open("/");
        browser.UntilText("To act on");
        browser.Until(
            () =>
                browser.Text.Contains("to answer today", StringComparison.Ordinal)
                || browser.Text.Contains("can be answered today", StringComparison.Ordinal),
            "what to do today"
        );
        browser.Go("/visits");
        browser.UntilText("no fewer will do");
        browser.Click("Planned: as trips over all places");
        browser.UntilText("all that can be");
        browser.Until(() => browser.All("main input[type=range]").Count > 0, "a slider");
        var slider = browser.All("main input[type=range]")[0];
        slider.SendKeys(Keys.Home);
        browser.UntilText("Put it back");
        slider.SendKeys(Keys.End);
        browser.Until(
            () =>
                browser.Text.Contains("are lost", StringComparison.Ordinal)
                || browser.Text.Contains("Nothing is lost", StringComparison.Ordinal),
            "what is lost"
        );
        browser.Click("Put it back");
        browser.Until(() => !browser.Text.Contains("Put it back", StringComparison.Ordinal), "the visit put back");
        browser.ShouldBeAccessible();
    }

    [Fact]
    public void SeasonsAreShiftedWithTheirArithmeticShown()
    {
        var browser = site.Browse();
        browser.Open("/seasons?taxon=anthressa-cerea");
        browser.UntilText("Choose a place: height");
        // By the year alone: 2.7 days late.
        browser.UntilText("flower: 4 May");
        browser.Find("main [role=combobox][aria-haspopup=listbox]").Click();
        browser.Click("Ossa Moor");
        browser.UntilText("317 m higher, 4 days per 122 m: +10.4 days");
        browser.UntilText("days later than the flora says");
        browser.Click("Shift: as the flora says");
        browser.UntilText("flower: 1 May");
        browser.ShouldBeAccessible();
        browser.ShouldHaveNoErrors();
    }

    /// <summary>A plant is found by its tag or its name, and a list that holds none says what was looked for.</summary>
    [Fact]
    public void PlantsAreFoundByTagOrName()
    {
        var browser = site.Browse();
        browser.Open("/plants");
        browser.UntilText("Erissa ciliata");
        var before = browser.All("main li").Count;
        browser.Find("input[placeholder='a tag or a name']").SendKeys("ERISSA");
        // While it is typed the list is drawn anew at each letter.
        browser.Until(
            () =>
                browser.All("main li").Count < before
                && browser.All("main li a") is { Count: > 0 } found
                && found.All(a => a.Text.Contains("Erissa", StringComparison.Ordinal)),
            "the plants of that name alone"
        );
        browser.ShouldBeAccessible();
        browser.Find("input[placeholder='a tag or a name']").SendKeys(" of no tag");
        browser.UntilText("Nothing fits “ERISSA of no tag”");
        browser.ShouldHaveNoErrors();
    }
}
