using System.Globalization;
using Garten.Testing;
using OpenQA.Selenium;
using Xunit;

namespace Garten.Ui.Tests;

/// <summary>A phone is paired by a code, works, is taken out, keeps what it has, and is paired again.</summary>
public sealed class DeviceTests(GartenBeyond site) : IClassFixture<GartenBeyond>
{
    [Fact]
    public async Task APhoneIsPairedAndWhatItKeepsReachesTheServer()
    {
        var here = site.Browse();
        here.Open("/devices");
        here.UntilText("None yet.");
        here.ShouldBeAccessible();
        var code = ShowACode(here);
        here.ShouldBeAccessible();
        using var phone = new Browser(site.Beyond);
        phone.Size(390, 844);
        phone.Open("/plants");
        phone.UntilText("The server doesn’t know this device.");
        phone.Open($"/pair#{code}");
        phone.UntilText("What you call this device");
        phone.ShouldBeAccessible();
        phone.ShouldFitTheScreen();
        Pair(phone);
        phone.UntilText("is paired: the device of Runa Velt.");
        phone.Go("/plants");
        phone.UntilText("by the second footbridge");
        here.UntilText("Runa’s phone, Runa Velt");
        here.Click("Take out …: Runa’s phone");
        here.Click("Take it out");
        here.UntilText("may not come here any more");
        // Taken out it works on with what it has, and what it keeps waits.
        phone.Open("/plants");
        phone.UntilText("The server doesn’t know this device.");
        phone.UntilText("by the second footbridge");
        phone.Click("Tag a plant");
        phone.Click(phone.Find("main [role=combobox]"));
        phone.Click("Harrow Alder Wood");
        phone.Type("Tag", "tag of the phone");
        // Who paired it records with it.
        Assert.Equal("Runa Velt", phone.Find("[name=recorder]").GetAttribute("value"));
        phone.Click("Keep the tag");
        phone.UntilText("Waiting to be sent: 1.");
        var again = ShowACode(here);
        phone.Open($"/pair#{again}");
        phone.UntilText("What you call this device");
        Pair(phone);
        await site.UntilServedAsync("/api/v1/plants?text=tag%20of%20the", "tag of the phone");
        phone.Open("/hand");
        phone.UntilText("Nothing. What the server refuses");
    }

    private static void Pair(Browser phone)
    {
        phone.Type("What you call this device", Keys.Control + "a" + Keys.Null + "Runa’s phone");
        phone.Click("Pair it");
    }

    private static string ShowACode(Browser here)
    {
        here.Type("Whose device it is", "Runa Velt" + Keys.Escape);
        here.Click("Show a code");
        here.UntilText("Good once, until");
        return here.Find("[data-code]").Text;
    }
}

/// <summary>The same island, served over TLS too.</summary>
public sealed class GartenBeyond : GartenSite
{
    private static readonly int Port = FreePort.Find();
    private readonly DirectoryInfo _authority = Directory.CreateTempSubdirectory("garten-authority-");

    /// <summary>Where devices reach it.</summary>
    public Uri Beyond { get; } = new(string.Create(CultureInfo.InvariantCulture, $"https://127.0.0.2:{Port}"));

    protected override IReadOnlyDictionary<string, string> Settings =>
        new Dictionary<string, string>(StringComparer.Ordinal)
        {
            ["GARTEN_LISTEN"] = string.Create(CultureInfo.InvariantCulture, $"127.0.0.2:{Port}"),
            ["GARTEN_AUTHORITY"] = _authority.FullName,
        };
}
