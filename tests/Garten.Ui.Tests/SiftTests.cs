using OpenQA.Selenium;
using Xunit;

namespace Garten.Ui.Tests;

/// <summary>Naming a plant by whatever can be seen: the list, the next look, the difference, the record.</summary>
public sealed class SiftTests(GartenSite site) : IClassFixture<GartenSite>
{
    internal static void State(Browser browser, string character, string state) =>
        browser.Click(
            browser
                .Find($"section[aria-label='{character}']")
                .FindElements(By.CssSelector("[aria-pressed]"))
                .Single(b => b.Text.TrimStart('✓', ' ') == state)
        );

    internal static void At(Browser browser, string place, string day)
    {
        browser.Click("Change");
        browser.SetDate("input[type=date]", day);
        browser.Find("main [role=combobox][aria-haspopup=listbox]").Click();
        browser.Click(place);
        browser.Until(() => browser.All("[role=option]").Count == 0, "the chosen place");
        browser.Click("Close");
    }

    /// <summary>What the list doesn't ask for is typed in a few letters or picked in a few taps, is weighed, and stays on the
    /// sheet.</summary>
    [Fact]
    public void SomethingElseIsTypedOrPickedAndCounts()
    {
        var browser = site.Browse(390, 844, touch: true);
        browser.Open("/bench");
        browser.Tap("Identify by characters");
        browser.Tap("List");
        browser.UntilText("Nothing seen yet: 73 taxa");
        browser.Tap("Leaf");
        browser.Tap("Something else …");
        browser.Type("Type what you see", "rachis hai den");
        browser.Tap("+ hairs of the rachis: densely hairy");
        browser.UntilText("✓ hairs of the rachis: densely hairy");
        // The rows below are drawn by and by: a tap is aimed when they stand.
        browser.Until(() => browser.All("section[aria-label='hairs of the rachis'] [aria-pressed=true]").Count > 0, "the look on its row");
        browser.ShouldFitTheScreen();
        browser.Click("Back to the list");
        browser.UntilText("Sorvella pilosa");
        browser.Tap("Leaf");
        browser.Tap("Something else …");
        // What no taxon is described in stays on the sheet.
        browser.Tap("petiole");
        browser.Tap("cross-section of the petiole");
        browser.UntilText("it stands at the top of the list");
        State(browser, "cross-section of the petiole", "winged");
        browser.Type("Type what you see", "leaf hairs beneath fork");
        browser.Tap("+ kind of hairs beneath the leaf: forked");
        browser.UntilText("✓ kind of hairs beneath the leaf: forked");
        Assert.NotEmpty(browser.All("section[aria-label='kind of hairs beneath the leaf'] [aria-pressed=true]"));
        // Several looks in words are shown as they are read before they count.
        browser.Type("Type what you see", "lvs glabrous above, petiole 12 14 15 mm, frumious");
        browser.UntilText("Not read, and not recorded: “frumious”");
        browser.UntilText("hairs above the leaf: hairless");
        browser.ShouldBeAccessible();
        browser.ShouldFitTheScreen();
        browser.Tap("Record these 2 observations");
        browser.UntilText("✓ length of the petiole: 12 mm, 14 mm, 15 mm");
        Assert.NotEmpty(browser.All("section[aria-label='hairs above the leaf'] [aria-pressed=true]"));
        browser.ShouldBeAccessible();
        browser.ShouldHaveNoErrors();
    }

    [Fact]
    public void FromNothingToANameToARecordAndBackToThePlant()
    {
        var browser = site.Browse();
        browser.Open("/bench");
        browser.Click("Identify by characters");
        browser.UntilText("Nothing seen yet: 73 taxa");
        browser.ShouldBeAccessible();
        At(browser, "Lang Meadow", "2026-06-10");
        browser.UntilText("Lang Meadow, 10 June");
        // The first look that is proposed opens its character on the sheet.
        browser.Click("Look at kind of fruit");
        browser.UntilText("asked for by the list");
        State(browser, "kind of fruit", "plumed achene");
        browser.UntilText("One of");
        browser.ShouldBeAccessible();
        browser.Press(Keys.Escape);
        browser.UntilText("Senecorra discoidea");
        browser.Click("Inflorescence");
        State(browser, "phyllaries", "overlapping");
        browser.Press(Keys.Escape);
        browser.UntilText("Crepessa hirsuta, ");
        // What speaks against another one stands with it.
        browser.Click("Why: Crepessa ambigua");
        browser.UntilText("✕ conflicts");
        browser.ShouldBeAccessible();
        browser.ShouldFitTheScreen();
        browser.Click("Shortlist: Crepessa ambigua");
        browser.Click("Contrast the 2 of the shortlist");
        browser.UntilText("speaks for Crepessa hirsuta");
        browser.UntilText("Seen on this plant");
        browser.UntilText("life span");
        browser.ShouldBeAccessible();
        browser.ShouldFitTheScreen();
        browser.Click("It is this one: Crepessa hirsuta");
        browser.UntilText("Named by contrast");
        browser.Find("[name=recorder]").SendKeys("Runa Velt");
        browser.Click("Keep the record");
        browser.UntilText("Named by what was seen, without a key.");
        browser.UntilText("Evidence");
        browser.ShouldBeAccessible();
        // Determined again it brings its sheet along, with or without a key.
        browser.Click("Determine it again");
        browser.Click("Without a key");
        browser.UntilText("Crepessa hirsuta, ");
        browser.Find("nav[aria-label='Ways to name the plant'] a").Click();
        browser.Click("Key to the flower heads of Torvane");
        browser.UntilText("1 in conflict");
        browser.ShouldBeAccessible();
        // Another plant of the kind is offered for comparison, and says what was seen on it.
        browser.Go("/bench");
        browser.Until(() => browser.Find("main input").Enabled, "the names to guess from");
        browser.Type("Name a guess", "Crepessa hirs");
        browser.Find("[role=option]").Click();
        browser.UntilText("Plants seen before");
        browser.Click("Crepessa hirsuta, Lang Meadow");
        browser.UntilText("named Crepessa hirsuta");
        browser.UntilText("overlapping");
        browser.ShouldBeAccessible();
        // The guess goes on to be confirmed, with nothing seen of this plant yet.
        browser.Find("nav[aria-label='Ways to name the plant'] a[href$='/confirm']").Click();
        browser.UntilText("Is it really Crepessa hirsuta?");
        browser.UntilText("Nothing that counts has been seen yet.");
        browser.ShouldBeAccessible();
        browser.ShouldHaveNoErrors();
    }

    [Fact]
    public void ANameIsConfirmedItsConcernExplainedAndTheGradeKept()
    {
        var browser = site.Browse();
        browser.Open("/bench");
        browser.Click("Identify by characters");
        browser.UntilText("Nothing seen yet");
        At(browser, "Ossa Moor", "2026-06-10");
        foreach (
            var (organ, character, state) in new[]
            {
                ("Fruit", "kind of fruit", "plumed achene"),
                ("Inflorescence", "phyllaries", "in one row"),
                ("Stem", "hairs of the stem", "hairless"),
            }
        )
        {
            browser.Click(organ);
            State(browser, character, state);
            browser.Press(Keys.Escape);
        }
        browser.UntilText("Crepessa laevis, ");
        browser.Find("nav[aria-label='Ways to name the plant'] a[href$='/confirm']").Click();
        browser.UntilText("Is it really Crepessa laevis?");
        browser.UntilText("Still to be seen");
        browser.UntilText("answers all of it");
        browser.ShouldBeAccessible();
        browser.ShouldFitTheScreen();
        // It doesn't grow on a moor, as far as is known.
        browser.Click("Explain: Habitat");
        browser.Press("By the gate, on gravel that was carted there.");
        browser.Click("Say so");
        browser.UntilText("Explained: “By the gate");
        browser.Click("Grades by the rules of the: Quick list");
        browser.UntilText("Quick list: ");
        browser.ShouldBeAccessible();
        browser.Click("Keep it as");
        browser.Find("[name=recorder]").SendKeys("Runa Velt");
        browser.Click("Keep the record");
        browser.UntilText("Checked by what was seen, without a key.");
        browser.UntilText("Explained: “By the gate");
        Assert.Single(browser.All("ol[aria-label^='Level of evidence: ']"));
        browser.ShouldBeAccessible();
        browser.ShouldHaveNoErrors();
    }

    [Fact]
    public void AForkOfAKeyIsContrastedAndTheSheetGoesAlong()
    {
        var browser = site.Browse();
        browser.Open("/bench");
        browser.Click("Follow Key to the woody plants");
        browser.UntilText("24 taxa stand");
        browser.Click("Contrast what lies on either side");
        browser.UntilText("Where keys part them");
        browser.UntilText("Key to the leafless twigs of Torvane, couplet 1");
        browser.UntilText("What lies on either side of couplet 1");
        browser.UntilText("lead b");
        browser.UntilText("The best look for each of the");
        browser.Click("The best look for each of the");
        browser.ShouldBeAccessible();
        browser.Find("table th[scope=row] button").Click();
        browser.UntilText("separates the taxa below");
        browser.Find("[aria-label^='States of'] button").Click();
        browser.UntilText("This plant");
        browser.ShouldBeAccessible();
        browser.Press(Keys.Escape);
        browser.Click("By characters");
        browser.UntilText("Seen");
        browser.ShouldBeAccessible();
        browser.ShouldHaveNoErrors();
    }

    [Fact]
    public void ByThumbNarrowedStrictAndLifted()
    {
        var browser = site.Browse(390, 844, touch: true);
        browser.Open("/bench");
        browser.Tap("Identify by characters");
        browser.UntilText("73 taxa on the list");
        browser.ShouldFitTheScreen();
        browser.ShouldBeAccessible();
        browser.Tap("List");
        browser.UntilText("Nothing seen yet");
        browser.ShouldFitTheScreen();
        browser.Tap("Change");
        browser.Tap("by place, day");
        browser.Tap("strict: no conflict");
        browser.Find("input[aria-autocomplete=list]").SendKeys("Carp");
        browser.Until(() => browser.All("[role=option]").Count is > 0 and < 4, "the list cut down to what was typed");
        browser.Tap("Carpess");
        browser.Tap("Close");
        browser.UntilText("Narrowed to");
        browser.UntilText("strict: up to 0 conflicts");
        browser.ShouldBeAccessible();
        browser.Tap("Lift: Carpess");
        browser.Until(() => !browser.Text.Contains("Narrowed to", StringComparison.Ordinal), "the whole list again");
        browser.Tap("Best to check next");
        browser.UntilText("asked for by the list");
        browser.ShouldFitTheScreen();
        browser.ShouldBeAccessible();
        browser.ShouldHaveNoErrors();
    }

    [Fact]
    public void WhatGivesThemAwayIsFoundForAPlaceAndAMonth()
    {
        var browser = site.Browse();
        browser.Open("/flora/torvane");
        browser.Click("Diagnostic here");
        browser.UntilText("taxa are on the list");
        browser.Go("/flora/torvane/crib?month=6");
        browser.UntilText("awn: straight awn");
        browser.ShouldBeAccessible();
        browser.Click("List of");
        browser.Click("Lang Meadow");
        browser.UntilText("recorded in the grid cell of Lang Meadow");
        browser.Go("/flora/torvane/taxa/brommaria-aristata");
        browser.UntilText("awn: straight awn, alone among");
        browser.ShouldBeAccessible();
        browser.Click("Contrast them");
        browser.UntilText("It is this one");
        // In Sift it is said where it is at hand, and where it was seen.
        browser.Click("By characters");
        browser.Click("Leaf");
        State(browser, "ligule", "a row of hairs");
        browser.UntilText("Seen, and diagnostic here, alone on this list of 73: ligule: a row of hairs → Festorra ciliata");
        browser.ShouldHaveNoErrors();
    }

    [Fact]
    public void WithoutADatabaseTheListIsSiftedAllTheSame()
    {
        var browser = site.Browse();
        browser.Open("/bench");
        browser.Click("Identify by characters");
        browser.UntilText("Nothing seen yet: 73 taxa");
        site.Relay.TakeAway();
        try
        {
            browser.Open(browser.Path);
            browser.UntilText("The database doesn’t answer");
            browser.UntilText("Nothing seen yet: 73 taxa");
            browser.Click("Flower");
            State(browser, "colour of the flower", "blue");
            browser.Press(Keys.Escape);
            browser.UntilText("Seen");
            browser.UntilText("Shortlist");
        }
        finally
        {
            site.Relay.BringBack();
        }
    }
}
