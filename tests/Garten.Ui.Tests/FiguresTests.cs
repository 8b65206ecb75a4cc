using Xunit;

namespace Garten.Ui.Tests;

/// <summary>A table of plots is pasted, or made of the records that are kept, and its figures stand on the page.</summary>
public sealed class FiguresTests(GartenSite site) : IClassFixture<GartenSite>
{
    [Fact]
    public void ATableIsWorkedOutAndWhatIsWrongInItIsSaidAtItsPlace()
    {
        var browser = site.Browse();
        browser.Open("/figures");
        browser.Click("Put an example in");
        browser.UntilText("8 taxa were found, 118 individuals");
        browser.UntilText("Rarefied to 17");
        browser.UntilText("70.7 % of the differences");
        browser.Click("Told apart by");
        browser.Click("which taxa stand there (Jaccard)");
        browser.Until(() => !browser.Text.Contains("70.7 %", StringComparison.Ordinal), "the plots told apart by their taxa");
        browser.ShouldBeAccessible();
        browser.ShouldFitTheScreen();
        browser.Click("What the values are");
        browser.Click("cover, or another measure");
        browser.UntilText("It is worked out from individuals; cover isn't counted.");
        browser.Until(() => !browser.Text.Contains("Rarefied to", StringComparison.Ordinal), "figures of individuals to go");
        browser.Click("What the values are");
        browser.Click("found or not");
        browser.UntilText("Line 2, cell 2: Found or not is 1 or 0");
        browser.ShouldBeAccessible();
    }

    [Fact]
    public void TheRecordsKeptHereMakeAListOfEachPlaceAndYear()
    {
        var browser = site.Browse(390, 844, touch: true);
        browser.Open("/figures");
        browser.Click("Take the records kept here");
        browser.UntilText("records by place and year");
        browser.UntilText("taxa were found.");
        browser.UntilText("Lang Meadow 2026");
        browser.UntilText("Records aren’t complete lists");
        browser.ShouldFitTheScreen();
        browser.ShouldBeAccessible();
    }
}
