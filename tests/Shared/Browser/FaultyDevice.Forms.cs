using OpenQA.Selenium;

namespace Garten.Testing;

/// <content>What a person does on it through the pages: a plant's visit, the list of a visit.</content>
public sealed partial class FaultyDevice
{
    /// <summary>Visits a plant through its form; false where the page didn't say that the visit is kept.</summary>
    public bool VisitByForm(Guid plant, string note)
    {
        try
        {
            Go($"/plants/{plant}/visit");
            Until(() => _driver!.FindElements(By.CssSelector("[aria-label^='State: alive']")).Count > 0, "the form", FormPatience);
            _driver!.FindElement(By.CssSelector("[aria-label^='State: alive']")).Click();
            var recorder = Field("Recorder");
            if (recorder.GetAttribute("value") == "")
                recorder.SendKeys("Ilse Marrin");
            Field("Note").SendKeys(note);
            _driver.FindElement(By.CssSelector("button[type=submit]")).Click();
            // The page leaves the form for the plant when it is kept, here or there. Somewhere else it is where the tab has crashed.
            Until(() => _driver.Url == new Uri(_server, $"/plants/{plant}").ToString(), "the form to close", FormPatience);
            return true;
        }
        catch (Exception gone) when (IsGone(gone))
        {
            return false;
        }
    }

    /// <summary>Opens the list of a visit; false where it didn't come.</summary>
    public bool OpenList(Guid visit)
    {
        try
        {
            Go($"/site-visits/{visit}");
            Until(() => _driver!.FindElements(By.CssSelector(Line)).Count > 0, "the line at which the list is written", FormPatience);
            return true;
        }
        catch (Exception gone) when (IsGone(gone))
        {
            return false;
        }
    }

    /// <summary>Writes a line; false where the list didn't show it with its count.</summary>
    public bool List(string typed, string count)
    {
        try
        {
            Set(Line, typed);
            _driver!.FindElement(By.CssSelector(Line)).SendKeys(Keys.Enter);
            Until(() => Listed([count]).Count > 0, "the line on the list", FormPatience);
            return true;
        }
        catch (Exception gone) when (IsGone(gone))
        {
            return false;
        }
    }

    /// <summary>Pastes a list, has it read and puts it on the list of the visit; the counts of the lines that stand there then.</summary>
    /// <param name="taxa">Of each line its taxon, by its count.</param>
    /// <param name="stop">Ends the waiting.</param>
    public IReadOnlyList<string> Paste(IReadOnlyDictionary<string, string> taxa, CancellationToken stop)
    {
        List<string> kept = [];
        try
        {
            Press("Paste a list");
            Until(() => _driver!.FindElements(By.CssSelector(Pasted)).Count > 0, "where a list is pasted", FormPatience);
            Set(Pasted, string.Join('\n', taxa.Select(t => $"{t.Value} {t.Key}")));
            Press("Show how it is read");
            Press("Put ");
            Until(
                () =>
                {
                    kept = Listed(taxa.Keys);
                    return kept.Count == taxa.Count || stop.IsCancellationRequested;
                },
                "all that was pasted on the list",
                FormPatience
            );
        }
        catch (Exception gone) when (IsGone(gone))
        {
            // What was seen on the list before it went is kept.
        }
        return kept;
    }

    // A button whose words begin so, when it is there.
    private void Press(string begins) =>
        Until(
            () =>
            {
                var button = _driver!
                    .FindElements(By.CssSelector("main button"))
                    .FirstOrDefault(b => b.Text.StartsWith(begins, StringComparison.Ordinal) && b.Enabled);
                button?.Click();
                return button is not null;
            },
            begins,
            FormPatience
        );

    // What is typed in one stroke, as a hand's paste does.
    private void Set(string field, string text) =>
        _driver!.ExecuteScript(
            "const f=document.querySelector(arguments[0]),p=f.tagName==='INPUT'?HTMLInputElement:HTMLTextAreaElement;Object.getOwnPropertyDescriptor(p.prototype,'value').set.call(f,arguments[1]);f.dispatchEvent(new Event('input',{bubbles:true}))",
            field,
            text
        );

    private const string Pasted = "main textarea:not([aria-hidden])";
    private const string Line = "input[role=combobox][placeholder='ve al']";

    // What a list shows is kept: it is made of what the page's store holds.
    private const string ThoseListed = """
        const lines=[...document.querySelectorAll("ol[aria-label='The list'] > li")].map(l=>l.textContent.replace(/[\s,.]/g,''));
        return arguments[0].filter(c=>lines.some(l=>l.includes(c)));
        """;

    // Those of some counts that the list shows.
    private List<string> Listed(IEnumerable<string> counts) =>
        [.. ((System.Collections.IEnumerable)_driver!.ExecuteScript(ThoseListed, (object)counts.ToArray())!).Cast<string>()];

    // As a link within the application leads there: nothing is loaded anew.
    private void Go(string path) =>
        _driver!.ExecuteScript("history.pushState(null,'',arguments[0]);dispatchEvent(new PopStateEvent('popstate'))", path);

    // What the driver says of a browser, or a form, that isn't there any more.
    internal static bool IsGone(Exception it) =>
        it is WebDriverException or NullReferenceException or ObjectDisposedException or HttpRequestException or TimeoutException;

    private IWebElement Field(string label)
    {
        var of = _driver!.FindElement(By.XPath($"//label[starts-with(normalize-space(.),'{label}')]")).GetAttribute("for")!;
        return _driver.FindElement(By.Id(of));
    }
}
