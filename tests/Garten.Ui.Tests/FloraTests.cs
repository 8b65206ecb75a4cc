using OpenQA.Selenium;
using Xunit;

namespace Garten.Ui.Tests;

/// <summary>The flora as it is read and brought: plates, glossary, import.</summary>
public sealed class FloraTests(GartenSite site) : IClassFixture<GartenSite>
{
    [Fact]
    public void ATaxonIsFoundByAPartOfItsNameAndShownWithWhatSeparatesIt()
    {
        var browser = site.Browse();
        browser.Open("/flora/torvane");
        browser.UntilText("75 taxa.");
        browser.ShouldBeAccessible();
        browser.Find("main input").SendKeys("al sy");
        browser.UntilText("1 taxon fits.");
        browser.Click("Allora sylvatica");
        browser.UntilText("Taken for");
        browser.UntilText("Convessa fallax");
        browser.UntilText("Know it by");
        browser.ShouldBeAccessible();
        var typical = browser.Find("main svg[role=img]").GetAttribute("innerHTML");
        browser.Click("Large");
        browser.Until(() => browser.Find("main svg[role=img]").GetAttribute("innerHTML") != typical, "another plate");
        browser.Click("Convessa fallax");
        browser.UntilText("poisonous");
        browser.UntilText("kind of fruit: berry");
        browser.Click("kind of fruit: berry");
        browser.UntilText("several seeds in flesh");
        browser.ShouldBeAccessible();
        browser.Press(Keys.Escape);
        browser.ShouldHaveNoErrors();
    }

    // Two states that differ show it: no two states of a character have the same drawing.
    [Fact]
    public void EveryStateIsDrawnAndNoTwoStatesOfACharacterAlike()
    {
        var browser = site.Browse();
        browser.Open("/flora/torvane/glossary");
        browser.UntilText("106 characters, 331 states.");
        browser.ShouldBeAccessible();
        var report = browser.Run(
            """
            const alike=[];let drawn=0;
            for(const s of document.querySelectorAll('main section[aria-label]')){
              const all=[...s.querySelectorAll('svg')].filter(v=>!v.parentElement.closest('svg')).map(v=>v.innerHTML);drawn+=all.length;
              if(new Set(all).size<all.length)alike.push(s.getAttribute('aria-label'));
            }
            return drawn+' drawn; alike: '+alike.join(', ')
            """
        );
        Assert.Equal("331 drawn; alike: ", report);
        browser.Find("main input").SendKeys("cordate");
        browser.UntilText("1 character,");
        browser.Click("▸ base of the leaf");
        browser.UntilText("also: cordate");
        browser.UntilText("Mind: Look at several leaves");
        browser.ShouldBeAccessible();
        browser.ShouldHaveNoErrors();
    }

    [Fact]
    public void ATraitTableIsCheckedMendedKeptAndPublished()
    {
        var file = Path.Combine(Path.GetTempPath(), $"garten-{Guid.NewGuid():N}.csv");
        File.WriteAllText(file, "Species;Leaf length (cm);Leaf shape;remarks\nAlvena montis;4–7;ovate;x\nAlvena palus;9–6;elliptic;y\n");
        try
        {
            var browser = site.Browse();
            browser.Open("/flora/bring");
            browser.Find("input[type=file][name=matrix]");
            browser.ShouldBeAccessible();
            browser.Find("input[type=file][name=matrix]").SendKeys(file);
            browser.Click("See how they are read");
            browser.UntilText("2 taxa, 3 characters");
            browser.UntilText("above the high bound");
            browser.ShouldBeAccessible();
            browser.Click("Leave out: remarks");
            browser.Click("Read again with these headings");
            browser.UntilText("2 taxa, 2 characters");
            var name = browser.Find("main input[type=text]");
            name.SendKeys(Keys.Control + "a" + Keys.Null + "Alven hills");
            browser.Click("Keep it as a draft");
            browser.UntilText("Kept as a draft: 2 taxa, 2 characters");
            browser.Click("Publish Alven hills");
            browser.UntilText("Published as version 1.");
            browser.Click("Open it");
            browser.UntilText("Flora of Alven hills");
            browser.Click("Alvena montis");
            browser.UntilText("Description");
            browser.ShouldHaveNoErrors();
        }
        finally
        {
            File.Delete(file);
        }
    }

    /// <summary>States that nothing draws have no figure at all, rather than one and the same for each.</summary>
    [Fact]
    public async Task ACharacterThatNothingDrawsHasNoFigures()
    {
        var stop = TestContext.Current.CancellationToken;
        using var form = new MultipartFormDataContent
        {
            { new StringContent("Nut isle"), "name" },
            {
                new ByteArrayContent(
                    "taxon,sheen of the nut,scent of the bark\nAlvena rara,dull,sweet\nAlvena montis,glossy,sour\nAlvena alta,greasy,none\n"u8.ToArray()
                ),
                "matrix",
                "matrix.csv"
            },
        };
        (await site.Client.PostAsync(new Uri("/api/v1/floras", UriKind.Relative), form, stop)).EnsureSuccessStatusCode();
        (await site.Client.PostAsync(new Uri("/api/v1/floras/nut-isle/publish", UriKind.Relative), null, stop)).EnsureSuccessStatusCode();
        var browser = site.Browse();
        browser.Open("/flora/nut-isle/glossary");
        browser.UntilText("sheen of the nut");
        browser.UntilText("greasy");
        Assert.Empty(browser.All("main button svg[viewBox='0 0 80 80']"));
        browser.Go("/flora/torvane/glossary");
        browser.UntilText("331 states");
        Assert.True(browser.All("main button svg[viewBox='0 0 80 80']").Count > 100);
    }

    [Fact]
    public void OnAPhonePlatesGlossaryAndImportFit()
    {
        var browser = site.Browse(390, 844, touch: true);
        foreach (
            var (path, text) in new[]
            {
                ("/flora/torvane", "75 taxa."),
                ("/flora/torvane/taxa/vellorna-alata", "Know it by"),
                ("/flora/torvane/glossary", "331 states"),
                ("/flora/bring", "1 · Files"),
            }
        )
        {
            browser.Open(path);
            browser.UntilText(text);
            browser.ShouldFitTheScreen();
            browser.ShouldBeAccessible();
        }
    }
}
