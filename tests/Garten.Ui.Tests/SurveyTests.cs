using OpenQA.Selenium;
using Xunit;

namespace Garten.Ui.Tests;

/// <summary>A survey from its question to its report: plots laid by chance, recorded by keyboard, its figures, its sentences.</summary>
public sealed class SurveyTests(GartenSite site) : IClassFixture<GartenSite>
{
    private static void Choose(Browser browser, string label, string option)
    {
        var field = browser.Control(label);
        field.Click();
        browser.Until(() => browser.All("[role=option]").Any(o => o.Text.StartsWith(option, StringComparison.Ordinal)), option);
        browser.Click(browser.All("[role=option]").First(o => o.Text.StartsWith(option, StringComparison.Ordinal)));
        browser.Until(() => browser.All("[role=option]").Count == 0, "the chosen " + option);
    }

    private static IWebElement Entry(Browser browser) => browser.Find("input[role=combobox]");

    private static int Lines(Browser browser) => browser.All("ol[aria-label='In the plot'] > li").Count;

    [Fact]
    public void PlotsAreLaidRecordedAndAddUpToAReport()
    {
        var browser = site.Browse();
        browser.Open("/surveys");
        browser.Click("Begin a survey");
        browser.Click("Keep the survey");
        browser.UntilText("Give the survey a name.");
        browser.UntilText("Choose one place at least.");
        browser.Type("Name", "Alder plots");
        browser.Type("What it is to find out", "Do the boards keep the carr open?");
        browser.SetDate("input[name=from]", "2020-01-01");
        browser.SetDate("input[name=to]", "2099-12-31");
        browser.Type("Who answers for it", "Runa Velt");
        browser.Click(browser.All("main label").First(l => l.Text == "Harrow Alder Wood"));
        browser.Type("Taxa that are sought above all", "Nowhera rara");
        browser.Click(browser.All("main label").First(l => l.Text == "Plots are recorded"));
        browser.UntilText("Of each taxon is noted");
        browser.Type("Layers, with commas", "shrubs, herbs");
        browser.Type("Who works at it besides", "Tove Askling");
        browser.Click("Add a round");
        browser.Type("Round", "whole year");
        browser.Type("From (MM-DD)", "01-01");
        browser.Type("To (MM-DD)", "13-31");
        browser.ShouldBeAccessible();
        browser.Click("Keep the survey");
        browser.UntilText("whole year: give its first and last day as month and day");
        browser.Type("To (MM-DD)", string.Concat(Enumerable.Repeat(Keys.Backspace, 5)) + "12-31");
        browser.Click("Keep the survey");
        browser.UntilText("Do the boards keep the carr open?");
        browser.UntilText("with Tove Askling");
        browser.UntilText("The days that will do");
        browser.UntilText("neither found nor sought yet");

        browser.Click("Lay plots by chance");
        browser.UntilText("Throwing isn’t chance");
        browser.ShouldBeAccessible();
        browser.Click("Lay them");
        browser.UntilText("10 plots");
        browser.UntilText("1 of 11 done");
        var survey = browser.Path;
        browser.ShouldBeAccessible();
        browser.ClickLink(survey + "/plots/", "P1");
        browser.UntilText("No visit is open here today.");
        browser.Click("Begin one now");
        browser.UntilText("What grows in the layer herbs?");
        browser.Until(() => !browser.Text.Contains("No visit is open here today.", StringComparison.Ordinal), "the visit");
        // Two lines written faster than either is answered.
        Entry(browser).SendKeys("ve lo 12" + Keys.Enter + "sorpin 0,5" + Keys.Enter);
        browser.Until(() => Lines(browser) == 2, "both lines");
        // Without an amount it asks, and takes nothing.
        Entry(browser).SendKeys("on cr" + Keys.Enter);
        browser.UntilText("cover in per cent behind it");
        Assert.Equal(2, Lines(browser));
        Entry(browser).SendKeys(" 30" + Keys.Enter);
        browser.Until(() => Lines(browser) == 3, "the third line");
        browser.Type("herbs: cover, %", "70");
        browser.Type("herbs: height, cm", "40");
        browser.Type("Bare ground", "120");
        browser.Click("Keep it: 3 lines");
        browser.UntilText("Bare ground is 0 to 100 %.");
        browser.Type("Bare ground", Keys.Backspace + Keys.Backspace);
        browser.ShouldBeAccessible();
        browser.Click("Keep it: 3 lines");
        browser.UntilText("What was recorded");
        browser.UntilText("30 %");
        browser.UntilText("70 %, 40 cm high");
        browser.UntilText("Recorded by Runa Velt on this visit already");

        browser.Go(survey + "/figures");
        browser.UntilText("How constant each taxon is");
        browser.UntilText("V 1 of 1");
        browser.ShouldBeAccessible();
        browser.UntilText("permanent plots, recorded twice, see it");
        browser.UntilText("What they say of the ground");
        browser.UntilText("two always lie on a line");
        browser.Go(survey + "/figures?from=lists");
        browser.UntilText("Missed, or gone?");
        browser.UntilText("gone and missed look alike");
        browser.UntilText("Whether more would find more");
        browser.UntilText("By habitat, after the flora");
        browser.ShouldBeAccessible();
        Choose(browser, "The other survey", "Five places");
        browser.UntilText("They share places");
        Choose(browser, "Compared", "by clusters");
        browser.UntilText("its p proves nothing");
        browser.ShouldBeAccessible();
        browser.Go(survey);
        browser.UntilText("2 of 11 done");
        browser.Click("Report");
        browser.UntilText("taxa were found");
        browser.ShouldBeAccessible();
        browser.Click("Change the sentence: do");
        browser.Type("In your own words", "Lift the boards in March.");
        browser.Click("Keep the sentence");
        browser.UntilText("Lift the boards in March.");
        browser.Type("For whom", "the holder of the wood");
        browser.Click("Keep this version");
        browser.UntilText("Version 1 for the holder of the wood");
        browser.ShouldHaveNoErrors();
    }
}
