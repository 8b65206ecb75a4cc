using Xunit;

namespace Garten.Ui.Tests;

/// <summary>The pictures of the README, taken by ./garten screenshots; an ordinary run leaves this long way out, its views have journeys of
/// their own.</summary>
public sealed class ScreenshotTests(GartenInJune site) : IClassFixture<GartenInJune>
{
    private const string Notebook =
        "site,date,species,recorder,abundance\n"
        + "Lang Meadow,14/6/1998,Festorra ciliata,A. Thrane; B. Holm,LF\n"
        + "Lang Meadow,14/6/1998,Rubaxa glaucinna,A. Thrane; B. Holm,o\n"
        + "Lang Meadow,June 1999,Euphorra cf. lactea,A. Thrane,r\n"
        + "Lang Meadow,14/6/98,Natalla cordata,A. Thrane,f\n"
        + "Lang Meadow,16/6/1998,milk euphor,A. Thrane; B. Holm,f\n";

    private static void Shoot(Browser browser, string name)
    {
        // The drawings come behind the page.
        browser.Run("await new Promise(d=>setTimeout(d,800));return ''");
        browser.Shoot(Path.Combine(GartenInJune.Pictures, name + ".png"));
    }

    [Fact]
    public void TheMainViewsAreShownWithTheDemo()
    {
        Assert.SkipUnless(GartenInJune.Pictures.Length > 0, "pictures are taken by ./garten screenshots");
        var browser = site.Browse();
        browser.Open("/bench");
        browser.UntilText("couplets can’t be answered today");
        browser.Click("Follow Key to the woody plants");
        foreach (
            var (key, next) in new[]
            {
                ("", "Couplet 1"),
                ("2", "Couplet 2"),
                ("1", "Couplet 3"),
                ("1", "Young twigs with two corky wings"),
                ("0", "under 1a"),
            }
        )
        {
            if (key.Length > 0)
                browser.Press(key);
            browser.UntilText(next);
        }
        browser.Click("Leaf");
        browser.UntilText("Back to the key");
        void State(string character, string state) =>
            browser
                .Find($"section[aria-label='{character}']")
                .FindElements(OpenQA.Selenium.By.CssSelector("[aria-pressed]"))
                .Single(b => b.Text == state)
                .Click();
        State("division of the leaf", "lobed");
        State("depth of the lobes", "more than half-way");
        State("colour beneath the leaf", "green");
        browser.UntilText("3 seen");
        var field = browser.Find("section[aria-label='length of the leaf'] input");
        field.SendKeys("82 95 88 mm");
        browser.UntilText("n 3 · mean");
        Shoot(browser, "bench-evidence");
        field.SendKeys(OpenQA.Selenium.Keys.Enter);
        browser.UntilText("mean of 3");
        browser.Press(OpenQA.Selenium.Keys.Escape);
        // The sheet holds the other path for likelier, and says so; it doesn't jump there by itself.
        browser.Click("Go on there");
        browser.UntilText("By the evidence: Leaning");
        Shoot(browser, "bench-key");
        browser.Click("Keep it as it stands");
        browser.UntilText("kept as an open set");
        browser.Open("/records");
        browser.UntilText("Show older records");
        Shoot(browser, "records");
        browser.Open("/imports");
        browser.Type("Or paste a table", Notebook);
        browser.Click("Look at what is pasted");
        browser.UntilText("lines of lists");
        browser.UntilText("with a doubt");
        browser.Run("scrollTo(0,0)");
        Shoot(browser, "bring-records");
        browser.Open("/");
        browser.UntilText("In season at your places");
        browser.UntilText("In flower:");
        browser.UntilText("something to answer today");
        Shoot(browser, "today");
        browser.Open("/plants");
        browser.UntilText("Populations");
        browser.ClickLink("/plants/", "Lychnora bipartita");
        browser.UntilText("Evidence");
        browser.UntilText("underground part");
        Shoot(browser, "plant-year");
        browser.Open("/plants");
        browser.UntilText("Populations");
        browser.ClickLink("/populations/", "headland strip");
        browser.UntilText("What becomes of them");
        browser.Open("/seasons");
        browser.UntilText("can be named by what they show");
        browser.Find("main [role=combobox][aria-haspopup=listbox]").Click();
        browser.Click("Ossa Moor");
        browser.UntilText("days late");
        browser.UntilText("at Ossa Moor");
        Shoot(browser, "seasons");
        browser.Open("/visits");
        browser.UntilText("no fewer will do");
        Shoot(browser, "visits");
        browser.Open("/map?place=0197a1c0-5b00-7a11-9c3e-2f6f6b1d0a02");
        browser.UntilText("within its boundary");
        Shoot(browser, "map");
        browser.Run(
            "localStorage.setItem('garten.recorder','Ilse Marrin'); localStorage.setItem('garten.place','0197a1c0-5b00-7a11-9c3e-2f6f6b1d0a01')"
        );
        browser.Open("/site-visits");
        browser.Click("Begin a visit to Harrow Alder Wood");
        browser.UntilText("Seen here before, not yet today");
        foreach (var typed in new[] { "on cr o", "ca sc", "thaspi", "mi vi 12", "ve al f" })
        {
            browser.Find("input[role=combobox]").SendKeys(typed);
            browser.Until(() => browser.All("[role=option]").Count > 0, typed);
            browser.Find("input[role=combobox]").SendKeys(OpenQA.Selenium.Keys.Enter);
            browser.Until(() => browser.All("[role=option]").Count == 0, typed);
        }
        browser.UntilText("✓ Vellorna alata");
        Shoot(browser, "visit");
        browser.Run("localStorage.removeItem('garten.place')");
        browser.Open("/keys");
        browser.Click("A KEY TO THE GENERA");
        browser.UntilText("To choose:");
        browser.Run("document.querySelector('main p').scrollIntoView()");
        Shoot(browser, "key-reading");
        browser.Open("/flora/torvane/taxa/vellorna-alata");
        browser.UntilText("Know it by");
        Shoot(browser, "taxon-woody");
        browser.Open("/glossary");
        browser.UntilText("272 parts");
        browser.Click("leaf");
        browser.Click("attachment of the leaf");
        browser.UntilText("easily confused with clasping");
        browser.Run("scrollTo(0,0)");
        Shoot(browser, "glossary");
        browser.Open("/surveys");
        browser.Click("Plots at Lang Meadow");
        browser.UntilText("40 plots");
        browser.UntilText("due · until");
        Shoot(browser, "survey");
        browser.Click("Report");
        browser.UntilText("taxa were found on");
        Shoot(browser, "report");
        browser.Open("/bench");
        browser.Click("Identify by characters");
        browser.UntilText("Nothing seen yet");
        browser.Click("Change");
        browser.SetDate("input[type=date]", "2026-06-10");
        browser.Find("main [role=combobox][aria-haspopup=listbox]").Click();
        browser.Click("Lang Meadow");
        browser.Until(() => browser.All("[role=option]").Count == 0, "the chosen place");
        browser.Click("Close");
        browser.Click("Fruit");
        State("kind of fruit", "plumed achene");
        browser.Press(OpenQA.Selenium.Keys.Escape);
        browser.Click("Inflorescence");
        State("phyllaries", "in one row");
        browser.Press(OpenQA.Selenium.Keys.Escape);
        browser.UntilText("Crepessa laevis");
        browser.Run("scrollTo(0,0)");
        Shoot(browser, "sift");
        browser.Find("nav[aria-label='Ways to name the plant'] a[href$='/confirm']").Click();
        browser.UntilText("Is it really Crepessa laevis?");
        browser.UntilText("all of it");
        Shoot(browser, "confirm");
        browser.Find("nav[aria-label='Ways to name the plant'] a[href$='/sift']").Click();
        browser.UntilText("Shortlist");
        foreach (var name in new[] { "Crepessa laevis", "Crepessa hirsuta" })
        {
            if (browser.Control($"Shortlist: {name}").GetAttribute("aria-pressed") == "false")
                browser.Click($"Shortlist: {name}");
        }
        browser.Click("Contrast the");
        browser.UntilText("speaks for");
        browser.UntilText("Check now");
        browser.Run("scrollTo(0,0)");
        Shoot(browser, "contrast");
        browser.Size(390, 844, touch: true);
        browser.Open("/bench");
        browser.Tap("Follow Key to Carpessa");
        browser.UntilText("4 taxa");
        browser.Run("localStorage.setItem('garten.look','sun')");
        browser.Open(browser.Path);
        browser.UntilText("4 taxa");
        Shoot(browser, "bench-phone-sun");
    }
}
