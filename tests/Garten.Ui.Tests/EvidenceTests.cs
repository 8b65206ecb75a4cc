using OpenQA.Selenium;
using Xunit;

namespace Garten.Ui.Tests;

/// <summary>Evidence on the Bench: looked at, measured, weighed, and found again on the plant.</summary>
public sealed class EvidenceTests(GartenSite site) : IClassFixture<GartenSite>
{
    private static void State(Browser browser, string character, string state) =>
        browser
            .Find($"section[aria-label='{character}']")
            .FindElements(By.CssSelector("[aria-pressed]"))
            .Single(b => b.Text.TrimStart('✓', ' ') == state)
            .Click();

    [Fact]
    public void AWrongTurnIsShownAndTheSheetAnswersCoupletsAndIsKeptWithThePlant()
    {
        var browser = site.Browse();
        browser.Open("/bench");
        browser.UntilText("couplets can’t be answered today");
        browser.ShouldBeAccessible();
        browser.Click("Follow Key to the woody plants");
        browser.UntilText("24 taxa stand");
        // Two statements that fit land on the sheet, and the sheet answers the couplet.
        browser.Click("Fits: Leaves thin, falling in autumn");
        browser.UntilText("Leaning to lead 2");
        browser.Click("Fits: sap clear");
        browser.UntilText("by the sheet");
        browser.UntilText("Couplet 2");
        browser.ShouldBeAccessible();
        // A wrong turn on purpose: the leaves are opposite.
        browser.Press("2");
        browser.UntilText("Couplet 4");
        browser.Click("Leaf");
        browser.UntilText("Back to the key");
        State(browser, "division of the leaf", "lobed");
        State(browser, "depth of the lobes", "more than half-way");
        State(browser, "hairs beneath the leaf", "in the vein axils");
        browser.UntilText("weakest turn");
        browser.ShouldBeAccessible();
        // Readings as they come; what they say stands there while one types; a wrong one is said at its field.
        var field = browser.Find("section[aria-label='length of the leaf'] input");
        field.SendKeys("82 9,5 kg");
        browser.UntilText("no unit that is known here");
        field.SendKeys(Keys.Control + "a" + Keys.Null + "82 95,5 88 mm");
        browser.UntilText("n 3 · mean 8.85 cm");
        field.SendKeys(Keys.Enter);
        browser.UntilText("8.85 cm (mean of 3");
        browser.Click("Strike out 95,5 mm");
        browser.Click("torn or worn");
        browser.UntilText("8.5 cm (mean of 2");
        browser.Press(Keys.Escape);
        browser.UntilText("Least certain couplet: 2.");
        browser.ShouldBeAccessible();
        browser.Click("Open couplet 2 again");
        browser.UntilText("Open again");
        browser.Press("1");
        browser.UntilText("Key to Vellorna");
        browser.Until(() => !browser.Text.Contains("weakest turn", StringComparison.Ordinal), "no weak turn any more");
        browser.Click("Keep it as it stands");
        browser.Click("Place");
        browser.Click("Harrow Alder Wood");
        browser.Until(() => browser.All("[role=option]").Count == 0, "the chosen place");
        browser.Find("[name=recorder]").SendKeys("Runa Velt");
        browser.Click("Keep the record");
        browser.UntilText("Stands now");
        browser.UntilText("Evidence");
        browser.UntilText("struck out: torn or worn");
        browser.ShouldBeAccessible();
        // Determined again, the plant brings its sheet along.
        browser.Click("Determine it again");
        browser.Click("Key to Vellorna");
        browser.UntilText("By the evidence:");
        browser.ShouldHaveNoErrors();
    }

    /// <summary>A calliper types its digits and Enter at once: each reading is recorded, however fast they come; what can't be read stands
    /// in the field with its reason. The atlas is asked for the squares of a taxon.</summary>
    [Fact]
    public void ADeviceThatTypesIsTakenAtItsWordAndAServiceIsDoubted()
    {
        var browser = site.Browse();
        browser.Open("/bench");
        browser.Click("Follow Key to the woody plants");
        browser.UntilText("24 taxa stand");
        browser.Click("Leaf");
        browser.UntilText("Back to the key");
        browser.Find("section[aria-label='length of the leaf'] input").SendKeys("81.87\n82.03\n83.5\n");
        browser.UntilText("mean of 3");
        browser.Find("section[aria-label='length of the leaf'] input").SendKeys("81.8781.87\n");
        browser.UntilText("isn't understood");
        browser.Find("section[aria-label='length of the leaf'] input").SendKeys(Keys.Control + "a" + Keys.Null + Keys.Delete);
        browser.Click("Close the calliper: length of the leaf");
        browser.UntilText("mean of 4");
        browser.ShouldBeAccessible();
        browser.Open("/flora/torvane/taxa/vellorna-alata");
        browser.Click("Ask the atlas");
        browser.UntilText("By the atlas:");
        browser.ShouldBeAccessible();
        browser.ShouldHaveNoErrors();
    }

    [Fact]
    public void AStatementIsCorrectedAndAWordTaught()
    {
        var browser = site.Browse();
        browser.Open("/keys");
        browser.Click("Key to the leafless twigs of Torvane");
        browser.UntilText("are weighed");
        browser.ShouldBeAccessible();
        browser.Click("Accept: pith chambered");
        browser.UntilText("✓ looked over · pith: chambered");
        browser.Click("Correct: twigs without thorns");
        browser.ShouldBeAccessible();
        browser.Click("✓ round cushions");
        browser.Click("Set this reading");
        browser.UntilText("✓ looked over · thorns or cushions: neither");
        browser.ShouldHaveNoErrors();
    }

    [Fact]
    public void AKeyOutOfABookIsReadChosenAndSifted()
    {
        var browser = site.Browse();
        browser.Open("/keys");
        browser.Click("A KEY TO THE GENERA");
        browser.UntilText("To choose:");
        browser.UntilText("30 are weighed");
        browser.UntilText("From The Trees of the Western Isles, p. 212, public domain.");
        browser.ShouldBeAccessible();
        // A tap sets the reading of the statement on which most hangs.
        browser.Click("presence of the stipule: absent?");
        browser.UntilText("31 are weighed");
        // A word is taught by what it means.
        var before = browser.All("[aria-labelledby=unknown-words] button").Count;
        browser.Find("[aria-labelledby=unknown-words] button").Click();
        browser.Type("Part and what it is like", "leaf texture stiff");
        browser.UntilText("substance of the leaf: stiff");
        browser.ShouldBeAccessible();
        browser.Click("substance of the leaf: stiff");
        // What it changes is seen before it is taught.
        browser.UntilText("It changes");
        browser.UntilText("Only for “The Trees of the Western Isles”");
        browser.ShouldBeAccessible();
        browser.Click("Teach it for all texts");
        browser.Until(() => browser.All("[aria-labelledby=unknown-words] button").Count < before, "the taught word is known");
        browser.Click("Identify by characters");
        browser.UntilText("10 taxa on the list");
        browser.UntilText("Best to check next");
        browser.ShouldHaveNoErrors();
    }

    [Fact]
    public void DescriptionsArePastedReadAndKept()
    {
        var browser = site.Browse();
        browser.Open("/flora/paste");
        browser.Type("Name of the flora", "Shrubs of a book");
        browser.Type(
            "Descriptions",
            "Ossalia prima Hask. Shrub, 1–3 m high. Leaves ovate, finely serrate, white-felted beneath. Fruit a berry. Fl. May–June."
        );
        browser.Type("Book, paper or person", "A book of shrubs");
        browser.UntilText("margin of the leaf: finely serrate");
        browser.UntilText("its season is taken");
        browser.ShouldBeAccessible();
        browser.Click("Keep as a draft");
        browser.UntilText("Shrubs of a book");
        browser.UntilText("1 taxon");
        browser.ShouldHaveNoErrors();
    }

    [Fact]
    public void ByThumbTheFigureLeadsToAnOrganAndBack()
    {
        var browser = site.Browse(390, 844, touch: true);
        browser.Open("/bench");
        browser.Tap("Follow Key to Mirelda");
        // "4 taxa" stands on the first page too.
        browser.UntilText("Couplet 1");
        browser.ShouldFitTheScreen();
        browser.Tap("Plant");
        browser.Tap("Leaf");
        browser.UntilText("Back to the key");
        browser.ShouldFitTheScreen();
        browser.ShouldBeAccessible();
        browser.Tap("Coin, card, thumb");
        browser.UntilText("Measure with what is in the pocket");
        browser.ShouldBeAccessible();
        var fields = browser.All("[role=dialog] input");
        fields[0].SendKeys("my thumb");
        fields[1].SendKeys("62");
        fields[2].SendKeys("3");
        browser.Tap("Calibrate");
        browser.UntilText("my thumb: 62 ± 3 mm");
        browser.Tap("Close");
        browser.Until(() => browser.All("[role=dialog]").Count == 0, "the closed dialog");
        browser.Tap("Back to the key");
        browser.UntilText("Couplet 1");
        browser.ShouldFitTheScreen();
    }
}
