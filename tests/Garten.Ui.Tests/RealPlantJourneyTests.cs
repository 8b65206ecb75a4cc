using OpenQA.Selenium;
using Xunit;

namespace Garten.Ui.Tests;

/// <summary>Plants as they really are, on the pages: a trail tested, rough measures, a stand judged together, counts checked
/// blind.</summary>
public sealed class RealPlantJourneyTests(GartenSite site) : IClassFixture<GartenSite>
{
    [Fact]
    public void AKeyThatReachedANameIsTestedByLooksChosenForItsTrail()
    {
        var browser = site.Browse();
        browser.Open("/keys");
        browser.Click("Key to Vellorna");
        browser.Click("Follow this key");
        browser.UntilText("Couplet 1");
        browser.Press("1");
        browser.UntilText("Couplet 2");
        browser.Press("1");
        browser.UntilText("Test the trail");
        browser.UntilText("tests couplet");
        browser.ShouldBeAccessible();
        browser.Find("[aria-label='Looks that test the trail'] button").Click();
        browser.UntilText("Back to the key");
        // The part is young, and a rough measure is an interval.
        browser.Click("Change");
        browser.UntilText("Gathered on, if examined later");
        browser.ShouldBeAccessible();
        browser.Click("Age of the part");
        browser.Click("young, this year’s");
        browser.UntilText("young part");
        browser.Click("Leaf");
        browser.UntilText("length of the leaf");
        var field = browser.Find("section[aria-label='length of the leaf'] input");
        field.SendKeys("under 2 thumbs" + Keys.Enter);
        browser.UntilText("isn’t calibrated on this device");
        field.SendKeys(Keys.Control + "a" + Keys.Null + "2 to 3 cm");
        browser.UntilText("mean 25 mm");
        field.SendKeys(Keys.Enter);
        browser.UntilText("25 mm, when young");
        browser.ShouldHaveNoErrors();
    }

    [Fact]
    public void AStandIsCountedWithABlindCheckAndJudgedAsAWhole()
    {
        var browser = site.Browse();
        browser.Open("/");
        browser.ClickLink("/populations/", "Lychnora bipartita");
        browser.UntilText("headland strip");
        browser.UntilText("of the winter’s rosettes flowered (95 %:");
        browser.UntilText("no change that these counts can tell");
        browser.Click("Judge the stand as a whole");
        browser.UntilText("Most of it is");
        browser.UntilText("by its own looks");
        browser.ShouldBeAccessible();
        browser.ShouldFitTheScreen();
        browser.Click("Count it");
        browser.UntilText("Checked blind?");
        browser.UntilText("No visible mark by a plant that may be stolen");
        browser.Click("Count: seedlings");
        browser.Click("One more: 0 so far");
        browser.Type("Known beforehand", "3");
        browser.Type("Found of them", "4");
        browser.Type("Recorder", "Runa Velt");
        browser.Click("Keep the count");
        browser.UntilText("at most as many can be found again");
        browser.Type("Found of them", Keys.Backspace + "2");
        browser.Click("Keep the count");
        browser.UntilText("checked blind, 2 of 3 found again");
        browser.ShouldHaveNoErrors();
    }

    [Fact]
    public void PlantsBetweenTwoParentsLieOnALine()
    {
        var browser = site.Browse(390, 844, touch: true);
        browser.Open("/figures");
        browser.Click("a line from parent to parent");
        browser.UntilText("Between two parents");
        browser.Click("Put an example in");
        browser.UntilText("proves no first cross");
        browser.UntilText("never told from form alone");
        browser.ShouldBeAccessible();
        browser.ShouldFitTheScreen();
    }

    [Fact]
    public void MarkedPlantsBetweenTwoMarkedParentsLieOnTheirLine()
    {
        var browser = site.Browse();
        browser.Knows("garten.place", "0197a1c0-5b00-7a11-9c3e-2f6f6b1d0a01");
        browser.Open("/figures/parents");
        // What was measured here of the parents, and of what stands between them.
        browser.Click("Ondrelia crenata and Ondrelia palustris");
        browser.UntilText("as Ondrelia palustris");
        browser.UntilText("carr x1");
        browser.UntilText("proves no first cross");
        browser.UntilText("taken in the shade");
        var line = browser.Find("main svg[role=img]").GetAttribute("aria-label")!;
        Assert.Matches("carr x1, stand: 0\\.[3-7][0-9], between the parents", line);
        Assert.Contains("carr c1, first parent", line, StringComparison.Ordinal);
        browser.ShouldBeAccessible();
        browser.ShouldHaveNoErrors();
    }
}
